"""Where else a thing is drawn: what one key steps through."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from jolly_core.drawing import place_in
from jolly_core.model import ON_SHEET, Project
from jolly_core.tagging import lead_of
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


def where_drawn(project: Project, id: str) -> tuple[str, str]:
    """Return the sheet a thing is on and what is selected there to see it: "" twice for what is drawn nowhere.

    A device is seen at its lead, a cable at a band of it; of a sheet nothing is selected.
    """
    if id in project.sheets:
        return id, ""
    if id in project.devices:
        lead = lead_of(project, id)
        bands = [] if lead else project.naming("band", "device_id", id)
        return (lead.sheet_id, lead.id) if lead else (bands[0].sheet_id, bands[0].id) if bands else ("", "")
    for kind in ON_SHEET:
        found = project.tables[kind].get(id)
        if found is not None:
            return found.sheet_id, id
    return "", ""


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
