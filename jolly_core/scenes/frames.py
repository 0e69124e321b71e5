"""The sheet's own lines: border, zones or ladder lines, and the title block."""

from __future__ import annotations

from jolly_core.drawing import FRAME_MM, GRID_MM, ladder_lines, size_mm
from jolly_core.library import block_of
from jolly_core.model import Project, Sheet

from .primitives import Item, Line, Prim, Rect, text
from .titleblocks import block_prims


def frame_item(project: Project, sheet: Sheet, given: dict[str, str] | None = None) -> Item:
    """Return the item of everything that is on a sheet before something is drawn.

    Args:
        given: texts of title block fields that stand before those of the project.
    """
    width, height = size_mm(sheet)
    prims: list[Prim] = [Rect(FRAME_MM, FRAME_MM, width - 2 * FRAME_MM, height - 2 * FRAME_MM, "frame")]
    if sheet.frame != "plan":
        prims += _ladder(sheet) if sheet.frame == "ladder" else _zones(sheet, width, height)
    pattern = block_of(project, sheet)
    left, top = width - FRAME_MM - pattern.block.width_mm, height - FRAME_MM - pattern.block.height_mm
    prims += block_prims(project, sheet, pattern, left, top, given)
    return Item("frame", "frame", prims, (0.0, 0.0, width, height))


def _ladder(sheet: Sheet) -> list[Prim]:
    prims: list[Prim] = []
    for n, (number, y, _, _) in enumerate(ladder_lines(sheet)):
        x = (sheet.rail_left + n // sheet.line_count * sheet.ladder_pitch - 3) * GRID_MM
        prims.append(text(x, y * GRID_MM + 1, 2.8, str(number), anchor="end", role="line"))
    return prims


def _zones(sheet: Sheet, width: float, height: float) -> list[Prim]:
    prims: list[Prim] = []
    across = (width - 2 * FRAME_MM) / sheet.columns
    down = (height - 2 * FRAME_MM) / sheet.rows
    for i in range(sheet.columns):
        x = FRAME_MM + across * i
        if i:
            prims.append(Line(round(x, 2), FRAME_MM - 5, round(x, 2), FRAME_MM, "thin"))
        prims.append(text(x + across / 2, FRAME_MM - 1.5, 2.6, str(i + 1), anchor="middle", role="line"))
    for i in range(sheet.rows):
        y = FRAME_MM + down * i
        if i:
            prims.append(Line(FRAME_MM - 5, round(y, 2), FRAME_MM, round(y, 2), "thin"))
        prims.append(text(FRAME_MM - 2.5, y + down / 2 + 1, 2.6, chr(65 + i), anchor="middle", role="line"))
    return prims
