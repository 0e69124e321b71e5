"""The wire of a rung: a ladder line's first symbol brings it from rail to rail, its last one takes it away."""

from __future__ import annotations

from collections import Counter

from jolly_core.drawing import Point, SheetDraft, rails_at
from jolly_core.library import Definition
from jolly_core.model import Project, Sheet, Wire
from jolly_core.wiring import types_of_potentials


def bring_rung(draft: SheetDraft, sheet: Sheet, shape: Definition, at: Point, type_id: str) -> bool:
    """Draw the wire of a rung for its first symbol; return whether one was drawn.

    Nothing is drawn where the sheet has no rails at this height, where something is on the line already, and for
    symbols whose pins lie beside each other.

    Args:
        type_id: the type it should have, "" for the one that other rungs have.
    """
    x, y = at
    left, right = rails_at(sheet, x)
    inside = left < x and x + max(px for px, _ in shape.pins) < right
    if sheet.frame != "ladder" or shape.axis != "h" or not shape.through or not inside:
        return False
    rails = [_rail(draft, column, y) for column in (left, right)]
    if rails[0] is None or rails[1] is None or _taken(draft, left, right, y):
        return False
    draft.stroke((left, y), (right, y), type_id or rung_type(draft, rails[0]))
    return True


def _rail(draft: SheetDraft, x: int, y: int) -> Wire | None:
    return next((w for w in draft.wires.values() if w.x1 == w.x2 == x and w.y1 <= y <= w.y2), None)


def _taken(draft: SheetDraft, left: int, right: int, y: int) -> bool:
    """Return whether a wire or pin lies on the line between the rails."""
    for w in draft.wires.values():
        if w.y1 <= y <= w.y2 and w.x1 < right and w.x2 > left and not (w.x1 == w.x2 and w.x1 in (left, right)):
            return True
    return any(py == y and left < px < right for px, py in draft.pins())


def rung_type(draft: SheetDraft, rail: Wire) -> str:
    """Return the wire type of a new rung: that of most rungs on the sheet, else of the rail's category.

    A type whose name says a potential ("24 V DC"), or that is the neutral's, is taken only when there is no other: a
    rung is not all of one.
    """
    project: Project = draft.project
    across = Counter(w.type_id for w in draft.wires.values() if w.y1 == w.y2)
    for type_id, _ in across.most_common():
        if type_id not in types_of_potentials(project):
            return type_id
    of_rail = project.wire_types[rail.type_id].category
    inside = [t for t in project.types_in_order() if t.category == of_rail and not t.outside]
    return next((t.id for t in inside if t.id not in types_of_potentials(project)), rail.type_id)


def take_bare_rungs(draft: SheetDraft, sheet: Sheet, lines: set[int]) -> None:
    """Take away wires from rail to rail on lines whose last symbol was just deleted, unless something hangs on them.

    Args:
        draft: tidied, so that gaps are healed.
        lines: heights at which symbols were deleted.
    """
    for w in list(draft.wires.values()):
        left, right = rails_at(sheet, w.x1)
        whole = w.y1 == w.y2 and w.y1 in lines and (w.x1, w.x2) == (left, right) and not w.number
        if whole and sheet.frame == "ladder" and _rail(draft, left, w.y1) and _rail(draft, right, w.y1):
            del draft.wires[w.id]
