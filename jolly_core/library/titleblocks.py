"""Title blocks that are not a project's own: the two built-in ones, and the form in which a library keeps others."""

from __future__ import annotations

import json
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any

from jolly_core.model import FileError, Picture, Project, Sheet, TitleBlock, TitleCell, from_record, to_record


@dataclass(slots=True, frozen=True)
class BlockPattern:
    """A title block with its cells and the pictures they show, outside any project."""

    block: TitleBlock
    cells: tuple[TitleCell, ...]
    pictures: tuple[Picture, ...] = ()


def pattern_to_json(pattern: BlockPattern) -> dict[str, Any]:
    """Return a pattern as JSON values."""
    return {
        "block": to_record(pattern.block),
        "cells": [to_record(c) for c in pattern.cells],
        "pictures": [to_record(p) for p in pattern.pictures],
    }


def pattern_from_json(raw: Any) -> BlockPattern:
    """Read what `pattern_to_json` wrote; cells may leave out their ids and what is usual.

    Raises:
        FileError: a field is missing or of the wrong type.
    """
    if not isinstance(raw, dict) or not isinstance(raw.get("cells"), list):
        raise FileError("A title block should have a block and cells.", field="cells")
    block: TitleBlock = from_record("title_block", raw.get("block"))
    cells = tuple(
        from_record("title_cell", {"id": f"{block.id}-{n}", "block_id": block.id, **cell})
        for n, cell in enumerate(raw["cells"], start=1)
    )
    pictures = tuple(from_record("picture", p) for p in raw.get("pictures", []))
    return BlockPattern(block, cells, pictures)


@cache
def built_in_blocks() -> dict[str, BlockPattern]:
    """Return the built-in title blocks by key, in the order of the data file.

    Notes:
        "metric" has the data fields of ISO 7200 in its 180 mm; "ansi" those usual on sheets of ANSI/ASME Y14.1 sizes.
    """
    text = files("jolly_core.library").joinpath("data", "title_blocks.json").read_text(encoding="utf-8")
    patterns = [pattern_from_json(raw) for raw in json.loads(text)]
    return {p.block.id: p for p in patterns}


def pattern_of(project: Project, block_id: str) -> BlockPattern | None:
    """Return a title block of the project with its cells and pictures, None when it is not there."""
    block = project.title_blocks.get(block_id)
    if block is None:
        return None
    cells = [project.title_cells[id] for id in project.cells_of_block.get(block_id)]
    used = dict.fromkeys(c.picture_id for c in cells if c.picture_id)
    return BlockPattern(block, tuple(cells), tuple(project.pictures[id] for id in used))


def block_of(project: Project, sheet: Sheet) -> BlockPattern:
    """Return the title block of a sheet: its own, else the project's, else the built-in one of its size."""
    for id in (sheet.title_block_id, project.settings.title_block_id):
        found = pattern_of(project, id) if id else None
        if found is not None:
            return found
    return built_in_blocks()["ansi" if sheet.size.startswith("ANSI") else "metric"]
