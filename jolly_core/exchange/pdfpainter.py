"""Primitives of scenes painted on PDF pages with reportlab; each symbol's graphics is a form that is drawn once."""

from __future__ import annotations

import base64
import io
from collections.abc import Sequence
from functools import cache

from reportlab.lib.colors import Color, HexColor
from reportlab.lib.units import mm
from reportlab.lib.utils import ImageReader
from reportlab.pdfgen.canvas import Canvas

from jolly_core.drawing import turned
from jolly_core.model import Project
from jolly_core.scenes import Arc, Art, Circle, Dot, Image, Line, Poly, Prim, Rect, Scene, Strand, Text, art_of
from jolly_core.scenes.base.paints import INKS, PENS, ROLES, TONES, WIRE_EDGE_MM, WIRE_PEN, Pen, wire_paint

from .fonts import draw_text
from .pdflinks import Bookmark, Places

# Half the side of the square a symbol form may cover, in points (100 mm).
FORM_PT = 284
ink = cache(HexColor)  # reading a colour costs more than drawing a line with it
INK = ink(INKS["ink"])
PALE = 0.7  # colours lighter than this stay as greys in black and white; all others are black


@cache
def black_ink(colour: str) -> Color:
    """Return a colour of black and white: black, or the grey of a pale one."""
    found = HexColor(colour)
    light = 0.299 * found.red + 0.587 * found.green + 0.114 * found.blue
    return Color(light, light, light) if light > PALE else Color(0, 0, 0)


class PdfPainter:
    """Paints scenes on the pages of a canvas."""

    def __init__(
        self,
        project: Project,
        canvas: Canvas,
        sheets: Sequence[str],
        marks: Sequence[Bookmark] = (),
        *,
        mono: bool = False,
    ) -> None:
        self.project = project
        self.ink = black_ink if mono else ink
        self.canvas = canvas
        self.places = Places(project, sheets, marks)
        self.forms: dict[tuple[str, int], str] = {}  # the names of the forms by symbol and poles
        self.words: dict[str, list[Text]] = {}  # the texts in a form's symbol, which are painted upright beside it
        self.pictures: dict[str, ImageReader] = {}
        self.height: float | None = None  # of the page, mm; None in a form, whose y runs downwards

    def page(self, scene: Scene, sheet_id: str, scale: float = 1.0) -> None:
        """Paint a scene as a page of its size times a scale, and go on to the next."""
        self._forms(scene)
        c = self.canvas
        c.setPageSize((scene.width * mm * scale, scene.height * mm * scale))
        self.places.begin(c, sheet_id, scene.height)
        if scale != 1.0:
            c.scale(scale, scale)
        self.paint(scene)
        c.showPage()

    def paint(self, scene: Scene) -> None:
        """Paint a scene where the canvas stands."""
        self.height = scene.height
        self.canvas.setLineCap(1)
        self.canvas.setLineJoin(1)
        for item in scene.items.values():
            for prim in item.placed():
                self._prim(prim)

    def as_form(self, scene: Scene) -> str:
        """Paint a scene once, to be put on as many pages as show some of it; return the name of the form."""
        self._forms(scene)
        name = f"scene{len(self.forms)}"
        self.canvas.beginForm(name, 0, 0, scene.width * mm, scene.height * mm)
        self.paint(scene)
        self.canvas.endForm()
        return name

    def _forms(self, scene: Scene) -> None:
        for item in scene.items.values():
            for prim in item.prims:
                if isinstance(prim, Art) and (prim.key, prim.poles) not in self.forms:
                    self._form(prim.key, prim.poles)

    def _form(self, key: str, poles: int) -> None:
        name = self.forms[key, poles] = f"art{len(self.forms)}"
        c = self.canvas
        c.beginForm(name, -FORM_PT, -FORM_PT, 2 * FORM_PT, 2 * FORM_PT)
        c.setLineCap(1)
        c.setLineJoin(1)
        art = art_of(key, poles, self.project.settings.standard)
        self.words[name] = [p for p in art if isinstance(p, Text)]
        self.height = None
        for prim in art:
            if not isinstance(prim, Text):  # texts stay upright: they are painted with the symbol
                self._prim(prim)
        c.endForm()

    def _y(self, y: float) -> float:
        return y * mm if self.height is None else (self.height - y) * mm

    def _pen(self, pen: Pen) -> None:
        self.canvas.setStrokeColor(INK)
        self.canvas.setLineWidth(pen.mm * mm)
        if pen.dash:
            self.canvas.setDash(pen.dash[0] * mm, pen.dash[1] * mm)

    def _prim(self, prim: Prim) -> None:
        match prim:
            case Strand():
                self._wire(prim)
            case Art():
                self._place(prim)
            case Text():
                self._text(prim)
            case Image():
                self._picture(prim)
            case Dot():
                self.canvas.setFillColor(INK)
                self.canvas.circle(prim.cx * mm, self._y(prim.cy), prim.radius * mm, stroke=0, fill=1)
            case _:
                pen = PENS[prim.pen]
                self._pen(pen)
                self._outline(prim)
                if pen.dash:
                    self.canvas.setDash()

    def _outline(self, prim: Line | Poly | Rect | Circle | Arc) -> None:
        c = self.canvas
        match prim:
            case Line():
                c.line(prim.x1 * mm, self._y(prim.y1), prim.x2 * mm, self._y(prim.y2))
            case Poly():
                self._poly(prim.points)
            case Rect():
                low = prim.y if self.height is None else prim.y + prim.height
                if prim.tone is not None:
                    c.setFillColor(self.ink(TONES[prim.tone]))
                filled = int(prim.tone is not None)
                c.rect(prim.x * mm, self._y(low), prim.width * mm, prim.height * mm, fill=filled)
            case Circle():
                if prim.tone is not None:
                    c.setFillColor(self.ink(TONES[prim.tone]))
                c.circle(prim.cx * mm, self._y(prim.cy), prim.radius * mm, fill=int(prim.tone is not None))
            case Arc():
                x, y, r, span = prim.cx * mm, self._y(prim.cy), prim.radius * mm, prim.end - prim.start
                # Where y grows upwards, the angles run the other way.
                start, extent = (prim.start, span) if self.height is None else (-prim.start, -span)
                c.arc(x - r, y - r, x + r, y + r, start, extent)

    def _poly(self, points: Sequence[float]) -> None:
        path = self.canvas.beginPath()
        path.moveTo(points[0] * mm, self._y(points[1]))
        for i in range(2, len(points), 2):
            path.lineTo(points[i] * mm, self._y(points[i + 1]))
        self.canvas.drawPath(path)

    def _wire(self, wire: Strand) -> None:
        paint = wire_paint(wire.colour)
        if paint.edged:
            self._stroke(wire, INKS["ink"], WIRE_EDGE_MM)
        self._stroke(wire, paint.first, paint.mm)
        if paint.second and WIRE_PEN.dash:
            self.canvas.setDash(WIRE_PEN.dash[0] * mm, WIRE_PEN.dash[1] * mm)
            self._stroke(wire, paint.second, paint.mm)
            self.canvas.setDash()

    def _stroke(self, wire: Strand, colour: str, width: float) -> None:
        c = self.canvas
        c.setStrokeColor(self.ink(colour))
        c.setLineWidth(width * mm)
        c.line(wire.x1 * mm, self._y(wire.y1), wire.x2 * mm, self._y(wire.y2))

    def _picture(self, image: Image) -> None:
        picture = self.project.pictures.get(image.picture)
        if picture is None:
            return
        if picture.id not in self.pictures:
            self.pictures[picture.id] = ImageReader(io.BytesIO(base64.b64decode(picture.data)))
        where = (image.x * mm, self._y(image.y + image.height), image.width * mm, image.height * mm)
        self.canvas.drawImage(self.pictures[picture.id], *where, mask="auto")

    def _place(self, art: Art) -> None:
        c = self.canvas
        xx, xy = turned(1, 0, art.rotation, art.mirror)
        yx, yy = turned(0, 1, art.rotation, art.mirror)
        c.saveState()
        c.transform(xx, -xy, yx, -yy, art.x * mm, self._y(art.y))
        form = self.forms[art.key, art.poles]
        c.doForm(form)
        c.restoreState()
        for words in self.words[form]:
            dx, dy = turned(words.x, words.y - words.size / 3, art.rotation, art.mirror)
            self._text(Text(art.x + dx, art.y + dy + words.size / 3, words.size, words.anchor, words.role, words.words))

    def _text(self, text: Text) -> None:
        c = self.canvas
        role = ROLES[text.role]
        c.setFillColor(self.ink(role.colour))
        x, y, size = text.x * mm, self._y(text.y), text.size * mm
        if text.upward:
            c.saveState()
            c.translate(x, y)
            c.rotate(90)
            width = draw_text(c, 0, 0, text.words, role.face, size, text.anchor)
            c.restoreState()
            if text.link:
                foot = y - {"start": 0.0, "middle": width / 2, "end": width}[text.anchor]
                self.places.link(c, text.link, (x - size, foot, x + 1, foot + width))
            return
        width = draw_text(c, x, y, text.words, role.face, size, text.anchor)
        if text.link:
            left = x - {"start": 0.0, "middle": width / 2, "end": width}[text.anchor]
            self.places.link(c, text.link, (left, y - 1, left + width, y + size))
