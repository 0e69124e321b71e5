"""Long work on a loaded project in short turns, so that nobody who edits it waits for all of it."""

from __future__ import annotations

import gc
import time
from collections.abc import Callable, Iterator
from functools import partial
from typing import Any, TypeVar

from jolly_core.checks import project_snags, snags_on
from jolly_core.making import dossiers_from
from jolly_core.model import Project, uncollected

from .store import Loaded, loaded

T = TypeVar("T")

TURN_S = 0.03
# Whoever lets go of a lock and takes it again at once is before all who wait for it: they need so long to wake up.
BREATH_S = 0.001
TRIES = 3
# Who goes from sheet to sheet, or waits for a list, is not kept from it by what only counts, though not for ever.
LOOKING_S = 0.25
PATIENCE_S = 60.0
_waited_for: list[int] = []  # an entry for each piece of work that somebody waits for


def by_sheet(
    held: Loaded,
    work: Callable[[Project, str], T],
    last: Callable[[Project], T] | None = None,
    pause_s: float = BREATH_S,
    patience_s: float = 0.0,
    *,
    before: Callable[[Project, str], object] | None = None,
) -> list[T] | None:
    """Do a piece of work for each sheet, in their order, and let others have the project in between.

    Args:
        held: the project.
        work: is given the id of a sheet.
        last: is done when all sheets are.
        pause_s: how long others have the project, and the interpreter, between two turns.
        patience_s: how long in all it lets others go first before it goes on, s: who opens sheets, and work that
            somebody waits for, which is all without patience.
        before: is done for all sheets before that, and what it gives is forgotten.

    Returns:
        What each gave; None when the project was changed meanwhile, so that it would not be of one state.
    """
    if patience_s:
        return _by_sheet(held, work, last, pause_s, patience_s, before)
    _waited_for.append(1)
    try:
        return _by_sheet(held, work, last, pause_s, patience_s, before)
    finally:
        _waited_for.pop()


def _by_sheet(
    held: Loaded,
    work: Callable[[Project, str], T],
    last: Callable[[Project], T] | None,
    pause_s: float,
    patience_s: float,
    before: Callable[[Project, str], object] | None,
) -> list[T] | None:
    with held.lock:
        revision, sheets = held.revision, [s.id for s in held.project.sheets_in_order()]
    first: list[Callable[[Project], Any]] = [partial(_on, before, id) for id in sheets] if before else []
    works: list[Callable[[Project], T]] = [partial(_on, work, id) for id in sheets]
    waiting = iter([*first, *works, *([last] if last is not None else [])])
    done: list[T] = []
    going_on, until = True, time.monotonic() + patience_s
    while going_on:
        with held.lock:
            if held.revision != revision:
                return None
            going_on = _turn(held.project, waiting, done)
        if going_on:
            time.sleep(pause_s)
            while (now := time.monotonic()) < until and (_waited_for or now < held.opened_at + LOOKING_S):
                time.sleep(LOOKING_S / 5)
    if gc.isenabled():
        gc.freeze()  # what was worked out stays for long: the collector need not look through it again and again
    return done[len(first) :]


def _on(work: Callable[[Project, str], T], sheet_id: str, project: Project) -> T:
    return work(project, sheet_id)


@uncollected
def _turn(project: Project, waiting: Iterator[Callable[[Project], T]], done: list[T]) -> bool:
    """Do what waits until the turn is over; return whether it was before all was done."""
    end = time.perf_counter() + TURN_S
    for work in waiting:
        done.append(work(project))
        if time.perf_counter() > end:
            return True
    return False


def prepared(project_id: str) -> Loaded:
    """Return a loaded project with what lists and benches stand on worked out: little is left to do at once then.

    While others change it, what is known by then stays known, and the rest is left to the caller after some tries.

    Raises:
        GoneError: there is no such project.
    """
    held = loaded(project_id)
    for _ in range(TRIES):
        if by_sheet(held, dossiers_from) is not None:
            break
    return held


def count_snags(held: Loaded, pause_s: float = BREATH_S, patience_s: float = 0.0) -> int | None:
    """Return how many snags the whole project has that nobody muted; None when it was changed meanwhile.

    Notes:
        What is known of the wires comes first, on all sheets: the checks of the whole project stand on it, and so do
        the lists, which a person who has just opened the project may ask for next.
    """
    found = by_sheet(held, _count_on, _count_of_whole, pause_s, patience_s, before=dossiers_from)
    return None if found is None else sum(found)


def _count_on(project: Project, sheet_id: str) -> int:
    return sum(not snag.cause for snag in snags_on(project, sheet_id))


def _count_of_whole(project: Project) -> int:
    return len(project_snags(project))
