"""Take in a project file."""

from pathlib import Path
from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import CommandError, CommandParser

from jolly_core.exchange import read_project
from jolly_server.projects.command import ProjectCommand
from jolly_server.projects.services import create_project


class Command(ProjectCommand):
    """manage.py project_import"""

    help = "Take in a project file as a new project and print its id. On an error nothing is taken in."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        parser.add_argument("file", type=Path, help="a .spool.json file")
        parser.add_argument("--owner", default="", help="name of the account that will own it")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run the command."""
        self.look_at_database()
        owner = None
        if options["owner"]:
            owner = get_user_model().objects.filter(username=options["owner"]).first()
            if owner is None:
                raise CommandError(f"There is no account “{options['owner']}”.")
        self.stdout.write(create_project(owner, read_project(options["file"].read_bytes())))
