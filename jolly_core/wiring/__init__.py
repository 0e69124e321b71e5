"""Nets, potentials, connections and wire numbers."""

from .connections import Connection, connections, dots
from .nets import (
    Group,
    GroupKey,
    PinKey,
    SheetGroups,
    all_nets,
    net_of,
    nets_of_sheet,
    reading_order,
    sheet_groups,
)
from .numbers import wire_numbers

__all__ = [
    "Connection",
    "Group",
    "GroupKey",
    "PinKey",
    "SheetGroups",
    "all_nets",
    "connections",
    "dots",
    "net_of",
    "nets_of_sheet",
    "reading_order",
    "sheet_groups",
    "wire_numbers",
]
