"""The Make bench: cut list, machine, jobs."""

from django.http import HttpRequest
from ninja import Router, Schema

from jolly_server.projects.access import role_in
from jolly_server.projects.turns import prepared

from .services import make_bench, send_job, wanted
from .shapes import MakeView

router = Router(tags=["making"])


class JobIn(Schema):
    """Whether pieces that the machine refused before are given to it again."""

    again: bool = False


@router.get("/{project_id}/make", response=MakeView)
def make(request: HttpRequest, project_id: str) -> MakeView:
    """Give the cut list with what became of each piece."""
    role_in(request, project_id)
    held = prepared(project_id)
    with held.lock:
        work = wanted(held.project)
    return make_bench(project_id, work)


@router.post("/{project_id}/make/jobs", response=MakeView)
def send(request: HttpRequest, project_id: str, payload: JobIn) -> MakeView:
    """Give the machine what it was not given yet."""
    user, _ = role_in(request, project_id, "editor")
    held = prepared(project_id)
    with held.lock:
        work = wanted(held.project)
    send_job(project_id, work, user, again=payload.again)
    return make_bench(project_id, work)
