"""How far long work has come: told under a name the browser gave, asked for by it while the work goes on."""

from __future__ import annotations

import time
from collections.abc import Callable

from django.core.cache import cache
from typing_extensions import TypedDict

from jolly_core.model import RuleError

EACH_S = 0.2
KEPT_S = 300
STOP = "-stop"


def teller(user_id: int | None, name: str, stage: str, total: int) -> Callable[[int], None]:
    """Return what is told how much of the total is done; it passes on a few figures a second.

    What is returned raises RuleError when the work was stopped meanwhile.
    """
    last = 0.0

    def tell(done: int) -> None:
        nonlocal last
        now = time.monotonic()
        if name and (now - last >= EACH_S or done >= total):
            last = now
            if cache.get(_key(user_id, name) + STOP):
                raise RuleError("Stopped. Nothing was taken in.")
            cache.set(_key(user_id, name), {"stage": stage, "done": done, "total": total}, KEPT_S)

    return tell


def stop(user_id: int | None, name: str) -> None:
    """Stop the work of a name at its next figure."""
    cache.set(_key(user_id, name) + STOP, True, KEPT_S)


class Progress(TypedDict):
    """How far some work has come: what is done just now, and how many of how many."""

    stage: str
    done: int
    total: int


def told(user_id: int | None, name: str) -> Progress:
    """Return the last that was told under a name, nothing done while nothing was."""
    found: Progress | None = cache.get(_key(user_id, name))
    return found or {"stage": "", "done": 0, "total": 0}


def _key(user_id: int | None, name: str) -> str:
    return f"progress-{user_id}-{name[:40]}".replace(" ", "-")
