"""Where the pins of placed devices are, and how a wire leaves them. All in mm."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from jolly_core.library import definition
from jolly_core.model import Device, Part, Placing, Project, Symbol, derived
from jolly_core.terminals import TERMINAL, is_strip, strip_width_mm, strip_widths

from .eyelets import PinPlace, pins_in
from .layout import outline, placing_of
from .pieces import PointMm
from .ways import Axis

_UnitPins = tuple[tuple[str, tuple[str, ...]], ...]


@dataclass(slots=True, frozen=True)
class PinAt:
    """A pin on its surface, how far in front of it, and how a wire leaves: along an axis, to a side (0: to either)."""

    point: PointMm
    z: float
    axis: Axis
    side: int


@lru_cache(maxsize=1024)
def _spread(units: _UnitPins) -> dict[tuple[str, int, int], tuple[float, float]]:
    """Return for each (kind, unit number, pin) its place as a share of width and height.

    The first half of each unit's pins comes out at the top edge, the rest at the bottom edge, in the part's order.
    """
    top: list[tuple[str, int, int]] = []
    bottom: list[tuple[str, int, int]] = []
    counts: dict[str, int] = {}
    for kind, pins in units:
        counts[kind] = number = counts.get(kind, 0) + 1
        for n in range(len(pins)):
            (top if n < (len(pins) + 1) // 2 else bottom).append((kind, number, n))
    places = {key: ((n + 0.5) / len(top), 0.0) for n, key in enumerate(top)}
    return places | {key: ((n + 0.5) / len(bottom), 1.0) for n, key in enumerate(bottom)}


def pin_shares(part: Part) -> dict[tuple[str, int, int], tuple[float, float]]:
    """Return where each pin of a part is that says nothing of it, as shares of its width and height, y down."""
    return _spread(part.units)


def stated_pin(part: Part, kind: str, number: int, index: int) -> PinPlace | None:
    """Return where a part says that a pin of the `number`-th unit of a kind is, None when it says nothing."""
    if not part.details:
        return None
    seen = 0
    for n, (unit_kind, _) in enumerate(part.units):
        if unit_kind == kind:
            seen += 1
            if seen == number:
                places = pins_in(part.detail(n).get("pins_at", ""))
                return places[index] if index < len(places) else None
    return None


def _on_outline(project: Project, device: Device, symbol: Symbol, pin: tuple[str, int]) -> tuple[PointMm, float, str]:
    """Return where a pin is as shares of the device's width and height, y down; how far in front; its way out."""
    shape = definition(symbol.definition)
    pole, index = divmod(pin[1], len(shape.pins))
    if shape.unit == TERMINAL and is_strip(project, device):
        total = strip_width_mm(project, device.id) or 1.0
        left = 0.0
        for unit, width in strip_widths(project, device.id):
            if unit == symbol.units[0]:
                return ((left + width / 2) / total, 0.0), 0.0, ""
            left += width
        return (0.5, 0.5), 0.0, ""
    part = project.part_of(device)
    if part is None:
        return (0.5, 0.5), 0.0, ""
    stated = stated_pin(part, shape.unit, symbol.units[pole], index)
    width, height = part.size_mm
    if stated is not None and width and height:
        return (stated.x / width, 1 - stated.y / height), stated.z, stated.out
    return pin_shares(part).get((shape.unit, symbol.units[pole], index), (0.5, 0.5)), 0.0, ""


_SIDES = {"up": -1, "down": 1}


def pin_at(project: Project, placing: Placing, pin: tuple[str, int]) -> PinAt:
    """Return where a pin of a placed device is on its surface; a terminal's is on the strip's upper edge.

    A wire leaves upwards or downwards; of a device on an upright rail, which is turned clockwise, sideways.
    """
    box = outline(project, placing)
    device = project.devices[placing.device_id]
    share, z, out = _on_outline(project, device, project.symbols[pin[0]], pin)
    side = _SIDES.get(out, 0)
    axis: Axis = "" if out == "front" else "upright"
    if box.upright:
        share, side = (1 - share[1], share[0]), -side
        axis = "level" if axis else ""
    point = round(box.x + share[0] * box.width, 3), round(box.y + share[1] * box.height, 3)
    return PinAt(point, z, axis, side)


@derived
def placed_pins(project: Project, symbol_id: str) -> tuple[Placing, tuple[PinAt, ...]] | None:
    """Return where a symbol's device is placed, and its pins on that surface; None while it has no place.

    Kept for the symbol: each conductor that ends at it asks for it.
    """
    symbol = project.symbols[symbol_id]
    placing = placing_of(project, symbol.device_id) if symbol.device_id else None
    if placing is None:
        return None
    count = len(definition(symbol.definition).pins) * len(symbol.units)
    return placing, tuple(pin_at(project, placing, (symbol_id, n)) for n in range(count))


def pin_point(project: Project, placing: Placing, pin: tuple[str, int]) -> PointMm:
    """Return the point of a pin on its surface."""
    return pin_at(project, placing, pin).point
