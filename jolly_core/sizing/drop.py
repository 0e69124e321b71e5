"""Voltage drop along a cable."""

from __future__ import annotations

from dataclasses import dataclass
from math import sqrt

from jolly_core.model import RuleError

from .wires import resistance_ohm_per_km

TEMPERATURE_COEFFICIENT = 0.00393  # of copper, 1/K
RISE_K = 50.0  # from 20 to 70 degrees Celsius
REACTANCE_OHM_PER_KM = 0.08


@dataclass(slots=True, frozen=True)
class Drop:
    """A voltage drop with what led to it.

    Attributes:
        volts: the drop.
        percent: its share of the nominal voltage.
        resistance: ohm/km at 70 °C.
        why: the rule with its figures, for a person.
    """

    volts: float
    percent: float
    resistance: float
    why: str


def voltage_drop(
    *, current_a: float, length_m: float, area_mm2: float, voltage_v: float, power_factor: float = 1.0, phases: int = 1
) -> Drop:
    """Return the voltage drop of a cable loaded at its end.

    Three phases: sqrt(3) I L (R cos + X sin). One phase: 2 I L (R cos + X sin). DC: power_factor 1, so 2 I L R.
    R is that at 70 °C, X is 0.08 ohm/km (IEC 60364-5-52 annex G; resistances IEC 60228).

    Args:
        current_a: load current, A.
        length_m: one way, m.
        area_mm2: area of a core.
        voltage_v: nominal voltage, V (between phases when there are three).
        power_factor: cos phi, above 0 and up to 1.
        phases: 1 or 3.

    Raises:
        RuleError: a figure is missing or out of range.

    Example:
        >>> d = voltage_drop(current_a=15.5, length_m=35, area_mm2=2.5, voltage_v=400, power_factor=0.84, phases=3)
        >>> round(d.volts, 2)
        7.58
    """
    for name, value in (("current", current_a), ("length", length_m), ("voltage", voltage_v)):
        if value <= 0:
            raise RuleError(f"The voltage drop needs a {name} above 0.", field=name)
    if not 0 < power_factor <= 1:
        raise RuleError("The power factor lies between 0 and 1.", field="power_factor")
    resistance = resistance_ohm_per_km(area_mm2) * (1 + TEMPERATURE_COEFFICIENT * RISE_K)
    sine = sqrt(1 - power_factor**2)
    factor = sqrt(3) if phases == 3 else 2.0
    per_km = resistance * power_factor + REACTANCE_OHM_PER_KM * sine
    volts = factor * current_a * length_m / 1000 * per_km
    rule = "√3" if phases == 3 else "2"
    why = (
        f"{rule} × {current_a:g} A × {length_m:g} m × ({resistance:.3f} × {power_factor:g} + "
        f"{REACTANCE_OHM_PER_KM:g} × {sine:.3f}) Ω/km = {volts:.2f} V of {voltage_v:g} V; "
        f"{area_mm2:g} mm² at 70 °C (IEC 60228), X = {REACTANCE_OHM_PER_KM:g} Ω/km"
    )
    return Drop(volts, 100 * volts / voltage_v, resistance, why)
