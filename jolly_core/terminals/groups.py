"""Terminals of a strip that are ordered alike: of one kind and one part."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.library import TERMINAL_WORDS
from jolly_core.model import Part, Project

from .rows import StripRow, strip_rows


@dataclass(slots=True, frozen=True)
class TerminalGroup:
    """Terminals of one kind and one part.

    Attributes:
        kind: what they are drawn as, a key of TERMINAL_WORDS.
        part: their part, None while they have none of their kind.
        rows: the terminals in the order of the strip.
    """

    strip_id: str
    kind: str
    part: Part | None
    rows: tuple[StripRow, ...]

    @property
    def words(self) -> str:
        """What they are, for reading: "fuse terminals"."""
        one, many = TERMINAL_WORDS[self.kind]
        return one if len(self.rows) == 1 else many


def groups_of(project: Project, strip_id: str) -> list[TerminalGroup]:
    """Return the terminals of a strip by kind and part, in the order in which each is met first."""
    found: dict[tuple[str, str], list[StripRow]] = {}
    for row in strip_rows(project, strip_id):
        if row.kind == "terminal" and row.counted:
            found.setdefault((row.terminal_kind, row.part.id if row.part else ""), []).append(row)
    return [TerminalGroup(strip_id, kind, rows[0].part, tuple(rows)) for (kind, _), rows in found.items()]
