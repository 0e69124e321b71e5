"""The stand-in catalogue: enough parts, complete, each with a picture; its door answers or says what to ask."""

from __future__ import annotations

import json
import threading
from unittest import TestCase
from urllib.error import HTTPError
from urllib.request import ProxyHandler, build_opener
from xml.etree import ElementTree

from jolly_core.library import check_part, missing
from jolly_core.model import from_record
from jolly_core.testing import HANGS_S
from jolly_server.standins.catalogue import CatalogueService, serve
from jolly_server.standins.catalogue_pictures import picture


class Parts(TestCase):
    def test_about_three_hundred_parts_of_several_makers_lack_nothing(self) -> None:
        offers = CatalogueService().offers
        self.assertTrue(280 <= len(offers) <= 330)
        self.assertGreaterEqual(len({o["maker"] for o in offers.values()}), 4)
        self.assertEqual(len({(o["maker"], o["number"]) for o in offers.values()}), len(offers))
        for offer in offers.values():
            part = check_part(from_record("part", offer))
            self.assertEqual(missing(part), {}, part.number)

    def test_every_part_has_a_picture_that_is_well_formed(self) -> None:
        for offer in CatalogueService().offers.values():
            root = ElementTree.fromstring(picture(offer))
            self.assertEqual(root.get("viewBox"), "0 0 160 120")
            self.assertGreater(len(list(root)), 1, offer["id"])


class Door(TestCase):
    def setUp(self) -> None:
        server = serve(CatalogueService(), 0)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        self.address = f"http://127.0.0.1:{server.server_port}"

    def get(self, path: str) -> tuple[int, bytes]:
        try:
            with build_opener(ProxyHandler({})).open(self.address + path, timeout=HANGS_S) as answer:
                return answer.status, answer.read()
        except HTTPError as error:
            with error:
                return error.code, error.read()

    def test_pages_counts_and_single_parts(self) -> None:
        status, body = self.get("/parts?q=relay&from=2&count=3")
        found = json.loads(body)
        self.assertEqual((status, len(found["parts"])), (200, 3))
        self.assertEqual(sum(found["makers"].values()), found["total"])
        id = found["parts"][0]["id"]
        self.assertEqual(json.loads(self.get(f"/parts/{id}")[1])["id"], id)
        self.assertTrue(self.get(f"/pictures/{id}.svg")[1].startswith(b"<svg"))
        self.assertEqual(json.loads(self.get("/status")[1])["parts"], len(CatalogueService().offers))

    def test_anything_else_is_answered_with_what_to_ask(self) -> None:
        for path, status in (("/parts/none", 404), ("/pictures/none.svg", 404), ("/", 404), ("/parts?from=x", 400)):
            self.assertEqual(self.get(path)[0], status, path)
