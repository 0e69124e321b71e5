"""The place of one device in mm."""

from __future__ import annotations

from typing import Literal

from jolly_core.cabinet import (
    outline,
    surface_size,
)

from ..base.edit import Id, Mm, Payload, Work, edit
from .arranging import move_box_to
from .runs import SetRun, set_run


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
        move_box_to(work, placing, box, x, y)
    elif run is not None:
        dx = 0.0 if payload.from_left is None else payload.from_left - run.x1
        dy = 0.0 if payload.from_below is None else height - payload.from_below - run.y2
        ends = SetRun(id=run.id, x1=run.x1 + dx, y1=run.y1 + dy, x2=run.x2 + dx, y2=run.y2 + dy)
        set_run(work, ends)
    work.outcome.placed = [payload.id]
    return "move to a typed place"
