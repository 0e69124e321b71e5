"""A layout proposed for a mounting plate: devices in rows by kind and circuit, then moved about to shorten the wires.

The rows stand between level ducts, with an upright duct on either side: power above, control in the middle, terminals
below, earth bars and lights at the foot under the last duct. What is shortened is an estimate: a wire runs along the
duct it shares with the other end, or round by the nearer side. All in mm, x to the right and y down from the upper left
corner of the plate.
"""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import product

EDGE_MM = 10.0  # of the plate, kept free outside ducts
GAPS_MM = (40.0, 30.0, 22.0, 18.0)  # between devices and ducts, the first that fits
RAIL_END_MM = 8.0
TRIES = 4000
POWER = (
    "disconnector",
    "breaker",
    "motor-breaker",
    "residual-current",
    "fuse",
    "surge-protector",
    "contactor",
    "overload",
    "power-supply",
    "transformer",
    "drive",
    "soft-starter",
    "current-transformer",
)
TERMINALS = ("terminal", "earth")
FOOT = ("earth", "lighting")


@dataclass(slots=True, frozen=True)
class Thing:
    """A device to lay out.

    Attributes:
        part_class: by which it goes into a zone.
        rail: it clips on a rail.
        above, below, beside: room its part asks for.
        order: place among the circuits.
    """

    id: str
    part_class: str
    width: float
    height: float
    rail: bool
    above: float = 0.0
    below: float = 0.0
    beside: float = 0.0
    order: int = 0

    @property
    def zone(self) -> int:
        """0 for power, 1 for control, 2 for terminals."""
        return 0 if self.part_class in POWER else 2 if self.part_class in TERMINALS else 1


WiresBetween = Mapping[tuple[str, str], int]  # pairs of devices, the smaller id first, with how many wires join them


@dataclass(slots=True)
class Proposal:
    """Where everything goes.

    Attributes:
        places: x and y of each device's upper left corner, and the number of its rail, -1 for none.
        rails, ducts: their ends.
        left: what found no room.
        estimate: length of all wires as it was estimated.
    """

    places: dict[str, tuple[float, float, int]] = field(default_factory=dict)
    rails: list[tuple[float, float, float, float]] = field(default_factory=list)
    ducts: list[tuple[float, float, float, float]] = field(default_factory=list)
    left: list[str] = field(default_factory=list)
    estimate: float = 0.0


@dataclass(slots=True)
class _Frame:
    """The room on a plate: between the side ducts, with ducts of a width, and gaps beside them."""

    width: float
    height: float
    duct: float
    gap: float
    foot: tuple[Thing, ...] = ()  # screwed to the plate side by side under the last duct

    @property
    def bottom(self) -> float:
        """Where the last duct must end."""
        room = max((t.height + max(self.gap, t.above) + max(EDGE_MM, t.below) for t in self.foot), default=EDGE_MM)
        return self.height - room

    @property
    def left(self) -> float:
        """Where rows begin."""
        return EDGE_MM + self.duct + RAIL_END_MM

    @property
    def room(self) -> float:
        """How long a row may be."""
        return self.width - 2 * self.left


RailRow = list[Thing]


def propose(things: Sequence[Thing], joined: WiresBetween, size: tuple[float, float], duct_mm: float) -> Proposal:
    """Return a layout of devices on a plate: the first way that all fit, kinds in rows of their own before mixed ones.

    Args:
        things: the devices, each with an outline.
        joined: how many wires join which devices.
        size: width and height of the plate.
        duct_mm: width of the ducts.
    """
    best: Proposal | None = None
    bars = tuple(t for t in things if t.part_class in FOOT and not t.rail)
    if not bars or _length([*bars]) > _Frame(*size, duct_mm, 0.0).room:
        bars = ()
    others = [t for t in things if t not in bars]
    for foot, apart, gap in product((bars, ()) if bars else ((),), (True, False), GAPS_MM):
        frame = _Frame(*size, duct_mm, gap, foot)
        rows, left = _rows(others if foot else things, frame, apart=apart)
        kept, dropped = _fitting(rows, frame)
        left += [t.id for row in dropped for t in row]
        if best is None or len(left) < len(best.left):
            best = _laid(_shortened(kept, joined, frame), joined, frame)
            best.left = left
        if not left:
            break
    return best or Proposal()


def _rows(things: Sequence[Thing], frame: _Frame, *, apart: bool) -> tuple[list[RailRow], list[str]]:
    """Return devices in rows, zone by zone in the order of their circuits, and those wider than any row."""
    left = [t.id for t in things if t.width > frame.room]
    ordered = sorted((t for t in things if t.width <= frame.room), key=lambda t: (t.zone, not t.rail, t.order, t.id))
    # What is screwed to the plate stands together, so that rails run on beside it.
    rows: list[RailRow] = []
    for thing in ordered:
        open_rows = [r for r in rows if _length([*r, thing]) <= frame.room]
        if apart:
            open_rows = [r for r in open_rows if r is rows[-1] and (r[-1].zone, r[-1].rail) == (thing.zone, thing.rail)]
        if open_rows:
            open_rows[0].append(thing)
        else:
            rows.append([thing])
    return rows, left


def _length(row: RailRow) -> float:
    """Return how long a row is, with the room between its devices; what does not clip stands before what does."""
    row = _in_row(row)
    gaps = sum(max(a.beside, b.beside, 0.0 if a.rail and b.rail else 12.0) for a, b in zip(row, row[1:], strict=False))
    return sum(t.width for t in row) + gaps


def _in_row(row: RailRow) -> RailRow:
    return [*(t for t in row if not t.rail), *(t for t in row if t.rail)]


def _fitting(rows: list[RailRow], frame: _Frame) -> tuple[list[RailRow], list[RailRow]]:
    """Return the rows that fit below each other, and those that do not."""
    used = EDGE_MM + frame.duct
    kept: list[RailRow] = []
    for n, row in enumerate(rows):
        up, down = _reach(row, frame)
        if used + up + down + frame.duct > frame.bottom + 1e-6:
            return kept, rows[n:]
        used += up + down + frame.duct
        kept.append(row)
    return kept, []


def _reach(row: RailRow, frame: _Frame) -> tuple[float, float]:
    """Return how far a row reaches up and down from the middle of its rail, gaps to the ducts with it."""
    up = max(t.height / 2 + max(frame.gap, t.above) for t in row)
    down = max(t.height / 2 + max(frame.gap, t.below) for t in row)
    return up, down


def _middles(row: RailRow, frame: _Frame) -> dict[str, float]:
    """Return where the middle of each device of a row is."""
    at, found, last = frame.left, {}, None
    for thing in _in_row(row):
        if last is not None:
            at += max(last.beside, thing.beside, 0.0 if last.rail and thing.rail else 12.0)
        found[thing.id] = at + thing.width / 2
        at, last = at + thing.width, thing
    return found


def _heights(rows: list[RailRow], frame: _Frame) -> list[float]:
    """Return the middles of the level ducts, the uppermost first: one more than there are rows."""
    ys = [EDGE_MM + frame.duct / 2]
    for row in rows:
        up, down = _reach(row, frame)
        ys.append(ys[-1] + frame.duct + up + down)
    return ys


def _estimate(rows: list[RailRow], joined: WiresBetween, frame: _Frame) -> float:
    """Return how long all wires are together, roughly."""
    ducts = _heights(rows, frame)
    at: dict[str, tuple[int, float]] = {}
    for n, row in enumerate([*rows, [*frame.foot]]):
        at |= {id: (n, x) for id, x in _middles(row, frame).items()}
    width = frame.width
    total = 0.0
    for (a, b), count in joined.items():
        one, other = at.get(a), at.get(b)
        if one is None or other is None:
            continue
        (r, x), (s, z) = (one, other) if one[0] <= other[0] else (other, one)
        if s - r <= 1:
            far = abs(x - z)
        else:
            far = ducts[s] - ducts[r + 1] + min(x + z, 2 * width - x - z) - 2 * EDGE_MM - frame.duct
        total += count * far
    return total


def _shortened(rows: list[RailRow], joined: WiresBetween, frame: _Frame) -> list[RailRow]:
    """Return rows in which devices changed places as long as that shortened the wires."""
    rows = [list(row) for row in rows]
    places = [(n, k) for n, row in enumerate(rows) for k in range(len(row))]
    if len(places) < 2:
        return rows
    chance = random.Random(len(places))  # the same devices are always laid out the same
    best = _estimate(rows, joined, frame)
    heights = _heights(rows, frame)[-1]
    for _ in range(TRIES):
        (n, k), (m, j) = chance.sample(places, 2)
        a, b = rows[n][k], rows[m][j]
        if n != m and (a.zone, a.rail) != (b.zone, b.rail):
            continue
        before = (list(rows[n]), list(rows[m]))
        if n == m and chance.random() < 0.5:
            rows[n].insert(j, rows[n].pop(k))
        else:
            rows[n][k], rows[m][j] = b, a
        fits = n == m or (
            max(_length(rows[n]), _length(rows[m])) <= frame.room and _heights(rows, frame)[-1] <= heights + 1e-6
        )
        now = _estimate(rows, joined, frame) if fits else best
        if fits and now < best - 1e-6:
            best = now
        else:
            rows[n], rows[m] = before
    return rows


def _laid(rows: list[RailRow], joined: WiresBetween, frame: _Frame) -> Proposal:
    """Return rows as places, rails and ducts."""
    found = Proposal(estimate=_estimate(rows, joined, frame))
    ys = _heights(rows, frame)
    left, right = EDGE_MM + frame.duct / 2, frame.width - EDGE_MM - frame.duct / 2
    inner = (EDGE_MM + frame.duct, frame.width - EDGE_MM - frame.duct)
    found.ducts = [(left, ys[0] - frame.duct / 2, left, ys[-1] + frame.duct / 2)]
    found.ducts.append((right, ys[0] - frame.duct / 2, right, ys[-1] + frame.duct / 2))
    found.ducts += [(inner[0], y, inner[1], y) for y in ys]
    for row, top in zip(rows, ys, strict=False):
        up, _ = _reach(row, frame)
        middle = top + frame.duct / 2 + up
        middles = _middles(row, frame)
        clipped = [t for t in row if t.rail]
        rail = -1
        if clipped:
            loose = [middles[t.id] + t.width / 2 for t in row if not t.rail]
            begin = max(loose) + 6.0 if loose else inner[0] + 2.0
            rail = len(found.rails)
            found.rails.append((begin, middle, inner[1] - 2.0, middle))
        for thing in row:
            place = (middles[thing.id] - thing.width / 2, middle - thing.height / 2)
            found.places[thing.id] = (*place, rail if thing.rail else -1)
    middles = _middles([*frame.foot], frame)
    for thing in frame.foot:
        y = ys[-1] + frame.duct / 2 + max(frame.gap, thing.above)
        found.places[thing.id] = (middles[thing.id] - thing.width / 2, y, -1)
    return found


def joined_by(pairs: Iterable[tuple[str, str]]) -> dict[tuple[str, str], int]:
    """Return how many wires join which devices, those within one left out."""
    return dict(Counter((min(a, b), max(a, b)) for a, b in pairs if a != b))
