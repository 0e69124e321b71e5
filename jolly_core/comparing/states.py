"""What is looked at of two states of a project, worked out on one of them, so that most of it is worked out once."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.model import Project, changes_to
from jolly_core.scenes import made, sheet_look

from .sights import NOTHING_ELSE, Same, Sights, sights

APART = 4  # states of which more than one record in so many differs are worked out each by itself


@dataclass(slots=True, frozen=True)
class State:
    """A state of a project: what people see of it, and how its drawings look.

    Attributes:
        sights: by kind and key; empty when only the drawings are asked for.
        looks: a number for each drawing, as `sheet_look` gives it; sheets made from the project are not among them.
    """

    sights: Sights
    looks: dict[str, int]


def both_states(before: Project, after: Project, same: Same, *, things: bool = True) -> tuple[State, State]:
    """Return two states, an earlier and a later one.

    The later project is made the earlier one for a moment, as for a preview: nobody else may use it meanwhile.

    Args:
        things: whether what people see is wanted, too, beside the looks.
    """
    now = _state(after, same, things)
    changes = changes_to(after, before)
    if len(changes) * APART > sum(map(len, after.tables.values())):
        return _state(before, NOTHING_ELSE, things), now
    with after.trial() as total:
        after.commit(total, changes)
        return _state(after, NOTHING_ELSE, things), now


def _state(project: Project, same: Same, things: bool) -> State:
    drawn = [s.id for s in project.sheets_in_order() if not made(project, s.id)]
    return State(sights(project, same) if things else {}, {id: sheet_look(project, id) for id in drawn})
