"""A sheet or plan as DXF (R2010, millimetres, y upwards): lines, texts and fills on layers by what they are.

`layers.py` names the layers. Wires have the colours of their insulation. Each symbol is a block, put where it stands.
"""

from __future__ import annotations

import re
from typing import TYPE_CHECKING, Any

from jolly_core.drawing import ADVANCE, turned
from jolly_core.model import Project
from jolly_core.scenes import Arc, Art, Circle, Dot, Image, Line, Poly, Prim, Rect, Scene, Strand, Text, art_of
from jolly_core.scenes.base.paints import PENS, wire_paint

from .dxffile import dxf_bytes, new_document
from .layers import FILLS, LAYERS, LINES, layer_of

if TYPE_CHECKING:
    from ezdxf.document import Drawing
    from ezdxf.layouts.base import BaseLayout

NAME_MM = 2.5  # letters of the name of a picture
APART_MM = 20.0  # between two scenes in one file
WHITE, BLACK_OR_WHITE = 240, 7  # the least of red, green and blue that is no ink on paper; what DXF shows there instead
_ALIGN = {"start": "LEFT", "middle": "CENTER", "end": "RIGHT"}
_BEFORE = {"start": 0.0, "middle": 0.5, "end": 1.0}  # the share of a text before the point it is placed by


def scenes_dxf(project: Project, scenes: list[Scene]) -> bytes:
    """Return scenes as one DXF file, each beside the one before; equal scenes give equal bytes."""
    document = new_document()
    width = paint_scenes(project, document, document.modelspace(), scenes)
    return dxf_bytes(document, width, max((s.height for s in scenes), default=0.0))


def paint_scenes(project: Project, document: Drawing, space: BaseLayout, scenes: list[Scene]) -> float:
    """Draw scenes into a space of a DXF document, each beside the one before; layers that lack are made.

    Returns:
        How wide they are together, mm.
    """
    for name in LAYERS:
        if name not in document.layers:
            document.layers.add(name)
    left = 0.0
    blocks = _Blocks(project, document)
    for scene in scenes:
        painter = _DxfPainter(blocks, space, left, scene.height)
        for item in scene.items.values():
            for prim in item.placed():
                painter.paint(prim, layer_of(item, prim))
        left += scene.width + APART_MM
    return max(0.0, left - APART_MM)


class _Blocks:
    """The blocks of a document, one for each symbol's drawing and number of poles."""

    def __init__(self, project: Project, document: Drawing) -> None:
        self.document = document
        self.project = project
        self.standard = project.settings.standard
        self.names: dict[tuple[str, int], str] = {}

    def of(self, art: Art) -> str:
        """Return the name of a symbol's block, which is made when first asked for; its texts are no part of it."""
        key = (art.key, art.poles)
        if key not in self.names:
            plain = re.sub(r"[^A-Za-z0-9_-]+", "-", art.key).strip("-") or "symbol"
            name = f"{plain}-{art.poles}" if art.poles > 1 else plain
            while name in self.document.blocks:
                name += "-a"
            painter = _DxfPainter(self, self.document.blocks.new(name), 0.0, 0.0)
            for prim in self.graphics(art):
                if not isinstance(prim, Text):
                    painter.paint(prim, "0")  # takes the layer of what it is put on
            self.names[key] = name
        return self.names[key]

    def graphics(self, art: Art) -> list[Prim]:
        """Return a symbol's graphics about its origin."""
        return art_of(art.key, art.poles, self.standard)


class _DxfPainter:
    def __init__(self, blocks: _Blocks, space: BaseLayout, left: float, height: float) -> None:
        self.blocks = blocks
        self.space = space
        self.left = left
        self.height = height

    def at(self, x: float, y: float) -> tuple[float, float]:
        """Return a point of the scene in the drawing."""
        return round(self.left + x, 4), round(self.height - y, 4)

    def paint(self, prim: Prim, layer: str) -> None:
        """Draw a primitive; of a picture its frame and name, as a DXF file holds no pictures of its own."""
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
                look["layer"] = FILLS if prim.tone and layer == LINES else layer
                self.space.add_lwpolyline(points, close=True, dxfattribs=look)
            case Circle():
                self.space.add_circle(self.at(prim.cx, prim.cy), prim.radius, dxfattribs=look)
            case Dot():
                self.space.add_circle(self.at(prim.cx, prim.cy), prim.radius, dxfattribs={"layer": layer})
            case Arc():
                self.space.add_arc(self.at(prim.cx, prim.cy), prim.radius, -prim.end, -prim.start, dxfattribs=look)
            case Strand():
                self._wire(prim, layer)
            case Text():
                self._text(prim, layer)
            case Art():
                self._symbol(prim, layer)
            case Image():
                self._picture(prim, layer)
            case _:
                pass

    def _wire(self, wire: Strand, layer: str) -> None:
        from ezdxf.colors import rgb2int

        first = wire_paint(wire.colour).first.lstrip("#")
        red, green, blue = (int(first[n : n + 2], 16) for n in (0, 2, 4))
        look: dict[str, Any] = {"layer": layer, "true_color": rgb2int((red, green, blue))}
        if min(red, green, blue) > WHITE:  # white on paper is not seen: what is black there
            look = {"layer": layer, "color": BLACK_OR_WHITE}
        self.space.add_line(self.at(wire.x1, wire.y1), self.at(wire.x2, wire.y2), dxfattribs=look)

    def _text(self, text: Text, layer: str) -> None:
        look = {"layer": layer, "height": text.size * 0.72, "rotation": 90 if text.upward else 0}
        from ezdxf.enums import TextEntityAlignment

        entity = self.space.add_text(text.words, dxfattribs=look)
        there = self.at(text.x, text.y)
        entity.set_placement(there, align=TextEntityAlignment[_ALIGN[text.anchor]])
        # Programs that know no alignment begin a text at its insertion point.
        back = _BEFORE[text.anchor] * len(text.words) * ADVANCE * text.size
        dx, dy = (0.0, back) if text.upward else (back, 0.0)
        entity.dxf.insert = (round(there[0] - dx, 4), round(there[1] - dy, 4))

    def _picture(self, image: Image, layer: str) -> None:
        picture = self.blocks.project.pictures.get(image.picture)
        if picture is None:
            return
        self.paint(Rect(image.x, image.y, image.width, image.height, "thin"), layer)
        size = min(NAME_MM, image.height / 2, 0.9 * image.width / (ADVANCE * max(1, len(picture.name))))
        middle = image.x + image.width / 2, image.y + (image.height + size) / 2
        self._text(Text(*middle, size, "middle", "label", picture.name), layer)

    def _symbol(self, art: Art, layer: str) -> None:
        """Put a symbol's block, mirrored and then turned, and its letters upright beside it."""
        look = {"layer": layer, "rotation": -art.rotation, "yscale": -1 if art.mirror else 1}
        self.space.add_blockref(self.blocks.of(art), self.at(art.x, art.y), dxfattribs=look)
        for prim in self.blocks.graphics(art):
            if isinstance(prim, Text):
                dx, dy = turned(prim.x, prim.y - prim.size / 3, art.rotation, art.mirror)
                there = Text(art.x + dx, art.y + dy + prim.size / 3, prim.size, prim.anchor, prim.role, prim.words)
                self._text(there, layer)
