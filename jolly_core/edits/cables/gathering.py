"""Gathering field wires into a cable: bands are drawn where they cross these wires and no others."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cables import PE, role_of, source_first, spare_cores
from jolly_core.making import field_groups, open_conductors, strokes_for
from jolly_core.model import Band, Cable, CableWay, Device, Project, RuleError, counted
from jolly_core.model.entities.building import Metres
from jolly_core.tagging import device_at, path_of, pin_name, short_tag
from jolly_core.wiring import Conductor

from ..base.edit import Id, Payload, Text, Work, edit
from ..base.upkeep import new_device
from ..devices.parts import give_part
from .cores import cable_named


class GatherWires(Payload):
    """Gather field wires into a new cable, or one that is there; they are named by their keys, or as a group.

    Bands are drawn across them on their sheets. Wires that run together with others are named and left.
    """

    kind: Literal["gather-wires"] = "gather-wires"
    keys: list[Text] = Field(default_factory=list, max_length=500)
    group: str = Field(default="", max_length=200)
    device_id: Id = ""
    part_id: Id = ""
    text: Text = ""


@edit(GatherWires, {"keys": ["y1.0>y2.1"], "part_id": "c1"})
def gather_wires(work: Work, payload: GatherWires) -> str:
    """Work out GatherWires."""
    project = work.project
    waiting = open_conductors(project)
    keys = payload.keys
    if payload.group:
        group = next((g for g in field_groups(project) if g.key == payload.group), None)
        if group is None:
            raise RuleError("These wires no longer run so. Look at the tray again.", field="group")
        keys = [c.key for c in group.conductors]
    gone = [key for key in keys if key not in waiting]
    if gone or not keys:
        raise RuleError("Choose field wires that run in no cable yet.", field="keys")
    conductors = [waiting[key] for key in keys]
    strokes, lost = strokes_for(project, conductors)
    if not strokes:
        raise RuleError("No band can be drawn across these wires alone. Draw it on the sheet.", field="keys")
    if payload.device_id:
        device, _ = cable_named(project, payload.device_id)
        _check_room(project, device, [c for c in conductors if c not in lost])
    else:
        start = device_at(project, source_first(project, conductors[0])[0])
        place = (start.function_id, start.location_id) if start else ("", "")
        device = new_device(work, "cable", place, payload.text.strip())
        work.put("cable", Cable(work.ids.new(), device.id))
    for s in strokes:
        work.drawable(s.sheet_id)
        work.put("band", Band(work.ids.new(), s.sheet_id, s.x1, s.y1, s.x2, s.y2, device.id))
    if payload.part_id:
        give_part(work, device, payload.part_id)
    if lost:
        names = ", ".join(f"{pin_name(project, c.start)} to {pin_name(project, c.end)}" for c in lost[:4])
        work.outcome.remarks.append(f"Left out, as they share their wires with others: {names}.")
    work.outcome.placed = [device.id]
    return (
        f"gather {counted(len(conductors) - len(lost), 'wire')} into {short_tag(project, project.devices[device.id])}"
    )


def _check_room(project: Project, device: Device, conductors: list[Conductor]) -> None:
    """Refuse wires for which a cable that has a part has too few cores left."""
    part = project.part_of(device)
    if part is None:
        return
    protective = sum(1 for c in conductors if role_of(project, c) == PE)
    wanted = (len(conductors) - protective, protective)
    for name, spare, count in zip(("live", "protective"), spare_cores(project, device.id), wanted, strict=True):
        if count > spare:
            tag = short_tag(project, device)
            raise RuleError(
                f"{tag}, {part.number}, has {spare} {name} core{'s' if spare != 1 else ''} left, "
                f"and {count} are needed. "
                "Choose a larger part for it first, or a new cable.",
                field="device_id",
                ids=(device.id,),
            )


class SetCableWay(Payload):
    """Say how long cables are from one location to another; 0 takes the way out of the table."""

    kind: Literal["set-cable-way"] = "set-cable-way"
    a_id: Id
    b_id: Id
    length_m: Metres


@edit(SetCableWay, {"a_id": "l1", "b_id": "l2", "length_m": 35})
def set_cable_way(work: Work, payload: SetCableWay) -> str:
    """Work out SetCableWay."""
    project = work.project
    for id in (payload.a_id, payload.b_id):
        project.get("location", id)
    names = " to ".join(path_of(project.locations, id, "+") for id in (payload.a_id, payload.b_id))
    if payload.a_id == payload.b_id:
        raise RuleError("A way leads from one location to another.", field="b_id")
    known = next((w for w in project.cable_ways.values() if {w.a_id, w.b_id} == {payload.a_id, payload.b_id}), None)
    if payload.length_m == 0:
        if known is None:
            raise RuleError(f"There is no way from {names} in the table.", field="length_m")
        work.remove("cable_way", known.id)
        return f"no way from {names}"
    record = known or CableWay(work.ids.new(), payload.a_id, payload.b_id)
    work.put("cable_way", replace(record, length_m=payload.length_m))
    return f"way from {names}"
