"""Check of the voltage of every consumer: what its part is for against what it is switched to."""

from __future__ import annotations

import re
from collections.abc import Iterator

from jolly_core.circuits import (
    AC,
    DC,
    Label,
    Way,
    label_in_words,
    loads_behind,
    loads_in_words,
    reached,
    volts_between,
    way_in_words,
)
from jolly_core.circuits.motors import THROUGH
from jolly_core.library import definition, number_in
from jolly_core.model import Part, Project, Symbol
from jolly_core.tagging import tag_on

from .registry import Snag, check

# Unit -> the two pins that are its input, and the part's fields that say for how many volts, the first there is.
_INPUTS: dict[str, tuple[int, int, tuple[str, ...]]] = {
    "coil": (0, 1, ("coil_voltage_v",)),
    "lamp": (0, 1, ("voltage_v",)),
    "load": (0, 1, ("voltage_v",)),
    "supply": (0, 1, ("supply_v",)),
    "transformer": (0, 1, ("primary_v",)),
    "motor": (0, 1, ("voltage_v",)),
}
TOLERANCE = 0.1  # of the rated voltage, IEC 60204-1 (4.3.2)
_NUMBER = re.compile(r"\d+(?:[.,]\d+)?")
_LIST = re.compile(r"[/,;]|\bor\b")


def rated_range(text: str) -> list[tuple[float, float]]:
    """Return the ranges of volts a part's field names, each lowest and highest.

    Example:
        >>> rated_range("24"), rated_range("100-240 V"), rated_range("230/400")
        ([(24.0, 24.0)], [(100.0, 240.0)], [(230.0, 230.0), (400.0, 400.0)])
    """
    found = []
    for piece in _LIST.split(text.replace(",", ".") if text.count(",") == 1 else text):
        numbers = [float(n) for n in _NUMBER.findall(piece)]
        if numbers:
            found.append((min(numbers), max(numbers)))
    return found


def fits_volts(rated: str, volts: float) -> bool:
    """Return whether a part's rated voltage, with the tolerance of a supply, holds some volts."""
    return any(low * (1 - TOLERANCE) <= volts <= high * (1 + TOLERANCE) for low, high in rated_range(rated))


def input_volts(project: Project, symbol: Symbol) -> list[tuple[float, str, Label, Way]]:
    """Return the volts and kind a consumer can be switched to, with the label and way that say so.

    Notes:
        Where only one of its ends is known, the volts of that potential count as against its return.
    """
    unit = definition(symbol.definition).unit
    if unit not in _INPUTS:
        return []
    first, second, _ = _INPUTS[unit]
    one, other = (reached(project, (symbol.id, pin)) for pin in (first, second))
    found: list[tuple[float, str, Label, Way]] = []
    for label, way in one.values():
        for against, back in other.values():
            between = volts_between(project, label, against)
            if between is not None and between[0]:
                longer = way if label.volts else back
                found.append((*between, label, longer))
    if not found and not (one and other):
        for label, way in [*one.values(), *other.values()]:
            if label.volts and label.said and label.word.endswith(" V"):
                found.append((label.volts, label.kind, label, way))
    return found


def _rated(part: Part, unit: str) -> tuple[str, str]:
    """Return a part's rated voltage, and "AC" or "DC" where it says so."""
    text = next((part.ratings[f] for f in _INPUTS[unit][2] if part.ratings.get(f)), "")
    kind = part.ratings.get("coil_kind", "") if unit == "coil" else ""
    said = {k for k in (AC, DC) if k in (f"{kind} {text}").upper()}
    return text, said.pop() if len(said) == 1 else ""


@check("coil-voltage", "A coil at a voltage its part is not for.")
def coil_voltages(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each coil none of whose voltages its part is for, or that has AC for DC."""
    yield from _wrong(project, sheet_id, "coil-voltage", ("coil",))


@check("consumer-voltage", "A lamp, load, supply, transformer or motor at a voltage its part is not for.")
def consumer_voltages(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each other consumer none of whose voltages its part is for, or that has AC for DC."""
    yield from _wrong(project, sheet_id, "consumer-voltage", tuple(u for u in _INPUTS if u != "coil"))


def _wrong(project: Project, sheet_id: str, code: str, units: tuple[str, ...]) -> Iterator[Snag]:
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        unit = definition(symbol.definition).unit
        device = project.devices.get(symbol.device_id)
        part = project.part_of(device) if device else None
        if unit not in units or device is None or part is None:
            continue
        rated, rated_kind = _rated(part, unit)
        found = input_volts(project, symbol) if rated_range(rated) else []
        if not found or any(_suits(rated, rated_kind, volts, kind) for volts, kind, _, _ in found):
            continue
        volts, kind, label, way = found[0]
        have = f"{volts:.4g} V {kind}".strip()
        want = f"{rated.removesuffix('V').strip()} V {rated_kind}".strip()
        of = "the coil of " if unit == "coil" else ""
        message = f"{tag_on(project, device, sheet)} is switched to {have}, but {of}{part.number} is for {want}"
        message = f"{message} ({label_in_words(project, label)} {way_in_words(project, way)})."
        ids = (symbol.id,)
        yield Snag(code, "error", message, ids, sheet_id, symbol.x, symbol.y, "choose-part", device.id)


def _suits(rated: str, rated_kind: str, volts: float, kind: str) -> bool:
    return fits_volts(rated, volts) and not (rated_kind and kind and rated_kind != kind)


def switched_volts(project: Project, symbol: Symbol) -> tuple[str, str]:
    """Return volts and kind that a consumer is switched to through contacts, "" for each that is not fixed."""
    found = input_volts(project, symbol)
    return (f"{found[0][0]:.4g}", found[0][1]) if found else ("", "")


@check("motor-load", "A contactor or protective device that is not for the current of the motor behind it.")
def motor_loads(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pole symbol whose device's part carries too little, or cannot be set, for its motor."""
    sheet = project.sheets[sheet_id]
    told: set[str] = set()
    for symbol in project.symbols_on(sheet_id):
        device = project.devices.get(symbol.device_id)
        part = project.part_of(device) if device else None
        if definition(symbol.definition).unit not in THROUGH or device is None or part is None or device.id in told:
            continue
        load = number_in(part.ratings.get("ac3_a", ""))
        low, high = (number_in(part.ratings.get(k, "")) for k in ("setting_min_a", "setting_max_a"))
        if load is None and (low is None or high is None):
            continue
        loads = loads_behind(project, symbol.id)
        current = round(sum(load.here_a for load in loads), 3)
        words = ""
        if current and load is not None and load < current - 1e-9:
            words = f"carries {load:g} A AC-3"
        elif current and low is not None and high is not None and not low - 1e-9 <= current <= high + 1e-9:
            words = f"is set from {low:g} to {high:g} A"
        if words:
            told.add(device.id)
            taken = loads_in_words(project, loads)
            message = f"{tag_on(project, device, sheet)} ({part.number}) {words}, but {taken}."
            ids = (symbol.id,)
            yield Snag("motor-load", "error", message, ids, sheet_id, symbol.x, symbol.y, "choose-part", device.id)
