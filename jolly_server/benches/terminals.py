"""What the Terminals bench shows."""

from __future__ import annotations

from typing import Any

from jolly_core.model import Project
from jolly_core.scenes import plan_of
from jolly_core.tagging import device_at
from jolly_core.terminals import StripRow, Target, TerminalGroup, groups_of, strip_rows, strip_width_mm, strips

from .shapes import device_value, symbol_place


def terminals_bench(project: Project) -> dict[str, Any]:
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


def _group(group: TerminalGroup) -> dict[str, Any]:
    return {
        "kind": group.kind,
        "words": f"{len(group.rows)} {group.words}",
        "units": [r.unit for r in group.rows],
        "part": {"id": group.part.id, "number": group.part.number, "text": group.part.text} if group.part else None,
    }


def _row(project: Project, row: StripRow) -> dict[str, Any]:
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
        "bridges": row.bridges,
        "width_mm": row.width_mm,
        "terminal_kind": row.terminal_kind,
        "part": row.part.number if row.part else "",
        **symbol_place(project, symbol_id),
    }


def _target(project: Project, target: Target) -> dict[str, Any]:
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
