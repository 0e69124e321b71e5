"""The mounting plate or door as DXF (R2010, millimetres, y upwards from the lower left corner).

Layers: PLATE outline, RAILS, DUCTS, DEVICES, TEXT, HOLES (round holes as circles, rectangles and
slots as closed polylines: fixing holes of rails and ducts, what the parts of devices say). The layout "Sheet" holds
the same surface as it is issued: in the project's frame, with dimensions, balloons and the table of its holes.
"""

from __future__ import annotations

from math import pi, tan
from typing import TYPE_CHECKING

from jolly_core.cabinet import (
    Hole,
    Outline,
    duct_outline,
    holes,
    outline,
    placings_in,
    rail_outline,
    surface_size,
)
from jolly_core.model import Enclosure, Project
from jolly_core.scenes import surface_leaves
from jolly_core.scenes.base.paints import LAYERS
from jolly_core.tagging import full_tag

from .dxffile import dxf_bytes, new_document
from .scenedxf import paint_scenes

if TYPE_CHECKING:
    from ezdxf.layouts.layout import Modelspace

TEXT_MM = 8.0


def surface_dxf(project: Project, enclosure_id: str, surface: str = "plate") -> bytes:
    """Return a surface of an enclosure as DXF.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    enclosure: Enclosure = project.get("enclosure", enclosure_id)
    width, height = surface_size(project, enclosure, surface)
    document = new_document()
    for name, layer in LAYERS.items():
        document.layers.add(name, color=layer.colour, lineweight=round(layer.pen.mm * 100))
    space = document.modelspace()
    _rectangle(space, "PLATE", Outline(0, 0, width, height, 0), height)
    here = (enclosure_id, surface)
    for rail in sorted(project.rails.values(), key=lambda r: r.id):
        if (rail.enclosure_id, rail.surface) == here:
            _rectangle(space, "RAILS", rail_outline(rail), height)
    for duct in sorted(project.ducts.values(), key=lambda d: d.id):
        if (duct.enclosure_id, duct.surface) == here:
            _rectangle(space, "DUCTS", duct_outline(project, duct.id), height)
    for placing in placings_in(project, enclosure_id, surface):
        box = outline(project, placing)
        _rectangle(space, "DEVICES", box, height)
        words = full_tag(project, project.devices[placing.device_id])
        text = space.add_text(
            words, dxfattribs={"layer": "TEXT", "height": min(TEXT_MM, box.width / max(4, len(words)))}
        )
        text.set_placement((box.x + 2, height - box.y - box.height / 2))
    for hole in holes(project, enclosure_id, surface):
        _cut(space, hole, height)
    # Beside the surface at true size, which machines read, its drawing in the project's frame on a layout of the file.
    paint_scenes(project, document, document.layouts.new("Sheet"), surface_leaves(project, enclosure_id, surface))
    return dxf_bytes(document, width, height)


def _cut(space: Modelspace, hole: Hole, height: float) -> None:
    """Draw a hole: a circle, else one closed polyline whose corners are arcs."""
    x, y, r = hole.x, height - hole.y, hole.radius
    if hole.is_round:
        space.add_circle((x, y), hole.width / 2, dxfattribs={"layer": "HOLES"})
        return
    a, b = hole.width / 2, hole.height / 2
    bulge = tan(pi / 8) if r else 0.0  # a quarter turn
    corners = ((a, r - b), (a, b - r), (a - r, b), (r - a, b), (-a, b - r), (-a, r - b), (r - a, -b), (a - r, -b))
    points = [(x + dx, y + dy, bulge if n % 2 else 0.0) for n, (dx, dy) in enumerate(corners)]
    space.add_lwpolyline(points, format="xyb", close=True, dxfattribs={"layer": "HOLES"})


def _rectangle(space: Modelspace, layer: str, box: Outline, height: float) -> None:
    low, high = height - box.y - box.height, height - box.y
    corners = [(box.x, low), (box.x + box.width, low), (box.x + box.width, high), (box.x, high)]
    space.add_lwpolyline(corners, close=True, dxfattribs={"layer": layer})
