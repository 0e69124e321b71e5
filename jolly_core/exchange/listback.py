"""A list that was edited in a spreadsheet: what differs from the project, and what cannot be taken in.

A row is known by its hidden id, a column by its heading, so that rows may be sorted and columns moved.
"""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Any

from jolly_core.model import FileError, Project
from jolly_core.reports import BACK, REPORTS, Back, listed_factor, state_mark
from jolly_core.reports.back import State
from jolly_core.reports.registry import Cell, Row, as_row, full_report

from .cells import MOST_ROWS, NO_BOOK, open_book, shown
from .lists import MARK_HEADING, ROW_MARK

if TYPE_CHECKING:
    from openpyxl.worksheet.worksheet import Worksheet

LOOKED_AT = 10  # rows in which the headings are looked for


@dataclass(slots=True, frozen=True)
class EditedCell:
    """A cell that says something else than the project: object, its name, column, heading, what is and what becomes."""

    id: str
    name: str
    column: str
    heading: str
    before: str
    after: str
    mark: str


@dataclass(slots=True)
class ListBack:
    """What a list that was edited brings.

    Attributes:
        report: key of the report it is a list of.
        cells: what would change.
        refused: rows that are not taken in, each with its name and why.
        ignored: what is passed over: unknown columns, formulas, columns that are only to be read.
    """

    report: str
    cells: list[EditedCell] = field(default_factory=list)
    refused: list[str] = field(default_factory=list)
    ignored: list[str] = field(default_factory=list)


@dataclass(slots=True, frozen=True)
class _Layout:
    """Where things are in the file: row of the headings, column of ids and marks, columns by number, all from 1."""

    row: int
    id: int
    mark: int
    report: str
    columns: dict[int, tuple[str, str]]  # heading and column
    unit: str  # of its lengths, "" where it does not say


def read_list(project: Project, content: bytes) -> ListBack:
    """Return what an edited XLSX of a list would change; nothing is changed.

    Raises:
        FileError: it is no workbook, or not a list of this program that is taken in again.
    """
    try:
        page = open_book(content).worksheets[0]
    except IndexError:
        raise FileError(NO_BOOK) from None
    if page.max_row > MOST_ROWS:
        raise FileError(f"The list has more than {MOST_ROWS} rows.")
    found = ListBack("")
    layout = _layout(page, found)
    if layout.unit not in ("", project.settings.length_unit):
        raise FileError("The lengths of this list are in another unit than those of the project now. Write it anew.")
    back = BACK[layout.report]
    found.report = layout.report
    readings = _Readings(project, layout)
    for row in page.iter_rows(min_row=layout.row + 1):
        values = {cell.column: cell for cell in row if cell.value is not None}
        id = str(values[layout.id].value) if layout.id in values else ""
        if id:
            mark = str(values[layout.mark].value) if layout.mark in values else ""
            state = back.state(project, id)
            _read_row(project, back, layout, values, (id, mark), state, found)
            if state is not None and mark == state_mark(state):
                readings.look(values, id, state)
    _agree(found)
    found.ignored += readings.words()
    return found


class _Readings:
    """What was typed into columns that are only to be read: it is passed over, and told once for each column."""

    def __init__(self, project: Project, layout: _Layout) -> None:
        self.project, self.back = project, BACK[layout.report]
        table = full_report(project, layout.report)
        self.places = {column.key: n for n, column in enumerate(REPORTS[layout.report].columns)}
        self.columns = [(n, heading, key) for n, (heading, key) in layout.columns.items() if key in self.places]
        self.rows: dict[str, list[Row]] = {}
        for row in map(as_row, table.rows):
            self.rows.setdefault(row.about, []).append(row)
        self.typed: dict[str, list[str]] = {}

    def look(self, values: dict[int, Any], id: str, state: State) -> None:
        """Note the cells of a row that say otherwise than the list does; its object has not changed since."""
        rows = self.rows.get(id)
        if not rows:
            return
        for number, heading, key in self.columns:
            cell = values.get(number)
            if key in state or (cell is not None and cell.data_type == "f"):
                continue
            typed = shown(cell.value).strip() if cell is not None else ""
            if typed not in {shown(row[self.places[key]]).strip() for row in rows}:
                self.typed.setdefault(heading, []).append(f"“{typed}” at {self.back.name(self.project, id)}")

    def words(self) -> list[str]:
        """Return a sentence for each column."""
        found = []
        for heading, typed in self.typed.items():
            more = f" and {len(typed) - 1} more" if len(typed) > 1 else ""
            found.append(f"“{heading}” is only to be read: {typed[0]}{more} is not taken in.")
        return found


def _agree(found: ListBack) -> None:
    """Refuse what two rows of one object say differently."""
    said: dict[tuple[str, str], set[str]] = {}
    for cell in found.cells:
        said.setdefault((cell.id, cell.column), set()).add(cell.after)
    torn = {key for key, values in said.items() if len(values) > 1}
    for cell in found.cells:
        words = f"{cell.name}: two rows say different things in “{cell.heading}”."
        if (cell.id, cell.column) in torn and words not in found.refused:
            found.refused.append(words)
    found.cells = list({(c.id, c.column): c for c in found.cells if (c.id, c.column) not in torn}.values())


def _layout(page: Worksheet, found: ListBack) -> _Layout:
    """Return where things are, and note columns that are passed over."""
    for row in page.iter_rows(max_row=LOOKED_AT):
        for cell in row:
            if isinstance(cell.value, str) and cell.value.startswith(ROW_MARK):
                return _columns(row, cell.column, cell.value, found)
    raise FileError(
        "This is no list that can be taken in: its hidden columns are missing. Write the list as XLSX, edit that file."
    )


def _columns(row: tuple[Any, ...], id_column: int, words: str, found: ListBack) -> _Layout:
    try:
        said = json.loads(words.removeprefix(ROW_MARK))
        report, headings = str(said["report"]), {str(k): str(v) for k, v in said["columns"].items()}
        unit = str(said.get("unit", ""))
    except (ValueError, KeyError, TypeError, AttributeError):
        raise FileError("The hidden columns of this list were changed. Write the list anew.") from None
    if report not in BACK:
        raise FileError("This list is one to be read only: nothing of it is taken in.")
    columns: dict[int, tuple[str, str]] = {}
    mark = 0
    for cell in row:
        heading = "" if cell.value is None else str(cell.value)
        if heading == MARK_HEADING:
            mark = cell.column
        elif heading in headings:
            columns[cell.column] = (heading, headings[heading])
        elif heading and cell.column != id_column:
            found.ignored.append(f"Column “{heading}” is not one of the list.")
    return _Layout(row[0].row, id_column, mark, report, columns, unit)


def _read_row(
    project: Project,
    back: Back,
    layout: _Layout,
    values: dict[int, Any],
    object: tuple[str, str],
    state: State | None,
    found: ListBack,
) -> None:
    id, mark = object
    now = {c: _as_listed(c, v, listed_factor(project, c, id)) for c, v in (state or {}).items()}
    edited = list(_edited(back, layout, values, now, found))
    if state is None:
        first = next((shown(c.value) for n, c in sorted(values.items()) if n in layout.columns), "A row")
        found.refused.append(f"{first} is gone from the project.")
    elif edited and mark != state_mark(state):
        name = back.name(project, id)
        found.refused.append(f"{name} has changed since the list was written. Write the list anew and edit that.")
    else:
        name = back.name(project, id)
        found.cells += [EditedCell(id, name, column, head, was, now, mark) for column, head, was, now in edited]


def _edited(
    back: Back, layout: _Layout, values: dict[int, Any], state: dict[str, Cell], found: ListBack
) -> Iterator[tuple[str, str, str, str]]:
    """Yield column, heading, before and after of the cells of a row that differ; formulas are passed over."""
    from openpyxl.utils import get_column_letter

    for number, (heading, column) in layout.columns.items():
        if column not in state:
            continue
        cell = values.get(number)
        if cell is not None and cell.data_type == "f":
            where = f"{get_column_letter(number)}{cell.row}"
            found.ignored.append(f"The formula in {where} is not taken in. Type its value.")
            continue
        after = shown(cell.value).strip() if cell is not None else ""
        before = shown(state[column]).strip()
        if after != before and not (column in back.numbers and _as_number(after) == _as_number(before)):
            yield column, heading, before, after


def _as_listed(key: str, value: Cell, factor: float) -> Cell:
    """Return a value as the list shows it, a length and the price of one in the project's unit."""
    return round(value / factor, 4 if key == "price" else 2) if factor != 1 and not isinstance(value, str) else value


def _as_number(words: str) -> float | str:
    try:
        return float(words.replace(",", ".")) if words else 0.0
    except ValueError:
        return words
