"""Numbers of wires fixed and let run by scope; what changes is listed."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.wiring import sheet_groups, wire_numbers

from ..base.edit import Id, Payload, Work, edit
from .numberrules import NumbersListed


class FixNumbers(Payload):
    """Fix wire numbers as they are now, so that nothing moves them, or let them run again.

    What is named counts: wires, else sheets, else the whole project.
    """

    kind: Literal["fix-numbers"] = "fix-numbers"
    ids: list[Id] = Field(default_factory=list, max_length=2000)
    sheet_ids: list[Id] = Field(default_factory=list, max_length=2000)
    fixed: bool


@edit(FixNumbers, {"sheet_ids": ["s1"], "fixed": True})
def fix_numbers(work: Work, payload: FixNumbers) -> str:
    """Work out FixNumbers."""
    project = work.project
    sheet_ids = payload.sheet_ids or sorted({project.get("wire", id).sheet_id for id in payload.ids})
    sheets = [project.get("sheet", id).id for id in sheet_ids] if sheet_ids else list(project.sheets)
    chosen = set(payload.ids)
    with NumbersListed(work):
        wanted: dict[str, str] = {}
        for sheet_id in sheets:
            numbers = wire_numbers(project, sheet_id)
            for group in sheet_groups(project, sheet_id).groups:
                if not group.wires or (chosen and not chosen & set(group.wires)):
                    continue
                held = [id for id in group.wires if project.wires[id].number]
                if payload.fixed and not held and numbers.get(group.point):
                    wanted[min(group.wires)] = numbers[group.point]
                elif not payload.fixed:
                    wanted.update((id, "") for id in held)
        for id, number in sorted(wanted.items()):
            work.put("wire", replace(project.wires[id], number=number))
    return f"{'fix' if payload.fixed else 'let run'} {len(wanted)} wire number(s)"
