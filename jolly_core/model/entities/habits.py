"""What people decided about numbers, findings and repeated circuits: numbering rules, mutes, stamps."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from ..fields import Document, Id, Letters, Longest, LongText, Names, OneOf, Order, Said, Since, Text, Units, Within
from ..kinds import kind
from .circuit import WIRE_CATEGORIES

NUMBER_SCOPES = ("potential", "net")
# Pieces a number is made of, each with the texts it takes: digits and first number of the running one, a fixed text.
NUMBER_PIECES = ("sheet", "line", "column", "running", "address", "potential", "text")
STRIP_NUMBERING = ("order", "wire", "level")
NUMBER_STEPS = (1, 2)
PLAN_STYLES = ("table", "drawn")

FirstNumber = Annotated[int, Within(0, 99_999)]


@kind("number_rule", since=3, seen="nowhere")
@dataclass(slots=True)
class NumberRule:
    """A numbering rule of wires; the first in order whose condition holds names the net.

    Attributes:
        order: position, smallest first.
        name: what people call it.
        pieces: what the number is made of, pairs (piece, texts) with a piece of NUMBER_PIECES.
        category, type_id: only nets with a wire of this category or type, "" for any.
        at_channel: only nets that touch a channel of a PLC card.
        potential: only nets with a continuation of this name, "" for any.
        function_id, location_id: only nets that begin on a sheet of this function or location, "" for any.
        scope: "potential", or "net": then a carrying terminal does not pass the number on.
    """

    id: Id
    order: Order
    name: Text
    pieces: Annotated[Units, Longest(8)]
    category: Annotated[str, OneOf(("", *WIRE_CATEGORIES))] = ""
    type_id: Annotated[str, Names("wire_type")] = ""
    at_channel: bool = False
    potential: Text = ""
    function_id: Annotated[str, Names("function")] = ""
    location_id: Annotated[str, Names("location")] = ""
    scope: Annotated[str, OneOf(NUMBER_SCOPES)] = "potential"


@kind("tag_rule", since=4, seen="nowhere")
@dataclass(slots=True)
class TagRule:
    """How devices of a class are named, everywhere or at a place.

    Attributes:
        part_class: the class it is for, "" for all.
        function_id, location_id: only devices of that function or location or inside it; "" for all.
        letters: letters in place of the standard's, "" to leave them.
        start: the number the first device gets, 0 to leave it.
    """

    id: Id
    part_class: LongText
    function_id: Annotated[str, Names("function")] = ""
    location_id: Annotated[str, Names("location")] = ""
    letters: Letters = ""
    start: FirstNumber = 0


@kind("mute", since=3, seen="nowhere")
@dataclass(slots=True)
class Mute:
    """A finding that somebody looked at and accepts, with the reason; `key` names the finding."""

    id: Id
    key: LongText
    reason: Text


@kind("stamp", since=3, seen="nowhere")
@dataclass(slots=True)
class Stamp:
    """A piece of circuit that can be put down again.

    Attributes:
        name: what people call it.
        text: what it is for.
        body: the piece and the questions it asks, as JSON (docs/formats/stamp.md).
    """

    id: Id
    name: Text
    body: Document
    text: LongText = ""


@kind("strip", since=3, seen="here", keeps_device=True)
@dataclass(slots=True)
class Strip:
    """What only a terminal strip has, beside its device.

    Attributes:
        numbering: "order" (1, 2, 3 as they stand), "wire" (the number of the wire they carry) or "level" (as they
            stand, all of the first level before those of the second).
        start, step: the first number by order, and how much further the next is: 2 for odd or even ones.
        backward: numbers by order count from the strip's other end.
        made: it was made on the bench and stays though nothing stands on it yet.
        field_heading, panel_heading: what its two sides are called on plans, "" for the usual words.
        plan_style: how its terminal plan looks, one of PLAN_STYLES.
        show_row: its rows of terminals are drawn as a line with the strip's name on the sheets.
    """

    id: Id
    device_id: Annotated[str, Names("device", needed=True)]
    numbering: Annotated[str, OneOf(STRIP_NUMBERING)] = "order"
    start: Annotated[FirstNumber, Since(6)] = 1
    step: Annotated[int, OneOf(NUMBER_STEPS), Since(6)] = 1
    backward: Annotated[bool, Since(6)] = False
    made: Annotated[bool, Since(6)] = False
    field_heading: Annotated[Text, Said(), Since(6)] = ""
    panel_heading: Annotated[Text, Said(), Since(6)] = ""
    show_row: Annotated[bool, Since(6)] = False
    plan_style: Annotated[str, OneOf(PLAN_STYLES), Since(6)] = "table"
