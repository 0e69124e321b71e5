"""Deleting what is selected on a sheet."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

from pydantic import Field

from ..base.edit import Id, Payload, Work, edit
from ..base.upkeep import drop_unused, refresh_letters, tidy_strip
from ..draw.railends import RailEnds
from ..draw.rungwires import take_bare_rungs
from ..draw.selecting import refuse_locked, sheet_of, what_of


class DeleteSelection(Payload):
    """Delete what is selected; wires heal where both stubs are in line and of one type.

    The wire of a rung goes with its last symbol, when nothing else hangs on it.
    """

    kind: Literal["delete-selection"] = "delete-selection"
    ids: list[Id] = Field(min_length=1, max_length=2000)


@edit(DeleteSelection, {"ids": ["y1"]})
def delete_selection(work: Work, payload: DeleteSelection) -> str:
    """Work out DeleteSelection."""
    sheet_id = sheet_of(work.project, payload.ids)
    refuse_locked(work.project, payload.ids)
    label = f"delete {what_of(work.project, payload.ids)}"
    take_away(work, sheet_id, payload.ids)
    return label


def take_away(work: Work, sheet_id: str, ids: Iterable[str]) -> None:
    """Take things off a sheet, and what is left without use by that: devices, rungs, places on strips."""
    ids = list(ids)
    draft = work.draft(sheet_id)
    wanted = set(ids)
    devices = [s.device_id for i, s in draft.symbols.items() if i in wanted and s.device_id]
    for id in ids:
        for table in (draft.wires, *draft.others):
            gone = table.pop(id, None)
            if hasattr(gone, "device_id"):
                devices.append(gone.device_id)
    lines = {draft.symbols[id].y for id in ids if id in draft.symbols}
    sheet = work.project.sheets[sheet_id]
    ends = RailEnds(draft, sheet, lines)
    for id in ids:
        if id in draft.symbols:
            draft.take(id, ends.gives_way)
    if lines:
        draft.tidy()
        if ends.settle(draft):
            draft.tidy()
        take_bare_rungs(draft, sheet, lines)
    work.close(draft)
    for device_id in dict.fromkeys(devices):
        drop_unused(work, device_id)
        tidy_strip(work, device_id)
        refresh_letters(work, device_id)
