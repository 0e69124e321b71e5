"""What was stored beyond a bound is a snag until somebody sets it."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.checks import PROJECT_CHECKS, Snag, all_snags
from jolly_core.drawing import pin_points
from jolly_core.model import Device, Enclosure, Function, Project, Rail, Sheet, Symbol
from jolly_core.reports import run_report
from jolly_core.tagging import pins_of
from jolly_core.testing import Workbench


def snags(project: Project) -> list[Snag]:
    return list(PROJECT_CHECKS["out-of-bounds"][0](project))


class OutOfBounds(TestCase):
    def setUp(self) -> None:
        self.project = Project()
        self.project.load("sheet", [Sheet("s", "7", columns=10**8, line_count=900)])
        self.project.load("device", [Device("d", "UC", 1)])
        self.project.load("enclosure", [Enclosure("e", "d", ambient_c=900.0)])
        self.project.load("rail", [Rail("r", "e", 0, 90, 1e9, 90, "p")])
        self.project.load("function", [Function("f", "A", parent_id="f")])
        self.project.load("symbol", [Symbol("y", "s", 9999, 4, "coil", device_id="d")])

    def test_each_names_thing_field_stored_value_and_what_is_used(self) -> None:
        self.assertEqual(
            [s.message for s in snags(self.project)],
            [
                "The enclosure of -UC1: “ambient” should be from -50 to 100 °C, not 900; 100 is used instead."
                " Set it anew.",
                "The function A: “parent” would name a function that is inside it; nothing is used instead."
                " Set it anew.",
                "The rail: “x2” should be from -20000 to 20000 mm, not 1e+09; 20000 is used instead. Set it anew.",
                "The sheet 7: “line count” should be from 1 to 60, not 900; 60 is used instead. Set it anew.",
                "The sheet 7: “columns” should be from 1 to 40, not 100000000; 40 is used instead. Set it anew.",
                "The symbol of -UC1: “x” should be from -200 to 2000 grid steps, not 9999; 2000 is used instead."
                " Set it anew.",
            ],
        )
        self.assertEqual(
            [s.bench for s in snags(self.project)], ["cabinet", "brief", "cabinet", "draw", "draw", "draw"]
        )
        self.assertEqual([s.sheet_id for s in snags(self.project)], ["", "", "", "s", "s", "s"])

    def test_it_goes_when_the_field_is_set(self) -> None:
        bench = Workbench()
        bench.project = self.project
        bench.do("change-sheets", sheets=[{"sheet_id": "s", "columns": 12}])
        self.assertTrue([s for s in snags(self.project) if "line count" in s.message])
        self.assertFalse([s for s in snags(self.project) if "columns" in s.message])

    def test_a_gauge_that_is_none_is_told_and_stops_nothing(self) -> None:
        bench = Workbench(frame="zones")
        usual = next(iter(bench.project.wire_types.values()))
        first, second = (bench.place("coil", x, 20) for x in (20, 50))
        bench.wire((24, 20), (50, 20), type_id=usual.id)
        self.assertNotEqual(first, second)
        for gauge, wrong in (("thick", True), ("16", False), ("2/0", False), ("5/0", True), ("½", True)):
            bench.project.load("wire_type", [replace(usual, cross_section_mm2=0.0, awg=gauge)])
            told = [s.message for s in snags(bench.project) if "an American wire gauge such as 16 or 2/0" in s.message]
            self.assertEqual(wrong, bool(told), gauge)
            self.assertNotIn("check-stopped", {s.code for s in all_snags(bench.project)})
            self.assertEqual(1, len(run_report(bench.project, "wires").rows))

    def test_a_terminal_drawn_with_more_poles_than_it_has_pins_for_has_a_name_at_each(self) -> None:
        bench = Workbench(frame="zones")
        terminal = bench.symbol(bench.place("terminal", 20, 20))
        bench.project.load("symbol", [replace(terminal, units=terminal.units * 2)])
        names = pins_of(bench.project, bench.symbol(terminal.id))
        self.assertEqual(len(pin_points(bench.symbol(terminal.id))), len(names))
        self.assertNotIn("check-stopped", {s.code for s in all_snags(bench.project)})
