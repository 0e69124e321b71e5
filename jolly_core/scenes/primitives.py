"""Primitives of scenes, all in sheet millimetres, y downwards.

A primitive is a list whose first value is its kind, so that it is JSON as it stands:

    ["line", x1, y1, x2, y2, pen]
    ["poly", [x1, y1, x2, y2, ...], pen]
    ["rect", x, y, width, height, pen]
    ["box", x, y, width, height, pen, tone]    a filled rectangle; tone is a name in TONES
    ["circle", cx, cy, radius, pen]
    ["dot", cx, cy, radius]
    ["wire", x1, y1, x2, y2, colour]           colour is an IEC 60757 code
    ["art", key, x, y, rotation, mirror, poles] symbol graphics, see `art_of`
    ["text", x, y, size, anchor, role, text, link]  anchor start|middle|end at the baseline, link an entity id or ""
    ["picture", x, y, width, height, id]       a picture of the project

Pens and text roles are names; each painter has one table for them.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from math import floor
from typing import Any

from jolly_core.drawing import ADVANCE, GRID_MM
from jolly_core.library import POLE_PITCH, definition
from jolly_core.model import Sheet

Prim = list[Any]
PENS_MM: dict[str, float] = {"ink": 0.35, "thin": 0.18, "dash": 0.25, "frame": 0.5, "edge": 1.0, "fine": 0.5}
TONES = ("plate", "rail", "duct", "device", "paper")
ROLES = ("tag", "text", "pin", "number", "reference", "label", "title", "heading", "line")
LINE_PITCH = 1.3  # of lines of one text, as a share of its size
SMALLEST_MM = 1.8  # of any text on any paper
NEEDED = ("tag", "title", "line", "reference")  # texts that are there at every scale


@dataclass(slots=True)
class Item:
    """What one thing looks like: its primitives and the facts a view needs to hit and select it.

    Attributes:
        id: the entity's id, with a prefix for what is derived ("table:...", "frame").
        kind: "symbol", "wire", "continuation", "note", "band", "dot", "table", "number", "frame"; in layouts "plate",
            "rail", "duct", "placing"; on form boards "segment", "node".
        box: left, top, right, bottom in mm for hitting and zooming.
        facts: small facts such as the device or net; JSON values only.
    """

    id: str
    kind: str
    prims: list[Prim]
    box: tuple[float, float, float, float]
    facts: dict[str, Any] = field(default_factory=dict)


@dataclass(slots=True)
class Scene:
    """A drawing: size in mm and items by id in painting order; the sheet whose frame it has, None without one."""

    width: float
    height: float
    items: dict[str, Item]
    sheet: Sheet | None = None


def text(
    x: float, y: float, size: float, content: str, *, anchor: str = "start", role: str = "text", link: str = ""
) -> Prim:
    """Return a text primitive."""
    return ["text", round(x, 2), round(y, 2), size, anchor, role, content, link]


def pin_link(pin: tuple[str, int]) -> str:
    """Return the link that leads to a pin: the id of its symbol and the pin's place among the symbol's."""
    return f"{pin[0]}.{pin[1]}"


def moved(prim: Prim, dx: float, dy: float) -> Prim:
    """Return a primitive moved by an offset in mm.

    Example:
        >>> moved(["line", 0, 0, 4, 0, "ink"], 1, 2)
        ['line', 1, 2, 5, 2, 'ink']
    """
    kind, *v = prim
    if kind == "poly":
        return [kind, [n + (dy if i % 2 else dx) for i, n in enumerate(v[0])], *v[1:]]
    if kind in ("line", "wire"):
        return [kind, v[0] + dx, v[1] + dy, v[2] + dx, v[3] + dy, *v[4:]]
    if kind == "art":
        return [kind, v[0], v[1] + dx, v[2] + dy, *v[3:]]
    return [kind, v[0] + dx, v[1] + dy, *v[2:]]


def fit(content: str, width_mm: float, size: float, smallest: float = SMALLEST_MM) -> tuple[str, float]:
    """Return the text and the size at which it stays within a width; shrunk first, then cut with an ellipsis.

    Example:
        >>> fit("Loading auger", 100, 3)
        ('Loading auger', 3)
    """
    if not content:
        return content, size
    wanted = len(content) * ADVANCE * size
    if wanted <= width_mm:
        return content, size
    size = max(smallest, floor(100 * width_mm / (len(content) * ADVANCE)) / 100)
    room = int(width_mm / (ADVANCE * size) + 1e-6)
    return (content if len(content) <= room else content[: max(1, room - 1)] + "…"), size


def scaled(prim: Prim, factor: float) -> Prim:
    """Return a primitive with all lengths times a factor; symbols keep their size, so that scenes with some stay 1:1.

    Example:
        >>> scaled(["rect", 10, 20, 30, 40, "thin"], 0.5)
        ['rect', 5.0, 10.0, 15.0, 20.0, 'thin']
    """
    kind, *v = prim
    if kind == "poly":
        return [kind, [n * factor for n in v[0]], *v[1:]]
    lengths = {"text": 3, "circle": 3, "dot": 3, "art": 0}.get(kind, 4)
    return [kind, *(n * factor for n in v[:lengths]), *v[lengths:]]


def legible(prims: list[Prim], scale: float) -> list[Prim]:
    """Return primitives whose texts can be read at a scale: tags grow to SMALLEST_MM, what matters less is left out.

    Example:
        >>> legible([text(0, 0, 6.0, "-FC1", role="tag"), text(0, 0, 6.0, "BW-M10")], 0.2)
        [['text', 0, 0, 9.0, 'start', 'tag', '-FC1', '']]
    """
    found = []
    for p in prims:
        if p[0] == "text" and p[3] * scale < SMALLEST_MM - 1e-9:
            if p[5] not in NEEDED:
                continue
            p = [*p[:3], round(SMALLEST_MM / scale, 3), *p[4:]]
        found.append(p)
    return found


def lay(
    content: str, width: float, height: float, size: float, smallest: float = SMALLEST_MM
) -> tuple[list[str], float]:
    """Return the lines of a text and the size at which they stay within a cell, mm.

    The text is broken between words, then made smaller, then cut with an ellipsis; a word that is longer than the
    cell is broken. Lines lie LINE_PITCH times the size apart.

    Example:
        >>> lay("Loading auger, power", 30.0, 10.0, 3.0)
        (['Loading auger,', 'power'], 3.0)
    """
    words = content.split()
    if not words:
        return [], size
    while True:
        room, rows = int(width / (ADVANCE * size) + 1e-6), int(height / (LINE_PITCH * size) + 1e-6)
        lines = _broken(words, room) if room > 0 else []
        if lines and len(lines) <= rows:
            return lines, size
        if size <= smallest:
            break
        size = max(smallest, round(size - 0.1, 2))
    rows, room = max(1, rows), max(1, room)
    kept = _broken(words, room)[:rows]
    kept[-1] = kept[-1][: room - 1] + "…" if room > 1 else "…"
    return kept, size


def _broken(words: list[str], room: int) -> list[str]:
    lines = [""]
    for word in words:
        if lines[-1] and len(lines[-1]) + 1 + len(word) <= room:
            lines[-1] += f" {word}"
            continue
        pieces = [word[i : i + room] for i in range(0, len(word), room)]
        if not lines[-1]:
            lines.pop()
        lines += pieces
    return lines


def art_of(key: str, poles: int, standard: str) -> list[Prim]:
    """Return a symbol's graphics in mm around its origin, unturned: line, dash, poly, circle, arc, rect, solid, text.

    An arc is ["arc", cx, cy, radius, start_deg, end_deg], angles clockwise from the x axis as y grows downwards.
    """
    shape = definition(key)
    prims: list[Prim] = []
    for pole in range(poles):
        down = pole * POLE_PITCH
        for kind, *v in shape.art(standard):
            if kind == "poly":
                prims.append(["poly", [_mm(n + (down if i % 2 else 0)) for i, n in enumerate(v[0])]])
            elif kind in ("circle", "arc"):
                prims.append([kind, _mm(v[0]), _mm(v[1] + down), _mm(v[2]), *v[3:]])
            elif kind == "text":
                prims.append(["text", _mm(v[0]), _mm(v[1] + down), v[2], _mm(v[3])])
            else:
                prims.append([kind, _mm(v[0]), _mm(v[1] + down), _mm(v[2]), _mm(v[3] + down)])
    if poles > 1 and shape.unit == "pole":
        left, top, right, _ = shape.extent(1, standard)
        middle = (left + right) / 2
        lean = -0.52 if standard == "iec" else 0.0
        prims.append(["dash", _mm(middle), _mm(lean), _mm(middle), _mm(POLE_PITCH * (poles - 1) + lean)])
    return prims


def _mm(steps: float) -> float:
    return round(steps * GRID_MM, 3)
