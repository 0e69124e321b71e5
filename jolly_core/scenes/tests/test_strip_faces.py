"""Strips and cables as they are drawn: true size, nothing upon another, level and upright, on plans as here."""

from __future__ import annotations

from itertools import combinations
from unittest import TestCase

from jolly_core.exchange import read_project
from jolly_core.model import Project
from jolly_core.scenes import Item, Line, Poly, Rect, Scene, Strand, Text, cable_scene, leaves_of, plan_of, strip_scene
from jolly_core.tagging import full_tag
from jolly_core.terminals import strip_rows, strip_width_mm, strips
from jolly_core.testing import DEMO, Workbench

from ..faces.strips import MARGIN_MM, RAIL_BEYOND_MM, blocks_on_rail
from ..room.crowding import meet, text_box
from ..sheet.bands import band_item


def demo() -> Project:
    return read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())


def words_in(scene: Scene) -> list[Text]:
    return [p for item in scene.items.values() for p in item.prims if isinstance(p, Text)]


def body_of(item: Item) -> Rect:
    return next(p for p in item.prims if isinstance(p, Rect))


class OnTheDemo(TestCase):
    def setUp(self) -> None:
        self.project = demo()
        self.strips = {full_tag(self.project, s): s.id for s in strips(self.project)}

    def test_blocks_stand_side_by_side_at_true_size(self) -> None:
        for tag, strip in self.strips.items():
            with self.subTest(tag):
                blocks = blocks_on_rail(self.project, strip)
                self.assertAlmostEqual(blocks[-1].start + blocks[-1].length, strip_width_mm(self.project, strip), 2)
                scene = strip_scene(self.project, strip)
                for block in blocks:
                    item = scene.items[f"u{block.rows[0].unit}" if block.rows[0].unit else block.rows[0].item_id]
                    left, _, right, _ = item.box
                    self.assertAlmostEqual(left, MARGIN_MM + RAIL_BEYOND_MM + block.start, 2)
                    self.assertAlmostEqual(right - left, max(block.length, 1.0), 2)

    def test_upright_is_the_same_turned(self) -> None:
        for tag, strip in self.strips.items():
            with self.subTest(tag):
                level, upright = (strip_scene(self.project, strip, upright=way) for way in (False, True))
                self.assertEqual(set(level.items), set(upright.items))
                for id, item in level.items.items():
                    if item.kind in ("terminal", "accessory"):
                        a, b = body_of(item), body_of(upright.items[id])
                        self.assertAlmostEqual(a.width, b.height, 6)
                        self.assertAlmostEqual(a.height, b.width, 6)

    def test_no_words_lie_on_others_and_all_within_the_picture(self) -> None:
        for tag, strip in self.strips.items():
            for upright in (False, True):
                with self.subTest(tag, upright=upright):
                    scene = strip_scene(self.project, strip, upright=upright)
                    boxes = [(p.words, text_box(p)) for p in words_in(scene)]
                    for words, (left, top, right, bottom) in boxes:
                        self.assertTrue(left >= 0 and top >= 0, words)
                        self.assertTrue(right <= scene.width + 0.5 and bottom <= scene.height + 0.5, words)
                    for (a, one), (b, other) in combinations(boxes, 2):
                        shrunk = (one[0] + 0.2, one[1] + 0.35, one[2] - 0.2, one[3] - 0.35)
                        self.assertFalse(meet(shrunk, other), f"{a} on {b}")

    def test_every_target_is_named_once_and_every_cable_has_its_cores(self) -> None:
        strip = self.strips["=R1+KP2-XD1"]
        scene = strip_scene(self.project, strip)
        words = " | ".join(p.words for p in words_in(scene))
        self.assertEqual(words.count("+KF2-MA1:U1"), 1)
        self.assertIn("=P1+KP2-XD1:5", words, "another function is named in full")
        for row in strip_rows(self.project, strip):
            for target in row.field:
                strands = [p for p in scene.items[f"cable:{target.cable_id}"].prims if isinstance(p, Strand)]
                self.assertIn(target.core, {p.colour for p in strands})

    def test_spare_and_drawn_ones_look_different(self) -> None:
        strip = self.strips["=R1+KP2-XD1"]
        scene = strip_scene(self.project, strip)
        for row in strip_rows(self.project, strip):
            if row.unit and row.level == 1:
                body = body_of(scene.items[f"u{row.unit}"])
                self.assertEqual((body.pen, body.tone == "spare"), ("thin", False) if row.drawn else ("dash", True))

    def plan_words(self, strip: str) -> set[str]:
        leaves = leaves_of(self.project, plan_of(self.project, "terminals", strip))
        return {p.words for leaf in leaves for p in words_in(leaf)}

    def test_the_drawn_plan_has_what_the_bench_shows(self) -> None:
        bench = Workbench()
        bench.project = self.project
        strip = self.strips["=R1+KP2-XD1"]
        table = {
            p.words
            for leaf in leaves_of(self.project, plan_of(self.project, "terminals", strip))
            for p in words_in(leaf)
        }
        bench.do("set-strip", strip_id=strip, plan_style="drawn", panel_heading="Inside")
        drawn = {
            p.words
            for leaf in leaves_of(self.project, plan_of(self.project, "terminals", strip))
            for p in words_in(leaf)
        }
        numbers = {r.number for r in strip_rows(self.project, strip) if r.unit}
        self.assertTrue(numbers <= table)
        self.assertTrue(numbers <= drawn)
        self.assertIn("Inside", drawn)
        self.assertNotIn("Panel side", drawn)


class LongStrips(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.strip = self.bench.new("make-strip", count=120, part_id="QL-K2-5")
        self.bench.do("set-strip", strip_id=self.strip, plan_style="drawn")

    def test_a_long_strip_goes_on_over_leaves_and_leaves_nothing_out(self) -> None:
        leaves = leaves_of(self.bench.project, plan_of(self.bench.project, "terminals", self.strip))
        self.assertEqual(len(leaves), 3, "120 of 5.2 mm on A4")
        shown = [id for leaf in leaves for id in leaf.items if id.startswith("u")]
        self.assertEqual(len(shown), 120)
        self.assertEqual(len(set(shown)), 120)
        for leaf in leaves:
            for item in leaf.items.values():
                if item.id.startswith("u"):
                    self.assertTrue(item.box[0] >= 0 and item.box[2] <= leaf.width)

    def test_levels_have_their_plates_one_above_the_other(self) -> None:
        strip = self.bench.new("make-strip", count=2, levels=3, part_id="")
        scene = strip_scene(self.bench.project, strip)
        plates = [body_of(scene.items[f"number:u{unit}"]) for unit in (1, 2, 3)]
        self.assertEqual(len({round(p.x, 3) for p in plates}), 1)
        ys = [p.y for p in plates]
        self.assertEqual(ys, sorted(ys))
        self.assertTrue(all(b - a > plates[0].height for a, b in zip(ys, ys[1:], strict=False)))

    def test_bridges_lie_in_lanes_of_their_own(self) -> None:
        for units in ([1, 4], [2, 5]):
            self.bench.do("bridge-terminals", strip_id=self.strip, units=units)
        scene = strip_scene(self.bench.project, self.strip)
        bars = [body_of(item) for item in scene.items.values() if item.kind == "bridge"]
        self.assertEqual(len(bars), 2)
        self.assertGreater(abs(bars[0].y - bars[1].y), bars[0].height)


class Cables(TestCase):
    def test_both_ends_cores_spares_and_shield(self) -> None:
        project = demo()
        cable = next(
            c for c in project.cables.values() if full_tag(project, project.devices[c.device_id]) == "=M1+KP2-WD1"
        )
        scene = cable_scene(project, cable.device_id)
        words = [p.words for p in words_in(scene)]
        for wanted in ("=M1+KP2-XD1:1", "=M1+KF2-BT1:-", "WH", "SH", "shield landed"):
            self.assertIn(wanted, words)
        self.assertEqual(words.count("spare"), 2)
        self.assertEqual([id for id in scene.items if id.startswith("core:")], [f"core:{n}" for n in range(1, 6)])
        for p in words_in(scene):
            left, _, right, _ = text_box(p)
            self.assertTrue(left >= 0 and right <= scene.width, p.words)

    def test_a_conductor_without_a_core_is_dashed_and_says_so(self) -> None:
        bench = Workbench(frame="zones")
        for y in (20, 24, 28):
            for x in (20, 60):
                bench.place("lamp", x, y)
            bench.wire((24, y), (60, y))
        band = bench.new("draw-band", sheet_id=bench.sheet, x1=40, y1=18, x2=40, y2=30, part_id="QL-YY2X1")
        scene = cable_scene(bench.project, bench.project.bands[band].device_id)
        left = next(item for id, item in scene.items.items() if id.startswith("none:"))
        self.assertTrue(any(isinstance(p, Line) and p.pen == "dash" for p in left.prims))
        self.assertIn("no core left", [p.words for p in words_in(scene)])

    def test_a_shield_is_drawn_around_its_band_and_landed_where_it_is_said(self) -> None:
        bench = Workbench(frame="zones")
        for x in (20, 60):
            bench.place("lamp", x, 20)
        bench.wire((24, 20), (60, 20))
        band = bench.new("draw-band", sheet_id=bench.sheet, x1=40, y1=17, x2=40, y2=23, part_id="QL-S4-0.5S")
        record = bench.project.bands[band]

        def strokes() -> tuple[int, int]:
            prims = band_item(bench.project, record).prims
            return sum(isinstance(p, Poly) for p in prims), sum(isinstance(p, Line) and p.pen == "ink" for p in prims)

        self.assertEqual(strokes(), (1, 0))
        bench.do("set-cable", device_id=record.device_id, shield_landed="source")
        self.assertEqual(strokes(), (1, 4))
        bench.do("set-cable", device_id=record.device_id, shield_landed="both")
        self.assertEqual(strokes(), (1, 8))
