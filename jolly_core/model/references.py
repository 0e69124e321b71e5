"""Which field of which kind names what: the one table that file checks and undo read."""

from __future__ import annotations

from .building import ADDRESS_SCHEMES, IO_TYPES, STRIP_ITEM_KINDS, SURFACES
from .circuit import FIGURE_KINDS, NUMBER_PLACES, WIRE_CATEGORIES
from .habits import NUMBER_SCOPES, STRIP_NUMBERING
from .parts import MOUNTINGS
from .structure import CONDUCTOR_ORDERS, FRAMES, LENGTH_UNITS, SHEET_KINDS, SHEET_SIZES_MM, SIDES, STANDARDS

# Kind -> field -> kind it names; an empty text names nothing, unless the field is in NEEDED.
REFERENCES: dict[str, dict[str, str]] = {
    "function": {"parent_id": "function"},
    "location": {"parent_id": "location"},
    "settings": {"title_block_id": "title_block"},
    "title_cell": {"block_id": "title_block", "picture_id": "picture"},
    "sheet_habit": {
        "title_block_id": "title_block",
        "left_rail_type_id": "wire_type",
        "right_rail_type_id": "wire_type",
    },
    "sheet": {
        "function_id": "function",
        "location_id": "location",
        "title_block_id": "title_block",
        "device_id": "device",
        "enclosure_id": "enclosure",
        "harness_id": "harness",
    },
    "device": {"function_id": "function", "location_id": "location", "part_id": "part"},
    "add_on": {"device_id": "device", "part_id": "part"},
    "symbol": {"sheet_id": "sheet", "device_id": "device"},
    "wire": {"sheet_id": "sheet", "type_id": "wire_type"},
    "continuation": {"sheet_id": "sheet"},
    "note": {"sheet_id": "sheet"},
    "figure": {"sheet_id": "sheet", "location_id": "location", "picture_id": "picture"},
    "tag_rule": {"function_id": "function", "location_id": "location"},
    "number_rule": {"type_id": "wire_type", "function_id": "function", "location_id": "location"},
    "band": {"sheet_id": "sheet", "device_id": "device"},
    "strip": {"device_id": "device"},
    "strip_item": {"strip_id": "device", "part_id": "part"},
    "bridge": {"strip_id": "device"},
    "cable": {"device_id": "device"},
    "core_choice": {"device_id": "device"},
    "card": {"device_id": "device"},
    "io_point": {"device_id": "device"},
    "enclosure": {"device_id": "device", "left_id": "enclosure"},
    "rail": {"enclosure_id": "enclosure", "part_id": "part"},
    "duct": {"enclosure_id": "enclosure", "part_id": "part"},
    "placing": {"enclosure_id": "enclosure", "device_id": "device", "rail_id": "rail"},
    "node": {"harness_id": "harness", "device_id": "device"},
    "segment": {"harness_id": "harness", "a_id": "node", "b_id": "node"},
}
# Fields that must name something.
NEEDED: dict[str, tuple[str, ...]] = {
    "title_cell": ("block_id",),
    "symbol": ("sheet_id",),
    "wire": ("sheet_id", "type_id"),
    "continuation": ("sheet_id",),
    "note": ("sheet_id",),
    "figure": ("sheet_id",),
    "add_on": ("device_id", "part_id"),
    "band": ("sheet_id", "device_id"),
    "strip": ("device_id",),
    "strip_item": ("strip_id",),
    "bridge": ("strip_id",),
    "cable": ("device_id",),
    "core_choice": ("device_id",),
    "card": ("device_id",),
    "enclosure": ("device_id",),
    "rail": ("enclosure_id", "part_id"),
    "duct": ("enclosure_id", "part_id"),
    "placing": ("enclosure_id", "device_id"),
    "node": ("harness_id",),
    "segment": ("harness_id", "a_id", "b_id"),
}


# Fields that hold one of a few words.
CHOICES: dict[str, dict[str, tuple[str, ...]]] = {
    "settings": {"standard": STANDARDS, "length_unit": LENGTH_UNITS, "conductor_order": CONDUCTOR_ORDERS},
    "location": {"side": SIDES},
    "sheet": {"kind": SHEET_KINDS, "frame": FRAMES, "size": tuple(SHEET_SIZES_MM)},
    "sheet_habit": {"kind": SHEET_KINDS, "frame": FRAMES, "size": tuple(SHEET_SIZES_MM)},
    "title_cell": {"anchor": ("start", "middle", "end")},
    "picture": {"media_type": ("image/png", "image/jpeg")},
    "wire_type": {"number_at": NUMBER_PLACES},
    "figure": {"kind": FIGURE_KINDS},
    "number_rule": {"scope": NUMBER_SCOPES, "category": ("", *WIRE_CATEGORIES)},
    "strip": {"numbering": STRIP_NUMBERING},
    "strip_item": {"kind": STRIP_ITEM_KINDS},
    "card": {"scheme": ADDRESS_SCHEMES},
    "io_point": {"io_type": IO_TYPES},
    "enclosure": {"hinge": ("left", "right")},
    "placing": {"surface": SURFACES},
    "part": {"mounting": MOUNTINGS},
}


def users_of(kind: str) -> list[tuple[str, str]]:
    """Return (kind, field) of every field that may name an entity of a kind.

    Example:
        >>> users_of("rail")
        [('placing', 'rail_id')]
    """
    return [(user, field) for user, fields in REFERENCES.items() for field, target in fields.items() if target == kind]
