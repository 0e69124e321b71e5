"""Enclosures: added, changed, and which stands beside which."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from jolly_core.cabinet import placings_in, surface_size
from jolly_core.model import Enclosure, Project, RuleError
from jolly_core.model.entities.layout import Celsius, Standing, Swing
from jolly_core.tagging import short_tag

from ..base.edit import Id, Length, Payload, Text, Work, edit
from ..base.upkeep import new_device, remove_device
from ..devices.parts import give_part, take_part
from .runs import forget_passed, forget_run


class AddEnclosure(Payload):
    """Add an enclosure with a part of the library, to lay it out."""

    kind: Literal["add-enclosure"] = "add-enclosure"
    part_id: Id
    function_id: Id = ""
    location_id: Id = ""
    text: Text = ""


@edit(AddEnclosure, {"part_id": "hollin-hr-e6825", "text": "Kiln 2"})
def add_enclosure(work: Work, payload: AddEnclosure) -> str:
    """Work out AddEnclosure."""
    project = work.project
    take_part(work, payload.part_id, "enclosure")
    for kind, id in (("function", payload.function_id), ("location", payload.location_id)):
        if id:
            project.get(kind, id)
    device = new_device(work, "enclosure", (payload.function_id, payload.location_id), payload.text)
    give_part(work, device, payload.part_id)
    made = Enclosure(work.ids.new(), device.id)
    work.put("enclosure", made)
    surface_size(project, made, "plate")
    work.outcome.placed = [made.id]
    return f"add enclosure {short_tag(project, project.devices[device.id])}"


class ChangeEnclosure(Payload):
    """Say how warm it is around an enclosure, how it stands, how its door hangs, to which on its left it is open."""

    kind: Literal["change-enclosure"] = "change-enclosure"
    enclosure_id: Id
    ambient_c: Celsius | None = None
    hinge: Literal["left", "right"] | None = None
    left_id: Id | None = None
    opening_mm: Length | None = None
    standing: Standing | None = None
    swing_deg: Swing | None = None
    inside_max_c: Celsius | None = None
    coldest_c: Celsius | None = None
    inside_min_c: Celsius | None = None


@edit(ChangeEnclosure, {"enclosure_id": "e1", "ambient_c": 40})
def change_enclosure(work: Work, payload: ChangeEnclosure) -> str:
    """Work out ChangeEnclosure."""
    enclosure: Enclosure = work.project.get("enclosure", payload.enclosure_id)
    values = payload.model_dump(exclude={"kind", "enclosure_id"}, exclude_none=True)
    if payload.left_id:
        _check_row(work.project, enclosure, payload.left_id)
    work.put("enclosure", replace(enclosure, **values))
    return f"facts of {short_tag(work.project, work.project.devices[enclosure.device_id])}"


def _check_row(project: Project, enclosure: Enclosure, left_id: str) -> None:
    """Refuse a neighbour on the left that cannot be.

    Raises:
        RuleError: it would stand beside itself, in a ring, or where another stands.
    """
    left: Enclosure = project.get("enclosure", left_id)
    tag = short_tag(project, project.devices[left.device_id])
    if left.id in (enclosure.id, *(e.id for e in _right_of(project, enclosure))):
        raise RuleError(f"{tag} stands right of it already. Choose another.", field="left_id", ids=(left.id,))
    taken = next((e for e in project.enclosures.values() if e.left_id == left.id and e.id != enclosure.id), None)
    if taken is not None:
        other = short_tag(project, project.devices[taken.device_id])
        raise RuleError(f"{other} is right of {tag} already. Choose another.", field="left_id", ids=(taken.id,))


def _right_of(project: Project, enclosure: Enclosure) -> list[Enclosure]:
    found = [enclosure]
    while following := [e for e in project.enclosures.values() if e.left_id == found[-1].id and e not in found]:
        found.append(following[0])
    return found[1:]


def forget_enclosure(work: Work, enclosure: Enclosure) -> None:
    """Take an enclosure away with all that is laid out in it."""
    project = work.project
    for placing in placings_in(project, enclosure.id):
        work.remove("placing", placing.id)
    for table in (project.rails, project.ducts):
        for id in [r.id for r in table.values() if r.enclosure_id == enclosure.id]:
            forget_run(work, id)
    for id in [n.id for n in project.lanes.values() if n.enclosure_id == enclosure.id]:
        work.remove("lane", id)
        forget_passed(work, id)
    remove_device(work, enclosure.device_id)
