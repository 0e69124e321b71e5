"""In which projects a library part is used."""

from __future__ import annotations

from typing import Any

from jolly_server.projects.models import DeviceRow, Membership, PartRow, SettingsRow

from .shelves import User


def projects_with(part_id: str, user: User) -> list[dict[str, Any]]:
    """Return the projects of a person that have a copy of a part: which version, and on how many devices."""
    mine = Membership.objects.filter(user_id=user.pk or 0).values_list("project_id", flat=True)
    rows = list(PartRow.objects.filter(id=part_id, project_id__in=mine))
    named = SettingsRow.objects.filter(project_id__in=[r.project_id for r in rows])
    names = dict(named.values_list("project_id", "name"))
    return [
        {
            "id": r.project_id,
            "name": names[r.project_id],
            "version": r.version,
            "devices": DeviceRow.objects.filter(project_id=r.project_id, part_id=part_id).count(),
        }
        for r in rows
    ]
