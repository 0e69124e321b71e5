"""Putting a copied piece of circuit down, in the project it comes from or in another."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from ..base.edit import Grid, Id, Payload, Work, edit
from .pieces import Wishes, piece_from_json, put_piece


class PastePiece(Payload):
    """Put a copied piece down with its upper left corner at a grid point; tags and numbers follow this project.

    `keep_fixed` is for what was cut: fixed tags and numbers stay where nobody has them.
    """

    kind: Literal["paste-piece"] = "paste-piece"
    sheet_id: Id
    x: Grid
    y: Grid
    piece: dict[str, Any] = Field(max_length=12)
    keep_fixed: bool = False


EXAMPLE: dict[str, Any] = {"format": "jolly-spool-piece", "version": 1, "leads": [], "entities": {}}


@edit(PastePiece, {"sheet_id": "s1", "x": 20, "y": 20, "piece": EXAMPLE})
def paste_piece(work: Work, payload: PastePiece) -> str:
    """Work out PastePiece."""
    piece = piece_from_json(payload.piece)
    left, top, right, _ = piece.box()
    draft = work.draft(payload.sheet_id)
    wishes = Wishes(keep_fixed=payload.keep_fixed)
    work.outcome.placed = put_piece(work, draft, piece, payload.x - left, payload.y - top, wishes)
    work.outcome.caret = (payload.x + right - left, payload.y)
    return f"paste {sum(len(piece.tables[k]) for k in ('symbol', 'wire', 'continuation', 'note', 'figure'))} things"
