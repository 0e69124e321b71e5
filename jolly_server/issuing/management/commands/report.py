"""Give a report."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import CommandError, CommandParser

from jolly_core.exchange import LIST_FORMATS, write_list
from jolly_core.reports import grouped_reports, plain_recipe
from jolly_server.projects.command import ProjectCommand


class Command(ProjectCommand):
    """manage.py report"""

    help = "Write a report of a project to a file or to standard output. --list shows the kinds."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        parser.add_argument("project", nargs="?", help="id or number of the project, see project_list")
        parser.add_argument("kind", nargs="?", help="which report, see --list")
        parser.add_argument("--format", choices=LIST_FORMATS, default="csv")
        parser.add_argument("--out", type=Path, help="file to write; standard output without it")
        parser.add_argument("--list", action="store_true", help="list the reports")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run the command."""
        if options["list"]:
            for _, report in grouped_reports():
                self.stdout.write(f"{report.key:10} {report.help}")
            return
        if not options["project"] or not options["kind"]:
            raise CommandError("Name a project and a report, or use --list.")
        project = self.open(options["project"])
        content = write_list(project, plain_recipe(options["kind"]), options["format"], settings.JOLLY.fonts)
        self.give(content, options["out"])
