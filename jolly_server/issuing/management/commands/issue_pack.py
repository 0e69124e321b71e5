"""Write everything that is issued of a project in one zip."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import CommandParser

from jolly_core.exchange import write_pack
from jolly_server.projects.command import ProjectCommand


class Command(ProjectCommand):
    """issue_pack PROJECT --out FILE"""

    help = "Write drawings, lists, plans, layouts and cut list of a project in one zip."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare project and output."""
        self.add_project(parser)
        parser.add_argument("--out", type=Path, required=True, help="zip file to write")

    def handle(self, *args: Any, **options: Any) -> None:
        """Write the pack."""
        self.give(write_pack(self.open(options["project"]), settings.JOLLY.fonts), options["out"])
