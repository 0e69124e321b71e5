"""Ways of wires: where they go into lanes, the legs they are made of, and what joins surfaces. All in mm."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal, NamedTuple

from .pieces import PointMm

FAR = float("inf")
TURN_MM = 1e-4  # of ways of one length, that with fewer turns
Axis = Literal["upright", "level", ""]
LegKind = Literal["lane", "free", "crossing", "eyelet"]


@dataclass(slots=True, frozen=True)
class SurfaceLink:
    """A crossing from a point of a surface to one of another, with the wire it takes, and what it is in words."""

    id: str
    surface: str
    point: PointMm
    other: str
    other_point: PointMm
    extra_mm: float
    words: str = "through the crossing"


class Entry(NamedTuple):
    """Where a wire goes into the lanes.

    Attributes:
        piece: its number, -1 when the wire goes straight to the end of a crossing, or to a stop.
        along: where on the piece.
        stop: the stop when there is no piece, else -1.
        point: where that is.
        distance: from the pin, square on the surface.
        pin: where it comes from.
    """

    piece: int
    along: float
    stop: int
    point: PointMm
    distance: float
    pin: PointMm


class Leg(NamedTuple):
    """A stretch of a way: its kind, what it runs in, length, surface and corners; from and to along its lane."""

    kind: LegKind
    id: str
    length: float
    surface: str
    points: tuple[PointMm, ...]
    span: tuple[float, float] = (0.0, 0.0)


@dataclass(slots=True)
class Way:
    """A way: its length, and the legs it is made of, free ones at its ends among them."""

    length: float
    legs: list[Leg] = field(default_factory=list)

    @property
    def stretches(self) -> list[tuple[str, float, float]]:
        """The lanes it runs in, with from and to along each."""
        return [(leg.id, *leg.span) for leg in self.legs if leg.kind == "lane"]

    def along(self, other: Way) -> Way:
        """Return this way and another that begins where it ends."""
        return Way(self.length + other.length, [*self.legs, *other.legs])


def square(a: PointMm, b: PointMm) -> tuple[PointMm, ...]:
    """Return a way from a point to another that runs level first, then upright."""
    return (a, b) if a[0] == b[0] or a[1] == b[1] else (a, (b[0], a[1]), b)


def apart(a: PointMm, b: PointMm) -> float:
    """Return how far two points are from each other, square."""
    return abs(a[0] - b[0]) + abs(a[1] - b[1])


def leaves(dx: float, dy: float, axis: Axis, side: int) -> bool:
    """Return whether a way of so much to the right and down leaves along an axis, and to a side."""
    main, across = (dy, dx) if axis == "upright" else (dx, dy)
    return abs(main) >= abs(across) and (not side or main * side >= 0)
