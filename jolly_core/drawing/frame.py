"""The room a sheet leaves for what is drawn: inside its frame and clear of its title block."""

from __future__ import annotations

from jolly_core.library import block_of
from jolly_core.model import Project, Sheet

from .lines import FRAME_MM, size_mm

OUTSIDE = "outside the frame"
BoxMm = tuple[float, float, float, float]  # left, top, right, bottom


def where_amiss(project: Project, sheet: Sheet, box: BoxMm) -> str:
    """Return where a box lies that does not lie in the free room of a sheet, in words; "" when it does.

    Args:
        project: the project, for its title blocks.
        sheet: the sheet.
        box: left, top, right and bottom from the sheet's upper left corner, mm.
    """
    width, height = size_mm(sheet)
    left, top, right, bottom = box
    if left < FRAME_MM or top < FRAME_MM or right > width - FRAME_MM or bottom > height - FRAME_MM:
        return OUTSIDE
    block = block_of(project, sheet).block
    if right > width - FRAME_MM - block.width_mm and bottom > height - FRAME_MM - block.height_mm:
        return "under the title block"
    return ""
