"""Checks of what is cut."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.making import longer_than_a_spool
from jolly_core.model import Project, length_words, listed, long_words
from jolly_core.tagging import device_at

from .registry import Snag, built, project_check

_longer_on_sheets = listed(longer_than_a_spool)


@project_check("wire-longer-than-spool", "A wire that is longer than a spool: it cannot be cut from one.")
def longer_than_spools(project: Project) -> Iterator[Snag]:
    """Yield an error for each wire that is cut longer than the project's spools."""
    spool = long_words(project, project.settings.spool_m)
    for d in _longer_on_sheets(project):
        device = device_at(project, d.conductor.start)
        wire = f"wire {d.number}".strip()
        message = (
            f"The {wire} from {d.start.name} to {d.end.name}"
            f" is {length_words(project, d.length_mm or 0.0)} long, and a spool holds {spool}."
            " Say a longer spool in the brief, or part the wire with a terminal."
        )
        bench = "harness" if d.runs == "harness" else "cabinet"
        yield built("wire-longer-than-spool", "error", message, bench, "", (), device.id if device else "")
