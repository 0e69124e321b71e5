"""The work list as a file: what is to be done at the bench, place by place, with who has done it, in every format."""

from __future__ import annotations

import csv
import io
import json
from unittest import TestCase

import openpyxl
from pypdf import PdfReader

from jolly_core.comparing import Job, difference, work_list
from jolly_core.exchange import read_project, write_work_list
from jolly_core.exchange.lists import LIST_FORMATS
from jolly_core.model import Project
from jolly_core.testing import DEMO, FONTS, Workbench

HEADINGS = ["Place", "Do", "What", "From", "To", "Now to", "Type or part", "Done"]


class WorkFile(TestCase):
    """A terminal renumbered in the dehumidifier, and the relabelling it asks for."""

    def setUp(self) -> None:
        content = (DEMO / "sample-store-dehumidifier.spool.json").read_bytes()
        before = read_project(content)
        bench = Workbench()
        bench.project = self.project = read_project(content)
        device = next(d for d in self.project.devices.values() if d.text)
        bench.do("set-text", device_id=device.id, text="Renamed at the bench, with a longer text than before")
        symbol = next(s for s in self.project.symbols.values() if s.device_id == device.id)
        self.assertTrue(symbol)
        fixed = next(w for w in self.project.wires.values() if self.project.wire_types[w.type_id].numbered)
        bench.do("fix-wire-number", wire_id=fixed.id, number="777")
        self.jobs = work_list(difference(before, self.project))
        self.assertGreater(len(self.jobs), 1)

    def written(self, format: str, jobs: list[Job], by: str = "", project: Project | None = None) -> bytes:
        listed = [(job, by) for job in jobs]
        return write_work_list(project or self.project, listed, "revision A", format, FONTS)

    def test_as_csv_it_has_a_line_for_each_job_in_their_order(self) -> None:
        rows = list(csv.reader(io.StringIO(self.written("csv", self.jobs, "Anna").decode("utf-8-sig"))))
        start = next(n for n, row in enumerate(rows) if row[: len(HEADINGS)] == HEADINGS)
        found = rows[start + 1 :]
        wanted = [[j.place, j.act, j.what, j.start, j.end, j.now_to, j.kind, "Anna"] for j in self.jobs]
        self.assertEqual(wanted, [row[: len(HEADINGS)] for row in found if any(row)][: len(wanted)])

    def test_as_xlsx_it_can_be_filtered_and_says_since_when(self) -> None:
        book = openpyxl.load_workbook(io.BytesIO(self.written("xlsx", self.jobs)))
        page = book.worksheets[0]
        cells = [[str(cell.value or "") for cell in row] for row in page.iter_rows()]
        words = " ".join(" ".join(row) for row in cells)
        heads = page.oddHeader
        assert heads is not None
        said = [part.text or "" for part in (heads.left, heads.center, heads.right) if part is not None]
        self.assertIn("revision A", " ".join(said))
        for job in self.jobs:
            self.assertIn(job.what, words)
        self.assertTrue(page.auto_filter.ref)
        self.assertTrue(page.freeze_panes)

    def test_as_pdf_it_can_be_printed_and_as_json_be_read_by_programs(self) -> None:
        text = "\n".join(p.extract_text() for p in PdfReader(io.BytesIO(self.written("pdf", self.jobs))).pages)
        self.assertIn("Work list", text)
        self.assertIn("Since revision A", text)
        for job in self.jobs[:5]:
            self.assertIn(job.act, text)
        read = json.loads(self.written("json", self.jobs))
        self.assertIn(self.jobs[0].what, json.dumps(read, ensure_ascii=False))

    def test_nothing_to_do_is_said_in_every_format(self) -> None:
        for format in LIST_FORMATS:
            content = self.written(format, [])
            self.assertTrue(content)
            if format == "pdf":
                text = "".join(p.extract_text() for p in PdfReader(io.BytesIO(content)).pages)
                self.assertIn("There is nothing to do at the bench.", text)
