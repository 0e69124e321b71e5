"""Lanes drawn by hand. All in mm."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cabinet import SURFACE_WORDS, surface_size
from jolly_core.model import (
    Enclosure,
    Lane,
    Project,
    RuleError,
    SurfaceName,
    sides_words,
)
from jolly_core.model.entities.layout import MOST_CORNERS

from ..base.edit import Id, Mm, Payload, Work, edit
from ..project.wiretypes import Category
from .laneuse import in_category_order
from .runs import at_edge


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
    lane = Lane(work.ids.new(), enclosure.id, points, payload.surface, in_category_order(payload.categories))
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
