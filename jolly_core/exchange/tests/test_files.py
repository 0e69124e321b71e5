"""Project file, tables, PDF."""

from __future__ import annotations

import csv
import io
import json
from pathlib import Path
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from jsonschema import Draft202012Validator
from openpyxl import load_workbook
from pypdf import PdfReader

from jolly_core.exchange import harmless, read_project, sheets_pdf, table_pdf, table_xlsx, write_list, write_project
from jolly_core.model import FileError, Project
from jolly_core.reports import REPORTS, Column, Table, plain_recipe, run_report
from jolly_core.testing import DEMO, FONTS, Workbench

ROOT = Path(__file__).resolve().parents[3]


PICTURE = {"id": "p", "name": "Logo", "media_type": "image/png", "width_px": 1, "height_px": 1, "data": ""}


def demo() -> Project:
    return read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())


class ProjectFile(TestCase):
    def test_out_and_in_again_is_equal(self) -> None:
        project = demo()
        text = write_project(project)
        again = read_project(text)
        self.assertEqual(list(again.entities()), list(project.entities()))
        self.assertEqual(write_project(again), text)

    def test_the_demo_file_is_in_canonical_order_and_holds_the_schema(self) -> None:
        text = (DEMO / "pellwick-kiln-2.spool.json").read_text(encoding="utf-8")
        self.assertEqual(write_project(demo()), text)
        schema = json.loads((ROOT / "docs" / "formats" / "project-15.schema.json").read_text(encoding="utf-8"))
        Draft202012Validator.check_schema(schema)
        Draft202012Validator(schema).validate(json.loads(text))
        schema = json.loads((ROOT / "docs" / "formats" / "library-1.schema.json").read_text(encoding="utf-8"))
        library = json.loads((DEMO / "library.json").read_text(encoding="utf-8"))
        Draft202012Validator(schema).validate(library)
        library["parts"][0]["members"] = [["coil", ["A1"]]]
        self.assertFalse(Draft202012Validator(schema).is_valid(library))

    def test_a_file_of_version_1_is_brought_up_and_only_as_far_as_it_must(self) -> None:
        old = json.loads((Path(__file__).parent / "version-1.spool.json").read_text(encoding="utf-8"))
        schema = json.loads((ROOT / "docs" / "formats" / "project-1.schema.json").read_text(encoding="utf-8"))
        Draft202012Validator(schema).validate(old)
        project = read_project(json.dumps(old))
        self.assertEqual({s.number: s.kind for s in project.sheets.values()}, {"1": "schematic", "2": "schematic"})
        self.assertEqual({s.number: s.size for s in project.sheets.values()}, {"1": "A4", "2": "A3"})
        text = write_project(project)
        self.assertEqual(json.loads(text)["version"], 15)
        new = json.loads(text)["entities"]
        for kind, records in old["entities"].items():
            for was, now in zip(records, new[kind], strict=True):
                changed = {n for n, v in was.items() if now[n] != v}
                self.assertLessEqual(changed, {"kind", "size"}, kind)

    def test_faults_are_named(self) -> None:
        good = json.loads(write_project(demo()))
        device = good["entities"]["device"][0]["id"]

        def faulty(change: Any) -> str:
            raw = json.loads(json.dumps(good))
            change(raw)
            return json.dumps(raw)

        def in_a_circle(raw: Any) -> None:
            one, other = raw["entities"]["function"][:2]
            one["parent_id"], other["parent_id"] = other["id"], one["id"]

        cases: list[tuple[Any, str]] = [
            ("not json", "not JSON"),
            ("[1, 2]", "not a Jolly Spool project file"),
            ("{}", "not a Jolly Spool project file"),
            (faulty(lambda r: r.update(version=99)), "version 99"),
            (faulty(lambda r: r["entities"].update(rocket=[])), "rocket"),
            (faulty(lambda r: r["entities"]["device"][0].update(text=7)), f"device {device}.*text"),
            (faulty(lambda r: r["entities"]["device"][0].update(text="a\x00b")), "cannot be printed"),
            (faulty(lambda r: r["entities"]["device"][0].update(extra=1)), "extra"),
            (faulty(lambda r: r["entities"]["wire"][0].pop("x1")), "lacks the field “x1”"),
            (faulty(lambda r: r["entities"]["symbol"][0].update(device_id="zz")), "device zz"),
            (faulty(lambda r: r["entities"]["symbol"][0].update(definition="warp")), "warp"),
            (faulty(lambda r: r["entities"]["wire"][0].update(x2=999)), "canonical|horizontally"),
            (faulty(lambda r: r["entities"]["sheet"].append(r["entities"]["sheet"][0])), "same id"),
            (faulty(lambda r: r["entities"]["sheet"][0].update(kind="poster")), "kind” should be one of schematic"),
            (faulty(lambda r: r["entities"]["sheet"][0].update(columns=0)), "columns” should be from 1 to 40"),
            (faulty(lambda r: r["entities"]["sheet"][0].update(fields={"a": 1})), "object of texts"),
            (faulty(lambda r: r["entities"].update(picture=[PICTURE | {"data": "?"}])), "should be base64"),
            (faulty(lambda r: r["entities"]["wire"][0].update(x1=10**30)), "x1” should be from -200 to 2000 grid"),
            (faulty(lambda r: r["entities"]["part"][0].update(width_mm=float("nan"))), "width_mm” should be from 0 to"),
            (faulty(lambda r: r["entities"]["rail"][0].update(x2=1e9)), "x2” should be from -20000 to 20000 mm"),
            (faulty(lambda r: r["entities"]["sheet"][0].update(columns=10**8)), "columns” should be from 1 to 40"),
            (faulty(lambda r: r["entities"]["part"][0].update(units=[["no", ["13"]]] * 300_000)), "more than 400"),
            (faulty(lambda r: r["entities"]["picture"][0].update(data="")), "not a PNG or JPEG"),
            (faulty(lambda r: r["entities"]["card"][0].update(start="99999999999.9")), "start” should be an address"),
            (faulty(in_a_circle), "names itself by its “parent_id”"),
            ("null", "not a Jolly"),
        ]
        for text, words in cases:
            with self.subTest(words), self.assertRaisesRegex(FileError, words):
                read_project(text)

    @given(st.binary(max_size=60))
    def test_any_bytes_are_refused_with_words(self, data: bytes) -> None:
        with self.assertRaises(FileError):
            read_project(data)


class Tables(TestCase):
    def test_formula_like_texts_are_neutralised(self) -> None:
        self.assertEqual(
            [harmless(c) for c in ("=A1", "-QA1", "+1", "@x", "ok", 5)], ["'=A1", "'-QA1", "'+1", "'@x", "ok", 5]
        )
        table = Table("T", (Column("a", "A"),), [("=1+1",), ("-QA1",)])
        sheet = load_workbook(io.BytesIO(table_xlsx(table))).active
        self.assertIsNotNone(sheet)
        self.assertEqual([c.data_type for c in sheet["A"][1:]], ["s", "s"])  # type: ignore[index]  # it is there
        self.assertEqual(sheet["A2"].value, "=1+1")  # type: ignore[index]  # it is there

    def test_every_report_comes_in_every_format_with_the_same_rows(self) -> None:
        project = demo()
        for key, report in REPORTS.items():
            with self.subTest(key):
                self.assertTrue(report.help)
                table = run_report(project, key)
                self.assertTrue(all(len(row) == len(table.columns) for row in table.rows))
                recipe = plain_recipe(key)
                rows = list(csv.reader(io.StringIO(write_list(project, recipe, "csv", FONTS).decode("utf-8-sig"))))
                self.assertEqual(len(rows), len(table.rows) + 1)
                self.assertEqual(rows[0], [c.heading for c in table.columns])
                self.assertEqual(len(json.loads(write_list(project, recipe, "json", FONTS))), len(table.rows))
                book = load_workbook(io.BytesIO(write_list(project, recipe, "xlsx", FONTS)))
                self.assertEqual(book.active.max_row - len(table.foot) - bool(table.foot), len(table.rows) + 1)  # type: ignore[union-attr]  # it is there

    def test_the_pdf_table_pages_and_keeps_its_letters(self) -> None:
        table = Table("Wires Ω µ é ß Ł", (Column("a", "Number"),), [(f"row {i}",) for i in range(80)])
        reader = PdfReader(io.BytesIO(table_pdf(table, "Kiln", FONTS)))
        self.assertEqual(len(reader.pages), 3)
        text = "".join(page.extract_text() for page in reader.pages)
        self.assertIn("Ω µ é ß Ł", text)
        self.assertIn("row 79", text)


class SheetPdf(TestCase):
    def test_the_control_sheet_holds_all_that_a_person_reads(self) -> None:
        project = demo()
        ids = [s.id for s in project.sheets_in_order()]
        reader = PdfReader(io.BytesIO(sheets_pdf(project, ids, FONTS)))
        self.assertEqual(
            len(reader.pages),
            len(ids) + 18,
            "the list of parts is long, and the layout has leaves for plate, door, balloons and holes",
        )
        self.assertEqual(reader.page_labels[:4], ["1", "2.1", "2.2", "3.1"])
        text = next(t for p in reader.pages if "Loading auger, control" in (t := p.extract_text()) and "301" in t)
        for words in (
            "301",
            "-QA1",
            "3012",
            "13-14",
            "Auger running",
            "Pellwick, kiln house",
            "Loading auger, control",
            "12 of 49",
        ):
            self.assertIn(words, text)
        box = reader.pages[1].mediabox
        self.assertAlmostEqual(float(box.width) / 72 * 25.4, 297, places=1)
        self.assertTrue(reader.pages[1].get("/Annots"), "references are links")

    def test_a_symbol_is_drawn_once_as_a_form(self) -> None:
        bench = Workbench(rails=True)
        for line in range(5):
            bench.place("lamp", 40, 16 + 9 * line)
        page = PdfReader(io.BytesIO(sheets_pdf(bench.project, [bench.sheet], FONTS))).pages[0]
        forms = [n for n in page["/Resources"]["/XObject"] if "art" in n]  # type: ignore[index]  # pypdf's dicts
        self.assertEqual(len(forms), 1)
