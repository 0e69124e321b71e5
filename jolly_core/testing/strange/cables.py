"""Acts at random on cables: bands, parts, cores, lengths."""

from __future__ import annotations

from .. import Workbench
from .registry import a_cable, act, one

CABLES = ("quillon-ql-c4g2-5", "quillon-ql-c7g1-5", "quillon-ql-s4-0-5-s")


@act("cables", "band")
def _band(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    cable = a_cable(b, i)
    column = 27 + 6 * (i % 5)
    b.do(
        "draw-band",
        sheet_id=b.sheet,
        x1=column,
        y1=18 + 6 * (j % 3),
        x2=column,
        y2=40,
        device_id=cable if k > 4 else "",
        part_id=CABLES[k % 3] if k < 3 else "",
    )


@act("cables", "cable-part")
def _cable_part(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    cable = a_cable(b, i)
    b.do("assign-part", device_id=cable, part_id=CABLES[j % 3] if k else "")


@act("cables", "swap")
def _swap(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    cable = a_cable(b, i)
    b.do("swap-cores", device_id=cable, first=1 + j % 5, second=1 + k % 5)


@act("cables", "default")
def _default(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    cable = a_cable(b, i)
    b.do("default-cores", device_id=cable)


@act("cables", "length")
def _length(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    cable = a_cable(b, i)
    b.do("set-cable", device_id=cable, length_m=k, load_a=j % 3)


@act("cables", "loaded")
def _loaded(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    load = {"load_a": 1 + j % 16, "voltage_v": (24, 230, 400)[k % 3], "power_factor": (1.0, 0.84, 1.0)[j % 3]}
    b.do("set-cable", device_id=a_cable(b, i), length_m=1 + i % 60, **load)


@act("cables", "way")
def _way(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    a, other = one(b.project.locations, i), one(b.project.locations, j)
    b.do("set-cable-way", a_id=a, b_id=other, length_m=k * 4)


@act("cables", "series")
def _series(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    """A field device by two cables one behind the other, over terminals in a box between them."""
    top, field, box = 100 + 12 * (i % 8), one(b.project.locations, j), one(b.project.locations, j + 1)
    lamps = [b.place("lamp", at, top, device_id="") for at in (12, 72)]
    b.wire((16, top), (72, top))
    between = b.place("terminal", 42, top)
    for symbol, place in ((lamps[1], field), (between, box), (lamps[0], one(b.project.locations, j + 2))):
        b.do("set-place", device_id=b.device(symbol), function_id="", location_id=place)
    for at in (28, 58):
        b.do("draw-band", sheet_id=b.sheet, x1=at, y1=top - 2, x2=at, y2=top + 2, part_id=CABLES[k % 3])
