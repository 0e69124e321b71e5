"""Which texts of a sheet may find their place by themselves, what their usual places are, and what is in their way."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from jolly_core.drawing import FRAME_MM, GRID_MM, BoxMm, lies_upright, size_mm
from jolly_core.library import block_of, definition
from jolly_core.model import Project, Sheet

from ..base.primitives import Item, Poly, Text, text_at
from ..room.crowding import Taken, boxes_of, text_box
from ..room.settling import Memory, Movable, Seen, Usual, along, around, aside, at_pin, beside, downwards, settle
from .continuations import BLOCK_MARK

NUMBER_GAP_MM = 0.5
REMEMBERED = 128  # sheets whose texts' places are remembered
CORE_REACH_MM = 14.0  # how far along its wire a core's name may stand from the band
Stroke = tuple[float, float, float, float]


def settle_texts(project: Project, sheet: Sheet, items: dict[str, Item], strokes: Mapping[str, list[Stroke]]) -> None:
    """Let the texts of a sheet's items find their places.

    Args:
        strokes: for each wire number its strokes, by the number's item.
    """
    standard = project.settings.standard
    memories: dict[str, Memory] = project.kept.setdefault("settled", {})
    if sheet.id not in memories and len(memories) >= REMEMBERED:
        memories.pop(next(iter(memories)))
    memory = memories.get(sheet.id)
    if memory is None or memory.standard != standard:
        memory = memories[sheet.id] = Memory(standard)
    movables: list[Movable] = []
    taken: dict[str, list[Taken]] = {}
    seen: dict[str, Seen] = {}
    for id, item in items.items():
        known = memory.seen.get(id)
        if known is not None and known.item is not item and known.item == item and known.strokes == strokes.get(id):
            items[id] = item = known.item
        if known is None or known.item is not item or known.strokes != strokes.get(id):
            mine = _movables(project, item, strokes)
            known = Seen(item, strokes.get(id), mine, _taken(item, mine, standard))
        seen[id] = known
        movables += known.movables
        taken[id] = known.taken
    memory.seen = seen
    fits, room = room_of(project, sheet)
    settle(items, movables, fits, taken, memory, room)


def room_of(project: Project, sheet: Sheet) -> tuple[Callable[[BoxMm], bool], BoxMm]:
    """Return what tells whether a box lies inside the frame and clear of the title block, and what that depends on."""
    width, height = size_mm(sheet)
    right, bottom = width - FRAME_MM, height - FRAME_MM
    block = block_of(project, sheet).block
    left, top = right - block.width_mm, bottom - block.height_mm

    def fits(box: BoxMm) -> bool:
        inside = box[0] >= FRAME_MM and box[1] >= FRAME_MM and box[2] <= right and box[3] <= bottom
        return inside and not (box[2] > left and box[3] > top)

    return fits, (right, bottom, left, top)


def _taken(item: Item, movables: list[Movable], standard: str) -> list[Taken]:
    """Return what an item puts in the way of texts: its lines and graphics, and those texts of its that stay."""
    if item.kind == "frame":
        return [(text_box(p), "", False) for p in item.prims if isinstance(p, Text)]
    if any(m.whole for m in movables):
        return []
    loose = {n for m in movables for n in m.prims}
    stay: list[Taken] = [
        (text_box(p), "", False) for n, p in enumerate(item.prims) if isinstance(p, Text) and p.words and n not in loose
    ]
    return [*boxes_of(item, standard), *stay]


def _movables(project: Project, item: Item, strokes: Mapping[str, list[Stroke]]) -> list[Movable]:
    if item.kind == "symbol":
        return _of_symbol(project, item)
    if item.kind == "number":
        return [_texts(item, "number", (0,), Usual(along, (tuple(strokes.get(item.id, ())), NUMBER_GAP_MM)))]
    if item.kind == "band":
        return _of_band(item)
    if item.kind == "continuation":
        return _of_continuation(item)
    return [Movable(item.id, "table", (), item.box, Usual(downwards), whole=True)] if item.kind == "table" else []


def _texts(item: Item, rank: str, prims: tuple[int, ...], usual: Usual) -> Movable:
    box = around([text_box(text_at(item, n)) for n in prims])
    return Movable(item.id, rank, prims, box, usual)


def _of_symbol(project: Project, item: Item) -> list[Movable]:
    body = item.facts["body"]
    # What a hand has moved stays, and what has its place in the drawing of the symbol.
    stays = {role for role, wish in item.facts["texts"].items() if wish}
    stays |= {role for role, _ in definition(item.facts["definition"]).places}
    upright = lies_upright(project.symbols[item.id])
    pins = [(x * GRID_MM, y * GRID_MM) for x, y in item.facts["pins"]]
    found, said = [], []
    for n, prim in enumerate(item.prims):
        if not isinstance(prim, Text) or prim.role in stays or not prim.words:
            continue
        box = text_box(prim)
        if prim.role == "pin" and pins:
            middle = ((box[0] + box[2]) / 2, (box[1] + box[3]) / 2)
            x, y = min(pins, key=lambda p: (p[0] - middle[0]) ** 2 + (p[1] - middle[1]) ** 2)
            found.append(_texts(item, "pin", (n,), Usual(at_pin, (x, y, upright))))
        elif prim.role == "text" and not _inside(box, body):
            said.append(n)
        elif prim.role in ("tag", "reference") and not _inside(box, body):
            found.append(_texts(item, prim.role, (n,), Usual(beside, (body,))))
    if said:  # its lines stay together
        found.append(_texts(item, "text", tuple(said), Usual(beside, (body,))))
    return found


def _inside(box: BoxMm, body: BoxMm) -> bool:
    """Return whether a text has its place in the symbol itself."""
    x, y = (box[0] + box[2]) / 2, (box[1] + box[3]) / 2
    return body[0] < x < body[2] and body[1] < y < body[3]


def _of_band(item: Item) -> list[Movable]:
    left, top, right, bottom = item.facts["body"]
    texts = [n for n, p in enumerate(item.prims) if isinstance(p, Text)]
    found = [_texts(item, "mark", tuple(texts[:2]), Usual(beside, ((left, top, right, bottom),)))]
    level = top == bottom
    for n in texts[2:]:
        x, y = _crossing(text_at(item, n), level, (left, top))
        half = CORE_REACH_MM / 2
        stroke = (x, y - half, x, y + half) if level else (x - half, y, x + half, y)
        found.append(_texts(item, "core", (n,), Usual(along, ((stroke,), NUMBER_GAP_MM))))
    return found


def _crossing(prim: Text, level: bool, corner: tuple[float, float]) -> tuple[float, float]:
    """Return where a band crosses the wire whose core a text names."""
    return (prim.x + 0.8, corner[1]) if level else (corner[0], prim.y - prim.size - 0.5)


def _of_continuation(item: Item) -> list[Movable]:
    (x, y) = (v * GRID_MM for v in item.facts["pins"][0])
    body = (x - 3.5, y - 1.3, x + 3.5, y + 1.3)
    places = Usual(beside, (body,))
    arrow = item.prims[0]
    tip_x, tip_y = arrow.points[2:4] if isinstance(arrow, Poly) else (x, y)
    ends = Usual(aside, ((x - 1.5, min(y, tip_y), x + 1.5, max(y, tip_y)),)) if tip_x == x else places
    texts = [n for n, p in enumerate(item.prims) if isinstance(p, Text)]
    blocks: list[list[int]] = [[]]
    for n in texts[1:]:
        if blocks[-1] and text_at(item, n).words == f"{item.facts['name']}{BLOCK_MARK}":
            blocks.append([])
        blocks[-1].append(n)
    return [
        _texts(item, "tag", (texts[0],), places),
        *(_texts(item, "reference", tuple(b), ends) for b in blocks if b),
    ]
