"""What changed between two states of a project, by what people see: things, and the places on drawings."""

from __future__ import annotations

from bisect import bisect_left
from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from typing import Literal

from jolly_core.drawing import BoxMm
from jolly_core.model import Project, uncollected
from jolly_core.scenes import Item, Text
from jolly_core.tagging import natural

from .builtsights import BEGIN
from .states import State, both_states, drawing
from .thing import KINDS, Same, Sight, Sights, same_things

Act = Literal["added", "taken out", "changed", "re-landed"]
# Items of a drawing that say where and in which state it is, and not what is on it.
_ABOUT = ("frame",)
# Facts that say what other things are called.
_NAMES: dict[str, tuple[str, ...]] = {"wire": ("from", "to"), "terminal": ("stands after",)}


@dataclass(slots=True, frozen=True)
class Change:
    """A thing that is other than it was.

    Attributes:
        act: "re-landed" is a wire that kept one of its ends.
        before, after: it in the two states, None where it is not there.
        facts: the names of the facts that changed, of one that is in both.
        stands_after: what a terminal or accessory that is new or moved stands after, by the label that has until then.
    """

    kind: str
    act: Act
    before: Sight | None
    after: Sight | None
    facts: tuple[str, ...] = ()
    stands_after: str = ""

    @property
    def sight(self) -> Sight:
        """It as it is now, else as it was."""
        found = self.after or self.before
        assert found is not None
        return found

    @property
    def words(self) -> str:
        """What changed in a sentence."""
        if self.before is None or self.after is None:
            facts = self.sight.facts
            ends = f": {facts['from']} to {facts['to']}" if self.kind == "wire" and facts["number"] else ""
            return f"{self.kind} {self.sight.name} {self.act}{ends}"
        if self.act == "re-landed":
            was, now = (f"{s.facts['from']} to {s.facts['to']}" for s in (self.before, self.after))
            return f"wire {self.sight.name} re-landed: {was}, now {now}"
        each = [f"{f} {self.before.fact(f) or 'none'}, now {self.after.fact(f) or 'none'}" for f in self.facts]
        return f"{self.kind} {self.before.name}: {'; '.join(each)}"


@dataclass(slots=True, frozen=True)
class SheetChange:
    """A drawing on which something is other than it was.

    Attributes:
        sheet_id: in the later state, else in the earlier one.
        added, gone, other: boxes in mm of what was put there, is no more there, and looks or stands otherwise.
        was: boxes of the last where it was before.
    """

    sheet_id: str
    number: str
    added: tuple[BoxMm, ...]
    gone: tuple[BoxMm, ...]
    other: tuple[BoxMm, ...]
    was: tuple[BoxMm, ...]


@dataclass(slots=True, frozen=True)
class Difference:
    """What changed: the things by kind, and the drawings in the order of the later state.

    Attributes:
        called: wires that are what they were while what they end at is called otherwise: their labels are.
    """

    changes: tuple[Change, ...]
    sheets: tuple[SheetChange, ...]
    called: tuple[Change, ...] = ()

    def of(self, kind: str) -> list[Change]:
        """Return the changes of a kind."""
        return [c for c in self.changes if c.kind == kind]


@uncollected
def difference(before: Project, after: Project) -> Difference:
    """Return what changed from one state of a project to another, or between two projects.

    Nobody else may use the later one meanwhile, see `both_states`.
    """
    same = same_things(before, after)
    states = both_states(before, after, same)
    changes: list[Change] = []
    for kind in KINDS:
        found = _changed(states[0].sights, states[1].sights, kind)
        changes += sorted(_landed(found) if kind == "wire" else found, key=_order)
    called = sorted(_called(states[0].sights["wire"], states[1].sights["wire"]), key=_order)
    return Difference(tuple(changes), tuple(_drawings(before, after, same, states)), tuple(called))


def _order(change: Change) -> tuple[object, ...]:
    return natural(change.sight.name), change.act, change.sight.key


def _changed(one: Sights, other: Sights, kind: str) -> list[Change]:
    found: list[Change] = []
    moved, after = set[str](), dict[str, str]()
    if kind == "terminal":
        moved, after = _moved(one[kind], other[kind]), _labels_before(one[kind], other[kind])
    elif kind == "accessory":
        terminals = one["terminal"], other["terminal"]
        after = {key: _label(*terminals, str(now.same_by["stands after"][0])) for key, now in other[kind].items()}
    for key, was in one[kind].items():
        now = other[kind].get(key)
        if now is was:
            continue
        if now is None:
            found.append(Change(kind, "taken out", was, None))
        elif facts := _own(was, now, key in moved):
            found.append(Change(kind, "changed", was, now, facts, after.get(key, "")))
    new = [(key, now) for key, now in other[kind].items() if key not in one[kind]]
    found += [Change(kind, "added", None, now, (), after.get(key, "")) for key, now in new]
    return found


def _labels_before(one: dict[str, Sight], other: dict[str, Sight]) -> dict[str, str]:
    """Return for each terminal the label that the one it stands after bears: its earlier number, or that it is new."""
    found: dict[str, str] = {}
    strip, label = "", BEGIN
    for key in other:
        mine = key.rpartition(":")[0]
        found[key] = label if mine == strip else BEGIN
        strip, label = mine, _label(one, other, key)
    return found


def _label(one: dict[str, Sight], other: dict[str, Sight], key: str) -> str:
    """Return how a terminal is labelled until labels are exchanged."""
    if key in one:
        return one[key].facts["number"]
    return f"new {other[key].facts['number']}" if key in other else BEGIN


def _moved(one: dict[str, Sight], other: dict[str, Sight]) -> set[str]:
    """Return the terminals, by key, that stand elsewhere among those of their strip that are in both states.

    As few as there can be: the others are the longest series of each strip that is in the same order in both.
    """
    places = {key: n for n, key in enumerate(one)}
    strips: dict[str, list[str]] = {}
    for key in other:
        if key in places:
            strips.setdefault(key.rpartition(":")[0], []).append(key)
    moved: set[str] = set()
    for keys in strips.values():
        ends: list[int] = []  # the least place with which a series of each length ends
        series: list[list[str]] = []
        for key in keys:
            length = bisect_left(ends, places[key])
            longer = [*(series[length - 1] if length else ()), key]
            ends[length : length + 1], series[length : length + 1] = [places[key]], [longer]
        moved |= {*keys} - {*series[-1]}
    return moved


def _own(was: Sight, now: Sight, moved: bool = False) -> tuple[str, ...]:
    """Return the facts that differ and are the thing's own: what is called otherwise and is the same is not."""
    differ = [name for name in {**was.facts, **now.facts} if was.fact(name) != now.fact(name)]
    same = {name for name, by in was.same_by.items() if now.same_by.get(name) == by}
    same |= {*_NAMES.get(was.kind, ())} - ({"stands after"} if moved else set())
    if {"text", "tag"} & {*differ}:
        same.add("nameplate")  # says nothing more
    if was.kind == "wire" and "runs in" in differ and "runs in" not in same:  # a core's colour and size are its cable's
        same |= {name for name in ("colour", "size") if not (was.fact(name) and now.fact(name))}
    return tuple(name for name in differ if name not in same)


def _called(one: dict[str, Sight], other: dict[str, Sight]) -> Iterator[Change]:
    """Yield the wires an end of which is called otherwise and that are else what they were."""
    for key, was in one.items():
        now = other.get(key)
        if now is not None and now is not was:
            facts = tuple(name for name in _NAMES["wire"] if was.facts[name] != now.facts[name])
            if facts and not _own(was, now):
                yield Change("wire", "changed", was, now, facts)


def _landed(changes: list[Change]) -> list[Change]:
    """Return wires that were taken out and put in at one same end as re-landed, those of one number before others."""
    gone = [c for c in changes if c.act == "taken out"]
    new = [c for c in changes if c.act == "added"]
    at: dict[str, list[Change]] = {}
    for now in new:
        for end in now.sight.key.split("|"):
            at.setdefault(end, []).append(now)
    pairs = []
    for was in gone:
        for now in {c.sight.key: c for end in was.sight.key.split("|") for c in at.get(end, ())}.values():
            alike = [was.sight.facts[f] == now.sight.facts[f] for f in ("number", "type")]
            pairs.append((-sum(alike), was.sight.key, now.sight.key, was, now))
    taken: set[str] = set()
    landed: list[Change] = []
    for _, a, b, was, now in sorted(pairs, key=lambda p: p[:3]):
        if f"- {a}" not in taken and f"+ {b}" not in taken:
            taken |= {f"- {a}", f"+ {b}"}
            landed.append(Change("wire", "re-landed", was.before, now.after))
    kept = [c for c in changes if f"{'-' if c.act == 'taken out' else '+'} {c.sight.key}" not in taken]
    return [*kept, *landed]


def drawn_changes(before: Project, after: Project, same: Same) -> Iterator[SheetChange]:
    """Yield the drawings that differ, in the order of the later state; those that are gone stand last.

    Nobody else may use the later project meanwhile, see `both_states`.
    """
    yield from _drawings(before, after, same, both_states(before, after, same, things=False))


def _drawings(before: Project, after: Project, same: Same, states: tuple[State, State]) -> Iterator[SheetChange]:
    old, new = states[0].drawings, states[1].drawings
    known = {same.sheet(id) for id in after.sheets}
    gone = [s for s in before.sheets_in_order() if s.id not in known]
    for sheet in [*after.sheets_in_order(), *gone]:
        was = same.sheet(sheet.id)
        if was in old or sheet.id in new:
            change = _drawn(sheet.id, sheet.number, old.get(was, {}), new.get(sheet.id, {}))
            if change is not None:
                yield change


def drawing_change(before: Project, after: Project, sheet_id: str) -> SheetChange | None:
    """Return how one drawing differs between two states, None when it does not.

    Args:
        sheet_id: in the later state, else in the earlier one.
    """
    was_id = same_things(before, after).sheet(sheet_id)
    was, now = before.sheets.get(was_id), after.sheets.get(sheet_id)
    number = now.number if now else was.number if was else ""
    old = drawing(before, was_id) if was else {}
    return _drawn(sheet_id, number, old, drawing(after, sheet_id) if now else {})


def _drawn(id: str, number: str, old: dict[str, Item], new: dict[str, Item]) -> SheetChange | None:
    """Return how one drawing differs from another: by what is painted of each item of an id."""

    def shown(items: dict[str, Item]) -> dict[str, Item]:
        return {id: item for id, item in items.items() if item.kind not in _ABOUT}

    was, now = shown(old), shown(new)
    put, taken = ([item for id, item in mine.items() if id not in theirs] for mine, theirs in ((now, was), (was, now)))
    # What looks the same in its place is the same though its id is another, as in files not copied from each other.
    looks = [Counter(map(_look, items)) for items in (put, taken)]
    same = looks[0] & looks[1]
    added, gone = (_boxes(_but(items, Counter(same))) for items in (put, taken))
    altered = [key for key, item in now.items() if key in was and _look(was[key]) != _look(item)]
    other, before = (_boxes(items[key] for key in altered) for items in (now, was))
    return SheetChange(id, number, added, gone, other, before) if added or gone or other else None


def _look(item: Item) -> tuple[object, ...]:
    """Return what is seen of an item: where its texts lead to is not."""
    return item.kind, item.at, tuple(replace(p, link="") if isinstance(p, Text) and p.link else p for p in item.prims)


def _but(items: list[Item], same: Counter[tuple[object, ...]]) -> Iterator[Item]:
    """Yield items but for so many of each look."""
    for item in items:
        look = _look(item)
        if same[look]:
            same[look] -= 1
        else:
            yield item


def _boxes(items: Iterable[Item]) -> tuple[BoxMm, ...]:
    return tuple(item.box for item in items)
