"""What edits of a selection ask first: its sheet, its locks, its room, and what to call it."""

from __future__ import annotations

from collections.abc import Iterable

from jolly_core.drawing import SheetDraft, grid_size
from jolly_core.model import LOCKABLE, ON_SHEET, GoneError, Project, RuleError

from ..base.edit import Work
from ..devices.naming import name_of


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
