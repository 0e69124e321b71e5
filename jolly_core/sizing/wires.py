"""What follows from a wire's size: outer diameter, strip length, resistance, the room it takes.

Sources: outer diameters are usual ones of single-core flexible PVC wires (EN 50525-2-31); strip lengths go with
ferrules of DIN 46228-4; resistances are the largest of IEC 60228 class 5; gauges follow ASTM B258.
"""

from __future__ import annotations

import json
from collections.abc import Iterable
from functools import cache
from importlib.resources import files
from math import pi, sqrt

from jolly_core.library import awg_area_mm2
from jolly_core.model import RuleError, WireType

BUNDLE_FACTOR = 1.2


@cache
def _table(name: str) -> dict[float, float]:
    text = files("jolly_core.sizing").joinpath("data", "wires.json").read_text(encoding="utf-8")
    return {float(size): float(value) for size, value in json.loads(text)[name].items()}


def area_mm2(wire_type: WireType | None) -> float:
    """Return the conductor area of a wire type in mm², 0 when it has no size."""
    if wire_type is None:
        return 0.0
    if wire_type.cross_section_mm2:
        return wire_type.cross_section_mm2
    return awg_area_mm2(wire_type.awg) if wire_type.awg else 0.0


def _at_least(table: dict[float, float], area: float) -> float:
    """Return the value for the smallest listed size that is not smaller; beyond the table, scaled by the root."""
    for size in sorted(table):
        if size >= area - 1e-9:
            return table[size]
    largest = max(table)
    return table[largest] * sqrt(area / largest)


def outer_diameter_mm(area: float) -> float:
    """Return the outer diameter in mm of a single wire of an area in mm²; 0 for no size.

    Example:
        >>> outer_diameter_mm(2.5), outer_diameter_mm(1.0)
        (3.5, 2.6)
    """
    return round(_at_least(_table("outer_diameter_mm"), area), 2) if area > 0 else 0.0


def strip_length_mm(area: float) -> float:
    """Return the strip length in mm for a ferrule on a wire of an area in mm²; 0 for no size."""
    return round(_at_least(_table("strip_mm"), area), 1) if area > 0 else 0.0


def resistance_ohm_per_km(area: float) -> float:
    """Return the largest resistance at 20 °C in ohm/km of a flexible copper conductor of an area in mm².

    A size between two of the table takes the next smaller one, so that the figure is on the safe side.

    Raises:
        RuleError: the area is smaller than the table's smallest.
    """
    table = _table("resistance_20c_ohm_per_km")
    fitting = [size for size in table if size <= area + 1e-9]
    if not fitting:
        raise RuleError(f"No resistance is known for {area:g} mm²; the smallest in the table is {min(table):g} mm².")
    return table[max(fitting)]


def bundle_diameter_mm(diameters_mm: Iterable[float]) -> float:
    """Return the diameter in mm of a round bundle of wires.

    Up to three by the circle around them, never less than the two largest side by side; more by 1.2 times the root of
    the sum of squares.

    Example:
        >>> [round(bundle_diameter_mm(d), 2) for d in ([2.0] * 2, [2.0] * 3, [2.0, 1.0, 0.5], [2.0] * 6 + [1.3] * 4)]
        [4.0, 4.31, 3.0, 6.66]
    """
    found = sorted(diameters_mm, reverse=True)
    if len(found) < 2:
        return sum(found)
    pair = found[0] + found[1]
    if len(found) == 2:
        return pair
    a, b, c = (2 / d for d in found[:3])  # curvatures; the circle around three that touch (Descartes)
    around = a + b + c - 2 * sqrt(a * b + b * c + c * a)
    # A third that is no thicker than the gap beside the two largest lies in it.
    in_gap = found[2] <= 2 / (a + b - 2 / pair)
    three = pair if in_gap else max(pair, -2 / around if around < 0 else 0.0)
    return three if len(found) == 3 else max(three, BUNDLE_FACTOR * sqrt(sum(d * d for d in found)))


def fill_percent(diameters_mm: Iterable[float], width_mm: float, depth_mm: float) -> float:
    """Return the share in percent of a duct's area that round wires take.

    Raises:
        RuleError: the duct has no area.

    Example:
        >>> round(fill_percent([3.5] * 20 + [2.6] * 30, 40, 60), 1)
        14.7
    """
    if width_mm <= 0 or depth_mm <= 0:
        raise RuleError("The duct has no width or depth. Choose a part that has both.")
    return 100 * sum(pi / 4 * d * d for d in diameters_mm) / (width_mm * depth_mm)


def rounded_up_mm(length_mm: float, step_mm: float) -> float:
    """Return a length in mm rounded up to a multiple of a step; a step of 0 leaves it.

    Example:
        >>> rounded_up_mm(421.2, 5), rounded_up_mm(425.0, 5)
        (425.0, 425.0)
    """
    if step_mm <= 0:
        return round(length_mm, 1)
    steps = -(-round(length_mm, 3) // step_mm)
    return round(steps * step_mm, 3)
