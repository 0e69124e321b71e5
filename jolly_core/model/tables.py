"""Tables of entities and indexes over them; both note what a derived value reads of them (see derived.py)."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Iterator
from typing import TYPE_CHECKING, Any, TypeVar, overload

from .derived import Memo

if TYPE_CHECKING:
    from _collections_abc import dict_items, dict_keys, dict_values

E = TypeVar("E")
D = TypeVar("D")

_item, _get, _has, _len = dict.__getitem__, dict.get, dict.__contains__, dict.__len__
_iter, _keys, _values, _items = dict.__iter__, dict.keys, dict.values, dict.items


class Table(dict[str, E]):
    """The entities of one kind by id.

    Attributes:
        kind: the kind's name, the cell of all of them.
        drawn: whether they lie on sheets; one of a sheet that was read as a whole is not noted again.
    """

    __slots__ = ("drawn", "kind", "memo")

    def __init__(self, kind: str, memo: Memo, drawn: bool) -> None:
        self.kind = kind
        self.memo = memo
        self.drawn = drawn

    def __getitem__(self, id: str) -> E:
        reads = self.memo.reads
        if reads is None:
            return _item(self, id)
        record: Any = _get(self, id)
        if not self.drawn or record is None or record.sheet_id not in reads.sheets:
            reads.cells.add(id)
        found: E = _item(self, id) if record is None else record
        return found

    @overload
    def get(self, id: str, default: None = None, /) -> E | None: ...
    @overload
    def get(self, id: str, default: E, /) -> E: ...
    @overload
    def get(self, id: str, default: D, /) -> E | D: ...
    def get(self, id: str, default: Any = None, /) -> Any:
        """Return a record, `default` when there is none of that id."""
        reads = self.memo.reads
        record: Any = _get(self, id)
        if reads is not None and id and (not self.drawn or record is None or record.sheet_id not in reads.sheets):
            reads.cells.add(id)
        return default if record is None else record

    def __contains__(self, id: object) -> bool:
        reads = self.memo.reads
        if reads is not None:
            reads.cells.add(id)
        return _has(self, id)

    def __setitem__(self, id: str, record: E) -> None:
        """Put a record past the project: for what is loaded, and for tests; indexes are not kept."""
        dict.__setitem__(self, id, record)
        self.memo.fire((id, self.kind))

    def __len__(self) -> int:
        self._noted()
        return _len(self)

    def __bool__(self) -> bool:
        self._noted()
        return _len(self) > 0

    def __iter__(self) -> Iterator[str]:
        self._noted()
        return _iter(self)

    def all_of(self, ids: list[str]) -> list[E]:
        """Return the records of ids; what told the ids has noted that they are read."""
        return list(map(_item, itertools.repeat(self), ids))

    def keys(self) -> dict_keys[str, E]:
        """Return all ids."""
        self._noted()
        return _keys(self)

    def values(self) -> dict_values[str, E]:
        """Return all records."""
        self._noted()
        return _values(self)

    def items(self) -> dict_items[str, E]:
        """Return all ids with their records."""
        self._noted()
        return _items(self)

    def _noted(self) -> None:
        reads = self.memo.reads
        if reads is not None:
            reads.cells.add(self.kind)


class Index:
    """A one-to-many index from a key to the ids that have it, in the order of their ids.

    Attributes:
        name: what its cells are called; "" for the index of what lies on sheets, whose cells are the sheets'.
    """

    __slots__ = ("_ids", "_sorted", "memo", "name")

    def __init__(self, name: str, memo: Memo) -> None:
        self.name = name
        self.memo = memo
        self._ids: dict[str, dict[str, None]] = {}
        self._sorted: dict[str, list[str]] = {}  # as they were last asked for, until one comes or goes

    def add(self, key: str, id: str) -> None:
        """Put an id under a key."""
        self._ids.setdefault(key, {})[id] = None
        self._sorted.pop(key, None)

    def discard(self, key: str, id: str) -> None:
        """Take an id from a key; an absent one is no error."""
        ids = self._ids.get(key)
        if ids is not None:
            self._sorted.pop(key, None)
            ids.pop(id, None)
            if not ids:
                del self._ids[key]

    def get(self, key: str) -> list[str]:
        """Return the ids under a key, sorted."""
        self._noted(key)
        known = self._sorted.get(key)
        if known is None:
            ids = self._ids.get(key)
            if ids is None:
                return []
            known = self._sorted[key] = sorted(ids)
        return known.copy()

    def has(self, key: str) -> bool:
        """Return whether any id is under a key."""
        self._noted(key)
        return key in self._ids

    def _noted(self, key: str) -> None:
        reads = self.memo.reads
        if reads is None:
            return
        if self.name:
            reads.cells.add((self.name, key))
        else:
            reads.sheets.add(key)

    def keys(self) -> Iterable[str]:
        """Return the keys that have at least one id."""
        if self.memo.reads is not None:
            self.memo.reads.cells.add(self.name)
        return self._ids.keys()

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Index) and {k: set(v) for k, v in self._ids.items()} == {
            k: set(v) for k, v in other._ids.items()
        }
