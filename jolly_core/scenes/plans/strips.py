"""The drawn style of terminal plans: the strip at true size with leaders to what lands, as many leaves as it takes."""

from __future__ import annotations

from jolly_core.drawing import FRAME_MM
from jolly_core.library import block_of
from jolly_core.model import Project, Sheet
from jolly_core.tagging import full_tag
from jolly_core.terminals import strip_record

from ..base.lettering import fit
from ..base.primitives import Item, Scene, text
from ..faces.strips import RAIL_BEYOND_MM, Block, Face, blocks_on_rail, draw_blocks, reach_of
from ..lists.leaves import SIZE_MM, TOP_MM, Given, blank_leaf
from ..lists.pages import split

TITLE_MM = 5.0
GAP_MM = 3.0


def drawn_leaves(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    """Return the leaves of a strip's plan in the drawn style; each holds as many blocks as its width has room for."""
    device = project.devices[sheet.device_id]
    blocks = blocks_on_rail(project, device.id)
    width = blank_leaf(project, sheet, given, (1, 1)).width
    room = width - 2 * FRAME_MM - 2 * RAIL_BEYOND_MM - 2 * GAP_MM
    spans = split([max(b.length, 0.1) for b in blocks], room) if blocks else [(0, 0)]
    part = project.part_of(device)
    title = f"{full_tag(project, device)}  {device.text}".strip() + (f"   {part.number}" if part else "")
    leaves = []
    for n, (first, last) in enumerate(spans, start=1):
        scene = blank_leaf(project, sheet, given, (n, len(spans)))
        shown, size = fit(title, scene.width - 2 * FRAME_MM - 4, TITLE_MM)
        head = [text(FRAME_MM + 2, TOP_MM - 5, size, shown, role="title")]
        scene.items["head"] = Item("head", "frame", [*head], (0, 0, scene.width, TOP_MM))
        _place(project, sheet, scene, device.id, blocks[first:last])
        leaves.append(scene)
    return leaves


def _place(project: Project, sheet: Sheet, scene: Scene, strip_id: str, blocks: list[Block]) -> None:
    """Draw some blocks of a strip in the middle of what is free between title and title block, smaller if need be."""
    reach = reach_of(project, blocks, upright=False)
    bottom = scene.height - FRAME_MM - block_of(project, sheet).block.height_mm - GAP_MM
    free = bottom - TOP_MM
    wanted = reach.field + reach.panel
    scale = min(1.0, free / wanted) if wanted else 1.0
    axis = (TOP_MM + (free - wanted * scale) / 2) / scale + reach.field
    length = blocks[-1].start + blocks[-1].length - blocks[0].start if blocks else 0.0
    offset = (scene.width / scale - length) / 2
    face = Face(project, False, axis)
    draw_blocks(face, strip_id, blocks, offset, length)
    for item in face.items.values():
        prims = [p.scaled(scale) for p in item.prims]
        left, top, right, low = (n * scale for n in item.box)
        scene.items[item.id] = Item(item.id, "table", prims, (left, top, right, low), item.facts)
    record = strip_record(project, strip_id)
    sides = (
        (record.field_heading or "Field side", axis - reach.names),
        (record.panel_heading or "Panel side", axis + 30),
    )
    prims = [text(FRAME_MM + 2, y * scale, SIZE_MM, words, role="heading") for words, y in sides]
    scene.items["sides"] = Item("sides", "frame", [*prims], (0, TOP_MM, FRAME_MM + 20, bottom))
