"""Copies of a project, to work on while the project goes on."""

from __future__ import annotations

from .changes import ChangeSet
from .project import Project


def copied(project: Project) -> Project:
    """Return a copy of a project as it is now; records are never changed in place, so it costs its tables only."""
    copy = Project()
    for kind, table in project.tables.items():
        copy.load(kind, list(table.values()))
    return copy


def changes_to(project: Project, other: Project) -> ChangeSet:
    """Return what would make a project what another is."""
    changes = ChangeSet()
    for kind, table in other.tables.items():
        mine, theirs = dict(project.tables[kind].items()), dict(table.items())
        for id, record in theirs.items():
            known = mine.get(id)
            if known is not record:
                changes.record(kind, id, known, record)
        for id in [id for id in mine if id not in theirs]:
            changes.record(kind, id, mine[id], None)
    return changes


def catch_up(copy: Project, project: Project) -> None:
    """Make an earlier copy what a project is now.

    What is known of the copy stays known where nothing that was read for it has changed.
    """
    copy.apply(changes_to(copy, project))
