"""The faces that are embedded in PDF files, and how any text is set in them.

The usual family has Latin, Greek and Cyrillic letters and the signs of the trade. Letters it lacks are set in a face
that has those of nearly all scripts; a letter that neither has is spelt out by its code point, so that it is seen.
"""

from __future__ import annotations

import io
from functools import lru_cache
from pathlib import Path
from typing import Any

from fontTools.ttLib import TTFont as FontFile  # type: ignore[import-untyped]  # it brings no types
from reportlab import rl_config
from reportlab.lib.pagesizes import A4
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from jolly_core.model import FileError
from jolly_core.scenes.base.paints import FACES

rl_config.useA85 = 0  # streams as they are: spelt out in letters they are a quarter longer and take longer to write
SANS, BOLD = "sans", "sans-bold"  # of tables
FALLBACK = "fallback"
FALLBACK_FILE = "unifontex-latin-400-normal.woff"  # a face with the letters of nearly all scripts, as the web has it
_folder: list[Path] = []


def use_fonts(folder: Path) -> None:
    """Make the faces known to the PDF writer.

    Raises:
        FileError: a font file is missing in the folder.
    """
    _folder[:] = [folder]
    known = set(pdfmetrics.getRegisteredFontNames())
    for name, file in ((name, face.file) for name, face in FACES.items()):
        if name in known:
            continue
        path = folder / file
        if not path.is_file():
            raise FileError(f"The font {file} is missing in {folder}. Run ./start once to install it.")
        pdfmetrics.registerFont(TTFont(name, str(path)))


class Paper(Canvas):
    """A canvas that says a colour when it changes, and not with every line and text."""

    _fillColorObj: object  # what the canvas keeps with its state; its stub leaves them out
    _strokeColorObj: object

    def setFillColor(self, colour: Any, alpha: float | None = None) -> None:
        """Say the colour of what is filled and of texts, where it is another one."""
        if colour is not self._fillColorObj or alpha is not None:
            super().setFillColor(colour, alpha)

    def setStrokeColor(self, colour: Any, alpha: float | None = None) -> None:
        """Say the colour of lines, where it is another one."""
        if colour is not self._strokeColorObj or alpha is not None:
            super().setStrokeColor(colour, alpha)


def new_canvas(out: io.BytesIO, size: tuple[float, float] = A4) -> Canvas:
    """Return a PDF to paint pages of a size on, in points, of which every font is embedded; `use_fonts` went before."""
    first: Any = SANS  # the library would name one of its own on every page, which is not embedded; its stub is wrong
    return Paper(out, pagesize=size, pageCompression=1, invariant=1, initialFontName=first)


def _letters(face: str) -> dict[int, int]:
    """Return the glyphs of a face by code point; the large one is read when it is first asked for."""
    if face == FALLBACK and face not in pdfmetrics.getRegisteredFontNames():
        path = _folder[0] / FALLBACK_FILE
        if not path.is_file():
            raise FileError(f"The font {path.name} is missing in {path.parent}. Run ./start once to install it.")
        font = FontFile(path, lazy=True, recalcBBoxes=False, recalcTimestamp=False)
        font.flavor = None
        plain = io.BytesIO()
        font.save(plain, reorderTables=None)
        plain.seek(0)
        pdfmetrics.registerFont(TTFont(FALLBACK, plain))
    font = pdfmetrics.getFont(face)
    assert isinstance(font, TTFont)
    found: dict[int, int] = font.face.charToGlyph
    return found


@lru_cache(maxsize=4096)
def runs(content: str, face: str) -> tuple[tuple[str, str], ...]:
    """Return a text as pieces that one face can set: (face, piece).

    A letter that no face has becomes its code point in brackets, "[U+20001]".
    """
    if content.isascii():
        return ((face, content),)
    own = _letters(face)
    if all(ord(letter) in own for letter in content):
        return ((face, content),)
    others = _letters(FALLBACK)
    pieces: list[tuple[str, str]] = []
    for letter in content:
        code = ord(letter)
        if code in own:
            there, shown = face, letter
        elif code in others:
            there, shown = FALLBACK, letter
        else:
            there, shown = face, f"[U+{code:04X}]"
        if pieces and pieces[-1][0] == there:
            pieces[-1] = (there, pieces[-1][1] + shown)
        else:
            pieces.append((there, shown))
    return tuple(pieces)


def text_width(content: str, face: str, size: float) -> float:
    """Return the width of a text, points."""
    return float(sum(pdfmetrics.stringWidth(piece, there, size) for there, piece in runs(content, face)))


def draw_text(canvas: Canvas, x: float, y: float, content: str, face: str, size: float, anchor: str = "start") -> float:
    """Draw a text and return its width, points.

    Args:
        x, y: its start, middle or end on the baseline, points.
        anchor: start, middle or end.
    """
    pieces = [(there, piece, pdfmetrics.stringWidth(piece, there, size)) for there, piece in runs(content, face)]
    width = float(sum(long for _, _, long in pieces))
    at = x - {"start": 0.0, "middle": width / 2, "end": width}[anchor]
    for there, piece, long in pieces:
        canvas.setFont(there, size)
        canvas.drawString(at, y, piece)
        at += long
    return width
