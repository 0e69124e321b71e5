"""Shortest ways through ducts, against a small reference of another kind."""

from __future__ import annotations

from itertools import pairwise
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.cabinet import Lane, LaneGraph, lane
from jolly_core.model import RuleError

Point = tuple[float, float]
FAR = float("inf")


def reference(lanes: list[Lane], a: tuple[int, Point], b: tuple[int, Point]) -> float:
    """Return the shortest way between two points on lanes by all pairs (Floyd and Warshall) over every point named.

    Args:
        a, b: index of a lane and a point on it.
    """
    on: list[set[Point]] = [set() for _ in lanes]
    for n, one in enumerate(lanes):
        on[n] |= {(one.x1, one.y1), (one.x2, one.y2)}
        for m, other in enumerate(lanes):
            if (one.y1 == one.y2) == (other.y1 == other.y2):
                ends = ((other.x1, other.y1), (other.x2, other.y2))
                on[n] |= {p for p in ends if one.x1 <= p[0] <= one.x2 and one.y1 <= p[1] <= one.y2}
                continue
            level, upright = (one, other) if one.y1 == one.y2 else (other, one)
            meets = (
                level.x1 - upright.width / 2 - 1 <= upright.x1 <= level.x2 + upright.width / 2 + 1
                and upright.y1 - level.width / 2 - 1 <= level.y1 <= upright.y2 + level.width / 2 + 1
            )
            if meets:
                on[n].add((upright.x1, level.y1))
                on[m].add((upright.x1, level.y1))
    on[a[0]].add(a[1])
    on[b[0]].add(b[1])
    points = sorted(set().union(*on))
    index = {p: i for i, p in enumerate(points)}
    steps = [[0.0 if i == j else FAR for j in range(len(points))] for i in range(len(points))]
    for group in on:
        for p, q in pairwise(sorted(group)):
            length = abs(p[0] - q[0]) + abs(p[1] - q[1])
            i, j = index[p], index[q]
            steps[i][j] = steps[j][i] = min(length, steps[i][j])
    for i, p in enumerate(points):
        for j, q in enumerate(points):
            gap = abs(p[0] - q[0]) + abs(p[1] - q[1])
            if i != j and gap <= 1.0:
                steps[i][j] = min(steps[i][j], gap)
    for k in range(len(points)):
        for i in range(len(points)):
            for j in range(len(points)):
                steps[i][j] = min(steps[i][j], steps[i][k] + steps[k][j])
    return steps[index[a[1]]][index[b[1]]]


@st.composite
def lane_sets(draw: st.DrawFn) -> list[Lane]:
    """Draw up to eight level and upright lanes on a grid of 50 mm, 40 mm wide, so that many meet and some do not."""
    found: list[Lane] = []
    for n in range(draw(st.integers(1, 8))):
        at, low = draw(st.integers(0, 12)) * 50.0, draw(st.integers(0, 10)) * 50.0
        high = low + draw(st.integers(1, 8)) * 50.0
        level = draw(st.booleans())
        found.append(lane(f"d{n}", low, at, high, at, 40.0) if level else lane(f"d{n}", at, low, at, high, 40.0))
    return found


class Ways(TestCase):
    @settings(max_examples=400, deadline=None)
    @given(lane_sets(), st.tuples(*[st.integers(-2, 70) for _ in range(4)]))
    def test_the_way_is_the_shortest_that_any_search_finds(self, lanes: list[Lane], at: tuple[int, ...]) -> None:
        graph = LaneGraph(lanes)
        start, end = graph.entry((at[0] * 10.0, at[1] * 10.0)), graph.entry((at[2] * 10.0, at[3] * 10.0))
        wanted = reference(lanes, (start.lane, start.point), (end.lane, end.point))
        if wanted == FAR:
            with self.assertRaisesRegex(RuleError, "no way through the ducts"):
                graph.way(start, end)
            return
        way = graph.way(start, end)
        self.assertAlmostEqual(way.length, wanted, places=6)
        # The corners that are drawn are as long as the figure says, and go from entry to entry.
        drawn = sum(abs(p[0] - q[0]) + abs(p[1] - q[1]) for p, q in pairwise(way.points))
        self.assertAlmostEqual(drawn, wanted, places=6)
        self.assertEqual((way.points[0], way.points[-1]), (start.point, end.point))
        self.assertAlmostEqual(graph.way(end, start).length, wanted, places=6)

    @settings(max_examples=200, deadline=None)
    @given(lane_sets(), st.integers(-100, 800), st.integers(-100, 800))
    def test_a_wire_enters_the_nearest_lane(self, lanes: list[Lane], x: int, y: int) -> None:
        graph = LaneGraph(lanes)
        entry = graph.entry((float(x), float(y)))
        for one in lanes:
            low, high = one.span()
            along = min(max(one.along((x, y)), low), high)
            px, py = one.at(along)
            self.assertLessEqual(entry.distance, abs(px - x) + abs(py - y) + 1e-9)


class Joints(TestCase):
    def test_ducts_that_overlap_on_one_line_are_joined(self) -> None:
        graph = LaneGraph([lane("a", 0, 0, 200, 0, 40), lane("b", 150, 0, 250, 0, 40)])
        self.assertEqual(graph.way(graph.entry((10, 0)), graph.entry((240, 0))).length, 230)

    def test_a_duct_that_ends_in_the_width_of_another_joins_it(self) -> None:
        upright = lane("v", 20, 0, 20, 600, 40)
        for end, joined in ((40.0, True), (41.0, True), (45.0, False)):
            graph = LaneGraph([upright, lane("h", end, 300, 500, 300, 40)])
            start, stop = graph.entry((20, 0)), graph.entry((500, 300))
            if joined:
                self.assertEqual(graph.way(start, stop).length, 780)
            else:
                with self.assertRaises(RuleError):
                    graph.way(start, stop)

    def test_ducts_laid_end_to_end_are_one_way(self) -> None:
        graph = LaneGraph([lane("a", 0, 50, 300, 50, 40), lane("b", 300.5, 50, 600, 50, 40)])
        way = graph.way(graph.entry((10, 0)), graph.entry((590, 0)))
        self.assertEqual(way.length, 580)
        self.assertEqual([s[0] for s in way.stretches], ["a", "b"])

    def test_without_ducts_and_with_a_slanted_one_the_message_says_what_to_do(self) -> None:
        with self.assertRaisesRegex(RuleError, "no duct on the plate yet"):
            LaneGraph([]).entry((0, 0))
        for ends in ((0, 0, 10, 10), (5, 5, 5, 5)):
            with self.assertRaisesRegex(RuleError, "level or upright"):
                lane("x", *ends, 40)

    def test_a_way_on_one_duct_needs_no_node(self) -> None:
        graph = LaneGraph([lane("a", 0, 50, 600, 50, 40)])
        way = graph.way(graph.entry((100, 80)), graph.entry((350, 20)))
        self.assertEqual((way.length, way.stretches), (250, [("a", 100, 350)]))
