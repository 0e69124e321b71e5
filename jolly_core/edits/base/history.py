"""Taking an edit back: the inverse change set, refused where somebody has changed the same things since."""

from __future__ import annotations

from jolly_core.drawing import SheetDraft, is_canonical, through_spans
from jolly_core.model import (
    ON_SHEET,
    REFERENCES,
    ChangeSet,
    ConflictError,
    CoreError,
    Entity,
    IdSource,
    Project,
    users_of,
)


def take_back(project: Project, changes: ChangeSet) -> ChangeSet:
    """Return the change set that undoes an earlier one.

    Args:
        project: the model as it is now.
        changes: what the earlier edit did.

    Raises:
        ConflictError: an entity it touched is no longer as it left it, something made since needs what would go,
            or the wires around it have changed.
    """
    for change in changes:
        if project.tables[change.kind].get(change.id) != change.after:
            raise ConflictError(_message(change.kind, change.after or change.before), ids=(change.id,))
    inverse = changes.inverse()
    with project.trial() as total:
        project.commit(total, inverse)
        for change in inverse:
            if change.after is None:
                _unused(project, change.kind, change.id, change.before)
            for field, kind in REFERENCES.get(change.kind, {}).items():
                named = getattr(change.after, field, "")
                if change.after is not None and named and named not in project.tables[kind]:
                    raise ConflictError(_message(change.kind, change.after), ids=(change.id,))
        for sheet_id in {e.sheet_id for c in inverse if c.kind in ON_SHEET for e in (c.before, c.after) if e}:
            if sheet_id in project.sheets:
                _still_canonical(project, sheet_id)
    return inverse


def _unused(project: Project, kind: str, id: str, record: Entity) -> None:
    for user_kind, field in users_of(kind):
        if project.naming(user_kind, field, id):
            raise ConflictError(_message(kind, record), ids=(id,))


def _still_canonical(project: Project, sheet_id: str) -> None:
    draft = SheetDraft(project, sheet_id, IdSource())
    spans = [span for s in draft.symbols.values() for span in through_spans(s)]
    try:
        good = is_canonical(list(draft.wires.values()), draft.pins(), spans)
    except CoreError:
        good = False
    if not good:
        raise ConflictError("The wires around it have been changed since, so it cannot be taken back alone.")


def _message(kind: str, record: Entity) -> str:
    name = getattr(record, "number", "") or getattr(record, "name", "") or getattr(record, "text", "")
    what = f"{kind.replace('_', ' ')} {name}".strip()
    return f"It cannot be taken back: the {what} has been changed since."
