"""Drawing a bus: several conductors in one stroke, tied onto a bus it begins or ends on."""

from __future__ import annotations

from itertools import pairwise
from typing import Literal

from pydantic import Field

from jolly_core.drawing import Point, SheetDraft, bus_lanes, grid_size, onto_pins, row_at, simplified
from jolly_core.library import POLE_PITCH
from jolly_core.model import RuleError, Wire

from ..base.edit import Id, Payload, Work, edit
from .wires import Corner

# Neighbours of a bus lie no farther apart than this many times the spacing of the one that is drawn.
REACH = 3


class DrawBus(Payload):
    """Draw several conductors side by side along corners, each of its own type, by default as far apart as poles.

    Where it begins or ends on a wire that runs across, each conductor ties to the wire of its own type beside that one,
    or, failing that, to the next in order. Where it begins or ends on a pin, the conductors take that symbol's pins in
    order, as far apart as these are.
    """

    kind: Literal["draw-bus"] = "draw-bus"
    sheet_id: Id
    points: list[Corner] = Field(min_length=2, max_length=60)
    wire_type_ids: list[Id] = Field(min_length=2, max_length=12)
    spacing: int | None = Field(default=None, ge=1, le=20)


@edit(DrawBus, {"sheet_id": "s1", "points": [[10, 10], [60, 10]], "wire_type_ids": ["t1", "t2", "t3"]})
def draw_bus(work: Work, payload: DrawBus) -> str:
    """Work out DrawBus."""
    sheet = work.drawable(payload.sheet_id)
    types = payload.wire_type_ids
    for type_id in types:
        work.project.get("wire_type", type_id)
    points = simplified([(x, y) for x, y in payload.points])
    if len(points) < 2:
        raise RuleError("The bus has no length. Choose another end.", field="points")
    if any(a[0] != b[0] and a[1] != b[1] for a, b in pairwise(points)):
        raise RuleError("A bus runs level or upright: add a corner.", field="points")
    draft = work.draft(sheet.id)
    points, spacing = _onto_pins(draft, points, len(types), payload.spacing or POLE_PITCH)
    lanes = bus_lanes(points, len(types), spacing)
    _no_leg_turns_round(points, lanes)
    for at_end in (False, True):
        _tie(draft, lanes, types, spacing, at_end)
    width, height = grid_size(sheet)
    if any(not (0 < x < width and 0 < y < height) for lane in lanes for x, y in lane):
        raise RuleError("The bus would run outside the sheet.", field="points")
    before = set(draft.wires)
    for lane, type_id in zip(lanes, types, strict=True):
        for a, b in pairwise(lane):
            draft.stroke(a, b, type_id)
    work.close(draft)
    work.outcome.placed = [id for id in draft.wires if id not in before]
    work.outcome.caret = points[-1]
    return f"draw a bus of {len(types)}"


def _onto_pins(draft: SheetDraft, points: list[Point], count: int, spacing: int) -> tuple[list[Point], int]:
    """Return the way and spacing with which the bus meets the pins it begins on, else those it ends on."""
    for at_end in (False, True):
        end, beside = (points[-1], points[-2]) if at_end else (points[0], points[1])
        row = row_at(end, end[1] == beside[1], (draft.points_of(s) for s in draft.symbols.values()))
        if len(row) > 1:
            return onto_pins(points, count, spacing, row, at_end)
    return points, spacing


def _no_leg_turns_round(points: list[Point], lanes: list[list[Point]]) -> None:
    """Refuse a way whose inner conductors would have to run backwards between two corners."""
    for lane in lanes:
        for (a, b), (c, d) in zip(pairwise(points), pairwise(lane), strict=True):
            run, own = (b[0] - a[0], b[1] - a[1]), (d[0] - c[0], d[1] - c[1])
            if run[0] * own[0] + run[1] * own[1] <= 0:
                raise RuleError(
                    "Two corners of the bus lie closer than it is wide. Set them farther apart.", field="points"
                )


def _tie(draft: SheetDraft, lanes: list[list[Point]], types: list[str], spacing: int, at_end: bool) -> None:
    """Move the ends of conductors onto the wires of a bus that the first one begins or ends on."""
    at, beside = (-1, -2) if at_end else (0, 1)
    end, inner = lanes[0][at], lanes[0][beside]
    level = end[1] == inner[1]
    across = [w for w in draft.wires.values() if (w.x1 == w.x2) == level and w.x1 + w.y1 != w.x2 + w.y2]
    near = _neighbours([w for w in across if _meets(w, end, level)], end, level, spacing)
    free = sorted(near, key=lambda w: w.x1 if level else w.y1)
    chosen: dict[int, Wire] = {}
    for n, type_id in enumerate(types):
        same = next((w for w in free if w.type_id == type_id and _meets(w, lanes[n][at], level)), None)
        if same is not None:
            chosen[n] = same
            free.remove(same)
    for n in range(len(types)):
        if n not in chosen:
            following = next((w for w in free if _meets(w, lanes[n][at], level)), None)
            if following is not None:
                chosen[n] = following
                free.remove(following)
    if near and len(chosen) < len(types):
        # One left over would begin on a wire that is another's, and join it in silence.
        words = f"The bus there has wires for {len(chosen)} of the {len(types)} conductors."
        raise RuleError(f"{words} Draw as many, or begin beside it.", field="wire_type_ids")
    for n, wire in chosen.items():
        x, y = lanes[n][at]
        lanes[n][at] = (wire.x1, y) if level else (x, wire.y1)


def _meets(wire: Wire, point: Point, level: bool) -> bool:
    """Return whether a wire across runs at the height (or column) of a point."""
    return wire.y1 <= point[1] <= wire.y2 if level else wire.x1 <= point[0] <= wire.x2


def _neighbours(wires: list[Wire], end: Point, level: bool, spacing: int) -> list[Wire]:
    """Return the wires that lie beside the one at a point, each near the next; none when there is none at the point."""
    place = {w.id: w.x1 if level else w.y1 for w in wires}
    here = end[0] if level else end[1]
    if here not in place.values():
        return []
    found = {id for id, at in place.items() if at == here}
    grown = True
    while grown:
        reached = {place[id] for id in found}
        more = {id for id, at in place.items() if any(abs(at - r) <= REACH * spacing for r in reached)}
        grown = more != found
        found = more
    return [w for w in wires if w.id in found]
