"""A table laid on a drawing: a list in the box that somebody drew for it, as far as there is room."""

from __future__ import annotations

from jolly_core.drawing import GRID_MM
from jolly_core.model import Figure, Project, RuleError
from jolly_core.reports import Cooked, laid_list

from .lettering import fit
from .lists import shown_cell
from .primitives import Line, Prim, Rect, text

ROW_MM = 4.0
SIZE_MM = 2.2
PAD_MM = 0.8


def laid_prims(project: Project, figure: Figure) -> list[Prim]:
    """Return what is painted of a table: title, headings, rows, and how many rows there was no room for."""
    left, top, right, bottom = (v * GRID_MM for v in (figure.x1, figure.y1, figure.x2, figure.y2))
    prims: list[Prim] = [Rect(left, top, right - left, bottom - top, "thin")]
    try:
        cooked = laid_list(project, figure.sheet_id, figure.text)
    except RuleError as error:  # its recipe is gone, or cannot be followed any more
        words, size = fit(error.message, right - left - 2 * PAD_MM, SIZE_MM)
        return [*prims, text(left + PAD_MM, top + ROW_MM - 1.1, size, words, role="label")]
    rows = [
        [c.heading for c in cooked.columns],
        *([shown_cell(v, c) for v, c in zip(row, cooked.columns, strict=True)] for row in cooked.rows),
    ]
    room = max(1, int((bottom - top) / ROW_MM) - 1)
    left_out = len(rows) - room
    shown = rows if left_out <= 0 else rows[: room - 1]
    prims += _line([cooked.title], [right - left], left, top, title=True)
    widths = _widths(cooked, right - left)
    for n, row in enumerate(shown, start=1):
        y = top + n * ROW_MM
        prims.append(Line(left, y, right, y, "thin"))
        prims += _line(row, widths, left, y, title=n == 1)
    if left_out > 0:
        more = f"and {len(cooked.rows) - max(0, len(shown) - 1)} more: make the table taller"
        prims += _line([more], [right - left], left, top + (len(shown) + 1) * ROW_MM)
    return prims


def _widths(cooked: Cooked, width: float) -> list[float]:
    whole = sum(c.width for c in cooked.columns)
    return [width * c.width / whole for c in cooked.columns]


def _line(cells: list[str], widths: list[float], left: float, top: float, *, title: bool = False) -> list[Prim]:
    prims: list[Prim] = []
    for words, width in zip(cells, widths, strict=True):
        shown, size = fit(words, width - 2 * PAD_MM, SIZE_MM)
        if shown:
            prims.append(text(left + PAD_MM, top + ROW_MM - 1.1, size, shown, role="heading" if title else "label"))
        left += width
    return prims
