"""What is typed over a text that somebody else has changed since it was looked at is refused, by name."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from django.contrib.auth import get_user_model

from jolly_core.model import Change, ChangeSet, ConflictError
from jolly_server.projects.meanwhile import refuse_overwriting
from jolly_server.projects.models import JournalEntry
from jolly_server.projects.store import loaded
from jolly_server.testing import KILN, DemoCase

KEEP = "Nothing was changed: look at it, and save yours again if it is to stand."


class Meanwhile(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.one = self.held().project.sheets_in_order()[3]
        self.seen = self.held().revision

    @staticmethod
    def held() -> Any:
        return loaded(KILN)

    def saved(self, who: str, seen: int | None = None, act: str = "edits", **facts: Any) -> Any:
        edit = {"kind": "change-sheet", "sheet_id": self.one.id, **facts}
        body = {"edit": edit} if seen is None else {"edit": edit, "seen": seen}
        return self.person(who).post(f"/api/projects/{KILN}/{act}", body, content_type="application/json")

    def title(self) -> str:
        title: str = self.held().project.sheets[self.one.id].title
        return title

    def test_a_text_nobody_saw_is_not_replaced_and_both_are_named(self) -> None:
        self.assertEqual(self.saved("jory", title="Of Jory").status_code, 200)
        stored = JournalEntry.objects.count(), self.held().revision
        refused = self.saved("anna", self.seen, title="Of Anna")
        self.assertEqual(refused.status_code, 409)
        said = refused.json()["message"]
        self.assertIn("set title to “Of Jory”", said)
        self.assertIn("Jory", said)
        self.assertTrue(said.endswith(KEEP), said)
        self.assertIn(self.one.number, said)
        self.assertEqual(self.title(), "Of Jory")
        self.assertEqual((JournalEntry.objects.count(), self.held().revision), stored)
        # Once it has been seen, one's own may stand.
        self.assertEqual(self.saved("anna", self.held().revision, title="Of Anna").status_code, 200)
        self.assertEqual(self.title(), "Of Anna")

    def test_a_text_that_was_emptied_is_told_as_such(self) -> None:
        self.saved("jory", title="")
        self.assertIn("emptied title", self.saved("anna", self.seen, title="Of Anna").json()["message"])

    def test_what_does_not_meet_is_stored(self) -> None:
        other = self.held().project.sheets_in_order()[4]
        self.saved("jory", sheet_id=other.id, title="Elsewhere")
        self.saved("jory", title="Of Jory")
        for what, facts in {
            "another field": {"number": "399"},
            "the same as they saved": {"title": "Of Jory"},
        }.items():
            with self.subTest(what):
                self.assertNotEqual(self.saved("anna", self.seen, **facts).status_code, 409)
        self.assertEqual(self.title(), "Of Jory")

    def test_an_edit_of_any_number_of_things_is_looked_at(self) -> None:
        """Renaming a location sets thousands of records: one question for each is more than a database takes."""
        self.saved("jory", title="Of Jory")
        project = self.held().project
        before = project.sheets[self.one.id]
        many = [Change("sheet", f"many{n}", before, replace(before, title=str(n))) for n in range(2500)]
        anna = get_user_model().objects.get(username="anna")
        refuse_overwriting(project, KILN, anna, ChangeSet(many), self.seen)
        many.append(Change("sheet", self.one.id, before, replace(before, title="Of Anna")))
        with self.assertRaisesRegex(ConflictError, "Of Jory"):
            refuse_overwriting(project, KILN, anna, ChangeSet(many), self.seen)

    def test_ones_own_saves_do_not_stand_in_ones_way(self) -> None:
        for title in ("one", "two", "three"):
            self.assertEqual(self.saved("anna", self.seen, title=title).status_code, 200)

    def test_what_they_took_back_does_not_stand_in_the_way(self) -> None:
        self.saved("jory", title="Of Jory")
        self.person("jory").post(f"/api/projects/{KILN}/undo", {}, content_type="application/json")
        self.assertEqual(self.saved("anna", self.seen, title="Of Anna").status_code, 200)

    def test_without_a_word_of_what_was_seen_the_last_one_stands_as_before(self) -> None:
        self.saved("jory", title="Of Jory")
        self.assertEqual(self.saved("anna", title="Of Anna").status_code, 200)
