"""Terminals on sheets: a row along a stroke, new ones or those that are planned."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.cables import crossed_wires
from jolly_core.drawing import UPRIGHT
from jolly_core.library import PLAIN, definition, symbol_of_kind
from jolly_core.model import Project, RuleError, counted
from jolly_core.tagging import short_tag, terminal_number

from ..base.edit import Grid, Id, Payload, Work, edit
from ..base.upkeep import new_device
from ..draw.place import put_symbol
from .items import TerminalUnit, strip_named, terminals_named


class PlaceTerminals(Payload):
    """Put a row of terminals along a stroke, one on each wire it crosses, in the order of crossing.

    They go to the strip named, else to the one of the sheet's place that was used last, else to a new one; `new_strip`
    asks for a new one at once. Without a kind, protective conductors get earth terminals and the others plain ones.
    What is planned on the strip and of that kind is drawn first; `units` names terminals that are planned, in the order
    in which they are to be drawn, each as what it is planned.
    """

    kind: Literal["place-terminals"] = "place-terminals"
    sheet_id: Id
    x1: Grid
    y1: Grid
    x2: Grid
    y2: Grid
    device_id: Id = ""
    new_strip: bool = False
    definition: Literal["", "terminal", "terminal-earth", "terminal-fuse", "terminal-disconnect"] = ""
    units: list[TerminalUnit] = Field(default_factory=list, max_length=500)


@edit(PlaceTerminals, {"sheet_id": "s1", "x1": 28, "y1": 20, "x2": 44, "y2": 20})
def place_terminals(work: Work, payload: PlaceTerminals) -> str:
    """Work out PlaceTerminals."""
    project = work.project
    crossed = _crossed(project, payload)
    strip_id = payload.device_id
    if strip_id:
        strip_named(project, strip_id)
    elif payload.new_strip:
        sheet = project.sheets[payload.sheet_id]
        strip_id = new_device(work, "terminal", (sheet.function_id, sheet.location_id)).id
    units = _planned(work, strip_id, payload.units) if payload.units else {}
    if units and len(units) < len(crossed):
        were_chosen = f"{counted(len(units), 'planned terminal')} {'was' if len(units) == 1 else 'were'} chosen"
        words = f"The stroke crosses {counted(len(crossed), 'wire')}, and {were_chosen}"
        raise RuleError(f"{words}. Make it shorter, or choose more terminals.", field="units")
    chosen = list(units)
    upright = payload.y1 == payload.y2
    for n, wire_id in enumerate(crossed):
        wire = project.wires.get(wire_id)
        if wire is None:  # cut by a terminal before it: never so for parallel wires
            continue
        wire_type = project.wire_types.get(wire.type_id)
        usual = "terminal-earth" if wire_type is not None and wire_type.category == "pe" else PLAIN
        unit = chosen[n] if units else 0
        shape = definition(symbol_of_kind(units[unit]) if unit else payload.definition or usual)
        draft = work.draft(payload.sheet_id)
        at = (wire.x1, payload.y1) if upright else (payload.x1, wire.y1)
        symbol = put_symbol(work, draft, shape, at, UPRIGHT if upright else (0, False), 1, strip_id, "", unit)
        work.close(draft)
        strip_id = symbol.device_id
        work.outcome.placed.append(symbol.id)
    return f"place {counted(len(work.outcome.placed), 'terminal')} of {short_tag(project, project.devices[strip_id])}"


def _crossed(project: Project, payload: PlaceTerminals) -> list[str]:
    """Return the wires that the stroke crosses, in crossing order.

    Raises:
        RuleError: it runs at a slant, or crosses none.
    """
    if (payload.x1 != payload.x2) == (payload.y1 != payload.y2):
        raise RuleError("Draw the row level or upright, across the wires.", field="x2")
    start, end = (payload.x1, payload.y1), (payload.x2, payload.y2)
    crossed = crossed_wires(project, payload.sheet_id, start, end)
    if not crossed:
        raise RuleError("The row crosses no wire. Draw it at a right angle across the wires.", field="x2")
    return crossed


def _planned(work: Work, strip_id: str, units: list[int]) -> dict[int, str]:
    """Return the kinds that chosen terminals are planned as, in their order.

    Raises:
        RuleError: one is not planned, or drawn already.
    """
    project = work.project
    tag = short_tag(project, strip_named(project, strip_id))
    found: dict[int, str] = {}
    for unit, (record, symbols) in terminals_named(project, strip_id, units).items():
        name = f"{tag}:{terminal_number(project, strip_id, unit)}"
        if symbols or not record.planned:
            raise RuleError(f"{name} is drawn already.", field="units", ids=tuple(s.id for s in symbols))
        found[unit] = record.planned
    return found
