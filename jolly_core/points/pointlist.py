"""Point lists from outside: rows of cells to points, each row with what it would change or what is wrong in it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from jolly_core.model import FileError, IoPoint, Project, text_fault
from jolly_core.tagging import path_of

from .pointfields import BY_KEY, FIELDS, NEEDED, NO_COLUMN, OWN_COLUMN, field_headed, io_type_of, plain_words

RowChange = Literal["added", "changed", "same", "faulty"]
PointValues = dict[str, Any]
HEADING_ROWS = 40  # among which the row of headings is looked for
MOST_OWN = 30


@dataclass(slots=True, frozen=True)
class PointLine:
    """A good row of a point list: its number in the file and the values of the point, by field."""

    row: int
    tag: str
    values: PointValues


@dataclass(slots=True, frozen=True)
class Fault:
    """What is wrong in a row: its number in the file, the column's heading, why."""

    row: int
    column: str
    why: str


@dataclass(slots=True, frozen=True)
class ListRow:
    """A row of the check table: what taking it in would do, and which fields it would change."""

    row: int
    tag: str
    change: RowChange
    cells: tuple[str, ...]
    changed: tuple[str, ...] = ()


@dataclass(slots=True)
class PointList:
    """What was read of a table.

    Attributes:
        heading_row: number of the row of headings, from 1.
        headings: the cells of that row.
        columns: what each column holds: a field's key, OWN_COLUMN or NO_COLUMN.
        rows: the rows below it that hold anything.
        lines, faults: good rows, and what is wrong in others.
        gone: tags of the project's list that no row names.
        problem: why no row could be read though there are headings, "" when they were.
    """

    heading_row: int = 1
    headings: list[str] = field(default_factory=list)
    columns: list[str] = field(default_factory=list)
    rows: list[ListRow] = field(default_factory=list)
    lines: list[PointLine] = field(default_factory=list)
    faults: list[Fault] = field(default_factory=list)
    gone: list[str] = field(default_factory=list)
    problem: str = ""


def read_points(
    project: Project,
    rows: Sequence[Sequence[str]],
    mapping: Mapping[str, str] | None = None,
    bad_cells: Mapping[tuple[int, int], str] | None = None,
) -> PointList:
    """Return the points of a table, and what taking them in would change; nothing is taken in.

    The row of headings is the one among the first that has most known headings; rows above it are titles. Without a
    column for the tag or the type nothing is read, and the problem says which headings are known.

    Args:
        rows: cells as texts, row by row as in the file.
        mapping: what columns hold, by heading as a person said it: a field's key, OWN_COLUMN or NO_COLUMN.
        bad_cells: what is wrong with single cells, by row and column from 0 (a formula without a value).

    Raises:
        FileError: nothing is in the table.
    """
    start = _heading_row(rows, mapping or {})
    found = PointList(heading_row=start + 1, headings=[c.strip() for c in rows[start]])
    found.columns = _columns(found.headings, mapping or {})
    for key in NEEDED:
        if key not in found.columns:
            known = ", ".join((BY_KEY[key].heading, *BY_KEY[key].known))
            words = f"No column is headed {BY_KEY[key].heading} (known headings: {known})."
            found.problem = f"{words} Name it so, or say which column it is."
            return found
    reader = _Reader(project, found, dict(bad_cells or {}))
    for number, row in enumerate(rows[start + 1 :], start=start + 2):
        if any(cell.strip() for cell in row):
            reader.read(number, row)
    named = {row.tag for row in found.rows}
    points = sorted(project.io_points.values(), key=lambda p: (p.order, p.id))
    found.gone = [p.tag for p in points if p.tag not in named]
    return found


def _heading_row(rows: Sequence[Sequence[str]], mapping: Mapping[str, str]) -> int:
    best, most = -1, 0
    first = -1
    for n, row in enumerate(rows[:HEADING_ROWS]):
        cells = [c.strip() for c in row]
        if not any(cells):
            continue
        first = n if first < 0 else first
        known = {field_headed(c) for c in cells if c} - {""} | {c for c in cells if c in mapping}
        if len(known) > most:
            best, most = n, len(known)
    if first < 0:
        raise FileError("The file is empty. It should have the headings Tag, Text, Type and Connected to.")
    return best if best >= 0 else first


def _columns(headings: list[str], mapping: Mapping[str, str]) -> list[str]:
    """Return what each column holds; of two columns for one field the first has it."""
    taken: set[str] = set()
    found = []
    for heading in headings:
        key = mapping.get(heading) or field_headed(heading) or NO_COLUMN
        if key not in (NO_COLUMN, OWN_COLUMN) and (key in taken or key not in BY_KEY):
            key = NO_COLUMN
        taken.add(key)
        found.append(key if heading else NO_COLUMN)
    if "tag" not in found and "signal" in found:
        found[found.index("signal")] = "tag"  # lists without another name call their points signals
    return found


class _Reader:
    """Reads rows one after another; knows the tags seen, and the project's places by what people call them."""

    def __init__(self, project: Project, found: PointList, bad_cells: dict[tuple[int, int], str]) -> None:
        self.found = found
        self.bad_cells = bad_cells
        self.seen: dict[str, int] = {}
        self.known = {p.tag: p for p in project.io_points.values()}
        self.functions = _names(project.functions, "=")
        self.locations = _names(project.locations, "+")

    def read(self, number: int, row: Sequence[str]) -> None:
        """Read a row into lines or faults, and into the check table."""
        found = self.found
        before = len(found.faults)
        values: PointValues = {}
        own: dict[str, str] = {}
        shown: dict[str, str] = {}
        for n, (key, heading) in enumerate(zip(found.columns, found.headings, strict=True)):
            cell = row[n].strip() if n < len(row) else ""
            if key == NO_COLUMN:
                continue
            shown[key] = cell
            try:
                if (number - 1, n) in self.bad_cells:
                    raise FileError(self.bad_cells[number - 1, n])
                if text_fault(cell, len(cell)):
                    raise FileError("It holds characters that cannot be printed.")
                if key == OWN_COLUMN:
                    own[heading] = str(BY_KEY["remark"].read(cell))
                else:
                    values |= self._value(key, cell)
            except FileError as error:
                found.faults.append(Fault(number, heading, error.message))
        tag = shown.get("tag", "")
        self._check_tag(number, tag)
        cells = tuple(shown.get(f.key, "") for f in FIELDS)
        if len(found.faults) > before:
            found.rows.append(ListRow(number, tag, "faulty", cells))
            return
        if own:
            values["own"] = own
        found.lines.append(PointLine(number, tag, values))
        change, changed = self._change(tag, values)
        found.rows.append(ListRow(number, tag, change, cells, changed))

    def _check_tag(self, number: int, tag: str) -> None:
        heading = self.found.headings[self.found.columns.index("tag")]
        if not tag:
            self.found.faults.append(Fault(number, heading, "There is no tag. Give every point one."))
        elif tag in self.seen:
            why = f"{tag} is in row {self.seen[tag]} already. A tag may be there once."
            self.found.faults.append(Fault(number, heading, why))
        else:
            self.seen[tag] = number

    def _value(self, key: str, cell: str) -> PointValues:
        if key == "io_type":
            io_type, sort = io_type_of(cell)
            return {"io_type": io_type} | ({"sort": sort} if sort or "sort" not in self.found.columns else {})
        if key == "sort" and not cell:
            return {}
        if key in ("function", "location"):
            return {f"{key}_id": self._place(key, cell)}
        return {key: BY_KEY[key].read(cell)}

    def _place(self, key: str, cell: str) -> str:
        return _named(self.functions if key == "function" else self.locations, key, cell)

    def _change(self, tag: str, values: PointValues) -> tuple[RowChange, tuple[str, ...]]:
        old = self.known.get(tag)
        return ("added", ()) if old is None else _changed(old, values)


def place_named(project: Project, key: str, text: str) -> str:
    """Return the id of a function or location that people call so, by its path or its own code; "" for nothing.

    Args:
        key: "function" or "location".

    Raises:
        FileError: there is none.
    """
    nodes, sign = (project.functions, "=") if key == "function" else (project.locations, "+")
    return _named(_names(nodes, sign), key, text)


def _named(names: dict[str, str], key: str, text: str) -> str:
    word = text.strip().lstrip("=+").strip().lower()
    if word and word not in names:
        raise FileError(f"There is no {key} {text}. Make it in the Brief, or leave the column out.")
    return names.get(word, "")


def _changed(old: IoPoint, values: PointValues) -> tuple[RowChange, tuple[str, ...]]:
    changed = []
    for key, value in values.items():
        now = getattr(old, key)
        if key == "own":
            changed += [h for h, text in value.items() if now.get(h, "") != text]
        elif now != value:
            changed.append(key.removesuffix("_id"))
    return ("changed", tuple(changed)) if changed else ("same", ())


def _names(nodes: Mapping[str, Any], sign: str) -> dict[str, str]:
    """Return places by what people call them: their whole path, and their own code where it is the only one."""
    paths = {path_of(nodes, id, sign).replace(sign, ".").strip(".").lower(): id for id in nodes}
    paths |= {path_of(nodes, id, sign).lstrip(sign).lower(): id for id in nodes}
    codes: dict[str, list[str]] = {}
    for id, node in nodes.items():
        codes.setdefault(plain_words(node.code), []).append(id)
    return {code: ids[0] for code, ids in codes.items() if len(ids) == 1} | paths
