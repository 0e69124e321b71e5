"""Which layer each thing of a sheet is in, and what of a sheet is on paper.

What is put on a sheet says its layer itself. A wire, its dots and its number are in the layer of all that their net
meets on the sheet; where that is in several, they are in none.
"""

from __future__ import annotations

from dataclasses import replace

from jolly_core.model import Project, derived
from jolly_core.wiring import group_at

from ..base.primitives import Facts, Item, Scene


def layered(layer_id: str, together: str = "") -> Facts:
    """Return the facts of what is in a layer, and of what moves with others."""
    found: Facts = {}
    if layer_id:
        found["layer"] = layer_id
    if together:
        found["together"] = together
    return found


@derived
def net_layer(project: Project, sheet_id: str, point: int) -> str:
    """Return the id of the layer that all pins and continuations of a net on a sheet are in, "" when there is none.

    Args:
        point: the least point of the net's group on the sheet.
    """
    group = group_at(project, sheet_id, point)
    found = {project.symbols[symbol_id].layer_id for symbol_id, _ in group.pins}
    found |= {project.continuations[id].layer_id for id in group.continuations}
    return found.pop() if len(found) == 1 else ""


def printed(project: Project, items: dict[str, Item]) -> dict[str, Item]:
    """Return the items that are on paper: all but those in layers that are not printed."""
    left_out = {layer.id for layer in project.layers.values() if not layer.printed}
    if not left_out:
        return items
    return {id: item for id, item in items.items() if item.facts.get("layer", "") not in left_out}


def on_paper(project: Project, scene: Scene) -> Scene:
    """Return a scene without what is in layers that are not printed, itself where there is no such layer."""
    items = printed(project, scene.items)
    return scene if len(items) == len(scene.items) else replace(scene, items=items)
