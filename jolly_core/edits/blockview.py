"""Harnesses as blocks: boxes, connectors that sit on them, strokes between connectors, mates."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.harness import (
    block_layout,
    block_of,
    do_mate,
    is_end,
    mate_of,
    mates_named,
    node_of,
    nodes_at,
    owner_of,
    seat_of,
    seated_on,
    swap_faults,
)
from jolly_core.library import is_class
from jolly_core.model import Block, Device, Harness, Part, Project, RuleError, Seat
from jolly_core.tagging import full_tag, short_tag

from .base import Id, Mm, Payload, Text, Work, edit
from .devices import SetTag, set_tag
from .harness import DEFAULT_SEGMENT_MM, AddHarness, AddNode, add_harness, add_node, new_connector
from .parts import give_part, take_part
from .segments import check_end
from .upkeep import drop_unused, new_device


class AddBlock(Payload):
    """Put a box into the picture of blocks: a new device of a part or class, or one that is there.

    Attributes:
        device_id: a device that is there already; "" for a new one.
        part_class: of a new one without a part.
        x, y: its corner, mm; 0, 0 for the first free place.
    """

    kind: Literal["add-block"] = "add-block"
    device_id: Id = ""
    part_id: Id = ""
    part_class: Id = "circuit-board"
    tag: Text = Field(default="", max_length=40)
    text: Text = ""
    function_id: Id = ""
    location_id: Id = ""
    x: Mm = Field(default=0.0, ge=0)
    y: Mm = Field(default=0.0, ge=0)


@edit(AddBlock, {"tag": "A1", "text": "Fan board", "x": 20, "y": 20})
def add_block(work: Work, payload: AddBlock) -> str:
    """Work out AddBlock."""
    project = work.project
    if payload.device_id:
        device: Device = project.get("device", payload.device_id)
        if block_of(project, device.id) is not None:
            raise RuleError(f"{full_tag(project, device)} is in the picture already.", ids=(device.id,))
    else:
        if not is_class(payload.part_class):
            raise RuleError(f"There is no class of parts “{payload.part_class}”.", field="part_class")
        part = take_part(work, payload.part_id) if payload.part_id else None
        place = (payload.function_id, payload.location_id)
        device = new_device(work, part.part_class if part else payload.part_class, place, payload.text)
        if part is not None:
            give_part(work, device, part.id)
        if payload.tag.strip():
            set_tag(work, SetTag(device_id=device.id, tag=payload.tag.strip()))
    made = Block(work.ids.new(), device.id, payload.x, payload.y)
    work.put("block", made)
    box = block_layout(project).get(device.id)
    if box is None:
        words = "is shown on the box it sits on or is plugged into, and gets none of its own."
        raise RuleError(f"{full_tag(project, device)} {words}", field="device_id", ids=(device.id,))
    if not payload.x and not payload.y:
        left, top, *_ = box
        work.put("block", replace(made, x=left, y=top))  # it stays there, whatever it is joined to
    work.outcome.placed = [device.id]
    return f"box {short_tag(project, project.devices[device.id])}"


class MoveBlock(Payload):
    """Put the box of a device elsewhere in the picture, mm."""

    kind: Literal["move-block"] = "move-block"
    device_id: Id
    x: Mm = Field(ge=0)
    y: Mm = Field(ge=0)


@edit(MoveBlock, {"device_id": "d1", "x": 120, "y": 40})
def move_block(work: Work, payload: MoveBlock) -> str:
    """Work out MoveBlock."""
    device: Device = work.project.get("device", payload.device_id)
    block = block_of(work.project, device.id)
    made = replace(block, x=payload.x, y=payload.y) if block else None
    work.put("block", made or Block(work.ids.new(), device.id, payload.x, payload.y))
    return f"move {short_tag(work.project, device)}"


class RemoveBlock(Payload):
    """Take a box out of the picture with the connectors on it; what is drawn or in a harness stays."""

    kind: Literal["remove-block"] = "remove-block"
    device_id: Id


@edit(RemoveBlock, {"device_id": "d1"})
def remove_block(work: Work, payload: RemoveBlock) -> str:
    """Work out RemoveBlock."""
    project = work.project
    device: Device = project.get("device", payload.device_id)
    label = f"take {short_tag(project, device)} out of the picture"
    for connector in seated_on(project, device.id):
        _reseat(work, connector.id, owner_id="")
        drop_unused(work, connector.id)
    block = block_of(project, device.id)
    if block is not None:
        work.remove("block", block.id)
    drop_unused(work, device.id)
    return label


class FitConnector(Payload):
    """Put a connector onto a device: a new one of a part, or one that is there.

    Attributes:
        device_id: a connector that is there; "" for a new one.
        owner_id: the device; "" takes the connector off the one it sits on.
    """

    kind: Literal["fit-connector"] = "fit-connector"
    owner_id: Id
    device_id: Id = ""
    part_id: Id = ""
    tag: Text = Field(default="", max_length=40)
    text: Text = ""


@edit(FitConnector, {"owner_id": "d1", "part_id": "tamwick-tw-h6p", "tag": "XD7"})
def fit_connector(work: Work, payload: FitConnector) -> str:
    """Work out FitConnector."""
    project = work.project
    owner: Device | None = project.get("device", payload.owner_id) if payload.owner_id else None
    if payload.device_id:
        device: Device = project.get("device", payload.device_id)
        check_connector(project, device.id)
    elif owner is None or not payload.part_id:
        raise RuleError("Choose the device and the connector's part.", field="part_id")
    else:
        device = new_connector(work, payload.part_id, payload.tag, owner, payload.text)
    if owner is not None and owner.id == device.id:
        raise RuleError(f"{full_tag(project, device)} cannot sit on itself.", ids=(device.id,))
    if owner is not None and owner_of(project, owner.id) is not None:
        raise RuleError(f"{full_tag(project, owner)} sits on a device itself. Choose that.", ids=(owner.id,))
    _reseat(work, device.id, owner_id=owner.id if owner else "")
    work.outcome.placed = [device.id]
    name = short_tag(project, project.devices[device.id])
    return f"{name} on {short_tag(project, owner)}" if owner else f"{name} off its device"


def check_connector(project: Project, device_id: str) -> None:
    """Refuse what is no connector.

    Raises:
        RuleError: it has no cavities.
    """
    device = project.devices[device_id]
    if not is_end(project, device):
        raise RuleError(f"{full_tag(project, device)} is no connector: it has no cavities.", ids=(device.id,))


def _reseat(work: Work, device_id: str, *, owner_id: str | None = None, mate_id: str | None = None) -> None:
    """Say where a connector sits or what it is plugged to; what says nothing any more goes."""
    seat = seat_of(work.project, device_id)
    made = seat or Seat(work.ids.new(), device_id)
    if owner_id is not None:
        made = replace(made, owner_id=owner_id)
    if mate_id is not None:
        made = replace(made, mate_id=mate_id)
    if made.owner_id or made.mate_id:
        work.put("seat", made)
    elif seat is not None:
        work.remove("seat", seat.id)


def unplug(work: Work, device_id: str) -> None:
    """Take a connector off the one it is plugged to."""
    project = work.project
    for id in (device_id, *(project.seats[s].device_id for s in project.seats_mating.get(device_id))):
        _reseat(work, id, mate_id="")


class MateConnectors(Payload):
    """Plug a connector to another, or with "" take it off; `anyway` though their parts do not mate."""

    kind: Literal["mate-connectors"] = "mate-connectors"
    device_id: Id
    mate_id: Id = ""
    anyway: bool = False


@edit(MateConnectors, {"device_id": "d1", "mate_id": "d2"})
def mate_connectors(work: Work, payload: MateConnectors) -> str:
    """Work out MateConnectors."""
    project = work.project
    device: Device = project.get("device", payload.device_id)
    check_connector(project, device.id)
    if not payload.mate_id:
        unplug(work, device.id)
        return f"unplug {short_tag(project, device)}"
    mate: Device = project.get("device", payload.mate_id)
    check_connector(project, mate.id)
    if mate.id == device.id:
        raise RuleError(f"{full_tag(project, device)} cannot be plugged to itself.", ids=(device.id,))
    plug(work, device, mate, anyway=payload.anyway)
    return f"plug {short_tag(project, device)} to {short_tag(project, mate)}"


def plug(work: Work, device: Device, mate: Device, *, anyway: bool = False) -> None:
    """Plug two connectors together; what either was plugged to comes off.

    Raises:
        RuleError: their parts do not mate.
    """
    project = work.project
    one, other = project.part_of(device), project.part_of(mate)
    if not anyway and one is not None and other is not None and not do_mate(one, other):
        advice = ", ".join(mates_named(one)) or "nothing that is named"
        raise RuleError(
            f"{one.number} of {full_tag(project, device)} does not mate with {other.number} of "
            f"{full_tag(project, mate)}. It mates with {advice}.",
            ids=(device.id, mate.id),
        )
    for id in (device.id, mate.id):
        unplug(work, id)
    # What sits on nothing is the plug.
    loose, fixed = (mate, device) if owner_of(project, device.id) and not owner_of(project, mate.id) else (device, mate)
    _reseat(work, loose.id, mate_id=fixed.id)


class SwapConnector(Payload):
    """Give a connector another part, with what it is plugged to if `both`; refused by name where that cannot be.

    Attributes:
        both: its mate becomes the first housing that the part names as its mate.
        anyway: swap though a wire, a contact or the mate does not fit; a snag then says so.
    """

    kind: Literal["swap-connector"] = "swap-connector"
    device_id: Id
    part_id: Id
    both: bool = False
    anyway: bool = False


@edit(SwapConnector, {"device_id": "d1", "part_id": "tamwick-tw-h12s", "both": True})
def swap_connector(work: Work, payload: SwapConnector) -> str:
    """Work out SwapConnector."""
    project = work.project
    device: Device = project.get("device", payload.device_id)
    part = take_part(work, payload.part_id)
    if not part.count("cavity"):
        raise RuleError(f"{part.number} has no cavities. Choose a connector.", field="part_id")
    mate = mate_of(project, device.id)
    pairs: list[tuple[Device, Part]] = [(device, part)]
    if payload.both and mate is not None:
        names = mates_named(part)
        if not names:
            raise RuleError(f"{part.number} names no mate. Choose the parts of both.", field="part_id")
        other = take_part(work, names[0])
        pairs.append((mate, other))
        unplug(work, device.id)
    faults = [fault for d, p in pairs for fault in swap_faults(project, d, p)]
    if faults and not payload.anyway:
        advice = _advice(project, mate) if mate and not payload.both else ""
        raise RuleError(" ".join([*faults, advice]).strip(), field="part_id", ids=(device.id,))
    for d, p in pairs:
        give_part(work, project.devices[d.id], p.id)
    if len(pairs) == 2:
        plug(work, *(project.devices[d.id] for d, _ in pairs))
    work.outcome.remarks += faults
    return f"part {part.number} for {short_tag(project, project.devices[device.id])}"


def _advice(project: Project, mate: Device) -> str:
    beside = project.part_of(mate)
    if beside is None or not mates_named(beside):
        return ""
    return f"{beside.number} mates with {', '.join(mates_named(beside))}."


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
