"""Checks of what is wired: open pins, loose wire ends, unpaired continuations."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from jolly_core.circuits import misses_earth
from jolly_core.drawing import place_in, rails_at
from jolly_core.library import definition
from jolly_core.model import Project
from jolly_core.tagging import pins_of, tag_on
from jolly_core.wiring import SheetGroups, sheet_groups

from .registry import Snag, check


@check("unconnected-pin", "A pin that nothing is wired to.")
def unconnected_pins(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pin without a wire, another pin or a mark on it."""
    sheet = project.sheets[sheet_id]
    found = sheet_groups(project, sheet_id)
    for group in found.groups:
        if len(group.pins) != 1 or group.wires or group.continuations:
            continue
        symbol = project.symbols[group.pins[0][0]]
        if _other_side_wired(found, symbol.id, group.pins[0][1], symbol.definition):
            continue
        names = pins_of(project, symbol)
        if misses_earth(project, symbol, group.pins[0][1]):
            continue  # told as missing
        device = project.devices.get(symbol.device_id)
        who = tag_on(project, device, sheet) if device else "A symbol without a device"
        x, y = found.points[group.pins[0]]
        pin = names[group.pins[0][1]] or "?"
        yield Snag(
            "unconnected-pin",
            "warning",
            f"{who}:{pin} is not connected.",
            (symbol.id,),
            sheet_id,
            x,
            y,
            device_id=symbol.device_id,
        )


def _other_side_wired(found: SheetGroups, symbol_id: str, pin: int, key: str) -> bool:
    """Return whether the pin is one side of a terminal whose other side is wired: a cable may still come there."""
    for a, b in definition(key).carries:
        if pin in (a, b):
            other = found.by_point[found.of_pin[symbol_id, b if pin == a else a]]
            return bool(other.wires or other.continuations or len(other.pins) > 1)
    return False


@check("loose-end", "A wire that ends where nothing is.")
def loose_ends(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each wire end that meets no pin, mark or other wire."""
    meeting: Counter[tuple[int, int]] = Counter()
    wires = project.wires_on(sheet_id)
    for w in wires:
        meeting[w.x1, w.y1] += 1
        meeting[w.x2, w.y2] += 1
    found = sheet_groups(project, sheet_id)
    held = set(found.points.values()) | {(c.x, c.y) for c in project.continuations_on(sheet_id)}
    # The outer ends of a ladder's rails end free by design.
    sheet = project.sheets[sheet_id]
    ladder = sheet.frame == "ladder"
    for w in wires:
        for x, y in ((w.x1, w.y1), (w.x2, w.y2)):
            if meeting[x, y] == 1 and (x, y) not in held and not (ladder and x in rails_at(sheet, x) and w.x1 == w.x2):
                place = place_in(sheet, x, y)
                yield Snag("loose-end", "warning", f"A wire ends loose at {place}.", (w.id,), sheet_id, x, y)


@check("unpaired-continuation", "A continuation whose other end is missing.")
def unpaired(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each mark that is the only one of its name."""
    for mark in project.continuations_on(sheet_id):
        if len(project.continuations_named.get(mark.name)) == 1:
            yield Snag(
                "unpaired-continuation",
                "warning",
                f"Continuation {mark.name} has no other end.",
                (mark.id,),
                sheet_id,
                mark.x,
                mark.y,
            )
