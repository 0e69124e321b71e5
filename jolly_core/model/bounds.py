"""What a stored project holds beyond the bounds of its fields, put right while it is loaded.

Bounds came after the first projects, so that a stored number may be one that no edit would take today; with it a sheet
of a hundred million columns would be worked out. What was put right is kept with the reason, for a snag.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from functools import cache
from operator import attrgetter
from typing import Any

from .fields import Longest, OneOf, Within, Written
from .kinds import Kind
from .records import within_bounds
from .references import circles

Faults = dict[str, dict[str, str]]  # id -> field -> what was wrong


def put_right(spec: Kind, entities: list[Any]) -> tuple[list[Any], Faults]:
    """Return entities of one kind as they may be, and what was wrong with those that had to be changed.

    Notes:
        Most projects have nothing of the kind, so whole columns are looked at first. Long texts stay as they are.
    """
    faults: Faults = {}
    if any(breaks(list(map(read, entities))) for read, breaks in _columns(spec)) and entities:
        good = []
        for entity in entities:
            entity, wrong = within_bounds(entity)
            good.append(entity)
            if wrong:
                faults[entity.id] = wrong
        entities = good
    if any(mark.tree for mark in spec.names.values()):
        table = {e.id: e for e in entities}
        for id, field in circles(spec, table):
            empty: dict[str, Any] = {field: ""}
            table[id] = replace(table[id], **empty)
            faults.setdefault(id, {})[field] = f"would name a {spec.words} that is inside it"
        entities = list(table.values())
    return entities, faults


_Column = tuple[Callable[[Any], Any], Callable[[Sequence[Any]], bool]]


@cache
def _columns(spec: Kind) -> list[_Column]:
    """Return what reads each bounded field, and what says whether any of its values breaks the bound."""
    return [
        (attrgetter(field.name), breaks)
        for field in spec.fields.values()
        for mark in field.marks
        if (breaks := _breaking(field.type, mark)) is not None
    ]


def _breaking(of: Any, mark: Any) -> Callable[[Sequence[Any]], bool] | None:
    if isinstance(mark, Within):
        low, high = mark.low, mark.high
        return lambda values: not (min(values, default=low) >= low and max(values, default=high) <= high)
    if isinstance(mark, OneOf):
        words = frozenset(mark.words)
        return lambda values: not words.issuperset(values)
    if isinstance(mark, Written):
        return lambda values: any(mark.fault(v) for v in set(values))
    if isinstance(mark, Longest) and of is not str and of != dict[str, str]:
        most = mark.most
        return lambda values: max(map(len, values), default=0) > most
    return None
