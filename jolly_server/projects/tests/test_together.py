"""Several people at once: no edit lost, none half done, each told what it must show."""

from __future__ import annotations

import json
import threading
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.db import connection
from django.test import Client, TransactionTestCase

from jolly_server.demo.services import seed
from jolly_server.projects.models import JournalEntry
from jolly_server.projects.store import forget, load_rows, loaded
from jolly_server.projects.versions import difference
from jolly_server.testing import KILN, DemoCase

EACH = 12


class AtOnce(TransactionTestCase):
    """Two people edit from two threads."""

    def test_no_edit_is_lost_and_revisions_have_no_gap(self) -> None:
        forget()
        seed(settings.JOLLY.demo_files)
        sheet = next(s.id for s in load_rows(KILN).sheets.values() if s.number == "30")
        answers: list[tuple[int, Any]] = []

        def work(name: str) -> None:
            client = Client()
            client.force_login(get_user_model().objects.get(username=name))
            for number in range(EACH):
                edit = {"kind": "place-note", "sheet_id": sheet, "x": 20, "y": 70, "text": f"{name} {number}"}
                response = client.post(f"/api/projects/{KILN}/edits", {"edit": edit}, content_type="application/json")
                answers.append((response.status_code, response.json()))
            connection.close()

        threads = [threading.Thread(target=work, args=(name,)) for name in ("anna", "jory")]
        for t in threads:
            t.start()
        for t in threads:
            t.join()
        self.assertEqual({status for status, _ in answers}, {200})
        self.assertEqual(sorted(a["revision"] for _, a in answers), list(range(1, 2 * EACH + 1)))
        stored = load_rows(KILN)
        self.assertEqual(len([n for n in stored.notes.values() if n.text.split(" ")[0] in ("anna", "jory")]), 2 * EACH)
        self.assertEqual(list(loaded(KILN).project.entities()), list(stored.entities()))
        revisions = list(
            JournalEntry.objects.filter(project_id=KILN).order_by("revision").values_list("revision", flat=True)
        )
        self.assertEqual(revisions, list(range(1, 2 * EACH + 1)))


class Views(DemoCase):
    def view(self, since: int, sheet: str) -> Any:
        return self.anna.get(f"/api/projects/{KILN}/changes?since={since}&sheet_id={sheet}").json()

    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")

    def test_differences_add_up_to_the_whole(self) -> None:
        sheet = self.sheet("30")
        shown = self.anna.get(f"/api/projects/{KILN}/sheets/{sheet}/view").json()["view"]["put"]
        revision = 0
        coil = next(s.id for s in self.stored().symbols.values() if s.definition == "coil")
        edits: list[dict[str, Any]] = [
            {"kind": "set-tag", "device_id": self.device("QA"), "tag": "QA7"},
            {"kind": "move-selection", "ids": [coil], "dx": -4, "dy": 0},
            {"kind": "place-symbol", "sheet_id": sheet, "definition": "lamp", "x": 40, "y": 61},
            {"kind": "delete-selection", "ids": [coil]},
        ]
        for edit in edits:
            self.accepted(self.anna, **edit)
            news = self.view(revision, sheet)
            self.assertFalse(news["view"]["whole"], edit["kind"])
            revision = news["revision"]
            for section, values in news["view"]["put"].items():
                shown[section].update(values)
            for section, ids in news["view"]["drop"].items():
                for id in ids:
                    del shown[section][id]
        forget()
        whole = self.anna.get(f"/api/projects/{KILN}/sheets/{sheet}/view").json()["view"]["put"]
        self.assertEqual(json.dumps(shown, sort_keys=True), json.dumps(whole, sort_keys=True))

    def test_an_edit_on_another_sheet_shows_where_it_is_referred_to(self) -> None:
        power = self.sheet("10")
        self.view(0, power)
        self.anna.get(f"/api/projects/{KILN}/sheets/{power}/view")
        coil = next(s.id for s in self.stored().symbols.values() if s.definition == "coil")
        self.accepted(self.anna, kind="move-selection", ids=[coil], dx=0, dy=9 * 5, allow_join=True)
        news = self.view(0, power)
        texts = [p["words"] for i in news["view"]["put"]["items"].values() for p in i["prims"] if p["kind"] == "text"]
        self.assertIn("30.306", texts)

    def test_a_sheet_that_was_deleted_is_said_to_be_gone(self) -> None:
        sheet = self.sheet("30")
        self.accepted(self.person("jory"), kind="delete-sheet", sheet_id=sheet)
        news = self.view(0, sheet)
        self.assertEqual((news["sheet_gone"], news["view"]), (True, None))
        back = self.post(self.person("jory"), f"/projects/{KILN}/undo", {"sheet_id": "", "since": -1})
        self.assertEqual(back.status_code, 200)
        self.assertFalse(self.view(1, sheet)["sheet_gone"])

    def test_a_revision_no_longer_kept_gives_everything(self) -> None:
        sheet = self.sheet("30")
        self.accepted(self.anna, kind="set-tag", device_id=self.device("QA"), tag="QA7")
        self.assertTrue(self.view(-1, sheet)["view"]["whole"])

    def test_no_news_is_no_view(self) -> None:
        self.assertIsNone(self.view(0, self.sheet("30"))["view"])

    def test_the_difference_of_equal_views_is_empty(self) -> None:
        view = {"items": {"a": {"x": 1}}, "wires": {}}
        self.assertEqual(difference(view, view), {"whole": False, "put": {}, "drop": {}})
        self.assertEqual(difference(view, {"items": {}, "wires": {}})["drop"], {"items": ["a"]})


class Inspecting(DemoCase):
    def test_offers_over_http_hold_units_symbols_and_parts(self) -> None:
        anna = self.person("anna")
        sheet = self.sheet("30")

        def ask(words: str) -> list[dict[str, Any]]:
            rows: list[dict[str, Any]] = anna.get(
                f"/api/projects/{KILN}/offers", {"q": words, "sheet_id": sheet}
            ).json()
            return rows

        self.assertEqual((ask("no")[0]["tag"], ask("no")[0]["note"]), ("-QA1", "43-44, at 30.301"))
        self.assertEqual((ask("tw-l22-g")[0]["definition"], ask("tw-l22-g")[0]["note"]), ("lamp", "TW-L22-G"))
        self.assertEqual([o["text"] for o in ask("cont")][:4], ["0 V", "0 V aux", "24 V", "24 V aux"])
        self.assertEqual(ask("xyzzy"), [])

    def test_a_card_knows_what_a_part_must_have(self) -> None:
        card = self.person("anna").get(f"/api/projects/{KILN}/devices/{self.device('QA')}").json()
        self.assertEqual(card["needs"], {"coil": 1, "no": 2, "nc": 1, "pole": 3})
        free = [u for u in card["units"] if not u["symbol_id"]]
        self.assertEqual([(u["pins"], u["definition"]) for u in free], [("43-44", "contact-no")])
        strip = self.person("anna").get(f"/api/projects/{KILN}/devices/{self.device('XD')}").json()
        self.assertEqual((strip["needs"], len(strip["units"])), ({}, 8))

    def test_candidates_name_pins_and_place(self) -> None:
        query = {"definition": "contact-no", "sheet_id": self.sheet("30")}
        rows = self.person("anna").get(f"/api/projects/{KILN}/candidates", query).json()
        self.assertEqual((rows[0]["tag"], rows[0]["pins"], rows[0]["place"]), ("-QA1", "43-44", "30.301"))

    def test_what_is_not_there(self) -> None:
        anna = self.person("anna")
        for path in ("devices/zz", "where/zz"):
            response = anna.get(f"/api/projects/{KILN}/{path}")
            self.assertEqual((response.status_code, response.json()["code"]), (404, "gone"), path)
        self.assertTrue(anna.get(f"/api/projects/{KILN}/sheets/zz/view").json()["sheet_gone"])
        self.assertEqual(anna.get(f"/api/projects/{KILN}/find", {"q": " "}).json(), [])
