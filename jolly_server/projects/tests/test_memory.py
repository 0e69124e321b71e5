"""Projects in memory: brought up to date by the journal, let go of by size, and what a question for news costs."""

from __future__ import annotations

from dataclasses import replace
from typing import Any
from unittest.mock import patch

from django.conf import settings
from django.contrib.auth import get_user_model
from django.test import override_settings

from jolly_core.checks import all_snags
from jolly_server.projects import store
from jolly_server.projects.services import copy_project
from jolly_server.projects.store import forget, load_rows, loaded
from jolly_server.projects.versions import KEEP_SUBJECTS, KEEP_VERSIONS, Versions
from jolly_server.testing import KILN, DemoCase


class AnotherProcess(DemoCase):
    """A project that another process has changed since."""

    def changed_elsewhere(self, *edits: dict[str, Any]) -> store.Loaded:
        """Return the project as this process has it, after another one has stored edits."""
        ours = loaded(KILN)
        all_snags(ours.project)
        forget()
        for edit in edits:
            self.accepted(self.person("anna"), **edit)
        store._loaded[KILN] = ours
        return ours

    def test_it_is_brought_up_to_date_by_the_journal(self) -> None:
        sheet = self.sheet("30")
        ours = self.changed_elsewhere(
            {"kind": "place-symbol", "sheet_id": sheet, "definition": "lamp", "x": 40, "y": 61},
            {"kind": "set-tag", "device_id": self.device("QA"), "tag": "QA7"},
            {"kind": "change-sheet", "sheet_id": sheet, "title": "New"},
        )
        with patch.object(store, "load_rows", side_effect=AssertionError("loaded anew")):
            held = loaded(KILN)
        self.assertIs(held, ours)
        self.assertEqual(held.revision, 3)
        stored = load_rows(KILN)
        self.assertEqual(list(held.project.entities()), list(stored.entities()))
        self.assertEqual(all_snags(held.project), all_snags(stored))

    def test_after_very_many_steps_it_is_loaded_anew(self) -> None:
        note: dict[str, Any] = {"kind": "place-note", "sheet_id": self.sheet("30"), "x": 20, "y": 70, "text": "n"}
        with patch.object(store, "MOST_STEPS", 1):
            ours = self.changed_elsewhere(note, {**note, "y": 72})
            before = ours.project
            self.assertIsNot(loaded(KILN).project, before)
        self.assertEqual(list(ours.project.entities()), list(load_rows(KILN).entities()))

    def test_its_next_edit_stands_on_theirs(self) -> None:
        note: dict[str, Any] = {"kind": "place-note", "sheet_id": self.sheet("30"), "x": 20, "y": 70, "text": "theirs"}
        self.changed_elsewhere(note)
        self.assertEqual(self.accepted(self.person("jory"), **{**note, "y": 74, "text": "ours"})["revision"], 2)
        texts = {n.text for n in load_rows(KILN).notes.values()}
        self.assertLessEqual({"theirs", "ours"}, texts)


class Room(DemoCase):
    """What is let go of when loaded projects take too much memory."""

    def test_what_was_computed_goes_first_then_the_project(self) -> None:
        other = copy_project(get_user_model().objects.get(username="anna"), KILN)
        held = loaded(KILN)
        all_snags(held.project)
        values = len(held.project.memo)
        self.assertGreater(held.value_bytes, held.entity_bytes)
        room = 1 + (held.entity_bytes + loaded(other).entity_bytes) // 1_000_000
        with override_settings(JOLLY=replace(settings.JOLLY, memory_mb=room)):
            store._make_room(loaded(other))
            self.assertLess(len(held.project.memo), values)
            self.assertIs(loaded(KILN), held)
        with override_settings(JOLLY=replace(settings.JOLLY, memory_mb=0)):
            store._make_room(loaded(other))
        self.assertEqual(list(store._loaded), [other])
        self.assertEqual(list(loaded(KILN).project.entities()), list(held.project.entities()))

    def test_versions_are_kept_of_few_subjects_and_few_each(self) -> None:
        shown = Versions()
        for revision in range(KEEP_VERSIONS + 2):
            shown.note("s", revision, {"items": {"a": revision}})
        self.assertIsNone(shown.at("s", 1))
        self.assertEqual(shown.at("s", 2), {"items": {"a": 2}})
        same = shown.at("s", KEEP_VERSIONS + 1)
        assert same is not None
        shown.note("s", 40, same)
        self.assertIs(shown.at("s", 20), same)
        for n in range(KEEP_SUBJECTS):
            shown.note(f"s{n}", 1, {})
        self.assertIsNone(shown.at("s", 40))


class News(DemoCase):
    """Others are told what concerns them, and nothing else."""

    def ask(self, client: Any, sheet: str, since: int, key: str = "") -> Any:
        """Return the news of a sheet."""
        url = f"/api/projects/{KILN}/changes?since={since}&sheet_id={sheet}&people_key={key}"
        return client.get(url).json()

    def test_who_looks_at_another_sheet_is_sent_no_view(self) -> None:
        anna, jory = self.person("anna"), self.person("jory")
        here, there = self.sheet("30"), self.sheet("10")
        first = self.ask(jory, there, -1)
        self.ask(anna, here, -1)
        note: dict[str, Any] = {"kind": "place-note", "sheet_id": here, "x": 20, "y": 70, "text": "x"}
        revision = self.accepted(anna, **note)["revision"]
        news = self.ask(jory, there, first["revision"])
        self.assertEqual((news["revision"], news["view"]), (revision, None))
        self.assertIsNotNone(self.ask(jory, here, -1)["view"])

    def test_people_are_told_once(self) -> None:
        anna, jory = self.person("anna"), self.person("jory")
        sheet = self.sheet("30")
        self.ask(jory, sheet, -1)
        news = self.ask(anna, sheet, -1)
        self.assertEqual([p["name"] for p in news["people"]], ["Jory Brand"])
        self.assertIsNone(self.ask(anna, sheet, 0, news["people_key"])["people"])
        self.ask(jory, self.sheet("10"), 0)
        moved = self.ask(anna, sheet, 0, news["people_key"])
        self.assertEqual(moved["people"][0]["sheet_id"], self.sheet("10"))

    def test_a_question_for_news_reads_one_row(self) -> None:
        anna = self.person("anna")
        sheet = self.sheet("30")
        self.ask(anna, sheet, -1)
        self.ask(anna, sheet, 0)
        with self.assertNumQueries(2):  # the person; the membership with the stored revision
            self.ask(anna, sheet, 0)
        loaded(KILN).here.people = None
        with self.assertNumQueries(3):
            self.ask(anna, sheet, 0)

    def test_of_the_outline_only_what_changed_is_sent(self) -> None:
        anna = self.person("anna")
        url = f"/api/projects/{KILN}/outline"
        first = anna.get(url).json()
        self.assertTrue(first["view"]["whole"])
        sections = first["view"]["put"]
        sheet = self.sheet("30")
        edits: list[dict[str, Any]] = [
            {"kind": "change-sheet", "sheet_id": sheet, "title": "Other"},
            {"kind": "add-sheet", "number": "99", "frame": "zones"},
            {"kind": "place-note", "sheet_id": sheet, "x": 20, "y": 70, "text": "n"},
            {"kind": "delete-sheet", "sheet_id": self.sheet("10")},
        ]
        since, sizes = first["revision"], []
        for edit in edits:
            self.accepted(anna, **edit)
            news = anna.get(f"{url}?since={since}").json()
            self.assertFalse(news["view"]["whole"])
            sizes.append(sum(len(rows) for rows in news["view"]["put"].values()))
            since = news["revision"]
            for name, rows in news["view"]["put"].items():
                sections[name].update(rows)
            for name, ids in news["view"]["drop"].items():
                for id in ids:
                    del sections[name][id]
        self.assertEqual(sizes[:3], [1, 1, 0])
        forget()
        self.assertEqual(sections, anna.get(url).json()["view"]["put"])
