"""Edits over HTTP: stored, journalled, previewed, undone, seen by others."""

from __future__ import annotations

import json
from typing import Any

from jolly_server.projects.models import JournalEntry
from jolly_server.testing import KILN, DemoCase


class Editing(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")
        self.jory = self.person("jory")

    def test_an_edit_is_stored_with_its_journal_entry(self) -> None:
        answer = self.accepted(self.anna, kind="set-text", device_id=self.device("QA"), text="Auger forward")
        self.assertEqual(answer["revision"], 1)
        self.assertEqual(self.stored().devices[self.device("QA")].text, "Auger forward")
        entry = JournalEntry.objects.get(project_id=KILN, revision=1)
        self.assertEqual((entry.user.username if entry.user else "", entry.label), ("anna", "text of -QA1"))
        (change,) = json.loads(entry.changes)
        self.assertEqual((change["before"]["text"], change["after"]["text"]), ("Auger run", "Auger forward"))
        self.assert_memory_is_stored()

    def test_an_edit_answers_with_what_changed_on_the_sheet_shown(self) -> None:
        sheet = self.sheet("30")
        view = self.anna.get(f"/api/projects/{KILN}/sheets/{sheet}/view").json()
        self.assertTrue(view["view"]["whole"])
        edit = {"kind": "place-symbol", "sheet_id": sheet, "definition": "lamp", "x": 40, "y": 61, "rotation": 0}
        answer = self.post(
            self.anna, f"/projects/{KILN}/edits", {"edit": edit, "sheet_id": sheet, "since": view["revision"]}
        ).json()
        self.assertFalse(answer["view"]["whole"])
        self.assertIn(answer["placed"][0], answer["view"]["put"]["items"])
        self.assertLess(len(answer["view"]["put"]["items"]), 4)
        self.assertEqual(answer["undo"], "place -PF1")

    def test_what_an_edit_makes_to_be_found_is_asked_for_after(self) -> None:
        sheet = self.sheet("30")
        address = f"/api/projects/{KILN}/sheets/{sheet}/view"
        drawn = self.anna.get(f"{address}?drawn=true").json()
        self.assertEqual(set(drawn["view"]["put"]), {"items", "devices", "sheet"})
        before = drawn["revision"]

        def news(since: int, found: int) -> dict[str, Any]:
            question = f"/api/projects/{KILN}/changes?since={since}&found={found}&sheet_id={sheet}"
            view: dict[str, Any] = self.anna.get(question).json()["view"]
            return view

        first = news(before, -1)
        self.assertEqual((first["whole"], set(first["put"]), first["drop"]), (False, {"wires"}, {}))
        edit = {"kind": "place-symbol", "sheet_id": sheet, "definition": "lamp", "x": 40, "y": 61, "rotation": 0}
        answer = self.post(self.anna, f"/projects/{KILN}/edits", {"edit": edit, "sheet_id": sheet, "since": before})
        after = answer.json()["revision"]
        self.assertEqual(set(answer.json()["view"]["put"]), {"items", "devices"})
        others = news(before, before)
        self.assertEqual(set(others["put"]), {"items", "devices", "snags"}, "who did not edit is told all at once")
        mine = news(after, before)
        self.assertEqual(mine["put"], {"snags": others["put"]["snags"]})
        self.assertIsNone(news(after, after))
        whole = self.anna.get(address).json()["view"]["put"]["snags"]
        self.assertEqual(mine["put"]["snags"], whole)

    def test_a_preview_shows_the_same_and_stores_nothing(self) -> None:
        sheet = self.sheet("30")
        before = list(self.stored().entities())
        edit = {"kind": "place-symbol", "sheet_id": sheet, "definition": "lamp", "x": 40, "y": 61, "rotation": 0}
        body = {"edit": edit, "sheet_id": sheet, "since": 0}
        self.anna.get(f"/api/projects/{KILN}/sheets/{sheet}/view")
        shown = self.post(self.anna, f"/projects/{KILN}/preview", body).json()
        self.assertEqual(list(self.stored().entities()), before)
        self.assert_memory_is_stored()
        self.assertEqual(JournalEntry.objects.count(), 0)
        done = self.post(self.anna, f"/projects/{KILN}/edits", body).json()
        self.assertEqual(shown["label"], done["label"])
        self.assertEqual(
            [i["prims"] for i in shown["view"]["put"]["items"].values()],
            [i["prims"] for i in done["view"]["put"]["items"].values()],
        )

    def test_refusals_name_the_rule_and_change_nothing(self) -> None:
        before = list(self.stored().entities())
        sheet = self.sheet("30")
        cases = [
            (
                {"kind": "place-symbol", "sheet_id": sheet, "definition": "lamp", "x": 74, "y": 34},
                422,
                "already +KD2-PF1 at this place",
            ),
            ({"kind": "place-symbol", "sheet_id": sheet, "definition": "rocket", "x": 40, "y": 61}, 422, "rocket"),
            (
                {"kind": "place-symbol", "sheet_id": "no", "definition": "lamp", "x": 40, "y": 61},
                404,
                "not in this project",
            ),
            ({"kind": "place-symbol", "sheet_id": sheet, "definition": "lamp", "x": 99999, "y": 61}, 422, "x"),
            ({"kind": "set-text", "device_id": self.device("QA"), "text": "bell \x07"}, 422, "cannot be printed"),
            ({"kind": "assign-part", "device_id": self.device("QA"), "part_id": "nothing"}, 422, "neither"),
            ({"kind": "warp"}, 422, "warp"),
        ]
        for edit, status, words in cases:
            with self.subTest(edit=edit):
                response = self.post(self.anna, f"/projects/{KILN}/edits", {"edit": edit})
                self.assertEqual(response.status_code, status)
                body = response.json()
                self.assertEqual(set(body), {"code", "message", "field", "ids"})
                self.assertIn(words, body["message"])
        self.assertEqual(list(self.stored().entities()), before)
        self.assert_memory_is_stored()

    def test_undo_and_redo_are_each_persons_own(self) -> None:
        first = list(self.stored().entities())
        self.accepted(self.anna, kind="set-text", device_id=self.device("QA"), text="A")
        self.accepted(self.jory, kind="set-text", device_id=self.device("MA"), text="B")
        step = {"sheet_id": "", "since": -1}
        answer = self.post(self.anna, f"/projects/{KILN}/undo", step).json()
        self.assertEqual((answer["label"], answer["undo"], answer["redo"]), ("undo: text of -QA1", "", "text of -QA1"))
        self.assertEqual(self.stored().devices[self.device("QA")].text, "Auger run")
        self.assertEqual(self.stored().devices[self.device("MA")].text, "B")
        self.post(self.anna, f"/projects/{KILN}/redo", step)
        self.assertEqual(self.stored().devices[self.device("QA")].text, "A")
        for person in (self.anna, self.jory):
            self.assertEqual(self.post(person, f"/projects/{KILN}/undo", step).status_code, 200)
        self.assertEqual(list(self.stored().entities()), first)
        nothing = self.post(self.anna, f"/projects/{KILN}/undo", step)
        self.assertEqual((nothing.status_code, nothing.json()["message"]), (422, "There is nothing to undo."))

    def test_a_request_sent_twice_is_done_once(self) -> None:
        sheet = self.sheet("30")
        edit = {"kind": "place-symbol", "sheet_id": sheet, "definition": "lamp", "x": 40, "y": 61}
        body = {"edit": edit, "sheet_id": sheet, "since": -1, "key": "k1"}
        first = self.post(self.anna, f"/projects/{KILN}/edits", body).json()
        again = self.post(self.anna, f"/projects/{KILN}/edits", body)
        self.assertEqual(again.status_code, 200)
        self.assertEqual((again.json()["revision"], again.json()["placed"]), (1, first["placed"]))
        step = {"sheet_id": "", "since": -1, "key": "k2"}
        for _ in range(2):
            self.assertEqual(self.post(self.anna, f"/projects/{KILN}/undo", step).json()["revision"], 2)
        self.assertEqual(JournalEntry.objects.count(), 2)

    def test_a_new_edit_forgets_what_could_be_redone(self) -> None:
        step = {"sheet_id": "", "since": -1}
        self.accepted(self.anna, kind="set-text", device_id=self.device("QA"), text="A")
        self.post(self.anna, f"/projects/{KILN}/undo", step)
        answer = self.accepted(self.anna, kind="set-text", device_id=self.device("MA"), text="B")
        self.assertEqual((answer["undo"], answer["redo"]), ("text of -MA1", ""))
        self.assertEqual(self.post(self.anna, f"/projects/{KILN}/redo", step).status_code, 422)

    def test_undo_is_refused_where_somebody_has_changed_the_same_since(self) -> None:
        self.accepted(self.anna, kind="set-text", device_id=self.device("QA"), text="A")
        self.accepted(self.jory, kind="set-text", device_id=self.device("QA"), text="B")
        response = self.post(self.anna, f"/projects/{KILN}/undo", {"sheet_id": "", "since": -1})
        self.assertEqual(response.status_code, 409)
        self.assertIn("Jory Brand", response.json()["message"])
        self.assertEqual(self.stored().devices[self.device("QA")].text, "B")

    def test_an_edit_whose_target_is_gone_says_who_removed_it(self) -> None:
        lamp = self.device("PF")
        symbol = next(s.id for s in self.stored().symbols.values() if s.device_id == lamp)
        self.accepted(self.jory, kind="delete-selection", ids=[symbol])
        for edit in (
            {"kind": "set-text", "device_id": lamp, "text": "x"},
            {"kind": "move-selection", "ids": [symbol], "dx": 1, "dy": 0},
        ):
            response = self.post(self.anna, f"/projects/{KILN}/edits", {"edit": edit})
            self.assertEqual(response.status_code, 404)
            self.assertIn("Jory Brand did “delete +KD2-PF1”", response.json()["message"])

    def test_others_see_the_change_and_who_is_here(self) -> None:
        sheet = self.sheet("30")
        seen = self.jory.get(f"/api/projects/{KILN}/sheets/{sheet}/view").json()
        self.accepted(self.anna, kind="set-text", device_id=self.device("QA"), text="Auger forward")
        url = f"/api/projects/{KILN}/changes?since={seen['revision']}&sheet_id={sheet}"
        news = self.jory.get(url).json()
        self.assertFalse(news["view"]["whole"])
        texts = [p["words"] for i in news["view"]["put"]["items"].values() for p in i["prims"] if p["kind"] == "text"]
        self.assertIn("Auger forward", texts)
        self.anna.get(f"/api/projects/{KILN}/changes?since=1&sheet_id={sheet}")
        people = self.jory.get(url).json()["people"]
        self.assertEqual(people, [{"name": "Anna Marsh", "sheet_id": sheet}])

    def test_another_process_makes_the_project_load_anew(self) -> None:
        from jolly_server.projects.models import ROWS, ProjectRow
        from jolly_server.projects.store import loaded

        self.assertEqual(loaded(KILN).revision, 0)
        ROWS["device"].objects.filter(project_id=KILN, id=self.device("QA")).update(text="from elsewhere")
        ProjectRow.objects.filter(pk=KILN).update(revision=5)
        self.assertEqual(loaded(KILN).project.devices[self.device("QA")].text, "from elsewhere")
        self.assertEqual(
            self.accepted(self.anna, kind="set-tag", device_id=self.device("QA"), tag="QA9")["revision"], 6
        )

    def test_a_device_card_and_the_omnibox(self) -> None:
        card = self.anna.get(f"/api/projects/{KILN}/devices/{self.device('QA')}").json()
        self.assertEqual((card["tag"], card["full_tag"]), ("-QA1", "=K2+KP2-QA1"))
        self.assertEqual([u["place"] for u in card["units"] if u["kind"] == "NO"], ["30.302", "30.303", ""])
        self.assertIn(
            {"pin": "A2", "number": "10-4"}, [{"pin": w["pin"], "number": w["number"]} for w in card["wired"]]
        )
        for words, kind in (("auger run", "device"), ("control", "sheet"), ("3012", "wire")):
            found = self.anna.get(f"/api/projects/{KILN}/find", {"q": words}).json()
            self.assertIn(kind, [f["kind"] for f in found], words)
        where = self.anna.get(f"/api/projects/{KILN}/where/{found[-1]['id']}").json()
        self.assertEqual(where["sheet_id"], self.sheet("30"))
