"""Check a project."""

import json
import sys
from dataclasses import asdict
from typing import Any

from django.core.management.base import CommandParser

from jolly_core.checks import all_snags, place_in_words
from jolly_server.projects.command import ProjectCommand


class Command(ProjectCommand):
    """manage.py check_project"""

    help = "Print the snags of a project. Exit code 1 when any of them is an error."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        self.add_project(parser)
        parser.add_argument("--json", action="store_true", help="as a JSON array")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run the command."""
        project = self.open(options["project"])
        snags = all_snags(project)
        places = [place_in_words(project, s) for s in snags]
        if options["json"]:
            rows = [{**asdict(s), "place": place} for s, place in zip(snags, places, strict=True)]
            self.stdout.write(json.dumps(rows, ensure_ascii=False, indent=1))
        else:
            for snag, place in zip(snags, places, strict=True):
                self.stdout.write(f"{snag.severity:8} {place:10} {snag.message}")
            if not snags:
                self.stdout.write("Nothing wrong.")
        if any(s.severity == "error" for s in snags):
            sys.exit(1)
