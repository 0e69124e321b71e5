"""Any sequence of edits of structure, settings and title blocks: refused means unchanged, readable back, all undone."""

from __future__ import annotations

import json
from contextlib import suppress
from pathlib import Path
from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from jsonschema import Draft202012Validator
from pydantic import ValidationError

from jolly_core.exchange import read_project, write_project
from jolly_core.exchange.schema import project_schema
from jolly_core.library import block_of
from jolly_core.model import CoreError, Project
from jolly_core.scenes import leaves_of
from jolly_core.tagging import full_tag, own_names
from jolly_core.testing import Workbench
from jolly_core.testing.strange import perform_act

from .sequences import Watch, acts, taken_back


class RandomSetup(TestCase):
    @settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts("setup"), min_size=1, max_size=18))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        bench = Workbench(rails=True)
        bench.place("coil", 40, 16)
        project = bench.project
        first = list(project.entities())
        Watch(self, bench)
        bench.done.clear()
        for act in sequence:
            with suppress(CoreError, ValidationError):
                perform_act(bench, *act)
        self.whole(project)
        taken_back(self, bench, first)

    def whole(self, project: Project) -> None:
        """Check that a project can be written, read, shown, and that its blocks hold what they promise."""
        text = write_project(project)
        SCHEMA.validate(json.loads(text))
        self.assertEqual(list(read_project(text).entities()), list(project.entities()))
        for cell in project.title_cells.values():
            block = project.title_blocks[cell.block_id]
            self.assertLessEqual(cell.x + cell.width, block.width_mm + 0.01)
            self.assertLessEqual(cell.y + cell.height, block.height_mm + 0.01)
        names = [b.name for b in project.title_blocks.values()]
        self.assertEqual(len(set(names)), len(names))
        self.assertEqual(len(set(own_names(project))), len(own_names(project)))
        for sheet in project.sheets.values():
            self.assertTrue(block_of(project, sheet).cells or sheet.title_block_id or project.settings.title_block_id)
            self.assertTrue(all(leaf.items for leaf in leaves_of(project, sheet.id)))
        for device in project.devices.values():
            self.assertTrue(full_tag(project, device))


SCHEMA = Draft202012Validator(project_schema())


class Documented(TestCase):
    def test_the_schema_in_the_documents_is_the_one_files_hold(self) -> None:
        path = Path(__file__).resolve().parents[3] / "docs" / "formats" / "project-15.schema.json"
        self.assertEqual(json.loads(path.read_text(encoding="utf-8")), project_schema())
