"""What stands in an enclosure as boxes in space: devices on plate and door, ducts, rails. All in mm."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from jolly_core.model import Enclosure, Project
from jolly_core.tagging import full_tag

from .faults import duct_outline, rail_length
from .layout import RAIL_WIDTH_MM, Outline, Surface, outline_of, placings_in, rail_is_level

SolidKind = Literal["device", "duct", "rail"]
SURFACES: tuple[Surface, ...] = ("plate", "door")
RAIL_DEPTH_MM = 7.5  # IEC 60715, TH 35-7.5
USUAL_DEPTH_MM = 40.0  # of a device whose part says nothing of it


@dataclass(slots=True, frozen=True)
class Solid:
    """A box on a surface.

    Attributes:
        kind: "device", "duct" or "rail".
        x, y: its upper left corner on the surface; `depth` is how far it stands out.
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


def solids(project: Project, enclosure: Enclosure) -> list[Solid]:
    """Return the boxes of an enclosure: devices as they were placed, then ducts, then rails."""
    found: list[Solid] = []
    for surface in SURFACES:
        for placing in placings_in(project, enclosure.id, surface):
            tag = full_tag(project, project.devices[placing.device_id])
            found.append(_solid(placing.id, "device", surface, tag, outline_of(project, placing.id)))
    for duct in sorted(project.ducts.values(), key=lambda d: d.id):
        if duct.enclosure_id == enclosure.id:
            found.append(_solid(duct.id, "duct", "plate", "duct", duct_outline(project, duct.id)))
    half = RAIL_WIDTH_MM / 2
    for rail in sorted(project.rails.values(), key=lambda r: r.id):
        if rail.enclosure_id == enclosure.id:
            long = rail_length(rail)
            level = Outline(rail.x1, rail.y1 - half, long, RAIL_WIDTH_MM, RAIL_DEPTH_MM)
            upright = Outline(rail.x1 - half, rail.y1, RAIL_WIDTH_MM, long, RAIL_DEPTH_MM)
            found.append(_solid(rail.id, "rail", "plate", "rail", level if rail_is_level(rail) else upright))
    return found


def _solid(id: str, kind: SolidKind, surface: Surface, tag: str, box: Outline) -> Solid:
    return Solid(id, kind, surface, tag, box.x, box.y, box.width, box.height, box.depth or USUAL_DEPTH_MM)
