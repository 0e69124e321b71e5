"""Change sets to rows, rows to a Project, and the per-process cache of loaded projects."""

from __future__ import annotations

import gc
import threading
from collections import OrderedDict
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from functools import cache
from operator import attrgetter
from typing import Any

from django.db import connection

from jolly_core.model import KINDS, ChangeSet, Entity, GoneError, Project, fields_of

from .models import ROWS, ProjectRow

KEEP = 12


@dataclass
class Loaded:
    """A project in memory, valid while the stored revision is `revision`.

    `lock` is held while the model is read or changed; `views` belongs to the views module.
    """

    project: Project
    revision: int
    lock: threading.RLock = field(default_factory=threading.RLock)
    views: OrderedDict[tuple[str, int], Any] = field(default_factory=OrderedDict)


_loaded: OrderedDict[str, Loaded] = OrderedDict()
_guard = threading.Lock()


def load_rows(project_id: str) -> Project:
    """Return the stored project, read from its rows."""
    project = Project()
    collecting = gc.isenabled()
    gc.disable()
    try:
        for kind, model in ROWS.items():
            make = KINDS[kind]
            rows = model._default_manager.filter(project_id=project_id).values_list(*fields_of(kind))
            project.load(kind, [make(*row) for row in rows.iterator(chunk_size=5000)])
    finally:
        if collecting:
            gc.enable()
            # What was loaded stays for long: the collector need not look through it again and again.
            gc.freeze()
    return project


def loaded(project_id: str, revision: int | None = None) -> Loaded:
    """Return the project in memory, loaded anew when another process has stored a later revision.

    Args:
        revision: the stored revision, when the caller has just read it.

    Raises:
        GoneError: there is no such project.
    """
    if revision is None:
        revision = ProjectRow.objects.filter(pk=project_id).values_list("revision", flat=True).first()
    if revision is None:
        raise GoneError("This project is not here. It may have been deleted.", ids=(project_id,))
    with _guard:
        known = _loaded.get(project_id)
        if known is not None:
            _loaded.move_to_end(project_id)
    if known is not None:
        with known.lock:
            if known.revision >= revision:
                return known
            known.project = load_rows(project_id)
            known.revision = revision
            known.views.clear()
            return known
    fresh = Loaded(load_rows(project_id), revision)
    with _guard:
        kept = _loaded.setdefault(project_id, fresh)
        while len(_loaded) > KEEP:
            _loaded.popitem(last=False)
    return kept


def forget(project_id: str = "") -> None:
    """Drop a project from memory, or all of them."""
    with _guard:
        if project_id:
            _loaded.pop(project_id, None)
        else:
            _loaded.clear()


def save_changes(project_id: str, changes: ChangeSet) -> None:
    """Write the rows of a change set; the caller holds the transaction."""
    put: dict[str, list[Entity]] = {}
    gone: dict[str, list[str]] = {}
    for change in changes:
        if change.after is None:
            gone.setdefault(change.kind, []).append(change.id)
        else:
            put.setdefault(change.kind, []).append(change.after)
    for kind, ids in gone.items():
        ROWS[kind]._default_manager.filter(project_id=project_id, id__in=ids).delete()
    for kind, entities in put.items():
        save_entities(project_id, kind, entities)


def save_entities(project_id: str, kind: str, entities: Iterable[Entity]) -> None:
    """Insert or replace the rows of entities of one kind.

    Notes:
        The statement of a kind never changes, so it is made once: building it anew costs more than running it.
    """
    statement, values = _upsert(kind)
    with connection.cursor() as cursor:
        cursor.executemany(statement, [(project_id, *(value(e) for value in values)) for e in entities])


@cache
def _upsert(kind: str) -> tuple[str, list[Callable[[Entity], Any]]]:
    """Return the SQL that stores an entity of a kind, and what gives each stored value after the project's id."""
    options = ROWS[kind]._meta
    quote = connection.ops.quote_name
    names = list(fields_of(kind))
    columns = [quote(n) for n in names]
    news = ", ".join(f"{c} = excluded.{c}" for n, c in zip(names, columns, strict=True) if n != "id")
    marks = ", ".join(["%s"] * (len(names) + 1))
    statement = (
        f"INSERT INTO {quote(options.db_table)} (project_id, {', '.join(columns)}) VALUES ({marks}) "
        f"ON CONFLICT (project_id, id) DO UPDATE SET {news}"
    )
    return statement, [_stored(options.get_field(n), attrgetter(n)) for n in names]


def _stored(field: Any, read: Callable[[Entity], Any]) -> Callable[[Entity], Any]:
    if type(field).__module__.startswith("django."):
        return read
    return lambda entity: field.get_prep_value(read(entity))
