"""What a project is made of before anything is drawn: settings, functions, locations, sheets."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal, get_args

SETTINGS_ID = "settings"

STANDARDS = ("iec", "na")
TAG_HABITS = ("iec", "line")
TAG_SCOPES = ("place", "project")
WIRE_PATTERNS = ("line", "sheet")
SIDES = ("panel", "door", "field", "machine")
FRAMES = ("ladder", "zones")
LENGTH_UNITS = ("mm", "in")
CONDUCTOR_ORDERS = ("drawing", "layout")
# Kinds of sheet. Those in DRAWN are drawn on; what is on the others is made from the project.
DRAWN = ("schematic", "free")
SheetKind = Literal[
    "schematic",
    "cover",
    "contents",
    "data",
    "terminal-plan",
    "cable-plan",
    "panel-layout",
    "form-board",
    "report",
    "free",
]
SHEET_KINDS: tuple[str, ...] = get_args(SheetKind)
# Kind of sheet -> the field that names what it shows.
SHEET_SUBJECTS = {
    "terminal-plan": "device_id",
    "cable-plan": "device_id",
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
        part_language: language of the texts of parts in lists and on sheets, as parts name it; "" for their own.
        free_run_mm: how far a wire may run over the plate outside ducts at either end.
        harness_allowance_mm: added to a harness wire at each end.
        length_step_mm: lengths are rounded up to a multiple of this; 0 leaves them.
        spool_m: wire on one spool.
        spare_share_percent: share of PLC channels that should stay free.
        supply, supply_system, control_voltages, protection, standards: technical data in words, for the data sheet.
        drawn_on, checked_on, issued_on: dates as they are to be printed.
        length_unit: one of LENGTH_UNITS, in which reports give lengths.
        conductor_order: one of CONDUCTOR_ORDERS, by which conductors are found where all pins are placed.
        title_block_id: the block of sheets that choose none, "" for the built-in one of the sheet's size.
        own_fields: the person's own project fields, name to text.
    """

    id: str = SETTINGS_ID
    number: str = ""
    name: str = ""
    customer: str = ""
    site: str = ""
    drawn_by: str = ""
    revision: str = "A"
    standard: str = "iec"
    tag_habit: str = "iec"
    tag_scope: str = "place"
    wire_pattern: str = "line"
    wire_width: int = 1
    end_allowance_mm: float = 60.0
    door_allowance_mm: float = 450.0
    free_run_mm: float = 150.0
    harness_allowance_mm: float = 20.0
    length_step_mm: float = 5.0
    spool_m: float = 100.0
    spare_share_percent: float = 20.0
    supply: str = ""
    supply_system: str = ""
    control_voltages: str = ""
    protection: str = ""
    standards: str = ""
    drawn_on: str = ""
    checked_by: str = ""
    checked_on: str = ""
    issued_on: str = ""
    length_unit: str = "mm"
    conductor_order: str = "drawing"
    part_language: str = ""
    title_block_id: str = ""
    own_fields: dict[str, str] = field(default_factory=dict)


@dataclass(slots=True)
class Function:
    """A node of the function structure (=), IEC 81346-1."""

    id: str
    code: str
    text: str = ""
    parent_id: str = ""


@dataclass(slots=True)
class Location:
    """A node of the location structure (+); `side` is one of SIDES."""

    id: str
    code: str
    text: str = ""
    parent_id: str = ""
    side: str = "panel"


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

    id: str
    number: str
    title: str = ""
    order: int = 0
    kind: str = "schematic"
    size: str = "A3"
    frame: str = "ladder"
    function_id: str = ""
    location_id: str = ""
    first_line: int = 1
    line_count: int = 8
    line_top: int = 16
    line_spacing: int = 9
    rail_left: int = 14
    rail_right: int = 82
    columns: int = 8
    rows: int = 6
    ladders: int = 1
    ladder_pitch: int = 0
    subtitle: str = ""
    fields: dict[str, str] = field(default_factory=dict)
    title_block_id: str = ""
    device_id: str = ""
    enclosure_id: str = ""
    harness_id: str = ""
    report: str = ""


@dataclass(slots=True)
class SheetHabit:
    """How new sheets of one kind begin; at most one for each kind of sheet.

    Attributes:
        left_rail_type_id, right_rail_type_id: types of the rails drawn on a new ladder sheet, "" for no rail.
    """

    id: str
    kind: str
    size: str = "A3"
    frame: str = "ladder"
    line_count: int = 8
    line_spacing: int = 9
    ladders: int = 1
    columns: int = 8
    rows: int = 6
    title_block_id: str = ""
    left_rail_type_id: str = ""
    right_rail_type_id: str = ""
