"""Which wire types are the neutral's: by name, else by the colour of the project's standard."""

from __future__ import annotations

from jolly_core.model import Project, WireType

from .potentials import potential_in

# Of the neutral conductor: IEC 60204-1 (13.2.3), IEC 60445 and HD 308 light blue, NFPA 79 (13.2.3) white, else grey.
_COLOURS = {"iec": ("BU",), "na": ("WH", "GY")}
# Where the colour says so: that of North American habits is the grounded conductor of AC control circuits, too.
SWITCHED = ("power", "control-ac")  # categories of what is switched against a neutral
_CATEGORIES = {"iec": ("power",), "na": SWITCHED}


def neutral_colours(project: Project) -> tuple[str, ...]:
    """Return the colours of the neutral by the project's standard, the usual one first."""
    return _COLOURS[_standard(project)]


def _standard(project: Project) -> str:
    return "na" if project.settings.standard == "na" else "iec"


def is_neutral(project: Project, wire_type: WireType) -> bool:
    """Return whether a wire type is for the neutral: named N, or of no phase and of the neutral's colour.

    Source: IEC 60204-1 (13.2.3) and NFPA 79 (13.2.3) for the colours.
    """
    phase = potential_in(wire_type.name)[0]
    if phase:
        return phase == "N"
    return wire_type.category in _CATEGORIES[_standard(project)] and wire_type.colour in neutral_colours(project)


def is_live(project: Project, wire_type: WireType) -> bool:
    """Return whether a wire type is for what is switched against a neutral: power or AC control inside the panel."""
    return wire_type.category in SWITCHED and not wire_type.outside and not is_neutral(project, wire_type)
