"""Connectors of harnesses and blocks: added, fitted, swapped."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.harness import (
    ENDS,
    mate_of,
    mates_named,
    nodes_of,
    owner_of,
    swap_faults,
)
from jolly_core.model import (
    Device,
    Harness,
    Part,
    Project,
    RuleError,
)
from jolly_core.tagging import full_tag, product_tag, short_tag

from ..base.edit import Id, Mm, Payload, Text, Work, edit
from ..base.upkeep import new_device
from ..devices.facts import SetTag, set_tag
from ..devices.parts import give_part, take_part
from .mating import check_connector, plug, reseat, unplug
from .nodes import DEFAULT_SEGMENT_MM, AddNode, add_node


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
    reseat(work, device.id, owner_id=owner.id if owner else "")
    work.outcome.placed = [device.id]
    name = short_tag(project, project.devices[device.id])
    return f"{name} on {short_tag(project, owner)}" if owner else f"{name} off its device"


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
        advice = mating_advice(project, mate) if mate and not payload.both else ""
        raise RuleError(" ".join([*faults, advice]).strip(), field="part_id", ids=(device.id,))
    for d, p in pairs:
        give_part(work, project.devices[d.id], p.id)
    if len(pairs) == 2:
        plug(work, *(project.devices[d.id] for d, _ in pairs))
    work.outcome.remarks += faults
    return f"part {part.number} for {short_tag(project, project.devices[device.id])}"


def mating_advice(project: Project, mate: Device) -> str:
    """Return which connectors mate with one that waits for its other half, as a sentence; empty where none is known."""
    beside = project.part_of(mate)
    if beside is None or not mates_named(beside):
        return ""
    return f"{beside.number} mates with {', '.join(mates_named(beside))}."
