"""The wires of a harness: what is drawn between its connectors and splices, their lengths and bundles."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, field, replace

from jolly_core.library import definition
from jolly_core.model import (
    Device,
    Harness,
    Node,
    Project,
    RuleError,
    Segment,
    bare_length,
    derived,
    length_words,
    merged,
)
from jolly_core.sizing import rounded_up_mm
from jolly_core.tagging import device_at, full_tag, tag_order
from jolly_core.wiring import Conductor, conductors_from

from .contacts import ENDS, is_splice
from .lengths import span_of
from .tree import Steps, length_mm, nodes_at, nodes_between, nodes_of, steps_from, tree_of, way_along


@dataclass(slots=True)
class HarnessWire:
    """A wire of a harness.

    Attributes:
        missing: why it has no length, "" when it has one.
        spare_mm: how much longer than its way it is cut, for equal legs of a splice.
    """

    conductor: Conductor
    harness_id: str
    length_mm: float | None = None
    segments: list[Segment] = field(default_factory=list)
    missing: str = ""
    why: str = ""
    spare_mm: float = 0.0


def harnesses(project: Project) -> list[Harness]:
    """Return the harnesses in order."""
    return sorted(project.harnesses.values(), key=lambda h: (h.order, h.id))


@derived
def _nodes_at(project: Project) -> dict[str, list[Node]]:
    """Return the nodes of each connector that has some: one in each harness that begins there."""
    return {id: nodes_at(project, id) for id in {n.device_id for n in project.nodes.values()} if id}


@derived
def _ways_from(project: Project, sheet_id: str) -> dict[str, HarnessWire]:
    """Return the wires of harnesses among the conductors of nets that begin on a sheet, each by its own way."""
    there = _nodes_at(project)
    found: dict[str, HarnessWire] = {}
    for c in conductors_from(project, sheet_id).values() if there else ():
        one, other = (there.get(d.id, []) if (d := device_at(project, pin)) else [] for pin in (c.start, c.end))
        pairs = [(a, b) for a in one for b in other if a.harness_id == b.harness_id]
        if pairs:
            a, b = _own_pair(project, c, pairs)
            found[c.key] = _measured(project, HarnessWire(c, a.harness_id), a.id, b.id)
    return found


def _own_pair(project: Project, c: Conductor, pairs: list[tuple[Node, Node]]) -> tuple[Node, Node]:
    """Return the nodes a conductor runs between: of the harness a person said, else of the first that has a way."""
    if len(pairs) == 1:
        return pairs[0]
    said = {project.strands[id].harness_id for id in project.strands_of.get(c.key) if project.strands[id].here}
    ways = (p for p in pairs if nodes_between(tree_of(project, p[0].harness_id), p[0].id, p[1].id))
    return next((p for p in pairs if p[0].harness_id in said), None) or next(ways, pairs[0])


_ways = merged(_ways_from)


@derived
def _steps_from(project: Project, harness_id: str, start: str) -> Steps:
    return steps_from(tree_of(project, harness_id), start)


def _measured(project: Project, wire: HarnessWire, start: str, end: str) -> HarnessWire:
    settings = project.settings
    try:
        wire.segments = way_along(_steps_from(project, wire.harness_id, start), start, end)
    except RuleError as error:
        wire.missing = error.message
        return wire
    shown = " + ".join(bare_length(project, s.length_mm) for s in wire.segments) or "0"
    unknown = next((s for s in wire.segments if span_of(project, s.id).missing), None)
    if unknown:
        ends = " and ".join(node_name(project, project.nodes[id]) for id in (unknown.a_id, unknown.b_id))
        wire.missing = f"The segment between {ends} has no length: {span_of(project, unknown.id).missing}."
        return wire
    way = length_mm(wire.segments)
    total = round(way + 2 * settings.harness_allowance_mm, 2)
    wire.length_mm = rounded_up_mm(total, settings.length_step_mm)
    ends, step = bare_length(project, settings.harness_allowance_mm), length_words(project, settings.length_step_mm)
    wire.why = (
        f"segments {shown} + 2 × {ends} at the ends = {length_words(project, total)}, rounded up to {step}: "
        f"{length_words(project, wire.length_mm)}"
    )
    return wire


@derived
def _legs(project: Project) -> dict[str, float]:
    """Return how long the legs of each splice with equal legs are, mm, by the id of its device."""
    equal = {n.device_id for n in project.nodes.values() if n.equal_legs and n.device_id}
    found: dict[str, float] = {}
    for wire in _ways(project).values() if equal else ():
        for id in _devices(project, wire.conductor) & equal:
            found[id] = max(found.get(id, 0.0), wire.length_mm or 0.0)
    return found


def _devices(project: Project, c: Conductor) -> set[str]:
    return {project.symbols[pin[0]].device_id for pin in (c.start, c.end)}


@derived
def harness_wires_from(project: Project, sheet_id: str) -> dict[str, HarnessWire]:
    """Return the wires of harnesses among the conductors of nets that begin on a sheet, by their keys."""
    legs = _legs(project)
    found = _ways_from(project, sheet_id)
    return {key: _as_leg(project, wire, legs) for key, wire in found.items()} if legs else found


harness_wires = merged(harness_wires_from)


def _as_leg(project: Project, wire: HarnessWire, legs: dict[str, float]) -> HarnessWire:
    """Return a wire as long as the longest leg of its splice, where its splice has equal legs."""
    mine = [(legs[id], id) for id in _devices(project, wire.conductor) if id in legs]
    if not mine or wire.length_mm is None:
        return wire
    length, splice = max(mine)
    spare = round(length - wire.length_mm, 2)
    tag = full_tag(project, project.devices[splice])
    said = f"{length_words(project, length)}, {length_words(project, spare)} spare"
    why = f"{wire.why}; equal legs of {tag}: {said}" if spare else wire.why
    return replace(wire, length_mm=length, spare_mm=spare, why=why)


def wires_of(project: Project, harness_id: str) -> list[HarnessWire]:
    """Return the wires of one harness in reading order of nets."""
    return [w for w in harness_wires(project).values() if w.harness_id == harness_id]


def connectors_of(project: Project, harness_id: str) -> list[Device]:
    """Return the connectors of a harness as they were added."""
    return [project.devices[n.device_id] for n in nodes_of(project, harness_id) if n.device_id]


def connectors_elsewhere(project: Project, harness_id: str) -> list[Device]:
    """Return the connectors of other harnesses at which this one may begin, too, by tag; splices are of one harness."""
    mine = {d.id for d in connectors_of(project, harness_id)}
    found = {d.id: d for h in harnesses(project) for d in connectors_of(project, h.id) if d.id not in mine}
    return sorted((d for d in found.values() if not is_splice(project, d.id)), key=lambda d: tag_order(project, d))


def sharing(project: Project, harness_id: str) -> list[Harness]:
    """Return the harnesses with two or more connectors of this one, in order: wires between those may run in either."""
    common = Counter(n.harness_id for d in connectors_of(project, harness_id) for n in nodes_at(project, d.id))
    return [h for h in harnesses(project) if h.id != harness_id and common[h.id] > 1]


def free_connectors(project: Project) -> list[Device]:
    """Return the connectors that are in no harness yet, by tag."""
    inside = {n.device_id for n in project.nodes.values()}
    inside |= {s.device_id for s in project.seats.values() if s.owner_id}
    found = [
        d
        for d in project.devices.values()
        if d.id not in inside and any(definition(s.definition).unit in ENDS for s in project.units_of(d.id))
    ]
    return sorted(found, key=lambda d: tag_order(project, d))


def node_name(project: Project, node: Node) -> str:
    """Return what people call a node of a harness: its connector's or splice's tag, or its name."""
    device = project.devices.get(node.device_id)
    return full_tag(project, device) if device else f"{node.sort or 'branching'} {node.name}".strip()
