"""Check of pins with more conductors than they take."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from jolly_core.model import Project
from jolly_core.tagging import device_at, pin_name
from jolly_core.wiring import conductors_of_sheet, sheet_groups, site_of

from .registry import Snag, check


@check("pin-full", "A pin with more conductors than it takes.")
def full_pins(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pin on a sheet that its net gives more conductors than its part has room for."""
    counts = Counter(pin for c in conductors_of_sheet(project, sheet_id) for pin in (c.start, c.end))
    points = sheet_groups(project, sheet_id).points
    for pin, count in sorted(counts.items()):
        room = site_of(project, pin).room
        if count > room and pin in points:
            x, y = points[pin]
            device = device_at(project, pin)
            message = f"{pin_name(project, pin, sheet_id)} has {count} conductors, but takes {room}. Add a terminal."
            device_id = device.id if device else ""
            yield Snag("pin-full", "error", message, (pin[0],), sheet_id, x, y, device_id=device_id)
