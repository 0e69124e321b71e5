"""The labels of a harness on its form board: a flag on the bundle at each end, with what is printed on it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from math import hypot

from jolly_core.harness import Tree, is_splice
from jolly_core.model import Node, Project
from jolly_core.tagging import full_tag

from ..base.lettering import fit
from ..base.primitives import Item, Rect, text
from ..room.roomfinding import Room, crosses
from .marks import Spot, words_width

FLAG_MM = 8.0  # its height
LETTERS_MM, SMALLEST_MM, WIDEST_MM = 5.0, 3.0, 60.0
STEP_MM = 10.0  # by which a flag moves on along its bundle where something lies


def label_flags(project: Project, tree: Tree, places: Mapping[str, Spot], at_mm: float, room: Room) -> Iterator[Item]:
    """Yield the flag of each end that has one bundle, about `at_mm` from it, and keep its room.

    A flag lies on its own bundle and on nothing else; where no place on it is free, as on a short one, it is left out.
    """
    runs = {s.id: (*places[s.a_id], *places[s.b_id]) for s in tree.segments if s.a_id in places and s.b_id in places}
    ends = {n.id for n in tree.nodes if n.device_id and not is_splice(project, n.device_id)}
    for node in tree.nodes if at_mm else ():
        if node.id not in ends or node.id not in places or len(tree.beside[node.id]) != 1:
            continue
        segment, other = tree.beside[node.id][0]
        lines = [line for id, line in runs.items() if id != segment.id]
        reach = segment.length_mm / (2 if other in ends else 1)
        item = _flag(project, node, (places[node.id], places[other]), (at_mm, reach), (lines, room))
        if item is not None:
            room.keep(item.box)
            yield item


def _flag(
    project: Project,
    node: Node,
    way: tuple[Spot, Spot],
    span: tuple[float, float],
    around: tuple[list[tuple[float, float, float, float]], Room],
) -> Item | None:
    (x1, y1), (x2, y2) = way
    run = hypot(x2 - x1, y2 - y1) or 1.0
    shown, size = fit(full_tag(project, project.devices[node.device_id]), WIDEST_MM, LETTERS_MM, SMALLEST_MM)
    width = words_width(shown, size) + 2
    # Half of what it takes along the bundle, which a level bundle has under its whole width.
    half = (width * abs(x2 - x1) + FLAG_MM * abs(y2 - y1)) / run / 2
    lines, room = around
    at, reach = span
    middle = min(at + half, reach - half)
    while half <= middle <= reach - half + 1e-6:
        x, y = x1 + (x2 - x1) / run * middle, y1 + (y2 - y1) / run * middle
        box = (x - width / 2, y - FLAG_MM / 2, x + width / 2, y + FLAG_MM / 2)
        if not any(crosses(box, line, 2.0) for line in lines) and not room.on_box(box):
            words = text(x, y + size * 0.35, size, shown, anchor="middle", role="label")
            return Item(f"flag:{node.id}", "flag", [Rect(*box[:2], width, FLAG_MM, "fine", "paper"), words], box)
        middle += STEP_MM
    return None
