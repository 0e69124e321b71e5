"""Shortest ways through ducts, against a small reference of another kind."""

from __future__ import annotations

from itertools import pairwise
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.cabinet import LanePiece, Network, SurfaceLink, piece, pieces_of_line
from jolly_core.cabinet.ways import Axis
from jolly_core.model import RuleError

Point = tuple[float, float]
FAR = float("inf")


def reference(lanes: list[LanePiece], a: tuple[int, Point], b: tuple[int, Point]) -> float:
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
def lane_sets(draw: st.DrawFn) -> list[LanePiece]:
    """Draw up to eight level and upright lanes on a grid of 50 mm, 40 mm wide, so that many meet and some do not."""
    found: list[LanePiece] = []
    for n in range(draw(st.integers(1, 8))):
        at, low = draw(st.integers(0, 12)) * 50.0, draw(st.integers(0, 10)) * 50.0
        high = low + draw(st.integers(1, 8)) * 50.0
        level = draw(st.booleans())
        found.append(piece(f"d{n}", low, at, high, at, 40.0) if level else piece(f"d{n}", at, low, at, high, 40.0))
    return found


class Ways(TestCase):
    @settings(max_examples=400, deadline=None)
    @given(lane_sets(), st.tuples(*[st.integers(-2, 70) for _ in range(4)]))
    def test_the_way_is_the_shortest_over_all_ways_in_that_any_search_finds(
        self, lanes: list[LanePiece], at: tuple[int, ...]
    ) -> None:
        graph = Network(lanes)
        a, b = (at[0] * 10.0, at[1] * 10.0), (at[2] * 10.0, at[3] * 10.0)
        starts, ends = graph.ways_in("", a), graph.ways_in("", b)
        wanted = min(
            one.distance + reference(lanes, (one.piece, one.point), (two.piece, two.point)) + two.distance
            for one in starts
            for two in ends
        )
        if wanted == FAR:
            with self.assertRaisesRegex(RuleError, "no way through the ducts"):
                graph.way(starts, ends)
            return
        way = graph.way(starts, ends)
        self.assertAlmostEqual(way.length, wanted, places=6)
        # The corners that are drawn are as long as the figure says, and go from pin to pin without a jump.
        points = [p for leg in way.legs for p in leg.points]
        drawn = sum(abs(p[0] - q[0]) + abs(p[1] - q[1]) for p, q in pairwise(points))
        self.assertAlmostEqual(drawn, wanted, places=6)
        if points:
            self.assertEqual((points[0], points[-1]), (a, b))
        self.assertAlmostEqual(graph.way(ends, starts).length, wanted, places=6)

    @settings(max_examples=200, deadline=None)
    @given(lane_sets(), st.integers(-100, 800), st.integers(-100, 800), st.sampled_from((0.0, 60.0, 150.0)))
    def test_all_lanes_within_reach_are_ways_in_and_beyond_it_the_nearest(
        self, lanes: list[LanePiece], x: int, y: int, reach: float
    ) -> None:
        graph = Network(lanes, reach_mm=reach)
        found = {e.piece: e.distance for e in graph.ways_in("", (float(x), float(y)))}
        far = {}
        for n, one in enumerate(lanes):
            ends = [(one.x1, one.y1), (one.x2, one.y2)]
            # a crossing half a duct's width beyond an end makes the lane longer
            ends += [point for m in range(len(lanes)) for point in meeting(one, lanes[m])]
            low, high = min(ends), max(ends)
            px, py = min(max(x, low[0]), high[0]), min(max(y, low[1]), high[1])
            far[n] = abs(px - x) + abs(py - y)
        near = {n: d for n, d in far.items() if d <= reach}
        if near:
            self.assertEqual(found, near)
        else:
            self.assertEqual(list(found.values()), [min(far.values())])

    def test_of_ways_of_one_length_the_one_with_fewer_turns_is_taken(self) -> None:
        steps = [piece(f"h{n}", 0, n * 100.0, 300, n * 100.0) for n in range(4)]
        steps += [piece(f"v{n}", n * 100.0, 0, n * 100.0, 300) for n in range(4)]
        graph = Network(steps)
        way = graph.way(graph.ways_in("", (0, 0), reach_mm=0), graph.ways_in("", (300, 300), reach_mm=0))
        self.assertEqual((way.length, len(way.stretches)), (600, 2))


def meeting(a: LanePiece, b: LanePiece) -> list[Point]:
    """Return where two pieces across each other meet, as the reference sees it."""
    if a is b or a.level == b.level:
        return []
    level, upright = (a, b) if a.level else (b, a)
    meets = (
        level.x1 - upright.width / 2 - 1 <= upright.x1 <= level.x2 + upright.width / 2 + 1
        and upright.y1 - level.width / 2 - 1 <= level.y1 <= upright.y2 + level.width / 2 + 1
    )
    return [(upright.x1, level.y1)] if meets else []


class WaysIn(TestCase):
    """A pin is left upwards or downwards first; what lies beside it is a way in only where nothing else is."""

    RING = [
        piece("bottom", 0, 0, 400, 0),
        piece("right", 400, 0, 400, 300),
        piece("top", 0, 300, 400, 300),
        piece("left", 0, 0, 0, 300),
    ]

    def entries(self, pin: Point, axis: Axis = "upright", side: int = 0) -> list[str]:
        graph = Network(self.RING)
        return [graph.pieces[e.piece].id for e in graph.ways_in("", pin, axis=axis, side=side)]

    def test_a_worked_ring(self) -> None:
        graph = Network(self.RING)
        starts, ends = (graph.ways_in("", p, axis="upright") for p in ((150, 20), (300, 280)))
        self.assertEqual(graph.way(starts, ends).length, 20 + 650 + 20)

    def test_the_way_out_of_a_pin_says_which_lanes_are_ways_in(self) -> None:
        self.assertEqual(self.entries((300, 280)), ["top"])
        self.assertEqual(self.entries((300, 280), axis=""), ["top", "right"])
        self.assertEqual(self.entries((300, 280), axis="level"), ["right"])
        self.assertEqual(self.entries((200, 150)), ["bottom", "top"])
        self.assertEqual(self.entries((200, 150), side=-1), ["bottom"])
        self.assertEqual(self.entries((200, 150), side=1), ["top"])
        self.assertEqual(self.entries((200, 290), side=-1), ["top"], "the wrong side is better than none")


class Joints(TestCase):
    def test_ducts_that_overlap_on_one_line_are_joined(self) -> None:
        graph = Network([piece("a", 0, 0, 200, 0, 40), piece("b", 150, 0, 250, 0, 40)])
        self.assertEqual(graph.way(graph.ways_in("", (10, 0)), graph.ways_in("", (240, 0))).length, 230)

    def test_a_duct_that_ends_in_the_width_of_another_joins_it(self) -> None:
        upright = piece("v", 20, 0, 20, 600, 40)
        for end, joined in ((40.0, True), (41.0, True), (45.0, False)):
            graph = Network([upright, piece("h", end, 300, 500, 300, 40)], reach_mm=0)
            start, stop = graph.ways_in("", (20, 0)), graph.ways_in("", (500, 300))
            self.assertEqual([len(p) for p in graph.parts()], [2] if joined else [1, 1])
            if joined:
                self.assertEqual(graph.way(start, stop).length, 780)
            else:
                with self.assertRaises(RuleError):
                    graph.way(start, stop)

    def test_ducts_laid_end_to_end_are_one_way(self) -> None:
        graph = Network([piece("a", 0, 50, 300, 50, 40), piece("b", 300.5, 50, 600, 50, 40)])
        way = graph.way(graph.ways_in("", (10, 50)), graph.ways_in("", (590, 50)))
        self.assertEqual(way.length, 580)
        self.assertEqual([s[0] for s in way.stretches], ["a", "b"])

    def test_drawn_lines_join_ducts_and_each_other_at_any_angle(self) -> None:
        duct = piece("d", 0, 0, 400, 0, 40)
        line = pieces_of_line("l", (100, 15, 100, 100, 130, 140, 300, 140))
        across = pieces_of_line("x", (200, 100, 260, 180))
        graph = Network([duct, *line, *across], reach_mm=0)
        self.assertEqual(len(graph.parts()), 1)
        way = graph.way(graph.ways_in("", (0, 0)), graph.ways_in("", (260, 180)))
        # 100 in the duct, up the line and its slanted piece, level to the crossing at 230, 140, along the other line
        self.assertAlmostEqual(way.length, 100 + 100 + 50 + 100 + 50)
        self.assertEqual([s[0] for s in way.stretches], ["d", "l", "l", "l", "x"])
        self.assertEqual(way.stretches[2][1:], (85.0, 135.0), "counted along the whole line")

    def test_without_ducts_and_with_a_slanted_one_the_message_says_what_to_do(self) -> None:
        graph = Network([])
        with self.assertRaisesRegex(RuleError, "no duct on the plate yet"):
            graph.way(graph.ways_in("", (0, 0)), graph.ways_in("", (5, 5)))
        for ends in ((0, 0, 10, 10), (5, 5, 5, 5)):
            with self.assertRaisesRegex(RuleError, "level or upright"):
                piece("x", *ends, 40)

    def test_a_way_on_one_duct_needs_no_node(self) -> None:
        graph = Network([piece("a", 0, 50, 600, 50, 40)])
        way = graph.way(graph.ways_in("", (100, 80)), graph.ways_in("", (350, 20)))
        self.assertEqual((way.length, way.stretches), (310, [("a", 100, 350)]))

    def test_surfaces_are_joined_by_crossings_with_the_wire_these_take(self) -> None:
        plate = piece("d", 0, 100, 400, 100, 40, "plate")
        hinge = SurfaceLink("", "plate", (400, 150), "door", (450, 170), 450, "loop at the hinge")
        bare = Network([plate], [hinge])
        way = bare.way(bare.ways_in("plate", (0, 80)), bare.ways_in("door", (400, 100)))
        self.assertEqual(way.length, 20 + 400 + 50 + 450 + 50 + 70)
        self.assertEqual([leg.kind for leg in way.legs], ["free", "lane", "free", "crossing", "free"])
        led = Network([plate, piece("e", 300, 180, 500, 180, 40, "door")], [hinge])
        way = led.way(led.ways_in("plate", (0, 80)), led.ways_in("door", (400, 100)))
        self.assertEqual(way.length, 20 + 400 + 50 + 450 + 10 + 50 + 80)
        back = led.way(led.ways_in("door", (400, 100)), led.ways_in("plate", (0, 80)))
        self.assertEqual((back.length, back.legs[-1].surface), (way.length, "plate"))

    def test_a_wire_changes_no_lane_at_the_end_of_a_crossing_it_does_not_pass(self) -> None:
        pieces = [piece("d", 0, 100, 400, 100, 40, "plate"), piece("e", 0, 200, 400, 200, 40, "plate")]
        hinge = SurfaceLink("", "plate", (400, 150), "door", (450, 170), 450, "loop at the hinge")
        network = Network(pieces, [hinge])
        ends = network.ways_in("plate", (0, 80), reach_mm=30), network.ways_in("plate", (0, 220), reach_mm=30)
        with self.assertRaisesRegex(RuleError, "There is no way through the ducts"):
            network.way(*ends)
        self.assertEqual(len(network.parts()), 2, "these lanes do not hang together")
        door = network.way(ends[1], network.ways_in("door", (400, 100)))
        self.assertEqual(door.length, 20 + 400 + 50 + 450 + 50 + 70)

    def test_a_line_drawn_to_the_left_or_up_lies_where_it_was_drawn(self) -> None:
        corners = [(490, 200), (490, 135), (225, 135), (225, 60), (300, 20)]
        pins = [(480, 190), (400, 120), (230, 140), (240, 70), (290, 40)]
        ways = []
        for line in (corners, corners[::-1]):
            network = Network(pieces_of_line("l", [v for point in line for v in point]))
            entries = [network.ways_in("", pin) for pin in pins]
            ways.append([round(network.way(a, b).length, 6) for a in entries for b in entries])
        self.assertEqual(ways[0], ways[1])
        self.assertEqual(ways[0][1], 55 + 80 + 15)
