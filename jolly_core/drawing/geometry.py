"""Grid geometry: where a placed symbol's pins and graphics lie.

Terms: the *grid step* is 2.5 mm (IEC 60617 module). y grows downwards. A symbol is first mirrored (y changes sign),
then turned clockwise by its rotation, then moved to its grid point.
"""

from __future__ import annotations

from functools import lru_cache

from jolly_core.library import block_body, block_spans, definition, is_block
from jolly_core.model import Symbol, Wire

from .groups import SHIFT

GRID_MM = 2.5
Point = tuple[int, int]
# Mirror and rotation that put a symbol drawn along x onto a vertical wire, first pin on top, poles to the right.
UPRIGHT = (90, True)


def turned(x: float, y: float, rotation: int, mirror: bool) -> tuple[float, float]:
    """Return an offset after mirroring and turning clockwise by 0, 90, 180 or 270 degrees.

    Example:
        >>> turned(4, 0, 90, False)
        (0, 4)
    """
    if mirror:
        y = -y
    if rotation == 90:
        return (0 - y, x)
    if rotation == 180:
        return (0 - x, 0 - y)
    if rotation == 270:
        return (y, 0 - x)
    return (x, y)


@lru_cache(maxsize=4096)
def _offsets(key: str, rotation: int, mirror: bool, poles: int) -> tuple[Point, ...]:
    turns = (turned(x, y, rotation, mirror) for x, y in definition(key).pin_offsets(poles))
    return tuple((int(x), int(y)) for x, y in turns)


@lru_cache(maxsize=4096)
def _spans(key: str, rotation: int, mirror: bool, poles: int) -> tuple[tuple[Point, Point], ...]:
    if is_block(key):
        ends = [[turned(x, y, rotation, mirror) for x, y in span] for span in block_spans(key)]
        return tuple((a, b) for span in ends for a, b in (sorted((int(x), int(y)) for x, y in span),))
    shape = definition(key)
    offsets = _offsets(key, rotation, mirror, poles)
    size = len(shape.pins)
    spans = []
    for pole in range(poles):
        for a, b in shape.through:
            first, second = sorted((offsets[pole * size + a], offsets[pole * size + b]))
            spans.append((first, second))
    return tuple(spans)


@lru_cache(maxsize=4096)
def pin_numbers(key: str, rotation: int, mirror: bool, poles: int) -> tuple[tuple[int, ...], tuple[Point, ...]]:
    """Return how far a symbol's pins lie from its place, as numbers of points (see groups.py), and the carried pairs.

    The number of a pin's point is the number of the symbol's place and that of the pin.
    """
    offsets = _offsets(key, rotation, mirror, poles)
    return tuple((y << SHIFT) + x for x, y in offsets), definition(key).carries


def pin_points(symbol: Symbol) -> list[Point]:
    """Return the grid points of a symbol's pins, pole by pole in the definition's order."""
    x, y = symbol.x, symbol.y
    offsets = _offsets(symbol.definition, symbol.rotation, symbol.mirror, len(symbol.units))
    return [(x + dx, y + dy) for dx, dy in offsets]


def through_spans(symbol: Symbol) -> list[tuple[Point, Point]]:
    """Return the pairs of grid points a wire is cut between, smaller point first."""
    x, y = symbol.x, symbol.y
    spans = _spans(symbol.definition, symbol.rotation, symbol.mirror, len(symbol.units))
    return [((x + a, y + b), (x + c, y + d)) for (a, b), (c, d) in spans]


@lru_cache(maxsize=4096)
def _body(key: str, rotation: int, mirror: bool) -> tuple[int, int, int, int]:
    width, height = block_body(key)
    (ax, ay), (bx, by) = (turned(x, y, rotation, mirror) for x, y in ((0, 0), (width, height)))
    return int(min(ax, bx)), int(min(ay, by)), int(max(ax, bx)), int(max(ay, by))


def lies_beneath(symbol: Symbol, wire: Wire) -> bool:
    """Return whether a part of a wire lies within the body of a block."""
    left, top, right, bottom = _body(symbol.definition, symbol.rotation, symbol.mirror)
    left, top, right, bottom = left + symbol.x, top + symbol.y, right + symbol.x, bottom + symbol.y
    if wire.y1 == wire.y2:
        return top < wire.y1 < bottom and min(wire.x1, wire.x2) < right and max(wire.x1, wire.x2) > left
    return left < wire.x1 < right and min(wire.y1, wire.y2) < bottom and max(wire.y1, wire.y2) > top


def carried_pins(symbol: Symbol) -> tuple[tuple[int, int], ...]:
    """Return the pairs of pin indexes that are one potential though two nets of conductors."""
    return definition(symbol.definition).carries


@lru_cache(maxsize=4096)
def _extent(key: str, rotation: int, mirror: bool, poles: int, standard: str) -> tuple[float, float, float, float]:
    left, top, right, bottom = definition(key).extent(poles, standard)
    corners = [turned(x, y, rotation, mirror) for x, y in ((left, top), (right, top), (left, bottom), (right, bottom))]
    corners += _offsets(key, rotation, mirror, poles)
    xs, ys = [x for x, _ in corners], [y for _, y in corners]
    return min(xs), min(ys), max(xs), max(ys)


def extent_of(symbol: Symbol, standard: str = "iec") -> tuple[float, float, float, float]:
    """Return (left, top, right, bottom) of a placed symbol in grid steps, pins included."""
    x, y = symbol.x, symbol.y
    left, top, right, bottom = _extent(symbol.definition, symbol.rotation, symbol.mirror, len(symbol.units), standard)
    return x + left, y + top, x + right, y + bottom


def lies_upright(symbol: Symbol) -> bool:
    """Return whether the symbol's wires run vertically as it is placed."""
    vertical = definition(symbol.definition).axis == "v"
    return vertical != (symbol.rotation in (90, 270))
