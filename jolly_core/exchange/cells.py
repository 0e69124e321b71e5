"""Tables that come in: CSV or XLSX as rows of texts."""

from __future__ import annotations

import csv
import io
import struct
import zipfile
import zlib
from typing import TYPE_CHECKING, Any

from jolly_core.model import FileError

if TYPE_CHECKING:
    from openpyxl import Workbook

# What the reader of workbooks raises on files that are broken inside.
BROKEN = (
    zipfile.BadZipFile,
    zlib.error,
    SyntaxError,  # of XML: ParseError is one
    LookupError,
    ValueError,
    TypeError,
    AttributeError,
    OSError,
    EOFError,
    RuntimeError,
    OverflowError,
    struct.error,
)
NO_BOOK = "This is not an XLSX workbook. Save it as .xlsx or .csv."
MOST_ROWS = 20_000
MOST_COLUMNS = 100


def read_cells(content: bytes, name: str, *, formulas: bool = False) -> list[list[str]]:
    """Return the cells of a table as texts, row by row; of a workbook the first sheet.

    Args:
        content: the file.
        formulas: give a workbook's formulas as they are typed ("=A1*2") in place of their last values.
        name: its name; .xlsx is read as a workbook, everything else as CSV with commas, semicolons or tabs.

    Raises:
        FileError: it cannot be read as that, or has more than MOST_ROWS rows.
    """
    rows = _workbook(content, formulas) if name.lower().endswith((".xlsx", ".xlsm")) else _csv(content)
    if len(rows) > MOST_ROWS:
        raise FileError(f"The table has more than {MOST_ROWS} rows. Split it.")
    return rows


def open_book(content: bytes, **options: Any) -> Workbook:
    """Return a workbook; its reader is fetched when the first one comes.

    Args:
        content: the file.
        options: as the reader has them.

    Raises:
        FileError: it is no workbook.
    """
    from openpyxl import load_workbook
    from openpyxl.utils.exceptions import InvalidFileException

    try:
        return load_workbook(io.BytesIO(content), **options)
    except (InvalidFileException, *BROKEN):
        raise FileError(NO_BOOK) from None


def _workbook(content: bytes, formulas: bool) -> list[list[str]]:
    try:
        book = open_book(content, read_only=True, data_only=not formulas)
        page = book.worksheets[0]
        rows = page.iter_rows(max_row=MOST_ROWS + 1, max_col=MOST_COLUMNS, values_only=True)
        return [_trimmed(["" if v is None else shown(v) for v in row]) for row in rows]
    except BROKEN:
        raise FileError(NO_BOOK) from None


def _trimmed(cells: list[str]) -> list[str]:
    """Return a row without the empty cells at its end."""
    while cells and not cells[-1]:
        cells.pop()
    return cells


def shown(value: object) -> str:
    """Return a cell's value as text; whole numbers without a decimal point."""
    return str(int(value)) if isinstance(value, float) and value.is_integer() else str(value)


def _csv(content: bytes) -> list[list[str]]:
    for encoding in ("utf-8-sig", "cp1252"):
        try:
            text = content.decode(encoding)
            break
        except UnicodeDecodeError:
            continue
    else:
        raise FileError("The text of this file cannot be read. Save it as UTF-8.")
    if "\0" in text:
        raise FileError("This is not a CSV file. Choose a .csv or .xlsx file.")
    head = text.split("\n", 1)[0]
    mark = max(",;\t", key=head.count)
    try:
        return [[c.removeprefix("'") for c in row] for row in csv.reader(io.StringIO(text, newline=""), delimiter=mark)]
    except csv.Error as error:
        raise FileError(f"This is not a CSV file: {error}.") from None
