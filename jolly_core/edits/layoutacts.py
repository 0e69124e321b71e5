"""Acts on what is laid out: brought into line, spread, swapped, mirrored, put at a typed place, copied. All in mm."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cabinet import (
    Outline,
    clearance_between,
    outline,
    placing_of,
    placings_in,
    rail_is_level,
    surface_size,
)
from jolly_core.model import Device, Enclosure, Lane, Placing, Project, RuleError, SurfaceName, counted
from jolly_core.tagging import full_tag, product_tag, short_tag

from .base import Id, Mm, Payload, Text, Work, edit
from .cabinet import SetRun, set_run
from .parts import give_part, take_part
from .placing import PlaceDevices, place_devices
from .upkeep import new_device

How = Literal[
    "left", "right", "top", "bottom", "column", "row", "spread-across", "spread-down", "close-up", "swap", "mirror"
]


class ArrangeInLayout(Payload):
    """Bring placed devices into line, spread them evenly, close them up, swap two, or mirror them.

    Attributes:
        how: "column" and "row" go through the middle of the first; "close-up" puts them side by side after the
            leftmost with their clearances; "swap" is for two; "mirror" turns their order round between the outermost.
    """

    kind: Literal["arrange-in-layout"] = "arrange-in-layout"
    ids: list[Id] = Field(min_length=2, max_length=500)
    how: How


@edit(ArrangeInLayout, {"ids": ["p1", "p2"], "how": "close-up"})
def arrange_in_layout(work: Work, payload: ArrangeInLayout) -> str:
    """Work out ArrangeInLayout."""
    project = work.project
    placings: list[Placing] = [project.get("placing", id) for id in dict.fromkeys(payload.ids)]
    if len({(p.enclosure_id, p.surface) for p in placings}) > 1:
        raise RuleError("They stand on different surfaces. Choose those of one.", field="ids")
    boxes = {p.id: outline(project, p) for p in placings}
    if payload.how == "swap":
        if len(placings) != 2:
            raise RuleError("Choose two devices to swap.", field="ids")
        _swap(work, placings[0], placings[1])
    else:
        for id, (x, y) in _corners(project, placings, boxes, payload.how).items():
            _move_to(work, project.placings[id], boxes[id], x, y)
    work.outcome.placed = [p.id for p in placings]
    return f"{payload.how.replace('-', ' ')}: {counted(len(placings), 'device')}"


def _corners(
    project: Project, placings: list[Placing], boxes: dict[str, Outline], how: str
) -> dict[str, tuple[float, float]]:
    """Return the upper left corner each outline is to have."""
    first = boxes[placings[0].id]
    left, top = min(b.x for b in boxes.values()), min(b.y for b in boxes.values())
    right, bottom = max(b.x + b.width for b in boxes.values()), max(b.y + b.height for b in boxes.values())
    if how.startswith("spread"):
        return _spread(boxes, across=how == "spread-across")
    if how == "close-up":
        return _closed_up(project, placings, boxes)
    found = {}
    for id, b in boxes.items():
        x, y = b.x, b.y
        if how == "left":
            x = left
        elif how == "right":
            x = right - b.width
        elif how == "top":
            y = top
        elif how == "bottom":
            y = bottom - b.height
        elif how == "column":
            x = first.x + first.width / 2 - b.width / 2
        elif how == "row":
            y = first.y + first.height / 2 - b.height / 2
        else:
            x = left + right - b.x - b.width
        found[id] = (x, y)
    return found


def _spread(boxes: dict[str, Outline], *, across: bool) -> dict[str, tuple[float, float]]:
    order = sorted(boxes, key=lambda id: boxes[id].x if across else boxes[id].y)
    sizes = [boxes[id].width if across else boxes[id].height for id in order]
    first, last = boxes[order[0]], boxes[order[-1]]
    begin = first.x if across else first.y
    whole = (last.x + last.width if across else last.y + last.height) - begin
    gap = (whole - sum(sizes)) / (len(order) - 1)
    found, at = {}, begin
    for id, size in zip(order, sizes, strict=True):
        found[id] = (at, boxes[id].y) if across else (boxes[id].x, at)
        at += size + gap
    return found


def _closed_up(project: Project, placings: list[Placing], boxes: dict[str, Outline]) -> dict[str, tuple[float, float]]:
    upright = all(b.upright for b in boxes.values())
    order = sorted(placings, key=lambda p: boxes[p.id].y if upright else boxes[p.id].x)
    found = {}
    at = boxes[order[0].id].y if upright else boxes[order[0].id].x
    for n, placing in enumerate(order):
        box = boxes[placing.id]
        found[placing.id] = (box.x, at) if upright else (at, box.y)
        at += box.height if upright else box.width
        if n + 1 < len(order):
            one, other = (project.devices[p.device_id] for p in (placing, order[n + 1]))
            at += clearance_between(project, one, other)
    return found


def _swap(work: Work, one: Placing, other: Placing) -> None:
    """Let two devices change places; those between two on one rail move so that the gaps stay."""
    project = work.project
    clips = [bool(p.rail_id) for p in (one, other)]
    if clips[0] != clips[1]:
        loose = full_tag(project, project.devices[(other if clips[0] else one).device_id])
        raise RuleError(f"{loose} does not clip on a rail, the other does. They cannot swap.", field="ids")
    if one.rail_id and one.rail_id == other.rail_id:
        level = rail_is_level(project.rails[one.rail_id])
        one, other = sorted((one, other), key=lambda p: p.x if level else p.y)
        a, b = outline(project, one), outline(project, other)
        grown = (b.width - a.width) if level else (b.height - a.height)
        low, high = (a.x, b.x) if level else (a.y, b.y)
        for p in [p for p in project.placings.values() if p.rail_id == one.rail_id]:
            at = p.x if level else p.y
            if low < at < high:
                work.put("placing", replace(p, x=p.x + grown) if level else replace(p, y=p.y + grown))
        work.put("placing", replace(other, x=low) if level else replace(other, y=low))
        there = high + grown
        work.put("placing", replace(one, x=there) if level else replace(one, y=there))
        return
    a, b = outline(project, one), outline(project, other)
    places = (other.x, other.y, other.rail_id), (one.x, one.y, one.rail_id)
    for placing, box, was, (x, y, rail_id) in ((one, a, b, places[0]), (other, b, a, places[1])):
        if not rail_id:  # their middles change places
            x, y = was.x + was.width / 2 - box.width / 2, was.y + was.height / 2 - box.height / 2
        work.put("placing", replace(placing, x=round(x, 3), y=round(y, 3), rail_id=rail_id))


def _move_to(work: Work, placing: Placing, box: Outline, x: float, y: float) -> None:
    """Put a device so that the upper left corner of its outline is at a point; on a rail it moves along it only."""
    rail = work.project.rails.get(placing.rail_id)
    dx, dy = x - box.x, y - box.y
    if rail is not None:
        dx, dy = (dx, 0.0) if rail_is_level(rail) else (0.0, dy)
    if dx or dy:
        work.put("placing", replace(placing, x=round(placing.x + dx, 3), y=round(placing.y + dy, 3)))


class SetPosition(Payload):
    """Put a placed device, rail or duct at a typed place: mm from the lower left corner of its surface.

    Attributes:
        from_left, from_below: of the lower left corner of its outline, of a run of its end nearest to that corner.
    """

    kind: Literal["set-position"] = "set-position"
    id: Id
    from_left: Mm | None = None
    from_below: Mm | None = None


@edit(SetPosition, {"id": "p1", "from_left": 120})
def set_position(work: Work, payload: SetPosition) -> str:
    """Work out SetPosition."""
    project = work.project
    placing = project.placings.get(payload.id)
    run = project.rails.get(payload.id) or project.ducts.get(payload.id)
    if placing is None and run is None:
        project.get("placing", payload.id)
    thing = placing or run
    assert thing is not None
    enclosure = project.enclosures[thing.enclosure_id]
    _, height = surface_size(project, enclosure, thing.surface)
    if placing is not None:
        box = outline(project, placing)
        x = box.x if payload.from_left is None else payload.from_left
        y = box.y if payload.from_below is None else height - payload.from_below - box.height
        _move_to(work, placing, box, x, y)
    elif run is not None:
        dx = 0.0 if payload.from_left is None else payload.from_left - run.x1
        dy = 0.0 if payload.from_below is None else height - payload.from_below - run.y2
        ends = SetRun(id=run.id, x1=run.x1 + dx, y1=run.y1 + dy, x2=run.x2 + dx, y2=run.y2 + dy)
        set_run(work, ends)
    work.outcome.placed = [payload.id]
    return "move to a typed place"


class CopyLayout(Payload):
    """Lay out an enclosure as another is: rails, ducts and lanes, and devices of it that have the same tag and part.

    Attributes:
        mirrored: left is right.
    """

    kind: Literal["copy-layout"] = "copy-layout"
    from_id: Id
    to_id: Id
    mirrored: bool = False


@edit(CopyLayout, {"from_id": "e1", "to_id": "e2"})
def copy_layout(work: Work, payload: CopyLayout) -> str:
    """Work out CopyLayout."""
    project = work.project
    one: Enclosure = project.get("enclosure", payload.from_id)
    other: Enclosure = project.get("enclosure", payload.to_id)
    tag = full_tag(project, project.devices[other.device_id])
    taken = any(
        r.enclosure_id == other.id for table in (project.rails, project.ducts, project.lanes) for r in table.values()
    )
    if taken or placings_in(project, other.id) or one.id == other.id:
        raise RuleError(f"{tag} is laid out already. Choose an empty enclosure.", field="to_id", ids=(other.id,))
    for surface in ("plate", "door"):
        if surface_size(project, one, surface) != surface_size(project, other, surface):
            raise RuleError(f"{tag} has another {surface}. Give it the same part first.", field="to_id")
    rails = _copy_runs(work, one, other, mirrored=payload.mirrored)
    for placing in placings_in(project, one.id):
        like = _like(project, project.devices[placing.device_id], other)
        if like is None:
            continue
        width = surface_size(project, one, placing.surface)[0]
        box = outline(project, placing)
        rail = project.rails.get(placing.rail_id)
        x = placing.x
        if payload.mirrored:
            x = width - placing.x if rail and not rail_is_level(rail) else width - box.x - box.width
        made = replace(
            placing,
            id=work.ids.new(),
            enclosure_id=other.id,
            device_id=like.id,
            x=x,
            rail_id=rails.get(placing.rail_id, ""),
        )
        work.put("placing", made)
        work.outcome.placed.append(made.id)
    return f"lay out {short_tag(project, project.devices[other.device_id])} like another"


def _copy_runs(work: Work, one: Enclosure, other: Enclosure, *, mirrored: bool) -> dict[str, str]:
    """Copy rails, ducts and lanes, and return the new rail of each old one."""
    project = work.project
    rails: dict[str, str] = {}

    def turned(surface: str, x: float) -> float:
        return surface_size(project, one, surface)[0] - x if mirrored else x

    for what, table in (("rail", project.rails), ("duct", project.ducts)):
        for run in sorted((r for r in table.values() if r.enclosure_id == one.id), key=lambda r: r.id):
            x1, x2 = sorted((turned(run.surface, run.x1), turned(run.surface, run.x2)))
            made = replace(run, id=work.ids.new(), enclosure_id=other.id, x1=x1, x2=x2)
            work.put(what, made)
            if what == "rail":
                rails[run.id] = made.id
    lanes: list[Lane] = sorted((n for n in project.lanes.values() if n.enclosure_id == one.id), key=lambda n: n.id)
    for lane in lanes:
        points = tuple(turned(lane.surface, v) if n % 2 == 0 else v for n, v in enumerate(lane.points))
        work.put("lane", replace(lane, id=work.ids.new(), enclosure_id=other.id, points=points))
    return rails


def _like(project: Project, device: Device, other: Enclosure) -> Device | None:
    """Return the device that is in the place of another in a like panel and not placed yet: same tag, same part.

    Of several the one at the location of the other enclosure; None when there is none.
    """
    host = project.devices[other.device_id]
    tag = product_tag(project, device)
    alike = [
        d
        for d in project.devices.values()
        if d.id != device.id
        and d.part_id == device.part_id
        and placing_of(project, d.id) is None
        and product_tag(project, d) == tag
    ]
    alike.sort(key=lambda d: (d.location_id != host.location_id, d.function_id != host.function_id, d.id))
    return alike[0] if alike else None


class PlanDevice(Payload):
    """Place a device that is not drawn yet: it has its tag and part, and waits to be drawn.

    Attributes:
        count: how many, side by side.
    """

    kind: Literal["plan-device"] = "plan-device"
    enclosure_id: Id
    surface: SurfaceName = "plate"
    part_id: Id
    text: Text = ""
    x: Mm
    y: Mm
    count: int = Field(default=1, ge=1, le=50)


@edit(PlanDevice, {"enclosure_id": "e1", "part_id": "hollin-hr-k22", "x": 100, "y": 200})
def plan_device(work: Work, payload: PlanDevice) -> str:
    """Work out PlanDevice."""
    project = work.project
    enclosure: Enclosure = project.get("enclosure", payload.enclosure_id)
    host = project.devices[enclosure.device_id]
    part = take_part(work, payload.part_id)
    if part.mounting in ("cable", "free"):
        raise RuleError(f"{part.number} does not go into an enclosure. Choose another part.", field="part_id")
    ids = []
    for _ in range(payload.count):
        device = new_device(work, part.part_class, (host.function_id, host.location_id), payload.text)
        give_part(work, device, payload.part_id)
        ids.append(device.id)
    values = payload.model_dump(include={"enclosure_id", "surface", "x", "y"})
    place_devices(work, PlaceDevices(device_ids=ids, **values))
    return f"plan {payload.count} of {part.number}" if payload.count > 1 else f"plan {part.number}"
