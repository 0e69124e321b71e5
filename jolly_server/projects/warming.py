"""What was edited last is worked out when the server starts, so that who opens it first need not wait for all of it."""

from __future__ import annotations

import threading
from contextlib import suppress
from importlib import import_module

from django.conf import settings
from django.db import connection

from jolly_core.model import GoneError

from .models import ProjectRow
from .store import loaded, taken_bytes
from .turns import PATIENCE_S, count_snags

SHARE = 0.5  # of the memory for projects, that is filled before anybody has asked for one
# What reads and writes files of other programs takes long to come and is wanted by few: it comes when all else is done.
LATER = ("ezdxf.filemanagement", "openpyxl", "scipy.optimize", "scipy.sparse.csgraph")
PAUSE_S = 0.05  # after each turn, so that those who do ask are served meanwhile


def warm() -> list[str]:
    """Work out open projects, those edited last first, until the memory set aside for that is full.

    Returns:
        The ids of those that were worked out; one that people change meanwhile is left to them.
    """
    done = []
    for id in (
        ProjectRow.objects.filter(state=ProjectRow.State.OPEN).order_by("-edited_at", "id").values_list("id", flat=True)
    ):
        if taken_bytes() > SHARE * settings.JOLLY.memory_mb * 1_000_000:
            break
        try:
            if count_snags(loaded(id), PAUSE_S, PATIENCE_S) is not None:
                done.append(id)
        except GoneError:  # deleted since
            continue
    for id in reversed(done):  # when room is needed, what was edited longest ago goes first
        with suppress(GoneError):
            loaded(id)
    return done


def start() -> threading.Thread:
    """Begin to warm projects, beside all else."""

    def beside() -> None:
        try:
            warm()
            for name in LATER:
                import_module(name)
        finally:
            connection.close()

    thread = threading.Thread(target=beside, name="warming", daemon=True)
    thread.start()
    return thread
