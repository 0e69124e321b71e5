"""The enclosure: rails, ducts, and what is placed on plate and door. All in mm."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cabinet import (
    Outline,
    outline,
    placing_of,
    placings_in,
    rail_is_level,
    size_of,
    surface_size,
)
from jolly_core.model import Device, Duct, Enclosure, Placing, Project, Rail, RuleError
from jolly_core.model.entities.layout import Celsius
from jolly_core.tagging import full_tag, product_tag
from jolly_core.terminals import is_strip

from .base import Id, Length, Mm, Payload, Text, Work, edit
from .parts import give_part, take_part
from .upkeep import drop_part, new_device, remove_device

SNAP_MM = 5.0
RAIL_REACH_MM = 45.0


def snapped(value: float, step: float = SNAP_MM) -> float:
    """Return a measure at the nearest multiple of a step, mm."""
    return round(round(value / step) * step, 3)


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
    return f"add enclosure -{product_tag(project, project.devices[device.id])}"


class ChangeEnclosure(Payload):
    """Say how warm it is around an enclosure, how its door hangs, to which one on its left it is open."""

    kind: Literal["change-enclosure"] = "change-enclosure"
    enclosure_id: Id
    ambient_c: Celsius | None = None
    hinge: Literal["left", "right"] | None = None
    left_id: Id | None = None
    opening_mm: Length | None = None


@edit(ChangeEnclosure, {"enclosure_id": "e1", "ambient_c": 40})
def change_enclosure(work: Work, payload: ChangeEnclosure) -> str:
    """Work out ChangeEnclosure."""
    enclosure: Enclosure = work.project.get("enclosure", payload.enclosure_id)
    values = payload.model_dump(exclude={"kind", "enclosure_id"}, exclude_none=True)
    if payload.left_id:
        _check_row(work.project, enclosure, payload.left_id)
    work.put("enclosure", replace(enclosure, **values))
    return f"facts of -{product_tag(work.project, work.project.devices[enclosure.device_id])}"


def _check_row(project: Project, enclosure: Enclosure, left_id: str) -> None:
    """Refuse a neighbour on the left that cannot be.

    Raises:
        RuleError: it would stand beside itself, in a ring, or where another stands.
    """
    left: Enclosure = project.get("enclosure", left_id)
    tag = f"-{product_tag(project, project.devices[left.device_id])}"
    if left.id in (enclosure.id, *(e.id for e in _right_of(project, enclosure))):
        raise RuleError(f"{tag} stands right of it already. Choose another.", field="left_id", ids=(left.id,))
    taken = next((e for e in project.enclosures.values() if e.left_id == left.id and e.id != enclosure.id), None)
    if taken is not None:
        other = f"-{product_tag(project, project.devices[taken.device_id])}"
        raise RuleError(f"{other} is right of {tag} already. Choose another.", field="left_id", ids=(taken.id,))


def _right_of(project: Project, enclosure: Enclosure) -> list[Enclosure]:
    found = [enclosure]
    while following := [e for e in project.enclosures.values() if e.left_id == found[-1].id and e not in found]:
        found.append(following[0])
    return found[1:]


class DrawRun(Payload):
    """Draw a rail or a duct on the plate by its ends; they snap to 5 mm and to the plate's edges."""

    kind: Literal["draw-run"] = "draw-run"
    what: Literal["rail", "duct"]
    enclosure_id: Id
    part_id: Id
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm


@edit(DrawRun, {"what": "rail", "enclosure_id": "e1", "part_id": "r1", "x1": 40, "y1": 200, "x2": 500, "y2": 200})
def draw_run(work: Work, payload: DrawRun) -> str:
    """Work out DrawRun."""
    enclosure: Enclosure = work.project.get("enclosure", payload.enclosure_id)
    take_part(work, payload.part_id, payload.what)
    ends = _ends(work.project, enclosure, payload.x1, payload.y1, payload.x2, payload.y2)
    make = Rail if payload.what == "rail" else Duct
    run = make(work.ids.new(), enclosure.id, *ends, payload.part_id)
    work.put(payload.what, run)
    work.outcome.placed = [run.id]
    return f"draw a {payload.what}"


def _ends(
    project: Project, enclosure: Enclosure, x1: float, y1: float, x2: float, y2: float
) -> tuple[float, float, float, float]:
    """Return the ends of a run, snapped, level or upright, the left or upper one first.

    Raises:
        RuleError: it has no length, or lies outside the plate.
    """
    width, height = surface_size(project, enclosure, "plate")

    def edge(value: float, limit: float) -> float:
        if abs(value) < SNAP_MM:
            return 0.0
        return limit if abs(value - limit) < SNAP_MM else snapped(value)

    x1, x2, y1, y2 = edge(x1, width), edge(x2, width), edge(y1, height), edge(y2, height)
    if abs(x2 - x1) >= abs(y2 - y1):
        y2 = y1
    else:
        x2 = x1
    if (x1, y1) == (x2, y2):
        raise RuleError("It has no length. Draw from one end to the other.", field="x2")
    if not (min(x1, x2) >= 0 and max(x1, x2) <= width and min(y1, y2) >= 0 and max(y1, y2) <= height):
        raise RuleError(f"It lies outside the mounting plate of {width:g} × {height:g} mm.", field="x2")
    (ax, ay), (bx, by) = sorted(((x1, y1), (x2, y2)))
    return ax, ay, bx, by


class SetRun(Payload):
    """Give a rail or duct other ends; what is clipped on a rail goes with it."""

    kind: Literal["set-run"] = "set-run"
    id: Id
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm


@edit(SetRun, {"id": "r1", "x1": 40, "y1": 220, "x2": 500, "y2": 220})
def set_run(work: Work, payload: SetRun) -> str:
    """Work out SetRun."""
    project = work.project
    what = "rail" if payload.id in project.rails else "duct"
    run: Rail | Duct = project.get(what, payload.id)
    enclosure = project.enclosures[run.enclosure_id]
    x1, y1, x2, y2 = _ends(project, enclosure, payload.x1, payload.y1, payload.x2, payload.y2)
    work.put(what, replace(run, x1=x1, y1=y1, x2=x2, y2=y2))
    if isinstance(run, Rail) and rail_is_level(run) == (y1 == y2):
        for placing in [p for p in project.placings.values() if p.rail_id == run.id]:
            work.put("placing", replace(placing, x=placing.x + x1 - run.x1, y=placing.y + y1 - run.y1))
    work.outcome.placed = [run.id]
    return f"move a {what}"


class PlaceDevices(Payload):
    """Place devices on plate or door, side by side from a point on; those that clip on a rail take the one there."""

    kind: Literal["place-devices"] = "place-devices"
    enclosure_id: Id
    surface: Literal["plate", "door"] = "plate"
    device_ids: list[Id] = Field(min_length=1, max_length=500)
    x: Mm
    y: Mm
    gap_mm: Length = 0.0


@edit(PlaceDevices, {"enclosure_id": "e1", "device_ids": ["d1"], "x": 60, "y": 200})
def place_devices(work: Work, payload: PlaceDevices) -> str:
    """Work out PlaceDevices."""
    project = work.project
    enclosure: Enclosure = project.get("enclosure", payload.enclosure_id)
    surface_size(project, enclosure, payload.surface)
    x, y = payload.x, payload.y
    for id in dict.fromkeys(payload.device_ids):
        device: Device = project.get("device", id)
        box = _put(work, enclosure, payload.surface, device, x, y, snug=not payload.gap_mm)
        if box.upright:  # on an upright rail they stand below each other
            y = box.y + box.height + payload.gap_mm
        else:
            x = box.x + box.width + payload.gap_mm
    count = len(work.outcome.placed)
    first = project.devices[payload.device_ids[0]]
    return f"place -{product_tag(project, first)}" if count == 1 else f"place {count} devices"


def _put(work: Work, enclosure: Enclosure, surface: str, device: Device, x: float, y: float, *, snug: bool) -> Outline:
    """Place one device with its outline's left edge at x, its middle at y, and return where it came to stand."""
    project = work.project
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
    rail = _rail_near(project, enclosure.id, x, y) if surface == "plate" and clips else None
    if clips and rail is None:
        raise RuleError(f"{tag} clips on a rail. Drop it on one.", field="y", ids=(device.id,))
    if rail is None:
        placing = Placing(work.ids.new(), enclosure.id, device.id, surface, snapped(x), snapped(y - height / 2))
    elif rail_is_level(rail):
        free = _free_place(project, rail, width, max(x, rail.x1), snug=snug)
        placing = Placing(work.ids.new(), enclosure.id, device.id, surface, free, rail.y1, rail.id)
    else:
        free = _free_place(project, rail, width, max(y, rail.y1), snug=snug)
        placing = Placing(work.ids.new(), enclosure.id, device.id, surface, rail.x1, free, rail.id)
    work.put("placing", placing)
    work.outcome.placed.append(placing.id)
    return outline(project, placing)


def _clips(project: Project, device: Device) -> bool:
    part = project.part_of(device)
    return is_strip(project, device) if part is None else part.mounting == "rail"


def _rail_near(project: Project, enclosure_id: str, x: float, y: float) -> Rail | None:
    """Return the rail that a point is nearest to within reach, the one drawn first on a tie."""
    best: tuple[float, Rail] | None = None
    for rail in sorted((r for r in project.rails.values() if r.enclosure_id == enclosure_id), key=lambda r: r.id):
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
    """Move placed devices, rails and ducts; a device that clips on a rail goes to the rail it is moved to."""

    kind: Literal["move-in-layout"] = "move-in-layout"
    ids: list[Id] = Field(min_length=1, max_length=1000)
    dx: Mm
    dy: Mm


@edit(MoveInLayout, {"ids": ["p1"], "dx": 20, "dy": 0})
def move_in_layout(work: Work, payload: MoveInLayout) -> str:
    """Work out MoveInLayout."""
    project = work.project
    chosen = set(payload.ids)
    for id in dict.fromkeys(payload.ids):
        if id in project.placings:
            if project.placings[id].rail_id not in chosen:
                _move_placing(work, project.placings[id], payload.dx, payload.dy)
            continue
        what = "rail" if id in project.rails else "duct"
        run: Rail | Duct = project.get(what, id)
        x1, y1, x2, y2 = run.x1 + payload.dx, run.y1 + payload.dy, run.x2 + payload.dx, run.y2 + payload.dy
        set_run(work, SetRun(id=id, x1=x1, y1=y1, x2=x2, y2=y2))
    work.outcome.placed = list(payload.ids)
    placing = project.placings.get(payload.ids[0])
    if placing is not None and len(chosen) == 1:
        return f"move -{product_tag(project, project.devices[placing.device_id])}"
    return f"move {len(chosen)} things of the layout"


def _move_placing(work: Work, placing: Placing, dx: float, dy: float) -> None:
    project = work.project
    box = outline(project, placing)
    if not placing.rail_id:
        work.put("placing", replace(placing, x=snapped(placing.x + dx), y=snapped(placing.y + dy)))
        return
    x, y = box.x + dx, box.y + dy
    rail = _rail_near(project, placing.enclosure_id, x, y + box.height / 2)
    if rail is None:
        tag = full_tag(project, project.devices[placing.device_id])
        raise RuleError(f"{tag} clips on a rail. Drop it on one.", field="dy", ids=(placing.id,))
    length = box.height if box.upright else box.width
    if rail_is_level(rail):
        at = _free_place(project, rail, length, max(round(x, 1), rail.x1), but=placing.id)
        work.put("placing", replace(placing, rail_id=rail.id, x=at, y=rail.y1))
    else:
        at = _free_place(project, rail, length, max(round(y, 1), rail.y1), but=placing.id)
        work.put("placing", replace(placing, rail_id=rail.id, x=rail.x1, y=at))


class RemoveFromLayout(Payload):
    """Put devices back into the tray, and take rails, ducts or a whole enclosure away."""

    kind: Literal["remove-from-layout"] = "remove-from-layout"
    ids: list[Id] = Field(min_length=1, max_length=1000)


@edit(RemoveFromLayout, {"ids": ["p1"]})
def remove_from_layout(work: Work, payload: RemoveFromLayout) -> str:
    """Work out RemoveFromLayout."""
    project = work.project
    for id in dict.fromkeys(payload.ids):
        if id in project.placings:
            work.remove("placing", id)
        elif id in project.enclosures:
            _remove_enclosure(work, project.enclosures[id])
        elif id in project.rails or id in project.ducts:
            _remove_run(work, id)
        else:
            project.get("placing", id)
    return f"take {len(set(payload.ids))} out of the layout"


def _remove_run(work: Work, id: str) -> None:
    project = work.project
    what = "rail" if id in project.rails else "duct"
    for placing in [p for p in project.placings.values() if p.rail_id == id]:
        work.remove("placing", placing.id)
    part_id = project.tables[what][id].part_id
    work.remove(what, id)
    drop_part(work, part_id)


def _remove_enclosure(work: Work, enclosure: Enclosure) -> None:
    project = work.project
    for placing in placings_in(project, enclosure.id):
        work.remove("placing", placing.id)
    for table in (project.rails, project.ducts):
        for id in [r.id for r in table.values() if r.enclosure_id == enclosure.id]:
            _remove_run(work, id)
    remove_device(work, enclosure.device_id)
