"""A table laid on a drawing: a list in the box that somebody drew for it, as far as there is room."""

from __future__ import annotations

from jolly_core.drawing import ADVANCE, GRID_MM
from jolly_core.model import Figure, Project, RuleError
from jolly_core.reports import laid_list

from ..base.lettering import LINE_PITCH, lay
from ..base.primitives import SMALLEST_MM, Line, Prim, Rect, text
from .reports import shown_cell

ROW_MM = 4.0  # of a row with one line
SIZES_MM = (2.2, SMALLEST_MM)  # the first at which all rows have room
PAD_MM = 0.8
MOST_LINES = 8  # of a cell


def laid_prims(project: Project, figure: Figure) -> list[Prim]:
    """Return what is painted of a table: title, headings, rows, and how many rows there was no room for.

    Columns are as wide as what is in them as far as there is room; what is longer goes on in further lines of its cell.
    """
    left, top, right, bottom = (v * GRID_MM for v in (figure.x1, figure.y1, figure.x2, figure.y2))
    prims: list[Prim] = [Rect(left, top, right - left, bottom - top, "thin")]
    whole = [right - left]
    try:
        cooked = laid_list(project, figure.sheet_id, figure.text)
    except RuleError as error:  # its recipe is gone, or cannot be followed any more
        return [*prims, *_row([[_short(error.message, whole)]], whole, (left, top), SIZES_MM[0], "label")]
    cells = [
        [c.heading for c in cooked.columns],
        *([shown_cell(v, c) for v, c in zip(row, cooked.columns, strict=True)] for row in cooked.rows),
    ]
    for size in SIZES_MM:
        widths = _widths(cells, right - left, size)
        rows = [_lines(row, widths, size) for row in cells]
        shown = _fitting(rows, bottom - top - ROW_MM, size)
        if shown == len(rows):
            break
    prims += _row([[_short(cooked.title, whole)]], whole, (left, top), SIZES_MM[0], "heading")
    y = top + ROW_MM
    for n, row in enumerate(rows[:shown]):
        prims.append(Line(left, y, right, y, "thin"))
        prims += _row(row, widths, (left, y), size, "label" if n else "heading")
        y += _height(row, size)
    if shown < len(rows) and y + ROW_MM <= bottom + 1e-6:
        more = f"and {len(rows) - max(1, shown)} more: make the table taller"
        prims.append(Line(left, y, right, y, "thin"))
        prims += _row([[_short(more, whole)]], whole, (left, y), size, "label")
    return prims


def _short(words: str, widths: list[float]) -> str:
    """Return a line over the whole table, cut where it is longer than that."""
    room = int((widths[0] - 2 * PAD_MM) / (ADVANCE * SIZES_MM[0]))
    return words if len(words) <= room else words[: max(1, room - 1)] + "…"


def _fitting(rows: list[list[list[str]]], room: float, size: float) -> int:
    """Return how many rows there is room for, mm; one less than all leave room for the words that say so."""
    heights = [_height(row, size) for row in rows]
    if sum(heights) <= room + 1e-6:
        return len(rows)
    used, count = ROW_MM, 0
    while count < len(heights) and used + heights[count] <= room + 1e-6:
        used += heights[count]
        count += 1
    return count


def _height(row: list[list[str]], size: float) -> float:
    return ROW_MM + (max(1, *map(len, row), 1) - 1) * size * LINE_PITCH


def _lines(row: list[str], widths: list[float], size: float) -> list[list[str]]:
    """Return the lines of each cell at a size."""
    tall = MOST_LINES * size * LINE_PITCH
    return [lay(words, width - 2 * PAD_MM, tall, size, size)[0] for words, width in zip(row, widths, strict=True)]


def _widths(cells: list[list[str]], width: float, size: float) -> list[float]:
    """Return how wide each column is, mm: what it needs, the widest as much less as there is too little room.

    Example:
        >>> [round(w) for w in _widths([["1", "a long text that needs two lines at least"]], 40.0, 2.2)]
        [3, 37]
    """
    columns = [[row[n] for row in cells] for n in range(len(cells[0]))]
    needs = [max(len(words) for words in column) * ADVANCE * size + 2 * PAD_MM + 0.1 for column in columns]
    if sum(needs) <= width:
        return [n * width / sum(needs) for n in needs]
    found = [0.0] * len(needs)
    left, open_columns = width, len(needs)
    for n in sorted(range(len(needs)), key=needs.__getitem__):
        found[n] = min(needs[n], left / open_columns)
        left -= found[n]
        open_columns -= 1
    return found


def _row(
    cells: list[list[str]], widths: list[float], corner: tuple[float, float], size: float, role: str
) -> list[Prim]:
    """Return the texts of a row, each cell with its lines."""
    left, top = corner
    prims: list[Prim] = []
    for lines, width in zip(cells, widths, strict=True):
        for n, words in enumerate(lines):
            if words:
                base = top + ROW_MM - 1.1 + n * size * LINE_PITCH
                prims.append(text(left + PAD_MM, base, size, words, role="heading" if role == "heading" else "label"))
        left += width
    return prims
