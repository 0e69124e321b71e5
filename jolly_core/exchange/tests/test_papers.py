"""What leaves as files: links that lead to their place, a set that counts and lists itself, equal bytes each time."""

from __future__ import annotations

import hashlib
import io
import json
import os
import subprocess
import sys
import zipfile
from collections import Counter
from dataclasses import replace
from functools import cache
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader
from reportlab.pdfbase import pdfmetrics

from jolly_core.drawing import GRID_MM, pin_points
from jolly_core.exchange import read_project, sheets_pdf, write_list, write_pack
from jolly_core.exchange.fonts import SANS, runs, text_width, use_fonts
from jolly_core.exchange.pdflinks import bookmarks
from jolly_core.model import GoneError, Project
from jolly_core.reports import plain_recipe
from jolly_core.scenes import BLOCKS, board_places, generated_pages, page_leaves, texts_in
from jolly_core.tagging import pin_name
from jolly_core.testing import DEMO, FONTS, Workbench, reordered

from .test_files import ROOT

POINTS_A_MM = 72 / 25.4


@cache
def demo() -> Project:
    return read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())


def whole_set(project: Project) -> list[str]:
    return [s.id for s in project.sheets_in_order()] + [p.id for p in generated_pages(project)]


def read(project: Project, ids: list[str]) -> PdfReader:
    return PdfReader(io.BytesIO(sheets_pdf(project, ids, FONTS)))


def links(reader: PdfReader) -> list[tuple[int, tuple[float, ...], int, Any]]:
    """Return page, box, page led to, and the destination of each link."""
    found = []
    numbers = {page.indirect_reference.idnum: n for n, page in enumerate(reader.pages)}  # type: ignore[union-attr]
    for n, page in enumerate(reader.pages):
        for annotation in page.get("/Annots", ()):
            link = annotation.get_object()
            there = link["/Dest"]
            found.append((n, tuple(float(v) for v in link["/Rect"]), numbers[there[0].idnum], there))
    return found


class Ways(TestCase):
    def test_links_lead_to_the_place_and_not_only_to_the_page(self) -> None:
        project = demo()
        ids = whole_set(project)
        reader = read(project, ids)
        found = links(reader)
        self.assertGreater(len(found), 500)
        placed = [(led, there) for _, _, led, there in found if there[1] == "/XYZ"]
        pages = [there for _, _, _, there in found if there[1] == "/Fit"]
        self.assertEqual(len(pages), len(ids), "only the contents lead to whole pages")
        for led, there in placed:
            box = reader.pages[led].mediabox
            self.assertTrue(0 <= float(there[2]) < box.width and 0 < float(there[3]) <= float(box.height) + 1)

    def test_a_connector_leads_from_blocks_to_board_to_schematic_and_to_blocks_again(self) -> None:
        project = demo()
        harness = next(iter(project.harnesses.values()))
        connector = next(n.device_id for n in project.nodes.values() if n.device_id)
        sheet = next(s.sheet_id for s in project.units_of(connector))
        board = f"plan:board:{harness.id}"
        reader = read(project, [sheet, board, BLOCKS])
        ways = {(n, led) for n, _, led, _ in links(reader)}
        for n, led in ((2, 1), (1, 0), (0, 1), (1, 2), (2, 0)):
            self.assertIn((n, led), ways)
        x, y = board_places(project, harness.id)[connector]
        tall = float(reader.pages[1].mediabox.height) / POINTS_A_MM
        there = {
            (round(float(d[2]) / POINTS_A_MM + 40, 1), round(tall + 40 - float(d[3]) / POINTS_A_MM, 1))
            for n, _, led, d in links(reader)
            if (n, led) == (0, 1)
        }
        self.assertIn((round(max(x, 40), 1), round(max(y, 40), 1)), there)

    def test_every_cell_of_a_plan_that_names_a_pin_leads_to_that_pin(self) -> None:
        project = demo()
        named = 0
        for page in generated_pages(project):
            if page.kind == "board":
                continue
            for leaf in page_leaves(project, page.id):
                for item in leaf.items.values():
                    for p in texts_in(item):
                        if ":" not in p.words or item.kind == "frame":
                            continue
                        symbol_id, _, pin = p.link.partition(".")
                        self.assertEqual(p.words.split(" (")[0], pin_name(project, (symbol_id, int(pin))), page.title)
                        self.assertLess(int(pin), len(pin_points(project.symbols[symbol_id])))
                        named += 1
        self.assertGreater(named, 150)

    def test_a_link_shows_the_place_of_its_pin(self) -> None:
        project = demo()
        ids = whole_set(project)
        plan = next(p for p in generated_pages(project) if p.kind == "terminals")
        (leaf, *_) = page_leaves(project, plan.id)
        item = next(i for i in leaf.items.values() if i.id.startswith("terminal:"))
        text = next(p for p in texts_in(item) if "." in p.link)
        symbol_id, _, pin = text.link.partition(".")
        x, y = pin_points(project.symbols[symbol_id])[int(pin)]
        base = (leaf.height - text.y) * POINTS_A_MM
        page = ids.index(plan.id)
        reader = read(project, ids)
        before = sum(len(page_leaves(project, i)) - 1 for i in ids[:page] if not i.startswith("plan:") and _made(i))
        led, there = next(
            (led, d)
            for n, box, led, d in links(reader)
            if n == page + before and abs(box[1] + 1 - base) < 0.1 and abs(box[0] - text.x * POINTS_A_MM) < 0.1
        )
        self.assertLess(abs(float(there[2]) / POINTS_A_MM + 40 - x * GRID_MM), 1)
        tall = float(reader.pages[led].mediabox.height)
        self.assertLess(abs((tall - float(there[3])) / POINTS_A_MM + 40 - y * GRID_MM), 1)


def _made(id: str) -> bool:
    return demo().sheets[id].kind not in ("schematic", "free")


class Sets(TestCase):
    def test_the_contents_list_the_set_and_each_paper_counts_in_it(self) -> None:
        project = demo()
        chosen = [s.id for s in project.sheets_in_order() if s.number in ("2", "10", "30", "95")]
        reader = read(project, chosen)
        words = [page.extract_text() for page in reader.pages]
        self.assertIn("Loading auger, power", words[0])
        for other in ("Kiln fan, drive", "Terminal plan", "Core plan"):
            self.assertNotIn(other, words[0], "not in this set")
        count = len(reader.pages)
        self.assertGreater(count, len(chosen), "the list of parts takes two papers")
        for n, text in enumerate(words, start=1):
            self.assertIn(f"{n} of {count}", text)

    def test_all_of_it_lists_plans_too(self) -> None:
        project = demo()
        words = [page.extract_text() for page in read(project, whole_set(project)).pages[1:3]]
        self.assertTrue(any("Core plan =K2+KP2-WD1" in text for text in words))

    def test_bookmarks_follow_the_structure_and_the_file_says_what_it_is(self) -> None:
        project = demo()
        reader = read(project, whole_set(project))
        outline: list[Any] = reader.outline
        heads = [entry.title for entry in outline if not isinstance(entry, list)]
        wanted = [f"={f.code} {f.text}" for f in project.functions.values() if not f.parent_id]
        used = {s.function_id for s in project.sheets.values()}
        self.assertTrue(
            set(heads) >= {w for w in wanted if any(w.startswith(f"={project.functions[u].code} ") for u in used)}
        )
        self.assertEqual(heads[-5:], ["Terminal plans", "Core plans", "Card plans", "Form boards", "Blocks"])
        inside = outline[heads.index("=V1 Kiln fan") * 2 + 1]
        self.assertEqual([e.title for e in inside], ["12 Kiln fan, drive", "31 Kiln fan, control"])
        page = reader.get_destination_page_number(inside[1])
        self.assertIn("Kiln fan, control", reader.pages[page or 0].extract_text())
        assert reader.metadata is not None
        self.assertEqual((reader.metadata.author, reader.metadata.title), ("A. Marsh", "PM-0417 Kiln 2"))
        self.assertIn("Pellwick Maltings", str(reader.metadata.subject))


class Letters(TestCase):
    def test_other_scripts_are_set_and_what_no_face_has_is_spelt_out(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        sheet = next(s for s in project.sheets_in_order() if s.number == "30")
        words = "送料 мотор 모터 ⌀ \U00020001"
        project.sheets[sheet.id] = replace(sheet, title=words)
        text = read(project, [sheet.id]).pages[0].extract_text()
        self.assertNotIn("1 of 1", text, "a sheet alone keeps its place among all")
        for piece in ("送料", "мотор", "모터", "⌀", "[U+20001]"):
            self.assertIn(piece, text)

    def test_a_table_wraps_what_is_long_and_cuts_nothing(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        part = next(iter(project.parts.values()))
        words = "A very long description of a part that no column has room for, however wide it may be " * 3
        project.parts[part.id] = replace(part, text=f"{words}中文")
        reader = PdfReader(io.BytesIO(write_list(project, plain_recipe("parts"), "pdf", FONTS)))
        text = " ".join(page.extract_text() for page in reader.pages)
        self.assertNotIn("…", text)
        said = Counter(text.split())
        self.assertEqual({w: n for w, n in Counter(words.split()).items() if said[w] < n}, {}, "words are lost")
        self.assertIn("中文", text)


class Structure(TestCase):
    def test_a_function_within_another_lies_below_it_and_one_without_sheets_is_left_out(self) -> None:
        bench = Workbench(frame="zones")
        plant = bench.new("add-function", code="A", text="Plant")
        line = bench.new("add-function", code="B", text="Line", parent_id=plant)
        bench.new("add-function", code="C", text="Empty")
        sheet = bench.new("add-sheet", number="40", title="Drive", function_id=line)
        titles = {sheet: "40 Drive", bench.sheet: "30"}
        found = bookmarks(bench.project, [bench.sheet, sheet, sheet], titles.__getitem__)
        self.assertEqual(
            [(b.level, b.title, b.sheet_id) for b in found],
            [(0, "30", bench.sheet), (0, "=A Plant", sheet), (1, "=B Line", sheet), (2, "40 Drive", sheet)],
        )
        self.assertEqual(len({b.key for b in found}), len(found))
        with self.assertRaises(GoneError):
            bookmarks(bench.project, ["gone"], str)

    def test_functions_stand_in_the_order_the_pages_come_to_them_whichever_was_made_first(self) -> None:
        bench = Workbench(frame="zones")
        late, early = (bench.new("add-function", code=code, text="") for code in "AB")
        below = bench.new("add-function", code="C", text="", parent_id=early)
        own = {
            id: bench.new("add-sheet", number=n, function_id=id) for id, n in ((late, "3"), (below, "1"), (early, "2"))
        }
        ids = [own[below], own[early], own[late]]
        titles = {id: bench.project.sheets[id].number for id in ids}
        for project in (bench.project, reordered(bench.project, 0), reordered(bench.project, 1)):
            self.assertEqual(
                [(b.level, b.title) for b in bookmarks(project, ids, titles.__getitem__)],
                [(0, "=B"), (1, "2"), (1, "=C"), (2, "1"), (0, "=A"), (1, "3")],
            )

    @given(st.text(max_size=30))
    def test_every_text_comes_in_pieces_that_their_face_can_set(self, words: str) -> None:
        use_fonts(FONTS)
        pieces = runs(words, SANS)
        self.assertEqual("".join(piece for _, piece in pieces) == words or "[U+" in "".join(p for _, p in pieces), True)
        for face, piece in pieces if not words.isascii() else ():
            known = pdfmetrics.getFont(face).face.charToGlyph  # type: ignore[attr-defined]  # a TrueType font
            self.assertTrue(all(ord(letter) in known for letter in piece), (face, piece))
        self.assertGreaterEqual(text_width(words, SANS, 8.0), 0.0)


WRITER = """
import hashlib, io, json, sys, zipfile
from pathlib import Path
from jolly_core.exchange import read_project, write_pack
project = read_project(Path(sys.argv[1]).read_bytes())
content = write_pack(project, Path(sys.argv[2]))
files = zipfile.ZipFile(io.BytesIO(content))
found = {name: hashlib.sha256(files.read(name)).hexdigest() for name in files.namelist()}
found["the pack"] = hashlib.sha256(content).hexdigest()
print(json.dumps(found))
"""


class Bytes(TestCase):
    def test_equal_projects_give_equal_bytes_in_every_file_and_process(self) -> None:
        # Another process, which puts sets in another order and lives in another time zone than this one: that of this
        # one is another at each run.
        seed = "1"
        done = subprocess.run(
            [sys.executable, "-c", WRITER, str(DEMO / "pellwick-kiln-2.spool.json"), str(FONTS)],
            env={**os.environ, "PYTHONHASHSEED": seed, "TZ": "Asia/Tokyo"},
            cwd=ROOT,
            capture_output=True,
            check=True,
            text=True,
        )
        content = write_pack(demo(), FONTS)
        files = zipfile.ZipFile(io.BytesIO(content))
        here = {name: hashlib.sha256(files.read(name)).hexdigest() for name in files.namelist()}
        there = json.loads(done.stdout)
        self.assertEqual([name for name in here if there.get(name) != here[name]], [])
        self.assertEqual(there, {**here, "the pack": hashlib.sha256(content).hexdigest()})
        kinds = {name.rpartition(".")[2] for name in here}
        self.assertTrue(kinds >= {"pdf", "dxf", "xlsx", "csv", "json"}, kinds)

    def test_a_drawing_for_other_programs_does_not_depend_on_the_order_of_sets(self) -> None:
        script = "from jolly_core.exchange.dxffile import *; import sys; d = new_document(); "
        script += "sys.stdout.buffer.write(dxf_bytes(d, 100, 50))"
        found = {
            subprocess.run(
                [sys.executable, "-c", script],
                env={**os.environ, "PYTHONHASHSEED": seed},
                cwd=ROOT,
                capture_output=True,
                check=True,
            ).stdout
            for seed in ("1", "4", "9")  # some put the classes that the library adds in another order
        }
        self.assertEqual(len(found), 1)
        self.assertIn(b"ACDBPLACEHOLDER", found.pop())
