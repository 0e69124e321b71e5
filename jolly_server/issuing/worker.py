"""The process that writes a pack from a snapshot, so that nobody who edits has to wait for it.

It knows no database: it reads `job.json` and `project.spool.json` in a folder, writes `progress.json` as it goes, and
at last `pack.zip`. Whoever started it may end it at any time.
"""

from __future__ import annotations

import json
import os
import sys
from collections.abc import Collection
from pathlib import Path
from typing import Any

import jolly_core.assembly  # noqa: F401  # a process of its own
from jolly_core.comparing import changed_sheets
from jolly_core.exchange import (
    Finding,
    everything_pack,
    issue_check,
    outside,
    pack_files,
    read_project,
    written,
    zipped,
)
from jolly_core.extending import load_extensions
from jolly_core.model import CoreError, Pack, Project

JOB, SNAPSHOT, PROGRESS, ZIP = "job.json", "project.spool.json", "progress.json", "pack.zip"
FROZEN = "frozen.spool.json"  # the project at its last revision, where there is one to compare with
NICE = 10  # the papers wait for those who edit


def put(folder: Path, facts: dict[str, Any]) -> None:
    """Write how far it is, so that a reader sees all of it or what was before."""
    fresh = folder / f"{PROGRESS}.new"
    fresh.write_text(json.dumps(facts, ensure_ascii=False), encoding="utf-8")
    fresh.replace(folder / PROGRESS)


def pack_in(project: Project, pack_id: str) -> Pack:
    """Return a pack of the project by its id, that of everything for ""."""
    pack: Pack = project.get("pack", pack_id) if pack_id else everything_pack(project)
    return pack


def suspicions(
    project: Project, pack: Pack, fonts: Path, stale: list[str], changed: Collection[str] = ()
) -> list[Finding]:
    """Return what looks wrong in what was issued: what the check before issue finds, and sheets that are left out.

    Args:
        project, pack, fonts: what was issued, and the folder of the font files.
        stale: numbers of parts whose copy differs from the library.
        changed: ids of the sheets that are other than in the last frozen revision.
    """
    found = issue_check(project, fonts, stale, changed)
    left_out = outside(project, pack)
    if left_out:
        words = f"{len(left_out)} sheet{'s are' if len(left_out) > 1 else ' is'} in no drawing of this pack"
        found.append(Finding("warning", "outside", words, tuple(left_out)))
    return found


def run(folder: Path) -> None:
    """Write the pack that a folder asks for."""
    job = json.loads((folder / JOB).read_text(encoding="utf-8"))
    fonts = Path(job["fonts"])
    project = read_project((folder / SNAPSHOT).read_bytes()).at_rest()
    pack = pack_in(project, job["pack_id"])

    def step(done: int, count: int, doing: str) -> None:
        put(folder, {"state": "running", "done": done, "count": count, "doing": doing})

    frozen = read_project((folder / FROZEN).read_bytes()).at_rest() if (folder / FROZEN).exists() else None
    changed = changed_sheets(frozen, project) if frozen is not None else []
    files = pack_files(project, fonts, pack, step, changed)
    put(folder, {"state": "running", "done": len(files), "count": len(files), "doing": "checking"})
    (folder / ZIP).write_bytes(zipped(files))
    listed = [
        {"name": w.name, "words": w.words, "size": w.size, "pages": w.pages, "rows": w.rows, "digest": w.digest}
        for w in written(project, pack, fonts, files)
    ]
    found = suspicions(project, pack, fonts, job["stale"], changed)
    findings = [{"weight": f.weight, "words": f.sentence} for f in found]
    put(folder, {"state": "done", "done": len(files), "count": len(files), "files": listed, "findings": findings})


def main() -> int:
    """Write a pack, or say why it cannot be written."""
    folder = Path(sys.argv[1])
    os.nice(NICE)
    load_extensions()
    try:
        run(folder)
    except CoreError as error:
        put(folder, {"state": "failed", "done": 0, "count": 0, "why": error.message})
        return 1
    except Exception as error:  # the one who waits is told, whatever it is; the trace goes to the log
        put(folder, {"state": "failed", "done": 0, "count": 0, "why": f"This should not happen: {error!r}"})
        raise
    return 0


if __name__ == "__main__":
    sys.exit(main())
