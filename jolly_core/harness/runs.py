"""What runs along a segment of a harness: single wires and whole cables, and segments of harnesses that run as one."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from jolly_core.cables import copper_of, cored, number_of
from jolly_core.model import Project, Segment, derived
from jolly_core.sizing import outer_diameter_mm

from .tree import segments_of
from .wires import HarnessWire, wires_of

_Curve = tuple[tuple[float, ...], ...]


@dataclass(slots=True, frozen=True)
class Run:
    """A round thing that runs along a segment.

    Attributes:
        wires: the wire it is, or the cores of a cable that run there.
        diameter_mm: over the insulation or sheath.
        cable_id: the device of the cable, "" for a single wire.
        bend_mm: the least radius that a cable's part names, 0 for none.
        apart: it lies beside the bundle, not in it.
    """

    wires: tuple[HarnessWire, ...]
    diameter_mm: float
    cable_id: str = ""
    bend_mm: float = 0.0
    apart: bool = False


@derived
def cables_of(project: Project, harness_id: str) -> dict[str, tuple[str, str]]:
    """Return the cable (its device) and core of each wire of a harness that is one, by the wire's key.

    Cables whose part names no outer diameter count as single wires.
    """
    cores = cored(project) if project.cables else {}
    found = {}
    for wire in wires_of(project, harness_id) if cores else ():
        if wire.conductor.key in cores:
            device_id, row = cores[wire.conductor.key]
            if number_of(project.part_of(project.devices[device_id]), "outer_diameter_mm"):
                found[wire.conductor.key] = (device_id, row.name)
    return found


def runs_of(project: Project, harness_id: str, wires: Iterable[HarnessWire]) -> list[Run]:
    """Return what some wires of a harness are: each a wire by itself, or with others a cable; in their order."""
    wires = list(wires)
    return gathered(project, harness_id, wires, single_runs(project, wires))


def single_runs(project: Project, wires: Iterable[HarnessWire]) -> dict[str, Run]:
    """Return each wire as a run by itself, by its key."""
    areas = ((wire, copper_of(project, wire.conductor).area_mm2) for wire in wires)
    return {wire.conductor.key: Run((wire,), outer_diameter_mm(area)) for wire, area in areas}


def gathered(project: Project, harness_id: str, wires: list[HarnessWire], singles: dict[str, Run]) -> list[Run]:
    """Return what wires that run together are: those in no cable as they are by themselves, then the cables."""
    cores = cables_of(project, harness_id)
    if not cores:
        return [singles[w.conductor.key] for w in wires]
    lots: dict[str, list[HarnessWire]] = {}
    for wire in wires:
        if wire.conductor.key in cores:
            lots.setdefault(cores[wire.conductor.key][0], []).append(wire)
    found = [singles[w.conductor.key] for w in wires if w.conductor.key not in cores]
    return [*found, *(_cable(project, id, inside) for id, inside in lots.items())]


def _cable(project: Project, device_id: str, wires: list[HarnessWire]) -> Run:
    part = project.part_of(project.devices[device_id])
    apart = any(project.cables[id].apart for id in project.attached.get(device_id) if id in project.cables)
    sizes = number_of(part, "outer_diameter_mm"), number_of(part, "bend_radius_mm")
    return Run(tuple(wires), sizes[0], device_id, sizes[1], apart)


@derived
def run_as_one(project: Project) -> dict[str, tuple[str, ...]]:
    """Return for each segment the segments of other harnesses that run with it as one bundle, by its id.

    Those are segments along the same path between the same places in space, of harnesses that both do not stay apart.
    """
    ways: dict[_Curve, list[Segment]] = {}
    for harness in sorted(project.harnesses.values(), key=lambda h: h.id):
        for segment in segments_of(project, harness.id) if not harness.apart else ():
            way = _way(project, segment)
            if way:
                ways.setdefault(way, []).append(segment)
    return {
        one.id: tuple(other.id for other in found if other.harness_id != one.harness_id)
        for found in ways.values()
        if len({s.harness_id for s in found}) > 1
        for one in found
    }


def _way(project: Project, segment: Segment) -> _Curve:
    """Return where a segment runs in space whichever end is named first, () while it has no path."""
    a, b = (project.nodes[id].at for id in (segment.a_id, segment.b_id))
    if segment.form == "typed" or not a or not b:
        return ()
    between = [tuple(segment.path[n : n + 3]) for n in range(0, len(segment.path), 3)]
    chain = (tuple(a), *between, tuple(b))
    curved = (1.0,) if segment.form == "curve" else (0.0,)
    return (curved, *min(chain, chain[::-1]))


@derived
def runs_beside(project: Project, segment_id: str) -> list[Run]:
    """Return what runs with a segment as one bundle and is of other harnesses."""
    found: list[Run] = []
    for id in run_as_one(project).get(segment_id, ()):
        harness_id = project.segments[id].harness_id
        wires = [w for w in wires_of(project, harness_id) if any(s.id == id for s in w.segments)]
        found += runs_of(project, harness_id, wires)
    return found
