"""Change sets to rows, rows to a Project, and the per-process cache of loaded projects."""

from __future__ import annotations

import gc
import itertools
import json
import threading
from collections import OrderedDict
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from functools import cache
from operator import attrgetter
from typing import Any

from django.conf import settings
from django.db import connection

import jolly_core.assembly  # noqa: F401  # whoever works on projects has them from here
from jolly_core.model import KINDS, ChangeSet, Entity, GoneError, Project, changes_from_json, copied, uncollected

from .models import ROWS, JournalEntry, ProjectRow
from .versions import Versions

# What a project takes in memory, bytes: measured on generated projects (benchmarks/following.py).
ENTITY_BYTES, VALUE_BYTES = 450, 1_500
TIDY_EVERY = 256  # questions for a project
MOST_STEPS = 200  # of another process that are taken over from the journal; after more, the project is loaded anew


@dataclass(slots=True)
class Here:
    """What is known of the people in a project, so that a question for news costs no look into the database.

    Attributes:
        seen: the sheet each person looks at, and when that was written down.
        people: person, name and sheet of those who are here, and when that was read; None when it is to be read.
        labels: what each person can undo and redo; forgotten when they act, or somebody takes an act of theirs back.
    """

    seen: dict[int, tuple[str, float]] = field(default_factory=dict)
    people: tuple[float, list[tuple[int, str, str]]] | None = None
    labels: dict[int, tuple[str, str]] = field(default_factory=dict)


@dataclass
class Loaded:
    """A project in memory, valid while the stored revision is `revision`.

    `lock` is held while the model is read or changed; `shown` has what browsers were given of it, `here` who asked,
    `opened_at` when a sheet was asked for last, by the clock that only goes on.
    """

    project: Project
    revision: int
    lock: threading.RLock = field(default_factory=threading.RLock)
    shown: Versions = field(default_factory=Versions)
    here: Here = field(default_factory=Here)
    opened_at: float = float("-inf")

    @property
    def entity_bytes(self) -> int:
        """About what its entities take in memory."""
        # Counted past the tables' own way, which would note it as read by what another thread works out just now.
        return ENTITY_BYTES * sum(map(dict.__len__, self.project.tables.values()))

    @property
    def value_bytes(self) -> int:
        """About what is kept of what was computed from it."""
        return VALUE_BYTES * len(self.project.memo)


_loaded: OrderedDict[str, Loaded] = OrderedDict()
_guard = threading.Lock()
_asked = itertools.count(1)


def load_rows(project_id: str) -> Project:
    """Return the stored project, read from its rows."""
    project = Project()
    _read_into(project, project_id)
    if gc.isenabled():
        gc.freeze()  # what was loaded stays for long: the collector need not look through it again and again
    return project


@uncollected
def _read_into(project: Project, project_id: str) -> None:
    for kind, model in ROWS.items():
        make = KINDS[kind].entity
        rows = model._default_manager.filter(project_id=project_id).values_list(*KINDS[kind].fields)
        project.load(kind, [make(*row) for row in rows.iterator(chunk_size=5000)])


def loaded(project_id: str, revision: int | None = None) -> Loaded:
    """Return the project in memory, brought up to date when another process has stored a later revision.

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
        if next(_asked) % TIDY_EVERY == 0:
            _make_room(known)
        with known.lock:
            if known.revision >= revision:
                return known
            _catch_up(known, project_id, revision)
            return known
    fresh = Loaded(load_rows(project_id), revision)
    with _guard:
        kept = _loaded.setdefault(project_id, fresh)
    _make_room(kept)
    return kept


def snapshot(project_id: str) -> Project:
    """Return a copy of the project as it is now, for what takes long: nobody who edits waits for it.

    Raises:
        GoneError: as `loaded`.
    """
    held = loaded(project_id)
    with held.lock:
        return copied(held.project).at_rest()


def _catch_up(held: Loaded, project_id: str, revision: int) -> None:
    """Bring a loaded project to a later revision: by what the journal says was changed, else by loading it anew."""
    held.here.labels.clear()
    entries = JournalEntry.objects.filter(
        project_id=project_id, revision__gt=held.revision, revision__lte=revision
    ).order_by("revision")
    changes = list(entries.values_list("changes", flat=True)[: MOST_STEPS + 1])
    if len(changes) == revision - held.revision <= MOST_STEPS:
        for step in changes:
            held.project.apply(changes_from_json(json.loads(step)))
    else:
        held.project.memo.clear()
        held.project = load_rows(project_id)
        held.shown.clear()
    held.revision = revision


def _make_room(newest: Loaded) -> None:
    """Let go of what takes too much memory, longest unused first: what was computed, then whole projects."""
    most = settings.JOLLY.memory_mb * 1_000_000
    with _guard:
        others = [(id, held) for id, held in _loaded.items() if held is not newest]
        total = newest.entity_bytes + newest.value_bytes + sum(h.entity_bytes + h.value_bytes for _, h in others)
        for _, held in others:
            if total > most and held.lock.acquire(blocking=False):
                total -= held.value_bytes
                held.project.memo.clear()
                held.shown.clear()
                held.lock.release()
        for id, held in others:
            if total > most:
                total -= held.entity_bytes + held.value_bytes
                del _loaded[id]
    gc.freeze()  # what is kept stays for long: the collector need not look through it again and again


def taken_bytes() -> int:
    """Return about how much memory loaded projects and what was computed from them take."""
    with _guard:
        return sum(held.entity_bytes + held.value_bytes for held in _loaded.values())


def held_ids() -> set[str]:
    """Return the ids of the projects in memory."""
    with _guard:
        return set(_loaded)


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
    names = list(KINDS[kind].fields)
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
