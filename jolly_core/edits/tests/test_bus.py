"""A bus: order and spacing around corners, tied onto the bus it begins or ends on."""

from __future__ import annotations

from itertools import combinations, pairwise
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.drawing import Point, bus_lanes, pin_points, simplified
from jolly_core.model import RuleError
from jolly_core.testing import Workbench
from jolly_core.wiring import nets_of_sheet


def ways() -> st.SearchStrategy[list[Point]]:
    """Return ways of level and upright legs, long enough for a bus of four at two steps."""
    legs = st.lists(st.tuples(st.integers(20, 40), st.booleans()), min_size=1, max_size=6)

    def walk(start_level: bool, steps: list[tuple[int, bool]]) -> list[Point]:
        points, (x, y) = [(0, 0)], (0, 0)
        for n, (length, back) in enumerate(steps):
            run = -length if back else length
            x, y = (x + run, y) if (n % 2 == 0) == start_level else (x, y + run)
            points.append((x, y))
        return points

    return st.builds(walk, st.booleans(), legs)


class Lanes(TestCase):
    @given(ways())
    def test_neighbours_keep_their_distance_on_every_leg(self, points: list[Point]) -> None:
        lanes = bus_lanes(points, 4, 2)
        self.assertEqual(lanes[0], points)
        for one, other in pairwise(lanes):
            for (a, b), (c, d) in zip(pairwise(one), pairwise(other), strict=True):
                level = a[1] == b[1]
                self.assertEqual(level, c[1] == d[1])
                self.assertEqual(abs(c[1] - a[1]) if level else abs(c[0] - a[0]), 2)

    def test_the_others_lie_below_or_to_the_right_at_first(self) -> None:
        for end in ((20, 0), (-20, 0)):
            self.assertEqual(bus_lanes([(0, 0), end], 2, 4)[1], [(0, 4), (end[0], 4)])
        for end in ((0, 20), (0, -20)):
            self.assertEqual(bus_lanes([(0, 0), end], 2, 4)[1], [(4, 0), (4, end[1])])

    def test_a_corner_that_goes_straight_on_is_none(self) -> None:
        self.assertEqual(simplified([(0, 0), (0, 0), (5, 0), (2, 0), (2, 3)]), [(0, 0), (2, 0), (2, 3)])


class Drawing(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.black = self.bench.new("add-wire-type", name="Power", colour="BK", cross_section_mm2=2.5)
        self.three = [self.black, self.bench.red, self.bench.blue]

    def bus(self, *points: Point, types: list[str] | None = None, spacing: int = 4) -> list[str]:
        return self.bench.do(
            "draw-bus",
            sheet_id=self.bench.sheet,
            points=[list(p) for p in points],
            wire_type_ids=types or self.three,
            spacing=spacing,
        ).placed

    def nets(self) -> list[set[str]]:
        """Return the wire types of each net of the sheet."""
        wires = self.bench.project.wires
        nets = nets_of_sheet(self.bench.project, self.bench.sheet)
        return [{wires[id].type_id for group in net for id in group.wires} for net in nets]

    def test_one_stroke_around_a_corner(self) -> None:
        self.bus((10, 10), (50, 10), (50, 60))
        expected = [(10, 10 + 4 * n, 50 - 4 * n, 10 + 4 * n) for n in range(3)]
        expected += [(50 - 4 * n, 10 + 4 * n, 50 - 4 * n, 60) for n in range(3)]
        self.assertEqual(self.bench.spans(), sorted(expected))
        self.assertEqual(len(self.nets()), 3)
        self.assertEqual(self.bench.done[-1].label, "draw a bus of 3")

    def test_begun_on_a_bus_each_conductor_ties_to_the_wire_of_its_type(self) -> None:
        self.bus((30, 10), (30, 90))
        self.bus((30, 40), (80, 40), types=[self.bench.blue, self.black, self.bench.red])
        self.assertEqual(sorted(map(len, self.nets())), [1, 1, 1], "no two types have met")
        starts = sorted((x1, y1) for x1, y1, x2, y2 in self.bench.spans() if x2 == 80)
        self.assertEqual(starts, [(30, 44), (34, 48), (38, 40)])

    def test_where_types_are_others_they_tie_in_order(self) -> None:
        self.bus((30, 10), (30, 90), types=[self.black, self.black, self.bench.pe])
        self.bus((30, 40), (80, 40), types=[self.bench.red, self.bench.blue, self.bench.pe])
        starts = sorted((y1, x1) for x1, y1, x2, y2 in self.bench.spans() if x2 == 80)
        self.assertEqual(starts, [(40, 30), (44, 34), (48, 38)])
        self.assertEqual(sorted(map(len, self.nets())), [1, 2, 2], "the protective one found its like")

    def test_one_that_finds_no_wire_joins_none_in_silence(self) -> None:
        self.bus((30, 10), (30, 90), types=[self.black, self.black])
        before = self.bench.spans()
        with self.assertRaisesRegex(RuleError, "wires for 2 of the 3 conductors"):
            self.bus((30, 40), (80, 40))
        self.assertEqual(self.bench.spans(), before)

    def test_it_ends_on_a_bus_as_it_begins(self) -> None:
        self.bus((80, 10), (80, 90))
        self.bus((20, 40), (80, 40))
        self.assertEqual(len(self.nets()), 3)
        ends = sorted((y2, x2) for x1, y1, x2, y2 in self.bench.spans() if x1 == 20)
        self.assertEqual(ends, [(40, 80), (44, 84), (48, 88)])

    def test_a_bus_dropped_from_a_level_one(self) -> None:
        self.bus((10, 10), (100, 10))
        self.bus((40, 10), (40, 60))
        self.assertEqual(sorted(map(len, self.nets())), [1, 1, 1])
        tops = sorted((x1, y1) for x1, y1, x2, y2 in self.bench.spans() if y2 == 60)
        self.assertEqual(tops, [(40, 10), (44, 14), (48, 18)])

    def test_a_symbol_with_as_many_poles_drops_onto_all(self) -> None:
        self.bus((30, 10), (30, 90))
        symbol = self.bench.place("breaker", 30, 40)
        self.assertEqual(len(self.bench.symbol(symbol).units), 3)
        self.assertEqual(len(self.nets()), 6)

    def test_from_the_pins_of_a_device_whichever_is_pointed_at(self) -> None:
        for number, column in enumerate((0, 4, 8)):
            x = 20 + 40 * number
            symbol = self.bench.place("breaker", x, 20, poles=3)
            pins = pin_points(self.bench.symbol(symbol))
            low = max(y for _, y in pins)
            self.bus((x + column, low), (x + column, low + 30))
            drawn = [s for s in self.bench.spans() if s[1] == low and x <= s[0] <= x + 8]
            self.assertEqual(drawn, [(x + 4 * n, low, x + 4 * n, low + 30) for n in range(3)])
        self.assertEqual(len([types for types in self.nets() if types]), 9, "none has met another")

    def test_around_a_corner_onto_the_pins_of_another_device(self) -> None:
        symbol = self.bench.place("breaker", 60, 60, poles=3)
        top = min(y for _, y in pin_points(self.bench.symbol(symbol)))
        self.bus((10, 20), (64, 20), (64, top))
        self.assertEqual(
            [s for s in self.bench.spans() if s[3] == top], [(60, 28, 60, top), (64, 24, 64, top), (68, 20, 68, top)]
        )

    def test_at_a_device_of_three_poles_the_fourth_conductor_lies_beside(self) -> None:
        self.bench.place("breaker", 20, 20, poles=3)
        self.bus((24, 26), (24, 50), types=[*self.three, self.bench.pe])
        self.assertEqual(sorted(s[0] for s in self.bench.spans()), [20, 24, 28, 32])

    def test_refusals_leave_the_sheet_as_it_is(self) -> None:
        cases: list[tuple[list[Point], str]] = [
            ([(10, 10), (10, 10)], "no length"),
            ([(10, 10), (20, 20)], "level or upright"),
            ([(10, 10), (400, 10)], "outside the sheet"),
            ([(10, 112), (60, 112)], "outside the sheet"),
            ([(10, 10), (16, 10), (16, 60)], "closer than it is wide"),
        ]
        for points, words in cases:
            with self.subTest(words), self.assertRaisesRegex(RuleError, words):
                self.bus(*points)
        self.assertEqual(self.bench.spans(), [])

    @given(ways())
    def test_no_conductor_meets_another_and_all_is_undone(self, points: list[Point]) -> None:
        bench = Workbench(frame="zones")
        first = list(bench.project.entities())
        moved = [[x + 80, y + 55] for x, y in points]
        types = [bench.blue, bench.red, bench.pe]
        try:
            outcome = bench.do("draw-bus", sheet_id=bench.sheet, points=moved, wire_type_ids=types, spacing=2)
        except RuleError:
            self.assertEqual(list(bench.project.entities()), first)
            return
        self.assertTrue(bench.canonical())
        turns = list(pairwise(points))
        crossing = any(_cross(a, b) for a, b in combinations(turns, 2))
        if not crossing:
            self.assertEqual(len(nets_of_sheet(bench.project, bench.sheet)), 3)
        bench.project.apply(outcome.changes.inverse())
        self.assertEqual(list(bench.project.entities()), first)


def _cross(one: tuple[Point, Point], other: tuple[Point, Point]) -> bool:
    """Return whether two legs that do not follow each other come within the width of a bus."""
    (ax, ay), (bx, by) = one
    (cx, cy), (dx, dy) = other
    room = 6
    apart = (
        max(ax, bx) + room < min(cx, dx)
        or max(cx, dx) + room < min(ax, bx)
        or max(ay, by) + room < min(cy, dy)
        or max(cy, dy) + room < min(ay, by)
    )
    return not apart and one[1] != other[0]
