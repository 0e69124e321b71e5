"""What a conductor is made of: where it is a core of a cable, that core's size and colour, else its wire type's."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.library import is_colour, number_in
from jolly_core.model import Part, Project, derived
from jolly_core.sizing import area_mm2
from jolly_core.wiring import Conductor

from .cores import cored
from .load import one_core_area_mm2


@dataclass(slots=True, frozen=True)
class Copper:
    """What a conductor is made of.

    Attributes:
        area_mm2: its area in mm², 0 while nothing says it.
        size: the same in words, "0.75 mm²" or "AWG 18", "".
        colour: of its insulation, "" for none; a numbered core has none.
    """

    area_mm2: float
    size: str
    colour: str


def core_size(part: Part | None, ordinal: int) -> str:
    """Return the size of one core of a cable part in words, as the part says it; "" while it does not."""
    if not one_core_area_mm2(part, ordinal) or part is None:
        return ""
    said = part.detail(ordinal - 1)
    for section, gauge in ((said.get("section"), said.get("awg")), (part.ratings.get("cross_section_mm2"), None)):
        if section and number_in(section):
            return f"{number_in(section):g} mm²"
        if gauge:
            return f"AWG {gauge}"
    return f"AWG {part.ratings.get('awg', '')}"


@derived
def core_copper(project: Project, key: str) -> Copper | None:
    """Return what the core is made of that serves a conductor, by the conductor's key; None where it has none.

    What a part does not say is 0 and "" here.
    """
    if not project.cables:
        return None
    cable_id, row = cored(project).get(key, ("", None))
    if row is None or not row.ordinal:
        return None
    part = project.part_of(project.devices[cable_id])
    area, size = one_core_area_mm2(part, row.ordinal), core_size(part, row.ordinal)
    return Copper(area, size, row.name if is_colour(row.name) else "")


def copper_of(project: Project, c: Conductor) -> Copper:
    """Return what a conductor is made of.

    A core that no part says the size of has that of the conductor's wire type, which is what is asked for.
    """
    wire_type = c.wire_type(project)
    core = core_copper(project, c.key)
    if core is not None and core.area_mm2:
        return core
    colour = core.colour if core is not None else wire_type.colour if wire_type else ""
    return Copper(area_mm2(wire_type), wire_type.size() if wire_type else "", colour)
