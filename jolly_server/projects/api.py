"""Projects: the list, making, importing, and what a project consists of."""

from dataclasses import asdict
from typing import Any

from django.http import HttpRequest
from ninja import File, Router, Schema
from ninja.errors import HttpError
from ninja.files import UploadedFile

from jolly_core.edits.offers import offers
from jolly_core.exchange import read_project
from jolly_core.model import ON_SHEET, GoneError, Project, check_text
from jolly_core.scenes import generated_pages
from jolly_core.tagging import path_of
from jolly_server.config.options import read_options
from jolly_server.library.services import SHORTEST, search

from .access import role_in
from .defaults import new_project
from .inspect import candidates, device_card, find_in_project
from .live import people_in
from .models import JournalEntry, Membership, ProjectRow, SettingsRow
from .services import create_project, redo_entry, undo_entry
from .store import loaded

router = Router(tags=["projects"])


class ProjectLine(Schema):
    """A project in the list."""

    id: str
    number: str
    name: str
    customer: str
    role: str
    edited_at: str
    edited_by: str


class NewProject(Schema):
    """What a new project needs."""

    name: str
    number: str = ""
    standard: str = "iec"


class Made(Schema):
    """The id of what was made."""

    id: str


class Outline(Schema):
    """What a project consists of, apart from what is on its sheets."""

    id: str
    revision: int
    role: str
    settings: dict[str, Any]
    sheets: list[dict[str, Any]]
    pages: list[dict[str, str]]
    wire_types: list[dict[str, Any]]
    undo: str
    redo: str
    people: list[dict[str, str]]


@router.get("", response=list[ProjectLine])
def list_projects(request: HttpRequest) -> list[ProjectLine]:
    """List the projects the person is a member of, last edited first."""
    roles = dict(Membership.objects.filter(user__id=request.user.pk or 0).values_list("project_id", "role"))
    facts = {s.project_id: s for s in SettingsRow.objects.filter(project_id__in=roles)}
    rows = ProjectRow.objects.filter(pk__in=roles).select_related("edited_by").order_by("-edited_at")
    return [
        ProjectLine(
            id=row.pk,
            number=facts[row.pk].number,
            name=facts[row.pk].name,
            customer=facts[row.pk].customer,
            role=roles[row.pk],
            edited_at=row.edited_at.isoformat(),
            edited_by=(row.edited_by.get_full_name() or row.edited_by.get_username()) if row.edited_by else "",
        )
        for row in rows
        if row.pk in facts
    ]


@router.post("", response=Made)
def make_project(request: HttpRequest, payload: NewProject) -> Made:
    """Make an empty project with wire types and one ladder sheet."""
    for field, value in (("name", payload.name), ("number", payload.number)):
        check_text(value, field, "project")
    if not payload.name.strip():
        raise HttpError(422, "Give the project a name.")
    project = new_project(payload.name.strip()[:200], payload.number.strip()[:200], payload.standard)
    return Made(id=create_project(request.user, project))  # type: ignore[arg-type]  # the API lets nobody else in


@router.post("/import", response=Made)
def import_project(request: HttpRequest, file: File[UploadedFile]) -> Made:
    """Take in a project file as a new project; on an error nothing is taken in."""
    limit = read_options().upload_limit_bytes
    if file.size is None or file.size > limit:
        raise HttpError(413, f"The file is larger than {limit // 1_000_000} MB. A project file is smaller.")
    project = read_project(file.read())
    return Made(id=create_project(request.user, project))  # type: ignore[arg-type]  # the API lets nobody else in


@router.get("/{project_id}", response=Outline)
def outline(request: HttpRequest, project_id: str) -> Outline:
    """Say what the project consists of."""
    user, role = role_in(request, project_id)
    held = loaded(project_id)
    undo, redo = undo_entry(project_id, user), redo_entry(project_id, user)
    with held.lock:
        p = held.project
        return Outline(
            id=project_id,
            revision=held.revision,
            role=role,
            settings={n: getattr(p.settings, n) for n in p.settings.__slots__},
            sheets=[_sheet(p, s.id) for s in p.sheets_in_order()],
            pages=[{"id": g.id, "number": g.number, "title": g.title, "kind": g.kind} for g in generated_pages(p)],
            wire_types=[{n: getattr(t, n) for n in t.__slots__} for t in p.wire_types.values()],
            undo=undo.label if undo else "",
            redo=_redo_label(redo),
            people=people_in(project_id, user),
        )


def _redo_label(entry: JournalEntry | None) -> str:
    if entry is None:
        return ""
    return entry.target.label if entry.target else entry.label


def _sheet(project: Project, sheet_id: str) -> dict[str, Any]:
    sheet = project.sheets[sheet_id]
    function = project.functions.get(sheet.function_id)
    return {
        "id": sheet.id,
        "number": sheet.number,
        "title": sheet.title,
        "frame": sheet.frame,
        "function": path_of(project.functions, sheet.function_id, "="),
        "function_text": function.text if function else "",
        "location": path_of(project.locations, sheet.location_id, "+"),
    }


@router.get("/{project_id}/devices/{device_id}", response=dict[str, Any])
def device(request: HttpRequest, project_id: str, device_id: str) -> dict[str, Any]:
    """Say all about a device: texts, part, units, what it is wired to, its snags."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return device_card(held.project, device_id)


@router.get("/{project_id}/candidates", response=list[dict[str, Any]])
def belongs_to(request: HttpRequest, project_id: str, definition: str, sheet_id: str) -> list[dict[str, Any]]:
    """List the devices a unit of this kind may belong to, likeliest first."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return candidates(held.project, definition, sheet_id)


@router.get("/{project_id}/offers", response=list[dict[str, Any]])
def offered(request: HttpRequest, project_id: str, q: str, sheet_id: str) -> list[dict[str, Any]]:
    """List what may be placed for the words typed at the caret."""
    role_in(request, project_id)
    parts = [m.part for m in search(q, limit=5) if "number" in m.why] if len(q.strip()) >= SHORTEST else []
    held = loaded(project_id)
    with held.lock:
        return [asdict(o) for o in offers(held.project, q, sheet_id, parts)[:40]]


@router.get("/{project_id}/where/{entity_id}", response=dict[str, str])
def where(request: HttpRequest, project_id: str, entity_id: str) -> dict[str, str]:
    """Say on which sheet something is drawn."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        for kind in ON_SHEET:
            entity = held.project.tables[kind].get(entity_id)
            if entity is not None:
                return {"sheet_id": entity.sheet_id}
    raise GoneError("It is not drawn on any sheet.", ids=(entity_id,))


@router.get("/{project_id}/find", response=list[dict[str, Any]])
def find(request: HttpRequest, project_id: str, q: str) -> list[dict[str, Any]]:
    """Find tags, texts, sheets and fixed wire numbers in the project."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return find_in_project(held.project, q)
