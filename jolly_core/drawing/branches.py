"""Wires that lead to some pins and to nothing else: what has to go when what stands at these pins goes."""

from __future__ import annotations

from collections import defaultdict

from .draft import SheetDraft
from .geometry import Point


def branches_of(draft: SheetDraft, symbol_ids: set[str]) -> tuple[set[str], set[str]]:
    """Return the ids of the wires from the pins of symbols to the next junction or other pin, and of marks left bare.

    A wire that then leads on from what was a junction is no part of it: a common keeps its other rows.

    Example:
        Of two rows on one common, the branch of the last is its row and the common as far as the first row.
    """
    at: dict[Point, set[str]] = defaultdict(set)
    for id, w in draft.wires.items():
        at[(w.x1, w.y1)].add(id)
        at[(w.x2, w.y2)].add(id)
    own = {p for id in symbol_ids if id in draft.symbols for p in draft.points_of(draft.symbols[id])}
    held = {p for id, s in draft.symbols.items() if id not in symbol_ids for p in draft.points_of(s)} - own
    marks = {(c.x, c.y): id for id, c in draft.continuations.items()}
    gone: set[str] = set()
    bare: set[str] = set()
    waiting = sorted((p, id) for p in own for id in at[p])
    while waiting:
        start, id = waiting.pop()
        if id in gone:
            continue
        gone.add(id)
        wire = draft.wires[id]
        end = (wire.x2, wire.y2) if (wire.x1, wire.y1) == start else (wire.x1, wire.y1)
        left = at[end] - gone
        if end in held or end in own:
            continue
        if end in marks:
            if not left:
                bare.add(marks[end])
        elif len(left) == 1:
            waiting.append((end, next(iter(left))))
    return gone, bare
