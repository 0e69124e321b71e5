"""Straight pieces of lanes on surfaces, and where they meet. All in mm.

Terms: a *lane* is a way for wires: the centre line of a duct, or a line somebody drew. Its straight stretches are its
*pieces*. Pieces *meet* in a point where they cross, or where one ends within half the width of the other.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot

from jolly_core.model import RuleError

TOLERANCE_MM = 1.0
PointMm = tuple[float, float]


@dataclass(slots=True, frozen=True)
class LanePiece:
    """A straight stretch of a lane on a surface.

    Attributes:
        id: the duct's or lane's.
        surface: which surface it lies on, any text that is the same for pieces on one surface.
        x1, y1, x2, y2: its ends; of a level or upright one the first is left of or above the second.
        width: of the duct, 0 of a line.
        before: how much of its lane lies before it.
    """

    id: str
    x1: float
    y1: float
    x2: float
    y2: float
    width: float = 0.0
    surface: str = ""
    before: float = 0.0

    @property
    def level(self) -> bool:
        """Whether it runs from left to right."""
        return self.y1 == self.y2

    @property
    def upright(self) -> bool:
        """Whether it runs from top to bottom."""
        return self.x1 == self.x2

    @property
    def length(self) -> float:
        """From end to end."""
        return hypot(self.x2 - self.x1, self.y2 - self.y1)

    def at(self, along: float) -> PointMm:
        """Return the point at a distance from its first end."""
        if self.y1 == self.y2:
            return self.x1 + along, self.y1
        if self.x1 == self.x2:
            return self.x1, self.y1 + along
        share = along / self.length
        return self.x1 + share * (self.x2 - self.x1), self.y1 + share * (self.y2 - self.y1)

    def along(self, point: PointMm) -> float:
        """Return how far from its first end the foot of a point lies, before and behind its ends, too."""
        if self.y1 == self.y2:
            return point[0] - self.x1
        if self.x1 == self.x2:
            return point[1] - self.y1
        return ((point[0] - self.x1) * (self.x2 - self.x1) + (point[1] - self.y1) * (self.y2 - self.y1)) / self.length


def piece(id: str, x1: float, y1: float, x2: float, y2: float, width: float = 0.0, surface: str = "") -> LanePiece:
    """Return a duct's piece with its points in order.

    Raises:
        RuleError: it is slanted or has no length.
    """
    if (x1 != x2) == (y1 != y2):
        raise RuleError("A duct runs level or upright and has a length.", field="points", ids=(id,))
    (ax, ay), (bx, by) = sorted(((x1, y1), (x2, y2)))
    return LanePiece(id, ax, ay, bx, by, width, surface)


def pieces_of_line(id: str, points: Sequence[float], surface: str = "") -> list[LanePiece]:
    """Return the pieces of a line by its corners, x and y in turn; those without length are left out."""
    found: list[LanePiece] = []
    before = 0.0
    for n in range(0, len(points) - 3, 2):
        x1, y1, x2, y2 = points[n : n + 4]
        if (x1, y1) != (x2, y2):
            (ax, ay), (bx, by) = sorted(((x1, y1), (x2, y2)))  # a line to the left lies where it was drawn
            found.append(LanePiece(id, ax, ay, bx, by, 0.0, surface, before))
            before += found[-1].length
    return found


Mark = tuple[int, float]  # a piece by its number, and how far from its first end


def meetings(pieces: Sequence[LanePiece]) -> list[tuple[Mark, Mark, float]]:
    """Return where pieces of one surface meet: a mark on either, and the gap between both marks, 0 for one point."""
    found: list[tuple[Mark, Mark, float]] = []
    by_surface: dict[str, list[int]] = {}
    for n, one in enumerate(pieces):
        by_surface.setdefault(one.surface, []).append(n)
    for numbers in by_surface.values():
        for place, n in enumerate(numbers):
            for m in numbers[place + 1 :]:
                found += [((n, a), (m, b), gap) for a, b, gap in _meet(pieces[n], pieces[m])]
    return found


def _meet(a: LanePiece, b: LanePiece) -> list[tuple[float, float, float]]:
    if a.level and b.upright or a.upright and b.level:
        if not (_reaches(a, b) and _reaches(b, a)):
            return []
        point = (b.x1, a.y1) if a.level else (a.x1, b.y1)
        return [(a.along(point), b.along(point), 0.0)]
    crossing = _crossing(a, b)
    if crossing is not None:
        return [(a.along(crossing), b.along(crossing), 0.0)]
    found = []
    for along in (0.0, a.length):
        foot, gap = _foot(a.at(along), b)
        if gap <= b.width / 2 + TOLERANCE_MM:
            found.append((along, foot, gap))
    for along in (0.0, b.length):
        foot, gap = _foot(b.at(along), a)
        if gap <= a.width / 2 + TOLERANCE_MM:
            found.append((foot, along, gap))
    return found


def _foot(point: PointMm, on: LanePiece) -> tuple[float, float]:
    """Return where on a piece a point is nearest to, and how far it is."""
    along = min(max(on.along(point), 0.0), on.length)
    x, y = on.at(along)
    return along, hypot(point[0] - x, point[1] - y)


def _crossing(a: LanePiece, b: LanePiece) -> PointMm | None:
    """Return where two pieces that are not both level or upright cross, None where they do not."""
    ax, ay, bx, by = a.x2 - a.x1, a.y2 - a.y1, b.x2 - b.x1, b.y2 - b.y1
    turn = ax * by - ay * bx
    if abs(turn) < 1e-9:
        return None
    s = ((b.x1 - a.x1) * by - (b.y1 - a.y1) * bx) / turn
    t = ((b.x1 - a.x1) * ay - (b.y1 - a.y1) * ax) / turn
    if not (-1e-9 <= s <= 1 + 1e-9 and -1e-9 <= t <= 1 + 1e-9):
        return None
    return a.x1 + s * ax, a.y1 + s * ay


def _reaches(a: LanePiece, b: LanePiece) -> bool:
    """Return whether a piece comes to the line of another square to it, within half that duct's width."""
    low, high, across = (a.x1, a.x2, b.x1) if a.level else (a.y1, a.y2, b.y1)
    slack = b.width / 2 + TOLERANCE_MM
    return min(low, high) - slack <= across <= max(low, high) + slack
