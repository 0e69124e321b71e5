"""Bringing symbols, marks and notes into line, and spreading them evenly."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.drawing import Point, SheetDraft, move, pin_points
from jolly_core.model import RuleError

from ..base.edit import Id, Payload, Work, edit
from ..draw.boundaries import follow_boundaries, homes
from ..draw.selecting import inside, refuse_locked, sheet_of

AlignTo = Literal["left", "right", "top", "bottom", "column", "row"]


class AlignSelection(Payload):
    """Bring what is selected into line; wires stretch. A column or row goes through the middle of the first."""

    kind: Literal["align-selection"] = "align-selection"
    ids: list[Id] = Field(min_length=2, max_length=500)
    how: AlignTo


@edit(AlignSelection, {"ids": ["y1", "y2"], "how": "left"})
def align_selection(work: Work, payload: AlignSelection) -> str:
    """Work out AlignSelection."""
    boxes = _boxes(work, payload.ids)
    first = boxes[next(iter(boxes))]
    moves: dict[str, Point] = {}
    for id, (left, top, right, bottom) in boxes.items():
        if payload.how == "left":
            moves[id] = (min(b[0] for b in boxes.values()) - left, 0)
        elif payload.how == "right":
            moves[id] = (max(b[2] for b in boxes.values()) - right, 0)
        elif payload.how == "top":
            moves[id] = (0, min(b[1] for b in boxes.values()) - top)
        elif payload.how == "bottom":
            moves[id] = (0, max(b[3] for b in boxes.values()) - bottom)
        elif payload.how == "column":
            moves[id] = ((first[0] + first[2]) // 2 - (left + right) // 2, 0)
        else:
            moves[id] = (0, (first[1] + first[3]) // 2 - (top + bottom) // 2)
    _move_each(work, payload.ids, moves)
    return f"align {len(boxes)} things"


class DistributeSelection(Payload):
    """Spread what is selected evenly between the outermost two; wires stretch."""

    kind: Literal["distribute-selection"] = "distribute-selection"
    ids: list[Id] = Field(min_length=3, max_length=500)
    along: Literal["across", "down"]


@edit(DistributeSelection, {"ids": ["y1", "y2", "y3"], "along": "across"})
def distribute_selection(work: Work, payload: DistributeSelection) -> str:
    """Work out DistributeSelection."""
    boxes = _boxes(work, payload.ids)
    side = 0 if payload.along == "across" else 1
    order = sorted(boxes, key=lambda id: (boxes[id][side], id))
    if len(order) < 3:
        raise RuleError("Select at least three symbols, marks or notes to spread.", field="ids")
    low, high = boxes[order[0]][side], boxes[order[-1]][side]
    moves: dict[str, Point] = {}
    for n, id in enumerate(order):
        shift = low + round(n * (high - low) / (len(order) - 1)) - boxes[id][side]
        moves[id] = (shift, 0) if side == 0 else (0, shift)
    _move_each(work, payload.ids, moves)
    return f"spread {len(boxes)} things"


def _boxes(work: Work, ids: list[str]) -> dict[str, tuple[int, int, int, int]]:
    """Return the boxes of what can be lined up, in the order selected; wires follow and are left out."""
    project = work.project
    boxes: dict[str, tuple[int, int, int, int]] = {}
    for id in ids:
        symbol = project.symbols.get(id)
        mark = project.continuations.get(id) or project.notes.get(id)
        if symbol is not None:
            xs, ys = zip(*pin_points(symbol), strict=True)
            boxes[id] = (min(xs), min(ys), max(xs), max(ys))
        elif mark is not None:
            boxes[id] = (mark.x, mark.y, mark.x, mark.y)
    if len(boxes) < 2:
        raise RuleError("Select at least two symbols, marks or notes to line up.", field="ids")
    return boxes


def _move_each(work: Work, ids: list[str], moves: dict[str, Point]) -> None:
    sheet_id = sheet_of(work.project, ids)
    refuse_locked(work.project, moves)
    before = homes(work.project, sheet_id)
    draft: SheetDraft = work.draft(sheet_id)
    # The farthest goes first, so that what follows it does not have to pass over it.
    for id, (dx, dy) in sorted(moves.items(), key=lambda m: (-abs(m[1][0]) - abs(m[1][1]), m[0])):
        if dx or dy:
            move(draft, {id}, dx, dy)
    inside(work, draft)
    work.close(draft)
    follow_boundaries(work, sheet_id, before)
    work.outcome.placed = list(ids)
