"""Leaves: what is made from the project for one sheet, cut into as many papers as it takes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from jolly_core.drawing import FRAME_MM, size_mm
from jolly_core.library import block_of
from jolly_core.model import Project, Sheet

from ..base.frames import frame_item
from ..base.lettering import LINE_PITCH, fit, lay
from ..base.primitives import SMALLEST_MM, Item, Line, Prim, RoleName, Scene, text
from .pages import split

ROW_MM = 5.6
HEAD_MM = 7.0
TOP_MM = 26.0
SIZE_MM = 2.6
FOOT_MM = 4.0
WIDEST = 1.4  # times the columns' own widths, at most, so that a large sheet does not tear its tables apart
Columns = Sequence[tuple[str, float]]
Given = dict[str, str] | None
LeafRow = list[tuple[str, str]]  # text and link of each cell


@dataclass(slots=True, frozen=True)
class TableGrid:
    """Where the columns of a table lie on a leaf, mm."""

    lefts: list[float]
    widths: list[float]
    right: float


def grid_on(sheet: Sheet, columns: Columns) -> TableGrid:
    """Return the columns stretched or pressed into the width of a sheet."""
    inner = size_mm(sheet)[0] - 2 * FRAME_MM
    factor = min(WIDEST, inner / sum(w for _, w in columns))
    widths = [round(w * factor, 3) for _, w in columns]
    lefts = [round(FRAME_MM + sum(widths[:n]), 3) for n in range(len(widths))]
    return TableGrid(lefts, widths, round(FRAME_MM + sum(widths), 3))


def rows_on(project: Project, sheet: Sheet) -> int:
    """Return how many lines of a table there is room for above a sheet's title block."""
    free = size_mm(sheet)[1] - FRAME_MM - block_of(project, sheet).block.height_mm - TOP_MM - HEAD_MM - FOOT_MM
    return max(1, int(free / ROW_MM))


def blank_leaf(project: Project, sheet: Sheet, given: Given, count: tuple[int, int]) -> Scene:
    """Return a leaf with frame and title block only; of several, each has the sheet's number with its own behind it."""
    leaf, leaves = count
    shown = sheet if leaves == 1 else replace(sheet, number=f"{sheet.number}.{leaf}")
    return Scene(*size_mm(sheet), {"frame": frame_item(project, shown, given)}, shown)


def leaf_of(
    project: Project, sheet: Sheet, given: Given, title: str, columns: Columns, count: tuple[int, int]
) -> tuple[Scene, TableGrid]:
    """Return a leaf with a title and the heading of a table, and where the columns lie."""
    scene = blank_leaf(project, sheet, given, count)
    grid = grid_on(sheet, columns)
    shown, size = fit(title, scene.width - 2 * FRAME_MM - 4, 5.0)
    prims: list[Prim] = [text(FRAME_MM + 2, TOP_MM - 5, size, shown, role="title")]
    for y in (TOP_MM, TOP_MM + HEAD_MM):
        prims.append(Line(FRAME_MM, y, grid.right, y, "ink"))
    for left, width, (name, _) in zip(grid.lefts, grid.widths, columns, strict=True):
        shown, size = fit(name, width - 1.5, SIZE_MM)
        prims.append(text(left + 1, TOP_MM + HEAD_MM - 2.2, size, shown, role="heading"))
    scene.items["head"] = Item("head", "frame", prims, (0, 0, scene.width, TOP_MM))
    return scene, grid


def cell(x: float, width: float, y: float, content: str, *, link: str = "", role: RoleName = "label") -> list[Prim]:
    """Return the text of a table's cell on a baseline: made smaller until it stays inside, then in two lines."""
    shown, size = fit(content, width - 2, SIZE_MM)
    if shown == content:
        return [text(x + 1, y, size, shown, role=role, link=link)]
    lines, size = lay(content, width - 2, 2 * LINE_PITCH * SMALLEST_MM, SMALLEST_MM)
    base = y + 1.0 - (len(lines) - 1) * LINE_PITCH * size
    return [text(x + 1, base + n * LINE_PITCH * size, size, line, role=role, link=link) for n, line in enumerate(lines)]


def table_leaves(
    project: Project, sheet: Sheet, given: Given, title: str, columns: Columns, rows: list[LeafRow], name: str = "row"
) -> list[Scene]:
    """Return a table on as many leaves as it takes; a row may have fewer cells than there are columns."""
    spans = split([1] * len(rows), rows_on(project, sheet))
    scenes = []
    for n, (first, last) in enumerate(spans, start=1):
        scene, grid = leaf_of(project, sheet, given, title, columns, (n, len(spans)))
        y = TOP_MM + HEAD_MM
        for at, row in enumerate(rows[first:last], start=first):
            bottom = y + ROW_MM
            prims: list[Prim] = [Line(FRAME_MM, bottom, grid.right, bottom, "thin")]
            for left, width, (words, link) in zip(grid.lefts, grid.widths, row, strict=False):
                role: RoleName = "reference" if link else "label"
                prims += cell(left, width, bottom - 1.8, words, link=link, role=role)
            scene.items[f"{name}:{at}"] = Item(f"{name}:{at}", "table", prims, (FRAME_MM, y, grid.right, bottom))
            y = bottom
        scenes.append(scene)
    return scenes
