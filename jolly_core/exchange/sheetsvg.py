"""Scenes as SVG, for small pictures of sheets; painted as in the PDF."""

from __future__ import annotations

from collections.abc import Iterable
from html import escape
from itertools import groupby
from math import cos, radians, sin

from jolly_core.drawing import turned
from jolly_core.model import Project
from jolly_core.scenes import Arc, Art, Circle, Dot, Image, Item, Line, Poly, Prim, Rect, Scene, Strand, Text, art_of
from jolly_core.scenes.base.paints import FACES, INKS, PENS, ROLES, TONES, WIRE_EDGE_MM, WIRE_PEN, wire_paint

from .layers import layer_of

INK = INKS["ink"]


def scene_svg(project: Project, scene: Scene, *, texts: bool = True) -> str:
    """Return a scene as an SVG document in mm.

    Args:
        texts: whether texts are painted; in a picture of a few centimetres they only cost.
    """
    return document(scene.width, scene.height, painted(project, scene, texts=texts))


def document(width: float, height: float, body: str) -> str:
    """Return an SVG document of a width and a height in mm, on paper."""
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:g} {height:g}" width="{width:g}mm" '
        f'height="{height:g}mm"><rect width="100%" height="100%" fill="{TONES["paper"]}"/>{body}</svg>'
    )


def painted(project: Project, scene: Scene, *, texts: bool = True, prefix: str = "") -> str:
    """Return what a scene's document holds.

    Args:
        prefix: of the ids of its symbols, where several scenes stand in one document.
    """
    painter = _SvgPainter(project, texts, prefix)
    runs = groupby(scene.items.values(), key=layer_of)
    body = "".join(f'<g class="{layer.lower()}">{painter.items(items)}</g>' for layer, items in runs)
    symbols = "".join(painter.symbols.values())
    return (
        f"{f'<defs>{symbols}</defs>' if symbols else ''}"
        f'<g fill="none" stroke="{INK}" stroke-linecap="round" stroke-linejoin="round">{body}</g>'
    )


class _SvgPainter:
    def __init__(self, project: Project, texts: bool, prefix: str) -> None:
        self.project = project
        self.texts = texts
        self.prefix = prefix
        self.symbols: dict[tuple[str, int], str] = {}  # drawn once, by definition and poles

    def items(self, items: Iterable[Item]) -> str:
        return "".join(self.prim(p) for item in items for p in item.placed())

    def prim(self, prim: Prim) -> str:
        match prim:
            case Strand():
                return _wire(prim)
            case Art():
                return self._art(prim)
            case Text():
                return _text(prim) if self.texts else ""
            case Image():
                return self._picture(prim)
            case Dot():
                return f'<circle cx="{prim.cx:g}" cy="{prim.cy:g}" r="{prim.radius:g}" fill="{INK}" stroke="none"/>'
            case _:
                return _outline(prim)

    def _art(self, art: Art) -> str:
        prims = art_of(art.key, art.poles, self.project.settings.standard)
        flip = " scale(1 -1)" if art.mirror else ""
        key = (art.key, art.poles)
        if key not in self.symbols:
            body = "".join(self.prim(p) for p in prims if not isinstance(p, Text))
            self.symbols[key] = f'<g id="{self.prefix}symbol-{len(self.symbols) + 1}">{body}</g>'
        id = f"{self.prefix}symbol-{list(self.symbols).index(key) + 1}"
        turn = f"translate({art.x:g} {art.y:g}) rotate({art.rotation}){flip}"
        placed = f'<use href="#{id}" transform="{turn}"/>'
        for p in prims if self.texts else ():
            if isinstance(p, Text):
                dx, dy = turned(p.x, p.y - p.size / 3, art.rotation, art.mirror)
                placed += _text(Text(art.x + dx, art.y + dy + p.size / 3, p.size, p.anchor, p.role, p.words))
        return placed

    def _picture(self, image: Image) -> str:
        picture = self.project.pictures.get(image.picture)
        if picture is None:
            return ""
        href = f"data:{picture.media_type};base64,{picture.data}"
        place = f'x="{image.x:g}" y="{image.y:g}" width="{image.width:g}" height="{image.height:g}"'
        return f'<image {place} href="{href}"/>'


def _outline(prim: Line | Poly | Rect | Circle | Arc) -> str:
    width, dash = PENS[prim.pen].mm, PENS[prim.pen].dash
    pen = f'stroke-width="{width:g}"' + (f' stroke-dasharray="{dash[0]:g} {dash[1]:g}"' if dash else "")
    match prim:
        case Line():
            return f'<path d="M{prim.x1:g} {prim.y1:g}L{prim.x2:g} {prim.y2:g}" {pen}/>'
        case Poly():
            return f'<polyline points="{" ".join(f"{v:g}" for v in prim.points)}" {pen}/>'
        case Rect():
            place = f'x="{prim.x:g}" y="{prim.y:g}" width="{prim.width:g}" height="{prim.height:g}"'
            return f"<rect {place} {pen}" + (f' fill="{TONES[prim.tone]}"/>' if prim.tone else "/>")
        case Circle():
            filled = f' fill="{TONES[prim.tone]}"' if prim.tone else ""
            return f'<circle cx="{prim.cx:g}" cy="{prim.cy:g}" r="{prim.radius:g}" {pen}{filled}/>'
        case Arc():
            large, r = int(prim.end - prim.start > 180), prim.radius
            return f'<path d="M{_on(prim, prim.start)}A{r:g} {r:g} 0 {large} 1 {_on(prim, prim.end)}" {pen}/>'


def _on(arc: Arc, degrees: float) -> str:
    angle = radians(degrees)
    return f"{arc.cx + arc.radius * cos(angle):.3f} {arc.cy + arc.radius * sin(angle):.3f}"


def _wire(wire: Strand) -> str:
    paint = wire_paint(wire.colour)
    path, pen = f'd="M{wire.x1:g} {wire.y1:g}L{wire.x2:g} {wire.y2:g}"', f'stroke-width="{paint.mm:g}"'
    edge = f'<path {path} stroke-width="{WIRE_EDGE_MM:g}"/>' if paint.edged else ""
    main = f'<path {path} stroke="{paint.first}" {pen}/>'
    dash = WIRE_PEN.dash or (0, 0)
    second = f'<path {path} stroke="{paint.second}" {pen} stroke-dasharray="{dash[0]:g} {dash[1]:g}"/>'
    return edge + main + (second if paint.second else "")


def _text(text: Text) -> str:
    role = ROLES[text.role]
    face = FACES[role.face]
    family = f"'{face.family}', {face.generic}"
    turn = f' transform="rotate(-90 {text.x:g} {text.y:g})"' if text.upward else ""
    return (
        f'<text x="{text.x:g}" y="{text.y:g}" font-size="{text.size:g}" text-anchor="{text.anchor}" '
        f'font-family="{family}" font-weight="{face.weight}" fill="{role.colour}" stroke="none"{turn}>'
        f"{escape(text.words)}</text>"
    )
