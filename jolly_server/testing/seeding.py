"""What the demo puts into an empty database, kept as rows: to put those in takes a tenth of what reading it does."""

from __future__ import annotations

from typing import Any

from django.apps import apps
from django.conf import settings
from django.db import connection

from jolly_server.demo.services import seed

Rows = list[tuple[Any, ...]]
_kept: dict[str, Rows] = {}


def _rows() -> dict[str, Rows]:
    """Return all rows of the tables of models; the index of parts is kept by the database itself."""
    tables = {}
    with connection.cursor() as cursor:
        for name in connection.introspection.django_table_names(only_existing=True, include_views=False):
            cursor.execute(f"SELECT * FROM {connection.ops.quote_name(name)}")
            tables[name] = cursor.fetchall()
    return tables


def seed_rows() -> None:
    """Fill a database as the demo does, one in which nothing of it is: in full once, after that by its rows.

    Notes:
        What a migration made may be there or not: a test that empties all tables takes it away for those after it.
    """
    if not _kept:
        before = _rows()
        seed(settings.JOLLY.demo_files)
        ours = {model._meta.db_table for model in apps.get_models() if model.__module__.startswith("jolly_server.")}
        _kept.update({name: rows for name, rows in _rows().items() if name in ours or rows != before[name]})
        return
    with connection.constraint_checks_disabled(), connection.cursor() as cursor:
        for name, rows in _kept.items():
            if rows:
                places = ", ".join(["%s"] * len(rows[0]))
                cursor.executemany(f"INSERT OR IGNORE INTO {connection.ops.quote_name(name)} VALUES ({places})", rows)
