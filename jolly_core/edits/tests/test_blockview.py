"""Harnesses begun as blocks: boxes, connectors on them, strokes that make harnesses, mates, swaps by name."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.harness import blocks, mate_of, nodes_of, owner_of, wires_of
from jolly_core.model import RuleError
from jolly_core.scenes import BLOCKS, generated_pages, page_scene
from jolly_core.scenes.base.primitives import Text
from jolly_core.tagging import full_tag
from jolly_core.testing import Workbench

H6P, H6S, H2P, H2S = ("tamwick-tw-h6p", "tamwick-tw-h6s", "tamwick-tw-h2p", "tamwick-tw-h2s")


class Boxes(TestCase):
    """A controller with two connectors and three fans with one each."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.board = self.bench.new("add-block", tag="A1", text="Fan controller")
        self.ports = [self.bench.new("fit-connector", owner_id=self.board, part_id=H6P) for _ in range(2)]
        self.fans = [self.bench.new("add-block", tag=f"GQ{n}", part_class="fan") for n in (1, 2, 3)]
        self.plugs = [self.bench.new("fit-connector", owner_id=fan, part_id=H2P) for fan in self.fans]

    def tag(self, device_id: str) -> str:
        return full_tag(self.bench.project, self.bench.project.devices[device_id])

    def join(self, one: str, other: str, **values: object) -> str:
        return self.bench.new("join-connectors", one_id=one, other_id=other, **values)

    def refused(self, kind: str, **values: object) -> str:
        before = self.bench.project.stamp
        with self.assertRaises(RuleError) as caught:
            self.bench.do(kind, **values)
        self.assertEqual(self.bench.project.stamp, before)
        return caught.exception.message

    def texts(self) -> list[str]:
        items = page_scene(self.bench.project, BLOCKS).items.values()
        return [p.words for item in items for p in item.prims if isinstance(p, Text)]

    def test_boxes_show_their_connectors_before_anything_is_drawn(self) -> None:
        found = {
            self.tag(b.device_id): [self.tag(p.device_id) for p in b.ports] for b in blocks(self.bench.project).boxes
        }
        self.assertEqual(found, {"-A1": ["-XD1", "-XD2"], "-GQ1": ["-XD3"], "-GQ2": ["-XD4"], "-GQ3": ["-XD5"]})
        self.assertIn(BLOCKS, [p.id for p in generated_pages(self.bench.project)])

    def test_a_stroke_makes_a_harness_with_the_halves_that_mate(self) -> None:
        harness = self.join(self.ports[0], self.plugs[0], length_mm=350)
        project = self.bench.project
        self.assertEqual(project.harnesses[harness].code, "WH1")
        ends = [project.devices[n.device_id] for n in nodes_of(project, harness)]
        parts = [part.number for part in map(project.part_of, ends) if part]
        self.assertEqual(parts, ["TW-H6S", "TW-H2S"])
        self.assertEqual([mate.id for d in ends if (mate := mate_of(project, d.id))], [self.ports[0], self.plugs[0]])
        self.assertEqual([s.length_mm for s in project.segments.values()], [350])

    def test_more_strokes_take_more_ends_into_it(self) -> None:
        harness = self.join(self.ports[0], self.plugs[0])
        self.assertEqual(self.join(self.plugs[1], self.ports[0]), harness)
        self.assertEqual(self.join(self.ports[0], self.plugs[2]), harness)
        self.assertEqual(len(nodes_of(self.bench.project, harness)), 4)
        self.assertIn(
            "are ends of WH1 already", self.refused("join-connectors", one_id=self.ports[0], other_id=self.plugs[1])
        )
        other = self.join(self.ports[1], self.bench.new("fit-connector", owner_id=self.fans[0], part_id=H6P))
        self.assertNotEqual(other, harness)
        (link, _) = blocks(self.bench.project).links
        self.assertEqual([self.tag(end.box_id) for end in link.ends], ["-A1", "-GQ1", "-GQ2", "-GQ3"])

    def test_ends_of_two_harnesses_are_joined_by_one_more_and_a_stroke_may_make_its_own(self) -> None:
        one, other = self.join(self.ports[0], self.plugs[0]), self.join(self.ports[1], self.plugs[1])
        third = self.join(self.ports[0], self.ports[1])
        project = self.bench.project
        self.assertEqual(project.harnesses[third].code, "WH3")
        self.assertEqual({n.harness_id for n in project.nodes.values()}, {one, other, third})
        own = self.join(self.ports[0], self.plugs[2], own=True)
        self.assertEqual([len(nodes_of(project, id)) for id in (one, own)], [2, 2])
        self.assertIn("are ends of WH3 already", self.refused_join(self.ports[0], self.ports[1]))

    def refused_join(self, one: str, other: str) -> str:
        return self.refused("join-connectors", one_id=one, other_id=other)

    def test_by_lines_connectors_keep_the_tags_that_tables_call_them_by(self) -> None:
        """Two panels in the North American habit: a tag by lines comes only with drawing."""
        self.bench.do("change-settings", tag_habit="line", standard="na", length_unit="in")
        places = [self.bench.new("add-location", code=code) for code in ("P8", "P9")]
        boxes = [self.bench.new("add-block", location_id=place) for place in places]
        ports = [self.bench.new("fit-connector", owner_id=box, part_id=H6P) for box in boxes]
        harness = self.join(*ports, length_mm=254)
        names = [self.tag(n.device_id) for n in nodes_of(self.bench.project, harness)]
        rows = [
            {"signal": f"S{n}", "colour": "RD", "size": "AWG 20", "start": f"{names[0]}:{n}", "end": f"{names[1]}:{n}"}
            for n in (1, 2, 3)
        ]
        self.bench.do("draw-harness-wires", harness_id=harness, rows=rows)
        self.assertEqual([self.tag(n.device_id) for n in nodes_of(self.bench.project, harness)], names)
        self.assertEqual([w.conductor.number for w in wires_of(self.bench.project, harness)], ["S1", "S2", "S3"])
        self.assertEqual([s.message for s in project_snags(self.bench.project) if s.code.startswith("harness")], [])
        self.assertTrue({*names, "3 wires, 11.61 in"} <= set(self.texts()), self.texts())
        board = next(p.id for p in generated_pages(self.bench.project) if p.kind == "board")
        items = page_scene(self.bench.project, board).items.values()
        words = [p.words for item in items for p in item.prims if isinstance(p, Text)]
        self.assertTrue({"10.00", "AWG 20", f"{names[1]}:1"} <= set(words), words)

    def test_wires_may_be_said_by_the_connectors_on_the_devices(self) -> None:
        harness = self.join(self.ports[0], self.plugs[0])
        rows = [
            {"signal": "F1+", "colour": "RD", "size": "0.75", "start": "-XD1:1", "end": "-XD3:1"},
            {"signal": "F1-", "colour": "BU", "size": "0.75", "start": "-XD1:2", "end": "-XD3:2"},
        ]
        self.bench.do("draw-harness-wires", harness_id=harness, rows=rows)
        wires = wires_of(self.bench.project, harness)
        self.assertEqual([(w.conductor.number, w.length_mm) for w in wires], [("F1+", 240), ("F1-", 240)])
        (link,) = blocks(self.bench.project).links
        self.assertEqual([end.words for end in link.ends], ["2 wires, 240 mm"] * 2)
        texts = [
            p.words
            for i in page_scene(self.bench.project, BLOCKS).items.values()
            for p in i.prims
            if isinstance(p, Text)
        ]
        for words in ("-A1", "-XD1", "WH1", "2 wires", "2 wires, 240 mm"):
            self.assertIn(words, texts)

    def test_a_part_that_does_not_mate_is_refused_by_name_and_a_pair_swapped_together(self) -> None:
        harness = self.join(self.ports[0], self.plugs[0])
        message = self.refused("swap-connector", device_id=self.ports[0], part_id="tamwick-tw-h8p")
        self.assertIn("TW-H8P does not mate with TW-H6S of -XD6", message)
        self.assertIn("TW-H6S mates with TW-H6P", message)
        self.bench.do("swap-connector", device_id=self.ports[0], part_id="tamwick-tw-h8p", both=True)
        project = self.bench.project
        mate = mate_of(project, self.ports[0])
        part = project.part_of(mate) if mate else None
        self.assertEqual(part.number if part else "", "TW-H8S")
        self.bench.do("swap-connector", device_id=self.ports[0], part_id=H2P, anyway=True)
        snags = [s.message for s in project_snags(self.bench.project) if s.code == "harness-mate"]
        self.assertEqual(snags, ["WH1: TW-H8S of -XD6 does not mate with TW-H2P of -XD1. Swap one of them."])
        self.assertEqual(len(nodes_of(project, harness)), 2)

    def test_a_part_without_the_cavities_in_use_is_refused(self) -> None:
        harness = self.join(self.ports[0], self.plugs[0])
        row = {"signal": "S", "colour": "RD", "size": "0.75", "start": "-XD1:5", "end": "-XD3:1"}
        self.bench.do("draw-harness-wires", harness_id=harness, rows=[row])
        end = nodes_of(self.bench.project, harness)[0].device_id
        message = self.refused("swap-connector", device_id=end, part_id=H2S, both=True)
        self.assertIn("TW-H2S has no cavity 5, which wires of -XD6 end in", message)

    def test_plugging_what_does_not_mate_is_refused_by_name(self) -> None:
        message = self.refused("mate-connectors", device_id=self.ports[0], mate_id=self.plugs[0])
        self.assertIn("TW-H6P of -XD1 does not mate with TW-H2P of -XD3. It mates with TW-H6S.", message)
        self.assertIn("is no connector", self.refused("mate-connectors", device_id=self.board, mate_id=self.plugs[0]))

    def test_a_new_name_is_everywhere(self) -> None:
        self.join(self.ports[0], self.plugs[0])
        self.bench.do("set-tag", device_id=self.ports[0], tag="XD40")
        texts = [
            p.words
            for i in page_scene(self.bench.project, BLOCKS).items.values()
            for p in i.prims
            if isinstance(p, Text)
        ]
        self.assertIn("-XD40", texts)
        self.assertNotIn("-XD1", texts)

    def test_a_box_taken_out_takes_its_connectors_and_a_harness_its_plugs(self) -> None:
        harness = self.join(self.ports[0], self.plugs[0])
        before = len(self.bench.project.devices)
        self.bench.do("remove-harness", harness_id=harness)
        self.assertEqual(len(self.bench.project.devices), before - 2)
        self.bench.do("remove-block", device_id=self.fans[0])
        self.assertNotIn(self.plugs[0], self.bench.project.devices)
        self.assertEqual([self.tag(b.device_id) for b in blocks(self.bench.project).boxes], ["-A1", "-GQ2", "-GQ3"])

    def test_a_connector_is_taken_off_and_put_onto_another_device(self) -> None:
        self.bench.do("fit-connector", device_id=self.plugs[0], owner_id=self.fans[1])
        owner = owner_of(self.bench.project, self.plugs[0])
        self.assertEqual(owner.id if owner else "", self.fans[1])
        self.assertIn(
            "cannot sit on itself", self.refused("fit-connector", device_id=self.plugs[0], owner_id=self.plugs[0])
        )

    def test_boxes_lie_apart_and_stay_where_they_are_when_they_are_joined(self) -> None:
        def places() -> dict[str, tuple[float, float, float, float]]:
            items = page_scene(self.bench.project, BLOCKS).items
            return {id: item.box for id, item in items.items() if item.kind == "block"}

        self.bench.do("move-block", device_id=self.fans[2], x=200, y=300)
        before = places()
        self.assertEqual(before[f"box:{self.fans[2]}"][:2], (200, 300))
        for plug in self.plugs:
            self.join(self.ports[0], plug)
        self.assertEqual(places(), before)
        found = list(before.values())
        for n, a in enumerate(found):
            for b in found[n + 1 :]:
                self.assertTrue(a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1], (a, b))

    def test_connectors_that_are_drawn_only_find_places_of_their_own(self) -> None:
        harness = self.bench.new("add-harness", code="WH-X")
        for part in ("tamwick-tw-h12s", H6S, H2S):
            self.bench.do("add-connector", harness_id=harness, part_id=part)
        boxes = [i.box for i in page_scene(self.bench.project, BLOCKS).items.values() if i.kind == "block"]
        self.assertEqual(len(boxes), 7)
        for n, a in enumerate(boxes):
            for b in boxes[n + 1 :]:
                self.assertTrue(a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1], (a, b))
