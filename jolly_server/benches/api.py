"""What the benches after Draw show. Every value is computed by the core from the one model."""

from typing import Any, Literal

from django.http import HttpRequest
from ninja import File, Router
from ninja.errors import HttpError
from ninja.files import UploadedFile

from jolly_core.edits.structure import users
from jolly_core.model import Project
from jolly_core.tagging import path_of
from jolly_server.config.options import read_options
from jolly_server.projects.access import role_in
from jolly_server.projects.store import loaded

from .cabinet import cabinet_bench
from .cables import cables_bench
from .harness import harness_bench
from .io import io_bench, read_list
from .terminals import terminals_bench

router = Router(tags=["benches"])


@router.get("/{project_id}/terminals", response=dict[str, Any])
def terminals(request: HttpRequest, project_id: str) -> dict[str, Any]:
    """Give the strips with what lands on each terminal."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return terminals_bench(held.project)


@router.get("/{project_id}/cables", response=dict[str, Any])
def cables(request: HttpRequest, project_id: str) -> dict[str, Any]:
    """Give the cables with their cores and voltage drops."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return cables_bench(held.project)


@router.get("/{project_id}/io", response=dict[str, Any])
def io(request: HttpRequest, project_id: str) -> dict[str, Any]:
    """Give points, cards and spare shares."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return io_bench(held.project)


@router.post("/{project_id}/io/read", response=dict[str, Any])
def read_io(request: HttpRequest, project_id: str, file: File[UploadedFile]) -> dict[str, Any]:
    """Read a point list and say what taking it in would change; nothing is taken in."""
    role_in(request, project_id, "editor")
    limit = read_options().upload_limit_bytes
    if file.size is None or file.size > limit:
        raise HttpError(413, f"The file is larger than {limit // 1_000_000} MB. A point list is smaller.")
    held = loaded(project_id)
    with held.lock:
        return read_list(held.project, file.read(), file.name or "")


@router.get("/{project_id}/cabinet", response=dict[str, Any])
def cabinet(
    request: HttpRequest, project_id: str, enclosure_id: str = "", surface: Literal["plate", "door"] = "plate"
) -> dict[str, Any]:
    """Give an enclosure's layout, the tray, routes, fill and warmth."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return cabinet_bench(held.project, enclosure_id, surface)


@router.get("/{project_id}/harness", response=dict[str, Any])
def harness(request: HttpRequest, project_id: str, harness_id: str = "") -> dict[str, Any]:
    """Give a harness: its tree, wires, bundles, connectors and form board."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return harness_bench(held.project, harness_id)


@router.get("/{project_id}/places", response=dict[str, Any])
def places(request: HttpRequest, project_id: str) -> dict[str, Any]:
    """Give the functions and locations of the project."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return _places(held.project)


def _places(project: Project) -> dict[str, Any]:
    def used(kind: str, id: str) -> str:
        return ", ".join(f"{n} {what}{'s' if n > 1 else ''}" for what, n in users(project, kind, id).items())

    functions = [
        {"id": f.id, "name": path_of(project.functions, f.id, "="), "code": f.code, "text": f.text}
        | {"parent_id": f.parent_id, "used": used("function", f.id)}
        for f in project.functions.values()
    ]
    locations = [
        {"id": p.id, "name": path_of(project.locations, p.id, "+"), "code": p.code, "text": p.text}
        | {"parent_id": p.parent_id, "side": p.side, "used": used("location", p.id)}
        for p in project.locations.values()
    ]
    return {
        "functions": sorted(functions, key=lambda f: f["name"]),
        "locations": sorted(locations, key=lambda p: p["name"]),
    }
