"""Tags, units and cross-references of devices."""

from .fields import DOCUMENTS, FIELDS, check_fields, check_own_name, fields_in, filled, own_names, renamed
from .names import INSIDE, device_at, is_inside, pin_name, place_side
from .references import (
    CONTACT_KINDS,
    KIND_WORDS,
    ContactRow,
    contact_table,
    lead_reference,
    likely_devices,
    reference_to,
)
from .tags import class_letters, full_tag, letters_for, next_number, path_of, product_tag, tag_on, tag_taken
from .units import UnitRow, lead_of, next_units, pins_of, remap, room_for, terminal_number, unit_rows, used_units

__all__ = [
    "class_letters",
    "CONTACT_KINDS",
    "DOCUMENTS",
    "FIELDS",
    "INSIDE",
    "KIND_WORDS",
    "ContactRow",
    "UnitRow",
    "check_fields",
    "check_own_name",
    "contact_table",
    "device_at",
    "fields_in",
    "filled",
    "full_tag",
    "is_inside",
    "lead_of",
    "lead_reference",
    "letters_for",
    "likely_devices",
    "next_number",
    "next_units",
    "own_names",
    "path_of",
    "pin_name",
    "pins_of",
    "place_side",
    "product_tag",
    "reference_to",
    "remap",
    "renamed",
    "room_for",
    "tag_on",
    "tag_taken",
    "terminal_number",
    "unit_rows",
    "used_units",
]
