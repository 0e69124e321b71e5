"""What the Cabinet bench shows: plan, tray, routes, fill, warmth, and boxes for the picture in space."""

from __future__ import annotations

from typing import Literal, NotRequired

from typing_extensions import TypedDict

from jolly_core.cabinet import (
    Fault,
    Route,
    Solid,
    Surface,
    duct_fills,
    enclosure_warmth,
    enclosures,
    layout_faults,
    rail_is_level,
    rail_length,
    rail_load,
    routes_from,
    size_of,
    solids,
    surface_for,
    surface_size,
    tray,
)
from jolly_core.model import Enclosure, Project, RuleError, derived, listed
from jolly_core.scenes import MARGIN_MM, surface_scene
from jolly_core.tagging import pin_name
from jolly_server.projects.sceneshapes import SceneValue, scene_value

from .shapes import DeviceName, FromTo, device_value

Size = tuple[float, float]


class Waiting(DeviceName):
    """A device in the tray, with its size in mm and the surface it is for."""

    width: float
    height: float
    surface: Surface
    mounting: str


class EnclosureName(DeviceName):
    """An enclosure by its device."""

    device_id: str


class LayoutFault(TypedDict):
    """A fault of the layout, and what it concerns."""

    code: str
    message: str
    ids: list[str]


class RouteValue(FromTo):
    """A wire of the panel with its way: points on plate and door in mm, ducts it runs in, and the sum of its length."""

    key: str
    number: str
    ends: tuple[str, str]
    type: str
    colour: str
    length_mm: float | None
    missing: str
    why: str
    plate: list[Size]
    door: list[Size]
    ducts: list[str]
    wire_id: str
    sheet_id: str


class Heat(TypedDict):
    """How warm it gets inside: loss in W, rise in K, temperature in degrees Celsius."""

    loss_w: float
    rise_k: float
    inside_c: float
    why: str


class RailValue(TypedDict):
    """A rail: whether it is level, its length and what stands on it, mm."""

    id: str
    level: bool
    length: float
    load: float


class FillValue(TypedDict):
    """How full a duct is at its fullest place, percent."""

    duct_id: str
    percent: float
    wires: int
    why: str


class EnclosureValue(EnclosureName):
    """An enclosure with all about it; what needs its size is left out while there is a `problem` with that."""

    ambient_c: float
    hinge: Literal["left", "right"]
    left_id: str
    opening_mm: float
    margin: float
    outside: tuple[float, float, float]
    problem: str
    faults: list[LayoutFault]
    plate: NotRequired[Size]
    door: NotRequired[Size]
    scene: NotRequired[SceneValue]
    heat: NotRequired[Heat]
    boxes: NotRequired[list[Solid]]
    routes: NotRequired[list[RouteValue]]
    rails: NotRequired[list[RailValue]]
    fills: NotRequired[list[FillValue]]


class CabinetView(TypedDict):
    """What the Cabinet bench shows: the enclosures, what waits to be placed, and the enclosure asked for."""

    enclosures: list[EnclosureName]
    tray: list[Waiting]
    enclosure: EnclosureValue | None


def cabinet_bench(project: Project, enclosure_id: str = "", surface: Surface = "plate") -> CabinetView:
    """Return the enclosures and all about the one asked for, or the first."""
    found = enclosures(project)
    chosen = next((e for e in found if e.id == enclosure_id), found[0] if found else None)
    return {
        "enclosures": [_name(project, e) for e in found],
        "tray": [_waiting(project, d.id) for d in tray(project)],
        "enclosure": _enclosure(project, chosen, surface) if chosen else None,
    }


def _name(project: Project, enclosure: Enclosure) -> EnclosureName:
    device = project.devices[enclosure.device_id]
    return {**device_value(project, device), "id": enclosure.id, "device_id": device.id}


def _waiting(project: Project, device_id: str) -> Waiting:
    device = project.devices[device_id]
    width, height, _ = size_of(project, device)
    part = project.part_of(device)
    return {
        **device_value(project, device),
        "width": width,
        "height": height,
        "surface": surface_for(project, device),
        "mounting": part.mounting if part else "",
    }


def _fault(fault: Fault) -> LayoutFault:
    return {"code": fault.code, "message": fault.message, "ids": list(fault.ids)}


def _enclosure(project: Project, enclosure: Enclosure, surface: Surface) -> EnclosureValue:
    part = project.part_of(project.devices[enclosure.device_id])
    name = _name(project, enclosure)
    value: EnclosureValue = {
        "id": name["id"],
        "device_id": name["device_id"],
        "tag": name["tag"],
        "text": name["text"],
        "part": name["part"],
        "ambient_c": enclosure.ambient_c,
        "hinge": "left" if enclosure.hinge == "left" else "right",
        "left_id": enclosure.left_id,
        "opening_mm": enclosure.opening_mm,
        "margin": MARGIN_MM,
        "outside": (part.width_mm, part.height_mm, part.depth_mm) if part else (0, 0, 0),
        "problem": "",
        "faults": [_fault(f) for f in layout_faults(project, enclosure)],
    }
    try:
        value["plate"], value["door"] = (surface_size(project, enclosure, s) for s in ("plate", "door"))
        value["scene"] = scene_value(surface_scene(project, enclosure.id, surface))
        warmth = enclosure_warmth(project, enclosure)
    except RuleError as error:
        value["problem"] = error.message
        return value
    value["heat"] = {
        "loss_w": round(warmth.loss_w, 2),
        "rise_k": round(warmth.warming.rise_k, 2),
        "inside_c": round(warmth.inside_c, 1),
        "why": warmth.warming.why,
    }
    value["boxes"] = solids(project, enclosure)
    value["routes"] = [value for id, value in _all_routes(project) if id in (enclosure.id, "")]
    value["rails"] = [
        {"id": r.id, "level": rail_is_level(r), "length": rail_length(r), "load": round(rail_load(project, r), 1)}
        for r in project.rails.values()
        if r.enclosure_id == enclosure.id
    ]
    value["fills"] = [
        {"duct_id": f.duct_id, "percent": round(f.percent, 2), "wires": f.wires, "why": f.why}
        for f in duct_fills(project, enclosure.id).values()
    ]
    return value


@derived
def _routes_from(project: Project, sheet_id: str) -> list[tuple[str, RouteValue]]:
    """Return the routes of nets that begin on a sheet as values, each with its enclosure."""
    return [(r.enclosure_id, _route(project, key, r)) for key, r in routes_from(project, sheet_id).items()]


def _route(project: Project, key: str, route: Route) -> RouteValue:
    c = route.conductor
    wire_type = c.wire_type(project)
    return {
        "key": key,
        "number": c.number,
        "from": pin_name(project, c.start),
        "to": pin_name(project, c.end),
        "ends": (project.symbols[c.start[0]].device_id, project.symbols[c.end[0]].device_id),
        "type": wire_type.name if wire_type else "",
        "colour": wire_type.colour if wire_type else "BK",
        "length_mm": route.length_mm,
        "missing": route.missing,
        "why": route.why,
        "plate": route.points_on("plate"),
        "door": route.points_on("door"),
        "ducts": [s[0] for s in route.stretches],
        "wire_id": c.wire_id,
        "sheet_id": c.sheet_id,
    }


_all_routes = listed(_routes_from)
