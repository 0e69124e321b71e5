"""Apply edits from a file."""

import json
from pathlib import Path
from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import CommandError, CommandParser
from pydantic import ValidationError

from jolly_core.edits import EDITS, Payload, fault_words, parse_edit
from jolly_core.model import CoreError
from jolly_server.projects.command import ProjectCommand
from jolly_server.projects.services import apply_many


class Command(ProjectCommand):
    """manage.py edit"""

    help = (
        "Apply edits to a project, one JSON payload a line, all or none, and print what each did. "
        "--list shows the kinds of edit with an example each."
    )

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        parser.add_argument("project", nargs="?", help="id or number of the project, see project_list")
        parser.add_argument("file", nargs="?", type=Path, help="a .jsonl file")
        parser.add_argument("--user", default="", help="name of the account the journal shows")
        parser.add_argument("--list", action="store_true", help="list the kinds of edit")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run the command."""
        if options["list"]:
            for kind in (k for k in EDITS.values() if not k.payload.own_door):
                self.stdout.write(f"{kind.kind:22} {kind.help}\n{'':22} {json.dumps(kind.example)}")
            return
        if not options["project"] or not options["file"]:
            raise CommandError("Name a project and a file, or use --list.")
        user = None
        if options["user"]:
            user = get_user_model().objects.filter(username=options["user"]).first()
            if user is None:
                raise CommandError(f"There is no account “{options['user']}”.")
        lines = options["file"].read_text(encoding="utf-8").splitlines()
        numbered = [(n, line) for n, line in enumerate(lines, start=1) if line.strip()]
        payloads = [_parse(number, line) for number, line in numbered]
        try:
            answers = apply_many(self.project_id(options["project"]), user, payloads)
        except CoreError as error:
            raise CommandError(f"{error.message} No edit of the file was applied.") from error
        for (number, _), answer in zip(numbered, answers, strict=True):
            placed = f"  {' '.join(answer.placed)}" if answer.placed else ""
            self.stdout.write(f"{number}: {answer.label}{placed}")


def _parse(number: int, line: str) -> Payload:
    try:
        return parse_edit(json.loads(line))
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(p) for p in first["loc"])
        raise CommandError(f"Line {number}: {fault_words(where, first)} No edit was applied.") from error
    except ValueError as error:
        raise CommandError(f"Line {number} is not JSON. No edit was applied.") from error
