"""The voltage drop of a drawn cable: its load from what is typed, else from the part at its far end."""

from __future__ import annotations

from jolly_core.model import Cable, Part, Project, RuleError
from jolly_core.sizing import Drop, voltage_drop

from .cores import cable_conductors, far_devices

USUAL_POWER_FACTOR = 0.85  # of a loaded three-phase motor


def number_of(part: Part | None, rating: str) -> float:
    """Return a part's rating as a number, 0 when it has none or it is no number."""
    try:
        return float((part.ratings.get(rating, "") if part else "") or 0)
    except ValueError:
        return 0.0


def cable_drop(project: Project, cable: Cable) -> Drop:
    """Return the voltage drop of a cable.

    Raises:
        RuleError: length, size, load or voltage is not known; the message says which and where to say it.
    """
    if cable.length_m <= 0:
        raise RuleError("Type the cable's length to get its voltage drop.", field="length_m")
    part = project.part_of(project.devices[cable.device_id])
    area = number_of(part, "cross_section_mm2")
    if not area:
        raise RuleError("Choose a cable part with a cross-section to get the voltage drop.", field="part_id")
    live = [
        c
        for c in cable_conductors(project, cable.device_id)
        for t in [c.wire_type(project)]
        if t is None or t.category != "pe"
    ]
    loads = [p for d in far_devices(project, cable.device_id) for p in [project.part_of(d)] if number_of(p, "rated_a")]
    load = loads[0] if len(loads) == 1 else None
    phases = 3 if len(live) >= 3 and (load is None or load.part_class == "motor") else 1
    return voltage_drop(
        current_a=cable.load_a or number_of(load, "rated_a"),
        length_m=cable.length_m,
        area_mm2=area,
        voltage_v=cable.voltage_v or number_of(load, "voltage_v"),
        power_factor=cable.power_factor
        or number_of(load, "power_factor")
        or (USUAL_POWER_FACTOR if phases == 3 else 1.0),
        phases=phases,
    )
