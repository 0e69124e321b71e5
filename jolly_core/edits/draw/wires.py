"""Drawing wires, fixing their numbers."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from pydantic import Field

from jolly_core.drawing import grid_size
from jolly_core.model import RuleError, Sheet, Wire
from jolly_core.wiring import groups_numbered_with, net_of, sheet_groups

from ..base.edit import Grid, Id, Payload, Text, Work, edit
from .saidtypes import take_said_types

Corner = Annotated[list[Grid], Field(min_length=2, max_length=2)]


class DrawWire(Payload):
    """Draw a wire along corners; every leg runs horizontally or vertically.

    On a potential that has a wire type of its own (a rail of 24 V DC) it takes that type.
    """

    kind: Literal["draw-wire"] = "draw-wire"
    sheet_id: Id
    points: list[Corner] = Field(min_length=2, max_length=60)
    wire_type_id: Id


@edit(DrawWire, {"sheet_id": "s1", "points": [[10, 10], [40, 10], [40, 20]], "wire_type_id": "t1"})
def draw_wire(work: Work, payload: DrawWire) -> str:
    """Work out DrawWire."""
    sheet: Sheet = work.project.get("sheet", payload.sheet_id)
    work.project.get("wire_type", payload.wire_type_id)
    width, height = grid_size(sheet)
    points = [(x, y) for x, y in payload.points]
    if any(not (0 < x < width and 0 < y < height) for x, y in points):
        raise RuleError("The wire would run outside the sheet.", field="points")
    draft = work.draft(sheet.id)
    before = set(draft.wires)
    for a, b in zip(points, points[1:], strict=False):
        if a[0] != b[0] and a[1] != b[1]:
            raise RuleError("A wire runs horizontally or vertically: add a corner.", field="points")
        draft.stroke(a, b, payload.wire_type_id)
    draft.tidy()
    work.close(draft, tidied=not take_said_types(draft, draft.wires.keys() - before))
    work.outcome.placed = [id for id in draft.wires if id not in before]
    work.outcome.caret = points[-1]
    return "draw a wire"


class FixWireNumber(Payload):
    """Fix the number of all that shares a wire's number, or let it run again with an empty number."""

    kind: Literal["fix-wire-number"] = "fix-wire-number"
    wire_id: Id
    number: Text = Field(max_length=30)


@edit(FixWireNumber, {"wire_id": "w1", "number": "77"})
def fix_wire_number(work: Work, payload: FixWireNumber) -> str:
    """Work out FixWireNumber."""
    project = work.project
    wire: Wire = project.get("wire", payload.wire_id)
    number = payload.number.strip()
    start = (wire.sheet_id, sheet_groups(project, wire.sheet_id).of_wire[wire.id])
    potential = {id for group in net_of(project, start, potential=True) for id in group.wires}
    taken = [id for id in project.numbered_wires.get(number) if id not in potential] if number else []
    if taken:
        place = project.sheets[project.wires[taken[0]].sheet_id].number
        raise RuleError(
            f"The number {number} is fixed already for another potential, on sheet {place}. Choose another.",
            field="number",
            ids=(taken[0],),
        )
    for id in sorted(id for group in groups_numbered_with(project, wire) for id in group.wires):
        held = project.wires[id]
        wanted = number if id == wire.id else ""
        if held.number != wanted:
            work.put("wire", replace(held, number=wanted))
    return f"fix wire number {number}" if number else "let a wire number run"
