"""Symbols and part classes as data, and how they are looked up."""

from .blocks import SIDES, block_key, is_block, sides_of, width_of
from .classes import OWN, PartClass, base_of, is_class, own_class_key, part_class, part_classes
from .comparing import Comparison, compared
from .drafting import conductor_count, core_orders, like, new_part, with_cores, with_units
from .drawn import checked_art, drawn_key, is_drawn, outline_art, outline_key, sketch_from, sketch_of
from .fields import FIELD_KINDS, FieldSpec, checked, number_in, part_fields, unit_facts
from .lookup import Library, NoLibrary, find_symbols
from .partfacts import PURPOSES, Difference, check_part, differences, missing, names_in, units_line, values_of
from .parttext import Reading, part_from_text
from .stamps import KeptStamp, built_in_stamps
from .symbols import POLE_PITCH, Definition, Primitive, definition, definitions, is_known
from .titleblocks import BlockPattern, block_of, built_in_blocks, pattern_from_json, pattern_of, pattern_to_json
from .unitkinds import UnitKind, next_pins, own_symbol, symbol_for, unit_kind, unit_kinds
from .wiretypes import WIRE_COLOURS, is_colour, usual_wire_types

__all__ = [
    "OWN",
    "base_of",
    "is_class",
    "own_class_key",
    "Comparison",
    "compared",
    "checked_art",
    "drawn_key",
    "is_drawn",
    "is_known",
    "outline_art",
    "own_symbol",
    "outline_key",
    "sketch_from",
    "sketch_of",
    "FIELD_KINDS",
    "FieldSpec",
    "checked",
    "number_in",
    "part_fields",
    "unit_facts",
    "PURPOSES",
    "conductor_count",
    "core_orders",
    "like",
    "new_part",
    "with_cores",
    "with_units",
    "Reading",
    "part_from_text",
    "Difference",
    "check_part",
    "differences",
    "missing",
    "names_in",
    "units_line",
    "values_of",
    "UnitKind",
    "next_pins",
    "symbol_for",
    "unit_kind",
    "unit_kinds",
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
