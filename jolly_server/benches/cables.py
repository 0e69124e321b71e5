"""What the Cables bench shows."""

from __future__ import annotations

from typing import Any

from jolly_core.cables import bands_of, cable_cores, cable_drop, capacity_a, load_a, source_first
from jolly_core.model import Cable, Project, RuleError
from jolly_core.scenes import plan_of
from jolly_core.sizing import LAYING
from jolly_core.tagging import full_tag, pin_name

from .shapes import conductor_place, device_value


def cables_bench(project: Project) -> dict[str, Any]:
    """Return the cables with their cores."""
    cables = sorted(project.cables.values(), key=lambda c: full_tag(project, project.devices[c.device_id]))
    return {"cables": [_cable(project, c) for c in cables]}


def _cable(project: Project, cable: Cable) -> dict[str, Any]:
    device = project.devices[cable.device_id]
    drop: dict[str, Any] | None = None
    missing = ""
    try:
        found = cable_drop(project, cable)
        drop = {"volts": round(found.volts, 3), "percent": round(found.percent, 3), "why": found.why}
    except RuleError as error:
        missing = error.message
    cores = []
    for row in cable_cores(project, device.id):
        value: dict[str, Any] = {
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
        if c is not None:
            a, b = source_first(project, c)
            wire_type = c.wire_type(project)
            value |= {"from": pin_name(project, a), "to": pin_name(project, b), "number": c.number}
            value |= {"type": wire_type.name if wire_type else "", "wire_id": c.wire_id, **conductor_place(project, c)}
        cores.append(value)
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
        "cores": cores,
        "sheets": [{"id": id, "number": number} for id, number in sheets.items()],
    }


def _capacity(project: Project, cable: Cable) -> dict[str, Any] | None:
    carried, load = capacity_a(project, cable), load_a(project, cable)
    if not carried:
        return None
    why = f"by the smallest core that leads the load, laid as {LAYING} at 40 °C (IEC 60204-1)"
    return {"carried_a": carried, "load_a": load, "enough": load <= carried, "why": why}
