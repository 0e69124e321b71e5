"""Which field of which kind names what, as the kinds declare it: file checks, undo and clean-up read it here."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from .kinds import Kind
from .registry import KINDS

# Kind -> field -> kind it names; an empty text names nothing.
REFERENCES: dict[str, dict[str, str]] = {
    kind: {field: mark.kind for field, mark in spec.names.items()} for kind, spec in KINDS.items() if spec.names
}


def users_of(kind: str) -> list[tuple[str, str]]:
    """Return (kind, field) of every field that may name an entity of a kind.

    Example:
        >>> users_of("rail")
        [('placing', 'rail_id')]
    """
    return [(user, field) for user, fields in REFERENCES.items() for field, target in fields.items() if target == kind]


def circles(spec: Kind, table: Mapping[str, Any]) -> Iterable[tuple[str, str]]:
    """Yield (id, field) where entities of one kind would name each other in a circle: one of each circle."""
    for field, mark in spec.names.items():
        if not mark.tree:
            continue
        good: set[str] = set()
        for start in sorted(table):
            way: list[str] = []
            id = start
            while id in table and id not in good and id not in way:
                way.append(id)
                id = getattr(table[id], field)
            if id in way:
                yield min(way[way.index(id) :]), field
            good.update(way)
