"""Conductors of the whole project: keys, ways along drawn wires, bridges over sheets."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.exchange import read_project
from jolly_core.testing import DEMO, Workbench
from jolly_core.wiring import (
    all_conductors,
    all_nets,
    conductor_key,
    conductors_at,
    conductors_of_sheet,
    wire_numbers,
    wires_along,
)


class Demo(TestCase):
    def setUp(self) -> None:
        self.project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())

    def test_a_net_of_n_pins_has_one_conductor_less(self) -> None:
        pins = sum(max(0, sum(len(g.pins) for g in net) - 1) for net in all_nets(self.project))
        self.assertEqual(len(all_conductors(self.project)), pins)

    def test_the_sheets_together_show_every_conductor(self) -> None:
        seen = {c.key for s in self.project.sheets for c in conductors_of_sheet(self.project, s)}
        self.assertEqual(seen, set(all_conductors(self.project)))

    def test_each_conductor_is_at_both_its_pins(self) -> None:
        for c in all_conductors(self.project).values():
            self.assertIn(c, conductors_at(self.project, c.start))
            self.assertIn(c, conductors_at(self.project, c.end))
            self.assertEqual((c.other(c.start), c.other(c.end)), (c.end, c.start))

    def test_the_way_begins_with_the_wire_it_leaves_by_and_is_as_long_as_it_says(self) -> None:
        for c in all_conductors(self.project).values():
            way = [self.project.wires[i] for i in wires_along(self.project, c)]
            if not way:
                continue
            self.assertEqual(way[0].id, c.wire_id)
            drawn = sum(w.x2 - w.x1 + w.y2 - w.y1 for w in way)
            self.assertEqual(c.steps % 1000, drawn, "a change of sheet counts as a thousand steps")

    def test_the_key_is_the_same_from_either_end(self) -> None:
        self.assertEqual(conductor_key(("a", 1), ("b", 0)), conductor_key(("b", 0), ("a", 1)))
        self.assertNotEqual(conductor_key(("a", 1), ("b", 0)), conductor_key(("a", 0), ("b", 1)))


class Redrawn(TestCase):
    def test_the_key_survives_moving_and_redrawing(self) -> None:
        bench = Workbench(frame="zones")
        lamps = [bench.place("lamp", x, 20) for x in (20, 60)]
        bench.wire((24, 20), (60, 20))
        (before,) = all_conductors(bench.project)
        bench.do("move-selection", ids=[lamps[1]], dx=6, dy=12)
        self.assertEqual(list(all_conductors(bench.project)), [before])
        bench.do("delete-selection", ids=[w.id for w in bench.project.wires_on(bench.sheet)])
        self.assertEqual(all_conductors(bench.project), {})
        bench.wire((24, 20), (66, 20), (66, 32))
        self.assertEqual(list(all_conductors(bench.project)), [before])

    def test_a_bridge_makes_one_number_over_two_sheets(self) -> None:
        bench = Workbench(frame="zones")
        other = bench.new("add-sheet", number="31", frame="zones")
        for sheet in (bench.sheet, other):
            bench.wire((20, 20), (60, 20), sheet_id=sheet)
            bench.do("place-terminals", sheet_id=sheet, x1=40, y1=18, x2=40, y2=22)
        (strip,) = bench.project.devices

        def numbers() -> set[str]:
            return {n for s in (bench.sheet, other) for n in wire_numbers(bench.project, s).values()}

        self.assertEqual(numbers(), {"30-1", "31-1"})
        bench.do("bridge-terminals", strip_id=strip, units=[1, 2])
        self.assertEqual(numbers(), {"30-1"})
