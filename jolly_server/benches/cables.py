"""What the Cables bench shows."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.cables import CoreRow, bands_of, cable_cores, cable_drop, capacity_a, load_a, source_first
from jolly_core.model import Cable, Project, RuleError
from jolly_core.scenes import plan_of
from jolly_core.sizing import LAYING
from jolly_core.tagging import full_tag, pin_name

from .shapes import DeviceName, FromTo, conductor_place, device_value


class CoreValue(FromTo):
    """A core of a cable and the conductor it serves; ends and place are "" for a spare one."""

    ordinal: int
    name: str
    kind: str
    chosen: bool
    number: str
    type: str
    sheet_id: str
    place: str
    wire_id: str


class Drop(TypedDict):
    """A voltage drop, with its sum."""

    volts: float
    percent: float
    why: str


class Capacity(TypedDict):
    """What a cable carries and what it must carry, amperes."""

    carried_a: float
    load_a: float
    enough: bool
    why: str


class SheetName(TypedDict):
    """A sheet by id and number."""

    id: str
    number: str


class CableValue(DeviceName):
    """A cable with its cores; `plan_id` is the sheet or page that shows them."""

    plan_id: str
    length_m: float
    load_a: float
    voltage_v: float
    power_factor: float
    drop: Drop | None
    drop_missing: str
    capacity: Capacity | None
    cores: list[CoreValue]
    sheets: list[SheetName]


class CablesView(TypedDict):
    """What the Cables bench shows."""

    cables: list[CableValue]


def cables_bench(project: Project) -> CablesView:
    """Return the cables with their cores."""
    cables = sorted(project.cables.values(), key=lambda c: full_tag(project, project.devices[c.device_id]))
    return {"cables": [_cable(project, c) for c in cables]}


def _cable(project: Project, cable: Cable) -> CableValue:
    device = project.devices[cable.device_id]
    drop: Drop | None = None
    missing = ""
    try:
        found = cable_drop(project, cable)
        drop = {"volts": round(found.volts, 3), "percent": round(found.percent, 3), "why": found.why}
    except RuleError as error:
        missing = error.message
    sheets = {b.sheet_id: project.sheets[b.sheet_id].number for b in bands_of(project, device.id)}
    return {
        **device_value(project, device),
        "plan_id": plan_of(project, "cores", device.id),
        "length_m": cable.length_m,
        "load_a": cable.load_a,
        "voltage_v": cable.voltage_v,
        "power_factor": cable.power_factor,
        "drop": drop,
        "drop_missing": missing,
        "capacity": _capacity(project, cable),
        "cores": [_core(project, row) for row in cable_cores(project, device.id)],
        "sheets": [{"id": id, "number": number} for id, number in sheets.items()],
    }


def _core(project: Project, row: CoreRow) -> CoreValue:
    value: CoreValue = {
        "ordinal": row.ordinal,
        "name": row.name,
        "kind": row.kind,
        "chosen": row.chosen,
        "from": "",
        "to": "",
        "number": "",
        "type": "",
        "sheet_id": "",
        "place": "",
        "wire_id": "",
    }
    c = row.conductor
    if c is None:
        return value
    a, b = source_first(project, c)
    wire_type = c.wire_type(project)
    return {
        **value,
        "from": pin_name(project, a),
        "to": pin_name(project, b),
        "number": c.number,
        "type": wire_type.name if wire_type else "",
        "wire_id": c.wire_id,
        **conductor_place(project, c),
    }


def _capacity(project: Project, cable: Cable) -> Capacity | None:
    carried, load = capacity_a(project, cable), load_a(project, cable)
    if not carried:
        return None
    why = f"by the smallest core that leads the load, laid as {LAYING} at 40 °C (IEC 60204-1)"
    return {"carried_a": carried, "load_a": load, "enough": load <= carried, "why": why}
