"""A sheet or plan as DXF (R2010, millimetres, y upwards): lines, texts and fills on layers by what they are.

Layers: LINES, TEXT, FILLS (outlines of what is filled), WIRES in the colours of their insulation, SYMBOLS.
"""

from __future__ import annotations

import io
from datetime import datetime
from math import cos, radians, sin

import ezdxf.filemanagement
from ezdxf._options import options
from ezdxf.colors import rgb2int
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.layouts.base import BaseLayout

from jolly_core.drawing import turned
from jolly_core.model import Project
from jolly_core.scenes import Arc, Art, Circle, Dot, Line, Poly, Prim, Rect, Scene, Strand, Text, art_of
from jolly_core.scenes.paints import PENS, wire_paint

LAYERS = ("LINES", "TEXT", "FILLS", "WIRES", "SYMBOLS")
_ALIGN = {
    "start": TextEntityAlignment.LEFT,
    "middle": TextEntityAlignment.CENTER,
    "end": TextEntityAlignment.RIGHT,
}


def scenes_dxf(project: Project, scenes: list[Scene]) -> bytes:
    """Return scenes as one DXF file, each beside the one before; equal scenes give equal bytes."""
    options.write_fixed_meta_data_for_testing = True
    document = ezdxf.filemanagement.new("R2010", units=4)
    paint_scenes(project, document, document.modelspace(), scenes)
    moment = datetime(2000, 1, 1).toordinal() + 1721424.5
    document.header["$TDCREATE"] = document.header["$TDUPDATE"] = moment
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode("utf-8")


def paint_scenes(project: Project, document: Drawing, space: BaseLayout, scenes: list[Scene]) -> None:
    """Draw scenes into a space of a DXF document, each beside the one before; layers that lack are made."""
    for name in LAYERS:
        if name not in document.layers:
            document.layers.add(name)
    left = 0.0
    for scene in scenes:
        painter = _Painter(project, space, left, scene.height)
        for item in scene.items.values():
            for prim in item.placed():
                painter.paint(prim)
        left += scene.width + 20


class _Painter:
    def __init__(self, project: Project, space: BaseLayout, left: float, height: float) -> None:
        self.project = project
        self.space = space
        self.left = left
        self.height = height
        self.standard = project.settings.standard

    def at(self, x: float, y: float) -> tuple[float, float]:
        """Return a point of the scene in the drawing."""
        return round(self.left + x, 4), round(self.height - y, 4)

    def paint(self, prim: Prim, layer: str = "LINES") -> None:
        """Draw a primitive; pictures are left out."""
        look: dict[str, object] = {"layer": layer}
        if isinstance(prim, Line | Poly | Rect | Circle | Arc):
            look["lineweight"] = round(PENS[prim.pen].mm * 100)
        match prim:
            case Line():
                self.space.add_line(self.at(prim.x1, prim.y1), self.at(prim.x2, prim.y2), dxfattribs=look)
            case Poly():
                pairs = zip(prim.points[::2], prim.points[1::2], strict=True)
                self.space.add_lwpolyline([self.at(x, y) for x, y in pairs], dxfattribs=look)
            case Rect():
                corners = ((0, 0), (prim.width, 0), (prim.width, prim.height), (0, prim.height))
                points = [self.at(prim.x + dx, prim.y + dy) for dx, dy in corners]
                look["layer"] = "FILLS" if prim.tone else layer
                self.space.add_lwpolyline(points, close=True, dxfattribs=look)
            case Circle():
                self.space.add_circle(self.at(prim.cx, prim.cy), prim.radius, dxfattribs=look)
            case Dot():
                self.space.add_circle(self.at(prim.cx, prim.cy), prim.radius, dxfattribs={"layer": layer})
            case Arc():
                self.space.add_arc(self.at(prim.cx, prim.cy), prim.radius, -prim.end, -prim.start, dxfattribs=look)
            case Strand():
                self._wire(prim)
            case Text():
                self._text(prim)
            case Art():
                self._symbol(prim)
            case _:
                pass

    def _wire(self, wire: Strand) -> None:
        first = wire_paint(wire.colour).first.lstrip("#")
        red, green, blue = (int(first[n : n + 2], 16) for n in (0, 2, 4))
        look = {"layer": "WIRES", "true_color": rgb2int((red, green, blue))}
        self.space.add_line(self.at(wire.x1, wire.y1), self.at(wire.x2, wire.y2), dxfattribs=look)

    def _text(self, text: Text) -> None:
        look = {"layer": "TEXT", "height": text.size * 0.72, "rotation": 90 if text.upward else 0}
        entity = self.space.add_text(text.words, dxfattribs=look)
        entity.set_placement(self.at(text.x, text.y), align=_ALIGN[text.anchor])

    def _symbol(self, art: Art) -> None:
        for prim in art_of(art.key, art.poles, self.standard):
            if isinstance(prim, Text):
                dx, dy = turned(prim.x, prim.y - prim.size / 3, art.rotation, art.mirror)
                self._text(Text(art.x + dx, art.y + dy + prim.size / 3, prim.size, prim.anchor, prim.role, prim.words))
            else:
                for line in _turned_lines(prim, art):
                    self.paint(line, "SYMBOLS")


def _turned_lines(prim: Prim, art: Art) -> list[Prim]:
    """Return a primitive of a symbol where the symbol stands, mirrored and turned; arcs and boxes as lines."""

    def place(x: float, y: float) -> tuple[float, float]:
        dx, dy = turned(x, y, art.rotation, art.mirror)
        return art.x + dx, art.y + dy

    match prim:
        case Line():
            return [Line(*place(prim.x1, prim.y1), *place(prim.x2, prim.y2), prim.pen)]
        case Circle():
            return [Circle(*place(prim.cx, prim.cy), prim.radius, prim.pen)]
        case Dot():
            return [Dot(*place(prim.cx, prim.cy), prim.radius)]
        case Poly():
            pairs = zip(prim.points[::2], prim.points[1::2], strict=True)
            return [Poly(tuple(n for x, y in pairs for n in place(x, y)), prim.pen)]
        case Rect():
            x, y, w, h = prim.x, prim.y, prim.width, prim.height
            corners = ((x, y), (x + w, y), (x + w, y + h), (x, y + h), (x, y))
            return [Poly(tuple(n for a, b in corners for n in place(a, b)), prim.pen)]
        case Arc():
            return [Poly(tuple(n for a, b in _along(prim) for n in place(a, b)), prim.pen)]
        case _:
            return []


def _along(arc: Arc) -> list[tuple[float, float]]:
    steps = 16
    angles = (radians(arc.start + (arc.end - arc.start) * n / steps) for n in range(steps + 1))
    return [(arc.cx + arc.radius * cos(a), arc.cy + arc.radius * sin(a)) for a in angles]
