"""Strokes of the block view: two connectors joined by a run of a harness."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.harness import (
    mate_of,
    mates_named,
    node_of,
    nodes_at,
    owner_of,
)
from jolly_core.model import Device, Harness, RuleError
from jolly_core.tagging import full_tag

from ..base.edit import Id, Mm, Payload, Text, Work, edit
from .connectors import new_connector
from .harnesses import AddHarness, add_harness
from .mating import check_connector, plug
from .nodes import DEFAULT_SEGMENT_MM, AddNode, add_node
from .segments import check_end


class JoinConnectors(Payload):
    """Join two connectors by a harness, whose wires are said later: a stroke in the picture of blocks.

    A connector on a device gets the first housing that its part names as its mate plugged to it. Two in no harness
    make a new one; one in a harness takes the other into it; two in different ones get one more between them.

    Attributes:
        code: of a new harness, "" for the next free.
        own: make a harness of its own, also where one of them is in a harness.
    """

    kind: Literal["join-connectors"] = "join-connectors"
    one_id: Id
    other_id: Id
    code: Text = Field(default="", max_length=30)
    length_mm: Mm = Field(default=DEFAULT_SEGMENT_MM, gt=0)
    own: bool = False


@edit(JoinConnectors, {"one_id": "d1", "other_id": "d2", "length_mm": 350})
def join_connectors(work: Work, payload: JoinConnectors) -> str:
    """Work out JoinConnectors."""
    project = work.project
    devices: list[Device] = [project.get("device", id) for id in (payload.one_id, payload.other_id)]
    for device in devices:
        check_connector(project, device.id)
    ends = [_end_of(work, device) for device in devices]
    names = " and ".join(full_tag(project, d) for d in devices)
    if ends[0].id == ends[1].id:
        raise RuleError(f"{names} are the same end. Choose two.", ids=(devices[0].id,))
    there = [node_of(project, end.id) for end in ends]
    one, other = ({n.harness_id for n in nodes_at(project, end.id)} for end in ends)
    both = one & other
    if both:
        codes = " and ".join(sorted(project.harnesses[id].code for id in both))
        raise RuleError(f"{names} are ends of {codes} already.", ids=tuple(d.id for d in devices))
    if payload.own or all(there):
        there = [None, None]
    harness = next((project.harnesses[node.harness_id] for node in there if node), None) or _new_harness(work, payload)
    order = sorted(zip(there, ends, strict=True), key=lambda pair: pair[0] is None)
    start = order[0][0].id if order[0][0] else ""
    for node, end in order:
        if node is None:
            new = AddNode(harness_id=harness.id, device_id=end.id, from_id=start, length_mm=payload.length_mm)
            add_node(work, new)
            start = start or work.outcome.placed[0]
    work.outcome.placed = [harness.id]
    return f"join {names} in {harness.code}"


def _new_harness(work: Work, payload: JoinConnectors) -> Harness:
    taken = {h.code for h in work.project.harnesses.values()}
    code = payload.code.strip() or next(f"WH{n}" for n in range(1, 10_000) if f"WH{n}" not in taken)
    add_harness(work, AddHarness(code=code))
    made: Harness = work.project.get("harness", work.outcome.placed[0])
    return made


def _end_of(work: Work, device: Device) -> Device:
    """Return what of a connector ends a harness: itself, or what is or comes to be plugged to it."""
    project = work.project
    if node_of(project, device.id) is not None:
        return device
    mate = mate_of(project, device.id)
    if mate is not None and owner_of(project, mate.id) is None:
        return mate
    if mate is None and owner_of(project, device.id) is not None:
        names = mates_named(project.part_of(device))
        part = next((p for p in map(work.library.part, names) if p is not None), None)
        part = part or next((p for p in map(project.part_named, names) if p is not None), None)
        if part is not None:
            made = new_connector(work, part.id, "", device)
            plug(work, made, device)
            return project.devices[made.id]
    check_end(project, device.id, "")
    return device
