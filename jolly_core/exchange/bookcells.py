"""Tables that come in with all a person should know of them: the sheets of a workbook, and cells that say nothing."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from jolly_core.model import FileError

from .cells import MOST_COLUMNS, MOST_ROWS, open_book, read_cells, shown

if TYPE_CHECKING:
    from openpyxl.worksheet.worksheet import Worksheet

CellAt = tuple[int, int]


@dataclass(slots=True)
class TableCells:
    """The cells of a table.

    Attributes:
        rows: cells as texts, row by row as in the file.
        sheets: names of the workbook's sheets, [] for other files; `sheet` is the one that was read.
        bad: what is wrong with single cells, by row and column from 0: a formula without a value, a merged cell.
    """

    rows: list[list[str]]
    sheets: list[str] = field(default_factory=list)
    sheet: str = ""
    bad: dict[CellAt, str] = field(default_factory=dict)


def read_table(content: bytes, name: str, sheet: str = "") -> TableCells:
    """Return the cells of a table, of a workbook those of the sheet named, else of the first.

    Raises:
        FileError: it cannot be read, has no such sheet, or more than MOST_ROWS rows.
    """
    if not name.lower().endswith((".xlsx", ".xlsm")):
        return TableCells(read_cells(content, name))
    values, typed = open_book(content, data_only=True), open_book(content)
    names = [page.title for page in values.worksheets]
    chosen = sheet or (names[0] if names else "")
    if chosen not in names:
        raise FileError(f"The workbook has no sheet {chosen}. It has {', '.join(names) or 'none'}.", field="sheet")
    page, formulas = values[chosen], typed[chosen]
    if page.max_row > MOST_ROWS:
        raise FileError(f"The table has more than {MOST_ROWS} rows. Split it.")
    rows = [
        ["" if value is None else shown(value) for value in row]
        for row in page.iter_rows(max_col=min(MOST_COLUMNS, page.max_column), values_only=True)
    ]
    return TableCells(rows, names, chosen, _without_value(rows, formulas) | _merged(formulas))


def _without_value(rows: list[list[str]], formulas: Worksheet) -> dict[CellAt, str]:
    from openpyxl.utils import get_column_letter

    found: dict[CellAt, str] = {}
    for n, row in enumerate(formulas.iter_rows(max_row=len(rows), max_col=MOST_COLUMNS, values_only=True)):
        for k, value in enumerate(row):
            if isinstance(value, str) and value.startswith("=") and k < len(rows[n]) and not rows[n][k]:
                found[n, k] = f"The formula in {get_column_letter(k + 1)}{n + 1} has no stored value. Type the value."
    return found


def _merged(page: Worksheet) -> dict[CellAt, str]:
    from openpyxl.utils import get_column_letter

    found: dict[CellAt, str] = {}
    for area in page.merged_cells.ranges:
        first = f"{get_column_letter(area.min_col)}{area.min_row}"
        for row in range(area.min_row, min(area.max_row, MOST_ROWS) + 1):
            for col in range(area.min_col, min(area.max_col, MOST_COLUMNS) + 1):
                if (row, col) != (area.min_row, area.min_col):
                    found[row - 1, col - 1] = f"It is merged with {first}. Split the cells and fill each."
    return found
