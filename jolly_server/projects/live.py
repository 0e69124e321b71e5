"""Who is in a project now."""

from datetime import timedelta

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.utils import timezone

from .models import Presence


def mark_present(project_id: str, user: AbstractBaseUser, sheet_id: str) -> None:
    """Note that the person looks at a sheet; written at most every third of the time it is kept."""
    now = timezone.now()
    fresh = now - timedelta(seconds=settings.JOLLY.presence_s / 3)
    known = Presence.objects.filter(project_id=project_id, user_id=user.pk, sheet_id=sheet_id, seen_at__gt=fresh)
    if not known.exists():
        seen = {"last_sheet_id": sheet_id} if sheet_id else {}
        Presence.objects.update_or_create(
            project_id=project_id, user_id=user.pk, defaults={"sheet_id": sheet_id, "seen_at": now, **seen}
        )


def people_in(project_id: str, me: AbstractBaseUser) -> list[dict[str, str]]:
    """Return the others who are in the project, with the sheet they look at."""
    since = timezone.now() - timedelta(seconds=settings.JOLLY.presence_s)
    rows = Presence.objects.filter(project_id=project_id, seen_at__gt=since).exclude(user_id=me.pk)
    return [
        {"name": r.user.get_full_name() or r.user.get_username(), "sheet_id": r.sheet_id}
        for r in rows.select_related("user").order_by("user__username")
    ]
