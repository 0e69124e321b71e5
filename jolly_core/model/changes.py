"""What an edit did: for every entity touched, its record before and after."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

Entity = Any  # one of the dataclasses in KINDS; a union would only repeat that table


@dataclass(slots=True, frozen=True)
class Change:
    """One entity added (before is None), removed (after is None) or replaced."""

    kind: str
    id: str
    before: Entity | None
    after: Entity | None

    def inverse(self) -> Change:
        """Return the change that takes this one back."""
        return Change(self.kind, self.id, self.after, self.before)


class ChangeSet:
    """The changes of one edit, at most one for each entity, none without effect.

    Recording an entity twice keeps the first `before` and the last `after`.
    """

    __slots__ = ("_changes",)

    def __init__(self, changes: Iterable[Change] = ()) -> None:
        self._changes: dict[tuple[str, str], Change] = {}
        for change in changes:
            self.record(change.kind, change.id, change.before, change.after)

    def record(self, kind: str, id: str, before: Entity | None, after: Entity | None) -> None:
        """Add a change, folding it into an earlier one of the same entity."""
        known = self._changes.get((kind, id))
        first = known.before if known is not None else before
        if first == after:
            self._changes.pop((kind, id), None)
        else:
            self._changes[(kind, id)] = Change(kind, id, first, after)

    def inverse(self) -> ChangeSet:
        """Return the change set that takes this one back, in reverse order."""
        return ChangeSet(change.inverse() for change in reversed(list(self)))

    def __iter__(self) -> Iterator[Change]:
        return iter(self._changes.values())

    def __len__(self) -> int:
        return len(self._changes)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, ChangeSet) and self._changes == other._changes
