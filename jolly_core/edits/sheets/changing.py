"""Changing sheets, one or many at once; what follows a sheet follows it."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal

from pydantic import Field

from jolly_core.drawing import grid_size, pin_points
from jolly_core.model import DRAWN, Project, RuleError, Sheet
from jolly_core.tagging import lead_of, letters_for, renamed_at

from ..base.edit import Id, Payload, Text, Work, edit
from .adding import SHAPE, Number, SheetValues, facts_given, shaped_sheet


class ChangeSheet(SheetValues):
    """Change a sheet; what is left out stays."""

    kind: Literal["change-sheet"] = "change-sheet"
    sheet_id: Id
    number: Text | None = Number
    follow: bool = False


@edit(ChangeSheet, {"sheet_id": "s1", "title": "Loading auger, power"})
def change_sheet(work: Work, payload: ChangeSheet) -> str:
    """Work out ChangeSheet."""
    _change(work, [payload], payload.follow)
    return f"change sheet {work.project.sheets[payload.sheet_id].number}"


class SheetChange(SheetValues):
    """What becomes different of one sheet among several."""

    sheet_id: Id
    number: Text | None = Number


class ChangeSheets(Payload):
    """Change many sheets in one edit: one value for all of them, or a block pasted from a spreadsheet.

    With `follow`, devices drawn on a sheet that have its function or location take the new one.
    """

    kind: Literal["change-sheets"] = "change-sheets"
    sheets: list[SheetChange] = Field(min_length=1, max_length=5000)
    follow: bool = False


@edit(ChangeSheets, {"sheets": [{"sheet_id": "s1", "title": "Kiln fan"}, {"sheet_id": "s2", "size": "A3"}]})
def change_sheets(work: Work, payload: ChangeSheets) -> str:
    """Work out ChangeSheets."""
    _change(work, payload.sheets, payload.follow)
    numbers = [work.project.sheets[c.sheet_id].number for c in payload.sheets]
    return f"change sheet {numbers[0]}" if len(numbers) == 1 else f"change {len(numbers)} sheets"


def _change(work: Work, changes: list[Any], follow: bool) -> None:
    project = work.project
    for change in changes:
        sheet: Sheet = project.get("sheet", change.sheet_id)
        given = facts_given(project, change)
        if change.number is not None:
            given["number"] = change.number.strip() or sheet.number
        if "fields" in given:
            fields = {**sheet.fields, **given["fields"]}
            given["fields"] = {name: text for name, text in fields.items() if text}
        made = replace(sheet, **given)
        if made.kind not in DRAWN:
            made = replace(made, frame="zones", ladders=1)
            if _drawn_on(project, sheet.id):
                raise RuleError(f"Something is drawn on sheet {sheet.number}: it stays as it is.", field="sheet_kind")
        if any(getattr(made, f) != getattr(sheet, f) for f in SHAPE):
            made = shaped_sheet(made)
            _has_room(project, made)
        work.put("sheet", made)
        if follow:
            devices_follow(work, sheet, made)
    _unlike(project)


def _drawn_on(project: Project, sheet_id: str) -> bool:
    return any(index.has(sheet_id) for index in project.on_sheet.values())


def _unlike(project: Project) -> None:
    """Refuse two sheets of one number."""
    seen: set[str] = set()
    for sheet in project.sheets.values():
        if sheet.number in seen:
            words = f"There is already a sheet {sheet.number}. Choose another number."
            raise RuleError(words, field="number", ids=(sheet.id,))
        seen.add(sheet.number)


def _has_room(project: Project, sheet: Sheet) -> None:
    width, height = grid_size(sheet)
    points = [p for s in project.symbols_on(sheet.id) for p in pin_points(s)]
    points += [(x, y) for w in project.wires_on(sheet.id) for x, y in ((w.x1, w.y1), (w.x2, w.y2))]
    points += [(c.x, c.y) for c in project.continuations_on(sheet.id)]
    points += [(n.x, n.y) for n in project.notes_on(sheet.id)]
    if any(not (0 < x < width and 0 < y < height) for x, y in points):
        words = f"What is drawn on sheet {sheet.number} reaches beyond {sheet.size}. Move it first."
        raise RuleError(words, field="size", ids=(sheet.id,))


def devices_follow(work: Work, old: Sheet, new: Sheet) -> None:
    """Give devices that lead on a sheet, and are of its function and location, the sheet's new ones."""
    if (old.function_id, old.location_id) == (new.function_id, new.location_id):
        return
    project = work.project
    for symbol in project.symbols_on(new.id):
        device = project.devices.get(symbol.device_id)
        lead = lead_of(project, symbol.device_id) if device is not None else None
        if device is None or lead is None or lead.id != symbol.id:
            continue
        function = new.function_id if device.function_id == old.function_id else device.function_id
        location = new.location_id if device.location_id == old.location_id else device.location_id
        if (function, location) != (device.function_id, device.location_id):
            moved = replace(device, function_id=function, location_id=location)
            if moved.letters != letters_for(project, moved) or any(
                (d.letters, d.number, d.function_id, d.location_id) == (moved.letters, moved.number, function, location)
                for d in project.devices.values()
            ):
                moved = renamed_at(project, device, (function, location))
            work.put("device", moved)
