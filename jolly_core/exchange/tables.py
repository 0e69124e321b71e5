"""Report tables as CSV, XLSX and PDF."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence
from datetime import datetime
from pathlib import Path
from textwrap import wrap

import xlsxwriter
from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from jolly_core.reports import Cell, Column, Table
from jolly_core.scenes import split

from .fonts import BOLD, SANS, draw_text, new_canvas, text_width, use_fonts

# Files carry no time of writing, so that the same project gives the same bytes.
EPOCH = datetime(2000, 1, 1)
_RISKY = ("=", "+", "-", "@", "\t", "\r")


def harmless(cell: Cell) -> Cell:
    """Return a cell that a spreadsheet will not take for a formula: risky texts get an apostrophe in front.

    Example:
        >>> harmless("=K2+KP2-QA1")
        "'=K2+KP2-QA1"
    """
    return f"'{cell}" if isinstance(cell, str) and cell.startswith(_RISKY) else cell


def table_csv(table: Table) -> bytes:
    """Return the table as CSV (RFC 4180, UTF-8 with byte order mark so that spreadsheets see the encoding).

    What goes to a printer or machine is written as it is, without a mark and without apostrophes.
    """
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow([c.heading for c in table.columns])
    writer.writerows(row if table.machine else [harmless(cell) for cell in row] for row in table.rows)
    return out.getvalue().encode("utf-8" if table.machine else "utf-8-sig")


# A cell that is a text stays one when it is edited: a tag that begins with "=" does not become a formula.
TEXT = {"valign": "top", "num_format": "@"}
WRAPPED = {**TEXT, "text_wrap": True}
NUMBER = {"valign": "top", "align": "right", "indent": 1}  # away from the text to its right
LINE_POINTS = 15.0
WIDEST = 48  # characters of a column of a workbook; longer cells take several lines


def column_widths(columns: Sequence[Column], rows: Iterable[tuple[Cell, ...]]) -> list[int]:
    """Return the widths of the columns of a workbook, in characters: as told, up to WIDEST for what they hold."""
    widths = [c.width for c in columns]
    for row in rows:
        for number, cell in enumerate(row):
            letters = len(cell) if isinstance(cell, str) else len(str(cell))
            if letters >= widths[number]:
                widths[number] = max(widths[number], min(WIDEST, letters + 2))
    return widths


def row_height(row: tuple[Cell, ...], widths: list[int]) -> float | None:
    """Return how tall a row of a workbook is, in points, None when one line will do: not all programs find it out."""
    most = 1
    for cell, width in zip(row, widths, strict=False):
        if isinstance(cell, str) and len(cell) > width:
            most = max(most, len(wrap(cell, width - 2)))
    return LINE_POINTS * most if most > 1 else None


def table_xlsx(table: Table) -> bytes:
    """Return the table as an XLSX workbook; texts are written as texts, never as formulas."""
    out = io.BytesIO()
    book = xlsxwriter.Workbook(out, {"constant_memory": True, "strings_to_formulas": False, "strings_to_urls": False})
    book.set_properties({"created": EPOCH})
    page = book.add_worksheet(sheet_name(table.title))
    heading = book.add_format({"bold": True, "bottom": 1})
    plain, wrapped, figure = (book.add_format(look) for look in (TEXT, WRAPPED, NUMBER))
    widths = column_widths(table.columns, table.rows)
    for number, column in enumerate(table.columns):
        page.set_column(number, number, widths[number])
        page.write_string(0, number, column.heading, heading)
    page.freeze_panes(1, 0)
    long = max(widths, default=0) >= WIDEST  # else every cell fits into one line
    for line, row in enumerate(table.rows, start=1):
        if long and (height := row_height(row, widths)):
            page.set_row(line, height)
        for number, cell in enumerate(row):
            if isinstance(cell, str):
                page.write_string(line, number, cell, wrapped if len(cell) > widths[number] else plain)
            else:
                page.write_number(line, number, cell, figure)
    for line, words in enumerate(table.foot, start=len(table.rows) + 2):
        page.write_string(line, 0, words)
    if table.rows:
        page.autofilter(0, 0, len(table.rows), len(table.columns) - 1)
    book.close()
    return out.getvalue()


def sheet_name(title: str) -> str:
    """Return a name that a workbook allows for a sheet: without the characters it keeps for itself, at most 31."""
    return "".join("-" if c in "[]:*?/\\" else c for c in title)[:31]


MARGIN, LINE, SIZE = 12 * mm, 3.6 * mm, 8.0  # points; lines of a row, size of its text
PAD = 1.6 * mm


def table_pdf(table: Table, project_name: str, fonts: Path) -> bytes:
    """Return the table as an A4 landscape PDF with heading and page numbers; long cells take several lines.

    Args:
        project_name: shown at the top of every page.
        fonts: folder of the font files.
    """
    return tables_pdf(table.title, [table], project_name, fonts)


def tables_pdf(title: str, tables: Sequence[Table], project_name: str, fonts: Path) -> bytes:
    """Return tables as one PDF, each begun on a page of its own and found in the reader's list of contents."""
    use_fonts(fonts)
    out = io.BytesIO()
    canvas = new_canvas(out, landscape(A4))
    canvas.setTitle(f"{title} - {project_name}")
    canvas.setCreator("Jolly Spool")
    for n, table in enumerate(tables):
        if len(tables) > 1:
            canvas.bookmarkPage(f"table{n}")
            canvas.addOutlineEntry(table.title, f"table{n}")
        _pages(canvas, table, project_name)
    canvas.save()
    return out.getvalue()


def _pages(canvas: Canvas, table: Table, project_name: str) -> None:
    width, height = landscape(A4)
    total = sum(c.width for c in table.columns)
    widths = [(width - 2 * MARGIN) * c.width / total for c in table.columns]
    head = _lines(tuple(c.heading for c in table.columns), widths, BOLD)
    rows = [_lines(row, widths, SANS) for row in table.rows]
    rows += [[_wrapped(words, width - 2 * MARGIN, SANS)] for words in table.foot]
    room = height - 2 * MARGIN - 12 * mm - _tall(head)
    pages = split([_tall(row) for row in rows], room)
    for number, (first, last) in enumerate(pages, start=1):
        y = height - MARGIN - 4 * mm
        draw_text(canvas, MARGIN, y, table.title, BOLD, 12)
        draw_text(canvas, width - MARGIN, y, f"{project_name}   page {number} of {len(pages)}", SANS, 8, "end")
        y = _row(canvas, head, widths, y - 8 * mm, BOLD, 0.6)
        for row in rows[first:last]:
            y = _row(canvas, row, widths, y, SANS, 0.15)
        canvas.showPage()


def _wrapped(words: str, width: float, face: str) -> list[str]:
    """Return a text in lines of a width: broken between words, and words that are longer between letters."""
    if text_width(words, face, SIZE) <= width:
        return [words]
    lines = [""]
    for word in words.split(" "):
        wider = f"{lines[-1]} {word}".lstrip()
        if text_width(wider, face, SIZE) <= width:
            lines[-1] = wider
            continue
        lines.append("")
        for letter in word:
            if lines[-1] and text_width(lines[-1] + letter, face, SIZE) > width:
                lines.append("")
            lines[-1] += letter
    return [line for line in lines if line]


def _lines(row: tuple[Cell, ...], widths: list[float], face: str) -> list[list[str]]:
    return [_wrapped(str(cell), width - 4, face) for cell, width in zip(row, widths, strict=True)]


def _tall(row: list[list[str]]) -> float:
    return max(1, *(len(lines) for lines in row)) * LINE + PAD


def _row(canvas: Canvas, row: list[list[str]], widths: list[float], y: float, face: str, pen: float) -> float:
    """Draw a row with its line below and return where the next one begins; words of the foot have one wide cell."""
    x = MARGIN
    for lines, width in zip(row, widths, strict=False):
        for n, line in enumerate(lines):
            draw_text(canvas, x + 1, y - n * LINE, line, face, SIZE)
        x += width
    below = y - _tall(row) + LINE + PAD - 1.4 * mm
    canvas.setLineWidth(pen)
    canvas.line(MARGIN, below, MARGIN + sum(widths), below)
    return y - _tall(row)
