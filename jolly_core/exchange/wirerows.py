"""Rows of a spreadsheet as wires of a harness: pasted with tabs, or text with semicolons or commas."""

from __future__ import annotations

import csv
import io
import re
from typing import Literal

from typing_extensions import TypedDict

from jolly_core.model import FileError

from .cells import MOST_ROWS


class PastedWire(TypedDict):
    """A wire as a row says it: signal, colour, size, the pins it joins, its twisted group and its shield."""

    signal: str
    colour: str
    size: str
    start: str
    end: str
    twisted: str
    shield: str


QUOTED = re.compile(r'(?:^|(?<=[\t;,\n]))\s*"(?:[^"]|"")*"')
FIELDS = ("signal", "colour", "size", "start", "end", "twisted", "shield")
# What a column may be headed.
HEADINGS = {
    "signal": r"(signal|name|wire|number)",
    "colour": r"(colou?r|col)",
    "size": r"(mm|size|cross|section|awg|gauge)",
    "start": r"from",
    "end": r"to\b",
    "twisted": r"(twist|pair)",
    "shield": r"(shield|screen)",
}


def wire_rows(text: str) -> list[PastedWire]:
    """Return the wires that rows say.

    Cells are parted by tabs; where there are none by semicolons, and only where there are none of those by commas: a
    decimal comma ("0,75") parts nothing beside the others. Quoted cells are read as RFC 4180 has them.

    Args:
        text: the rows. A first one that heads both ends says what the columns are; else they are FIELDS in order.

    Raises:
        FileError: more than MOST_ROWS rows.
    """
    bare = re.sub(QUOTED, "", text)
    mark = next((m for m in "\t;" if m in bare), ",")
    try:
        cells = _cells(text, mark, csv.QUOTE_MINIMAL)
    except csv.Error:  # a quotation mark that nothing closes is an inch, and begins no quoted cell
        cells = _cells(text, mark, csv.QUOTE_NONE)
    if len(cells) > MOST_ROWS:
        raise FileError(f"More than {MOST_ROWS} rows were pasted. Paste them in parts.")
    places = dict(zip(FIELDS, range(len(FIELDS)), strict=True))
    if cells and (headed := _headed(cells[0])):
        places = headed
        del cells[0]
    return [_wire(row, places) for row in cells]


def _cells(text: str, mark: str, quoting: Literal[0, 3]) -> list[list[str]]:
    """Return the cells of all rows that have any, a line break within one as a space."""
    read = csv.reader(
        io.StringIO(text, newline=""), delimiter=mark, quoting=quoting, skipinitialspace=True, strict=True
    )
    rows = [[" ".join(cell.split()) for cell in row] for row in read]
    return [row for row in rows if any(row)]


def _headed(row: list[str]) -> dict[str, int]:
    """Return which column each field is in by its heading; nothing where a row heads no ends."""
    found: dict[str, int] = {}
    for field, pattern in HEADINGS.items():
        places = (n for n, cell in enumerate(row) if re.match(pattern, cell, re.IGNORECASE))
        if (place := next(places, None)) is not None:
            found[field] = place
    return found if {"start", "end"} <= found.keys() else {}


def _wire(row: list[str], places: dict[str, int]) -> PastedWire:
    def cell(field: str) -> str:
        place = places.get(field)
        return row[place] if place is not None and place < len(row) else ""

    return PastedWire(
        signal=cell("signal"),
        colour=cell("colour"),
        size=cell("size"),
        start=cell("start"),
        end=cell("end"),
        twisted=cell("twisted"),
        shield=cell("shield"),
    )
