"""Point lists from outside: rows of cells to points, with what is wrong named by row and column."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

from jolly_core.model import FileError, IoPoint, Project, check_text

IoType = Literal["DI", "DO", "AI", "AO"]
Change = Literal["added", "changed", "same"]
COLUMNS = ("tag", "text", "io_type", "connected")
HEADINGS: dict[str, tuple[str, ...]] = {
    "tag": ("tag", "point", "name", "signal"),
    "text": ("text", "description", "function", "comment"),
    "io_type": ("type", "io type", "i/o type", "kind", "signal type"),
    "connected": ("connected", "connected to", "device", "what", "field device"),
}
TYPE_WORDS: dict[str, IoType] = {
    "di": "DI",
    "digital in": "DI",
    "digital input": "DI",
    "input": "DI",
    "do": "DO",
    "digital out": "DO",
    "digital output": "DO",
    "output": "DO",
    "ai": "AI",
    "analog in": "AI",
    "analog input": "AI",
    "analogue input": "AI",
    "ao": "AO",
    "analog out": "AO",
    "analog output": "AO",
    "analogue output": "AO",
}
LONGEST = 200


@dataclass(slots=True, frozen=True)
class PointLine:
    """A good row of a point list."""

    row: int
    tag: str
    text: str
    io_type: IoType
    connected: str


@dataclass(slots=True, frozen=True)
class Fault:
    """What is wrong in a row: its number in the file, the column's heading, why."""

    row: int
    column: str
    why: str


@dataclass(slots=True)
class PointList:
    """What was read: good rows, faults, and the headings found for each column."""

    lines: list[PointLine] = field(default_factory=list)
    faults: list[Fault] = field(default_factory=list)
    headings: dict[str, str] = field(default_factory=dict)


def read_points(rows: Sequence[Sequence[str]]) -> PointList:
    """Return the points of a table whose first row with anything in it holds the headings.

    Args:
        rows: cells as texts, row by row as in the file.

    Raises:
        FileError: there is no heading for the tag or the type; the message lists the headings that are known.
    """
    start = next((n for n, row in enumerate(rows) if any(c.strip() for c in row)), None)
    if start is None:
        raise FileError("The file is empty. It should have the headings Tag, Text, Type and Connected to.")
    where = _columns(rows[start])
    found = PointList(headings={name: rows[start][n].strip() for name, n in where.items()})
    seen: dict[str, int] = {}
    for number, row in enumerate(rows[start + 1 :], start=start + 2):
        if any(cell.strip() for cell in row):
            _read(found, where, seen, number, row)
    return found


def _columns(heading: Sequence[str]) -> dict[str, int]:
    names = [" ".join(cell.lower().split()) for cell in heading]
    where = {column: names.index(h) for column, known in HEADINGS.items() for h in reversed(known) if h in names}
    for column, word in (("tag", "Tag"), ("io_type", "Type")):
        if column not in where:
            known = ", ".join(HEADINGS[column])
            raise FileError(f"No column is headed {word} (known headings: {known}). Name it so in the first row.")
    return where


def _read(found: PointList, where: dict[str, int], seen: dict[str, int], number: int, row: Sequence[str]) -> None:
    cells = {name: row[n].strip() if n < len(row) else "" for name, n in where.items()}
    before = len(found.faults)
    for name, cell in cells.items():
        try:
            check_text(cell, name, f"row {number}")
        except FileError:
            found.faults.append(Fault(number, found.headings[name], "It holds characters that cannot be printed."))
        if len(cell) > LONGEST:
            found.faults.append(Fault(number, found.headings[name], f"It is longer than {LONGEST} characters."))
    tag = cells["tag"]
    if not tag:
        found.faults.append(Fault(number, found.headings["tag"], "There is no tag. Give every point one."))
    elif tag in seen:
        why = f"{tag} is in row {seen[tag]} already. A tag may be there once."
        found.faults.append(Fault(number, found.headings["tag"], why))
    io_type = TYPE_WORDS.get(" ".join(cells["io_type"].lower().split()))
    if io_type is None:
        said = f"“{cells['io_type']}” is no type" if cells["io_type"] else "There is no type"
        found.faults.append(Fault(number, found.headings["io_type"], f"{said}. Use DI, DO, AI or AO."))
    if tag:
        seen.setdefault(tag, number)
    if len(found.faults) == before and io_type is not None:
        found.lines.append(PointLine(number, tag, cells.get("text", ""), io_type, cells.get("connected", "")))


def change_of(project: Project, line: PointLine) -> Change:
    """Return what taking in a line would do to the project's list: "added", "changed" or "same"."""
    old = _by_tag(project).get(line.tag)
    if old is None:
        return "added"
    same = all(getattr(old, name) == getattr(line, name) for name in ("text", "io_type", "connected"))
    return "same" if same else "changed"


def gone_from(project: Project, points: PointList) -> list[str]:
    """Return the tags of the project's list that a table read no longer has."""
    listed = {line.tag for line in points.lines}
    return sorted(tag for tag in _by_tag(project) if tag not in listed)


def _by_tag(project: Project) -> dict[str, IoPoint]:
    return {p.tag: p for p in project.io_points.values()}
