"""Enclosures: layout, lanes, routes, faults."""

from .faults import Fault, duct_outline, enclosure_warming, layout_faults, rail_length, rail_load
from .holes import Hole, cutouts_in, fixing_of, hole_table, holes, pattern_of, runs_of
from .lanes import Entry, Lane, LaneGraph, Way, lane
from .layout import (
    RAIL_WIDTH_MM,
    Outline,
    enclosures,
    outline,
    pin_point,
    placing_of,
    placings_in,
    rail_is_level,
    size_of,
    surface_size,
    tray,
)
from .routes import Fill, Route, duct_fills, hinge_points, lane_graph, panel_conductors, routes, routes_from

__all__ = [
    "Hole",
    "cutouts_in",
    "fixing_of",
    "hole_table",
    "runs_of",
    "pattern_of",
    "RAIL_WIDTH_MM",
    "Entry",
    "Fault",
    "Fill",
    "Lane",
    "LaneGraph",
    "Outline",
    "Route",
    "Way",
    "duct_fills",
    "duct_outline",
    "enclosure_warming",
    "enclosures",
    "hinge_points",
    "holes",
    "lane",
    "lane_graph",
    "layout_faults",
    "outline",
    "panel_conductors",
    "pin_point",
    "placing_of",
    "placings_in",
    "rail_is_level",
    "rail_length",
    "rail_load",
    "routes",
    "routes_from",
    "size_of",
    "surface_size",
    "tray",
]
