"""Rows of terminals and cavities on a sheet: each row, each side of a gap and each lone one names its strip."""

from __future__ import annotations

from collections import Counter
from itertools import pairwise

from jolly_core.drawing import lies_upright
from jolly_core.library import definition
from jolly_core.model import Project, Symbol, derived

SMALL = ("terminal", "cavity")  # units whose tag is short and has their number
LEAST_GAP = 6  # steps; neighbours nearer than this are one row, however regular it is
WIDER = 1.5  # times the usual distance of a row makes a gap


@derived
def named_on(project: Project, sheet_id: str) -> set[str]:
    """Return the ids of the symbols on a sheet that show the tag of their strip or connector beside their number."""
    return _named(project, sheet_id)


def _runs_across(symbols: list[Symbol]) -> bool:
    """Return whether rows of these run from left to right: as more of them lie in one line; else across their wires."""
    level, upright = (max(Counter(v).values()) for v in ([s.y for s in symbols], [s.x for s in symbols]))
    return lies_upright(symbols[0]) if level == upright else level > upright


def _named(project: Project, sheet_id: str) -> set[str]:
    of_device: dict[str, list[Symbol]] = {}
    for symbol in project.symbols_on(sheet_id):
        if symbol.device_id and definition(symbol.definition).unit in SMALL:
            of_device.setdefault(symbol.device_id, []).append(symbol)
    lines: dict[tuple[str, bool, int], list[Symbol]] = {}
    for device_id, symbols in of_device.items():
        across = _runs_across(symbols)
        for symbol in symbols:
            lines.setdefault((device_id, across, symbol.y if across else symbol.x), []).append(symbol)
    named: set[str] = set()
    for (_, across, _), symbols in lines.items():
        symbols.sort(key=lambda s: (s.x, s.y, s.id) if across else (s.y, s.x, s.id))
        places = [s.x if across else s.y for s in symbols]
        steps = [b - a for a, b in pairwise(places)]
        usual = min((step for step in steps if step), default=0)
        named.add(symbols[0].id)
        for symbol, step in zip(symbols[1:], steps, strict=True):
            if step > max(LEAST_GAP, WIDER * usual):
                named.add(symbol.id)
    return named
