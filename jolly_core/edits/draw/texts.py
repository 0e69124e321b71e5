"""Texts of symbols: where they stand, and which are shown."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import RuleError

from ..base.edit import Id, Payload, Work, edit
from .selecting import sheet_of, what_of

TextName = Literal["tag", "text", "reference", "pin"]


class MoveText(Payload):
    """Put texts of symbols elsewhere: how far from their own place, in mm; nothing given puts them back."""

    kind: Literal["move-text"] = "move-text"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    text: TextName
    dx_mm: float | None = Field(default=None, ge=-200, le=200, allow_inf_nan=False)
    dy_mm: float | None = Field(default=None, ge=-200, le=200, allow_inf_nan=False)


@edit(MoveText, {"ids": ["y1"], "text": "tag", "dx_mm": 5, "dy_mm": 0})
def move_text(work: Work, payload: MoveText) -> str:
    """Work out MoveText."""
    dx, dy = payload.dx_mm or 0.0, payload.dy_mm or 0.0
    moved = f"{round(dx, 2):g},{round(dy, 2):g}" if dx or dy else ""
    _write(work, payload.ids, {payload.text: moved})
    return f"{'move' if moved else 'put back'} the {payload.text} of {what_of(work.project, payload.ids)}"


class ShowTexts(Payload):
    """Show or hide texts of symbols; those shown again stand at their own place."""

    kind: Literal["show-texts"] = "show-texts"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    texts: list[TextName] = Field(min_length=1, max_length=4)
    shown: bool


@edit(ShowTexts, {"ids": ["y1"], "texts": ["text"], "shown": False})
def show_texts(work: Work, payload: ShowTexts) -> str:
    """Work out ShowTexts."""
    _write(work, payload.ids, dict.fromkeys(payload.texts, "" if payload.shown else "off"))
    return f"{'show' if payload.shown else 'hide'} texts of {what_of(work.project, payload.ids)}"


def _write(work: Work, ids: list[str], values: dict[str, str]) -> None:
    sheet_of(work.project, ids)
    symbols = [work.project.symbols[id] for id in ids if id in work.project.symbols]
    if not symbols:
        raise RuleError("Select symbols: only they have texts to move or hide.", field="ids")
    for symbol in symbols:
        texts = {name: value for name, value in {**symbol.texts, **values}.items() if value}
        if texts != symbol.texts:
            work.put("symbol", replace(symbol, texts=texts))
    work.outcome.placed = [s.id for s in symbols]
