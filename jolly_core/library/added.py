"""Symbols, part classes and stamps that packages of a company's own add to the data that comes along."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any


@dataclass(slots=True)
class Added:
    """What was added, as (package, record), and the memories that are cleared when that changes."""

    symbols: list[tuple[str, Mapping[str, Any]]] = field(default_factory=list)
    classes: list[tuple[str, Mapping[str, Any]]] = field(default_factory=list)
    stamps: list[tuple[str, Mapping[str, Any]]] = field(default_factory=list)
    clear: list[Callable[[], None]] = field(default_factory=list)

    def changed(self) -> None:
        """Have everything read again that stands on what was added."""
        for forget in self.clear:
            forget()

    def withdraw(self, package: str) -> None:
        """Take away all that a package added."""
        for records in (self.symbols, self.classes, self.stamps):
            records[:] = [one for one in records if one[0] != package]
        self.changed()


added = Added()
