"""Duplicating and repeating what is selected on a sheet."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.model import RuleError

from ..base.edit import Grid, Id, Payload, Work, edit
from ..draw.selecting import sheet_of, what_of
from .pieces import piece_of, put_piece


class DuplicateSelection(Payload):
    """Copy what is selected to another place of its sheet, with new tags.

    Contacts copied together with their coil belong to the copied coil; one copied alone stays with the old.
    """

    kind: Literal["duplicate-selection"] = "duplicate-selection"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    dx: Grid
    dy: Grid


@edit(DuplicateSelection, {"ids": ["y1", "w1"], "dx": 0, "dy": 9})
def duplicate_selection(work: Work, payload: DuplicateSelection) -> str:
    """Work out DuplicateSelection."""
    sheet_id = sheet_of(work.project, payload.ids)
    label = f"duplicate {what_of(work.project, payload.ids)}"
    piece = piece_of(work.project, sheet_id, payload.ids)
    work.outcome.placed = put_piece(work, work.draft(sheet_id), piece, payload.dx, payload.dy)
    return label


class RepeatSelection(Payload):
    """Copy what is selected several times, each copy one pitch further, with tags and contact ties of its own."""

    kind: Literal["repeat-selection"] = "repeat-selection"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    count: int = Field(ge=1, le=100)
    dx: Grid
    dy: Grid


@edit(RepeatSelection, {"ids": ["y1", "w1"], "count": 4, "dx": 0, "dy": 9})
def repeat_selection(work: Work, payload: RepeatSelection) -> str:
    """Work out RepeatSelection."""
    if not payload.dx and not payload.dy:
        raise RuleError("The copies would lie on each other. Give a pitch across or down.", field="dx")
    sheet_id = sheet_of(work.project, payload.ids)
    label = f"repeat {what_of(work.project, payload.ids)} {payload.count} times"
    piece = piece_of(work.project, sheet_id, payload.ids)
    for n in range(1, payload.count + 1):
        work.outcome.placed += put_piece(work, work.draft(sheet_id), piece, n * payload.dx, n * payload.dy)
    return label
