"""Synthetic projects: sheets of about 30 devices, 60 wires and 20 terminals, tied together by continuations."""

from __future__ import annotations

import gc
from dataclasses import replace
from typing import Any

from jolly_core.edits.sheets.adding import ORDER_STEP
from jolly_core.model import KINDS, Project
from jolly_core.testing import Workbench

CONTROL_RUNGS = 4
TERMINALS = 20


def template() -> Workbench:
    """Return a project with one sheet, drawn by the application's own edits."""
    bench = Workbench(frame="zones")
    sheet = bench.sheet
    for x in (10, 150):
        bench.wire((x, 8), (x, 96), type_id=bench.red if x == 10 else bench.blue)
    for rung in range(CONTROL_RUNGS):
        y = 14 + 9 * rung
        bench.wire((10, y), (150, y))
        bench.place("button-nc", 20, y, text="Stop")
        bench.place("button-no", 36, y, text="Start")
        coil = bench.device(bench.place("coil", 136, y, text="Run"))
        bench.do("assign-part", device_id=coil, part_id="brindlework-bw-c09-24d-31")
        bench.wire((32, y), (32, y + 4), (48, y + 4), (48, y))
        bench.place("contact-no", 38, y + 4, device_id=coil)
        bench.place("contact-nc", 60, y, device_id=coil)
        bench.place("limit-nc", 76, y)
        bench.place("overload-nc", 92, y)
        bench.place("lamp", 110, y)
    for number in range(TERMINALS):
        x = 16 + 6 * number
        bench.wire((x, 62), (x, 90))
        bench.place("terminal", x, 70)
        if number % 5 == 0:
            bench.place("lamp", x, 78)
    for x, y, name, toward in ((10, 8, "in", "up"), (150, 96, "out", "down")):
        bench.do("place-continuation", sheet_id=sheet, x=x, y=y, name=name, toward=toward)
    return bench


def synthetic(sheets: int) -> Project:
    """Return a project with that many copies of the template, each joined to the next by a continuation."""
    source = template().project
    project = Project()
    whole = ("settings", "wire_type", "part", "function", "location")
    for kind in whole:
        project.load(kind, list(source.tables[kind].values()))
    found: dict[str, list[Any]] = {kind: [] for kind in KINDS if kind not in whole}
    for n in range(sheets):
        mark = f"{n:05d}"
        for sheet in source.sheets.values():
            found["sheet"].append(replace(sheet, id=sheet.id + mark, number=str(n + 1), order=(n + 1) * ORDER_STEP))
        for device in source.devices.values():
            number = device.number + 50 * n
            found["device"].append(replace(device, id=device.id + mark, number=number))
        for symbol in source.symbols.values():
            owner = symbol.device_id and symbol.device_id + mark
            found["symbol"].append(
                replace(symbol, id=symbol.id + mark, sheet_id=symbol.sheet_id + mark, device_id=owner)
            )
        for wire in source.wires.values():
            found["wire"].append(replace(wire, id=wire.id + mark, sheet_id=wire.sheet_id + mark))
        for c in source.continuations.values():
            name = f"J{n if c.name == 'in' else n + 1}"
            found["continuation"].append(replace(c, id=c.id + mark, sheet_id=c.sheet_id + mark, name=name))
    for kind, entities in found.items():
        project.load(kind, entities)
    gc.freeze()  # as the server does after loading
    return project
