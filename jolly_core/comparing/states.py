"""What is looked at of two states of a project, worked out on one of them, so that most of it is worked out once."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from jolly_core.model import ChangeSet, Project, changes_to
from jolly_core.scenes import Item, made, scene_of, sheet_look
from jolly_core.wiring import wire_numbers

from .concern import sheets_concerned
from .sights import sights
from .thing import KINDS, NOTHING_ELSE, Same, Sights

APART = 4  # states of which more than one record in so many differs are worked out each by itself
SHOWN = ("device", "terminal")  # of which drawings show what is worked out from much else
Drawing = dict[str, Item]
Numbers = dict[str, dict[int, str]]


@dataclass(slots=True, frozen=True)
class State:
    """A state of a project: what people see of it, and its drawings.

    Attributes:
        sights: by kind and key.
        drawings: the items of the drawings that may look otherwise in the other state, by the ids of their sheets.
    """

    sights: Sights
    drawings: dict[str, Drawing]


def both_states(before: Project, after: Project, same: Same, *, things: bool = True) -> tuple[State, State]:
    """Return two states, an earlier and a later one.

    The later project is made the earlier one for a moment, as for a preview: nobody else may use it meanwhile.

    Args:
        things: whether all that people see is wanted, or only the drawings.
    """
    kinds = KINDS if things else SHOWN
    now, changes = sights(after, same, kinds), changes_to(after, before)
    if len(changes) * APART > sum(map(len, after.tables.values())):
        was = sights(before, NOTHING_ELSE, kinds)
        looks = _looks(before, set(before.sheets)), _looks(after, set(after.sheets))
        pairs = _other(_pairs(before, after, same), looks)
        old = _drawings(before, {one for one, _ in pairs})
    else:
        numbers = _numbers(after)
        with _become(after, changes):
            was = sights(after, NOTHING_ELSE, kinds)
            concerned = _concerned(after, changes, (was, now), numbers)
            looks_were = _looks(after, concerned)
        pairs = [p for p in _pairs(before, after, same) if concerned & {*p}]
        pairs = _other(pairs, (looks_were, _looks(after, concerned)))
        with _become(after, changes):
            old = _drawings(after, {one for one, _ in pairs})
    return State(was, old), State(now, _drawings(after, {other for _, other in pairs}))


@contextmanager
def _become(project: Project, changes: ChangeSet) -> Iterator[None]:
    """Make a project what changes make it, for a moment."""
    with project.trial() as total:
        project.commit(total, changes)
        yield


def _pairs(before: Project, after: Project, same: Same) -> list[tuple[str, str]]:
    """Return the sheets by their ids in both states, "" where one is not there."""
    earlier = set(before.sheets)
    found = []
    for id in after.sheets:
        was = same.sheet(id)
        found.append((was if was in earlier else "", id))
        earlier.discard(was)
    return found + [(id, "") for id in earlier]


def _concerned(project: Project, changes: ChangeSet, both: tuple[Sights, Sights], numbers: Numbers) -> set[str]:
    """Return the sheets of both states that may look otherwise; the project is in the earlier one."""
    devices = set()
    for kind in SHOWN:
        one, other = both[0][kind], both[1][kind]
        keys = (key for key in one.keys() | other if one.get(key) is not other.get(key))
        devices |= {key.partition(":")[0] for key in keys if one.get(key) != other.get(key)}
    found = sheets_concerned(project, changes, devices)
    if found is None:
        return {*project.sheets, *numbers}
    earlier = _numbers(project)
    made_here = {id for id in project.sheets if made(project, id)}
    return found | made_here | {id for id in earlier.keys() | numbers if earlier.get(id) != numbers.get(id)}


def _numbers(project: Project) -> Numbers:
    return {id: wire_numbers(project, id) for id in project.sheets}


def _looks(project: Project, ids: set[str]) -> dict[str, int]:
    """Return a number for each drawing, as `sheet_look` gives it; sheets made from the project are not among them."""
    return {id: sheet_look(project, id) for id in ids if id in project.sheets and not made(project, id)}


def _other(pairs: list[tuple[str, str]], looks: tuple[dict[str, int], dict[str, int]]) -> list[tuple[str, str]]:
    """Return the pairs of sheets that do not look the same."""
    return [(a, b) for a, b in pairs if looks[0].get(a) is None or looks[0][a] != looks[1].get(b)]


def _drawings(project: Project, ids: set[str]) -> dict[str, Drawing]:
    """Return the items of drawings."""
    return {id: drawing(project, id) for id in ids if id in project.sheets}


def drawing(project: Project, id: str) -> Drawing:
    """Return the items of a sheet as it is drawn, or of all leaves of one that is made from the project."""
    return scene_of(project, id).items
