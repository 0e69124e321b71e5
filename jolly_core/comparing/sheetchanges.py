"""Which sheets are other on paper than they were in an earlier state, so that they get a new revision index."""

from __future__ import annotations

from jolly_core.model import Project, Sheet
from jolly_core.scenes import frame_look

from .difference import drawn_changes
from .thing import same_things

# Sheets that say which revision the whole project has, so that they change with every one.
ALWAYS = ("cover", "contents")


def changed_sheets(before: Project | None, after: Project) -> list[str]:
    """Return the ids of the sheets that changed since an earlier state, in order; all when there is none.

    A sheet has changed when what is painted on it has, its title block with it; but not what that says of the state of
    issue, which is other each time. When any has changed, so have the cover and the contents.
    """
    sheets = after.sheets_in_order()
    if before is None:
        return [s.id for s in sheets]
    same = same_things(before, after)
    changed = {c.sheet_id for c in drawn_changes(before, after, same)}
    for sheet in sheets:
        was = before.sheets.get(same.sheet(sheet.id))
        if was is None or _printed(before, was) != _printed(after, sheet):
            changed.add(sheet.id)
    facts = [(p.settings.name, p.settings.number, p.settings.customer, p.settings.own_fields) for p in (before, after)]
    if changed or facts[0] != facts[1] or len(before.sheets) != len(after.sheets):
        changed |= {s.id for s in sheets if s.kind in ALWAYS}
    return [s.id for s in sheets if s.id in changed]


def _printed(project: Project, sheet: Sheet) -> tuple[object, ...]:
    return sheet.number, sheet.title, frame_look(project, sheet)
