"""Parts of the library with the projects that have copies of them."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router
from typing_extensions import TypedDict

from jolly_server.library.parts_api import Draft, draft_of, seen_part
from jolly_server.library.shelves import may_change, shelf_to_change
from jolly_server.library.storing import VersionLine, history

from .partuses import PartUse, ShelfUse, projects_using, projects_with

router = Router(tags=["parts"])


class ShelfName(TypedDict):
    """The library a part is in, and whether the person may change it."""

    id: str
    name: str
    may_change: bool


class StoredPart(Draft):
    """A part with its library, history, and the projects with a copy of it."""

    shelf: ShelfName
    history: list[VersionLine]
    projects: list[PartUse]


@router.get("/shelves/{shelf_id}/uses", response=list[ShelfUse])
def shelf_uses(request: HttpRequest, shelf_id: str) -> list[ShelfUse]:
    """Give the projects that have copies of parts of a library."""
    shelf = shelf_to_change(shelf_id, request.user)
    return projects_using(shelf.pk, request.user)


@router.get("/part/{part_id}", response=StoredPart)
def part(request: HttpRequest, part_id: str) -> StoredPart:
    """Give a part with its library, what it lacks, its history and the projects that have a copy of it."""
    found, shelf = seen_part(part_id, request)
    made = draft_of(found)
    return {
        "record": made["record"],
        "missing": made["missing"],
        "problem": made["problem"],
        "spec": made["spec"],
        "shelf": {"id": shelf.pk, "name": shelf.name, "may_change": may_change(shelf, request.user)},
        "history": history(part_id),
        "projects": projects_with(part_id, request.user),
    }
