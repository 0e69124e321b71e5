"""The journal: finding edits, the sheet before and after, taking one back."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any

from jolly_server.projects.models import JournalEntry
from jolly_server.testing import KILN, DemoCase


class Journal(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna, self.jory = self.person("anna"), self.person("jory")
        self.lamp = self.placed(
            self.anna, kind="place-symbol", sheet_id=self.sheet("30"), definition="lamp", x=50, y=61, rotation=0
        )
        self.note = self.placed(self.jory, kind="place-note", sheet_id=self.sheet("10"), x=20, y=70, text="Lock out")
        self.accepted(self.anna, kind="change-settings", site="Kiln house")

    def placed(self, client: Any, **edit: Any) -> str:
        return str(self.accepted(client, **edit)["placed"][0])

    def labels(self, **query: str) -> list[str]:
        lines = self.person("vera").get(f"/api/projects/{KILN}/journal", query).json()
        return [line["label"] for line in lines]

    def detail(self, revision: int) -> Any:
        return self.anna.get(f"/api/projects/{KILN}/journal/{revision}").json()

    def take_back(self, client: Any, revision: int) -> Any:
        return self.post(client, f"/projects/{KILN}/journal/{revision}/take-back", {})

    def test_by_person_sheet_object_words_and_time(self) -> None:
        everything = ["change project settings", "place a note", "place -PF4"]
        everything[2] = self.labels()[2]
        self.assertEqual(self.labels(), everything)
        self.assertEqual(self.labels(who="jory"), ["place a note"])
        self.assertEqual(self.labels(sheet_id=self.sheet("10")), ["place a note"])
        self.assertEqual(self.labels(sheet_id=self.sheet("30")), everything[2:])
        self.assertEqual(self.labels(object_id=self.note), ["place a note"])
        self.assertEqual(self.labels(words="NOTE place"), ["place a note"])
        self.assertEqual(self.labels(before="2"), everything[2:])
        hour = timedelta(hours=1)
        now = datetime.now(UTC)
        self.assertEqual(self.labels(since=(now + hour).isoformat()), [])
        self.assertEqual(self.labels(until=(now - hour).isoformat()), [])
        self.assertEqual(self.labels(since=(now - hour).isoformat(), until=(now + hour).isoformat()), everything)

    def test_a_line_says_who_did_what_to_which_things(self) -> None:
        line = self.anna.get(f"/api/projects/{KILN}/journal").json()[1]
        self.assertEqual((line["who"], line["act"], line["live"]), ("Jory Brand", "edit", True))
        self.assertEqual([(o["kind"], o["sheet_id"]) for o in line["objects"]], [("note", self.sheet("10"))])

    def test_one_opened_tells_each_change_and_shows_the_sheet_before_and_after(self) -> None:
        self.accepted(self.jory, kind="move-selection", ids=[self.lamp], dx=0, dy=4)
        self.accepted(self.jory, kind="delete-selection", ids=[self.lamp])
        told = self.detail(4)
        self.assertEqual(told["changes"][0]["fields"], [["down", "61", "65"]])
        then = self.anna.get(f"/api/projects/{KILN}/journal/4/sheets/{self.sheet('30')}").json()

        def height(scene: Any) -> float:
            item = next(i for i in scene["items"] if i["id"] == self.lamp)
            return float(item["facts"]["body"][1])

        self.assertAlmostEqual(height(then["after"]) - height(then["before"]), 10.0)
        self.assertEqual(then["changed"], [self.lamp])
        self.assert_memory_is_stored()

    def test_a_sheet_that_was_not_there_yet(self) -> None:
        sheet = self.placed(self.anna, kind="add-sheet", number="77")
        then = self.anna.get(f"/api/projects/{KILN}/journal/4/sheets/{sheet}").json()
        self.assertIsNone(then["before"])
        self.assertIsNotNone(then["after"])

    def test_any_editor_takes_an_edit_back_that_nothing_depends_on(self) -> None:
        self.assertTrue(self.detail(2)["can"])
        self.assertEqual(self.take_back(self.anna, 2).json(), {"revision": 4})
        self.assertNotIn(self.note, self.stored().notes)
        told = self.detail(2)
        self.assertEqual((told["live"], told["can"]), (False, False))
        self.assertEqual(self.take_back(self.anna, 2).status_code, 422, "not twice")
        entry = JournalEntry.objects.get(project_id=KILN, revision=4)
        self.assertEqual((entry.act, entry.label), ("undo", "place a note"))
        undo = self.post(self.jory, f"/projects/{KILN}/undo", {})
        self.assertEqual(undo.status_code, 422, "it is no longer Jory's to undo")
        self.assertEqual(self.post(self.anna, f"/projects/{KILN}/redo", {}).status_code, 200)
        self.assertIn(self.note, self.stored().notes)

    def test_what_depends_on_an_edit_is_shown_and_named(self) -> None:
        self.accepted(self.jory, kind="move-selection", ids=[self.lamp], dx=0, dy=4)
        told = self.detail(1)
        self.assertFalse(told["can"])
        self.assertEqual([line["revision"] for line in told["later"]], [4])
        before = list(self.stored().entities())
        refused = self.take_back(self.anna, 1)
        self.assertEqual(refused.status_code, 409)
        self.assertIn(told["later"][0]["label"], refused.json()["message"])
        self.assertEqual(list(self.stored().entities()), before)
        self.assertEqual(self.take_back(self.anna, 4).status_code, 200)
        self.assertEqual(self.take_back(self.anna, 1).status_code, 200)
        self.assertNotIn(self.lamp, self.stored().symbols)
        self.assert_memory_is_stored()

    def test_an_edit_that_never_was(self) -> None:
        self.assertEqual(self.anna.get(f"/api/projects/{KILN}/journal/99").status_code, 404)
        self.assertEqual(self.take_back(self.anna, 99).status_code, 404)

    def test_every_sheet_of_the_past_is_as_it_was(self) -> None:
        """Edits of several kinds, and undo between them; afterwards each is looked at, the last first."""
        sheet = self.sheet("30")
        shown: dict[int, Any] = {3: self.scene(sheet)}
        coil = self.device("QA")
        acts: list[dict[str, Any]] = [
            {"kind": "set-text", "device_id": coil, "text": "Auger on"},
            {"kind": "change-sheet", "sheet_id": sheet, "title": "Auger", "first_line": 401},
            {"kind": "change-settings", "name": "Kiln two"},
            {"kind": "draw-wire", "sheet_id": sheet, "points": [[14, 61], [50, 61]], "wire_type_id": self.type()},
            {"kind": "add-sheet", "number": "61", "after_id": sheet},
            {"kind": "set-tag", "device_id": coil, "tag": "QA9"},
            {"kind": "move-selection", "ids": [self.lamp], "dx": 3, "dy": 0},
        ]
        for n, edit in enumerate(acts, start=4):
            self.accepted(self.anna, **edit)
            shown[n] = self.scene(sheet)
        for n in (11, 12):
            self.post(self.anna, f"/projects/{KILN}/undo", {})
            shown[n] = self.scene(sheet)
        for revision in sorted(shown, reverse=True):
            if revision > 3:
                then = self.anna.get(f"/api/projects/{KILN}/journal/{revision}/sheets/{sheet}").json()
                self.assertEqual(self.items(then["after"]), shown[revision], f"after edit {revision}")
                self.assertEqual(self.items(then["before"]), shown[revision - 1], f"before edit {revision}")
        self.assert_memory_is_stored()

    def type(self) -> str:
        return next(iter(self.stored().wire_types))

    def scene(self, sheet: str) -> Any:
        view = self.anna.get(f"/api/projects/{KILN}/sheets/{sheet}/view").json()["view"]["put"]["items"]
        return {id: (item["kind"], item["prims"]) for id, item in view.items()}

    def items(self, scene: Any) -> Any:
        return {item["id"]: (item["kind"], item["prims"]) for item in scene["items"]}
