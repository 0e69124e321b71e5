"""A recipe's list as XLSX, CSV, JSON and PDF.

What a list takes back in (`jolly_core.reports.back`) has two hidden columns at the right of the XLSX: the id of each
row's object, and a mark of what it said. The heading of the first says which list it is and what its columns are.
"""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

from xlsxwriter import Workbook
from xlsxwriter.format import Format
from xlsxwriter.worksheet import Worksheet

from jolly_core.model import Project, Recipe, Sheet
from jolly_core.reports import BACK, MONEY, Cell, Cooked, Row, cook, state_mark
from jolly_core.scenes import counted_leaves, list_leaves

from .sheetpdf import scaled_pdf
from .tables import EPOCH, NUMBER, TEXT, WRAPPED, column_widths, harmless, row_height, sheet_name

LIST_FORMATS = ("xlsx", "csv", "json", "pdf")
ROW_MARK = "jolly-spool list"
MARK_HEADING = "as written"
_CODECS = {"utf-8": "utf-8", "utf-8 with mark": "utf-8-sig", "windows-1252": "cp1252"}
_LIST_SHEET = Sheet("list", "List", kind="report", size="A4", frame="zones")


def write_list(project: Project, recipe: Recipe, format: str, fonts: Path, foot: tuple[str, ...] = ()) -> bytes:
    """Return a recipe's list in one of LIST_FORMATS.

    Args:
        foot: words below the list, beside the report's own.

    Raises:
        RuleError: the recipe cannot be followed, or its encoding lacks a letter; the message says which.
    """
    cooked = cook(project, recipe)
    cooked.foot = (*cooked.foot, *foot)
    return write_cooked(project, recipe, cooked, format, fonts)


def write_cooked(project: Project, recipe: Recipe, cooked: Cooked, format: str, fonts: Path) -> bytes:
    """Return what a recipe gave in one of LIST_FORMATS."""
    if format == "xlsx":
        return list_xlsx(project, recipe, cooked)
    if format == "csv":
        return list_csv(recipe, cooked)
    if format == "json":
        return list_json(cooked)
    return list_pdf(project, cooked, fonts)


def list_csv(recipe: Recipe, cooked: Cooked) -> bytes:
    """Return a list as CSV (RFC 4180) with its recipe's separator, decimal sign and encoding; sums are left to readers.

    What goes to a printer or machine is written as it is, without apostrophes; what an encoding lacks is written "?".
    """
    out = io.StringIO(newline="")
    writer = csv.writer(out, delimiter="\t" if recipe.separator == "tab" else recipe.separator)
    writer.writerow([c.heading for c in cooked.columns])
    for row in cooked.rows:
        cells = row if cooked.machine else tuple(harmless(cell) for cell in row)
        writer.writerow([_decimal(cell, recipe.decimal) for cell in cells])
    encoding = _CODECS[recipe.encoding]
    if cooked.machine and encoding == "utf-8-sig":
        encoding = "utf-8"
    return out.getvalue().encode(encoding, errors="replace")


def _decimal(cell: Cell, sign: str) -> Cell:
    return str(cell).replace(".", sign) if isinstance(cell, float) and sign != "." else cell


def unwritable(recipe: Recipe, cooked: Cooked) -> str:
    """Return the letters of a list that its CSV encoding lacks, "" when it has all."""
    letters = sorted({c for row in cooked.rows for cell in row for c in str(cell) if ord(c) > 127})
    codec = _CODECS[recipe.encoding]
    return "".join(c for c in letters if not c.encode(codec, errors="ignore"))


def list_json(cooked: Cooked) -> bytes:
    """Return a list as a JSON array of objects keyed by column, own columns by their heading."""
    keys = [c.key for c in cooked.columns]
    rows = [dict(zip(keys, row, strict=True)) for row in cooked.rows]
    return (json.dumps(rows, ensure_ascii=False, indent=1) + "\n").encode()


def list_pdf(project: Project, cooked: Cooked, fonts: Path) -> bytes:
    """Return a list as PDF in the project's frame with its title block, as many A4 pages as it takes."""
    sheet = replace(_LIST_SHEET, title=cooked.title)
    leaves = counted_leaves(project, list_leaves(project, sheet, None, cooked))
    return scaled_pdf(project, [(f"{cooked.title} {n}", leaf) for n, leaf in enumerate(leaves, start=1)], fonts)


def list_xlsx(project: Project, recipe: Recipe, cooked: Cooked) -> bytes:
    """Return a list as an XLSX workbook: typed cells, frozen and repeated headings, filters, fit to landscape pages.

    Texts are written as texts, never as formulas; groups have their sums below them.
    """
    out = io.BytesIO()
    book = Workbook(out, {"constant_memory": True, "strings_to_formulas": False, "strings_to_urls": False})
    book.set_properties({"created": EPOCH, "title": cooked.title})
    page = book.add_worksheet(sheet_name(cooked.title))
    bold = book.add_format({"bold": True, "bottom": 1, "text_wrap": True, "valign": "top"})
    widths = column_widths(cooked.columns, cooked.rows)
    text = book.add_format(TEXT)
    for number, (column, width) in enumerate(zip(cooked.columns, widths, strict=True)):
        page.set_column(number, number, width, None if column.number else text)
    head = 1 if cooked.head and cooked.head_on == "first" else 0
    if head:
        page.write_string(0, 0, cooked.head)
    for number, column in enumerate(cooked.columns):
        page.write_string(head, number, column.heading, bold)
    marks = _Marks(project, recipe, cooked)
    if marks.known:
        page.set_column(len(cooked.columns), len(cooked.columns) + 1, 10, None, {"hidden": True})
        page.write_string(head, len(cooked.columns), marks.heading)
        page.write_string(head, len(cooked.columns) + 1, MARK_HEADING)
    _print_setup(page, project, cooked, head)
    styles = _Styles(book, cooked, widths)
    line = _write_rows(page, styles, cooked, marks, head + 1)
    for n, words in enumerate(cooked.foot, start=line + 1):
        page.write_string(n, 0, words)
    if cooked.rows and not recipe.groups:
        page.autofilter(head, 0, head + len(cooked.rows), len(cooked.columns) - 1)
    book.close()
    return out.getvalue()


def _print_setup(page: Worksheet, project: Project, cooked: Cooked, head: int) -> None:
    page.freeze_panes(head + 1, 0)
    page.set_landscape()
    page.set_paper(9)  # A4
    page.fit_to_pages(1, 0)
    page.repeat_rows(head)
    s = project.settings
    words = cooked.head if cooked.head and cooked.head_on == "all" else f"{s.number} {s.name}".strip()
    page.set_header(_header(words, cooked.title))
    page.set_footer("&RPage &P of &N")


def _header(left: str, right: str) -> str:
    """Return the header of a printed workbook, of which a program takes 255 letters; "&" would begin a code."""
    room = 250 - len(right.replace("&", "&&"))
    while len(left.replace("&", "&&")) > room:
        left = left[:-1]
    shown = f"&L{left.replace('&', '&&')}" if left else ""
    return f"{shown}&R{right.replace('&', '&&')}"


class _Marks:
    """What the hidden columns of a list say of its rows."""

    def __init__(self, project: Project, recipe: Recipe, cooked: Cooked) -> None:
        self.project, self.back = project, BACK.get(recipe.report)
        self.known = self.back is not None and not recipe.merged
        columns = {c.heading: name for c, name in zip(cooked.columns, cooked.names, strict=True)}
        said = {"report": recipe.report, "columns": columns, "unit": project.settings.length_unit}
        self.heading = f"{ROW_MARK} {json.dumps(said, ensure_ascii=False)}"

    def of(self, row: Row) -> tuple[str, str] | None:
        """Return the id and mark of a row's object, None where it has none."""
        if self.back is None or not self.known or not row.about:
            return None
        state = self.back.state(self.project, row.about)
        return (row.about, state_mark(state)) if state is not None else None


def _write_rows(page: Worksheet, styles: _Styles, cooked: Cooked, marks: _Marks, line: int) -> int:
    """Write the rows with the headings and sums of groups from a line on; return the line after the last."""
    width = len(cooked.columns)
    for written in _written(cooked):
        if isinstance(written, Row):
            if height := row_height(written, styles.widths):
                page.set_row(line, height)
            _write(page, line, written, styles, strong=False)
            found = marks.of(written)
            for n, words in enumerate(found or ()):
                page.write_string(line, width + n, words)
        else:
            _write(page, line, written, styles, strong=True)
        line += 1
    return line


def _written(cooked: Cooked) -> Iterator[tuple[Cell, ...] | Row]:
    for group in cooked.groups:
        if group.title:
            yield (group.title,)
        yield from group.rows
        if group.sums and group.title:
            yield group.sums
    if cooked.sums:
        yield cooked.sums


class _Styles:
    """How the cells of each column are written: money with two to four decimals, what is too long in lines."""

    def __init__(self, book: Workbook, cooked: Cooked, widths: list[int]) -> None:
        money = [c.key in MONEY for c in cooked.columns]
        text, bold = book.add_format(TEXT), book.add_format({"bold": True, **TEXT})
        self.texts = {False: text, True: bold}
        self.figures = {strong: _figures(book, money, {"bold": True} if strong else {}) for strong in (False, True)}
        self.wrapped = book.add_format(WRAPPED)
        self.widths = widths


def _figures(book: Workbook, money: list[bool], look: dict[str, object]) -> list[Format]:
    """Return how the numbers of each column are written."""
    plain, paid = book.add_format({**NUMBER, **look}), book.add_format({**NUMBER, **look, "num_format": "0.00##"})
    return [paid if m else plain for m in money]


def _write(page: Worksheet, line: int, cells: tuple[Cell, ...], styles: _Styles, *, strong: bool) -> None:
    for number, cell in enumerate(cells):
        if not isinstance(cell, str):
            page.write_number(line, number, cell, styles.figures[strong][number])
        elif cell:
            long = not strong and len(cell) > styles.widths[number]
            page.write_string(line, number, cell, styles.wrapped if long else styles.texts[strong])
