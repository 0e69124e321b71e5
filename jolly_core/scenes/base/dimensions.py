"""Dimensions along an edge of a picture at true scale: a chain of lengths, or running from one corner. All in mm."""

from __future__ import annotations

from collections.abc import Sequence

from jolly_core.model import shown_in

from .primitives import Line, Prim, text

TICK_MM = 4.0
SIZE_MM = 11.0
LEAST_MM = 6.0  # apart, to be told from each other
APART = 1.1  # of the size of a text, to the next beside it


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


def below(values: Sequence[float], x: float, y: float, *, running: bool, unit: str, factor: float) -> list[Prim]:
    """Return dimensions from left to right below a picture.

    Args:
        values: places from the picture's left edge.
        x, y: where that edge is, and the level of the dimension line.
        unit: of length, in which they are told.
        factor: how many times larger than usual they are, for a small scale.
    """
    places, size, tick = spread(values), SIZE_MM * factor, TICK_MM * factor
    prims: list[Prim] = [Line(x + places[0], y, x + places[-1], y, "thin")]
    prims += [Line(x + v, y - tick, x + v, y + tick, "thin") for v in places]

    def upright(at: float, words: str, down: float) -> None:
        prims.append(text(x + at + size / 3, y + down + _long(words, size), size, words, role="label", upward=True))

    if running:
        for v in spread(values, APART * size):
            upright(v, shown_in(unit, v), tick)
        return prims
    last = -size
    for a, b in zip(places, places[1:], strict=False):
        words, middle = shown_in(unit, b - a), (a + b) / 2
        if _long(words, size) <= b - a - 2:
            prims.append(text(x + middle, y - tick / 2, size, words, anchor="middle", role="label"))
        elif middle - last >= APART * size:
            upright(middle, words, tick * 1.5)
            last = middle
    return prims


def _long(words: str, size: float) -> float:
    return len(words) * 0.62 * size


def beside(values: Sequence[float], x: float, y: float, *, running: bool, unit: str, factor: float) -> list[Prim]:
    """Return dimensions upwards on the left of a picture.

    Args:
        values: places from the picture's lower edge.
        x, y: the place of the dimension line, and where the lower edge is.
        unit: of length, in which they are told.
        factor: how many times larger than usual they are, for a small scale.
    """
    places, size, tick = spread(values), SIZE_MM * factor, TICK_MM * factor
    prims: list[Prim] = [Line(x, y - places[0], x, y - places[-1], "thin")]
    prims += [Line(x - tick, y - v, x + tick, y - v, "thin") for v in places]

    def level(at: float, words: str) -> None:
        prims.append(text(x - 1.5 * tick, y - at + size / 3, size, words, anchor="end", role="label"))

    if running:
        for v in spread(values, APART * size):
            level(v, shown_in(unit, v))
        return prims
    for a, b in zip(places, places[1:], strict=False):
        words, middle = shown_in(unit, b - a), (a + b) / 2
        long = _long(words, size)
        if long <= b - a - 2:
            prims.append(text(x - tick / 2, y - middle + long / 2, size, words, role="label", upward=True))
        elif b - a >= size:
            level(middle, words)
    return prims
