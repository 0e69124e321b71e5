"""Whatever an edit makes can be written to a file and read again: else it is refused, and says what is wrong."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.edits import compute, parse_edit, perform
from jolly_core.exchange import read_project, write_project
from jolly_core.harness import blocks, wires_of
from jolly_core.model import GoneError, RuleError
from jolly_core.testing import DEMO, DemoLibrary, Workbench


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

    def test_a_text_too_long_for_an_edit_that_is_made_on_the_way_is_told_by_its_field(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        harness_id = next(iter(project.harnesses))
        key = wires_of(project, harness_id)[0].conductor.key
        cell = {"id": key, "key": "colour", "value": "B" * 300}
        before = write_project(project)
        with self.assertRaisesRegex(RuleError, "“colour” is longer than 200 characters.") as told:
            perform(
                project,
                parse_edit({"kind": "write-harness-wires", "harness_id": harness_id, "cells": [cell]}),
                library=DemoLibrary(),
            )
        self.assertEqual(told.exception.field, "colour")
        self.assertEqual(write_project(project), before)

    def test_a_connector_that_is_plugged_into_another_gets_no_box(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        boxes = {box.device_id for box in blocks(project).boxes}
        plugged = sorted({s.device_id for s in project.seats.values() if s.mate_id} - boxes)
        self.assertGreater(len(plugged), 0)
        for at in (0.0, 40.0):
            payload = parse_edit({"kind": "add-block", "device_id": plugged[0], "x": at, "y": at})
            with self.assertRaisesRegex(RuleError, "is plugged into, and gets none of its own"):
                compute(project, payload)
