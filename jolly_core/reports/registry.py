"""What a report is, and the one list of them: columns and rows, no file format."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from jolly_core.model import Project, RuleError

Cell = str | int | float


@dataclass(slots=True, frozen=True)
class Column:
    """A column: key in JSON, heading for people, width in characters, whether it holds numbers."""

    key: str
    heading: str
    width: int = 12
    number: bool = False


@dataclass(slots=True)
class Table:
    """A report's result; every row has one cell for each column."""

    title: str
    columns: tuple[Column, ...]
    rows: list[tuple[Cell, ...]]


@dataclass(slots=True, frozen=True)
class Report:
    """A registered report."""

    key: str
    title: str
    help: str
    columns: tuple[Column, ...]
    build: Callable[[Project], list[tuple[Cell, ...]]]


REPORTS: dict[str, Report] = {}


def report(
    key: str, title: str, help: str, columns: tuple[Column, ...]
) -> Callable[[Callable[[Project], list[tuple[Cell, ...]]]], Callable[[Project], list[tuple[Cell, ...]]]]:
    """Register a row builder under a key.

    Raises:
        RuntimeError: two reports claim one key.
    """

    def register(build: Callable[[Project], list[tuple[Cell, ...]]]) -> Callable[[Project], list[tuple[Cell, ...]]]:
        if key in REPORTS:
            raise RuntimeError(f"Two reports claim “{key}”.")
        REPORTS[key] = Report(key, title, help, columns, build)
        return build

    return register


def run_report(project: Project, key: str) -> Table:
    """Return the table of a report.

    Raises:
        RuleError: there is no report of that key; the message lists those there are.
    """
    found = REPORTS.get(key)
    if found is None:
        raise RuleError(f"There is no report “{key}”. There are: {', '.join(REPORTS)}.", field="kind")
    return Table(found.title, found.columns, found.build(project))
