"""Crossings between surfaces. All in mm."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from jolly_core.cabinet import SURFACE_WORDS, surface_size
from jolly_core.model import (
    Crossing,
    Enclosure,
    Project,
    RuleError,
    SurfaceName,
    sides_words,
)
from jolly_core.tagging import short_tag

from ..base.edit import Id, Length, Mm, Payload, Work, edit
from .runs import at_edge


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
