"""Harnesses: tree, lengths, bundles, contacts, the flat form board."""

from __future__ import annotations

from math import hypot
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.checks import project_snags
from jolly_core.harness import Tree, bundles, cavity_rows, flat, is_tree, length_mm, trunk, way_between, wires_of
from jolly_core.model import Node, RuleError, Segment
from jolly_core.tagging import pin_name
from jolly_core.testing import Workbench


def made(edges: list[tuple[int, int, float]]) -> Tree:
    """Return a tree of nodes n0, n1... with edges (from, to, length)."""
    count = max((max(a, b) for a, b, _ in edges), default=0) + 1
    nodes = [Node(f"n{i}", "h") for i in range(count)]
    segments = [Segment(f"s{i}", "h", f"n{a}", f"n{b}", length) for i, (a, b, length) in enumerate(edges)]
    beside: dict[str, list[tuple[Segment, str]]] = {n.id: [] for n in nodes}
    for s in segments:
        beside[s.a_id].append((s, s.b_id))
        beside[s.b_id].append((s, s.a_id))
    return Tree(nodes, segments, beside)


@st.composite
def trees(draw: st.DrawFn) -> Tree:
    """Draw a tree of up to twelve nodes."""
    count = draw(st.integers(2, 12))
    return made([(draw(st.integers(0, n - 1)), n, float(draw(st.integers(1, 50)) * 10)) for n in range(1, count)])


class Trees(TestCase):
    @given(trees())
    def test_the_trunk_is_the_longest_way_of_all(self, tree: Tree) -> None:
        main = trunk(tree)
        longest = max(length_mm(way_between(tree, a.id, b.id)) for a in tree.nodes for b in tree.nodes)
        self.assertEqual(length_mm(way_between(tree, main[0], main[-1])), longest)

    @given(trees())
    def test_laid_flat_every_segment_has_its_true_length_and_the_trunk_is_straight(self, tree: Tree) -> None:
        places = flat(tree)
        self.assertEqual(set(places), {n.id for n in tree.nodes})
        for s in tree.segments:
            (ax, ay), (bx, by) = places[s.a_id], places[s.b_id]
            self.assertAlmostEqual(hypot(ax - bx, ay - by), s.length_mm, places=1)
        heights = {round(places[n][1], 2) for n in trunk(tree)}
        self.assertEqual(len(heights), 1)
        self.assertGreaterEqual(min(x for x, _ in places.values()), 0)

    def test_a_ring_is_no_tree(self) -> None:
        self.assertTrue(is_tree(made([(0, 1, 10), (1, 2, 10)])))
        self.assertFalse(is_tree(made([(0, 1, 10), (1, 2, 10), (2, 0, 10)])))
        self.assertFalse(is_tree(made([(0, 1, 10), (2, 3, 10)])))

    def test_branches_go_up_and_down_by_turns(self) -> None:
        places = flat(made([(0, 1, 100), (1, 2, 100), (2, 3, 100), (1, 4, 50), (2, 5, 60)]))
        level = places["n0"][1]
        self.assertLess(places["n4"][1], level)
        self.assertGreater(places["n5"][1], level)


class Wired(TestCase):
    def setUp(self) -> None:
        """A connector of six joined to two of four by four and two wires."""
        self.bench = Workbench(frame="zones")
        self.thin = self.bench.new("add-wire-type", name="Thin", colour="BN", cross_section_mm2=0.5, category="signal")
        for y in range(20, 44, 4):
            self.bench.wire((40, y), (80, y), type_id=self.thin)
        self.main = self.connector(40, range(20, 44, 4), 180, "tamwick-tw-p6")
        self.one = self.connector(80, range(20, 36, 4), 0, "tamwick-tw-p4")
        self.two = self.connector(80, range(36, 44, 4), 0, "tamwick-tw-p4")
        self.harness = self.bench.new("add-harness", code="WH-T1")
        self.first = self.node(self.main)
        self.node(self.one, self.first, 900)
        (segment,) = self.bench.project.segments
        self.branch = self.bench.new("split-segment", segment_id=segment, at_mm=550)
        self.last = self.node(self.two, self.branch, 320)

    def connector(self, x: int, ys: range, rotation: int, part: str) -> str:
        device = self.bench.device(self.bench.place("connector", x, ys[0], rotation=rotation, part_id=part))
        for y in ys[1:]:
            self.bench.place("cavity", x, y, rotation=rotation, device_id=device)
        return device

    def node(self, device: str, start: str = "", length: float = 200) -> str:
        return self.bench.new("add-node", harness_id=self.harness, device_id=device, from_id=start, length_mm=length)

    def lengths(self) -> list[float | None]:
        return [w.length_mm for w in wires_of(self.bench.project, self.harness)]

    def test_wires_run_along_their_segments_and_their_length_has_both_allowances(self) -> None:
        self.assertEqual(self.lengths(), [940.0] * 4 + [910.0] * 2)
        self.bench.do("change-settings", harness_allowance_mm=33, length_step_mm=10)
        self.assertEqual(self.lengths(), [970.0] * 4 + [940.0] * 2)

    def test_bundles_hold_the_wires_that_pass(self) -> None:
        found = sorted(
            (len(b.wires), round(b.diameter_mm, 2)) for b in bundles(self.bench.project, self.harness).values()
        )
        self.assertEqual(found, [(2, 4.0), (4, 4.83), (6, 6.0)])

    def test_another_length_reaches_every_wire_through_it(self) -> None:
        trunk_segment = next(s.id for s in self.bench.project.segments.values() if s.length_mm == 550)
        self.bench.do("set-segment", segment_id=trunk_segment, length_mm=600)
        self.assertEqual(self.lengths(), [990.0] * 4 + [960.0] * 2)

    def test_contacts_and_strip_lengths_come_from_the_parts(self) -> None:
        rows = cavity_rows(self.bench.project, self.two)
        self.assertEqual([(r.cavity, len(r.conductors)) for r in rows], [("1", 1), ("2", 1), ("3", 0), ("4", 0)])
        self.assertEqual([(r.contact.number if r.contact else "", r.strip_mm) for r in rows], [("TW-CT1", 4.5)] * 4)
        self.assertIn("tamwick-tw-ct1", self.bench.project.parts)

    def test_a_wire_between_two_cavities_of_one_connector_names_the_other_at_either_end(self) -> None:
        for y, cavity in ((60, 1), (64, 2)):
            self.bench.place(
                "connector" if cavity == 1 else "cavity", 20, y, device_id="" if cavity == 1 else self.loop()
            )
        device = self.loop()
        self.bench.do("assign-part", device_id=device, part_id="tamwick-tw-p4")
        self.bench.wire((20, 60), (14, 60), (14, 64), (20, 64))
        first, second, *_ = cavity_rows(self.bench.project, device)
        names = [[pin_name(self.bench.project, pin)[-2:] for pin in row.far] for row in (first, second)]
        self.assertEqual(names, [[":2"], [":1"]])

    def loop(self) -> str:
        return next(s.device_id for s in self.bench.project.symbols.values() if (s.x, s.y) == (20, 60))

    def test_a_contact_that_does_not_take_the_wire_is_a_snag(self) -> None:
        thick = self.bench.new("add-wire-type", name="Thick", colour="BK", cross_section_mm2=2.5)
        wire = next(w.id for w in self.bench.project.wires_on(self.bench.sheet) if w.y1 == 20)
        self.bench.do("set-wire-type", ids=[wire], wire_type_id=thick)
        found = [s.message for s in project_snags(self.bench.project) if s.code == "harness-contact"]
        self.assertEqual(
            found,
            [
                "WH-T1: the contact TW-CT1 in -XD1:1 does not take 2.5 mm².",
                "WH-T1: the contact TW-CT1 in -XD2:1 does not take 2.5 mm².",
            ],
        )

    def test_ends_can_be_taken_away_and_a_branching_with_two_becomes_one_segment(self) -> None:
        with self.assertRaisesRegex(RuleError, "Three or more segments"):
            self.bench.do("remove-node", node_id=self.branch)
        self.bench.do("remove-node", node_id=self.last)
        self.assertEqual(len(self.lengths()), 4)
        self.bench.do("remove-node", node_id=self.branch)
        self.assertEqual([s.length_mm for s in self.bench.project.segments.values()], [900])

    def test_what_does_not_belong_is_refused(self) -> None:
        with self.assertRaisesRegex(RuleError, "is in harness WH-T1 already"):
            self.node(self.main, self.first)
        lamp = self.bench.device(self.bench.place("lamp", 20, 60))
        with self.assertRaisesRegex(RuleError, "is no connector"):
            self.node(lamp, self.first)
        with self.assertRaisesRegex(RuleError, "There is a harness WH-T1 already"):
            self.bench.do("add-harness", code="WH-T1")
        with self.assertRaisesRegex(RuleError, "which node"):
            self.bench.do("add-node", harness_id=self.harness, name="B9")
        with self.assertRaisesRegex(RuleError, "550 mm long|mm long"):
            self.bench.do("split-segment", segment_id=next(iter(self.bench.project.segments)), at_mm=5000)

    def test_a_harness_taken_away_leaves_its_connectors_drawn(self) -> None:
        self.bench.do("remove-harness", harness_id=self.harness)
        self.assertEqual((self.bench.project.nodes, self.bench.project.segments), ({}, {}))
        self.assertIn(self.main, self.bench.project.devices)
