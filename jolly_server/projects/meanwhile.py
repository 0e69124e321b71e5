"""What a person typed over a text that somebody else has changed since: refused, so that the choice is theirs."""

from __future__ import annotations

import json
from dataclasses import replace
from typing import TYPE_CHECKING, Any

from jolly_core.model import Change, ChangeSet, ConflictError, Project, changes_from_json, to_record
from jolly_core.reports import differences, named

from .models import JournalEntry

if TYPE_CHECKING:
    from django.contrib.auth.models import AbstractBaseUser


def refuse_overwriting(
    project: Project, project_id: str, user: AbstractBaseUser | None, changes: ChangeSet, seen: int
) -> None:
    """Refuse changes of what somebody else has set to something else since a revision.

    Args:
        project: with or without the changes.
        changes: what the edit does.
        seen: the revision a person looked at when they began to type.

    Raises:
        ConflictError: naming who, the thing, its field and what stands there now.
    """
    replaced = {(c.kind, c.id): c for c in changes if c.before is not None and c.after is not None}
    if not replaced:
        return
    since = JournalEntry.objects.filter(project_id=project_id, revision__gt=seen).select_related("user")
    stood: dict[tuple[str, str, str], object] = {}
    for entry in since.order_by("revision"):
        for theirs in changes_from_json(json.loads(entry.changes)):
            mine = replaced.get((theirs.kind, theirs.id))
            if mine is None:
                continue
            for field in _fields(theirs) & _fields(mine):
                key = (theirs.kind, theirs.id, field)
                was = stood.setdefault(key, _of(theirs.before, field))
                by_another = entry.user_id is not None and entry.user_id != getattr(user, "pk", None)
                if by_another and _of(theirs.after, field) == _of(mine.before, field) != was:
                    raise ConflictError(_words(project, entry, mine, field), ids=(mine.id,))


def _fields(change: Change) -> set[str]:
    """Return what of an entity is other than before."""
    if change.before is None or change.after is None:
        return set()
    before, after = to_record(change.before), to_record(change.after)
    return {name for name in before if before[name] != after[name]}


def _of(entity: Any, field: str) -> Any:
    return getattr(entity, field, None)


def _words(project: Project, entry: JournalEntry, mine: Change, field: str) -> str:
    who = (entry.user.get_full_name() or entry.user.get_username()) if entry.user else "somebody"
    before: Any = mine.before
    only = Change(mine.kind, mine.id, before, replace(before, **{field: _of(mine.after, field)}))
    (what, now, _), *_ = differences(project, only)
    there = f"set {what} to “{now}”" if _of(before, field) not in ("", None) else f"emptied {what}"
    name = named(project, mine).name
    return f"{name}: meanwhile {who} {there}. Nothing was changed: look at it, and save yours again if it is to stand."
