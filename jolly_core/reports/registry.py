"""What a report is, and the one list of them: columns and rows, no file format."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Literal

from jolly_core.model import INCHES, Project, RuleError, derived_few, note_fault, sizes_in, uncollected
from jolly_core.tagging import natural

Cell = str | int | float
Build = Callable[[Project], list[tuple[Cell, ...]]]
# What a column holds of lengths: so many mm or m, an amount or the name of a row's unit, a price for one of it.
Measure = Literal["", "mm", "m", "amount", "unit", "price"]
KEPT = 32  # reports whose rows are kept
UNKNOWN_LENGTH = "no length"  # the unit of what is bought by the metre, nobody knows yet how many


@dataclass(slots=True, frozen=True)
class Column:
    """A column: key in JSON, heading for people, width in characters, whether it holds numbers.

    `extra`: it is not shown unless a recipe asks for it. `measure`: what it holds of lengths, where its key does not
    end in the unit.
    """

    key: str
    heading: str
    width: int = 12
    number: bool = False
    extra: bool = False
    measure: Measure = ""


class Row(tuple[Cell, ...]):
    """The cells of a row that leads to its object and says why cells of it are blank or doubtful.

    Attributes:
        lead: id of the object, as `places_of` and the browser's addresses take it, or `list_lead`; "" for none.
        about: id of the record whose texts it shows: that of the object, where it is no other.
        whys: key of a column to why its cell is blank or doubtful.
    """

    lead: str = ""
    about: str = ""
    whys: Mapping[str, str] = {}

    @classmethod
    def of(cls, cells: Iterable[Cell], lead: str = "", whys: Mapping[str, str] | None = None, about: str = "") -> Row:
        """Return a row; reasons that are "" are left out."""
        row = cls(cells)
        row.lead, row.about = lead, about or lead
        row.whys = {key: why for key, why in (whys or {}).items() if why}
        return row

    def with_cells(self, cells: Iterable[Cell]) -> Row:
        """Return other cells that lead to the same object, for the same reasons."""
        return Row.of(cells, self.lead, self.whys, self.about)


LIST = "list:"


def list_lead(key: str) -> str:
    """Return what a row leads to that is about many objects: the list of a report, in which they are."""
    return f"{LIST}{key}"


def as_row(cells: tuple[Cell, ...]) -> Row:
    """Return cells as a row; what is one stays itself."""
    return cells if isinstance(cells, Row) else Row(cells)


@dataclass(slots=True)
class Table:
    """A report's result; every row has one cell for each column.

    `machine`: it goes to a printer or machine, so that its texts are written as they are.
    """

    title: str
    columns: tuple[Column, ...]
    rows: list[tuple[Cell, ...]]
    foot: tuple[str, ...] = ()
    machine: bool = False


def in_natural_order(rows: Iterable[tuple[Cell, ...]], column: int = 0) -> list[tuple[Cell, ...]]:
    """Return rows by a column as a person counts: WD2 before WD10; equal ones by what they lead to."""
    return sorted(rows, key=lambda row: (natural(str(row[column])), row.lead if isinstance(row, Row) else ""))


@dataclass(slots=True, frozen=True)
class Report:
    """A registered report."""

    key: str
    title: str
    help: str
    columns: tuple[Column, ...]
    build: Build
    machine: bool = False
    keeps: bool = True  # what it gives depends on the project alone, so it need not be built each time


REPORTS: dict[str, Report] = {}
# Reports of packages that failed when they were run last, and how.
FAILED: dict[str, str] = {}


def report(
    key: str,
    title: str,
    help: str,
    columns: tuple[Column, ...],
    *,
    machine: bool = False,
    keeps: bool = True,
) -> Callable[[Build], Build]:
    """Register a row builder under a key.

    Raises:
        RuntimeError: two reports claim one key.
    """

    def register(build: Build) -> Build:
        if key in REPORTS:
            raise RuntimeError(f"Two reports claim “{key}”.")
        REPORTS[key] = Report(key, title, help, columns, build, machine, keeps)
        return build

    return register


def guarded(package: str, key: str, columns: tuple[Column, ...], build: Build) -> Build:
    """Return a row builder of a package that gives no rows where it fails; the report says so at its foot."""

    def run(project: Project) -> list[tuple[Cell, ...]]:
        try:
            rows = [tuple(row) for row in build(project)]
            for row in rows:
                if len(row) != len(columns) or not all(isinstance(cell, (str, int, float)) for cell in row):
                    raise TypeError(f"a row is not {len(columns)} texts or numbers")
        except Exception as error:  # whatever a package does, the rest goes on
            FAILED[key] = note_fault(package, f"The report “{key}”", error, project)
            return []
        FAILED.pop(key, None)
        return rows

    return run


@derived_few(KEPT)
def _rows(project: Project, build: Build) -> list[tuple[Cell, ...]]:
    """Return what a row builder gives, kept until something that it has read changes."""
    return build(project)


@uncollected
def run_report(project: Project, key: str) -> Table:
    """Return the table of a report, without the columns that only recipes ask for.

    Raises:
        RuleError: there is no report of that key; the message lists those there are.
    """
    table = full_report(project, key)
    shown = [n for n, column in enumerate(table.columns) if not column.extra]
    if len(shown) == len(table.columns):
        return table
    rows: list[tuple[Cell, ...]] = [as_row(row).with_cells(row[n] for n in shown) for row in table.rows]
    return replace(table, columns=tuple(table.columns[n] for n in shown), rows=rows)


def report_called(key: str) -> Report:
    """Return a report by its key.

    Raises:
        RuleError: there is none; the message lists those there are.
    """
    found = REPORTS.get(key)
    if found is None:
        raise RuleError(f"There is no report “{key}”. There are: {', '.join(REPORTS)}.", field="report")
    return found


def unit_factor(project: Project, key: str) -> float:
    """Return what a length in a column is divided by as lists of the project show it: 1 where they are in mm and m."""
    if project.settings.length_unit != "in":
        return 1.0
    return next((length for measure, (_, length) in INCHES.items() if key.endswith(f"_{measure}")), 1.0)


@uncollected
def full_report(project: Project, key: str) -> Table:
    """Return the table of a report with all its columns.

    Raises:
        RuleError: as `run_report`.
    """
    found = report_called(key)
    rows = list(_rows(project, found.build)) if found.keeps else found.build(project)
    foot = (f"{FAILED[key]}. Tell who made it.",) if key in FAILED else ()
    table = Table(found.title, found.columns, rows, foot, found.machine)
    return in_inches(table) if project.settings.length_unit == "in" else table


def in_inches(table: Table) -> Table:
    """Return a table with its millimetres as inches and its metres as feet; a key's ending says which columns are such.

    Example:
        >>> in_inches(Table("Cuts", (Column("length_mm", "Length mm"),), [(254.0,)])).rows
        [(10.0,)]
    """
    measures = {n: found for n, c in enumerate(table.columns) if (found := _measure(c))}
    units = next((n for n, found in measures.items() if found == "unit"), None)
    columns = [_column_in_inches(c, measures.get(n, "")) for n, c in enumerate(table.columns)]
    rows: list[tuple[Cell, ...]] = []
    for row in table.rows:
        unit = "" if units is None else row[units]
        cells = (_in_inches(v, measures[n], unit) if n in measures else v for n, v in enumerate(row))
        rows.append(as_row(row).with_cells(cells))
    return replace(table, columns=tuple(columns), rows=rows)


def _measure(column: Column) -> Measure:
    key = column.key
    return column.measure or ("mm" if key.endswith("_mm") else "m" if key.endswith("_m") else "")


def _column_in_inches(column: Column, measure: Measure) -> Column:
    if measure not in INCHES:
        return column
    unit, _ = INCHES[measure]
    named = column.key.endswith(f"_{measure}")
    key = column.key.removesuffix(measure) + unit if named else "feet" if column.key == "metres" else column.key
    return replace(column, key=key, heading=column.heading.replace(f" {measure}", f" {unit}"))


def _in_inches(value: Cell, measure: Measure, unit: Cell) -> Cell:
    """Return a cell of a row of things counted in a unit, with its lengths in inches and feet."""
    if isinstance(value, str):
        feet = measure == "unit" and value == "m"
        return sizes_in("in", value) if measure == "mm" else INCHES["m"][0] if feet else value
    if measure in INCHES:
        return round(value / INCHES[measure][1], 2)
    if measure == "amount" and unit == "m":
        return round(value / INCHES["m"][1], 3)
    if measure == "price" and unit in ("m", UNKNOWN_LENGTH):
        return round(value * INCHES["m"][1], 4)
    return value
