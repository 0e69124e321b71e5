"""Symbols and part classes as data, and how they are looked up."""

from .classes import PartClass, part_class, part_classes
from .lookup import Library, NoLibrary, find_symbols
from .symbols import POLE_PITCH, Definition, Primitive, definition, definitions

__all__ = [
    "POLE_PITCH",
    "Definition",
    "Library",
    "NoLibrary",
    "PartClass",
    "Primitive",
    "definition",
    "definitions",
    "find_symbols",
    "part_class",
    "part_classes",
]
