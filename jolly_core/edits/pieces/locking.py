"""Locking what is selected on a sheet."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import LOCKABLE

from ..base.edit import Id, Payload, Work, edit
from ..draw.selecting import sheet_of, what_of


class SetLock(Payload):
    """Lock what is selected, so that it is neither moved, turned nor deleted, or unlock it."""

    kind: Literal["set-lock"] = "set-lock"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    locked: bool


@edit(SetLock, {"ids": ["y1"], "locked": True})
def set_lock(work: Work, payload: SetLock) -> str:
    """Work out SetLock."""
    sheet_of(work.project, payload.ids)
    for id in payload.ids:
        for kind in LOCKABLE:
            thing = work.project.tables[kind].get(id)
            if thing is not None and thing.locked != payload.locked:
                work.put(kind, replace(thing, locked=payload.locked))
    work.outcome.placed = list(payload.ids)
    return f"{'lock' if payload.locked else 'unlock'} {what_of(work.project, payload.ids)}"
