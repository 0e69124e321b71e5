"""Cells of a title block."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from pydantic import Field

from jolly_core.model import RuleError, TitleBlock, TitleCell
from jolly_core.model.entities.titling import BlockPlace, BlockSize
from jolly_core.tagging import check_fields

from ..base.edit import Id, Payload, Text, Work, edit

Size = Annotated[BlockSize, Field(allow_inf_nan=False)]
CellPlace = Annotated[BlockPlace, Field(allow_inf_nan=False)]


class PutTitleCell(Payload):
    """Add a cell to a title block, or change one; what is left out stays. Lengths in mm."""

    kind: Literal["put-title-cell"] = "put-title-cell"
    block_id: Id
    cell_id: Id = ""
    x: CellPlace | None = None
    y: CellPlace | None = None
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
    within_block(block, cell)
    work.put("title_cell", cell)
    work.outcome.placed = [cell.id]
    return f"cell {cell.heading or cell.content or 'of'} of title block {block.name}"


def within_block(block: TitleBlock, cell: TitleCell) -> None:
    """Refuse a cell that reaches beyond its title block.

    Raises:
        RuleError: it does.
    """
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
