"""The list of projects: presets, starting points, copies, archive and bin, files in, small pictures."""

from __future__ import annotations

import json
from dataclasses import fields
from typing import Any
from xml.etree import ElementTree

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from jolly_core.exchange import write_project
from jolly_server.projects.models import ProjectRow
from jolly_server.projects.store import load_rows
from jolly_server.testing import KILN, DemoCase


class ProjectCase(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")

    def listed(self, client: Client, **query: str) -> list[str]:
        return [p["id"] for p in client.get("/api/projects", query).json()]

    def made(self, **values: Any) -> str:
        response = self.post(self.anna, "/projects", {"name": "Dryer", **values})
        self.assertEqual(response.status_code, 200, response.content)
        return str(response.json()["id"])


class Making(ProjectCase):
    def test_each_preset_has_its_habits(self) -> None:
        iec = load_rows(self.made(standard="iec", number="P-1", customer="Pellwick Maltings"))
        self.assertEqual((iec.settings.number, iec.settings.customer), ("P-1", "Pellwick Maltings"))
        self.assertEqual((iec.settings.tag_habit, iec.settings.length_unit), ("iec", "mm"))
        na = load_rows(self.made(standard="na"))
        (sheet,) = na.sheets.values()
        self.assertEqual((sheet.size, sheet.ladders), ("ANSI B", 2))
        self.assertEqual((na.settings.tag_habit, na.settings.length_unit), ("line", "in"))
        self.assertTrue(all(t.awg for t in na.wire_types.values()))
        mm = [getattr(na.settings, f.name) for f in fields(na.settings) if f.name.endswith("_mm")]
        self.assertTrue(all(round(length / 25.4 * 4, 6).is_integer() for length in mm), "to a quarter of an inch")
        self.assertEqual({s.side for s in na.locations.values()}, {"panel", "door", "field"})

    def test_from_a_starting_point_come_the_habits_and_nothing_that_was_drawn(self) -> None:
        self.assertEqual(self.anna.get("/api/projects/starters").json(), [])
        self.post(self.anna, f"/projects/{KILN}/starter", {"starter": True})
        self.assertEqual([s["id"] for s in self.anna.get("/api/projects/starters").json()], [KILN])
        made = load_rows(self.made(start_from=KILN, name="Kiln 3", number="PM-9"))
        kiln = self.stored()
        self.assertEqual((made.settings.name, made.settings.number, made.settings.revision), ("Kiln 3", "PM-9", "A"))
        self.assertEqual(made.settings.issued_on, "", "dates of the old project are not those of the new one")
        for kind in ("title_block", "title_cell", "picture", "wire_type", "location", "function", "sheet_habit"):
            self.assertEqual(made.tables[kind], kiln.tables[kind], kind)
        for kind in ("device", "symbol", "wire", "cable", "enclosure", "harness", "part"):
            self.assertEqual(made.tables[kind], {} if kind != "wire" else made.tables[kind], kind)
        self.assertEqual(
            [s.kind for s in made.sheets_in_order()], ["cover", "contents", "data", "report", "report", "schematic"]
        )

    def test_nobody_starts_from_a_project_they_may_not_read(self) -> None:
        response = self.post(self.person("ruth"), "/projects", {"name": "Mine", "start_from": KILN})
        self.assertEqual(response.status_code, 404)
        self.assertEqual(self.listed(self.person("ruth")), [])

    def test_a_name_is_needed(self) -> None:
        for body in ({"name": "  "}, {"name": "a\x00b"}):
            self.assertIn(self.post(self.anna, "/projects", body).status_code, (400, 422))

    def test_a_copy_is_whole_and_the_persons_own(self) -> None:
        response = self.post(self.person("vera"), f"/projects/{KILN}/copy", {"name": "Kiln 2, trial"})
        copy = response.json()["id"]
        self.assertEqual(self.listed(self.person("vera"), q="trial"), [copy])
        self.assertEqual(self.listed(self.anna, q="trial"), [])
        made, kiln = load_rows(copy), self.stored()
        self.assertEqual(made.settings.name, "Kiln 2, trial")
        self.assertEqual(
            [e for k, e in made.entities() if k != "settings"], [e for k, e in kiln.entities() if k != "settings"]
        )
        self.accepted(self.person("vera"), copy, kind="change-settings", site="elsewhere")


class Listing(ProjectCase):
    def test_search_by_number_name_customer_and_site(self) -> None:
        for q, wanted in (
            ("pm-0417", [KILN]),
            ("dehumidifier", ["dehumidifier"]),
            ("pellwick kiln", [KILN]),
            ("sample store", ["dehumidifier"]),
            ("nothing", []),
        ):
            self.assertEqual(self.listed(self.anna, q=q), wanted, q)
        self.assertEqual(set(self.listed(self.anna)), {KILN, "dehumidifier"})

    def test_a_line_says_revision_and_who_edited_last(self) -> None:
        self.accepted(self.person("jory"), kind="change-settings", site="Kiln house")
        line = self.anna.get("/api/projects").json()[0]
        self.assertEqual((line["id"], line["edited_by"], line["issue"]), (KILN, "Jory Brand", "B"))

    def test_archived_is_read_only_and_binned_can_be_restored_or_deleted_for_good(self) -> None:
        def put(state: str) -> None:
            response = self.post(self.anna, f"/projects/{KILN}/state", {"state": state})
            self.assertEqual(response.status_code, 200)

        put("archived")
        self.assertNotIn(KILN, self.listed(self.anna))
        self.assertEqual(self.listed(self.anna, state="archived"), [KILN])
        refused = self.edit(self.anna, kind="change-settings", site="x")
        self.assertEqual(refused.status_code, 403)
        self.assertIn("archived", refused.json()["message"])
        self.assertEqual(self.anna.get(f"/api/projects/{KILN}/file").status_code, 200)
        put("open")
        self.accepted(self.anna, kind="change-settings", site="x")
        refused = self.post(self.anna, f"/projects/{KILN}/delete", {})
        self.assertEqual(refused.status_code, 422)
        put("binned")
        self.assertEqual(self.listed(self.anna, state="binned"), [KILN])
        put("open")
        self.assertIn(KILN, self.listed(self.anna))
        put("binned")
        self.assertEqual(self.post(self.anna, f"/projects/{KILN}/delete", {}).status_code, 200)
        self.assertFalse(ProjectRow.objects.filter(pk=KILN).exists())
        self.assertEqual(self.anna.get(f"/api/projects/{KILN}").status_code, 404)


class Files(ProjectCase):
    def take(self, content: bytes) -> Any:
        return self.anna.post("/api/projects/import", {"file": SimpleUploadedFile("p.spool.json", content)})

    def test_a_file_goes_out_and_in_with_sheets_blocks_and_pictures_and_a_summary(self) -> None:
        content = self.anna.get(f"/api/projects/{KILN}/file").content
        taken = self.take(content).json()
        self.assertEqual((taken["name"], taken["version"]), ("Kiln 2", 15))
        self.assertEqual((taken["counts"]["sheet"], taken["counts"]["picture"]), (31, 1))
        self.assertEqual(write_project(load_rows(taken["id"])).encode(), content)
        for name in (b"anna", b"Anna", b"jory", b"vera", b"Holt"):
            self.assertNotIn(name, content, "the people of a project are not in its file")

    def test_nothing_is_taken_in_of_a_file_with_one_fault(self) -> None:
        raw = json.loads(self.anna.get(f"/api/projects/{KILN}/file").content)
        raw["entities"]["title_cell"][-1]["block_id"] = "gone"
        before = ProjectRow.objects.count()
        response = self.take(json.dumps(raw).encode())
        self.assertEqual(response.status_code, 400)
        self.assertIn("names a title_block gone", response.json()["message"])
        self.assertEqual(ProjectRow.objects.count(), before)


class Thumbnails(ProjectCase):
    def picture(self, client: Client, **headers: str) -> Any:
        return client.get(f"/api/projects/{KILN}/thumbnail.svg", headers=headers)

    def texts(self, client: Client) -> list[str]:
        root = ElementTree.fromstring(self.picture(client).content)
        return [e.text or "" for e in root.iter("{http://www.w3.org/2000/svg}text")]

    def test_it_shows_the_sheet_each_person_saw_last(self) -> None:
        self.assertIn("Loading auger, power", self.texts(self.anna))
        self.anna.get(f"/api/projects/{KILN}/sheets/{self.sheet('30')}/view")
        self.assertIn("Loading auger, control", self.texts(self.anna))
        self.anna.get(f"/api/projects/{KILN}/changes?since=0")
        self.assertIn("Loading auger, control", self.texts(self.anna), "another bench since then shows no sheet")
        self.assertIn("Loading auger, power", self.texts(self.person("vera")))

    def test_it_is_sent_again_only_when_it_is_another(self) -> None:
        first = self.picture(self.anna)
        self.assertEqual(first["Content-Type"], "image/svg+xml")
        self.assertEqual(self.picture(self.anna, **{"If-None-Match": first["ETag"]}).status_code, 304)
        self.accepted(self.anna, kind="change-settings", name="Kiln two")
        self.assertEqual(self.picture(self.anna, **{"If-None-Match": first["ETag"]}).status_code, 200)

    def test_a_project_without_sheets_has_an_empty_one(self) -> None:
        id = self.made()
        (sheet,) = load_rows(id).sheets
        self.accepted(self.anna, id, kind="delete-sheet", sheet_id=sheet)
        self.assertEqual(self.anna.get(f"/api/projects/{id}/thumbnail.svg").status_code, 200)
