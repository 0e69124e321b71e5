"""Scenes as SVG, for small pictures of sheets; colours and pens as in the PDF."""

from __future__ import annotations

from html import escape
from math import cos, radians, sin

from jolly_core.drawing import turned
from jolly_core.model import Project
from jolly_core.scenes import PENS_MM, Prim, Scene, art_of

from .sheetpdf import COLOURS, FILLS, LIGHT

INK = "#14213D"
INKS = {"reference": "#1F7A6D", "line": "#676C78"}
SANS = frozenset({"text", "title", "heading"})


def scene_svg(project: Project, scene: Scene, *, texts: bool = True) -> str:
    """Return a scene as an SVG document in mm.

    Args:
        texts: whether texts are painted; in a picture of a few centimetres they only cost.
    """
    painter = _Painter(project, texts)
    body = "".join(painter.prim(p) for item in scene.items.values() for p in item.prims)
    size = f"{scene.width:g} {scene.height:g}"
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {size}" width="{scene.width:g}mm" '
        f'height="{scene.height:g}mm"><rect width="100%" height="100%" fill="{FILLS["paper"]}"/>'
        f'<g fill="none" stroke="{INK}" stroke-linecap="round" stroke-linejoin="round">{body}</g></svg>'
    )


class _Painter:
    def __init__(self, project: Project, texts: bool) -> None:
        self.project = project
        self.texts = texts

    def prim(self, prim: Prim) -> str:
        kind, *v = prim
        if kind == "wire":
            return self._wire(*v)
        if kind == "art":
            return self._art(*v)
        if kind == "text":
            return self._text(*v) if self.texts else ""
        if kind == "picture":
            return self._picture(*v)
        if kind == "dot":
            return f'<circle cx="{v[0]:g}" cy="{v[1]:g}" r="{v[2]:g}" fill="{INK}" stroke="none"/>'
        if kind == "poly":
            return f'<polyline points="{_points(v[0])}" stroke-width="{PENS_MM[v[1]]}"/>'
        if kind == "circle":
            return f'<circle cx="{v[0]:g}" cy="{v[1]:g}" r="{v[2]:g}" stroke-width="{PENS_MM[v[3]]}"/>'
        dashes = ' stroke-dasharray="1.2 0.9"' if v[4] == "dash" else ""
        pen = f'stroke-width="{PENS_MM[v[4]]}"{dashes}'
        if kind == "line":
            return f'<path d="M{v[0]:g} {v[1]:g}L{v[2]:g} {v[3]:g}" {pen}/>'
        fill = f'fill="{FILLS[v[5]]}"' if kind == "box" else ""
        return f'<rect x="{v[0]:g}" y="{v[1]:g}" width="{v[2]:g}" height="{v[3]:g}" {pen} {fill}/>'

    def _wire(self, x1: float, y1: float, x2: float, y2: float, colour: str) -> str:
        first, second = colour[:2], colour[2:]
        path = f'd="M{x1:g} {y1:g}L{x2:g} {y2:g}"'
        edge = f'<path {path} stroke-width="0.8"/>' if first in LIGHT or second in LIGHT else ""
        main = f'<path {path} stroke="{COLOURS.get(first, INK)}" stroke-width="0.6"/>'
        dashes = f'<path {path} stroke="{COLOURS.get(second, INK)}" stroke-width="0.6" stroke-dasharray="2 2"/>'
        return edge + main + (dashes if second else "")

    def _art(self, key: str, x: float, y: float, rotation: int, mirror: bool, poles: int) -> str:
        art = art_of(key, poles, self.project.settings.standard)
        flip = " scale(1 -1)" if mirror else ""
        body = "".join(_art_prim(p) for p in art)
        placed = f'<g transform="translate({x:g} {y:g}) rotate({rotation}){flip}" stroke-width="0.4">{body}</g>'
        if not self.texts:
            return placed
        for kind, *v in art:
            if kind == "text":
                dx, dy = turned(v[0], v[1] - v[3] / 3, rotation, mirror)
                placed += self._text(x + dx, y + dy + v[3] / 3, v[3], "middle", "label", v[2], "")
        return placed

    def _text(self, x: float, y: float, size: float, anchor: str, role: str, content: str, link: str) -> str:
        face = "sans-serif" if role in SANS else "monospace"
        weight = ' font-weight="600"' if role == "tag" else ""
        return (
            f'<text x="{x:g}" y="{y:g}" font-size="{size:g}" text-anchor="{anchor}" font-family="{face}"{weight} '
            f'fill="{INKS.get(role, INK)}" stroke="none">{escape(content)}</text>'
        )

    def _picture(self, x: float, y: float, width: float, height: float, id: str) -> str:
        picture = self.project.pictures.get(id)
        if picture is None:
            return ""
        href = f"data:{picture.media_type};base64,{picture.data}"
        return f'<image x="{x:g}" y="{y:g}" width="{width:g}" height="{height:g}" href="{href}"/>'


def _points(values: list[float]) -> str:
    return " ".join(f"{v:g}" for v in values)


def _art_prim(prim: Prim) -> str:
    kind, *v = prim
    if kind == "line":
        return f'<path d="M{v[0]:g} {v[1]:g}L{v[2]:g} {v[3]:g}"/>'
    if kind == "dash":
        return f'<path d="M{v[0]:g} {v[1]:g}L{v[2]:g} {v[3]:g}" stroke-dasharray="1.2 0.9" stroke-width="0.25"/>'
    if kind == "poly":
        return f'<polyline points="{_points(v[0])}"/>'
    if kind == "circle":
        return f'<circle cx="{v[0]:g}" cy="{v[1]:g}" r="{v[2]:g}"/>'
    if kind == "arc":
        x, y, r, start, end = v
        large = int(end - start > 180)
        return f'<path d="M{_on(x, y, r, start)}A{r:g} {r:g} 0 {large} 1 {_on(x, y, r, end)}"/>'
    if kind in ("rect", "solid"):
        x1, x2 = sorted((v[0], v[2]))
        y1, y2 = sorted((v[1], v[3]))
        fill = f' fill="{INK}"' if kind == "solid" else ""
        return f'<rect x="{x1:g}" y="{y1:g}" width="{x2 - x1:g}" height="{y2 - y1:g}"{fill}/>'
    return ""


def _on(x: float, y: float, r: float, degrees: float) -> str:
    angle = radians(degrees)
    return f"{x + r * cos(angle):.3f} {y + r * sin(angle):.3f}"
