"""Graphics of symbols and outlines as they are kept in files, made into primitives of scenes.

They are kept as lists that begin with their kind (docs/formats/symbol.md); this is the one place that reads them so.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from typing import Any

from jolly_core.drawing import GRID_MM
from jolly_core.library import POLE_PITCH, Primitive, definition
from jolly_core.library.added import added
from jolly_core.model import FileError

from .primitives import Arc, Circle, Line, PenName, Poly, Prim, Rect, Text


def art_of(key: str, poles: int, standard: str) -> list[Prim]:
    """Return a symbol's graphics in mm around its origin, unturned; "" stands for no symbol.

    Raises:
        FileError: no symbol has this key.
    """
    return list(_art(key, poles, standard))


@lru_cache(maxsize=4096)
def _art(key: str, poles: int, standard: str) -> tuple[Prim, ...]:
    shape = definition(key)
    prims: list[Prim] = []
    for pole in range(poles):
        prims += [_in_steps(kept, POLE_PITCH * pole) for kept in shape.art(standard)]
    if poles > 1 and shape.unit == "pole":
        left, _, right, _ = shape.extent(1, standard)
        middle, lean = _mm((left + right) / 2), -0.52 if standard == "iec" else 0.0
        prims.append(Line(middle, _mm(lean), middle, _mm(POLE_PITCH * (poles - 1) + lean), "dash"))
    return tuple(prims)


added.clear.append(_art.cache_clear)


def _in_steps(kept: Primitive, down: float) -> Prim:
    """Return what is kept in grid steps in mm, some steps further down."""
    kind, *v = kept
    if kind == "poly":
        return drawn((kind, [_mm(n + (down if i % 2 else 0)) for i, n in enumerate(v[0])]), "ink")
    if kind in ("circle", "arc"):
        return drawn((kind, _mm(v[0]), _mm(v[1] + down), _mm(v[2]), *v[3:]), "ink")
    if kind == "text":
        return drawn((kind, _mm(v[0]), _mm(v[1] + down), v[2], _mm(v[3])), "ink")
    return drawn((kind, _mm(v[0]), _mm(v[1] + down), _mm(v[2]), _mm(v[3] + down)), "ink")


def drawn(kept: Sequence[Any], pen: PenName) -> Prim:
    """Return graphics as they are kept as a primitive with a pen; dashed lines have their own.

    Example:
        >>> drawn(("solid", 4, 6, 2, 1), "ink")
        Rect(x=2, y=1, width=2, height=5, pen='ink', tone='ink', kind='rect')
    """
    kind, *v = kept
    match kind:
        case "line" | "dash":
            return Line(v[0], v[1], v[2], v[3], "dash" if kind == "dash" else pen)
        case "poly":
            return Poly(tuple(v[0]), pen)
        case "circle":
            return Circle(v[0], v[1], v[2], pen)
        case "arc":
            return Arc(v[0], v[1], v[2], v[3], v[4], pen)
        case "text":
            return Text(v[0], v[1], v[3], "middle", "label", v[2])
        case _:
            x, y = min(v[0], v[2]), min(v[1], v[3])
            return Rect(x, y, abs(v[2] - v[0]), abs(v[3] - v[1]), pen, "ink" if kind == "solid" else None)


def _mm(steps: float) -> float:
    return round(steps * GRID_MM, 3)


def kept(prim: Prim) -> list[Any]:
    """Return a primitive as graphics are kept in files, the other way round than `drawn`.

    Raises:
        FileError: graphics of symbols have nothing like it.

    Example:
        >>> kept(Rect(2, 1, 2, 5, "ink", "ink"))
        ['solid', 2, 1, 4, 6]
    """
    match prim:
        case Line():
            return ["dash" if prim.pen == "dash" else "line", prim.x1, prim.y1, prim.x2, prim.y2]
        case Poly():
            return ["poly", list(prim.points)]
        case Circle():
            return ["circle", prim.cx, prim.cy, prim.radius]
        case Arc():
            return ["arc", prim.cx, prim.cy, prim.radius, prim.start, prim.end]
        case Text():
            return ["text", prim.x, prim.y, prim.words, prim.size]
        case Rect():
            return ["solid" if prim.tone else "rect", prim.x, prim.y, prim.x + prim.width, prim.y + prim.height]
        case _:
            raise FileError(f"A {prim.kind} is no part of a symbol's graphics.", field="iec")
