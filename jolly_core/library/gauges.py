"""American wire gauges (ASTM B258): their areas."""

from __future__ import annotations

import re
from math import pi

from jolly_core.model import RuleError

_GAUGE = re.compile(r"(?P<zeros>0{2,4})|(?P<number>[0-4]?\d)|(?P<aught>[1-4])/0")


def awg_area_mm2(gauge: str) -> float:
    """Return the area of an American wire gauge in mm² (ASTM B258).

    Args:
        gauge: a number from 0 to 49, or 1/0 to 4/0 (also 00 to 0000).

    Raises:
        RuleError: it is not a gauge.

    Example:
        >>> round(awg_area_mm2("18"), 3)
        0.823
        >>> awg_area_mm2("2/0") == awg_area_mm2("00")
        True
    """
    match = _GAUGE.fullmatch(gauge.strip())
    if match is None:
        raise RuleError(f"“{gauge}” is not a wire gauge. Use a number such as 16, or 2/0.", field="awg")
    number = int(match["number"]) if match["number"] else 1 - int(match["aught"] or len(match["zeros"]))
    diameter = 0.127 * 92 ** ((36 - number) / 39)
    return float(pi / 4 * diameter**2)
