"""A whole strange project from a seed."""

from __future__ import annotations

import random
from contextlib import suppress
from typing import Any

from pydantic import ValidationError

from jolly_core.model import CoreError

from .. import Workbench
from ..machines import Machine
from .base import STEPS, Workshop
from .drawing import NAMES
from .registry import ACTS, Attempt

# How often acts of a room are chosen; what is drawn is what most else hangs on.
SHARES = {
    **{"drawing": 20, "strips": 5, "cables": 5, "points": 4, "cabinet": 8, "harness": 6, "blocks": 3},
    **{"sheets": 3, "anything": 2, "setup": 1, "rebuilding": 1},
}
MOST = 700  # things on sheets: more of the same only takes long


def strange(seed: int, acts: int = 40) -> Workbench:
    """Return a project of its own for each seed.

    Args:
        acts: how many acts are tried at random; one that is refused leaves all as it is.
    """
    chance = random.Random(seed)
    habit: dict[str, Any] = {"standard": "na"} if seed % 2 else {}
    bench = Machine(seed).bench if seed % 4 else Workbench(frame="zones", **habit) if seed % 8 else Workshop()
    for number in ("801", "802"):
        bench.new("add-sheet", number=number, frame=chance.choice(("zones", "ladder")))
    place = bench.new("add-location", code=f"Q{seed % 7}", text=chance.choice(NAMES), side="panel")
    inside = bench.new("add-location", code="D1", parent_id=place, side="door")
    if seed % 3 == 0:
        for step in STEPS:
            with suppress(CoreError):
                step(bench, place)
    rooms = [room for room, share in SHARES.items() for _ in range(share)]
    rooms_of_this = [chance.choice(rooms) for _ in range(acts)]
    rooms_of_this += [chance.choice(("harness", "blocks")) for _ in range(acts // 2 if seed % 5 == 0 else 0)]
    for room in rooms_of_this:
        if len(bench.project.symbols) + len(bench.project.wires) > MOST:
            break
        with suppress(CoreError, ValidationError):
            _one_of(ACTS[room], chance)(bench, *_numbers(chance))
    every = 1 if bench.project.enclosures else chance.randint(2, 6)
    for device in sorted(bench.project.devices)[::every]:
        with suppress(CoreError):
            bench.do("set-place", device_id=device, function_id="", location_id=chance.choice((place, inside)))
    for _ in bench.project.cables:
        with suppress(CoreError, ValidationError):
            ACTS["cables"]["loaded"](bench, *_numbers(chance))
    for enclosure in sorted(bench.project.enclosures):
        _filled(bench, chance, enclosure)
    return bench


def _filled(b: Workbench, chance: random.Random, enclosure: str) -> None:
    """Put some devices into an enclosure: onto its rails, its plate and its door."""
    rails = [r for r in b.project.rails.values() if r.enclosure_id == enclosure and r.surface == "plate"]
    for device in sorted(b.project.devices):
        if chance.random() < 0.85:
            rail = chance.choice(rails) if rails and chance.random() < 0.8 else None
            x, y = chance.randint(40, 500), chance.randint(60, 700)
            where = {"x": x, "y": rail.y1, "surface": "plate"} if rail else {"x": x, "y": y, "surface": "plate"}
            with suppress(CoreError, ValidationError):
                b.do("place-devices", enclosure_id=enclosure, device_ids=[device], gap_mm=0, **where)


def _one_of(acts: dict[str, Attempt], chance: random.Random) -> Attempt:
    return acts[chance.choice(sorted(acts))]


def _numbers(chance: random.Random) -> tuple[int, int, int, int, int]:
    i, j = chance.randint(0, 10_000), chance.randint(0, 10_000)
    return i, j, chance.randint(0, 9), chance.randint(-20, 800), chance.randint(-20, 800)
