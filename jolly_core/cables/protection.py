"""The protective device in front of a conductor, and what its core or wire has to carry for it (IEC 60204-1, 7.2)."""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass

from jolly_core.circuits import links_at, potential_of
from jolly_core.library import base_of, number_in
from jolly_core.model import Device, Part, Project
from jolly_core.wiring import Conductor

PROTECTIVE_CLASSES = ("breaker", "motor-breaker", "fuse")
PASSED_CLASSES = ("contactor", "overload", "disconnector", "relay")
FARTHEST = 40


@dataclass(slots=True, frozen=True)
class Protection:
    """A protective device and the current that it lets through for good, A."""

    device: Device
    amps: float


def rated_of(part: Part) -> float:
    """Return the highest current a protective device lets through for good: highest setting, else rated current, A."""
    for rating in ("setting_max_a", "rated_a"):
        found = number_in(part.ratings.get(rating, ""))
        if found:
            return found
    return 0.0


def protection_of(project: Project, c: Conductor) -> Protection | None:
    """Return the protective device in front of a conductor: the first that is met from it through switching poles.

    None when none is met before a named potential, or when its part does not say its current. Of several met alike the
    largest counts, which is on the safe side.
    """
    start = potential_of(project, c.start)
    seen, waiting = {start.key}, deque([start])
    for _ in range(FARTHEST):
        if not waiting:
            return None
        here = waiting.popleft()
        met: list[Protection] = []
        for link, there in links_at(project, here):
            device = project.devices.get(link.device_id)
            part = project.part_of(device) if device else None
            kind = base_of(part.part_class) if part else ""
            if device is not None and part is not None and kind in PROTECTIVE_CLASSES:
                amps = rated_of(part)
                if amps:
                    met.append(Protection(device, amps))
            elif kind in PASSED_CLASSES and there.key not in seen and not there.labels:
                seen.add(there.key)
                waiting.append(there)
        if met:
            return max(met, key=lambda p: p.amps)
    return None
