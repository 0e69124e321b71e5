"""Strips: rows of terminals, sides, order, numbers, bridges, accessories."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.edits.base.history import take_back
from jolly_core.model import RuleError
from jolly_core.tagging import pin_name
from jolly_core.terminals import strip_rows, strip_width_mm, strips
from jolly_core.testing import Workbench
from jolly_core.wiring import sheet_groups, wire_numbers


class Strip(TestCase):
    def setUp(self) -> None:
        """Four level wires from lamps in the panel to lamps in the field, to be crossed by a stroke."""
        self.bench = Workbench(frame="zones")
        self.panel = self.bench.new("add-location", code="P", side="panel")
        self.field = self.bench.new("add-location", code="F", side="field")
        self.ys = (20, 30, 40, 50)
        for y in self.ys:
            for x, place in ((20, self.panel), (80, self.field)):
                lamp = self.bench.place("lamp", x, y)
                self.bench.do("set-place", device_id=self.bench.device(lamp), function_id="", location_id=place)
            self.bench.wire((24, y), (80, y))
        self.symbols = self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=50, y1=18, x2=50, y2=52).placed
        self.strip = self.bench.device(self.symbols[0])

    def numbers(self) -> list[str]:
        return [r.number for r in strip_rows(self.bench.project, self.strip)]

    def test_each_wire_crossed_gets_a_terminal_in_the_order_of_crossing(self) -> None:
        self.assertEqual([self.bench.symbol(s).y for s in self.symbols], list(self.ys))
        self.assertEqual(self.numbers(), ["1", "2", "3", "4"])
        self.assertTrue(self.bench.canonical())
        back = self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=60, y1=52, x2=60, y2=18).placed
        self.assertEqual([self.bench.symbol(s).y for s in back], [50, 40, 30, 20])
        self.assertEqual(self.numbers(), [str(n) for n in range(1, 9)])

    def test_a_stroke_along_wires_or_beside_them_is_refused(self) -> None:
        with self.assertRaisesRegex(RuleError, "crosses no wire"):
            self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=20, y1=25, x2=80, y2=25)
        with self.assertRaisesRegex(RuleError, "level or upright"):
            self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=20, y1=18, x2=30, y2=52)

    def test_the_location_of_the_far_end_decides_the_side(self) -> None:
        row = strip_rows(self.bench.project, self.strip)[0]
        self.assertEqual([t.name for t in row.panel], ["+P-PF1:X2"])
        self.assertEqual([t.name for t in row.field], ["+F-PF1:X1"])
        device = self.bench.device(self.bench.project.symbols_on(self.bench.sheet)[0].id)
        self.bench.do("set-place", device_id=device, function_id="", location_id="")
        row = strip_rows(self.bench.project, self.strip)[0]
        self.assertEqual(([t.name for t in row.panel], [t.name for t in row.unknown]), ([], ["-PF1:X2"]))

    def test_dragging_changes_the_order_and_not_the_drawing(self) -> None:
        spans = self.bench.spans()
        self.bench.do("move-strip-items", strip_id=self.strip, keys=["u4"], to=0)
        self.assertEqual([r.unit for r in strip_rows(self.bench.project, self.strip)], [4, 1, 2, 3])
        self.assertEqual(self.numbers(), ["1", "2", "3", "4"])
        self.assertEqual(self.bench.spans(), spans)
        self.bench.do("delete-selection", ids=[self.symbols[3]])
        self.assertEqual(self.numbers(), ["1", "2", "3"])
        self.assertEqual({i.unit for i in self.bench.project.strip_items.values()}, {1, 2, 3})

    def test_a_number_by_hand_is_shown_everywhere_and_given_once(self) -> None:
        self.bench.do("number-terminal", strip_id=self.strip, unit=2, number="L1")
        self.assertEqual(self.numbers(), ["1", "L1", "3", "4"])
        self.assertEqual(pin_name(self.bench.project, (self.symbols[1], 0)), "-XD1:L1")
        for taken in ("L1", "4"):
            with self.assertRaisesRegex(RuleError, f"has a terminal {taken} already"):
                self.bench.do("number-terminal", strip_id=self.strip, unit=3, number=taken)
        self.bench.do("number-terminal", strip_id=self.strip, unit=2, number="")
        self.assertEqual(self.numbers(), ["1", "2", "3", "4"])

    def test_a_number_by_hand_wins_against_by_wire_and_twice_is_told(self) -> None:
        self.bench.do("set-strip", strip_id=self.strip, numbering="wire")
        by_wire = self.numbers()
        self.bench.do("number-terminal", strip_id=self.strip, unit=2, number="77")
        self.assertEqual(self.numbers(), [by_wire[0], "77", *by_wire[2:]])
        self.assertNotIn("terminal-number-twice", {s.code for s in project_snags(self.bench.project)})
        for record in list(self.bench.project.strip_items.values()):
            self.bench.project.strip_items[record.id] = replace(record, number="5")
        (snag,) = [s for s in project_snags(self.bench.project) if s.code == "terminal-number-twice"]
        self.assertIn("-XD1 has 4 terminals 5", snag.message)

    def number_of(self, symbol: str) -> str:
        groups = sheet_groups(self.bench.project, self.bench.sheet)
        return wire_numbers(self.bench.project, self.bench.sheet)[groups.of_pin[symbol, 0]]

    def test_a_bridge_makes_neighbours_one_potential(self) -> None:
        self.assertNotEqual(self.number_of(self.symbols[0]), self.number_of(self.symbols[1]))
        self.bench.do("bridge-terminals", strip_id=self.strip, units=[1, 2])
        self.assertEqual(self.number_of(self.symbols[0]), self.number_of(self.symbols[1]))
        self.assertNotEqual(self.number_of(self.symbols[1]), self.number_of(self.symbols[2]))
        self.bench.do("bridge-terminals", strip_id=self.strip, units=[2, 3])
        (bridge,) = self.bench.project.bridges.values()
        self.assertEqual(bridge.units, (1, 2, 3))
        self.bench.do("remove-bridge", bridge_id=bridge.id)
        self.assertNotEqual(self.number_of(self.symbols[0]), self.number_of(self.symbols[1]))

    def test_a_bridge_passes_over_terminals_between_and_its_reach_is_checked(self) -> None:
        self.bench.do("assign-part", device_id=self.strip, part_id="QL-K2-5")
        self.bench.do("bridge-terminals", strip_id=self.strip, units=[1, 3])
        (bridge,) = self.bench.project.bridges.values()
        self.assertEqual((bridge.units, self.bench.project.parts[bridge.part_id].number), ((1, 3), "QL-BR2-5-3"))
        self.assertEqual(self.number_of(self.symbols[0]), self.number_of(self.symbols[2]))
        self.assertNotEqual(self.number_of(self.symbols[0]), self.number_of(self.symbols[1]))
        self.assertNotIn("bridge", {s.code for s in project_snags(self.bench.project)})
        self.bench.do("move-strip-items", strip_id=self.strip, keys=["u1"], to=3)
        self.assertNotIn("bridge", {s.code for s in project_snags(self.bench.project)})
        self.bench.do("move-strip-items", strip_id=self.strip, keys=["u3"], to=0)
        found = [s.message for s in project_snags(self.bench.project) if s.code == "bridge"]
        self.assertEqual(found, ["A bridge of -XD1 reaches over 4 terminals, QL-BR2-5-3 over 3."])

    def test_a_bridge_between_different_fixed_numbers_is_a_snag(self) -> None:
        wires = {(w.y1, w.x2 <= 50): w.id for w in self.bench.project.wires_on(self.bench.sheet)}
        for y, number in ((20, "71"), (30, "72")):
            self.bench.do("fix-wire-number", wire_id=wires[y, True], number=number)
        self.bench.do("bridge-terminals", strip_id=self.strip, units=[1, 2])
        found = [s.message for s in project_snags(self.bench.project) if s.code == "bridge"]
        self.assertEqual(found, ["A bridge of -XD1 joins the fixed numbers 71 and 72."])

    def test_accessories_have_a_place_and_count_in_the_width(self) -> None:
        self.bench.do("assign-part", device_id=self.strip, part_id="quillon-ql-t4")
        self.assertEqual(strip_width_mm(self.bench.project, self.strip), 24.8)
        item = self.bench.do(
            "add-strip-accessory", strip_id=self.strip, accessory="end-bracket", position=0, part_id="quillon-ql-eb"
        )
        self.assertEqual(self.numbers()[0], "End bracket")
        self.assertEqual(strip_width_mm(self.bench.project, self.strip), 34.3)
        self.bench.project.apply(take_back(self.bench.project, item.changes))
        self.assertEqual(strip_width_mm(self.bench.project, self.strip), 24.8)
        self.assertNotIn("quillon-ql-eb", self.bench.project.parts)

    def test_a_strip_goes_with_its_last_terminal(self) -> None:
        self.bench.do("bridge-terminals", strip_id=self.strip, units=[1, 2])
        self.bench.do("delete-selection", ids=self.symbols)
        self.assertEqual(strips(self.bench.project), [])
        self.assertEqual((self.bench.project.strip_items, self.bench.project.bridges), ({}, {}))
