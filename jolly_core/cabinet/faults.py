"""What is wrong or telling in a layout: collisions, over-full rails, warmth."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.cables import number_of
from jolly_core.model import Enclosure, Project, Rail, RuleError, derived
from jolly_core.sizing import Warming, warming
from jolly_core.tagging import full_tag

from .layout import Outline, on_rail, outline_of, placings_in, rail_is_level, surface_size


@dataclass(slots=True, frozen=True)
class Fault:
    """Something wrong in a layout: a stable code, words, the ids concerned and the devices among them."""

    code: str
    message: str
    ids: tuple[str, ...]
    device_id: str = ""


def duct_outline(project: Project, duct_id: str) -> Outline:
    """Return the rectangle a duct takes on the plate."""
    duct = project.ducts[duct_id]
    part = project.parts[duct.part_id]
    half = part.width_mm / 2
    x1, x2 = sorted((duct.x1, duct.x2))
    y1, y2 = sorted((duct.y1, duct.y2))
    if duct.y1 == duct.y2:
        return Outline(x1, y1 - half, x2 - x1, part.width_mm, part.depth_mm)
    return Outline(x1 - half, y1, part.width_mm, y2 - y1, part.depth_mm)


def rail_length(rail: Rail) -> float:
    """Return the length of a rail, mm."""
    return abs(rail.x2 - rail.x1) + abs(rail.y2 - rail.y1)


def rail_load(project: Project, rail: Rail) -> float:
    """Return the length that the devices on a rail take together, mm."""
    boxes = [outline_of(project, p.id) for p in on_rail(project, rail.id)]
    return sum(b.height if b.upright else b.width for b in boxes)


def layout_faults(project: Project, enclosure: Enclosure) -> list[Fault]:
    """Return the collisions, what hangs over an edge, and the rails that are over-full."""
    return _faults(project, enclosure.id)


@derived
def _faults(project: Project, enclosure_id: str) -> list[Fault]:
    enclosure = project.enclosures[enclosure_id]
    found: list[Fault] = []
    for surface in ("plate", "door"):
        found += _collisions(project, enclosure, surface)
        found += _measures(project, enclosure, surface)
    found += _ducts_on_ducts(project, enclosure)
    found += _door_on_plate(project, enclosure)
    for rail in sorted((r for r in project.rails.values() if r.enclosure_id == enclosure.id), key=lambda r: r.id):
        load, room = rail_load(project, rail), rail_length(rail)
        where = f"at {rail.y1:g} mm from the top" if rail_is_level(rail) else f"at {rail.x1:g} mm from the left"
        if load > room + 0.01:
            message = f"The rail {where} is over-full: {load:.0f} mm of devices on {room:.0f} mm."
            found.append(Fault("rail-full", message, (rail.id,)))
            continue
        for placing in on_rail(project, rail.id):
            if _off(outline_of(project, placing.id), rail):
                tag = full_tag(project, project.devices[placing.device_id])
                message = f"{tag} stands over the end of the rail {where}."
                found.append(Fault("off-rail", message, (placing.id, rail.id), placing.device_id))
    return found


def _measures(project: Project, enclosure: Enclosure, surface: str) -> list[Fault]:
    """Return what has no outline, and what is deeper than the enclosure leaves room for in front of its plate."""
    part = project.part_of(project.devices[enclosure.device_id])
    room = part.depth_mm - number_of(part, "plate_depth_mm") if part and part.depth_mm else 0.0
    found = []
    for placing in placings_in(project, enclosure.id, surface):
        box, tag = outline_of(project, placing.id), full_tag(project, project.devices[placing.device_id])
        if not (box.width and box.height):
            message = f"{tag} has no outline: its part has no width or height, or it has none. Choose a part that has."
            found.append(Fault("no-outline", message, (placing.id,), placing.device_id))
        if room and box.depth > room + 0.01:
            message = f"{tag} is {box.depth:g} mm deep, but the enclosure has {room:g} mm in front of its plate."
            found.append(Fault("too-deep", message, (placing.id,), placing.device_id))
    return found


def _door_on_plate(project: Project, enclosure: Enclosure) -> list[Fault]:
    """Return what is behind a device in the door and leaves no room for it: both depths against door and plate.

    The plate stands in the middle behind the door; both are seen from the front.
    """
    part = project.part_of(project.devices[enclosure.device_id])
    if part is None or not part.depth_mm:
        return []
    room = part.depth_mm - number_of(part, "plate_depth_mm")
    try:
        plate, door = (surface_size(project, enclosure, s) for s in ("plate", "door"))
    except RuleError:
        return []
    aside, down = (door[0] - plate[0]) / 2, (door[1] - plate[1]) / 2
    behind = [(p.id, p.device_id, outline_of(project, p.id)) for p in placings_in(project, enclosure.id, "plate")]
    ducts = sorted((d for d in project.ducts.values() if d.enclosure_id == enclosure.id), key=lambda d: d.id)
    behind += [(d.id, "", duct_outline(project, d.id)) for d in ducts]
    found = []
    for placing in placings_in(project, enclosure.id, "door"):
        front = outline_of(project, placing.id).moved(-aside, -down)
        for id, device_id, box in behind:
            if front.depth + box.depth > room + 0.01 and front.overlaps(box):
                tag = full_tag(project, project.devices[placing.device_id])
                other = full_tag(project, project.devices[device_id]) if device_id else "a duct"
                message = (
                    f"{tag} in the door and {other} behind it need {front.depth:g} + {box.depth:g} mm, but there are "
                    f"{room:g} mm between door and plate. Move one."
                )
                found.append(Fault("door-on-plate", message, (placing.id, id), placing.device_id))
    return found


def _ducts_on_ducts(project: Project, enclosure: Enclosure) -> list[Fault]:
    """Return pairs of ducts of one direction that lie on each other; across each other they make a corner."""
    ducts = sorted((d for d in project.ducts.values() if d.enclosure_id == enclosure.id), key=lambda d: d.id)
    found = []
    for n, one in enumerate(ducts):
        for two in ducts[n + 1 :]:
            alike = (one.y1 == one.y2) == (two.y1 == two.y2)
            if alike and duct_outline(project, one.id).overlaps(duct_outline(project, two.id)):
                found.append(Fault("duct-on-duct", "Two ducts lie on each other. Move one.", (one.id, two.id)))
    return found


def _off(box: Outline, rail: Rail) -> bool:
    if rail_is_level(rail):
        low, high = sorted((rail.x1, rail.x2))
        return box.x < low - 0.01 or box.x + box.width > high + 0.01
    low, high = sorted((rail.y1, rail.y2))
    return box.y < low - 0.01 or box.y + box.height > high + 0.01


def _collisions(project: Project, enclosure: Enclosure, surface: str) -> list[Fault]:
    things: list[tuple[str, str, Outline, str]] = []
    for placing in placings_in(project, enclosure.id, surface):
        tag = full_tag(project, project.devices[placing.device_id])
        things.append((placing.id, tag, outline_of(project, placing.id), placing.device_id))
    devices = len(things)
    if surface == "plate":
        ducts = sorted(d.id for d in project.ducts.values() if d.enclosure_id == enclosure.id)
        things += [(id, "a duct", duct_outline(project, id), "") for id in ducts]
    found = []
    try:
        width, height = surface_size(project, enclosure, surface)
    except RuleError as error:
        return [Fault("no-plate", error.message, (enclosure.id,), enclosure.device_id)] if surface == "plate" else []
    for id, name, box, device_id in things:
        if box.x < -0.01 or box.y < -0.01 or box.x + box.width > width + 0.01 or box.y + box.height > height + 0.01:
            message = f"{name[:1].upper()}{name[1:]} stands over the edge of the {surface}."
            found.append(Fault("over-edge", message, (id,), device_id))
    for n, m in _overlapping([box for _, _, box, _ in things]):
        if n < devices:
            (id, name, _, device_id), (other_id, other, _, _) = things[n], things[m]
            message = f"{name} and {other} are in each other's place on the {surface}."
            found.append(Fault("collision", message, (id, other_id), device_id))
    return found


def _overlapping(boxes: list[Outline]) -> list[tuple[int, int]]:
    """Return the pairs of boxes that lie upon each other, by their numbers, the smaller first, in order."""
    # From left to right: what begins right of where a box ends is not upon it.
    order = sorted(range(len(boxes)), key=lambda n: boxes[n].x)
    found = []
    for place, n in enumerate(order):
        end = boxes[n].x + boxes[n].width
        for m in order[place + 1 :]:
            if boxes[m].x >= end:
                break
            if boxes[n].overlaps(boxes[m]):
                found.append((min(n, m), max(n, m)))
    return sorted(found)


def enclosure_warming(project: Project, enclosure: Enclosure) -> tuple[float, Warming]:
    """Return the sum of losses in W of what is placed in an enclosure, and how warm that makes it.

    Raises:
        RuleError: the enclosure's part is missing or lacks a measure.
    """
    part = project.part_of(project.devices[enclosure.device_id])
    if part is None:
        raise RuleError("Choose an enclosure part, so that its size is known.", field="part_id")
    placed = placings_in(project, enclosure.id)
    loss = sum(number_of(project.part_of(project.devices[p.device_id]), "loss_w") for p in placed)
    return loss, warming(part.width_mm, part.height_mm, part.depth_mm, loss)
