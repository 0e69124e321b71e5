"""What the Harness bench shows."""

from __future__ import annotations

from typing import Any

from jolly_core.harness import bundles, cavity_rows, harnesses, nodes_of, segments_of, wires_of
from jolly_core.library import definition
from jolly_core.model import Device, Project
from jolly_core.scenes import generated_pages, page_scene
from jolly_core.tagging import full_tag, pin_name

from .shapes import conductor_place, device_value, scene_value


def harness_bench(project: Project, harness_id: str = "") -> dict[str, Any]:
    """Return the harnesses and all about the one asked for, or the first."""
    found = harnesses(project)
    chosen = next((h.id for h in found if h.id == harness_id), found[0].id if found else "")
    return {
        "harnesses": [{"id": h.id, "code": h.code, "text": h.text} for h in found],
        "free": [device_value(project, d) for d in free_connectors(project)],
        "harness": _harness(project, chosen) if chosen else None,
    }


def free_connectors(project: Project) -> list[Device]:
    """Return the connectors that are in no harness yet, by tag."""
    inside = {n.device_id for n in project.nodes.values()}
    found = [
        d
        for d in project.devices.values()
        if d.id not in inside and any(definition(s.definition).unit == "cavity" for s in project.units_of(d.id))
    ]
    return sorted(found, key=lambda d: full_tag(project, d))


def _harness(project: Project, harness_id: str) -> dict[str, Any]:
    harness = project.harnesses[harness_id]
    page = next((p for p in generated_pages(project) if p.kind == "board" and p.subject == harness_id), None)
    sizes = bundles(project, harness_id)
    nodes = []
    for node in nodes_of(project, harness_id):
        device = project.devices.get(node.device_id)
        name = full_tag(project, device) if device else f"branching {node.name}".strip()
        nodes.append({"id": node.id, "device_id": node.device_id, "name": name})
    wires = []
    for wire in wires_of(project, harness_id):
        c = wire.conductor
        wire_type = c.wire_type(project)
        wires.append(
            {
                "key": c.key,
                "number": c.number,
                "from": pin_name(project, c.start),
                "to": pin_name(project, c.end),
                "type": wire_type.name if wire_type else "",
                "colour": wire_type.colour if wire_type else "BK",
                "length_mm": wire.length_mm,
                "missing": wire.missing,
                "why": wire.why,
                "segments": [s.id for s in wire.segments],
                "wire_id": c.wire_id,
                **conductor_place(project, c),
            }
        )
    return {
        "id": harness.id,
        "code": harness.code,
        "text": harness.text,
        "page_id": page.id if page else "",
        "scene": scene_value(page_scene(project, page.id)) if page else None,
        "nodes": nodes,
        "segments": [
            {
                "id": s.id,
                "a": s.a_id,
                "b": s.b_id,
                "length_mm": s.length_mm,
                "wires": len(sizes[s.id][0]),
                "diameter_mm": round(sizes[s.id][1], 2),
            }
            for s in segments_of(project, harness_id)
        ],
        "wires": wires,
        "connectors": [_connector(project, n.device_id) for n in nodes_of(project, harness_id) if n.device_id],
    }


def _connector(project: Project, device_id: str) -> dict[str, Any]:
    rows = []
    for row in cavity_rows(project, device_id):
        to = [pin_name(project, pin) for pin in row.far]
        rows.append(
            {
                "cavity": row.cavity,
                "wires": [c.number for c in row.conductors],
                "to": to,
                "contact": row.contact.number if row.contact else "",
                "strip_mm": row.strip_mm,
            }
        )
    return {**device_value(project, project.devices[device_id]), "cavities": rows}
