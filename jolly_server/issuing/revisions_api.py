"""Revisions over HTTP: frozen, with their papers, opened to be read, and compared with each other or the present."""

from __future__ import annotations

import json
from contextlib import suppress

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Schema
from ninja.errors import HttpError
from ninja.files import UploadedFile
from typing_extensions import TypedDict

from jolly_core.comparing import changed_sheets, drawing_change, same_things
from jolly_core.edits.project.revisions import FreezeRevision, next_index
from jolly_core.exchange import LIST_FORMATS, read_project, write_work_list
from jolly_core.model import Project, Revision, RuleError
from jolly_core.scenes import scene_of
from jolly_core.tagging import revisions
from jolly_server.projects.access import person, role_in
from jolly_server.projects.store import loaded
from jolly_server.shapes.sceneshapes import SceneValue, scene_value

from .changes import WhatChanged, jobs_between, what_changed
from .files import TYPES, file_answer
from .models import FrozenRevision, JobDone
from .packs_api import FindingValue, findings_of
from .revisions import (
    NOW,
    READING,
    freeze,
    frozen_row,
    last_frozen,
    make_papers,
    open_frozen,
    present,
    settle_papers,
    state_of,
)

router = Router(tags=["revisions"])


class PaperValue(TypedDict):
    """A file of frozen papers with its SHA-256."""

    name: str
    digest: str


class RevisionLine(TypedDict):
    """A revision as the table of revisions says it; `papers` is "none", "making" or "ready"."""

    id: str
    index: str
    text: str
    issued_on: str
    drawn_by: str
    checked_by: str
    released_by: str
    reason: str
    sheets: list[str]
    kept: bool
    papers: str
    files: list[PaperValue]


class Revisions(TypedDict):
    """The revisions of a project, the youngest first, and the index that the next one would have."""

    revisions: list[RevisionLine]
    next_index: str
    present: str


class BeforeFreezing(TypedDict):
    """What freezing would do: the sheets that get the new index, how many keep theirs, and what would be wrong."""

    changed: list[str]
    kept: int
    findings: list[FindingValue]


class TwoDrawings(TypedDict):
    """A drawing in two states, either of them None where it is not there, and the places in mm that differ."""

    before: SceneValue | None
    after: SceneValue | None
    added: list[tuple[float, float, float, float]]
    gone: list[tuple[float, float, float, float]]
    other: list[tuple[float, float, float, float]]
    was: list[tuple[float, float, float, float]]


class OpenedAs(TypedDict):
    """The project that is a frozen state."""

    project_id: str


class PapersIn(Schema):
    """Which pack of the frozen project is written; "" for everything."""

    pack_id: str = ""


class TickIn(Schema):
    """A job of the work list since a revision, and whether it is done."""

    since: str
    job: str
    done: bool


@router.get("/{project_id}/revisions", response=Revisions)
def revision_list(request: HttpRequest, project_id: str) -> Revisions:
    """Give the revisions that were frozen."""
    role_in(request, project_id)
    return _listed(project_id)


def _listed(project_id: str) -> Revisions:
    settle_papers(project_id)
    rows = {r.revision_id: r for r in FrozenRevision.objects.filter(project_id=project_id).defer("file", "papers")}
    with_papers = set(
        FrozenRevision.objects.filter(project_id=project_id).exclude(papers=b"").values_list("revision_id", flat=True)
    )
    held = loaded(project_id)
    with held.lock:
        project = held.project
        lines = [_line(project, r, rows.get(r.id), ready=r.id in with_papers) for r in reversed(revisions(project))]
        return {"revisions": lines, "next_index": next_index(project), "present": project.settings.revision}


def _line(project: Project, revision: Revision, row: FrozenRevision | None, *, ready: bool) -> RevisionLine:
    digests: dict[str, str] = json.loads(row.digests) if row is not None else {}
    return {
        "id": revision.id,
        "index": revision.index,
        "text": revision.text,
        "issued_on": revision.issued_on,
        "drawn_by": revision.drawn_by,
        "checked_by": revision.checked_by,
        "released_by": revision.released_by,
        "reason": revision.reason,
        "sheets": [s.number for s in project.sheets_in_order() if s.id in revision.sheet_ids],
        "kept": row is not None,
        "papers": "ready" if ready else "making" if row is not None and row.run else "none",
        "files": [{"name": name, "digest": digest} for name, digest in digests.items()],
    }


@router.get("/{project_id}/revisions/next", response=BeforeFreezing)
def before_freezing(request: HttpRequest, project_id: str) -> BeforeFreezing:
    """Say which sheets would get a new index, and what would be wrong on paper."""
    role_in(request, project_id)
    with READING:
        now = present(project_id)
        changed = set(changed_sheets(last_frozen(project_id, now), now))
        sheets = now.sheets_in_order()
    numbers = [s.number for s in sheets if s.id in changed]
    found = findings_of(project_id, request.user)
    return {"changed": numbers, "kept": len(sheets) - len(numbers), "findings": found}


@router.post("/{project_id}/revisions/freeze", response=Revisions)
def freeze_revision(request: HttpRequest, project_id: str, payload: FreezeRevision) -> Revisions:
    """Freeze a revision; its papers are begun at once."""
    role_in(request, project_id, "editor")
    user = person(request)
    revision = freeze(project_id, user, payload)
    with suppress(RuleError):  # while a pack is being written they are made later, from the same file
        make_papers(project_id, revision.id, "", user.get_username())
    return _listed(project_id)


@router.post("/{project_id}/revisions/{revision_id}/papers", response=Revisions)
def write_papers(request: HttpRequest, project_id: str, revision_id: str, payload: PapersIn) -> Revisions:
    """Write the papers of a frozen revision from its file."""
    role_in(request, project_id, "editor")
    make_papers(project_id, revision_id, payload.pack_id, person(request).get_username())
    return _listed(project_id)


@router.get("/{project_id}/revisions/{revision_id}/papers.zip")
def papers(request: HttpRequest, project_id: str, revision_id: str) -> HttpResponse:
    """Give the papers of a frozen revision, byte for byte as they were made."""
    role_in(request, project_id)
    settle_papers(project_id)
    row = frozen_row(project_id, revision_id)
    if not row.papers:
        raise RuleError(f"The papers of revision {row.index} are not made yet.")
    number = loaded(project_id).project.settings.number
    return file_answer(bytes(row.papers), TYPES["zip"], f"{number}-{row.index}.zip")


@router.post("/{project_id}/revisions/{revision_id}/open", response=OpenedAs)
def open_revision(request: HttpRequest, project_id: str, revision_id: str) -> OpenedAs:
    """Open a frozen revision as a project to be read."""
    role_in(request, project_id)
    return {"project_id": open_frozen(project_id, revision_id, person(request))}


@router.get("/{project_id}/states-compared", response=WhatChanged)
def what_changed_between(request: HttpRequest, project_id: str, since: str, until: str = NOW) -> WhatChanged:
    """Say what changed between two states: frozen revisions by id, or "now"."""
    role_in(request, project_id)
    with READING:
        found = what_changed(state_of(project_id, since), state_of(project_id, until))
    ticked = _ticked(project_id, since)
    for job in found["work"]:
        job["done_by"] = ticked.get(job["key"], "")
    return found


@router.get("/{project_id}/states-compared/work-list/{format}")
def work_list_file(request: HttpRequest, project_id: str, format: str, since: str, until: str = NOW) -> HttpResponse:
    """Give the work list between two states as a file, with who has ticked what."""
    role_in(request, project_id)
    if format not in LIST_FORMATS:
        raise HttpError(404, f"The work list comes as {', '.join(LIST_FORMATS)}.")
    with READING:
        after = state_of(project_id, until)
        built, jobs = jobs_between(state_of(project_id, since), after)
        ticked = _ticked(project_id, since)
        done = [(job, ticked.get(job.key, "")) for job in jobs]
        content = write_work_list(after, done, built, format, settings.JOLLY.fonts)
    return file_answer(content, TYPES[format], f"{after.settings.number}-work-list.{format}")


@router.post("/{project_id}/what-changed", response=WhatChanged)
def what_changed_since(request: HttpRequest, project_id: str, file: File[UploadedFile]) -> WhatChanged:
    """Say what changed of a project since an earlier project file; nothing is taken in."""
    role_in(request, project_id)
    limit = settings.JOLLY.project_limit_bytes
    if file.size is None or file.size > limit:
        raise HttpError(413, f"The file is larger than {limit // 1_000_000} MB. No project file may be.")
    before = read_project(file.read()).at_rest()
    with READING:
        return what_changed(before, present(project_id))


@router.get("/{project_id}/states-compared/drawing", response=TwoDrawings)
def two_drawings(request: HttpRequest, project_id: str, sheet_id: str, since: str, until: str = NOW) -> TwoDrawings:
    """Give a drawing in two states with the places that differ."""
    role_in(request, project_id)
    with READING:
        return _both(state_of(project_id, since), state_of(project_id, until), sheet_id)


def _both(before: Project, after: Project, sheet_id: str) -> TwoDrawings:
    was_id = same_things(before, after).sheet(sheet_id)
    change = drawing_change(before, after, sheet_id)
    return {
        "before": scene_value(scene_of(before, was_id)) if was_id in before.sheets else None,
        "after": scene_value(scene_of(after, sheet_id)) if sheet_id in after.sheets else None,
        "added": list(change.added) if change else [],
        "gone": list(change.gone) if change else [],
        "other": list(change.other) if change else [],
        "was": list(change.was) if change else [],
    }


@router.post("/{project_id}/work-list/tick", response=dict[str, str])
def tick(request: HttpRequest, project_id: str, payload: TickIn) -> dict[str, str]:
    """Note that a job of the work list was done at the bench, or was not; give who ticked which."""
    role_in(request, project_id)
    user = person(request)
    known = {"project_id": project_id, "since": payload.since, "job": payload.job[:64]}
    if payload.done:
        JobDone.objects.get_or_create(**known, defaults={"user_id": user.pk})
    else:
        JobDone.objects.filter(**known).delete()
    return _ticked(project_id, payload.since)


def _ticked(project_id: str, since: str) -> dict[str, str]:
    """Return who ticked which job since a revision, by the job's key."""
    done = JobDone.objects.filter(project_id=project_id, since=since).select_related("user")
    return {job.job: job.user.get_username() if job.user else "somebody" for job in done}
