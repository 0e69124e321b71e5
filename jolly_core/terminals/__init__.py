"""Terminal strips."""

from .groups import TerminalGroup, groups_of
from .strips import (
    ACCESSORY_NAMES,
    StripRow,
    Target,
    bridges_of,
    is_strip,
    item_records,
    placed_sides,
    strip_rows,
    strip_width_mm,
    strips,
)

__all__ = [
    "ACCESSORY_NAMES",
    "StripRow",
    "TerminalGroup",
    "Target",
    "bridges_of",
    "groups_of",
    "is_strip",
    "item_records",
    "placed_sides",
    "strip_rows",
    "strip_width_mm",
    "strips",
]
