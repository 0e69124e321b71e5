"""Files of what is built: DXF, form boards in true scale, tables that come in, the cut list's schema, the pack."""

from __future__ import annotations

import copy
import io
import json
import re
from pathlib import Path
from unittest import TestCase

import ezdxf.filemanagement
import jsonschema
import xlsxwriter
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader

from jolly_core.cabinet import hole_table, holes
from jolly_core.exchange import (
    board_pdf,
    cut_json,
    cut_schema,
    pack_files,
    read_cells,
    read_project,
    surface_dxf,
    surface_pdf,
    tiles,
    write_project,
)
from jolly_core.exchange.tests.reading import page_texts
from jolly_core.model import KINDS, FileError, RuleError
from jolly_core.model.fields import OneOf
from jolly_core.scenes import generated_pages, page_leaves, page_scene
from jolly_core.testing import DEMO, FONTS, Workbench

ROOT = Path(__file__).resolve().parents[3]
POINTS_A_MM = 72 / 25.4


class Demo(TestCase):
    def setUp(self) -> None:
        self.project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        self.enclosure = min(self.project.enclosures)
        self.harness = min(self.project.harnesses)

    def words(self, content: bytes) -> str:
        return "\n".join(page_texts(content))


class Plate(Demo):
    def test_the_dxf_has_every_outline_and_hole_in_millimetres_on_its_layer(self) -> None:
        content = surface_dxf(self.project, self.enclosure).decode()
        document = ezdxf.filemanagement.read(io.StringIO(content))
        self.assertEqual(document.header["$INSUNITS"], 4)
        count: dict[str, int] = {}
        for entity in document.modelspace():
            count[entity.dxf.layer] = count.get(entity.dxf.layer, 0) + 1
        wanted = {"PLATE": 1, "RAILS": 3, "DUCTS": 6, "DEVICES": 10, "TEXT": 10}
        self.assertEqual({k: v for k, v in count.items() if k != "HOLES"}, wanted)
        self.assertEqual(count["HOLES"], len(holes(self.project, self.enclosure, "plate")))
        (plate,) = [e for e in document.modelspace() if e.dxf.layer == "PLATE"]
        corners = {(round(x), round(y)) for x, y, *_ in plate.get_points()}  # type: ignore[attr-defined]  # a polyline
        self.assertEqual(corners, {(0, 0), (450, 0), (450, 650), (0, 650)})

    def test_holes_stand_on_their_rails_and_door_devices_have_a_cut_out(self) -> None:
        rail = next(iter(sorted(self.project.rails.values(), key=lambda r: r.id)))
        on_rail = [h for h in holes(self.project, self.enclosure, "plate") if h.y == rail.y1]
        self.assertEqual([h.x for h in on_rail], [rail.x1 + 20, (rail.x1 + rail.x2) / 2, rail.x2 - 20])
        door = holes(self.project, self.enclosure, "door")
        self.assertEqual(hole_table(door), [("⌀ 22.5", 14)])

    def test_the_pdf_says_its_scale_and_names_the_devices(self) -> None:
        content = surface_pdf(self.project, self.enclosure, "plate", FONTS)
        text = self.words(content)
        for words in ("scale 1:5", "-QA1", "-XD1", "-KF1", "PM-0417 Kiln 2", "L1.1", "mounting plate"):
            self.assertIn(words, text)
        pages = PdfReader(io.BytesIO(content)).pages
        self.assertEqual({round(float(p.mediabox.width) / POINTS_A_MM) for p in pages}, {420}, "in the frame of an A3")
        table = " ".join(p.extract_text() for p in pages[2:])
        for hole in holes(self.project, self.enclosure, "plate"):
            self.assertIn(f"{hole.x:g}", table)

    def test_the_dxf_has_the_drawing_in_the_frame_beside_the_surface_at_true_size(self) -> None:
        content = surface_dxf(self.project, self.enclosure, "door").decode()
        document = ezdxf.filemanagement.read(io.StringIO(content))
        drawn = list(document.layouts.get("Sheet"))
        words = {e.dxf.text for e in drawn if e.dxftype() == "TEXT"}
        self.assertLessEqual({"-PF1", "PM-0417 Kiln 2", "L1.1"}, words)
        self.assertIn("⌀ 22.5", words, "the table of holes")


class Board(Demo):
    def test_a_millimetre_of_harness_is_a_millimetre_of_paper(self) -> None:
        page = next(p for p in generated_pages(self.project) if p.kind == "board")
        scene = page_scene(self.project, page.id)
        box = PdfReader(io.BytesIO(board_pdf(self.project, self.harness, FONTS))).pages[0].mediabox
        self.assertAlmostEqual(float(box.width) / POINTS_A_MM, scene.width, places=2)
        segments = [i for i in scene.items.values() if i.kind == "segment"]
        for item in segments:
            (ax, ay), (bx, by) = item.facts["from"], item.facts["to"]
            self.assertAlmostEqual(((ax - bx) ** 2 + (ay - by) ** 2) ** 0.5, item.facts["length"], places=2)

    def test_tiles_cover_the_board_and_say_which_they_are(self) -> None:
        content = board_pdf(self.project, self.harness, FONTS, tiled=True)
        page = next(p for p in generated_pages(self.project) if p.kind == "board")
        scene = page_scene(self.project, page.id)
        count = len(tiles(scene.width, scene.height, (210, 297), 10, 10))
        reader = PdfReader(io.BytesIO(content))
        self.assertEqual(len(reader.pages), count)
        self.assertIn("tile A1 of", reader.pages[0].extract_text())
        self.assertAlmostEqual(float(reader.pages[0].mediabox.width) / POINTS_A_MM, 210, places=1)

    @given(st.integers(50, 4000), st.integers(50, 4000))
    def test_no_strip_of_any_board_is_left_out(self, width: int, height: int) -> None:
        places = tiles(width, height, (210, 297), 10, 10)
        columns, rows = max(c for c, _ in places) + 1, max(r for _, r in places) + 1
        self.assertEqual(len(places), columns * rows)
        self.assertGreaterEqual(columns * 180 + 10, width)
        self.assertGreaterEqual(rows * 267 + 10, height)

    def test_a_harness_without_segments_has_no_board(self) -> None:
        bench = Workbench()
        harness = bench.new("add-harness", code="WH-X")
        with self.assertRaisesRegex(RuleError, "WH-X has no segments yet"):
            board_pdf(bench.project, harness, FONTS)


class Plans(Demo):
    def test_every_terminal_is_on_its_plan_with_both_sides(self) -> None:
        files = pack_files(self.project, FONTS)
        text = self.words(files["terminal-plan.pdf"])
        for words in ("=K2+KF2-MA1:U1", "=K2+KP2-FQ1:2", "=K2+KP2-WD1", "GNYE", "End bracket", "T1", "T2"):
            self.assertIn(words, text)
        self.assertIn("spare", self.words(files["core-plan.pdf"]))
        self.assertIn("cut-list.json", self.words(files["00-contents.pdf"]))

    def test_a_long_strip_takes_several_leaves_and_none_runs_into_the_title_block(self) -> None:
        bench = Workbench(frame="zones")
        for x in range(10, 150, 3):
            bench.wire((x, 20), (x, 40))
        bench.do("place-terminals", sheet_id=bench.sheet, x1=8, y1=30, x2=152, y2=30)
        (page,) = generated_pages(bench.project)
        leaves = page_leaves(bench.project, page.id)
        self.assertEqual(len(leaves), 3)
        rows = [i for leaf in leaves for i in leaf.items.values() if i.id.startswith("terminal:")]
        self.assertEqual(len(rows), 47)
        self.assertLess(max(i.box[3] for i in rows), 210 - 10 - 36)
        whole = page_scene(bench.project, page.id)
        self.assertEqual(sum(1 for i in whole.items if i.startswith("terminal:")), 47)

    def test_a_project_with_nothing_but_a_sheet_can_be_issued(self) -> None:
        files = pack_files(Workbench().project, FONTS)
        self.assertIn("drawing.pdf", files)
        self.assertNotIn("terminal-plan.pdf", files)


class CutFile(Demo):
    def test_the_cut_list_holds_its_schema_and_the_documented_one_is_the_same(self) -> None:
        jsonschema.validate(json.loads(cut_json(self.project)), cut_schema())
        documented = json.loads((ROOT / "docs" / "formats" / "cut-list-1.schema.json").read_text(encoding="utf-8"))
        self.assertEqual(documented, cut_schema())


class Choices(Demo):
    def test_a_word_that_is_none_of_a_few_is_refused_with_those_there_are(self) -> None:
        whole = json.loads(write_project(self.project))
        for kind, spec in KINDS.items():
            for field in spec.fields.values():
                choice = field.mark(OneOf)
                if choice is None or kind not in whole["entities"] or field.type is not str:
                    continue
                raw = copy.deepcopy(whole)
                raw["entities"][kind][0][field.name] = "rocket"
                first = re.escape(choice.words[0] or "nothing")
                with (
                    self.subTest(kind),
                    self.assertRaisesRegex(FileError, f"“{field.name}” should be one of {first}"),
                ):
                    read_project(json.dumps(raw))


class Cells(TestCase):
    WANTED = [["Tag", "Type"], ["B1", "DI"], ["B2", "7"]]

    def test_csv_with_any_usual_separator(self) -> None:
        for mark in ",;\t":
            text = "\r\n".join(mark.join(row) for row in self.WANTED)
            self.assertEqual(read_cells(text.encode("utf-8-sig"), "list.csv"), self.WANTED)
        self.assertEqual(read_cells("Tag;Type\nKühler;DI".encode("cp1252"), "a.csv")[1], ["Kühler", "DI"])

    def test_a_workbook(self) -> None:
        out = io.BytesIO()
        book = xlsxwriter.Workbook(out)
        page = book.add_worksheet()
        for n, row in enumerate(self.WANTED):
            page.write_row(n, 0, row)
        page.write_number(2, 1, 7)
        book.close()
        self.assertEqual(read_cells(out.getvalue(), "list.XLSX"), self.WANTED)

    def test_what_is_neither_is_refused(self) -> None:
        for content, name in (
            (b"PK\x03\x04rubbish", "a.xlsx"),
            (b"a\0b", "a.csv"),
            (b"\x81\x8d", "a.csv"),
            (b"", "a.xlsx"),
        ):
            with self.assertRaises(FileError):
                read_cells(content, name)

    @given(st.binary(max_size=200), st.sampled_from(["a.csv", "a.xlsx"]))
    def test_no_bytes_bring_anything_but_rows_or_a_clear_refusal(self, content: bytes, name: str) -> None:
        try:
            rows = read_cells(content, name)
        except FileError as error:
            self.assertTrue(error.message)
        else:
            self.assertTrue(all(isinstance(c, str) for row in rows for c in row))
