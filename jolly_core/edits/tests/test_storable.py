"""Whatever an edit makes can be written to a file and read again: else it is refused, and says what is wrong."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.exchange import read_project, write_project
from jolly_core.model import GoneError, RuleError
from jolly_core.testing import Workbench


class Storable(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()
        self.before = write_project(self.bench.project)

    def unchanged(self) -> None:
        self.assertEqual(write_project(self.bench.project), self.before)

    def test_what_names_something_that_is_not_there_is_refused(self) -> None:
        for field, kind in (("function_id", "function"), ("location_id", "location")):
            with self.assertRaisesRegex(GoneError, f"The {kind} nowhere is not in this project."):
                self.bench.do("add-block", text="Fan board", **{field: "nowhere"})
            self.unchanged()
        self.bench.do("add-block", text="Fan board")
        self.assertEqual(len(read_project(write_project(self.bench.project)).blocks), 1)

    def test_characters_that_cannot_be_printed_are_refused_in_every_text(self) -> None:
        with self.assertRaisesRegex(RuleError, "holds characters that cannot be printed") as told:
            self.bench.do("change-settings", input_prefix="I\n")
        self.assertEqual(told.exception.field, "input_prefix")
        self.unchanged()
        self.bench.do("change-settings", input_prefix="E")
        self.assertEqual(read_project(write_project(self.bench.project)).settings.input_prefix, "E")
