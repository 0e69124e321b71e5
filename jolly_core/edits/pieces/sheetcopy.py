"""Duplicating a sheet, and moving what is drawn from one sheet to another."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import DRAWN, ON_SHEET, RuleError, Sheet, shifted
from jolly_core.wiring import sheet_groups

from ..base.edit import Grid, Id, Payload, Text, Work, edit
from ..base.upkeep import refresh_letters
from ..draw.selecting import inside, refuse_locked, sheet_of, what_of
from ..sheets.adding import first_line_of, orders_after
from .pieces import OTHERS, piece_of, put_piece


class DuplicateSheet(Payload):
    """Copy a sheet with what is drawn on it, with new tags and no fixed numbers, and put it behind the old one."""

    kind: Literal["duplicate-sheet"] = "duplicate-sheet"
    sheet_id: Id
    number: Text = Field(min_length=1, max_length=12)
    title: Text | None = None


@edit(DuplicateSheet, {"sheet_id": "s1", "number": "31", "title": "Second auger, control"})
def duplicate_sheet(work: Work, payload: DuplicateSheet) -> str:
    """Work out DuplicateSheet."""
    project = work.project
    sheet: Sheet = project.get("sheet", payload.sheet_id)
    number = payload.number.strip()
    if any(s.number == number for s in project.sheets.values()):
        raise RuleError(f"There is already a sheet {number}. Choose another number.", field="number")
    (order,) = orders_after(work, sheet.id, 1)
    title = sheet.title if payload.title is None else payload.title
    copy = replace(sheet, id=work.ids.new(), number=number, title=title, order=order)
    copy = replace(copy, first_line=first_line_of(project, copy))
    work.put("sheet", copy)
    if sheet.kind in DRAWN:
        things = [id for kind in ON_SHEET for id in project.on_sheet[kind].get(sheet.id)]
        put_piece(work, work.draft(copy.id), piece_of(project, sheet.id, things), 0, 0)
    work.outcome.placed = [copy.id]
    return f"duplicate sheet {sheet.number} as {number}"


class MoveToSheet(Payload):
    """Move what is selected to another sheet; it keeps tags, parts and fixed numbers.

    Wires that went on from it on the old sheet end there; bands stay.
    """

    kind: Literal["move-to-sheet"] = "move-to-sheet"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    sheet_id: Id
    dx: Grid = 0
    dy: Grid = 0


@edit(MoveToSheet, {"ids": ["y1", "w1"], "sheet_id": "s2"})
def move_to_sheet(work: Work, payload: MoveToSheet) -> str:
    """Work out MoveToSheet."""
    project = work.project
    source_id = sheet_of(project, payload.ids)
    refuse_locked(project, payload.ids)
    if source_id == payload.sheet_id:
        raise RuleError("It is on this sheet already. Choose another one.", field="sheet_id")
    label = f"move {what_of(project, payload.ids)} to sheet {work.drawable(payload.sheet_id).number}"
    source = work.draft(source_id)
    chosen, dx, dy = set(payload.ids), payload.dx, payload.dy
    if any(i in project.bands for i in chosen):
        raise RuleError("A cable band stays with its wires. Leave it out, and draw it anew there.", field="ids")
    numbers = _fixed_numbers(work, source_id, chosen)
    symbols = [source.symbols[i] for i in sorted(chosen) if i in source.symbols]
    wires = [source.wires.pop(i) for i in sorted(chosen) if i in source.wires]
    others = [(kind, source.tables[kind].pop(i)) for i in sorted(chosen) for kind in OTHERS if i in source.tables[kind]]
    for symbol in symbols:
        source.take(symbol.id)
    work.close(source, moved=chosen)
    target = work.draft(payload.sheet_id)
    for w in wires:
        a, b = (w.x1 + dx, w.y1 + dy), (w.x2 + dx, w.y2 + dy)
        target.stroke(a, b, w.type_id, numbers.get(w.id, ""))
    for kind, thing in others:
        target.tables[kind][thing.id] = shifted(thing, dx, dy, sheet_id=payload.sheet_id)
    for symbol in symbols:
        target.put(shifted(symbol, dx, dy, sheet_id=payload.sheet_id))
    inside(work, target)
    work.close(target)
    for device_id in sorted({s.device_id for s in symbols if s.device_id}):
        refresh_letters(work, device_id)
    work.outcome.placed = [*(s.id for s in symbols), *(thing.id for _, thing in others)]
    return label


def _fixed_numbers(work: Work, sheet_id: str, chosen: set[str]) -> dict[str, str]:
    """Return the fixed numbers of wires that are moved together with all wires they are joined with."""
    numbers: dict[str, str] = {}
    for group in sheet_groups(work.project, sheet_id).groups:
        if chosen.issuperset(group.wires):
            numbers.update((id, work.project.wires[id].number) for id in group.wires)
    return numbers
