"""Runs the unit tests of the front end once, and reports each of their cases."""

from __future__ import annotations

import json
import subprocess
import tempfile
from collections import Counter
from collections.abc import Iterator
from pathlib import Path
from typing import Any
from unittest import TestCase, TestLoader, TestSuite

WEB = Path(__file__).resolve().parent.parent / "web"


class Case(TestCase):
    """A case of a file of tests, as it ended: with what was wrong, or ""."""

    def __init__(self, file: str, name: str = "", wrong: str = "") -> None:
        super().__init__()
        self.file, self.name, self.wrong = file, name, wrong

    def runTest(self) -> None:
        """Fail with the words with which the case did."""
        if self.wrong:
            self.fail(self.wrong)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Case) and (self.file, self.name) == (other.file, other.name)

    def __hash__(self) -> int:
        return hash((self.file, self.name))

    def __str__(self) -> str:
        return f"{self.name} ({self.file})"


def cases(report: dict[str, Any]) -> Iterator[Case]:
    """Yield the cases of a report; what could not be read or was left out is one that failed."""
    for file in report["testResults"]:
        path = str(Path(file["name"]).relative_to(WEB))
        found = file["assertionResults"]
        named: Counter[str] = Counter()  # two of one name are two all the same
        for case in found:
            named[case["fullName"]] += 1
            again = f" ({named[case['fullName']]})" if named[case["fullName"]] > 1 else ""
            said = "\n".join(case["failureMessages"])
            wrong = "" if case["status"] == "passed" else said or f"It is {case['status']}."
            yield Case(path, case["fullName"] + again, wrong)
        if file["status"] != "passed" and not any(case["status"] != "passed" for case in found):
            yield Case(path, "the file", file["message"] or "It has no test.")


def run() -> list[Case]:
    """Run all of them and return what became of each."""
    with tempfile.TemporaryDirectory() as folder:
        report = Path(folder) / "report.json"
        runner = WEB / "node_modules" / "vitest" / "vitest.mjs"
        command = ["node", str(runner), "run", "--pool=threads", "--reporter=json", f"--outputFile={report}"]
        ended = subprocess.run(command, cwd=WEB, capture_output=True, text=True, check=False)
        if not report.exists():
            return [Case("web", "all files", f"They did not run.\n{ended.stdout}{ended.stderr}")]
        return list(cases(json.loads(report.read_text())))


def load_tests(loader: TestLoader, tests: TestSuite, pattern: str | None) -> TestSuite:
    """Return the cases in place of what stands in this module."""
    return TestSuite(run())
