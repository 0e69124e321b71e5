"""What a conductor of a cable is for, and which cores that asks for.

The wires in the field say little ("Field"): what they carry follows from the potential, past terminals and over sheets.
"""

from __future__ import annotations

from jolly_core.circuits import AC, DC, PHASES, Potential, potential_at, potential_of
from jolly_core.model import Project, derived
from jolly_core.wiring import Conductor, neutral_colours

PROTECTIVE = "GNYE"
# Colours by IEC 60445 and HD 308.
PHASE_CORES = ("BN", "BK", "GY")
PE, NEUTRAL, PHASE, OTHER = "pe", "neutral", "phase", ""


def categories_of(project: Project, potential: Potential) -> set[str]:
    """Return the categories of a potential's wires; "external" only where there is no other."""
    return set(_categories_at(project, *potential.key))


@derived
def _categories_at(project: Project, sheet_id: str, point: int) -> frozenset[str]:
    """Return the categories of a potential by its key, kept: every core on it asks for them."""
    groups = potential_at(project, (sheet_id, point)).groups
    types = (project.wire_types.get(project.wires[i].type_id) for g in groups for i in g.wires)
    kinds = frozenset(t.category for t in types if t is not None)
    return kinds - {"external"} or kinds


def role_of(project: Project, c: Conductor) -> str:
    """Return what a conductor is for: PE, NEUTRAL, PHASE, or OTHER.

    Protective is what has a wire of that category, of a bonded return only that wire itself; neutral what is labelled
    N, or is a power wire of the neutral's colour; a phase is another one that is labelled so or of category power.
    """
    potential = potential_of(project, c.start)
    own = c.wire_type(project)
    kinds = categories_of(project, potential)
    if own is not None and own.category == "pe":
        return PE
    if "pe" in kinds and not potential.bonded:
        return PE
    kinds = kinds - {"pe"}
    if "N" in potential.labels:
        return NEUTRAL
    if any(phase in potential.labels for phase in PHASES):
        return PHASE
    if "power" not in kinds:
        return OTHER
    colours = {
        t.colour
        for g in potential.groups
        for i in g.wires
        for t in (project.wire_types.get(project.wires[i].type_id),)
        if t is not None and t.category == "power"
    }
    return NEUTRAL if colours and colours <= set(neutral_colours(project)[:1]) else PHASE


def phase_order(project: Project, c: Conductor) -> int:
    """Return the place of a phase by its label, from 0; behind all labels where it has none."""
    labels = potential_of(project, c.start).labels
    return next((n for n, phase in enumerate(PHASES) if phase in labels), len(PHASES))


def system_of(project: Project, conductors: list[Conductor], *, feeds_motor: bool) -> tuple[int, str]:
    """Return phases (1 or 3) and kind ("AC" or "DC") of what conductors carry, protective ones left out.

    Args:
        conductors: those of one cable.
        feeds_motor: its load is a motor, or not known.

    Notes:
        Types and potentials decide, never the count alone: direct current by its category or labels; three phases by
        three labels, or, where none is labelled, three power conductors that are no neutral.
    """
    live = [c for c in conductors if role_of(project, c) != PE]
    potentials = [potential_of(project, c.start) for c in live]
    kinds = set().union(*(categories_of(project, p) for p in potentials)) if potentials else set()
    labels = [label for p in potentials for label in p.labels.values()]
    if any(label.kind == DC for label in labels) or (kinds & {"control-dc", "signal"} and "power" not in kinds):
        return 1, DC
    named = {label.word for label in labels} & set(PHASES)
    phases = [c for c in live if role_of(project, c) == PHASE]
    if named:
        return (3 if len(named) == len(PHASES) else 1), AC
    return (3 if len(phases) >= len(PHASES) and feeds_motor else 1), AC
