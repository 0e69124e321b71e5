"""Taking away what is laid out: enclosures, rails, ducts, devices, lanes, crossings."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ..base.edit import Id, Payload, Work, edit
from .enclosures import forget_enclosure
from .runs import forget_passed, forget_run


class RemoveFromLayout(Payload):
    """Put devices back into the tray, and take rails, ducts, lanes, crossings or a whole enclosure away."""

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
            forget_enclosure(work, project.enclosures[id])
        elif id in project.rails or id in project.ducts:
            forget_run(work, id)
        elif id in project.lanes or id in project.crossings:
            work.remove("lane" if id in project.lanes else "crossing", id)
            forget_passed(work, id)
        else:
            project.get("placing", id)
    return f"take {len(set(payload.ids))} out of the layout"
