"""A cable on a sheet where a stroke leads from one name to another, and nothing else."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.cables import cable_cores
from jolly_core.testing import Workbench, rebuilt
from jolly_core.wiring import all_conductors, wires_along


class BetweenNames(TestCase):
    def setUp(self) -> None:
        self.bench = bench = Workbench(frame="zones")
        self.between = bench.new("add-sheet", number="31", frame="zones")
        self.last = bench.new("add-sheet", number="32", frame="zones")
        for n in range(2):
            y = 20 + 10 * n
            bench.place("lamp", 20, y)
            bench.place("coil", 60, y, sheet_id=self.last)
            for sheet, name, x in (
                (bench.sheet, f"A{n}", 40),
                (self.between, f"A{n}", 20),
                (self.between, f"B{n}", 60),
                (self.last, f"B{n}", 40),
            ):
                bench.do("place-continuation", sheet_id=sheet, name=name, x=x, y=y)
            bench.wire((24, y), (40, y))
            bench.wire((20, y), (60, y), sheet_id=self.between)
            bench.wire((40, y), (60, y), sheet_id=self.last)

    def test_a_conductor_runs_along_the_stroke_between_its_two_names(self) -> None:
        for conductor in all_conductors(self.bench.project).values():
            sheets = [self.bench.project.wires[id].sheet_id for id in wires_along(self.bench.project, conductor)]
            self.assertEqual(sheets, [self.bench.sheet, self.between, self.last])

    def test_a_band_on_that_sheet_gathers_both_and_each_has_a_core(self) -> None:
        bench = self.bench
        band = {"x1": 40, "y1": 18, "x2": 40, "y2": 32, "part_id": "quillon-ql-yy2x1"}
        bench.do("draw-band", sheet_id=self.between, **band)
        (cable,) = bench.project.cables.values()
        for project in (bench.project, rebuilt(bench.project)):
            served = [row.conductor for row in cable_cores(project, cable.device_id) if row.conductor is not None]
            self.assertEqual(len({c.key for c in served}), 2)

    def test_marks_of_one_name_are_one_place_however_many_sheets(self) -> None:
        bench = self.bench
        fourth = bench.new("add-sheet", number="33", frame="zones")
        bench.place("lamp", 60, 20, sheet_id=fourth)
        bench.do("place-continuation", sheet_id=fourth, name="B0", x=40, y=20)
        bench.wire((40, 20), (60, 20), sheet_id=fourth)
        ways = {
            tuple(bench.project.wires[id].sheet_id for id in wires_along(bench.project, c))
            for c in all_conductors(bench.project).values()
        }
        self.assertIn((self.last, fourth), ways)
