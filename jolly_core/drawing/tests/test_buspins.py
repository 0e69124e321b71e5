"""A bus at pins: each conductor meets the pin that is its own, wherever in the row one points."""

from __future__ import annotations

import doctest
from importlib import import_module
from itertools import pairwise
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.drawing import Point, bus_lanes, onto_pins, row_at


class Rows(TestCase):
    def test_pins_across_the_leg_in_order_and_only_of_the_symbol_there(self) -> None:
        breaker = [(28, 20), (28, 26), (20, 20), (20, 26), (24, 20), (24, 26)]
        lamp = [(40, 26), (44, 26)]
        self.assertEqual(row_at((24, 26), False, [lamp, breaker]), [(20, 26), (24, 26), (28, 26)])
        self.assertEqual(row_at((24, 26), True, [lamp, breaker]), [(24, 20), (24, 26)])
        self.assertEqual(row_at((30, 26), False, [lamp, breaker]), [])


class Examples(TestCase):
    def test_the_examples_in_the_docstrings_hold(self) -> None:
        for name in ("bus", "buspins"):
            result = doctest.testmod(import_module(f"jolly_core.drawing.{name}"))
            self.assertEqual(result.failed, 0, name)
            self.assertGreater(result.attempted, 0, name)


class Onto(TestCase):
    @given(
        pins=st.integers(2, 8),
        pitch=st.integers(2, 8),
        pointed=st.integers(0, 7),
        count=st.integers(2, 6),
        down=st.booleans(),
        level=st.booleans(),
        at_end=st.booleans(),
    )
    def test_each_conductor_has_a_pin_of_its_own_and_one_has_the_one_pointed_at(
        self, pins: int, pitch: int, pointed: int, count: int, down: bool, level: bool, at_end: bool
    ) -> None:
        def turned(x: int, y: int) -> Point:
            return (y, x) if level else (x, y)

        row = [turned(100 + pitch * n, 50) for n in range(pins)]
        here = row[pointed % pins]
        away = turned(100 + pitch * (pointed % pins), 90 if down else 10)
        points = [away, here] if at_end else [here, away]
        moved, spacing = onto_pins(points, count, 3, row, at_end)
        ends = [lane[-1 if at_end else 0] for lane in bus_lanes(moved, count, spacing)]
        met = [p for p in ends if p in row]
        self.assertEqual(len(set(met)), min(count, pins))
        self.assertIn(here, met)
        self.assertTrue(all((a[0] == b[0]) != (a[1] == b[1]) for a, b in pairwise(moved)), "no leg is slanted")

    def test_pins_at_uneven_distances_and_a_single_one_change_nothing(self) -> None:
        way = [(10, 20), (10, 60)]
        self.assertEqual(onto_pins(way, 3, 5, [(10, 20), (14, 20), (22, 20)], False), (way, 5))
        self.assertEqual(onto_pins(way, 3, 5, [(10, 20)], False), (way, 5))
