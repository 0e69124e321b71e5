"""Scenes as answers."""

from __future__ import annotations

from typing import Annotated, NotRequired

from pydantic import Field
from typing_extensions import TypedDict

from jolly_core.scenes import Facts, Item, Prim, Scene

AnyPrim = Annotated[Prim, Field(discriminator="kind")]


class BareItem(TypedDict):
    """A thing in a scene without its primitives: the box it takes, facts about it, and where its primitives begin."""

    id: str
    kind: str
    box: tuple[float, float, float, float]
    facts: Facts
    at: NotRequired[tuple[float, float]]


class SceneItem(BareItem):
    """A thing in a scene with its primitives, which are about `at` where it has that."""

    prims: list[AnyPrim]


class SceneValue(TypedDict):
    """A drawing: its size and what is on it, in painting order."""

    width: float
    height: float
    items: list[SceneItem]


def item_value(item: Item) -> SceneItem:
    """Return a thing of a scene as it is answered."""
    value: SceneItem = {
        "id": item.id,
        "kind": item.kind,
        "prims": item.prims,
        "box": item.box,
        "facts": item.facts,
    }
    if item.at != (0.0, 0.0):
        value["at"] = item.at
    return value


def scene_value(scene: Scene) -> SceneValue:
    """Return a scene as it is answered: size and items in painting order."""
    items = list(map(item_value, scene.items.values()))
    return {"width": scene.width, "height": scene.height, "items": items}
