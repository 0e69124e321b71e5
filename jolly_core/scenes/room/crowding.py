"""What is in the way on a sheet: boxes of texts, symbols, wires and lines, found by place. All in mm, y downwards."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import replace
from functools import lru_cache
from math import inf

from jolly_core.drawing import ADVANCE, GRID_MM, BoxMm, turned

from ..base.graphics import art_of
from ..base.primitives import Arc, Art, Circle, Dot, Image, Item, Line, Poly, Prim, Rect, Strand, Text

Taken = tuple[BoxMm, str, bool]  # whose it is, and whether it is in its owner's way only
CELL_BITS, ROW = 3, 1 << 12  # cells of 8 mm; more in a row than any sheet has
LINE_MM = 0.25  # half the room a line takes
RISE, FALL = 0.8, 0.2  # of a text above and below its baseline, as a share of its size
NOWHERE = (inf, inf, -inf, -inf, "")  # in nobody's way
SLICES = 4  # boxes for a slanted line


def text_box(prim: Text) -> BoxMm:
    """Return the box of a text primitive."""
    width = len(prim.words) * prim.size * ADVANCE
    if prim.upward:
        foot = prim.y + (0.0 if prim.anchor == "start" else width / 2 if prim.anchor == "middle" else width)
        return prim.x - RISE * prim.size, foot - width, prim.x + FALL * prim.size, foot
    left = prim.x - (0.0 if prim.anchor == "start" else width / 2 if prim.anchor == "middle" else width)
    return left, prim.y - RISE * prim.size, left + width, prim.y + FALL * prim.size


def shifted(box: BoxMm, dx: float, dy: float) -> BoxMm:
    """Return a box elsewhere."""
    return box[0] + dx, box[1] + dy, box[2] + dx, box[3] + dy


def meet(one: BoxMm, other: BoxMm) -> bool:
    """Return whether two boxes have something in common."""
    return one[0] < other[2] and other[0] < one[2] and one[1] < other[3] and other[1] < one[3]


class Crowd:
    """Boxes on a sheet with what each belongs to; what belongs to the asker is not in its way, but for its lines."""

    def __init__(self) -> None:
        self._cells: defaultdict[int, list[tuple[float, float, float, float, str]]] = defaultdict(list)
        self._lines: defaultdict[str, list[BoxMm]] = defaultdict(list)
        self._last = NOWHERE

    def add(self, box: BoxMm, owner: str = "") -> None:
        """Add a box; "" is in everybody's way, else it is in that of all but its owner."""
        entry, cells = (*box, owner), self._cells
        for cell in _cells(box):
            cells[cell].append(entry)

    def put(self, taken: Iterable[Taken]) -> None:
        """Add what is taken."""
        for box, owner, only in taken:
            if only:
                self.add_line(box, owner)
            else:
                self.add(box, owner)

    def take(self, taken: Iterable[Taken]) -> None:
        """Take away what was added before."""
        self._last = NOWHERE
        for box, owner, only in taken:
            if only:
                self._lines[owner].remove(box)
            else:
                for cell in _cells(box):
                    self._cells[cell].remove((*box, owner))

    def add_line(self, box: BoxMm, owner: str) -> None:
        """Add a box that is in its owner's way only: others have the whole of the owner in theirs."""
        self._lines[owner].append(box)

    def overlap(self, box: BoxMm, owner: str = "") -> float:
        """Return how much of a box is taken, mm²; some is counted more than once."""
        left, top, right, bottom = box
        others = [e for cell in _cells(box) for e in self._cells.get(cell, ()) if not e[4] or e[4] != owner]
        area = 0.0
        for x1, y1, x2, y2, *_ in (*others, *self._lines.get(owner, ())):
            if x1 < right and left < x2 and y1 < bottom and top < y2:
                area += (min(right, x2) - max(left, x1)) * (min(bottom, y2) - max(top, y1)) + 1e-6
        return area

    def is_free(self, box: BoxMm, owner: str = "") -> bool:
        """Return whether nothing reaches into a box."""
        left, top, right, bottom = box
        # What was in the way of the last place tried is likely in that of the next.
        x1, y1, x2, y2, whose = self._last
        if x1 < right and left < x2 and y1 < bottom and top < y2 and (not whose or whose != owner):
            return False
        for x1, y1, x2, y2 in self._lines.get(owner, ()):
            if x1 < right and left < x2 and y1 < bottom and top < y2:
                return False
        cells = self._cells
        for cell in _cells(box):
            for entry in cells.get(cell, ()):
                x1, y1, x2, y2, whose = entry
                if x1 < right and left < x2 and y1 < bottom and top < y2 and (not whose or whose != owner):
                    self._last = entry
                    return False
        return True


class Lately:
    """A crowd that is asked little as a rule: its boxes are looked through one by one until that has cost too much."""

    PATIENCE = 40

    def __init__(self, boxes: Iterable[BoxMm]) -> None:
        self._boxes = list(boxes)
        self._crowd: Crowd | None = None
        self._asked = 0

    def add(self, box: BoxMm) -> None:
        """Add a box."""
        self._boxes.append(box)
        if self._crowd is not None:
            self._crowd.add(box)

    def is_free(self, box: BoxMm) -> bool:
        """Return whether nothing reaches into a box."""
        if self._crowd is not None:
            return self._crowd.is_free(box)
        self._asked += 1
        if self._asked > self.PATIENCE:
            self._sorted()
        left, top, right, bottom = box
        return not any(x1 < right and left < x2 and y1 < bottom and top < y2 for x1, y1, x2, y2 in self._boxes)

    def overlap(self, box: BoxMm) -> float:
        """Return how much of a box is taken, mm²."""
        return (self._crowd or self._sorted()).overlap(box)

    def _sorted(self) -> Crowd:
        self._crowd = Crowd()
        for box in self._boxes:
            self._crowd.add(box)
        return self._crowd


def _cells(box: BoxMm) -> list[int]:
    """Return the numbers of the cells that a box reaches into."""
    left, top, right, bottom = box
    x1, y1, x2, y2 = int(left) >> CELL_BITS, int(top) >> CELL_BITS, int(right) >> CELL_BITS, int(bottom) >> CELL_BITS
    if y1 == y2:
        low = y1 * ROW + x1
        return [low] if x1 == x2 else list(range(low, low + x2 - x1 + 1))
    return [y * ROW + x for y in range(y1, y2 + 1) for x in range(x1, x2 + 1)]


def boxes_of(item: Item, standard: str) -> list[Taken]:
    """Return the boxes of an item's lines and graphics: whose each is, and whether it is in its owner's way only."""
    lines = list(_boxes(item, standard))
    if item.kind != "symbol":
        return [(box, "", False) for box in lines]
    x1, y1, x2, y2 = item.facts["body"]
    inside = [x1 - 0.3 <= a and y1 - 0.3 <= b and c <= x2 + 0.3 and d <= y2 + 0.3 for a, b, c, d in lines]
    found: list[Taken] = [((x1, y1, x2, y2), item.id, False)]
    return found + [(box, item.id if only else "", only) for box, only in zip(lines, inside, strict=True)]


def _boxes(item: Item, standard: str) -> Iterator[BoxMm]:
    for prim in item.prims:
        match prim:
            case Strand() | Line():
                yield from _line(prim.x1, prim.y1, prim.x2, prim.y2)
            case Poly():
                yield from _strokes(prim.points)
            case Circle() | Dot() | Arc():
                yield _about(prim)
            case Rect():
                yield from _edges(prim.x, prim.y, prim.x + prim.width, prim.y + prim.height)
            case Image():
                yield prim.x, prim.y, prim.x + prim.width, prim.y + prim.height
            case Art():
                for x1, y1, x2, y2 in _art(prim.key, prim.poles, prim.rotation, prim.mirror, standard):
                    yield x1 + prim.x, y1 + prim.y, x2 + prim.x, y2 + prim.y
            case Text():
                pass


def _about(prim: Circle | Dot | Arc) -> BoxMm:
    return prim.cx - prim.radius, prim.cy - prim.radius, prim.cx + prim.radius, prim.cy + prim.radius


def _strokes(points: tuple[float, ...]) -> Iterator[BoxMm]:
    for n in range(0, len(points) - 2, 2):
        yield from _line(*points[n : n + 4])


@lru_cache(maxsize=4096)
def _art(key: str, poles: int, rotation: int, mirror: bool, standard: str) -> tuple[BoxMm, ...]:
    """Return the boxes of a symbol's graphics about its origin, turned."""
    return tuple(box for prim in art_of(key, poles, standard) for box in _turned(prim, rotation, mirror))


def _turned(prim: Prim, rotation: int, mirror: bool) -> Iterable[BoxMm]:
    def at(x: float, y: float) -> tuple[float, float]:
        tx, ty = turned(x / GRID_MM, y / GRID_MM, rotation, mirror)
        return tx * GRID_MM, ty * GRID_MM

    match prim:
        case Circle() | Arc():
            x, y = at(prim.cx, prim.cy)
            return [(x - prim.radius, y - prim.radius, x + prim.radius, y + prim.radius)]
        case Text():
            # The middle of a text turns with its symbol, the text stays upright.
            x, y = at(prim.x, prim.y - prim.size / 3)
            return [text_box(replace(prim, x=x, y=y + prim.size / 3))]
        case Poly():
            corners = [at(prim.points[n], prim.points[n + 1]) for n in range(0, len(prim.points), 2)]
            return _strokes(tuple(v for corner in corners for v in corner))
        case Rect():
            (ax, ay), (bx, by) = at(prim.x, prim.y), at(prim.x + prim.width, prim.y + prim.height)
            return [(min(ax, bx), min(ay, by), max(ax, bx), max(ay, by))]
        case Line():
            return _line(*at(prim.x1, prim.y1), *at(prim.x2, prim.y2))
        case _:
            return []  # no other kind is in the graphics of a symbol


def _line(x1: float, y1: float, x2: float, y2: float) -> list[BoxMm]:
    if x1 == x2 or y1 == y2:
        return [(min(x1, x2) - LINE_MM, min(y1, y2) - LINE_MM, max(x1, x2) + LINE_MM, max(y1, y2) + LINE_MM)]
    found = []
    for n in range(SLICES):
        ax, bx = (x1 + (x2 - x1) * k / SLICES for k in (n, n + 1))
        ay, by = (y1 + (y2 - y1) * k / SLICES for k in (n, n + 1))
        found.append((min(ax, bx), min(ay, by), max(ax, bx), max(ay, by)))
    return found


def _edges(x1: float, y1: float, x2: float, y2: float) -> list[BoxMm]:
    corners = ((x1, y1), (x2, y1), (x2, y2), (x1, y2), (x1, y1))
    return [b for n in range(4) for b in _line(*corners[n], *corners[n + 1])]
