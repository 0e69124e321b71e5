"""Outline drawings of parts, laid into the rectangle or circle a device takes on plate or door."""

from __future__ import annotations

from collections.abc import Callable
from math import cos, radians, sin

from jolly_core.library import Primitive, outline_art

from .primitives import Prim, text

PEN = "fine"
ARC_STEP_DEG = 15.0
_Place = Callable[[float, float], tuple[float, float]]


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

    return [made for prim in outline_art(key) for made in _laid(prim, at)]


def _laid(prim: Primitive, at: _Place) -> list[Prim]:
    kind, *v = prim
    if kind in ("line", "dash"):
        return [["line", *at(v[0], v[1]), *at(v[2], v[3]), PEN]]
    if kind in ("rect", "solid"):
        (ax, ay), (bx, by) = at(v[0], v[1]), at(v[2], v[3])
        return [["rect", min(ax, bx), min(ay, by), abs(bx - ax), abs(by - ay), PEN]]
    if kind == "circle":
        return [["circle", *at(v[0], v[1]), v[2], PEN]]
    if kind == "text":
        return [text(*at(v[0], v[1]), v[3], v[2], anchor="middle", role="label")]
    points = list(v[0]) if kind == "poly" else arc_points(*v)
    return [["poly", [n for i in range(0, len(points), 2) for n in at(points[i], points[i + 1])], PEN]]


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
