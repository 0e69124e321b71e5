"""Acts at random on structure, settings, title blocks and pictures."""

from __future__ import annotations

import base64
from io import BytesIO
from typing import Any

from PIL import Image

from jolly_core.model import SHEET_KINDS, Project

from .. import Workbench
from .registry import ACTS, Attempt


def _picture(width: int, height: int, form: str = "PNG") -> str:
    out = BytesIO()
    Image.new("RGB", (width, height), "navy").save(out, form)
    return base64.b64encode(out.getvalue()).decode()


FIELDS = ("Order", "Kiln load", "{bad}", "title", "Order number")
CODES = ("K1", "K2", "KP1", "9", "no good")
CONTENTS = ("{title}", "{Order} {n}", "{Kiln load}", "plain", "{nowhere}", "{open", "{structure} {next}")
PICTURES = (_picture(8, 4), _picture(30, 30, "JPEG"), "bm8=")


def some(table: Any, number: int) -> str:
    """Return the id of one of some entities, or one that is not there."""
    ids = [*sorted(table), "gone"]
    return str(ids[number % len(ids)])


def edits_of(p: Project, a: int, b: int, c: int) -> list[tuple[str, dict[str, Any]]]:
    """Return one edit of each kind with what the three numbers choose."""
    block, cell = some(p.title_blocks, a), some(p.title_cells, b)
    place = {"x": float(a % 90), "y": float(b % 30), "width": 5.0 + c % 60, "height": 4.0 + a % 12}
    kind, sheet = SHEET_KINDS[c % len(SHEET_KINDS)], some(p.sheets, a)
    return [
        ("add-function", {"code": CODES[a % 5], "parent_id": some(p.functions, b) if c % 2 else ""}),
        ("change-function", {"function_id": some(p.functions, a), "parent_id": some(p.functions, b)}),
        (
            "remove-function",
            {"function_id": some(p.functions, a), "move_to": some(p.functions, b) if c % 2 else ""},
        ),
        ("add-location", {"code": CODES[a % 5], "side": ("panel", "door", "field", "machine")[b % 4]}),
        ("change-location", {"location_id": some(p.locations, a), "code": CODES[b % 5]}),
        (
            "remove-location",
            {"location_id": some(p.locations, a), "move_to": some(p.locations, b) if c % 2 else ""},
        ),
        ("set-own-field", {"name": FIELDS[a % 5], "text": f"text {b}"}),
        ("set-own-field", {"name": FIELDS[a % 5], "new_name": FIELDS[b % 5]}),
        ("remove-own-field", {"name": FIELDS[a % 5]}),
        ("take-title-block", {"block": ("metric", "ansi", block)[b % 3], "name": f"block {c % 3}"}),
        ("change-title-block", {"block_id": block, "width_mm": 60.0 + b, "name": f"block {c % 3}"}),
        ("remove-title-block", {"block_id": block, "move_to": some(p.title_blocks, b) if c % 2 else ""}),
        ("put-title-cell", {"block_id": block, "content": CONTENTS[c % 7], **place}),
        ("put-title-cell", {"block_id": block, "cell_id": cell, "picture_id": some(p.pictures, c), **place}),
        ("remove-title-cells", {"cell_ids": [cell]}),
        ("add-picture", {"name": f"picture {a}", "data": PICTURES[b % 3]}),
        ("remove-picture", {"picture_id": some(p.pictures, a)}),
        ("change-settings", {"title_block_id": block, "standard": ("iec", "na")[b % 2]}),
        ("change-sheet", {"sheet_id": sheet, "title_block_id": block, "location_id": some(p.locations, b)}),
        ("add-sheet", {"sheet_kind": kind, "function_id": some(p.functions, a), "after_id": sheet}),
    ]


def _registered(number: int) -> Attempt:
    def perform(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
        kind, values = edits_of(b.project, i, j, x + 20)[number]
        b.do(kind, **values)

    return perform


ACTS["setup"] = {str(n): _registered(n) for n in range(len(edits_of(Project(), 0, 0, 0)))}
