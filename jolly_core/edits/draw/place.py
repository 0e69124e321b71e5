"""Putting symbols on a sheet."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import UPRIGHT, Point, SheetDraft, grid_size, lies_upright, pin_points
from jolly_core.library import POLE_PITCH, Definition, definition, part_class, symbol_of_kind
from jolly_core.model import Device, FileError, Project, RuleError, Sheet, Symbol, counted
from jolly_core.tagging import lead_of, next_units
from jolly_core.terminals import TERMINAL, item_records

from ..base.edit import Grid, Id, Payload, SymbolKey, Text, Work, edit
from ..base.upkeep import new_device
from ..devices.facts import refuse_stranger
from ..devices.naming import name_of
from ..devices.parts import part_for
from .boundaries import location_for
from .railends import RailEnds, close_settled
from .rungwires import bring_rung

CARET_ADVANCE = 10


class PlaceSymbol(Payload):
    """Put a symbol down, on the wires it meets.

    With no device it becomes the lead of a new one; a unit that never leads stays without a device until told. `unit`
    names a terminal that is planned on the strip named.
    """

    kind: Literal["place-symbol"] = "place-symbol"
    sheet_id: Id
    definition: SymbolKey
    x: Grid
    y: Grid
    rotation: Literal[0, 90, 180, 270] | None = None
    mirror: bool = False
    poles: int | None = Field(default=None, ge=1, le=4)
    device_id: Id = ""
    text: Text = ""
    part_id: Id = ""
    wire_type_id: Id = ""
    unit: int = Field(default=0, ge=0, le=100_000)


@edit(PlaceSymbol, {"sheet_id": "s1", "definition": "coil", "x": 40, "y": 20, "text": "Auger run"})
def place_symbol(work: Work, payload: PlaceSymbol) -> str:
    """Work out PlaceSymbol."""
    shape = shape_named(payload.definition)
    draft = work.draft(payload.sheet_id)
    sheet = work.project.sheets[payload.sheet_id]
    ends = RailEnds(draft, sheet, (payload.y,), payload.wire_type_id)
    if payload.rotation is None and not shape.upright:
        if payload.wire_type_id:
            work.project.get("wire_type", payload.wire_type_id)
        bring_rung(draft, sheet, shape, (payload.x, payload.y), payload.wire_type_id)
    turn = orientation(draft, shape, payload.x, payload.y)
    if payload.rotation is not None:
        turn = (payload.rotation, payload.mirror)
    if payload.unit:
        _is_planned(work.project, payload.device_id, payload.unit)
    at = (payload.x, payload.y)
    symbol = put_symbol(work, draft, shape, at, turn, payload.poles, payload.device_id, payload.text, payload.unit)
    close_settled(work, draft, ends)
    if payload.part_id:
        part_for(work, symbol, payload.part_id)
    work.outcome.placed = [symbol.id]
    work.outcome.caret = caret_after(symbol, sheet)
    return f"place {name_of(work.project, symbol)}"


def shape_named(key: str) -> Definition:
    """Return a symbol definition, as a refusal when there is none.

    Raises:
        RuleError: no symbol has that key.
    """
    try:
        return definition(key)
    except FileError as error:
        raise RuleError(error.message, field="definition") from None


def orientation(draft: SheetDraft, shape: Definition, x: int, y: int) -> tuple[int, bool]:
    """Return rotation and mirror that put the symbol onto the wire at a point, or as it is drawn by habit."""
    across = any(w.y1 == w.y2 == y and w.x1 <= x <= w.x2 for w in draft.wires.values())
    down = any(w.x1 == w.x2 == x and w.y1 <= y <= w.y2 for w in draft.wires.values())
    if shape.axis == "v":
        return (0, False)
    upright = down if across != down else shape.upright
    return UPRIGHT if upright else (0, False)


def put_symbol(
    work: Work,
    draft: SheetDraft,
    shape: Definition,
    at: Point,
    turn: tuple[int, bool],
    poles: int | None,
    device_id: str,
    text: str,
    unit: int = 0,
) -> Symbol:
    """Make a symbol with its device and units and put it on the draft.

    A terminal is the first that is planned on its strip and of its kind, if there is one, else a new one.

    Args:
        unit: the terminal of the strip that it is, 0 for any.

    Raises:
        RuleError: it would lie outside the sheet, or on another symbol.
        GoneError: the device is gone.
    """
    count = poles if poles is not None else _poles_met(draft, shape, at, turn)
    if count > shape.max_poles:
        raise RuleError(f"{shape.name} has at most {counted(shape.max_poles, 'pole')}.", field="poles")
    bare = Symbol(work.ids.new(), draft.sheet_id, *at, shape.key, turn[0], turn[1], "", tuple([0] * count))
    width, height = grid_size(work.project.sheets[draft.sheet_id])
    if any(not (0 < px < width and 0 < py < height) for px, py in pin_points(bare)):
        raise RuleError("The symbol would lie outside the sheet. Put the caret further in.", field="x")
    device = _device(work, shape, draft.sheet_id, device_id, text, pin_points(bare)[0])
    if device is None:
        symbol = bare
    else:
        drawn = _drawn(work, draft, device.id)
        planned = unit or _planned(work.project, device, shape, drawn)
        units = (planned,) if planned else next_units(work.project, device, shape.unit, count, drawn)
        symbol = replace(bare, device_id=device.id, units=units)
    draft.put(symbol)
    return symbol


def _is_planned(project: Project, strip_id: str, unit: int) -> None:
    """Refuse a terminal of a strip that is not planned, or drawn already."""
    records = (r for r in item_records(project, strip_id) if r.kind == TERMINAL and r.unit == unit and r.planned)
    if not any(records) or any(s.units[0] == unit for s in project.units_of(strip_id)):
        raise RuleError("This terminal is drawn already, or no longer planned. Choose another one.", field="unit")


def _planned(project: Project, device: Device, shape: Definition, drawn: list[Symbol]) -> int:
    """Return the first terminal of a strip that waits to be drawn as a symbol, 0 when none does."""
    if shape.unit != TERMINAL:
        return 0
    there = {s.units[0] for s in drawn}
    waiting = (r for r in item_records(project, device.id) if r.planned and not r.spare and r.unit not in there)
    return next((r.unit for r in waiting if symbol_of_kind(r.planned) == shape.key), 0)


def _drawn(work: Work, draft: SheetDraft, device_id: str) -> list[Symbol]:
    """Return the symbols of a device, those on the draft as they are there."""
    pool = {**{s.id: s for s in work.project.units_of(device_id)}, **draft.symbols}
    return [s for s in pool.values() if s.device_id == device_id]


def _poles_met(draft: SheetDraft, shape: Definition, at: Point, turn: tuple[int, bool]) -> int:
    """Return how many parallel wires at pole pitch the first pins meet; three when there are none.

    A protective conductor is never switched, so that it ends the row.
    """
    if shape.max_poles == 1:
        return 1
    types = draft.project.wire_types
    switched = [w for w in draft.wires.values() if w.type_id not in types or types[w.type_id].category != "pe"]
    upright = turn[0] in (90, 270)
    met = 0
    for pole in range(shape.max_poles):
        x, y = (at[0] + POLE_PITCH * pole, at[1]) if upright else (at[0], at[1] + POLE_PITCH * pole)
        if not any(
            (w.x1 == w.x2 == x and w.y1 <= y <= w.y2) if upright else (w.y1 == w.y2 == y and w.x1 <= x <= w.x2)
            for w in switched
        ):
            break
        met += 1
    return met or min(3, shape.max_poles)


def _device(work: Work, shape: Definition, sheet_id: str, device_id: str, text: str, at: Point) -> Device | None:
    project = work.project
    if device_id:
        found: Device = project.get("device", device_id)
        refuse_stranger(project, shape, found)
        return found
    sheet = project.sheets[sheet_id]
    location_id = location_for(project, sheet_id, *at)
    kind = part_class(shape.part_class)
    if kind.per_unit:
        strip = _strip(project, shape, (sheet.function_id, location_id))
        if strip is not None:
            return strip
    if shape.lead >= 9:
        return None
    return new_device(work, kind.key, (sheet.function_id, location_id), text)


def _strip(project: Project, shape: Definition, place: tuple[str, str]) -> Device | None:
    """Return the strip that terminals of a function and location go to, the one last used."""
    for id in sorted(project.devices, reverse=True):
        device = project.devices[id]
        if (device.function_id, device.location_id) == place:
            lead = lead_of(project, id)
            if lead is not None and definition(lead.definition).unit == shape.unit:
                return device
    return None


def caret_after(symbol: Symbol, sheet: Sheet) -> Point:
    """Return where the caret goes after a symbol was put down: on along its wire, within the sheet."""
    width, height = grid_size(sheet)
    first = pin_points(symbol)[0]
    last = max(pin_points(symbol))
    if lies_upright(symbol):
        return first[0], min(max(y for _, y in pin_points(symbol)) + CARET_ADVANCE, height - 4)
    return min(last[0] + CARET_ADVANCE, width - 4), first[1]
