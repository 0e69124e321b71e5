"""Lists that can be edited in a spreadsheet and taken in again: which of their columns, and what objects say now."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass
from hashlib import sha256
from typing import Literal

from jolly_core.cables import cable_length_m
from jolly_core.library import text_in
from jolly_core.making import engraved
from jolly_core.model import INCHES, Project
from jolly_core.tagging import full_tag

from .needs import by_length
from .registry import Cell, unit_factor
from .sheets import whole_title

State = dict[str, Cell]


@dataclass(slots=True, frozen=True)
class Back:
    """How a list is taken in again.

    Attributes:
        kind: of the records its rows are about.
        state: gives what an object says in the columns that may be edited, None when it is gone.
        name: gives its name for people.
        numbers: columns that hold numbers.
    """

    kind: Literal["device", "sheet", "io_point", "part"]
    state: Callable[[Project, str], State | None]
    name: Callable[[Project, str], str]
    numbers: tuple[str, ...] = ()


def _device(project: Project, id: str) -> State | None:
    device = project.devices.get(id)
    if device is None:
        return None
    part = project.parts.get(device.part_id)
    return {"tag": full_tag(project, device), "text": device.text, "number": part.number if part else ""}


def _card(project: Project, id: str) -> State | None:
    state = _device(project, id)
    return {"card": state["tag"], "part": state["number"]} if state is not None else None


def _cable(project: Project, id: str) -> State | None:
    state, cable = _device(project, id), next((c for c in project.cables.values() if c.device_id == id), None)
    if state is None or cable is None:
        return None
    return {"tag": state["tag"], "number": state["number"], "length_m": cable_length_m(project, cable)[0] or ""}


def _plate(project: Project, id: str) -> State | None:
    state = _device(project, id)
    if state is None:
        return None
    return {"tag": state["tag"], "line1": next(iter(engraved(project, project.devices[id])), "")}


def _device_name(project: Project, id: str) -> str:
    return full_tag(project, project.devices[id]) if id in project.devices else "a device"


def _part(project: Project, id: str) -> State | None:
    part = project.parts.get(id)
    if part is None:
        return None
    text = text_in(part, project.settings.part_language)
    order: State = {"supplier": part.supplier, "order_number": part.order_number}
    return {"text": text, **order, "price": part.price or "", "currency": part.currency}


def _part_name(project: Project, id: str) -> str:
    return project.parts[id].number if id in project.parts else "a part"


def _sheet(project: Project, id: str) -> State | None:
    sheet = project.sheets.get(id)
    return {"number": sheet.number, "title": whole_title(sheet)} if sheet is not None else None


def _sheet_name(project: Project, id: str) -> str:
    return f"sheet {project.sheets[id].number}" if id in project.sheets else "a sheet"


def _point(project: Project, id: str) -> State | None:
    point = project.io_points.get(id)
    return {"tag": point.tag, "text": point.text, "connected": point.connected} if point is not None else None


def _point_name(project: Project, id: str) -> str:
    return project.io_points[id].tag if id in project.io_points else "a point"


def listed_factor(project: Project, key: str, id: str) -> float:
    """Return what a value of an object is divided by as lists of the project show it, see `unit_factor`.

    The price of what is bought by the metre is that of one, where lists show feet that of one of these.
    """
    if key == "price" and project.settings.length_unit == "in" and id in by_length(project):
        return 1 / INCHES["m"][1]
    return unit_factor(project, key)


# By the key of the report.
BACK: dict[str, Back] = {
    "devices": Back("device", _device, _device_name),
    "sheets": Back("sheet", _sheet, _sheet_name),
    "io": Back("io_point", _point, _point_name),
    "cables": Back("device", _cable, _device_name, ("length_m",)),
    "cable-cuts": Back("device", _cable, _device_name, ("length_m",)),
    "cards": Back("device", _card, _device_name),
    "nameplates": Back("device", _plate, _device_name),
    "parts": Back("part", _part, _part_name, ("price",)),
    "parts-by-place": Back("part", _part, _part_name, ("price",)),
}


def state_mark(state: State) -> str:
    """Return a short mark of what an object says, the same as long as it says the same."""
    return sha256(json.dumps(state, sort_keys=True).encode()).hexdigest()[:12]
