"""A recipe's list on leaves: headings of groups, sums, its head on the first or all, groups on leaves of their own."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from textwrap import wrap

from jolly_core.drawing import ADVANCE, FRAME_MM, size_mm
from jolly_core.model import Project, Sheet
from jolly_core.reports import MONEY, Cell, Column, Cooked, Row
from jolly_core.tagging import lead_of

from ..base.lettering import fit
from ..base.primitives import Item, Line, Prim, RoleName, Scene, text
from .leaves import HEAD_MM, ROW_MM, SIZE_MM, TOP_MM, Columns, Given, cell, grid_on, leaf_of, rows_on
from .pages import split

CHARACTER_MM = 2.0  # of a leaf that a character of a column's width takes
WIDE_MM = 2.6  # of a line that is not in columns
PAD_MM = 2.0  # of a cell, both sides together
READ_MM = 2.1  # a text is broken before it becomes smaller
LEAST = 12  # letters of a line
HEAD_SIZE_MM = 2.4


@dataclass(slots=True, frozen=True)
class _ListLine:
    """A line of the list: its cells with their links, and how it is written.

    Attributes:
        wide: it is one text over all columns, the heading of a group.
        begins: a new leaf begins with it.
        goes_on: the row of the line before goes on in it.
    """

    cells: list[tuple[str, str]]
    role: RoleName = "label"
    wide: bool = False
    begins: bool = False
    goes_on: bool = False


def list_leaves(project: Project, sheet: Sheet, given: Given, cooked: Cooked) -> list[Scene]:
    """Return the list on as many leaves as it takes."""
    columns = _columns(sheet, cooked)
    lines = list(_lines(project, cooked, [width for _, width in columns]))
    title = sheet.title or cooked.title
    spans = _spans(lines, rows_on(project, sheet))
    scenes = []
    for n, (first, last) in enumerate(spans, start=1):
        scene, grid = leaf_of(project, sheet, given, title, columns, (n, len(spans)))
        if cooked.head and (n == 1 or cooked.head_on == "all"):
            _head(sheet, scene, title, cooked.head)
        y = TOP_MM + HEAD_MM
        for at, line in enumerate(lines[first:last], start=first):
            bottom = y + ROW_MM
            ends = at + 1 == last or not lines[at + 1].goes_on
            prims: list[Prim] = [Line(FRAME_MM, bottom, grid.right, bottom, "thin")] if ends else []
            if line.wide:
                shown, size = fit(line.cells[0][0], grid.right - FRAME_MM - 2, WIDE_MM)
                prims.append(text(FRAME_MM + 1, bottom - 1.8, size, shown, role=line.role))
            else:
                for left, width, (words, link) in zip(grid.lefts, grid.widths, line.cells, strict=False):
                    role: RoleName = "reference" if link else line.role
                    prims += cell(left, width, bottom - 1.8, words, link=link, role=role)
            scene.items[f"row:{at}"] = Item(f"row:{at}", "table", prims, (FRAME_MM, y, grid.right, bottom))
            y = bottom
        scenes.append(scene)
    return scenes


def _columns(sheet: Sheet, cooked: Cooked) -> Columns:
    """Return the columns as wide as the report has them, but that one with room to spare gives it to one that lacks it.

    Those that lack least are served first, so that one long text does not take all.
    """
    told = grid_on(sheet, [(c.heading, c.width * CHARACTER_MM) for c in cooked.columns]).widths
    longest = [len(c.heading) for c in cooked.columns]
    for row in cooked.rows:
        for n, (value, column) in enumerate(zip(row, cooked.columns, strict=True)):
            longest[n] = max(longest[n], len(shown_cell(value, column)))
    lacks = [letters * ADVANCE * SIZE_MM + PAD_MM + 0.01 - width for letters, width in zip(longest, told, strict=True)]
    spare = sum(-lack for lack in lacks if lack < 0)
    short = sorted((n for n, lack in enumerate(lacks) if lack > 0), key=lacks.__getitem__)
    widths, left = list(told), spare
    for served, n in enumerate(short):
        more = min(lacks[n], left / (len(short) - served))
        widths[n] += more
        left -= more
    for n, lack in enumerate(lacks):
        if lack < 0:
            widths[n] += lack * (spare - left) / spare
    return [(c.heading, width) for c, width in zip(cooked.columns, widths, strict=True)]


def _head(sheet: Sheet, scene: Scene, title: str, words: str) -> None:
    """Put a list's head at the right of its title."""
    width = size_mm(sheet)[0]
    room = max(40.0, width - 2 * FRAME_MM - 8 - len(title) * 3.4)
    shown, size = fit(words, room, HEAD_SIZE_MM)
    at = width - FRAME_MM - 2
    prims: list[Prim] = [text(at, TOP_MM - 5, size, shown, anchor="end", role="label")]
    scene.items["list-head"] = Item("list-head", "frame", prims, (FRAME_MM, 0, at, TOP_MM))


def _spans(lines: list[_ListLine], room: int) -> list[tuple[int, int]]:
    """Return (first, after last) of the lines of each leaf.

    The lines of a row stay together, and a heading with the row below it, as long as they are no more than half a leaf.
    """
    starts = [n for n, line in enumerate(lines) if line.begins and n] + [len(lines)]
    found, first = [], 0
    for stop in starts:
        heights: list[float] = []
        for block in _blocks(lines[first:stop]):
            heights += [block, *[0] * (block - 1)] if block <= room / 2 else [1] * block
        found += [(first + a, first + b) for a, b in split(heights, room)]
        first = stop
    return found


def _blocks(lines: list[_ListLine]) -> list[int]:
    """Return of how many lines each block is that stays together."""
    blocks: list[int] = []
    for n, line in enumerate(lines):
        if n and (line.goes_on or lines[n - 1].wide):
            blocks[-1] += 1
        else:
            blocks.append(1)
    return blocks


def _lines(project: Project, cooked: Cooked, widths: list[float]) -> Iterator[_ListLine]:
    rooms = [max(int((width - PAD_MM) / (ADVANCE * READ_MM)), LEAST) for width in widths]
    for n, group in enumerate(cooked.groups):
        if group.title:
            yield _ListLine([(group.title, "")], "title", wide=True, begins=cooked.breaks and n > 0)
        for row in group.rows:
            yield from _of_row(project, cooked.columns, row, rooms)
        if group.sums and group.title:
            yield _ListLine(_sums(cooked.columns, group.sums), "heading")
    if cooked.sums:
        yield _ListLine(_sums(cooked.columns, cooked.sums), "heading")
    room = int((sum(widths) - PAD_MM) / (ADVANCE * WIDE_MM))
    for words in cooked.foot:
        for n, part in enumerate(wrap(words, room)):
            yield _ListLine([(part, "")], "label", wide=True, goes_on=n > 0)


def _sums(columns: tuple[Column, ...], cells: tuple[Cell, ...]) -> list[tuple[str, str]]:
    return [(shown_cell(v, c), "") for v, c in zip(cells, columns, strict=True)]


def shown_cell(value: Cell, column: Column | None = None) -> str:
    """Return a cell as it is read: money with two to four decimals, other numbers without noughts that say nothing.

    Example:
        >>> shown_cell(2.50), shown_cell(2.5, Column("price", "Price")), shown_cell(0.9144, Column("price", "Price"))
        ('2.5', '2.50', '0.9144')
    """
    if column is not None and column.key in MONEY and isinstance(value, (int, float)):
        whole, _, part = f"{value:.4f}".partition(".")
        return f"{whole}.{part.rstrip('0').ljust(2, '0')}"
    return f"{value:.6f}".rstrip("0").rstrip(".") if isinstance(value, float) else str(value)


def _of_row(project: Project, columns: tuple[Column, ...], row: Row, rooms: list[int]) -> Iterator[_ListLine]:
    """Yield the lines that a row takes: what is too long for its cell goes on in the next one, broken between words.

    Args:
        rooms: letters that go into a line of each column.
    """
    link = place_to_show(project, row.lead)
    words_in = [(shown_cell(v, c), room) for v, c, room in zip(row, columns, rooms, strict=True)]
    cells = [wrap(words, room, break_on_hyphens=False) or [""] for words, room in words_in]
    for n in range(max(map(len, cells))):
        words = [(c[n] if n < len(c) else "", link if not k else "") for k, c in enumerate(cells)]
        yield _ListLine(words, goes_on=n > 0)


def place_to_show(project: Project, lead: str) -> str:
    """Return what a row's lead is drawn as: a sheet, symbol or continuation; "" for what is drawn nowhere."""
    if lead in project.devices:
        symbol = lead_of(project, lead)
        return symbol.id if symbol else ""
    known = (project.sheets, project.symbols, project.continuations)
    return lead if any(lead in table for table in known) else ""
