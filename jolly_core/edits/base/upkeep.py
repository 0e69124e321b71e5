"""What must go or change when something else did: devices nothing is left of, part copies nobody uses, letters."""

from __future__ import annotations

from dataclasses import replace

from jolly_core.library import definition, names_in
from jolly_core.model import ATTACHED, Device, Project, users_of
from jolly_core.tagging import letters_for, naming, renamed_at

from .edit import Work

# Records that keep a device in the project though no symbol of it is drawn; the others go with it.
_KEEPERS = ("band", "card", "rack", "enclosure", "node")


def drop_unused(work: Work, device_id: str) -> None:
    """Remove a device of which nothing is left, with all that only it has, and its part copy when nobody uses it.

    A device stays while a symbol or band of it is drawn, while it is a card, an enclosure or a harness connector, and
    while it is a strip that was made on the bench or on which terminals are planned.
    """
    project = work.project
    device = project.devices.get(device_id)
    if device is None or project.units_of(device_id):
        return
    attached = project.attached.get(device_id)
    if any(id in project.tables[kind] for id in attached for kind in _KEEPERS):
        return
    if any(project.strips[id].made for id in attached if id in project.strips):
        return
    if any(project.strip_items[id].planned for id in project.items_of_strip.get(device_id)):
        return
    remove_device(work, device_id)


def remove_device(work: Work, device_id: str) -> None:
    """Remove a device with everything that only it has; points of a card wait again."""
    project = work.project
    for id in project.attached.get(device_id):
        for kind in ATTACHED:
            if kind != "add_on" and id in project.tables[kind]:
                for right in [e for e in project.enclosures.values() if kind == "enclosure" and e.left_id == id]:
                    work.put("enclosure", replace(right, left_id=""))
                for card in [c for c in project.cards.values() if kind == "rack" and c.rack_id == id]:
                    work.put("card", replace(card, rack_id="", slot=0))
                work.remove(kind, id)
    for id in project.items_of_strip.get(device_id):
        part_id = project.strip_items[id].part_id
        work.remove("strip_item", id)
        drop_part(work, part_id)
    for id in project.bridges_of_strip.get(device_id):
        part_id = project.bridges[id].part_id
        work.remove("bridge", id)
        drop_part(work, part_id)
    for id in [c.id for c in project.core_choices.values() if c.device_id == device_id]:
        work.remove("core_choice", id)
    for id in project.points_of_card.get(device_id):
        work.put("io_point", replace(project.io_points[id], device_id="", channel=0))
    loose = _unseat(work, device_id)
    part_id = project.devices[device_id].part_id
    others = [p.id for p in project.add_ons_to(device_id)]
    for id in project.add_ons_of.get(device_id):
        work.remove("add_on", id)
    work.remove("device", device_id)
    for id in (part_id, *others):
        drop_part(work, id)
    for id in loose:
        drop_unused(work, id)


def _unseat(work: Work, device_id: str) -> list[str]:
    """Take what sits on a device, is plugged to it or lands in it off it; return the connectors that sat there."""
    project = work.project
    found: list[str] = []
    for id in (*project.seats_on.get(device_id), *project.seats_mating.get(device_id)):
        seat = project.seats[id]
        owner, mate = (v if v != device_id else "" for v in (seat.owner_id, seat.mate_id))
        found.append(seat.device_id)
        if owner or mate:
            work.put("seat", replace(seat, owner_id=owner, mate_id=mate))
        else:
            work.remove("seat", id)
    for shield in [s for s in project.harness_shields.values() if s.device_id == device_id]:
        work.put("harness_shield", replace(shield, device_id="", unit=0))
    return found


def drop_part(work: Work, part_id: str) -> None:
    """Remove the project's copy of a part when nothing uses it any more, and those of the contacts it named."""
    project = work.project
    part = project.parts.get(part_id)
    if part is None or part_is_used(project, part_id):
        return
    work.remove("part", part_id)
    for name in names_in(part.ratings.get("contact", "")):
        contact = project.part_named(name)
        if contact is not None:
            drop_part(work, contact.id)


def part_is_used(project: Project, part_id: str) -> bool:
    """Return whether anything in the project has a part, or a part that is used takes it as its contact."""
    if project.devices_of_part.get(part_id):
        return True
    for kind, field in users_of("part"):
        if kind != "device" and any(getattr(e, field) == part_id for e in project.tables[kind].values()):
            return True
    own = project.parts.get(part_id)
    names = {part_id, own.number} if own else {part_id}
    return any(names & set(names_in(p.ratings.get("contact", ""))) for p in project.parts.values())


def tidy_strip(work: Work, strip_id: str) -> None:
    """Take away the places and bridges of terminals that are no longer drawn and not planned."""
    project = work.project
    if strip_id not in project.devices:
        return
    drawn = {s.units[0] for s in project.units_of(strip_id) if definition(s.definition).unit == "terminal"}
    for id in project.items_of_strip.get(strip_id):
        item = project.strip_items[id]
        if item.kind == "terminal" and item.planned:
            drawn.add(item.unit)
        elif item.kind == "terminal" and item.unit not in drawn:
            work.remove("strip_item", id)
            drop_part(work, item.part_id)
    for bridge in [project.bridges[id] for id in project.bridges_of_strip.get(strip_id)]:
        left = tuple(u for u in bridge.units if u in drawn)
        if len(left) < 2:
            work.remove("bridge", bridge.id)
            drop_part(work, bridge.part_id)
        elif left != bridge.units:
            work.put("bridge", replace(bridge, units=left))


def refresh_letters(work: Work, device_id: str) -> None:
    """Give a device the letters of its part or lead symbol, with a new running number when they change."""
    device = work.project.devices.get(device_id)
    if device is None:
        return
    if letters_for(work.project, device) != device.letters:
        work.put("device", renamed_at(work.project, device, (device.function_id, device.location_id)))


def new_device(work: Work, class_key: str, place: tuple[str, str], text: str = "") -> Device:
    """Make a device of a part class at a (function, location), with its letters and the next number there."""
    letters, number = naming(work.project, class_key, place)
    device = Device(work.ids.new(), letters, number, "", text, *place)
    work.put("device", device)
    return device
