"""Cables: which conductors are cores of a cable, and which core each takes.

Terms: a *band* is the stroke across wires that gathers them. *Crossing order* is the order in which the bands of a
cable, first to last and each from its first point on, meet its conductors.
"""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.model import Band, Cable, CoreChoice, Device, Part, Project, derived
from jolly_core.tagging import device_at, is_inside, path_of, pin_name
from jolly_core.wiring import Conductor, conductors_of_net, net_of, neutral_colours, sheet_groups, wires_along

from .pairs import loops_among, pairs_of
from .roles import NEUTRAL, PE, PHASE, PHASE_CORES, PROTECTIVE, phase_order, role_of

NO_CORE = "no core left"  # what is said instead of a core's name where a cable has none for a conductor


@dataclass(slots=True, frozen=True)
class CoreRow:
    """A core of a cable.

    Attributes:
        ordinal: 1-based position in the part's list; 0 for a conductor no core was left for.
        name: colour or number of the core.
        kind: "core" or "shield".
        conductor: what it serves, None while it is spare.
        chosen: a person put it there.
    """

    ordinal: int
    name: str
    kind: str
    conductor: Conductor | None
    chosen: bool = False

    @property
    def called(self) -> str:
        """Its name, or that there is none."""
        return self.name or NO_CORE


def bands_of(project: Project, device_id: str) -> list[Band]:
    """Return the bands of a cable in the order of their sheets, then as they were drawn."""
    found = [project.bands[i] for i in project.attached.get(device_id) if i in project.bands]
    return sorted(found, key=lambda b: (project.sheets[b.sheet_id].order, b.id))


def crossed_wires(project: Project, sheet_id: str, start: tuple[int, int], end: tuple[int, int]) -> list[str]:
    """Return the ids of the wires that a level or upright stroke crosses at a right angle, in crossing order."""
    (x1, y1), (x2, y2) = start, end
    met: list[tuple[int, str]] = []
    for w in project.wires_on(sheet_id):
        if y1 == y2 and w.x1 == w.x2 and min(x1, x2) <= w.x1 <= max(x1, x2) and w.y1 <= y1 <= w.y2:
            met.append((abs(w.x1 - x1), w.id))
        elif x1 == x2 and w.y1 == w.y2 and min(y1, y2) <= w.y1 <= max(y1, y2) and w.x1 <= x1 <= w.x2:
            met.append((abs(w.y1 - y1), w.id))
    return [id for _, id in sorted(met)]


def conductors_across(project: Project, sheet_id: str, wire_id: str) -> list[Conductor]:
    """Return the conductors that run along a drawn wire."""
    net = net_of(project, (sheet_id, sheet_groups(project, sheet_id).of_wire[wire_id]))
    return [c for c in conductors_of_net(project, net) if wire_id in wires_along(project, c)]


@derived
def cable_conductors(project: Project, device_id: str) -> list[Conductor]:
    """Return the conductors of a cable in crossing order, each once."""
    found: dict[str, Conductor] = {}
    for band in bands_of(project, device_id):
        for wire_id in crossed_wires(project, band.sheet_id, (band.x1, band.y1), (band.x2, band.y2)):
            for c in conductors_across(project, band.sheet_id, wire_id):
                found.setdefault(c.key, c)
    return list(found.values())


def core_list(part: Part | None) -> list[tuple[str, str]]:
    """Return (kind, name) of each core of a cable part in its order; [] without a part."""
    return [(kind, pins[0] if pins else "") for kind, pins in part.units] if part else []


@derived
def cable_cores(project: Project, device_id: str) -> list[CoreRow]:
    """Return the cores of a cable in the part's order, with what each serves, then conductors without a core.

    A core somebody chose for a conductor stays with it while the conductor is in the cable and the core is one for it.
    Of the others, protective conductors take the green-yellow core, the neutral takes blue, phases take brown, black
    and grey in their order where the cable has the colours of power, and the rest take the remaining cores in crossing
    order; in a cable of twisted pairs, the two conductors of a loop take the two cores of a pair. The green-yellow core
    is for protective conductors alone, however a conductor came to it.
    """
    waiting = {c.key: c for c in cable_conductors(project, device_id)}
    cores = core_list(project.part_of(project.devices[device_id]))
    free = [n for n, (kind, _) in enumerate(cores, start=1) if kind == "core"]
    taken: dict[int, tuple[Conductor, bool]] = {}

    def take(ordinal: int, key: str, chosen: bool = False) -> None:
        taken[ordinal] = (waiting.pop(key), chosen)
        free.remove(ordinal)

    for choice in choices_of(project, device_id):
        if choice.conductor in waiting and choice.ordinal in free and not misfit(project, choice):
            take(choice.ordinal, choice.conductor, True)
    roles = {key: role_of(project, c) for key, c in waiting.items()}
    neutral = neutral_colours(project)
    for role, wanted in ((PE, (PROTECTIVE,)), (NEUTRAL, neutral), (PHASE, PHASE_CORES)):
        keys = [key for key in waiting if roles[key] == role]
        if role == PHASE:
            keys.sort(key=lambda key: phase_order(project, waiting[key]))
        there = [n for name in wanted for n in free if cores[n - 1][1] == name]
        if role == PHASE and len({cores[n - 1][1] for n in there} & set(PHASE_CORES[:2])) < 2:
            continue  # a signal cable, in which brown is one colour among many
        for key, n in zip(keys, there, strict=False):
            take(n, key)
    # The green-yellow core is never a live one (IEC 60204-1, 13.2.2); blue waits for those that find no other.
    for key, n in _paired(project, device_id, waiting, free):
        take(n, key)
    usable = [n for n in free if cores[n - 1][1] != PROTECTIVE]
    if any(role == PHASE for role in roles.values()) and {"BK", "BN"} <= {name for _, name in cores}:
        usable.sort(key=lambda n: cores[n - 1][1] in neutral)
    for key, n in zip(list(waiting), usable, strict=False):
        take(n, key)
    record = project.cables.get(cable_of(project, device_id))
    called = [_called(n, kind, name, record) for n, (kind, name) in enumerate(cores, start=1)]
    rows = [CoreRow(n, called[n - 1], kind, *taken.get(n, (None, False))) for n, (kind, _) in enumerate(cores, start=1)]
    return rows + [CoreRow(0, "", "core", c) for c in waiting.values()]


def _paired(project: Project, device_id: str, waiting: dict[str, Conductor], free: list[int]) -> list[tuple[str, int]]:
    """Return conductors in loops with the cores of the twisted pairs that are free; single ones wait for the rest."""
    pairs = pairs_of(project.part_of(project.devices[device_id]))
    whole = [cores for cores in pairs.values() if all(n in free for n in cores)]
    if not whole:
        return []
    live = [c for c in waiting.values() if role_of(project, c) != PE]
    loops = loops_among(project, [(c, ends_of(project, device_id, c)[1]) for c in live])
    twos = [loop for loop in loops if len(loop) == 2]
    return [pair for loop, cores in zip(twos, whole, strict=False) for pair in zip(loop, cores, strict=True)]


def _called(ordinal: int, kind: str, name: str, cable: Cable | None) -> str:
    """Return what a core is called: as the part says, or by its place where the cable's cores are numbered."""
    by_number = cable is not None and cable.numbered and kind == "core" and name != PROTECTIVE
    return str(ordinal) if by_number else name


def choices_of(project: Project, device_id: str) -> list[CoreChoice]:
    """Return what people chose for the cores of a cable, in the order they did."""
    return sorted((c for c in project.core_choices.values() if c.device_id == device_id), key=lambda c: c.id)


def spare_cores(project: Project, device_id: str) -> tuple[int, int]:
    """Return how many live and how many protective cores of a cable serve nothing yet."""
    spare = [r for r in cable_cores(project, device_id) if r.kind == "core" and r.ordinal and r.conductor is None]
    names = [name for _, name in core_list(project.part_of(project.devices[device_id]))]
    protective = sum(1 for r in spare if names[r.ordinal - 1] == PROTECTIVE)
    return len(spare) - protective, protective


def misfit(project: Project, choice: CoreChoice) -> str:
    """Return why a chosen core cannot serve its conductor, "" when it can, or when the conductor is not there."""
    conductor = next((c for c in cable_conductors(project, choice.device_id) if c.key == choice.conductor), None)
    if conductor is None:
        return ""
    cores = core_list(project.part_of(project.devices[choice.device_id]))
    if not 0 < choice.ordinal <= len(cores):
        return f"the part has no core {choice.ordinal}"
    kind, name = cores[choice.ordinal - 1]
    if kind != "core":
        return f"{name} is a shield"
    protective = role_of(project, conductor) == PE
    if name == PROTECTIVE and not protective:
        return "the green-yellow core takes a protective conductor only"
    if protective and name != PROTECTIVE and any(n == PROTECTIVE for _, n in cores):
        return "a protective conductor takes the green-yellow core"
    return ""


@derived
def cored(project: Project) -> dict[str, tuple[str, CoreRow]]:
    """Return for each conductor in a cable, by its key, the cable's device and the core it takes."""
    found: dict[str, tuple[str, CoreRow]] = {}
    for cable in sorted(project.cables.values(), key=lambda c: c.id):
        for row in cable_cores(project, cable.device_id):
            if row.conductor is not None:
                found.setdefault(row.conductor.key, (cable.device_id, row))
    return found


def source_first(project: Project, c: Conductor) -> tuple[tuple[str, int], tuple[str, int]]:
    """Return the conductor's pins, the panel's end first, else the one of the lower location."""

    def rank(pin: tuple[str, int]) -> tuple[bool, str, str]:
        device = device_at(project, pin)
        place = path_of(project.locations, device.location_id, "+") if device else ""
        return not is_inside(project, device), place, pin_name(project, pin)

    a, b = sorted((c.start, c.end), key=rank)
    return a, b


def ends_of(project: Project, device_id: str, c: Conductor) -> tuple[tuple[str, int], tuple[str, int]]:
    """Return the pins of a conductor of a cable, source first: by their places, or turned round where a person said."""
    a, b = source_first(project, c)
    cable = project.cables.get(cable_of(project, device_id))
    return (b, a) if cable is not None and cable.turned else (a, b)


def far_devices(project: Project, device_id: str) -> list[Device]:
    """Return the devices at the far end of a cable, each once."""
    found: dict[str, Device] = {}
    for c in cable_conductors(project, device_id):
        device = device_at(project, ends_of(project, device_id, c)[1])
        if device is not None:
            found[device.id] = device
    return list(found.values())


def cable_of(project: Project, device_id: str) -> str:
    """Return the id of the cable record of a device, "" when it is no cable."""
    return next((i for i in project.attached.get(device_id) if i in project.cables), "")
