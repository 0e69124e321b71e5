"""Sheets as a table, title blocks, the library's blocks and pictures over HTTP; finding."""

from __future__ import annotations

from typing import Any

from jolly_core.testing import DEMO_SHEETS
from jolly_server.library.models import LibraryTitleBlock
from jolly_server.testing import KILN, DemoCase


class Titling(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")

    def blocks(self, **query: str) -> Any:
        return self.anna.get(f"/api/projects/{KILN}/title-blocks", query).json()

    def test_the_table_has_every_sheet_with_what_it_may_be(self) -> None:
        table = self.anna.get(f"/api/projects/{KILN}/sheets").json()
        self.assertEqual([s["number"] for s in table["sheets"]], DEMO_SHEETS)
        self.assertIn("ANSI E", table["sizes"])
        self.assertIn("Order number", table["own_fields"])
        self.assertEqual({k["id"] for k in table["kinds"] if k["subject"]}, set(table["subjects"]))
        self.assertEqual([s["name"] for s in table["subjects"]["form-board"]], ["WH-T1", "WH-T2"])

    def test_a_preview_of_numbering_again_changes_nothing_and_lists_what_would(self) -> None:
        body = {"edit": {"kind": "number-sheets", "start": 100}, "sheet_id": "", "since": -1}
        answer = self.post(self.anna, f"/projects/{KILN}/preview", body).json()
        self.assertEqual([row[:2] for row in answer["table"]][:2], [["1", "100"], ["2", "101"]])
        self.assertIn("wire numbers", answer["table"][3][3])
        self.assertEqual(self.anna.get(f"/api/projects/{KILN}").json()["revision"], 0)

    def test_a_block_as_it_looks_on_a_sheet(self) -> None:
        own = self.blocks(sheet_id=self.sheet("30"))
        self.assertEqual(own["block"]["name"], "Pellwick, metric")
        texts = [p["words"] for i in own["scene"]["items"] for p in i["prims"] if p["kind"] == "text"]
        self.assertIn("Loading auger, control", texts)
        self.assertIn("PO 88-1204", texts)
        self.assertEqual(own["project"][0]["used"], "the project")
        self.assertEqual(self.blocks(block="ansi")["block"]["name"], "ANSI, 6.5 x 1.5 in")
        gone = self.anna.get(f"/api/projects/{KILN}/title-blocks", {"block": "gone"})
        self.assertEqual(gone.status_code, 404)

    def test_kept_in_the_library_and_taken_into_another_project(self) -> None:
        block = self.blocks()["block"]["id"]
        for _ in range(2):  # the second time it takes the place of the first
            kept = self.post(self.anna, f"/projects/{KILN}/title-blocks/keep", {"block_id": block}).json()
        self.assertEqual([k["name"] for k in kept], ["Pellwick, metric"])
        self.assertEqual(LibraryTitleBlock.objects.count(), 1)
        other = "dehumidifier"
        taken = self.accepted(self.anna, other, kind="take-title-block", block=kept[0]["id"])["placed"][0]
        self.accepted(self.anna, other, kind="change-settings", title_block_id=taken)
        project = self.stored(other)
        self.assertEqual([p.name for p in project.pictures.values()], ["Pellwick mark"])
        self.assertEqual(project.settings.own_fields, {"Order number": ""})
        refused = self.post(self.anna, f"/projects/{KILN}/title-blocks/keep", {"block_id": "metric"})
        self.assertEqual(refused.status_code, 422)

    def test_pictures_come_as_they_were_and_may_be_kept_by_the_browser(self) -> None:
        (picture,) = self.stored().pictures
        response = self.anna.get(f"/api/projects/{KILN}/pictures/{picture}")
        self.assertEqual(response["Content-Type"], "image/png")
        self.assertEqual(response.content[:4], b"\x89PNG")
        self.assertIn("immutable", response["Cache-Control"])
        self.assertEqual(self.anna.get(f"/api/projects/{KILN}/pictures/none").status_code, 404)

    def test_a_made_sheet_is_a_view_that_is_not_drawn_on(self) -> None:
        contents = self.sheet("2")
        view = self.anna.get(f"/api/projects/{KILN}/sheets/{contents}/view").json()["view"]["put"]
        self.assertTrue(view["sheet"]["sheet"]["made"])
        links = [p["link"] for i in view["items"].values() for p in i["prims"] if p["kind"] == "text" and p["link"]]
        self.assertIn(self.sheet("30"), links)
        where = self.anna.get(f"/api/projects/{KILN}/where/{self.sheet('30')}").json()
        self.assertEqual(where, {"sheet_id": self.sheet("30")})
        refused = self.edit(self.anna, kind="place-note", sheet_id=contents, x=10, y=10, text="x")
        self.assertEqual(refused.status_code, 422)

    def test_it_is_kept_current_by_what_changes_elsewhere(self) -> None:
        contents = self.sheet("2")
        self.anna.get(f"/api/projects/{KILN}/sheets/{contents}/view")
        self.accepted(self.person("jory"), kind="change-sheet", sheet_id=self.sheet("30"), title="Auger, control")
        news = self.anna.get(f"/api/projects/{KILN}/changes?since=0&sheet_id={contents}").json()
        texts = [p["words"] for i in news["view"]["put"]["items"].values() for p in i["prims"] if p["kind"] == "text"]
        self.assertIn("Auger, control", texts)

    def test_finding_reaches_the_library_too(self) -> None:
        found = self.anna.get(f"/api/projects/{KILN}/find", {"q": "overload"}).json()
        kinds = {f["kind"] for f in found}
        self.assertIn("library", kinds)
        self.assertEqual(len({f["label"] for f in found}), len(found), "nothing is listed twice")
