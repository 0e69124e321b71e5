"""Two thousand terminals in sixty strips: the bench opened, a terminal moved, the plans of all strips."""

from __future__ import annotations

from jolly_core.model import Project
from jolly_core.scenes import page_leaves, plan_of
from jolly_core.terminals import strips
from jolly_core.testing import Workbench, rebuilt
from jolly_server.benches.terminals import strip_view, terminals_bench

from .measure import Pace, Result

STRIPS, EACH = 60, 34
SHOWN = 5  # the place of the strip that is looked at
OPENED_MS, MOVED_MS, DRAWN_MS = 1000.0, 100.0, 20_000.0


def wired(count: int) -> tuple[Workbench, list[str]]:
    """Return a bench with strips of terminals on wires, one strip a sheet, and the ids of the strips."""
    bench = Workbench(frame="zones", number=f"{count} strips")
    place = bench.new("add-location", code="P1", side="panel")
    made = []
    for n in range(count):
        sheet = bench.new("add-sheet", number=str(100 + n), frame="zones", size="A2")
        strip = bench.new("make-strip", location_id=place, count=EACH, part_id="QL-K2-5")
        for k in range(EACH):
            bench.wire((8 + 5 * k, 20), (8 + 5 * k, 90), sheet_id=sheet)
        ends = {"x1": 6, "y1": 50, "x2": 10 + 5 * EACH, "y2": 50}
        bench.do("place-terminals", sheet_id=sheet, device_id=strip, **ends)
        made.append(strip)
    return bench, made


def terminals(rounds: int, share: float = 1.0) -> list[Result]:
    """Measure the bench opened cold, a terminal moved with the bench current, and all plans."""
    many = max(SHOWN + 1, round(STRIPS * share))
    pace, drawing = Pace(), Pace()
    bench, made = wired(many)
    library = bench.library

    def shown(project: Project) -> None:
        terminals_bench(project)
        strip_view(project, library, made[SHOWN], upright=False, spare_percent=10)

    opened = [pace.timed(shown, rebuilt(bench.project)) for _ in range(rounds)]
    shown(bench.project)

    def moved(n: int) -> None:
        bench.do("move-strip-items", strip_id=made[SHOWN], keys=[f"u{1 + n % 5}"], by=2)
        shown(bench.project)

    moves = [pace.timed(moved, n) for n in range(4 * rounds)]

    def plans(project: Project) -> None:
        for strip in strips(project):
            page_leaves(project, plan_of(project, "terminals", strip.id))

    drawn = [drawing.timed(plans, rebuilt(bench.project)) for _ in range(min(rounds, 3))]
    count = f"{many * EACH} terminals in {many} strips"
    return [
        pace.within(f"{count}: Terminals bench opened cold", opened, OPENED_MS),
        pace.within(f"{count}: a terminal moved, bench current", moves, MOVED_MS),
        drawing.within(f"{count}: plans of all strips", drawn, DRAWN_MS, None),
    ]
