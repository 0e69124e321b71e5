"""Rows of terminals and cavities on a sheet: each row, each side of a gap and each lone one names its strip."""

from __future__ import annotations

from collections import Counter
from itertools import pairwise

from jolly_core.drawing import GRID_MM, lies_upright, pin_points
from jolly_core.library import definition
from jolly_core.model import Project, Symbol, derived, derived_part
from jolly_core.tagging import tag_on

from ..base.primitives import Item, Line, text

SMALL = ("terminal", "cavity")  # units whose tag is short and has their number
LEAST_GAP = 6  # steps; neighbours nearer than this are one row, however regular it is
BEYOND_MM = 5.0  # that the line through a row goes on at its ends
TAG_MM = 2.8
WIDER = 1.5  # times the usual distance of a row makes a gap


@derived
def named_on(project: Project, sheet_id: str) -> set[str]:
    """Return the ids of the symbols on a sheet that show the tag of their strip or connector beside their number."""
    return _named(project, sheet_id)


def _sheet_of(project: Project, symbol_id: str) -> str:
    return project.symbols[symbol_id].sheet_id


@derived_part(named_on, _sheet_of)
def is_named(named: set[str], symbol_id: str) -> bool:
    """Return whether a symbol shows the tag of its strip or connector beside its number."""
    return symbol_id in named


def _runs_across(symbols: list[Symbol]) -> bool:
    """Return whether rows of these run from left to right: as more of them lie in one line; else across their wires."""
    level, upright = (max(Counter(v).values()) for v in ([s.y for s in symbols], [s.x for s in symbols]))
    return lies_upright(symbols[0]) if level == upright else level > upright


def _named(project: Project, sheet_id: str) -> set[str]:
    return {row[0].id for row in rows_on_sheet(project, sheet_id)}


def rows_on_sheet(project: Project, sheet_id: str) -> list[list[Symbol]]:
    """Return the rows in which terminals and cavities of a device lie on a sheet; a wide gap parts a row in two."""
    of_device: dict[str, list[Symbol]] = {}
    for symbol in project.symbols_on(sheet_id):
        if symbol.device_id and definition(symbol.definition).unit in SMALL:
            of_device.setdefault(symbol.device_id, []).append(symbol)
    lines: dict[tuple[str, bool, int], list[Symbol]] = {}
    for device_id, symbols in of_device.items():
        across = _runs_across(symbols)
        for symbol in symbols:
            lines.setdefault((device_id, across, symbol.y if across else symbol.x), []).append(symbol)
    found: list[list[Symbol]] = []
    for (_, across, _), symbols in lines.items():
        symbols.sort(key=lambda s: (s.x, s.y, s.id) if across else (s.y, s.x, s.id))
        places = [s.x if across else s.y for s in symbols]
        steps = [b - a for a, b in pairwise(places)]
        usual = min((step for step in steps if step), default=0)
        found.append(symbols[:1])
        for symbol, step in zip(symbols[1:], steps, strict=True):
            if step > max(LEAST_GAP, WIDER * usual):
                found.append([])
            found[-1].append(symbol)
    return found


@derived
def row_lines(project: Project, sheet_id: str) -> list[Item]:
    """Return a dashed line through each row of the strips that ask for it, with the strip's name at its end."""
    shown = {s.device_id for s in project.strips.values() if s.show_row}
    items: list[Item] = []
    for row in rows_on_sheet(project, sheet_id) if shown else ():
        if row[0].device_id not in shown:
            continue
        points = [p for s in row for p in pin_points(s)]
        xs, ys = ([p[n] * GRID_MM for p in points] for n in (0, 1))
        level = row[0].y == row[-1].y if len(row) > 1 else lies_upright(row[0])
        middle = (min(ys) + max(ys)) / 2 if level else (min(xs) + max(xs)) / 2
        start, end = (min(xs), max(xs)) if level else (min(ys), max(ys))
        start, end = start - BEYOND_MM, end + BEYOND_MM
        tag = tag_on(project, project.devices[row[0].device_id], project.sheets[sheet_id])
        if level:
            line, words = Line(start, middle, end, middle, "dash"), text(end + 1, middle + 1, TAG_MM, tag, role="tag")
            box = (start, middle - 2, end + 1 + len(tag) * TAG_MM, middle + 2)
        else:
            line, words = (
                Line(middle, start, middle, end, "dash"),
                text(middle + 1, end + TAG_MM, TAG_MM, tag, role="tag"),
            )
            box = (middle - 1, start, middle + 1 + len(tag) * TAG_MM, end + TAG_MM)
        items.append(Item(f"row:{row[0].id}", "table", [line, words], box, {"device": row[0].device_id}))
    return items
