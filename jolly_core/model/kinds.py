"""The kinds of entity there are: `@kind` puts a dataclass among them, and everything else follows from its fields.

To add a kind, write a dataclass with `@kind` in a module of `entities/`; nothing needs to list it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Literal, TypeVar

from .fields import Field, Moves, Names, declared

E = TypeVar("E")


@dataclass(frozen=True, slots=True)
class Keyed:
    """An index over the entities of a kind.

    Attributes:
        by: the field it goes by, or what gives an entity's key.
        empty: whether entities with an empty key are in it, too.
    """

    name: str
    by: str | Callable[[Any], str]
    empty: bool = False


class Kind:
    """One kind of entity.

    Attributes:
        name: as files, change sets and messages call it.
        since: the version of the project file that first had it.
        keeps_device: its records keep a device (their `device_id`) in the project though nothing of it is drawn.
        comes_along: when a device is copied that its records belong to, they are copied, too.
        called: its name in a sentence, where that is another.
        seen: where drawings show its records: "nowhere", but by tags, numbers and cores that follow from them; "here",
            where they lie and at the devices they name; or maybe "anywhere".
        retired: fields that records in journals of earlier versions may still have; they are passed over.
    """

    def __init__(self, name: str, entity: type[Any], since: int, facts: Mapping[str, Any]) -> None:
        self.name, self.entity, self.since = name, entity, since
        self.keeps_device: bool = facts.get("keeps_device", False)
        self.comes_along: bool = facts.get("comes_along", False)
        self.called: str = facts.get("called", "")
        self.seen: Literal["nowhere", "here", "anywhere"] = facts.get("seen", "anywhere")
        self.retired: frozenset[str] = frozenset(facts.get("retired", ()))
        self.indexes: tuple[Keyed, ...] = facts.get("indexes", ())

    @cached_property
    def fields(self) -> dict[str, Field]:
        """The fields with what is declared about them, in order."""
        return declared(self.entity)

    @cached_property
    def words(self) -> str:
        """The name as a sentence says it."""
        return self.called or self.name.replace("_", " ")

    @cached_property
    def names(self) -> dict[str, Names]:
        """The fields that name other entities."""
        return {f.name: m for f in self.fields.values() for m in f.marks if isinstance(m, Names)}

    @cached_property
    def on_sheet(self) -> bool:
        """Whether its entities lie on a sheet, the one their `sheet_id` names."""
        return "sheet_id" in self.fields

    @cached_property
    def lockable(self) -> bool:
        """Whether its entities can be locked."""
        return "locked" in self.fields

    @cached_property
    def across(self) -> tuple[str, ...]:
        """The fields that are places on a sheet from left to right."""
        return self._moving("x")

    @cached_property
    def down(self) -> tuple[str, ...]:
        """The fields that are places on a sheet from top to bottom."""
        return self._moving("y")

    def _moving(self, axis: str) -> tuple[str, ...]:
        return tuple(f.name for f in self.fields.values() if (m := f.mark(Moves)) is not None and m.axis == axis)


_kinds: dict[str, Kind] = {}
_by_entity: dict[type[Any], Kind] = {}


def kind(name: str, *, since: int, **facts: Any) -> Callable[[type[E]], type[E]]:
    """Make a dataclass a kind of entity; see `Kind` for what may be said of it.

    Raises:
        RuntimeError: there is already a kind of this name.
    """

    def register(entity: type[E]) -> type[E]:
        if name in _kinds:
            raise RuntimeError(f"{entity.__name__} and {_kinds[name].entity.__name__} both claim “{name}”.")
        _kinds[name] = _by_entity[entity] = Kind(name, entity, since, facts)
        return entity

    return register


def kind_of(entity: Any) -> Kind:
    """Return the kind of an entity or of its class."""
    return _by_entity[entity if isinstance(entity, type) else type(entity)]


def in_order() -> dict[str, Kind]:
    """Return the kinds by name: what is named before what names it, else by name."""
    left, found = dict(sorted(_kinds.items())), dict[str, Kind]()
    while left:
        ready = next(
            name for name, k in left.items() if not any(n.kind in left and n.kind != name for n in k.names.values())
        )
        found[ready] = left.pop(ready)
    return found


def shifted(entity: E, dx: int, dy: int, **changes: Any) -> E:
    """Return an entity moved on its sheet, grid steps, with other changes."""
    spec = kind_of(entity)
    places = {n: getattr(entity, n) + dx for n in spec.across} | {n: getattr(entity, n) + dy for n in spec.down}
    moved: Any = entity
    result: E = replace(moved, **places, **changes)
    return result


def places_of(entity: Any) -> Iterator[tuple[int, int]]:
    """Yield the grid points an entity on a sheet says it is at."""
    spec = kind_of(entity)
    for x, y in zip(spec.across, spec.down, strict=True):
        yield getattr(entity, x), getattr(entity, y)


def moved_where(entity: E, moves: Callable[[int, int], bool], dx: int, dy: int) -> E:
    """Return an entity with those of its grid points moved that should, itself when none should."""
    spec, places = kind_of(entity), dict[str, Any]()
    for x, y in zip(spec.across, spec.down, strict=True):
        at = getattr(entity, x), getattr(entity, y)
        if moves(*at):
            places |= {x: at[0] + dx, y: at[1] + dy}
    changed: Any = entity
    result: E = replace(changed, **places) if places else entity
    return result
