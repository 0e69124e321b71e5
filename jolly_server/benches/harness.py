"""What the Harness bench shows."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.harness import (
    HarnessWire,
    bundles,
    cavity_rows,
    free_connectors,
    harnesses,
    node_name,
    nodes_of,
    segments_of,
    wires_of,
)
from jolly_core.model import Project
from jolly_core.scenes import generated_pages, page_scene
from jolly_core.tagging import pin_name
from jolly_server.projects.sceneshapes import SceneValue, scene_value

from .shapes import DeviceName, FromTo, conductor_place, device_value


class HarnessName(TypedDict):
    """A harness by its code."""

    id: str
    code: str
    text: str


class HarnessWireValue(FromTo):
    """A wire of a harness; `missing` says why it has no length."""

    key: str
    number: str
    type: str
    colour: str
    length_mm: float | None
    missing: str
    why: str
    segments: list[str]
    wire_id: str
    sheet_id: str
    place: str


class SegmentValue(TypedDict):
    """A segment between two nodes, with how many wires run in it and how thick they are together."""

    id: str
    a: str
    b: str
    length_mm: float
    wires: int
    diameter_mm: float


class NodeValue(TypedDict):
    """An end or a branching."""

    id: str
    device_id: str
    name: str


class CavityValue(TypedDict):
    """A cavity of a connector: its wires, where they lead, its contact."""

    cavity: str
    wires: list[str]
    to: list[str]
    contact: str
    strip_mm: float


class ConnectorValue(DeviceName):
    """A connector with its cavities."""

    cavities: list[CavityValue]


class HarnessValue(HarnessName):
    """A harness with all about it."""

    page_id: str
    scene: SceneValue | None
    nodes: list[NodeValue]
    segments: list[SegmentValue]
    wires: list[HarnessWireValue]
    connectors: list[ConnectorValue]


class HarnessView(TypedDict):
    """What the Harness bench shows: the harnesses, connectors in none, and the harness asked for."""

    harnesses: list[HarnessName]
    free: list[DeviceName]
    harness: HarnessValue | None


def harness_bench(project: Project, harness_id: str = "") -> HarnessView:
    """Return the harnesses and all about the one asked for, or the first."""
    found = harnesses(project)
    chosen = next((h.id for h in found if h.id == harness_id), found[0].id if found else "")
    return {
        "harnesses": [{"id": h.id, "code": h.code, "text": h.text} for h in found],
        "free": [device_value(project, d) for d in free_connectors(project)],
        "harness": _harness(project, chosen) if chosen else None,
    }


def _harness(project: Project, harness_id: str) -> HarnessValue:
    harness = project.harnesses[harness_id]
    page = next((p for p in generated_pages(project) if p.kind == "board" and p.subject == harness_id), None)
    sizes = bundles(project, harness_id)
    return {
        "id": harness.id,
        "code": harness.code,
        "text": harness.text,
        "page_id": page.id if page else "",
        "scene": scene_value(page_scene(project, page.id)) if page else None,
        "nodes": [
            {"id": n.id, "device_id": n.device_id, "name": node_name(project, n)} for n in nodes_of(project, harness_id)
        ],
        "segments": [
            {
                "id": s.id,
                "a": s.a_id,
                "b": s.b_id,
                "length_mm": s.length_mm,
                "wires": len(sizes[s.id].wires),
                "diameter_mm": round(sizes[s.id].diameter_mm, 2),
            }
            for s in segments_of(project, harness_id)
        ],
        "wires": [_wire(project, w) for w in wires_of(project, harness_id)],
        "connectors": [_connector(project, n.device_id) for n in nodes_of(project, harness_id) if n.device_id],
    }


def _wire(project: Project, wire: HarnessWire) -> HarnessWireValue:
    c = wire.conductor
    wire_type = c.wire_type(project)
    return {
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


def _connector(project: Project, device_id: str) -> ConnectorValue:
    rows: list[CavityValue] = []
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
