"""Harnesses and their nodes: connectors, splices, branchings, clips."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.harness import ENDS, is_splice, is_tree, nodes_at, nodes_of, row_of_offsets, seat_of, tree_of
from jolly_core.model import MOST_OFFSETS, ClipLead, Device, Harness, Heading, Node, Project, RuleError, Segment
from jolly_core.tagging import product_tag, short_tag

from .base import Id, Mm, Payload, Text, Work, edit
from .devices import SetTag, set_tag
from .parts import give_part, take_part
from .segments import ExtraShare, check_end, joined, take_clip, without
from .upkeep import drop_unused, new_device

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


class ChangeHarness(Payload):
    """Give a harness another code, text or number to build, or its segments another share of extra length.

    Attributes:
        apart: whether its bundles stay apart from those of other harnesses on the same way.
        heading: where its trunk leads on the board.
        label_mm: how far from each end its label is put, 0 for none.
    """

    kind: Literal["change-harness"] = "change-harness"
    harness_id: Id
    code: Text | None = Field(default=None, min_length=1, max_length=30)
    text: Text | None = None
    extra_percent: ExtraShare | None = None
    quantity: int | None = Field(default=None, ge=0, le=100_000)
    apart: bool | None = None
    heading: Heading | None = None
    label_mm: float | None = Field(default=None, ge=0, le=20_000)


@edit(ChangeHarness, {"harness_id": "h1", "extra_percent": 2})
def change_harness(work: Work, payload: ChangeHarness) -> str:
    """Work out ChangeHarness."""
    harness: Harness = work.project.get("harness", payload.harness_id)
    values = payload.model_dump(exclude={"kind", "harness_id"}, exclude_none=True)
    if "code" in values:
        values["code"] = values["code"].strip()
        if any(h.code == values["code"] and h.id != harness.id for h in work.project.harnesses.values()):
            raise RuleError(f"There is a harness {values['code']} already. Choose another code.", field="code")
    work.put("harness", replace(harness, **values))
    return f"facts of {harness.code}"


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


class AddConnector(Payload):
    """Add a connector or splice that is drawn on nothing yet to a harness: a device of a part.

    Attributes:
        tag: what it is called, as "XD7"; "" for the next free number of its class.
        from_id: the node it joins, "" for the first.
    """

    kind: Literal["add-connector"] = "add-connector"
    harness_id: Id
    part_id: Id
    tag: Text = Field(default="", max_length=40)
    text: Text = ""
    from_id: Id = ""
    length_mm: Mm = Field(default=DEFAULT_SEGMENT_MM, gt=0)


@edit(AddConnector, {"harness_id": "h1", "part_id": "tamwick-tw-h6s", "tag": "XD7"})
def add_connector(work: Work, payload: AddConnector) -> str:
    """Work out AddConnector."""
    project = work.project
    harness: Harness = project.get("harness", payload.harness_id)
    nodes = nodes_of(project, harness.id)
    near = next((n for n in nodes if n.device_id), None)
    beside = project.devices[near.device_id] if near else None
    device = new_connector(work, payload.part_id, payload.tag, beside, payload.text)
    start = payload.from_id or (nodes[0].id if nodes else "")
    add_node(work, AddNode(harness_id=harness.id, device_id=device.id, from_id=start, length_mm=payload.length_mm))
    return f"add {short_tag(project, project.devices[device.id])} to {harness.code}"


def new_connector(work: Work, part_id: str, tag: str, beside: Device | None, text: str = "") -> Device:
    """Make a connector, lug or splice of a part that is drawn on nothing yet, in the place of a device.

    Where tags go by lines it keeps the one it gets now: that is what tables call it before it is drawn.

    Raises:
        RuleError: nothing ends at such a part, or the tag is none.
    """
    part = take_part(work, part_id)
    if not any(part.count(unit) for unit in ENDS):
        raise RuleError(f"{part.number} has no cavities. Choose a connector, lug or splice.", field="part_id")
    place = (beside.function_id, beside.location_id) if beside else ("", "")
    device = new_device(work, part.part_class, place, text)
    give_part(work, device, part.id)
    by_line = work.project.settings.tag_habit == "line"
    wanted = tag.strip() or (product_tag(work.project, work.project.devices[device.id]) if by_line else "")
    if wanted:
        set_tag(work, SetTag(device_id=device.id, tag=wanted))
    made: Device = work.project.devices[device.id]
    return made


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
    _drop_node(work, node)
    if not is_tree(tree_of(project, harness.id)):
        raise RuleError("The harness would fall apart. Take its ends away first.", ids=(node.id,))
    return label


def _drop_node(work: Work, node: Node) -> None:
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


class RemoveHarness(Payload):
    """Take a harness away; its connectors stay on their sheets."""

    kind: Literal["remove-harness"] = "remove-harness"
    harness_id: Id


@edit(RemoveHarness, {"harness_id": "h1"})
def remove_harness(work: Work, payload: RemoveHarness) -> str:
    """Work out RemoveHarness."""
    project = work.project
    harness: Harness = project.get("harness", payload.harness_id)
    variants = {v.id for v in project.harness_variants.values() if v.harness_id == harness.id}
    for part in [p for p in project.variant_parts.values() if p.variant_id in variants]:
        work.remove("variant_part", part.id)
    for segment in [s for s in project.segments.values() if s.harness_id == harness.id]:
        without(work, segment.id)
    for node in [n for n in project.nodes.values() if n.harness_id == harness.id]:
        _drop_node(work, node)
    for kind in ("strand", "harness_shield", "harness_variant"):
        for id in [e.id for e in project.tables[kind].values() if e.harness_id == harness.id]:
            work.remove(kind, id)
    work.remove("harness", harness.id)
    return f"remove harness {harness.code}"
