"""Give sheets as PDF."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import CommandError, CommandParser

from jolly_core.exchange import sheets_pdf
from jolly_server.issuing.revisions import changed_since
from jolly_server.projects.command import ProjectCommand


class Command(ProjectCommand):
    """manage.py drawing"""

    help = "Write the sheets of a project, or one of them, as a vector PDF."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        self.add_project(parser)
        parser.add_argument("--sheet", default="", help="number of one sheet; all without it")
        parser.add_argument("--out", type=Path, help="file to write; standard output without it")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run the command."""
        project = self.open(options["project"])
        wanted = options["sheet"]
        ids = [s.id for s in project.sheets_in_order() if not wanted or s.number == wanted]
        if not ids:
            raise CommandError(f"The project has no sheet {wanted}.")
        changed = changed_since(self.project_id(options["project"]), project)
        self.give(sheets_pdf(project, ids, settings.JOLLY.fonts, changed=changed), options["out"])
