"""Packs in the background, frozen revisions and the work list over HTTP."""

from __future__ import annotations

import csv
import hashlib
import io
import json
import subprocess
import tempfile
import zipfile
from dataclasses import replace
from pathlib import Path
from typing import Any
from unittest import mock

from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import CommandError, call_command
from django.test import override_settings
from openpyxl import load_workbook
from pypdf import PdfReader

from jolly_server.issuing import runs
from jolly_server.testing import KILN, DemoCase

BASE = f"/api/projects/{KILN}"


class IssueCase(DemoCase):
    """What is issued goes into a folder of its own."""

    def setUp(self) -> None:
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        away = override_settings(JOLLY=replace(settings.JOLLY, data=Path(folder.name)))
        away.enable()
        self.addCleanup(away.disable)
        self.jory = self.person("jory")
        self.vera = self.person("vera")

    def small_pack(self) -> str:
        files = [{"what": "report:parts", "format": "xlsx"}, {"what": "report:wires", "format": "csv"}]
        return str(self.accepted(self.jory, kind="keep-pack", name="Small", files=files)["placed"][0])

    def ended(self, run_id: str) -> dict[str, Any]:
        """Wait for the process of a run, and return what it says."""
        runs._running[run_id].wait()
        found: dict[str, Any] = self.vera.get(f"{BASE}/pack-runs/{run_id}").json()
        return found


def _words(pdf: bytes) -> str:
    return " ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages)


class PackRuns(IssueCase):
    def test_a_pack_is_written_from_the_state_in_which_it_was_asked_for(self) -> None:
        pack = self.small_pack()
        run = self.post(self.vera, f"/projects/{KILN}/pack-runs", {"pack_id": pack}).json()
        self.assertEqual((run["state"], run["name"], run["by"]), ("running", "Small", "vera"))
        self.accepted(self.jory, kind="change-settings", name="Another name")
        done = self.ended(run["id"])
        self.assertEqual((done["state"], done["why"]), ("done", ""))
        self.assertEqual([f["name"] for f in done["files"]][0], "00-contents.pdf")
        rows = {f["name"]: f["rows"] for f in done["files"]}
        self.assertGreater(rows["PM-0417-B-wire-list.csv"], 300)
        self.assertGreater(rows["PM-0417-B-parts-list.xlsx"], 20)
        self.assertIn("3 snags are muted", [f["words"].partition(":")[0] for f in done["findings"]])
        content = self.vera.get(f"{BASE}/pack-runs/{run['id']}/pack.zip").content
        archive = zipfile.ZipFile(io.BytesIO(content))
        for file in done["files"]:
            self.assertEqual(hashlib.sha256(archive.read(file["name"])).hexdigest(), file["digest"])
        book = load_workbook(io.BytesIO(archive.read("PM-0417-B-parts-list.xlsx")))
        self.assertGreater(book.worksheets[0].max_row, 20)
        again = self.post(self.vera, f"/projects/{KILN}/pack-runs", {"pack_id": pack}).json()
        self.ended(again["id"])
        self.assertEqual(len(self.vera.get(f"{BASE}/pack-runs").json()), 2)

    def test_one_at_a_time_and_it_can_be_cancelled(self) -> None:
        run = self.post(self.vera, f"/projects/{KILN}/pack-runs", {}).json()
        second = self.post(self.vera, f"/projects/{KILN}/pack-runs", {})
        self.assertEqual(second.status_code, 422)
        self.assertIn("is being written", second.json()["message"])
        ended = self.post(self.vera, f"/projects/{KILN}/pack-runs/{run['id']}/cancel", {}).json()
        self.assertEqual(ended["state"], "cancelled")
        self.assertEqual(self.vera.get(f"{BASE}/pack-runs/{run['id']}/pack.zip").status_code, 422)

    def test_a_run_whose_process_is_gone_says_so(self) -> None:
        run = self.post(self.vera, f"/projects/{KILN}/pack-runs", {}).json()
        process: subprocess.Popen[bytes] = runs._running[run["id"]]
        process.kill()
        process.wait()
        self.assertEqual(self.vera.get(f"{BASE}/pack-runs/{run['id']}").json()["state"], "broken off")
        with mock.patch.dict(runs._running, clear=True):
            self.assertEqual(self.vera.get(f"{BASE}/pack-runs").json()[0]["state"], "broken off")

    def test_what_cannot_be_issued_is_refused_before_anything_begins(self) -> None:
        pack = self.accepted(self.jory, kind="keep-pack", name="Wrong", files=[{"what": "rocket"}])["placed"][0]
        answer = self.post(self.vera, f"/projects/{KILN}/pack-runs", {"pack_id": pack})
        self.assertEqual(answer.status_code, 422)
        self.assertIn("cannot hold “rocket”", answer.json()["message"])
        line = next(p for p in self.vera.get(f"{BASE}/packs").json()["packs"] if p["pack"]["id"] == pack)
        self.assertIn("cannot hold", line["problem"])
        self.assertEqual(self.vera.get(f"{BASE}/pack-runs/none").status_code, 404)


class Freezing(IssueCase):
    def freeze(self, index: str, **more: str) -> dict[str, Any]:
        body = {"kind": "freeze-revision", "index": index, "text": f"What {index} is for", **more}
        answer = self.post(self.jory, f"/projects/{KILN}/revisions/freeze", body)
        self.assertEqual(answer.status_code, 200, answer.content)
        found: dict[str, Any] = answer.json()
        return found

    def settled(self, revision_id: str) -> dict[str, Any]:
        """Wait for the papers of a revision."""
        for run_id in list(runs._running):
            self.ended(run_id)
        lines = self.vera.get(f"{BASE}/revisions").json()["revisions"]
        found: dict[str, Any] = next(r for r in lines if r["id"] == revision_id)
        return found

    def frozen_only(self, index: str) -> None:
        """Freeze a revision of which nobody waits for the papers."""
        self.freeze(index)
        runs.end_runs()

    def test_the_project_goes_on_and_the_frozen_papers_stay_byte_for_byte(self) -> None:
        pack = self.small_pack()
        frozen = self.freeze("B")["revisions"][0]
        self.assertEqual((frozen["kept"], frozen["papers"], len(frozen["sheets"])), (True, "making", 31))
        line = self.settled(frozen["id"])
        self.assertEqual(line["papers"], "ready")
        address = f"{BASE}/revisions/{frozen['id']}/papers.zip"
        content = self.vera.get(address).content
        archive = zipfile.ZipFile(io.BytesIO(content))
        self.assertEqual(
            {f["name"]: f["digest"] for f in line["files"]},
            {name: hashlib.sha256(archive.read(name)).hexdigest() for name in archive.namelist()},
        )
        self.accepted(self.jory, kind="change-settings", name="Another name")
        self.assertEqual(self.vera.get(address).content, content)
        again = []
        for _ in range(2):
            self.post(self.jory, f"/projects/{KILN}/revisions/{frozen['id']}/papers", {"pack_id": pack})
            self.settled(frozen["id"])
            again.append(self.vera.get(address).content)
        self.assertEqual(again[0], again[1])
        small = zipfile.ZipFile(io.BytesIO(again[0]))
        self.assertEqual(
            {name: small.read(name) for name in small.namelist()[1:]},
            {name: archive.read(name) for name in small.namelist()[1:] if name in archive.namelist()},
        )

    def test_behind_a_frozen_revision_the_next_is_worked_on(self) -> None:
        def worked_on() -> set[str]:
            line = next(p for p in self.vera.get("/api/projects").json() if p["id"] == KILN)
            return {self.vera.get(BASE).json()["settings"]["working_on"], line["issue"]}

        self.assertEqual(worked_on(), {"B"})
        frozen = self.freeze("B")["revisions"][0]
        self.assertEqual(worked_on(), {"C"})
        self.accepted(self.jory, kind="remove-revision", revision_id=frozen["id"])
        self.assertEqual(worked_on(), {"B"})

    def test_papers_of_the_present_tell_which_sheets_still_bear_the_index_of_the_last_revision(self) -> None:
        self.frozen_only("B")
        told = {f["code"] for f in self.vera.get(f"{BASE}/issue-check").json()}
        self.assertNotIn("same-index", told)
        lamp = next(s for s in self.stored().symbols.values() if s.definition == "lamp")
        self.accepted(self.jory, kind="set-text", device_id=lamp.device_id, text="Other words")
        number = self.stored().sheets[lamp.sheet_id].number
        found = {f["code"]: f for f in self.vera.get(f"{BASE}/issue-check").json()}["same-index"]
        self.assertIn(f"sheet {number}, index B", found["names"])
        self.assertIn(f"draw/{lamp.sheet_id}", found["places"])
        run = self.post(self.vera, f"/projects/{KILN}/pack-runs", {"pack_id": self.small_pack()}).json()
        words = " ".join(f["words"] for f in self.ended(run["id"])["findings"])
        self.assertIn(f"sheet {number}, index B", words)

    def test_a_sheet_that_is_other_than_it_was_issued_says_so_in_its_margin(self) -> None:
        since = "Changed since revision B, not issued"
        self.frozen_only("B")
        lamp = next(s for s in self.stored().symbols.values() if s.definition == "lamp")
        mine = self.stored().sheets[lamp.sheet_id]
        self.accepted(self.jory, kind="set-text", device_id=lamp.device_id, text="Other words")
        other = next(s for s in self.stored().sheets_in_order() if s.kind == "schematic" and s.id != mine.id)

        def printed(ending: str, sheet_id: str) -> str:
            content = self.vera.get(f"{BASE}/drawing.{ending}?sheet_id={sheet_id}").content
            return _words(content) if ending == "pdf" else content.decode()

        for ending in ("pdf", "svg", "dxf"):
            self.assertIn(since, printed(ending, mine.id), ending)
            self.assertNotIn(since, printed(ending, other.id), ending)
        whole = PdfReader(io.BytesIO(self.vera.get(f"{BASE}/drawing.pdf").content))
        told = {whole.page_labels[n].split(".")[0] for n, p in enumerate(whole.pages) if since in p.extract_text()}
        changed = {f["code"]: f for f in self.vera.get(f"{BASE}/issue-check").json()}["same-index"]["places"]
        sheets = self.stored().sheets_in_order()
        self.assertEqual(told, {s.number for s in sheets if f"draw/{s.id}" in changed})
        files = [{"what": "drawings", "format": "pdf"}]
        pack = self.accepted(self.jory, kind="keep-pack", name="Drawings", files=files)["placed"][0]
        run = self.post(self.vera, f"/projects/{KILN}/pack-runs", {"pack_id": pack}).json()
        self.ended(run["id"])
        archive = zipfile.ZipFile(io.BytesIO(self.vera.get(f"{BASE}/pack-runs/{run['id']}/pack.zip").content))
        self.assertIn(since, _words(archive.read(next(n for n in archive.namelist() if "drawing" in n))))
        self.frozen_only("C")
        self.assertNotIn("not issued", printed("pdf", mine.id))

    def test_what_changed_is_said_between_any_two_states_and_jobs_are_ticked(self) -> None:
        first = self.freeze("B")["revisions"][0]["id"]
        wire = next(w for w in self.stored().wires.values() if w.number)
        self.accepted(self.jory, kind="fix-wire-number", wire_id=wire.id, number="7777")
        number = self.stored().sheets[wire.sheet_id].number
        ahead = self.vera.get(f"{BASE}/revisions/next").json()
        self.assertEqual((ahead["changed"], ahead["kept"]), (["1", "2", number], 28))
        now = self.vera.get(f"{BASE}/states-compared?since={first}").json()
        self.assertEqual([s["number"] for s in now["sheets"]], [number])
        self.assertEqual({c["to"] for c in now["changes"]}, {f"draw/{wire.sheet_id}?sel={wire.id}"})
        job = now["work"][0]
        self.assertEqual((job["act"], job["now_to"], job["done_by"]), ("relabel", "7777", ""))
        tick = {"since": first, "job": job["key"], "done": True}
        self.assertEqual(self.post(self.vera, f"/projects/{KILN}/work-list/tick", tick).json(), {job["key"]: "vera"})
        self.assertEqual(self.vera.get(f"{BASE}/states-compared?since={first}").json()["work"][0]["done_by"], "vera")
        self.the_work_list_as_files(first)
        self.assertEqual(self.post(self.vera, f"/projects/{KILN}/work-list/tick", {**tick, "done": False}).json(), {})
        second = self.freeze("C")["revisions"][0]
        self.assertEqual(second["sheets"], ["1", "2", number])
        self.accepted(self.jory, kind="fix-wire-number", wire_id=wire.id, number="8888")
        between = self.vera.get(f"{BASE}/states-compared?since={first}&until={second['id']}").json()
        self.assertEqual([j["now_to"] for j in between["work"]], [j["now_to"] for j in now["work"]])
        both = self.vera.get(f"{BASE}/states-compared/drawing?since={first}&sheet_id={wire.sheet_id}").json()
        self.assertTrue(both["other"])
        words = [{p.get("words") for i in both[state]["items"] for p in i["prims"]} for state in ("before", "after")]
        self.assertIn("8888", words[1])
        self.assertNotIn("8888", words[0])

    def the_work_list_as_files(self, since: str) -> None:
        address = f"{BASE}/states-compared/work-list"
        table = list(csv.reader(io.StringIO(self.vera.get(f"{address}/csv?since={since}").content.decode("utf-8-sig"))))
        self.assertEqual((table[1][1], table[1][5], table[1][7]), ("relabel", "7777", "vera"))
        book = load_workbook(io.BytesIO(self.vera.get(f"{address}/xlsx?since={since}").content))
        self.assertEqual([c.value for c in book.worksheets[0]["F"]], [row[5] for row in table])
        printed = PdfReader(io.BytesIO(self.vera.get(f"{address}/pdf?since={since}").content))
        self.assertIn("7777", printed.pages[0].extract_text())
        self.assertEqual(self.vera.get(f"{address}/doc?since={since}").status_code, 404)
        nothing = self.vera.get(f"{address}/pdf?since={since}&until={since}").content
        self.assertIn("nothing to do at the bench", PdfReader(io.BytesIO(nothing)).pages[0].extract_text())

    def test_a_frozen_state_opens_to_be_read_and_not_changed(self) -> None:
        frozen = self.freeze("B")["revisions"][0]["id"]
        self.accepted(self.jory, kind="change-settings", name="Another name")
        opened = self.post(self.vera, f"/projects/{KILN}/revisions/{frozen}/open", {}).json()["project_id"]
        again = self.post(self.jory, f"/projects/{KILN}/revisions/{frozen}/open", {}).json()["project_id"]
        self.assertEqual(opened, again)
        file = self.vera.get(f"/api/projects/{opened}/file")
        self.assertIn(b"Kiln 2", file.content)
        edit = {"edit": {"kind": "change-settings", "name": "No"}}
        refused = self.post(self.jory, f"/projects/{opened}/edits", edit)
        self.assertEqual(refused.status_code, 403)

    def test_freezing_with_errors_is_refused_without_a_reason_and_changes_nothing(self) -> None:
        first, second = [d for d in self.stored().devices.values() if d.letters == "PF"][:2]
        self.accepted(self.jory, kind="set-tag", device_id=first.id, tag="PF77")
        self.accepted(self.jory, kind="set-tag", device_id=second.id, tag="PF77")
        body = {"kind": "freeze-revision", "index": "B", "text": "First"}
        refused = self.post(self.jory, f"/projects/{KILN}/revisions/freeze", body)
        self.assertEqual((refused.status_code, refused.json()["field"]), (422, "reason"))
        self.assertEqual(self.vera.get(f"{BASE}/revisions").json()["revisions"], [])
        kept = self.freeze("B", reason="The customer waits")
        self.assertEqual(kept["revisions"][0]["reason"], "The customer waits")

    def test_the_edit_alone_would_leave_no_papers_and_is_refused_by_every_other_way(self) -> None:
        body = {"kind": "freeze-revision", "index": "B", "text": "First"}
        before = self.stored().settings
        refused = self.edit(self.jory, **body)
        self.assertEqual(refused.status_code, 422)
        self.assertIn("revisions/freeze", refused.json()["message"])
        file = Path(settings.JOLLY.data) / "edits.jsonl"
        file.write_text(json.dumps(body))
        with self.assertRaisesRegex(CommandError, "revisions/freeze"):
            call_command("edit", KILN, str(file))
        self.assertEqual((self.stored().revisions, self.stored().settings), ({}, before))
        self.assertEqual(self.freeze("B")["revisions"][0]["papers"], "making", "its own door is open")

    def test_a_viewer_cannot_freeze_and_what_is_not_kept_is_said(self) -> None:
        body = {"kind": "freeze-revision", "index": "B", "text": "First"}
        self.assertEqual(self.post(self.vera, f"/projects/{KILN}/revisions/freeze", body).status_code, 403)
        for path in ("revisions/none/papers.zip", "states-compared?since=none"):
            answer = self.vera.get(f"{BASE}/{path}")
            self.assertEqual(answer.status_code, 404)
            self.assertIn("no file is kept", answer.json()["message"])


class ListsOverHttp(IssueCase):
    def keep(self, **more: Any) -> str:
        columns = [{"key": "tag"}, {"key": "text"}, {"key": "number"}]
        edit = {"kind": "keep-recipe", "name": "Mine", "report": "devices", "columns": columns, **more}
        return str(self.accepted(self.jory, **edit)["placed"][0])

    def test_rows_say_where_they_lead_and_why_cells_are_blank(self) -> None:
        recipe = self.keep(filters=[{"column": "tag", "test": "is", "value": "=K2+KP2-QA1"}])
        found = self.vera.get(f"{BASE}/lists/{recipe}/rows").json()
        (row,) = found["groups"][0]["rows"]
        self.assertEqual((found["count"], row["cells"][0]), (1, "=K2+KP2-QA1"))
        sheet, _, selected = row["to"].removeprefix("draw/").partition("?sel=")
        self.assertEqual(sheet, self.stored().symbols[selected].sheet_id)
        cables = self.vera.get(f"{BASE}/lists/cables/rows").json()["groups"][0]["rows"]
        drawn = {b.device_id: b for b in self.stored().bands.values()}
        bands = {c["to"].rpartition("=")[2] for c in cables if c["to"].startswith("draw/")}
        self.assertEqual((bands - self.stored().bands.keys(), len(bands)), (set(), len(drawn)))
        wires = self.vera.get(f"{BASE}/lists/wires/rows").json()
        length = next(n for n, c in enumerate(wires["columns"]) if c["heading"] == "Length mm")
        blank = [r for r in wires["groups"][0]["rows"] if r["cells"][length] == ""]
        self.assertTrue(blank)
        self.assertTrue(all(r["whys"][str(length)] for r in blank))

    def test_each_format_comes_as_a_file_and_others_are_refused(self) -> None:
        recipe = self.keep()
        for format, start in (("csv", b"\xef\xbb\xbf"), ("xlsx", b"PK"), ("pdf", b"%PDF-"), ("json", b"[")):
            answer = self.vera.get(f"{BASE}/lists/{recipe}/file.{format}")
            self.assertTrue(answer.content.startswith(start), format)
            self.assertIn(f'filename="PM-0417-Mine.{format}"', answer["Content-Disposition"])
        self.assertEqual(self.vera.get(f"{BASE}/lists/{recipe}/file.doc").status_code, 404)
        self.assertEqual(self.vera.get(f"{BASE}/lists/rocket/rows").status_code, 422)

    def test_a_recipe_is_kept_for_all_and_taken_over(self) -> None:
        recipe = self.keep(groups=["maker"])
        shared = self.post(self.jory, f"/projects/{KILN}/recipes/{recipe}/share", {}).json()["shared"]
        self.assertEqual([s["name"] for s in shared], ["Mine"])
        again = self.post(self.jory, f"/projects/{KILN}/recipes/{recipe}/share", {}).json()["shared"]
        self.assertEqual(again, shared)
        found = self.vera.get(f"{BASE}/shared-recipes/{shared[0]['id']}").json()
        self.assertEqual((found["id"], found["groups"]), ("", ["maker"]))
        self.assertEqual(
            self.post(self.vera, f"/projects/{KILN}/shared-recipes/{shared[0]['id']}/forget", {}).status_code, 403
        )
        left = self.post(self.jory, f"/projects/{KILN}/shared-recipes/{shared[0]['id']}/forget", {}).json()["shared"]
        self.assertEqual(left, [])

    def test_a_recipe_goes_to_another_project_as_a_file(self) -> None:
        recipe = self.keep(groups=["maker"])
        content = self.vera.get(f"{BASE}/recipes/{recipe}/recipe.json").content
        file = {"file": SimpleUploadedFile("mine.recipe.json", content)}
        found = self.jory.post(f"{BASE}/recipe-file", file).json()
        self.assertEqual((found["id"], found["name"], found["groups"]), ("", "Mine", ["maker"]))
        for wrong in (
            b"",
            b"[]",
            b'{"format": "jolly-spool-recipe", "recipe": {}}',
            content.replace(b'"tag"', b'"hat"'),
        ):
            refused = self.jory.post(f"{BASE}/recipe-file", {"file": SimpleUploadedFile("a.json", wrong)})
            self.assertIn(refused.status_code, (400, 422), wrong[:40])
            self.assertTrue(refused.json()["message"])

    def test_an_edited_list_is_read_by_editors_and_changes_nothing_yet(self) -> None:
        recipe = self.keep()
        book = load_workbook(io.BytesIO(self.vera.get(f"{BASE}/lists/{recipe}/file.xlsx").content))
        book.worksheets[0]["B2"] = "Edited"
        out = io.BytesIO()
        book.save(out)
        file = {"file": SimpleUploadedFile("a.xlsx", out.getvalue())}
        found = self.jory.post(f"{BASE}/list-back", file).json()
        self.assertEqual([c["after"] for c in found["cells"]], ["Edited"])
        self.assertNotIn("Edited", {d.text for d in self.stored().devices.values()})
        file = {"file": SimpleUploadedFile("a.xlsx", out.getvalue())}
        self.assertEqual(self.vera.post(f"{BASE}/list-back", file).status_code, 403)
        wrong = self.jory.post(f"{BASE}/list-back", {"file": SimpleUploadedFile("a.xlsx", b"no")})
        self.assertEqual((wrong.status_code, wrong.json()["code"]), (400, "bad-file"))


class Command(IssueCase):
    def test_a_pack_by_name_is_written_with_what_it_holds_and_what_looks_wrong(self) -> None:
        said = io.StringIO()
        with tempfile.TemporaryDirectory() as folder:
            out = Path(folder) / "pack.zip"
            call_command("issue_pack", "PM-0417", pack="For the customer", out=out, stderr=said)
            names = zipfile.ZipFile(out).namelist()
            call_command("issue_pack", "PM-0417", pack="For the customer", out=Path(folder), stderr=said)
            named = zipfile.ZipFile(Path(folder) / "PM-0417-B-For-the-customer.zip").namelist()
        self.assertEqual(named, names)
        wanted = ["00-contents.pdf", "PM-0417-Kiln-2-B-set.pdf", "PM-0417-Kiln-2-B-Order-whole-panel.xlsx"]
        self.assertEqual(names, wanted)
        self.assertIn("PM-0417-Kiln-2-B-Order-whole-panel.xlsx: Order, whole panel, 90 rows", said.getvalue())
        self.assertIn("note: 3 snags are muted", said.getvalue())
        with self.assertRaisesRegex(CommandError, "There are: Everything, For the customer, For the shop"):
            call_command("issue_pack", "PM-0417", pack="Rocket", out=out, stderr=said)
