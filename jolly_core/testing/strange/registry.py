"""The acts at random that there are, by the room whose edits they try; one registry for all that generates projects."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from jolly_core.terminals import strips

from .. import Workbench

Attempt = Callable[[Workbench, int, int, int, int, int], None]
ACTS: dict[str, dict[str, Attempt]] = {}


def act(room: str, *names: str) -> Callable[[Attempt], Attempt]:
    """Register an act at random of a room under its names.

    An act gets a bench and five numbers: two to choose things by (from 0 to 10,000), one of few (from 0 to 9), and two
    for places (from -20 to 800). What it tries may be refused.
    """

    def register(function: Attempt) -> Attempt:
        ACTS.setdefault(room, {}).update(dict.fromkeys(names, function))
        return function

    return register


def one(values: Any, number: int) -> Any:
    """Return one of some sorted values, "" when there are none."""
    found = sorted(values)
    return found[number % len(found)] if found else ""


def a_strip(b: Workbench, i: int) -> str:
    """Return the id of one of the strips."""
    return str(one([d.id for d in strips(b.project)], i))


def a_cable(b: Workbench, i: int) -> str:
    """Return the id of the device of one of the cables."""
    return str(one({c.device_id for c in b.project.cables.values()}, i))


def a_card(b: Workbench, i: int) -> str:
    """Return the id of the device of one of the cards."""
    return str(one({c.device_id for c in b.project.cards.values()}, i))


def a_harness(b: Workbench, k: int) -> str:
    """Return the id of one of the harnesses."""
    return str(one(b.project.harnesses, k))


NamedAttempt = tuple[str, str]  # room and name of an act


def acts_of(*rooms: str) -> list[NamedAttempt]:
    """Return the acts of some rooms, of all when none is named, in order."""
    return [(room, name) for room in sorted(rooms or ACTS) for name in sorted(ACTS[room])]


def perform_act(b: Workbench, named: NamedAttempt, *numbers: int) -> None:
    """Do an act at random.

    Raises:
        CoreError, ValidationError: it is refused.
    """
    room, name = named
    ACTS[room][name](b, *numbers)
