"""Boxes of the block view: added, moved, removed."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.harness import (
    block_layout,
    block_of,
    seated_on,
)
from jolly_core.library import is_class
from jolly_core.model import Block, Device, RuleError
from jolly_core.tagging import full_tag, short_tag

from ..base.edit import Id, Mm, Payload, Text, Work, edit
from ..base.upkeep import drop_unused, new_device
from ..devices.facts import SetTag, set_tag
from ..devices.parts import give_part, take_part
from .mating import reseat


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
        reseat(work, connector.id, owner_id="")
        drop_unused(work, connector.id)
    block = block_of(project, device.id)
    if block is not None:
        work.remove("block", block.id)
    drop_unused(work, device.id)
    return label
