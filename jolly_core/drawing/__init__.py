"""Grid geometry: placing, canonical wires, moving, references of places."""

from .canonical import canonical, is_canonical, normal
from .draft import SheetDraft, joins, move
from .geometry import (
    GRID_MM,
    UPRIGHT,
    Point,
    carried_pins,
    extent_of,
    lies_upright,
    pin_points,
    through_spans,
    turned,
)
from .groups import MASK, SHIFT, roots
from .lines import FRAME_MM, TITLE_MM, grid_size, ladder_line, ladder_lines, place_in, place_on, size_mm, zone

__all__ = [
    "FRAME_MM",
    "GRID_MM",
    "MASK",
    "SHIFT",
    "TITLE_MM",
    "UPRIGHT",
    "Point",
    "SheetDraft",
    "canonical",
    "carried_pins",
    "extent_of",
    "grid_size",
    "is_canonical",
    "joins",
    "ladder_line",
    "ladder_lines",
    "lies_upright",
    "move",
    "normal",
    "pin_points",
    "place_in",
    "place_on",
    "roots",
    "size_mm",
    "through_spans",
    "turned",
    "zone",
]
