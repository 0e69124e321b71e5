"""Symbols and part classes as data, and how they are looked up."""

from .blocks import SIDES, block_body, block_key, block_spans, is_block, sides_of, width_of
from .cabletext import cores_told
from .classes import OWN, PartClass, base_of, is_class, is_like, own_class_key, part_class, part_classes
from .comparing import Comparison, compared
from .drafting import conductor_count, core_orders, like, new_part, with_cores, with_units
from .drawn import checked_art, drawn_key, is_drawn, outline_art, outline_key, sketch_from, sketch_of
from .fields import FIELD_KINDS, FieldKind, FieldSpec, checked, number_in, part_fields, unit_facts
from .gauges import awg_area_mm2
from .lookup import Library, NoLibrary, find_symbols
from .partfacts import (
    PURPOSES,
    Difference,
    check_part,
    differences,
    flat_members,
    goes_with,
    missing,
    names_in,
    text_in,
    units_line,
    values_of,
)
from .parttext import Reading, part_from_text
from .stamps import KeptStamp, built_in_stamps
from .symbols import POLE_PITCH, Definition, Primitive, article, definition, definitions, is_known
from .terminalkinds import FEED_THROUGH, PLAIN, TERMINAL_WORDS, kind_drawn, symbol_of_kind, terminal_kind
from .titleblocks import BlockPattern, block_of, built_in_blocks, pattern_from_json, pattern_of, pattern_to_json
from .unitkinds import UnitKind, next_pins, own_symbol, symbol_for, unit_kind, unit_kinds
from .wiretypes import WIRE_COLOURS, is_colour, usual_wire_types

__all__ = [
    "awg_area_mm2",
    "BlockPattern",
    "Comparison",
    "Definition",
    "Difference",
    "FEED_THROUGH",
    "FIELD_KINDS",
    "FieldKind",
    "FieldSpec",
    "KeptStamp",
    "Library",
    "NoLibrary",
    "OWN",
    "POLE_PITCH",
    "PURPOSES",
    "PartClass",
    "Primitive",
    "Reading",
    "SIDES",
    "PLAIN",
    "TERMINAL_WORDS",
    "UnitKind",
    "WIRE_COLOURS",
    "base_of",
    "block_body",
    "block_key",
    "block_spans",
    "block_of",
    "built_in_blocks",
    "built_in_stamps",
    "check_part",
    "checked",
    "checked_art",
    "compared",
    "conductor_count",
    "core_orders",
    "cores_told",
    "article",
    "definition",
    "definitions",
    "differences",
    "drawn_key",
    "find_symbols",
    "flat_members",
    "is_block",
    "is_class",
    "is_colour",
    "is_drawn",
    "is_known",
    "is_like",
    "kind_drawn",
    "like",
    "missing",
    "goes_with",
    "names_in",
    "new_part",
    "next_pins",
    "number_in",
    "outline_art",
    "outline_key",
    "own_class_key",
    "own_symbol",
    "part_class",
    "part_classes",
    "part_fields",
    "part_from_text",
    "pattern_from_json",
    "pattern_of",
    "pattern_to_json",
    "sides_of",
    "sketch_from",
    "sketch_of",
    "symbol_for",
    "symbol_of_kind",
    "terminal_kind",
    "text_in",
    "unit_facts",
    "unit_kind",
    "unit_kinds",
    "units_line",
    "usual_wire_types",
    "values_of",
    "width_of",
    "with_cores",
    "with_units",
]
