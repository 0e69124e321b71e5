"""Parts in a project: copies and where they are used, what is stale or lacking, candidates for a device."""

from __future__ import annotations

from dataclasses import replace

from django.http import HttpRequest
from ninja import Router, Schema
from typing_extensions import TypedDict

from jolly_core.edits import own_choices, own_symbols, ranked, stale_parts, wanted_for
from jolly_core.library import Difference, goes_with, missing, part_class, units_line
from jolly_core.model import Device, Part, Project
from jolly_core.reports import needs
from jolly_core.tagging import class_of, full_tag, home_of, natural, units_drawn
from jolly_server.library.search import Filter, Match, search
from jolly_server.library.services import StoredLibrary
from jolly_server.library.shelves import User, shelf_to_change, shelves_for
from jolly_server.library.storing import save_part

from .access import role_in
from .store import loaded
from .turns import prepared

router = Router(tags=["project parts"])
LOOKED_AT = 200  # parts that are ranked for a device
SHOWN = 30


class DeviceOn(TypedDict):
    """A device with a copy of a part."""

    id: str
    tag: str
    sheet_id: str


PartLine = TypedDict(
    "PartLine",
    {
        "id": str,
        "maker": str,
        "number": str,
        "class": str,
        "class_name": str,
        "text": str,
        "units": str,
        "quantity": str,
        "devices": list[DeviceOn],
        "missing": dict[str, list[str]],
        "version": int,
        "stale": list[Difference],
    },
)
BareLine = TypedDict(
    "BareLine",
    {
        "id": str,
        "tag": str,
        "text": str,
        "class": str,
        "class_name": str,
        "sheet_id": str,
        "needs": dict[str, int],
    },
)


class ProjectParts(TypedDict):
    """The copies of parts in a project, and the devices without one."""

    parts: list[PartLine]
    bare: list[BareLine]


class ReasonValue(TypedDict):
    """Why a part is a good or a bad choice."""

    words: str
    good: bool


class MappingValue(TypedDict):
    """A drawn unit's pins now and with the part."""

    kind: str
    now: str
    then: str


class PartChoice(TypedDict):
    """A part for a device, with the reasons and how the units drawn would be mapped."""

    id: str
    maker: str
    number: str
    text: str
    class_name: str
    units: str
    price: float
    currency: str
    reasons: list[ReasonValue]
    mapping: list[MappingValue]
    why: dict[str, str]
    members: list[str]
    own_symbols: int


class ShortPart(TypedDict):
    """A part in a line."""

    id: str
    maker: str
    number: str
    text: str
    units: str


class AddOnsValue(TypedDict):
    """The further parts on a device, and those that go with its part or may stand in for it."""

    on: list[ShortPart]
    accessories: list[ShortPart]
    alternatives: list[ShortPart]


def stale_lines(project: Project, user: User) -> list[str]:
    """Return a line for each copy that differs from the library, for the foot of a list."""
    return [
        f"{project.parts[id].number} differs from the library: {', '.join(d.field for d in changed)}"
        for id, changed in stale_parts(project.parts, StoredLibrary(user)).items()
    ]


def stale_numbers(project: Project, user: User) -> list[str]:
    """Return the numbers of the copies that differ from the library."""
    return [project.parts[id].number for id in stale_parts(project.parts, StoredLibrary(user))]


@router.get("/{project_id}/parts", response=ProjectParts)
def parts(request: HttpRequest, project_id: str) -> ProjectParts:
    """Give the copies of the project with their users, what differs in the library and what they lack.

    `bare` are the devices without a part, `unnumbered` the copies that cannot be ordered.
    """
    role_in(request, project_id)
    held = prepared(project_id)
    with held.lock:
        p = held.project
        stale = stale_parts(p.parts, StoredLibrary(request.user))
        amounts: dict[str, list[str]] = {}
        for (id, unit), need in sorted(needs(p).items(), key=lambda need: (need[0][1] != "pcs", need[0])):
            amounts.setdefault(id, []).append(f"{need.quantity:g}{'' if unit == 'pcs' else f' {unit}'}")
        rows = [_row(p, part, " + ".join(amounts.get(id, ["0"])), stale.get(id, [])) for id, part in p.parts.items()]
        rows.sort(key=lambda r: (r["class_name"], r["maker"], natural(r["number"]), r["id"]))
        bare = [_bare(p, d) for d in p.devices.values() if not d.part_id]
        return {"parts": rows, "bare": sorted(bare, key=lambda r: (natural(str(r["tag"])), r["id"]))}


def _row(project: Project, part: Part, quantity: str, stale: list[Difference]) -> PartLine:
    on = {a.device_id for a in project.add_ons.values() if a.part_id == part.id}
    users = [project.devices[id] for id in [*project.devices_of_part.get(part.id), *sorted(on)]]
    return {
        "id": part.id,
        "maker": part.maker,
        "number": part.number,
        "class": part.part_class,
        "class_name": part_class(part.part_class).name,
        "text": part.text,
        "units": units_line(part),
        "quantity": quantity,
        "devices": [{"id": d.id, "tag": full_tag(project, d), "sheet_id": _sheet_of(project, d)} for d in users],
        "missing": missing(part),
        "version": part.version,
        "stale": stale,
    }


def _sheet_of(project: Project, device: Device) -> str:
    home = home_of(project, device.id)
    return home.sheet_id if home else ""


def _bare(project: Project, device: Device) -> BareLine:
    key = class_of(project, device)
    return {
        "id": device.id,
        "tag": full_tag(project, device),
        "text": device.text,
        "class": key,
        "class_name": part_class(key).name if key else "",
        "sheet_id": _sheet_of(project, device),
        "needs": units_drawn(project, device),
    }


@router.get("/{project_id}/devices/{device_id}/parts", response=list[PartChoice])
def part_choices(request: HttpRequest, project_id: str, device_id: str, q: str = "") -> list[PartChoice]:
    """Give parts for a device, best first, with the reasons, and how the units drawn would be mapped."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        p = held.project
        device: Device = p.get("device", device_id)
        wanted = wanted_for(p, device)
    # What has all units comes first; what lacks some is only looked at when nothing else is found.
    see = list(shelves_for(request.user).values_list("pk", flat=True))
    filters = [Filter(f"units.{kind}", ">=", "1") for kind in wanted.some]
    found: list[Match] = []
    for needs_all in [wanted.units, None] if wanted.units else [None]:
        found = found or search(
            q,
            part_class_key=wanted.part_class,
            needs=needs_all,
            filters=filters,
            shelves=see,
            limit=LOOKED_AT,
        )
    with held.lock:
        own = own_choices(p, device) if not q else []
        known = {x.id for x in own}
        found_parts = [*own, *(m.part for m in found if m.part.id not in known)]
        why = {m.part.id: m.why for m in found}
        return [
            {
                "id": c.part.id,
                "maker": c.part.maker,
                "number": c.part.number,
                "text": c.part.text,
                "class_name": part_class(c.part.part_class).name,
                "units": units_line(c.part),
                "price": c.part.price,
                "currency": c.part.currency,
                "reasons": [{"words": r.words, "good": r.weight > 0} for r in c.reasons],
                "mapping": [{"kind": k, "now": now, "then": then} for k, now, then in c.mapping],
                "why": why.get(c.part.id, {}),
                "members": list(c.part.members),
                "own_symbols": len(own_symbols(p, device, c.part)),
            }
            for c in ranked(p, device, found_parts)[:SHOWN]
        ]


@router.get("/{project_id}/devices/{device_id}/add-ons", response=AddOnsValue)
def add_ons(request: HttpRequest, project_id: str, device_id: str) -> AddOnsValue:
    """Give the further parts on a device, and those its part's maker names as going with it or standing in for it."""
    role_in(request, project_id)
    held = loaded(project_id)
    library = StoredLibrary(request.user)
    with held.lock:
        p = held.project
        device: Device = p.get("device", device_id)
        part = p.parts.get(device.part_id)
        on = p.add_ons_to(device.id)
        return {
            "on": [_short(x) for x in on],
            "accessories": [_short(x) for x in map(library.part, goes_with(part)) if x],
            "alternatives": [_short(x) for x in map(library.part, part.alternatives if part else ()) if x],
        }


def _short(part: Part) -> ShortPart:
    return {"id": part.id, "maker": part.maker, "number": part.number, "text": part.text, "units": units_line(part)}


class KeepIn(Schema):
    """The shelf of the library on which a project's part is to be kept."""

    shelf: str


@router.post("/{project_id}/parts/{part_id}/keep", response=str)
def keep_part_of_project(request: HttpRequest, project_id: str, part_id: str, body: KeepIn) -> str:
    """Keep a project's part in the library, with all its cores or units, and give its number."""
    role_in(request, project_id, "editor")
    shelf = shelf_to_change(body.shelf, request.user)
    held = loaded(project_id)
    with held.lock:
        part: Part = held.project.get("part", part_id)
    return save_part(replace(part, id="", version=1), shelf, request.user.get_username()).number
