"""A title block as primitives: cells with headings, filled-in texts that stay inside, and pictures."""

from __future__ import annotations

from jolly_core.library import BlockPattern
from jolly_core.model import Picture, Project, Sheet, TitleCell
from jolly_core.tagging import filled

from .lettering import LINE_PITCH, lay
from .primitives import Anchor, Image, Item, Prim, Rect, Scene, text

PAD_MM = 1.4
HEADING_MM = 1.9
HEADING_ROOM_MM = 3.4
EDGE_MM = 12.0
START: Anchor = "start"
MIDDLE: Anchor = "middle"
END: Anchor = "end"


def block_prims(
    project: Project, sheet: Sheet, pattern: BlockPattern, left: float, top: float, given: dict[str, str] | None = None
) -> list[Prim]:
    """Return a title block with the texts of a sheet.

    Args:
        left, top: its corner on the sheet, mm.
        given: texts of fields that stand before those of the project.
    """
    block = pattern.block
    prims: list[Prim] = [Rect(left, top, block.width_mm, block.height_mm, "ink")]
    pictures = {p.id: p for p in pattern.pictures}
    for cell in sorted(pattern.cells, key=lambda c: (c.y, c.x, c.id)):
        prims += cell_prims(cell, filled(project, sheet, cell.content, given), pictures, left, top)
    return prims


def cell_prims(cell: TitleCell, content: str, pictures: dict[str, Picture], left: float, top: float) -> list[Prim]:
    """Return one cell: its edge, heading, picture, and the text broken and shrunk until it stays inside."""
    x, y = left + cell.x, top + cell.y
    prims: list[Prim] = []
    if cell.border:
        prims.append(Rect(round(x, 3), round(y, 3), cell.width, cell.height, "thin"))
    picture = pictures.get(cell.picture_id)
    if picture is not None:
        prims.append(_picture(cell, picture, x, y))
    head = HEADING_ROOM_MM if cell.heading else PAD_MM / 2
    if cell.heading:
        lines, size = lay(cell.heading, cell.width - PAD_MM, HEADING_MM * LINE_PITCH, HEADING_MM)
        prims += [text(x + PAD_MM * 0.8, y + size + 0.9, size, line, role="line") for line in lines]
    room = (cell.width - 2 * PAD_MM, cell.height - head - PAD_MM / 2)
    lines, size = lay(content, *room, cell.size_mm)
    tall = len(lines) * size * LINE_PITCH
    base = y + head + (room[1] - tall) / 2 + size * 1.05
    at, anchor = x + PAD_MM, START
    if cell.anchor != START:
        at, anchor = (x + cell.width / 2, MIDDLE) if cell.anchor == MIDDLE else (x + cell.width - PAD_MM, END)
    for n, line in enumerate(lines):
        prims.append(text(at, base + n * size * LINE_PITCH, size, line, anchor=anchor, role="title"))
    return prims


def _picture(cell: TitleCell, picture: Picture, x: float, y: float) -> Prim:
    """Return the picture as large as fits into its cell, in its own proportions, in the middle."""
    wide, high = max(0.5, cell.width - PAD_MM), max(0.5, cell.height - PAD_MM)
    scale = min(wide / picture.width_px, high / picture.height_px)
    width, height = picture.width_px * scale, picture.height_px * scale
    left, top = x + (cell.width - width) / 2, y + (cell.height - height) / 2
    return Image(round(left, 2), round(top, 2), round(width, 2), round(height, 2), picture.id)


def block_scene(project: Project, sheet: Sheet, pattern: BlockPattern) -> Scene:
    """Return a title block alone, one item for each cell, with the texts of a sheet; its corner is at EDGE_MM."""
    block = pattern.block
    edge: list[Prim] = [Rect(EDGE_MM, EDGE_MM, block.width_mm, block.height_mm, "frame")]
    right, bottom = EDGE_MM + block.width_mm, EDGE_MM + block.height_mm
    items = {"block": Item("block", "frame", edge, (EDGE_MM, EDGE_MM, right, bottom))}
    pictures = {p.id: p for p in pattern.pictures}
    for cell in sorted(pattern.cells, key=lambda c: (c.y, c.x, c.id)):
        x, y = EDGE_MM + cell.x, EDGE_MM + cell.y
        box = (x, y, x + cell.width, y + cell.height)
        prims = cell_prims(cell, filled(project, sheet, cell.content), pictures, EDGE_MM, EDGE_MM)
        items[cell.id] = Item(cell.id, "cell", prims, box, {"body": box})
    return Scene(right + EDGE_MM, bottom + EDGE_MM, items)
