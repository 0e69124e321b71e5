"""What is told of ducts and lanes: too full, apart from the rest, and shared by wires that are to be kept apart."""

from __future__ import annotations

from dataclasses import replace

from jolly_core.cabinet import duct_fills, routes
from jolly_core.cabinet.tests.test_passing import DUCT, PanelCase
from jolly_core.checks import Snag, project_snags
from jolly_core.checks.lanes import next_larger
from jolly_core.edits.base.history import take_back
from jolly_core.model import Project, WireType


class Told(PanelCase):
    """A panel with a wire, and what is told of it."""

    @property
    def project(self) -> Project:
        return self.bench.project

    def told(self, code: str) -> list[Snag]:
        return [s for s in project_snags(self.project) if s.code == code]

    def the_wire_type(self) -> WireType:
        found = self.route.conductor.wire_type(self.project)
        assert found is not None
        return found


class Full(Told):
    def limit(self, percent: float) -> None:
        self.bench.do("change-settings", fill_warn_percent=percent)

    def test_a_duct_within_the_limit_is_not_told_and_one_beyond_is_with_the_size_that_is_enough(self) -> None:
        self.assertEqual([], self.told("duct-full"))
        fill = duct_fills(self.project, self.enclosure)[self.ducts["middle"]]
        self.limit(round(fill.percent + 0.01, 2))
        self.assertEqual([], self.told("duct-full"), "the limit itself is allowed")
        self.limit(fill.percent / 2)
        (snag,) = self.told("duct-full")
        self.assertEqual(("warning", (self.ducts["middle"],)), (snag.severity, snag.ids))
        self.assertIn("Duct D4 is", snag.message)
        self.assertIn("full with 1 wire,", snag.message)
        # Twice the limit takes twice the area: 80 mm of 60 mm depth, or a duct as large.
        self.assertIn("one of 40 × 120 mm, or as large, is enough", snag.message)

    def test_of_the_ducts_of_its_maker_the_smallest_that_is_enough_is_named(self) -> None:
        duct = self.project.parts[DUCT]
        more = {"x": (60, 60), "y": (80, 60), "z": (120, 60)}
        parts = [
            replace(duct, id=id, number=f"BW-{w}{d}", width_mm=float(w), depth_mm=float(d))
            for id, (w, d) in more.items()
        ]
        parts.append(replace(duct, id="other", number="OT-65", maker="Another", width_mm=81.0))
        self.project.load("part", parts)
        fill = duct_fills(self.project, self.enclosure)[self.ducts["middle"]]
        self.limit(round(fill.percent / 1.9, 3))
        self.assertIn("BW-8060, 80 × 60 mm, is enough", self.told("duct-full")[0].message)
        found = next_larger(self.project, fill)
        self.assertEqual("y", found and found.id)
        self.limit(round(fill.percent / 100, 4))
        self.assertIsNone(next_larger(self.project, fill), "none is a hundred times as large")
        self.assertIn("or as large, is enough", self.told("duct-full")[0].message)

    def test_where_nothing_is_allowed_no_size_is_proposed(self) -> None:
        self.limit(0)
        (snag,) = self.told("duct-full")
        self.assertIn("0 % is the limit", snag.message)
        self.assertNotIn("is enough", snag.message)

    def test_a_duct_whose_part_has_no_size_is_told_and_stops_nothing_else(self) -> None:
        duct = self.project.parts[DUCT]
        self.bench.do("draw-lane", enclosure_id=self.enclosure, points=[[300, 500], [300, 600]])
        for unsaid in (replace(duct, depth_mm=0.0), replace(duct, width_mm=0.0)):
            self.project.load("part", [unsaid])
            found = self.told("duct-full")
            self.assertEqual(len(self.ducts), len(found))
            self.assertIn("BW-D4060 has no width or depth. Choose a part that has both.", found[0].message)
            self.assertEqual(1, len(self.told("lanes-apart")), "the other checks go on")
            fill = duct_fills(self.project, self.enclosure)[self.ducts["middle"]]
            self.assertEqual((0.0, 1), (fill.percent, fill.wires))

    def test_more_than_a_duct_holds_is_an_error(self) -> None:
        duct = self.project.parts[DUCT]
        self.project.load("part", [replace(duct, width_mm=2.0, depth_mm=2.0)])
        (snag,) = self.told("duct-full")
        self.assertEqual("error", snag.severity)


class Apart(Told):
    def another_wire(self, category: str) -> None:
        """Join the same two relays a second time, by a wire of another category."""
        b = self.bench
        usual = self.the_wire_type()
        type_id = b.new("add-wire-type", name="Other", colour="BU", cross_section_mm2=1.0, category=category)
        self.assertNotEqual(usual.id, type_id)
        symbols = [b.place("contact-no", x, 60, device_id=d) for x, d in zip((20, 50), self.devices, strict=True)]
        self.assertEqual(2, len(symbols))
        b.wire((24, 60), (50, 60), type_id=type_id)

    def test_lanes_shared_by_wires_kept_apart_are_told_until_the_lanes_say_for_whom_they_are(self) -> None:
        b = self.bench
        mine = self.the_wire_type().category
        other = "signal" if mine != "signal" else "power"
        self.another_wire(other)
        self.assertEqual(2, len(routes(self.project)))
        self.assertEqual([], self.told("kept-apart"), "nothing is kept apart yet")
        outcome = b.do("change-settings", apart=[mine, other])
        found = self.told("kept-apart")
        self.assertEqual({self.ducts["middle"]}, {id for s in found for id in s.ids})
        self.assertIn(f"1 {mine}", found[0].message)
        self.assertIn(f"1 {other}", found[0].message)
        self.assertIn("in duct D4 of", found[0].message)
        self.assertIn("Say on the lanes which are for whom", found[0].message)
        b.do("set-lane-use", ids=[self.ducts["middle"]], categories=[mine])
        b.do("set-lane-use", ids=[self.ducts["foot"]], categories=[other])
        self.assertEqual([], self.told("kept-apart"), "each has lanes of its own now")
        self.project.apply(take_back(self.project, outcome.changes))
        self.assertEqual([], self.told("kept-apart"))


class Reached(Told):
    def test_a_lane_that_no_wire_can_reach_is_told_with_the_gap(self) -> None:
        self.assertEqual([], self.told("lanes-apart"))
        self.bench.do("draw-lane", enclosure_id=self.enclosure, points=[[300, 500], [300, 600]])
        (snag,) = self.told("lanes-apart")
        self.assertIn("Lane L1 does not reach Duct D5: 100 mm are missing", snag.message)

    def test_an_enclosure_whose_part_is_gone_stops_no_check(self) -> None:
        enclosure = self.project.enclosures[self.enclosure]
        self.bench.do("draw-lane", enclosure_id=self.enclosure, points=[[300, 500], [300, 600]])
        device = self.project.devices[enclosure.device_id]
        self.project.load("device", [replace(device, part_id="")])
        for code in ("lanes-apart", "eyelet-apart", "duct-full", "kept-apart"):
            self.assertIsInstance(self.told(code), list)
