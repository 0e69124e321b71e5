"""Traces on paper: a page for each load, with what leads to it from its source on."""

from __future__ import annotations

from jolly_core.library import definition
from jolly_core.model import GoneError, Project
from jolly_core.tagging import full_tag, natural

from .registry import Column, Table
from .tracemembers import TraceMember
from .tracing import LOADS, POWER, traced

COLUMNS = (
    Column("role", "What it is there for", 26),
    Column("name", "Tag", 34),
    Column("place", "Place", 14),
    Column("facts", "Rating", 34),
    Column("by", "Wires that lead to it", 26),
    Column("so_far", "Drop so far", 14),
)


def traced_loads(project: Project, *, control: bool = False) -> list[str]:
    """Return the symbols of all loads by tag: motors, heaters, supplies and the like.

    Args:
        control: coils, lamps and sensors, too.
    """
    kinds = LOADS if control else POWER
    loads = [s for s in project.symbols.values() if s.device_id and definition(s.definition).unit in kinds]
    tags = {s.id: full_tag(project, project.devices[s.device_id]) for s in loads}
    return sorted(tags, key=lambda id: (natural(tags[id]), id))


def _said(m: TraceMember) -> str:
    return f"MISSING: {m.role}" if m.missing else m.role


def trace_table(project: Project, id: str) -> Table:
    """Return the trace of what leads to a load as a table: the source first, what is missing said at its place.

    Args:
        id: of the load's symbol, or of a wire, terminal or pole on the way to one.

    Raises:
        GoneError: there is no symbol and no wire of the id.
        RuleError: nothing there takes a current.
    """
    if id not in project.wires and id not in project.symbols:
        raise GoneError("There is no symbol and no wire of this id any more.")
    found = traced(project, id)
    rows = [(_said(m), m.name, m.place, m.facts, m.by, m.so_far) for m in found.members]
    for m in found.back:
        role = _said(m) if m.role == "return" else f"back by: {m.role}"
        rows.append((role, m.name, m.place, m.facts, m.by, m.so_far))
    foot = []
    if found.earth:
        way = "comes to the earth" if found.earthed else "COMES TO NO EARTH"
        foot.append(f"Protective conductor: {found.earth}; it {way}.")
    if found.closed:
        foot.append(f"Carries when: {', '.join(found.closed)}.")
    return Table(f"Trace of {found.members[-1].name}", COLUMNS, list(rows), tuple(foot))
