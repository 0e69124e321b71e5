"""Which wire types are those of one potential, and which wires of its net take them."""

from __future__ import annotations

from jolly_core.model import Project, WireType, derived

from .neutrals import is_live, is_neutral
from .potentials import potentials_of_types


@derived
def types_of_potentials(project: Project) -> frozenset[str]:
    """Return the ids of the wire types that are of one potential: the neutral's, and those whose name says one.

    Example:
        Of "24 V DC", "0 V DC", "Control DC" and "Supply N" all but "Control DC".
    """
    said = potentials_of_types(project)
    return frozenset(t.id for t in project.wire_types.values() if any(said[t.id]) or is_neutral(project, t))


def takes_type(project: Project, own: WireType, said: WireType) -> bool:
    """Return whether a wire takes the type of the potential it is on: it says none itself, and only the colour differs.

    Args:
        own: what it has.
        said: the type of its potential, one of `types_of_potentials`.

    Notes:
        At the neutral any live wire is wrong, whatever its size. Elsewhere a wire of another size or purpose was drawn
        so by somebody: a tap of 1.5 mm² at a rail of 10 mm² is right.
    """
    if own.id in types_of_potentials(project):
        return False
    if is_neutral(project, said):
        return is_live(project, own)
    like = (own.category, own.cross_section_mm2, own.awg) == (said.category, said.cross_section_mm2, said.awg)
    return like and not own.outside
