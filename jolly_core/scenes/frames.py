"""The sheet's own lines: border, zones or ladder lines, and the title block (after ISO 7200, 180 mm wide)."""

from __future__ import annotations

from jolly_core.drawing import FRAME_MM, GRID_MM, TITLE_MM, size_mm
from jolly_core.model import Project, Sheet
from jolly_core.tagging import path_of

from .pages import is_generated, page_numbers
from .primitives import Item, Prim, fit, text

BLOCK_MM = 180.0


def frame_item(project: Project, sheet: Sheet) -> Item:
    """Return the item of everything that is on a sheet before something is drawn."""
    width, height = size_mm(sheet)
    prims: list[Prim] = [["rect", FRAME_MM, FRAME_MM, width - 2 * FRAME_MM, height - 2 * FRAME_MM, "frame"]]
    if sheet.frame != "plan":
        prims += _ladder(sheet) if sheet.frame == "ladder" else _zones(sheet, width, height)
    prims += title_block(project, sheet, width, height)
    return Item("frame", "frame", prims, (0.0, 0.0, width, height))


def _ladder(sheet: Sheet) -> list[Prim]:
    x = (sheet.rail_left - 3) * GRID_MM
    return [
        text(
            x,
            (sheet.line_top + i * sheet.line_spacing) * GRID_MM + 1,
            2.8,
            str(sheet.first_line + i),
            anchor="end",
            role="line",
        )
        for i in range(sheet.line_count)
    ]


def _zones(sheet: Sheet, width: float, height: float) -> list[Prim]:
    prims: list[Prim] = []
    across = (width - 2 * FRAME_MM) / sheet.columns
    down = (height - 2 * FRAME_MM) / sheet.rows
    for i in range(sheet.columns):
        x = FRAME_MM + across * i
        if i:
            prims.append(["line", round(x, 2), FRAME_MM - 5, round(x, 2), FRAME_MM, "thin"])
        prims.append(text(x + across / 2, FRAME_MM - 1.5, 2.6, str(i + 1), anchor="middle", role="line"))
    for i in range(sheet.rows):
        y = FRAME_MM + down * i
        if i:
            prims.append(["line", FRAME_MM - 5, round(y, 2), FRAME_MM, round(y, 2), "thin"])
        prims.append(text(FRAME_MM - 2.5, y + down / 2 + 1, 2.6, chr(65 + i), anchor="middle", role="line"))
    return prims


def title_block(project: Project, sheet: Sheet, width: float, height: float) -> list[Prim]:
    """Return the title block in the bottom right corner of a sheet."""
    s = project.settings
    left, top = width - FRAME_MM - BLOCK_MM, height - FRAME_MM - TITLE_MM
    # Drawn and generated pages count for themselves: how many of the latter there are depends on the whole project.
    drawn = [(other.id, other.number) for other in project.sheets_in_order()]
    pages = page_numbers(project) if is_generated(sheet.id) else drawn
    count = next((i for i, (id, _) in enumerate(pages, start=1) if id == sheet.id), 0)
    following = pages[count][1] if count < len(pages) else "-"
    structure = path_of(project.functions, sheet.function_id, "=") + path_of(project.locations, sheet.location_id, "+")
    cells = (
        # x, y, width, height, heading, text, size
        (0, 0, 70, 18, "Customer", s.customer, 3.2),
        (0, 18, 70, 18, "Site", s.site, 3.2),
        (70, 0, 80, 12, "Project", f"{s.number}  {s.name}".strip(), 3.2),
        (70, 12, 80, 12, "Title", sheet.title, 4.2),
        (70, 24, 40, 12, "Drawn by", s.drawn_by, 3.0),
        (110, 24, 40, 12, "Structure", structure, 3.0),
        (150, 0, 30, 12, "Revision", s.revision, 3.6),
        (150, 12, 30, 12, "Sheet", sheet.number, 4.6),
        (150, 24, 30, 12, "Count / next", f"{count} of {len(pages)} / {following}", 2.8),
    )
    prims: list[Prim] = []
    for x, y, w, h, heading, content, size in cells:
        prims.append(["rect", left + x, top + y, w, h, "thin"])
        prims.append(text(left + x + 1.2, top + y + 2.8, 1.9, heading, role="line"))
        shown, size = fit(content, w - 3, size)
        prims.append(text(left + x + 1.5, top + y + h - 2.6, size, shown, role="title"))
    return prims
