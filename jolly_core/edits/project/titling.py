"""Title blocks of the project."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal

from pydantic import Field

from jolly_core.library import built_in_blocks, pattern_of
from jolly_core.model import REFERENCES, Project, RuleError, TitleBlock
from jolly_core.tagging import check_fields, fields_in

from ..base.edit import Id, Payload, Text, Work, edit
from .titlecells import Size, within_block


class TakeTitleBlock(Payload):
    """Take a title block into the project: a built-in one, one of the library, or a copy of one that is there."""

    kind: Literal["take-title-block"] = "take-title-block"
    block: Id
    name: Text = ""


@edit(TakeTitleBlock, {"block": "metric", "name": "Pellwick, metric"})
def take_title_block(work: Work, payload: TakeTitleBlock) -> str:
    """Work out TakeTitleBlock."""
    project = work.project
    pattern = built_in_blocks().get(payload.block) or pattern_of(project, payload.block)
    pattern = pattern or work.library.title_block(payload.block)
    if pattern is None:
        raise RuleError("This title block is no longer in the library. Choose another.", field="block")
    name = payload.name.strip() or pattern.block.name
    block = replace(pattern.block, id=work.ids.new(), name=_free_name(project, name))
    work.put("title_block", block)
    pictures: dict[str, str] = {}
    for picture in pattern.pictures:
        same = next((p for p in project.pictures.values() if p.data == picture.data), None)
        if same is None:
            same = replace(picture, id=work.ids.new())
            work.put("picture", same)
        pictures[picture.id] = same.id
    fields = dict(project.settings.own_fields)
    for cell in pattern.cells:
        made = replace(cell, id=work.ids.new(), block_id=block.id, picture_id=pictures.get(cell.picture_id, ""))
        work.put("title_cell", made)
        for field in fields_in(cell.content):
            try:
                check_fields(project, f"{{{field}}}")
            except RuleError:
                fields.setdefault(field, "")
    if fields != project.settings.own_fields:
        work.put("settings", replace(project.settings, own_fields=fields))
    work.outcome.placed = [block.id]
    return f"title block {block.name}"


def _free_name(project: Project, name: str, but: str = "") -> str:
    taken = {b.name for b in project.title_blocks.values() if b.id != but}
    found, n = name, 1
    while found in taken:
        n += 1
        found = f"{name} {n}"
    return found


class ChangeTitleBlock(Payload):
    """Give a title block another name or size; what is left out stays."""

    kind: Literal["change-title-block"] = "change-title-block"
    block_id: Id
    name: Text | None = Field(default=None, min_length=1)
    width_mm: Size | None = None
    height_mm: Size | None = None


@edit(ChangeTitleBlock, {"block_id": "b1", "name": "Pellwick, metric", "height_mm": 48})
def change_title_block(work: Work, payload: ChangeTitleBlock) -> str:
    """Work out ChangeTitleBlock."""
    block: TitleBlock = work.project.get("title_block", payload.block_id)
    made = replace(block, **payload.model_dump(exclude={"kind", "block_id"}, exclude_none=True))
    if _free_name(work.project, made.name, but=block.id) != made.name:
        raise RuleError(f"There is already a title block “{made.name}”.", field="name")
    for id in work.project.cells_of_block.get(block.id):
        within_block(made, work.project.title_cells[id])
    work.put("title_block", made)
    return f"change title block {made.name}"


class RemoveTitleBlock(Payload):
    """Take a title block out of the project; refused while sheets have it, unless they are to have another one."""

    kind: Literal["remove-title-block"] = "remove-title-block"
    block_id: Id
    move_to: Id | None = None


@edit(RemoveTitleBlock, {"block_id": "b1"})
def remove_title_block(work: Work, payload: RemoveTitleBlock) -> str:
    """Work out RemoveTitleBlock."""
    project = work.project
    block: TitleBlock = project.get("title_block", payload.block_id)
    users: list[tuple[str, Any]] = [
        (kind, entity)
        for kind, fields in REFERENCES.items()
        if fields.get("title_block_id") == "title_block"
        for entity in project.tables[kind].values()
        if entity.title_block_id == block.id
    ]
    if users and payload.move_to is None:
        sheets = [e.number for kind, e in users if kind == "sheet"]
        what = [f"{len(sheets)} sheets" if len(sheets) > 1 else f"sheet {sheets[0]}"] if sheets else []
        what += ["the project"] if any(kind == "settings" for kind, _ in users) else []
        what += ["new sheets"] if any(kind == "sheet_habit" for kind, _ in users) else []
        words = f"{block.name} is the title block of {' and '.join(what)}. Say which one they get."
        raise RuleError(words, field="move_to", ids=(block.id,))
    if payload.move_to == block.id:
        raise RuleError("Choose another title block for them.", field="move_to")
    if payload.move_to:
        project.get("title_block", payload.move_to)
    for kind, entity in users:
        work.put(kind, replace(entity, title_block_id=payload.move_to or ""))
    for id in project.cells_of_block.get(block.id):
        work.remove("title_cell", id)
    work.remove("title_block", block.id)
    return f"remove title block {block.name}"
