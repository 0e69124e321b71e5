"""A splice in place of several wires in one cavity: proposed where its contact does not take them together."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.harness import (
    HarnessWire,
    cavity_area_mm2,
    cavity_rows,
    contact_fits,
    harness_wires,
    node_of,
    size_words,
    span_of,
    tree_of,
    wires_of,
)
from jolly_core.model import Device, Harness, Node, Part, Project, RuleError, Segment, WireType
from jolly_core.sizing import area_mm2
from jolly_core.tagging import device_at, full_tag, pin_name, pins_of

from ..base.edit import Id, Mm, Payload, Text, Work, edit
from .cells import take_wires_away
from .connectors import new_connector
from .nodes import ChangeNode, change_node
from .segments import SplitSegment, split_segment
from .wires import WireRow, draw_row, ends_of


class SpliceCavity(Payload):
    """Join the wires of a cavity in a splice on the segment to its connector; one wire leads on to the cavity.

    Attributes:
        distance_mm: from the connector; at most half the segment.
        equal_legs: cut all legs as long as the longest.
    """

    kind: Literal["splice-cavity"] = "splice-cavity"
    device_id: Id
    cavity: Text
    distance_mm: Mm = Field(default=60.0, gt=0)
    equal_legs: bool = False


@edit(SpliceCavity, {"device_id": "d1", "cavity": "12"})
def splice_cavity(work: Work, payload: SpliceCavity) -> str:
    """Work out SpliceCavity."""
    project = work.project
    device: Device = project.get("device", payload.device_id)
    name = f"{full_tag(project, device)}:{payload.cavity}"
    here = next((r for r in cavity_rows(project, device.id) if r.cavity == payload.cavity), None)
    if here is None or len(here.conductors) < 2:
        raise RuleError(f"{name} has no two wires to join in a splice.", field="cavity", ids=(device.id,))
    keys = {c.key for c in here.conductors}
    own = next((w.harness_id for key, w in harness_wires(project).items() if key in keys), "")
    node = node_of(project, device.id, own)
    if node is None:
        raise RuleError(f"{full_tag(project, device)} is in no harness. Add it to one.", ids=(device.id,))
    harness: Harness = project.harnesses[node.harness_id]
    legs = [w for w in wires_of(project, harness.id) if w.conductor.key in keys]
    if len(legs) < len(keys):
        raise RuleError(f"A wire of {name} leads out of {harness.code}. Join them on the sheet.", ids=(device.id,))
    thickest = max((leg.conductor.wire_type(project) for leg in legs), key=area_mm2)
    together = round(cavity_area_mm2(project, here.conductors) + area_mm2(thickest), 6)
    part = _part(work, together, name)
    splice = _splice(work, device, node, part, payload.distance_mm)
    tag = full_tag(project, splice)
    beyond = [_leg(project, leg, device, payload.cavity, tag) for leg in legs]
    rows = [_row(beyond[0].signal, thickest, name, tag), *beyond]
    named = [ends_of(project, harness, row) for row in rows]  # as they are called before anything of it is drawn
    take_wires_away(work, harness, legs)
    for row, ends in zip(rows, named, strict=True):
        draw_row(work, harness, row, ends)
    if payload.equal_legs:
        made = next(n for n in project.nodes.values() if n.device_id == splice.id)
        change_node(work, ChangeNode(node_id=made.id, equal_legs=True))
    work.outcome.placed = [splice.id]
    return f"splice {tag} for {name}"


def _part(work: Work, area: float, name: str) -> Part:
    found = [p for p in work.library.parts_of("splice") if contact_fits(p, area)]
    if not found:
        words = f"{area:g} mm², the wires of {name} and the one that leads on"
        raise RuleError(f"No splice of the library takes {words}. Add one to the library.")
    return found[0]


def _splice(work: Work, device: Device, node: Node, part: Part, distance: float) -> Device:
    """Put a splice of a part onto the segment that leads to a connector."""
    project = work.project
    segments = [project.segments[s.id] for s, _ in tree_of(project, node.harness_id).beside[node.id]]
    if not segments:
        raise RuleError(f"No segment leads to {full_tag(project, device)}. Join it to its harness first.")
    splice = new_connector(work, part.id, "", device)
    bases = [span_of(project, s.id).base_mm for s in segments]
    at = round(min(distance, min(bases) / 2), 2)
    if len(segments) == 1:
        at_mm = at if segments[0].a_id == node.id else round(bases[0] - at, 2)
        split_segment(work, SplitSegment(segment_id=segments[0].id, at_mm=at_mm, device_id=splice.id))
    else:
        _between(work, device, node, splice, segments, at)
    return project.devices[splice.id]


def _between(work: Work, device: Device, node: Node, splice: Device, segments: list[Segment], at: float) -> None:
    """Put a splice between a connector and the segments that leave it, which are as much shorter."""
    if any(s.form != "typed" for s in segments):
        tag = full_tag(work.project, device)
        raise RuleError(f"Segments leave {tag} by paths in space. Put the splice onto one of them yourself.")
    made = Node(work.ids.new(), node.harness_id, splice.id)
    work.put("node", made)
    for s in segments:
        a, b = (made.id if id == node.id else id for id in (s.a_id, s.b_id))
        work.put("segment", replace(s, length_mm=round(s.length_mm - at, 2), a_id=a, b_id=b))
    work.put("segment", Segment(work.ids.new(), node.harness_id, node.id, made.id, at))


def _leg(project: Project, leg: HarnessWire, device: Device, cavity: str, splice: str) -> WireRow:
    """Return a wire of the cavity as it is from the splice on."""
    c = leg.conductor
    near = next(
        pin
        for pin in (c.start, c.end)
        if device_at(project, pin) == device and pins_of(project, project.symbols[pin[0]])[pin[1]] == cavity
    )
    return _row(c.number, c.wire_type(project), splice, pin_name(project, c.other(near)))


def _row(signal: str, wire_type: WireType | None, start: str, end: str) -> WireRow:
    colour = wire_type.colour if wire_type else ""
    return WireRow(signal=signal, colour=colour, size=size_words(wire_type), start=start, end=end)
