"""The makers' catalogue: looked through, compared, taken in with pictures; away, damaged, gone."""

from __future__ import annotations

import threading
from dataclasses import replace

from django.conf import settings
from django.test import override_settings

from jolly_server.library.models import LibraryFile, LibraryPart
from jolly_server.library.search import search
from jolly_server.standins.catalogue import CatalogueService, serve
from jolly_server.testing import DemoCase

NOBODY = "http://127.0.0.1:9"  # the discard port: nothing answers there


class Catalogue(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")
        self.service = CatalogueService()
        server = serve(self.service, 0)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        self.at(f"http://127.0.0.1:{server.server_port}")

    def at(self, address: str) -> None:
        changed = override_settings(JOLLY=replace(settings.JOLLY, catalogue=address))
        changed.enable()
        self.addCleanup(changed.disable)

    def test_words_class_and_maker_narrow_it_and_say_how_many(self) -> None:
        every = self.anna.get("/api/library/catalogue").json()
        self.assertEqual(every["total"], len(self.service.offers))
        self.assertEqual(len(every["parts"]), 40)
        self.assertEqual(sum(m["count"] for m in every["makers"]), every["total"])
        found = self.anna.get("/api/library/catalogue", {"q": "24 dc", "part_class_key": "contactor"}).json()
        self.assertEqual({p["class_name"] for p in found["parts"]}, {"Contactor"})
        self.assertIn(["Coil voltage", "24 V"], found["parts"][0]["said"])
        later = self.anna.get("/api/library/catalogue", {"start": 280}).json()
        self.assertEqual(len(later["parts"]), every["total"] - 280)
        self.assertEqual(self.anna.get("/api/library/catalogue", {"q": "no such part"}).json()["total"], 0)

    def test_compared_up_to_four(self) -> None:
        ids = ["fenwold-fk09-24d", "fenwold-fk12-24d"]
        answer = self.post(self.anna, "/library/catalogue/compare", {"ids": ids}).json()
        rows = {r["field"]: r for r in answer["rows"]}
        self.assertEqual(rows["Motor load, AC-3, A"]["values"], ["9", "12"])
        self.assertFalse(rows["Coil voltage, V"]["differs"])
        five = list(self.service.offers)[:5]
        self.assertEqual(self.post(self.anna, "/library/catalogue/compare", {"ids": five}).status_code, 422)

    def test_taken_in_with_pictures_and_then_known_as_there(self) -> None:
        ids = ["fenwold-fk09-24d", "quillon-qd3g0v5"]
        taken = self.post(self.anna, "/library/catalogue/take", {"ids": ids, "shelf": "house"})
        self.assertEqual(taken.json(), 2)
        self.assertEqual([m.part.number for m in search("fk09-24d")], ["FK09-24D"])
        part = LibraryPart.objects.get(number="FK09-24D")
        shown = self.anna.get(f"/api/library/files/{part.picture}")
        self.assertEqual(shown.headers["Content-Type"], "image/svg+xml")
        self.assertIn("sandbox", shown.headers["Content-Security-Policy"])
        card = next(
            p for p in self.anna.get("/api/library/catalogue", {"q": "fk09-24d"}).json()["parts"] if p["id"] == ids[0]
        )
        self.assertTrue(card["there"])
        # The maker changes it: taken again, the part is brought up and keeps its id.
        self.service.offers[ids[0]]["price"] = 99.0
        self.post(self.anna, "/library/catalogue/take", {"ids": ids[:1], "shelf": "house"})
        again = LibraryPart.objects.get(number="FK09-24D")
        self.assertEqual((again.pk, again.price, again.version), (part.pk, 99.0, 2))

    def test_one_that_is_gone_takes_none_in(self) -> None:
        before = LibraryPart.objects.count()
        answer = self.post(self.anna, "/library/catalogue/take", {"ids": ["fenwold-fk09-24d", "no"], "shelf": "house"})
        self.assertIn("no longer in the catalogue", answer.json()["message"])
        self.assertEqual((LibraryPart.objects.count(), LibraryFile.objects.count()), (before, 0))
        self.assertEqual(self.anna.get("/api/library/catalogue/picture/none").status_code, 404)

    def test_away_it_says_where_to_look(self) -> None:
        self.at(NOBODY)
        answer = self.anna.get("/api/library/catalogue")
        self.assertEqual(answer.status_code, 422)
        self.assertIn(f"Look whether it runs at {NOBODY}", answer.json()["message"])
