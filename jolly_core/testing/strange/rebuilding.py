"""Acts at random as they come up when a built panel is changed: tags, parts, numbers, wire types."""

from __future__ import annotations

from .. import Workbench
from .registry import act, one


@act("rebuilding", "rename")
def _rename(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("set-tag", device_id=one(b.project.devices, i), tag=f"ZZ{j % 50}")


@act("rebuilding", "exchange")
def _exchange(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("assign-part", device_id=one(b.project.devices, i), part_id=("hollin-hr-k22", "hollin-hr-k4")[k % 2])


@act("rebuilding", "renumber")
def _renumber(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("fix-wire-number", wire_id=one(b.project.wires, i), number=f"W{j % 9}" if k else "")


@act("rebuilding", "retype")
def _retype(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("set-wire-type", ids=[one(b.project.wires, i)], wire_type_id=one(b.project.wire_types, j))
