"""Giving parts to devices."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from jolly_core.cables import cable_cores, cable_of, choices_of, misfit
from jolly_core.drawing import place_in
from jolly_core.harness import ENDS
from jolly_core.library import (
    article,
    base_of,
    definition,
    definitions,
    flat_members,
    names_in,
    own_symbol,
    part_class,
)
from jolly_core.model import AddOn, Device, Part, Project, RuleError, Symbol
from jolly_core.tagging import KIND_WORDS, lead_of, letters_for, pin_name, remap, renamed_at, served_pins, short_tag
from jolly_core.wiring import all_conductors

from ..base.edit import Id, Payload, Work, edit
from ..base.upkeep import drop_part


class AssignPart(Payload):
    """Choose the part of a device, or none; units and letters follow, with `own_symbols` what it is drawn as, too."""

    kind: Literal["assign-part"] = "assign-part"
    device_id: Id
    part_id: Id
    own_symbols: bool | None = None


@edit(AssignPart, {"device_id": "d1", "part_id": "brindlework-bw-c09-24d"})
def assign_part(work: Work, payload: AssignPart) -> str:
    """Work out AssignPart."""
    device: Device = work.project.get("device", payload.device_id)
    give_part(work, device, payload.part_id)
    if payload.own_symbols:
        draw_own(work, work.project.devices[device.id])
    work.outcome.placed = [s.id for s in work.project.units_of(device.id)][:1]
    part = work.project.part_of(work.project.devices[device.id])
    tag = short_tag(work.project, work.project.devices[device.id])
    return f"part {part.number} for {tag}" if part else f"no part for {tag}"


def give_part(work: Work, device: Device, part_id: str) -> None:
    """Give a device a part; the project takes a copy of it from the library when it has none yet.

    A set of parts gives its first member, and puts the others onto the device. Add-ons of before stay while the
    device has a part.

    Raises:
        RuleError: the part is unknown, or it cannot be what the device is drawn as.
    """
    project = work.project
    old, old_id = project.part_of(device), device.part_id
    part = project.part_named(part_id) or work.library.part(part_id)
    if part_id and part is None:
        raise RuleError("This part is neither in the project nor in the library.", field="part_id")
    if part is not None and part.members:
        _give_set(work, device, part)
        return
    if part is not None:
        part_id = part.id  # it may have been named by its number
        _fits(work, device, part)
        take_part(work, part.id)
    else:
        for id in project.add_ons_of.get(device.id):
            added = project.add_ons[id].part_id
            work.remove("add_on", id)
            drop_part(work, added)
    served = _served(work, device.id)
    work.put("device", replace(device, part_id=part_id))
    lost = refit(work, project.devices[device.id], old)
    fresh = project.devices[device.id]
    if letters_for(project, fresh) != fresh.letters:
        work.put("device", renamed_at(project, fresh, (fresh.function_id, fresh.location_id)))
    if old_id and old_id != part_id:
        drop_part(work, old_id)
    note_lost(work, project.part_of(project.devices[device.id]), lost)
    drop_misfits(work, device.id)
    _note_cores(work, device.id, served)


def _served(work: Work, device_id: str) -> dict[str, str]:
    """Return the names of the cores that serve conductors of a cable, by their keys."""
    if not cable_of(work.project, device_id):
        return {}
    rows = cable_cores(work.project, device_id)
    return {r.conductor.key: r.name for r in rows if r.conductor is not None and r.ordinal}


def _note_cores(work: Work, device_id: str, before: dict[str, str]) -> None:
    """Name the conductors that lose their core by another cable part, each with both of its ends."""
    after = _served(work, device_id)
    lost = [key for key in before if key not in after]
    for key in lost:
        conductor = all_conductors(work.project)[key]
        ends = " to ".join(pin_name(work.project, pin) for pin in (conductor.start, conductor.end))
        name = f"{conductor.number} {ends}".strip()
        work.outcome.table.append([f"core {before[key]}", f"{name} loses its core"])
    if lost and after:
        tag = short_tag(work.project, work.project.devices[device_id])
        names = ", ".join(row[1].removesuffix(" loses its core") for row in work.outcome.table[-len(lost) :][:4])
        work.outcome.remarks.append(f"{tag} has no core left for {names}{' ...' if len(lost) > 4 else ''}.")


def drop_misfits(work: Work, device_id: str) -> None:
    """Drop what people chose for the cores of a cable and no longer fits its part, and name each."""
    for choice in choices_of(work.project, device_id):
        why = misfit(work.project, choice)
        if why:
            conductor = all_conductors(work.project)[choice.conductor]
            ends = [pin_name(work.project, pin) for pin in (conductor.start, conductor.end)]
            work.remove("core_choice", choice.id)
            name = f"{conductor.number} {ends[0]} to {ends[1]}".strip()
            work.outcome.remarks.append(f"The core chosen for {name} was dropped: {why}.")


def _give_set(work: Work, device: Device, part: Part) -> None:
    for id in work.project.add_ons_of.get(device.id):
        added = work.project.add_ons[id].part_id
        work.remove("add_on", id)
        drop_part(work, added)
    members = flat_members(part, lambda name: work.library.part(name) or work.project.part_named(name))
    first, *others = [m.id if isinstance(m, Part) else m for m in members]
    known = [n for n in (first, *others) if work.library.part(n) is None and work.project.part_named(n) is None]
    if known:
        raise RuleError(f"{part.number} has the part {known[0]}, which is not in the library.", field="part_id")
    remarks = len(work.outcome.remarks)
    give_part(work, device, first)
    for name in others:
        before = work.project.part_of(work.project.devices[device.id])
        taken = take_part(work, name)
        work.put("add_on", AddOn(work.ids.new(), device.id, taken.id))
        lost = refit(work, work.project.devices[device.id], before)
        del work.outcome.remarks[remarks:]
        note_lost(work, work.project.part_of(work.project.devices[device.id]), lost)


def refit(work: Work, device: Device, old: Part | None) -> list[Symbol]:
    """Give the drawn units of a device the units of the part it has now, and return those there is none for.

    Args:
        old: the part it had, with the units of its add-ons.
    """
    changed, lost = remap(work.project, device, old, work.project.part_of(device))
    for symbol in changed:
        work.put("symbol", symbol)
    return lost


def own_symbols(project: Project, device: Device, part: Part) -> dict[str, str]:
    """Return for each symbol of a device that a part has one of its own for which that is, when it fits its place.

    It fits where its pins lie as those that are drawn, so that the wires stay on.
    """
    found = {}
    for symbol in project.units_of(device.id):
        shape = definition(symbol.definition)
        key = own_symbol(part, shape.unit, project.settings.standard)
        if not key or key == symbol.definition:
            continue
        own = definition(key)
        if (own.pins, own.through) == (shape.pins, shape.through) and len(symbol.units) <= own.max_poles:
            found[symbol.id] = key
    return found


def draw_own(work: Work, device: Device) -> None:
    """Draw the units of a device with the symbols of its part's own, where those fit."""
    part = work.project.part_of(device)
    for id, key in own_symbols(work.project, device, part).items() if part else ():
        work.put("symbol", replace(work.project.symbols[id], definition=key))


def lost_rows(project: Project, device: Device, lost: list[Symbol]) -> list[list[str]]:
    """Return for each unit drawn that a device's part has none free for: the device, and what it is and where."""
    rows = []
    for symbol in lost:
        place = place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y)
        kind = KIND_WORDS[definition(symbol.definition).unit]
        rows.append([short_tag(project, device), f"no free {kind} for the one drawn at {place}"])
    return rows


def note_lost(work: Work, part: Part | None, lost: list[Symbol]) -> None:
    """Say of each unit drawn that the part has none free for it."""
    for symbol in lost if part is not None else ():
        kind = KIND_WORDS[definition(symbol.definition).unit]
        work.outcome.remarks.append(f"{part.number if part else ''} has no free {kind} for one of the units drawn.")


# Units that parts of several classes have, so that the unit alone does not say whether a part is right.
_OF_MANY = ("no", "nc", "co", "lamp", "pole", "heater")


def part_for(work: Work, symbol: Symbol, part_id: str) -> None:
    """Give a part to the device of a symbol that was just put down.

    Raises:
        RuleError: the symbol has no device of its own, or the part does not fit.
    """
    device = work.project.devices.get(symbol.device_id)
    if device is None:
        name = definition(symbol.definition).name
        called = f"{article(name).capitalize()} {name.lower()}"
        raise RuleError(f"{called} has the part of its device: choose the device, not a part.", field="part_id")
    part = work.project.part_named(part_id) or work.library.part(part_id)
    if part is not None and not part.members:
        _is_drawn_as(work, symbol, part)
    give_part(work, device, part_id)


def _is_drawn_as(work: Work, symbol: Symbol, part: Part) -> None:
    """Refuse a part of a class that is drawn otherwise than by a symbol that was just put down.

    Raises:
        RuleError: with the class of the part and what the symbol is.
    """
    shape = definition(symbol.definition)
    mine, theirs = base_of(shape.part_class), base_of(part.part_class)
    if mine == theirs or shape.unit in ("coil", "load", "sensor", "block") or shape.unit not in _OF_MANY:
        return
    own = [d for d in definitions().values() if base_of(d.part_class) == theirs]
    if own or part.count("coil"):
        kind = part_class(part.part_class).name.lower()
        called, drawn = f"{article(kind)} {kind}", f"{article(shape.name)} {shape.name.lower()}"
        words = f"{part.number} is {called}, but this is drawn as {drawn}"
        raise RuleError(f"{words}. Type the word for {called}, or another number.", field="part_id", ids=(symbol.id,))


def take_part(work: Work, part_id: str, part_class_key: str = "") -> Part:
    """Return the project's copy of a part, taken from the library when it has none yet, with the contact it names.

    Args:
        part_class_key: the class it must be of, "" for any.

    Raises:
        RuleError: the part is unknown or of another class.
    """
    part = work.project.part_named(part_id) or work.library.part(part_id)
    if part is None:
        raise RuleError("This part is neither in the project nor in the library.", field="part_id")
    if part_class_key and base_of(part.part_class) != base_of(part_class_key):
        wanted = _class_name(part_class_key)
        raise RuleError(f"{part.number} is no {wanted}. Choose another part.", field="part_id")
    if part.id not in work.project.parts:
        work.put("part", part)
        take_contacts(work, part)
    return part


def _class_name(key: str) -> str:
    """Return what a part class is called within a sentence."""
    return part_class(key).name.lower().replace("plc", "PLC")


def take_contacts(work: Work, part: Part) -> None:
    """Copy the contacts that a housing may have into the project, as far as the library has them."""
    for name in names_in(part.ratings.get("contact", "")):
        if work.project.part_named(name) is None and work.library.part(name) is not None:
            take_part(work, name)


# What a device is besides what it is drawn as, and of which class its part is then.
_CLASS_OF_ROLE = {
    "cable": "cable",
    "card": "plc-card",
    "rack": "plc-rack",
    "enclosure": "enclosure",
    "strip": "terminal",
}


def _fits(work: Work, device: Device, part: Part) -> None:
    """Refuse a part that cannot be what the device is: a cable, card, rack, enclosure, strip or connector, or drawn.

    Raises:
        RuleError: names the part, the device and what it is.
    """
    project, tag = work.project, short_tag(work.project, device)
    attached = project.attached.get(device.id)
    roles = {kind for kind in (*_CLASS_OF_ROLE, "node", "seat") if any(id in project.tables[kind] for id in attached)}
    for key in (key for kind, key in _CLASS_OF_ROLE.items() if kind in roles):
        if base_of(part.part_class) != key:
            name = _class_name(key)
            words = f"{part.number} is no {name}, as {tag} needs. Choose another part."
            raise RuleError(words, field="part_id", ids=(device.id,))
    if roles & {"node", "seat"} and not any(part.count(unit) for unit in ENDS):
        words = f"{part.number} has no cavities, and {tag} is a connector. Choose another part."
        raise RuleError(words, field="part_id", ids=(device.id,))
    lead = lead_of(work.project, device.id)
    if lead is None or part_class(part.part_class).per_unit:
        shape = definition(lead.definition) if lead else None
        if shape is not None and shape.unit not in part_class(part.part_class).units:
            raise RuleError(f"{part.number} is not a part for this symbol.", field="part_id")
        return
    shape = definition(lead.definition)
    kind = "pins" if shape.unit == "block" else shape.unit
    if not part.count(kind) and not served_pins(part, kind, 1):
        name = part_class(part.part_class).name.lower()
        raise RuleError(
            f"{part.number} ({name}) has no {KIND_WORDS[shape.unit]}, and "
            f"{short_tag(work.project, device)} is drawn with one. Choose another part.",
            field="part_id",
            ids=(device.id,),
        )
