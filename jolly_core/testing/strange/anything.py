"""Acts at random that any bench has: to delete, to move, to put at another place."""

from __future__ import annotations

from .. import Workbench
from .registry import act, one


@act("anything", "delete")
def _delete(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("delete-selection", ids=[one([*p.symbols, *p.bands, *p.wires], i)])


@act("anything", "move")
def _move(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("move-selection", ids=[one([*p.symbols, *p.bands], i)], dx=j % 7 - 3, dy=k - 4, allow_join=bool(k % 2))


@act("anything", "place")
def _place(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    place = one(b.project.locations, k) if k else ""
    b.do("set-place", device_id=one(p.devices, i), function_id="", location_id=place)
