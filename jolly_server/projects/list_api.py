"""The list of projects: making, taking in, copying, archiving, the bin, small pictures."""

from typing import Literal

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.db.models import OuterRef, Q, Subquery
from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Schema
from ninja.errors import HttpError
from ninja.files import UploadedFile
from typing_extensions import TypedDict

from jolly_core.edits.project.revisions import index_after
from jolly_core.exchange import VERSION, read_summary, scene_svg
from jolly_core.model import check_text
from jolly_core.scenes import made, page_leaves, sheet_scene

from .access import person, role_in
from .defaults import new_project
from .models import ROWS, Membership, Presence, ProjectRow
from .services import copy_project, create_project
from .store import forget, loaded

router = Router(tags=["projects"])


class ProjectLine(Schema):
    """A project in the list."""

    id: str
    number: str
    name: str
    customer: str
    site: str
    issue: str
    role: str
    state: str
    starter: bool
    revision: int
    edited_at: str
    edited_by: str


class NewProject(Schema):
    """What a new project needs: a name, and habits or a project of the person's to start from."""

    name: str
    number: str = ""
    customer: str = ""
    standard: Literal["iec", "na"] = "iec"
    start_from: str = ""


class Made(Schema):
    """The id of what was made."""

    id: str


class TakenIn(Schema):
    """What a project file brought: the id of the new project, and how many things of each kind."""

    id: str
    name: str
    version: int
    brought_up: bool
    counts: dict[str, int]


class NewState(Schema):
    """Where a project belongs in the list."""

    state: Literal["open", "archived", "binned"]


class Copy(Schema):
    """The name of a copy."""

    name: str


class Starter(Schema):
    """Whether new projects may start from this one."""

    starter: bool


def _name(user: AbstractBaseUser | None) -> str:
    return str(user.get_full_name() or user.get_username()) if user else ""  # type: ignore[attr-defined]  # our user model has it


@router.get("", response=list[ProjectLine])
def list_projects(
    request: HttpRequest, q: str = "", state: Literal["open", "archived", "binned", ""] = "open"
) -> list[ProjectLine]:
    """List the projects the person is a member of, last edited first; `q` is looked for in number, name, customer."""
    roles = dict(Membership.objects.filter(user__id=person(request).pk).values_list("project_id", "role"))
    frozen = ROWS["revision"]._default_manager.filter(project_id=OuterRef("project_id")).order_by("-id")
    facts = ROWS["settings"].objects.filter(project_id__in=roles).annotate(last=Subquery(frozen.values("index")[:1]))
    for word in q.split():
        facts = facts.filter(
            Q(number__icontains=word) | Q(name__icontains=word) | Q(customer__icontains=word) | Q(site__icontains=word)
        )
    known = {s.project_id: s for s in facts}
    rows = ProjectRow.objects.filter(pk__in=known).select_related("edited_by").order_by("-edited_at")
    if state:
        rows = rows.filter(state=state)
    return [
        ProjectLine(
            id=row.pk,
            number=known[row.pk].number,
            name=known[row.pk].name,
            customer=known[row.pk].customer,
            site=known[row.pk].site,
            issue=index_after(known[row.pk].last or "", known[row.pk].revision),
            role=roles[row.pk],
            state=row.state,
            starter=row.starter,
            revision=row.revision,
            edited_at=row.edited_at.isoformat(),
            edited_by=_name(row.edited_by),
        )
        for row in rows
    ]


def _checked(**texts: str) -> None:
    for field, value in texts.items():
        check_text(value, field, "project")
    if not texts["name"].strip():
        raise HttpError(422, "Give the project a name.")


@router.post("", response=Made)
def make_project(request: HttpRequest, payload: NewProject) -> Made:
    """Make a project from a preset of habits, or from a project the person may read, without what is drawn there."""
    _checked(name=payload.name, number=payload.number, customer=payload.customer)
    facts = {n: getattr(payload, n).strip()[:200] for n in ("name", "number", "customer")}
    if payload.start_from:
        role_in(request, payload.start_from)
        return Made(id=copy_project(person(request), payload.start_from, fresh=True, **facts))
    return Made(id=create_project(person(request), new_project(standard=payload.standard, **facts)))


@router.post("/import", response=TakenIn)
def import_project(request: HttpRequest, file: File[UploadedFile]) -> TakenIn:
    """Take in a project file as a new project and say what came in; on an error nothing is taken in."""
    limit = settings.JOLLY.project_limit_bytes
    if file.size is None or file.size > limit:
        raise HttpError(413, f"The file is larger than {limit // 1_000_000} MB. No project file may be.")
    project, version, counts = read_summary(file.read())
    id = create_project(person(request), project)
    return TakenIn(id=id, name=project.settings.name, version=version, brought_up=version < VERSION, counts=counts)


class StarterLine(TypedDict):
    """A project that new ones may start from."""

    id: str
    name: str
    number: str


def starters(user: AbstractBaseUser) -> list[StarterLine]:
    """Return the projects a person may start new ones from."""
    mine = Membership.objects.filter(user__id=user.pk, project__starter=True).values_list("project_id", flat=True)
    facts = ROWS["settings"].objects.filter(project_id__in=mine).order_by("name")
    return [{"id": s.project_id, "name": s.name, "number": s.number} for s in facts]


@router.get("/starters", response=list[StarterLine])
def list_starters(request: HttpRequest) -> list[StarterLine]:
    """List the projects kept as starting points."""
    return starters(person(request))


@router.post("/{project_id}/copy", response=Made)
def copy(request: HttpRequest, project_id: str, payload: Copy) -> Made:
    """Copy a project whole, without its members and journal; the copy is the person's own."""
    role_in(request, project_id)
    _checked(name=payload.name)
    return Made(id=copy_project(person(request), project_id, name=payload.name.strip()[:200]))


@router.post("/{project_id}/state", response=Made)
def set_state(request: HttpRequest, project_id: str, payload: NewState) -> Made:
    """Archive a project, put it into the bin, or open it again."""
    role_in(request, project_id, "owner", still=True)
    ProjectRow.objects.filter(pk=project_id).update(state=payload.state)
    return Made(id=project_id)


@router.post("/{project_id}/starter", response=Made)
def set_starter(request: HttpRequest, project_id: str, payload: Starter) -> Made:
    """Keep a project as a starting point for new ones, or no longer."""
    role_in(request, project_id, "owner", still=True)
    ProjectRow.objects.filter(pk=project_id).update(starter=payload.starter)
    return Made(id=project_id)


@router.post("/{project_id}/delete", response=Made)
def delete_for_good(request: HttpRequest, project_id: str) -> Made:
    """Delete a project that is in the bin, for good."""
    role_in(request, project_id, "owner", still=True)
    deleted, _ = ProjectRow.objects.filter(pk=project_id, state=ProjectRow.State.BINNED).delete()
    if not deleted:
        raise HttpError(422, "Only a project in the bin can be deleted for good. Put it there first.")
    forget(project_id)
    return Made(id=project_id)


@router.get("/{project_id}/thumbnail.svg")
def thumbnail(request: HttpRequest, project_id: str) -> HttpResponse:
    """Give a small picture of the sheet the person saw last, else of the first; an empty paper when there is none."""
    user, _ = role_in(request, project_id)
    mine = Presence.objects.filter(project_id=project_id, user_id=user.pk)
    seen = mine.values_list("last_sheet_id", flat=True).first()
    held = loaded(project_id)
    tag = f'"{held.revision}-{seen or ""}"'
    if request.headers.get("If-None-Match") == tag:
        return HttpResponse(status=304)
    with held.lock:
        project = held.project
        sheets = project.sheets_in_order()
        drawn = next((s.id for s in sheets if not made(project, s.id)), sheets[0].id if sheets else "")
        id = seen if seen in project.sheets else drawn
        if not id:
            content = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 4 3"/>'
        else:
            scene = page_leaves(project, id)[0] if made(project, id) else sheet_scene(project, id)
            content = scene_svg(project, scene)
    response = HttpResponse(content, content_type="image/svg+xml")
    response.headers["ETag"] = tag
    response.headers["Cache-Control"] = "private, no-cache"
    return response
