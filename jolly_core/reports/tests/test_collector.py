"""While lists, snags and differences of a large project are made, the collector of garbage rests, and only then."""

from __future__ import annotations

import gc
from dataclasses import replace
from unittest import TestCase
from unittest.mock import patch

from jolly_core.checks import CHECKS, all_snags
from jolly_core.model import Project
from jolly_core.reports import REPORTS, run_report
from jolly_core.reports.registry import Cell
from jolly_core.testing import Workbench, rebuilt


class Resting(TestCase):
    def setUp(self) -> None:
        """Note what is said of the collector from within."""
        self.said: list[bool] = []
        self.assertTrue(gc.isenabled())

    def _look(self, *_: object) -> list[tuple[Cell, ...]]:
        self.said.append(gc.isenabled())
        return []

    def _in_wires(self, keeps: bool) -> None:
        found = replace(REPORTS["wires"], build=self._look, keeps=keeps)
        with patch.dict(REPORTS, {"wires": found}):
            run_report(Project(), "wires")

    def test_a_list_is_made_without_the_collector(self) -> None:
        self._in_wires(keeps=True)
        self._in_wires(keeps=False)
        self.assertEqual([False, False], self.said)
        self.assertTrue(gc.isenabled(), "it works again afterwards")

    def test_snags_are_found_without_the_collector(self) -> None:
        bench = Workbench()
        code = next(iter(CHECKS))
        with patch.dict(CHECKS, {code: (self._look, *CHECKS[code][1:])}):
            all_snags(rebuilt(bench.project))
        self.assertEqual([False], self.said)
        self.assertTrue(gc.isenabled())

    def test_what_fails_leaves_the_collector_at_work(self) -> None:
        def fail(_: Project) -> list[tuple[Cell, ...]]:
            raise ZeroDivisionError

        with (
            patch.dict(REPORTS, {"wires": replace(REPORTS["wires"], build=fail)}),
            self.assertRaises(ZeroDivisionError),
        ):
            run_report(Project(), "wires")
        self.assertTrue(gc.isenabled())
