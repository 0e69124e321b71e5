"""What is left over: contacts, terminals, cores and channels that carry nothing."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.cables import cable_cores
from jolly_core.drawing import place_in
from jolly_core.model import Project
from jolly_core.plc import cards, channels
from jolly_core.tagging import CONTACT_KINDS, KIND_WORDS, full_tag, tag_order, unit_rows
from jolly_core.terminals import strip_rows, strips

from .registry import Cell, Column, Row, report


@report(
    "spares",
    "Spares",
    "Contacts, terminals, cores and channels that are there and carry nothing.",
    (
        Column("kind", "Kind", 10),
        Column("tag", "At", 20),
        Column("which", "Which", 14),
        Column("what", "What it is", 22),
        Column("place", "Sheet.line", 11),
    ),
)
def spares(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of what is free: contacts of devices, then terminals, cores, channels."""
    return [*_contacts(project), *_terminals(project), *_cores(project), *_channels(project)]


def _contacts(project: Project) -> Iterator[Row]:
    """Yield the contacts of placed parts that are drawn nowhere, device by device."""
    for device in sorted(project.devices.values(), key=lambda d: tag_order(project, d)):
        for unit in unit_rows(project, device) if device.part_id else ():
            if unit.kind in CONTACT_KINDS and not unit.symbol_id:
                pins = "-".join(p for p in unit.pins if p)
                yield Row.of(("contact", full_tag(project, device), pins, KIND_WORDS[unit.kind], ""), device.id)


def _terminals(project: Project) -> Iterator[Row]:
    """Yield the terminals at which nothing lands, strip by strip."""
    for strip in strips(project):
        for row in strip_rows(project, strip.id):
            if row.kind == "terminal" and row.free:
                drawn = [project.symbols[i] for i in row.symbol_ids]
                place = ", ".join(place_in(project.sheets[s.sheet_id], s.x, s.y) for s in drawn)
                words = row.part.number if row.part else "no part yet"
                lead = drawn[0].id if drawn else strip.id
                yield Row.of(("terminal", full_tag(project, strip), row.number, words, place), lead)


def _cores(project: Project) -> Iterator[Row]:
    ids = [c.device_id for c in project.cables.values()]
    for device_id in sorted(ids, key=lambda i: tag_order(project, project.devices[i])):
        tag = full_tag(project, project.devices[device_id])
        for row in cable_cores(project, device_id):
            if row.kind == "core" and row.conductor is None:
                yield Row.of(("core", tag, row.name, f"core {row.ordinal}", ""), device_id)


def _channels(project: Project) -> Iterator[Row]:
    for card in cards(project):
        tag = full_tag(project, project.devices[card.device_id])
        for row in channels(project, card.device_id):
            if not row.point_id:
                symbol = project.symbols.get(row.symbol_id)
                place = place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y) if symbol else ""
                which = row.address or f"channel {row.channel}"
                yield Row.of(("channel", tag, which, row.io_type, place), row.symbol_id or card.device_id)
