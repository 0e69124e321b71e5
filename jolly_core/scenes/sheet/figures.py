"""How boundaries, strokes, pictures and tables of a sheet look."""

from __future__ import annotations

from math import atan2, cos, hypot, pi, sin

from jolly_core.drawing import ADVANCE, GRID_MM, BoxMm
from jolly_core.model import STROKES, Figure, Project, shown_in
from jolly_core.tagging import path_of

from ..base.primitives import Facts, Image, Item, Line, PenName, Prim, Text, text
from ..lists.laid import laid_prims
from ..room.crowding import text_box
from .layers import layered

TITLE_MM = 2.8
HEAD_MM = 3.0  # of an arrow
SPREAD = pi / 8  # of a head to each side


def figure_item(project: Project, figure: Figure) -> Item:
    """Return the item of a figure; a boundary has its title, and the location it stands for, in its upper corner."""
    x1, y1, x2, y2 = (v * GRID_MM for v in (figure.x1, figure.y1, figure.x2, figure.y2))
    pen: PenName = "dash" if figure.dashed else "thin"
    prims: list[Prim] = []
    box = (min(x1, x2) - 0.5, min(y1, y2) - 0.5, max(x1, x2) + 0.5, max(y1, y2) + 0.5)
    if figure.kind in STROKES:
        prims += _stroke(figure, (x1, y1, x2, y2), pen, project.settings.length_unit)
        box = _around(box, prims)
    elif figure.kind == "picture":
        prims.append(Image(x1, y1, x2 - x1, y2 - y1, figure.picture_id))
    elif figure.kind == "table":
        prims += laid_prims(project, figure)
    else:
        corners = ((x1, y1, x2, y1), (x2, y1, x2, y2), (x2, y2, x1, y2), (x1, y2, x1, y1))
        prims += [Line(*c, pen) for c in corners]
        location = path_of(project.locations, figure.location_id, "+")
        words = "  ".join(w for w in (location, figure.text) if w)
        if words:
            prims.append(text(x1 + 1, y1 - 1, TITLE_MM, words, role="label"))
            box = (box[0], y1 - 1 - TITLE_MM, max(box[2], x1 + 1 + len(words) * TITLE_MM * ADVANCE), box[3])
    facts: Facts = {
        "figure": figure.kind,
        "text": figure.text,
        "location": figure.location_id,
        "dashed": figure.dashed,
        "locked": figure.locked,
        "corners": (figure.x1, figure.y1, figure.x2, figure.y2),
        **layered(figure.layer_id, figure.together),
    }
    return Item(figure.id, "figure", prims, box, facts)


def _stroke(figure: Figure, ends: BoxMm, pen: PenName, unit: str) -> list[Prim]:
    """Return a line with the heads its kind has, and what stands at it: over its middle, never upside down.

    A dimension without words of its own tells how long it is on the sheet.
    """
    x1, y1, x2, y2 = ends
    angle = atan2(y2 - y1, x2 - x1)
    found: list[Prim] = [Line(x1, y1, x2, y2, pen)]
    words = figure.text
    if figure.kind != "line":
        found += _head(x2, y2, angle)
    if figure.kind == "dimension":
        found += [*_head(x1, y1, angle + pi), *(_tick(x, y, angle) for x, y in ((x1, y1), (x2, y2)))]
        words = words or shown_in(unit, hypot(x2 - x1, y2 - y1))
    if words:
        upright = abs(y2 - y1) > abs(x2 - x1)
        x, y = (x1 + x2) / 2, (y1 + y2) / 2
        at = (x - 1, y) if upright else (x, y - 1)
        found.append(text(*at, TITLE_MM, words, anchor="middle", role="label", upward=upright))
    return found


def _head(x: float, y: float, angle: float) -> list[Prim]:
    return [
        Line(x, y, round(x - HEAD_MM * cos(angle + side), 3), round(y - HEAD_MM * sin(angle + side), 3), "thin")
        for side in (-SPREAD, SPREAD)
    ]


def _tick(x: float, y: float, angle: float) -> Prim:
    """Return the short stroke across the end of a dimension."""
    dx, dy = HEAD_MM * -sin(angle), HEAD_MM * cos(angle)
    return Line(round(x - dx, 3), round(y - dy, 3), round(x + dx, 3), round(y + dy, 3), "thin")


def _around(box: BoxMm, prims: list[Prim]) -> BoxMm:
    """Return a box that holds the texts of primitives, too."""
    boxes = [box, *(text_box(p) for p in prims if isinstance(p, Text))]
    return min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes)
