"""Any sequence of edits of structure, settings and title blocks: refused means unchanged, readable back, all undone."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from jsonschema import Draft202012Validator
from pydantic import ValidationError

from jolly_core.edits.tests.test_titling import picture
from jolly_core.exchange import read_project, write_project
from jolly_core.exchange.schema import project_schema
from jolly_core.library import block_of
from jolly_core.model import SHEET_KINDS, CoreError, Project, changes_from_json, changes_to_json
from jolly_core.scenes import leaves_of
from jolly_core.tagging import full_tag, own_names
from jolly_core.testing import Workbench

from ..base.history import take_back

FIELDS = ("Order", "Kiln load", "{bad}", "title", "Order number")
CODES = ("K1", "K2", "KP1", "9", "no good")
CONTENTS = ("{title}", "{Order} {n}", "{Kiln load}", "plain", "{nowhere}", "{open", "{structure} {next}")
PICTURES = (picture(8, 4), picture(30, 30, "JPEG"), "bm8=")
pick = st.integers(0, 1000)
acts = st.tuples(st.integers(0, 19), pick, pick, pick)


def one(table: dict[str, Any], number: int) -> str:
    """Return the id of one of some entities, or one that is not there."""
    ids = [*sorted(table), "gone"]
    return ids[number % len(ids)]


def edits_of(p: Project, a: int, b: int, c: int) -> list[tuple[str, dict[str, Any]]]:
    """Return one edit of each kind with what the three numbers choose."""
    block, cell = one(p.title_blocks, a), one(p.title_cells, b)
    place = {"x": float(a % 90), "y": float(b % 30), "width": 5.0 + c % 60, "height": 4.0 + a % 12}
    kind, sheet = SHEET_KINDS[c % len(SHEET_KINDS)], one(p.sheets, a)
    return [
        ("add-function", {"code": CODES[a % 5], "parent_id": one(p.functions, b) if c % 2 else ""}),
        ("change-function", {"function_id": one(p.functions, a), "parent_id": one(p.functions, b)}),
        ("remove-function", {"function_id": one(p.functions, a), "move_to": one(p.functions, b) if c % 2 else ""}),
        ("add-location", {"code": CODES[a % 5], "side": ("panel", "door", "field", "machine")[b % 4]}),
        ("change-location", {"location_id": one(p.locations, a), "code": CODES[b % 5]}),
        ("remove-location", {"location_id": one(p.locations, a), "move_to": one(p.locations, b) if c % 2 else ""}),
        ("set-own-field", {"name": FIELDS[a % 5], "text": f"text {b}"}),
        ("set-own-field", {"name": FIELDS[a % 5], "new_name": FIELDS[b % 5]}),
        ("remove-own-field", {"name": FIELDS[a % 5]}),
        ("take-title-block", {"block": ("metric", "ansi", block)[b % 3], "name": f"block {c % 3}"}),
        ("change-title-block", {"block_id": block, "width_mm": 60.0 + b, "name": f"block {c % 3}"}),
        ("remove-title-block", {"block_id": block, "move_to": one(p.title_blocks, b) if c % 2 else ""}),
        ("put-title-cell", {"block_id": block, "content": CONTENTS[c % 7], **place}),
        ("put-title-cell", {"block_id": block, "cell_id": cell, "picture_id": one(p.pictures, c), **place}),
        ("remove-title-cells", {"cell_ids": [cell]}),
        ("add-picture", {"name": f"picture {a}", "data": PICTURES[b % 3]}),
        ("remove-picture", {"picture_id": one(p.pictures, a)}),
        ("change-settings", {"title_block_id": block, "standard": ("iec", "na")[b % 2]}),
        ("change-sheet", {"sheet_id": sheet, "title_block_id": block, "location_id": one(p.locations, b)}),
        ("add-sheet", {"sheet_kind": kind, "function_id": one(p.functions, a), "after_id": sheet}),
    ]


class RandomSetup(TestCase):
    @settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts, min_size=1, max_size=18))
    def test_any_sequence(self, sequence: list[tuple[int, int, int, int]]) -> None:
        bench = Workbench(rails=True)
        bench.place("coil", 40, 16)
        project = bench.project
        first = list(project.entities())
        bench.done.clear()
        for act, a, b, c in sequence:
            before, stamp = list(project.entities()), project.stamp
            kind, values = edits_of(project, a, b, c)[act]
            try:
                bench.do(kind, **values)
            except (CoreError, ValidationError) as error:
                self.assertEqual(list(project.entities()), before, f"refused {kind} left something behind")
                self.assertEqual(project.stamp, stamp)
                self.assertTrue(str(error))
        self.whole(project)
        stored = [changes_from_json(changes_to_json(o.changes)) for o in bench.done]
        for changes in reversed(stored):
            project.apply(take_back(project, changes))
        self.assertEqual(list(project.entities()), first)

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
