"""Acts on what is laid out together: brought into line, spread, closed up, swapped, mirrored. All in mm."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cabinet import (
    Outline,
    clearance_between,
    outline,
    rail_is_level,
)
from jolly_core.model import Placing, Project, RuleError, counted
from jolly_core.tagging import full_tag

from ..base.edit import Id, Payload, Work, edit

ArrangeHow = Literal[
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
    how: ArrangeHow


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
            move_box_to(work, project.placings[id], boxes[id], x, y)
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


def move_box_to(work: Work, placing: Placing, box: Outline, x: float, y: float) -> None:
    """Put a device so that the upper left corner of its outline is at a point; on a rail it moves along it only."""
    rail = work.project.rails.get(placing.rail_id)
    dx, dy = x - box.x, y - box.y
    if rail is not None:
        dx, dy = (dx, 0.0) if rail_is_level(rail) else (0.0, dy)
    if dx or dy:
        work.put("placing", replace(placing, x=round(placing.x + dx, 3), y=round(placing.y + dy, 3)))
