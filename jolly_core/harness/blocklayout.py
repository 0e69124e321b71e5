"""Where the boxes of the picture of blocks lie, mm: where a person put them, else by what they are joined to."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import count

from jolly_core.model import Project, derived

from .blocks import BlockBox, BlockLink, blocks

BOX_MM = 66.0
HEAD_MM = 20.0
PORT_MM = 11.0
PITCH_MM = (156.0, 18.0)  # from column to column, and between the boxes of one
EDGE_MM = 20.0
ROOM_MM = 12.0
COLUMNS = 3
Rectangle = tuple[float, float, float, float]  # left, top, right, bottom


@derived
def block_layout(project: Project) -> dict[str, Rectangle]:
    """Return where the box of each device lies, mm.

    A person's places hold. Boxes that hang together stand in columns, from the one most is joined to; a box by itself
    takes the first free place, row by row.
    """
    found = blocks(project)
    placed = {box.device_id: _at(box, *box.at) for box in found.boxes if box.at is not None}
    groups = [g for g in _groups(found.boxes, found.links) if len(g) > 1]
    joined = {box.device_id for group in groups for column in group for box in column}
    top = 0.0
    for group in groups:
        if all(box.at is not None for column in group for box in column):
            continue
        free = [top + EDGE_MM] * len(group)
        for n, column in enumerate(group):
            for box in (b for b in column if b.at is None):
                while True:
                    place = _at(box, EDGE_MM + n * PITCH_MM[0], free[n])
                    free[n] = place[3] + PITCH_MM[1]
                    if _is_free(place, placed.values()):
                        break
                placed[box.device_id] = place
        top = max(free)
    for box in found.boxes:
        if box.at is None and box.device_id not in joined:
            placed[box.device_id] = _first_free(box, placed.values())
    return {box.device_id: placed[box.device_id] for box in found.boxes}


def _at(box: BlockBox, x: float, y: float) -> Rectangle:
    return (x, y, x + BOX_MM, y + HEAD_MM + max(1, len(box.ports)) * PORT_MM)


def _is_free(place: Rectangle, others: Iterable[Rectangle]) -> bool:
    left, top, right, bottom = place
    return not any(
        left < b[2] + ROOM_MM and b[0] < right + ROOM_MM and top < b[3] + ROOM_MM and b[1] < bottom + ROOM_MM
        for b in others
    )


def _first_free(box: BlockBox, others: Iterable[Rectangle]) -> Rectangle:
    taken = list(others)
    places = (
        _at(box, EDGE_MM + column * PITCH_MM[0], EDGE_MM + row * PITCH_MM[1])
        for row in count()
        for column in range(COLUMNS)
    )
    return next(place for place in places if _is_free(place, taken))


def _groups(boxes: tuple[BlockBox, ...], links: tuple[BlockLink, ...]) -> list[list[list[BlockBox]]]:
    """Return boxes that hang together as columns: the one most is joined to, then what is joined to that, and so on."""
    beside: dict[str, dict[str, None]] = {box.device_id: {} for box in boxes}
    for link in links:
        ids = [end.box_id for end in link.ends]
        for id in ids:
            beside[id] |= dict.fromkeys(other for other in ids if other != id)
    left = {box.device_id: box for box in boxes}
    found: list[list[list[BlockBox]]] = []
    while left:
        here = [max(left, key=lambda id: len(beside[id]))]
        columns = []
        while here:
            columns.append([left.pop(id) for id in here])
            here = list(dict.fromkeys(other for id in here for other in beside[id] if other in left))
        found.append(columns)
    return found
