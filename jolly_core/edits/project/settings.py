"""The project's own facts and habits: settings, and how new sheets begin."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import habit_of
from jolly_core.model import SHEET_SIZES_MM, WIRE_CATEGORIES, RuleError, Settings
from jolly_core.model.entities.structure import (
    AddressPrefix,
    Allowance,
    Ambient,
    Columns,
    CommentLimit,
    LineCount,
    LineSpacing,
    Share,
    SheetKind,
    SpoolLength,
    WireWidth,
    ZoneRows,
)

from ..base.edit import Id, Length, Payload, Text, Work, edit
from ..base.upkeep import refresh_letters
from .wiretypes import Category


class SheetShape(Payload):
    """Size, frame and title block of a sheet; what is left out stays, or follows the habit of its kind."""

    sheet_kind: SheetKind | None = None
    size: Text | None = None
    frame: Literal["ladder", "zones"] | None = None
    line_count: LineCount | None = None
    line_spacing: LineSpacing | None = None
    ladders: Literal[1, 2] | None = None
    columns: Columns | None = None
    rows: ZoneRows | None = None
    title_block_id: Id | None = None


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
    wire_width: WireWidth | None = None
    end_allowance_mm: Length | None = None
    door_allowance_mm: Length | None = None
    free_run_mm: Length | None = None
    part_language: Text | None = Field(default=None, max_length=8)
    harness_allowance_mm: Length | None = None
    length_step_mm: Length | None = None
    spool_m: SpoolLength | None = None
    spare_share_percent: Share | None = None
    cable_allowance_m: Allowance | None = None
    drop_warn_percent: Share | None = None
    drop_limit_percent: Share | None = None
    laying_method: Literal["B1", "B2", "C", "E"] | None = None
    ambient_c: Ambient | None = None
    input_prefix: AddressPrefix | None = None
    output_prefix: AddressPrefix | None = None
    comment_limit: CommentLimit | None = None
    channel_feed: Text | None = Field(default=None, min_length=1)
    channel_return: Text | None = Field(default=None, min_length=1)
    supply: Text | None = None
    supply_system: Text | None = None
    control_voltages: Text | None = None
    protection: Text | None = None
    standards: Text | None = None
    drawn_on: Text | None = None
    checked_by: Text | None = None
    checked_on: Text | None = None
    issued_on: Text | None = None
    length_unit: Literal["mm", "in"] | None = None
    conductor_order: Literal["drawing", "layout"] | None = None
    apart: list[Category] | None = Field(default=None, max_length=6)
    fill_warn_percent: Share | None = None
    dimensions: Literal["chain", "running"] | None = None
    eyelet_reach_mm: Length | None = None
    title_block_id: Id | None = None


@edit(ChangeSettings, {"tag_habit": "line"})
def change_settings(work: Work, payload: ChangeSettings) -> str:
    """Work out ChangeSettings."""
    settings: Settings = work.project.settings
    if payload.title_block_id:
        work.project.get("title_block", payload.title_block_id)
    values = payload.model_dump(exclude={"kind"}, exclude_none=True)
    if payload.apart is not None:
        values["apart"] = tuple(c for c in WIRE_CATEGORIES if c in payload.apart)
    work.put("settings", replace(settings, **values))
    for device_id in sorted(work.project.devices):
        refresh_letters(work, device_id)
    return "change project settings"


class SetSheetHabit(SheetShape):
    """Say how new sheets of a kind begin; what is left out stays."""

    kind: Literal["set-sheet-habit"] = "set-sheet-habit"
    sheet_kind: SheetKind
    left_rail_type_id: Id | None = None
    right_rail_type_id: Id | None = None


@edit(SetSheetHabit, {"sheet_kind": "schematic", "size": "A3", "frame": "zones"})
def set_sheet_habit(work: Work, payload: SetSheetHabit) -> str:
    """Work out SetSheetHabit."""
    project = work.project
    values = payload.model_dump(exclude={"kind", "sheet_kind"}, exclude_none=True)
    if payload.size is not None and payload.size not in SHEET_SIZES_MM:
        raise RuleError(f"{payload.size} is not a sheet size known here.", field="size")
    for field, kind in (
        ("title_block_id", "title_block"),
        ("left_rail_type_id", "wire_type"),
        ("right_rail_type_id", "wire_type"),
    ):
        if values.get(field):
            project.get(kind, values[field])
    old = next((h for h in project.sheet_habits.values() if h.kind == payload.sheet_kind), None)
    work.put("sheet_habit", replace(old or habit_of(project, payload.sheet_kind, work.ids.new()), **values))
    return f"how {payload.sheet_kind} sheets begin"
