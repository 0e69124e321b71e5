"""Say what changed between two states of a project."""

import json
import re
from dataclasses import asdict
from pathlib import Path
from typing import Any

from django.core.management.base import CommandParser

from jolly_core.comparing import SheetChange, difference, same_things, work_list
from jolly_core.exchange import read_project, states_svg
from jolly_core.model import Project
from jolly_server.projects.command import ProjectCommand


class Command(ProjectCommand):
    """manage.py project_diff"""

    help = "Print what changed between two project files (or projects), and what that is for the shop floor."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        for name in ("before", "after"):
            parser.add_argument(name, help="a project file, or id or number of a project, see project_list")
        parser.add_argument("--json", action="store_true", help="as one JSON object")
        parser.add_argument(
            "--drawings",
            type=Path,
            metavar="FOLDER",
            help="also write each drawing that differs there, before and after beside each other, its places marked",
        )

    def handle(self, *args: Any, **options: Any) -> None:
        """Run the command."""
        before, after = (self.state(options[name]) for name in ("before", "after"))
        found = difference(before, after)
        jobs = work_list(found)
        if options["drawings"] is not None:
            self.draw(before, after, found.sheets, options["drawings"])
        if options["json"]:
            content = {
                "changes": [{"kind": c.kind, "act": c.act, "words": c.words} for c in found.changes],
                "sheets": [asdict(s) for s in found.sheets],
                "work": [asdict(j) for j in jobs],
            }
            self.stdout.write(json.dumps(content, ensure_ascii=False, indent=1))
            return
        for change in found.changes:
            self.stdout.write(change.words)
        for sheet in found.sheets:
            places = f"{len(sheet.added)} new, {len(sheet.gone)} gone, {len(sheet.other)} otherwise"
            self.stdout.write(f"sheet {sheet.number} is drawn otherwise: {places}")
        for job in jobs:
            words = (job.act, job.what, job.start, job.end, f"now {job.now_to}" if job.now_to else "", job.kind)
            self.stdout.write(f"do: {'  '.join(filter(None, (job.place, *words)))}")
        if not (found.changes or found.sheets):
            self.stdout.write("Nothing changed.")

    def draw(self, before: Project, after: Project, sheets: tuple[SheetChange, ...], folder: Path) -> None:
        """Write the drawings that differ into a folder, which is made when it is not there."""
        folder.mkdir(parents=True, exist_ok=True)
        same = same_things(before, after)
        taken: set[str] = set()
        for change in sheets:
            name = re.sub(r"[^A-Za-z0-9_.-]+", "-", f"sheet-{change.number}")
            name = f"{name}-{change.sheet_id}" if name in taken else name
            taken.add(name)
            (folder / f"{name}.svg").write_text(states_svg(before, after, change, same), encoding="utf-8")
            self.stderr.write(f"wrote {folder / f'{name}.svg'}")

    def state(self, name: str) -> Project:
        """Return the project in a file, or else of that id or number."""
        path = Path(name)
        return read_project(path.read_bytes()).at_rest() if path.is_file() else self.open(name)
