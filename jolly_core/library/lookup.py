"""Looking up symbols by what a person types, and the port through which edits reach library parts."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Protocol

from jolly_core.model import Part

from .stamps import KeptStamp
from .symbols import Definition, definitions
from .titleblocks import BlockPattern


class Library(Protocol):
    """Where an edit finds the parts, title blocks and stamps it names."""

    def part(self, id: str) -> Part | None:
        """Return the library part of that id, None when there is none."""

    def title_block(self, id: str) -> BlockPattern | None:
        """Return the title block kept in the library under that id, None when there is none."""

    def stamp(self, id: str) -> KeptStamp | None:
        """Return the stamp kept in the library under that id, None when there is none."""

    def parts_of(self, part_class: str) -> list[Part]:
        """Return the library's parts of a class, by number."""


class NoLibrary:
    """An empty library, for edits that need none."""

    def part(self, id: str) -> Part | None:
        """Return None, whatever is asked."""
        return None

    def title_block(self, id: str) -> BlockPattern | None:
        """Return None, whatever is asked."""
        return None

    def stamp(self, id: str) -> KeptStamp | None:
        """Return None, whatever is asked."""
        return None

    def parts_of(self, part_class: str) -> list[Part]:
        """Return no part, whatever is asked."""
        return []


def find_symbols(words: str, more: Iterable[Definition] = ()) -> list[Definition]:
    """Return the symbols that match what was typed, best first.

    Args:
        more: symbols looked through beside those of the data, such as a library's drawn ones.

    A nickname typed whole comes first, then nicknames and names that begin so, then
    any that have, for each word typed, one that begins so.
    Nothing typed gives all, in the order of the data.

    Example:
        >>> find_symbols("coil")[0].key
        'coil'
    """
    typed = " ".join(words.lower().split())
    ranked: list[tuple[int, int, Definition]] = []
    for position, shape in enumerate([*definitions().values(), *more]):
        names = [*shape.nicknames, shape.name.lower(), shape.key]
        if typed in names:
            rank = 0 if typed in shape.nicknames else 1
        elif any(name.startswith(typed) for name in names):
            rank = 2
        elif all(any(part.startswith(word) for name in names for part in name.split()) for word in typed.split()):
            rank = 3
        else:
            continue
        ranked.append((rank, position, shape))
    return [shape for _, _, shape in sorted(ranked, key=lambda r: r[:2])]
