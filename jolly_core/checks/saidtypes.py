"""The check of the wires of a potential that has a wire type of its own: they have that type."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator

from jolly_core.circuits import said_type
from jolly_core.model import Project, Wire, WireType
from jolly_core.wiring import is_neutral, sheet_groups, takes_type

from .registry import Snag, check
from .retyping import of_other_type


@check("potential-type", "A wire of a potential that has a wire type of its own, and the wire has another.")
def potential_types(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each type of potential of which wires on a sheet have one that only another colour tells apart.

    Source: IEC 60204-1 (13.2.1 and 13.2.4): conductors are told by the colours documents say; see `takes_type`.
    """
    found: dict[str, list[Wire]] = defaultdict(list)
    for group in sheet_groups(project, sheet_id).groups:
        type_id = said_type(project, group.key) if group.wires else ""
        said = project.wire_types.get(type_id)
        if said is not None and not is_neutral(project, said):  # the neutral's are told for themselves
            wires = [project.wires[id] for id in group.wires]
            found[type_id] += [w for w in wires if takes_type(project, project.wire_types[w.type_id], said)]
    for type_id, wires in sorted(found.items()):
        if wires:
            yield _snag(project, sheet_id, wires, project.wire_types[type_id])


def _snag(project: Project, sheet_id: str, wires: list[Wire], said: WireType) -> Snag:
    where = f"on a potential of type {said.name} ({said.colour}): wire list and labels give the wrong colour."
    return of_other_type(project, "potential-type", sheet_id, wires, said, lambda are: f"{are} {where}")
