"""Splices: a star of wires, legs cut equal, what is too much for one; segments with extra length, coverings, clips."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.harness import bundles, cavity_rows, covered, span_of, tree_of, trunk, wires_of
from jolly_core.making import cut_list
from jolly_core.model import Part, RuleError
from jolly_core.testing import Workbench


class Spliced(TestCase):
    def setUp(self) -> None:
        """A wire from a connector to a splice, and from there to three connectors at 320, 350 and 410 mm."""
        self.bench = bench = Workbench(frame="zones")
        bench.do("change-settings", harness_allowance_mm=0, length_step_mm=1)
        thin = bench.new("add-wire-type", name="Thin", colour="BN", cross_section_mm2=0.5, category="signal")
        self.splice = bench.device(bench.place("splice", 60, 30))
        bench.wire((40, 30), (60, 30), type_id=thin)
        bench.wire((60, 20), (60, 40), type_id=thin)
        for y in (20, 30, 40):
            bench.wire((60, y), (80, y), type_id=thin)
        self.main = bench.device(bench.place("connector", 40, 30, rotation=180))
        self.ends = [bench.device(bench.place("connector", 80, y)) for y in (20, 30, 40)]
        self.harness = bench.new("add-harness", code="WH-S")
        self.first = self.node(self.main)
        self.middle = self.node(self.splice, self.first, 500)
        self.last = [self.node(d, self.middle, mm) for d, mm in zip(self.ends, (320, 350, 410), strict=True)]

    def node(self, device: str, start: str = "", length: float = 200) -> str:
        return self.bench.new("add-node", harness_id=self.harness, device_id=device, from_id=start, length_mm=length)

    def segment(self, node: str) -> str:
        return next(s.id for s in self.bench.project.segments.values() if s.b_id == node)

    def lengths(self) -> list[tuple[float | None, float]]:
        return sorted((w.length_mm or 0.0, w.spare_mm) for w in wires_of(self.bench.project, self.harness))

    def said(self, code: str) -> list[str]:
        return [s.message for s in project_snags(self.bench.project) if s.code == code]

    def part(self, number: str, part_class: str, **ratings: str) -> str:
        made = Part(number, "Fenwright", number, part_class, ratings=ratings, width_mm=float(ratings.pop("width", 0)))
        self.bench.project.parts[made.id] = made
        return made.id


class Splices(Spliced):
    def test_each_wire_goes_to_the_splice_and_is_as_long_as_its_way(self) -> None:
        self.assertEqual(self.lengths(), [(320, 0), (350, 0), (410, 0), (500, 0)])
        (row,) = cavity_rows(self.bench.project, self.splice)
        self.assertEqual((row.cavity, len(row.conductors)), ("S", 4))

    def test_equal_legs_are_as_long_as_the_longest_and_the_cut_list_says_so(self) -> None:
        """Worked: legs of 320, 350 and 410 mm beside one of 500 mm on another splice's side."""
        self.bench.do("remove-node", node_id=self.first)
        self.bench.do("change-node", node_id=self.middle, equal_legs=True)
        self.assertEqual(self.lengths(), [(410, 0), (410, 60), (410, 90)])
        self.assertEqual(sum(spare for _, spare in self.lengths()), 150)
        why = [w.why for w in wires_of(self.bench.project, self.harness) if w.spare_mm == 90]
        self.assertIn("equal legs of -XD1: 410 mm, 90 mm spare", why[0])
        self.assertEqual(sum(w.length_mm == 410 for w in cut_list(self.bench.project)), 3)

    def test_only_a_splice_has_equal_legs(self) -> None:
        with self.assertRaisesRegex(RuleError, "is no splice"):
            self.bench.do("change-node", node_id=self.first, equal_legs=True)

    def test_more_than_a_splice_holds_is_a_snag_that_names_it(self) -> None:
        part = self.part("FW-SP15", "splice", cross_section_max_mm2="1.5", strip_mm="8")
        device = self.bench.project.devices[self.splice]
        self.bench.project.devices[device.id] = replace(device, part_id=part)
        said = "WH-S: the splice FW-SP15 in -XD1 does not take 2 mm² of 4 wires together."
        self.assertEqual(self.said("harness-contact"), [said])
        (row,) = cavity_rows(self.bench.project, self.splice)
        self.assertEqual((row.contact and row.contact.number, row.strip_mm), ("FW-SP15", 8))


class Lengths(Spliced):
    def test_what_is_added_reaches_wires_and_is_said(self) -> None:
        leg = self.segment(self.last[0])
        self.bench.do("set-segment", segment_id=leg, extra_mm=10)
        self.assertEqual((span_of(self.bench.project, leg).words, self.lengths()[0]), ("320 + 10", (330, 0)))
        self.bench.do("change-harness", harness_id=self.harness, extra_percent=5)
        self.assertEqual(span_of(self.bench.project, leg).length_mm, 346)
        self.assertEqual([mm for mm, _ in self.lengths()], [346, 368, 431, 525])
        with self.assertRaisesRegex(RuleError, "more than the segment"):
            self.bench.do("set-segment", segment_id=leg, extra_mm=-900)

    def test_a_path_gives_the_length_and_its_bend_is_compared(self) -> None:
        leg = self.segment(self.last[0])
        self.bench.do("set-segment", segment_id=leg, form="curve", path=[80, 0, 0, 40, 60, 50])
        self.assertEqual(
            self.said("harness-length"),
            ["WH-S: the segment -XD1 to -XD3 has no length: one of its ends has no place in space."],
        )
        self.bench.do("change-node", node_id=self.middle, at=[0, 0, 0])
        self.bench.do("change-node", node_id=self.last[0], at=[120, 60, 50])
        span = span_of(self.bench.project, leg)
        self.assertEqual((span.base_mm, span.missing, self.said("harness-length")), (153.83, "", []))
        self.assertEqual(self.said("harness-bend"), [])
        self.bench.do("set-segment", segment_id=leg, path=[200, 0, 0, -80, 60, 50])
        self.assertRegex(self.said("harness-bend")[0], r"-XD1 to -XD3 bends about [\d.]+ mm; .* needs 12 mm")

    def test_a_trunk_lies_between_chosen_ends(self) -> None:
        tree = tree_of(self.bench.project, self.harness)
        self.assertEqual(trunk(tree), [self.first, self.middle, self.last[2]])
        for node in (self.last[0], self.last[1], self.first):
            self.bench.do("change-node", node_id=node, trunk_end=True)
        ends = [n.id for n in self.bench.project.nodes.values() if n.trunk_end]
        self.assertEqual(len(ends), 2, "the one made first was given up")
        tree = tree_of(self.bench.project, self.harness)
        self.assertEqual({trunk(tree)[0], trunk(tree)[-1]}, set(ends))

    def test_a_harness_in_parts_is_named(self) -> None:
        project = self.bench.project
        leg = project.segments[self.segment(self.last[0])]
        project.segments.pop(self.segment(self.middle))
        project.segments[leg.id] = replace(leg, a_id=self.first)
        self.bench.do("change-settings", length_step_mm=2)
        self.assertRegex(self.said("harness")[0], "^WH-S: it is in 2 parts, about -XD.; -XD.. Join them.$")


class Over(Spliced):
    def test_coverings_stay_where_they_are_when_a_segment_is_split_and_joined(self) -> None:
        tube = self.part("FW-T8", "covering", covering="tube", bundle_max_mm="8")
        trunk_segment = self.segment(self.middle)
        self.bench.do("cover-segment", ids=[trunk_segment], part_id=tube, from_mm=100, to_mm=300)
        clip = self.bench.new("split-segment", segment_id=trunk_segment, at_mm=180, sort="clip", name="C1")
        found = [(c.from_mm, c.to_mm, c.used_mm) for c in covered(self.bench.project, self.harness)]
        self.assertEqual(found, [(100, 180, 80), (0, 120, 120)])
        self.bench.do("remove-node", node_id=clip)
        whole = [(c.from_mm, c.to_mm) for c in covered(self.bench.project, self.harness)]
        self.assertEqual(sorted(whole), [(100, 180), (180, 300)])
        self.bench.do("remove-harness", harness_id=self.harness)
        self.assertEqual(self.bench.project.coverings, {})

    def test_tape_takes_more_than_its_stretch(self) -> None:
        tape = self.part("FW-TP19", "covering", covering="tape", overlap_percent="50", width="19")
        segment = self.segment(self.middle)
        self.bench.do("cover-segment", ids=[segment], part_id=tape)
        (found,) = covered(self.bench.project, self.harness)
        diameter = bundles(self.bench.project, self.harness)[segment].diameter_mm
        self.assertEqual((found.length_mm, diameter), (500, 2.0))
        # 52.6 turns of hypot(π × 2, 9.5) = 11.39 mm each.
        self.assertAlmostEqual(found.used_mm, 500 / 9.5 * 11.39, delta=0.5)

    def test_a_covering_too_narrow_and_a_clip_too_small_are_named(self) -> None:
        segment = self.segment(self.middle)
        self.bench.do("cover-segment", ids=[segment], part_id=self.part("FW-T1", "covering", bundle_max_mm="1"))
        clip = self.bench.new("split-segment", segment_id=segment, at_mm=100, sort="clip", name="C1")
        small = self.part("FW-C1", "harness-clip", bundle_max_mm="1.5")
        self.bench.do("change-node", node_id=clip, part_id=small)
        self.assertIn("WH-S: FW-C1 at clip C1 does not take the bundle of ⌀ 2 mm.", self.said("harness-clip"))
        self.assertEqual(len(self.said("harness-fit")), 2, "the covering is in two parts beside the clip")

    def test_what_covers_nothing_is_refused(self) -> None:
        segment = self.segment(self.middle)
        for stretch, said in (({"from_mm": 600}, "500 mm long"), ({"from_mm": 30, "to_mm": 20}, "nothing of it lies")):
            with self.assertRaisesRegex(RuleError, said):
                self.bench.do("cover-segment", ids=[segment], **stretch)
        with self.assertRaisesRegex(RuleError, "no harness covering"):
            self.bench.do("cover-segment", ids=[segment], part_id=self.part("FW-X", "seal"))
        with self.assertRaisesRegex(RuleError, "Choose the segments"):
            self.bench.do("cover-segment", ids=[])
