"""What a sheet looks like: every text a person reads stands clear of the others, and of the frame."""

from __future__ import annotations

from itertools import combinations
from pathlib import Path
from unittest import TestCase

from jolly_core.drawing import ADVANCE, GRID_MM, size_mm
from jolly_core.exchange import read_project
from jolly_core.library import definitions
from jolly_core.model import GoneError, Project
from jolly_core.scenes import (
    Art,
    Circle,
    Dot,
    Image,
    Item,
    Line,
    Poly,
    Rect,
    Strand,
    Text,
    art_of,
    fit,
    leaves_of,
    scene_of,
    sheet_scene,
)
from jolly_core.testing import DEMO, Workbench

from ..base.paints import PENS, ROLES

Box = tuple[float, float, float, float]


def demo() -> Project:
    return read_project(Path(DEMO / "pellwick-kiln-2.spool.json").read_bytes())


def text_boxes(item: Item) -> list[tuple[str, Box]]:
    boxes = []
    for p in item.prims:
        if isinstance(p, Text):
            width = len(p.words) * p.size * ADVANCE
            back = {"start": 0.0, "middle": width / 2, "end": width}[p.anchor]
            high = p.size * 0.75
            x, y = p.x, p.y
            level = (x - back, y - high, x - back + width, y)
            boxes.append((p.words, (x - high, y + back - width, x, y + back) if p.upward else level))
    return boxes


def overlap(a: Box, b: Box) -> bool:
    return a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]


class DemoSheets(TestCase):
    def setUp(self) -> None:
        self.project = demo()

    def test_no_text_lies_upon_another_and_none_leaves_the_frame(self) -> None:
        for sheet, scene in (
            (s, leaf) for s in self.project.sheets_in_order() for leaf in leaves_of(self.project, s.id)
        ):
            boxes = [b for item in scene.items.values() for b in text_boxes(item)]
            self.assertGreater(len(boxes), 30)
            for (one, a), (other, b) in combinations(boxes, 2):
                self.assertFalse(overlap(a, b), f"sheet {sheet.number}: “{one}” lies upon “{other}”")
            for words, (left, top, right, bottom) in boxes:
                inside = left >= 0 and top >= 0 and right <= scene.width and bottom <= scene.height
                self.assertTrue(inside, f"sheet {sheet.number}: “{words}” leaves the sheet")

    def test_no_text_lies_upon_a_symbol_of_another(self) -> None:
        for sheet in self.project.sheets_in_order():
            scene = sheet_scene(self.project, sheet.id)
            bodies = {i.id: i.facts["body"] for i in scene.items.values() if i.kind == "symbol"}
            for item in scene.items.values():
                for words, box in text_boxes(item):
                    for id, body in bodies.items():
                        if id != item.id and item.kind != "frame":
                            shrunk = (body[0] + 0.3, body[1] + 0.3, body[2] - 0.3, body[3] - 0.3)
                            self.assertFalse(overlap(box, shrunk), f"“{words}” lies upon a symbol")

    def test_every_primitive_is_one_a_painter_knows(self) -> None:
        for sheet in self.project.sheets.values():
            for item in scene_of(self.project, sheet.id).items.values():
                for p in item.prims:
                    if isinstance(p, Text):
                        self.assertIn(p.role, ROLES)
                    elif isinstance(p, Line | Poly | Rect | Circle):
                        self.assertIn(p.pen, PENS)
                    else:
                        self.assertIsInstance(p, Strand | Dot | Art | Image)

    def test_boxes_hold_what_is_painted(self) -> None:
        for sheet in self.project.sheets.values():
            for item in sheet_scene(self.project, sheet.id).items.values():
                left, top, right, bottom = item.box
                for _, box in text_boxes(item):
                    if item.kind in ("symbol", "table"):
                        self.assertTrue(left <= box[0] + 0.1 and right >= box[2] - 0.1, item.id)
                        self.assertTrue(top <= box[1] + 1 and bottom >= box[3] - 0.7, item.id)

    def test_the_title_block_says_what_the_project_says(self) -> None:
        sheet = next(s for s in self.project.sheets.values() if s.number == "30")
        frame = sheet_scene(self.project, sheet.id).items["frame"]
        words = [w for w, _ in text_boxes(frame)]
        for wanted in (
            "Pellwick, kiln house",
            "PM-0417 Kiln 2",
            "Loading auger, control",
            "30",
            "10 of 31, next 31",
            "PO 88-1204",
            "B",
            "=K2+KP2",
        ):
            self.assertIn(wanted, words)

    def test_links_lead_to_entities(self) -> None:
        for sheet in self.project.sheets.values():
            for item in sheet_scene(self.project, sheet.id).items.values():
                for p in item.prims:
                    if isinstance(p, Text) and p.link:
                        kind, _, named = p.link.rpartition(":")
                        tables = ("device",) if kind == "node" else ("symbol", "continuation", "wire")
                        self.assertTrue(any(named in self.project.tables[table] for table in tables), p)

    def test_a_sheet_that_is_gone(self) -> None:
        with self.assertRaises(GoneError):
            sheet_scene(self.project, "nothing")


class Symbols(TestCase):
    def texts(self, bench: Workbench, symbol: str) -> list[str]:
        return [w for w, _ in text_boxes(sheet_scene(bench.project, bench.sheet).items[symbol])]

    def test_the_lead_shows_its_text_and_a_follower_where_its_lead_is(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 70, 16, text="Fan run")
        contact = bench.place("contact-no", 30, 34, device_id=bench.device(coil))
        self.assertEqual(self.texts(bench, coil), ["-KF1", "Fan run", "A1", "A2"])
        self.assertEqual(self.texts(bench, contact), ["-KF1", "301", "13", "14"])

    def test_a_contact_without_a_device_shows_that(self) -> None:
        bench = Workbench()
        contact = bench.place("contact-no", 30, 34)
        self.assertEqual(self.texts(bench, contact), ["?"])

    def test_pictures_follow_what_they_depend_on(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 70, 16, text="Fan run")
        contact = bench.place("contact-no", 30, 34, device_id=bench.device(coil))
        sheet_scene(bench.project, bench.sheet)
        bench.do("move-selection", ids=[coil], dx=0, dy=9)
        self.assertIn("302", self.texts(bench, contact))
        bench.do("set-tag", device_id=bench.device(coil), tag="KF77")
        self.assertIn("-KF77", self.texts(bench, contact))
        bench.do("assign-part", device_id=bench.device(coil), part_id="brindlework-bw-c09-24d-31")
        bench.do("set-tag", device_id=bench.device(coil), tag="")
        self.assertIn("-QA1", self.texts(bench, contact))
        bench.do("delete-selection", ids=[coil])
        self.assertNotIn("302", self.texts(bench, contact))
        bench.do("swap-contact", symbol_id=contact)
        self.assertEqual(self.texts(bench, contact)[-2:], ["21", "22"])

    def test_upright_symbols_have_their_texts_on_the_left(self) -> None:
        bench = Workbench(frame="zones")
        breaker = bench.place("breaker", 40, 20, text="Fan")
        item = sheet_scene(bench.project, bench.sheet).items[breaker]
        tag = next(p for p in item.prims if isinstance(p, Text) and p.words == "-FC1")
        self.assertEqual(tag.anchor, "end")
        self.assertLess(tag.x, 40 * GRID_MM)
        self.assertEqual([p.words for p in item.prims if isinstance(p, Text)][2:], ["1", "2", "3", "4", "5", "6"])

    def test_every_symbol_has_art_for_every_number_of_poles_in_both_standards(self) -> None:
        for key, shape in definitions().items():
            for standard in ("iec", "na"):
                sizes = [len(art_of(key, poles, standard)) for poles in range(1, shape.max_poles + 1)]
                self.assertEqual(sizes, sorted(sizes), key)
                self.assertGreater(sizes[0], 1, key)

    def test_graphics_end_where_the_pins_are(self) -> None:
        for key, shape in definitions().items():
            for standard in ("iec", "na"):
                ends: set[tuple[float, float]] = set()
                for kind, *v in shape.art(standard):
                    if kind == "line":
                        ends |= {(v[0], v[1]), (v[2], v[3])}
                    elif kind == "poly":
                        ends |= set(zip(v[0][0::2], v[0][1::2], strict=True))
                for pin in shape.pins:
                    self.assertIn(pin, ends, f"{key} ({standard}) does not reach its pin {pin}")

    def test_mirrored_and_turned_symbols_keep_their_box_about_them(self) -> None:
        bench = Workbench(frame="zones")
        for rotation in (0, 90, 180, 270):
            for mirror in (False, True):
                x, y = 30 + rotation // 3, 40 if mirror else 70
                symbol = bench.place("contact-co", x, y, rotation=rotation, mirror=mirror)
                facts = sheet_scene(bench.project, bench.sheet).items[symbol].facts
                left, top, right, bottom = facts["body"]
                for px, py in facts["pins"]:
                    self.assertTrue(left <= px * GRID_MM <= right and top <= py * GRID_MM <= bottom)


class Tables(TestCase):
    def test_tables_of_many_coils_never_lie_upon_each_other(self) -> None:
        for frame in ("ladder", "zones"):
            bench = Workbench(frame=frame)
            for i in range(5):
                at = (40, 16 + 9 * i) if frame == "ladder" else (20 + 12 * i, 30)
                coil = bench.place("coil", *at)
                bench.do("assign-part", device_id=bench.device(coil), part_id="brindlework-bw-c09-24d-62")
            items = [i for i in sheet_scene(bench.project, bench.sheet).items.values() if i.kind == "table"]
            self.assertEqual(len(items), 5)
            for a, b in combinations(items, 2):
                self.assertFalse(overlap(a.box, b.box), frame)
            width, _ = size_mm(bench.project.sheets[bench.sheet])
            self.assertTrue(all(i.box[2] < width for i in items))

    def test_free_units_are_shown_as_free(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 40, 16)
        bench.do("assign-part", device_id=bench.device(coil), part_id="hollin-hr-k22")
        table = sheet_scene(bench.project, bench.sheet).items[f"table:{coil}"]
        self.assertEqual([w for w, _ in text_boxes(table)].count("free"), 4)

    def test_a_device_with_nothing_apart_has_no_table(self) -> None:
        bench = Workbench()
        lamp = bench.place("lamp", 40, 16)
        self.assertNotIn(f"table:{lamp}", sheet_scene(bench.project, bench.sheet).items)


class Marks(TestCase):
    def test_a_continuation_shows_the_other_end_and_its_number(self) -> None:
        bench = Workbench()
        other = bench.new("add-sheet", number="31")
        bench.wire((20, 16), (40, 16))
        here = bench.new("place-continuation", sheet_id=bench.sheet, x=40, y=16, name="24 V")
        item = sheet_scene(bench.project, bench.sheet).items[here]
        self.assertEqual([w for w, _ in text_boxes(item)], ["24 V", "3011", "·", "no other end"])
        there = bench.new("place-continuation", sheet_id=other, x=20, y=34, name="24 V")
        item = sheet_scene(bench.project, bench.sheet).items[here]
        self.assertEqual([w for w, _ in text_boxes(item)], ["24 V", "3011", "·", "31.313"])
        far = sheet_scene(bench.project, other).items[there]
        self.assertEqual([w for w, _ in text_boxes(far)], ["24 V", "30.301"], "no wire there has a number to show")
        bench.wire((20, 34), (50, 34), sheet_id=other)
        far = sheet_scene(bench.project, other).items[there]
        self.assertEqual([w for w, _ in text_boxes(far)], ["24 V", "3011", "·", "30.301"])
        self.assertEqual(item.facts["number"], "3011")
        self.assertEqual([p.link for p in item.prims if isinstance(p, Text)], ["", "", "", there])

    def test_a_mark_hides_the_number_as_its_wires_do(self) -> None:
        bench = Workbench()
        bench.wire((20, 16), (40, 16))
        here = bench.new("place-continuation", sheet_id=bench.sheet, x=40, y=16, name="24 V")
        bench.do("change-wire-types", changes=[{"wire_type_id": bench.blue, "number_at": "hidden"}])
        item = sheet_scene(bench.project, bench.sheet).items[here]
        self.assertEqual([w for w, _ in text_boxes(item)], ["24 V", "no other end"])

    def test_notes_and_dots_and_wire_numbers(self) -> None:
        bench = Workbench()
        note = bench.new("place-note", sheet_id=bench.sheet, x=20, y=70, text="Locked out")
        bench.wire((20, 16), (60, 16))
        bench.wire((40, 16), (40, 30))
        items = sheet_scene(bench.project, bench.sheet).items
        self.assertEqual([w for w, _ in text_boxes(items[note])], ["Locked out"])
        self.assertEqual([i for i in items if i.startswith("dot:")], ["dot:40,16"])
        self.assertEqual([w for i in items.values() if i.kind == "number" for w, _ in text_boxes(i)], ["3011"])


class Fitting(TestCase):
    def test_long_text_shrinks_then_is_cut_and_never_runs_over(self) -> None:
        for words in ("", "short", "a text of middling length", "x" * 200):
            shown, size = fit(words, 30, 4.0)
            self.assertLessEqual(len(shown) * size * ADVANCE, 30.01)
            self.assertTrue(shown == words or shown.endswith("…"))
