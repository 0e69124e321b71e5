"""A harness of sixty connectors and eight hundred wires: the bench opened cold, and a length changed."""

from __future__ import annotations

import random
from dataclasses import replace
from typing import cast

from pydantic_core import to_json

from jolly_core.model import Project
from jolly_core.testing import Workbench, rebuilt
from jolly_server.benches.harnesschange import harness_sections
from jolly_server.projects.versions import View, difference

from .measure import Pace, Result

CONNECTORS, WIRES, CAVITIES = 60, 800, 28
OPENED_MS, CHANGED_MS = 2000.0, 150.0
COLOURS, SIZES = ("BK", "BU", "RD", "WH"), ("0.5", "0.75", "1")


def wired(connectors: int, wires: int) -> tuple[Workbench, str]:
    """Return a bench with the harness, and the harness's id; it is the same each time."""
    chance = random.Random(7)
    bench = Workbench(frame="zones", number="harness")
    usual = bench.library.part("tamwick-tw-h24s")
    assert usual is not None
    units = tuple(("cavity", (str(n),)) for n in range(1, CAVITIES + 1))
    housing = replace(usual, id="h28", number="TW-H28S", units=units)
    bench.project.parts[housing.id] = housing
    made = bench.new("add-harness", code="WH-B")
    nodes: list[str] = []
    for n in range(1, connectors + 1):
        start = chance.choice(nodes[-8:]) if nodes else ""
        values = {"part_id": housing.id, "tag": f"XD{n}", "from_id": start}
        bench.do("add-connector", harness_id=made, length_mm=chance.randint(10, 60) * 10, **values)
        nodes = list(bench.project.nodes)
    used = dict.fromkeys(range(1, connectors + 1), 0)
    rows = []
    while len(rows) < wires:
        ends = chance.sample([n for n, count in used.items() if count < CAVITIES], 2)
        for n in ends:
            used[n] += 1
        start, end = (f"XD{n}:{used[n]}" for n in ends)
        rows.append({"colour": chance.choice(COLOURS), "size": chance.choice(SIZES), "start": start, "end": end})
    bench.do("draw-harness-wires", harness_id=made, rows=rows)
    return bench, made


def harness(rounds: int, share: float = 1.0) -> list[Result]:
    """Measure the bench opened cold, and a length changed with the difference written."""
    connectors, wires = max(10, round(CONNECTORS * share)), round(WIRES * share)
    pace = Pace()
    bench, made = wired(connectors, wires)

    def shown(project: Project) -> View:
        return cast(View, harness_sections(project, made, ""))

    opened = [pace.timed(shown, rebuilt(bench.project)) for _ in range(rounds)]
    before = [shown(bench.project)]
    segments = sorted(bench.project.segments)

    def longer(n: int) -> None:
        bench.do("set-segment", segment_id=segments[n % len(segments)], length_mm=300 + n)
        now = shown(bench.project)
        to_json(difference(before[0], now))
        before[0] = now

    changed = [pace.timed(longer, n) for n in range(4 * rounds)]
    count = f"{connectors} connectors, {wires} wires"
    return [
        pace.within(f"{count}: Harness bench opened cold", opened, OPENED_MS),
        pace.within(f"{count}: a length changed, answered", changed, CHANGED_MS),
    ]
