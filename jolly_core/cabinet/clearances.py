"""Room that parts ask for about them: above, below and beside. All in mm."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.cables import number_of
from jolly_core.model import Enclosure, Placing, Project
from jolly_core.tagging import full_tag

from .eyelets import lane_name
from .layout import Outline, outline, outline_of, placings_in


@dataclass(slots=True, frozen=True)
class TooNear:
    """Something stands nearer to a device than its part allows.

    Attributes:
        side: "above", "below", "left" or "right" of the device.
        there, wanted: how far it is, and must be.
        other: what stands there, in words.
    """

    placing_id: str
    device_id: str
    side: str
    there: float
    wanted: float
    other_id: str
    other: str


@dataclass(slots=True, frozen=True)
class _Thing:
    id: str
    device_id: str
    box: Outline
    words: str


def too_near(project: Project, enclosure: Enclosure, surface: str, ducts: list[tuple[str, Outline]]) -> list[TooNear]:
    """Return what stands in the clearances of the devices of a surface; what lies upon them is told elsewhere."""
    things = [
        _Thing(p.id, p.device_id, outline_of(project, p.id), full_tag(project, project.devices[p.device_id]))
        for p in placings_in(project, enclosure.id, surface)
    ]
    devices = len(things)
    things += [_Thing(id, "", box, lane_name(project, id) or "a duct") for id, box in ducts]
    found = []
    for thing in things[:devices]:
        wanted = _asked(project, thing.device_id, upright=thing.box.upright)
        if not any(wanted.values()):
            continue
        for other in things:
            if other is thing or thing.box.overlaps(other.box):
                continue
            side, gap = _beside(thing.box, other.box)
            if side and gap < wanted[side] - 0.01 and not (side in ("left", "right") and not other.device_id):
                found.append(TooNear(thing.id, thing.device_id, side, gap, wanted[side], other.id, other.words))
    return found


def _asked(project: Project, device_id: str, *, upright: bool) -> dict[str, float]:
    """Return the room a device's part asks for on each side as it stands, mm."""
    part = project.part_of(project.devices[device_id])
    above, below, beside = (number_of(part, f"clear_{side}_mm") for side in ("above", "below", "beside"))
    if upright:  # turned clockwise: what was above is right
        return {"right": above, "left": below, "above": beside, "below": beside}
    return {"above": above, "below": below, "left": beside, "right": beside}


def room_about(project: Project, placing: Placing) -> tuple[float, float, float, float]:
    """Return left, top, right and bottom of a placed device with the room its part asks for, mm on its surface."""
    box = outline(project, placing)
    asked = _asked(project, placing.device_id, upright=box.upright)
    left, top = box.x - asked["left"], box.y - asked["above"]
    return left, top, box.x + box.width + asked["right"], box.y + box.height + asked["below"]


def _beside(box: Outline, other: Outline, slack: float = 0.01) -> tuple[str, float]:
    """Return on which side of an outline another lies, and how far off; "" when it lies askew."""
    across = box.x + slack < other.x + other.width and other.x + slack < box.x + box.width
    level = box.y + slack < other.y + other.height and other.y + slack < box.y + box.height
    if across:
        above = other.y + other.height <= box.y + slack
        return ("above", box.y - other.y - other.height) if above else ("below", other.y - box.y - box.height)
    if level:
        left = other.x + other.width <= box.x + slack
        return ("left", box.x - other.x - other.width) if left else ("right", other.x - box.x - box.width)
    return "", 0.0
