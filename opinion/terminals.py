"""Terminals: what each of a strip is joined with, on either side."""

from __future__ import annotations

from collections import Counter, defaultdict

from .book import Book, Pin, is_block, shape_of
from .names import end

Targets = dict[tuple[str, str], Counter[str]]


def targets(book: Book, conductors: list[tuple[Pin, Pin]]) -> Targets:
    """Return what the terminals of a name are joined with, by strip and number: the other ends of their conductors.

    Where one of these ends has no name that is known here, the terminal is left out.
    """
    at: dict[Pin, list[Pin]] = defaultdict(list)
    for a, b in conductors:
        at[a].append(b)
        at[b].append(a)
    found: Targets = defaultdict(Counter)
    unknown: set[tuple[str, str]] = set()
    for symbol in book.all("symbol"):
        if is_block(symbol["definition"]) or shape_of(symbol["definition"])["unit"] != "terminal":
            continue
        strip, _, number = end(book, (symbol["id"], 0)).rpartition(":")
        others = [other for n in range(len(book.pins(symbol))) for other in at[symbol["id"], n]]
        names = [end(book, other) for other in others]
        if not all((strip, number, *names)):
            unknown.add((strip, number))
        found[strip, number].update(names)
    return {key: names for key, names in found.items() if key not in unknown and all(key)}
