"""What a report of the front end's tests becomes: nothing that went wrong may be counted as passed."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from .test_web import WEB, cases


def file(*found: tuple[str, str], status: str = "passed", message: str = "") -> dict[str, Any]:
    results = [
        {"fullName": name, "status": s, "failureMessages": ["why"] if s == "failed" else []} for name, s in found
    ]
    return {"name": str(WEB / "src/a.test.ts"), "status": status, "message": message, "assertionResults": results}


class Report(TestCase):
    def wrong(self, *files: dict[str, Any]) -> list[str]:
        return [case.wrong for case in cases({"testResults": files})]

    def test_each_case_is_one(self) -> None:
        self.assertEqual(self.wrong(file(("a", "passed"), ("b", "failed"), status="failed")), ["", "why"])

    def test_what_is_left_out_failed(self) -> None:
        self.assertEqual(self.wrong(file(("a", "skipped"), ("b", "todo"))), ["It is skipped.", "It is todo."])

    def test_a_file_that_cannot_be_read_failed(self) -> None:
        self.assertEqual(self.wrong(file(status="failed", message="no module")), ["no module"])
        self.assertEqual(self.wrong(file(("a", "passed"), status="failed")), ["", "It has no test."])

    def test_it_says_where_it_is(self) -> None:
        self.assertEqual(
            [str(case) for case in cases({"testResults": [file(("a b", "passed"))]})], ["a b (src/a.test.ts)"]
        )

    def test_two_of_one_name_are_two(self) -> None:
        found = cases({"testResults": [file(("a", "passed"), ("a", "failed"), status="failed")]})
        self.assertEqual(sorted((case.name, case.wrong) for case in set(found)), [("a", ""), ("a (2)", "why")])
