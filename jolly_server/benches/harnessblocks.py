"""What the Harness bench shows of harnesses as blocks."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.harness import blocks, mate_of, mates_named, nodes_at, owner_of
from jolly_core.model import Device, Project
from jolly_core.scenes import BLOCKS, blocks_scene, generated_pages
from jolly_core.tagging import lead_of
from jolly_server.shapes.sceneshapes import SceneValue, scene_value

from .shapes import DeviceName, Place, device_value, symbol_place


class CodeName(TypedDict):
    """A harness by its code."""

    id: str
    code: str


class ConnectorFacts(TypedDict):
    """What a connector sits on, is plugged to and may be plugged to, its harnesses, and where it is drawn."""

    owner: DeviceName | None
    mate: DeviceName | None
    mates: list[str]
    gender: str
    harnesses: list[CodeName]
    drawn: Place


class BlockConnector(DeviceName):
    """A connector in the picture of blocks."""

    facts: ConnectorFacts


class BlockBoxValue(DeviceName):
    """A box of the picture: the device, and whether it is a connector by itself."""

    connector: bool


class BlocksView(TypedDict):
    """Harnesses as blocks; there is no scene while there is nothing to show."""

    page_id: str
    scene: SceneValue | None
    boxes: list[BlockBoxValue]
    connectors: list[BlockConnector]


def connector_facts(project: Project, device: Device) -> ConnectorFacts:
    """Return what is known of a connector beside its cavities."""
    owner, mate = owner_of(project, device.id), mate_of(project, device.id)
    nodes, part = nodes_at(project, device.id), project.part_of(device)
    lead = lead_of(project, device.id)
    return {
        "owner": device_value(project, owner) if owner else None,
        "mate": device_value(project, mate) if mate else None,
        "mates": list(mates_named(part)),
        "gender": part.ratings.get("gender", "") if part else "",
        "harnesses": [{"id": n.harness_id, "code": project.harnesses[n.harness_id].code} for n in nodes],
        "drawn": symbol_place(project, lead.id if lead else ""),
    }


def blocks_bench(project: Project) -> BlocksView:
    """Return the picture of blocks with the facts of its boxes and connectors."""
    found = blocks(project)
    page = next((p for p in generated_pages(project) if p.id == BLOCKS), None)
    ports = [port for box in found.boxes for port in box.ports]
    ids = dict.fromkeys(id for port in ports for id in (port.device_id, port.plug_id) if id)
    own = {port.device_id for port in ports}
    return {
        "page_id": page.id if page else "",
        "scene": scene_value(blocks_scene(project, page.number)) if page else None,
        "boxes": [
            {**device_value(project, project.devices[b.device_id]), "connector": b.device_id in own}
            for b in found.boxes
        ],
        "connectors": [
            {**device_value(project, project.devices[id]), "facts": connector_facts(project, project.devices[id])}
            for id in ids
        ],
    }
