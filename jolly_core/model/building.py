"""What is built from a drawing: strips, cables, PLC cards and points, enclosures, harnesses.

Strips, cables, cards, enclosures and connectors are devices: tag, part, text and place are the device's. The records
here keep what only they have.
"""

from __future__ import annotations

from dataclasses import dataclass

STRIP_ITEM_KINDS = ("terminal", "end-bracket", "plate", "marker")
ADDRESS_SCHEMES = ("byte.bit", "whole", "word")
IO_TYPES = ("DI", "DO", "AI", "AO")
SURFACES = ("plate", "door")


@dataclass(slots=True)
class StripItem:
    """A place in the order of a strip: a terminal that somebody placed or numbered, or an accessory.

    A terminal without a record stands after those that have one, by its unit.

    Attributes:
        strip_id: the strip's device.
        kind: one of STRIP_ITEM_KINDS.
        order: position, smallest first; equal ones by unit, then id.
        unit: the terminal's unit number, 0 for an accessory.
        number: a terminal number fixed by hand, "" when it is the unit number.
        part_id: an accessory's part; that of a terminal when it is another than the strip's, else "".
    """

    id: str
    strip_id: str
    kind: str = "terminal"
    order: int = 0
    unit: int = 0
    number: str = ""
    part_id: str = ""


@dataclass(slots=True)
class Bridge:
    """A bridge that makes terminals of one strip one potential; `units` are their unit numbers."""

    id: str
    strip_id: str
    units: tuple[int, ...]


@dataclass(slots=True)
class Cable:
    """What only a cable has, beside its device.

    Attributes:
        length_m: typed length, 0 while it is unknown.
        load_a, voltage_v, power_factor: for the voltage drop; 0 takes them from the part at the far end.
    """

    id: str
    device_id: str
    length_m: float = 0.0
    load_a: float = 0.0
    voltage_v: float = 0.0
    power_factor: float = 0.0


@dataclass(slots=True)
class Band:
    """A stroke on a sheet, from its first to its second point, across the wires that are cores of a cable."""

    id: str
    sheet_id: str
    x1: int
    y1: int
    x2: int
    y2: int
    device_id: str


@dataclass(slots=True)
class CoreChoice:
    """A person's choice that a conductor takes a core.

    Attributes:
        device_id: the cable's device.
        ordinal: 1-based position of the core in the part's list.
        conductor: key of the conductor (`jolly_core.wiring.Conductor.key`).
    """

    id: str
    device_id: str
    ordinal: int
    conductor: str


@dataclass(slots=True)
class NetOrder:
    """A person's own order of the conductors of a net.

    Attributes:
        pairs: the keys of its conductors (`jolly_core.wiring.conductor_key`), each two pins.
    """

    id: str
    pairs: tuple[str, ...]


@dataclass(slots=True)
class Card:
    """What only a PLC card has, beside its device.

    Attributes:
        scheme: how channels are addressed, one of ADDRESS_SCHEMES.
        start: address of the first channel, for example "0.0" or "100".
        order: position among the cards.
    """

    id: str
    device_id: str
    scheme: str = "byte.bit"
    start: str = "0.0"
    order: int = 0


@dataclass(slots=True)
class IoPoint:
    """A point of the I/O list.

    Attributes:
        io_type: one of IO_TYPES.
        connected: what is connected, in words.
        order: position in the list.
        device_id: the card's device it is allocated to, "" while it waits.
        channel: 1-based number of the card's channel of that type, 0 while it waits.
    """

    id: str
    tag: str
    text: str = ""
    io_type: str = "DI"
    connected: str = ""
    order: int = 0
    device_id: str = ""
    channel: int = 0


@dataclass(slots=True)
class Enclosure:
    """An enclosure that is laid out; its part gives outside size and mounting plate.

    Attributes:
        ambient_c: highest temperature around it, degrees Celsius.
        hinge: side of the plate on which wires pass to the door, "left" or "right".
        left_id: the enclosure on its left to which the walls between are open, "" for none; both are one panel then.
        opening_mm: how far below the upper edges of the plates the opening is.
    """

    id: str
    device_id: str
    ambient_c: float = 35.0
    hinge: str = "right"
    left_id: str = ""
    opening_mm: float = 0.0


@dataclass(slots=True)
class Rail:
    """A mounting rail between two points of the plate, mm from its top left corner; level or upright."""

    id: str
    enclosure_id: str
    x1: float
    y1: float
    x2: float
    y2: float
    part_id: str


@dataclass(slots=True)
class Duct:
    """A wiring duct along a centre line on the plate, mm; its part gives width and depth."""

    id: str
    enclosure_id: str
    x1: float
    y1: float
    x2: float
    y2: float
    part_id: str


@dataclass(slots=True)
class Placing:
    """Where a device is in an enclosure.

    Attributes:
        surface: one of SURFACES.
        x, y: top left corner of its outline, mm from the surface's top left corner; on a level rail y follows the
            rail, on an upright one x does.
        rail_id: the rail it is clipped on, "".
    """

    id: str
    enclosure_id: str
    device_id: str
    surface: str
    x: float
    y: float
    rail_id: str = ""


@dataclass(slots=True)
class Harness:
    """A wiring harness; its wires are those drawn between cavities of its connectors."""

    id: str
    code: str
    text: str = ""
    order: int = 0


@dataclass(slots=True)
class Node:
    """An end or a branching of a harness; `device_id` is the connector there, "" at a branching."""

    id: str
    harness_id: str
    device_id: str = ""
    name: str = ""


@dataclass(slots=True)
class Segment:
    """A stretch of a harness between two nodes, with its length."""

    id: str
    harness_id: str
    a_id: str
    b_id: str
    length_mm: float
