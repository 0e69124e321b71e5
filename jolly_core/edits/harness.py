"""Harnesses: their tree of connectors and branchings, and the lengths between."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.harness import is_tree, tree_of
from jolly_core.library import definition
from jolly_core.model import Device, Harness, Node, Project, RuleError, Segment
from jolly_core.tagging import full_tag, product_tag

from .base import Id, Mm, Payload, Text, Work, edit
from .upkeep import drop_unused

DEFAULT_SEGMENT_MM = 200.0


class AddHarness(Payload):
    """Add a harness."""

    kind: Literal["add-harness"] = "add-harness"
    code: Text = Field(min_length=1, max_length=30)
    text: Text = ""


@edit(AddHarness, {"code": "WH-T1", "text": "Turner carriage sensors"})
def add_harness(work: Work, payload: AddHarness) -> str:
    """Work out AddHarness."""
    project = work.project
    code = payload.code.strip()
    if any(h.code == code for h in project.harnesses.values()):
        raise RuleError(f"There is a harness {code} already. Choose another code.", field="code")
    order = max((h.order for h in project.harnesses.values()), default=0) + 1
    made = Harness(work.ids.new(), code, payload.text, order)
    work.put("harness", made)
    work.outcome.placed = [made.id]
    return f"add harness {code}"


class AddNode(Payload):
    """Add a connector or a branching to a harness, joined to a node by a segment of a length."""

    kind: Literal["add-node"] = "add-node"
    harness_id: Id
    device_id: Id = ""
    name: Text = ""
    from_id: Id = ""
    length_mm: Mm = Field(default=DEFAULT_SEGMENT_MM, gt=0)


@edit(AddNode, {"harness_id": "h1", "name": "B1", "length_mm": 450})
def add_node(work: Work, payload: AddNode) -> str:
    """Work out AddNode."""
    project = work.project
    harness: Harness = project.get("harness", payload.harness_id)
    if payload.device_id:
        _connector(project, payload.device_id)
    nodes = [n for n in project.nodes.values() if n.harness_id == harness.id]
    if nodes and not payload.from_id:
        raise RuleError("Say which node of the harness it joins.", field="from_id")
    node = Node(work.ids.new(), harness.id, payload.device_id, payload.name.strip())
    work.put("node", node)
    if payload.from_id:
        _node(project, harness.id, payload.from_id)
        work.put("segment", Segment(work.ids.new(), harness.id, payload.from_id, node.id, payload.length_mm))
    work.outcome.placed = [node.id]
    return f"add {_name(project, node)} to {harness.code}"


def _connector(project: Project, device_id: str) -> Device:
    device: Device = project.get("device", device_id)
    tag = full_tag(project, device)
    part = project.part_of(device)
    drawn = any(definition(s.definition).unit == "cavity" for s in project.units_of(device.id))
    if not drawn and (part is None or not part.count("cavity")):
        raise RuleError(f"{tag} is no connector: it has no cavities.", field="device_id", ids=(device.id,))
    for node in project.nodes.values():
        if node.device_id == device.id:
            code = project.harnesses[node.harness_id].code
            raise RuleError(f"{tag} is in harness {code} already.", field="device_id", ids=(device.id,))
    return device


def _node(project: Project, harness_id: str, node_id: str) -> Node:
    node: Node = project.get("node", node_id)
    if node.harness_id != harness_id:
        raise RuleError("The node belongs to another harness.", field="from_id", ids=(node_id,))
    return node


def _name(project: Project, node: Node) -> str:
    if node.device_id:
        return f"-{product_tag(project, project.devices[node.device_id])}"
    return f"branching {node.name}".strip()


class SetSegment(Payload):
    """Give a segment another length."""

    kind: Literal["set-segment"] = "set-segment"
    segment_id: Id
    length_mm: Mm = Field(gt=0)


@edit(SetSegment, {"segment_id": "g1", "length_mm": 600})
def set_segment(work: Work, payload: SetSegment) -> str:
    """Work out SetSegment."""
    segment: Segment = work.project.get("segment", payload.segment_id)
    work.put("segment", replace(segment, length_mm=round(payload.length_mm, 1)))
    return f"length of a segment of {work.project.harnesses[segment.harness_id].code}"


class SplitSegment(Payload):
    """Put a branching into a segment, at a distance from its first node."""

    kind: Literal["split-segment"] = "split-segment"
    segment_id: Id
    at_mm: Mm = Field(gt=0)
    name: Text = ""


@edit(SplitSegment, {"segment_id": "g1", "at_mm": 150, "name": "B2"})
def split_segment(work: Work, payload: SplitSegment) -> str:
    """Work out SplitSegment."""
    segment: Segment = work.project.get("segment", payload.segment_id)
    if payload.at_mm >= segment.length_mm:
        raise RuleError(f"The segment is {segment.length_mm:g} mm long. Choose a place within it.", field="at_mm")
    node = Node(work.ids.new(), segment.harness_id, "", payload.name.strip())
    work.put("node", node)
    rest = round(segment.length_mm - payload.at_mm, 1)
    work.put("segment", Segment(work.ids.new(), segment.harness_id, node.id, segment.b_id, rest))
    work.put("segment", replace(segment, b_id=node.id, length_mm=round(payload.at_mm, 1)))
    work.outcome.placed = [node.id]
    return f"branch {work.project.harnesses[segment.harness_id].code}"


class RemoveNode(Payload):
    """Take an end of a harness away with its segment, or a branching that has two, whose segments become one."""

    kind: Literal["remove-node"] = "remove-node"
    node_id: Id


@edit(RemoveNode, {"node_id": "n1"})
def remove_node(work: Work, payload: RemoveNode) -> str:
    """Work out RemoveNode."""
    project = work.project
    node: Node = project.get("node", payload.node_id)
    harness = project.harnesses[node.harness_id]
    label = f"remove {_name(project, node)} from {harness.code}"
    beside = tree_of(project, harness.id).beside[node.id]
    if len(beside) > 2:
        raise RuleError("Three or more segments meet here. Take the branches away first.", ids=(node.id,))
    for segment, _ in beside:
        work.remove("segment", segment.id)
    if len(beside) == 2:
        (a, one), (b, other) = beside
        work.put("segment", Segment(work.ids.new(), harness.id, one, other, a.length_mm + b.length_mm))
    work.remove("node", node.id)
    drop_unused(work, node.device_id)
    if not is_tree(tree_of(project, harness.id)):
        raise RuleError("The harness would fall apart. Take its ends away first.", ids=(node.id,))
    return label


class RemoveHarness(Payload):
    """Take a harness away; its connectors stay on their sheets."""

    kind: Literal["remove-harness"] = "remove-harness"
    harness_id: Id


@edit(RemoveHarness, {"harness_id": "h1"})
def remove_harness(work: Work, payload: RemoveHarness) -> str:
    """Work out RemoveHarness."""
    project = work.project
    harness: Harness = project.get("harness", payload.harness_id)
    for segment in [s for s in project.segments.values() if s.harness_id == harness.id]:
        work.remove("segment", segment.id)
    for node in [n for n in project.nodes.values() if n.harness_id == harness.id]:
        work.remove("node", node.id)
        drop_unused(work, node.device_id)
    work.remove("harness", harness.id)
    return f"remove harness {harness.code}"
