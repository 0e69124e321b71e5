"""Packs: what they may hold, issuing one in the background, its progress and papers, and the check before issue."""

from __future__ import annotations

from collections.abc import Sequence

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from typing_extensions import TypedDict

from jolly_core.exchange import ITEMS, PIECES, everything_pack, issue_check, named_files
from jolly_core.model import CoreError, Pack, Project, copied, to_record
from jolly_core.reports import grouped_reports
from jolly_core.tagging import FIELDS, natural, own_names
from jolly_server.library.shelves import User
from jolly_server.projects.access import person, role_in
from jolly_server.projects.addresses import address_of
from jolly_server.projects.parts_api import stale_numbers
from jolly_server.projects.store import loaded
from jolly_server.shapes.recordshapes import PackRecord

from .files import TYPES, file_answer, pack_zip_name
from .revisions import READING, changed_now, last_file, present
from .runs import Run, cancel_run, ready, run_of, runs, start_run, zip_of

router = Router(tags=["packs"])


class PackItem(TypedDict):
    """Something a pack may hold: what names it, its title, and the formats it comes in."""

    what: str
    title: str
    formats: list[str]


class PackLine(TypedDict):
    """A pack with the names of its files, or why it cannot be issued."""

    pack: PackRecord
    names: list[str]
    problem: str


class Packs(TypedDict):
    """The packs, that of everything first, what they may hold, the pieces of file names, the project's languages."""

    packs: list[PackLine]
    items: list[PackItem]
    pieces: list[str]
    languages: list[str]


class RunFile(TypedDict):
    """A file that was written."""

    name: str
    words: str
    size: int
    pages: int
    rows: int
    digest: str


class RunFinding(TypedDict):
    """Something that looks wrong in what was issued."""

    weight: str
    words: str


class RunValue(TypedDict):
    """A run of a pack, and how far it is."""

    id: str
    pack_id: str
    name: str
    revision: str
    by: str
    at: str
    state: str
    done: int
    count: int
    doing: str
    why: str
    files: list[RunFile]
    findings: list[RunFinding]


class FindingValue(TypedDict):
    """What would be wrong on paper: all things concerned, and what is chosen where to see them, as far as drawn."""

    weight: str
    code: str
    words: str
    names: list[str]
    places: list[str]


class RunIn(Schema):
    """Which pack is issued; "" for everything."""

    pack_id: str = ""


@router.get("/{project_id}/packs", response=Packs)
def packs(request: HttpRequest, project_id: str) -> Packs:
    """Give the packs there are and what they may hold."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        project = held.project
        mine = sorted(project.packs.values(), key=lambda p: (natural(p.name), p.id))
        lines = [_line(project, pack) for pack in (everything_pack(project), *mine)]
        pieces = [*PIECES, *FIELDS, *own_names(project)]
        items = _items(project)
        languages = list(project.settings.languages)
    return {"packs": lines, "items": items, "pieces": pieces, "languages": languages}


def _items(project: Project) -> list[PackItem]:
    found: list[PackItem] = []
    for item in ITEMS.values():
        formats = list(item.formats)
        if item.name == "report":
            found += [{"what": f"report:{r.key}", "title": r.title, "formats": formats} for _, r in grouped_reports()]
        elif item.name == "list":
            ordered = sorted(project.recipes.values(), key=lambda r: (natural(r.name), r.id))
            found += [{"what": f"list:{r.id}", "title": f"List “{r.name}”", "formats": formats} for r in ordered]
        else:
            found.append({"what": item.name, "title": item.title, "formats": formats})
            found += [{"what": f"{item.name}:{k}", "title": t, "formats": formats} for k, t in item.kinds.items()]
    return found


def _line(project: Project, pack: Pack) -> PackLine:
    try:
        names, problem = [name for name, _ in named_files(project, pack, settings.JOLLY.fonts)], ""
    except CoreError as error:
        names, problem = [], error.message
    return {"pack": to_record(pack), "names": names, "problem": problem}


@router.get("/{project_id}/pack-runs", response=list[RunValue])
def pack_runs(request: HttpRequest, project_id: str) -> list[RunValue]:
    """Give what was issued of the project, the youngest first."""
    role_in(request, project_id)
    return [run_value(run) for run in runs(project_id)]


@router.post("/{project_id}/pack-runs", response=RunValue)
def issue(request: HttpRequest, project_id: str, payload: RunIn) -> RunValue:
    """Begin to write a pack of the project as it is now."""
    role_in(request, project_id)
    user = person(request)
    held = loaded(project_id)
    with held.lock:
        stale = stale_numbers(held.project, request.user)
        ready(held.project, payload.pack_id)
        snapshot = copied(held.project)  # written past the lock: nobody who edits waits for it
    frozen = last_file(project_id, snapshot)
    id = start_run(project_id, snapshot, payload.pack_id, user.get_username(), stale, frozen)
    return run_value(run_of(project_id, id))


@router.get("/{project_id}/pack-runs/{run_id}", response=RunValue)
def pack_run(request: HttpRequest, project_id: str, run_id: str) -> RunValue:
    """Say how far a pack is."""
    role_in(request, project_id)
    return run_value(run_of(project_id, run_id))


@router.post("/{project_id}/pack-runs/{run_id}/cancel", response=RunValue)
def cancel(request: HttpRequest, project_id: str, run_id: str) -> RunValue:
    """End a pack that is being written."""
    role_in(request, project_id)
    cancel_run(project_id, run_id)
    return run_value(run_of(project_id, run_id))


@router.get("/{project_id}/pack-runs/{run_id}/pack.zip")
def pack_zip(request: HttpRequest, project_id: str, run_id: str) -> HttpResponse:
    """Give what a pack wrote."""
    role_in(request, project_id)
    run = run_of(project_id, run_id)
    content = zip_of(project_id, run_id)
    number = loaded(project_id).project.settings.number
    return file_answer(content, TYPES["zip"], pack_zip_name(number, run.revision, run.name))


@router.get("/{project_id}/issue-check", response=list[FindingValue])
def check_before_issue(request: HttpRequest, project_id: str) -> list[FindingValue]:
    """Gather what would be wrong on paper, the heaviest first."""
    role_in(request, project_id)
    return findings_of(project_id, request.user, changed_now(project_id))


def findings_of(project_id: str, user: User, changed: Sequence[str] = ()) -> list[FindingValue]:
    """Return what the check before issue finds in a project; it is worked out on a copy, so that nobody waits.

    Args:
        project_id: the project's.
        user: whose libraries parts are compared with.
        changed: ids of sheets that are other than in the last revision.
    """
    with READING:
        project = present(project_id)
        found = issue_check(project, settings.JOLLY.fonts, stale_numbers(project, user), changed)
        return [
            {
                "weight": f.weight,
                "code": f.code,
                "words": f.words,
                "names": list(f.names),
                "places": [address_of(project, lead) for lead in f.leads],
            }
            for f in found
        ]


def run_value(run: Run) -> RunValue:
    """Return a run as an answer."""
    files: list[RunFile] = [
        {
            "name": str(f["name"]),
            "words": str(f["words"]),
            "size": int(f["size"]),
            "pages": int(f["pages"]),
            "rows": int(f["rows"]),
            "digest": str(f["digest"]),
        }
        for f in run.files
    ]
    return {
        "id": run.id,
        "pack_id": run.pack_id,
        "name": run.name,
        "revision": run.revision,
        "by": run.by,
        "at": run.at,
        "state": run.state,
        "done": run.done,
        "count": run.count,
        "doing": run.doing,
        "why": run.why,
        "files": files,
        "findings": [{"weight": f["weight"], "words": f["words"]} for f in run.findings],
    }
