"""What a strip counts: terminals, free and spare ones, its length and the room its rail has."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from jolly_core.model import Project, derived

from .bridging import bridges_of
from .items import TERMINAL
from .rows import StripRow, in_one_piece, strip_rows, strip_width_mm


@dataclass(slots=True, frozen=True)
class StripSum:
    """What a strip counts.

    Attributes:
        count: its terminals, on all levels.
        free: those on which nothing lands, spare ones left out.
        spare: those kept free on purpose.
        waiting: planned ones that are drawn on no sheet, spare ones left out.
        length_mm: length on the rail.
    """

    count: int
    free: int
    spare: int
    waiting: int
    length_mm: float


@derived
def strip_sum(project: Project, strip_id: str) -> StripSum:
    """Return what a strip counts."""
    rows = [r for r in strip_rows(project, strip_id) if r.kind == TERMINAL]
    spare = sum(1 for r in rows if r.record.spare and r.free)
    free = sum(1 for r in rows if r.free) - spare
    waiting = sum(1 for r in rows if not r.drawn and not r.record.spare)
    return StripSum(len(rows), free, spare, waiting, strip_width_mm(project, strip_id))


@derived
def strip_pieces(project: Project, strip_id: str) -> dict[str, int]:
    """Return how many pieces of each part a strip takes, by part: blocks, accessories and bridges.

    A part of several terminals side by side is had once for so many.
    """
    terminals: dict[str, int] = {}
    found: dict[str, int] = {}
    for row in strip_rows(project, strip_id):
        if row.part is not None and row.counted:
            counts = terminals if row.kind == TERMINAL else found
            counts[row.part.id] = counts.get(row.part.id, 0) + 1
    for id, count in terminals.items():
        found[id] = found.get(id, 0) + ceil(count / in_one_piece(project.parts[id]))
    for bridge in bridges_of(project, strip_id):
        if bridge.part_id in project.parts:
            found[bridge.part_id] = found.get(bridge.part_id, 0) + 1
    return found


@derived
def waiting_rows(project: Project, strip_id: str) -> list[StripRow]:
    """Return the terminals of a strip that are planned and drawn on no sheet, spare ones left out, in order."""
    rows = strip_rows(project, strip_id)
    return [r for r in rows if r.kind == TERMINAL and not r.drawn and not r.record.spare]
