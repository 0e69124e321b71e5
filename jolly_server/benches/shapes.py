"""Values that several benches give: scenes, places, devices to choose from."""

from __future__ import annotations

from typing import Any

from jolly_core.drawing import place_in
from jolly_core.model import Device, Project
from jolly_core.scenes import Scene
from jolly_core.tagging import full_tag
from jolly_core.wiring import Conductor, sheet_groups


def scene_value(scene: Scene) -> dict[str, Any]:
    """Return a scene as JSON values: size and items in painting order."""
    items = [
        {"id": i.id, "kind": i.kind, "prims": i.prims, "box": list(i.box), "facts": i.facts}
        for i in scene.items.values()
    ]
    return {"width": scene.width, "height": scene.height, "items": items}


def symbol_place(project: Project, symbol_id: str) -> dict[str, str]:
    """Return where a symbol is drawn: sheet id and reference; both "" when it is not."""
    symbol = project.symbols.get(symbol_id)
    if symbol is None:
        return {"sheet_id": "", "place": ""}
    return {"sheet_id": symbol.sheet_id, "place": place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y)}


def conductor_place(project: Project, c: Conductor) -> dict[str, str]:
    """Return where a conductor starts: sheet id and reference."""
    x, y = sheet_groups(project, c.sheet_id).points[c.start]
    return {"sheet_id": c.sheet_id, "place": place_in(project.sheets[c.sheet_id], x, y)}


def device_value(project: Project, device: Device) -> dict[str, Any]:
    """Return the facts by which a device is named: id, tag, text, part."""
    part = project.part_of(device)
    return {
        "id": device.id,
        "tag": full_tag(project, device),
        "text": device.text,
        "part": {"id": part.id, "number": part.number, "text": part.text} if part else None,
    }
