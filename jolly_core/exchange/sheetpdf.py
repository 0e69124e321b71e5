"""Scenes as PDF documents: sheets with links, drawings at a scale, true-scale tiles."""

from __future__ import annotations

import io
from collections.abc import Container, Sequence
from math import ceil
from pathlib import Path

from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from jolly_core.model import Project, uncollected
from jolly_core.scenes import Scene, is_generated, page_of, paper_set
from jolly_core.scenes.base.paints import INKS

from .fonts import new_canvas, use_fonts
from .pdflinks import bookmarks
from .pdfpainter import PdfPainter, ink

A4_MM = (210.0, 297.0)
TILE_MARGIN_MM = 10.0
TILE_LAP_MM = 10.0


@uncollected
def sheets_pdf(
    project: Project, sheet_ids: Sequence[str], fonts: Path, *, mono: bool = False, changed: Container[str] = ()
) -> bytes:
    """Return the sheets as one PDF, references linked to the sheets they name.

    Args:
        fonts: folder of the font files.
        mono: in black and white.
        changed: ids of the sheets that are other than in the last frozen revision, which is said on them.

    Raises:
        GoneError: a sheet is not in the project.
        FileError: a font file is missing.
    """
    use_fonts(fonts)
    out = io.BytesIO()
    canvas = _canvas(out, project, f"{project.settings.number} {project.settings.name}".strip() or "Project")
    marks = bookmarks(project, sheet_ids, lambda id: page_title(project, id))
    painter = PdfPainter(project, canvas, sheet_ids, marks, mono=mono)
    for n, (sheet_id, leaf) in enumerate(paper_set(project, sheet_ids, changed)):
        number = leaf.sheet.number if leaf.sheet is not None else page_title(project, sheet_id).split(" ")[0]
        canvas.addPageLabel(n, prefix=number)  # a reader shows the sheet's number for the page
        painter.page(leaf, sheet_id)
    for mark in marks:
        canvas.addOutlineEntry(mark.title, mark.key, mark.level)
    canvas.save()
    return out.getvalue()


def _canvas(out: io.BytesIO, project: Project, title: str) -> Canvas:
    """Return a canvas that says who made the file and of what it is; equal contents give equal bytes."""
    canvas = new_canvas(out)
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
    painter = PdfPainter(project, canvas, ())
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
    painter = PdfPainter(project, canvas, ())
    margin, lap = TILE_MARGIN_MM, TILE_LAP_MM
    places = tiles(scene.width, scene.height, A4_MM, margin, lap)
    columns, rows = max(c for c, _ in places) + 1, max(r for _, r in places) + 1
    inner = (A4_MM[0] - 2 * margin, A4_MM[1] - 2 * margin)
    whole = painter.as_form(scene)
    for column, row in places:
        left, top = column * (inner[0] - lap), row * (inner[1] - lap)
        canvas.setPageSize((A4_MM[0] * mm, A4_MM[1] * mm))
        canvas.saveState()
        clip = canvas.beginPath()
        clip.rect(margin * mm, margin * mm, inner[0] * mm, inner[1] * mm)
        canvas.clipPath(clip, stroke=0)
        canvas.translate((margin - left) * mm, (A4_MM[1] - margin - scene.height + top) * mm)
        canvas.doForm(whole)
        canvas.restoreState()
        _tile_marks(canvas, margin, lap)
        canvas.setFont("mono", 8)
        canvas.setFillColor(ink(INKS["ink"]))
        words = f"{title}   scale 1:1   tile {chr(65 + row)}{column + 1} of {chr(64 + rows)}{columns}"
        canvas.drawString(margin * mm, 4 * mm, f"{words}   {lap:g} mm overlap between marks")
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _tile_marks(canvas: Canvas, margin: float, lap: float) -> None:
    canvas.setStrokeColor(ink(INKS["quiet"]))
    canvas.setLineWidth(0.2 * mm)
    width, height = A4_MM
    for x in (margin, margin + lap, width - margin - lap, width - margin):
        canvas.line(x * mm, (margin - 4) * mm, x * mm, margin * mm)
        canvas.line(x * mm, (height - margin) * mm, x * mm, (height - margin + 4) * mm)
    for y in (margin, margin + lap, height - margin - lap, height - margin):
        canvas.line((margin - 4) * mm, y * mm, margin * mm, y * mm)
        canvas.line((width - margin) * mm, y * mm, (width - margin + 4) * mm, y * mm)
