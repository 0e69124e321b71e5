"""The faces that are embedded in PDF files: an open-licence family that has Ω µ é ß Ł."""

from __future__ import annotations

from pathlib import Path

from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont

from jolly_core.model import FileError

SANS, BOLD, MONO, MONO_BOLD = "SpoolSans", "SpoolSans-Bold", "SpoolMono", "SpoolMono-Bold"
_FILES = {
    SANS: "DejaVuSans.ttf",
    BOLD: "DejaVuSans-Bold.ttf",
    MONO: "DejaVuSansMono.ttf",
    MONO_BOLD: "DejaVuSansMono-Bold.ttf",
}


def use_fonts(folder: Path) -> None:
    """Make the faces known to the PDF writer.

    Raises:
        FileError: a font file is missing in the folder.
    """
    known = set(pdfmetrics.getRegisteredFontNames())
    for name, file in _FILES.items():
        if name in known:
            continue
        path = folder / file
        if not path.is_file():
            raise FileError(f"The font {file} is missing in {folder}. Run ./start once to install it.")
        pdfmetrics.registerFont(TTFont(name, str(path)))
