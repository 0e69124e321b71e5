"""Figures of wires, cables, ducts and enclosures: worked cases, and what must hold for any."""

from __future__ import annotations

import doctest
from importlib import import_module
from math import isclose, sqrt
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.library import awg_area_mm2
from jolly_core.model import RuleError, WireType
from jolly_core.sizing import (
    area_mm2,
    bundle_diameter_mm,
    effective_surface_m2,
    fan_m3_per_h,
    fill_percent,
    heating_w,
    outer_diameter_mm,
    resistance_ohm_per_km,
    rounded_up_mm,
    strip_length_mm,
    voltage_drop,
    warming,
)


class Docstrings(TestCase):
    def test_the_examples_in_the_docstrings_hold(self) -> None:
        results = [doctest.testmod(import_module(f"jolly_core.sizing.{name}")) for name in ("wires", "drop", "warming")]
        self.assertEqual(sum(r.failed for r in results), 0)
        self.assertGreater(sum(r.attempted for r in results), 4)


class Bundles(TestCase):
    def test_worked_cases(self) -> None:
        for sizes, diameter in (
            ([2.0] * 4, 4.83),
            ([3.5] * 3, 7.54),
            ([2.0] * 2, 4.0),
            ([2.0] * 3, 4.31),
            ([2.6, 2.6], 5.2),
            ([2.0] * 7, 6.0),
            ([2.0] * 10, 7.63),
            ([2.0] * 19, 9.73),
            ([2.0] * 61, 18.74),  # by the rule of thumb
            ([1.4, 2.0, 3.0], 5.0),
        ):
            self.assertEqual(round(bundle_diameter_mm(sizes), 2), diameter, sizes)

    def test_one_wire_is_as_thick_as_itself_and_none_is_nothing(self) -> None:
        self.assertEqual(bundle_diameter_mm([2.6]), 2.6)
        self.assertEqual(bundle_diameter_mm([1.0, 2.0, 0.5]), 3.0, "the third lies in the gap of the two")
        self.assertEqual(bundle_diameter_mm([]), 0.0)


class Fill(TestCase):
    def test_worked_cases(self) -> None:
        for sizes, width, depth, percent in (
            ([3.5] * 20 + [2.6] * 30, 40, 60, 14.7),
            ([2.6] * 10, 25, 60, 3.5),
            ([3.5] * 50, 40, 60, 20.0),
            ([3.0] * 40, 60, 60, 7.9),
            ([2.6] * 100, 25, 40, 53.1),
            ([], 40, 60, 0.0),
        ):
            self.assertEqual(round(fill_percent(sizes, width, depth), 1), percent)

    def test_a_duct_without_measures_is_refused(self) -> None:
        with self.assertRaisesRegex(RuleError, "no width or depth"):
            fill_percent([2.6], 0, 60)


class Drops(TestCase):
    def test_worked_cases(self) -> None:
        for amps, metres, area, volts, factor, phases, fall in (
            (15.5, 35, 2.5, 400, 0.84, 3, 7.58),
            (5, 20, 1.5, 24, 1.0, 1, 3.18),
            (6.5, 35, 2.5, 400, 0.84, 3, 3.18),
            (10, 50, 4, 400, 0.9, 3, 4.65),
            (2, 100, 0.75, 24, 1.0, 1, 12.44),
            (16, 25, 2.5, 230, 1.0, 1, 7.64),
            (0.1, 22, 0.75, 24, 1.0, 1, 0.14),
        ):
            found = voltage_drop(
                current_a=amps, length_m=metres, area_mm2=area, voltage_v=volts, power_factor=factor, phases=phases
            )
            self.assertEqual(round(found.volts, 2), fall)
            self.assertTrue(isclose(found.percent, 100 * found.volts / volts))
            self.assertIn(f"{found.volts:.2f} V", found.why)

    def test_what_is_missing_is_named(self) -> None:
        good: dict[str, Any] = {"current_a": 5.0, "length_m": 20.0, "area_mm2": 1.5, "voltage_v": 24.0}
        for field, name in (("current_a", "current"), ("length_m", "length"), ("voltage_v", "voltage")):
            with self.assertRaisesRegex(RuleError, name):
                voltage_drop(**{**good, field: 0.0})
        with self.assertRaisesRegex(RuleError, "power factor"):
            voltage_drop(**good, power_factor=1.2)
        with self.assertRaisesRegex(RuleError, "smallest in the table"):
            voltage_drop(**{**good, "area_mm2": 0.14})

    @given(st.floats(0.1, 100), st.floats(1, 500), st.sampled_from([0.5, 1, 1.5, 2.5, 4, 16, 95]))
    def test_twice_the_length_falls_twice_as_much_and_a_thicker_core_less(
        self, amps: float, metres: float, area: float
    ) -> None:
        def fall(length: float, size: float) -> float:
            return voltage_drop(current_a=amps, length_m=length, area_mm2=size, voltage_v=400).volts

        self.assertTrue(isclose(fall(2 * metres, area), 2 * fall(metres, area), rel_tol=1e-9))
        self.assertLess(fall(metres, 120), fall(metres, area))


class Warmth(TestCase):
    def test_worked_cases(self) -> None:
        for width, height, depth, loss, rise in (
            (800, 1000, 300, 180, 16.4),
            (600, 800, 250, 37.4, 5.5),
            (400, 600, 210, 50, 13.4),
            (600, 800, 250, 0, 0.0),
            (1200, 2000, 400, 500, 16.6),
            (300, 400, 200, 25, 11.5),
        ):
            self.assertEqual(round(warming(width, height, depth, loss).rise_k, 1), rise)

    def test_surface_and_fan(self) -> None:
        w, h, d = 0.8, 1.0, 0.3
        for standing, wanted in (
            ("free", 1.8 * h * (w + d) + 1.4 * w * d),
            ("wall", 1.4 * w * (h + d) + 1.8 * d * h),
            ("end-free", 1.4 * d * (h + w) + 1.8 * w * h),
            ("end-wall", 1.4 * h * (w + d) + 1.4 * w * d),
            ("middle-free", 1.8 * w * h + 1.4 * w * d + d * h),
            ("middle-wall", 1.4 * w * (h + d) + d * h),
            ("middle-covered", 1.4 * w * h + 0.7 * w * d + d * h),
        ):
            self.assertAlmostEqual(effective_surface_m2(standing, w, h, d), wanted, msg=standing)
        self.assertEqual(round(effective_surface_m2("wall", w, h, d), 3), 1.996)
        with self.assertRaisesRegex(RuleError, "no way an enclosure stands"):
            effective_surface_m2("hanging", w, h, d)
        self.assertEqual(heating_w(200, 2.0, 10), 0.0)
        self.assertEqual(round(fan_m3_per_h(180, 1.996, 10), 1), 21.8)
        self.assertEqual(fan_m3_per_h(50, 1.996, 10), 0.0)
        with self.assertRaises(RuleError):
            fan_m3_per_h(50, 2, 0)

    def test_bad_measures_are_refused(self) -> None:
        with self.assertRaisesRegex(RuleError, "lacks"):
            warming(0, 800, 250, 10)
        with self.assertRaisesRegex(RuleError, "negative"):
            warming(600, 800, 250, -1)


class Wires(TestCase):
    def test_sizes_follow_the_tables_and_the_next_larger_in_between(self) -> None:
        self.assertEqual((outer_diameter_mm(1.0), outer_diameter_mm(2.5)), (2.6, 3.5))
        self.assertEqual(outer_diameter_mm(1.2), outer_diameter_mm(1.5))
        self.assertEqual(outer_diameter_mm(0), 0.0)
        self.assertEqual(outer_diameter_mm(240), round(18.6 * sqrt(2), 2))
        self.assertEqual((strip_length_mm(1.0), strip_length_mm(4), strip_length_mm(0)), (8, 10, 0))
        self.assertEqual(resistance_ohm_per_km(2.0), resistance_ohm_per_km(1.5))

    def test_gauges(self) -> None:
        for gauge, area in (
            ("22", 0.326),
            ("18", 0.823),
            ("14", 2.081),
            ("10", 5.261),
            ("1/0", 53.475),
            ("2/0", 67.431),
        ):
            self.assertEqual(round(awg_area_mm2(gauge), 3), area)
        with self.assertRaisesRegex(RuleError, "no wire gauge|is not a wire gauge"):
            awg_area_mm2("thick")

    def test_the_area_of_a_type_comes_from_its_section_or_gauge(self) -> None:
        self.assertEqual(area_mm2(WireType("t", "A", "BK", 2.5)), 2.5)
        self.assertEqual(round(area_mm2(WireType("t", "A", "BK", awg="16")), 3), 1.309)
        self.assertEqual((area_mm2(None), area_mm2(WireType("t", "A", "BK"))), (0.0, 0.0))

    @given(st.floats(0, 20_000), st.sampled_from([0, 1, 5, 10, 50]))
    def test_a_length_is_rounded_up_never_down(self, length: float, step: int) -> None:
        found = rounded_up_mm(length, step)
        self.assertGreaterEqual(found, length - 0.051)
        self.assertLess(found - length, (step or 1) + 0.001)
