"""Sheets, structure, wire types and the project's own facts."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import grid_size
from jolly_core.model import (
    SHEET_SIZES_MM,
    RuleError,
    Settings,
    Sheet,
    WireType,
)

from .base import Grid, Id, Length, Payload, Text, Work, edit
from .upkeep import drop_unused, refresh_letters, tidy_strip


class AddSheet(Payload):
    """Add a sheet after the last; a ladder sheet gets its two rails as wires when their types are given."""

    kind: Literal["add-sheet"] = "add-sheet"
    number: Text = Field(min_length=1, max_length=12)
    title: Text = ""
    frame: Literal["ladder", "zones"] = "ladder"
    size: Text = "A3"
    function_id: Id = ""
    location_id: Id = ""
    first_line: int | None = Field(default=None, ge=0, le=99999)
    line_count: int = Field(default=8, ge=1, le=60)
    left_rail_type_id: Id = ""
    right_rail_type_id: Id = ""


@edit(AddSheet, {"number": "30", "title": "Loading auger, control"})
def add_sheet(work: Work, payload: AddSheet) -> str:
    """Work out AddSheet."""
    project = work.project
    number = payload.number.strip()
    if any(s.number == number for s in project.sheets.values()):
        raise RuleError(f"There is already a sheet {number}. Choose another number.", field="number")
    if payload.size not in SHEET_SIZES_MM:
        raise RuleError(f"{payload.size} is not a sheet size known here.", field="size")
    first = payload.first_line
    if first is None:
        first = int(number) * 10 + 1 if number.isdigit() and len(number) < 5 else 1
    order = max((s.order for s in project.sheets.values()), default=0) + 1
    sheet = Sheet(
        work.ids.new(),
        number,
        payload.title.strip(),
        order,
        size=payload.size,
        frame=payload.frame,
        function_id=payload.function_id,
        location_id=payload.location_id,
        first_line=first,
        line_count=payload.line_count,
    )
    width, height = grid_size(sheet)
    sheet = replace(
        sheet,
        rail_right=min(sheet.rail_right, width - 20),
        line_count=max(1, min(payload.line_count, (height - 20 - sheet.line_top) // sheet.line_spacing + 1)),
    )
    work.put("sheet", sheet)
    if sheet.frame == "ladder":
        _rails(work, sheet, payload.left_rail_type_id, payload.right_rail_type_id)
    work.outcome.placed = [sheet.id]
    return f"add sheet {number}"


def _rails(work: Work, sheet: Sheet, left: str, right: str) -> None:
    top = sheet.line_top - 4
    bottom = sheet.line_top + sheet.line_spacing * (sheet.line_count - 1) + 4
    draft = work.draft(sheet.id)
    for x, type_id in ((sheet.rail_left, left), (sheet.rail_right, right)):
        if type_id:
            work.project.get("wire_type", type_id)
            draft.stroke((x, top), (x, bottom), type_id)
    work.close(draft)


class ChangeSheet(Payload):
    """Change a sheet's number, title or structure; what is left out stays."""

    kind: Literal["change-sheet"] = "change-sheet"
    sheet_id: Id
    number: Text | None = Field(default=None, min_length=1, max_length=12)
    title: Text | None = None
    function_id: Id | None = None
    location_id: Id | None = None
    first_line: int | None = Field(default=None, ge=0, le=99999)


@edit(ChangeSheet, {"sheet_id": "s1", "title": "Loading auger, power"})
def change_sheet(work: Work, payload: ChangeSheet) -> str:
    """Work out ChangeSheet."""
    sheet: Sheet = work.project.get("sheet", payload.sheet_id)
    given = payload.model_dump(exclude={"kind", "sheet_id"}, exclude_none=True)
    number = given.get("number", sheet.number)
    if any(s.number == number and s.id != sheet.id for s in work.project.sheets.values()):
        raise RuleError(f"There is already a sheet {number}. Choose another number.", field="number")
    work.put("sheet", replace(sheet, **given))
    return f"change sheet {number}"


class DeleteSheet(Payload):
    """Delete a sheet with all that is drawn on it."""

    kind: Literal["delete-sheet"] = "delete-sheet"
    sheet_id: Id


@edit(DeleteSheet, {"sheet_id": "s1"})
def delete_sheet(work: Work, payload: DeleteSheet) -> str:
    """Work out DeleteSheet."""
    project = work.project
    sheet: Sheet = project.get("sheet", payload.sheet_id)
    devices = [s.device_id for s in project.symbols_on(sheet.id) if s.device_id]
    devices += [project.bands[i].device_id for i in project.on_sheet["band"].get(sheet.id)]
    for kind, index in project.on_sheet.items():
        for id in index.get(sheet.id):
            work.remove(kind, id)
    for device_id in dict.fromkeys(devices):
        drop_unused(work, device_id)
        tidy_strip(work, device_id)
        refresh_letters(work, device_id)
    work.remove("sheet", sheet.id)
    return f"delete sheet {sheet.number}"


class AddWireType(Payload):
    """Add a wire type to the project."""

    kind: Literal["add-wire-type"] = "add-wire-type"
    name: Text = Field(min_length=1)
    colour: Text = Field(pattern=r"^([A-Z]{2}){1,2}$")
    cross_section_mm2: float = Field(default=0.0, ge=0, le=400)
    awg: Text = ""
    category: Literal["power", "control-ac", "control-dc", "signal", "pe", "external"] = "control-dc"
    numbered: bool = True


@edit(AddWireType, {"name": "Control DC", "colour": "BU", "cross_section_mm2": 1.0})
def add_wire_type(work: Work, payload: AddWireType) -> str:
    """Work out AddWireType."""
    values = payload.model_dump(exclude={"kind"})
    if any(t.name == payload.name for t in work.project.wire_types.values()):
        raise RuleError(f"There is already a wire type “{payload.name}”.", field="name")
    made = WireType(work.ids.new(), **values)
    work.put("wire_type", made)
    work.outcome.placed = [made.id]
    return f"add wire type {made.name}"


class ChangeSettings(Payload):
    """Change the project's own facts and habits; what is left out stays."""

    kind: Literal["change-settings"] = "change-settings"
    number: Text | None = None
    name: Text | None = None
    customer: Text | None = None
    site: Text | None = None
    drawn_by: Text | None = None
    revision: Text | None = None
    standard: Literal["iec", "na"] | None = None
    tag_habit: Literal["iec", "line"] | None = None
    tag_scope: Literal["place", "project"] | None = None
    wire_pattern: Literal["line", "sheet"] | None = None
    wire_width: Grid | None = Field(default=None, ge=1, le=6)
    end_allowance_mm: Length | None = None
    door_allowance_mm: Length | None = None
    harness_allowance_mm: Length | None = None
    length_step_mm: Length | None = None
    spool_m: float | None = Field(default=None, gt=0, le=100_000)
    spare_share_percent: float | None = Field(default=None, ge=0, le=500)


@edit(ChangeSettings, {"tag_habit": "line"})
def change_settings(work: Work, payload: ChangeSettings) -> str:
    """Work out ChangeSettings."""
    settings: Settings = work.project.settings
    work.put("settings", replace(settings, **payload.model_dump(exclude={"kind"}, exclude_none=True)))
    for device_id in sorted(work.project.devices):
        refresh_letters(work, device_id)
    return "change project settings"
