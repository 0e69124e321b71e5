"""Edits as transactions: apply, preview, undo, redo; making and importing projects."""

from __future__ import annotations

import json
from dataclasses import dataclass, field, replace
from typing import Any

from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction
from django.utils import timezone

from jolly_core.drawing import Point
from jolly_core.edits import Payload, compute, perform
from jolly_core.edits.base.history import take_back
from jolly_core.exchange import read_project, write_project
from jolly_core.model import (
    KINDS,
    SETTINGS_ID,
    Change,
    ChangeSet,
    ConflictError,
    GoneError,
    IdSource,
    Project,
    RuleError,
    changes_from_json,
    changes_to_json,
)
from jolly_server.library.services import StoredLibrary

from .defaults import start_from
from .meanwhile import refuse_overwriting
from .models import JournalEntry, Membership, ProjectRow
from .quick import advance, enter
from .store import Loaded, load_rows, loaded, save_changes, save_entities, snapshot
from .versions import View, difference
from .views import current_drawing, drawing_at, drawing_view, has_page, news_of

_ids = IdSource()


@dataclass
class Answer:
    """What an edit did and what the browser must change to show it."""

    revision: int
    label: str
    placed: list[str] = field(default_factory=list)
    caret: Point | None = None
    remarks: list[str] = field(default_factory=list)
    view: dict[str, Any] | None = None
    table: list[list[str]] = field(default_factory=list)


def apply_edit(
    project_id: str,
    user: AbstractBaseUser | None,
    payload: Payload,
    sheet_id: str = "",
    since: int = -1,
    key: str = "",
    stored: int | None = None,
    *,
    seen: int = -1,
    at_its_door: bool = False,
) -> Answer:
    """Apply one edit and store it with its journal entry, all in one transaction.

    Args:
        at_its_door: whether it is done by the act it is a part of, where it has a door of its own.
        stored: the stored revision, when the caller has just read it.
        sheet_id: the sheet the browser shows, "" for none.
        since: the revision of the drawing it shows. The answer holds what changes in that; what is found on the sheet
            is asked for after.
        key: the browser's name for the request; one that was done already is answered again, not done again.
        seen: the revision that was looked at when what it says was typed, -1 when that does not matter.

    Raises:
        ConflictError: somebody else has set what it sets to something else since `seen`.
        CoreError: it breaks a rule, or is half an act without what else is done at its door.
    """
    if payload.own_door and not at_its_door:
        raise RuleError(payload.own_door)
    held = loaded(project_id, stored)
    with held.lock:
        before = _shown(held, sheet_id, since)
        done = _done(held, project_id, key, sheet_id, before)
        if done is not None:
            return done
        try:
            outcome = perform(held.project, payload, ids=_ids, library=StoredLibrary(user))
        except GoneError as error:
            raise _who_removed(project_id, error) from error
        kind = payload.model_dump()["kind"]
        try:
            if 0 <= seen < held.revision:
                refuse_overwriting(held.project, project_id, user, outcome.changes, seen)
            store_edit(held, project_id, user, outcome.changes, "edit", outcome.label, kind, key=key, done=True)
        except BaseException:
            held.project.apply(outcome.changes.inverse())
            raise
        answer = Answer(held.revision, outcome.label, outcome.placed, outcome.caret, outcome.remarks)
        answer.table = outcome.table
        answer.view = _view(held, sheet_id, before)
    return answer


def apply_many(project_id: str, user: AbstractBaseUser | None, payloads: list[Payload]) -> list[Answer]:
    """Apply several edits, all or none."""
    held = loaded(project_id)
    with held.lock:
        try:
            with transaction.atomic():
                return [apply_edit(project_id, user, p) for p in payloads]
        except Exception:
            held.project.memo.clear()
            held.project, held.revision = load_rows(project_id), _stored_revision(project_id)
            held.shown.clear()
            raise


def _stored_revision(project_id: str) -> int:
    return ProjectRow.objects.values_list("revision", flat=True).get(pk=project_id)


def preview_edit(
    project_id: str,
    payload: Payload,
    sheet_id: str,
    since: int,
    stored: int | None = None,
    user: AbstractBaseUser | None = None,
) -> Answer:
    """Work out an edit and what the sheet would look like, and store nothing."""
    held = loaded(project_id, stored)
    with held.lock:
        outcome = compute(held.project, payload, library=StoredLibrary(user))
        answer = Answer(held.revision, outcome.label, outcome.placed, outcome.caret, outcome.remarks)
        answer.table = outcome.table
        if has_page(held.project, sheet_id):
            before = _shown(held, sheet_id, since) or current_drawing(held, sheet_id)
            with held.project.trial() as total:
                held.project.commit(total, outcome.changes)
                answer.view = difference(before, drawing_view(held.project, sheet_id))
        return answer


def undo_entry(project_id: str, user: AbstractBaseUser) -> JournalEntry | None:
    """Return the person's last edit that can be taken back, None when there is none."""
    mine = JournalEntry.objects.filter(project_id=project_id, user_id=user.pk, live=True)
    return mine.filter(act__in=("edit", "redo")).order_by("-revision").first()


def redo_entry(project_id: str, user: AbstractBaseUser) -> JournalEntry | None:
    """Return the person's last undo with no edit of theirs after it, None when there is none."""
    mine = JournalEntry.objects.filter(project_id=project_id, user_id=user.pk)
    last = mine.filter(act="edit").order_by("-revision").values_list("revision", flat=True).first() or 0
    return mine.filter(act="undo", live=True, revision__gt=last).order_by("-revision").first()


def _done(held: Loaded, project_id: str, key: str, sheet_id: str, before: View | None) -> Answer | None:
    """Return the answer to a request that was done before, None when there is none of that key."""
    entry = JournalEntry.objects.filter(project_id=project_id, key=key).first() if key else None
    if entry is None:
        return None
    new = [r for r in json.loads(entry.changes) if r["before"] is None and r["kind"] != "device"]
    # Wires that came along with a symbol were not what was placed.
    symbols = any(r["kind"] == "symbol" for r in new)
    placed = [r["id"] for r in new if not (symbols and r["kind"] == "wire")]
    return Answer(held.revision, entry.label, placed, view=_view(held, sheet_id, before))


def step_back(project_id: str, user: AbstractBaseUser, act: str, sheet_id: str, since: int, key: str = "") -> Answer:
    """Undo or redo the person's last step.

    Args:
        act: "undo" or "redo".

    Raises:
        RuleError: there is nothing to take back.
        ConflictError: somebody has changed the same things since; the message says who.
    """
    held = loaded(project_id)
    with held.lock:
        before = _shown(held, sheet_id, since)
        done = _done(held, project_id, key, sheet_id, before)
        if done is not None:
            return done
        entry = undo_entry(project_id, user) if act == "undo" else redo_entry(project_id, user)
        if entry is None:
            raise RuleError(f"There is nothing to {act}.")
        try:
            changes = take_back(held.project, changes_from_json(json.loads(entry.changes)))
        except ConflictError as error:
            raise _who_changed(entry, error) from error
        label = entry.label if act == "undo" else entry.target.label if entry.target else entry.label
        store_edit(held, project_id, user, changes, act, label, "", entry, key)
        answer = Answer(held.revision, f"{act}: {label}", [c.id for c in changes if c.after is not None])
        answer.view = _view(held, sheet_id, before)
    return answer


def store_edit(
    held: Loaded,
    project_id: str,
    user: AbstractBaseUser | None,
    changes: ChangeSet,
    act: str,
    label: str,
    payload_kind: str,
    target: JournalEntry | None = None,
    key: str = "",
    *,
    done: bool = False,
) -> None:
    """Store a change set with its journal entry in one transaction, then apply it to the project in memory.

    Args:
        done: the project in memory has it already.

    Raises:
        ConflictError: the stored revision is no longer the loaded one.
    """
    revision = held.revision + 1
    with transaction.atomic():
        now = timezone.now()
        if not advance(project_id, held.revision, user.pk if user else None, now):
            raise ConflictError("Somebody else has just changed the project. Try again.")
        save_changes(project_id, changes)
        entry = JournalEntry(
            project_id=project_id,
            revision=revision,
            user_id=user.pk if user else None,
            act=act,
            label=label[:250],
            payload_kind=payload_kind,
            key=key,
            changes=json.dumps(changes_to_json(changes), ensure_ascii=False, separators=(",", ":")),
            target=target,
        )
        enter(entry, now)
        if target is not None:
            JournalEntry.objects.filter(pk=target.pk).update(live=False)
    for actor in (user.pk if user else None, target.user_id if target is not None else None):
        held.here.labels.pop(actor or 0, None)
    if not done:
        held.project.apply(changes)
    held.revision = revision


def _shown(held: Loaded, sheet_id: str, since: int) -> View | None:
    if not sheet_id or not has_page(held.project, sheet_id):
        return None
    if since == held.revision:
        return current_drawing(held, sheet_id)
    return drawing_at(held, sheet_id, since)


def _view(held: Loaded, sheet_id: str, before: View | None) -> dict[str, Any] | None:
    if not sheet_id or not has_page(held.project, sheet_id):
        return None
    return difference(before, current_drawing(held, sheet_id))


def view_since(held: Loaded, sheet_id: str, since: int, found: int, *, drawn: bool = False) -> dict[str, Any]:
    """Return what changed on a sheet since the revisions of what the browser has, see `news_of`; or what is drawn."""
    with held.lock:
        return difference(None, current_drawing(held, sheet_id)) if drawn else news_of(held, sheet_id, since, found)


def _last_by(project_id: str, ids: tuple[str, ...], after: int = 0) -> tuple[str, str] | None:
    """Return who last touched one of the entities after a revision, and what they did; None when nobody did."""
    for id in ids:
        entry = (
            JournalEntry.objects.filter(
                project_id=project_id, revision__gt=after, changes__contains=f'"id":"{id}"', user__isnull=False
            )
            .select_related("user")
            .order_by("-revision")
            .first()
        )
        if entry is not None and entry.user is not None:
            return entry.user.get_full_name() or entry.user.get_username(), entry.label
    return None


def _who_removed(project_id: str, error: GoneError) -> GoneError:
    """Say in the message who removed what an edit names, when the journal knows."""
    last = _last_by(project_id, error.ids)
    if last is None:
        return error
    return GoneError(f"It is gone: {last[0]} did “{last[1]}”. Nothing was changed.", ids=error.ids)


def _who_changed(entry: JournalEntry, error: ConflictError) -> ConflictError:
    """Say in the message who changed what an undo meets, when the journal knows."""
    last = _last_by(entry.project_id, error.ids, entry.revision)
    if last is None:
        return error
    return ConflictError(f"{error.message} Last by {last[0]}: “{last[1]}”.", ids=error.ids)


def copy_project(user: AbstractBaseUser, source_id: str, *, fresh: bool = False, **facts: str) -> str:
    """Store a copy of a project as the person's own, and return its id.

    Args:
        fresh: leave out what is drawn and built and keep habits, structure, wire types, title blocks and the sheets
            that are made from the project.
        facts: number, name and customer of the copy; those left out or empty stay.
    """
    copy = read_project(write_project(snapshot(source_id)))
    if fresh:
        copy = start_from(copy)
    given = {name: value for name, value in facts.items() if value}
    if fresh:
        given = {"number": "1", **given, "revision": "A", "issued_on": "", "checked_on": "", "checked_by": ""}
    copy.apply(ChangeSet([Change("settings", SETTINGS_ID, copy.settings, replace(copy.settings, **given))]))  # type: ignore[arg-type]  # texts only
    return create_project(user, copy)


def create_project(user: AbstractBaseUser | None, project: Project, id: str = "") -> str:
    """Store a whole project as a new one, owned by the person, and return its id."""
    project_id = id or _ids.new()
    with transaction.atomic():
        ProjectRow.objects.create(pk=project_id, edited_by_id=user.pk if user else None)
        for kind in KINDS:
            save_entities(project_id, kind, project.tables[kind].values())
        if user is not None:
            Membership.objects.create(project_id=project_id, user_id=user.pk, role=Membership.Role.OWNER)
    return project_id
