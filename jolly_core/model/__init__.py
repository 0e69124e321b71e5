"""Entities, the Project aggregate, changes and errors."""

from .changes import Change, ChangeSet, Entity
from .circuit import WIRE_CATEGORIES, Continuation, Device, Note, Symbol, Wire, WireType
from .errors import ConflictError, CoreError, FileError, GoneError, RuleError
from .ids import IdSource
from .parts import Part
from .project import KINDS, ON_SHEET, Index, Project
from .records import changes_from_json, changes_to_json, check_text, fields_of, from_record, to_record
from .structure import (
    FRAMES,
    SETTINGS_ID,
    SHEET_SIZES_MM,
    SIDES,
    STANDARDS,
    TAG_HABITS,
    TAG_SCOPES,
    WIRE_PATTERNS,
    Function,
    Location,
    Settings,
    Sheet,
)

__all__ = [
    "FRAMES",
    "KINDS",
    "ON_SHEET",
    "SETTINGS_ID",
    "SHEET_SIZES_MM",
    "SIDES",
    "STANDARDS",
    "TAG_HABITS",
    "TAG_SCOPES",
    "WIRE_CATEGORIES",
    "WIRE_PATTERNS",
    "Change",
    "ChangeSet",
    "ConflictError",
    "Continuation",
    "CoreError",
    "Device",
    "Entity",
    "FileError",
    "Function",
    "GoneError",
    "IdSource",
    "Index",
    "Location",
    "Note",
    "Part",
    "Project",
    "RuleError",
    "Settings",
    "Sheet",
    "Symbol",
    "Wire",
    "WireType",
    "changes_from_json",
    "changes_to_json",
    "check_text",
    "fields_of",
    "from_record",
    "to_record",
]
