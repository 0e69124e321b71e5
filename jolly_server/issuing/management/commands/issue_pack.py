"""Write a pack of a project in one zip: one of its own by name, or everything."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import CommandParser

from jolly_core.exchange import EVERYTHING, write_pack
from jolly_core.model import Pack, Project, RuleError
from jolly_server.projects.command import ProjectCommand


class Command(ProjectCommand):
    """issue_pack PROJECT [--pack NAME] --out FILE"""

    help = "Write a pack of a project in one zip: one of its packs by name, or everything there is of it."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare project and output."""
        self.add_project(parser)
        parser.add_argument("--pack", default=EVERYTHING, help=f"name of a pack of the project (default: {EVERYTHING})")
        parser.add_argument("--out", type=Path, required=True, help="zip file to write")

    def handle(self, *args: Any, **options: Any) -> None:
        """Write the pack."""
        project = self.open(options["project"])
        pack = pack_named(project, options["pack"])
        self.give(write_pack(project, settings.JOLLY.fonts, pack), options["out"])


def pack_named(project: Project, name: str) -> Pack | None:
    """Return a pack of a project by its name, None for that of everything.

    Raises:
        RuleError: there is none of that name; the message lists those there are.
    """
    if name == EVERYTHING:
        return None
    found = next((p for p in project.packs.values() if p.name == name), None)
    if found is None:
        known = ", ".join(sorted([EVERYTHING, *(p.name for p in project.packs.values())]))
        raise RuleError(f"There is no pack “{name}”. There are: {known}.", field="pack")
    return found
