"""Connectors that are plugged together, and the devices they sit on."""

from __future__ import annotations

from jolly_core.library import names_in
from jolly_core.model import Device, Part, Project, Seat
from jolly_core.tagging import full_tag

from .contacts import cavity_area_mm2, cavity_insulation_mm, cavity_rows, contact_fits


def seat_of(project: Project, device_id: str) -> Seat | None:
    """Return what is said of where a connector sits, None where nothing is."""
    found = (project.seats[id] for id in project.attached.get(device_id) if id in project.seats)
    return next(found, None)


def owner_of(project: Project, device_id: str) -> Device | None:
    """Return the device that a connector is fixed to."""
    seat = seat_of(project, device_id)
    return project.devices.get(seat.owner_id) if seat else None


def seated_on(project: Project, device_id: str) -> list[Device]:
    """Return the connectors that are fixed to a device, as they were put there."""
    return [project.devices[project.seats[id].device_id] for id in sorted(project.seats_on.get(device_id))]


def mate_of(project: Project, device_id: str) -> Device | None:
    """Return the connector that one is plugged to, whichever of the two says so."""
    seat = seat_of(project, device_id)
    if seat is not None and seat.mate_id:
        return project.devices.get(seat.mate_id)
    found = (project.devices.get(project.seats[id].device_id) for id in project.seats_mating.get(device_id))
    return next(found, None)


def mates_named(part: Part | None) -> tuple[str, ...]:
    """Return the numbers of the housings that a part names as its mates."""
    return names_in(part.ratings.get("mates", "")) if part else ()


def do_mate(one: Part | None, other: Part | None) -> bool:
    """Return whether two housings mate: one names the other, or neither names any and they are not of one gender."""
    if one is None or other is None:
        return True
    said = mates_named(one), mates_named(other)
    if any(said):
        return other.number in said[0] or one.number in said[1]
    genders = {part.ratings.get("gender", "") for part in (one, other)}
    return genders not in ({"pins"}, {"sockets"})


def swap_faults(project: Project, device: Device, part: Part) -> list[str]:
    """Return why a connector cannot be of a part as it is used, in sentences: cavities, contacts, its mate."""
    tag = full_tag(project, device)
    faults = []
    there = {pins[0] for kind, pins in part.units if kind == "cavity"}
    used = [row for row in cavity_rows(project, device.id) if row.conductors]
    lacking = [row.cavity for row in used if row.cavity not in there]
    if lacking:
        faults.append(f"{part.number} has no cavity {', '.join(lacking)}, which wires of {tag} end in.")
    contacts = [c for c in map(project.part_named, names_in(part.ratings.get("contact", ""))) if c is not None]
    for row in used if contacts else ():
        area, around = (f(project, row.conductors) for f in (cavity_area_mm2, cavity_insulation_mm))
        if row.cavity in there and area and not any(contact_fits(c, area, around) for c in contacts):
            faults.append(f"No contact of {part.number} takes {area:g} mm² in cavity {row.cavity} of {tag}.")
    mate = mate_of(project, device.id)
    beside = project.part_of(mate) if mate else None
    if mate is not None and beside is not None and not do_mate(part, beside):
        faults.append(f"{part.number} does not mate with {beside.number} of {full_tag(project, mate)}.")
    return faults
