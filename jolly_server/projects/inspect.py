"""What the browser asks about single things: a device's card, likely devices, finding by name."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.cables import cable_cores, cable_of, source_first
from jolly_core.checks import snags_on
from jolly_core.drawing import place_in
from jolly_core.edits import stale_parts
from jolly_core.library import Difference, part_class, part_fields, symbol_for
from jolly_core.model import DRAWN, SHEET_KINDS, Device, Part, Project
from jolly_core.reports import Landed, landed_at
from jolly_core.tagging import (
    DOCUMENTS,
    KIND_WORDS,
    class_of,
    full_tag,
    home_of,
    likely_devices,
    pin_name,
    short_tag,
    tag_on,
    unit_rows,
    units_drawn,
)
from jolly_server.library.services import StoredLibrary
from jolly_server.library.shelves import User

from .views import act_of
from .viewshapes import SnagAct


class SheetKindValue(TypedDict):
    """A kind of sheet by name; `drawn` when one draws on it."""

    id: str
    name: str
    drawn: bool


class PartCard(TypedDict):
    """The part of a device."""

    id: str
    number: str
    maker: str
    text: str


class Rating(TypedDict):
    """A rating of a part in words: name, value and unit."""

    key: str
    name: str
    value: str
    unit: str


class UnitValue(TypedDict):
    """A unit of a device: its pins, and where it is drawn."""

    kind: str
    unit: str
    number: int
    pins: str
    place: str
    symbol_id: str
    definition: str
    sheet_id: str


class CardSnag(TypedDict):
    """A snag of a device."""

    message: str
    mend: str
    severity: str
    act: SnagAct | None


DeviceCard = TypedDict(
    "DeviceCard",
    {
        "id": str,
        "tag": str,
        "full_tag": str,
        "fixed": bool,
        "text": str,
        "function_id": str,
        "location_id": str,
        "what": str,
        "class": str,
        "part": PartCard | None,
        "ratings": list[Rating],
        "stale": list[Difference],
        "units": list[UnitValue],
        "wired": list[Landed],
        "snags": list[CardSnag],
        "needs": dict[str, int],
    },
)


class CandidateValue(TypedDict):
    """A device a unit may belong to."""

    id: str
    tag: str
    text: str
    pins: str
    place: str


def sheet_kinds() -> list[SheetKindValue]:
    """Return the kinds of sheet with their names, and whether one draws on them."""
    return [{"id": k, "name": DOCUMENTS[k], "drawn": k in DRAWN} for k in SHEET_KINDS]


def _stale(project: Project, part: Part | None, user: User) -> list[Difference]:
    """Return in what a device's part differs from the library as a person sees it."""
    if part is None or part.id not in project.parts:
        return []
    return stale_parts({part.id: project.parts[part.id]}, StoredLibrary(user)).get(part.id, [])


def device_card(project: Project, device_id: str, user: User) -> DeviceCard:
    """Return all facts of a device.

    Raises:
        GoneError: it is not in the project.
    """
    device: Device = project.get("device", device_id)
    part = project.part_of(device)
    class_key = class_of(project, device, home_of(project, device.id))
    sheets = dict.fromkeys(s.sheet_id for s in project.units_of(device.id))
    return {
        "id": device.id,
        "tag": short_tag(project, device),
        "full_tag": full_tag(project, device),
        "fixed": bool(device.fixed_tag),
        "text": device.text,
        "function_id": device.function_id,
        "location_id": device.location_id,
        "what": part_class(class_key).name if class_key else "",
        "class": class_key,
        "part": {"id": part.id, "number": part.number, "maker": part.maker, "text": part.text} if part else None,
        "ratings": _ratings(part),
        "stale": _stale(project, part, user),
        "units": _units(project, device, class_key),
        "wired": landed_at(project, device.id),
        "snags": [
            {"message": s.message, "mend": s.mend, "severity": s.severity, "act": act_of(s)}
            for sheet_id in sheets
            for s in snags_on(project, sheet_id)
            if s.device_id == device.id
        ],
        "needs": units_drawn(project, device),
    }


def _ratings(part: Part | None) -> list[Rating]:
    """Return the ratings of a part in words: name, value and unit."""
    known = part_fields()
    return [
        {
            "key": key,
            "name": known[key].name if key in known else key.replace("_", " "),
            "value": value,
            "unit": known[key].unit if key in known else "",
        }
        for key, value in (part.ratings.items() if part else ())
    ]


def _units(project: Project, device: Device, class_key: str) -> list[UnitValue]:
    rows: list[UnitValue] = []
    if cable_of(project, device.id):
        return _cores(project, device)
    for row in unit_rows(project, device):
        symbol = project.symbols.get(row.symbol_id)
        rows.append(
            {
                "kind": KIND_WORDS[row.kind],
                "unit": row.kind,
                "number": row.number,
                "pins": "-".join(p for p in row.pins if p),
                "place": place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y) if symbol else "",
                "symbol_id": row.symbol_id,
                "definition": symbol_for(row.kind, class_key, project.part_of(device), project.settings.standard),
                "sheet_id": symbol.sheet_id if symbol else "",
            }
        )
    return rows


def _cores(project: Project, device: Device) -> list[UnitValue]:
    """Return the cores of a cable as its units: each is drawn where its conductor is, or spare."""
    rows: list[UnitValue] = []
    for row in cable_cores(project, device.id):
        c = row.conductor
        rows.append(
            {
                "kind": KIND_WORDS[row.kind],
                "unit": row.kind,
                "number": row.ordinal,
                "pins": row.name or "none left",
                "place": pin_name(project, source_first(project, c)[1], c.sheet_id) if c else "",
                "symbol_id": c.wire_id if c else "",
                "definition": "",
                "sheet_id": c.sheet_id if c else "",
            }
        )
    return rows


def candidates(project: Project, definition_key: str, sheet_id: str) -> list[CandidateValue]:
    """Return the devices a unit may belong to, as the list at the caret shows them."""
    sheet = project.get("sheet", sheet_id)
    return [
        {
            "id": device.id,
            "tag": tag_on(project, device, sheet),
            "text": device.text,
            "pins": pins,
            "place": place,
        }
        for device, pins, place in likely_devices(project, definition_key, sheet_id)[:30]
    ]
