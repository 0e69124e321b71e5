"""Nameplates: what is engraved on each, how large the plate is, and how tall the letters may be. All in mm."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.cabinet import enclosures, placing_of
from jolly_core.cables import number_of
from jolly_core.model import Device, Project
from jolly_core.tagging import full_tag, short_tag, tag_order

# Nominal heights of lettering, ISO 3098-1, mm, the tallest first.
HEIGHTS_MM = (14.0, 10.0, 7.0, 5.0, 3.5, 2.5, 1.8)
ADVANCE = 0.8  # width of a letter with its space, of its height (ISO 3098 type B, capitals)
LINE = 1.6  # from line to line, of the height
EDGE_MM = 1.5  # kept free on each side


@dataclass(slots=True, frozen=True)
class Nameplate:
    """A plate to engrave.

    Attributes:
        where: the enclosure it is for, or the enclosure's door.
        device_id: what it is on.
        width, height: of the plate, 0 while the part does not say.
        letters: how tall the letters are, None where no usual height fits or the size is not known.
    """

    where: str
    tag: str
    lines: tuple[str, ...]
    width: float
    height: float
    letters: float | None
    device_id: str


def letter_height(lines: tuple[str, ...], width: float, height: float) -> float | None:
    """Return the tallest usual height at which lines fit on a plate, None when even the least does not.

    Example:
        >>> letter_height(("Kiln fan", "-SF1"), 27, 12.5)
        3.5
    """
    longest, count = max((len(line) for line in lines), default=0), len(lines)
    for size in HEIGHTS_MM:
        if longest * ADVANCE * size <= width - 2 * EDGE_MM and ((count - 1) * LINE + 1) * size <= height - 2 * EDGE_MM:
            return size
    return None


def nameplates(project: Project) -> list[Nameplate]:
    """Return the plates of enclosures, each with those of the devices in its door; empty lines are left out."""
    found = []
    for enclosure in enclosures(project):
        host = project.devices[enclosure.device_id]
        tag = full_tag(project, host)
        found.append(_plate(project, host, tag))
        doors = [p for p in project.placings.values() if p.enclosure_id == enclosure.id and p.surface == "door"]
        devices = [project.devices[p.device_id] for p in doors]
        for device in sorted(devices, key=lambda d: tag_order(project, d)):
            found.append(_plate(project, device, f"{tag}, door"))
    return found


def engraved(project: Project, device: Device) -> tuple[str, ...]:
    """Return the lines on the plate of a device: text and tag, none twice; of an enclosure its text and the project."""
    if project.naming("enclosure", "device_id", device.id):
        title = " ".join(t for t in (project.settings.number, project.settings.name) if t)
        lines = (device.text or title, title if device.text else project.settings.supply)
    else:
        own = full_tag(project, device)
        lines = (device.text or own, short_tag(project, device))
    return tuple(dict.fromkeys(line for line in lines if line))


def plate_of(project: Project, device: Device) -> tuple[str, ...]:
    """Return the lines on the plate of a device; () for one that has none: neither an enclosure nor in its door."""
    placing = placing_of(project, device.id)
    in_door = placing is not None and placing.surface == "door"
    return engraved(project, device) if in_door or project.naming("enclosure", "device_id", device.id) else ()


def _plate(project: Project, device: Device, where: str) -> Nameplate:
    lines = engraved(project, device)
    part = project.part_of(device)
    width, height = (number_of(part, f"nameplate_{side}_mm") for side in ("width", "height"))
    letters = letter_height(lines, width, height)
    return Nameplate(where, full_tag(project, device), lines, width, height, letters, device.id)
