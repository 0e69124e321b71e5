"""The budget of a large panel: some 340 devices and 1,600 wires on one plate; the bench is opened, a device moved."""

from __future__ import annotations

import gc
from dataclasses import replace
from typing import Any

from benchmarks.measure import Pace, Result
from jolly_core.edits import compute, parse_edit
from jolly_core.library import NoLibrary
from jolly_core.model import KINDS, Duct, Enclosure, Placing, Project, Rail
from jolly_core.testing import Workbench, rebuilt
from jolly_server.benches.cabinet import CabinetView, cabinet_bench

FEEDERS, SHEETS = 12, 14
PITCH_MM, COLUMNS = 60.0, 56
MOVED_MS, WARM_MS, COLD_MS = 100.0, 300.0, 1500.0


def feeders() -> Workbench:
    """Return a project with one sheet of motor feeders: a bus, breakers, contactors and terminals, three poles each."""
    bench = Workbench(frame="zones")
    place = bench.new("add-location", code="P", side="panel")
    bench.do("change-sheet", sheet_id=bench.sheet, location_id=place, size="A2")
    for pole in range(3):
        bench.wire((6, 10 + 2 * pole), (6 + 18 * FEEDERS, 10 + 2 * pole), type_id=bench.red)
    for n in range(FEEDERS):
        x = 8 + 18 * n
        for pole in range(3):
            bench.wire((x + 4 * pole, 10 + 2 * pole), (x + 4 * pole, 96), type_id=bench.red)
        bench.place("breaker", x, 30, rotation=90, mirror=True, poles=3, part_id="quillon-ql-c16-3p")
        coil = bench.place("coil", x + 14, 60, part_id="brindlework-bw-c09-24d-31")
        bench.place("contactor-pole", x, 50, rotation=90, mirror=True, poles=3, device_id=bench.device(coil))
    bench.do("place-terminals", sheet_id=bench.sheet, x1=6, y1=80, x2=6 + 18 * FEEDERS, y2=80)
    return bench


def panel(share: float = 1.0) -> Project:
    """Return copies of the sheet of feeders; all devices stand in rows on one plate, with a duct below each row."""
    source = feeders().project
    project = Project()
    whole = ("settings", "wire_type", "part", "function", "location")
    for kind in whole:
        project.load(kind, list(source.tables[kind].values()))
    found: dict[str, list[Any]] = {kind: [] for kind in KINDS if kind not in whole}
    for n in range(max(2, round(SHEETS * share))):
        mark = f"{n:03d}"
        for kind in ("sheet", "device", "symbol", "wire", "strip_item"):
            for record in source.tables[kind].values():
                named = {"id": record.id + mark}
                for name in ("sheet_id", "device_id", "strip_id"):
                    if getattr(record, name, ""):
                        named[name] = getattr(record, name) + mark
                found[kind].append(replace(record, **named))
        found["sheet"][-1] = replace(found["sheet"][-1], number=str(n + 1), order=1000 * n)
    place = next(iter(source.locations))
    devices = [replace(d, number=i, location_id=place) for i, d in enumerate(found["device"])]
    box = replace(devices[0], id="box", letters="UH", part_id="", number=1)
    found["device"] = [*devices, box]
    enclosure = Enclosure("box1", "box")
    rows = -(-len(devices) // COLUMNS)
    reach = PITCH_MM * COLUMNS
    part = next(p for p in Workbench().library.parts.values() if p.part_class == "enclosure")
    size = {"plate_width_mm": f"{reach + 200:g}", "plate_height_mm": f"{rows * 250 + 200:g}"}
    big = replace(part, id="big", width_mm=reach + 300, height_mm=rows * 250 + 300, ratings={**part.ratings, **size})
    duct = Workbench().library.parts["brindlework-bw-d6060"]
    project.load("part", [big, duct])
    found["device"][-1] = replace(box, part_id="big")
    found["enclosure"] = [enclosure]
    for row in range(rows + 1):
        y = 60 + 250.0 * row
        found["duct"].append(Duct(f"d{row:03d}", "box1", 40, y, reach + 160, y, duct.id))
    for side, x in (("left", 40.0), ("right", reach + 160)):
        found["duct"].append(Duct(f"d-{side}", "box1", x, 60, x, 60 + 250.0 * rows, duct.id))
    for row in range(rows):
        y = 185 + 250.0 * row
        found["rail"].append(Rail(f"r{row:03d}", "box1", 80, y, reach + 120, y, ""))
    for n, device in enumerate(devices):
        row, column = divmod(n, COLUMNS)
        found["placing"].append(
            Placing(f"p{n:04d}", "box1", device.id, "plate", 80 + PITCH_MM * column, 140 + 250.0 * row, f"r{row:03d}")
        )
    for kind, entities in found.items():
        project.load(kind, entities)
    gc.freeze()
    return project


def opened(project: Project) -> CabinetView:
    """Return what the Cabinet bench shows of a project."""
    return cabinet_bench(project, NoLibrary())


def cabinet(rounds: int, share: float = 1.0) -> list[Result]:
    """Measure the Cabinet bench: from cold, opened again, and brought up to date after a device was moved."""
    source = panel(share)
    cold, warm = Pace(), Pace()
    colds, warms, moves = [], [], []
    for _ in range(max(2, rounds // 2)):
        project = rebuilt(source)
        colds.append(cold.timed(opened, project))
    wires = len(opened(project)["enclosure"]["routes"])
    placing = sorted(project.placings)[len(project.placings) // 2]

    def move(by: float) -> None:
        edit = {"kind": "move-in-layout", "ids": [placing], "dx": by, "dy": 0}
        project.apply(compute(project, parse_edit(edit)).changes)
        opened(project)

    for turn in range(6 * rounds):
        warms.append(warm.timed(opened, project))
        moves.append(warm.timed(move, 5.0 if turn % 2 else -5.0))
    name = f"{len(source.placings)} devices, {wires} wires"
    return [
        warm.within(f"{name}: device moved", moves, MOVED_MS, 0.95),
        warm.within(f"{name}: opened warm", warms, WARM_MS, 0.95),
        cold.within(f"{name}: opened cold", colds, COLD_MS, None),
    ]
