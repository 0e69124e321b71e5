"""Load the demo."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import CommandParser

from jolly_server.demo.services import seed
from jolly_server.projects.command import ProjectCommand


class Command(ProjectCommand):
    """manage.py seed_demo"""

    help = "Load the demo library, people and projects where they are not loaded yet."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        parser.add_argument("--folder", type=Path, default=settings.JOLLY.demo_files, help="where the demo files are")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run the command."""
        self.look_at_database()
        for line in seed(options["folder"]):
            if options["verbosity"]:
                self.stdout.write(line)
