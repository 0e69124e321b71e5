"""Rows and entities: equal fields, round trip, guards."""

from __future__ import annotations

import io
from dataclasses import replace

from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.test import override_settings

from jolly_core.exchange import write_project
from jolly_core.model import KINDS
from jolly_server.projects.entityrows import EntityRow
from jolly_server.projects.models import ROWS, ProjectRow
from jolly_server.projects.store import forget, load_rows, loaded
from jolly_server.testing import KILN, DemoCase


class Rows(DemoCase):
    def test_every_kind_has_a_row_with_the_same_fields(self) -> None:
        self.assertEqual(set(ROWS), set(KINDS))
        common = {f.name for f in EntityRow._meta.get_fields()} - {"id"}
        for kind, model in ROWS.items():
            names = [f.attname for f in model._meta.concrete_fields if f.name not in common]
            self.assertEqual(sorted(names), sorted(KINDS[kind].fields), kind)

    def test_no_migration_is_missing(self) -> None:
        call_command("makemigrations", check=True, dry_run=True, stdout=io.StringIO())

    def test_opening_and_listing_take_few_queries(self) -> None:
        anna = self.person("anna")
        with self.assertNumQueries(4):
            anna.get("/api/projects")
        forget()
        with self.assertNumQueries(1 + len(ROWS)):
            loaded(KILN)


class ImportAndExport(DemoCase):
    def file(self, content: bytes, name: str = "p.spool.json") -> SimpleUploadedFile:
        return SimpleUploadedFile(name, content, "application/json")

    def test_out_and_in_again_is_equal(self) -> None:
        anna = self.person("anna")
        out = anna.get(f"/api/projects/{KILN}/file")
        self.assertIn("PM-0417.spool.json", out["Content-Disposition"])
        made = anna.post("/api/projects/import", {"file": self.file(out.content)}).json()["id"]
        self.assertNotEqual(made, KILN)
        self.assertEqual(write_project(load_rows(made)).encode(), out.content)

    def test_a_broken_file_is_refused_and_nothing_is_taken_in(self) -> None:
        anna = self.person("anna")
        count = ProjectRow.objects.count()
        for content in (b"", b"PK\x03\x04", b"[]", b'{"format": "jolly-spool-project", "version": 1}'):
            response = anna.post("/api/projects/import", {"file": self.file(content)})
            self.assertEqual((response.status_code, response.json()["code"]), (400, "bad-file"))
        self.assertEqual(ProjectRow.objects.count(), count)

    def test_fifty_megabytes_are_no_edit(self) -> None:
        response = self.person("anna").post(
            f"/api/projects/{KILN}/edits", b"x" * 50_000_000, content_type="application/json"
        )
        self.assertEqual((response.status_code, response.json()["code"]), (413, "too-big"))

    def test_a_project_file_may_be_larger_than_all_else_that_is_sent_up_to_a_limit_of_its_own(self) -> None:
        self.assertGreater(settings.JOLLY.project_limit_bytes, 100_000_000, "2,000 full sheets come in again")
        anna = self.person("anna")
        content = anna.get(f"/api/projects/{KILN}/file").content
        with override_settings(JOLLY=replace(settings.JOLLY, upload_limit_bytes=len(content) // 2)):
            taken = anna.post("/api/projects/import", {"file": self.file(content)})
            self.assertEqual(taken.status_code, 200, taken.content)
            told = anna.post(f"/api/projects/{KILN}/what-changed", {"file": self.file(content)})
            self.assertEqual(told.status_code, 200, told.content)
        count = ProjectRow.objects.count()
        with override_settings(JOLLY=replace(settings.JOLLY, project_limit_bytes=3_000_000)):
            for path in ("/api/projects/import", f"/api/projects/{KILN}/what-changed"):
                refused = anna.post(path, {"file": self.file(b" " * 3_000_001)})
                self.assertEqual(refused.status_code, 413)
                self.assertIn("larger than 3 MB", refused.json()["message"])
        self.assertEqual(ProjectRow.objects.count(), count)

    def test_a_new_project_of_each_standard_is_ready_to_draw_in(self) -> None:
        anna = self.person("anna")
        for standard, colour in (("iec", "BU"), ("na", "RD")):
            made = self.post(anna, "/projects", {"name": f"Dehumidifier {standard}", "standard": standard}).json()["id"]
            outline = anna.get(f"/api/projects/{made}").json()
            self.assertEqual((outline["role"], len(outline["sheets"])), ("owner", 1))
            self.assertEqual(outline["wire_types"][0]["colour"], colour)
            names = {t["id"]: t["name"] for t in outline["wire_types"]}
            buses = {b["label"]: [names[id] for id in b["types"]] for b in outline["buses"]}
            self.assertEqual(buses["L1 L2 L3"], ["Power"] * 3)
            self.assertEqual("L1 L2 L3 N" in buses, standard == "iec", "the usual types of NFPA have no power neutral")
        self.assertEqual(self.post(anna, "/projects", {"name": "  "}).status_code, 422)
        self.assertEqual(self.post(anna, "/projects", {"name": "a\x00"}).status_code, 400)
