"""Point lists of the I/O bench: what one that was read holds, and the project's own as a table."""

from __future__ import annotations

import json
from typing import Literal, cast

from typing_extensions import TypedDict

from jolly_core.exchange import TableCells, read_table
from jolly_core.model import FileError, Project
from jolly_core.points import FIELDS, Fault, PointList, read_points
from jolly_core.reports import Cell, Column, Table

from .io import point_value


class PointColumnValue(TypedDict):
    """A column of a list that was read: its heading and what it holds."""

    heading: str
    key: str


class PointFieldValue(TypedDict):
    """A field that a column can hold."""

    key: str
    heading: str


class PointListLine(TypedDict):
    """A row of a list that was read: its cells by field, what taking it in would do, and what it would change."""

    row: int
    tag: str
    change: Literal["added", "changed", "same", "faulty"]
    cells: dict[str, str]
    changed: list[str]


class PointRead(TypedDict, total=False):
    """A point as a list gives it, by the fields of `take-in-points`; what the list says nothing of is left out."""

    tag: str
    io_type: str
    text: str
    text2: str
    sort: str
    signal: str
    device: str
    function_id: str
    location_id: str
    connected: str
    span: str
    unit: str
    normal: str
    terminals: bool
    cable: bool
    remark: str
    own: dict[str, str]


class ListRead(TypedDict):
    """A point list as it was read: what would be taken in, what is wrong, and how its columns were understood."""

    sheets: list[str]
    sheet: str
    heading_row: int
    columns: list[PointColumnValue]
    fields: list[PointFieldValue]
    rows: list[PointListLine]
    faults: list[Fault]
    gone: list[str]
    points: list[PointRead]
    problem: str


def said_columns(text: str) -> dict[str, str]:
    """Return what a person said of columns, by heading, from JSON; {} for nothing.

    Raises:
        FileError: it is no such JSON.
    """
    try:
        said = json.loads(text) if text else {}
    except ValueError:
        said = None
    if not isinstance(said, dict) or not all(isinstance(v, str) for v in said.values()):
        raise FileError("What the columns hold is said as JSON, heading to field.", field="mapping")
    return {str(heading): key for heading, key in said.items()}


def read_list(project: Project, content: bytes, name: str, sheet: str, mapping: dict[str, str]) -> ListRead:
    """Return what a point list holds and what taking it in would change; nothing is taken in.

    Args:
        sheet: the sheet of a workbook, "" for the first with points.
        mapping: what columns hold, by heading, as a person said.

    Raises:
        FileError: it cannot be read.
    """
    table, found = _read(project, content, name, sheet, mapping)
    keys = [f.key for f in FIELDS]
    return {
        "sheets": table.sheets,
        "sheet": table.sheet,
        "heading_row": found.heading_row,
        "columns": [{"heading": h, "key": k} for h, k in zip(found.headings, found.columns, strict=True) if h],
        "fields": [{"key": f.key, "heading": f.heading} for f in FIELDS],
        "rows": [
            {
                "row": r.row,
                "tag": r.tag,
                "change": r.change,
                "cells": dict(zip(keys, r.cells, strict=True)),
                "changed": list(r.changed),
            }
            for r in found.rows
        ],
        "faults": found.faults,
        "gone": found.gone,
        "problem": found.problem,
        "points": [cast(PointRead, line.values) for line in found.lines],
    }


def _read(
    project: Project, content: bytes, name: str, sheet: str, mapping: dict[str, str]
) -> tuple[TableCells, PointList]:
    """Return a table and the points in it; without a sheet said, of the first sheet in which points can be read."""
    table = read_table(content, name, sheet)
    for other in table.sheets if not sheet else ():
        there = read_table(content, name, other) if other != table.sheet else table
        if any(any(row) for row in there.rows):
            found = read_points(project, there.rows, mapping, there.bad)
            if not found.problem:
                return there, found
    return table, read_points(project, table.rows, mapping, table.bad)


def points_table(project: Project) -> Table:
    """Return the points as a table that can be taken in again: a column a field, then the project's own columns."""
    points = sorted(project.io_points.values(), key=lambda p: (p.order, p.id))
    own = list(dict.fromkeys(heading for p in points for heading in p.own))
    columns = [Column(f.key, f.heading, 14) for f in FIELDS] + [Column(f"own_{n}", h, 14) for n, h in enumerate(own)]
    columns += [Column("address", "Address", 10), Column("card", "Card", 16)]
    rows: list[tuple[Cell, ...]] = []
    for p in points:
        value = point_value(project, p, "")
        cells: list[str] = []
        for f in FIELDS:
            cell = value[f.key]  # type: ignore[literal-required]  # the fields of a point are those of its value
            cells.append(("yes" if cell else "no") if isinstance(cell, bool) else str(cell))
        rows.append((*cells, *(p.own.get(h, "") for h in own), value["address"], value["card"]))
    return Table("Points", tuple(columns), rows)
