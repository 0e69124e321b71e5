"""Revisions: frozen with the whole project file, their papers made from it, and two states beside each other."""

from __future__ import annotations

import json
import threading
import zlib
from functools import lru_cache

from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction

from jolly_core.comparing import changed_sheets
from jolly_core.edits.project.revisions import FreezeRevision
from jolly_core.exchange import read_project, write_project
from jolly_core.model import GoneError, Project, Revision, catch_up, copied
from jolly_core.tagging import revisions
from jolly_server.projects.models import Membership, ProjectRow
from jolly_server.projects.services import apply_edit, create_project
from jolly_server.projects.store import loaded
from jolly_server.projects.turns import count_snags

from .models import FrozenRevision
from .runs import ready, run_of, start_run, zip_of

NOW = "now"
# Held while states are compared: their copies are kept, and one at a time works things out on them. Editors never wait.
READING = threading.RLock()
MOST_VALUES = 200_000  # that are kept with copies, some 300 MB; one copy is kept however large it is
_copies: dict[str, Project] = {}  # by the project's id, the one used last at the end


def frozen_row(project_id: str, revision_id: str) -> FrozenRevision:
    """Return what was kept of a frozen revision.

    Raises:
        GoneError: nothing was: it came with a project file.
    """
    row = FrozenRevision.objects.filter(project_id=project_id, revision_id=revision_id).first()
    if row is None:
        raise GoneError("Of this revision no file is kept here.", ids=(revision_id,))
    return row


@lru_cache(maxsize=4)
def frozen_project(project_id: str, revision_id: str) -> Project:
    """Return a project as it was when a revision was frozen; it is only read, so that what is known of it is kept.

    Raises:
        GoneError: as `frozen_row`.
    """
    return read_project(zlib.decompress(frozen_row(project_id, revision_id).file)).at_rest()


def last_frozen(project_id: str, project: Project) -> Project | None:
    """Return the project as it was at its last revision that is kept here, None when there is none."""
    id = _last_kept(project_id, project)
    return frozen_project(project_id, id) if id else None


def last_file(project_id: str, project: Project) -> bytes:
    """Return the project file of the last revision that is kept here, b"" when there is none."""
    id = _last_kept(project_id, project)
    return zlib.decompress(frozen_row(project_id, id).file) if id else b""


def _last_kept(project_id: str, project: Project) -> str:
    kept = set(FrozenRevision.objects.filter(project_id=project_id).values_list("revision_id", flat=True))
    return next((r.id for r in reversed(revisions(project)) if r.id in kept), "")


def changed_since(project_id: str, project: Project) -> list[str]:
    """Return the ids of the sheets that are other than in the last revision kept here, [] when there is none."""
    frozen = last_frozen(project_id, project)
    return changed_sheets(frozen, project) if frozen is not None else []


def changed_now(project_id: str) -> list[str]:
    """Return what `changed_since` does of the project as it is now; nobody who edits waits for it."""
    if not FrozenRevision.objects.filter(project_id=project_id).exists():
        return []
    with READING:
        return changed_since(project_id, present(project_id))


def freeze(project_id: str, user: AbstractBaseUser, payload: FreezeRevision) -> Revision:
    """Freeze a revision: sheets that changed get its index, the project file is kept.

    Raises:
        RuleError: the index is taken, or errors are left and no reason is given.
    """
    held = loaded(project_id)
    count_snags(held)  # those left are asked for while the project is held
    seen = held.revision
    with READING:
        now = present(project_id)
        changed = changed_sheets(last_frozen(project_id, now), now)
    with held.lock, transaction.atomic():
        if held.revision != seen:  # somebody edited while it was worked out
            changed = changed_sheets(last_frozen(project_id, held.project), held.project)
        payload.sheet_ids = changed
        answer = apply_edit(project_id, user, payload, at_its_door=True)
        revision: Revision = held.project.get("revision", answer.placed[0])
        file = zlib.compress(write_project(held.project).encode())
        FrozenRevision.objects.create(
            project_id=project_id, revision_id=revision.id, index=revision.index, by_id=user.pk, file=file
        )
    return revision


def make_papers(project_id: str, revision_id: str, pack_id: str, by: str) -> None:
    """Begin to write the papers of a frozen revision from its file; the same file gives the same papers.

    Raises:
        GoneError: nothing is kept of the revision, or it has no such pack.
        RuleError: the pack cannot be issued, or one is being written already.
    """
    row = frozen_row(project_id, revision_id)
    project = frozen_project(project_id, revision_id)
    ready(project, pack_id)
    row.run = start_run(project_id, project, pack_id, by)
    row.save(update_fields=["run"])


def settle_papers(project_id: str) -> None:
    """Keep the papers that were written since this was asked last, with their digests."""
    for row in FrozenRevision.objects.filter(project_id=project_id).exclude(run=""):
        try:
            run = run_of(project_id, row.run)
        except GoneError:
            run = None
        if run is not None and run.state == "running":
            continue
        if run is not None and run.state == "done" and not row.papers:
            row.papers = zip_of(project_id, row.run)
            row.digests = json.dumps({f["name"]: f["digest"] for f in run.files}, ensure_ascii=False)
        row.run = ""
        row.save(update_fields=["papers", "digests", "run"])


def open_frozen(project_id: str, revision_id: str, user: AbstractBaseUser) -> str:
    """Return the id of a project that is the frozen state, to be read and not changed; it is made when first asked for.

    Raises:
        GoneError: as `frozen_row`.
    """
    row = frozen_row(project_id, revision_id)
    with transaction.atomic():
        if not ProjectRow.objects.filter(pk=row.opened_as).exists():
            row.opened_as = create_project(None, frozen_project(project_id, revision_id))
            row.save(update_fields=["opened_as"])
            ProjectRow.objects.filter(pk=row.opened_as).update(state=ProjectRow.State.ARCHIVED)
        Membership.objects.get_or_create(
            project_id=row.opened_as, user_id=user.pk, defaults={"role": Membership.Role.VIEWER}
        )
    return row.opened_as


def state_of(project_id: str, name: str) -> Project:
    """Return a state of a project, to be read only: "now", or that of a frozen revision by its id.

    Raises:
        GoneError: as `frozen_row`.
    """
    return present(project_id) if name == NOW else frozen_project(project_id, name)


def present(project_id: str) -> Project:
    """Return a copy of a project as it is now, so that nobody who edits waits for what is worked out on it.

    It is the same copy brought up to date, so that only what an edit concerned is worked out again; it is to be used
    while READING is held.
    """
    with READING:
        held = loaded(project_id)
        copy = _copies.pop(project_id, None)
        with held.lock:
            if copy is None:
                copy = copied(held.project)
            else:
                catch_up(copy, held.project)
        _copies[project_id] = copy
        while len(_copies) > 1 and sum(len(c.memo) for c in _copies.values()) > MOST_VALUES:
            _copies.pop(next(iter(_copies))).memo.clear()
        return copy
