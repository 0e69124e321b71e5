"""What speaks for a part and against it beyond its units: sizes of wires, poles left over, time nobody asks for."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from jolly_core.cables import copper_of
from jolly_core.library import base_of, definition, number_in, part_class
from jolly_core.model import Device, Part, Project
from jolly_core.wiring import conductors_at

FITS, MISFITS, LEFT_OVER = 30, -60, -25
USED = 1  # said, and no reason to take what fits less well
_TIMED = ("tno", "tnc")


@dataclass(slots=True, frozen=True)
class Reason:
    """Why a part is a good or a bad choice; `weight` is its points, below nothing for what speaks against it."""

    words: str
    weight: int


def wires_at(project: Project, device: Device) -> tuple[float, float]:
    """Return the smallest and the largest size in mm² of the conductors at a device's pins, zeros where none has one.

    A conductor in a cable has the size of its core.
    """
    sizes: set[float] = set()
    for symbol in project.units_of(device.id):
        for pin in range(len(definition(symbol.definition).pins) * max(1, len(symbol.units))):
            for conductor in conductors_at(project, (symbol.id, pin)):
                sizes.add(copper_of(project, conductor).area_mm2)
    sizes.discard(0.0)
    return (min(sizes), max(sizes)) if sizes else (0.0, 0.0)


def for_wires(part: Part, wires: tuple[float, float]) -> Iterator[Reason]:
    """Yield whether the wires at a device go into a part's clamps.

    Args:
        wires: the smallest and the largest size in mm².
    """
    low, high = (number_in(part.ratings.get(f"cross_section_{end}_mm2", "")) for end in ("min", "max"))
    if base_of(part.part_class) != "terminal" or high is None or not wires[1]:
        return
    have = f"{wires[1]:g} mm²" if wires[0] == wires[1] else f"{wires[0]:g} to {wires[1]:g} mm²"
    clamps = f"clamps {low:g} to {high:g} mm²" if low is not None else f"clamps up to {high:g} mm²"
    if wires[1] > high + 1e-9 or (low is not None and wires[0] < low - 1e-9):
        yield Reason(f"{clamps}, but its wires have {have}", MISFITS)
    else:
        yield Reason(f"{clamps}, its wires have {have}", FITS)


def for_poles(part: Part, drawn: dict[str, int]) -> Iterator[Reason]:
    """Yield what of a part's poles would be left over: a breaker of two poles is no breaker of one.

    Args:
        drawn: how many units of each kind are drawn. Where no pole is, they may come yet.
    """
    have, wanted = part.count("pole"), drawn.get("pole", 0)
    if wanted and have > wanted:
        yield Reason(f"has {have} poles, {wanted} {'is' if wanted == 1 else 'are'} drawn", LEFT_OVER)


def for_time(part: Part, drawn: dict[str, int], lead: str) -> Iterator[Reason]:
    """Yield that a timing relay would do nothing in time where a plain coil is drawn.

    Args:
        lead: the definition of the symbol that leads the device, "" for none.
    """
    timed = base_of(part.part_class) == "timer" or any(part.count(kind) for kind in _TIMED)
    plain = lead != "" and part_class(definition(lead).part_class).key == "relay"
    if timed and plain and not any(drawn.get(kind) for kind in _TIMED):
        yield Reason("switches after a time, and a plain coil is drawn", LEFT_OVER)
