"""Terminal strips."""

from .bridging import (
    LaidBridge,
    block_parts,
    blocks_of,
    bridge_part,
    bridges_of,
    fits,
    laid_bridges,
    pitch_mm,
    poles_of,
    slots_of,
)
from .groups import TerminalGroup, groups_of
from .items import TERMINAL, is_strip, item_records, kind_of, next_unit, strip_record, strips, terminal_symbols
from .layouttable import COLUMNS as LAYOUT_COLUMNS
from .layouttable import LayoutLine, LayoutRead, layout_rows, read_layout
from .proposals import Proposal, place_key, proposals
from .room import StripSum, strip_pieces, strip_sum, waiting_rows
from .rows import (
    ACCESSORY_NAMES,
    StripRow,
    Target,
    in_one_piece,
    placed_sides,
    strip_rows,
    strip_width_mm,
    strip_widths,
    wire_numbers_at,
)

__all__ = [
    "LAYOUT_COLUMNS",
    "LayoutLine",
    "LayoutRead",
    "layout_rows",
    "read_layout",
    "ACCESSORY_NAMES",
    "LaidBridge",
    "Proposal",
    "StripRow",
    "StripSum",
    "TERMINAL",
    "Target",
    "TerminalGroup",
    "block_parts",
    "blocks_of",
    "bridge_part",
    "bridges_of",
    "fits",
    "groups_of",
    "in_one_piece",
    "is_strip",
    "item_records",
    "kind_of",
    "laid_bridges",
    "next_unit",
    "pitch_mm",
    "placed_sides",
    "place_key",
    "poles_of",
    "proposals",
    "slots_of",
    "strip_pieces",
    "strip_record",
    "strip_rows",
    "strip_sum",
    "strip_width_mm",
    "strip_widths",
    "strips",
    "terminal_symbols",
    "waiting_rows",
    "wire_numbers_at",
]
