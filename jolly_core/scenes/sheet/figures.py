"""How boundaries, lines, pictures and tables of a sheet look."""

from __future__ import annotations

from jolly_core.drawing import ADVANCE, GRID_MM
from jolly_core.model import Figure, Project
from jolly_core.tagging import path_of

from ..base.primitives import Facts, Image, Item, Line, PenName, Prim, text
from ..lists.laid import laid_prims

TITLE_MM = 2.8


def figure_item(project: Project, figure: Figure) -> Item:
    """Return the item of a figure; a boundary has its title, and the location it stands for, in its upper corner."""
    x1, y1, x2, y2 = (v * GRID_MM for v in (figure.x1, figure.y1, figure.x2, figure.y2))
    pen: PenName = "dash" if figure.dashed else "thin"
    prims: list[Prim] = []
    box = (min(x1, x2) - 0.5, min(y1, y2) - 0.5, max(x1, x2) + 0.5, max(y1, y2) + 0.5)
    if figure.kind == "line":
        prims.append(Line(x1, y1, x2, y2, pen))
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
    }
    return Item(figure.id, "figure", prims, box, facts)
