"""In which projects a library part is used."""

from __future__ import annotations

from collections import Counter

from typing_extensions import TypedDict

from jolly_server.library.models import LibraryPart
from jolly_server.library.shelves import User

from .models import ROWS, Membership


class ShelfUse(TypedDict):
    """A project with copies of parts of a library."""

    id: str
    name: str
    parts: int


class PartUse(TypedDict):
    """A project with a copy of a part, which version it is, and on how many devices it is."""

    id: str
    name: str
    version: int
    devices: int


def projects_using(shelf_id: str, user: User) -> list[ShelfUse]:
    """Return the projects of a person that have copies of parts of a library, with how many; the most first."""
    mine = Membership.objects.filter(user_id=user.pk or 0).values_list("project_id", flat=True)
    parts = LibraryPart.objects.filter(shelf_id=shelf_id).values_list("pk", flat=True)
    counts = Counter(
        ROWS["part"].objects.filter(id__in=parts, project_id__in=mine).values_list("project_id", flat=True)
    )
    names = dict(ROWS["settings"].objects.filter(project_id__in=counts).values_list("project_id", "name"))
    return [{"id": id, "name": names[id], "parts": count} for id, count in counts.most_common()]


def projects_with(part_id: str, user: User) -> list[PartUse]:
    """Return the projects of a person that have a copy of a part: which version, and on how many devices."""
    mine = Membership.objects.filter(user_id=user.pk or 0).values_list("project_id", flat=True)
    rows = list(ROWS["part"].objects.filter(id=part_id, project_id__in=mine))
    named = ROWS["settings"].objects.filter(project_id__in=[r.project_id for r in rows])
    names = dict(named.values_list("project_id", "name"))
    return [
        {
            "id": r.project_id,
            "name": names[r.project_id],
            "version": r.version,
            "devices": ROWS["device"].objects.filter(project_id=r.project_id, part_id=part_id).count(),
        }
        for r in rows
    ]
