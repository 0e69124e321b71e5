"""Documents over HTTP."""

from __future__ import annotations

import io
import json

from django.core.files.uploadedfile import SimpleUploadedFile
from openpyxl import load_workbook
from pypdf import PdfReader

from jolly_core.reports import REPORTS
from jolly_server.testing import KILN, DemoCase


class Issuing(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.vera = self.person("vera")

    def test_reports_are_listed_with_their_help_and_rows(self) -> None:
        listed = self.vera.get(f"/api/projects/{KILN}/reports").json()
        self.assertEqual({r["key"] for r in listed}, set(REPORTS))
        self.assertTrue(all(r["help"] for r in listed))
        rows = self.vera.get(f"/api/projects/{KILN}/reports/parts/rows").json()
        self.assertEqual(len(rows["columns"]), len(rows["rows"][0]))

    def test_each_format_comes_as_a_file_of_its_type(self) -> None:
        for format, start in (("csv", b"\xef\xbb\xbf"), ("xlsx", b"PK"), ("pdf", b"%PDF-"), ("json", b"[")):
            answer = self.vera.get(f"/api/projects/{KILN}/reports/wires/{format}")
            self.assertTrue(answer.content.startswith(start), format)
            self.assertIn(f'filename="PM-0417-wires.{format}"', answer["Content-Disposition"])
        book = load_workbook(io.BytesIO(self.vera.get(f"/api/projects/{KILN}/reports/parts/xlsx").content))
        tags = [str(row[7]) for row in book.active.iter_rows(values_only=True)]  # type: ignore[union-attr]  # it is there
        self.assertIn("=K2+KP2-QA1", tags)

    def test_what_changed_since_an_earlier_file_is_said_and_nothing_taken_in(self) -> None:
        address = f"/api/projects/{KILN}/what-changed"
        earlier = self.vera.get(f"/api/projects/{KILN}/file").content
        same = self.vera.post(address, {"file": SimpleUploadedFile("a.json", earlier)}).json()
        self.assertEqual((same["changes"], same["sheets"], same["work"]), ([], [], []))
        self.assertIn("PM-0417", same["since"])
        device = next(d for d in json.loads(earlier)["entities"]["device"] if d["fixed_tag"])
        edit = {"kind": "set-tag", "device_id": device["id"], "tag": "ZZ9"}
        said = self.post(self.person("jory"), f"/projects/{KILN}/edits", {"edit": edit})
        self.assertEqual(said.status_code, 200, said.content)
        found = self.vera.post(address, {"file": SimpleUploadedFile("a.json", earlier)}).json()
        self.assertEqual([(c["kind"], c["act"]) for c in found["changes"]], [("device", "changed")])
        self.assertIn("now", found["changes"][0]["words"])
        self.assertEqual({j["act"] for j in found["work"]}, {"relabel"})
        own, ends = ([j["now_to"] for j in found["work"] if bool(j["start"]) == at_wire] for at_wire in (False, True))
        self.assertEqual([name[-3:] for name in own], ["ZZ9"])
        self.assertGreater(len(ends), 10, "the labels of the wires that end at it")
        self.assertTrue(all("-ZZ9:" in label for label in ends), ends)
        for content in (b"{}", b"["):
            refused = self.vera.post(address, {"file": SimpleUploadedFile("b.json", content)})
            self.assertEqual((refused.status_code, refused.json()["code"]), (400, "bad-file"))

    def test_unknown_reports_and_formats_are_refused(self) -> None:
        self.assertEqual(self.vera.get(f"/api/projects/{KILN}/reports/rocket/csv").status_code, 422)
        self.assertEqual(self.vera.get(f"/api/projects/{KILN}/reports/parts/doc").status_code, 404)
        self.assertEqual(self.vera.get(f"/api/projects/{KILN}/drawing.pdf?sheet_id=zz").status_code, 404)

    def test_one_sheet_or_all(self) -> None:
        whole = self.vera.get(f"/api/projects/{KILN}/drawing.pdf")
        self.assertEqual(len(PdfReader(io.BytesIO(whole.content)).pages), 49)
        one = self.vera.get(f"/api/projects/{KILN}/drawing.pdf?sheet_id={self.sheet('30')}")
        reader = PdfReader(io.BytesIO(one.content))
        self.assertEqual(len(reader.pages), 1)
        self.assertIn("PM-0417-sheet-30.pdf", one["Content-Disposition"])
        self.assertIn("Auger run", reader.pages[0].extract_text())
        all_of_it = self.vera.get(f"/api/projects/{KILN}/drawing.pdf", {"plans": True})
        self.assertGreater(len(PdfReader(io.BytesIO(all_of_it.content)).pages), 49)

    def test_a_sheet_for_other_programs(self) -> None:
        for format, begin in (("dxf", b"  0\nSECTION"), ("svg", b"<svg ")):
            answer = self.vera.get(f"/api/projects/{KILN}/drawing.{format}", {"sheet_id": self.sheet("30")})
            self.assertEqual(answer.content[: len(begin)], begin)
            self.assertIn(f"PM-0417-sheet-30.{format}", answer["Content-Disposition"])
            self.assertIn(b"Auger run", answer.content)
            gone = self.vera.get(f"/api/projects/{KILN}/drawing.{format}", {"sheet_id": "zz"})
            self.assertEqual(gone.status_code, 404)
