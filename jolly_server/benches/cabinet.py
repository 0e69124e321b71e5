"""What the Cabinet bench shows: plan, tray, routes, fill, warmth, and boxes for the picture in space."""

from __future__ import annotations

from typing import Any

from jolly_core.cabinet import (
    duct_fills,
    duct_outline,
    enclosure_warming,
    enclosures,
    layout_faults,
    outline_of,
    placings_in,
    rail_is_level,
    rail_length,
    rail_load,
    routes_from,
    size_of,
    surface_size,
    tray,
)
from jolly_core.model import Enclosure, Project, RuleError, derived, listed
from jolly_core.scenes import MARGIN_MM, surface_scene
from jolly_core.tagging import full_tag, pin_name, place_side

from .shapes import device_value, scene_value


def cabinet_bench(project: Project, enclosure_id: str = "", surface: str = "plate") -> dict[str, Any]:
    """Return the enclosures and all about the one asked for, or the first."""
    found = enclosures(project)
    listed = [
        {**device_value(project, project.devices[e.device_id]), "id": e.id, "device_id": e.device_id} for e in found
    ]
    chosen = next((e for e in found if e.id == enclosure_id), found[0] if found else None)
    return {
        "enclosures": listed,
        "tray": [_waiting(project, d.id) for d in tray(project)],
        "enclosure": _enclosure(project, chosen, surface) if chosen else None,
    }


def _waiting(project: Project, device_id: str) -> dict[str, Any]:
    device = project.devices[device_id]
    width, height, _ = size_of(project, device)
    part = project.part_of(device)
    door = place_side(project, device) == "door" or (part is not None and part.mounting == "door hole")
    return {
        **device_value(project, device),
        "width": width,
        "height": height,
        "surface": "door" if door else "plate",
        "mounting": part.mounting if part else "",
    }


def _enclosure(project: Project, enclosure: Enclosure, surface: str) -> dict[str, Any]:
    device = project.devices[enclosure.device_id]
    part = project.part_of(device)
    value: dict[str, Any] = {
        **device_value(project, device),
        "id": enclosure.id,
        "device_id": device.id,
        "ambient_c": enclosure.ambient_c,
        "hinge": enclosure.hinge,
        "left_id": enclosure.left_id,
        "opening_mm": enclosure.opening_mm,
        "margin": MARGIN_MM,
        "outside": [part.width_mm, part.height_mm, part.depth_mm] if part else [0, 0, 0],
        "problem": "",
        "faults": [
            {"code": f.code, "message": f.message, "ids": list(f.ids)} for f in layout_faults(project, enclosure)
        ],
    }
    try:
        plate, door = (surface_size(project, enclosure, s) for s in ("plate", "door"))
        value |= {
            "plate": list(plate),
            "door": list(door),
            "scene": scene_value(surface_scene(project, enclosure.id, surface)),
        }
        loss, warmth = enclosure_warming(project, enclosure)
    except RuleError as error:
        return value | {"problem": error.message}
    value["heat"] = {
        "loss_w": round(loss, 2),
        "rise_k": round(warmth.rise_k, 2),
        "inside_c": round(enclosure.ambient_c + warmth.rise_k, 1),
        "why": warmth.why,
    }
    value["boxes"] = _boxes(project, enclosure)
    value["routes"] = _routes(project, enclosure)
    value["rails"] = [
        {"id": r.id, "level": rail_is_level(r), "length": rail_length(r), "load": round(rail_load(project, r), 1)}
        for r in project.rails.values()
        if r.enclosure_id == enclosure.id
    ]
    fills = duct_fills(project, enclosure.id)
    value["fills"] = [
        {"duct_id": f.duct_id, "percent": round(f.percent, 2), "wires": f.wires, "why": f.why} for f in fills.values()
    ]
    return value


def _boxes(project: Project, enclosure: Enclosure) -> list[dict[str, Any]]:
    boxes: list[dict[str, Any]] = []
    for surface in ("plate", "door"):
        for placing in placings_in(project, enclosure.id, surface):
            box = outline_of(project, placing.id)
            tag = full_tag(project, project.devices[placing.device_id])
            boxes.append(
                {"id": placing.id, "kind": "device", "surface": surface, "tag": tag, "depth": box.depth or 40}
                | {"x": box.x, "y": box.y, "width": box.width, "height": box.height}
            )
    for duct in sorted(project.ducts.values(), key=lambda d: d.id):
        if duct.enclosure_id == enclosure.id:
            box = duct_outline(project, duct.id)
            boxes.append(
                {"id": duct.id, "kind": "duct", "surface": "plate", "tag": "duct", "depth": box.depth}
                | {"x": box.x, "y": box.y, "width": box.width, "height": box.height}
            )
    for rail in sorted(project.rails.values(), key=lambda r: r.id):
        if rail.enclosure_id == enclosure.id:
            level = rail_is_level(rail)
            x, y = (rail.x1, rail.y1 - 17.5) if level else (rail.x1 - 17.5, rail.y1)
            size = (rail_length(rail), 35.0) if level else (35.0, rail_length(rail))
            boxes.append(
                {"id": rail.id, "kind": "rail", "surface": "plate", "tag": "rail", "depth": 7.5}
                | {"x": x, "y": y, "width": size[0], "height": size[1]}
            )
    return boxes


def _routes(project: Project, enclosure: Enclosure) -> list[dict[str, Any]]:
    return [value for id, value in _all_routes(project) if id in (enclosure.id, "")]


@derived
def _routes_from(project: Project, sheet_id: str) -> list[tuple[str, dict[str, Any]]]:
    """Return the routes of nets that begin on a sheet as values, each with its enclosure."""
    found = []
    for key, route in routes_from(project, sheet_id).items():
        c = route.conductor
        wire_type = c.wire_type(project)
        found.append(
            (
                route.enclosure_id,
                {
                    "key": key,
                    "number": c.number,
                    "from": pin_name(project, c.start),
                    "to": pin_name(project, c.end),
                    "ends": [project.symbols[c.start[0]].device_id, project.symbols[c.end[0]].device_id],
                    "type": wire_type.name if wire_type else "",
                    "colour": wire_type.colour if wire_type else "BK",
                    "length_mm": route.length_mm,
                    "missing": route.missing,
                    "why": route.why,
                    "plate": [list(p) for p in route.plate],
                    "door": [list(p) for p in route.door],
                    "ducts": [s[0] for s in route.stretches],
                    "wire_id": c.wire_id,
                    "sheet_id": c.sheet_id,
                },
            )
        )
    return found


_all_routes = listed(_routes_from)
