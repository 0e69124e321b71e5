"""What a device is called, what it does, which units belong to it."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Literal

from jolly_core.library import Definition, definition, is_like, part_class
from jolly_core.model import Device, Project, RuleError, Symbol
from jolly_core.tagging import class_of, full_tag, next_units, product_tag, renamed_at, short_tag, tag_taken

from ..base.edit import Id, Payload, Text, Work, edit
from ..base.upkeep import drop_unused, refresh_letters, tidy_strip
from .naming import name_of

_TAG = re.compile(r"[A-Za-z0-9][A-Za-z0-9._/]*")


class SetText(Payload):
    """Say what a device does."""

    kind: Literal["set-text"] = "set-text"
    device_id: Id
    text: Text


@edit(SetText, {"device_id": "d1", "text": "Auger run"})
def set_text(work: Work, payload: SetText) -> str:
    """Work out SetText."""
    device: Device = work.project.get("device", payload.device_id)
    work.put("device", replace(device, text=payload.text.strip()))
    return f"text of {short_tag(work.project, device)}"


class SetTag(Payload):
    """Fix a device's tag by hand, or let it follow the habit again with an empty tag.

    It may be typed with the function and location the device has, as "=K2+F1-QA7".
    """

    kind: Literal["set-tag"] = "set-tag"
    device_id: Id
    tag: Text


@edit(SetTag, {"device_id": "d1", "tag": "QA7"})
def set_tag(work: Work, payload: SetTag) -> str:
    """Work out SetTag."""
    device: Device = work.project.get("device", payload.device_id)
    full, own = full_tag(work.project, device), product_tag(work.project, device)
    place = full.removesuffix(own)
    typed = payload.tag.strip().removeprefix(place)
    if typed.startswith(("=", "+")):
        raise RuleError(f"{full} is at {place.rstrip('-')}. Change its place, or type its tag alone.", field="tag")
    tag = typed.lstrip("-")
    if tag and not _TAG.fullmatch(tag):
        raise RuleError("A tag is made of letters, digits, dots and strokes, for example QA7.", field="tag")
    old = short_tag(work.project, device)
    work.put("device", replace(device, fixed_tag=tag))
    return f"tag {old} becomes {short_tag(work.project, work.project.devices[device.id])}"


class SetPlace(Payload):
    """Say which function and location a device belongs to; its running number follows the new place.

    With `keep_tag` it keeps the number that it has, unless another device has that there already.
    """

    kind: Literal["set-place"] = "set-place"
    device_id: Id
    function_id: Id
    location_id: Id
    keep_tag: bool = False


@edit(SetPlace, {"device_id": "d1", "function_id": "f1", "location_id": "l1"})
def set_place(work: Work, payload: SetPlace) -> str:
    """Work out SetPlace."""
    project = work.project
    device: Device = project.get("device", payload.device_id)
    for kind, id in (("function", payload.function_id), ("location", payload.location_id)):
        if id:
            project.get(kind, id)
    place = (payload.function_id, payload.location_id)
    moved = renamed_at(project, device, place)
    if payload.keep_tag and not tag_taken(project, f"{moved.letters}{device.number}", *place, but=device.id):
        moved = replace(moved, number=device.number)
    elif payload.keep_tag and moved.number != device.number and not device.fixed_tag:
        there = full_tag(project, replace(moved, number=device.number))
        work.outcome.remarks.append(f"There is a {there} already: it becomes {full_tag(project, moved)}.")
    work.put("device", moved)
    return f"place of {full_tag(project, moved)}"


def refuse_stranger(project: Project, shape: Definition, device: Device) -> None:
    """Refuse a terminal as a unit of what is no strip: it would be numbered and bought as nothing.

    Raises:
        RuleError: the device is of another class.
    """
    key = class_of(project, device)
    if shape.unit == "terminal" and key and not is_like(key, "terminal"):
        kind = part_class(key).name.lower()
        words = f"A terminal belongs to a terminal strip, and {full_tag(project, device)} is none ({kind})."
        raise RuleError(f"{words} Choose a strip.", field="device_id", ids=(device.id,))


class BelongTo(Payload):
    """Make a symbol a unit of a device; it takes the next free unit of its kind."""

    kind: Literal["belong-to"] = "belong-to"
    symbol_id: Id
    device_id: Id


@edit(BelongTo, {"symbol_id": "y2", "device_id": "d1"})
def belong_to(work: Work, payload: BelongTo) -> str:
    """Work out BelongTo."""
    project = work.project
    symbol: Symbol = project.get("symbol", payload.symbol_id)
    device: Device = project.get("device", payload.device_id)
    shape = definition(symbol.definition)
    old = symbol.device_id
    if old == device.id:
        raise RuleError(f"It belongs to {name_of(project, symbol)} already.", field="device_id")
    refuse_stranger(project, shape, device)
    units = next_units(project, device, shape.unit, len(symbol.units))
    work.put("symbol", replace(symbol, device_id=device.id, units=units))
    if old:
        drop_unused(work, old)
        tidy_strip(work, old)
        refresh_letters(work, old)
    refresh_letters(work, device.id)
    work.outcome.placed = [symbol.id]
    return f"{shape.name} belongs to {name_of(project, project.symbols[symbol.id])}"


class SwapContact(Payload):
    """Turn NO into NC or back; the unit is taken anew."""

    kind: Literal["swap-contact"] = "swap-contact"
    symbol_id: Id


@edit(SwapContact, {"symbol_id": "y2"})
def swap_contact(work: Work, payload: SwapContact) -> str:
    """Work out SwapContact."""
    project = work.project
    symbol: Symbol = project.get("symbol", payload.symbol_id)
    shape = definition(symbol.definition)
    if not shape.swap:
        raise RuleError(f"{shape.name} has no opposite to swap with.", field="symbol_id", ids=(symbol.id,))
    other = definition(shape.swap)
    device = project.devices.get(symbol.device_id)
    others = [s for s in project.units_of(symbol.device_id) if s.id != symbol.id]
    units = next_units(project, device, other.unit, len(symbol.units), others) if device else symbol.units
    work.put("symbol", replace(symbol, definition=other.key, units=units))
    work.outcome.placed = [symbol.id]
    return f"swap NO and NC of {name_of(project, symbol)}"
