"""Wrong tries at a password: after some, a name waits, whoever tries and wherever (API or administrator pages)."""

from __future__ import annotations

import time
from hashlib import sha256
from typing import Any

from django.conf import settings
from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.models import User
from django.core.cache import cache
from django.core.exceptions import PermissionDenied
from django.http import HttpRequest


def _key(name: str) -> str:
    return "tries-" + sha256(name.strip().lower().encode()).hexdigest()


def waiting_s(name: str) -> int:
    """Return for how many seconds a name has to wait before the next try, 0 when it need not."""
    count, until = cache.get(_key(name), (0, 0.0))
    if count < settings.JOLLY.sign_in_tries:
        return 0
    return max(0, int(until - time.time()))


def count_try(name: str) -> None:
    """Count a wrong try; the count ends some time after the last one."""
    count, _ = cache.get(_key(name), (0, 0.0))
    wait = settings.JOLLY.sign_in_wait_s
    cache.set(_key(name), (count + 1, time.time() + wait), wait)


class PatientBackend(ModelBackend):
    """Django's own accounts, with a wait after wrong tries."""

    def authenticate(
        self, request: HttpRequest | None, username: str | None = None, password: str | None = None, **kwargs: Any
    ) -> User | None:
        """Return the account of a name and password, None when they do not belong together.

        Raises:
            PermissionDenied: the name has to wait.
        """
        name = username or ""
        if waiting_s(name):
            raise PermissionDenied
        user = super().authenticate(request, username=username, password=password, **kwargs)
        if user is None and name:
            count_try(name)
        elif name:
            cache.delete(_key(name))
        return user
