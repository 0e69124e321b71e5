"""How the database stands to this code: new, older, as it should be, or newer."""

from __future__ import annotations

import pkgutil
from dataclasses import dataclass
from importlib import import_module

from django.apps import apps
from django.conf import settings
from django.db import DatabaseError, connection
from django.db.migrations.recorder import MigrationRecorder


class DatabaseFault(Exception):
    """The database is not one that this code can work with, said in a sentence that tells what to do."""


@dataclass(slots=True, frozen=True)
class Standing:
    """What the database and the code know of each other: migrations by app and name.

    Attributes:
        missing: what the code has and the database has not been through.
        unknown: what the database has been through and the code does not have.
        is_new: whether it has been through nothing yet.
    """

    missing: frozenset[tuple[str, str]]
    unknown: frozenset[tuple[str, str]]
    is_new: bool


def _of_code() -> frozenset[tuple[str, str]]:
    """Return the migrations of all apps by the names of their files; none of them is read."""
    found = set()
    for app in apps.get_app_configs():
        try:
            package = import_module(f"{app.name}.migrations")
        except ModuleNotFoundError:
            continue
        names = (module.name for module in pkgutil.iter_modules(package.__path__))
        found |= {(app.label, name) for name in names if name[0] not in "_~"}
    return frozenset(found)


def standing() -> Standing:
    """Return how the database stands.

    Raises:
        DatabaseFault: its file is something else, or broken, or cannot be opened.
    """
    try:
        through = frozenset(MigrationRecorder(connection).applied_migrations())
    except DatabaseError as error:
        raise DatabaseFault(
            f"The database {place()} cannot be read: {error}. Put a copy of yours back, or move it away to begin anew."
        ) from error
    ours = _of_code()
    labels = {app.label for app in apps.get_app_configs()}
    unknown = frozenset(m for m in through - ours if m[0] in labels)
    return Standing(ours - through, unknown, not through)


def place() -> str:
    """Return where the database is, for messages."""
    return str(settings.DATABASES["default"]["NAME"])


def refuse_newer(found: Standing) -> None:
    """Refuse a database that a newer version of the code has been at.

    Raises:
        DatabaseFault: it is newer.
    """
    if found.unknown:
        app, name = max(found.unknown, key=lambda m: m[1])
        raise DatabaseFault(
            f"The database {place()} was made by a newer Jolly Spool (it knows {app} {name}). Nothing was changed. "
            "Use that version, or name another data folder."
        )


def refuse_unready(found: Standing) -> None:
    """Refuse a database that this code cannot work with as it stands.

    Raises:
        DatabaseFault: it is newer, older, or there is nothing in it yet.
    """
    refuse_newer(found)
    if found.is_new:
        raise DatabaseFault("There are no projects here yet: run ./start once, or set JOLLY_SPOOL_DATA.")
    if found.missing:
        raise DatabaseFault(
            f"The database {place()} is older than this Jolly Spool. Run ./start once: it brings it up to date."
        )
