"""The mounting plate or door as DXF (R2010, millimetres, y upwards from the lower left corner).

Layers: PLATE outline, RAILS, DUCTS, DEVICES, TEXT, HOLES (circles: fixing holes of rails and ducts, screws of
devices on the plate, round cut-outs of the door).
"""

from __future__ import annotations

import io
from datetime import datetime

import ezdxf.filemanagement
from ezdxf._options import options
from ezdxf.document import Drawing
from ezdxf.layouts.layout import Modelspace

from jolly_core.cabinet import (
    RAIL_WIDTH_MM,
    Outline,
    duct_outline,
    outline,
    placings_in,
    rail_is_level,
    surface_size,
)
from jolly_core.model import Duct, Enclosure, Project, Rail
from jolly_core.tagging import full_tag

LAYERS = {"PLATE": 7, "RAILS": 8, "DUCTS": 30, "DEVICES": 5, "TEXT": 3, "HOLES": 1}
FIXING_HOLE_MM = 5.5
FIXING_EDGE_MM = 20.0
FIXING_PITCH_MM = 250.0
DOOR_HOLE_MM = 22.5
SCREW_EDGE_MM = 6.0
TEXT_MM = 8.0


def holes(project: Project, enclosure_id: str, surface: str) -> list[tuple[float, float, float]]:
    """Return (x, y, diameter) of the holes of a surface in mm, y downwards from its upper left corner.

    A rail or duct has one near each end and others between, at most FIXING_PITCH_MM apart; a device screwed on the
    plate has two across its corners; one in the door has its round cut-out.
    """
    found: list[tuple[float, float, float]] = []
    if surface == "plate":
        runs: list[Rail | Duct] = [*project.rails.values(), *project.ducts.values()]
        for run in sorted((r for r in runs if r.enclosure_id == enclosure_id), key=lambda r: r.id):
            found += [(x, y, FIXING_HOLE_MM) for x, y in _along(run)]
    for placing in placings_in(project, enclosure_id, surface):
        box = outline(project, placing)
        if surface == "door":
            found.append((box.x + box.width / 2, box.y + box.height / 2, DOOR_HOLE_MM))
        elif not placing.rail_id:
            edge = min(SCREW_EDGE_MM, box.width / 4, box.height / 4)
            found.append((box.x + edge, box.y + edge, FIXING_HOLE_MM))
            found.append((box.x + box.width - edge, box.y + box.height - edge, FIXING_HOLE_MM))
    return [(round(x, 2), round(y, 2), d) for x, y, d in found]


def _along(run: Rail | Duct) -> list[tuple[float, float]]:
    length = abs(run.x2 - run.x1) + abs(run.y2 - run.y1)
    edge = min(FIXING_EDGE_MM, length / 4)
    gaps = max(1, -int(-(length - 2 * edge) // FIXING_PITCH_MM))
    steps = [edge + (length - 2 * edge) * n / gaps for n in range(gaps + 1)]
    if run.y1 == run.y2:
        return [(run.x1 + s, run.y1) for s in steps]
    return [(run.x1, run.y1 + s) for s in steps]


def surface_dxf(project: Project, enclosure_id: str, surface: str = "plate") -> bytes:
    """Return a surface of an enclosure as DXF.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    enclosure: Enclosure = project.get("enclosure", enclosure_id)
    width, height = surface_size(project, enclosure, surface)
    options.write_fixed_meta_data_for_testing = True  # no time of writing in the file: equal plates, equal bytes
    document = ezdxf.filemanagement.new("R2010", units=4)
    for name, colour in LAYERS.items():
        document.layers.add(name, color=colour)
    space = document.modelspace()
    _rectangle(space, "PLATE", Outline(0, 0, width, height, 0), height)
    if surface == "plate":
        for rail in sorted(project.rails.values(), key=lambda r: r.id):
            if rail.enclosure_id == enclosure_id:
                _rectangle(space, "RAILS", _rail_outline(rail), height)
        for duct in sorted(project.ducts.values(), key=lambda d: d.id):
            if duct.enclosure_id == enclosure_id:
                _rectangle(space, "DUCTS", duct_outline(project, duct.id), height)
    for placing in placings_in(project, enclosure_id, surface):
        box = outline(project, placing)
        _rectangle(space, "DEVICES", box, height)
        words = full_tag(project, project.devices[placing.device_id])
        text = space.add_text(
            words, dxfattribs={"layer": "TEXT", "height": min(TEXT_MM, box.width / max(4, len(words)))}
        )
        text.set_placement((box.x + 2, height - box.y - box.height / 2))
    for x, y, diameter in holes(project, enclosure_id, surface):
        space.add_circle((x, height - y), diameter / 2, dxfattribs={"layer": "HOLES"})
    return _written(document)


def _rail_outline(rail: Rail) -> Outline:
    half = RAIL_WIDTH_MM / 2
    if rail_is_level(rail):
        return Outline(rail.x1, rail.y1 - half, rail.x2 - rail.x1, RAIL_WIDTH_MM, 0)
    return Outline(rail.x1 - half, rail.y1, RAIL_WIDTH_MM, rail.y2 - rail.y1, 0)


def _rectangle(space: Modelspace, layer: str, box: Outline, height: float) -> None:
    low, high = height - box.y - box.height, height - box.y
    corners = [(box.x, low), (box.x + box.width, low), (box.x + box.width, high), (box.x, high)]
    space.add_lwpolyline(corners, close=True, dxfattribs={"layer": layer})


def _written(document: Drawing) -> bytes:
    document.header["$TDCREATE"] = document.header["$TDUPDATE"] = _julian(datetime(2000, 1, 1))
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode("utf-8")


def _julian(moment: datetime) -> float:
    return moment.toordinal() + 1721424.5
