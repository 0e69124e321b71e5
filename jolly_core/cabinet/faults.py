"""What is wrong or telling in a layout: collisions, over-full rails, warmth."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.cables import number_of
from jolly_core.model import Duct, Enclosure, Project, Rail, RuleError, bare_length, derived, length_words
from jolly_core.tagging import full_tag

from .clearances import too_near
from .eyelets import lane_name, run_names
from .layout import (
    RAIL_WIDTH_MM,
    SURFACE_WORDS,
    Outline,
    on_rail,
    outline_of,
    placings_in,
    rail_is_level,
    surface_size,
    surfaces_of,
)

RAIL_DEPTH_MM = 7.5  # IEC 60715, TH 35-7.5


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


def run_length(run: Rail | Duct) -> float:
    """Return the length of a rail or duct, mm."""
    return abs(run.x2 - run.x1) + abs(run.y2 - run.y1)


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
    try:
        surface_size(project, enclosure, "plate")
    except RuleError as error:
        return [Fault("no-plate", error.message, (enclosure.id,), enclosure.device_id)]
    for surface in surfaces_of(project, enclosure):
        found += _collisions(project, enclosure, surface)
        found += _measures(project, enclosure, surface)
        found += _near(project, enclosure, surface)
        found += _ducts_on_ducts(project, enclosure, surface)
    found += _door_on_plate(project, enclosure)
    for rail in sorted((r for r in project.rails.values() if r.enclosure_id == enclosure.id), key=lambda r: r.id):
        load, room = rail_load(project, rail), run_length(rail)
        where = run_names(project, enclosure.id).get(rail.id, "")
        if load > room + 0.01:
            stands, fits = (length_words(project, round(mm)) for mm in (load, room))
            message = f"Rail {where} is over-full: {stands} of devices on {fits}."
            found.append(Fault("rail-full", message, (rail.id,)))
            continue
        for placing in on_rail(project, rail.id):
            if _off(outline_of(project, placing.id), rail):
                tag = full_tag(project, project.devices[placing.device_id])
                message = f"{tag} stands over the end of rail {where}."
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
            deep, free = length_words(project, box.depth), length_words(project, room)
            message = f"{tag} is {deep} deep, but the enclosure has {free} in front of its plate."
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
    plate, door = (surface_size(project, enclosure, s) for s in ("plate", "door"))
    aside, down = (door[0] - plate[0]) / 2, (door[1] - plate[1]) / 2
    behind = [(p.id, p.device_id, outline_of(project, p.id)) for p in placings_in(project, enclosure.id, "plate")]
    ducts = ducts_on(project, enclosure.id, "plate")
    behind += [(d.id, "", duct_outline(project, d.id)) for d in ducts]
    found = []
    for placing in placings_in(project, enclosure.id, "door"):
        front = outline_of(project, placing.id).moved(-aside, -down)
        for id, device_id, box in behind:
            if front.depth + box.depth > room + 0.01 and front.overlaps(box):
                tag = full_tag(project, project.devices[placing.device_id])
                other = full_tag(project, project.devices[device_id]) if device_id else lane_name(project, id)
                needed = f"{bare_length(project, front.depth)} + {length_words(project, box.depth)}"
                message = (
                    f"{tag} in the door and {other} behind it need {needed}, but there are "
                    f"{length_words(project, room)} between door and plate. Move one."
                )
                found.append(Fault("door-on-plate", message, (placing.id, id), placing.device_id))
    return found


def ducts_on(project: Project, enclosure_id: str, surface: str) -> list[Duct]:
    """Return the ducts of a surface, by id."""
    found = [d for d in project.ducts.values() if (d.enclosure_id, d.surface) == (enclosure_id, surface)]
    return sorted(found, key=lambda d: d.id)


def _near(project: Project, enclosure: Enclosure, surface: str) -> list[Fault]:
    """Return what stands nearer to devices than their parts allow, and how far they have to move."""
    ducts = [(d.id, duct_outline(project, d.id)) for d in ducts_on(project, enclosure.id, surface)]
    away = {"above": "down", "below": "up", "left": "right", "right": "left"}
    found = []
    for near in too_near(project, enclosure, surface, ducts):
        tag = full_tag(project, project.devices[near.device_id])
        there, wanted, by = (
            length_words(project, round(mm)) for mm in (near.there, near.wanted, near.wanted - near.there)
        )
        message = (
            f"{tag}: {there} to {near.other} {_SIDE_WORDS[near.side]}, needs {wanted}. Move it {away[near.side]} {by}."
        )
        found.append(Fault("clearance", message, (near.placing_id, near.other_id), near.device_id))
    return found


_SIDE_WORDS = {"above": "above", "below": "below", "left": "on its left", "right": "on its right"}


def _ducts_on_ducts(project: Project, enclosure: Enclosure, surface: str) -> list[Fault]:
    """Return ducts that lie on each other or cross, and rails under ducts; one that ends at another makes a corner."""
    ducts, names = ducts_on(project, enclosure.id, surface), run_names(project, enclosure.id)
    _, tall = surface_size(project, enclosure, surface)
    found = []
    for n, one in enumerate(ducts):
        box = duct_outline(project, one.id)
        for two in ducts[n + 1 :]:
            other = duct_outline(project, two.id)
            if not box.overlaps(other):
                continue
            both = f"Ducts {names[one.id]} and {names[two.id]}"
            if (one.y1 == one.y2) == (two.y1 == two.y2):
                message = f"{both} lie on each other. Move one."
                found.append(Fault("duct-on-duct", message, (one.id, two.id)))
            elif _cross(one, other) and _cross(two, box):
                level, upright = (one, two) if one.y1 == one.y2 else (two, one)
                left, below = (length_words(project, mm) for mm in (upright.x1, tall - level.y1))
                where = f"{left} from the left, {below} from below"
                message = f"{both} cross {where}. End one at the other, or cut it in two."
                found.append(Fault("duct-on-duct", message, (one.id, two.id)))
        for rail in project.rails.values():
            if (rail.enclosure_id, rail.surface) == (enclosure.id, surface) and box.overlaps(rail_outline(rail)):
                message = f"Rail {names[rail.id]} runs under duct {names[one.id]}. Shorten or move one."
                found.append(Fault("rail-under-duct", message, (rail.id, one.id)))
    return found


def _cross(duct: Duct, other: Outline) -> bool:
    """Return whether a duct comes out of the outline of another at both ends."""
    low, high = (duct.x1, duct.x2) if duct.y1 == duct.y2 else (duct.y1, duct.y2)
    begin, end = (other.x, other.x + other.width) if duct.y1 == duct.y2 else (other.y, other.y + other.height)
    return low < begin - 0.01 and high > end + 0.01


def rail_outline(rail: Rail) -> Outline:
    """Return the rectangle a rail takes."""
    half, long = RAIL_WIDTH_MM / 2, run_length(rail)
    if rail_is_level(rail):
        return Outline(rail.x1, rail.y1 - half, long, RAIL_WIDTH_MM, RAIL_DEPTH_MM)
    return Outline(rail.x1 - half, rail.y1, RAIL_WIDTH_MM, long, RAIL_DEPTH_MM)


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
    for duct in ducts_on(project, enclosure.id, surface):
        things.append((duct.id, lane_name(project, duct.id), duct_outline(project, duct.id), ""))
    found = []
    width, height = surface_size(project, enclosure, surface)
    for id, name, box, device_id in things:
        if box.x < -0.01 or box.y < -0.01 or box.x + box.width > width + 0.01 or box.y + box.height > height + 0.01:
            message = f"{name[:1].upper()}{name[1:]} stands over the edge of the {SURFACE_WORDS[surface]}."
            found.append(Fault("over-edge", message, (id,), device_id))
    for n, m in _overlapping([box for _, _, box, _ in things]):
        if n < devices:
            (id, name, _, device_id), (other_id, other, _, _) = things[n], things[m]
            message = f"{name} and {other} are in each other's place on the {SURFACE_WORDS[surface]}."
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
