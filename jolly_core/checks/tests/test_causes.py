"""One cause is told once, with what follows from it under it."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import Snag, all_snags, cause_in_words, causes
from jolly_core.library import NoLibrary
from jolly_core.model import Project
from jolly_core.planting import Trial
from jolly_core.reports import run_report
from jolly_core.testing import Workbench, demo


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


class Bridged(TestCase):
    """Two potentials joined by a bridge are one error that names the bridge; all else follows from it."""

    def bench(self) -> tuple[Workbench, str]:
        bench = Workbench(frame="zones")
        strip = ""
        for n, name in enumerate(("24 V DC", "0 V DC", "24 V DC")):
            y = 20 + 12 * n
            bench.do("place-continuation", sheet_id=bench.sheet, name=name, x=20, y=y)
            terminal = bench.place("terminal", 40, y, **({"device_id": strip} if strip else {}))
            strip = bench.device(terminal)
            bench.wire((20, y), (80, y))
        return bench, strip

    def errors(self, bench: Workbench) -> list[tuple[str, str, int]]:
        return [(s.code, s.message, n) for s, n in causes(bench.project) if s.severity == "error"]

    def test_a_bridge_between_two_potentials_is_the_thing_at_fault(self) -> None:
        bench, strip = self.bench()
        self.assertEqual(self.errors(bench), [])
        bench.do("bridge-terminals", strip_id=strip, units=[1, 2])
        ((code, message, follows),) = self.errors(bench)
        self.assertEqual(
            (code, message), ("joined-potentials", "0 V and 24 V are joined by a bridge of -XD1: take it away.")
        )
        self.assertGreaterEqual(follows, 1)
        every = [s for s in all_snags(bench.project) if s.code == "bridge"]
        self.assertTrue(every and all(s.cause for s in every))

    def test_one_along_a_potential_is_none(self) -> None:
        bench, strip = self.bench()
        bench.do("bridge-terminals", strip_id=strip, units=[1, 3])
        self.assertEqual(self.errors(bench), [])

    def test_where_strokes_join_them_no_bridge_is_blamed(self) -> None:
        bench, strip = self.bench()
        bench.do("bridge-terminals", strip_id=strip, units=[1, 3])
        bench.wire((30, 20), (30, 32))
        messages = [m for code, m, _ in self.errors(bench) if code == "joined-potentials"]
        self.assertEqual(messages, ["0 V and 24 V are joined."])
