"""Checks of pins: more conductors than they take, and blocks whose pins did not cut the wires beneath."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from jolly_core.drawing import lies_beneath
from jolly_core.library import is_block
from jolly_core.model import Project, counted
from jolly_core.tagging import called_on, device_at, pin_name
from jolly_core.wiring import conductors_of_sheet, sheet_groups, site_of

from .registry import Act, Snag, check


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


@check("wire-beneath", "A wire that runs on beneath a block, so that it joins what the block parts.")
def wires_beneath(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each block of a sheet with strokes within its body, with the edit that cuts them."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        if not is_block(symbol.definition):
            continue
        beneath = [w.id for w in project.wires_on(sheet_id) if lies_beneath(symbol, w)]
        if beneath:
            who = called_on(project, symbol, sheet)
            message = f"{counted(len(beneath), 'wire')} run on beneath {who} and join what it parts."
            if len(beneath) == 1:
                message = f"A wire runs on beneath {who} and joins what it parts."
            act = Act("Cut at the block", "cut-beneath", (("symbol_id", symbol.id),))
            ids = (symbol.id, *beneath)
            yield Snag("wire-beneath", "error", message, ids, sheet_id, symbol.x, symbol.y, act=act)
