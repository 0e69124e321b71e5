"""Scenes as answers."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field
from typing_extensions import TypedDict

from jolly_core.scenes import Facts, Item, Prim, Scene

AnyPrim = Annotated[Prim, Field(discriminator="kind")]


class SceneItem(TypedDict):
    """A thing in a scene: its primitives, the box it takes and facts about it."""

    id: str
    kind: str
    prims: list[AnyPrim]
    box: tuple[float, float, float, float]
    facts: Facts


class SceneValue(TypedDict):
    """A drawing: its size and what is on it, in painting order."""

    width: float
    height: float
    items: list[SceneItem]


def item_value(item: Item) -> SceneItem:
    """Return a thing of a scene as it is answered."""
    return {"id": item.id, "kind": item.kind, "prims": item.prims, "box": item.box, "facts": item.facts}


def scene_value(scene: Scene) -> SceneValue:
    """Return a scene as it is answered: size and items in painting order."""
    items = list(map(item_value, scene.items.values()))
    return {"width": scene.width, "height": scene.height, "items": items}
