"""Nodes of a harness: connectors, splices, branchings, clips."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.harness import is_splice, is_tree, nodes_at, nodes_of, row_of_offsets, seat_of, tree_of
from jolly_core.model import ClipLead, Harness, Node, Project, RuleError, Segment
from jolly_core.model.entities.harness import MOST_OFFSETS
from jolly_core.tagging import short_tag

from ..base.edit import Id, Mm, Payload, Text, Work, edit
from ..base.upkeep import drop_unused
from .segments import check_end, joined, take_clip, without

DEFAULT_SEGMENT_MM = 200.0


class AddNode(Payload):
    """Add a connector, a splice or a branching to a harness, joined to a node by a segment of a length."""

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
        check_end(project, payload.device_id, harness.id)
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


def _node(project: Project, harness_id: str, node_id: str) -> Node:
    node: Node = project.get("node", node_id)
    if node.harness_id != harness_id:
        raise RuleError("The node belongs to another harness.", field="from_id", ids=(node_id,))
    return node


def _name(project: Project, node: Node) -> str:
    if node.sort == "clip":
        return f"clip {node.name}".strip()
    if node.device_id:
        return short_tag(project, project.devices[node.device_id])
    return f"branching {node.name}".strip()


class ChangeNode(Payload):
    """Name a node, put it somewhere in space, make it an end of the trunk, or cut the legs of its splice equal.

    Attributes:
        at: its place, mm; [] takes it out of space.
        led, offsets: how wires lie in a clip: packed, each at its offset (two coordinates each, mm), all at one point.
        from_mating: whether its connector is shown from the mating side.
    """

    kind: Literal["change-node"] = "change-node"
    node_id: Id
    name: Text | None = None
    part_id: Id | None = None
    at: list[Mm] | None = Field(default=None, max_length=3)
    trunk_end: bool | None = None
    equal_legs: bool | None = None
    led: ClipLead | None = None
    offsets: list[Mm] | None = Field(default=None, max_length=2 * MOST_OFFSETS)
    from_mating: bool | None = None


@edit(ChangeNode, {"node_id": "n1", "at": [0, 120, 40]})
def change_node(work: Work, payload: ChangeNode) -> str:
    """Work out ChangeNode."""
    project = work.project
    node: Node = project.get("node", payload.node_id)
    label = f"facts of {_name(project, node)}"
    if payload.at is not None and len(payload.at) not in (0, 3):
        raise RuleError("A place in space has three coordinates: x, y and z.", field="at", ids=(node.id,))
    if payload.equal_legs and not is_splice(project, node.device_id):
        raise RuleError(
            f"{_name(project, node)} is no splice: only splices have legs.", field="equal_legs", ids=(node.id,)
        )
    if (payload.led or payload.offsets) and node.sort != "clip":
        raise RuleError(f"{_name(project, node)} is no clip: wires lie in clips.", field="led", ids=(node.id,))
    if len(payload.offsets or []) % 2:
        raise RuleError("An offset in a clip has two coordinates: x and y, mm.", field="offsets", ids=(node.id,))
    if payload.part_id and node.sort != "clip":
        raise RuleError(f"{_name(project, node)} is no clip. Its device has the part.", field="part_id", ids=(node.id,))
    if payload.trunk_end:
        _one_end_less(work, node)
    values = payload.model_dump(exclude={"kind", "node_id"}, exclude_none=True)
    for key in {"at", "offsets"} & set(values):
        values[key] = tuple(values[key])
    if "part_id" in values:
        values["part_id"] = take_clip(work, values["part_id"])
    if payload.led == "offsets" and not payload.offsets and not node.offsets:
        values["offsets"] = row_of_offsets(project, node.id)
    work.put("node", replace(node, **values))
    return label


def _one_end_less(work: Work, node: Node) -> None:
    """Where the trunk has both its ends already, the one that was made first is given up for the new one."""
    ends = [n for n in nodes_of(work.project, node.harness_id) if n.trunk_end and n.id != node.id]
    if len(ends) > 1:
        work.put("node", replace(ends[0], trunk_end=False))


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
    if len(beside) == 2:
        joined(work, node, [project.segments[s.id] for s, _ in beside])
    else:
        for segment, _ in beside:
            without(work, segment.id)
    drop_node(work, node)
    if not is_tree(tree_of(project, harness.id)):
        raise RuleError("The harness would fall apart. Take its ends away first.", ids=(node.id,))
    return label


def drop_node(work: Work, node: Node) -> None:
    """Take a node away, and its connector where nothing else is left of that: a plug that only ended the harness."""
    project = work.project
    for part in [p for p in project.variant_parts.values() if p.node_id == node.id]:
        work.remove("variant_part", part.id)
    work.remove("node", node.id)
    seat = seat_of(project, node.device_id)
    bare = not nodes_at(project, node.device_id) and not project.units_of(node.device_id)
    if seat is not None and not seat.owner_id and bare:
        work.remove("seat", seat.id)
    drop_unused(work, node.device_id)
