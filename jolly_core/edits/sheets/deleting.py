"""Deleting sheets, one or many at once, with what is left nowhere then."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.model import Sheet

from ..base.edit import Id, Payload, Work, edit
from ..base.upkeep import drop_unused, refresh_letters, tidy_strip


class DeleteSheet(Payload):
    """Delete a sheet with all that is drawn on it."""

    kind: Literal["delete-sheet"] = "delete-sheet"
    sheet_id: Id


@edit(DeleteSheet, {"sheet_id": "s1"})
def delete_sheet(work: Work, payload: DeleteSheet) -> str:
    """Work out DeleteSheet."""
    return f"delete sheet {_delete(work, payload.sheet_id)}"


class DeleteSheets(Payload):
    """Delete several sheets with all that is drawn on them."""

    kind: Literal["delete-sheets"] = "delete-sheets"
    sheet_ids: list[Id] = Field(min_length=1, max_length=5000)


@edit(DeleteSheets, {"sheet_ids": ["s1", "s2"]})
def delete_sheets(work: Work, payload: DeleteSheets) -> str:
    """Work out DeleteSheets."""
    numbers = [_delete(work, id) for id in payload.sheet_ids]
    return f"delete sheet {numbers[0]}" if len(numbers) == 1 else f"delete {len(numbers)} sheets"


def _delete(work: Work, sheet_id: str) -> str:
    project = work.project
    sheet: Sheet = project.get("sheet", sheet_id)
    devices = [s.device_id for s in project.symbols_on(sheet.id) if s.device_id]
    devices += [project.bands[i].device_id for i in project.on_sheet["band"].get(sheet.id)]
    for kind, index in project.on_sheet.items():
        for id in index.get(sheet.id):
            work.remove(kind, id)
    for device_id in dict.fromkeys(devices):
        drop_unused(work, device_id)
        tidy_strip(work, device_id)
        refresh_letters(work, device_id)
    work.remove("sheet", sheet.id)
    return sheet.number
