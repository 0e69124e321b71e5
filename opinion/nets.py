"""Nets and potentials: what strokes, marks, terminals and bridges join."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from typing import Any

from .book import Book, Pin, Point, is_block, shape_of


class Joined:
    """Things of which some are said to be joined, and then all that hangs together."""

    def __init__(self) -> None:
        self._next: dict[object, set[object]] = defaultdict(set)

    def add(self, *things: object) -> None:
        """Say that things are joined; one alone is there."""
        for thing in things:
            self._next[thing] |= set(things) - {thing}

    def reached(self, first: tuple[str, Any], without: tuple[str, Any] | None = None) -> set[tuple[str, Any]]:
        """Return what hangs together with a thing, by ways that do not go through another one."""
        found: set[Any] = set()
        waiting: list[Any] = [first]
        while waiting:
            thing = waiting.pop()
            if thing not in found and thing != without:
                found.add(thing)
                waiting += self._next[thing]
        return found

    def groups(self) -> list[set[object]]:
        """Return what hangs together: from each thing as far as one comes."""
        found, seen = [], set()
        for first in self._next:
            if first in seen:
                continue
            group, waiting = set(), [first]
            while waiting:
                thing = waiting.pop()
                if thing not in group:
                    group.add(thing)
                    waiting += self._next[thing]
            seen |= group
            found.append(group)
        return found


def _on(point: Point, sheet: str, x1: int, y1: int, x2: int, y2: int) -> bool:
    """Return whether a point lies on a stroke, its ends counted."""
    inside = min(x1, x2) <= point[1] <= max(x1, x2) and min(y1, y2) <= point[2] <= max(y1, y2)
    return point[0] == sheet and inside


def drawn(book: Book) -> Joined:
    """Return what is joined on paper: strokes that touch with an end, pins and marks on them, marks of one name."""
    joined = Joined()
    strokes = [(w["sheet_id"], w["x1"], w["y1"], w["x2"], w["y2"]) for w in book.all("wire")]
    points: set[Point] = set()
    for s in strokes:
        joined.add(("stroke", s))
        points |= {(s[0], s[1], s[2]), (s[0], s[3], s[4])}
    for symbol in book.all("symbol"):
        for n, point in enumerate(book.pins(symbol)):
            joined.add(("pin", (symbol["id"], n)), ("point", point))
            points.add(point)
    for mark in book.all("continuation"):
        point = (mark["sheet_id"], mark["x"], mark["y"])
        joined.add(("name", mark["name"]), ("point", point))
        points.add(point)
    by_sheet: dict[str, list[tuple[str, int, int, int, int]]] = defaultdict(list)
    for s in strokes:
        by_sheet[s[0]].append(s)
    for point in points:
        for s in by_sheet[point[0]]:
            if _on(point, *s):
                joined.add(("point", point), ("stroke", s))
    return joined


def nets(book: Book) -> list[set[Pin]]:
    """Return the pins of each net: what is wired together without going through a device."""
    return _pins(drawn(book).groups())


def potentials(book: Book) -> list[set[Pin]]:
    """Return the pins of each potential: nets that carrying terminals and bridges make one."""
    joined = drawn(book)
    by_hand = {(i["strip_id"], i["unit"]): i["joint"] for i in book.all("strip_item") if i.get("joint")}
    for symbol in book.all("symbol"):
        for a, b in _carried(symbol, by_hand.get((symbol["device_id"], symbol["units"][0]), "")):
            joined.add(("pin", (symbol["id"], a)), ("pin", (symbol["id"], b)))
    for bridge in book.all("bridge"):
        ends = [
            ("pin", (s["id"], 0))
            for s in book.all("symbol")
            if s["device_id"] == bridge["strip_id"] and s["units"][0] in bridge["units"] and _unit(s) == "terminal"
        ]
        joined.add(*ends)
    return _pins(joined.groups())


def _unit(symbol: dict[str, object]) -> str:
    key = str(symbol["definition"])
    return "block" if is_block(key) else str(shape_of(key)["unit"])


def _carried(symbol: dict[str, object], joint: str) -> list[tuple[int, int]]:
    key = str(symbol["definition"])
    if is_block(key):
        return []
    if joint and len(shape_of(key)["pins"]) == 2:
        return [(0, 1)] if joint == "carry" else []
    return [(int(a), int(b)) for a, b in shape_of(key).get("carries", [])]


def _pins(groups: Iterable[set[object]]) -> list[set[Pin]]:
    found = []
    for group in groups:
        pins = {thing[1] for thing in group if isinstance(thing, tuple) and thing[0] == "pin"}
        if pins:
            found.append(pins)
    return found
