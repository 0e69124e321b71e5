"""What a drawn cable leads and carries, and its voltage drop: its load as typed, else from the part at its far end."""

from __future__ import annotations

from jolly_core.circuits import DC, LoadBehind, loads_fed
from jolly_core.library import awg_area_mm2, base_of, number_in
from jolly_core.model import Cable, Part, Project, RuleError
from jolly_core.sizing import Drop, Laying, carried_a, voltage_drop

from .cores import cable_conductors, cable_cores, far_devices
from .lengths import cable_length_m
from .roles import NEUTRAL, PE, PHASE, role_of, system_of

USUAL_POWER_FACTOR = 0.85  # of a loaded three-phase motor


def number_of(part: Part | None, rating: str) -> float:
    """Return a part's rating as a number, 0 when it has none or it is no number."""
    return (number_in(part.ratings.get(rating, "")) if part else None) or 0.0


def cable_drop(project: Project, cable: Cable) -> Drop:
    """Return the voltage drop of a cable.

    Raises:
        RuleError: length, size, load or voltage is not known; the message says which and where to say it.
    """
    length, _ = cable_length_m(project, cable)
    if length <= 0:
        raise RuleError("Type the cable's length, or that of its way, to get its voltage drop.", field="length_m")
    area = core_area_mm2(project, cable.device_id)
    if not area:
        raise RuleError("Choose a cable part with a cross-section to get the voltage drop.", field="part_id")
    fed = _fed_by(project, cable)
    load = (project.part_of(fed.device) if fed else None) or _load_of(project, cable)
    current = load_a(project, cable)
    if current <= 0:
        raise RuleError("Type the cable's load in A: no one part at its far end says a current.", field="load_a")
    feeds_motor = load is None or base_of(load.part_class) == "motor"
    phases, kind = system_of(project, cable_conductors(project, cable.device_id), feeds_motor=feeds_motor)
    return voltage_drop(
        current_a=current,
        length_m=length,
        area_mm2=area,
        voltage_v=cable.voltage_v or number_of(load, "voltage_v"),
        power_factor=1.0
        if kind == DC
        else cable.power_factor or number_of(load, "power_factor") or (USUAL_POWER_FACTOR if phases == 3 else 1.0),
        phases=phases,
    )


def load_a(project: Project, cable: Cable) -> float:
    """Return the current in A of a cable's load.

    It is what is typed, else that of the one load its phases lead to, else what the part at its far end says.

    Returns:
        0 while none of these says it.
    """
    if cable.load_a:
        return cable.load_a
    fed = _fed_by(project, cable)
    return round(fed.here_a, 3) if fed else number_of(_load_of(project, cable), "rated_a")


def _fed_by(project: Project, cable: Cable) -> LoadBehind | None:
    """Return the one load that the phases of a cable lead to, past switches; of several a person says what they take.

    Of a distribution, not all of which runs at once, that is no matter of the drawing.
    """
    cores = [row.conductor for row in cable_cores(project, cable.device_id) if row.conductor]
    fed = loads_fed(project, [c.start for c in cores if role_of(project, c) == PHASE])
    return fed[0] if len(fed) == 1 else None


def capacity_a(project: Project, cable: Cable) -> float:
    """Return the current in A that a cable's loaded cores carry, laid as it is (IEC 60204-1 table 6, annex D).

    Returns:
        0 while no core says its size, by section or AWG, and for sizes outside the table.
    """
    return carried_a(core_area_mm2(project, cable.device_id), laying_of(project, cable))


def project_laying(project: Project) -> Laying:
    """Return how conductors of a project are laid that say nothing else."""
    return Laying(project.settings.laying_method, project.settings.ambient_c)


def laying_of(project: Project, cable: Cable) -> Laying:
    """Return how a cable is laid: by its own method and group, else as the project says."""
    usual = project_laying(project)
    return Laying(cable.laid or usual.method, usual.ambient_c, cable.grouped)


def _load_of(project: Project, cable: Cable) -> Part | None:
    """Return the one part at the far end that takes a current; what has poles (a switch, a breaker) passes it on."""
    parts = (project.part_of(d) for d in far_devices(project, cable.device_id))
    loads = [p for p in parts if p and number_of(p, "rated_a") and all(kind != "pole" for kind, _ in p.units)]
    return loads[0] if len(loads) == 1 else None


def core_area_mm2(project: Project, device_id: str) -> float:
    """Return the smallest area of the cores of a cable that lead its load, by each core's own size, else the part's.

    Phases and neutral lead it where there are some, so that a thin pair beside them does not count; else all that is
    not protective does.

    Returns:
        mm², 0 while neither says it.
    """
    part = project.part_of(project.devices[device_id])
    if part is None:
        return 0.0
    usual = _usual_area(part)
    roles = [(r.ordinal, role_of(project, r.conductor)) for r in cable_cores(project, device_id) if r.conductor]
    used = [(ordinal, role) for ordinal, role in roles if ordinal]
    power = [ordinal for ordinal, role in used if role in (PHASE, NEUTRAL)]
    live = power or [ordinal for ordinal, role in used if role != PE]
    areas = []
    for ordinal in live or range(1, len(part.units) + 1):
        areas.append(_own_area(part, ordinal) or usual)
    return min((a for a in areas if a), default=usual)


def one_core_area_mm2(part: Part | None, ordinal: int) -> float:
    """Return the area of one core of a cable part by its 1-based position, mm²; 0 while the part does not say it."""
    if part is None or ordinal < 1:
        return 0.0
    return _own_area(part, ordinal) or _usual_area(part)


def _own_area(part: Part, ordinal: int) -> float:
    detail = part.detail(ordinal - 1)
    return number_in(detail.get("section", "")) or _gauge(detail.get("awg", ""))


def _usual_area(part: Part) -> float:
    return number_of(part, "cross_section_mm2") or _gauge(part.ratings.get("awg", ""))


def _gauge(text: str) -> float:
    try:
        return awg_area_mm2(text) if text else 0.0
    except RuleError:
        return 0.0
