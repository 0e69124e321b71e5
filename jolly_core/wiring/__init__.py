"""Nets, potentials, connections and wire numbers."""

from .buses import UsualBus, usual_buses
from .conductors import (
    Conductor,
    all_conductors,
    conductor_key,
    conductors_at,
    conductors_from,
    conductors_of_net,
    conductors_of_sheet,
    wires_along,
)
from .connections import Connection, connections, dots, dots_of, way_of
from .nets import (
    Group,
    GroupKey,
    PinKey,
    SheetGroups,
    all_nets,
    group_at,
    group_of,
    net_of,
    nets_of_sheet,
    point_of,
    reading_order,
    sheet_groups,
)
from .neutrals import SWITCHED, is_live, is_neutral, neutral_colours
from .numbers import holders_of_numbers, wire_numbers
from .orders import by_layout, check_order, measure_layout, own_order
from .places import EARTH_TERMINAL, INSIDE, Place, Site, gates_missing, own_panel, panel_of, place_of, site_of
from .potentials import potential_in, potentials_of_types
from .rules import groups_numbered_with, named_parts, rules_in_order
from .saidtypes import takes_type, types_of_potentials
from .terminalparts import joint_of, own_parts, part_at, part_of_kind, serves, terminal_part

__all__ = [
    "is_live",
    "is_neutral",
    "SWITCHED",
    "neutral_colours",
    "joint_of",
    "Conductor",
    "Connection",
    "EARTH_TERMINAL",
    "Group",
    "GroupKey",
    "INSIDE",
    "PinKey",
    "Place",
    "SheetGroups",
    "Site",
    "UsualBus",
    "all_conductors",
    "all_nets",
    "group_at",
    "group_of",
    "point_of",
    "by_layout",
    "check_order",
    "conductor_key",
    "conductors_at",
    "conductors_from",
    "conductors_of_net",
    "conductors_of_sheet",
    "connections",
    "dots",
    "dots_of",
    "gates_missing",
    "holders_of_numbers",
    "measure_layout",
    "groups_numbered_with",
    "named_parts",
    "net_of",
    "nets_of_sheet",
    "own_order",
    "own_panel",
    "own_parts",
    "panel_of",
    "part_at",
    "part_of_kind",
    "place_of",
    "potential_in",
    "potentials_of_types",
    "takes_type",
    "types_of_potentials",
    "reading_order",
    "rules_in_order",
    "serves",
    "sheet_groups",
    "site_of",
    "terminal_part",
    "usual_buses",
    "way_of",
    "wire_numbers",
    "wires_along",
]
