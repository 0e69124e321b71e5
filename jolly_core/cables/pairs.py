"""Twisted pairs of a cable: which cores make one, and which conductors should lie in one.

The two conductors of a loop take the two cores of a pair, so that what disturbs the one disturbs the other alike and
cancels (IEC 61000-5-2, 7.4). Two conductors are of one loop when they end on the same device in the field.
"""

from __future__ import annotations

from collections.abc import Iterable

from jolly_core.model import Part, Project
from jolly_core.tagging import device_at
from jolly_core.wiring import Conductor


def pairs_of(part: Part | None) -> dict[str, list[int]]:
    """Return the 1-based ordinals of the two cores of each twisted pair of a cable part, by the pair's name."""
    found: dict[str, list[int]] = {}
    for n, (kind, _) in enumerate(part.units if part else (), start=1):
        name = part.detail(n - 1).get("pair", "") if part else ""
        if kind == "core" and name:
            found.setdefault(name, []).append(n)
    return {name: cores for name, cores in found.items() if len(cores) == 2}


def pair_names(part: Part | None) -> dict[int, str]:
    """Return the name of the pair that each core of a cable part is in, by its ordinal; single cores are left out."""
    return {n: name for name, cores in pairs_of(part).items() for n in cores}


def loops_among(project: Project, conductors: Iterable[tuple[Conductor, tuple[str, int]]]) -> list[list[str]]:
    """Return the keys of conductors by loop: two by two those that end on one device, in the order they are given.

    Args:
        conductors: each with its pin in the field.

    Returns:
        Lists of two keys; a conductor that is left over by its device is a list of one, after all of two.
    """
    by_device: dict[str, list[str]] = {}
    for c, pin in conductors:
        device = device_at(project, pin)
        by_device.setdefault(device.id if device else f"{pin}", []).append(c.key)
    loops = [keys[n : n + 2] for keys in by_device.values() for n in range(0, len(keys), 2)]
    return sorted(loops, key=lambda loop: -len(loop))
