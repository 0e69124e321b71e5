"""Drawn symbols on sheets: placed on wires, of a device's part, looked at, refreshed, carried by files."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.edits import symbol_on_wires
from jolly_core.exchange import read_project, scene_svg, write_project
from jolly_core.library import definition, definitions, drawn_key, outline_key
from jolly_core.library.tests.test_drawn import BEACON
from jolly_core.model import Part, RuleError
from jolly_core.scenes import Circle, Line, outline_prims, sheet_scene, text_at, texts_in
from jolly_core.tagging import pins_of
from jolly_core.testing import Workbench

from ..draw.offers import offers

KEY = drawn_key(BEACON)


class OnSheets(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.part = Part(
            "tw-b", "Tamwick", "TW-B", "lamp", "Beacon 24 V", (("lamp", ("7", "8")),), symbols={"lamp": KEY}
        )
        self.bench.library.parts["tw-b"] = self.part

    def test_it_cuts_the_wire_it_is_put_on_and_heals_it_when_taken_away(self) -> None:
        bench = self.bench
        bench.wire((4, 10), (40, 10))
        id = bench.place(KEY, 12, 10)
        self.assertEqual(bench.spans(), [(4, 10, 12, 10), (16, 10, 40, 10)])
        self.assertEqual(bench.tag(id), "PF1")
        bench.do("delete-selection", ids=[id])
        self.assertEqual(bench.spans(), [(4, 10, 40, 10)])

    def test_a_part_is_offered_and_placed_with_its_own_symbol(self) -> None:
        bench = self.bench
        offer = offers(bench.project, "tw-b", bench.sheet, [self.part])[0]
        self.assertEqual((offer.definition, offer.part_id), (KEY, "tw-b"))
        id = bench.place(offer.definition, 12, 10, part_id="tw-b")
        self.assertEqual(pins_of(bench.project, bench.symbol(id)), ["7", "8"])
        self.assertEqual(offers(bench.project, "beacon", bench.sheet, [])[0].definition, KEY)

    def test_the_library_offers_it_by_its_nickname(self) -> None:
        bench = self.bench
        self.assertNotIn(KEY, [o.definition for o in offers(bench.project, "beacon", bench.sheet, [])])
        found = offers(bench.project, "beacon", bench.sheet, [], [definition(KEY)])
        self.assertEqual(found[0].definition, KEY)

    def test_the_scene_brings_its_graphics_along_and_painters_draw_them(self) -> None:
        bench = self.bench
        id = bench.place(KEY, 12, 10)
        item = sheet_scene(bench.project, bench.sheet).items[id]
        self.assertEqual([p.kind for p in item.facts["art"]], ["circle", "arc", "line"])
        self.assertLess(text_at(item, 1).y, (10 - 3.5) * 2.5, "its tag stands above the half circle")
        drawing = scene_svg(bench.project, sheet_scene(bench.project, bench.sheet))
        self.assertIn('r="3.75"', drawing)

    def test_texts_stand_where_the_drawing_has_places_for_them_turned_with_it(self) -> None:
        bench = self.bench
        key = drawn_key({**BEACON, "places": {"tag": [9, 3]}})  # six steps to the right of its first pin, one below
        level = bench.place(key, 20, 20, rotation=0)
        upright = bench.place(key, 60, 20, rotation=90, mirror=True)
        items = sheet_scene(bench.project, bench.sheet).items
        for id, (x, y) in ((level, (26, 21)), (upright, (61, 26))):
            tag = next(p for p in texts_in(items[id]) if p.role == "tag")
            self.assertEqual((tag.x, round(tag.y - tag.size / 3, 2), tag.anchor), (x * 2.5, y * 2.5, "middle"))
        # Dragged by hand, a text moves from there.
        bench.do("move-text", ids=[level], text="tag", dx_mm=5, dy_mm=0)
        moved = texts_in(sheet_scene(bench.project, bench.sheet).items[level])
        self.assertEqual(next(p.x for p in moved if p.role == "tag"), 26 * 2.5 + 5)

    def test_a_project_file_carries_it_without_any_library(self) -> None:
        self.bench.place(KEY, 12, 10, part_id="tw-b")
        again = read_project(write_project(self.bench.project))
        self.assertEqual(list(again.entities()), list(self.bench.project.entities()))

    def test_drawn_anew_in_the_library_it_follows_when_its_part_is_refreshed(self) -> None:
        bench = self.bench
        id = bench.place(KEY, 12, 10, part_id="tw-b")
        other = drawn_key({**BEACON, "iec": [["rect", 3.5, 1, 6.5, 3]]})
        bench.library.parts["tw-b"] = replace(self.part, symbols={"lamp": other}, version=2)
        outcome = bench.do("refresh-parts")
        self.assertEqual(bench.symbol(id).definition, other)
        bench.project.apply(outcome.changes.inverse())
        self.assertEqual(bench.symbol(id).definition, KEY)
        # With its pins elsewhere it would leave its wires: it stays as it is drawn.
        wider = drawn_key({**BEACON, "pins": [[0, 2, ""], [9, 2, ""]]})
        bench.library.parts["tw-b"] = replace(self.part, symbols={"lamp": wider}, version=3)
        bench.do("refresh-parts")
        self.assertEqual(bench.symbol(id).definition, KEY)

    def test_a_lamp_becomes_it_and_keeps_wires_and_device(self) -> None:
        bench = self.bench
        bench.wire((4, 10), (40, 10))
        id = bench.place("lamp", 12, 10, text="On")
        device = bench.device(id)
        bench.do("swap-symbol", symbol_id=id, definition=KEY)
        self.assertEqual((bench.symbol(id).definition, bench.device(id)), (KEY, device))
        self.assertEqual(bench.spans(), [(4, 10, 12, 10), (16, 10, 40, 10)])

    def test_a_key_that_cannot_be_is_refused_and_nothing_changes(self) -> None:
        before = list(self.bench.project.entities())
        for key in ("drawn:{}", KEY.replace('"lamp"', '"coil"', 1), "drawn:" + "x" * 20_000):
            with self.assertRaises((RuleError, ValueError)):
                self.bench.place(key, 12, 10)
        self.assertEqual(list(self.bench.project.entities()), before)


class LookedAt(TestCase):
    def test_every_symbol_stands_on_wires_level_and_upright(self) -> None:
        for shape in [*definitions().values(), definition(KEY)]:
            project, sheet = symbol_on_wires(shape.key, "iec", shape.max_poles)
            symbols = project.symbols_on(sheet)
            self.assertEqual([s.rotation for s in symbols], [0, 90], shape.key)
            self.assertEqual(len(project.wires_on(sheet)), 2 * len(shape.pins) * shape.max_poles, shape.key)


class OutlinesLaid(TestCase):
    def test_level_it_is_moved_and_upright_it_is_turned_clockwise(self) -> None:
        key = outline_key([["line", 0, 0, 45, 0], ["circle", 10, 20, 4], ["arc", 10, 20, 5, 0, 90]])
        level = outline_prims(key, 100, 200, (45, 80))
        self.assertEqual(level[0], Line(100, 200, 145, 200, "fine"))
        self.assertEqual(level[1], Circle(110, 220, 4, "fine"))
        turned = outline_prims(key, 100, 200, (45, 80), turned=True)
        self.assertEqual(turned[0], Line(180, 200, 180, 245, "fine"))
        self.assertEqual(turned[1], Circle(160, 210, 4, "fine"))
        self.assertEqual(turned[2].kind, "poly")
