"""Several harnesses at one connector, bundles that run as one or apart, cables in bundles, wires led through clips."""

from __future__ import annotations

from dataclasses import replace
from itertools import combinations
from math import hypot
from unittest import TestCase

from jolly_core.checks import project_snags, snags_on
from jolly_core.harness import (
    bundles,
    cavity_rows,
    connectors_elsewhere,
    do_mate,
    lead_through,
    node_of,
    nodes_at,
    rows_in,
    run_name,
    segments_of,
    sharing,
    wires_of,
)
from jolly_core.model import ChangeSet, Node, Part, RuleError
from jolly_core.reports import run_report
from jolly_core.sizing import bundle_places_mm, circle_about_mm
from jolly_core.tagging import full_tag
from jolly_core.testing import Workbench


class Shared(TestCase):
    """WH-A from XD1 to XD2 with three wires, WH-B from XD1 to XD3 with two."""

    def setUp(self) -> None:
        self.bench = bench = Workbench(frame="zones")
        bench.do("change-settings", harness_allowance_mm=0, length_step_mm=1)
        self.a, self.b = (bench.new("add-harness", code=code) for code in ("WH-A", "WH-B"))
        self.connector(self.a, "XD1", "tamwick-tw-h6s")
        self.connector(self.a, "XD2", "tamwick-tw-h6p", 300)
        self.one = self.device("XD1")
        bench.do("add-node", harness_id=self.b, device_id=self.one)
        self.connector(self.b, "XD3", "tamwick-tw-h2p", 500)
        self.draw(self.a, ("1", "XD1:1", "XD2:1"), ("2", "XD1:2", "XD2:2"), ("3", "XD1:3", "XD2:3"))
        self.draw(self.b, ("4", "XD1:4", "XD3:1"), ("5", "XD1:5", "XD3:2"))

    def connector(self, harness: str, tag: str, part: str, length: float = 200) -> None:
        self.bench.do("add-connector", harness_id=harness, part_id=part, tag=tag, length_mm=length)

    def device(self, tag: str) -> str:
        return next(d.id for d in self.bench.project.devices.values() if full_tag(self.bench.project, d) == f"-{tag}")

    def draw(self, harness: str, *rows: tuple[str, str, str]) -> None:
        made = [{"signal": s, "colour": "BK", "size": "0.5", "start": a, "end": b} for s, a, b in rows]
        self.bench.do("draw-harness-wires", harness_id=harness, rows=made)

    def node(self, tag: str, harness: str) -> Node:
        found = node_of(self.bench.project, self.device(tag), harness)
        assert found is not None
        return found

    def numbers(self, harness: str) -> list[tuple[str, float | None]]:
        return sorted((w.conductor.number, w.length_mm) for w in wires_of(self.bench.project, harness))

    def said(self, code: str) -> list[str]:
        return [s.message for s in project_snags(self.bench.project) if s.code == code]

    def place(self, tag: str, harness: str, *at: float) -> None:
        self.bench.do("change-node", node_id=self.node(tag, harness).id, at=at)

    def only(self, harness: str) -> str:
        (segment,) = segments_of(self.bench.project, harness)
        return segment.id


class Harnesses(Shared):
    def test_each_harness_has_the_wires_between_its_own_ends(self) -> None:
        self.assertEqual(self.numbers(self.a), [("1", 300), ("2", 300), ("3", 300)])
        self.assertEqual(self.numbers(self.b), [("4", 500), ("5", 500)])
        self.assertEqual([n.harness_id for n in nodes_at(self.bench.project, self.one)], [self.a, self.b])
        self.assertEqual(self.said("harness"), [])

    def test_a_cavity_that_another_harness_fills_is_not_empty(self) -> None:
        for harness, code in ((self.a, "WH-B"), (self.b, "WH-A")):
            rows = rows_in(self.bench.project, harness, self.one)
            shown = [(r.cavity, [c.number for c in r.conductors], r.elsewhere) for r in rows]
            mine = ("1", "2", "3") if code == "WH-B" else ("4", "5")
            self.assertEqual([s[1] for s in shown if s[1]], [[n] for n in mine])
            self.assertEqual({s[0] for s in shown if s[2] == code}, {"1", "2", "3", "4", "5"} - set(mine))
            self.assertEqual([s[0] for s in shown if not s[1] and not s[2]], ["6"])

    def test_the_housing_is_bought_once_and_each_harness_buys_its_contacts(self) -> None:
        rows = run_report(self.bench.project, "harness-parts").rows
        housings = [(r[0], r[4], r[7]) for r in rows if r[4] == "TW-H6S"]
        self.assertEqual(housings, [("WH-A", "TW-H6S", 1)])
        contacts = {r[0]: r[7] for r in rows if r[3] == "contact" and "-XD1" in str(r[9])}
        self.assertEqual(sum(float(v) for v in contacts.values()), 10)  # five wires, two ends each

    def test_a_connector_is_in_a_harness_once(self) -> None:
        with self.assertRaisesRegex(RuleError, "-XD1 is in harness WH-B already"):
            self.bench.do("add-node", harness_id=self.b, device_id=self.one, from_id=self.node("XD3", self.b).id)
        with self.assertRaisesRegex(RuleError, "-XD2 is in harness WH-A. Add it to WH-B, too"):
            self.draw(self.b, ("9", "XD1:6", "XD2:6"))

    def test_wires_between_ends_of_two_harnesses_run_in_the_one_that_is_said(self) -> None:
        node = self.node("XD1", self.b).id
        self.bench.do("add-node", harness_id=self.b, device_id=self.device("XD2"), from_id=node, length_mm=900)
        self.assertEqual(self.numbers(self.a), [("1", 300), ("2", 300), ("3", 300)])
        key = next(w.conductor.key for w in wires_of(self.bench.project, self.a) if w.conductor.number == "2")
        self.bench.do("move-harness-wires", harness_id=self.a, wires=[key], to_id=self.b)
        self.assertEqual(self.numbers(self.b), [("2", 900), ("4", 500), ("5", 500)])
        self.draw(self.b, ("6", "XD1:6", "XD2:6"))
        self.assertIn(("6", 900), self.numbers(self.b))
        self.assertTrue(self.bench.canonical())
        with self.assertRaisesRegex(RuleError, "-XD3 is no end of WH-A"):
            four = next(w.conductor.key for w in wires_of(self.bench.project, self.b) if w.conductor.number == "4")
            self.bench.do("move-harness-wires", harness_id=self.b, wires=[four], to_id=self.a)

    def test_a_harness_may_begin_at_connectors_of_others_and_shares_wires_from_two_on(self) -> None:
        project = self.bench.project
        self.assertEqual([full_tag(project, d) for d in connectors_elsewhere(project, self.b)], ["-XD2"])
        self.assertEqual(sharing(project, self.b), [], "one connector in common is not enough for a wire")
        start = self.node("XD1", self.b).id
        self.bench.do("add-node", harness_id=self.b, device_id=self.device("XD2"), from_id=start)
        self.assertEqual([h.code for h in sharing(project, self.b)], ["WH-A"])
        self.assertEqual(connectors_elsewhere(project, self.b), [])

    def test_without_one_of_them_the_other_keeps_its_connector(self) -> None:
        self.bench.do("remove-harness", harness_id=self.a)
        self.assertEqual(self.numbers(self.b), [("4", 500), ("5", 500)])
        self.assertEqual(len(rows_in(self.bench.project, self.b, self.one)), 6)


class Halves(TestCase):
    def test_two_housings_mate_as_their_parts_say_and_else_by_gender(self) -> None:
        def part(number: str, **ratings: str) -> Part:
            return Part(number, "Fenwright", number, "connector", ratings=ratings)

        pins, sockets = part("A", gender="pins"), part("B", gender="sockets")
        self.assertTrue(do_mate(pins, sockets))
        self.assertFalse(do_mate(pins, part("C", gender="pins")))
        self.assertTrue(do_mate(part("D", gender="either"), part("E", gender="either")))
        self.assertTrue(do_mate(pins, part("F")), "nothing is known of one of them")
        self.assertTrue(do_mate(pins, part("G", gender="pins", mates="A")), "what a part names goes before that")
        self.assertFalse(do_mate(sockets, part("H", gender="pins", mates="A")))


class Ways(Shared):
    def setUp(self) -> None:
        """WH-B leads to XD2 as well: both run straight from XD1 to it."""
        super().setUp()
        self.bench.do("remove-node", node_id=self.node("XD3", self.b).id)
        start = self.node("XD1", self.b).id
        self.bench.do("add-node", harness_id=self.b, device_id=self.device("XD2"), from_id=start)
        self.draw(self.b, ("4", "XD1:4", "XD2:4"), ("5", "XD1:5", "XD2:5"))
        for harness in (self.a, self.b):
            self.place("XD1", harness, 0, 0, 0)
            self.place("XD2", harness, 300, 0, 0)
            self.bench.do("set-segment", segment_id=self.only(harness), form="line")

    def thick(self, harness: str) -> float:
        return bundles(self.bench.project, harness)[self.only(harness)].diameter_mm

    def test_on_the_same_way_two_harnesses_are_one_bundle_unless_one_stays_apart(self) -> None:
        together = circle_about_mm(bundle_places_mm([2.0] * 5), [2.0] * 5)
        self.assertAlmostEqual(self.thick(self.a), together, delta=0.05)
        self.assertEqual(self.thick(self.a), self.thick(self.b))
        self.assertEqual(bundles(self.bench.project, self.a)[self.only(self.a)].beside, ("WH-B",))
        self.bench.do("change-harness", harness_id=self.b, apart=True)
        self.assertAlmostEqual(self.thick(self.a), 4.31, delta=0.01)
        self.assertEqual(self.thick(self.b), 4.0)

    def test_on_another_way_they_are_two(self) -> None:
        self.bench.do("set-segment", segment_id=self.only(self.b), form="polyline", path=[150, 80, 0])
        self.assertAlmostEqual(self.thick(self.a), 4.31, delta=0.01)


class Cables(Shared):
    def setUp(self) -> None:
        """The three wires of WH-A are cores of a cable of ⌀ 6.4 mm that bends about 38 mm."""
        super().setUp()
        project = self.bench.project
        wires = [w for w in project.wires.values() if w.x1 != w.x2 and w.y1 in self._rows(self.a)]
        x = (wires[0].x1 + wires[0].x2) // 2
        band = self.bench.new(
            "draw-band",
            sheet_id=wires[0].sheet_id,
            x1=x,
            x2=x,
            y1=min(w.y1 for w in wires) - 1,
            y2=max(w.y1 for w in wires) + 1,
            part_id="quillon-ql-yy3g0-5",
        )
        self.cable = project.bands[band].device_id

    def _rows(self, harness: str) -> set[int]:
        project = self.bench.project
        return {project.wires[w.conductor.wire_id].y1 for w in wires_of(project, harness)}

    def test_a_cable_is_one_round_thing_and_its_bend_counts(self) -> None:
        segment = self.only(self.a)
        bundle = bundles(self.bench.project, self.a)[segment]
        self.assertEqual([(len(r.wires), r.diameter_mm) for r in bundle.runs], [(3, 6.5)])
        self.assertEqual((bundle.diameter_mm, bundle.bend_mm), (6.5, 39.0))
        self.place("XD1", self.a, 0, 0, 0)
        self.place("XD2", self.a, 60, 60, 0)
        quarter = {"form": "curve", "path": [33.137, 0, 0, 60, 26.863, 0]}
        self.bench.do("set-segment", segment_id=segment, **quarter)
        self.assertEqual(self.said("harness-bend"), [], "60 mm are wide enough")
        self.place("XD2", self.a, 38.5, 38.5, 0)
        self.bench.do("set-segment", segment_id=segment, form="curve", path=[21.263, 0, 0, 38.5, 17.237, 0])
        self.bench.do("assign-part", device_id=self.cable, part_id="quillon-ql-yy3g2-5")
        (said,) = self.said("harness-bend")
        self.assertRegex(said, r"bends about 38\.\d+ mm; its (cable -WD1|bundle of ⌀ 8\.9 mm) needs 53(\.4)? mm")

    def test_a_cable_apart_is_in_no_bundle(self) -> None:
        self.bench.do("set-cable", device_id=self.cable, apart=True)
        bundle = bundles(self.bench.project, self.a)[self.only(self.a)]
        self.assertEqual((bundle.diameter_mm, bundle.bend_mm, bundle.stiff_id), (0.0, 39.0, self.cable))

    def test_lists_cut_the_cable_and_not_its_cores(self) -> None:
        rows = [r for r in run_report(self.bench.project, "harness-parts").rows if r[0] == "WH-A"]
        self.assertEqual([(r[4], r[6], r[7]) for r in rows if r[3] == "cable"], [("QL-YY3G0-5", "m", 0.3)])
        self.assertEqual([r for r in rows if r[3] == "wire"], [])
        steps = [r[4] for r in run_report(self.bench.project, "assembly").rows if r[0] == "WH-A" and r[3] == "cut"]
        self.assertEqual(steps, ["cable -WD1 of QL-YY3G0-5, 300 mm"])
        types = {r[4] for r in run_report(self.bench.project, "harness-wires").rows if r[0] == "WH-A"}
        self.assertEqual(types, {"core of -WD1"})


class ClipCase(Shared):
    """A clip in the way of WH-A."""

    def setUp(self) -> None:
        super().setUp()
        self.clip = self.bench.new("split-segment", segment_id=self.only(self.a), at_mm=100, sort="clip", name="C1")


class Clips(ClipCase):
    def inside(self) -> list[tuple[str, float, float]]:
        lead = lead_through(self.bench.project, self.clip)
        return [(run_name(self.bench.project, led.run), led.x, led.y) for led in lead.inside]

    def test_wires_arrange_themselves_without_lying_in_each_other(self) -> None:
        for (_, x, y), (_, u, v) in combinations(self.inside(), 2):
            self.assertGreaterEqual(hypot(x - u, y - v), 2.0 - 0.002)
        self.assertAlmostEqual(lead_through(self.bench.project, self.clip).diameter_mm, 4.31, delta=0.01)

    def test_by_offsets_they_begin_as_a_row_and_go_where_they_are_put(self) -> None:
        self.bench.do("change-node", node_id=self.clip, led="offsets")
        self.assertEqual([(x, y) for _, x, y in self.inside()], [(-2, 0), (0, 0), (2, 0)])
        self.assertEqual(lead_through(self.bench.project, self.clip).diameter_mm, 6.0)
        self.bench.do("change-node", node_id=self.clip, offsets=[-4, 0, 4, 0])
        self.assertEqual([(x, y) for _, x, y in self.inside()], [(-4, 0), (4, 0), (6, 0)])
        self.assertEqual(self.said("harness-clip"), [])
        self.bench.do("change-node", node_id=self.clip, part_id="tamwick-tw-cl8")
        self.assertEqual(self.said("harness-clip"), ["WH-A: TW-CL8 at clip C1 does not take the bundle of ⌀ 12 mm."])

    def test_offsets_that_put_two_wires_into_each_other_are_named(self) -> None:
        self.bench.do("change-node", node_id=self.clip, led="offsets", offsets=[0, 0, 1.5, 0, 5, 0])
        (said,) = self.said("harness-clip")
        self.assertIn("1 and 2 lie in each other in clip C1", said)

    def test_merged_they_are_at_one_point(self) -> None:
        self.bench.do("change-node", node_id=self.clip, led="merged")
        self.assertEqual({(x, y) for _, x, y in self.inside()}, {(0, 0)})
        self.assertEqual(self.said("harness-clip"), [])

    def test_only_a_clip_leads_wires(self) -> None:
        with self.assertRaisesRegex(RuleError, "-XD1 is no clip"):
            self.bench.do("change-node", node_id=self.node("XD1", self.a).id, led="merged")
        with self.assertRaisesRegex(RuleError, "two coordinates"):
            self.bench.do("change-node", node_id=self.clip, offsets=[1])

    def test_packed_places_of_any_number_lie_apart_and_about_the_middle(self) -> None:
        for count in (1, 2, 3, 7, 12, 30, 75):
            sizes = [1.5 + 0.5 * (n % 3) for n in range(count)]
            places = bundle_places_mm(sizes)
            for (p, a), (q, b) in combinations(zip(places, sizes, strict=True), 2):
                self.assertGreaterEqual(hypot(p[0] - q[0], p[1] - q[1]), (a + b) / 2 - 0.002)
            reach = max(hypot(*p) + s / 2 for p, s in zip(places, sizes, strict=True))
            self.assertAlmostEqual(2 * reach, circle_about_mm(places, sizes), delta=0.05)


class Twice(Shared):
    def test_a_cavity_drawn_twice_is_named(self) -> None:
        project = self.bench.project
        symbol = next(s for s in project.symbols.values() if s.device_id == self.one)
        changes = ChangeSet()
        changes.record("symbol", "again", None, replace(symbol, id="again", y=symbol.y + 60))
        project.apply(changes)
        said = [s.message for s in snags_on(project, symbol.sheet_id) if s.code == "cavity-twice"]
        self.assertEqual(said, ["-XD1:1 is drawn twice. Delete one of them, or choose another cavity."] * 2)
        self.assertEqual(len(cavity_rows(project, self.one)), 6)
