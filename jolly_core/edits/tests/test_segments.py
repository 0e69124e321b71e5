"""Segments of harnesses: a curve's first control points, and two that become one."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.harness import span_of
from jolly_core.model import Segment
from jolly_core.tagging import full_tag
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


class Coverings(TestCase):
    """What lies over a segment stays as long as it is when a branch is made in it, and when it is taken away again."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.harness = self.bench.new("add-harness", code="WH-G")
        for tag in ("XD1", "XD2"):
            self.bench.do("add-connector", harness_id=self.harness, part_id="tamwick-tw-h2s", tag=tag, length_mm=300)
        self.part = next(p.id for p in self.bench.library.parts_of("covering"))

    def covered(self) -> list[tuple[float, float]]:
        """Return the stretches that are covered, counted over all segments in their order from XD1 on."""
        project = self.bench.project
        (start,) = (
            n.id
            for n in project.nodes.values()
            if n.device_id and full_tag(project, project.devices[n.device_id]) == "-XD1"
        )
        found: list[tuple[float, float]] = []
        begin, at, left = 0.0, start, list(project.segments.values())
        while left:
            segment = next(s for s in left if at in (s.a_id, s.b_id))
            left.remove(segment)
            length = span_of(project, segment.id).length_mm
            for c in project.coverings.values():
                if c.segment_id == segment.id:
                    low, high = c.from_mm, c.to_mm or length
                    self.assertTrue(0 <= low < high <= length + 0.01, (c, length))
                    if segment.a_id != at:
                        low, high = length - high, length - low
                    found.append((begin + low, begin + high))
            begin += length
            at = segment.b_id if segment.a_id == at else segment.a_id
        merged: list[tuple[float, float]] = []
        for low, high in sorted(found):
            if merged and low <= merged[-1][1] + 0.02:
                merged[-1] = (merged[-1][0], max(high, merged[-1][1]))
            else:
                merged.append((low, high))
        return merged

    @settings(max_examples=60, deadline=None)
    @given(
        st.integers(20, 280),
        st.sampled_from(((0, 0.0), (40, 0.0), (0, 10.0), (15, 5.0))),
        st.lists(st.tuples(st.integers(0, 200), st.integers(5, 150)), min_size=1, max_size=3),
        st.booleans(),
    )
    def test_its_length_stays_through_branching_and_joining(
        self, at_mm: int, extra: tuple[float, float], stretches: list[tuple[int, int]], whole: bool
    ) -> None:
        self.setUp()
        b = self.bench
        (segment,) = b.project.segments.values()
        if any(extra):
            b.do("set-segment", segment_id=segment.id, extra_mm=extra[0], extra_percent=extra[1])
        length = span_of(b.project, segment.id).length_mm
        for low, long in stretches:
            b.do("cover-segment", ids=[segment.id], part_id=self.part, from_mm=low, to_mm=min(low + long, length))
        if whole:
            b.do("cover-segment", ids=[segment.id], part_id=self.part, from_mm=250, to_mm=0)
        before = self.covered()
        node = b.new("split-segment", segment_id=segment.id, at_mm=at_mm, name="B1")
        for state in ("in two", "joined again"):
            after = self.covered()
            self.assertAlmostEqual(
                length, sum(span_of(b.project, s).length_mm for s in b.project.segments), places=1, msg=state
            )
            self.assertEqual(len(before), len(after), (state, before, after))
            for one, other in zip(before, after, strict=True):
                self.assertAlmostEqual(one[0], other[0], delta=0.03, msg=state)
                self.assertAlmostEqual(one[1], other[1], delta=0.03, msg=state)
            if state == "in two":
                b.do("remove-node", node_id=node)
