"""What a motor needs: its current, protective device, contactor and conductor, each with the reason.

Source: full-load currents of three-phase motors at 400 V 50 Hz are those of IEC 60947-4-1 annex G, those at 460 V 60 Hz
of NFPA 70 table 430.250. On another supply the current is in inverse proportion to its volts.
"""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any

from jolly_core.library import number_in
from jolly_core.model import Part, RuleError

from .ampacity import USUAL_LAYING, Laying, carried_a, conductor_for_mm2

_EXACT = 1e-6
_ALIKE = 0.02  # of its power, by which a motor rated in kW and one in hp are the same
HP_KW = 0.745699872  # one mechanical horsepower


@dataclass(slots=True, frozen=True)
class Mains:
    """The supply that motors are on.

    Attributes:
        volts: between two phases.
        american: of 60 Hz and North American ratings, by horsepower.
    """

    volts: float = 400.0
    american: bool = False


USUAL_MAINS = Mains()
AMERICAN_MAINS = Mains(480.0, american=True)  # on which motors are rated 460 V


@dataclass(slots=True, frozen=True)
class Chosen:
    """What is proposed for one thing: a part or a cross-section, with the reason in a sentence."""

    what: str
    part: Part | None
    area_mm2: float
    reason: str


@cache
def _data() -> dict[str, Any]:
    found: dict[str, Any] = json.loads(
        files("jolly_core.sizing").joinpath("data", "motors.json").read_text(encoding="utf-8")
    )
    return found


def motor_current_a(power_kw: float, mains: Mains = USUAL_MAINS) -> float:
    """Return the usual full-load current in A of a three-phase motor, between two ratings in proportion.

    Args:
        power_kw: rated power, kW.
        mains: what it is on.

    Raises:
        RuleError: the power is outside the table.

    Example:
        >>> motor_current_a(5.5), round(motor_current_a(3.5), 2), motor_current_a(5 * HP_KW, AMERICAN_MAINS)
        (11.5, 7.5, 7.6)
    """
    usual = AMERICAN_MAINS if mains.american else USUAL_MAINS
    return float(round(_at_usual_volts(power_kw, usual) * usual.volts / mains.volts, 3))


def _at_usual_volts(power_kw: float, mains: Mains) -> float:
    ratings = _data()["hp_460v" if mains.american else "kw_400v"]
    table = sorted((float(rated) * (HP_KW if mains.american else 1.0), float(amp)) for rated, amp in ratings.items())
    low_kw, high_kw = table[0][0] * (1 - _EXACT), table[-1][0] * (1 + _EXACT)
    if not low_kw <= power_kw <= high_kw:
        words = f"Motor currents are known from {table[0][0]:g} to {table[-1][0]:g} kW."
        raise RuleError(f"{power_kw:g} kW is outside the table. {words}", field="kw")
    for (low, amp), (high, more) in zip(table, table[1:], strict=False):
        if power_kw <= high:
            return amp + (more - amp) * (power_kw - low) / (high - low)
    return table[-1][1]


def motor_choice(
    power_kw: float,
    parts: Mapping[str, Iterable[Part]],
    coil_voltage_v: str = "24",
    least_mm2: float = 0.0,
    laying: Laying = USUAL_LAYING,
    mains: Mains = USUAL_MAINS,
) -> list[Chosen]:
    """Return what is proposed for a motor, for each class of parts given and for the conductor.

    Args:
        power_kw: rated power, kW.
        parts: candidates by part class: motor-breaker, overload, contactor, motor; others are left out.
        coil_voltage_v: voltage of contactor coils.
        least_mm2: smallest conductor that is used at all.
        laying: how the conductor is laid.
        mains: what it is on.

    Raises:
        RuleError: the power is outside the table, or no conductor carries the current.
    """
    current = motor_current_a(power_kw, mains)
    found: list[Chosen] = []
    for class_key, candidates in parts.items():
        if class_key in ("motor-breaker", "overload"):
            found.append(_setting(class_key, candidates, current, power_kw, mains))
        elif class_key == "contactor":
            found.append(_contactor(candidates, current, coil_voltage_v))
        elif class_key == "motor":
            found.append(_motor(candidates, power_kw))
    area = max(conductor_for_mm2(current, laying), least_mm2)
    words = f"{area:g} mm² carries {carried_a(area, laying):g} A {laying.words} (IEC 60204-1)"
    words = f"{words}, the motor takes {current:g} A"
    return [*found, Chosen("conductor", None, area, words)]


def _rating(part: Part, name: str) -> float:
    return number_in(part.ratings.get(name, "")) or 0.0


def _setting(class_key: str, candidates: Iterable[Part], current: float, power_kw: float, mains: Mains) -> Chosen:
    fitting = [p for p in candidates if _rating(p, "setting_min_a") <= current <= _rating(p, "setting_max_a")]
    # With some room above: the current of the table is a typical one.
    best = min(
        fitting,
        key=lambda p: (_rating(p, "setting_max_a") == current, _rating(p, "setting_max_a"), p.number),
        default=None,
    )
    if best is None:
        return Chosen(class_key, None, 0.0, f"no {class_key} of the library can be set to {current:g} A")
    low, high = best.ratings["setting_min_a"], best.ratings["setting_max_a"]
    power = f"{power_kw / HP_KW:.4g} hp" if mains.american else f"{power_kw:g} kW"
    words = f"{power} at {mains.volts:g} V takes about {current:g} A; it sets from {low} to {high} A"
    return Chosen(class_key, best, 0.0, words)


def _contactor(candidates: Iterable[Part], current: float, volts: str) -> Chosen:
    fitting = [p for p in candidates if _rating(p, "ac3_a") >= current and p.ratings.get("coil_voltage_v", "") == volts]
    best = min(fitting, key=lambda p: (_rating(p, "ac3_a"), len(p.units), p.number), default=None)
    if best is None:
        return Chosen("contactor", None, 0.0, f"no contactor for {current:g} A AC-3 with a coil for {volts} V")
    return Chosen("contactor", best, 0.0, f"{best.ratings['ac3_a']} A AC-3 is enough for {current:g} A; coil {volts} V")


def _motor(candidates: Iterable[Part], power_kw: float) -> Chosen:
    like = [p for p in candidates if abs(_rating(p, "power_kw") - power_kw) <= _ALIKE * power_kw]
    best = min(like, key=lambda p: (abs(_rating(p, "power_kw") - power_kw), p.number), default=None)
    if best is None:
        return Chosen("motor", None, 0.0, f"no motor of {power_kw:.4g} kW is in the library")
    return Chosen("motor", best, 0.0, f"rated {best.ratings['power_kw']} kW")
