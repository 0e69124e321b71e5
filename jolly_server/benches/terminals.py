"""What the Terminals bench shows."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.model import Project
from jolly_core.scenes import plan_of
from jolly_core.tagging import device_at
from jolly_core.terminals import StripRow, Target, TerminalGroup, groups_of, strip_rows, strip_width_mm, strips

from .shapes import DeviceName, PartName, Place, device_value, part_name, symbol_place


class TargetValue(Place):
    """What a terminal leads to on one side."""

    name: str
    device_id: str
    function_id: str
    symbol_id: str
    cable: str
    core: str
    number: str
    type: str


class StripRowValue(Place):
    """A place on a strip, with what lands on each side; `unknown` are those whose side nothing says."""

    item_id: str
    kind: str
    unit: int
    number: str
    symbol_id: str
    panel: list[TargetValue]
    field: list[TargetValue]
    unknown: list[TargetValue]
    bridges: list[str]
    width_mm: float
    terminal_kind: str
    part: str


class TerminalGroupValue(TypedDict):
    """Terminals of a strip that are ordered alike."""

    kind: str
    words: str
    units: list[int]
    part: PartName | None


class StripValue(DeviceName):
    """A strip; `plan_id` is the sheet or page that shows it."""

    width_mm: float
    plan_id: str
    groups: list[TerminalGroupValue]
    rows: list[StripRowValue]


class TerminalsView(TypedDict):
    """What the Terminals bench shows."""

    strips: list[StripValue]


def terminals_bench(project: Project) -> TerminalsView:
    """Return the strips with their places in order."""
    return {
        "strips": [
            {
                **device_value(project, strip),
                "width_mm": strip_width_mm(project, strip.id),
                "plan_id": plan_of(project, "terminals", strip.id),
                "groups": [_group(g) for g in groups_of(project, strip.id)],
                "rows": [_row(project, row) for row in strip_rows(project, strip.id)],
            }
            for strip in strips(project)
        ]
    }


def _group(group: TerminalGroup) -> TerminalGroupValue:
    return {
        "kind": group.kind,
        "words": f"{len(group.rows)} {group.words}",
        "units": [r.unit for r in group.rows],
        "part": part_name(group.part),
    }


def _row(project: Project, row: StripRow) -> StripRowValue:
    symbol_id = row.symbol_ids[0] if row.symbol_ids else ""
    return {
        "item_id": row.item_id,
        "kind": row.kind,
        "unit": row.unit,
        "number": row.number,
        "symbol_id": symbol_id,
        "panel": [_target(project, t) for t in row.panel],
        "field": [_target(project, t) for t in row.field],
        "unknown": [_target(project, t) for t in row.unknown],
        "bridges": list(row.bridges),
        "width_mm": row.width_mm,
        "terminal_kind": row.terminal_kind,
        "part": row.part.number if row.part else "",
        **symbol_place(project, symbol_id),
    }


def _target(project: Project, target: Target) -> TargetValue:
    device = device_at(project, target.pin)
    wire_type = target.conductor.wire_type(project)
    return {
        "name": target.name,
        "device_id": device.id if device else "",
        "function_id": device.function_id if device else "",
        "symbol_id": target.pin[0],
        "cable": target.cable,
        "core": target.core,
        "number": target.conductor.number,
        "type": wire_type.name if wire_type else "",
        **symbol_place(project, target.pin[0]),
    }
