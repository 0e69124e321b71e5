"""Reports of PLC cards: the cards, the addresses for the programmer, spare channels, the wiring check."""

from __future__ import annotations

from jolly_core.drawing import place_in
from jolly_core.model import Project
from jolly_core.plc import ANALOG, ChannelRow, cards, channels
from jolly_core.points.checkwalk import check_rows, signatures
from jolly_core.tagging import full_tag, path_of

from .building import NO_PART
from .registry import Cell, Column, Row, report

# Data types of IEC 61131-3 that hold what a channel gives.
BIT, WORD = "BOOL", "INT"


@report(
    "cards",
    "PLC card list",
    "Every card with its part, rack and slot, its addresses, and how many of its channels are taken.",
    (
        Column("card", "Card", 16),
        Column("part", "Part number", 14),
        Column("text", "Description", 30),
        Column("location", "Location", 10),
        Column("rack", "Rack", 14),
        Column("slot", "Slot", 5, number=True),
        Column("first", "First address", 12),
        Column("last", "Last address", 12),
        Column("channels", "Channels", 9, number=True),
        Column("taken", "Taken", 7, number=True),
        Column("spare", "Spare", 7, number=True),
    ),
)
def card_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the cards in their order."""
    rows: list[tuple[Cell, ...]] = []
    for card in cards(project):
        device = project.devices[card.device_id]
        part = project.part_of(device)
        rack = project.racks.get(card.rack_id)
        there = channels(project, card.device_id)
        taken = sum(1 for r in there if r.point_id)
        cells: tuple[Cell, ...] = (
            full_tag(project, device),
            part.number if part else "",
            part.text if part else "",
            path_of(project.locations, device.location_id, "+"),
            full_tag(project, project.devices[rack.device_id]) if rack else "",
            card.slot or "",
            there[0].address if there else "",
            there[-1].address if there else "",
            len(there),
            taken,
            len(there) - taken,
        )
        rows.append(Row.of(cells, device.id, {"number": "" if part else NO_PART}))
    return rows


@report(
    "addresses",
    "Address list",
    "Every channel with a point as the programmer takes it in: name, address, data type, comment.",
    (
        Column("name", "Name", 16),
        Column("address", "Address", 12),
        Column("type", "Data type", 9),
        Column("comment", "Comment", 40),
        Column("comment2", "Second comment", 30),
        Column("signal", "Signal", 12),
        Column("range", "Range", 12),
        Column("unit", "Unit", 8),
        Column("card", "Card", 16),
    ),
)
def address_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the channels that have a point, card by card."""
    rows: list[tuple[Cell, ...]] = []
    for row, tag, lead in _channels(project):
        point = project.io_points.get(row.point_id)
        if point is not None:
            kind = WORD if row.io_type in ANALOG else BIT
            said = (point.text, point.text2, point.signal, point.span, point.unit)
            rows.append(Row.of((point.tag, row.address, kind, *said, tag), lead))
    return rows


@report(
    "spare-channels",
    "Spare channels",
    "Every channel without a point, with its pins and where it is drawn.",
    (
        Column("address", "Address", 12),
        Column("type", "Type", 6),
        Column("sort", "Sort", 12),
        Column("card", "Card", 16),
        Column("channel", "Channel", 8, number=True),
        Column("pins", "Pins", 8),
        Column("place", "Sheet.line", 10),
    ),
)
def spare_channels(project: Project) -> list[tuple[Cell, ...]]:
    """Return the channels that have no point, card by card."""
    rows: list[tuple[Cell, ...]] = []
    for row, tag, lead in _channels(project):
        if not row.point_id:
            symbol = project.symbols.get(row.symbol_id)
            place = place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y) if symbol else ""
            cells = (row.address, row.io_type, row.sort, tag, row.channel, " ".join(row.pins), place)
            rows.append(Row.of(cells, lead, {"place": "" if place else "The channel is not drawn yet."}))
    return rows


def _channels(project: Project) -> list[tuple[ChannelRow, str, str]]:
    """Return each channel with the tag of its card and what leads to it: its symbol, else the card."""
    found = []
    for card in cards(project):
        tag = full_tag(project, project.devices[card.device_id])
        found += [(row, tag, row.symbol_id or card.device_id) for row in channels(project, card.device_id)]
    return found


@report(
    "wiring-check",
    "Wiring check",
    "Every point with a channel, what was seen there, by whom and when, and who signed.",
    (
        Column("point", "Point", 14),
        Column("text", "Text", 32),
        Column("address", "Address", 12),
        Column("card", "Card", 16),
        Column("pins", "Pins", 8),
        Column("place", "Sheet.line", 10),
        Column("result", "Result", 12),
        Column("remark", "Remark", 30),
        Column("by", "By", 14),
        Column("on", "On", 11),
    ),
)
def wiring_check(project: Project) -> list[tuple[Cell, ...]]:
    """Return the points in the order of the walk, then the signatures; [] where nobody looked yet."""
    found = check_rows(project)
    if not any(r.check for r in found) and not project.check_signatures:
        return []
    rows: list[tuple[Cell, ...]] = []
    for r in found:
        result = "open" if r.check is None else "to be seen anew" if r.anew else r.check.result
        seen = (r.check.remark, r.check.by, r.check.on) if r.check and not r.anew else ("", "", "")
        cells = (r.tag, r.text, r.address, r.card, r.pins, r.place, result, *seen)
        rows.append(Row.of(cells, r.symbol_id or r.device_id))
    for signed, current in signatures(project):
        state = "signed" if current else "changed since"
        rows.append(("Signature", "", "", "", "", "", state, signed.remark, signed.by, signed.on))
    return rows
