"""Two thousand I/O points: read and taken in, the bench shown, one allocated, all drawn."""

from __future__ import annotations

from jolly_core.points import cards_for, needs, read_points
from jolly_core.testing import Workbench, rebuilt
from jolly_server.benches.io import io_bench

from .measure import Pace, Result

POINTS = 2000
TAKEN_MS, OPENED_MS, MOVED_MS, DRAWN_MS = 10_000.0, 1000.0, 200.0, 30_000.0
KINDS = ("DI",) * 8 + ("DO",) * 4 + ("AI",) * 3
ELEMENTS = {"DI": "limit switch", "DO": "lamp", "AI": "transmitter"}


def listed(count: int) -> list[list[str]]:
    """Return a list of points as a table: inputs, outputs and transmitters in turn."""
    rows = [["Tag", "Text", "Type", "Location", "Connected to", "Terminals", "Device"]]
    for n in range(count):
        kind = KINDS[n % len(KINDS)]
        text = f"Section {n // len(KINDS)}, point {n % len(KINDS)}"
        rows.append([f"{kind}{n}", text, kind, "+F", ELEMENTS[kind], "yes", f"-BG{n}"])
    return rows


def points(rounds: int, share: float = 1.0) -> list[Result]:
    """Measure a list taken in, the bench opened, a point allocated with the bench shown, all channels drawn."""
    many = round(POINTS * share)
    pace, drawing = Pace(), Pace()
    bench = Workbench(frame="zones")
    panel = bench.new("add-location", code="P", side="panel")
    bench.new("add-location", code="F", side="field")
    library = bench.library

    def take() -> None:
        found = read_points(bench.project, listed(many))
        bench.do("take-in-points", points=[line.values for line in found.lines])

    taken = drawing.timed(take)
    for need in needs(bench.project):
        found = cards_for(need, library.parts_of("plc-card"))
        for part, count in found.parts if found else ():
            bench.do("add-cards", cards=[{"part_id": part.id, "count": count}], location_id=panel)
    bench.do("suggest-channels")
    opened = [pace.timed(io_bench, rebuilt(bench.project), library) for _ in range(rounds)]
    ids = [p.id for p in bench.project.io_points.values() if p.channel]

    def moved(n: int) -> None:
        bench.do("free-points", ids=[ids[n]])
        bench.do("suggest-channels", ids=[ids[n]])
        io_bench(bench.project, library)

    moves = [pace.timed(moved, n) for n in range(2 * rounds)]
    drawn = drawing.timed(lambda: bench.do("draw-channels", per_sheet=8))
    count = f"{many} points"
    return [
        drawing.within(f"{count}: a list read and taken in", [taken], TAKEN_MS, None),
        pace.within(f"{count}: I/O bench opened cold", opened, OPENED_MS),
        pace.within(f"{count}: a point taken off and allocated, bench shown", moves, MOVED_MS),
        drawing.within(f"{count}: all channels drawn", [drawn], DRAWN_MS, None),
    ]
