"""Write a pack of a project in one zip: one of its own by name, or everything."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import CommandParser

from jolly_core.edits import stale_parts
from jolly_core.exchange import EVERYTHING, everything_pack, pack_files, written, zipped
from jolly_core.model import Pack, Project, RuleError
from jolly_server.issuing.files import pack_zip_name, plain_name
from jolly_server.issuing.revisions import changed_since
from jolly_server.issuing.worker import suspicions
from jolly_server.library.services import StoredLibrary
from jolly_server.projects.command import ProjectCommand


class Command(ProjectCommand):
    """issue_pack PROJECT [--pack NAME] [--out FILE]"""

    help = "Write a pack of a project in one zip: one of its packs by name, or everything there is of it."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare project and output."""
        self.add_project(parser)
        parser.add_argument("--pack", default=EVERYTHING, help=f"name of a pack of the project (default: {EVERYTHING})")
        parser.add_argument(
            "--out", type=Path, help="zip file to write, or the folder for it (default: the folder here)"
        )

    def handle(self, *args: Any, **options: Any) -> None:
        """Write the pack, and say what is in it and what looks wrong."""
        project = self.open(options["project"])
        pack = pack_named(project, options["pack"])
        fonts = settings.JOLLY.fonts
        changed = changed_since(self.project_id(options["project"]), project)
        files = pack_files(project, fonts, pack, changed=changed)
        self.give(zipped(files), _path(project, pack, options["out"]))
        for file in written(project, pack, fonts, files):
            count = f", {file.pages} pages" if file.pages else f", {file.rows} rows" if file.rows else ""
            self.stderr.write(f"  {file.name}: {file.words}{count}")
        stale = [project.parts[id].number for id in stale_parts(project.parts, StoredLibrary())]
        for finding in suspicions(project, pack, fonts, stale, changed):
            self.stderr.write(f"{finding.weight}: {finding.sentence}")


def _path(project: Project, pack: Pack, out: Path | None) -> Path:
    """Return the zip file to write; in a folder it is called as it is when it is taken from the browser."""
    if out is not None and not out.is_dir():
        return out
    s = project.settings
    return (out or Path()) / plain_name(pack_zip_name(s.number, s.revision, pack.name))


def pack_named(project: Project, name: str) -> Pack:
    """Return a pack of a project by its name, or that of everything.

    Raises:
        RuleError: there is none of that name; the message lists those there are.
    """
    if name == EVERYTHING:
        return everything_pack(project)
    found = next((p for p in project.packs.values() if p.name == name), None)
    if found is None:
        known = ", ".join(sorted([EVERYTHING, *(p.name for p in project.packs.values())]))
        raise RuleError(f"There is no pack “{name}”. There are: {known}.", field="pack")
    return found
