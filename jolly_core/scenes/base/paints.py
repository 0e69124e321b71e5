"""The one table of pens, dashes, fills, inks, faces and insulation colours: paints.json beside this module.

The browser, the PDF, the SVG and the DXF writer read it, so that what is seen is what is printed.
"""

from __future__ import annotations

import json
from dataclasses import dataclass
from importlib.resources import files
from typing import Any


@dataclass(slots=True, frozen=True)
class Pen:
    """A line: its width in mm, and the lengths of a dash and the gap behind it in mm, none when it is solid."""

    mm: float
    dash: tuple[float, float] | None = None


@dataclass(slots=True, frozen=True)
class Face:
    """A face of texts: family and weight as a browser knows them, its generic family, and the font file for papers."""

    family: str
    weight: int
    generic: str
    file: str


@dataclass(slots=True, frozen=True)
class Role:
    """What a text is: the face it is set in, and the colour of its ink."""

    face: str
    colour: str


@dataclass(slots=True, frozen=True)
class WirePaint:
    """How a wire of a colour is painted.

    Attributes:
        first, second: its colours, "" for no second one.
        edged: whether it has an edge in ink, as it would hardly be seen.
        mm: how wide the colour is; narrower where all of it is light, so that screens of few pixels show the edge.
    """

    first: str
    second: str
    edged: bool
    mm: float


@dataclass(slots=True, frozen=True)
class FileLayer:
    """A layer of a cutting drawing: its colour by the index of DXF, and the pen."""

    colour: int
    pen: Pen


_table: dict[str, Any] = json.loads(files("jolly_core.scenes").joinpath("paints.json").read_text(encoding="utf-8"))
_wire: dict[str, Any] = _table["wire"]

INKS: dict[str, str] = _table["inks"]
PENS: dict[str, Pen] = {
    name: Pen(p["mm"], tuple(p["dash"]) if "dash" in p else None) for name, p in _table["pens"].items()
}
TONES: dict[str, str] = _table["tones"]
FACES: dict[str, Face] = {name: Face(**f) for name, f in _table["faces"].items()}
ROLES: dict[str, Role] = {name: Role(r["face"], INKS[r["ink"]]) for name, r in _table["roles"].items()}
LAYERS: dict[str, FileLayer] = {name: FileLayer(y["colour"], PENS[y["pen"]]) for name, y in _table["layers"].items()}
WIRE_PEN, WIRE_EDGE_MM = Pen(_wire["mm"], tuple(_wire["dash"])), float(_wire["edge_mm"])
COLOURS: dict[str, str] = _wire["colours"]
LIGHT = frozenset(_wire["light"])


def wire_paint(code: str) -> WirePaint:
    """Return how a wire is painted by the code of its colour (IEC 60757); four letters are two colours.

    Example:
        >>> wire_paint("GNYE")
        WirePaint(first='#2E8B45', second='#E8C81E', edged=True, mm=0.5)
    """
    first, second = code[:2], code[2:]
    other: str = _wire["other"]
    parts = {first, second} - {""}
    width = float(_wire["light_mm"] if parts and parts <= LIGHT else _wire["mm"])
    also = COLOURS.get(second, other) if second else ""
    return WirePaint(COLOURS.get(first, other), also, bool(LIGHT & parts), width)
