"""What the project commands share: finding a project, writing output, turning refusals into clear errors."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from jolly_core.model import CoreError, Project
from jolly_server.config.database import DatabaseFault, refuse_unready, standing

from .models import ROWS, ProjectRow
from .store import loaded


class ProjectCommand(BaseCommand):
    """A command whose refusals from the core end it with their message and exit code 1."""

    def execute(self, *args: Any, **options: Any) -> str | None:
        """Run the command, with errors of the core as errors of the command."""
        try:
            return super().execute(*args, **options)
        except DatabaseFault as error:
            raise CommandError(str(error)) from error
        except CoreError as error:
            raise CommandError(error.message) from error
        except OSError as error:
            raise CommandError(f"{error.filename}: {error.strerror}") from error

    @staticmethod
    def look_at_database() -> None:
        """Refuse to work with a database that is not as this code has it.

        Raises:
            DatabaseFault: it is newer, older, no database, or there is nothing in it yet.
        """
        refuse_unready(standing())

    def add_project(self, parser: CommandParser) -> None:
        """Declare the project argument."""
        parser.add_argument("project", help="id or number of the project, see project_list")

    def project_id(self, name: str) -> str:
        """Return the id of the project of that id or number.

        Raises:
            CommandError: there is none, or several have that number.
        """
        self.look_at_database()
        if ProjectRow.objects.filter(pk=name).exists():
            return name
        ids = list(ROWS["settings"].objects.filter(number=name).values_list("project_id", flat=True))
        if len(ids) != 1:
            known = "No project has" if not ids else "Several projects have"
            raise CommandError(f"{known} the id or number “{name}”. See project_list.")
        return str(ids[0])

    def open(self, name: str) -> Project:
        """Return the project of that id or number."""
        return loaded(self.project_id(name)).project.at_rest()

    def give(self, content: bytes, out: Path | None) -> None:
        """Write to a file, or to standard output."""
        if out is not None:
            out.write_bytes(content)
            self.stderr.write(f"wrote {out}, {len(content)} bytes")
            return
        # Binary formats go to the stream below the text one, where there is one (a test's has none).
        below = getattr(self.stdout._out, "buffer", None)
        if below is not None:
            below.write(content)
        else:
            self.stdout.write(content.decode("utf-8", "replace"), ending="")
