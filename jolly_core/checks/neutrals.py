"""The check of the neutral's wires: they are known by their colour, and nothing else has it."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.circuits import PHASES, Potential, is_rail, potentials_on
from jolly_core.drawing import rails_at
from jolly_core.library import definition
from jolly_core.model import Project, Wire, WireType
from jolly_core.tagging import pins_of
from jolly_core.wiring import SWITCHED, is_live, is_neutral

from .registry import Snag, check
from .retyping import of_other_type

_TAKING = ("load", "motor", "supply", "transformer")


@check("neutral-type", "A wire of the neutral that has not the neutral's wire type, or another wire that has it.")
def neutral_types(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each potential of which wires on a sheet are the neutral's and others are not, or the reverse.

    Source: IEC 60204-1 (13.2.3) and NFPA 79 (13.2.3): the neutral, or grounded, conductor is told by its colour.
    """
    for potential in potentials_on(project, sheet_id):
        if any(kind in potential.categories for kind in SWITCHED):
            wires = [project.wires[id] for g in potential.groups for id in g.wires]
            types = {w.type_id: project.wire_types[w.type_id] for w in wires}
            neutral = [w for w in wires if is_neutral(project, types[w.type_id])]
            live = [w for w in wires if is_live(project, types[w.type_id])]
            own = _own_type(project) if live and not neutral and _serves_neutral(project, potential) else None
            here = [w for w in live if w.sheet_id == sheet_id]
            if own is not None and here:
                yield _snag(project, sheet_id, here, own, by_neutral=True)
            elif neutral and live:
                right, wrong = (neutral, live) if _is_neutral(project, potential, neutral, live) else (live, neutral)
                here = [w for w in wrong if w.sheet_id == sheet_id]
                if here:
                    yield _snag(project, sheet_id, here, _usual(project, right), by_neutral=right is neutral)


def _is_neutral(project: Project, potential: Potential, neutral: list[Wire], live: list[Wire]) -> bool:
    """Return whether a potential is the neutral: by its labels, else by its rail, else by the length that is drawn."""
    if "N" in potential.labels or not potential.labels.keys().isdisjoint(PHASES):
        return "N" in potential.labels
    rails = {
        w.type_id
        for g in potential.groups
        for w in (project.wires[id] for id in g.wires)
        for sheet in (project.sheets[w.sheet_id],)
        if sheet.frame == "ladder"
        and w.x1 == w.x2
        and w.x1 in rails_at(sheet, w.x1)
        and is_rail(sheet, project, g, w.x1)
    }
    by_rail = {is_neutral(project, project.wire_types[id]) for id in rails}
    return by_rail.pop() if len(by_rail) == 1 else _length(neutral) >= _length(live)


def _serves_neutral(project: Project, potential: Potential) -> bool:
    """Return whether a load's pin for the neutral is on a potential, and nothing says that it is a phase."""
    if not potential.labels.keys().isdisjoint(PHASES):
        return False
    pins = ((project.symbols[id], pin) for id, pin in potential.pins)
    return any(pins_of(project, s)[n] == "N" and definition(s.definition).unit in _TAKING for s, n in pins)


def _own_type(project: Project) -> WireType | None:
    """Return the neutral's type that wires of the project have, None where it is drawn like the phases."""
    used = {w.type_id for w in project.wires.values()}
    types = (project.wire_types[id] for id in sorted(used))
    return next((t for t in types if t.category == "power" and is_neutral(project, t)), None)


def _length(wires: list[Wire]) -> int:
    return sum(w.x2 - w.x1 + abs(w.y2 - w.y1) for w in wires)


def _usual(project: Project, wires: list[Wire]) -> WireType:
    """Return the type that most of wires have."""
    types = [w.type_id for w in wires]
    return project.wire_types[max(sorted(set(types)), key=types.count)]


def _snag(project: Project, sheet_id: str, wires: list[Wire], right: WireType, *, by_neutral: bool) -> Snag:
    where = "on the neutral" if by_neutral else "on a live conductor"
    words = f"{where}, whose other wires are {right.name} ({right.colour})."
    return of_other_type(project, "neutral-type", sheet_id, wires, right, lambda are: f"{are} {words}")
