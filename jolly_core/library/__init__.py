"""Symbols and part classes as data, and how they are looked up."""

from .blocks import SIDES, block_key, is_block, sides_of, width_of
from .classes import PartClass, part_class, part_classes
from .lookup import Library, NoLibrary, find_symbols
from .stamps import KeptStamp, built_in_stamps
from .symbols import POLE_PITCH, Definition, Primitive, definition, definitions
from .titleblocks import BlockPattern, block_of, built_in_blocks, pattern_from_json, pattern_of, pattern_to_json
from .wiretypes import WIRE_COLOURS, is_colour, usual_wire_types

__all__ = [
    "KeptStamp",
    "built_in_stamps",
    "SIDES",
    "block_key",
    "is_block",
    "sides_of",
    "width_of",
    "WIRE_COLOURS",
    "is_colour",
    "usual_wire_types",
    "POLE_PITCH",
    "BlockPattern",
    "Definition",
    "Library",
    "NoLibrary",
    "PartClass",
    "Primitive",
    "block_of",
    "built_in_blocks",
    "definition",
    "definitions",
    "find_symbols",
    "part_class",
    "part_classes",
    "pattern_from_json",
    "pattern_of",
    "pattern_to_json",
]
