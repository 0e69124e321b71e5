"""Packages of a company's own: the sample is installed and used; whatever fails in one, the rest goes on."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
from importlib.metadata import EntryPoint
from pathlib import Path
from typing import Any
from unittest import TestCase

from jolly_core import extending
from jolly_core.checks import CHECKS, all_snags
from jolly_core.extending import Column, Extension, load_extensions, withdraw
from jolly_core.library import definition, is_known, part_classes
from jolly_core.library.stamps import built_in_stamps
from jolly_core.model import package_faults
from jolly_core.reports import REPORTS, run_report
from jolly_core.testing import Workbench
from jolly_server.testing import KILN, DemoCase

ROOT = Path(__file__).resolve().parents[2]
SAMPLE = ROOT / "docs" / "extending" / "sample"
USED = """
import json, sys
from pathlib import Path
from jolly_core.checks import all_snags
from jolly_core.edits import compute, parse_edit
from jolly_core.exchange import read_project
from jolly_core.extending import load_extensions
from jolly_core.library import definition, part_class
from jolly_core.model import package_faults
from jolly_core.reports import run_report
from jolly_core.testing import Workbench

loaded = [e.package for e in load_extensions()]
project = read_project(Path(sys.argv[1]).read_bytes())
bench = Workbench()
stamp = bench.do("put-stamp", sheet_id=bench.sheet, stamp_id="pellwick-beacon-circuit", x=40, y=16)
print(json.dumps({
    "loaded": loaded,
    "faults": package_faults(project),
    "rows": len(run_report(project, "pellwick-texts").rows),
    "snags": sorted({s.code for s in all_snags(bench.project) if s.code.startswith("pellwick")}),
    "class": part_class(definition("pellwick-beacon").part_class).name,
    "tags": sorted({bench.tag(id) for id in bench.project.symbols}),
}))
"""


class Installed(TestCase):
    def test_the_sample_is_installed_and_all_it_adds_is_there(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            pip = [sys.executable, "-m", "pip", "install", "--quiet", "--no-deps", "--no-build-isolation"]
            source = Path(folder) / "source"
            subprocess.run(["cp", "-r", str(SAMPLE), str(source)], check=True)
            place = Path(folder) / "site"
            subprocess.run([*pip, "--no-index", "--target", str(place), str(source)], check=True, capture_output=True)
            demo = ROOT / "demo" / "pellwick-kiln-2.spool.json"
            ran = subprocess.run(
                [sys.executable, "-c", USED, str(demo)],
                cwd=ROOT,
                env={"PYTHONPATH": f"{place}:{ROOT}", "PATH": "/usr/bin:/bin"},
                check=True,
                capture_output=True,
                text=True,
            )
        found = json.loads(ran.stdout)
        self.assertEqual((found["loaded"], found["faults"]), (["pellwick-house"], []))
        self.assertGreater(found["rows"], 10)
        self.assertEqual(found["snags"], ["pellwick-number"])
        self.assertEqual((found["class"], found["tags"]), ("Stack beacon", ["PF1"]))


def breaks(*_: Any) -> Any:
    raise ZeroDivisionError("by house rule")


def faulty(extension: Extension) -> None:
    extension.check("house-sheet", "Fails on each sheet.", breaks)
    extension.project_check("house-words", "Yields what is no snag.", lambda project: iter(["text"]))  # type: ignore[list-item]
    extension.check("equal-tags", "Claims a code of the application.", breaks)
    extension.report("house-list", "House list", "Fails.", (Column("a", "A"),), breaks)
    extension.report("house-wide", "Wide", "Too many cells.", (Column("a", "A"),), lambda project: [("a", "b")])
    extension.symbol({"key": "coil"})
    extension.part_class({"key": "gadget", "name": "Gadget", "iec": "X", "na": "X", "units": ["rocket"], "ratings": []})
    extension.stamp("nothing", {"name": "Nothing", "text": "", "body": {}})


def stumbles(extension: Extension) -> None:
    extension.report("house-half", "Half", "Is not there, because the package stumbles.", (), lambda project: [])
    raise RuntimeError("no licence file")


def point(name: str) -> EntryPoint:
    return EntryPoint(f"house-{name}", f"{__name__}:{name}", extending.GROUP)


class Faults(DemoCase):
    def load(self, name: str) -> None:
        before = set(CHECKS), set(REPORTS)
        load_extensions([point(name)])
        self.addCleanup(lambda: self.assertEqual((set(CHECKS), set(REPORTS)), before))
        self.addCleanup(withdraw, f"house-{name}")

    def test_what_cannot_be_added_is_left_out_and_named(self) -> None:
        self.load("faulty")
        project = Workbench().project
        said = [words for package, words in package_faults(project) if package == "house-faulty"]
        self.assertEqual(
            [words.split(" of the package")[0] for words in said],
            ["The check “equal-tags”", "The part class “gadget”", "The stamp “nothing”", "The symbol “coil”"],
        )
        self.assertTrue(any("“rocket”, which is not known here" in words for words in said), said)
        self.assertEqual(
            (definition("coil").name, is_known("gadget"), "gadget" in part_classes()), ("Coil", False, False)
        )
        self.assertNotIn("nothing", built_in_stamps())

    def test_a_package_that_stumbles_adds_nothing(self) -> None:
        self.load("stumbles")
        self.assertNotIn("house-half", REPORTS)
        messages = [s.message for s in all_snags(Workbench().project) if s.code == "package-fault"]
        self.assertEqual(len(messages), 1)
        self.assertIn("house-stumbles failed: RuntimeError: no licence file", messages[0])

    def test_a_check_that_fails_is_a_snag_and_the_others_go_on(self) -> None:
        self.load("faulty")
        bench = Workbench()
        before = {s.code for s in all_snags(bench.project)}
        self.assertIn("package-fault", before)
        messages = [s.message for s in all_snags(bench.project)]
        self.assertTrue(
            any("“house-sheet” of the package house-faulty failed: ZeroDivisionError" in m for m in messages)
        )
        self.assertTrue(any("“house-words”" in m and "yields a str where a Snag is meant" in m for m in messages))

    def test_a_report_that_fails_says_so_at_its_foot_and_as_a_snag(self) -> None:
        self.load("faulty")
        bench = Workbench()
        for key, why in (("house-list", "ZeroDivisionError: by house rule"), ("house-wide", "a row is not 1 texts")):
            table = run_report(bench.project, key)
            self.assertEqual(table.rows, [])
            self.assertIn(why, table.foot[0])
            self.assertTrue([s for s in all_snags(bench.project) if why in s.message], key)

    def test_over_http_nothing_is_an_error_of_the_server(self) -> None:
        self.load("faulty")
        anna = self.person("anna")
        sheet = self.sheet("30")
        pages = ("reports/house-list/rows", "reports/house-list/xlsx", "snags", "reports", f"sheets/{sheet}/view")
        self.assertEqual({anna.get(f"/api/projects/{KILN}/{page}").status_code for page in pages}, {200})
        found = anna.get(f"/api/projects/{KILN}/snags").json()["open"]
        self.assertTrue([s for s in found if s["code"] == "package-fault"])
        self.accepted(anna, kind="place-note", sheet_id=sheet, x=20, y=70, text="still drawn")
