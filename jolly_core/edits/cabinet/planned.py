"""Devices that are planned in a layout first."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.model import Enclosure, RuleError, SurfaceName

from ..base.edit import Id, Mm, Payload, Text, Work, edit
from ..base.upkeep import new_device
from ..devices.parts import give_part, take_part
from .placing import PlaceDevices, place_devices


class PlanDevice(Payload):
    """Place a device that is not drawn yet: it has its tag and part, and waits to be drawn.

    Attributes:
        count: how many, side by side.
    """

    kind: Literal["plan-device"] = "plan-device"
    enclosure_id: Id
    surface: SurfaceName = "plate"
    part_id: Id
    text: Text = ""
    x: Mm
    y: Mm
    count: int = Field(default=1, ge=1, le=50)


@edit(PlanDevice, {"enclosure_id": "e1", "part_id": "hollin-hr-k22", "x": 100, "y": 200})
def plan_device(work: Work, payload: PlanDevice) -> str:
    """Work out PlanDevice."""
    project = work.project
    enclosure: Enclosure = project.get("enclosure", payload.enclosure_id)
    host = project.devices[enclosure.device_id]
    part = take_part(work, payload.part_id)
    if part.mounting in ("cable", "free"):
        raise RuleError(f"{part.number} does not go into an enclosure. Choose another part.", field="part_id")
    ids = []
    for _ in range(payload.count):
        device = new_device(work, part.part_class, (host.function_id, host.location_id), payload.text)
        give_part(work, device, payload.part_id)
        ids.append(device.id)
    values = payload.model_dump(include={"enclosure_id", "surface", "x", "y"})
    place_devices(work, PlaceDevices(device_ids=ids, **values))
    return f"plan {payload.count} of {part.number}" if payload.count > 1 else f"plan {part.number}"
