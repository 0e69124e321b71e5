"""Lanes drawn by hand, crossings between surfaces, what may lie in them, and what wires are led through. All in mm."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cabinet import SURFACE_WORDS, eyelet_named, lane_name, panel_conductors, passage_words, surface_size
from jolly_core.model import (
    WIRE_CATEGORIES,
    Crossing,
    Enclosure,
    Lane,
    Passage,
    Project,
    RuleError,
    SurfaceName,
    sides_words,
)
from jolly_core.model.entities.layout import MOST_CORNERS, MOST_PASSED
from jolly_core.tagging import short_tag

from .base import Id, Key, Length, Mm, Payload, Work, edit
from .cabinet import at_edge
from .wiretypes import Category


class DrawLane(Payload):
    """Draw a lane on a surface by its corners, where wires may run without a duct; corners snap to 5 mm."""

    kind: Literal["draw-lane"] = "draw-lane"
    enclosure_id: Id
    surface: SurfaceName = "plate"
    points: list[tuple[Mm, Mm]] = Field(min_length=2, max_length=MOST_CORNERS)
    categories: list[Category] = Field(default=[], max_length=6)


@edit(DrawLane, {"enclosure_id": "e1", "points": [[100, 200], [100, 300], [250, 300]]})
def draw_lane(work: Work, payload: DrawLane) -> str:
    """Work out DrawLane."""
    enclosure: Enclosure = work.project.get("enclosure", payload.enclosure_id)
    points = _corners(work.project, enclosure, payload.surface, payload.points)
    lane = Lane(work.ids.new(), enclosure.id, points, payload.surface, _ordered(payload.categories))
    work.put("lane", lane)
    work.outcome.placed = [lane.id]
    return "draw a lane"


def _corners(
    project: Project, enclosure: Enclosure, surface: str, wanted: list[tuple[float, float]]
) -> tuple[float, ...]:
    """Return the corners of a lane, snapped, those that repeat the one before left out; x and y in turn.

    Raises:
        RuleError: it has no length, or lies outside the surface.
    """
    width, height = surface_size(project, enclosure, surface)
    corners: list[tuple[float, float]] = []
    for x, y in wanted:
        corner = at_edge(x, width), at_edge(y, height)
        if not (0 <= corner[0] <= width and 0 <= corner[1] <= height):
            words = f"The lane leaves the {SURFACE_WORDS[surface]} of {sides_words(project, width, height)}."
            raise RuleError(f"{words} Draw it inside.", field="points")
        if not corners or corners[-1] != corner:
            corners.append(corner)
    if len(corners) < 2:
        raise RuleError("It has no length. Draw from one end to the other.", field="points")
    return tuple(value for corner in corners for value in corner)


def _ordered(categories: list[Category]) -> tuple[str, ...]:
    return tuple(c for c in WIRE_CATEGORIES if c in categories)


def move_lane(work: Work, id: str, dx: float, dy: float) -> None:
    """Move a lane as a whole.

    Raises:
        RuleError: it would leave its surface.
    """
    lane = work.project.lanes[id]
    corners = [(lane.points[n] + dx, lane.points[n + 1] + dy) for n in range(0, len(lane.points), 2)]
    enclosure = work.project.enclosures[lane.enclosure_id]
    work.put("lane", replace(lane, points=_corners(work.project, enclosure, lane.surface, corners)))


class SetLane(Payload):
    """Give a lane other corners."""

    kind: Literal["set-lane"] = "set-lane"
    lane_id: Id
    points: list[tuple[Mm, Mm]] = Field(min_length=2, max_length=MOST_CORNERS)


@edit(SetLane, {"lane_id": "l1", "points": [[100, 200], [250, 200]]})
def set_lane(work: Work, payload: SetLane) -> str:
    """Work out SetLane."""
    lane: Lane = work.project.get("lane", payload.lane_id)
    enclosure = work.project.enclosures[lane.enclosure_id]
    work.put("lane", replace(lane, points=_corners(work.project, enclosure, lane.surface, payload.points)))
    work.outcome.placed = [lane.id]
    return "change a lane"


class DrawCrossing(Payload):
    """Say where wires pass from a surface to another: a hinge elsewhere, an opening between enclosures, a gland."""

    kind: Literal["draw-crossing"] = "draw-crossing"
    enclosure_id: Id
    surface: SurfaceName = "plate"
    x: Mm
    y: Mm
    other_id: Id
    other_surface: SurfaceName = "door"
    other_x: Mm
    other_y: Mm
    extra_mm: Length = 0.0


@edit(DrawCrossing, {"enclosure_id": "e1", "x": 550, "y": 100, "other_id": "e1", "other_x": 600, "other_y": 120})
def draw_crossing(work: Work, payload: DrawCrossing) -> str:
    """Work out DrawCrossing."""
    values = payload.model_dump(exclude={"kind"})
    crossing = Crossing(work.ids.new(), **values)
    if (crossing.enclosure_id, crossing.surface) == (crossing.other_id, crossing.other_surface):
        raise RuleError("A crossing leads to another surface. Draw a lane on this one.", field="other_surface")
    work.put("crossing", _inside(work.project, crossing))
    work.outcome.placed = [crossing.id]
    return "draw a crossing"


def _inside(project: Project, crossing: Crossing) -> Crossing:
    """Return a crossing with both ends snapped.

    Raises:
        RuleError: an end lies outside its surface.
    """
    found = []
    for id, surface, x, y in (
        (crossing.enclosure_id, crossing.surface, crossing.x, crossing.y),
        (crossing.other_id, crossing.other_surface, crossing.other_x, crossing.other_y),
    ):
        enclosure: Enclosure = project.get("enclosure", id)
        width, height = surface_size(project, enclosure, surface)
        at = at_edge(x, width), at_edge(y, height)
        if not (0 <= at[0] <= width and 0 <= at[1] <= height):
            tag = short_tag(project, project.devices[enclosure.device_id])
            size = sides_words(project, width, height)
            words = f"The crossing would lie outside the {SURFACE_WORDS[surface]} of {tag}, {size}."
            raise RuleError(words, field="x", ids=(enclosure.id,))
        found.append(at)
    (x, y), (other_x, other_y) = found
    return replace(crossing, x=x, y=y, other_x=other_x, other_y=other_y)


def move_crossing(work: Work, id: str, dx: float, dy: float) -> None:
    """Move the end of a crossing on its first surface."""
    crossing = work.project.crossings[id]
    work.put("crossing", _inside(work.project, replace(crossing, x=crossing.x + dx, y=crossing.y + dy)))


class SetLaneUse(Payload):
    """Say which wires may lie in ducts and lanes and pass crossings; no category is all of them.

    Attributes:
        extra_mm: of a crossing, the wire it takes beside what lies on both surfaces.
    """

    kind: Literal["set-lane-use"] = "set-lane-use"
    ids: list[Id] = Field(min_length=1, max_length=500)
    categories: list[Category] | None = None
    extra_mm: Length | None = None


@edit(SetLaneUse, {"ids": ["d1"], "categories": ["signal"]})
def set_lane_use(work: Work, payload: SetLaneUse) -> str:
    """Work out SetLaneUse."""
    project = work.project
    for id in dict.fromkeys(payload.ids):
        kind = "lane" if id in project.lanes else "crossing" if id in project.crossings else "duct"
        record = project.get(kind, id)
        if payload.categories is not None:
            record = replace(record, categories=_ordered(payload.categories))
        if payload.extra_mm is not None:
            if kind != "crossing":
                raise RuleError("Only a crossing takes extra wire.", field="extra_mm", ids=(id,))
            record = replace(record, extra_mm=payload.extra_mm)
        work.put(kind, record)
    if payload.categories is None:
        return "wire of a crossing"
    return f"lanes for {', '.join(payload.categories)} wires" if payload.categories else "lanes for all wires"


class LeadThrough(Payload):
    """Lead wires through eyelets and lanes, in order, or no longer.

    Attributes:
        conductors: the keys of the conductors.
        through: ids of ducts and lanes, and "device id/n" for the n-th eyelet of a device.
        how: "add" after what each is led through, "take" the last time of each out, or "set" in place of all.
    """

    kind: Literal["lead-through"] = "lead-through"
    conductors: list[Key] = Field(min_length=1, max_length=2000)
    through: list[Id] = Field(max_length=MOST_PASSED)
    how: Literal["add", "take", "set"] = "add"


@edit(LeadThrough, {"conductors": ["y1.1-y2.0"], "through": ["d3/1"]})
def lead_through(work: Work, payload: LeadThrough) -> str:
    """Work out LeadThrough."""
    project = work.project
    known = {c.key for c in panel_conductors(project)}
    for name in payload.through if payload.how != "take" else ():
        _check_passed(project, name)
    for key in dict.fromkeys(payload.conductors):
        ids = project.passages_of.get(key)
        passage = project.passages[ids[0]] if ids else None
        if key not in known and payload.how != "take":
            raise RuleError(
                "One of the wires is no longer there, or leaves the panel. Choose again.", field="conductors"
            )
        through = list(passage.through) if passage and payload.how != "set" else []
        for name in payload.through:
            if payload.how != "take":
                through.append(name)
            elif name in through:
                through.reverse()
                through.remove(name)
                through.reverse()
        if len(through) > MOST_PASSED:
            raise RuleError(f"A wire is led through at most {MOST_PASSED} eyelets and lanes.", field="through")
        if through:
            work.put("passage", Passage(passage.id if passage else work.ids.new(), key, tuple(through)))
        elif passage is not None:
            work.remove("passage", passage.id)
    words = ", ".join(passage_words(project, n) for n in payload.through[:3]) or "nothing"
    count = f"{len(payload.conductors)} wires" if len(payload.conductors) > 1 else "a wire"
    return f"{count} no longer through {words}" if payload.how == "take" else f"lead {count} through {words}"


def _check_passed(project: Project, name: str) -> None:
    """Refuse what no wire can be led through.

    Raises:
        RuleError: it is neither an eyelet of a placed device, nor a duct or lane.
    """
    device_id, _, number = name.partition("/")
    if number:
        project.get("device", device_id)
        if eyelet_named(project, name) is None:
            words = passage_words(project, name)
            raise RuleError(
                f"{words} has no eyelet, or is not placed. Say the eyelet in its part, and place it.", field="through"
            )
    elif not lane_name(project, name):
        raise RuleError("There is no such duct or lane any more. Choose again.", field="through")
