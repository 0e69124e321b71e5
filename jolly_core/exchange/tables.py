"""Report tables as CSV, JSON, XLSX and PDF."""

from __future__ import annotations

import csv
import io
import json
from datetime import datetime
from pathlib import Path

import xlsxwriter
from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from jolly_core.reports import Cell, Table

from .fonts import BOLD, SANS, use_fonts

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


def table_json(table: Table) -> bytes:
    """Return the table as a JSON array of objects keyed by column."""
    keys = [c.key for c in table.columns]
    rows = [dict(zip(keys, row, strict=True)) for row in table.rows]
    return (json.dumps(rows, ensure_ascii=False, indent=1) + "\n").encode()


def table_xlsx(table: Table) -> bytes:
    """Return the table as an XLSX workbook; texts are written as texts, never as formulas."""
    out = io.BytesIO()
    book = xlsxwriter.Workbook(out, {"constant_memory": True, "strings_to_formulas": False, "strings_to_urls": False})
    book.set_properties({"created": EPOCH})
    page = book.add_worksheet(_sheet_name(table.title))
    heading = book.add_format({"bold": True, "bottom": 1})
    for number, column in enumerate(table.columns):
        page.set_column(number, number, column.width)
        page.write_string(0, number, column.heading, heading)
    page.freeze_panes(1, 0)
    for line, row in enumerate(table.rows, start=1):
        for number, cell in enumerate(row):
            if isinstance(cell, str):
                page.write_string(line, number, cell)
            else:
                page.write_number(line, number, cell)
    for line, words in enumerate(table.foot, start=len(table.rows) + 2):
        page.write_string(line, 0, words)
    if table.rows:
        page.autofilter(0, 0, len(table.rows), len(table.columns) - 1)
    book.close()
    return out.getvalue()


def _sheet_name(title: str) -> str:
    """Return a name that a workbook allows for a sheet: without the characters it keeps for itself, at most 31."""
    return "".join("-" if c in "[]:*?/\\" else c for c in title)[:31]


def table_pdf(table: Table, project_name: str, fonts: Path) -> bytes:
    """Return the table as an A4 landscape PDF with heading and page numbers.

    Args:
        project_name: shown at the top of every page.
        fonts: folder of the font files.
    """
    use_fonts(fonts)
    out = io.BytesIO()
    width, height = landscape(A4)
    canvas = Canvas(out, pagesize=(width, height), pageCompression=1, invariant=1)
    canvas.setTitle(f"{table.title} - {project_name}")
    margin, row_height, size = 12 * mm, 5.2 * mm, 8.0
    total = sum(c.width for c in table.columns)
    widths = [(width - 2 * margin) * c.width / total for c in table.columns]
    per_page = int((height - 2 * margin - 16 * mm) // row_height) - 1
    pages = max(1, -(-(len(table.rows) + len(table.foot)) // per_page))
    feet = len(table.rows)
    for page in range(pages):
        y = height - margin - 4 * mm
        canvas.setFont(BOLD, 12)
        canvas.drawString(margin, y, table.title)
        canvas.setFont(SANS, 8)
        canvas.drawRightString(width - margin, y, f"{project_name}   page {page + 1} of {pages}")
        y -= 8 * mm
        rows: list[tuple[Cell, ...]] = [tuple(c.heading for c in table.columns)]
        rows += table.rows[page * per_page : (page + 1) * per_page]
        for number, row in enumerate(rows):
            _pdf_row(canvas, row, widths, margin, y, BOLD if number == 0 else SANS, size)
            canvas.setLineWidth(0.6 if number == 0 else 0.15)
            canvas.line(margin, y - 1.4 * mm, width - margin, y - 1.4 * mm)
            y -= row_height
        canvas.setFont(SANS, size)
        for words in table.foot[max(0, page * per_page - feet) : max(0, (page + 1) * per_page - feet)]:
            canvas.drawString(margin, y, words)
            y -= row_height
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def _pdf_row(
    canvas: Canvas, row: tuple[Cell, ...], widths: list[float], x: float, y: float, font: str, size: float
) -> None:
    for cell, width in zip(row, widths, strict=True):
        shown = str(cell)
        fitted = size
        while fitted > 5 and canvas.stringWidth(shown, font, fitted) > width - 4:
            fitted -= 0.5
        while len(shown) > 1 and canvas.stringWidth(shown, font, fitted) > width - 4:
            shown = shown[:-2] + "…"
        canvas.setFont(font, fitted)
        canvas.drawString(x + 1, y, shown)
        x += width


TABLE_FORMATS = ("csv", "json", "xlsx", "pdf")


def write_table(table: Table, format: str, project_name: str, fonts: Path) -> bytes:
    """Return the table in one of TABLE_FORMATS."""
    if format == "csv":
        return table_csv(table)
    if format == "json":
        return table_json(table)
    if format == "xlsx":
        return table_xlsx(table)
    return table_pdf(table, project_name, fonts)
