"""Whole strips: made and planned, named, removed."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from jolly_core.model import MOST_LEVELS, Device, RuleError, Strip, StripItem
from jolly_core.model.entities.habits import FirstNumber
from jolly_core.tagging import product_tag, short_tag
from jolly_core.terminals import (
    blocks_of,
    strip_record,
)

from ..base.edit import Id, Payload, Text, Work, edit
from ..base.upkeep import new_device, refresh_letters, remove_device
from ..devices.parts import give_part, take_part
from .items import Accessory, TerminalKind, put_in_order, strip_named
from .planning import planned


class StripEnd(BaseModel):
    """How a strip ends: what stands there, from the outside in, and what the terminal there is when it is another."""

    model_config = ConfigDict(extra="forbid")
    accessories: list[Accessory] = Field(default_factory=list, max_length=4)
    accessory_part_id: Id = ""
    terminal_kind: TerminalKind | None = None
    part_id: Id = ""


class MakeStrip(Payload):
    """Make a strip at a place, with terminals that are planned; nothing of it is drawn yet.

    Args of the terminals: how many, of which kind and how many levels, numbered from `start` on, from the other end
    with `backward`. The part is the strip's, or that of `each` terminal.
    """

    kind: Literal["make-strip"] = "make-strip"
    function_id: Id = ""
    location_id: Id = ""
    text: Text = ""
    tag: Text = Field(default="", max_length=40)
    count: int = Field(default=0, ge=0, le=500)
    terminal_kind: TerminalKind = "feed-through"
    levels: int = Field(default=1, ge=1, le=MOST_LEVELS)
    start: FirstNumber = 1
    step: Literal[1, 2] = 1
    backward: bool = False
    part_id: Id = ""
    each: bool = False
    first: StripEnd = Field(default_factory=StripEnd)
    last: StripEnd = Field(default_factory=StripEnd)


@edit(MakeStrip, {"location_id": "l1", "text": "Field switches", "count": 36, "start": 1})
def make_strip(work: Work, payload: MakeStrip) -> str:
    """Work out MakeStrip."""
    project = work.project
    for kind, id in (("function", payload.function_id), ("location", payload.location_id)):
        if id:
            project.get(kind, id)
    device = new_device(work, "terminal", (payload.function_id, payload.location_id), payload.text.strip())
    record = Strip(work.ids.new(), device.id, start=payload.start, step=payload.step)
    work.put("strip", replace(record, backward=payload.backward, made=True))
    wanted = payload.tag.strip().lstrip("-")
    if wanted and wanted != product_tag(project, device):
        device = replace(device, fixed_tag=wanted)
        work.put("device", device)
    if payload.part_id and not payload.each:
        give_part(work, device, payload.part_id)
        device = project.devices[device.id]
    own = payload.part_id if payload.each else ""
    ends = [end for end in (payload.first, payload.last) if end.terminal_kind is not None]
    if payload.count < len(ends):
        raise RuleError("A strip whose ends are other terminals has at least so many terminals.", field="count")
    made = planned(work, device, payload.terminal_kind, count=payload.count, levels=payload.levels, part_id=own)
    records = [
        *_accessories(work, device, payload.first),
        *_with_ends(work, device, made, payload),
        *reversed(_accessories(work, device, payload.last)),
    ]
    put_in_order(work, records)
    refresh_letters(work, device.id)
    work.outcome.placed = [device.id]
    words = f" with {payload.count} terminals" if payload.count else ""
    return f"make {short_tag(project, project.devices[device.id])}{words}"


def _accessories(work: Work, device: Device, end: StripEnd) -> list[StripItem]:
    part = take_part(work, end.accessory_part_id, "strip-accessory") if end.accessory_part_id else None
    id = part.id if part else ""
    return [StripItem(work.ids.new(), device.id, kind, 0, part_id=id) for kind in end.accessories]


def _with_ends(work: Work, device: Device, made: list[StripItem], payload: MakeStrip) -> list[StripItem]:
    """Return planned terminals whose first and last block are what the ends ask for."""
    blocks = blocks_of(made)
    for place, end in ((0, payload.first), (-1, payload.last)):
        if end.terminal_kind is not None and blocks:
            other = planned(work, device, end.terminal_kind, count=1, part_id=end.part_id)
            blocks[place] = [replace(other[0], unit=blocks[place][0].unit)]
    return [record for block in blocks for record in block]


class SetStrip(Payload):
    """Say what its two sides are called on plans, how it is numbered, and whether its rows show as lines on sheets."""

    kind: Literal["set-strip"] = "set-strip"
    strip_id: Id
    numbering: Literal["order", "wire", "level"] | None = None
    field_heading: Text | None = None
    panel_heading: Text | None = None
    show_row: bool | None = None
    plan_style: Literal["table", "drawn"] | None = None


@edit(SetStrip, {"strip_id": "d1", "numbering": "wire"})
def set_strip(work: Work, payload: SetStrip) -> str:
    """Work out SetStrip."""
    device = strip_named(work.project, payload.strip_id)
    record = strip_record(work.project, device.id)
    said = payload.model_dump(exclude={"kind", "strip_id"}, exclude_none=True)
    said = {name: value.strip() if isinstance(value, str) else value for name, value in said.items()}
    work.put("strip", replace(record, id=record.id or work.ids.new(), **said))
    tag = short_tag(work.project, device)
    return f"numbers of {tag} by {payload.numbering}" if payload.numbering else f"what is said of {tag}"


class RemoveStrip(Payload):
    """Remove a strip of which nothing is drawn, with what is planned on it and where it stands."""

    kind: Literal["remove-strip"] = "remove-strip"
    strip_id: Id


@edit(RemoveStrip, {"strip_id": "d1"})
def remove_strip(work: Work, payload: RemoveStrip) -> str:
    """Work out RemoveStrip."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    tag = short_tag(project, device)
    drawn = project.units_of(device.id)
    if drawn:
        words = f"{len(drawn)} terminal{'s' if len(drawn) > 1 else ''} of {tag} on sheets"
        raise RuleError(f"There are {words}. Delete them there first.", field="strip_id", ids=(drawn[0].id,))
    remove_device(work, device.id)
    return f"remove {tag}"
