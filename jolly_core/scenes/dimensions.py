"""Dimensions along an edge of a picture at true scale: a chain of lengths, or running from one corner. All in mm."""

from __future__ import annotations

from collections.abc import Sequence

from jolly_core.model import shown_in

from .primitives import Line, Prim, text

TICK_MM = 4.0
SIZE_MM = 11.0
LEAST_MM = 6.0  # apart, to be told from each other


def spread(values: Sequence[float], least: float = LEAST_MM) -> list[float]:
    """Return places in order, each at least so far behind the one before; first and last always among them.

    Example:
        >>> spread([0, 3, 40, 98, 100])
        [0, 40, 100]
    """
    ordered = sorted(set(values))
    if len(ordered) < 3:
        return ordered
    found = [ordered[0]]
    for value in ordered[1:-1]:
        if value - found[-1] >= least and ordered[-1] - value >= least:
            found.append(value)
    return [*found, ordered[-1]]


def below(values: Sequence[float], x: float, y: float, *, running: bool, unit: str) -> list[Prim]:
    """Return dimensions from left to right below a picture.

    Args:
        values: places from the picture's left edge.
        x, y: where that edge is, and the level of the dimension line.
        unit: of length, in which they are told.
    """
    places = spread(values)
    prims: list[Prim] = [Line(x + places[0], y, x + places[-1], y, "thin")]
    prims += [Line(x + v, y - TICK_MM, x + v, y + TICK_MM, "thin") for v in places]
    if running:
        for v in places:
            words = shown_in(unit, v)
            prims.append(text(x + v + SIZE_MM / 3, y + 4 + _long(words), SIZE_MM, words, role="label", upward=True))
        return prims
    for a, b in zip(places, places[1:], strict=False):
        words, size = shown_in(unit, b - a), SIZE_MM
        if len(words) * 0.62 * size <= b - a - 2:
            prims.append(text(x + (a + b) / 2, y - 2, size, words, anchor="middle", role="label"))
        else:
            prims.append(text(x + (a + b) / 2 + size / 3, y + 6 + _long(words), size, words, role="label", upward=True))
    return prims


def _long(words: str) -> float:
    return len(words) * 0.62 * SIZE_MM


def beside(values: Sequence[float], x: float, y: float, *, running: bool, unit: str) -> list[Prim]:
    """Return dimensions upwards on the left of a picture.

    Args:
        values: places from the picture's lower edge.
        x, y: the place of the dimension line, and where the lower edge is.
        unit: of length, in which they are told.
    """
    places = spread(values)
    prims: list[Prim] = [Line(x, y - places[0], x, y - places[-1], "thin")]
    prims += [Line(x - TICK_MM, y - v, x + TICK_MM, y - v, "thin") for v in places]
    if running:
        last = None
        for v in places:
            if last is None or v - last >= SIZE_MM * 1.1:
                prims.append(text(x - 6, y - v + SIZE_MM / 3, SIZE_MM, shown_in(unit, v), anchor="end", role="label"))
                last = v
        return prims
    for a, b in zip(places, places[1:], strict=False):
        words = shown_in(unit, b - a)
        if len(words) * 0.62 * SIZE_MM <= b - a - 2:
            middle = y - (a + b) / 2 + len(words) * 0.31 * SIZE_MM
            prims.append(text(x - 2, middle, SIZE_MM, words, role="label", upward=True))
        elif b - a >= SIZE_MM:
            prims.append(text(x - 6, y - (a + b) / 2 + SIZE_MM / 3, SIZE_MM, words, anchor="end", role="label"))
    return prims
