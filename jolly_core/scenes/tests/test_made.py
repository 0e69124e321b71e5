"""Sheets made from the project, title blocks whose texts stay inside, and the two painters."""

from __future__ import annotations

import io
from itertools import combinations
from unittest import TestCase
from xml.etree import ElementTree

from hypothesis import given, settings
from hypothesis import strategies as st
from pypdf import PdfReader

from jolly_core.drawing import ADVANCE
from jolly_core.exchange import read_project, scene_svg, sheets_pdf
from jolly_core.library import built_in_blocks
from jolly_core.model import SHEET_SIZES_MM, SHEET_SUBJECTS, GoneError, Project, Sheet, TitleCell
from jolly_core.scenes import Circle, Image, Poly, Scene, Text, lay, leaves_of, made, page_leaves, scene_of, sheet_scene
from jolly_core.testing import DEMO, FONTS, Workbench

from ..base.lettering import LINE_PITCH
from ..base.titleblocks import block_prims, cell_prims


def words(scene: Scene) -> list[str]:
    return [p.words for item in scene.items.values() for p in item.prims if isinstance(p, Text)]


def demo(name: str = "pellwick-kiln-2") -> Project:
    return read_project((DEMO / f"{name}.spool.json").read_bytes())


def rows_of(leaves: list[Scene]) -> list[str]:
    """Return the texts of leaves apart from those of frame and title block."""
    items = [i for leaf in leaves for i in leaf.items.values() if i.kind != "frame"]
    return [p.words for i in items for p in i.prims if isinstance(p, Text)]


texts = st.text(alphabet=st.characters(codec="utf-8", categories=("L", "N", "P", "Zs")), max_size=160)


class Texts(TestCase):
    @settings(max_examples=300, deadline=None)
    @given(texts, st.floats(8, 120), st.floats(3, 30), st.floats(1.4, 9))
    def test_a_text_of_any_length_stays_inside_any_cell(
        self, text: str, width: float, height: float, size: float
    ) -> None:
        lines, shown = lay(text, width, height, size)
        self.assertLessEqual(shown, size)
        self.assertLessEqual(max((len(line) for line in lines), default=0) * ADVANCE * shown, width + 1e-6)
        self.assertTrue(len(lines) * shown * LINE_PITCH <= height + 1e-6 or len(lines) == 1)

    def test_it_wraps_then_shrinks_then_is_cut(self) -> None:
        self.assertEqual(lay("Loading auger", 60, 6, 3), (["Loading auger"], 3))
        self.assertEqual(lay("Loading auger", 18, 8, 3), (["Loading", "auger"], 3))
        lines, size = lay("Loading auger", 20, 4, 3)
        self.assertEqual(lines, ["Loading auger"])
        self.assertLess(size, 3)
        lines, _ = lay("Loading auger of the second kiln", 10, 3, 3)
        self.assertTrue(lines[-1].endswith("…"))
        self.assertEqual(lay("   ", 10, 3, 3), ([], 3))

    @settings(max_examples=150, deadline=None)
    @given(texts, st.sampled_from(["start", "middle", "end"]), st.booleans())
    def test_no_text_crosses_the_line_of_its_cell(self, text: str, anchor: str, heading: bool) -> None:
        for block in built_in_blocks().values():
            for cell in block.cells:
                shown = TitleCell(**{f: getattr(cell, f) for f in TitleCell.__slots__})
                shown.anchor, shown.heading = anchor, "Heading" if heading else ""
                for p in cell_prims(shown, text, {}, 0, 0):
                    if isinstance(p, Text):
                        wide = len(p.words) * ADVANCE * p.size
                        left = p.x - {"start": 0, "middle": wide / 2, "end": wide}[p.anchor]
                        self.assertGreaterEqual(left, cell.x - 0.01)
                        self.assertLessEqual(left + wide, cell.x + cell.width + 0.01)
                        self.assertLessEqual(p.y, cell.y + cell.height + 0.01)
                        self.assertGreaterEqual(p.y - p.size, cell.y - 0.01)

    def test_built_in_cells_tile_their_blocks(self) -> None:
        for pattern in built_in_blocks().values():
            area = sum(c.width * c.height for c in pattern.cells)
            self.assertAlmostEqual(area, pattern.block.width_mm * pattern.block.height_mm, places=3)
            for a, b in combinations(pattern.cells, 2):
                apart = (
                    a.x + a.width <= b.x + 1e-6
                    or b.x + b.width <= a.x + 1e-6
                    or a.y + a.height <= b.y + 1e-6
                    or b.y + b.height <= a.y + 1e-6
                )
                self.assertTrue(apart, f"{a.heading} lies upon {b.heading}")

    def test_a_picture_keeps_its_proportions_inside_its_cell(self) -> None:
        project = demo()
        (picture,) = project.pictures.values()
        cell = next(c for c in project.title_cells.values() if c.picture_id)
        prim = next(p for p in cell_prims(cell, "", {picture.id: picture}, 0, 0) if isinstance(p, Image))
        x, y, width, height = prim.x, prim.y, prim.width, prim.height
        self.assertEqual(prim.picture, picture.id)
        self.assertAlmostEqual(width / height, picture.width_px / picture.height_px, places=1)
        self.assertTrue(cell.x <= x and x + width <= cell.x + cell.width)
        self.assertTrue(cell.y <= y and y + height <= cell.y + cell.height)


class Made(TestCase):
    def test_contents_list_every_sheet_and_follow_every_edit(self) -> None:
        bench = Workbench()
        place = bench.new("add-location", code="KP2")
        contents = bench.new("add-sheet", number="1", title="Contents", sheet_kind="contents", after_id="-")
        bench.do("change-sheet", sheet_id=bench.sheet, title="Auger", location_id=place)
        self.assertIn("Auger", words(scene_of(bench.project, contents)))
        self.assertIn("+KP2", words(scene_of(bench.project, contents)))
        bench.do("change-location", location_id=place, code="KP3")
        self.assertIn("+KP3", words(scene_of(bench.project, contents)))
        links = [
            p.link for i in scene_of(bench.project, contents).items.values() for p in i.prims if isinstance(p, Text)
        ]
        self.assertIn(bench.sheet, links, "a row leads to its sheet")

    def test_long_contents_take_several_leaves_and_none_runs_into_the_title_block(self) -> None:
        bench = Workbench()
        contents = bench.new("add-sheet", number="1", sheet_kind="contents", size="A4")
        bench.do("add-sheets", sheets=[{"title": f"Sheet of {n}"} for n in range(100)])
        leaves = leaves_of(bench.project, contents)
        self.assertEqual(len(leaves), 5)
        titles = [w for leaf in leaves for w in words(leaf)]
        self.assertTrue(all(f"Sheet of {n}" in titles for n in range(100)))
        for n, leaf in enumerate(leaves, start=1):
            self.assertIn(f"1.{n}", words(leaf))
            rows = [i for id, i in leaf.items.items() if id.startswith("row:")]
            self.assertLess(max(i.box[3] for i in rows), leaf.height - 10 - 36)
        reader = PdfReader(io.BytesIO(sheets_pdf(bench.project, [contents], FONTS)))
        self.assertEqual(len(reader.pages), 5)

    def test_every_kind_says_what_is_missing_and_fits_every_size(self) -> None:
        bench = Workbench(name="Kiln")
        number = 100
        for kind in (
            "cover",
            "contents",
            "data",
            "terminal-plan",
            "cable-plan",
            "card-plan",
            "panel-layout",
            "form-board",
            "report",
        ):
            for size in SHEET_SIZES_MM:
                number += 1
                id = bench.new("add-sheet", number=str(number), sheet_kind=kind, size=size)
                for leaf in leaves_of(bench.project, id):
                    self.assertEqual((leaf.width, leaf.height), SHEET_SIZES_MM[size])
                    for item in leaf.items.values():
                        left, top, right, bottom = item.box
                        self.assertTrue(left >= 0 and top >= 0 and right <= leaf.width + 0.1 and bottom <= leaf.height)
                if kind in SHEET_SUBJECTS:
                    self.assertTrue(any(w.startswith("Choose the") for w in words(scene_of(bench.project, id))))
                self.assertTrue(made(bench.project, id))
                bench.do("delete-sheet", sheet_id=id)
        self.assertFalse(made(bench.project, bench.sheet))

    def test_plans_layouts_boards_and_reports_as_sheets_of_the_set(self) -> None:
        project = demo()
        bench = Workbench()
        bench.project = project
        strip = next(d.id for d in project.devices.values() if project.items_of_strip.get(d.id))
        cable = next(iter(project.cables.values())).device_id
        before = [rows_of(page_leaves(project, p)) for p in (f"plan:cores:{cable}", f"plan:terminals:{strip}")]
        plan = bench.new("add-sheet", number="101", sheet_kind="terminal-plan", device_id=strip, size="A4")
        cores = bench.new("add-sheet", number="102", sheet_kind="cable-plan", device_id=cable, size="A4")
        board = bench.new(
            "add-sheet", number="103", sheet_kind="form-board", harness_id=next(iter(project.harnesses)), size="A2"
        )
        report = bench.new("add-sheet", number="104", sheet_kind="report", report="wires", size="A3")
        for id, old in ((cores, before[0]), (plan, before[1])):
            self.assertTrue(old)
            self.assertEqual(rows_of(page_leaves(project, id)), old, "the sheet shows what the page showed")
        self.assertTrue(any("scale 1:" in w for w in words(scene_of(project, board))))
        self.assertIn("3012", words(scene_of(project, report)))
        listed = words(scene_of(project, next(s.id for s in project.sheets.values() if s.kind == "contents")))
        self.assertIn("101", listed)
        with self.assertRaises(GoneError):
            page_leaves(project, f"plan:terminals:{strip}")

    def test_the_cover_and_the_data_sheet_say_what_the_project_says(self) -> None:
        project = demo()
        by_kind = {s.kind: s.id for s in project.sheets.values()}
        cover = words(scene_of(project, by_kind["cover"]))
        for wanted in ("Pellwick Maltings", "Kiln 2", "PM-0417", "2026-11-09", "38 t", "PO 88-1204"):
            self.assertIn(wanted, cover)
        data = words(scene_of(project, by_kind["data"]))
        for wanted in ("400 V 3~ 50 Hz", "IP54 panel, IP65 door devices", "24 V DC", "Wire, Power"):
            self.assertIn(wanted, data)


class Painters(TestCase):
    def test_every_sheet_of_the_demo_is_svg_with_all_its_texts(self) -> None:
        for name in ("pellwick-kiln-2", "sample-store-dehumidifier"):
            project = demo(name)
            for sheet in project.sheets.values():
                scene = leaves_of(project, sheet.id)[0]
                root = ElementTree.fromstring(scene_svg(project, scene))
                self.assertEqual(root.get("viewBox"), f"0 0 {scene.width:g} {scene.height:g}")
                shown = [e.text for e in root.iter("{http://www.w3.org/2000/svg}text")]
                self.assertTrue(set(words(scene)) - {""} <= {*shown, ""})
                bare = scene_svg(project, scene, texts=False)
                self.assertNotIn("<text", bare)

    def test_texts_cannot_break_out_of_the_picture(self) -> None:
        bench = Workbench(name="</text><script>alert(1)</script>&")
        scene = sheet_scene(bench.project, bench.sheet)
        self.assertNotIn("<script", scene_svg(bench.project, scene))

    def test_the_logo_is_in_the_pdf_once_however_many_sheets_show_it(self) -> None:
        project = demo()
        ids = [s.id for s in project.sheets_in_order()]
        reader = PdfReader(io.BytesIO(sheets_pdf(project, ids, FONTS)))
        found = {image.indirect_reference for page in reader.pages for image in page.images}
        self.assertEqual(len(found), 1)

    def test_scaling(self) -> None:
        self.assertEqual(Poly((2, 4), "ink").scaled(0.5), Poly((1, 2), "ink"))
        self.assertEqual(Text(2, 4, 3, "end", "tag", "a").scaled(2), Text(4, 8, 6, "end", "tag", "a"))
        self.assertEqual(Circle(2, 4, 1, "fine").scaled(0.5), Circle(1, 2, 0.5, "fine"))

    def test_pages_beside_the_sheets_count_for_themselves(self) -> None:
        pattern = built_in_blocks()["metric"]
        sheet = Sheet("plan:x", "T1", kind="terminal-plan")
        given = {"n": "1", "count": "2", "next": "T2"}
        shown = [p.words for p in block_prims(Project(), sheet, pattern, 0, 0, given) if isinstance(p, Text)]
        self.assertIn("1 of 2, next T2", shown)
