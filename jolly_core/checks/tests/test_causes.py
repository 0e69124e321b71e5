"""One cause is told once, with what follows from it under it."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import Snag, all_snags, cause_in_words, causes
from jolly_core.library import NoLibrary
from jolly_core.model import Project
from jolly_core.planting import Trial
from jolly_core.reports import run_report
from jolly_core.testing import demo


def misplaced(project: Project, name: str, other: str, number: str) -> list[tuple[str, str]]:
    """Return what to change so that a mark of a sheet has another name."""
    return [
        (m.id, other)
        for m in project.continuations.values()
        if m.name == name and project.sheets[m.sheet_id].number == number
    ][:1]


class Folded(TestCase):
    def told(self, number: str) -> tuple[list[tuple[Snag, int]], list[Snag]]:
        """Return causes, and all, where the return of a sheet has the name of its live potential."""
        project = demo()
        with project.trial() as total:
            trial = Trial(project, total, NoLibrary())
            for id, name in misplaced(project, "0 V", "24 V", number):
                trial.change("continuation", id, name=name)
            found, every = causes(project), list(all_snags(project))
            self.rows = run_report(project, "snags").rows
            return found, every

    def test_a_misplaced_mark_is_one_error_with_all_others_under_it(self) -> None:
        found, every = self.told("10")
        self.assertGreater(len(every), 20)
        errors = [snag for snag, _ in found if snag.severity == "error" and snag.bench == "draw"]
        (root,) = [snag for snag in errors if snag.code == "joined-potentials"]
        self.assertEqual(errors, [root])
        after = {snag.key: n for snag, n in found}[root.key]
        self.assertEqual(after, len([s for s in every if s.cause == root.key]))
        self.assertGreater(after, 15)
        self.assertEqual(len(self.rows), len(found))
        self.assertTrue(any(f"{after} more follow from it." in str(row[2]) for row in self.rows))

    def test_it_is_told_on_the_sheet_where_one_stroke_has_two_names(self) -> None:
        found, _ = self.told("50")
        project = demo()
        (root,) = [snag for snag, _ in found if snag.code == "joined-potentials"]
        self.assertEqual(project.sheets[root.sheet_id].number, "50")

    def test_a_cause_is_in_the_list_for_each_that_follows(self) -> None:
        for number in ("10", "30", "50"):
            found, every = self.told(number)
            keys = {snag.key for snag, _ in found}
            self.assertEqual({s.cause for s in every if s.cause} - keys, set())

    def test_in_words(self) -> None:
        snag = Snag("x", "error", "A and B are joined.", (), "", 0, 0)
        self.assertEqual(cause_in_words(snag, 0), "A and B are joined.")
        self.assertEqual(cause_in_words(snag, 1), "A and B are joined. 1 more follows from it.")
        self.assertEqual(cause_in_words(snag, 45), "A and B are joined. 45 more follow from it.")
