"""Title blocks and pictures of the project."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import Field

from jolly_core.library import built_in_blocks, pattern_of
from jolly_core.library.pictures import read_picture
from jolly_core.model import REFERENCES, Picture, Project, RuleError, TitleBlock, TitleCell
from jolly_core.model.entities.titling import BlockPlace, BlockSize
from jolly_core.tagging import check_fields, fields_in

from .base import Id, Payload, Text, Work, edit

Size = Annotated[BlockSize, Field(allow_inf_nan=False)]
Place = Annotated[BlockPlace, Field(allow_inf_nan=False)]


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
        _inside(made, work.project.title_cells[id])
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


class PutTitleCell(Payload):
    """Add a cell to a title block, or change one; what is left out stays. Lengths in mm."""

    kind: Literal["put-title-cell"] = "put-title-cell"
    block_id: Id
    cell_id: Id = ""
    x: Place | None = None
    y: Place | None = None
    width: Size | None = None
    height: Size | None = None
    heading: Text | None = None
    content: Text | None = None
    size_mm: float | None = Field(default=None, ge=1.2, le=40)
    anchor: Literal["start", "middle", "end"] | None = None
    border: bool | None = None
    picture_id: Id | None = None


@edit(PutTitleCell, {"block_id": "b1", "x": 0, "y": 0, "width": 60, "height": 12, "content": "{customer}"})
def put_title_cell(work: Work, payload: PutTitleCell) -> str:
    """Work out PutTitleCell."""
    project = work.project
    block: TitleBlock = project.get("title_block", payload.block_id)
    values = payload.model_dump(exclude={"kind", "block_id", "cell_id"}, exclude_none=True)
    if payload.picture_id:
        project.get("picture", payload.picture_id)
    if payload.content:
        check_fields(project, payload.content)
    if payload.cell_id:
        old: TitleCell = project.get("title_cell", payload.cell_id)
        if old.block_id != block.id:
            raise RuleError("The cell is of another title block.", field="cell_id")
    else:
        old = TitleCell(work.ids.new(), block.id, 0.0, 0.0, min(40.0, block.width_mm), min(12.0, block.height_mm))
    cell = replace(old, **values)
    _inside(block, cell)
    work.put("title_cell", cell)
    work.outcome.placed = [cell.id]
    return f"cell {cell.heading or cell.content or 'of'} of title block {block.name}"


def _inside(block: TitleBlock, cell: TitleCell) -> None:
    if cell.x + cell.width > block.width_mm + 0.001 or cell.y + cell.height > block.height_mm + 0.001:
        words = f"The cell “{cell.heading or cell.content}” would reach beyond the title block"
        raise RuleError(f"{words} of {block.width_mm:g} x {block.height_mm:g} mm.", field="width", ids=(cell.id,))


class RemoveTitleCells(Payload):
    """Take cells out of a title block."""

    kind: Literal["remove-title-cells"] = "remove-title-cells"
    cell_ids: list[Id] = Field(min_length=1, max_length=200)


@edit(RemoveTitleCells, {"cell_ids": ["c1"]})
def remove_title_cells(work: Work, payload: RemoveTitleCells) -> str:
    """Work out RemoveTitleCells."""
    for id in payload.cell_ids:
        work.remove("title_cell", id)
    return "remove a cell" if len(payload.cell_ids) == 1 else f"remove {len(payload.cell_ids)} cells"


class AddPicture(Payload):
    """Take a PNG or JPEG picture into the project, as base64."""

    kind: Literal["add-picture"] = "add-picture"
    name: Text = Field(min_length=1)
    data: str


@edit(AddPicture, {"name": "Logo", "data": "iVBORw0KGgo="})
def add_picture(work: Work, payload: AddPicture) -> str:
    """Work out AddPicture."""
    media_type, width, height = read_picture(payload.data)
    same = next((p for p in work.project.pictures.values() if p.data == payload.data), None)
    if same is not None:
        raise RuleError(f"This picture is there already, as “{same.name}”.", field="data", ids=(same.id,))
    picture = Picture(work.ids.new(), payload.name, media_type, width, height, payload.data)
    work.put("picture", picture)
    work.outcome.placed = [picture.id]
    return f"picture {picture.name}"


class RemovePicture(Payload):
    """Take a picture out of the project; cells that show it are left without."""

    kind: Literal["remove-picture"] = "remove-picture"
    picture_id: Id


@edit(RemovePicture, {"picture_id": "p1"})
def remove_picture(work: Work, payload: RemovePicture) -> str:
    """Work out RemovePicture."""
    picture: Picture = work.project.get("picture", payload.picture_id)
    for cell in [c for c in work.project.title_cells.values() if c.picture_id == picture.id]:
        work.put("title_cell", replace(cell, picture_id=""))
    work.remove("picture", picture.id)
    return f"remove picture {picture.name}"
