"""Terminal strips: rows of terminals, order, numbers, bridges, accessories."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cables import crossed_wires
from jolly_core.drawing import UPRIGHT
from jolly_core.library import definition, kind_drawn, terminal_kind
from jolly_core.model import Bridge, Device, Project, RuleError, Strip, StripItem
from jolly_core.tagging import product_tag, terminal_number
from jolly_core.terminals import ACCESSORY_NAMES, bridges_of, is_strip, item_records
from jolly_core.wiring import serves

from .base import Grid, Id, Payload, Text, Work, edit
from .parts import take_part
from .place import put_symbol
from .upkeep import drop_part, new_device

TERMINAL_STEPS = 2


class PlaceTerminals(Payload):
    """Put a row of terminals along a stroke, one on each wire it crosses, in the order of crossing.

    They go to the strip named, else to the one of the sheet's place that was used last, else to a new one; `new_strip`
    asks for a new one at once. Without a kind, protective conductors get earth terminals and the others plain ones.
    """

    kind: Literal["place-terminals"] = "place-terminals"
    sheet_id: Id
    x1: Grid
    y1: Grid
    x2: Grid
    y2: Grid
    device_id: Id = ""
    new_strip: bool = False
    definition: Literal["", "terminal", "terminal-earth", "terminal-fuse", "terminal-disconnect"] = ""


@edit(PlaceTerminals, {"sheet_id": "s1", "x1": 28, "y1": 20, "x2": 44, "y2": 20})
def place_terminals(work: Work, payload: PlaceTerminals) -> str:
    """Work out PlaceTerminals."""
    project = work.project
    if (payload.x1 != payload.x2) == (payload.y1 != payload.y2):
        raise RuleError("Draw the row level or upright, across the wires.", field="x2")
    start, end = (payload.x1, payload.y1), (payload.x2, payload.y2)
    crossed = crossed_wires(project, payload.sheet_id, start, end)
    if not crossed:
        raise RuleError("The row crosses no wire. Draw it at a right angle across the wires.", field="x2")
    strip_id = payload.device_id
    if strip_id:
        _strip(project, strip_id)
    elif payload.new_strip:
        sheet = project.sheets[payload.sheet_id]
        strip_id = new_device(work, "terminal", (sheet.function_id, sheet.location_id)).id
    upright = payload.y1 == payload.y2
    for wire_id in crossed:
        wire = project.wires.get(wire_id)
        if wire is None:  # cut by a terminal before it: never so for parallel wires
            continue
        wire_type = project.wire_types.get(wire.type_id)
        usual = "terminal-earth" if wire_type is not None and wire_type.category == "pe" else "terminal"
        shape = definition(payload.definition or usual)
        draft = work.draft(payload.sheet_id)
        at = (wire.x1, payload.y1) if upright else (payload.x1, wire.y1)
        symbol = put_symbol(work, draft, shape, at, UPRIGHT if upright else (0, False), 1, strip_id, "")
        work.close(draft)
        strip_id = symbol.device_id
        work.outcome.placed.append(symbol.id)
    return f"place {len(work.outcome.placed)} terminals of -{product_tag(project, project.devices[strip_id])}"


def _strip(project: Project, strip_id: str) -> Device:
    device: Device = project.get("device", strip_id)
    if not is_strip(project, device):
        raise RuleError(f"-{product_tag(project, device)} is no terminal strip.", field="strip_id", ids=(strip_id,))
    return device


class SetStrip(Payload):
    """Say how the terminals of a strip are numbered: by their order, or by the wire they carry."""

    kind: Literal["set-strip"] = "set-strip"
    strip_id: Id
    numbering: Literal["order", "wire"]


@edit(SetStrip, {"strip_id": "d1", "numbering": "wire"})
def set_strip(work: Work, payload: SetStrip) -> str:
    """Work out SetStrip."""
    project = work.project
    device = _strip(project, payload.strip_id)
    known = [project.strips[id] for id in project.attached.get(device.id) if id in project.strips]
    record = known[0] if known else Strip(work.ids.new(), device.id)
    work.put("strip", replace(record, numbering=payload.numbering))
    return f"numbers of -{product_tag(project, device)} by {payload.numbering}"


def _stored(work: Work, strip_id: str) -> list[StripItem]:
    """Return what stands on a strip, every place stored with its order counted from 1."""
    records = []
    for order, record in enumerate(item_records(work.project, strip_id), start=1):
        kept = replace(record, id=record.id or work.ids.new(), order=order)
        work.put("strip_item", kept)
        records.append(kept)
    return records


class MoveStripItem(Payload):
    """Put a place of a strip at another position; bridges stay with their terminals."""

    kind: Literal["move-strip-item"] = "move-strip-item"
    strip_id: Id
    position: int = Field(ge=0, le=5000)
    to: int = Field(ge=0, le=5000)


@edit(MoveStripItem, {"strip_id": "d1", "position": 3, "to": 0})
def move_strip_item(work: Work, payload: MoveStripItem) -> str:
    """Work out MoveStripItem."""
    device = _strip(work.project, payload.strip_id)
    records = _stored(work, device.id)
    if not (payload.position < len(records) and payload.to < len(records)):
        raise RuleError("There is no such place on this strip.", field="position")
    record = records.pop(payload.position)
    records.insert(payload.to, record)
    for order, kept in enumerate(records, start=1):
        if kept.order != order:
            work.put("strip_item", replace(kept, order=order))
    return f"order of -{product_tag(work.project, device)}"


class NumberTerminal(Payload):
    """Fix the number of a terminal by hand, or let it be its own again with an empty one."""

    kind: Literal["number-terminal"] = "number-terminal"
    strip_id: Id
    unit: int = Field(ge=1, le=5000)
    number: Text = Field(max_length=12)


@edit(NumberTerminal, {"strip_id": "d1", "unit": 3, "number": "3a"})
def number_terminal(work: Work, payload: NumberTerminal) -> str:
    """Work out NumberTerminal."""
    project = work.project
    device = _strip(project, payload.strip_id)
    number = payload.number.strip()
    tag = product_tag(project, device)
    records = _stored(work, device.id)
    mine = next((r for r in records if r.kind == "terminal" and r.unit == payload.unit), None)
    if mine is None:
        raise RuleError(f"-{tag} has no such terminal.", field="unit")
    for other in records:
        same = number and terminal_number(project, device.id, other.unit) == number
        if same and other.kind == "terminal" and other.unit != payload.unit:
            raise RuleError(f"-{tag} has a terminal {number} already. Choose another number.", field="number")
    work.put("strip_item", replace(mine, number=number))
    return f"number of -{tag}:{number or payload.unit}"


class SetTerminalPart(Payload):
    """Give terminals of a strip a part of their own, or let them have the strip's again with an empty one."""

    kind: Literal["set-terminal-part"] = "set-terminal-part"
    strip_id: Id
    units: list[int] = Field(min_length=1, max_length=5000)
    part_id: Id


@edit(SetTerminalPart, {"strip_id": "d1", "units": [1], "part_id": ""})
def set_terminal_part(work: Work, payload: SetTerminalPart) -> str:
    """Work out SetTerminalPart."""
    project = work.project
    device = _strip(project, payload.strip_id)
    tag = product_tag(project, device)
    part = take_part(work, payload.part_id, "terminal") if payload.part_id else None
    records = {r.unit: r for r in _stored(work, device.id) if r.kind == "terminal"}
    drawn = {s.units[0]: s for s in project.units_of(device.id) if definition(s.definition).unit == "terminal"}
    for unit in sorted(set(payload.units)):
        if unit not in records:
            raise RuleError(f"-{tag} has no such terminal.", field="units")
        if part is not None and not serves(part, drawn[unit]):
            where = f"-{tag}:{terminal_number(project, device.id, unit)}"
            drawn_as = kind_drawn(drawn[unit].definition)
            kinds = f"{part.number} is of the kind {terminal_kind(part)}, {where} of the kind {drawn_as}"
            raise RuleError(
                f"{kinds}. Choose a part of that kind.",
                field="part_id",
                ids=(drawn[unit].id,),
            )
        old = records[unit].part_id
        work.put("strip_item", replace(records[unit], part_id=part.id if part else ""))
        drop_part(work, old)
    count = len(set(payload.units))
    return f"part of {count} terminal{'s' if count > 1 else ''} of -{tag}"


class BridgeTerminals(Payload):
    """Bridge terminals that stand side by side; those of bridges they touch are taken in."""

    kind: Literal["bridge-terminals"] = "bridge-terminals"
    strip_id: Id
    units: list[int] = Field(min_length=2, max_length=200)


@edit(BridgeTerminals, {"strip_id": "d1", "units": [1, 2]})
def bridge_terminals(work: Work, payload: BridgeTerminals) -> str:
    """Work out BridgeTerminals."""
    project = work.project
    device = _strip(project, payload.strip_id)
    tag = product_tag(project, device)
    wanted = set(payload.units)
    for bridge in bridges_of(project, device.id):
        if wanted & set(bridge.units):
            wanted |= set(bridge.units)
            work.remove("bridge", bridge.id)
    order = [r.unit for r in item_records(project, device.id) if r.kind == "terminal"]
    places = sorted(order.index(u) for u in wanted if u in order)
    if len(places) != len(wanted):
        raise RuleError(f"-{tag} has no such terminal.", field="units")
    if places[-1] - places[0] != len(places) - 1:
        raise RuleError("A bridge joins terminals that stand side by side. Move them together first.", field="units")
    units = tuple(order[p] for p in places)
    work.put("bridge", Bridge(work.ids.new(), device.id, units))
    first, last = (terminal_number(project, device.id, u) for u in (units[0], units[-1]))
    return f"bridge -{tag}:{first} to {last}"


class RemoveBridge(Payload):
    """Take a bridge away."""

    kind: Literal["remove-bridge"] = "remove-bridge"
    bridge_id: Id


@edit(RemoveBridge, {"bridge_id": "b1"})
def remove_bridge(work: Work, payload: RemoveBridge) -> str:
    """Work out RemoveBridge."""
    bridge: Bridge = work.project.get("bridge", payload.bridge_id)
    tag = product_tag(work.project, work.project.devices[bridge.strip_id])
    work.remove("bridge", bridge.id)
    return f"remove a bridge of -{tag}"


class AddStripAccessory(Payload):
    """Put an end bracket, partition plate or marker on a strip, at a position or at its end."""

    kind: Literal["add-strip-accessory"] = "add-strip-accessory"
    strip_id: Id
    accessory: Literal["end-bracket", "plate", "marker"]
    position: int | None = Field(default=None, ge=0, le=5000)
    part_id: Id = ""


@edit(AddStripAccessory, {"strip_id": "d1", "accessory": "end-bracket", "position": 0})
def add_strip_accessory(work: Work, payload: AddStripAccessory) -> str:
    """Work out AddStripAccessory."""
    device = _strip(work.project, payload.strip_id)
    if payload.part_id:
        take_part(work, payload.part_id, "strip-accessory")
    records = _stored(work, device.id)
    at = len(records) if payload.position is None else min(payload.position, len(records))
    records.insert(at, StripItem(work.ids.new(), device.id, payload.accessory, 0, part_id=payload.part_id))
    for order, record in enumerate(records, start=1):
        if record.order != order:
            work.put("strip_item", replace(record, order=order))
    return f"{ACCESSORY_NAMES[payload.accessory].lower()} on -{product_tag(work.project, device)}"


class RemoveStripAccessory(Payload):
    """Take an accessory off a strip."""

    kind: Literal["remove-strip-accessory"] = "remove-strip-accessory"
    item_id: Id


@edit(RemoveStripAccessory, {"item_id": "i1"})
def remove_strip_accessory(work: Work, payload: RemoveStripAccessory) -> str:
    """Work out RemoveStripAccessory."""
    item: StripItem = work.project.get("strip_item", payload.item_id)
    tag = product_tag(work.project, work.project.devices[item.strip_id])
    if item.kind == "terminal":
        raise RuleError("A terminal goes when it is deleted on its sheet.", field="item_id")
    work.remove("strip_item", item.id)
    drop_part(work, item.part_id)
    return f"remove {ACCESSORY_NAMES[item.kind].lower()} of -{tag}"
