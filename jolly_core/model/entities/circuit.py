"""What is drawn and what it stands for: devices, symbols, wires, continuations, notes, wire types."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated

from ..fields import (
    LONGEST_ID,
    Area,
    Gauge,
    GridX,
    GridY,
    Id,
    Letters,
    LinedText,
    Longest,
    Names,
    Numbers,
    OneOf,
    Order,
    Running,
    Said,
    Sheetwise,
    Since,
    SymbolKey,
    Text,
    Texts,
    Within,
)
from ..kinds import Keyed, kind

WIRE_CATEGORIES = ("power", "control-ac", "control-dc", "signal", "pe", "external")
# Where a wire's number stands: once for its net, at each of its ends that meets a pin, or nowhere.
NUMBER_PLACES = ("middle", "ends", "hidden")
# Texts of a symbol that can be moved or hidden.
SYMBOL_TEXTS = ("tag", "text", "reference", "pin")
FIGURE_KINDS = ("boundary", "line", "arrow", "dimension", "picture", "table")
STROKES = ("line", "arrow", "dimension")  # figures from one end to another, in any direction
NOTE_ALIGNMENTS = ("start", "middle", "end")
NoteSize = Annotated[float, Within(1.8, 20, "mm")]
# What lies on a sheet may be in a layer, and belong to others that move with it.
InLayer = Annotated[str, Names("layer"), Since(15)]
Together = Annotated[str, Longest(LONGEST_ID), Since(15)]


def tag_key(device: Device) -> str:
    """Return what devices of possibly equal tags have in common: the fixed tag, else letters and number."""
    return device.fixed_tag or f"{device.letters}{device.number}"


@kind(
    "device",
    since=1,
    seen="here",
    indexes=(
        Keyed("devices_tagged", tag_key, empty=True),
        Keyed("devices_lettered", "letters"),
        Keyed("devices_of_part", "part_id"),
    ),
)
@dataclass(slots=True)
class Device:
    """A thing with one tag and one part, wherever its units are drawn.

    Attributes:
        letters: class letters of the tag (IEC 81346-2, or the North American ones).
        number: running number of the IEC habit; the line habit derives it from the lead symbol.
        fixed_tag: a tag set by hand, "" when the tag follows the habit.
        text: what the device does, shown beside its lead symbol.
        part_id: the project's copy of a library part, "" when none is chosen yet.
    """

    id: Id
    letters: Letters
    number: Running = 0
    fixed_tag: Text = ""
    text: Annotated[Text, Said()] = ""
    function_id: Annotated[str, Names("function")] = ""
    location_id: Annotated[str, Names("location")] = ""
    part_id: Annotated[str, Names("part")] = ""


@kind("add_on", since=4, seen="here", keeps_device=True, comes_along=True, indexes=(Keyed("add_ons_of", "device_id"),))
@dataclass(slots=True)
class AddOn:
    """One more part on a device, an auxiliary block or a suppressor; its units are the device's too."""

    id: Id
    device_id: Annotated[str, Names("device", needed=True)]
    part_id: Annotated[str, Names("part", needed=True)]


@kind("symbol", since=1, seen="here", indexes=(Keyed("symbols_of_device", "device_id"),))
@dataclass(slots=True)
class Symbol:
    """One or more units of a device drawn at a place.

    Attributes:
        x, y: grid point of the definition's origin.
        rotation: 0, 90, 180 or 270 degrees clockwise.
        mirror: flipped across its own axis before it is turned.
        definition: key of the symbol definition.
        device_id: the device it belongs to, "" while none is chosen.
        units: for each pole, the 1-based number of the device's unit of that kind; 0 when none was free.
        locked: it is neither moved, turned nor deleted until it is unlocked.
        texts: for a name in SYMBOL_TEXTS "off", or how far the text was moved, "dx,dy" in mm.
        layer_id, together: the layer it is in; what it moves together with has the same words there, "" for nothing.
    """

    id: Id
    sheet_id: Sheetwise
    x: GridX
    y: GridY
    definition: SymbolKey
    rotation: Annotated[int, OneOf((0, 90, 180, 270))] = 0
    mirror: bool = False
    device_id: Annotated[str, Names("device")] = ""
    units: Numbers = (0,)
    locked: Annotated[bool, Since(3)] = False
    texts: Annotated[Texts, Since(3)] = field(default_factory=dict)
    layer_id: InLayer = ""
    together: Together = ""


@kind("wire", since=1, seen="here", indexes=(Keyed("numbered_wires", "number"),))
@dataclass(slots=True)
class Wire:
    """A horizontal or vertical stroke between two grid points, (x1, y1) left or above of (x2, y2).

    Attributes:
        type_id: the wire type.
        number: a wire number fixed by hand, "" when it is computed.
    """

    id: Id
    sheet_id: Sheetwise
    x1: GridX
    y1: GridY
    x2: GridX
    y2: GridY
    type_id: Annotated[str, Names("wire_type", needed=True)]
    number: Text = ""


@kind("continuation", since=1, seen="here", indexes=(Keyed("continuations_named", "name", empty=True),))
@dataclass(slots=True)
class Continuation:
    """A mark where a net leaves a sheet and comes in on another mark of the same name.

    Attributes:
        x, y: the grid point it connects at.
        toward: the side its arrow lies on, seen from the point: "left", "right", "up" or "down".
    """

    id: Id
    sheet_id: Sheetwise
    x: GridX
    y: GridY
    name: Text
    toward: Annotated[Text, OneOf(("left", "right", "up", "down"))] = "right"
    locked: Annotated[bool, Since(3)] = False
    layer_id: InLayer = ""
    together: Together = ""


@kind("note", since=1, seen="here")
@dataclass(slots=True)
class Note:
    """A free text on a sheet, of one or more lines, its anchor at a grid point.

    Attributes:
        size_mm: height of its letters.
        rotation: 0, or 90 when it is read from the right.
        align: which end of its lines is at the grid point, one of NOTE_ALIGNMENTS.
    """

    id: Id
    sheet_id: Sheetwise
    x: GridX
    y: GridY
    text: Annotated[LinedText, Said()]
    locked: Annotated[bool, Since(3)] = False
    size_mm: Annotated[NoteSize, Since(15)] = 3.0
    rotation: Annotated[int, OneOf((0, 90)), Since(15)] = 0
    align: Annotated[str, OneOf(NOTE_ALIGNMENTS), Since(15)] = "start"
    layer_id: InLayer = ""
    together: Together = ""


@kind("layer", since=15)
@dataclass(slots=True)
class Layer:
    """A layer of drawings, to be shown and hidden: what exists, what is new, what others do.

    Attributes:
        printed: whether what is in it is on papers.
        order: layers are listed by it.
    """

    id: Id
    name: Text
    printed: bool = True
    order: Order = 0


@kind("figure", since=3, seen="here")
@dataclass(slots=True)
class Figure:
    """What is drawn without meaning to electricity: a titled boundary, a stroke, a picture, a table of a report.

    Attributes:
        x1, y1, x2, y2: grid points of two corners, or of a line's ends.
        kind: one of FIGURE_KINDS.
        text: a boundary's title; what stands at a stroke; of a table the key of its report or the id of its recipe.
        location_id: the location a boundary stands for; what is put inside it takes that location.
        picture_id: the picture of the project it shows.
        dashed: a broken line.
    """

    id: Id
    sheet_id: Sheetwise
    x1: GridX
    y1: GridY
    x2: GridX
    y2: GridY
    kind: Annotated[str, OneOf(FIGURE_KINDS)] = "boundary"
    text: Annotated[Text, Said()] = ""
    location_id: Annotated[str, Names("location")] = ""
    picture_id: Annotated[str, Names("picture")] = ""
    dashed: bool = True
    locked: bool = False
    layer_id: InLayer = ""
    together: Together = ""


@kind("wire_type", since=1)
@dataclass(slots=True)
class WireType:
    """What a wire is made of.

    Attributes:
        colour: IEC 60757 code, for example "BU" or "GNYE".
        cross_section_mm2: conductor area in square millimetres, 0 when a gauge is given instead.
        awg: American wire gauge, "" when the cross-section is given.
        category: one of WIRE_CATEGORIES.
        numbered: whether its nets get numbers.
        outside: laid outside the panel, by the installer.
        number_at: where its number is shown, one of NUMBER_PLACES.
    """

    id: Id
    name: Text
    colour: Text
    cross_section_mm2: Area = 0.0
    awg: Gauge = ""
    category: Annotated[str, OneOf(WIRE_CATEGORIES)] = "control-dc"
    numbered: bool = True
    outside: Annotated[bool, Since(3)] = False
    number_at: Annotated[str, OneOf(NUMBER_PLACES), Since(3)] = "middle"

    def size(self) -> str:
        """Return the size with its unit, "" when it has none."""
        if self.cross_section_mm2:
            return f"{self.cross_section_mm2:g} mm²"
        return f"AWG {self.awg}" if self.awg else ""
