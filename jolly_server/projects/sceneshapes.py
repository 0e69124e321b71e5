"""Scenes as answers."""

from __future__ import annotations

from typing import Any

from typing_extensions import TypedDict

from jolly_core.scenes import Item, Scene


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


def item_value(item: Item) -> SceneItem:
    """Return a thing of a scene as a JSON value."""
    return {"id": item.id, "kind": item.kind, "prims": item.prims, "box": item.box, "facts": item.facts}


def scene_value(scene: Scene) -> SceneValue:
    """Return a scene as JSON values: size and items in painting order."""
    items = list(map(item_value, scene.items.values()))
    return {"width": scene.width, "height": scene.height, "items": items}
