"""What the Cabinet bench shows: plan, tray, routes, fill, warmth, and boxes for the picture in space."""

from __future__ import annotations

from typing import Literal, NotRequired

from typing_extensions import TypedDict

from jolly_core.cabinet import (
    SURFACE_WORDS,
    Fault,
    Solid,
    Surface,
    duct_fills,
    enclosure_warmth,
    enclosures,
    fill_words,
    helps,
    lane_name,
    layout_faults,
    placings_in,
    rail_is_level,
    rail_load,
    run_length,
    size_of,
    solids,
    surface_for,
    surface_size,
    surfaces_of,
    tray,
)
from jolly_core.circuits import supply_loads
from jolly_core.library import Library, part_class
from jolly_core.model import Enclosure, Project, RuleError, sides_words
from jolly_core.scenes import MARGIN_MM, door_back_scene, surface_scene
from jolly_core.tagging import full_tag, natural
from jolly_server.shapes.sceneshapes import SceneValue, scene_value

from .cabinetlanding import LayoutStamp, layout_stamps
from .cabinetlanes import (
    EyeletValue,
    GapValue,
    LaneValue,
    class_of,
    drawn_at,
    eyelet_values,
    function_words,
    gap_values,
    lane_values,
)
from .cabinetways import RouteValue, all_routes, routed_words
from .shapes import DeviceName, device_value

Look = Literal["plate", "door", "left", "right", "roof", "gland", "door-back"]
Size = tuple[float, float]


class Waiting(DeviceName):
    """A device in the tray: its size in mm, the surface it is for, and where it is drawn.

    Attributes:
        sheet: number of the sheet it is drawn on first, "" while it is planned; `order` goes on along the sheets.
        kind: name of its part class.
    """

    width: float
    height: float
    surface: Surface
    mounting: str
    sheet: str
    order: int
    function: str
    kind: str
    class_key: str


class EnclosureName(DeviceName):
    """An enclosure by its device, with its outside size in words."""

    device_id: str
    size: str


class LayoutFault(TypedDict):
    """A fault of the layout, and what it concerns."""

    code: str
    message: str
    ids: list[str]


class LossValue(TypedDict):
    """What a device gives off in W, None while its part does not say."""

    tag: str
    part: str
    watts: float | None


class HelpValue(TypedDict):
    """A part of the library that would hold the temperature, and why."""

    what: str
    part_id: str
    number: str
    why: str
    surface: Surface


class Heat(TypedDict):
    """How warm it gets inside: loss in W, rise in K, temperature in degrees Celsius, and what would hold it."""

    loss_w: float
    rise_k: float
    inside_c: float
    why: str
    words: str
    calm: bool
    standing: str
    losses: list[LossValue]
    helps: list[HelpValue]


class RailValue(TypedDict):
    """A rail: whether it is level, its length and what stands on it, mm."""

    id: str
    level: bool
    length: float
    load: float


class SupplyValue(TypedDict):
    """A supply placed in the enclosure: what it gives and feeds, A, and what that is made of."""

    tag: str
    gives_a: float
    takes_a: float
    percent: float
    consumers: list[tuple[str, float]]
    silent: list[str]


class SurfaceValue(TypedDict):
    """A surface of an enclosure, and its size in mm."""

    name: Surface
    words: str
    width: float
    height: float
    things: int


class FillValue(TypedDict):
    """How full a duct is at its fullest place, percent."""

    duct_id: str
    percent: float
    wires: int
    words: str
    why: str


class EnclosureValue(EnclosureName):
    """An enclosure with all about it; what needs its size is left out while there is a `problem` with that."""

    ambient_c: float
    inside_max_c: float
    coldest_c: float
    inside_min_c: float
    standing: str
    swing_deg: float
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
    routed: NotRequired[str]
    rails: NotRequired[list[RailValue]]
    fills: NotRequired[list[FillValue]]
    surfaces: NotRequired[list[SurfaceValue]]
    lanes: NotRequired[list[LaneValue]]
    eyelets: NotRequired[list[EyeletValue]]
    gaps: NotRequired[list[GapValue]]
    supplies: NotRequired[list[SupplyValue]]


class CabinetView(TypedDict):
    """What the Cabinet bench shows: the enclosures, what waits to be placed, kept layouts, the enclosure asked for."""

    enclosures: list[EnclosureName]
    stamps: list[LayoutStamp]
    tray: list[Waiting]
    enclosure: EnclosureValue | None


def cabinet_bench(project: Project, library: Library, enclosure_id: str = "", surface: Look = "plate") -> CabinetView:
    """Return the enclosures and all about the one asked for, or the first."""
    found = enclosures(project)
    chosen = next((e for e in found if e.id == enclosure_id), found[0] if found else None)
    return {
        "enclosures": [_name(project, e) for e in found],
        "stamps": layout_stamps(project),
        "tray": [_waiting(project, d.id) for d in tray(project)],
        "enclosure": _enclosure(project, library, chosen, surface) if chosen else None,
    }


def _name(project: Project, enclosure: Enclosure) -> EnclosureName:
    device = project.devices[enclosure.device_id]
    part = project.part_of(device)
    size = sides_words(project, part.width_mm, part.height_mm, part.depth_mm) if part else "no part yet"
    return {**device_value(project, device), "id": enclosure.id, "device_id": device.id, "size": size}


def _waiting(project: Project, device_id: str) -> Waiting:
    device = project.devices[device_id]
    width, height, _ = size_of(project, device)
    part = project.part_of(device)
    place, sheet = drawn_at(project, device_id)
    key = part.part_class if part else class_of(project, device_id)
    return {
        **device_value(project, device),
        "width": width,
        "height": height,
        "surface": surface_for(project, device),
        "mounting": part.mounting if part else "",
        "sheet": sheet,
        "order": place,
        "function": function_words(project, device),
        "kind": part_class(key).name if key else "",
        "class_key": key,
    }


def _fault(fault: Fault) -> LayoutFault:
    return {"code": fault.code, "message": fault.message, "ids": list(fault.ids)}


def _enclosure(project: Project, library: Library, enclosure: Enclosure, surface: Look) -> EnclosureValue:
    part = project.part_of(project.devices[enclosure.device_id])
    name = _name(project, enclosure)
    value: EnclosureValue = {
        "id": name["id"],
        "device_id": name["device_id"],
        "tag": name["tag"],
        "text": name["text"],
        "part": name["part"],
        "size": name["size"],
        "ambient_c": enclosure.ambient_c,
        "inside_max_c": enclosure.inside_max_c,
        "coldest_c": enclosure.coldest_c,
        "inside_min_c": enclosure.inside_min_c,
        "standing": enclosure.standing,
        "swing_deg": enclosure.swing_deg,
        "hinge": "left" if enclosure.hinge == "left" else "right",
        "left_id": enclosure.left_id,
        "opening_mm": enclosure.opening_mm,
        "margin": MARGIN_MM,
        "outside": (part.width_mm, part.height_mm, part.depth_mm) if part else (0, 0, 0),
        "problem": "",
        "faults": [_fault(f) for f in layout_faults(project, enclosure)],
    }
    try:
        value["surfaces"] = _surfaces(project, enclosure)
        value["plate"], value["door"] = (surface_size(project, enclosure, s) for s in ("plate", "door"))
        there = surface if surface in ("door-back", *surfaces_of(project, enclosure)) else "plate"
        scene = door_back_scene(project, enclosure.id) if there == "door-back" else None
        value["scene"] = scene_value(scene or surface_scene(project, enclosure.id, there))
        value["heat"] = _heat(project, library, enclosure)
    except RuleError as error:
        value["problem"] = error.message
        return value
    value["boxes"] = solids(project, enclosure)
    value["routes"] = [value for id, value in all_routes(project) if id in (enclosure.id, "")]
    value["routed"] = routed_words(project, value["routes"])
    value["rails"] = [
        {"id": r.id, "level": rail_is_level(r), "length": run_length(r), "load": round(rail_load(project, r), 1)}
        for r in sorted(project.rails.values(), key=lambda r: r.id)
        if r.enclosure_id == enclosure.id
    ]
    value["fills"] = [
        {
            "duct_id": f.duct_id,
            "percent": round(f.percent, 2),
            "wires": f.wires,
            "words": fill_words(project, f),
            "why": f.why,
        }
        for f in sorted(
            duct_fills(project, enclosure.id).values(), key=lambda f: natural(lane_name(project, f.duct_id))
        )
    ]
    value["lanes"] = lane_values(project, enclosure)
    value["eyelets"] = eyelet_values(project, enclosure)
    value["gaps"] = gap_values(project, enclosure)
    value["supplies"] = _supplies(project, enclosure)
    return value


def _surfaces(project: Project, enclosure: Enclosure) -> list[SurfaceValue]:
    found: list[SurfaceValue] = []
    for surface in surfaces_of(project, enclosure):
        width, height = surface_size(project, enclosure, surface)
        things = len(placings_in(project, enclosure.id, surface))
        words = SURFACE_WORDS[surface]
        found.append({"name": surface, "words": words, "width": width, "height": height, "things": things})
    return found


def _supplies(project: Project, enclosure: Enclosure) -> list[SupplyValue]:
    here = {p.device_id for p in placings_in(project, enclosure.id)}
    return [
        {
            "tag": full_tag(project, load.device),
            "gives_a": round(load.gives_a, 2),
            "takes_a": round(load.takes_a, 2),
            "percent": round(load.percent, 1),
            "consumers": [(full_tag(project, c.device), c.amps) for c in load.consumers],
            "silent": list(load.silent),
        }
        for load in supply_loads(project)
        if load.device.id in here
    ]


HELPING = ("fan", "vent-filter", "cooling-unit", "heater")


def _heat(project: Project, library: Library, enclosure: Enclosure) -> Heat:
    warmth = enclosure_warmth(project, enclosure)
    wanted = warmth.inside_c > enclosure.inside_max_c or warmth.heater_w > 0
    parts = [p for key in HELPING for p in library.parts_of(key)] if wanted else []
    return {
        "loss_w": round(warmth.loss_w, 2),
        "rise_k": round(warmth.warming.rise_k, 2),
        "inside_c": round(warmth.inside_c, 1),
        "why": warmth.warming.why,
        "words": warmth.words,
        "calm": not wanted,
        "standing": warmth.standing,
        "losses": [{"tag": one.tag, "part": one.part, "watts": one.watts} for one in warmth.losses],
        "helps": [
            {
                "what": h.what,
                "part_id": h.part.id,
                "number": h.part.number,
                "why": h.why,
                "surface": "door" if h.part.mounting == "door hole" else "plate",
            }
            for h in helps(warmth, enclosure, parts)
        ],
    }
