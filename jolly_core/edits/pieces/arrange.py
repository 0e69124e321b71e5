"""Moving and turning what is selected on a sheet."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import move, pin_points
from jolly_core.library import is_block
from jolly_core.model import RuleError, Symbol

from ..base.edit import Grid, Id, Payload, Work, edit
from ..draw.boundaries import follow_boundaries, homes
from ..draw.layers import with_companions
from ..draw.selecting import inside, refuse_locked, sheet_of, what_of


class MoveSelection(Payload):
    """Move what is selected, and what moves together with it; wires that stay behind stretch."""

    kind: Literal["move-selection"] = "move-selection"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    dx: Grid
    dy: Grid
    allow_join: bool = False


@edit(MoveSelection, {"ids": ["y1"], "dx": 4, "dy": 0})
def move_selection(work: Work, payload: MoveSelection) -> str:
    """Work out MoveSelection."""
    sheet_id = sheet_of(work.project, payload.ids)
    ids = with_companions(work.project, payload.ids)
    refuse_locked(work.project, ids)
    draft = work.draft(sheet_id)
    before = homes(work.project, sheet_id)
    joined = move(draft, set(ids), payload.dx, payload.dy, allow_join=payload.allow_join)
    inside(work, draft)
    work.close(draft, tidied=True)
    follow_boundaries(work, sheet_id, before)
    work.outcome.placed = ids
    if joined:
        work.outcome.remarks.append("Wires were joined that were not connected before.")
    return f"move {what_of(work.project, ids)}"


class TurnSelection(Payload):
    """Turn symbols a quarter clockwise, or flip them; wires stay on where pins still meet them.

    A note is turned so that it is read from the right, and back.
    """

    kind: Literal["turn-selection"] = "turn-selection"
    ids: list[Id] = Field(min_length=1, max_length=200)
    how: Literal["turn", "flip"]


@edit(TurnSelection, {"ids": ["y1"], "how": "turn"})
def turn_selection(work: Work, payload: TurnSelection) -> str:
    """Work out TurnSelection."""
    draft = work.draft(sheet_of(work.project, payload.ids))
    refuse_locked(work.project, payload.ids)
    for id in payload.ids:
        note = work.project.notes.get(id)
        if note is not None and payload.how == "turn":
            draft.tables["note"][id] = replace(note, rotation=90 - note.rotation)
            continue
        symbol = draft.symbols.pop(id, None)
        if symbol is None:
            raise RuleError("Only symbols and notes can be turned, and only symbols flipped.", field="ids", ids=(id,))
        if is_block(symbol.definition):
            raise RuleError("A block is not turned: arrange its pins instead.", field="ids", ids=(id,))
        if payload.how == "flip":
            changed = replace(symbol, mirror=not symbol.mirror)
        else:
            changed = replace(symbol, rotation=(symbol.rotation + 90) % 360)
        was, now = _middle(symbol), _middle(changed)
        draft.put(replace(changed, x=changed.x + was[0] - now[0], y=changed.y + was[1] - now[1]))
    inside(work, draft)
    work.close(draft)
    work.outcome.placed = list(payload.ids)
    return f"{payload.how} {what_of(work.project, payload.ids)}"


def _middle(symbol: Symbol) -> tuple[int, int]:
    points = pin_points(symbol)
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return (min(xs) + max(xs)) // 2, (min(ys) + max(ys)) // 2
