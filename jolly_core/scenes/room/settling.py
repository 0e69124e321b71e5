"""Texts find their place: what would lie on a wire, a symbol or another text takes the next free place near its own.

Each text has the place it stands at by itself; only where that is taken, the places a draughtsman would use are tried,
nearest first: on the other sides of its symbol, along its wire, then about it. What a hand has moved stays.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field, replace
from math import hypot
from typing import Any

from jolly_core.drawing import BoxMm

from ..base.primitives import Facts, Item, Text, text_at
from .crowding import Crowd, Lately, Taken, meet, shifted, text_box

Offset = tuple[float, float]
TextKey = tuple[str, str, tuple[int, ...]]
# In this order texts take their places: those first that have the fewest.
RANKS = {"table": 0, "pin": 1, "tag": 2, "core": 3, "mark": 4, "text": 5, "reference": 6, "number": 7}
SIDE_MM, LINE_MM, STEP_MM = 2.0, 0.6, 2.5
RING_MM, FARTHEST_MM = 1.25, 90.0
FEW = 40  # boxes of an item that are compared one by one
SPOKES = ((1, 0), (-1, 0), (0, 1), (0, -1), (1, 1), (-1, 1), (1, -1), (-1, -1), (2, 1), (-2, 1), (2, -1), (-2, -1))


@dataclass(slots=True, frozen=True)
class Usual:
    """The usual places of a text: which way of finding them, and what that needs to know."""

    way: Callable[..., Iterable[Offset]]
    facts: tuple[Any, ...] = ()

    def offsets(self, box: BoxMm) -> Iterable[Offset]:
        """Return how far from its own place a box may stand, best first."""
        return self.way(box, *self.facts)


@dataclass(slots=True)
class Movable:
    """Primitives of an item that stand together, and where else they may.

    Attributes:
        rank: one of RANKS.
        prims: their indexes in the item.
        box: what they take together at their own place.
        usual: where else they may stand.
        whole: whether the item moves as a whole, with its lines.
        key: what it is called from one time to the next.
    """

    item_id: str
    rank: str
    prims: tuple[int, ...]
    box: BoxMm
    usual: Usual
    whole: bool = False
    key: TextKey = field(init=False)

    def __post_init__(self) -> None:
        self.key = self.item_id, self.rank, self.prims


@dataclass(slots=True, frozen=True)
class Found:
    """Where a text found its place, what it takes there, and the part of the sheet that was looked at for it."""

    own: BoxMm
    usual: Usual
    by: Offset
    looked_at: BoxMm
    box: BoxMm


@dataclass(slots=True, frozen=True)
class Seen:
    """An item as it was the last time: the strokes its text may stand along, what of it may move, what it takes."""

    item: Item
    strokes: list[BoxMm] | None
    movables: list[Movable]
    taken: list[Taken]


@dataclass(slots=True)
class Memory:
    """What is known of a sheet from the last time.

    Attributes:
        standard: of the graphics of its symbols.
        seen: the items by id.
        room: what `fits` depended on.
        taken: what each item put in the way, by its id.
        crowd: all of that by place.
        found: where each text found its place, in order.
        shifted: the items some of whose texts have moved: as it was, how they have moved, and as it is now.
    """

    standard: str = "iec"
    seen: dict[str, Seen] = field(default_factory=dict)
    room: object = None
    taken: dict[str, list[Taken]] = field(default_factory=dict)
    crowd: Crowd = field(default_factory=Crowd)
    found: dict[TextKey, Found] = field(default_factory=dict)
    shifted: dict[str, tuple[Item, list[Any], Item]] = field(default_factory=dict)


def settle(
    items: dict[str, Item],
    movables: list[Movable],
    fits: Callable[[BoxMm], bool],
    taken: dict[str, list[Taken]],
    memory: Memory,
    room: object,
) -> None:
    """Give texts that are in the way of something the next free place; the items are exchanged, never changed.

    A text is looked at anew only where something has changed in the part of the sheet that was looked at for it; the
    outcome is the same as without a memory.

    Args:
        items: the items of a scene by id.
        movables: what may move; every other text is in the way where it stands.
        fits: whether a box lies in the free room of the sheet.
        taken: the boxes that are in the way, by item, see `boxes_of`.
        memory: of the last time; it is brought up to date.
        room: what `fits` depends on.
    """
    ordered = sorted(movables, key=lambda m: RANKS[m.rank])
    changes = _changed(ordered, taken, memory, room)
    changed = changes or []
    reach = around(changed) if changed else (0.0, 0.0, 0.0, 0.0)
    texts: Lately | None = None
    found: dict[TextKey, Found] = {}
    for movable in ordered:
        known = memory.found.get(movable.key) if changes is not None else None
        if (
            known is None
            or not (known.usual is movable.usual or known.usual == movable.usual)
            or known.own != movable.box
            or (meet(known.looked_at, reach) and any(meet(known.looked_at, b) for b in changed))
        ):
            if texts is None:
                texts = Lately(one.box for one in found.values())
            now = _place((memory.crowd, texts), movable, fits)
            if changes is not None and (known is None or known.box != now.box):
                changed += [now.box, *([known.box] if known is not None else [])]
                reach = around([reach, *changed[-2:]] if len(changed) > 2 else changed)
        else:
            now = known
        found[movable.key] = now
        if texts is not None:
            texts.add(now.box)
    memory.room, memory.found = room, found
    _exchange(items, ordered, memory)


def _exchange(items: dict[str, Item], ordered: list[Movable], memory: Memory) -> None:
    """Put moved texts in place of those that stood in the way; what moved as the last time is the same item as then."""
    shifts: dict[str, list[tuple[Movable, Offset]]] = {}
    for movable in ordered:
        by = memory.found[movable.key].by
        if by != (0.0, 0.0):
            shifts.setdefault(movable.item_id, []).append((movable, by))
    before, memory.shifted = memory.shifted, {}
    for id, moves in shifts.items():
        key = [(m.rank, m.prims, by) for m, by in moves]
        last = before.get(id)
        if last is None or last[0] is not items[id] or last[1] != key:
            last = (items[id], key, _shifted(items[id], moves))
        memory.shifted[id] = last
        items[id] = last[2]


def _changed(ordered: list[Movable], taken: dict[str, list[Taken]], memory: Memory, room: object) -> list[BoxMm] | None:
    """Bring the crowd up to date; return the boxes that are in the way now or were before, not both.

    None when all is to be done anew.
    """
    differing: list[BoxMm] = []
    earlier = memory.taken
    for id, now in taken.items():
        before = earlier.get(id)
        if before is now:
            continue
        if before is None:
            memory.crowd.put(now)
            differing += [box for box, _, _ in now]
            continue
        come, gone = _unlike(now, before), _unlike(before, now)
        memory.crowd.put(come)
        memory.crowd.take(gone)
        differing += [box for box, _, _ in (*come, *gone)]
    for id in memory.taken.keys() - taken.keys():
        memory.crowd.take(memory.taken[id])
        differing += [box for box, _, _ in memory.taken[id]]
    memory.taken = taken
    keys = [m.key for m in ordered]
    if memory.room == room and keys == list(memory.found):
        return differing
    known = set(keys)
    before_keys = [key for key in memory.found if key in known]
    if memory.room != room or before_keys != [key for key in keys if key in memory.found]:
        return None
    return differing + [f.box for key, f in memory.found.items() if key not in known]


def _unlike(these: list[Taken], those: list[Taken]) -> list[Taken]:
    """Return what is among these and not among those; what is there twice counts as two."""
    if len(those) > FEW:
        return list((Counter(these) - Counter(those)).elements())
    left = list(these)
    for one in those:
        if one in left:
            left.remove(one)
    return left


def _place(crowds: tuple[Crowd, Lately], movable: Movable, fits: Callable[[BoxMm], bool]) -> Found:
    """Return where a text finds its place among what is drawn and the texts before it."""
    owner, box = movable.item_id, movable.box
    drawn, texts = crowds

    def is_free(there: BoxMm) -> bool:
        return drawn.is_free(there, owner) and texts.is_free(there)

    own = Found(box, movable.usual, (0.0, 0.0), box, box)
    if is_free(box) and fits(box):
        return own
    looked_at = [box]
    for offsets in (movable.usual.offsets(box), _ring()):
        for x, y in offsets:
            offset = round(x, 2), round(y, 2)
            there = shifted(box, *offset)
            if not fits(there):
                continue
            looked_at.append(there)
            if is_free(there):
                return replace(own, by=offset, looked_at=around(looked_at), box=there)
    # Nothing is free far and wide: the place where least is in the way, its own before those farther off.
    places = [(0.0, 0.0), *movable.usual.offsets(box), *_ring()]
    inside = [o for o in places if fits(shifted(box, *o))] or places[:1]

    def worth(offset: Offset) -> float:
        there = shifted(box, *offset)
        return round(drawn.overlap(there, owner) + texts.overlap(there), 6) + hypot(*offset) / 1000

    dx, dy = min(inside, key=worth)
    by = round(dx, 2), round(dy, 2)
    return replace(own, by=by, looked_at=around([*looked_at, box]), box=shifted(box, *by))


def _shifted(item: Item, moves: list[tuple[Movable, Offset]]) -> Item:
    """Return an item with texts at their new places; its facts say how far each role was moved."""
    prims = list(item.prims)
    settled: dict[str, str] = {}
    for movable, (dx, dy) in moves:
        if movable.whole:
            prims = [p.moved(dx, dy) for p in prims]
            box = tuple(round(v, 2) for v in shifted(item.box, dx, dy))
            return replace(item, prims=prims, box=(box[0], box[1], box[2], box[3]))
        for n in movable.prims:
            there = text_at(item, n).moved(dx, dy)
            prims[n] = replace(there, x=round(there.x, 2), y=round(there.y, 2))
        if movable.rank != "pin":  # each pin's name has moved for itself
            settled[movable.rank] = f"{dx:g},{dy:g}"
    boxes = [item.facts.get("body") or item.box, *(text_box(p) for p in prims if isinstance(p, Text))]
    if item.kind in ("number", "continuation"):
        boxes = boxes[1:] if item.kind == "number" else boxes
    left, top, right, bottom = (round(v, 2) for v in around(boxes))
    facts: Facts = {**item.facts, "settled": settled}
    return replace(item, prims=prims, box=(left, top, right, bottom), facts=facts)


def around(boxes: list[BoxMm]) -> BoxMm:
    """Return the box about several."""
    return min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes)


def _ring() -> Iterator[Offset]:
    """Return places about one's own, farther and farther off."""
    reach = RING_MM
    while reach <= FARTHEST_MM:
        yield from ((reach * x, reach * y) for x, y in SPOKES)
        reach *= 1.2


def beside(box: BoxMm, body: BoxMm) -> list[Offset]:
    """Return the usual places of a text about a symbol: above, below, left and right, nearest to its own first."""
    left, top, right, bottom = body
    width, height = box[2] - box[0], box[3] - box[1]
    step, middle = height + LINE_MM, (left + right - width) / 2
    columns = (middle, left, right - width, left - width - LINE_MM, right + LINE_MM)
    found = []
    for n in range(4):
        rows = (top - height - LINE_MM - n * step, bottom + LINE_MM + n * step)
        found += [(x - box[0], y - box[1]) for y in rows for x in columns]
    for n in range(-4, 5):
        y = (top + bottom - height) / 2 + n * step
        found += [(x - box[0], y - box[1]) for x in (left - width - SIDE_MM, right + SIDE_MM)]
    return sorted(found, key=lambda o: (round(hypot(*o), 3), o))


def aside(box: BoxMm, body: BoxMm) -> list[Offset]:
    """Return the places of what belongs to an upright mark: beside it, so that it is not taken for another's."""
    width, height = box[2] - box[0], box[3] - box[1]
    found = []
    for n in range(6):
        y = (body[1] + body[3] - height) / 2 + (-n if n % 2 else n) * (LINE_MM + 1.0)
        found += [(body[0] - width - SIDE_MM - box[0], y - box[1]), (body[2] + SIDE_MM - box[0], y - box[1])]
    return found + beside(box, body)


def along(box: BoxMm, strokes: tuple[BoxMm, ...], gap: float) -> Iterator[Offset]:
    """Return the places of a text along strokes in their order, on either side, from the middle outwards."""
    width, height = box[2] - box[0], box[3] - box[1]
    for x1, y1, x2, y2 in strokes:
        level = y1 == y2
        length, own = (x2 - x1, width) if level else (y2 - y1, height)
        if length < own:
            continue
        for away in _outwards((length - own) / 2):
            if level:
                x = (x1 + x2 - width) / 2 + away
                spots = ((x, y1 - gap - height), (x, y1 + gap))
            else:
                y = (y1 + y2 - height) / 2 + away
                spots = ((x1 + gap, y), (x1 - gap - width, y))
            yield from ((x - box[0], y - box[1]) for x, y in spots)


def _outwards(reach: float, step: float = 1.5) -> Iterator[float]:
    yield 0.0
    away = step
    while away <= reach:
        yield -away
        yield away
        away += step


def at_pin(box: BoxMm, x: float, y: float, upright: bool) -> list[Offset]:
    """Return the places of a pin's name: on the other side of its wire, and a little along it."""
    across = (2 * x - box[0] - box[2], 0.0) if upright else (0.0, 2 * y - box[1] - box[3])
    found: list[Offset] = [across]
    for n in (0.6, 1.2, 1.8, 2.4, 3.0):
        steps = ((0.0, n), (0.0, -n)) if upright else ((n, 0.0), (-n, 0.0))
        found += [s for dx, dy in steps for s in ((dx, dy), (dx + across[0], dy + across[1]))]
    return found


def downwards(box: BoxMm) -> Iterator[Offset]:
    """Return the places of a table: below and above its own."""
    for n in range(1, 60):
        yield 0.0, n * STEP_MM
        yield 0.0, -n * STEP_MM
