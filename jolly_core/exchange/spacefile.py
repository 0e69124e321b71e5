"""A harness for a space model, as JSON: what it joins, its wires, how thick its bundles are and how they may bend.

The same format comes back with nodes and paths, which the edit `take-in-space` takes in; see docs/formats/space.md.
"""

from __future__ import annotations

import json
from typing import Any

from jolly_core.cables import copper_of
from jolly_core.harness import (
    HarnessWire,
    bundles,
    cables_of,
    cavity_rows,
    is_splice,
    lead_through,
    node_name,
    nodes_of,
    run_name,
    segments_of,
    span_of,
    wires_of,
)
from jolly_core.model import Node, Project
from jolly_core.sizing import outer_diameter_mm
from jolly_core.tagging import full_tag, pin_name

SPACE_FORMAT, SPACE_VERSION = "jolly-spool-space", 1


def space_json(project: Project, harness_id: str) -> str:
    """Return a harness for a space model.

    Raises:
        GoneError: it is not in the project.
    """
    harness = project.get("harness", harness_id)
    nodes = nodes_of(project, harness.id)
    names = {n.id: _name(project, n) for n in nodes}
    content = {
        "format": SPACE_FORMAT,
        "version": SPACE_VERSION,
        "harness": harness.code,
        "text": harness.text,
        "apart": harness.apart,
        "connectors": [_connector(project, n) for n in nodes if n.device_id],
        "wires": [_wire(project, w) for w in wires_of(project, harness.id)],
        "bundles": [
            {
                "start": names[s.a_id],
                "end": names[s.b_id],
                "wires": len(bundle.wires),
                "diameter_mm": round(bundle.diameter_mm, 2),
                "bend_radius_mm": bundle.bend_mm,
                "length_mm": span_of(project, s.id).base_mm,
                "beside": list(bundle.beside),
            }
            for s in segments_of(project, harness.id)
            for bundle in (bundles(project, harness.id)[s.id],)
        ],
        "clips": [_clip(project, n) for n in nodes if n.sort == "clip"],
        "nodes": [{"name": names[n.id], "sort": _sort(project, n), "at": list(n.at)} for n in nodes if n.at],
        "paths": [
            {"start": names[s.a_id], "end": names[s.b_id], "form": s.form, "points": list(s.path)}
            for s in segments_of(project, harness.id)
            if s.form != "typed"
        ],
    }
    return json.dumps(content, ensure_ascii=False, indent=1) + "\n"


def _name(project: Project, node: Node) -> str:
    return node_name(project, node) if node.device_id else node.name or node.id


def _sort(project: Project, node: Node) -> str:
    if node.device_id:
        return "splice" if is_splice(project, node.device_id) else "connector"
    return node.sort or "branching"


def _connector(project: Project, node: Node) -> dict[str, Any]:
    device = project.devices[node.device_id]
    part = project.part_of(device)
    return {
        "designation": full_tag(project, device),
        "text": device.text,
        "part": part.number if part else "",
        "cavities": [row.cavity for row in cavity_rows(project, device.id)],
    }


def _wire(project: Project, wire: HarnessWire) -> dict[str, Any]:
    c = wire.conductor
    copper = copper_of(project, c)
    area = copper.area_mm2
    cable, _ = cables_of(project, wire.harness_id).get(c.key, ("", ""))
    return {
        "number": c.number,
        "colour": copper.colour,
        "cross_section_mm2": area,
        "outer_diameter_mm": round(outer_diameter_mm(area), 2),
        "start": pin_name(project, c.start),
        "end": pin_name(project, c.end),
        "cable": full_tag(project, project.devices[cable]) if cable else "",
    }


def _clip(project: Project, node: Node) -> dict[str, Any]:
    part = project.parts.get(node.part_id)
    inside = [
        {"name": run_name(project, led.run), "diameter_mm": led.run.diameter_mm, "x": led.x, "y": led.y}
        for led in lead_through(project, node.id).inside
    ]
    return {
        "name": _name(project, node),
        "part": part.number if part else "",
        "led": node.led or "packed",
        "inside": inside,
    }
