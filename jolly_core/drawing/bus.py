"""A bus: several conductors drawn along one way, at equal spacing, their order kept around corners."""

from __future__ import annotations

from itertools import pairwise

from .geometry import Point

Leg = tuple[Point, Point]


def bus_lanes(points: list[Point], count: int, spacing: int) -> list[list[Point]]:
    """Return the corners of each conductor of a bus; the first runs along the points given.

    The others lie below it where the first leg is level, and to its right where it is upright, and stay on that side
    of the way around every corner, so that none crosses another.

    Args:
        points: corners of the first conductor; legs level or upright, none of no length, no leg along the one before.
        count: how many conductors.
        spacing: distance between neighbours, grid steps.

    Example:
        >>> bus_lanes([(0, 0), (20, 0), (20, 10)], 2, 4)
        [[(0, 0), (20, 0), (20, 10)], [(0, 4), (16, 4), (16, 10)]]
    """
    (x1, y1), (x2, y2) = points[0], points[1]
    # On which side of the way the others lie: +1 to the right of who walks along it (y grows downwards).
    side = (1 if x2 > x1 else -1) if y1 == y2 else (-1 if y2 > y1 else 1)
    return [_offset(points, side * n * spacing) for n in range(count)]


def _offset(points: list[Point], distance: int) -> list[Point]:
    """Return a way beside another, to the right of who walks along it when the distance is positive."""
    legs = [_moved(a, b, distance) for a, b in pairwise(points)]
    corners = [legs[0][0]]
    for (a, b), (c, _) in pairwise(legs):
        corners.append((c[0], a[1]) if a[1] == b[1] else (a[0], c[1]))
    return [*corners, legs[-1][1]]


def _moved(a: Point, b: Point, distance: int) -> Leg:
    dx = (b[0] > a[0]) - (b[0] < a[0])
    dy = (b[1] > a[1]) - (b[1] < a[1])
    right = (-dy * distance, dx * distance)
    return (a[0] + right[0], a[1] + right[1]), (b[0] + right[0], b[1] + right[1])


def simplified(points: list[Point]) -> list[Point]:
    """Return a way without legs of no length and without corners at which it goes straight on.

    Example:
        >>> simplified([(0, 0), (5, 0), (9, 0), (9, 0), (9, 4)])
        [(0, 0), (9, 0), (9, 4)]
    """
    kept: list[Point] = []
    for p in points:
        if kept and p == kept[-1]:
            continue
        if len(kept) > 1 and (kept[-2][0] == kept[-1][0] == p[0] or kept[-2][1] == kept[-1][1] == p[1]):
            kept.pop()
        kept.append(p)
    return kept
