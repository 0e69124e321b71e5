"""Values that several benches give: scenes, places, devices to choose from."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.drawing import place_in
from jolly_core.model import Device, Part, Project
from jolly_core.tagging import full_tag
from jolly_core.wiring import Conductor, sheet_groups

FromTo = TypedDict("FromTo", {"from": str, "to": str})  # in this form, because "from" is a word of Python


class Place(TypedDict):
    """Where something is drawn: sheet id and reference, both "" when it is not."""

    sheet_id: str
    place: str


class PartName(TypedDict):
    """The facts by which a part is named."""

    id: str
    number: str
    text: str


class DeviceName(TypedDict):
    """The facts by which a device is named."""

    id: str
    tag: str
    text: str
    part: PartName | None


def symbol_place(project: Project, symbol_id: str) -> Place:
    """Return where a symbol is drawn: sheet id and reference; both "" when it is not."""
    symbol = project.symbols.get(symbol_id)
    if symbol is None:
        return {"sheet_id": "", "place": ""}
    return {"sheet_id": symbol.sheet_id, "place": place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y)}


def conductor_place(project: Project, c: Conductor) -> Place:
    """Return where a conductor starts: sheet id and reference."""
    x, y = sheet_groups(project, c.sheet_id).points[c.start]
    return {"sheet_id": c.sheet_id, "place": place_in(project.sheets[c.sheet_id], x, y)}


def part_name(part: Part | None) -> PartName | None:
    """Return the facts by which a part is named."""
    return {"id": part.id, "number": part.number, "text": part.text} if part else None


def device_value(project: Project, device: Device) -> DeviceName:
    """Return the facts by which a device is named: id, tag, text, part."""
    part = part_name(project.part_of(device))
    return {"id": device.id, "tag": full_tag(project, device), "text": device.text, "part": part}
