"""What must go or change when something else did: devices nothing is left of, part copies nobody uses, letters."""

from __future__ import annotations

from dataclasses import replace

from jolly_core.library import definition
from jolly_core.model import ATTACHED, Project, users_of
from jolly_core.tagging import letters_for, next_number

from .base import Work

# Records that keep a device in the project though no symbol of it is drawn; the others go with it.
_KEEPERS = ("band", "card", "enclosure", "node")


def drop_unused(work: Work, device_id: str) -> None:
    """Remove a device of which nothing is left, with all that only it has, and its part copy when nobody uses it.

    A device stays while a symbol or band of it is drawn, or while it is a card, an enclosure or a harness connector.
    """
    project = work.project
    device = project.devices.get(device_id)
    if device is None or project.units_of(device_id):
        return
    attached = project.attached.get(device_id)
    if any(id in project.tables[kind] for id in attached for kind in _KEEPERS):
        return
    remove_device(work, device_id)


def remove_device(work: Work, device_id: str) -> None:
    """Remove a device with everything that only it has; points of a card wait again."""
    project = work.project
    for id in project.attached.get(device_id):
        for kind in ATTACHED:
            if id in project.tables[kind]:
                work.remove(kind, id)
    for id in project.items_of_strip.get(device_id):
        part_id = project.strip_items[id].part_id
        work.remove("strip_item", id)
        drop_part(work, part_id)
    for kind, field in (("bridge", "strip_id"), ("core_choice", "device_id")):
        for id in [e.id for e in project.tables[kind].values() if getattr(e, field) == device_id]:
            work.remove(kind, id)
    for id in project.points_of_card.get(device_id):
        work.put("io_point", replace(project.io_points[id], device_id="", channel=0))
    part_id = project.devices[device_id].part_id
    work.remove("device", device_id)
    drop_part(work, part_id)


def drop_part(work: Work, part_id: str) -> None:
    """Remove the project's copy of a part when nothing uses it any more, and those of the contacts it named."""
    project = work.project
    part = project.parts.get(part_id)
    if part is None or part_is_used(project, part_id):
        return
    work.remove("part", part_id)
    drop_part(work, part.ratings.get("contact", ""))


def part_is_used(project: Project, part_id: str) -> bool:
    """Return whether anything in the project has a part, or a part that is used takes it as its contact."""
    if project.devices_of_part.get(part_id):
        return True
    for kind, field in users_of("part"):
        if kind != "device" and any(getattr(e, field) == part_id for e in project.tables[kind].values()):
            return True
    return any(p.ratings.get("contact") == part_id for p in project.parts.values())


def tidy_strip(work: Work, strip_id: str) -> None:
    """Take away the places and bridges of terminals that are no longer drawn."""
    project = work.project
    if strip_id not in project.devices:
        return
    drawn = {s.units[0] for s in project.units_of(strip_id) if definition(s.definition).unit == "terminal"}
    for id in project.items_of_strip.get(strip_id):
        item = project.strip_items[id]
        if item.kind == "terminal" and item.unit not in drawn:
            work.remove("strip_item", id)
    for bridge in [b for b in project.bridges.values() if b.strip_id == strip_id]:
        left = tuple(u for u in bridge.units if u in drawn)
        if len(left) < 2:
            work.remove("bridge", bridge.id)
        elif left != bridge.units:
            work.put("bridge", replace(bridge, units=left))


def refresh_letters(work: Work, device_id: str) -> None:
    """Give a device the letters of its part or lead symbol, with a new running number when they change."""
    device = work.project.devices.get(device_id)
    if device is None:
        return
    letters = letters_for(work.project, device)
    if letters != device.letters:
        number = next_number(work.project, letters, device.function_id, device.location_id, but=device.id)
        work.put("device", replace(device, letters=letters, number=number))
