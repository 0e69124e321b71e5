"""The wires of a harness: what is drawn between cavities of its connectors, their lengths, ends and bundles."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

from jolly_core.cables import number_of
from jolly_core.library import definition, names_in
from jolly_core.model import Device, Harness, Node, Part, Project, RuleError, Segment, derived, merged
from jolly_core.sizing import area_mm2, bundle_diameter_mm, outer_diameter_mm, rounded_up_mm, strip_length_mm
from jolly_core.tagging import device_at, full_tag, pins_of
from jolly_core.wiring import Conductor, PinKey, conductors_at, conductors_from

from .tree import length_mm, nodes_of, segments_of, tree_of, way_between


@dataclass(slots=True)
class HarnessWire:
    """A wire of a harness; `missing` says why it has no length, "" when it has one."""

    conductor: Conductor
    harness_id: str
    length_mm: float | None = None
    segments: list[Segment] = field(default_factory=list)
    missing: str = ""
    why: str = ""


@dataclass(slots=True, frozen=True)
class CavityRow:
    """A cavity of a connector: name, the conductors in it, the far pin of each, the contact it takes."""

    device_id: str
    cavity: str
    conductors: tuple[Conductor, ...]
    far: tuple[PinKey, ...]
    contact: Part | None
    strip_mm: float


def harnesses(project: Project) -> list[Harness]:
    """Return the harnesses in order."""
    return sorted(project.harnesses.values(), key=lambda h: (h.order, h.id))


@derived
def _node_of(project: Project) -> dict[str, Node]:
    """Return the node of each connector that has one."""
    return {n.device_id: n for n in project.nodes.values() if n.device_id}


@derived
def harness_wires_from(project: Project, sheet_id: str) -> dict[str, HarnessWire]:
    """Return the wires of harnesses among the conductors of nets that begin on a sheet, by their keys."""
    node_of = _node_of(project)
    found: dict[str, HarnessWire] = {}
    for c in conductors_from(project, sheet_id).values() if node_of else ():
        ends = [node_of.get(d.id) if (d := device_at(project, pin)) else None for pin in (c.start, c.end)]
        a, b = ends
        if a is not None and b is not None and a.harness_id == b.harness_id:
            found[c.key] = _measured(project, HarnessWire(c, a.harness_id), a.id, b.id)
    return found


harness_wires = merged(harness_wires_from)


def _measured(project: Project, wire: HarnessWire, start: str, end: str) -> HarnessWire:
    settings = project.settings
    try:
        wire.segments = way_between(tree_of(project, wire.harness_id), start, end)
    except RuleError as error:
        wire.missing = error.message
        return wire
    way = length_mm(wire.segments)
    total = way + 2 * settings.harness_allowance_mm
    wire.length_mm = rounded_up_mm(total, settings.length_step_mm)
    shown = " + ".join(f"{s.length_mm:g}" for s in wire.segments) or "0"
    wire.why = (
        f"segments {shown} + 2 × {settings.harness_allowance_mm:g} at the ends = {total:g} mm, rounded up to "
        f"{settings.length_step_mm:g} mm: {wire.length_mm:g} mm"
    )
    return wire


def wires_of(project: Project, harness_id: str) -> list[HarnessWire]:
    """Return the wires of one harness in reading order of nets."""
    return [w for w in harness_wires(project).values() if w.harness_id == harness_id]


def bundles(project: Project, harness_id: str) -> dict[str, tuple[list[HarnessWire], float]]:
    """Return for each segment its wires and the diameter of their bundle, mm."""
    found: dict[str, tuple[list[HarnessWire], float]] = {}
    wires = wires_of(project, harness_id)
    for segment in segments_of(project, harness_id):
        inside = [w for w in wires if any(s.id == segment.id for s in w.segments)]
        sizes = [outer_diameter_mm(area_mm2(w.conductor.wire_type(project))) for w in inside]
        found[segment.id] = (inside, bundle_diameter_mm(sizes) if sizes else 0.0)
    return found


def contacts_of(project: Project, device: Device | None) -> list[Part]:
    """Return the contacts that a connector's cavities may take: those its housing's part names, in its order."""
    part = project.part_of(device) if device else None
    named = names_in(part.ratings.get("contact", "")) if part else ()
    return [found for found in map(project.part_named, named) if found is not None]


def contact_of(project: Project, device: Device | None, area: float = 0.0) -> Part | None:
    """Return the contact for a conductor of an area in mm²: the first allowed one that takes it, else the first."""
    allowed = contacts_of(project, device)
    return next((c for c in allowed if contact_fits(c, area)), allowed[0] if allowed else None)


def cavity_rows(project: Project, device_id: str) -> list[CavityRow]:
    """Return the cavities of a connector in its part's order, or those drawn while it has no part."""
    device = project.devices[device_id]
    part = project.part_of(device)
    there: dict[str, list[tuple[Conductor, PinKey]]] = {}
    for symbol in project.units_of(device_id):
        if definition(symbol.definition).unit == "cavity":
            name = pins_of(project, symbol)[0]
            here = (symbol.id, 0)
            there.setdefault(name, []).extend((c, c.other(here)) for c in conductors_at(project, here))
    names = [pins[0] for kind, pins in part.units if kind == "cavity"] if part else sorted(there, key=_counted)
    rows = []
    for name in [*names, *(n for n in there if n not in names)]:
        found = there.get(name, [])
        mine, far = tuple(c for c, _ in found), tuple(pin for _, pin in found)
        contact = contact_of(project, device, cavity_area_mm2(project, mine))
        strip = cavity_strip_mm(project, device, mine[0]) if mine else number_of(contact, "strip_mm")
        rows.append(CavityRow(device_id, name, mine, far, contact, strip))
    return rows


def cavity_area_mm2(project: Project, conductors: Iterable[Conductor]) -> float:
    """Return the area that a contact has to hold: that of all its conductors together, mm²."""
    return round(sum(area_mm2(c.wire_type(project)) for c in conductors), 6)


def _counted(name: str) -> tuple[int, str]:
    return (int(name), "") if name.isdecimal() else (10**6, name)


def cavity_strip_mm(project: Project, device: Device | None, c: Conductor) -> float:
    """Return the strip length of a conductor's end in a connector: its contact's, else the usual one for its size."""
    area = area_mm2(c.wire_type(project))
    return number_of(contact_of(project, device, area), "strip_mm") or strip_length_mm(area)


def contact_fits(contact: Part, area: float) -> bool:
    """Return whether a crimp contact takes a conductor of an area in mm²; one without limits takes any."""
    low, high = number_of(contact, "cross_section_min_mm2"), number_of(contact, "cross_section_max_mm2")
    return (not low or area >= low - 1e-9) and (not high or area <= high + 1e-9)


def connectors_of(project: Project, harness_id: str) -> list[Device]:
    """Return the connectors of a harness as they were added."""
    return [project.devices[n.device_id] for n in nodes_of(project, harness_id) if n.device_id]


def free_connectors(project: Project) -> list[Device]:
    """Return the connectors that are in no harness yet, by tag."""
    inside = {n.device_id for n in project.nodes.values()}
    found = [
        d
        for d in project.devices.values()
        if d.id not in inside and any(definition(s.definition).unit == "cavity" for s in project.units_of(d.id))
    ]
    return sorted(found, key=lambda d: full_tag(project, d))


def node_name(project: Project, node: Node) -> str:
    """Return what people call an end or a branching of a harness: its connector's tag, or its name."""
    device = project.devices.get(node.device_id)
    return full_tag(project, device) if device else f"branching {node.name}".strip()
