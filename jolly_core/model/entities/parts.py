"""The project's own copies of library parts."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from typing import Annotated

from ..fields import Each, Id, Length, Longest, LongText, OneOf, Since, Texts, Unit, Units, Within
from ..kinds import kind

# Where a part is put: on a rail, on the plate, in a hole of the door, into a cable or harness, or standing by itself.
MOUNTINGS = ("rail", "plate", "door hole", "cable", "free", "")

MOST_UNITS = 400
Amount = Annotated[float, Within(0, 1_000_000)]


AXES = ("+x", "-x", "+y", "-y", "+z", "-z")


@kind("part", since=1)
@dataclass(slots=True)
class Part:
    """A part as the library describes it, or the copy a project keeps of it.

    Attributes:
        part_class: key of the part class, for example "contactor".
        text: what it is, in the language of the house; `texts` has it in others, by language code.
        units: for each unit in the maker's order a pair (kind, pins), for example ("no", ("13", "14")).
        details: for each unit, in the same order, named facts about it ({"colour": "BK", "section": "1.5"});
            it may end early, what is left out has none.
        ratings: named ratings with their unit in the name, for example {"coil_voltage_v": "24"}.
        symbols: unit kind to the symbol it is drawn with, in place of the kind's usual one; "kind@na" and
            "kind@iec" for one standard only. "plate" and "door" name outline drawings.
        width_mm, height_mm, depth_mm: outline; a round one has its diameter_mm instead of width and height.
        members: numbers of the parts that are given together, when this is a set; the first leads.
        accessories, alternatives: numbers of parts that go with it, and that may stand in for it.
        price, currency: of one piece, or one metre of what is cut; 0 while not known.
        datasheet, picture: names of files kept in the library.
        solid: name of a picture in space kept there, glTF in metres or STL in millimetres; solid_front and solid_up
            say which of its axes point to the front of the device and upwards.
        version: the library's version this copy was taken from.
    """

    id: Id
    maker: LongText
    number: LongText
    part_class: LongText
    text: LongText = ""
    units: Annotated[Units, Longest(MOST_UNITS)] = ()
    ratings: Texts = field(default_factory=dict)
    width_mm: Length = 0.0
    height_mm: Length = 0.0
    depth_mm: Length = 0.0
    mounting: Annotated[str, OneOf(MOUNTINGS)] = "rail"
    supplier: LongText = ""
    version: Annotated[int, Within(0, 10**9)] = 1
    details: Annotated[tuple[dict[str, str], ...], Longest(MOST_UNITS), Since(4)] = ()
    texts: Annotated[Texts, Since(4)] = field(default_factory=dict)
    symbols: Annotated[Texts, Each(16_000), Since(4)] = field(default_factory=dict)
    diameter_mm: Annotated[Length, Since(4)] = 0.0
    weight_kg: Annotated[Amount, Since(4)] = 0.0
    order_number: Annotated[LongText, Since(4)] = ""
    price: Annotated[float, Within(0, 10**9), Since(4)] = 0.0
    currency: Annotated[LongText, Since(4)] = ""
    link: Annotated[LongText, Since(4)] = ""
    datasheet: Annotated[LongText, Since(4)] = ""
    picture: Annotated[LongText, Since(4)] = ""
    solid: Annotated[LongText, Since(10)] = ""
    solid_front: Annotated[str, OneOf(AXES), Since(10)] = "+z"
    solid_up: Annotated[str, OneOf(AXES), Since(10)] = "+y"
    members: Annotated[tuple[str, ...], Longest(200), Since(4)] = ()
    accessories: Annotated[tuple[str, ...], Longest(200), Since(4)] = ()
    alternatives: Annotated[tuple[str, ...], Longest(200), Since(4)] = ()

    @property
    def size_mm(self) -> tuple[float, float]:
        """Width and height of the outline; a round one has its diameter for both."""
        return self.width_mm or self.diameter_mm, self.height_mm or self.diameter_mm

    def count(self, kind: str) -> int:
        """Return how many units of a kind the part has."""
        return sum(1 for unit_kind, _ in self.units if unit_kind == kind)

    def pins_of(self, kind: str, number: int) -> tuple[str, ...]:
        """Return the pin names of the `number`-th (1-based) unit of `kind`, () when there is none."""
        seen = 0
        for unit_kind, pins in self.units:
            if unit_kind == kind:
                seen += 1
                if seen == number:
                    return pins
        return ()

    def detail(self, index: int) -> dict[str, str]:
        """Return the facts about the unit at a place of `units`, {} when nothing is said of it."""
        return self.details[index] if index < len(self.details) else {}


CONTACTS = ("no", "nc", "co", "tno", "tnc")


def with_units_of(part: Part, others: Iterable[Part]) -> Part:
    """Return a part with the units and details of others after its own, as one device has them all.

    Contacts of a block that would repeat a marking of the device number on: the first digit is that of the next free
    place, the last one says what the contact is (EN 50012).

    Example:
        A block 53-54, 61-62 put on twice: 53-54, 61-62, then 73-74, 81-82.
    """
    units, details = list(part.units), [part.detail(i) for i in range(len(part.units))]
    for other in others:
        units += _numbered_on(units, other.units)
        details += [other.detail(i) for i in range(len(other.units))]
    return replace(part, units=tuple(units), details=tuple(details))


def _numbered_on(there: list[Unit], more: tuple[Unit, ...]) -> list[Unit]:
    taken = {pin for kind, pins in there if kind in CONTACTS for pin in pins}
    if not any(pin in taken for kind, pins in more if kind in CONTACTS for pin in pins):
        return list(more)
    places = [int(p[:-1]) for p in taken if p.isdecimal() and len(p) > 1]
    wanted = sorted({int(p[:-1]) for kind, pins in more if kind in CONTACTS for p in pins if _is_placed(p)})
    places_then = {str(old): max(places, default=0) + n for n, old in enumerate(wanted, start=1)}
    return [
        (kind, tuple(f"{places_then[p[:-1]]}{p[-1]}" if _is_placed(p) else p for p in pins))
        if kind in CONTACTS
        else (kind, pins)
        for kind, pins in more
    ]


def _is_placed(pin: str) -> bool:
    return pin.isdecimal() and len(pin) > 1
