"""Placing devices on the surfaces of an enclosure, and moving what is laid out. All in mm."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from pydantic import Field

from jolly_core.cabinet import (
    Outline,
    clearance_between,
    outline,
    placing_of,
    rail_is_level,
    size_of,
    surface_size,
)
from jolly_core.model import Device, Duct, Enclosure, Placing, Project, Rail, RuleError, SurfaceName, counted
from jolly_core.tagging import full_tag, short_tag
from jolly_core.terminals import is_strip

from ..base.edit import Id, Length, Mm, Payload, Work, edit
from .crossings import move_crossing
from .lanes import move_lane
from .runs import SNAP_MM, SetRun, set_run, snapped
from .snugging import snug

RAIL_REACH_MM = 45.0


class PlaceDevices(Payload):
    """Place devices on a surface, side by side from a point on; those that clip on a rail take the one there.

    Attributes:
        gap_mm: room between them; the clearances that their parts ask for are kept in any case.
        push: what stands in the way on a rail is pushed along, in place of looking for room behind it.
    """

    kind: Literal["place-devices"] = "place-devices"
    enclosure_id: Id
    surface: SurfaceName = "plate"
    device_ids: list[Id] = Field(min_length=1, max_length=500)
    x: Mm
    y: Mm
    gap_mm: Length = 0.0
    push: bool = False


@edit(PlaceDevices, {"enclosure_id": "e1", "device_ids": ["d1"], "x": 60, "y": 200})
def place_devices(work: Work, payload: PlaceDevices) -> str:
    """Work out PlaceDevices."""
    project = work.project
    enclosure: Enclosure = project.get("enclosure", payload.enclosure_id)
    surface_size(project, enclosure, payload.surface)
    x, y = payload.x, payload.y
    ids = list(dict.fromkeys(payload.device_ids))
    for n, id in enumerate(ids):
        device: Device = project.get("device", id)
        how = _PutHow(enclosure, payload.surface, snug=not payload.gap_mm, push=payload.push)
        box = _put(work, how, device, x, y)
        gap = payload.gap_mm
        if n + 1 < len(ids):
            gap = max(gap, clearance_between(project, device, project.get("device", ids[n + 1])))
        if box.upright:  # on an upright rail they stand below each other
            y = box.y + box.height + gap
        else:
            x = box.x + box.width + gap
    count = len(work.outcome.placed)
    first = project.devices[payload.device_ids[0]]
    return f"place {short_tag(project, first)}" if count == 1 else f"place {count} devices"


@dataclass(slots=True, frozen=True)
class _PutHow:
    """Where devices are put, and how: `snug` side by side, `push` what is in the way along."""

    enclosure: Enclosure
    surface: str
    snug: bool = True
    push: bool = False


def _put(work: Work, how: _PutHow, device: Device, x: float, y: float) -> Outline:
    """Place one device with its outline's left edge at x, its middle at y, and return where it came to stand."""
    project, enclosure, surface = work.project, how.enclosure, how.surface
    tag = full_tag(project, device)
    if placing_of(project, device.id) is not None:
        raise RuleError(f"{tag} is placed already. Move it, or put it back into the tray.", ids=(device.id,))
    width, height, _ = size_of(project, device)
    if not width or not height:
        raise RuleError(
            f"{tag} has no outline. Choose a part with width and height for it.", field="device_ids", ids=(device.id,)
        )
    clips = _clips(project, device)
    part = project.part_of(device)
    if part is not None and part.mounting == "door hole" and surface == "plate":
        raise RuleError(f"{tag} goes into a door hole. Place it on the door.", field="surface", ids=(device.id,))
    rail = _rail_near(project, enclosure.id, surface, x, y) if clips else None
    if clips and rail is None:
        raise RuleError(f"{tag} clips on a rail. Drop it on one.", field="y", ids=(device.id,))
    if rail is None:
        wanted_box = Outline(x, y - height / 2, width, height, 0.0)
        at = snug(project, device, (enclosure.id, surface), wanted_box)
        placing = Placing(work.ids.new(), enclosure.id, device.id, surface, *at)
    else:
        level = rail_is_level(rail)
        wanted = max(x, rail.x1) if level else max(y, rail.y1)
        if how.push:
            free = make_room(work, rail, width, wanted)
        else:
            free = _free_place(project, rail, width, wanted, snug=how.snug)
        place = (free, rail.y1) if level else (rail.x1, free)
        placing = Placing(work.ids.new(), enclosure.id, device.id, surface, *place, rail.id)
    work.put("placing", placing)
    work.outcome.placed.append(placing.id)
    return outline(project, placing)


def _clips(project: Project, device: Device) -> bool:
    part = project.part_of(device)
    return is_strip(project, device) if part is None else part.mounting == "rail"


def make_room(work: Work, rail: Rail, length: float, wanted: float, *, but: str = "") -> float:
    """Push what stands on a rail from a wanted position on along, as far as a length needs, and return where it fits.

    What has its middle before the wanted position stays.
    """
    project, level = work.project, rail_is_level(rail)
    there = []
    for placing in project.placings.values():
        if placing.rail_id == rail.id and placing.id != but:
            box = outline(project, placing)
            there.append((box.x, box.width, placing) if level else (box.y, box.height, placing))
    there.sort(key=lambda t: t[0])
    # in the first half of a device it takes its place
    wanted = next((begin for begin, long, _ in there if begin < wanted <= begin + long / 2), wanted)
    at = max([wanted, *(begin + long for begin, long, _ in there if begin + long / 2 < wanted)])
    end = at + length
    for begin, long, placing in there:
        if begin + long / 2 < wanted:
            continue
        if begin > end - 0.01:
            break
        moved = replace(placing, x=round(end, 3)) if level else replace(placing, y=round(end, 3))
        work.put("placing", moved)
        end += long
    return round(at, 3)


def _rail_near(project: Project, enclosure_id: str, surface: str, x: float, y: float) -> Rail | None:
    """Return the rail that a point is nearest to within reach, the one drawn first on a tie."""
    best: tuple[float, Rail] | None = None
    rails = [r for r in project.rails.values() if (r.enclosure_id, r.surface) == (enclosure_id, surface)]
    for rail in sorted(rails, key=lambda r: r.id):
        nearest_x = min(max(x, rail.x1), rail.x2)
        nearest_y = min(max(y, rail.y1), rail.y2)
        away = abs(nearest_x - x) + abs(nearest_y - y)
        if away <= RAIL_REACH_MM and (best is None or away < best[0]):
            best = (away, rail)
    return best[1] if best else None


def _free_place(
    project: Project, rail: Rail, length: float, wanted: float, *, but: str = "", snug: bool = True
) -> float:
    """Return the first position at or after a wanted one along a rail at which a length is free.

    With `snug` a position less than 10 mm behind a neighbour's end is drawn to that end, so that devices stand side by
    side.
    """
    level = rail_is_level(rail)
    taken = []
    for placing in project.placings.values():
        if placing.rail_id == rail.id and placing.id != but:
            box = outline(project, placing)
            taken.append((box.x, box.x + box.width) if level else (box.y, box.y + box.height))
    taken.sort()
    at = wanted
    for low, high in taken:
        if low < at + length - 0.01 and at < high + (2 * SNAP_MM if snug else -0.01):
            at = high
    return round(at, 3)


class MoveInLayout(Payload):
    """Move placed devices, rails, ducts and lanes; a device that clips on a rail goes to the rail it is moved to.

    Attributes:
        push: what stands in the way on a rail is pushed along.
    """

    kind: Literal["move-in-layout"] = "move-in-layout"
    ids: list[Id] = Field(min_length=1, max_length=1000)
    dx: Mm
    dy: Mm
    push: bool = False


@edit(MoveInLayout, {"ids": ["p1"], "dx": 20, "dy": 0})
def move_in_layout(work: Work, payload: MoveInLayout) -> str:
    """Work out MoveInLayout."""
    project = work.project
    chosen = set(payload.ids)
    for id in dict.fromkeys(payload.ids):
        if id in project.placings:
            if project.placings[id].rail_id not in chosen:
                _move_placing(
                    work, project.placings[id], (payload.dx, payload.dy), push=payload.push, alone=len(chosen) == 1
                )
            continue
        if id in project.lanes or id in project.crossings:
            move = move_lane if id in project.lanes else move_crossing
            move(work, id, payload.dx, payload.dy)
            continue
        what = "rail" if id in project.rails else "duct"
        run: Rail | Duct = project.get(what, id)
        x1, y1, x2, y2 = run.x1 + payload.dx, run.y1 + payload.dy, run.x2 + payload.dx, run.y2 + payload.dy
        set_run(work, SetRun(id=id, x1=x1, y1=y1, x2=x2, y2=y2))
    work.outcome.placed = list(payload.ids)
    placing = project.placings.get(payload.ids[0])
    if placing is not None and len(chosen) == 1:
        return f"move {short_tag(project, project.devices[placing.device_id])}"
    return f"move {counted(len(chosen), 'thing')} of the layout"


def _move_placing(
    work: Work, placing: Placing, by: tuple[float, float], *, push: bool = False, alone: bool = True
) -> None:
    """Move a placed device; one that clips on nothing is drawn to what is near, or with others kept as they stand."""
    project, (dx, dy) = work.project, by
    box = outline(project, placing)
    if not placing.rail_id:
        left, top = snapped(placing.x + dx), snapped(placing.y + dy)
        if alone:
            device = project.devices[placing.device_id]
            moved = replace(box, x=placing.x + dx, y=placing.y + dy)
            left, top = snug(project, device, (placing.enclosure_id, placing.surface), moved, placing.id)
        work.put("placing", replace(placing, x=left, y=top))
        return
    x, y = box.x + dx, box.y + dy
    middle = (x, y + box.height / 2) if not box.upright else (x + box.width / 2, y)
    rail = _rail_near(project, placing.enclosure_id, placing.surface, *middle)
    if rail is None:
        tag = full_tag(project, project.devices[placing.device_id])
        raise RuleError(f"{tag} clips on a rail. Drop it on one.", field="dy", ids=(placing.id,))
    length = box.height if box.upright else box.width
    level = rail_is_level(rail)
    wanted = max(round(x, 1), rail.x1) if level else max(round(y, 1), rail.y1)
    if push:
        at = make_room(work, rail, length, wanted, but=placing.id)
    else:
        at = _free_place(project, rail, length, wanted, but=placing.id)
    x, y = (at, rail.y1) if level else (rail.x1, at)
    work.put("placing", replace(placing, rail_id=rail.id, x=x, y=y))
