"""The three statements that run at each edit and poll, made once: building them anew costs more than running them."""

from __future__ import annotations

from datetime import datetime
from functools import cache

from django.db import connection

from .models import JournalEntry, Membership, ProjectRow


@cache
def _member_sql() -> str:
    member, project = Membership._meta.db_table, ProjectRow._meta.db_table
    return (
        f"SELECT m.role, p.state, p.revision FROM {member} m JOIN {project} p ON p.id = m.project_id "
        "WHERE m.project_id = %s AND m.user_id = %s"
    )


def membership(project_id: str, user_id: int) -> tuple[str, str, int] | None:
    """Return a person's role in a project, its state and its stored revision; None when they are no member."""
    with connection.cursor() as cursor:
        cursor.execute(_member_sql(), [project_id, user_id])
        row: tuple[str, str, int] | None = cursor.fetchone()
        return row


@cache
def _advance_sql() -> str:
    return (
        f"UPDATE {ProjectRow._meta.db_table} SET revision = revision + 1, edited_by_id = %s, edited_at = %s "
        "WHERE id = %s AND revision = %s"
    )


def advance(project_id: str, revision: int, user_id: int | None, at: datetime) -> bool:
    """Move a project's stored revision on by one; False when it is no longer the one given."""
    with connection.cursor() as cursor:
        moment = connection.ops.adapt_datetimefield_value(at)
        cursor.execute(_advance_sql(), [user_id, moment, project_id, revision])
        return bool(cursor.rowcount == 1)


@cache
def _journal_sql() -> tuple[str, tuple[str, ...]]:
    fields = [f for f in JournalEntry._meta.concrete_fields if not f.primary_key]
    columns = ", ".join(str(f.column) for f in fields)
    marks = ", ".join(["%s"] * len(fields))
    names = tuple(str(f.attname) for f in fields)
    return f"INSERT INTO {JournalEntry._meta.db_table} ({columns}) VALUES ({marks})", names


def enter(entry: JournalEntry, at: datetime) -> None:
    """Write a line of the journal; the caller holds the transaction."""
    statement, names = _journal_sql()
    values = {n: getattr(entry, n) for n in names}
    values["at"] = connection.ops.adapt_datetimefield_value(at)
    with connection.cursor() as cursor:
        cursor.execute(statement, list(values.values()))
