"""Card plans: every channel of a PLC card with its point, its pins, and the sheet and line where it is drawn."""

from __future__ import annotations

from jolly_core.drawing import place_in
from jolly_core.library import text_in
from jolly_core.model import Project, Sheet
from jolly_core.plc import ChannelRow, card_of, card_supplies, channels
from jolly_core.tagging import full_tag

from ..base.primitives import Scene
from ..lists.leaves import Columns, Given, table_leaves

CARD_COLUMNS: Columns = (
    ("Address", 26),
    ("Type", 16),
    ("Pins", 24),
    ("Point", 26),
    ("Text", 86),
    ("Connected", 52),
    ("Sheet", 28),
)


def card_leaves(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    """Return the leaves of the plan of a sheet's card; supplies come first, then the channels in the part's order."""
    device = project.devices[sheet.device_id]
    part = project.part_of(device)
    words = f"{part.number}  {text_in(part, project.settings.part_language)}" if part else "no card part yet"
    card = card_of(project, device.id)
    rack = project.racks.get(card.rack_id) if card else None
    if rack is not None and card is not None:
        words = f"{words}   {full_tag(project, project.devices[rack.device_id])}, slot {card.slot}"
    rows = []
    for supply in card_supplies(project, device.id):
        said = " ".join(filter(None, ("supply", f"of group {supply.group}" if supply.group else "")))
        fuse = f"fuse {supply.fuse_a:g} A" if supply.fuse_a else ""
        values = [("", ""), ("", ""), (" ".join(supply.pins), ""), ("", ""), (said, ""), (fuse, "")]
        rows.append([*values, _place(project, supply.symbol_id)])
    rows += [_row(project, channel) for channel in channels(project, device.id)]
    return table_leaves(project, sheet, given, f"{full_tag(project, device)}   {words}", CARD_COLUMNS, rows, "channel")


def _row(project: Project, channel: ChannelRow) -> list[tuple[str, str]]:
    point = project.io_points.get(channel.point_id)
    kind = " ".join(filter(None, (channel.io_type, channel.sort)))
    said = [channel.address, kind, " ".join(channel.pins), point.tag if point else "", point.text if point else "spare"]
    connected = " ".join(filter(None, (point.device, point.connected))) if point else ""
    return [*((value, "") for value in said), (connected, ""), _place(project, channel.symbol_id)]


def _place(project: Project, symbol_id: str) -> tuple[str, str]:
    """Return sheet.line of a symbol with the link to it, ("", "") where it is drawn nowhere."""
    symbol = project.symbols.get(symbol_id)
    return (place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y), symbol.id) if symbol else ("", "")
