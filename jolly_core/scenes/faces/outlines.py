"""Outline drawings of parts, laid into the rectangle or circle a device takes on plate or door."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from math import cos, radians, sin

from jolly_core.library import outline_art

from ..base.graphics import drawn
from ..base.primitives import Arc, Circle, Line, PenName, Poly, Prim, Rect, Text, text

PEN: PenName = "fine"
ARC_STEP_DEG = 15.0
_OntoFace = Callable[[float, float], tuple[float, float]]


def outline_prims(key: str, x: float, y: float, size: tuple[float, float], *, turned: bool = False) -> list[Prim]:
    """Return an outline drawing as primitives of a scene.

    Args:
        key: the outline's key.
        x, y: upper left corner of the device as it is placed, mm.
        size: the part's width and height, mm, before it is turned.
        turned: it sits on an upright rail, turned clockwise.

    Raises:
        FileError: the key is none of an outline.
    """
    _, height = size

    def at(px: float, py: float) -> tuple[float, float]:
        return (x + height - py, y + px) if turned else (x + px, y + py)

    return [_laid(drawn(kept, PEN), at) for kept in outline_art(key)]


def _laid(prim: Prim, at: _OntoFace) -> Prim:
    """Return a primitive of an outline where its device is; what is filled is left open, so that tags can be read."""
    match prim:
        case Line():
            return Line(*at(prim.x1, prim.y1), *at(prim.x2, prim.y2), PEN)
        case Rect():
            (ax, ay), (bx, by) = at(prim.x, prim.y), at(prim.x + prim.width, prim.y + prim.height)
            return Rect(min(ax, bx), min(ay, by), abs(bx - ax), abs(by - ay), PEN)
        case Circle():
            return Circle(*at(prim.cx, prim.cy), prim.radius, PEN)
        case Text():
            return text(*at(prim.x, prim.y), prim.size, prim.words, anchor="middle", role="label")
        case Poly():
            return _poly(prim.points, at)
        case Arc():
            return _poly(arc_points(prim.cx, prim.cy, prim.radius, prim.start, prim.end), at)
        case _:
            return prim  # no other kind is in an outline


def _poly(points: Sequence[float], at: _OntoFace) -> Poly:
    return Poly(tuple(n for i in range(0, len(points), 2) for n in at(points[i], points[i + 1])), PEN)


def arc_points(cx: float, cy: float, radius: float, start_deg: float, end_deg: float) -> list[float]:
    """Return points along an arc, x and y in turn, no further apart than ARC_STEP_DEG.

    Example:
        >>> [round(n, 3) for n in arc_points(0, 0, 2, 0, 90)][:2]
        [2.0, 0.0]
    """
    steps = max(1, round(abs(end_deg - start_deg) / ARC_STEP_DEG))
    points: list[float] = []
    for n in range(steps + 1):
        angle = radians(start_deg + (end_deg - start_deg) * n / steps)
        points += [cx + radius * cos(angle), cy + radius * sin(angle)]
    return points
