"""One act issues a project; each file of it is opened as another program would, and says what the drawings say."""

from __future__ import annotations

import csv
import io
import json
import zipfile
from functools import cache
from typing import Any
from unittest import TestCase
from xml.etree import ElementTree

from openpyxl import load_workbook
from pypdf import PdfReader

from jolly_core.exchange import (
    everything_pack,
    named_files,
    pack_files,
    read_project,
    scenes_dxf,
    written,
    zipped,
)
from jolly_core.exchange.filenames import safe
from jolly_core.model import Pack, Project
from jolly_core.reports import run_report
from jolly_core.scenes import leaves_of
from jolly_core.testing import DEMO, FONTS

from .reading import page_texts, read_dxf

MORE = (
    {"what": "set", "format": "pdf"},
    {"what": "sheets", "format": "dxf"},
    {"what": "sheets", "format": "svg"},
    {"what": "report:wires", "format": "xlsx"},
    {"what": "project-file"},
)


@cache
def demos() -> list[Project]:
    return [read_project(file.read_bytes()) for file in sorted(DEMO.glob("*.spool.json"))]


def whole_pack(project: Project) -> Pack:
    """Return everything, and what is not in that by itself."""
    return Pack("p", "Whole", (*everything_pack(project).files, *MORE), "{kind}")


@cache
def issued(n: int) -> dict[str, bytes]:
    project = demos()[n]
    archive = zipfile.ZipFile(io.BytesIO(zipped(pack_files(project, FONTS, whole_pack(project)))))
    return {name: archive.read(name) for name in archive.namelist()}


class Issued(TestCase):
    def each(self, ending: str) -> list[tuple[Project, str, bytes]]:
        """Return the files of an ending of both demos, with their project."""
        found = [(demos()[n], name, c) for n in range(2) for name, c in issued(n).items() if name.endswith(ending)]
        self.assertGreater(len(found), 1, ending)
        return found

    def test_no_page_of_any_pdf_is_blank_and_the_contents_name_every_file(self) -> None:
        for _, name, content in self.each(".pdf"):
            for text in page_texts(content):
                self.assertGreater(len(text), 20, name)
        for n in range(2):
            first, *others = issued(n)
            words = " ".join(page_texts(issued(n)[first]))
            flat = "".join(words.split())
            self.assertEqual([name for name in others if name not in flat], [])

    def test_every_font_of_every_pdf_is_embedded(self) -> None:
        for _, name, content in self.each(".pdf"):
            fonts = set()
            for page in PdfReader(io.BytesIO(content)).pages:
                resources: Any = page["/Resources"].get_object()
                for held in resources.get("/Font", {}).values():
                    font = held.get_object()
                    fonts.add((str(font["/BaseFont"]), "/FontFile2" in font.get("/FontDescriptor", {})))
            self.assertTrue(fonts, name)
            self.assertEqual([font for font, embedded in fonts if not embedded], [], name)

    def test_files_count_their_pages_and_rows_as_they_are(self) -> None:
        for n, project in enumerate(demos()):
            for file in written(project, whole_pack(project), FONTS, issued(n)):
                content = issued(n)[file.name]
                if file.pages:
                    self.assertEqual(file.pages, len(PdfReader(io.BytesIO(content)).pages), file.name)
                if file.rows and file.name.endswith(".csv"):
                    rows = list(csv.reader(io.StringIO(content.decode("utf-8-sig"))))
                    self.assertEqual(len(rows) - 1, file.rows, file.name)
                    self.assertEqual({len(row) for row in rows}, {len(rows[0])}, file.name)

    def test_workbooks_have_the_rows_of_their_reports(self) -> None:
        for project, name, content in self.each(".xlsx"):
            page = load_workbook(io.BytesIO(content)).worksheets[0]
            key = {"parts-list": "parts", "wire-list": "wires", "io-list": "io"}[name.removesuffix(".xlsx")]
            table = run_report(project, key)
            heads = [c.value for c in page[1]][: len(table.columns)]
            self.assertEqual(heads, [c.heading for c in table.columns])
            for cells, row in zip(page.iter_rows(min_row=2), table.rows, strict=False):
                for cell, value in zip(cells, row, strict=False):
                    if isinstance(value, float | int):
                        self.assertEqual(cell.value, value, f"{name} {cell.coordinate}")

    def test_drawings_for_other_programs_are_read_with_nothing_to_mend(self) -> None:
        for project, name, content in self.each(".dxf"):
            sheets = {f"sheet-{safe(s.number)}.dxf": s.id for s in project.sheets_in_order()}
            if name in sheets:  # `test_sheetfiles` reads each of them; the pack writes them as it does
                if not (number := list(sheets).index(name)) or number % 4 == 3:
                    self.assertEqual(content, scenes_dxf(project, leaves_of(project, sheets[name])), name)
            else:
                read_dxf(self, content)
        for _, name, content in self.each(".svg"):
            root = ElementTree.fromstring(content)
            self.assertTrue(root.get("viewBox") and list(root.iter("{http://www.w3.org/2000/svg}text")), name)

    def test_machine_files_are_json_and_the_project_file_is_the_project(self) -> None:
        for project, name, content in self.each(".json"):
            found = json.loads(content)
            if name.endswith(".spool.json"):
                self.assertEqual(list(read_project(content).entities()), list(project.entities()))
            else:
                self.assertEqual(len(found["wires"]), len([r for r in run_report(project, "cut").rows if not r[-1]]))

    def test_every_number_of_the_wire_list_stands_on_the_drawing_it_names(self) -> None:
        for n in range(2):
            labels = PdfReader(io.BytesIO(issued(n)["set.pdf"])).page_labels
            pages = dict(zip(labels, page_texts(issued(n)["set.pdf"]), strict=True))
            rows = list(csv.DictReader(io.StringIO(issued(n)["wire-list.csv"].decode("utf-8-sig"))))
            drawn = [r for r in rows if r["Number"] and r["Sheet.line"]]
            self.assertGreater(len(drawn), 50)
            for row in drawn:
                sheet = row["Sheet.line"].partition("/")[0].partition(".")[0]
                self.assertIn(row["Number"], pages[sheet].split(), f"sheet {sheet}: {row}")

    def test_issued_again_it_has_the_same_bytes(self) -> None:
        project = read_project((sorted(DEMO.glob("*.spool.json"))[1]).read_bytes())
        again = pack_files(project, FONTS, whole_pack(project))
        self.assertEqual(again, issued(1))
        self.assertEqual(len(again), len(named_files(project, whole_pack(project), FONTS)) + 1)
