"""Paths in space: worked lengths and bends, curves against fine polylines, cutting in two."""

from __future__ import annotations

from math import dist, hypot, inf, sqrt
from unittest import TestCase

from hypothesis import example, given, settings
from hypothesis import strategies as st

from jolly_core.harness import cut_path, path_through, spots
from jolly_core.model import RuleError

ORIGIN = (0.0, 0.0, 0.0)
QUARTER = ([(0.0, 55.2285, 0.0), (44.7715, 100.0, 0.0)], (100.0, 100.0, 0.0))
BENT = ([(80.0, 0.0, 0.0), (40.0, 60.0, 50.0)], (120.0, 60.0, 50.0))
coordinate = st.integers(-400, 400).map(float)
spot = st.tuples(coordinate, coordinate, coordinate)


def fine(a: tuple[float, ...], between: list[tuple[float, float, float]], b: tuple[float, ...], steps: int) -> float:
    """Return the length of a curve of one piece as a polyline of many steps."""
    chain = [a, *between, b]

    def at(t: float) -> list[float]:
        u = 1 - t
        weights = (u**3, 3 * u * u * t, 3 * u * t * t, t**3)
        return [sum(w * p[i] for w, p in zip(weights, chain, strict=True)) for i in range(3)]

    points = [at(n / steps) for n in range(steps + 1)]
    return sum(map(dist, points, points[1:]))


class Paths(TestCase):
    def test_worked_lengths_and_bends(self) -> None:
        corners = [(300.0, 0.0, 0.0), (300.0, 200.0, 0.0)]
        self.assertEqual(path_through("polyline", ORIGIN, corners, (300.0, 200.0, 150.0)).length_mm, 650.0)
        self.assertEqual(path_through("curve", ORIGIN, *QUARTER).length_mm, 157.1)
        bent = path_through("curve", ORIGIN, *BENT)
        self.assertEqual((bent.length_mm, bent.bend_mm), (153.83, 44.96))
        line = path_through("line", ORIGIN, [], (30.0, 40.0, 0.0))
        self.assertEqual((line.length_mm, line.bend_mm), (50.0, inf))

    def test_a_quarter_circle_bends_about_its_radius(self) -> None:
        self.assertAlmostEqual(path_through("curve", ORIGIN, *QUARTER).bend_mm, 100, delta=1.0)

    @settings(max_examples=60)
    @given(spot, spot, spot, spot)
    def test_curves_are_as_long_as_fine_polylines(
        self,
        a: tuple[float, float, float],
        c: tuple[float, float, float],
        d: tuple[float, float, float],
        b: tuple[float, float, float],
    ) -> None:
        found = path_through("curve", a, [c, d], b).length_mm
        # A polyline of n steps is too short by a share of 1/n²: two of them tell how much.
        coarse, close = fine(a, [c, d], b, 400), fine(a, [c, d], b, 800)
        self.assertAlmostEqual(found, close + (close - coarse) / 3, delta=0.02)
        self.assertGreaterEqual(found, dist(a, b) - 0.01)

    @settings(max_examples=40)
    @given(spot, spot, spot, spot, st.floats(0.05, 0.95))
    @example((144, 162, -358), (-299, 155, -355), (144, 156, -351), (334, 139, -249), 0.8940154654926701)
    def test_a_path_cut_in_two_is_as_long_as_before(
        self,
        a: tuple[float, float, float],
        c: tuple[float, float, float],
        d: tuple[float, float, float],
        b: tuple[float, float, float],
        share: float,
    ) -> None:
        for form, between in (("line", []), ("polyline", [c, d]), ("curve", [c, d])):
            whole = path_through(form, a, between, b).length_mm
            if whole < 1:
                continue
            middle, before, after = cut_path(form, a, between, b, whole * share)
            one = path_through(form, a, before, middle).length_mm
            other = path_through(form, middle, after, b).length_mm
            self.assertAlmostEqual(one, whole * share, delta=0.05)
            self.assertAlmostEqual(one + other, whole, delta=0.05)

    def test_a_curve_of_two_pieces_is_cut_in_its_second(self) -> None:
        between = [*QUARTER[0], QUARTER[1], (155.2285, 100.0, 0.0), (200.0, 55.2285, 0.0)]
        end = (200.0, 0.0, 0.0)
        self.assertEqual(path_through("curve", ORIGIN, between, end).length_mm, 314.2)
        middle, before, after = cut_path("curve", ORIGIN, between, end, 157.1 + 78.55)
        self.assertEqual((len(before), len(after)), (5, 2))
        x, y, _ = middle
        self.assertAlmostEqual(hypot(x - 100, y), 100, delta=0.1)
        self.assertAlmostEqual(x, 100 + 100 / sqrt(2), delta=0.5)

    def test_points_that_make_no_path_are_refused(self) -> None:
        for form, between, said in (
            ("line", [ORIGIN], "nothing between"),
            ("curve", [ORIGIN], "two control points"),
            ("curve", [], "two control points"),
        ):
            with self.assertRaisesRegex(RuleError, said):
                path_through(form, ORIGIN, between, (9.0, 9.0, 9.0))
        with self.assertRaisesRegex(RuleError, "three coordinates"):
            spots([1.0, 2.0])
        with self.assertRaisesRegex(RuleError, "within the segment"):
            cut_path("line", ORIGIN, [], (10.0, 0.0, 0.0), 10.0)
