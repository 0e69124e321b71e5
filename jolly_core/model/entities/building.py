"""What is built from a drawing: strips, cables, PLC cards and points; see also layout.py and harness.py.

Strips, cables, cards and connectors are devices: tag, part, text and place are the device's. The records
here keep what only they have.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated, Literal, get_args

from ..fields import (
    GridX,
    GridY,
    Id,
    Longest,
    LongText,
    Names,
    Numbers,
    OneOf,
    Order,
    Running,
    Said,
    Sheetwise,
    Since,
    Text,
    Texts,
    Within,
    Written,
)
from ..kinds import Keyed, kind
from .circuit import InLayer, Together
from .structure import CHANNEL_SIDES, CHANNEL_WAYS, LAYING_METHODS, MOST_CHANNELS

STRIP_ITEM_KINDS = ("terminal", "end-bracket", "plate", "marker")
TERMINAL_KINDS = ("feed-through", "earth", "fuse", "disconnect")
TERMINAL_JOINTS = ("", "carry", "part")
TERMINAL_FACINGS = ("", "first", "second")
MOST_LEVELS = 8
AddressScheme = Literal["byte.bit", "whole", "word", "octal", "slot"]
ADDRESS_SCHEMES: tuple[str, ...] = get_args(AddressScheme)
IO_TYPES = ("DI", "DO", "AI", "AO")
# What a point asks of its channel beside its type, "" for nothing more.
IO_SORTS = ("", "fast", "rtd", "thermocouple", "safe")
NORMAL_STATES = ("", "open", "closed")
CHECK_RESULTS = ("good", "fault")
SHIELD_ENDS = ("", "source", "destination", "both")

Metres = Annotated[float, Within(0, 100_000, "m")]
Amount = Annotated[float, Within(0, 1_000_000)]
PowerFactor = Annotated[float, Within(0, 1)]
Level = Annotated[int, Within(1, MOST_LEVELS)]
Slot = Annotated[int, Within(0, 256)]
Address = Annotated[str, Longest(40), Written(r"|\d{1,5}(\.[0-7])?", "an address such as 0.0 or 256")]


@kind("strip_item", since=1, seen="here", called="place on strip", indexes=(Keyed("items_of_strip", "strip_id"),))
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
        planned: kind of a terminal that is there though it may be drawn on no sheet, one of TERMINAL_KINDS; "" for a
            terminal that goes with its symbol.
        spare: it is kept free on purpose, and is not waiting to be drawn.
        level: 1 for a terminal that begins a block; one of a higher level stands on the block before it.
        remark: what the shop should know.
        joint: whether it carries the wire number through or parts it, one of TERMINAL_JOINTS; "" as its symbol does.
        facing: which pin of its symbol is on panel side, one of TERMINAL_FACINGS; "" by the places of what lands.
    """

    id: Id
    strip_id: Annotated[str, Names("device", needed=True)]
    kind: Annotated[str, OneOf(STRIP_ITEM_KINDS)] = "terminal"
    order: Order = 0
    unit: Running = 0
    number: Text = ""
    part_id: Annotated[str, Names("part")] = ""
    planned: Annotated[str, OneOf(("", *TERMINAL_KINDS)), Since(6)] = ""
    spare: Annotated[bool, Since(6)] = False
    level: Annotated[Level, Since(6)] = 1
    remark: Annotated[LongText, Since(6)] = ""
    joint: Annotated[str, OneOf(TERMINAL_JOINTS), Since(6)] = ""
    facing: Annotated[str, OneOf(TERMINAL_FACINGS), Since(6)] = ""


@kind("bridge", since=1, seen="here", indexes=(Keyed("bridges_of_strip", "strip_id"),))
@dataclass(slots=True)
class Bridge:
    """A bridge that makes terminals of one strip one potential; `units` are their unit numbers.

    Attributes:
        part_id: the part it is cut or ordered from, "" while none is chosen.
    """

    id: Id
    strip_id: Annotated[str, Names("device", needed=True)]
    units: Numbers
    part_id: Annotated[str, Names("part"), Since(6)] = ""


@kind("cable", since=1, seen="here", keeps_device=True, comes_along=True)
@dataclass(slots=True)
class Cable:
    """What only a cable has, beside its device.

    Attributes:
        length_m: typed length, 0 while it is unknown.
        load_a, voltage_v, power_factor: for the voltage drop; 0 takes them from the part at the far end.
        shield_landed: at which of its ends the shield is landed, one of SHIELD_ENDS.
        turned: source and destination are the other way round than by their places.
        numbered: its cores are called by their place in the part's list and not by their colours; green-yellow stays.
        laid: how it is laid, one of LAYING_METHODS, "" as the project says.
        grouped: loaded circuits that lie together on its way, this one with them.
        apart: in a harness it runs beside the bundle and not in it.
    """

    id: Id
    device_id: Annotated[str, Names("device", needed=True)]
    length_m: Metres = 0.0
    load_a: Amount = 0.0
    voltage_v: Amount = 0.0
    power_factor: PowerFactor = 0.0
    shield_landed: Annotated[str, OneOf(SHIELD_ENDS), Since(6)] = ""
    turned: Annotated[bool, Since(6)] = False
    numbered: Annotated[bool, Since(6)] = False
    laid: Annotated[str, OneOf(("", *LAYING_METHODS)), Since(7)] = ""
    grouped: Annotated[int, Within(1, 9), Since(7)] = 1
    apart: Annotated[bool, Since(13)] = False


@kind("band", since=1, seen="here", keeps_device=True)
@dataclass(slots=True)
class Band:
    """A stroke on a sheet, from its first to its second point, across the wires that are cores of a cable."""

    id: Id
    sheet_id: Sheetwise
    x1: GridX
    y1: GridY
    x2: GridX
    y2: GridY
    device_id: Annotated[str, Names("device", needed=True)]
    layer_id: InLayer = ""
    together: Together = ""


@kind("core_choice", since=1, seen="nowhere", called="core")
@dataclass(slots=True)
class CoreChoice:
    """A person's choice that a conductor takes a core.

    Attributes:
        device_id: the cable's device.
        ordinal: 1-based position of the core in the part's list.
        conductor: key of the conductor (`jolly_core.wiring.Conductor.key`).
    """

    id: Id
    device_id: Annotated[str, Names("device", needed=True)]
    ordinal: Running
    conductor: LongText


@kind("net_order", since=4, seen="nowhere")
@dataclass(slots=True)
class NetOrder:
    """A person's own order of the conductors of a net.

    Attributes:
        pairs: the keys of its conductors (`jolly_core.wiring.conductor_key`), each two pins.
    """

    id: Id
    pairs: Annotated[tuple[str, ...], Longest(2000)]


@kind("rack", since=7, seen="here", keeps_device=True)
@dataclass(slots=True)
class Rack:
    """A rack that PLC cards are put into: the controller's own, or a remote station at its device's location."""

    id: Id
    device_id: Annotated[str, Names("device", needed=True)]


@kind("card", since=1, seen="here", keeps_device=True)
@dataclass(slots=True)
class Card:
    """What only a PLC card has, beside its device.

    Attributes:
        scheme: how channels are addressed, one of ADDRESS_SCHEMES.
        start: address of the first channel, for example "0.0" or "100".
        order: position among the cards.
        fixed: its address stays when cards are addressed together.
        rack_id, slot: the rack it is put into and its place there, counted from 1; "" and 0 for none.
        sheet_ids: the sheets that were made to draw its channels on; others are never added to.
    """

    id: Id
    device_id: Annotated[str, Names("device", needed=True)]
    scheme: Annotated[str, OneOf(ADDRESS_SCHEMES)] = "byte.bit"
    start: Address = "0.0"
    order: Order = 0
    fixed: Annotated[bool, Since(7)] = False
    rack_id: Annotated[str, Names("rack"), Since(7)] = ""
    slot: Annotated[Slot, Since(7)] = 0
    sheet_ids: Annotated[tuple[str, ...], Longest(200), Since(7)] = ()


@kind("io_point", since=1, seen="here", called="point", indexes=(Keyed("points_of_card", "device_id"),))
@dataclass(slots=True)
class IoPoint:
    """A point of the I/O list.

    Attributes:
        io_type: one of IO_TYPES.
        connected: what is connected, in words.
        order: position in the list.
        device_id: the card's device it is allocated to, "" while it waits.
        channel: 1-based number of the card's channel of that type, 0 while it waits.
        text2: a second text, for example in another language.
        sort: what it asks of its channel beside the type, one of IO_SORTS.
        signal: for example "24 V DC" or "4-20 mA".
        function_id, location_id: what it belongs to and where its device is.
        device: tag of the device in the field, as the list says it.
        span, unit: what is measured or set from and to, and in what.
        normal: whether its contact is open or closed at rest, one of NORMAL_STATES.
        terminals, cable: terminals on its wires, and a cable for them, are wanted.
        fixed: it keeps its channel when points are allocated together.
        drawn: id of the input or output that is drawn for it, by hand or from the list, "" for none; one that is gone
            is passed over.
        own: columns of the list that only the project has, heading to text.
    """

    id: Id
    tag: Text
    text: Annotated[Text, Said()] = ""
    io_type: Annotated[str, OneOf(IO_TYPES)] = "DI"
    connected: Text = ""
    order: Order = 0
    device_id: Annotated[str, Names("device")] = ""
    channel: Running = 0
    text2: Annotated[Text, Since(7)] = ""
    sort: Annotated[str, OneOf(IO_SORTS), Since(7)] = ""
    signal: Annotated[Text, Since(7)] = ""
    function_id: Annotated[str, Names("function"), Since(7)] = ""
    location_id: Annotated[str, Names("location"), Since(7)] = ""
    device: Annotated[Text, Since(7)] = ""
    span: Annotated[Text, Since(7)] = ""
    unit: Annotated[Text, Since(7)] = ""
    normal: Annotated[str, OneOf(NORMAL_STATES), Since(7)] = ""
    terminals: Annotated[bool, Since(7)] = False
    cable: Annotated[bool, Since(7)] = False
    fixed: Annotated[bool, Since(7)] = False
    remark: Annotated[LongText, Since(7)] = ""
    drawn: Annotated[Id, Since(7)] = ""
    own: Annotated[Texts, Since(7)] = field(default_factory=dict)


@kind(
    "channel_circuit",
    since=8,
    seen="nowhere",
    called="circuit of a channel",
    indexes=(Keyed("circuits_of_symbol", "symbol_id"),),
)
@dataclass(slots=True)
class ChannelCircuit:
    """What was drawn with a channel from the list, so that it can be drawn again and what people did is kept.

    Attributes:
        symbol_id: the symbol of the channel.
        point_id: the point it was drawn for, "" when that is gone from the list.
        made: ids of the symbols and marks that were drawn with it; those that are gone are passed over.
        said: what the list said of it then (`jolly_core.points.said_of`).
        first_row, row_count: the row of the sheet it begins on, from 0, and how many rows it takes.
        per_sheet, way, side: the pattern of its sheet; `side` is where its channel stands.
    """

    id: Id
    symbol_id: Annotated[str, Names("symbol", needed=True)]
    point_id: Annotated[str, Names("io_point")] = ""
    made: Annotated[tuple[str, ...], Longest(400)] = ()
    said: LongText = ""
    first_row: Slot = 0
    row_count: Slot = 1
    per_sheet: Annotated[int, Within(1, MOST_CHANNELS)] = MOST_CHANNELS
    way: Annotated[str, OneOf(CHANNEL_WAYS)] = "level"
    side: Annotated[str, OneOf(CHANNEL_SIDES)] = "right"


@kind(
    "point_check", since=8, seen="nowhere", called="check of a point", indexes=(Keyed("checks_of_point", "point_id"),)
)
@dataclass(slots=True)
class PointCheck:
    """What was seen when a point was set in the field and read at its card.

    Attributes:
        result: one of CHECK_RESULTS.
        address: the channel at which it was looked for; under another address it is to be checked anew.
        by, on: who saw it, and on which day.
    """

    id: Id
    point_id: Annotated[str, Names("io_point", needed=True)]
    result: Annotated[str, OneOf(CHECK_RESULTS)] = "good"
    address: Text = ""
    remark: LongText = ""
    by: Text = ""
    on: Text = ""


@kind("check_signature", since=8, seen="nowhere", called="signature of the wiring check")
@dataclass(slots=True)
class CheckSignature:
    """Somebody's word that the wiring check was done as its report says.

    Attributes:
        by, on: who signed, and on which day.
        digest: of what the report said then (`jolly_core.points.checkwalk.check_digest`).
    """

    id: Id
    by: Text
    on: Text = ""
    digest: Text = ""
    remark: LongText = ""


@kind("cable_way", since=6, seen="nowhere")
@dataclass(slots=True)
class CableWay:
    """How long a cable is from one location to another, either way round; for cables whose length is not typed."""

    id: Id
    a_id: Annotated[str, Names("location", needed=True)]
    b_id: Annotated[str, Names("location", needed=True)]
    length_m: Metres = 0.0
