"""Packs that are written in the background: each in a process of its own, from a snapshot, with a folder of its own."""

from __future__ import annotations

import json
import shutil
import subprocess
import sys
import threading
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from django.conf import settings

from jolly_core.exchange import check_pack, write_project
from jolly_core.model import GoneError, IdSource, Project, RuleError

from .worker import FROZEN, JOB, PROGRESS, SNAPSHOT, ZIP, pack_in

KEPT = 8  # runs of a project; of more the oldest are removed
_ids = IdSource()
_running: dict[str, subprocess.Popen[bytes]] = {}
_starting = threading.Lock()  # so that two who ask at once do not both begin


@dataclass(slots=True, frozen=True)
class Run:
    """A run of a pack: what was asked for by whom and when, and how far it is.

    `state` is "running", "done", "failed", "cancelled", or "broken off" when its process is gone.
    """

    id: str
    pack_id: str
    name: str
    revision: str
    by: str
    at: str
    state: str
    done: int
    count: int
    doing: str
    why: str
    files: list[dict[str, Any]]
    findings: list[dict[str, str]]


def folder_of(project_id: str) -> Path:
    """Return the folder of a project's runs."""
    return Path(settings.JOLLY.data) / "issued" / project_id


def ready(project: Project, pack_id: str) -> None:
    """Refuse a pack that cannot be issued.

    Raises:
        GoneError: there is no such pack.
        RuleError: as `check_pack`.
    """
    check_pack(project, pack_in(project, pack_id), settings.JOLLY.fonts)


def start_run(
    project_id: str, project: Project, pack_id: str, by: str, stale: Sequence[str] = (), frozen: bytes = b""
) -> str:
    """Begin to write a pack of a copy of a project that nobody changes. Return the id of the run.

    Args:
        project_id, project, pack_id: what is written.
        by: who asks for it.
        stale: numbers of parts whose copy differs from the library.
        frozen: file of the last frozen revision, b"" for none; sheets that are other than there are told.

    Raises:
        GoneError: there is no such pack.
        RuleError: one is being written for this project already.
    """
    pack = pack_in(project, pack_id)
    with _starting:
        if any(run.state == "running" for run in runs(project_id)):
            raise RuleError("A pack of this project is being written. Wait for it, or cancel it.")
        id = _ids.new()
        job = {
            "pack_id": pack_id,
            "name": pack.name,
            "revision": project.settings.revision,
            "by": by,
            "at": datetime.now(UTC).isoformat(timespec="seconds"),
            "fonts": str(settings.JOLLY.fonts),
            "stale": list(stale),
        }
        _begin(folder_of(project_id) / id, project, job, frozen)
    _clear(project_id)
    return id


def _begin(folder: Path, project: Project, job: dict[str, Any], frozen: bytes) -> None:
    """Put what a pack is written from into a new folder, and start the process that writes it."""
    folder.mkdir(parents=True)
    (folder / SNAPSHOT).write_text(write_project(project), encoding="utf-8")
    (folder / JOB).write_text(json.dumps(job, ensure_ascii=False), encoding="utf-8")
    if frozen:
        (folder / FROZEN).write_bytes(frozen)
    command = [sys.executable, "-m", "jolly_server.issuing.worker", str(folder)]
    with (folder / "log.txt").open("wb") as log:
        _running[folder.name] = subprocess.Popen(command, cwd=settings.BASE_DIR, stdout=log, stderr=log)


def runs(project_id: str) -> list[Run]:
    """Return the runs of a project, the youngest first."""
    return sorted(_all(project_id), key=lambda r: r.id, reverse=True)


def run_of(project_id: str, run_id: str) -> Run:
    """Return a run.

    Raises:
        GoneError: there is none of that id any more.
    """
    found = next((r for r in _all(project_id) if r.id == run_id), None)
    if found is None:
        raise GoneError("These papers are kept no more. Issue the pack again.", ids=(run_id,))
    return found


def cancel_run(project_id: str, run_id: str) -> None:
    """End a run that is not done; what it wrote so far is thrown away.

    Raises:
        GoneError: as `run_of`.
    """
    run = run_of(project_id, run_id)
    if run.state != "running":
        return
    process = _running.pop(run_id, None)
    if process is not None:
        process.kill()
        process.wait()
    folder = folder_of(project_id) / run_id
    (folder / PROGRESS).write_text(json.dumps({"state": "cancelled"}), encoding="utf-8")
    (folder / ZIP).unlink(missing_ok=True)


def end_runs() -> None:
    """End all runs of this process that are not done, as it ends itself; they are broken off."""
    for process in _running.values():
        process.kill()
        process.wait()
    _running.clear()


def zip_of(project_id: str, run_id: str) -> bytes:
    """Return the zip that a run wrote.

    Raises:
        GoneError: as `run_of`.
        RuleError: it is not done.
    """
    run = run_of(project_id, run_id)
    if run.state != "done":
        raise RuleError(f"This pack is {run.state}: there is nothing to take yet.")
    return (folder_of(project_id) / run_id / ZIP).read_bytes()


def _all(project_id: str) -> Iterator[Run]:
    folder = folder_of(project_id)
    for each in folder.iterdir() if folder.is_dir() else ():
        job = _read(each / JOB)
        if job:
            yield _run(each, job)


def _run(folder: Path, job: dict[str, Any]) -> Run:
    progress = _read(folder / PROGRESS)
    state = progress.get("state", "running")
    if state == "running" and not _alive(folder.name):
        # Its process may have ended between the two looks.
        progress = _read(folder / PROGRESS)
        state = progress.get("state", "broken off")
        state = "broken off" if state == "running" else state
    return Run(
        folder.name,
        job["pack_id"],
        job["name"],
        job["revision"],
        job["by"],
        job["at"],
        state,
        progress.get("done", 0),
        progress.get("count", 0),
        progress.get("doing", ""),
        progress.get("why", ""),
        progress.get("files", []),
        progress.get("findings", []),
    )


def _alive(run_id: str) -> bool:
    process = _running.get(run_id)
    if process is None:
        return False
    if process.poll() is None:
        return True
    _running.pop(run_id, None)
    return False


def _read(path: Path) -> dict[str, Any]:
    try:
        found: dict[str, Any] = json.loads(path.read_text(encoding="utf-8"))
    except (OSError, ValueError):
        return {}
    return found


def _clear(project_id: str) -> None:
    """Remove the oldest runs."""
    for run in runs(project_id)[KEPT:]:
        if run.state != "running":
            shutil.rmtree(folder_of(project_id) / run.id, ignore_errors=True)
