"""Accessories of a strip."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import RuleError, StripItem
from jolly_core.tagging import short_tag
from jolly_core.terminals import (
    ACCESSORY_NAMES,
    TERMINAL,
)

from ..base.edit import Id, Payload, Work, edit
from ..base.upkeep import drop_part
from ..devices.parts import take_part
from .items import Accessory, ItemKey, keyed, place_of_key, put_in_order, stored, strip_named


class AddStripAccessory(Payload):
    """Put an end bracket, partition plate or marker on a strip, before or after a place, or at its start or end."""

    kind: Literal["add-strip-accessory"] = "add-strip-accessory"
    strip_id: Id
    accessory: Accessory
    position: int | None = Field(default=None, ge=0, le=5000)
    at: ItemKey = ""
    side: Literal["before", "after"] = "after"
    part_id: Id = ""


@edit(AddStripAccessory, {"strip_id": "d1", "accessory": "end-bracket", "position": 0})
def add_strip_accessory(work: Work, payload: AddStripAccessory) -> str:
    """Work out AddStripAccessory."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    part = take_part(work, payload.part_id, "strip-accessory") if payload.part_id else None
    records = stored(work, device.id)
    at = place_of_key(project, device.id, records, payload.at, after=payload.side == "after")
    if not payload.at and payload.position is not None:
        at = min(payload.position, len(records))
    made = StripItem(work.ids.new(), device.id, payload.accessory, 0, part_id=part.id if part else "")
    put_in_order(work, [*records[:at], made, *records[at:]])
    work.outcome.placed = [made.id]
    return f"{ACCESSORY_NAMES[payload.accessory].lower()} on {short_tag(project, device)}"


class SetAccessoryPart(Payload):
    """Give accessories of a strip a part, or none with an empty one."""

    kind: Literal["set-accessory-part"] = "set-accessory-part"
    strip_id: Id
    keys: list[ItemKey] = Field(min_length=1, max_length=500)
    part_id: Id


@edit(SetAccessoryPart, {"strip_id": "d1", "keys": ["i1"], "part_id": ""})
def set_accessory_part(work: Work, payload: SetAccessoryPart) -> str:
    """Work out SetAccessoryPart."""
    device = strip_named(work.project, payload.strip_id)
    part = take_part(work, payload.part_id, "strip-accessory") if payload.part_id else None
    for record in keyed(work.project, device.id, payload.keys):
        if record.kind == TERMINAL:
            raise RuleError("Choose end brackets, plates or markers; a terminal has a part of its own.", field="keys")
        work.put("strip_item", replace(record, part_id=part.id if part else ""))
        drop_part(work, record.part_id)
    return f"part of {len(payload.keys)} accessor{'ies' if len(payload.keys) > 1 else 'y'} of " + (
        short_tag(work.project, device)
    )
