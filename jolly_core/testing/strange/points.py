"""Acts at random on points, cards and channels."""

from __future__ import annotations

from .. import Workbench
from .registry import a_card, act, one


@act("points", "points")
def _points(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    listed = [{"tag": f"B{(j + n) % 7}", "io_type": ("DI", "DO")[(k + n) % 2]} for n in range(1 + k % 3)]
    b.do("take-in-points", points=listed)


@act("points", "card")
def _card(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("add-card", part_id=("hollin-hr-di8", "hollin-hr-do8")[k % 2], location_id=one(b.project.locations, 0))


@act("points", "address")
def _address(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    card = a_card(b, i)
    b.do(
        "address-card",
        device_id=card,
        scheme=("whole", "byte.bit")[k % 2],
        start=str(j % 9) + (".3" if k > 4 else ""),
    )


@act("points", "allocate")
def _allocate(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    card = a_card(b, i)
    b.do("allocate-points", ids=[one(p.io_points, j), one(p.io_points, j + 1)], device_id=card, channel=1 + k)


@act("points", "free")
def _free(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("free-points", ids=[one(p.io_points, j)])


@act("points", "channel")
def _channel(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    card = a_card(b, i)
    b.place("plc-input" if k % 2 else "plc-output", 90 + j % 30, 60 + k, device_id=card)


@act("points", "uncard")
def _uncard(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    card = a_card(b, i)
    b.do("delete-card", device_id=card)


@act("points", "drawn")
def _drawn(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    card = a_card(b, i)
    listed = [{"tag": f"S{j % 90 + n}", "io_type": ("DI", "DO", "AI")[k % 3], "wiring": "2"} for n in range(1 + j % 4)]
    for point in listed:
        point.pop("wiring") if k % 2 else None
    b.do("take-in-points", points=listed)
    b.do("suggest-channels")
    b.do("draw-channels", device_ids=[card], feed=("24 V", "L1")[k % 2], back="0 V", way=("level", "upright")[x % 2])


@act("points", "redrawn")
def _redrawn(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("redraw-channels")
