"""The work list as a file: printed for the bench and ticked by hand there, or read in an office program."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path

from jolly_core.comparing import Job
from jolly_core.model import Project, Recipe
from jolly_core.reports import Column, Cooked, Group, Row

from .lists import write_cooked

WORK_COLUMNS = (
    Column("place", "Place", 18),
    Column("do", "Do", 9),
    Column("what", "What", 18),
    Column("from", "From", 28),
    Column("to", "To", 18),
    Column("now_to", "Now to", 28),
    Column("type_or_part", "Type or part", 16),
    Column("done", "Done", 8),
)


def write_work_list(project: Project, jobs: Iterable[tuple[Job, str]], since: str, format: str, fonts: Path) -> bytes:
    """Return jobs in one of LIST_FORMATS, place by place as they are given.

    Args:
        jobs: each with who has done it, "" while nobody has.
        since: the state that was built, in words.
    """
    rows = [Row.of((j.place, j.act, j.what, j.start, j.end, j.now_to, j.kind, by)) for j, by in jobs]
    names = tuple(c.key for c in WORK_COLUMNS)
    cooked = Cooked("Work list", names, WORK_COLUMNS, [Group("", rows)], (), f"Since {since}", "all", breaks=False)
    if not rows:
        cooked.foot = ("There is nothing to do at the bench.",)
    return write_cooked(project, Recipe("work-list", cooked.title, "work-list", ()), cooked, format, fonts)
