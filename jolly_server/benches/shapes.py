"""Values that several benches give: scenes, places, devices to choose from."""

from __future__ import annotations

from typing import Any

from typing_extensions import TypedDict

from jolly_core.drawing import place_in
from jolly_core.model import Device, Part, Project
from jolly_core.scenes import Scene
from jolly_core.tagging import full_tag
from jolly_core.wiring import Conductor, sheet_groups

FromTo = TypedDict("FromTo", {"from": str, "to": str})  # in this form, because "from" is a word of Python


class SceneItem(TypedDict):
    """A thing in a scene: its primitives (jolly_core/scenes/primitives.py), the box it takes and facts about it."""

    id: str
    kind: str
    prims: list[Any]
    box: tuple[float, float, float, float]
    facts: dict[str, Any]


class SceneValue(TypedDict):
    """A drawing: its size and what is on it, in painting order."""

    width: float
    height: float
    items: list[SceneItem]


class Place(TypedDict):
    """Where something is drawn: sheet id and reference, both "" when it is not."""

    sheet_id: str
    place: str


class PartName(TypedDict):
    """The facts by which a part is named."""

    id: str
    number: str
    text: str


class DeviceName(TypedDict):
    """The facts by which a device is named."""

    id: str
    tag: str
    text: str
    part: PartName | None


def scene_value(scene: Scene) -> SceneValue:
    """Return a scene as JSON values: size and items in painting order."""
    items: list[SceneItem] = [
        {"id": i.id, "kind": i.kind, "prims": i.prims, "box": i.box, "facts": i.facts} for i in scene.items.values()
    ]
    return {"width": scene.width, "height": scene.height, "items": items}


def symbol_place(project: Project, symbol_id: str) -> Place:
    """Return where a symbol is drawn: sheet id and reference; both "" when it is not."""
    symbol = project.symbols.get(symbol_id)
    if symbol is None:
        return {"sheet_id": "", "place": ""}
    return {"sheet_id": symbol.sheet_id, "place": place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y)}


def conductor_place(project: Project, c: Conductor) -> Place:
    """Return where a conductor starts: sheet id and reference."""
    x, y = sheet_groups(project, c.sheet_id).points[c.start]
    return {"sheet_id": c.sheet_id, "place": place_in(project.sheets[c.sheet_id], x, y)}


def part_name(part: Part | None) -> PartName | None:
    """Return the facts by which a part is named."""
    return {"id": part.id, "number": part.number, "text": part.text} if part else None


def device_value(project: Project, device: Device) -> DeviceName:
    """Return the facts by which a device is named: id, tag, text, part."""
    part = part_name(project.part_of(device))
    return {"id": device.id, "tag": full_tag(project, device), "text": device.text, "part": part}
