"""A fault planted on trial: the project is changed, asked for its snags, and the same again.

To add a kind of fault, write a function that yields the places where it can be made, each with what makes it there, and
decorate it: its key, what it is in words, how much harm it does, and the codes of the snags that may tell it.
"""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from typing import Any

from jolly_core.checks import Snag, all_snags
from jolly_core.drawing import pin_points, place_in
from jolly_core.edits import parse_edit, perform
from jolly_core.library import Library, NoLibrary
from jolly_core.model import ChangeSet, Continuation, CoreError, Entity, IdSource, Project, Symbol, Wire
from jolly_core.tagging import called_on
from jolly_core.wiring import PinKey

HARMS = ("fire or shock", "unmeant motion", "standstill", "rework")  # the worst first
_FREE_X, _FREE_Y, _LEAD = 20, 23, 4  # where what a fault brings with it is drawn, beyond all that is there


class Trial:
    """A project while a fault is in it."""

    def __init__(self, project: Project, total: ChangeSet, library: Library) -> None:
        self.project, self._total, self._library = project, total, library
        self._ids = IdSource(start_ms=1 << 40)
        self._marks = 0

    def do(self, kind: str, **values: Any) -> list[str]:
        """Do an edit; return what it placed."""
        outcome = perform(self.project, parse_edit({"kind": kind, **values}), ids=self._ids, library=self._library)
        for c in outcome.changes:
            self._total.record(c.kind, c.id, c.before, c.after)
        return list(outcome.placed)

    def put(self, kind: str, entity: Entity) -> None:
        """Put a record in, or in the place of the one of its id, past all that an edit would ask."""
        changes = ChangeSet()
        changes.record(kind, entity.id, self.project.tables[kind].get(entity.id), entity)
        self.project.commit(self._total, changes)

    def drop(self, kind: str, id: str) -> None:
        """Take a record out."""
        changes = ChangeSet()
        changes.record(kind, id, self.project.tables[kind][id], None)
        self.project.commit(self._total, changes)

    def drop_all(self, kind: str, ids: Iterable[str]) -> None:
        """Take records out."""
        for id in ids:
            self.drop(kind, id)

    def change(self, kind: str, id: str, **values: Any) -> None:
        """Give a record other values."""
        self.put(kind, replace(self.project.tables[kind][id], **values))

    def delete(self, *ids: str) -> None:
        """Delete drawn things as people do: gaps in line heal."""
        self.do("delete-selection", ids=list(ids))

    def point(self, pin: PinKey) -> tuple[str, int, int]:
        """Return the sheet and point of a pin."""
        symbol = self.project.symbols[pin[0]]
        return symbol.sheet_id, *pin_points(symbol)[pin[1]]

    def join(self, *places: PinKey | tuple[str, int, int]) -> None:
        """Join pins or points, wherever they are, as by a wire."""
        self._marks += 1
        for place in places:
            sheet_id, x, y = self.point(place) if len(place) == 2 else place
            self.put("continuation", Continuation(self._ids.new(), sheet_id, x, y, f"~{self._marks}"))

    def cut(self, pin: PinKey) -> list[tuple[str, int, int]]:
        """Take the wires off a pin; return where their other ends are.

        Raises:
            CoreError: there is none.
        """
        sheet_id, x, y = self.point(pin)
        wires = wires_at(self.project, sheet_id, x, y)
        if not wires:
            raise CoreError("There is no wire at this pin.")
        for wire in wires:
            self.drop("wire", wire.id)
        return [(sheet_id, *((w.x2, w.y2) if (w.x1, w.y1) == (x, y) else (w.x1, w.y1))) for w in wires]

    def move(self, pin: PinKey, *others: PinKey) -> None:
        """Take a pin off its wires and join it with other pins."""
        self.cut(pin)
        self.join(pin, *others)

    def exchange(self, one: PinKey, other: PinKey) -> None:
        """Change the wires of two pins over."""
        far, beyond = self.cut(one), self.cut(other)
        self.join(*far, other)
        self.join(*beyond, one)

    def between(self, pin: PinKey, definition: str, **values: Any) -> str:
        """Take the wires off a pin and lead them through a new symbol to it; return that."""
        sheet_id, x, y = self.point(pin)
        type_id = next((w.type_id for w in wires_at(self.project, sheet_id, x, y)), "")
        ends = self.cut(pin)
        symbol = self.beside(pin, definition, **values)
        self.join(*ends, self._led_out(symbol, 0, type_id))
        self.join(self._led_out(symbol, 1, type_id), pin)
        return symbol

    def _led_out(self, symbol: str, pin: int, type_id: str) -> tuple[str, int, int]:
        """Draw a short wire out of a pin of a symbol with two, away from the other pin; return its far end."""
        sheet_id, x, y = self.point((symbol, pin))
        _, ox, oy = self.point((symbol, 1 - pin))
        far = (x + _LEAD * _sign(x - ox), y + _LEAD * _sign(y - oy))
        (ax, ay), (bx, by) = sorted(((x, y), far))
        self.put("wire", Wire(self._ids.new(), sheet_id, ax, ay, bx, by, type_id))
        return sheet_id, *far

    def beside(self, pin: PinKey, definition: str, **values: Any) -> str:
        """Draw a symbol where nothing else is; return it."""
        ids = [s.id for s in self.project.sheets_in_order() if s.frame == "zones" and s.kind == "schematic"]
        sheet_id = next(iter(ids), self.point(pin)[0])
        drawn = [pin_points(s) for s in self.project.symbols_on(sheet_id)]
        y = max((y for points in drawn for _, y in points), default=0) + _FREE_Y
        sheet = self.project.sheets[sheet_id]
        x = sheet.rail_right + _FREE_X if sheet.frame == "ladder" else _FREE_X  # between the rails a rung is drawn
        (symbol, *_) = self.do("place-symbol", sheet_id=sheet_id, definition=definition, x=x, y=y, **values)
        return symbol


def step(method: Callable[..., object], *values: Any, **named: Any) -> Callable[[Trial], object]:
    """Return what does one thing in a trial."""
    return lambda trial: method(trial, *values, **named)


def _sign(number: int) -> int:
    return (number > 0) - (number < 0)


def wires_at(project: Project, sheet_id: str, x: int, y: int) -> list[Wire]:
    """Return the wires that end at a point."""
    return [w for w in project.wires_on(sheet_id) if (x, y) in ((w.x1, w.y1), (w.x2, w.y2))]


@dataclass(slots=True, frozen=True)
class FaultPlace:
    """A place where a fault can be made.

    Attributes:
        at: the symbol or wire it is made at, and others that a snag of it may name.
        make: what makes it.
    """

    at: tuple[str, ...]
    make: Callable[[Trial], object]


@dataclass(slots=True, frozen=True)
class FaultKind:
    """A kind of fault.

    Attributes:
        words: what was done.
        harm: one of HARMS.
        codes: of the snags that tell it rightly.
        spots: where it can be made.
    """

    key: str
    words: str
    harm: str
    codes: frozenset[str]
    spots: Callable[[Project], Iterator[FaultPlace]]


@dataclass(slots=True, frozen=True)
class PlantedFault:
    """A fault that was planted, and the snags that came by it."""

    kind: FaultKind
    spot: FaultPlace
    snags: tuple[Snag, ...]

    @property
    def is_told(self) -> bool:
        """Whether a snag of the right sort came."""
        return any(s.code in self.kind.codes for s in self.snags)


FAULTS: dict[str, FaultKind] = {}


def fault(
    key: str, words: str, harm: str, *codes: str
) -> Callable[[Callable[[Project], Iterator[FaultPlace]]], Callable[[Project], Iterator[FaultPlace]]]:
    """Register a kind of fault.

    Raises:
        RuntimeError: two kinds claim one key, or its harm is none of HARMS.
    """

    def register(spots: Callable[[Project], Iterator[FaultPlace]]) -> Callable[[Project], Iterator[FaultPlace]]:
        if key in FAULTS or harm not in HARMS:
            raise RuntimeError(f"The fault “{key}” is there twice, or its harm “{harm}” is unknown.")
        FAULTS[key] = FaultKind(key, words, harm, frozenset(codes), spots)
        return spots

    return register


def plant(project: Project, kind: FaultKind, spot: FaultPlace, library: Library | None = None) -> PlantedFault | None:
    """Return what is told of a fault at a place; None where it cannot be made there. The project is the same again."""
    before = Counter((s.code, s.ids, s.message) for s in all_snags(project))
    with project.trial() as total:
        try:
            spot.make(Trial(project, total, library or NoLibrary()))
        except CoreError:
            return None
        after = list(all_snags(project))
    return PlantedFault(kind, spot, tuple(s for s in after if (s.code, s.ids, s.message) not in before))


def told_of(project: Project, kind: FaultKind, chance: random.Random, most: int) -> list[PlantedFault]:
    """Return faults of one kind planted at so many places of a project at most, taken by chance."""
    spots = list(kind.spots(project))
    chance.shuffle(spots)
    found: list[PlantedFault] = []
    for spot in spots:
        if len(found) >= most:
            break
        planted = plant(project, kind, spot)
        if planted is not None:
            found.append(planted)
    return found


@dataclass(slots=True, frozen=True)
class Unseen:
    """A fault that nothing would tell.

    Attributes:
        words, harm: of its kind.
        name, place: of what it was made at.
        symbol_id, sheet_id: to go there; empty where it is no symbol.
    """

    words: str
    harm: str
    name: str
    place: str
    symbol_id: str
    sheet_id: str


def unseen(project: Project, *, seed: int = 0, each: int = 3) -> tuple[int, list[Unseen]]:
    """Plant faults of every kind in trials of a project; return how many, and those that nothing tells, worst first.

    Args:
        each: how many of one kind at most.
    """
    results = [unseen_of(project, kind, seed=seed, each=each) for kind in FAULTS.values()]
    found = [one for _, of_kind in results for one in of_kind]
    count = sum(planted for planted, _ in results)
    return count, sorted(found, key=lambda u: (HARMS.index(u.harm), u.words, u.place, u.name))


def unseen_of(project: Project, kind: FaultKind, *, seed: int = 0, each: int = 3) -> tuple[int, list[Unseen]]:
    """Plant faults of one kind in trials of a project; return how many, and those that nothing tells."""
    planted = told_of(project, kind, random.Random(f"{seed} {kind.key}"), each)
    return len(planted), [_unseen(project, kind, p.spot) for p in planted if not p.is_told]


def _unseen(project: Project, kind: FaultKind, spot: FaultPlace) -> Unseen:
    symbol: Symbol | None = project.symbols.get(spot.at[0])
    if symbol is None:
        return Unseen(kind.words, kind.harm, "", "", "", "")
    sheet = project.sheets[symbol.sheet_id]
    place = place_in(sheet, symbol.x, symbol.y)
    return Unseen(kind.words, kind.harm, called_on(project, symbol, sheet), place, symbol.id, sheet.id)
