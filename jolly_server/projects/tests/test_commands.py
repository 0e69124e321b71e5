"""The commands for use without a browser."""

from __future__ import annotations

import io
import json
import tempfile
from pathlib import Path
from typing import Any
from unittest.mock import patch

from django.core.management import CommandError, call_command, get_commands, load_command_class
from django.db import OperationalError

from jolly_core.edits import EDITS
from jolly_core.exchange import write_project
from jolly_core.reports import REPORTS
from jolly_server.config.database import Standing
from jolly_server.projects.models import JournalEntry
from jolly_server.projects.store import load_rows
from jolly_server.testing import KILN, DemoCase


class Commands(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def run_command(self, *args: Any, **options: Any) -> str:
        out = io.StringIO()
        call_command(*args, stdout=out, stderr=io.StringIO(), **options)
        return out.getvalue()

    def edits(self, *edits: dict[str, Any]) -> Path:
        path = self.folder / "edits.jsonl"
        path.write_text("\n".join(json.dumps(e) for e in edits))
        return path

    def test_snags_that_lie_on_no_sheet_are_printed_too(self) -> None:
        self.assertEqual(json.loads(self.run_command("check_project", "dehumidifier", json=True)), [])
        laid = {"kind": "remove-from-layout", "ids": list(load_rows("dehumidifier").placings)}
        self.run_command("edit", "dehumidifier", self.edits(laid), user="anna")
        out = io.StringIO()
        call_command("check_project", "dehumidifier", stdout=out, stderr=io.StringIO())
        self.assertIn("13 devices are not placed yet", out.getvalue())
        rows = json.loads(self.run_command("check_project", "dehumidifier", json=True))
        (row,) = [r for r in rows if r["code"] == "not-placed"]
        self.assertEqual((row["sheet_id"], row["place"]), ("", "cabinet"))

    def test_each_has_help(self) -> None:
        ours = [n for n, app in get_commands().items() if str(app).startswith("jolly_server")]
        self.assertEqual(len(ours), 10)
        for name in ours:
            self.assertTrue(load_command_class(get_commands()[name], name).help, name)

    def test_what_changed_between_a_file_and_the_project_is_said_and_what_to_do(self) -> None:
        path = self.folder / "before.spool.json"
        self.run_command("project_export", "PM-0417", out=path)
        self.assertEqual(self.run_command("project_diff", str(path), "PM-0417"), "Nothing changed.\n")
        wire = next(w for w in load_rows(KILN).wires.values() if w.number)
        edit = {"kind": "fix-wire-number", "wire_id": wire.id, "number": "7777"}
        self.run_command("edit", "PM-0417", self.edits(edit), user="jory")
        said = self.run_command("project_diff", str(path), KILN)
        self.assertIn(f"number {wire.number}, now 7777", said)
        self.assertIn("relabel", said)
        found = json.loads(self.run_command("project_diff", str(path), KILN, json=True))
        self.assertEqual({c["kind"] for c in found["changes"]}, {"wire"})
        self.assertEqual({j["act"] for j in found["work"]}, {"relabel"})
        numbers = {sheet["number"] for sheet in found["sheets"]}
        folder = self.folder / "drawn" / "here"
        self.run_command("project_diff", str(path), KILN, drawings=folder)
        self.assertEqual({file.stem for file in folder.iterdir()}, {f"sheet-{n}" for n in numbers})
        self.assertIn(">7777<", (folder / f"sheet-{min(numbers)}.svg").read_text(encoding="utf-8"))
        with self.assertRaisesRegex(CommandError, "No project has the id or number"):
            self.run_command("project_diff", str(path), "nothing")

    def test_list_export_and_import(self) -> None:
        _, row = json.loads(self.run_command("project_list", "--json"))
        self.assertEqual((row["id"], row["number"]), (KILN, "PM-0417"))
        path = self.folder / "kiln.spool.json"
        self.run_command("project_export", "PM-0417", out=path)
        made = self.run_command("project_import", path).strip()
        self.assertEqual(write_project(load_rows(made)), path.read_text(encoding="utf-8"))
        with self.assertRaisesRegex(CommandError, "Several projects"):
            self.run_command("project_export", "PM-0417")

    def test_reports_in_every_format(self) -> None:
        listed = self.run_command("report", "--list")
        for key in REPORTS:
            self.assertIn(key, listed)
            # Each list as a table, every fifth also as a book and on paper: `test_files` of the core writes all.
            for format in ("csv", "json", "xlsx", "pdf")[: 4 if list(REPORTS).index(key) % 5 == 0 else 2]:
                out = self.folder / f"{key}.{format}"
                self.run_command("report", KILN, key, format=format, out=out)
                self.assertGreater(out.stat().st_size, 2)
        self.assertIn("BW-C09-24D-31", self.run_command("report", KILN, "parts"))
        self.run_command("drawing", KILN, out=self.folder / "all.pdf")
        self.assertEqual((self.folder / "all.pdf").read_bytes()[:5], b"%PDF-")

    def test_check_ends_with_one_only_on_errors(self) -> None:
        self.assertEqual(json.loads(self.run_command("check_project", KILN, "--json")), [])
        coil = next(s.id for s in self.stored().symbols.values() if s.definition == "coil")
        self.accepted(self.person("anna"), kind="delete-selection", ids=[coil])
        with self.assertRaises(SystemExit) as end:
            self.run_command("check_project", KILN)
        self.assertEqual(end.exception.code, 1)

    def test_edits_from_a_file_all_or_nothing(self) -> None:
        good = {"kind": "set-text", "device_id": self.device("QA"), "text": "Auger forward"}
        tag = {"kind": "set-tag", "device_id": self.device("QA"), "tag": "QA7"}
        printed = self.run_command("edit", KILN, self.edits(good, tag), user="anna")
        self.assertEqual(printed.splitlines(), ["1: text of -QA1", "2: tag -QA1 becomes -QA7"])
        self.assertEqual(JournalEntry.objects.filter(user__username="anna").count(), 2)
        before = list(self.stored().entities())
        gone = {"kind": "set-text", "device_id": "nobody", "text": "x"}
        with self.assertRaisesRegex(CommandError, "not in this project.*No edit of the file was applied"):
            self.run_command("edit", KILN, self.edits({**good, "text": "B"}, gone))
        with self.assertRaisesRegex(CommandError, "Line 2: .*warp"):
            self.run_command("edit", KILN, self.edits(good, {"kind": "warp"}))
        self.assertEqual(list(self.stored().entities()), before)
        self.assert_memory_is_stored()
        listed = self.run_command("edit", "--list")
        for kind, edit in EDITS.items():
            if edit.payload.own_door:
                self.assertNotIn(kind, listed, "it would be refused")
            else:
                self.assertIn(kind, listed)

    def test_clear_errors(self) -> None:
        for args, words in (
            (("project_export", "no-such"), "No project has"),
            (("report", KILN, "nope"), "There are: "),
            (("project_import", self.folder / "none.json"), "No such file"),
            (("drawing", KILN, "--sheet", "99"), "no sheet 99"),
            (("edit", KILN), "Name a project and a file"),
        ):
            with self.subTest(words), self.assertRaisesRegex(CommandError, words):
                self.run_command(*args)

    def test_before_the_first_start_it_says_what_to_do(self) -> None:
        for command in (("report", KILN, "wires"), ("project_list",), ("seed_demo",)):
            for found, words in (
                (Standing(frozenset({("projects", "0001_initial")}), frozenset(), True), "run ./start once"),
                (Standing(frozenset({("projects", "0009_later")}), frozenset(), False), "older.*Run ./start once"),
                (Standing(frozenset(), frozenset({("projects", "0099_x")}), False), "newer Jolly Spool.*0099_x"),
            ):
                stands = patch("jolly_server.projects.command.standing", return_value=found)
                with self.subTest(command), stands, self.assertRaisesRegex(CommandError, words):
                    self.run_command(*command)
        store = patch("jolly_server.projects.command.loaded", side_effect=OperationalError("disk I/O error"))
        with store, self.assertRaisesRegex(OperationalError, "disk"):
            self.run_command("report", KILN, "wires")
