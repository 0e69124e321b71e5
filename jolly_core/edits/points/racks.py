"""Racks that carry cards."""

from __future__ import annotations

from typing import Literal

from jolly_core.model import Rack, RuleError
from jolly_core.tagging import short_tag

from ..base.edit import Id, Payload, Text, Work, edit
from ..base.upkeep import new_device, remove_device
from ..devices.parts import give_part, take_part


class AddRack(Payload):
    """Add a rack for cards, with a part of the library; at a location in the field it is a remote station."""

    kind: Literal["add-rack"] = "add-rack"
    part_id: Id = ""
    function_id: Id = ""
    location_id: Id = ""
    text: Text = ""


@edit(AddRack, {"text": "Remote station"})
def add_rack(work: Work, payload: AddRack) -> str:
    """Work out AddRack."""
    project = work.project
    for kind, id in (("function", payload.function_id), ("location", payload.location_id)):
        if id:
            project.get(kind, id)
    device = new_device(work, "plc-rack", (payload.function_id, payload.location_id), payload.text)
    rack = Rack(work.ids.new(), device.id)
    work.put("rack", rack)
    if payload.part_id:
        take_part(work, payload.part_id, "plc-rack")
        give_part(work, device, payload.part_id)
    work.outcome.placed = [rack.id]
    return f"add rack {short_tag(project, project.devices[device.id])}"


class DeleteRack(Payload):
    """Delete a rack; its cards stay, in none."""

    kind: Literal["delete-rack"] = "delete-rack"
    rack_id: Id


@edit(DeleteRack, {"rack_id": "r1"})
def delete_rack(work: Work, payload: DeleteRack) -> str:
    """Work out DeleteRack."""
    project = work.project
    rack: Rack = project.get("rack", payload.rack_id)
    tag = short_tag(project, project.devices[rack.device_id])
    if project.units_of(rack.device_id):
        raise RuleError(f"{tag} is drawn. Delete it on its sheet first.", ids=(rack.device_id,))
    remove_device(work, rack.device_id)
    return f"delete rack {tag}"
