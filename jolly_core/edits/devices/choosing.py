"""Which part a device should have: candidates ranked by what is drawn and what the circuit asks, with the reasons."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from jolly_core.checks import fits_volts, switched_volts
from jolly_core.circuits import motor_beyond_a
from jolly_core.circuits.motors import THROUGH
from jolly_core.library import base_of, definition, is_like, number_in, unit_kinds
from jolly_core.model import Device, Part, Project
from jolly_core.tagging import class_of, lead_of, pins_of, remap, served_pins, units_drawn

from .reasons import FITS, MISFITS, USED, Reason, for_poles, for_time, for_wires, wires_at

_SIZES = ("ac3_a", "setting_max_a", "rated_a", "power_kw", "cross_section_max_mm2")


@dataclass(slots=True, frozen=True)
class Candidate:
    """A part for a device, with the reasons and how the drawn units would be mapped.

    Attributes:
        mapping: for each drawn unit (kind, pins now, pins then); pins then are "" where none is free.
        used: how many other devices of the project have it.
    """

    part: Part
    reasons: list[Reason]
    mapping: list[tuple[str, str, str]]
    used: int = 0

    @property
    def points(self) -> int:
        """Return the sum of the reasons' points: how well it fits, however often it is used."""
        return sum(r.weight for r in self.reasons) - (USED if self.used else 0)


@dataclass(slots=True, frozen=True)
class Asked:
    """What the circuit asks of a device's part.

    Attributes:
        volts, kind: of its net.
        motor_a: amperes of the motor it feeds.
        wires: the smallest and the largest size in mm² of the conductors at it.
        lead: the definition of the symbol that leads it, "" for none.
    """

    volts: str = ""
    kind: str = ""
    motor_a: float = 0.0
    wires: tuple[float, float] = (0.0, 0.0)
    lead: str = ""


def asked_of(project: Project, device: Device) -> Asked:
    """Return what the circuit around a device asks of its part, as far as it is drawn."""
    volts, kind, current = "", "", 0.0
    for symbol in project.units_of(device.id):
        unit = definition(symbol.definition).unit
        if unit in ("coil", "lamp") and not volts:
            volts, kind = switched_volts(project, symbol)
        if unit in THROUGH and not current:
            current = motor_beyond_a(project, symbol.id)
    lead = lead_of(project, device.id)
    return Asked(volts, kind, current, wires_at(project, device), lead.definition if lead else "")


@dataclass(slots=True, frozen=True)
class Wanted:
    """Which parts of a library are looked at for a device.

    Attributes:
        part_class: the class that is looked through, "" for all: a bare coil may be a contactor's, a relay's or a
            timer's.
        units: how many units of each kind are drawn; parts that have them all come first.
        some: kinds of unit a part must have at least one of, where all classes are looked through.
    """

    part_class: str
    units: dict[str, int]
    some: tuple[str, ...]


def wanted_for(project: Project, device: Device) -> Wanted:
    """Return which parts are looked at for a device, by what is drawn of it."""
    key = base_of(class_of(project, device))
    units = units_drawn(project, device)
    if not device.part_id and key == "relay":
        return Wanted("", units, tuple(units))
    return Wanted(key, units, ())


def own_choices(project: Project, device: Device) -> list[Part]:
    """Return the project's copies of parts that may be a device's: those like its class."""
    key = base_of(class_of(project, device))
    return [part for part in project.parts.values() if is_like(part.part_class, key)]


def ranked(project: Project, device: Device, parts: Iterable[Part]) -> list[Candidate]:
    """Return parts for a device, best first, each with its reasons and the mapping of the drawn units.

    Of those that fit alike the smallest that is enough comes first where the circuit asks for a size, else what the
    project uses already.
    """
    asked = asked_of(project, device)
    sized = bool(asked.motor_a or asked.wires[1])
    found = [_judged(project, device, part, asked) for part in parts]

    def order(c: Candidate) -> tuple[float, float, int, float, int, str, str]:
        size = _size(c.part)
        return -c.points, size if sized else 0.0, -c.used, size, len(c.part.units), c.part.maker, c.part.number

    return sorted(found, key=order)


def _size(part: Part) -> float:
    """Return what makes a part larger than another one of its class: the smallest that is enough comes first."""
    sizes = (number_in(part.ratings.get(k, "")) for k in _SIZES)
    return next((size for size in sizes if size is not None), 0.0)


def _judged(project: Project, device: Device, part: Part, asked: Asked) -> Candidate:
    reasons: list[Reason] = []
    mapping = mapping_to(project, device, part)
    short = [kind for kind, _, then in mapping if not then]
    if short:
        for kind in dict.fromkeys(short):
            reasons.append(Reason(f"{short.count(kind)} {kind} short", -40 * short.count(kind)))
    elif mapping:
        reasons.append(Reason("has all units drawn", 20))
    volts = part.ratings.get("coil_voltage_v") or part.ratings.get("voltage_v", "")
    if asked.volts and volts:
        kind = part.ratings.get("coil_kind", "")
        words = f"{volts} V {kind}".strip()
        fits = fits_volts(volts, float(asked.volts)) and not (kind and asked.kind and asked.kind not in kind)
        have = f"{asked.volts} V {asked.kind}".strip()
        what = f"{words}, as the net has" if fits else f"{words}, but the net has {have}"
        reasons.append(Reason(what, FITS if fits else MISFITS))
    if asked.motor_a:
        reasons += _for_motor(part, asked.motor_a)
    drawn = units_drawn(project, device)
    reasons += [*for_wires(part, asked.wires), *for_poles(part, drawn), *for_time(part, drawn, asked.lead)]
    used = len(project.devices_of_part.get(part.id))
    if used and project.part_of(device) != part:
        reasons.append(Reason(f"used {used} {'time' if used == 1 else 'times'} in this project", USED))
        return Candidate(part, reasons, mapping, used)
    return Candidate(part, reasons, mapping)


def _for_motor(part: Part, current: float) -> list[Reason]:
    load = number_in(part.ratings.get("ac3_a", ""))
    low, high = (number_in(part.ratings.get(k, "")) for k in ("setting_min_a", "setting_max_a"))
    if load is not None:
        over = load >= current
        words = f"{load:g} A AC-3 {'is enough' if over else 'is too little'} for the motor’s {current:.3g} A"
        return [Reason(words, FITS if over else MISFITS)]
    if low is not None and high is not None:
        fits = low <= current <= high
        words = f"sets from {low:g} to {high:g} A, the motor takes {current:.3g} A"
        return [Reason(words, FITS if fits else MISFITS)]
    return []


def mapping_to(project: Project, device: Device, part: Part) -> list[tuple[str, str, str]]:
    """Return for each drawn unit of a device its kind, its pins now, and its pins with another part ("" for none)."""
    with_new = {s.id: s for s in remap(project, device, project.part_of(device), part)[0]}
    rows: list[tuple[str, str, str]] = []
    for symbol in project.units_of(device.id):
        shape = definition(symbol.definition)
        if shape.unit in ("block", "terminal"):
            continue
        after = with_new.get(symbol.id, symbol)
        now, size = pins_of(project, symbol), len(shape.pins)
        for pole, number in enumerate(after.units):
            before = "-".join(p for p in now[pole * size : (pole + 1) * size] if p)
            pins = served_pins(part, shape.unit, number) if number else ()
            rows.append((unit_kinds()[shape.unit].name, before, "-".join(p for p in pins if p)))
    return rows
