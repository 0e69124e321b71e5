"""Benches and reports on projects of other habits: empty, North American, two panels, nothing placed, many and long."""

from __future__ import annotations

from collections.abc import Callable
from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.exchange import read_project, write_project
from jolly_core.reports import REPORTS, run_report
from jolly_core.terminals import strips
from jolly_core.testing import Workbench
from jolly_server.benches.cables import cable_picture, cables_bench
from jolly_server.benches.io import IoView, io_bench
from jolly_server.benches.iolist import points_table
from jolly_server.benches.iomap import io_map
from jolly_server.benches.terminals import strip_view, terminals_bench

LONG = "A text as long as one that somebody pastes from a specification, with commas, and 100 % of its words"


def empty() -> Workbench:
    """Return a project with one empty sheet."""
    return Workbench()


def north_american() -> Workbench:
    """Return a ladder project whose tags follow the lines, with a cable of three loads and a list of points."""
    bench = Workbench(frame="ladder", standard="na", tag_habit="line")
    feeder(bench)
    listed(bench, 12)
    return bench


def two_panels() -> Workbench:
    """Return a project with wires from one panel to another, and a remote rack in the field."""
    bench = Workbench(frame="zones")
    places = [bench.new("add-location", code=code, side="panel") for code in ("P1", "P2")]
    feeder(bench)
    rows = list(strips(bench.project))
    bench.do("set-place", device_id=rows[0].id, function_id="", location_id=places[0])
    bench.do("make-strip", location_id=places[1], count=24)
    rack = bench.new("add-rack", part_id="HR-RK8", location_id=places[1])
    bench.do("add-cards", cards=[{"part_id": "hollin-hr-di8", "count": 3}], location_id=places[1], rack_id=rack)
    return bench


def nothing_placed() -> Workbench:
    """Return a project of planned terminals and listed points of which nothing is drawn."""
    bench = Workbench()
    bench.do("make-strip", count=36)
    listed(bench, 40)
    bench.do("add-cards", cards=[{"part_id": "hollin-hr-di16", "count": 2}])
    return bench


def many_and_long() -> Workbench:
    """Return a project of 300 terminals and 150 points with long names."""
    bench = Workbench(frame="zones")
    bench.do("make-strip", count=300, text=LONG)
    listed(bench, 150, LONG)
    bench.do("add-cards", cards=[{"part_id": "hollin-hr-di16", "count": 6}, {"part_id": "hollin-hr-do16", "count": 3}])
    bench.do("suggest-channels")
    bench.do("draw-channels")
    return bench


def feeder(bench: Workbench) -> None:
    """Draw a motor on four wires from a row of terminals, in a cable."""
    bench.place("motor", 40, 82, part_id="orrery-od-m3")
    for n in range(4):
        bench.wire((40 + 4 * n, 60), (40 + 4 * n, 82))
    bench.do("place-terminals", sheet_id=bench.sheet, x1=38, y1=66, x2=54, y2=66)
    bench.do("draw-band", sheet_id=bench.sheet, x1=38, y1=76, x2=54, y2=76, part_id="quillon-ql-c4g2-5")


def listed(bench: Workbench, count: int, text: str = "") -> None:
    """Take in points of all types in turn."""
    kinds = (("DI", "limit switch"), ("DI", ""), ("DO", "lamp"), ("AI", "transmitter"), ("AO", "valve"))
    points = []
    for n in range(count):
        kind, element = kinds[n % len(kinds)]
        points.append({"tag": f"P{n}", "io_type": kind, "connected": element, "text": text, "terminals": n % 2 == 0})
    bench.do("take-in-points", points=points)


MADE: tuple[Callable[[], Workbench], ...] = (empty, north_american, two_panels, nothing_placed, many_and_long)


class OddProjects(TestCase):
    def each(self) -> list[tuple[str, Workbench]]:
        return [(make.__name__, make()) for make in MADE]

    def test_every_bench_shows_them(self) -> None:
        for name, bench in self.each():
            with self.subTest(name):
                project, library = bench.project, bench.library
                there = terminals_bench(project)
                ids = [strip["id"] for strip in there["strips"]]
                self.assertEqual(len(ids), len(set(ids)))
                for id in ids:
                    for upright in (False, True):
                        view = strip_view(project, library, id, upright=upright, spare_percent=20)
                        keys = [row["key"] for row in view["rows"]]
                        self.assertEqual(len(keys), len(set(keys)))
                for cable in cables_bench(project, library)["cables"]:
                    cores = [c for c in cable["cores"] if c["kind"] == "core"]
                    self.assertEqual(cable["used"] + cable["spare"], len(cores))
                    self.assertTrue(cable_picture(project, library, cable["id"])["scene"]["items"])
                view_of_io = io_bench(project, library, "location")
                self.assertEqual(len(view_of_io["points"]), len(project.io_points))
                self.assertEqual(sum(n["points"] for n in view_of_io["needs"]), len(project.io_points))
                self.assertEqual(sum(n["channels"] for n in view_of_io["needs"]), self.channels(view_of_io))

    @staticmethod
    def channels(view: IoView) -> int:
        """Return how many channels the cards of a view have."""
        return sum(len(card["channels"]) for card in view["cards"])

    def test_the_address_map_has_every_channel_once(self) -> None:
        for name, bench in self.each():
            with self.subTest(name):
                cells = [c for space in io_map(bench.project) for row in space["rows"] for c in row["cells"]]
                taken = [(c["device_id"], c["io_type"], c["channel"]) for c in cells if c["device_id"]]
                self.assertEqual(len(taken), len(set(taken)))
                self.assertEqual(len(taken), self.channels(io_bench(bench.project, bench.library)))

    def test_every_report_has_a_cell_for_each_column(self) -> None:
        for name, bench in self.each():
            for key in REPORTS:
                with self.subTest(name, report=key):
                    table = run_report(bench.project, key)
                    self.assertEqual({len(row) for row in table.rows} - {len(table.columns)}, set())
            table = points_table(bench.project)
            self.assertEqual({len(row) for row in table.rows} - {len(table.columns)}, set())

    def test_files_and_checks_take_them(self) -> None:
        for name, bench in self.each():
            with self.subTest(name):
                again = read_project(write_project(bench.project))
                self.assertEqual(write_project(again), write_project(bench.project))
                messages = [s.message for s in all_snags(again)]
                self.assertEqual(sorted(messages), sorted(s.message for s in all_snags(bench.project)))
                self.assertTrue(all(m.strip() and "None" not in m for m in messages))
