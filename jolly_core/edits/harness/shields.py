"""Shields of a harness that land on a pin."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.model import Harness, HarnessShield

from ..base.edit import Id, Payload, Text, Work, edit
from .wires import end_named


class LandShield(Payload):
    """Land a shield of a harness on a cavity or splice, as "-XD1:12"; "" takes it off."""

    kind: Literal["land-shield"] = "land-shield"
    harness_id: Id
    name: Text = Field(min_length=1, max_length=40)
    pin: Text = ""


@edit(LandShield, {"harness_id": "h1", "name": "S1", "pin": "-XD1:12"})
def land_shield(work: Work, payload: LandShield) -> str:
    """Work out LandShield."""
    harness: Harness = work.project.get("harness", payload.harness_id)
    name, pin = payload.name.strip(), payload.pin.strip()
    there = (s for s in work.project.harness_shields.values() if s.harness_id == harness.id and s.name == name)
    old = next(there, None)
    if not pin:
        if old is not None:
            work.remove("harness_shield", old.id)
        return f"shield {name} lands nowhere"
    end = end_named(work.project, harness, pin)
    id = old.id if old else work.ids.new()
    work.put("harness_shield", HarnessShield(id, harness.id, name, end.device.id, end.unit))
    return f"shield {name} on {pin}"
