"""Segments of harnesses: a curve's first control points, and two that become one."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.harness import span_of
from jolly_core.model import Segment
from jolly_core.testing import Workbench


class Segments(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.harness = self.bench.new("add-harness", code="WH-G")
        for tag in ("XD1", "XD2"):
            self.bench.do("add-connector", harness_id=self.harness, part_id="tamwick-tw-h2s", tag=tag, length_mm=300)

    def segments(self) -> list[Segment]:
        return sorted(self.bench.project.segments.values(), key=lambda s: s.id)

    def test_a_curve_begins_on_the_straight_line_between_its_nodes(self) -> None:
        (segment,) = self.segments()
        for id, at in zip((segment.a_id, segment.b_id), ([0, 0, 0], [300, 60, 0]), strict=True):
            self.bench.do("change-node", node_id=id, at=at)
        self.bench.do("set-segment", segment_id=segment.id, form="curve")
        (segment,) = self.segments()
        self.assertEqual(segment.path, (100, 20, 0, 200, 40, 0))
        self.assertAlmostEqual(span_of(self.bench.project, segment.id).base_mm, (300**2 + 60**2) ** 0.5, places=1)

    def test_two_that_become_one_keep_what_was_added_and_the_chosen_angle(self) -> None:
        (segment,) = self.segments()
        branching = self.bench.new("split-segment", segment_id=segment.id, at_mm=100, name="B1")
        first, second = self.segments()
        self.bench.do("set-segment", segment_id=first.id, extra_percent=10, angled=True, angle_deg=30)
        self.bench.do("set-segment", segment_id=second.id, extra_mm=7)
        before = sum(span_of(self.bench.project, s.id).length_mm for s in self.segments())
        self.bench.do("remove-node", node_id=branching)
        (joined,) = self.segments()
        self.assertAlmostEqual(span_of(self.bench.project, joined.id).length_mm, before, places=2)
        self.assertEqual((joined.angled, joined.angle_deg), (True, 30))
