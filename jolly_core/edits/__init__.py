"""Edits: one payload class and one function each. To add one, write its module and name it here."""

from typing import Annotated, Union

from pydantic import Field, TypeAdapter

from . import (
    arrange,
    cabinet,
    cables,
    devices,
    harness,
    parts,
    place,
    plc,
    quickline,
    sheets,
    structure,
    terminals,
    wires,
)
from .base import EDITS, EditKind, Outcome, Payload, Text, compute

__all__ = [
    "EDITS",
    "AnyEdit",
    "EditKind",
    "Outcome",
    "Payload",
    "Text",
    "arrange",
    "cabinet",
    "cables",
    "compute",
    "devices",
    "harness",
    "parse_edit",
    "parts",
    "place",
    "plc",
    "quickline",
    "sheets",
    "structure",
    "terminals",
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
        structure.AddFunction,
        structure.ChangeFunction,
        structure.RemoveFunction,
        structure.AddLocation,
        structure.ChangeLocation,
        structure.RemoveLocation,
        sheets.AddWireType,
        sheets.ChangeSettings,
        terminals.PlaceTerminals,
        terminals.MoveStripItem,
        terminals.NumberTerminal,
        terminals.BridgeTerminals,
        terminals.RemoveBridge,
        terminals.AddStripAccessory,
        terminals.RemoveStripAccessory,
        cables.DrawBand,
        cables.SetCable,
        cables.SwapCores,
        cables.DefaultCores,
        plc.TakeInPoints,
        plc.DeletePoints,
        plc.AddCard,
        plc.AddressCard,
        plc.DeleteCard,
        plc.AllocatePoints,
        plc.FreePoints,
        cabinet.AddEnclosure,
        cabinet.ChangeEnclosure,
        cabinet.DrawRun,
        cabinet.SetRun,
        cabinet.PlaceDevices,
        cabinet.MoveInLayout,
        cabinet.RemoveFromLayout,
        harness.AddHarness,
        harness.AddNode,
        harness.SetSegment,
        harness.SplitSegment,
        harness.RemoveNode,
        harness.RemoveHarness,
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
