"""What is kept of a derived value: the node with its value, what was read for it, and who reads it (see derived.py)."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable
from dataclasses import fields, is_dataclass
from functools import cache
from typing import Any

CLEAN, SUSPECT, STALE = range(3)


class Reads:
    """What a derived function has read so far.

    Attributes:
        nodes: other derived values in the order they were read, each with the turn of its value.
        cells: records, kinds and keys of indexes.
        sheets: sheets of which all that lies on them was read.
    """

    __slots__ = ("cells", "nodes", "sheets")

    def __init__(self) -> None:
        self.nodes: dict[Derivation, int] = {}
        self.cells: set[Hashable] = set()
        self.sheets: set[str] = set()

    def all_cells(self) -> set[Hashable]:
        """Return the cells, those of whole sheets with them."""
        return self.cells | {on_sheet(id) for id in self.sheets} if self.sheets else self.cells


def on_sheet(sheet_id: str) -> Hashable:
    """Return the cell of what lies on a sheet."""
    return "on", sheet_id


def same(one: Any, other: Any) -> bool:
    """Return whether two values say the same: equal, and dicts in the same order, which equality passes over.

    Dicts are looked at where they are the value, stand in it as a tuple's element, as a field of a dataclass or as the
    values of a dict.

    Example:
        >>> same({"a": 1, "b": 2}, {"b": 2, "a": 1}), same(({"a": 1},), ({"a": 1},))
        (False, True)
    """
    return one is other or (one == other and _in_same_order(one, other))


def _in_same_order(one: Any, other: Any) -> bool:
    """Return whether the dicts in two equal values have their entries in the same order."""
    kind: Any = type(one)
    if kind is dict:
        if list(one) != list(other):
            return False
        first = next(iter(one.values()), None)
        return type(first) is not dict or all(map(_in_same_order, one.values(), other.values()))
    if kind is tuple:
        return all(_in_same_order(a, b) for a, b in zip(one, other, strict=True) if type(a) is dict)
    return all(_in_same_order(getattr(one, name), getattr(other, name)) for name in _dict_fields(kind))


@cache
def _dict_fields(kind: type) -> tuple[str, ...]:
    """Return the fields of a dataclass that are dicts; of any other class none."""
    if not is_dataclass(kind):
        return ()
    return tuple(field.name for field in fields(kind) if str(field.type).startswith("dict"))


class Raised:
    """In place of a value: the error that working it out ended in. Equal errors are one."""

    __slots__ = ("error",)

    def __init__(self, error: Exception) -> None:
        error.__cause__ = error.__context__ = None
        self.error = error.with_traceback(None)

    def __eq__(self, other: object) -> bool:
        """Return whether both errors say the same."""
        if not isinstance(other, Raised):
            return False
        one, two = self.error, other.error
        return type(one) is type(two) and one.args == two.args and vars(one) == vars(two)

    __hash__ = None  # type: ignore[assignment]  # errors are compared, never looked up


class Derivation:
    """The value of a derived function for one key.

    Attributes:
        turn: changes whenever the value does; 0 while there is none.
        nodes, turns: the nodes that were read for it, in their order, and the turns of their values then.
        cells: the cells that were read for it.
        readers: the nodes that read it, but for its parts.
        parts: the nodes that are parts of its value, None when there are none.
        pick: gives the value of a part from that of its whole; None for what is no part.
    """

    __slots__ = (
        "cells",
        "function",
        "key",
        "name",
        "nodes",
        "parts",
        "pick",
        "readers",
        "state",
        "turn",
        "turns",
        "value",
    )

    def __init__(self, name: str, function: Callable[..., Any], key: tuple[Any, ...]) -> None:
        self.name = name
        self.function = function
        self.key = key
        self.value: Any = None
        self.turn = 0
        self.state = STALE
        self.nodes: tuple[Derivation, ...] = ()
        self.turns: tuple[int, ...] = ()
        self.cells: tuple[Hashable, ...] = ()
        self.readers: Readers = None
        self.parts: set[Derivation] | None = None
        self.pick: Callable[..., Any] | None = None


# There are very many nodes and most have few readers: none, one, some in a list, only many in a set.
Readers = Derivation | list[Derivation] | set[Derivation] | None
_MANY = 24
# What a node was: its state alone when no more than that has changed since, None for one that was not there.
_Saved = tuple[int, Any, int, tuple[Derivation, ...], tuple[int, ...], tuple[Hashable, ...]]
Log = dict[Derivation, _Saved | int | None]


def with_one(readers: Readers, node: Derivation) -> Readers:
    """Return readers with one more, that is not among them yet."""
    if readers is None:
        return node
    if isinstance(readers, Derivation):
        return [readers, node]
    if isinstance(readers, set):
        readers.add(node)
        return readers
    readers.append(node)
    return readers if len(readers) < _MANY else set(readers)


def without(readers: Readers, node: Derivation) -> Readers:
    """Return readers without one, None when none is left."""
    if readers is None or readers is node:
        return None
    if isinstance(readers, Derivation):
        return readers
    if isinstance(readers, set):
        readers.discard(node)
    elif node in readers:
        readers.remove(node)
    return readers or None


def each(readers: Readers) -> Iterable[Derivation]:
    """Return readers one by one."""
    return () if readers is None else (readers,) if isinstance(readers, Derivation) else readers
