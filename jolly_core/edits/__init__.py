"""Edits: one payload class and one function each. To add one, write its module and name it here."""

from typing import Annotated, Union

from pydantic import Field, TypeAdapter

from . import arrange, devices, parts, place, quickline, sheets, wires
from .base import EDITS, EditKind, Outcome, Payload, Text, compute

__all__ = [
    "EDITS",
    "AnyEdit",
    "EditKind",
    "Outcome",
    "Payload",
    "Text",
    "arrange",
    "compute",
    "devices",
    "parse_edit",
    "parts",
    "place",
    "quickline",
    "sheets",
    "wires",
]

AnyEdit = Annotated[
    Union[
        place.PlaceSymbol,
        place.PlaceContinuation,
        place.PlaceNote,
        quickline.PlaceRow,
        wires.DrawWire,
        wires.SetWireType,
        wires.FixWireNumber,
        arrange.MoveSelection,
        arrange.DeleteSelection,
        arrange.TurnSelection,
        arrange.DuplicateSelection,
        devices.SetText,
        devices.SetTag,
        devices.SetPlace,
        devices.BelongTo,
        devices.SwapContact,
        parts.AssignPart,
        sheets.AddSheet,
        sheets.ChangeSheet,
        sheets.DeleteSheet,
        sheets.AddFunction,
        sheets.AddLocation,
        sheets.AddWireType,
        sheets.ChangeSettings,
    ],
    Field(discriminator="kind"),
]

_adapter: TypeAdapter[Payload] = TypeAdapter(AnyEdit)


def parse_edit(raw: object) -> Payload:
    """Return the payload a JSON value describes.

    Raises:
        pydantic.ValidationError: it is not an edit, or a field is wrong.
    """
    return _adapter.validate_python(raw)
