"""The demo's projects kept in memory from test to test, taken back to what the seed gave.

What is worked out of them (nets, numbers, snags, drawings) stays as far as it is still true, as after any step back. To
load them and work all of it out anew takes longer than most tests.
"""

from __future__ import annotations

from collections.abc import Iterable

from jolly_core.model import Project, changes_to, copied
from jolly_server.projects.store import Here, forget, held_ids, loaded
from jolly_server.projects.versions import Versions

_first: dict[str, Project] = {}


def as_seeded(ids: Iterable[str]) -> None:
    """Make projects in memory what they were when they were seeded, and forget all others.

    Args:
        ids: projects that have just been seeded, the same in every test.
    """
    kept = set(ids)
    for id in held_ids() - kept:
        forget(id)
    for id in kept:
        if id not in _first:
            forget(id)  # whatever it was before it was seeded
        held = loaded(id, 0)  # the stored revision may be lower than the one in memory: nothing is caught up with
        with held.lock:
            if id in _first:
                held.project.apply(changes_to(held.project, _first[id]))
            else:
                _first[id] = copied(held.project)
            held.revision, held.shown, held.here, held.opened_at = 0, Versions(), Here(), float("-inf")
