"""How a database stands to the code."""

from __future__ import annotations

from unittest.mock import patch

from django.db import DatabaseError, connection
from django.db.migrations.recorder import MigrationRecorder
from django.test import TestCase

from jolly_server.config.database import DatabaseFault, refuse_newer, refuse_unready, standing


class Database(TestCase):
    def test_as_it_should_be(self) -> None:
        found = standing()
        self.assertEqual((found.missing, found.unknown, found.is_new), (frozenset(), frozenset(), False))
        refuse_unready(found)

    def test_older_than_the_code(self) -> None:
        MigrationRecorder(connection).record_unapplied("issuing", "0001_initial")
        found = standing()
        self.assertEqual(found.missing, {("issuing", "0001_initial")})
        refuse_newer(found)
        with self.assertRaisesRegex(DatabaseFault, r"older.*Run \./start once"):
            refuse_unready(found)

    def test_newer_than_the_code(self) -> None:
        MigrationRecorder(connection).record_applied("projects", "0999_tomorrow")
        MigrationRecorder(connection).record_applied("a_package_that_went", "0001_initial")
        found = standing()
        self.assertEqual(found.unknown, {("projects", "0999_tomorrow")})
        for refuse in (refuse_newer, refuse_unready):
            with self.assertRaisesRegex(DatabaseFault, "newer Jolly Spool.*0999_tomorrow.*Nothing was changed"):
                refuse(found)

    def test_nothing_in_it_yet(self) -> None:
        MigrationRecorder.Migration.objects.using("default").all().delete()
        found = standing()
        self.assertTrue(found.is_new)
        refuse_newer(found)
        with self.assertRaisesRegex(DatabaseFault, r"no projects here yet: run \./start once"):
            refuse_unready(found)

    def test_no_database_at_all(self) -> None:
        fault = DatabaseError("file is not a database")
        with patch.object(MigrationRecorder, "applied_migrations", side_effect=fault):
            self.assertRaisesRegex(DatabaseFault, "sqlite3 cannot be read: file is not a database", standing)
