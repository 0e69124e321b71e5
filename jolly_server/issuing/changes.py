"""What changed of a project since an earlier project file, as answers."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.comparing import Change, Job, difference, work_list
from jolly_core.model import Project
from jolly_server.projects.addresses import address_of


class ThingChanged(TypedDict):
    """A thing that is other than it was; `to` is the address that shows it where it still is."""

    kind: str
    act: str
    name: str
    words: str
    to: str


class SheetChangeValue(TypedDict):
    """A drawing that changed: how many things are new on it, gone, and otherwise."""

    sheet_id: str
    number: str
    there: bool
    added: int
    gone: int
    other: int


class ShopJob(TypedDict):
    """A thing to be done at the bench; `done_by` is who ticked it, "" while nobody did."""

    key: str
    done_by: str
    act: str
    what: str
    start: str
    end: str
    now_to: str
    kind: str
    place: str


class WhatChanged(TypedDict):
    """What changed since an earlier state, and what is to be done in the shop."""

    since: str
    changes: list[ThingChanged]
    sheets: list[SheetChangeValue]
    work: list[ShopJob]


def what_changed(before: Project, after: Project) -> WhatChanged:
    """Return what changed from an earlier state of a project to the present one."""
    found = difference(before, after)
    return {
        "since": _since(before),
        "changes": [_change(after, c) for c in found.changes],
        "sheets": [
            {
                "sheet_id": s.sheet_id,
                "number": s.number,
                "there": s.sheet_id in after.sheets,
                "added": len(s.added),
                "gone": len(s.gone),
                "other": len(s.other),
            }
            for s in found.sheets
        ],
        "work": [_job(j) for j in work_list(found)],
    }


def jobs_between(before: Project, after: Project) -> tuple[str, list[Job]]:
    """Return which state was built, in words, and what the shop has to do since."""
    return _since(before), work_list(difference(before, after))


def _since(before: Project) -> str:
    settings = before.settings
    return f"{settings.number} {settings.name}, revision {settings.revision or 'none'}".strip()


def _change(after: Project, change: Change) -> ThingChanged:
    now = change.after
    return {
        "kind": change.kind,
        "act": change.act,
        "name": change.sight.name,
        "words": change.words,
        "to": address_of(after, now.ids[0]) if now and now.ids else "",
    }


def _job(job: Job) -> ShopJob:
    return {
        "key": job.key,
        "done_by": "",
        "act": job.act,
        "what": job.what,
        "start": job.start,
        "end": job.end,
        "now_to": job.now_to,
        "kind": job.kind,
        "place": job.place,
    }
