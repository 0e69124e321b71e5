"""Check of the voltage of every consumer: what its part is for against what it is switched to."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import replace

from jolly_core.circuits import (
    AC,
    BLOCKS,
    DC,
    LEFT_RAIL,
    THREE_PHASES,
    Label,
    Potential,
    Way,
    base_at,
    begins_at_terminal,
    fed_by,
    is_behind_drive,
    is_outlet,
    label_in_words,
    links_at,
    loads_behind,
    loads_fed,
    loads_in_words,
    number_of,
    potential_at,
    potential_of,
    reached,
    sources_behind,
    supply_volts,
    volts_between,
    way_in_words,
)
from jolly_core.circuits.motors import THROUGH
from jolly_core.library import definition, number_in
from jolly_core.model import Device, Part, Project, Symbol
from jolly_core.tagging import pins_of, tag_on
from jolly_core.wiring import PinKey

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
_ALIKE = 0.03  # by which tables of motors and of drives for them differ
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
    if unit in ("coil", "lamp", "load"):
        one = one or _by_card(project, (symbol.id, first), other)
        other = other or _by_card(project, (symbol.id, second), one)
    one, other = _as_fed(project, one), _as_fed(project, other)
    for label, way in one.values():
        for against, back in other.values():
            between = volts_between(project, label, against)
            if between is not None and between[0]:
                longer = way if label.volts else back
                found.append((*between, label, longer))
    if unit == "motor" and not one and not other:
        found += _of_mains(project, symbol)
    if not found and not (one and other):
        for label, way in [*one.values(), *other.values()]:
            if label.volts and label.said and label.word.endswith(" V"):
                found.append((label.volts, label.kind, label, way))
    return found


def _of_mains(project: Project, motor: Symbol) -> list[tuple[float, str, Label, Way]]:
    """Return the supply's volts for a motor on three phases that comes from terminals without a name."""
    start = potential_of(project, (motor.id, 0))
    volts = _of_drive(project, start) or supply_volts(project)
    fed = fed_by(project, start, lambda _: False)
    comes_in = [
        end
        for end in fed.ends
        if end.label is None and (begins_at_terminal(project, end) or is_behind_drive(project, end))
    ]
    if not volts or len(definition(motor.definition).pins) < THREE_PHASES or not comes_in or len(fed.ends) > 1:
        return []
    label = Label("a phase", volts, AC, motor.id, motor.sheet_id)
    return [(volts, AC, label, Way((), (start.key,)))]


def _of_drive(project: Project, potential: Potential) -> float | None:
    """Return the volts of the drive whose output is on a potential, as its part says what it is fed with."""
    for id, _ in potential.pins:
        device = project.devices.get(project.symbols[id].device_id)
        part = project.part_of(device) if device else None
        if part is not None and base_at(project, project.symbols[id]) == "drive":
            return number_of(part.ratings.get("supply_v", ""))
    return None


def _by_card(project: Project, pin: PinKey, beyond: dict[str, tuple[Label, Way]]) -> dict[str, tuple[Label, Way]]:
    """Return what the output of a card gives that drives a pin: what its supply is on, the other end's left out."""
    start = potential_of(project, pin)
    near = [start, *(there for _, there in links_at(project, start))]
    outputs = [id for p in near for id, _ in p.pins if definition(project.symbols[id].definition).unit == "do"]
    found: dict[str, tuple[Label, Way]] = {}
    for id in outputs[:1]:
        for unit in project.units_of(project.symbols[id].device_id):
            if definition(unit.definition).unit == "card-supply":
                for n in range(len(definition(unit.definition).pins)):
                    found |= reached(project, (unit.id, n))
    return {word: told for word, told in found.items() if word not in beyond}


def _as_fed(project: Project, found: dict[str, tuple[Label, Way]]) -> dict[str, tuple[Label, Way]]:
    """Return labels in which a ladder's left rail has the volts of the one supply that feeds it, where one does."""
    told = {}
    for word, (label, way) in found.items():
        given = ""
        if word == LEFT_RAIL:
            ids = sources_behind(project, potential_at(project, way.through[-1]))
            parts = [project.part_of(project.devices[id]) for id in ids]
            given = parts[0].ratings.get("output_v", "") if len(parts) == 1 and parts[0] else ""
        told[word] = (replace(label, volts=number_of(given)) if given else label, way)
    return told


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
        whose = "the coil of " if unit == "coil" else ""
        message = f"{tag_on(project, device, sheet)} is switched to {have}, but {whose}{part.number} is for {want}"
        message = f"{message} ({label_in_words(project, label)} {way_in_words(project, way)})."
        ids, of = (symbol.id,), (way.through[-1],)
        yield Snag(code, "error", message, ids, sheet_id, symbol.x, symbol.y, "choose-part", device.id, of=of)


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
        if device is None or part is None or device.id in told:
            continue
        if definition(symbol.definition).unit in BLOCKS:
            yield from _beyond_drive(project, symbol, device, part)
            continue
        if definition(symbol.definition).unit not in THROUGH:
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


def _beyond_drive(project: Project, symbol: Symbol, device: Device, part: Part) -> Iterator[Snag]:
    """Yield a snag for a drive or soft starter that gives less than the motors at its outlets take."""
    gives = number_in(part.ratings.get("rated_a", ""))
    if gives is None or base_at(project, symbol) not in ("drive", "soft-starter"):
        return
    outlets = [(symbol.id, n) for n, name in enumerate(pins_of(project, symbol)) if is_outlet(name)]
    loads = [x for x in loads_fed(project, outlets[:1]) if x.device.id != device.id]
    taken = round(sum(x.amps for x in loads), 3)
    if taken > gives * (1 + _ALIKE):
        words = loads_in_words(project, loads)
        who = tag_on(project, device, project.sheets[symbol.sheet_id])
        message = f"{who} ({part.number}) gives {gives:g} A, but {words}."
        at = (symbol.x, symbol.y)
        yield Snag("motor-load", "error", message, (symbol.id,), symbol.sheet_id, *at, "choose-part", device.id)
