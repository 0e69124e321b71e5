"""The synthetic projects are what the budgets speak of, and whole projects in every respect."""

from __future__ import annotations

from unittest import TestCase

from benchmarks.core import edges_of, union_find
from benchmarks.generate import synthetic
from benchmarks.measure import Result, percentile
from jolly_core.exchange import read_project, write_project
from jolly_core.wiring import all_nets


class Synthetic(TestCase):
    def test_a_sheet_has_the_size_the_budgets_name(self) -> None:
        project = synthetic(3)
        self.assertEqual(len(project.sheets), 3)
        for sheet in project.sheets_in_order():
            symbols = project.symbols_on(sheet.id)
            self.assertEqual(sum(1 for s in symbols if s.definition == "terminal"), 20)
            self.assertTrue(25 <= len({s.device_id for s in symbols}) <= 40)
            self.assertGreaterEqual(len(project.wires_on(sheet.id)), 60)

    def test_it_is_a_project_that_can_be_written_and_read(self) -> None:
        project = synthetic(2)
        self.assertEqual(list(read_project(write_project(project)).entities()), list(project.entities()))

    def test_sheets_are_tied_together(self) -> None:
        over_sheets = [net for net in all_nets(synthetic(4)) if len({g.sheet_id for g in net}) > 1]
        self.assertEqual(len(over_sheets), 3)

    def test_the_floor_finds_as_many_nets_as_the_subject(self) -> None:
        project = synthetic(3)
        count, edges = edges_of(project)
        self.assertEqual(len(union_find(count, edges)), len(all_nets(project)))


class Measuring(TestCase):
    def test_percentiles_and_verdicts(self) -> None:
        self.assertEqual(percentile([5.0, 1.0, 3.0, 2.0, 4.0], 0.95), 5.0)
        self.assertEqual(percentile([5.0, 1.0, 3.0], 0.5), 3.0)
        self.assertTrue(str(Result("x", 2.0, 4.0, 2.5)).endswith("met"))
        self.assertTrue(str(Result("x", 2.0, 6.0, 2.5)).endswith("MISSED"))
