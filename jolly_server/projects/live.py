"""Who is in a project now."""

from __future__ import annotations

import zlib
from datetime import timedelta
from time import monotonic

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.utils import timezone
from typing_extensions import TypedDict

from .models import Presence
from .store import Loaded

READ_AGAIN_S = 1.0  # others may be served by another process: who is here is read again after this time


class Person(TypedDict):
    """Somebody who is in a project, and the sheet they look at."""

    name: str
    sheet_id: str


def mark_present(held: Loaded, project_id: str, user: AbstractBaseUser, sheet_id: str) -> None:
    """Note that the person looks at a sheet; written at most every third of the time it is kept."""
    known = held.here.seen.get(user.pk)
    if known is not None and known[0] == sheet_id and monotonic() - known[1] < settings.JOLLY.presence_s / 3:
        return
    seen = {"last_sheet_id": sheet_id} if sheet_id else {}
    Presence.objects.update_or_create(
        project_id=project_id,
        user_id=user.pk,
        defaults={"sheet_id": sheet_id, "seen_at": timezone.now(), **seen},
    )
    held.here.seen[user.pk] = sheet_id, monotonic()
    held.here.people = None


def people_in(held: Loaded, project_id: str, me: AbstractBaseUser) -> list[Person]:
    """Return the others who are in the project, with the sheet they look at."""
    known = held.here.people
    if known is None or monotonic() - known[0] > READ_AGAIN_S:
        since = timezone.now() - timedelta(seconds=settings.JOLLY.presence_s)
        rows = Presence.objects.filter(project_id=project_id, seen_at__gt=since).select_related("user")
        found = [
            (r.user_id, r.user.get_full_name() or r.user.get_username(), r.sheet_id)
            for r in rows.order_by("user__username")
        ]
        known = held.here.people = monotonic(), found
    return [{"name": name, "sheet_id": sheet_id} for id, name, sheet_id in known[1] if id != me.pk]


def told(people: list[Person]) -> str:
    """Return a short name for a list of people, the same as long as it is: a browser that knows it is not told again.

    Example:
        >>> told([]) == told([]), told([]) == told([{"name": "Anna", "sheet_id": ""}])
        (True, False)
    """
    return f"{zlib.crc32(repr(people).encode()):08x}"
