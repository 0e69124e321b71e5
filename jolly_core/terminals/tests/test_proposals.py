"""What is proposed for a strip: plates, brackets, earth terminals, spares, an order; looked at, then taken or left."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.circuits import potential_of
from jolly_core.edits import parse_edit, perform
from jolly_core.exchange import read_project
from jolly_core.model import Project, RuleError
from jolly_core.tagging import full_tag
from jolly_core.terminals import Proposal, proposals, strip_rows, strips
from jolly_core.testing import DEMO, DemoLibrary, Workbench, demo


class Offered(TestCase):
    def setUp(self) -> None:
        """Four fields wires and a strip across them; a cable with a green-yellow core on their field side."""
        self.bench = Workbench(frame="zones")
        self.project = self.bench.project
        panel = self.bench.new("add-location", code="P", side="panel")
        field = self.bench.new("add-location", code="F", side="field")
        self.power = self.bench.new("add-wire-type", name="Power", colour="BK", cross_section_mm2=2.5, category="power")
        for y in (20, 30, 40, 50):
            for x, place in ((20, panel), (80, field)):
                lamp = self.bench.place("lamp", x, y)
                self.bench.do("set-place", device_id=self.bench.device(lamp), function_id="", location_id=place)
            self.bench.wire((24, y), (80, y), type_id=self.power if y < 35 else "")
        row = {"sheet_id": self.bench.sheet, "x1": 50, "y1": 18, "x2": 50, "y2": 52}
        self.strip = self.bench.device(self.bench.do("place-terminals", **row).placed[0])
        self.bench.do("assign-part", device_id=self.strip, part_id="QL-K2-5")

    def offered(self, percent: int = 0) -> list[Proposal]:
        return proposals(self.project, self.bench.library, self.strip, percent)

    def whats(self, percent: int = 0) -> list[str]:
        return [p.what for p in self.offered(percent)]

    def test_no_plate_beside_an_earth_terminal_to_which_a_return_is_bonded(self) -> None:
        project = demo()
        strip = next(d.id for d in project.devices.values() if full_tag(project, d) == "=K2+KP2-XD1")
        earths = [r for r in strip_rows(project, strip) if r.terminal_kind == "earth"]
        kinds = [potential_of(project, t.conductor.start).bonded for r in earths for t in r.targets]
        self.assertTrue(any(kinds), "the demo's supply is bonded here")
        self.assertNotIn("plate", [p.what for p in proposals(project, self.bench.library, strip, 10)])

    def test_a_plate_between_voltages_and_a_bracket_at_either_end(self) -> None:
        found = self.offered()
        self.assertEqual([p.what for p in found], ["plate", "end-bracket", "end-bracket"])
        self.assertEqual(found[0].reason, "Low voltage and 24 V and signals are neighbours.")
        self.assertEqual((found[0].at, found[0].after), ("u3", False))
        outcome = self.bench.do("take-proposals", strip_id=self.strip, keys=[p.key for p in found], spare_percent=0)
        self.assertEqual([row[0] for row in outcome.table], [p.title for p in found])
        kinds = [r.kind for r in strip_rows(self.project, self.strip)]
        self.assertEqual(kinds, ["end-bracket", "terminal", "terminal", "plate", "terminal", "terminal", "end-bracket"])
        self.assertEqual(self.whats(), [])

    def test_a_plate_where_part_or_height_changes_but_not_at_an_earth_terminal_of_the_series(self) -> None:
        self.bench.do("set-terminals", strip_id=self.strip, units=[2], part_id="QL-K10")
        reasons = [p.reason for p in self.offered() if p.what == "plate"]
        self.assertEqual(reasons[0], "The part changes from QL-K2-5 to QL-K10.")
        self.bench.do("set-terminals", strip_id=self.strip, units=[2], part_id="")
        self.bench.do("plan-terminals", strip_id=self.strip, at="u1", terminal_kind="earth", part_id="QL-K2-5E")
        self.assertEqual(self.whats().count("plate"), 1)

    def test_an_earth_terminal_beside_each_cable_with_a_protective_core(self) -> None:
        band = {"sheet_id": self.bench.sheet, "x1": 70, "x2": 70, "y1": 18}
        self.bench.do("draw-band", **band, y2=32, part_id="QL-C4G1.5")
        (earth,) = [p for p in self.offered() if p.what == "earth"]
        self.assertEqual((earth.at, earth.after, earth.part_id), ("u2", True, "quillon-ql-k2-5e"))
        self.bench.do("take-proposals", strip_id=self.strip, keys=[earth.key], spare_percent=0)
        rows = strip_rows(self.project, self.strip)
        self.assertEqual(
            [r.terminal_kind for r in rows], ["feed-through", "feed-through", "earth", "feed-through", "feed-through"]
        )
        self.assertNotIn("earth", self.whats())

    def test_spares_by_percent(self) -> None:
        (spare,) = [p for p in self.offered(30) if p.what == "spare"]
        self.assertEqual((spare.count, spare.title), (2, "2 spare terminals at the end"))
        self.bench.do("take-proposals", strip_id=self.strip, keys=None, spare_percent=30)
        rows = strip_rows(self.project, self.strip)
        self.assertEqual([r.record.spare for r in rows if r.kind == "terminal"], [False] * 4 + [True] * 2)
        self.assertEqual(rows[-1].kind, "end-bracket", "all that is taken together stands in order")
        self.assertEqual(self.whats(30), [])

    def test_an_order_without_crossing_cores(self) -> None:
        self.bench.do("draw-band", sheet_id=self.bench.sheet, x1=70, y1=52, x2=70, y2=18, part_id="QL-S10-0.75")
        (order,) = [p for p in self.offered() if p.what == "order"]
        self.assertEqual(order.reason, "5 crossings of cores would go.")
        self.bench.do("take-proposals", strip_id=self.strip, keys=["order"], spare_percent=0)
        cores = [t.core for r in strip_rows(self.project, self.strip) for t in r.field]
        self.assertEqual(cores, ["WH", "BN", "GN", "BK"], "the second phase is black")
        self.assertNotIn("order", self.whats())

    def test_what_is_no_longer_proposed_is_refused(self) -> None:
        with self.assertRaisesRegex(RuleError, "not proposed for -XD1 any more"):
            self.bench.do("take-proposals", strip_id=self.strip, keys=["order"], spare_percent=0)


class OnTheDemo(TestCase):
    def test_all_that_is_proposed_can_be_taken_and_then_nothing_is(self) -> None:
        project: Project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        library = DemoLibrary()
        taken = 0
        for strip in strips(project):
            for _ in range(2):  # an order may bring other neighbours together
                if proposals(project, library, strip.id):
                    edit = parse_edit({"kind": "take-proposals", "strip_id": strip.id})
                    perform(project, edit, library=library)
                    taken += 1
            self.assertEqual(proposals(project, library, strip.id), [], full_tag(project, strip))
        self.assertGreaterEqual(taken, 6)
