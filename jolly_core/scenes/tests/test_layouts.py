"""Generated pages, layouts and form boards as pictures: nothing upon another, nothing outside."""

from __future__ import annotations

from dataclasses import replace
from typing import get_args
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.drawing import ADVANCE
from jolly_core.exchange import read_project
from jolly_core.model import GoneError, RuleError
from jolly_core.reports import positions
from jolly_core.scenes import (
    MARGIN_MM,
    Arc,
    Art,
    Circle,
    Dot,
    Image,
    Line,
    Poly,
    Prim,
    Rect,
    Scene,
    Strand,
    Text,
    door_back_scene,
    generated_pages,
    is_generated,
    page_leaves,
    page_of,
    sheet_scene,
    surface_scene,
)
from jolly_core.testing import DEMO, Workbench

from ..base.paints import PENS, TONES
from ..lists.pages import split

Box = tuple[float, float, float, float]


def texts(scene: Scene) -> list[tuple[str, Box]]:
    """Return each text of a scene with the box it takes."""
    found = []
    for item in scene.items.values():
        for prim in item.placed():
            if isinstance(prim, Text) and prim.words:
                width = len(prim.words) * prim.size * ADVANCE
                if prim.upward:
                    found.append((prim.words, (prim.x - prim.size * 0.75, prim.y - width, prim.x, prim.y)))
                    continue
                left = prim.x - {"start": 0.0, "middle": width / 2, "end": width}[prim.anchor]
                found.append((prim.words, (left, prim.y - prim.size * 0.75, left + width, prim.y)))
    return found


def overlap(a: Box, b: Box) -> bool:
    return a[0] + 0.2 < b[2] and b[0] + 0.2 < a[2] and a[1] + 0.2 < b[3] and b[1] + 0.2 < a[3]


class Demo(TestCase):
    def setUp(self) -> None:
        self.project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        self.enclosure = min(self.project.enclosures)

    def scenes(self) -> list[tuple[str, Scene]]:
        found = [
            (f"{p.number}.{n}", leaf)
            for p in generated_pages(self.project)
            for n, leaf in enumerate(page_leaves(self.project, p.id))
        ]
        sheet = next(s for s in self.project.sheets.values() if s.kind == "panel-layout")
        found += [(f"{sheet.number}.{n}", leaf) for n, leaf in enumerate(page_leaves(self.project, sheet.id), start=1)]
        return found + [(s, surface_scene(self.project, self.enclosure, s)) for s in ("plate", "door")]

    def test_a_layout_sheet_has_dimensions_balloons_their_meaning_and_the_holes(self) -> None:
        sheet = next(s for s in self.project.sheets.values() if s.kind == "panel-layout")
        leaves = page_leaves(self.project, sheet.id)
        plate, door, legend, holes = leaves[0], leaves[1], leaves[2], leaves[3]
        order = positions(self.project)
        balloons = [p.words for p in plate.items["balloons"].prims if isinstance(p, Text)]
        self.assertTrue(balloons)
        there = {r.words for item in legend.items.values() for r in item.placed() if isinstance(r, Text)}
        self.assertLessEqual(set(balloons), there & {str(n) for n in order.values()})
        self.assertIn("dimensions", door.items)
        circles = [p for p in holes.items["holes"].prims if isinstance(p, Circle)]
        self.assertEqual(len(circles), 29)
        chain = {p.words for p in plate.items["dimensions"].prims if isinstance(p, Text)}
        self.project.load("settings", [replace(self.project.settings, dimensions="running")])
        running = page_leaves(self.project, sheet.id)[0]
        self.assertNotEqual({p.words for p in running.items["dimensions"].prims if isinstance(p, Text)}, chain)
        self.assertIn("450", {p.words for p in running.items["dimensions"].prims if isinstance(p, Text)})

    def test_the_door_is_drawn_from_behind_too(self) -> None:
        front = surface_scene(self.project, self.enclosure, "door")
        back = door_back_scene(self.project, self.enclosure)
        for id, item in front.items.items():
            if item.kind == "placing":
                box = back.items[id].box
                self.assertAlmostEqual(box[0] + item.box[2], front.width)
                self.assertEqual(box[1], item.box[1])
        circles = [[p.cx for p in s.items["holes"].prims if isinstance(p, Circle)] for s in (front, back)]
        self.assertEqual(sorted(circles[1]), sorted(round(front.width - x, 6) for x in circles[0]))

    def test_no_text_lies_upon_another_and_none_leaves_the_page(self) -> None:
        for name, scene in self.scenes():
            shown = texts(scene)
            for n, (words, box) in enumerate(shown):
                self.assertTrue(
                    box[0] >= -0.5 and box[1] >= -0.5 and box[2] <= scene.width + 0.5 and box[3] <= scene.height + 0.5,
                    f"{name}: “{words}” leaves the page",
                )
                for other, other_box in shown[n + 1 :]:
                    self.assertFalse(overlap(box, other_box), f"{name}: “{words}” lies upon “{other}”")

    def test_only_pens_and_tones_that_painters_know_are_used(self) -> None:
        for name, scene in self.scenes():
            for item in scene.items.values():
                for prim in item.placed():
                    if isinstance(prim, Line | Poly | Rect | Circle | Arc):
                        self.assertIn(prim.pen, PENS, name)
                    if isinstance(prim, Rect) and prim.tone:
                        self.assertIn(prim.tone, TONES, name)

    def test_pages_are_there_as_long_as_their_subject_is(self) -> None:
        pages = generated_pages(self.project)
        self.assertEqual(
            [p.number for p in pages],
            [
                *(f"T{n}" for n in range(1, 11)),
                *(f"C{n}" for n in range(1, 19)),
                *(f"P{n}" for n in range(1, 6)),
                *(f"F{n}" for n in range(1, 5)),
                "B1",
            ],
        )
        self.assertTrue(all(is_generated(p.id) for p in pages))
        with self.assertRaises(GoneError):
            page_of(self.project, "plan:cores:none")
        self.assertEqual(generated_pages(Workbench().project), [])

    def test_a_band_shows_its_cable_and_each_core_at_its_wire(self) -> None:
        sheet = next(s.id for s in self.project.sheets.values() if s.number == "10")
        (band,) = [i for i in sheet_scene(self.project, sheet).items.values() if i.kind == "band"]
        self.assertEqual(
            [p.words for p in band.prims if isinstance(p, Text)], ["-WD1", "QL-C4G2.5", "BN", "BK", "GY", "GNYE"]
        )

    def test_a_channel_shows_its_address_and_point(self) -> None:
        sheet = next(s.id for s in self.project.sheets.values() if s.number == "50")
        shown = [words for words, _ in texts(sheet_scene(self.project, sheet))]
        for words in ("I0.0", "B1 Hatch closed", "Q0.1", "Y2 Feeder ready"):
            self.assertIn(words, shown)

    def test_a_device_is_drawn_at_true_size_where_it_stands(self) -> None:
        scene = surface_scene(self.project, self.enclosure, "plate")
        for placing in self.project.placings.values():
            item = scene.items.get(placing.id)
            part = self.project.part_of(self.project.devices[placing.device_id])
            if item is None or part is None or part.part_class == "terminal":
                continue
            box = item.placed()[0]
            assert isinstance(box, Rect)
            x, y, width, height = box.x, box.y, box.width, box.height
            self.assertEqual((width, height), (part.width_mm, part.height_mm))
            self.assertEqual(x - MARGIN_MM, placing.x)
            self.assertAlmostEqual(y - MARGIN_MM + height / 2, placing.y)


class Pieces(TestCase):
    @given(st.lists(st.integers(1, 6), max_size=60), st.integers(6, 30))
    def test_leaves_hold_every_row_once_and_never_too_many(self, heights: list[int], room: int) -> None:
        leaves = split(heights, room)
        self.assertEqual([n for a, b in leaves for n in range(a, b)], list(range(len(heights))))
        for a, b in leaves:
            self.assertLessEqual(sum(heights[a:b]), room)

    @given(st.integers(-50, 50), st.integers(-50, 50))
    def test_what_is_moved_there_and_back_is_the_same(self, dx: int, dy: int) -> None:
        prims: list[Prim] = [
            Line(1, 2, 3, 4, "ink"),
            Strand(1, 2, 3, 4, "BU"),
            Poly((1, 2, 3, 4, 5, 6), "ink"),
            Rect(1, 2, 3, 4, "thin"),
            Rect(1, 2, 3, 4, "thin", "duct"),
            Circle(1, 2, 3, "ink"),
            Arc(1, 2, 3, 0, 90, "ink"),
            Dot(1, 2, 3),
            Art("coil", 1, 2, 90, True, 1),
            Text(1, 2, 3, "start", "tag", "x"),
            Image(1, 2, 3, 4, "logo"),
        ]
        self.assertEqual({type(p) for p in prims}, set(get_args(Prim)), "each kind is tried")
        for prim in prims:
            self.assertEqual(prim.moved(dx, dy).moved(-dx, -dy), prim)
            if dx:
                self.assertNotEqual(prim.moved(dx, dy), prim)

    def test_an_enclosure_without_a_plate_says_so(self) -> None:
        bench = Workbench()
        enclosure = bench.new("add-enclosure", part_id="brindlework-bw-e4621")
        bench.do("assign-part", device_id=bench.project.enclosures[enclosure].device_id, part_id="")
        with self.assertRaisesRegex(RuleError, "has no part. Choose an enclosure part"):
            surface_scene(bench.project, enclosure, "plate")
