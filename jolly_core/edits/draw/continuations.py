"""Continuation marks: putting several down at once, renaming, pairing."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import Point, SheetDraft, place_in
from jolly_core.model import Continuation, RuleError, counted

from ..base.edit import Grid, Id, Payload, Text, Work, edit


class PlaceContinuations(Payload):
    """Put marks along a stroke, one on each wire that ends on it or crosses it, in order, with the names given.

    A single name for several wires is numbered: L becomes L1, L2, L3.
    """

    kind: Literal["place-continuations"] = "place-continuations"
    sheet_id: Id
    x1: Grid
    y1: Grid
    x2: Grid
    y2: Grid
    names: list[Text] = Field(min_length=1, max_length=40)


@edit(PlaceContinuations, {"sheet_id": "s1", "x1": 90, "y1": 10, "x2": 90, "y2": 30, "names": ["L1", "L2", "L3"]})
def place_continuations(work: Work, payload: PlaceContinuations) -> str:
    """Work out PlaceContinuations."""
    a, b = (payload.x1, payload.y1), (payload.x2, payload.y2)
    if (a[0] != b[0]) == (a[1] != b[1]):
        raise RuleError("Draw the stroke level or upright, over the ends of the wires.", field="x2")
    draft = work.draft(payload.sheet_id)
    points = _met(draft, a, b)
    names = [n.strip() for n in payload.names if n.strip()]
    if not points:
        raise RuleError("The stroke meets no wire. Draw it over the ends of the wires.", field="x2")
    if len(names) == 1 and len(points) > 1:
        names = [f"{names[0]}{n}" for n in range(1, len(points) + 1)]
    if len(names) != len(points):
        words = f"{counted(len(names), 'name')} for {counted(len(points), 'wire')}: {', '.join(names) or 'none'}."
        raise RuleError(f"{words} Give one name for each wire, top down or left to right.", field="names")
    held = {(c.x, c.y) for c in draft.continuations.values()}
    for (x, y), name in zip(points, names, strict=True):
        if (x, y) in held:
            raise RuleError(f"There is already a continuation mark where {name} would lie.", field="names")
        mark = Continuation(work.ids.new(), payload.sheet_id, x, y, name, away_from(draft, x, y))
        draft.continuations[mark.id] = mark
        work.outcome.placed.append(mark.id)
    work.close(draft)
    return f"place {counted(len(points), 'continuation')}"


def _met(draft: SheetDraft, a: Point, b: Point) -> list[Point]:
    """Return the points of a stroke at which wires at a right angle end or pass, in order."""
    upright = a[0] == b[0]
    low, high = (min(a[1], b[1]), max(a[1], b[1])) if upright else (min(a[0], b[0]), max(a[0], b[0]))
    found = set()
    for w in draft.wires.values():
        if upright and w.y1 == w.y2 and w.x1 <= a[0] <= w.x2 and low <= w.y1 <= high:
            found.add((a[0], w.y1))
        elif not upright and w.x1 == w.x2 and w.y1 <= a[1] <= w.y2 and low <= w.x1 <= high:
            found.add((w.x1, a[1]))
    return sorted(found, key=lambda p: p[1] if upright else p[0])


class RenameContinuation(Payload):
    """Give a mark and all of its name another one; or this mark alone, to pair it with others of the new name."""

    kind: Literal["rename-continuation"] = "rename-continuation"
    mark_id: Id
    name: Text = Field(min_length=1)
    alone: bool = False


@edit(RenameContinuation, {"mark_id": "c1", "name": "24 V door"})
def rename_continuation(work: Work, payload: RenameContinuation) -> str:
    """Work out RenameContinuation."""
    project = work.project
    mark: Continuation = project.get("continuation", payload.mark_id)
    name = payload.name.strip()
    if not name:
        raise RuleError("A continuation needs a name.", field="name", ids=(mark.id,))
    own = [mark.id] if payload.alone else project.continuations_named.get(mark.name)
    others = [i for i in project.continuations_named.get(name) if i not in own]
    if others and not payload.alone:
        there = project.continuations[others[0]]
        place = place_in(project.sheets[there.sheet_id], there.x, there.y)
        raise RuleError(
            f"There is a continuation {name} already, at {place}. Pair this one with it, or choose another name.",
            field="name",
            ids=(others[0],),
        )
    for id in own:
        work.put("continuation", replace(project.continuations[id], name=name))
    work.outcome.placed = [mark.id]
    return f"continuation {mark.name} becomes {name}"


class PlaceContinuation(Payload):
    """Put a mark where a net leaves the sheet; marks of one name are joined.

    Its arrow points away from the wire that ends there unless a side is given.
    """

    kind: Literal["place-continuation"] = "place-continuation"
    sheet_id: Id
    x: Grid
    y: Grid
    name: Text = Field(min_length=1)
    toward: Literal["left", "right", "up", "down"] | None = None


@edit(PlaceContinuation, {"sheet_id": "s1", "x": 96, "y": 20, "name": "24 V"})
def place_continuation(work: Work, payload: PlaceContinuation) -> str:
    """Work out PlaceContinuation."""
    draft = work.draft(payload.sheet_id)
    toward = payload.toward or away_from(draft, payload.x, payload.y)
    mark = Continuation(work.ids.new(), payload.sheet_id, payload.x, payload.y, payload.name.strip(), toward)
    if any((c.x, c.y) == (mark.x, mark.y) for c in draft.continuations.values()):
        raise RuleError("There is already a continuation mark here.", field="x")
    draft.continuations[mark.id] = mark
    work.close(draft)
    work.outcome.placed = [mark.id]
    return f"place continuation {mark.name}"


def away_from(draft: SheetDraft, x: int, y: int) -> str:
    """Return the side on which no wire comes to a point: where an arrow that leaves the sheet points."""
    for w in draft.wires.values():
        if (w.x2, w.y2) == (x, y):
            return "right" if w.y1 == w.y2 else "down"
        if (w.x1, w.y1) == (x, y):
            return "left" if w.y1 == w.y2 else "up"
    return "right"
