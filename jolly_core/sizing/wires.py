"""What follows from a wire's size: outer diameter, strip length, resistance, the room it takes.

Sources: outer diameters are usual ones of single-core flexible PVC wires (EN 50525-2-31); strip lengths go with
ferrules of DIN 46228-4; resistances are the largest of IEC 60228 class 5; gauges follow ASTM B258.
"""

from __future__ import annotations

import json
from collections.abc import Iterable
from functools import cache, lru_cache
from importlib.resources import files
from math import pi, sqrt

from jolly_core.library import awg_area_mm2
from jolly_core.model import RuleError, WireType


@cache
def _table(name: str) -> dict[float, float]:
    text = files("jolly_core.sizing").joinpath("data", "wires.json").read_text(encoding="utf-8")
    return {float(size): float(value) for size, value in json.loads(text)[name].items()}


def area_mm2(wire_type: WireType | None) -> float:
    """Return the conductor area of a wire type in mm², 0 when it has no size, or a gauge that is none."""
    if wire_type is None:
        return 0.0
    if wire_type.cross_section_mm2:
        return wire_type.cross_section_mm2
    try:
        return awg_area_mm2(wire_type.awg) if wire_type.awg else 0.0
    except RuleError:
        return 0.0  # of a project stored before gauges were looked at; a snag tells it


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


@lru_cache(maxsize=1024)
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
