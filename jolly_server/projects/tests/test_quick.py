"""The statements that run at each edit: who is a member, moving the revision on, the journal's line."""

from __future__ import annotations

from django.contrib.auth import get_user_model
from django.db import IntegrityError, transaction
from django.utils import timezone

from jolly_server.projects.models import JournalEntry, Membership, ProjectRow
from jolly_server.projects.quick import advance, enter, membership
from jolly_server.testing import KILN, DemoCase


class Quick(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = get_user_model().objects.get(username="anna")

    def test_a_member_has_role_state_and_revision_in_one_look(self) -> None:
        self.accepted(self.person("anna"), kind="change-settings", issued_on="today")
        ProjectRow.objects.filter(pk=KILN).update(state="archived")
        with self.assertNumQueries(1):
            self.assertEqual(membership(KILN, self.anna.pk), ("owner", "archived", 1))
        Membership.objects.filter(user=self.anna).delete()
        self.assertIsNone(membership(KILN, self.anna.pk))
        self.assertIsNone(membership("none", self.anna.pk))

    def test_the_revision_moves_on_only_from_the_one_that_is_stored(self) -> None:
        now = timezone.now()
        self.assertTrue(advance(KILN, 0, self.anna.pk, now))
        self.assertFalse(advance(KILN, 0, self.anna.pk, now), "somebody else was first")
        row = ProjectRow.objects.get(pk=KILN)
        self.assertEqual((row.revision, row.edited_by_id, row.edited_at), (1, self.anna.pk, now))

    def test_a_line_of_the_journal_is_as_the_model_would_write_it(self) -> None:
        now = timezone.now()
        given = {"project_id": KILN, "revision": 7, "user_id": self.anna.pk, "act": "edit", "label": "place -KF3 “ü”"}
        enter(JournalEntry(**given, payload_kind="place-symbol", changes="[]", key="k1"), now)
        entry = JournalEntry.objects.get(revision=7)
        for name, value in given.items():
            self.assertEqual(getattr(entry, name), value)
        self.assertEqual((entry.at, entry.live, entry.target_id, entry.key), (now, True, None, "k1"))
        with self.assertRaises(IntegrityError), transaction.atomic():
            enter(JournalEntry(**given, changes="[]"), now)

    def test_an_edit_costs_few_queries(self) -> None:
        anna = self.person("anna")
        self.accepted(anna, kind="change-settings", issued_on="today")
        symbol = next(s for s in self.stored().symbols.values() if s.definition == "lamp")
        with self.assertNumQueries(7):
            # user, member; savepoint and release around revision, entity and journal
            self.accepted(anna, kind="move-text", ids=[symbol.id], text="tag", dx_mm=2, dy_mm=0)
