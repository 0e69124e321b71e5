"""Scenes as vector PDF, painted with reportlab; each symbol's graphics is a form that is drawn once."""

from __future__ import annotations

import base64
import io
from collections.abc import Sequence
from functools import cache
from math import ceil
from pathlib import Path
from typing import Any

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.lib.utils import ImageReader
from reportlab.pdfgen.canvas import Canvas

from jolly_core.drawing import turned
from jolly_core.model import Project
from jolly_core.scenes import PENS_MM, Item, Prim, Scene, art_of, is_generated, page_of, paper_set

from .fonts import MONO, MONO_BOLD, SANS, draw_text, use_fonts
from .pdflinks import Bookmark, Places, bookmarks

# Half the side of the square a symbol form may cover, in points (100 mm).
FORM_PT = 284
INK = HexColor("#14213D")
TEAL = HexColor("#1F7A6D")
GREY = HexColor("#6B7280")
_ink = cache(HexColor)  # reading a colour costs more than drawing a line with it
# Insulation colours by IEC 60757 code, as they are painted.
COLOURS: dict[str, str] = {
    "BK": "#1B1B1B",
    "BN": "#7A4A21",
    "RD": "#C0392B",
    "OG": "#E07B1A",
    "YE": "#E8C81E",
    "GN": "#2E8B45",
    "BU": "#2463AE",
    "VT": "#7B3FA0",
    "GY": "#8A8F98",
    "WH": "#FFFFFF",
    "PK": "#E58CA8",
    "GD": "#B8912E",
    "TQ": "#2AA7A1",
    "SR": "#B9BEC6",
}
LIGHT = frozenset({"WH", "YE", "SR", "PK"})
# Fills of boxes by tone.
FILLS: dict[str, str] = {
    "plate": "#F4F1EA",
    "rail": "#D5D9DE",
    "duct": "#E6E1D3",
    "device": "#FFFFFF",
    "paper": "#FCFAF5",
}
A4_MM = (210.0, 297.0)
TILE_MARGIN_MM = 10.0
TILE_LAP_MM = 10.0
_FACES = {"tag": MONO_BOLD, "text": SANS, "title": SANS, "heading": SANS}


def sheets_pdf(project: Project, sheet_ids: Sequence[str], fonts: Path) -> bytes:
    """Return the sheets as one PDF, references linked to the sheets they name.

    Args:
        fonts: folder of the font files.

    Raises:
        GoneError: a sheet is not in the project.
        FileError: a font file is missing.
    """
    use_fonts(fonts)
    out = io.BytesIO()
    canvas = _canvas(out, project, f"{project.settings.number} {project.settings.name}".strip() or "Project")
    marks = bookmarks(project, sheet_ids, lambda id: page_title(project, id))
    painter = _Painter(project, canvas, sheet_ids, marks)
    for sheet_id, leaf in paper_set(project, sheet_ids):
        painter.page(leaf, sheet_id)
    for mark in marks:
        canvas.addOutlineEntry(mark.title, mark.key, mark.level)
    canvas.save()
    return out.getvalue()


def _canvas(out: io.BytesIO, project: Project, title: str) -> Canvas:
    """Return a canvas that says who made the file and of what it is; equal contents give equal bytes."""
    canvas = Canvas(out, pageCompression=1, invariant=1)
    s = project.settings
    canvas.setTitle(title)
    canvas.setAuthor(s.drawn_by or "Jolly Spool")
    canvas.setSubject(", ".join(t for t in (s.customer, s.site, f"revision {s.revision}" if s.revision else "") if t))
    canvas.setCreator("Jolly Spool")
    return canvas


def page_title(project: Project, id: str) -> str:
    """Return number and title of a sheet or generated page."""
    page = page_of(project, id) if is_generated(id) else project.get("sheet", id)
    return f"{page.number} {page.title}".strip()


def scaled_pdf(project: Project, scenes: Sequence[tuple[str, Scene]], fonts: Path, scale: float = 1.0) -> bytes:
    """Return scenes as pages of their own size times a scale.

    Args:
        scenes: title and scene of each page.
        scale: paper mm for each mm of the scene; 1 is true scale.
        fonts: folder of the font files.

    Raises:
        FileError: a font file is missing.
    """
    use_fonts(fonts)
    out = io.BytesIO()
    canvas = _canvas(out, project, scenes[0][0] if scenes else "")
    painter = _Painter(project, canvas, ())
    for n, (title, scene) in enumerate(scenes):
        canvas.bookmarkPage(f"page{n}")
        canvas.addOutlineEntry(title, f"page{n}", level=0)
        painter.page(scene, f"page{n}", scale)
    canvas.save()
    return out.getvalue()


def tiles(width: float, height: float, page: tuple[float, float], margin: float, lap: float) -> list[tuple[int, int]]:
    """Return (column, row) of each tile that covers a drawing, row by row.

    Args:
        width, height: of the drawing, mm.
        page: of the paper, mm.
        margin: of the paper that is not printed, mm.
        lap: by which neighbours repeat each other, mm.

    Example:
        >>> len(tiles(400, 200, (210, 297), 10, 10))
        3
    """
    step_x, step_y = page[0] - 2 * margin - lap, page[1] - 2 * margin - lap
    columns = max(1, ceil((width - lap) / step_x))
    rows = max(1, ceil((height - lap) / step_y))
    return [(column, row) for row in range(rows) for column in range(columns)]


def tiled_pdf(project: Project, title: str, scene: Scene, fonts: Path) -> bytes:
    """Return a scene at true scale on A4 pages with marks at the corners, to be laid together.

    Every page says which tile it is; neighbours repeat TILE_LAP_MM of each other, from mark to mark.
    """
    use_fonts(fonts)
    out = io.BytesIO()
    canvas = _canvas(out, project, f"{title}, tiled")
    painter = _Painter(project, canvas, ())
    margin, lap = TILE_MARGIN_MM, TILE_LAP_MM
    places = tiles(scene.width, scene.height, A4_MM, margin, lap)
    columns, rows = max(c for c, _ in places) + 1, max(r for _, r in places) + 1
    inner = (A4_MM[0] - 2 * margin, A4_MM[1] - 2 * margin)
    for column, row in places:
        left, top = column * (inner[0] - lap), row * (inner[1] - lap)
        canvas.setPageSize((A4_MM[0] * mm, A4_MM[1] * mm))
        canvas.saveState()
        clip = canvas.beginPath()
        clip.rect(margin * mm, margin * mm, inner[0] * mm, inner[1] * mm)
        canvas.clipPath(clip, stroke=0)
        canvas.translate((margin - left) * mm, (A4_MM[1] - margin - scene.height + top) * mm)
        painter.paint(scene)
        canvas.restoreState()
        _tile_marks(canvas, margin, lap)
        canvas.setFont(MONO, 8)
        canvas.setFillColor(INK)
        words = f"{title}   scale 1:1   tile {chr(65 + row)}{column + 1} of {chr(64 + rows)}{columns}"
        canvas.drawString(margin * mm, 4 * mm, f"{words}   {lap:g} mm overlap between marks")
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _tile_marks(canvas: Canvas, margin: float, lap: float) -> None:
    canvas.setStrokeColor(GREY)
    canvas.setLineWidth(0.2 * mm)
    width, height = A4_MM
    for x in (margin, margin + lap, width - margin - lap, width - margin):
        canvas.line(x * mm, (margin - 4) * mm, x * mm, margin * mm)
        canvas.line(x * mm, (height - margin) * mm, x * mm, (height - margin + 4) * mm)
    for y in (margin, margin + lap, height - margin - lap, height - margin):
        canvas.line((margin - 4) * mm, y * mm, margin * mm, y * mm)
        canvas.line((width - margin) * mm, y * mm, (width - margin + 4) * mm, y * mm)


class _Painter:
    def __init__(self, project: Project, canvas: Canvas, sheets: Sequence[str], marks: Sequence[Bookmark] = ()) -> None:
        self.project = project
        self.canvas = canvas
        self.places = Places(project, sheets, marks)
        self.forms: dict[str, str] = {}  # the names of the forms by symbol and poles
        self.words: dict[str, list[list[Any]]] = {}  # the texts in a form's symbol, which are painted upright beside it
        self.pictures: dict[str, ImageReader] = {}
        self.height = 0.0

    def page(self, scene: Scene, sheet_id: str, scale: float = 1.0) -> None:
        self._forms(scene)
        c = self.canvas
        c.setPageSize((scene.width * mm * scale, scene.height * mm * scale))
        self.places.begin(c, sheet_id, scene.height)
        if scale != 1.0:
            c.scale(scale, scale)
        self.paint(scene)
        c.showPage()

    def paint(self, scene: Scene) -> None:
        self.height = scene.height
        self.canvas.setLineCap(1)
        self.canvas.setLineJoin(1)
        for item in scene.items.values():
            self._item(item)

    def _forms(self, scene: Scene) -> None:
        for item in scene.items.values():
            for prim in item.prims:
                if prim[0] == "art":
                    name = f"{prim[1]}-{prim[6]}"
                    if name not in self.forms:
                        self.forms[name] = f"art{len(self.forms)}"
                        self._form(self.forms[name], prim[1], prim[6])

    def _form(self, name: str, key: str, poles: int) -> None:
        c = self.canvas
        c.beginForm(name, -FORM_PT, -FORM_PT, 2 * FORM_PT, 2 * FORM_PT)
        c.setLineCap(1)
        c.setLineJoin(1)
        c.setStrokeColor(INK)
        c.setFillColor(INK)
        art = art_of(key, poles, self.project.settings.standard)
        self.words[name] = [v for kind, *v in art if kind == "text"]
        for prim in art:
            self._art(prim)
        c.endForm()

    def _art(self, prim: Prim) -> None:
        """Paint a primitive of a form, y downwards as the form is flipped when it is used."""
        c = self.canvas
        kind, *v = prim
        c.setLineWidth(PENS_MM["ink"] * mm)
        if kind == "text":
            return  # texts stay upright: they are painted with the symbol
        if kind == "dash":
            c.setDash(1.2 * mm, 0.9 * mm)
            c.setLineWidth(PENS_MM["dash"] * mm)
            c.line(v[0] * mm, v[1] * mm, v[2] * mm, v[3] * mm)
            c.setDash()
        elif kind == "line":
            c.line(v[0] * mm, v[1] * mm, v[2] * mm, v[3] * mm)
        elif kind == "poly":
            self._poly([n * mm for n in v[0]])
        elif kind == "circle":
            c.circle(v[0] * mm, v[1] * mm, v[2] * mm)
        elif kind == "arc":
            x, y, r = (n * mm for n in v[:3])
            c.arc(x - r, y - r, x + r, y + r, v[3], v[4] - v[3])
        else:
            x1, x2 = sorted((v[0] * mm, v[2] * mm))
            y1, y2 = sorted((v[1] * mm, v[3] * mm))
            c.rect(x1, y1, x2 - x1, y2 - y1, fill=int(kind == "solid"))

    def _poly(self, values: list[float]) -> None:
        path = self.canvas.beginPath()
        path.moveTo(values[0], values[1])
        for i in range(2, len(values), 2):
            path.lineTo(values[i], values[i + 1])
        self.canvas.drawPath(path)

    def _item(self, item: Item) -> None:
        for prim in item.prims:
            self._prim(prim)

    def _y(self, y: float) -> float:
        return (self.height - y) * mm

    def _prim(self, prim: Prim) -> None:
        c = self.canvas
        kind, *v = prim
        if kind == "wire":
            self._wire(*v)
            return
        c.setStrokeColor(INK)
        c.setFillColor(INK)
        if kind == "line":
            c.setLineWidth(PENS_MM[v[4]] * mm)
            if v[4] == "dash":
                c.setDash(1.2 * mm, 0.9 * mm)
            c.line(v[0] * mm, self._y(v[1]), v[2] * mm, self._y(v[3]))
            c.setDash()
        elif kind == "poly":
            c.setLineWidth(PENS_MM[v[1]] * mm)
            self._poly([n * mm if i % 2 == 0 else self._y(n) for i, n in enumerate(v[0])])
        elif kind == "rect":
            c.setLineWidth(PENS_MM[v[4]] * mm)
            c.rect(v[0] * mm, self._y(v[1] + v[3]), v[2] * mm, v[3] * mm)
        elif kind == "box":
            c.setLineWidth(PENS_MM[v[4]] * mm)
            c.setFillColor(HexColor(FILLS[v[5]]))
            c.rect(v[0] * mm, self._y(v[1] + v[3]), v[2] * mm, v[3] * mm, fill=1)
        elif kind == "circle":
            c.setLineWidth(PENS_MM[v[3]] * mm)
            c.circle(v[0] * mm, self._y(v[1]), v[2] * mm)
        elif kind == "dot":
            c.circle(v[0] * mm, self._y(v[1]), v[2] * mm, stroke=0, fill=1)
        elif kind == "art":
            self._place(*v)
        elif kind == "picture":
            self._picture(*v)
        elif kind == "text":
            self._text(*v)

    def _wire(self, x1: float, y1: float, x2: float, y2: float, colour: str) -> None:
        c = self.canvas
        first, second = colour[:2], colour[2:]
        if first in LIGHT or second in LIGHT:
            c.setStrokeColor(INK)
            c.setLineWidth(0.7 * mm)
            c.line(x1 * mm, self._y(y1), x2 * mm, self._y(y2))
        c.setLineWidth(0.5 * mm)
        c.setStrokeColor(_ink(COLOURS.get(first, "#1B1B1B")))
        c.line(x1 * mm, self._y(y1), x2 * mm, self._y(y2))
        if second:
            c.setDash(2 * mm, 2 * mm)
            c.setStrokeColor(_ink(COLOURS.get(second, "#1B1B1B")))
            c.line(x1 * mm, self._y(y1), x2 * mm, self._y(y2))
            c.setDash()

    def _picture(self, x: float, y: float, width: float, height: float, id: str) -> None:
        picture = self.project.pictures.get(id)
        if picture is None:
            return
        if id not in self.pictures:
            self.pictures[id] = ImageReader(io.BytesIO(base64.b64decode(picture.data)))
        where = (x * mm, self._y(y + height), width * mm, height * mm)
        self.canvas.drawImage(self.pictures[id], *where, mask="auto")

    def _place(self, key: str, x: float, y: float, rotation: int, mirror: bool, poles: int) -> None:
        c = self.canvas
        xx, xy = turned(1, 0, rotation, mirror)
        yx, yy = turned(0, 1, rotation, mirror)
        c.saveState()
        c.transform(xx, -xy, yx, -yy, x * mm, self._y(y))
        form = self.forms[f"{key}-{poles}"]
        c.doForm(form)
        c.restoreState()
        for v in self.words[form]:
            dx, dy = turned(v[0], v[1] - v[3] / 3, rotation, mirror)
            self._text(x + dx, y + dy + v[3] / 3, v[3], "middle", "label", v[2], "")

    def _text(self, x: float, y: float, size: float, anchor: str, role: str, content: str, link: str) -> None:
        c = self.canvas
        face = _FACES.get(role, MONO)
        colour = {"reference": TEAL, "line": GREY}.get(role, INK)
        c.setFillColor(colour)
        width = draw_text(c, x * mm, self._y(y), content, face, size * mm, anchor)
        if link:
            left = x * mm - {"start": 0.0, "middle": width / 2, "end": width}[anchor]
            self.places.link(c, link, (left, self._y(y) - 1, left + width, self._y(y) + size * mm))
