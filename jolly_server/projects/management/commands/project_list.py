"""List the projects."""

import json
from typing import Any

from django.core.management.base import CommandParser

from jolly_server.projects.command import ProjectCommand
from jolly_server.projects.models import ROWS, ProjectRow


class Command(ProjectCommand):
    """manage.py project_list"""

    help = "List the stored projects: id, number, name, revision."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        parser.add_argument("--json", action="store_true", help="as a JSON array")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run the command."""
        self.look_at_database()
        facts = {s.project_id: s for s in ROWS["settings"].objects.all()}
        rows = [
            {"id": p.pk, "number": facts[p.pk].number, "name": facts[p.pk].name, "revision": p.revision}
            for p in ProjectRow.objects.order_by("pk")
            if p.pk in facts
        ]
        if options["json"]:
            self.stdout.write(json.dumps(rows, ensure_ascii=False, indent=1))
        else:
            for row in rows:
                self.stdout.write("{id:20} {number:12} {name}  (revision {revision})".format(**row))
