"""What stands in an enclosure as boxes in space: devices on plate and door, ducts, rails. All in mm."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal, cast

from jolly_core.model import Enclosure, Project
from jolly_core.tagging import full_tag

from .eyelets import run_names
from .faults import duct_outline, rail_outline
from .layout import Outline, Surface, outline_of, placings_in, surfaces_of

SolidKind = Literal["device", "duct", "rail"]
USUAL_DEPTH_MM = 40.0  # of a device whose part says nothing of it


@dataclass(slots=True, frozen=True)
class Solid:
    """A box on a surface.

    Attributes:
        kind: "device", "duct" or "rail".
        x, y: its upper left corner on the surface; `depth` is how far it stands out.
        file: name of its part's picture in space, "" for none; `front` and `up` are the axes of that.
        turned: it is turned clockwise, on an upright rail.
    """

    id: str
    kind: SolidKind
    surface: Surface
    tag: str
    x: float
    y: float
    width: float
    height: float
    depth: float
    file: str = ""
    front: str = "+z"
    up: str = "+y"
    turned: bool = False


def solids(project: Project, enclosure: Enclosure) -> list[Solid]:
    """Return the boxes of an enclosure: devices as they were placed, then ducts, then rails."""
    found: list[Solid] = []
    for surface in surfaces_of(project, enclosure):
        for placing in placings_in(project, enclosure.id, surface):
            device = project.devices[placing.device_id]
            tag = full_tag(project, device)
            where = outline_of(project, placing.id)
            box = _solid(placing.id, "device", surface, tag, where)
            part = project.part_of(device)
            if part is not None and part.solid:
                box = replace(box, file=part.solid, front=part.solid_front, up=part.solid_up, turned=where.upright)
            found.append(box)
    names = run_names(project, enclosure.id)
    for duct in sorted(project.ducts.values(), key=lambda d: d.id):
        if duct.enclosure_id == enclosure.id:
            found.append(_solid(duct.id, "duct", duct.surface, names[duct.id], duct_outline(project, duct.id)))
    for rail in sorted(project.rails.values(), key=lambda r: r.id):
        if rail.enclosure_id == enclosure.id:
            found.append(_solid(rail.id, "rail", rail.surface, names[rail.id], rail_outline(rail)))
    return found


def _solid(id: str, kind: SolidKind, surface: str, tag: str, box: Outline) -> Solid:
    return Solid(
        id, kind, cast(Surface, surface), tag, box.x, box.y, box.width, box.height, box.depth or USUAL_DEPTH_MM
    )
