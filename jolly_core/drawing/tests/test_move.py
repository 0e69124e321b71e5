"""Moving, taking away and putting back on wires."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.model import RuleError
from jolly_core.testing import Workbench


class OnAWire(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()
        self.bench.wire((2, 10), (40, 10))
        self.symbol = self.bench.place("contact-no", 12, 10)

    def move(self, dx: int, dy: int, *ids: str, **more: bool) -> None:
        self.bench.do("move-selection", ids=list(ids) or [self.symbol], dx=dx, dy=dy, **more)

    def test_placing_cuts_moving_along_carries_the_gap_deleting_heals(self) -> None:
        self.assertEqual(self.bench.spans(), [(2, 10, 12, 10), (16, 10, 40, 10)])
        self.move(8, 0)
        self.assertEqual(self.bench.spans(), [(2, 10, 20, 10), (24, 10, 40, 10)])
        self.bench.do("delete-selection", ids=[self.symbol])
        self.assertEqual(self.bench.spans(), [(2, 10, 40, 10)])

    def test_off_the_line_wires_stretch_with_elbows_and_back(self) -> None:
        self.move(0, 4)
        self.assertEqual(
            self.bench.spans(),
            [(2, 10, 12, 10), (12, 10, 12, 14), (16, 10, 16, 14), (16, 10, 40, 10)],
        )
        self.move(0, -4)
        self.assertEqual(self.bench.spans(), [(2, 10, 12, 10), (16, 10, 40, 10)])

    def test_past_a_corner_would_short_it_and_is_refused(self) -> None:
        bench = Workbench()
        bench.wire((2, 10), (20, 10), (20, 30))
        symbol = bench.place("contact-no", 12, 10)
        other = bench.place("lamp", 20, 30)
        self.assertTrue(other)
        before = bench.spans()
        with self.assertRaises(RuleError):
            bench.do("move-selection", ids=[symbol], dx=10, dy=0)
        self.assertEqual(bench.spans(), before)

    def test_past_a_junction_is_a_join_that_must_be_allowed(self) -> None:
        self.bench.wire((30, 10), (30, 20))
        self.bench.place("lamp", 30, 20)
        self.bench.place("coil", 40, 10)
        left = self.bench.place("button-nc", 5, 10)
        self.assertTrue(left)
        with self.assertRaisesRegex(RuleError, "join"):
            self.move(20, 0)
        self.move(20, 0, allow_join=True)
        self.assertTrue(self.bench.canonical())

    def test_a_loose_symbol_dropped_on_a_wire_is_no_join(self) -> None:
        loose = self.bench.place("lamp", 20, 30)
        self.move(4, -20, loose)
        self.assertIn((28, 10, 40, 10), self.bench.spans())

    def test_two_symbols_never_share_a_place(self) -> None:
        with self.assertRaisesRegex(RuleError, "already -KF1|already a symbol"):
            self.bench.place("contact-nc", 14, 10)

    def test_stubs_of_two_types_do_not_heal(self) -> None:
        right = next(w for w in self.bench.project.wires_on(self.bench.sheet) if w.x1 == 16)
        self.bench.do("set-wire-type", ids=[right.id], wire_type_id=self.bench.red)
        self.bench.do("delete-selection", ids=[self.symbol])
        self.assertEqual(self.bench.spans(), [(2, 10, 12, 10), (16, 10, 40, 10)])

    def test_not_onto_a_junction(self) -> None:
        self.bench.wire((30, 10), (30, 20))
        with self.assertRaisesRegex(RuleError, "junction"):
            self.bench.place("lamp", 28, 10)

    def test_poles_land_on_the_wires_they_meet_but_never_on_a_protective_one(self) -> None:
        bench = Workbench(frame="zones")
        for i in range(3):
            bench.wire((30 + 4 * i, 10), (30 + 4 * i, 60))
        bench.wire((42, 10), (42, 60), type_id=bench.pe)
        breaker = bench.place("breaker", 30, 20)
        self.assertEqual(len(bench.symbol(breaker).units), 3)
        self.assertIn((38, 26, 38, 60), bench.spans())
        self.assertIn((42, 10, 42, 60), bench.spans())

    def test_moving_a_wire_takes_what_hangs_on_it_along(self) -> None:
        self.bench.wire((30, 10), (30, 20))
        wire = next(w for w in self.bench.project.wires_on(self.bench.sheet) if (w.x1, w.x2) == (16, 30))
        self.move(0, 3, wire.id)
        self.assertTrue(self.bench.canonical())
        self.assertIn((16, 10, 16, 13), self.bench.spans())

    def test_turning_keeps_wires_on_where_pins_still_meet_them(self) -> None:
        self.bench.do("turn-selection", ids=[self.symbol], how="turn")
        self.bench.do("turn-selection", ids=[self.symbol], how="turn")
        self.assertEqual(self.bench.spans(), [(2, 10, 12, 10), (16, 10, 40, 10)])
        self.bench.do("turn-selection", ids=[self.symbol], how="flip")
        self.assertEqual(self.bench.spans(), [(2, 10, 12, 10), (16, 10, 40, 10)])
