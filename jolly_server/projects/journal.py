"""The journal read: entries by who, what, where and when; the sheet before and after one; taking one back."""

from __future__ import annotations

import json
from datetime import datetime
from typing import Literal

from django.contrib.auth.models import AbstractBaseUser
from django.db.models import Q, QuerySet
from typing_extensions import TypedDict

from jolly_core.edits.base.history import take_back
from jolly_core.model import (
    ON_SHEET,
    Change,
    ChangeSet,
    ConflictError,
    GoneError,
    Project,
    RuleError,
    changes_from_json,
)
from jolly_core.reports import differences, named, objects_of
from jolly_core.scenes import scene_of
from jolly_server.shapes.sceneshapes import SceneValue, scene_value

from .models import JournalEntry
from .services import store_edit
from .store import Loaded, loaded

PAGE = 60
MOST_ROWS = 200
MOST_LATER = 12


class ObjectValue(TypedDict):
    """A thing an edit concerned, by the name people know."""

    kind: str
    name: str
    id: str
    sheet_id: str


class JournalLine(TypedDict):
    """An edit in the journal; `live` until it is taken back."""

    revision: int
    who: str
    at: str
    act: str
    label: str
    live: bool
    count: int
    objects: list[ObjectValue]


class ChangeValue(TypedDict):
    """What an edit did to a thing: added, removed or changed, and the fields (name, before, after)."""

    kind: str
    name: str
    id: str
    what: Literal["added", "removed", "changed"]
    fields: list[tuple[str, str, str]]


class SheetTouched(TypedDict):
    """A sheet an edit touched."""

    id: str
    number: str
    title: str


class JournalDetail(JournalLine):
    """All about an edit: what it changed, whether it can be taken back, why not, and what came later on it."""

    changes: list[ChangeValue]
    more: int
    sheets: list[SheetTouched]
    can: bool
    why: str
    later: list[JournalLine]


class BeforeAfter(TypedDict):
    """A sheet before and after an edit, none where it was not there, and what was changed on it."""

    before: SceneValue | None
    after: SceneValue | None
    changed: list[str]


def find_entries(
    project_id: str,
    *,
    who: str = "",
    object_id: str = "",
    sheet_id: str = "",
    since: datetime | None = None,
    until: datetime | None = None,
    words: str = "",
    before: int = 0,
) -> list[JournalLine]:
    """Return a page of the journal, latest first.

    Args:
        who: account name.
        object_id: an entity the edit changed, or one that what it changed belongs to.
        before: only entries of earlier revisions; 0 for the latest page.
    """
    rows = JournalEntry.objects.filter(project_id=project_id)
    if who:
        rows = rows.filter(user__username=who)
    if object_id:
        rows = rows.filter(changes__contains=f'"{_plain(object_id)}"')
    if sheet_id:
        id = _plain(sheet_id)
        rows = rows.filter(
            Q(changes__contains=f'"sheet_id":"{id}"') | Q(changes__contains=f'"kind":"sheet","id":"{id}"')
        )
    if since is not None:
        rows = rows.filter(at__gte=since)
    if until is not None:
        rows = rows.filter(at__lt=until)
    for word in words.split():
        rows = rows.filter(label__icontains=word)
    if before:
        rows = rows.filter(revision__lt=before)
    held = loaded(project_id)
    page = list(rows.select_related("user").order_by("-revision")[:PAGE])
    with held.lock:
        return [_line(held.project, entry, changes_of(entry)) for entry in page]


def _plain(id: str) -> str:
    return "".join(c for c in id if c.isalnum() or c in "-_:")


def changes_of(entry: JournalEntry) -> ChangeSet:
    """Return what an entry did."""
    return changes_from_json(json.loads(entry.changes))


def _line(project: Project, entry: JournalEntry, changes: ChangeSet) -> JournalLine:
    things = objects_of(project, changes)
    return {
        "revision": entry.revision,
        "who": (entry.user.get_full_name() or entry.user.get_username()) if entry.user else "",
        "at": entry.at.isoformat(),
        "act": entry.act,
        "label": entry.label,
        "live": entry.live,
        "count": len(changes),
        "objects": [{"kind": t.kind, "name": t.name, "id": t.id, "sheet_id": t.sheet_id} for t in things],
    }


def _entry(project_id: str, revision: int) -> JournalEntry:
    found = JournalEntry.objects.filter(project_id=project_id, revision=revision).select_related("user").first()
    if found is None:
        raise GoneError("This edit is not in the journal.", ids=(str(revision),))
    return found


def detail(project_id: str, revision: int) -> JournalDetail:
    """Return an edit with what it changed, the sheets it touched, and whether it can be taken back or what hinders."""
    entry = _entry(project_id, revision)
    changes = changes_of(entry)
    held = loaded(project_id)
    with held.lock:
        project = held.project
        rows: list[ChangeValue] = []
        for change in list(changes)[:MOST_ROWS]:
            thing = named(project, change)
            fields = differences(project, change)
            rows.append(
                {"kind": thing.kind, "name": thing.name, "id": thing.id, "what": _what(change), "fields": fields}
            )
        sheets: list[SheetTouched] = [
            {"id": id, "number": project.sheets[id].number, "title": project.sheets[id].title}
            for id in _sheets_of(changes)
            if id in project.sheets
        ]
        why = _why_not(project, entry, changes)
    return {
        **_line(project, entry, changes),
        "changes": rows,
        "more": max(0, len(changes) - MOST_ROWS),
        "sheets": sheets,
        "can": not why,
        "why": why,
        "later": _later(project_id, entry, changes, held) if why and entry.live else [],
    }


def _what(change: Change) -> Literal["added", "removed", "changed"]:
    return "added" if change.before is None else "removed" if change.after is None else "changed"


def _sheets_of(changes: ChangeSet) -> list[str]:
    ids: dict[str, None] = {}
    for change in changes:
        for record in (change.before, change.after):
            if record is not None and change.kind in ON_SHEET:
                ids[record.sheet_id] = None
        if change.kind == "sheet":
            ids[change.id] = None
    return list(ids)


def _why_not(project: Project, entry: JournalEntry, changes: ChangeSet) -> str:
    if entry.act == "undo":
        return "This took another edit back. Do it again from the undo history."
    if not entry.live:
        return "This edit has been taken back already."
    try:
        take_back(project, changes)
    except ConflictError as error:
        return error.message
    return ""


def _touching(project_id: str, entry: JournalEntry, changes: ChangeSet) -> QuerySet[JournalEntry]:
    wanted = Q(pk__in=[])
    for change in list(changes)[:MOST_ROWS]:
        wanted |= Q(changes__contains=f'"{change.id}"')
    later = JournalEntry.objects.filter(project_id=project_id, revision__gt=entry.revision, live=True)
    return later.filter(wanted).exclude(act="undo").select_related("user").order_by("revision")


def _later(project_id: str, entry: JournalEntry, changes: ChangeSet, held: Loaded) -> list[JournalLine]:
    """Return the later edits that build on what an edit touched, earliest first."""
    entries = list(_touching(project_id, entry, changes)[:MOST_LATER])
    with held.lock:
        return [_line(held.project, e, changes_of(e)) for e in entries]


def before_and_after(project_id: str, revision: int, sheet_id: str) -> BeforeAfter:
    """Return a sheet as it was before an edit and right after it, None where it was not there.

    Notes:
        The project of that day is worked out by taking back all later edits, in memory.
    """
    entry = _entry(project_id, revision)
    later = JournalEntry.objects.filter(project_id=project_id, revision__gt=revision).order_by("-revision")
    held = loaded(project_id)
    mine = changes_of(entry)
    with held.lock:
        project = held.project
        with project.trial() as total:
            for other in later.iterator(chunk_size=200):
                if other.revision <= held.revision:
                    project.commit(total, changes_of(other).inverse())
            after = _scene(project, sheet_id)
            project.commit(total, mine.inverse())
            before = _scene(project, sheet_id)
    return {"before": before, "after": after, "changed": [c.id for c in mine]}


def _scene(project: Project, sheet_id: str) -> SceneValue | None:
    if sheet_id not in project.sheets:
        return None
    return scene_value(scene_of(project, sheet_id))


def take_one_back(project_id: str, user: AbstractBaseUser, revision: int) -> int:
    """Take one edit back, whoever made it, and return the new revision.

    Raises:
        RuleError: it was taken back already, or cannot be.
        ConflictError: later edits depend on it; the message names the first of them.
    """
    held = loaded(project_id)
    with held.lock:
        entry = _entry(project_id, revision)
        if not entry.live or entry.act == "undo":
            raise RuleError(_why_not(held.project, entry, ChangeSet()))
        changes = changes_of(entry)
        try:
            inverse = take_back(held.project, changes)
        except ConflictError as error:
            first = _touching(project_id, entry, changes).first()
            words = f" First take back “{first.label}”, which came after it." if first is not None else ""
            raise ConflictError(error.message + words, ids=error.ids) from error
        store_edit(held, project_id, user, inverse, "undo", entry.label, "", entry)
        return held.revision
