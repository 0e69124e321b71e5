"""What a project is made of before anything is drawn: settings, functions, locations, sheets."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated, Literal, get_args

from ..fields import Grid, Id, Length, Longest, Names, OneOf, Order, Said, Since, Text, Texts, Within
from ..kinds import Keyed, kind

SETTINGS_ID = "settings"

STANDARDS = ("iec", "na")
TAG_HABITS = ("iec", "line")
TAG_SCOPES = ("place", "project")
WIRE_PATTERNS = ("line", "sheet")
Side = Literal["panel", "door", "field", "machine"]
SIDES: tuple[Side, ...] = get_args(Side)
FRAMES = ("ladder", "zones")
LENGTH_UNITS = ("mm", "in")
CONDUCTOR_ORDERS = ("drawing", "layout")
# How channels stand on sheets of theirs: as rows or as columns, and on which side of what is connected to them.
CHANNEL_WAYS = ("level", "upright")
CHANNEL_SIDES = ("right", "left")
MOST_CHANNELS = 8  # on one sheet; more would reach the title block
DIMENSIONS = ("chain", "running")
LAYING_METHODS = ("B1", "B2", "C", "E")  # IEC 60204-1, annex D
# Kinds of sheet. Those in DRAWN are drawn on; what is on the others is made from the project.
DRAWN = ("schematic", "free")
SheetKind = Literal[
    "schematic",
    "cover",
    "contents",
    "data",
    "terminal-plan",
    "cable-plan",
    "card-plan",
    "panel-layout",
    "form-board",
    "report",
    "free",
]
SHEET_KINDS: tuple[str, ...] = get_args(SheetKind)
# Kind of sheet -> the field that names what it shows.
SheetSubject = Literal["", "device_id", "enclosure_id", "harness_id", "report"]
SHEET_SUBJECTS: dict[str, SheetSubject] = {
    "terminal-plan": "device_id",
    "cable-plan": "device_id",
    "card-plan": "device_id",
    "panel-layout": "enclosure_id",
    "form-board": "harness_id",
    "report": "report",
}

# Landscape width and height in mm: ISO 216 and ANSI Y14.1.
SHEET_SIZES_MM: dict[str, tuple[float, float]] = {
    "A4": (297.0, 210.0),
    "A3": (420.0, 297.0),
    "A2": (594.0, 420.0),
    "A1": (841.0, 594.0),
    "A0": (1189.0, 841.0),
    "ANSI A": (279.4, 215.9),
    "ANSI B": (431.8, 279.4),
    "ANSI C": (558.8, 431.8),
    "ANSI D": (863.6, 558.8),
    "ANSI E": (1117.6, 863.6),
}

WireWidth = Annotated[int, Within(1, 6)]
SpoolLength = Annotated[float, Within(0, 100_000, "m", above=True)]
Share = Annotated[float, Within(0, 500, "%")]
Allowance = Annotated[float, Within(0, 1000, "m")]
CommentLimit = Annotated[int, Within(0, 200)]
AddressPrefix = Annotated[str, Longest(8)]
Ambient = Annotated[float, Within(-25, 60, "°C")]
Language = Annotated[str, Longest(8)]
SheetNumber = Annotated[str, Longest(12)]
FirstLine = Annotated[int, Within(0, 99_999)]
LineCount = Annotated[int, Within(1, 60)]
LineSpacing = Annotated[int, Within(4, 40, "grid steps")]
Columns = Annotated[int, Within(1, 40)]
ZoneRows = Annotated[int, Within(1, 26)]
Ladders = Annotated[int, OneOf((1, 2))]


@kind("settings", since=1, called="project", retired=("class_letters",))
@dataclass(slots=True)
class Settings:
    """The one record of a project's own facts and habits.

    Attributes:
        standard: which symbols and letters are used, one of STANDARDS.
        tag_habit: "iec" (=F+L-XXn) or "line" (letters and ladder line).
        tag_scope: whether running numbers count per function and location or per project.
        wire_pattern: "line" (ladder line and running digit) or "sheet" (sheet number and running number).
        wire_width: least number of digits of the running part of a wire number.
        end_allowance_mm: added to a panel wire at each end, for stripping and landing.
        door_allowance_mm: added to a wire that passes to the door, for the loop at the hinge.
        languages: codes of the languages that texts are said in beside that of the house, the usual one first.
        part_language: language of the texts of parts in lists and on sheets, as parts name it; "" for their own.
        free_run_mm: how far a wire may run over the plate outside ducts at either end.
        harness_allowance_mm: added to a harness wire at each end.
        length_step_mm: lengths are rounded up to a multiple of this; 0 leaves them.
        spool_m: wire on one spool.
        spare_share_percent: share of PLC channels that should stay free.
        supply, supply_system, control_voltages, protection, standards: technical data in words, for the data sheet.
        drawn_on, checked_on, issued_on: dates as they are to be printed.
        length_unit: one of LENGTH_UNITS, in which lengths are shown and typed.
        conductor_order: one of CONDUCTOR_ORDERS, by which conductors are found where all pins are placed.
        title_block_id: the block of sheets that choose none, "" for the built-in one of the sheet's size.
        own_fields: the person's own project fields, name to text.
        cable_allowance_m: added to the length of a cable that is taken from the table of ways.
        drop_warn_percent, drop_limit_percent: voltage drops of cables above these are warned of, or are errors.
        laying_method, ambient_c: how conductors are laid that say nothing else, and the air around them, °C.
        input_prefix, output_prefix: what addresses of inputs and outputs begin with.
        comment_limit: letters that the programmer's tool takes of a comment, 0 for any number.
        channel_feed, channel_return: names of the potentials that commons of inputs and outputs are drawn from and to.
        apart: categories of wires that may lie in no lane together with another of these.
        fill_warn_percent: ducts fuller than this are warned of.
        dimensions: how layouts are dimensioned, one of DIMENSIONS.
        eyelet_reach_mm: how far from a lane an eyelet of a device may be to join it.
        channels_per_sheet, channel_way, channel_side: the pattern of sheets that channels are drawn on; with "" for the
            side inputs stand on the right and outputs on the left (at the bottom and the top where they are upright).
    """

    id: Id = SETTINGS_ID
    number: Text = ""
    name: Text = ""
    customer: Text = ""
    site: Text = ""
    drawn_by: Text = ""
    revision: Text = "A"
    standard: Annotated[str, OneOf(STANDARDS)] = "iec"
    tag_habit: Annotated[str, OneOf(TAG_HABITS)] = "iec"
    tag_scope: Annotated[str, OneOf(TAG_SCOPES)] = "place"
    wire_pattern: Annotated[str, OneOf(WIRE_PATTERNS)] = "line"
    wire_width: WireWidth = 1
    end_allowance_mm: Length = 60.0
    door_allowance_mm: Length = 450.0
    free_run_mm: Annotated[Length, Since(4)] = 150.0
    harness_allowance_mm: Length = 20.0
    length_step_mm: Length = 5.0
    spool_m: SpoolLength = 100.0
    spare_share_percent: Share = 20.0
    supply: Annotated[Text, Since(2)] = ""
    supply_system: Annotated[Text, Since(2)] = ""
    control_voltages: Annotated[Text, Since(2)] = ""
    protection: Annotated[Text, Since(2)] = ""
    standards: Annotated[Text, Since(2)] = ""
    drawn_on: Annotated[Text, Since(2)] = ""
    checked_by: Annotated[Text, Since(2)] = ""
    checked_on: Annotated[Text, Since(2)] = ""
    issued_on: Annotated[Text, Since(2)] = ""
    length_unit: Annotated[str, OneOf(LENGTH_UNITS), Since(2)] = "mm"
    conductor_order: Annotated[str, OneOf(CONDUCTOR_ORDERS), Since(4)] = "drawing"
    part_language: Annotated[Language, Since(4)] = ""
    title_block_id: Annotated[str, Names("title_block"), Since(2)] = ""
    own_fields: Annotated[Texts, Since(2)] = field(default_factory=dict)
    cable_allowance_m: Annotated[Allowance, Since(6)] = 0.0
    drop_warn_percent: Annotated[Share, Since(6)] = 3.0
    drop_limit_percent: Annotated[Share, Since(6)] = 5.0
    laying_method: Annotated[str, OneOf(LAYING_METHODS), Since(7)] = "B2"
    ambient_c: Annotated[Ambient, Since(7)] = 40.0
    input_prefix: Annotated[AddressPrefix, Since(7)] = "I"
    output_prefix: Annotated[AddressPrefix, Since(7)] = "Q"
    comment_limit: Annotated[CommentLimit, Since(7)] = 0
    channel_feed: Annotated[Text, Since(7)] = "24 V"
    channel_return: Annotated[Text, Since(7)] = "0 V"
    channels_per_sheet: Annotated[int, Within(1, MOST_CHANNELS), Since(8)] = MOST_CHANNELS
    channel_way: Annotated[str, OneOf(CHANNEL_WAYS), Since(8)] = "level"
    channel_side: Annotated[str, OneOf(("", *CHANNEL_SIDES)), Since(8)] = ""
    apart: Annotated[tuple[str, ...], Longest(10), Since(9)] = ()
    fill_warn_percent: Annotated[Share, Since(9)] = 50.0
    eyelet_reach_mm: Annotated[Length, Since(9)] = 150.0
    dimensions: Annotated[str, OneOf(DIMENSIONS), Since(9)] = "chain"
    languages: Annotated[tuple[str, ...], Longest(4), Since(15)] = ()


@kind("function", since=1)
@dataclass(slots=True)
class Function:
    """A node of the function structure (=), IEC 81346-1."""

    id: Id
    code: Text
    text: Annotated[Text, Said()] = ""
    parent_id: Annotated[str, Names("function", tree=True)] = ""


@kind("location", since=1)
@dataclass(slots=True)
class Location:
    """A node of the location structure (+); `side` is one of SIDES."""

    id: Id
    code: Text
    text: Annotated[Text, Said()] = ""
    parent_id: Annotated[str, Names("location", tree=True)] = ""
    side: Annotated[str, OneOf(SIDES)] = "panel"


@kind(
    "sheet",
    since=1,
    indexes=(
        Keyed("sheets_about", "device_id"),
        Keyed("sheets_about", "enclosure_id"),
        Keyed("sheets_about", "harness_id"),
    ),
)
@dataclass(slots=True)
class Sheet:
    """A sheet of the project. Geometry is in whole grid steps of 2.5 mm.

    Attributes:
        order: position in the project's sheet order.
        kind: one of SHEET_KINDS.
        frame: "ladder" (numbered lines with two rails) or "zones" (columns 1.. and rows A..).
        first_line: number of the first ladder line.
        line_count: how many ladder lines there are.
        line_top: y of the first ladder line, grid steps.
        line_spacing: distance between lines, grid steps.
        rail_left, rail_right: x of the two rails, grid steps.
        columns, rows: number of zones across and down.
        ladders: ladders beside each other, 1 or 2; the second one's lines go on from the first one's.
        ladder_pitch: distance from the first ladder to the second, grid steps.
        subtitle: second line of the title.
        fields: the person's own texts for this sheet, name to text.
        title_block_id: its title block, "" for the project's.
        device_id, enclosure_id, harness_id, report: what a sheet made from the project shows (SHEET_SUBJECTS).
    """

    id: Id
    number: SheetNumber
    title: Annotated[Text, Said()] = ""
    order: Order = 0
    kind: Annotated[str, OneOf(SHEET_KINDS)] = "schematic"
    size: Annotated[str, OneOf(tuple(SHEET_SIZES_MM))] = "A3"
    frame: Annotated[str, OneOf(FRAMES)] = "ladder"
    function_id: Annotated[str, Names("function")] = ""
    location_id: Annotated[str, Names("location")] = ""
    first_line: FirstLine = 1
    line_count: LineCount = 8
    line_top: Grid = 16
    line_spacing: LineSpacing = 9
    rail_left: Grid = 14
    rail_right: Grid = 82
    columns: Columns = 8
    rows: ZoneRows = 6
    ladders: Annotated[Ladders, Since(2)] = 1
    ladder_pitch: Annotated[Grid, Since(2)] = 0
    subtitle: Annotated[Text, Said(), Since(2)] = ""
    fields: Annotated[Texts, Since(2)] = field(default_factory=dict)
    title_block_id: Annotated[str, Names("title_block"), Since(2)] = ""
    device_id: Annotated[str, Names("device"), Since(2)] = ""
    enclosure_id: Annotated[str, Names("enclosure"), Since(2)] = ""
    harness_id: Annotated[str, Names("harness"), Since(2)] = ""
    report: Annotated[Id, Since(2)] = ""


@kind("sheet_habit", since=2, seen="nowhere", called="habit of sheets")
@dataclass(slots=True)
class SheetHabit:
    """How new sheets of one kind begin; at most one for each kind of sheet.

    Attributes:
        left_rail_type_id, right_rail_type_id: types of the rails drawn on a new ladder sheet, "" for no rail.
    """

    id: Id
    kind: Annotated[str, OneOf(SHEET_KINDS)]
    size: Annotated[str, OneOf(tuple(SHEET_SIZES_MM))] = "A3"
    frame: Annotated[str, OneOf(FRAMES)] = "ladder"
    line_count: LineCount = 8
    line_spacing: LineSpacing = 9
    ladders: Ladders = 1
    columns: Columns = 8
    rows: ZoneRows = 6
    title_block_id: Annotated[str, Names("title_block")] = ""
    left_rail_type_id: Annotated[str, Names("wire_type")] = ""
    right_rail_type_id: Annotated[str, Names("wire_type")] = ""
