"""Where else a thing is drawn: what one key steps through."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from jolly_core.drawing import place_in
from jolly_core.model import Project
from jolly_core.wiring import net_of, sheet_groups


def places_of(project: Project, id: str) -> list[dict[str, str]]:
    """Return where else a thing is drawn, itself included, in reading order: id, sheet and place in words.

    A symbol is wherever its device is, a continuation wherever one of its name is, a wire at the continuations of its
    net.
    """
    found = sorted(_same(project, id), key=lambda e: (project.sheets[e.sheet_id].order, e.y, e.x, e.id))
    return [
        {
            "id": e.id,
            "sheet_id": e.sheet_id,
            "sheet": project.sheets[e.sheet_id].number,
            "place": place_in(project.sheets[e.sheet_id], e.x, e.y),
        }
        for e in found
    ]


def _same(project: Project, id: str) -> Iterator[Any]:
    symbol = project.symbols.get(id)
    mark = project.continuations.get(id)
    wire = project.wires.get(id)
    if symbol is not None:
        yield from project.units_of(symbol.device_id) if symbol.device_id else [symbol]
    elif mark is not None:
        yield from (project.continuations[i] for i in project.continuations_named.get(mark.name))
    elif wire is not None:
        start = (wire.sheet_id, sheet_groups(project, wire.sheet_id).of_wire[wire.id])
        yield from (project.continuations[i] for g in net_of(project, start) for i in g.continuations)
