"""Moving, turning, deleting and duplicating what is selected on a sheet."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import SheetDraft, grid_size, move, pin_points
from jolly_core.library import definition
from jolly_core.model import Device, GoneError, Project, RuleError, Symbol
from jolly_core.tagging import lead_of, next_number

from .base import Grid, Id, Payload, Work, edit
from .place import name_of, put_symbol
from .upkeep import drop_unused, refresh_letters, tidy_strip

_SHEET_KINDS = ("symbol", "wire", "continuation", "note", "band")


def sheet_of(project: Project, ids: list[str]) -> str:
    """Return the one sheet all ids lie on.

    Raises:
        GoneError: an id is not on any sheet.
        RuleError: they lie on several sheets.
    """
    sheets = set()
    for id in ids:
        found = next((project.tables[k][id] for k in _SHEET_KINDS if id in project.tables[k]), None)
        if found is None:
            raise GoneError("What you selected is no longer on the sheet.", ids=(id,))
        sheets.add(found.sheet_id)
    if len(sheets) != 1:
        raise RuleError("Select things of one sheet only.", field="ids")
    return str(sheets.pop())


class MoveSelection(Payload):
    """Move what is selected; wires that stay behind stretch."""

    kind: Literal["move-selection"] = "move-selection"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    dx: Grid
    dy: Grid
    allow_join: bool = False


@edit(MoveSelection, {"ids": ["y1"], "dx": 4, "dy": 0})
def move_selection(work: Work, payload: MoveSelection) -> str:
    """Work out MoveSelection."""
    sheet_id = sheet_of(work.project, payload.ids)
    draft = work.draft(sheet_id)
    bands = [work.project.bands[i] for i in payload.ids if i in work.project.bands]
    others = set(payload.ids) - {b.id for b in bands}
    joined = move(draft, others, payload.dx, payload.dy, allow_join=payload.allow_join) if others else False
    inside(work, draft)
    work.close(draft, tidied=True)
    for b in bands:
        dx, dy = payload.dx, payload.dy
        work.put("band", replace(b, x1=b.x1 + dx, y1=b.y1 + dy, x2=b.x2 + dx, y2=b.y2 + dy))
    work.outcome.placed = list(payload.ids)
    if joined:
        work.outcome.remarks.append("Wires were joined that were not connected before.")
    return f"move {what_of(work.project, payload.ids)}"


def inside(work: Work, draft: SheetDraft) -> None:
    """Refuse what would lie outside the sheet.

    Raises:
        RuleError: a pin does.
    """
    width, height = grid_size(work.project.sheets[draft.sheet_id])
    if any(not (0 < x < width and 0 < y < height) for x, y in draft.pins()):
        raise RuleError("This would lie outside the sheet.")


def what_of(project: Project, ids: list[str]) -> str:
    """Return what is selected in a few words."""
    symbols = [project.symbols[i] for i in ids if i in project.symbols]
    if len(symbols) == 1 and len(ids) == 1:
        return name_of(project, symbols[0])
    return "a wire" if len(ids) == 1 else f"{len(ids)} things"


class DeleteSelection(Payload):
    """Delete what is selected; wires heal where both stubs are in line and of one type."""

    kind: Literal["delete-selection"] = "delete-selection"
    ids: list[Id] = Field(min_length=1, max_length=2000)


@edit(DeleteSelection, {"ids": ["y1"]})
def delete_selection(work: Work, payload: DeleteSelection) -> str:
    """Work out DeleteSelection."""
    sheet_id = sheet_of(work.project, payload.ids)
    label = f"delete {what_of(work.project, payload.ids)}"
    draft = work.draft(sheet_id)
    wanted = set(payload.ids)
    devices = [s.device_id for i, s in draft.symbols.items() if i in wanted and s.device_id]
    for id in payload.ids:
        draft.wires.pop(id, None)
        draft.continuations.pop(id, None)
        draft.notes.pop(id, None)
    for id in payload.ids:
        if id in draft.symbols:
            draft.take(id)
    work.close(draft)
    for id in payload.ids:
        band = work.project.bands.get(id)
        if band is not None:
            devices.append(band.device_id)
            work.remove("band", id)
    for device_id in dict.fromkeys(devices):
        drop_unused(work, device_id)
        tidy_strip(work, device_id)
        refresh_letters(work, device_id)
    return label


class TurnSelection(Payload):
    """Turn symbols a quarter clockwise, or flip them; wires stay on where pins still meet them."""

    kind: Literal["turn-selection"] = "turn-selection"
    ids: list[Id] = Field(min_length=1, max_length=200)
    how: Literal["turn", "flip"]


@edit(TurnSelection, {"ids": ["y1"], "how": "turn"})
def turn_selection(work: Work, payload: TurnSelection) -> str:
    """Work out TurnSelection."""
    draft = work.draft(sheet_of(work.project, payload.ids))
    for id in payload.ids:
        symbol = draft.symbols.pop(id, None)
        if symbol is None:
            raise RuleError("Only symbols can be turned or flipped.", field="ids", ids=(id,))
        if payload.how == "flip":
            changed = replace(symbol, mirror=not symbol.mirror)
        else:
            changed = replace(symbol, rotation=(symbol.rotation + 90) % 360)
        was, now = _middle(symbol), _middle(changed)
        draft.put(replace(changed, x=changed.x + was[0] - now[0], y=changed.y + was[1] - now[1]))
    inside(work, draft)
    work.close(draft)
    work.outcome.placed = list(payload.ids)
    return f"{payload.how} {what_of(work.project, payload.ids)}"


def _middle(symbol: Symbol) -> tuple[int, int]:
    points = pin_points(symbol)
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return (min(xs) + max(xs)) // 2, (min(ys) + max(ys)) // 2


class DuplicateSelection(Payload):
    """Copy what is selected to another place of its sheet, with new tags.

    Contacts copied together with their coil belong to the copied coil; one copied alone stays with the old.
    """

    kind: Literal["duplicate-selection"] = "duplicate-selection"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    dx: Grid
    dy: Grid


@edit(DuplicateSelection, {"ids": ["y1", "w1"], "dx": 0, "dy": 9})
def duplicate_selection(work: Work, payload: DuplicateSelection) -> str:
    """Work out DuplicateSelection."""
    draft = work.draft(sheet_of(work.project, payload.ids))
    label = f"duplicate {what_of(work.project, payload.ids)}"
    work.outcome.placed = copy_things(work, draft, draft, payload.ids, payload.dx, payload.dy)
    return label


def copy_things(work: Work, source: SheetDraft, target: SheetDraft, ids: list[str], dx: int, dy: int) -> list[str]:
    """Copy things of a sheet onto the same or another one with new tags, close the target, and return the symbols."""
    project = work.project
    chosen = set(ids)
    symbols = [s for i, s in sorted(source.symbols.items()) if i in chosen]
    devices: dict[str, str] = {}
    for symbol in symbols:
        lead = lead_of(project, symbol.device_id) if symbol.device_id else None
        if lead is not None and lead.id == symbol.id and lead.definition != "terminal":
            devices[symbol.device_id] = _copy_device(work, project.devices[symbol.device_id]).id
    sheet_id = target.sheet_id
    for id in ids:
        if id in source.wires:
            w = source.wires[id]
            target.stroke((w.x1 + dx, w.y1 + dy), (w.x2 + dx, w.y2 + dy), w.type_id)
        if id in source.continuations:
            c = source.continuations[id]
            mark = replace(c, id=work.ids.new(), sheet_id=sheet_id, x=c.x + dx, y=c.y + dy)
            target.continuations[mark.id] = mark
        if id in source.notes:
            n = source.notes[id]
            note = replace(n, id=work.ids.new(), sheet_id=sheet_id, x=n.x + dx, y=n.y + dy)
            target.notes[note.id] = note
    placed = []
    for symbol in symbols:
        at = (symbol.x + dx, symbol.y + dy)
        device_id = devices.get(symbol.device_id, symbol.device_id)
        shape = definition(symbol.definition)
        turn = (symbol.rotation, symbol.mirror)
        placed.append(put_symbol(work, target, shape, at, turn, len(symbol.units), device_id, "").id)
    inside(work, target)
    work.close(target)
    return placed


def _copy_device(work: Work, device: Device) -> Device:
    number = next_number(work.project, device.letters, device.function_id, device.location_id)
    copy = replace(device, id=work.ids.new(), number=number, fixed_tag="")
    work.put("device", copy)
    return copy
