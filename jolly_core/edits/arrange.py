"""Moving, turning, deleting and duplicating what is selected on a sheet."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import SheetDraft, grid_size, move, pin_points
from jolly_core.library import is_block
from jolly_core.model import LOCKABLE, ON_SHEET, GoneError, Project, RuleError, Symbol

from .base import Grid, Id, Payload, Work, edit
from .boundaries import follow_boundaries, homes
from .neutralends import NeutralEnds
from .pieces import piece_of, put_piece
from .place import name_of
from .rungwires import take_bare_rungs
from .upkeep import drop_unused, refresh_letters, tidy_strip


def sheet_of(project: Project, ids: list[str]) -> str:
    """Return the one sheet all ids lie on.

    Raises:
        GoneError: an id is not on any sheet.
        RuleError: they lie on several sheets.
    """
    sheets = set()
    for id in ids:
        found = next((project.tables[k][id] for k in ON_SHEET if id in project.tables[k]), None)
        if found is None:
            raise GoneError("What you selected is no longer on the sheet.", ids=(id,))
        sheets.add(found.sheet_id)
    if len(sheets) != 1:
        raise RuleError("Select things of one sheet only.", field="ids")
    return str(sheets.pop())


def refuse_locked(project: Project, ids: Iterable[str]) -> None:
    """Refuse an edit of what somebody locked.

    Raises:
        RuleError: naming the first thing that is locked.
    """
    for id in ids:
        for kind in LOCKABLE:
            thing = project.tables[kind].get(id)
            if thing is not None and thing.locked:
                what = "{it}" if kind == "symbol" else f"The {kind}"
                raise RuleError(f"{what} is locked. Unlock it first, with L.", field="ids", ids=(id,))


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


class MoveSelection(Payload):
    """Move what is selected; wires that stay behind stretch."""

    kind: Literal["move-selection"] = "move-selection"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    dx: Grid
    dy: Grid
    allow_join: bool = False


@edit(MoveSelection, {"ids": ["y1"], "dx": 4, "dy": 0})
def move_selection(work: Work, payload: MoveSelection) -> str:
    """Work out MoveSelection."""
    sheet_id = sheet_of(work.project, payload.ids)
    refuse_locked(work.project, payload.ids)
    draft = work.draft(sheet_id)
    before = homes(work.project, sheet_id)
    joined = move(draft, set(payload.ids), payload.dx, payload.dy, allow_join=payload.allow_join)
    inside(work, draft)
    work.close(draft, tidied=True)
    follow_boundaries(work, sheet_id, before)
    work.outcome.placed = list(payload.ids)
    if joined:
        work.outcome.remarks.append("Wires were joined that were not connected before.")
    return f"move {what_of(work.project, payload.ids)}"


def inside(work: Work, draft: SheetDraft) -> None:
    """Refuse what would lie outside the sheet.

    Raises:
        RuleError: a pin does.
    """
    width, height = grid_size(work.project.sheets[draft.sheet_id])
    if any(not (0 < x < width and 0 < y < height) for x, y in draft.pins()):
        raise RuleError("This would lie outside the sheet.")


def what_of(project: Project, ids: list[str]) -> str:
    """Return what is selected in a few words."""
    symbols = [project.symbols[i] for i in ids if i in project.symbols]
    if len(symbols) == 1 and len(ids) == 1:
        return name_of(project, symbols[0])
    return "a wire" if len(ids) == 1 else f"{len(ids)} things"


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
    ends = NeutralEnds(draft, sheet, lines)
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


class TurnSelection(Payload):
    """Turn symbols a quarter clockwise, or flip them; wires stay on where pins still meet them."""

    kind: Literal["turn-selection"] = "turn-selection"
    ids: list[Id] = Field(min_length=1, max_length=200)
    how: Literal["turn", "flip"]


@edit(TurnSelection, {"ids": ["y1"], "how": "turn"})
def turn_selection(work: Work, payload: TurnSelection) -> str:
    """Work out TurnSelection."""
    draft = work.draft(sheet_of(work.project, payload.ids))
    refuse_locked(work.project, payload.ids)
    for id in payload.ids:
        symbol = draft.symbols.pop(id, None)
        if symbol is None:
            raise RuleError("Only symbols can be turned or flipped.", field="ids", ids=(id,))
        if is_block(symbol.definition):
            raise RuleError("A block is not turned: arrange its pins instead.", field="ids", ids=(id,))
        if payload.how == "flip":
            changed = replace(symbol, mirror=not symbol.mirror)
        else:
            changed = replace(symbol, rotation=(symbol.rotation + 90) % 360)
        was, now = _middle(symbol), _middle(changed)
        draft.put(replace(changed, x=changed.x + was[0] - now[0], y=changed.y + was[1] - now[1]))
    inside(work, draft)
    work.close(draft)
    work.outcome.placed = list(payload.ids)
    return f"{payload.how} {what_of(work.project, payload.ids)}"


def _middle(symbol: Symbol) -> tuple[int, int]:
    points = pin_points(symbol)
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return (min(xs) + max(xs)) // 2, (min(ys) + max(ys)) // 2


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
