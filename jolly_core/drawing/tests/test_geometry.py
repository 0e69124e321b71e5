"""Placed symbols on the grid, and moving as a property."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.drawing import UPRIGHT, SheetDraft, extent_of, joins, lies_upright, pin_points, through_spans
from jolly_core.library import definitions
from jolly_core.model import CoreError, IdSource, RuleError, Symbol
from jolly_core.testing import Workbench

placed = st.builds(
    lambda key, x, y, rotation, mirror: Symbol(
        "y", "s", x, y, key, rotation, mirror, units=tuple([0] * definitions()[key].max_poles)
    ),
    st.sampled_from(sorted(definitions())),
    st.integers(20, 80),
    st.integers(20, 80),
    st.sampled_from([0, 90, 180, 270]),
    st.booleans(),
)


class Placing(TestCase):
    @settings(deadline=None)
    @given(placed)
    def test_turning_keeps_distances_and_spans_join_pins(self, symbol: Symbol) -> None:
        points = pin_points(symbol)
        flat = pin_points(Symbol("y", "s", 0, 0, symbol.definition, units=symbol.units))
        self.assertEqual(points[0], (symbol.x, symbol.y))
        for (px, py), (fx, fy) in zip(points, flat, strict=True):
            self.assertEqual((px - symbol.x) ** 2 + (py - symbol.y) ** 2, fx**2 + fy**2)
        for low, high in through_spans(symbol):
            self.assertLess(low, high)
            self.assertTrue({low, high} <= set(points))
            self.assertTrue(low[0] == high[0] or low[1] == high[1])

    @settings(deadline=None)
    @given(placed)
    def test_the_extent_holds_all_pins(self, symbol: Symbol) -> None:
        left, top, right, bottom = extent_of(symbol)
        for x, y in pin_points(symbol):
            self.assertTrue(left <= x <= right and top <= y <= bottom)

    def test_upright_puts_the_first_pin_on_top_and_poles_to_the_right(self) -> None:
        symbol = Symbol("y", "s", 30, 20, "breaker", *UPRIGHT, units=(1, 2, 3))
        self.assertEqual(pin_points(symbol), [(30, 20), (30, 26), (34, 20), (34, 26), (38, 20), (38, 26)])
        self.assertTrue(lies_upright(symbol))
        self.assertFalse(lies_upright(Symbol("y", "s", 0, 0, "breaker")))
        self.assertTrue(lies_upright(Symbol("y", "s", 0, 0, "motor")))


class Joins(TestCase):
    def test_only_what_was_wired_apart_and_is_together_now(self) -> None:
        a, b, c = ("a", 0), ("b", 0), ("c", 0)
        self.assertEqual(joins({a: 0, b: 1}, {a: 5, b: 5}), [(a, b)])
        self.assertEqual(joins({a: 0, b: 0}, {a: 5, b: 5}), [])
        self.assertEqual(joins({a: 0, b: 0}, {a: 5, b: 6}), [], "coming apart is no join")
        self.assertEqual(joins({a: 0}, {a: 5, c: 5}), [], "what was not wired is no join")

    def test_a_partition_knows_pins_that_touch_and_leaves_bare_ones_out(self) -> None:
        bench = Workbench()
        bench.place("lamp", 20, 16)
        bench.place("lamp", 24, 16)
        bare = bench.place("lamp", 40, 30)
        found = SheetDraft(bench.project, bench.sheet, IdSource()).partition()
        self.assertEqual(len(found), 2)
        self.assertNotIn((bare, 0), found)


class Parting(TestCase):
    def test_a_symbol_across_the_end_of_its_wire_would_lose_it(self) -> None:
        bench = Workbench(rails=True)
        bench.wire((14, 25), (82, 25))
        contact = bench.place("limit-no", 20, 25)
        before = bench.spans()
        with self.assertRaisesRegex(RuleError, "part -BG1 from what it is connected to"):
            bench.do("move-selection", ids=[contact], dx=-7, dy=0)
        self.assertEqual(bench.spans(), before)

    def test_a_lone_stub_may_be_swallowed(self) -> None:
        """A wire that leads nowhere else holds nothing back."""
        bench = Workbench()
        bench.wire((20, 25), (30, 25))
        lamp = bench.place("lamp", 30, 25)
        bench.do("move-selection", ids=[lamp], dx=-5, dy=0)
        self.assertTrue(bench.canonical())


class MovingThereAndBack(TestCase):
    @settings(max_examples=120, deadline=None)
    @given(st.integers(-12, 12), st.integers(-6, 6), st.integers(20, 56))
    def test_a_contact_on_a_rung(self, dx: int, dy: int, x: int) -> None:
        """A contact moved away and back by two accepted moves leaves the nets as they were."""
        bench = Workbench(rails=True)
        bench.wire((14, 25), (82, 25))
        contact = bench.place("limit-no", x, 25)
        bench.place("lamp", 70, 25)
        before = SheetDraft(bench.project, bench.sheet, bench.ids).partition()
        try:
            bench.do("move-selection", ids=[contact], dx=dx, dy=dy)
            bench.do("move-selection", ids=[contact], dx=-dx, dy=-dy)
        except CoreError:
            return
        after = SheetDraft(bench.project, bench.sheet, bench.ids).partition()
        self.assertEqual(self.sets(before), self.sets(after))
        self.assertTrue(bench.canonical())

    @staticmethod
    def sets(partition: dict[tuple[str, int], int]) -> set[frozenset[tuple[str, int]]]:
        groups: dict[int, set[tuple[str, int]]] = {}
        for name, number in partition.items():
            groups.setdefault(number, set()).add(name)
        return {frozenset(g) for g in groups.values()}
