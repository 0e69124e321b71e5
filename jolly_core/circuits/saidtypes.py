"""The wire type that a potential says: that of its wires whose type is of one potential."""

from __future__ import annotations

from jolly_core.model import Project, derived
from jolly_core.wiring import GroupKey, net_of, types_of_potentials

from .ways import first_of


def said_type(project: Project, key: GroupKey) -> str:
    """Return the wire type of a group's potential, "" where none of its wires says one, or they say several.

    Returns:
        The id of one of `types_of_potentials`.
    """
    return _said(project, *first_of(project, *key)) if types_of_potentials(project) else ""


@derived
def _said(project: Project, sheet_id: str, point: int) -> str:
    """Return it for the potential whose first group this is."""
    groups = net_of(project, (sheet_id, point), potential=True)
    types = {project.wires[id].type_id for g in groups for id in g.wires} & types_of_potentials(project)
    return types.pop() if len(types) == 1 else ""
