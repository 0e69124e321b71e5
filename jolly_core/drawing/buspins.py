"""Laying a bus from, or onto, the pins of a device: which pins lie in a row, and where the first conductor must run."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import pairwise

from .bus import bus_lanes
from .geometry import Point

PinRow = list[Point]


def row_at(end: Point, level: bool, symbols: Iterable[list[Point]]) -> PinRow:
    """Return the pins of the symbol at a point that lie in a row across the leg there, in order; none without one.

    Args:
        end: grid point where the bus begins or ends.
        level: whether the leg there is level.
        symbols: the grid points of each symbol's pins.
    """
    for pins in symbols:
        if end in pins:
            across = 1 if level else 0
            return sorted({p for p in pins if p[1 - across] == end[1 - across]}, key=lambda p: p[across])
    return []


def onto_pins(points: list[Point], count: int, spacing: int, row: PinRow, at_end: bool) -> tuple[list[Point], int]:
    """Return the way of the first conductor, and the spacing, with which the conductors meet the pins of a row.

    The pins are taken in order: as many as there are conductors, the one pointed at among them. Pins that are not
    evenly spaced, or fewer than two, leave the way as it is.

    Args:
        points: corners of the first conductor; the first or the last is a point of the row.
        count: how many conductors, at least two.
        spacing: distance between neighbours when the row does not say it, grid steps.
        row: pins of one symbol in a row across the leg, in order.
        at_end: whether the bus ends on the row instead of beginning there.

    Example:
        >>> onto_pins([(14, 30), (14, 60)], 3, 4, [(10, 30), (14, 30), (18, 30)], False)
        ([(10, 30), (10, 60)], 4)
    """
    end, beside = (points[-1], points[-2]) if at_end else (points[0], points[1])
    across = 1 if end[1] == beside[1] else 0
    places = [p[across] for p in row]
    pitches = {b - a for a, b in pairwise(places)}
    if len(pitches) != 1:
        return points, spacing
    (pitch,) = pitches
    lanes = bus_lanes(points, 2, pitch)
    at = -1 if at_end else 0
    if lanes[1][at][across] < lanes[0][at][across]:  # the others lie above, or to the left
        places.reverse()
    here = places.index(end[across])
    first = max(0, min(here, len(places) - count))
    shift = places[first] - end[across]
    moved = list(points)
    for n in (-1, -2) if at_end else (0, 1):
        x, y = moved[n]
        moved[n] = (x, y + shift) if across else (x + shift, y)
    return moved, pitch
