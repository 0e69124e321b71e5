"""What is drawn and what it stands for: devices, symbols, wires, continuations, notes, wire types."""

from __future__ import annotations

from dataclasses import dataclass

WIRE_CATEGORIES = ("power", "control-ac", "control-dc", "signal", "pe", "external")


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

    id: str
    letters: str
    number: int = 0
    fixed_tag: str = ""
    text: str = ""
    function_id: str = ""
    location_id: str = ""
    part_id: str = ""


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
    """

    id: str
    sheet_id: str
    x: int
    y: int
    definition: str
    rotation: int = 0
    mirror: bool = False
    device_id: str = ""
    units: tuple[int, ...] = (0,)


@dataclass(slots=True)
class Wire:
    """A horizontal or vertical stroke between two grid points, (x1, y1) left or above of (x2, y2).

    Attributes:
        type_id: the wire type.
        number: a wire number fixed by hand, "" when it is computed.
    """

    id: str
    sheet_id: str
    x1: int
    y1: int
    x2: int
    y2: int
    type_id: str
    number: str = ""


@dataclass(slots=True)
class Continuation:
    """A mark where a net leaves a sheet and comes in on another mark of the same name.

    Attributes:
        x, y: the grid point it connects at.
        toward: the side its arrow lies on, seen from the point: "left", "right", "up" or "down".
    """

    id: str
    sheet_id: str
    x: int
    y: int
    name: str
    toward: str = "right"


@dataclass(slots=True)
class Note:
    """A free text on a sheet, its anchor at a grid point."""

    id: str
    sheet_id: str
    x: int
    y: int
    text: str


@dataclass(slots=True)
class WireType:
    """What a wire is made of.

    Attributes:
        colour: IEC 60757 code, for example "BU" or "GNYE".
        cross_section_mm2: conductor area in square millimetres, 0 when a gauge is given instead.
        awg: American wire gauge, "" when the cross-section is given.
        category: one of WIRE_CATEGORIES.
    """

    id: str
    name: str
    colour: str
    cross_section_mm2: float = 0.0
    awg: str = ""
    category: str = "control-dc"
    numbered: bool = True

    def size(self) -> str:
        """Return the size with its unit, "" when it has none."""
        if self.cross_section_mm2:
            return f"{self.cross_section_mm2:g} mm²"
        return f"AWG {self.awg}" if self.awg else ""
