"""Another symbol in the place of one that is drawn."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from jolly_core.drawing import Point, SheetDraft, pin_points
from jolly_core.library import Definition, article, definition
from jolly_core.model import Device, Project, RuleError, Symbol, Wire
from jolly_core.tagging import full_tag, next_units
from jolly_core.terminals import TERMINAL, strip_record

from ..base.edit import Id, Payload, SymbolKey, Work, edit
from ..base.upkeep import drop_unused, new_device, refresh_letters, tidy_strip
from ..devices.naming import name_of
from .boundaries import location_for
from .place import shape_named
from .selecting import inside, refuse_locked


class SwapSymbol(Payload):
    """Draw a symbol as another one; device, texts and wires stay, as far as the other has pins for them."""

    kind: Literal["swap-symbol"] = "swap-symbol"
    symbol_id: Id
    definition: SymbolKey


@edit(SwapSymbol, {"symbol_id": "y1", "definition": "lamp"})
def swap_symbol(work: Work, payload: SwapSymbol) -> str:
    """Work out SwapSymbol."""
    return draw_as(work, work.project.get("symbol", payload.symbol_id), payload.definition)


def draw_as(work: Work, symbol: Symbol, key: str) -> str:
    """Draw a symbol as another one and return what was done in words.

    Raises:
        RuleError: it is locked, is drawn so already, or the other one lies the other way on its wires.
    """
    project = work.project
    refuse_locked(project, [symbol.id])
    old, new = definition(symbol.definition), shape_named(key)
    if new.key == old.key:
        raise RuleError(f"It is {article(new.name)} {new.name} already.", field="definition", ids=(symbol.id,))
    if new.axis != old.axis:
        other = f"{article(new.name).capitalize()} {new.name}"
        raise RuleError(f"{other} lies the other way on its wires. Delete {{it}} and place it.", ids=(symbol.id,))
    count = min(len(symbol.units), new.max_poles)
    changed = replace(symbol, definition=new.key, units=tuple([0] * count))
    device = _device_for(work, symbol, new.key)
    if device is not None:
        others = [s for s in project.units_of(device.id) if s.id != symbol.id]
        held = {n for s in others if definition(s.definition).unit == new.unit for n in s.units}
        keeps = new.unit == old.unit and not held & set(symbol.units[:count])
        units = symbol.units[:count] if keeps else next_units(project, device, new.unit, count, others)
        changed = replace(changed, device_id=device.id, units=units)
    label = f"{name_of(project, symbol)} becomes {article(new.name)} {new.name}"
    draft = work.draft(symbol.sheet_id)
    _bridge_stubs(draft, symbol, changed)
    draft.exchange(changed)
    inside(work, draft)
    work.close(draft)
    if symbol.device_id and symbol.device_id != changed.device_id:
        drop_unused(work, symbol.device_id)
        tidy_strip(work, symbol.device_id)
        refresh_letters(work, symbol.device_id)
        left = project.devices.get(symbol.device_id)
        if left is not None:
            said = (
                f"{full_tag(project, left)} has one unit less: what was drawn of it is {name_of(project, changed)} now."
            )
            work.outcome.remarks.append(said)
    if device is not None:
        refresh_letters(work, device.id)
        if 0 in changed.units:
            work.outcome.remarks.append(f"The part of {name_of(project, changed)} has no such unit free.")
    work.outcome.placed = [symbol.id]
    return label


def _device_for(work: Work, symbol: Symbol, key: str) -> Device | None:
    """Return the device of a symbol that becomes another: its own; a new one for a lead that had none.

    What leaves a strip, or becomes a terminal, leaves the rest of its device as it is and is a device of its own.
    """
    project, new = work.project, definition(key)
    device = project.devices.get(symbol.device_id)
    if new.lead >= 9 or (device is not None and not _parts_from(project, symbol, device, new)):
        return device
    sheet = project.sheets[symbol.sheet_id]
    place = (sheet.function_id, location_for(project, sheet.id, *pin_points(symbol)[0]))
    return new_device(work, new.part_class, place)


def _parts_from(project: Project, symbol: Symbol, device: Device, new: Definition) -> bool:
    """Return whether a symbol cannot stay a unit of its device: of terminals and other units it would have both."""
    if (definition(symbol.definition).unit == TERMINAL) == (new.unit == TERMINAL):
        return False
    others = any(s.id != symbol.id for s in project.units_of(device.id))
    return others or project.items_of_strip.has(device.id) or strip_record(project, device.id).made


def _bridge_stubs(draft: SheetDraft, old: Symbol, new: Symbol) -> None:
    """Lead wires from where pins were to where they are, where both are in line."""
    before, after = pin_points(old), pin_points(new)
    each_old, each_new = len(before) // len(old.units), len(after) // len(new.units)
    for pole in range(len(new.units)):
        ends = before[pole * each_old : (pole + 1) * each_old]
        for a, b in zip(ends, after[pole * each_new : (pole + 1) * each_new], strict=False):
            wire = next((w for w in draft.wires.values() if a in ((w.x1, w.y1), (w.x2, w.y2))), None)
            in_line = a != b and (a[0] == b[0] or a[1] == b[1])
            if wire is not None and in_line and not _shorter(_other_end(wire, a), a, b):
                draft.stroke(a, b, wire.type_id, wire.number)


def _other_end(wire: Wire, end: Point) -> Point:
    return (wire.x2, wire.y2) if (wire.x1, wire.y1) == end else (wire.x1, wire.y1)


def _shorter(far: Point, a: Point, b: Point) -> bool:
    """Return whether b lies on the wire from a to its far end: the symbol grows over it."""
    return min(a, far) <= b <= max(a, far) and (a[0] == far[0] == b[0] or a[1] == far[1] == b[1])
