"""Give a project's file."""

from pathlib import Path
from typing import Any

from django.core.management.base import CommandParser

from jolly_core.exchange import write_project
from jolly_server.projects.command import ProjectCommand


class Command(ProjectCommand):
    """manage.py project_export"""

    help = "Write a project's file (.spool.json) to a file or to standard output."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        self.add_project(parser)
        parser.add_argument("--out", type=Path, help="file to write; standard output without it")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run the command."""
        self.give(write_project(self.open(options["project"])).encode(), options["out"])
