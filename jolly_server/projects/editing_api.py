"""Editing a project: edits, previews, undo and redo, views of sheets, what others changed."""

import time

from django.contrib.auth.models import AbstractBaseUser
from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from jolly_core.edits import AnyEdit

from .access import role_and_revision, role_in
from .live import Person, mark_present, people_in, told
from .services import (
    Answer,
    apply_edit,
    preview_edit,
    redo_entry,
    step_back,
    undo_entry,
    view_since,
)
from .store import Loaded, loaded
from .views import has_page
from .viewshapes import SheetSections

router = Router(tags=["editing"])


class EditIn(Schema):
    """An edit, what the browser shows, so that it is told what changes there, and its name for the request.

    `seen` is the revision that a person looked at when they began to type what it says.
    """

    edit: AnyEdit
    sheet_id: str = ""
    since: int = -1
    key: str = Field(default="", max_length=40)
    seen: int = -1


class StepIn(Schema):
    """What the browser shows when it asks for undo or redo, and its name for the request."""

    sheet_id: str = ""
    since: int = -1
    key: str = Field(default="", max_length=40)


class ViewChange(Schema):
    """What to put into and drop from the view of a sheet, by section and id; all of it when `whole`."""

    whole: bool
    put: SheetSections
    drop: dict[str, list[str]]


class EditOut(Schema):
    """What an edit did."""

    revision: int
    label: str
    placed: list[str]
    caret: list[int] | None
    remarks: list[str]
    view: ViewChange | None
    table: list[list[str]] = []
    undo: str = ""
    redo: str = ""


class News(Schema):
    """What changed since a revision, and who is here."""

    revision: int
    view: ViewChange | None
    sheet_gone: bool
    undo: str
    redo: str
    people: list[Person] | None  # None when they are those the browser knows
    people_key: str


def _out(project_id: str, user: AbstractBaseUser | None, answer: Answer) -> EditOut:
    undo, redo = _labels(project_id, user) if user is not None else ("", "")
    return EditOut(
        revision=answer.revision,
        label=answer.label,
        placed=answer.placed,
        caret=list(answer.caret) if answer.caret else None,
        remarks=answer.remarks,
        view=ViewChange(**answer.view) if answer.view else None,
        table=answer.table,
        undo=undo,
        redo=redo,
    )


def _labels(project_id: str, user: AbstractBaseUser) -> tuple[str, str]:
    undo, redo = undo_entry(project_id, user), redo_entry(project_id, user)
    return (undo.label if undo else ""), (redo.target.label if redo and redo.target else "")


def _labels_now(held: Loaded, project_id: str, user: AbstractBaseUser) -> tuple[str, str]:
    """Return what the person can undo and redo, read once and then only after an act that concerns it."""
    known = held.here.labels.get(user.pk)
    if known is None:
        known = held.here.labels[user.pk] = _labels(project_id, user)
    return known


@router.post("/{project_id}/edits", response=EditOut)
def edit(request: HttpRequest, project_id: str, payload: EditIn) -> EditOut:
    """Apply an edit."""
    user, _, stored = role_and_revision(request, project_id, "editor")
    shown, seen = (payload.sheet_id, payload.since, payload.key), payload.seen
    answer = apply_edit(project_id, user, payload.edit, *shown, stored, seen=seen)
    # After an edit of one's own it is the next to be undone, and nothing can be redone.
    out = _out(project_id, None, answer)
    out.undo = answer.label
    return out


@router.post("/{project_id}/preview", response=EditOut)
def preview(request: HttpRequest, project_id: str, payload: EditIn) -> EditOut:
    """Show what an edit would do, and store nothing."""
    user, _, stored = role_and_revision(request, project_id, "editor")
    answer = preview_edit(project_id, payload.edit, payload.sheet_id, payload.since, stored, user)
    return _out(project_id, None, answer)


@router.post("/{project_id}/undo", response=EditOut)
def undo(request: HttpRequest, project_id: str, payload: StepIn) -> EditOut:
    """Take the person's last edit back."""
    user, _ = role_in(request, project_id, "editor")
    return _out(project_id, user, step_back(project_id, user, "undo", payload.sheet_id, payload.since, payload.key))


@router.post("/{project_id}/redo", response=EditOut)
def redo(request: HttpRequest, project_id: str, payload: StepIn) -> EditOut:
    """Do again what the person took back last."""
    user, _ = role_in(request, project_id, "editor")
    return _out(project_id, user, step_back(project_id, user, "redo", payload.sheet_id, payload.since, payload.key))


@router.get("/{project_id}/sheets/{sheet_id}/view", response=News)
def view(request: HttpRequest, project_id: str, sheet_id: str, ahead: bool = False, drawn: bool = False) -> News:
    """Give the whole view of a sheet, or only what is `drawn`; `ahead` when nobody looks at it yet."""
    return _news(request, project_id, sheet_id, (-1, -1), "", looked_at=not ahead, drawn=drawn)


@router.get("/{project_id}/changes", response=News)
def changes(
    request: HttpRequest,
    project_id: str,
    since: int,
    sheet_id: str = "",
    people_key: str = "",
    found: int | None = None,
) -> News:
    """Say what changed since a revision on the sheet shown, and who is here if that is not what the browser knows.

    `found` is the revision at which the browser has wires and snags, where that is another one than of the drawing.
    """
    return _news(request, project_id, sheet_id, (since, since if found is None else found), people_key)


def _news(
    request: HttpRequest,
    project_id: str,
    sheet_id: str,
    since: tuple[int, int],
    people_key: str,
    *,
    looked_at: bool = True,
    drawn: bool = False,
) -> News:
    user, _, stored = role_and_revision(request, project_id)
    held = loaded(project_id, stored)
    if drawn:
        held.opened_at = time.monotonic()
    if looked_at:
        mark_present(held, project_id, user, sheet_id)
    with held.lock:
        undo_label, redo_label = _labels_now(held, project_id, user)
        gone = bool(sheet_id) and not has_page(held.project, sheet_id)
        fresh = None
        if sheet_id and not gone and since != (held.revision, held.revision):
            news = view_since(held, sheet_id, *since, drawn=drawn)
            fresh = ViewChange(**news) if news["whole"] or news["put"] or news["drop"] else None
        revision = held.revision
    people = people_in(held, project_id, user)
    key = told(people)
    return News(
        revision=revision,
        view=fresh,
        sheet_gone=gone,
        undo=undo_label,
        redo=redo_label,
        people=people if key != people_key else None,
        people_key=key,
    )
