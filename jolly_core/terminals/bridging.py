"""Bridges of a strip: in which slot each lies, how far it reaches, and whether its part fits.

A bridge joins terminals of one level along the strip; terminals that it only passes over are insulated from it, but
it takes up their slot. Or it joins the levels of one block, and takes no slot. Its *reach* is the number of blocks
from its first to its last terminal, both counted: so many poles its part must have.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from jolly_core.library import Library
from jolly_core.model import Bridge, Part, Project, StripItem, derived
from jolly_core.wiring import part_of_kind

from .items import TERMINAL, item_records, kind_of, terminal_symbols

USUAL_SLOTS = 2  # of a terminal whose part says nothing
PITCH_SLACK_MM = 0.15
ACCESSORY_CLASS = "strip-accessory"


@dataclass(slots=True, frozen=True)
class LaidBridge:
    """A bridge as it lies on its strip.

    Attributes:
        level: the level of its terminals; 0 where it joins the levels of one block.
        first, last: indexes of the blocks it begins and ends on, from 0.
        lane: the slot it lies in, from 0.
        blocks: indexes of the blocks whose terminals it joins.
    """

    bridge: Bridge
    level: int
    first: int
    last: int
    lane: int
    blocks: tuple[int, ...]

    @property
    def reach(self) -> int:
        """Blocks from its first to its last, both counted."""
        return self.last - self.first + 1


def bridges_of(project: Project, strip_id: str) -> list[Bridge]:
    """Return the bridges of a strip by id."""
    return [project.bridges[id] for id in project.bridges_of_strip.get(strip_id)]


def blocks_of(records: Iterable[StripItem]) -> list[list[StripItem]]:
    """Return the terminals of a strip by block, in order; accessories are left out."""
    blocks: list[list[StripItem]] = []
    for record in records:
        if record.kind == TERMINAL:
            if record.level == 1 or not blocks:
                blocks.append([])
            blocks[-1].append(record)
    return blocks


@derived
def laid_bridges(project: Project, strip_id: str) -> list[LaidBridge]:
    """Return how the bridges of a strip lie, from left to right, each in the first slot free along its reach."""
    blocks = blocks_of(item_records(project, strip_id))
    place = {record.unit: (n, record.level) for n, block in enumerate(blocks) for record in block}
    wanted: list[tuple[int, int, int, Bridge, tuple[int, ...]]] = []
    for bridge in bridges_of(project, strip_id):
        there = sorted(place[u] for u in bridge.units if u in place)
        if len(there) < 2:
            continue
        along = tuple(n for n, _ in there)
        wanted.append((along[0], along[-1], there[0][1] if along[0] != along[-1] else 0, bridge, along))
    taken: dict[tuple[int, int], list[tuple[int, int]]] = {}
    found: list[LaidBridge] = []
    for first, last, level, bridge, along in sorted(wanted, key=lambda w: (w[0], w[1], w[3].id)):
        lane = 0
        while level and any(a <= last and first <= b for a, b in taken.get((level, lane), ())):
            lane += 1
        taken.setdefault((level, lane), []).append((first, last))
        found.append(LaidBridge(bridge, level, first, last, lane, along))
    return found


def slots_of(part: Part | None) -> int:
    """Return how many bridges fit side by side over a terminal of a part."""
    said = part.ratings.get("bridge_slots", "").strip() if part else ""
    return int(said) if said.isdecimal() else USUAL_SLOTS


def poles_of(part: Part) -> int:
    """Return how many terminals a bridge part reaches over, 0 when it is no bridge or does not say."""
    said = part.ratings.get("bridge_poles", "").strip()
    return int(said) if said.isdecimal() else 0


def pitch_mm(part: Part) -> float:
    """Return how far apart the poles of a bridge part are, mm; 0 when it does not say."""
    poles = poles_of(part)
    return part.width_mm / poles if poles else 0.0


def fits(bridge: Part, width_mm: float, reach: int) -> bool:
    """Return whether a bridge part reaches over so many terminals of a width, mm; an unknown width is no bar."""
    pitch = pitch_mm(bridge)
    alike = not pitch or not width_mm or abs(pitch - width_mm) <= PITCH_SLACK_MM
    return poles_of(bridge) >= reach and alike


def block_parts(project: Project, strip_id: str) -> list[Part | None]:
    """Return the part of each block of a strip, that of its first terminal."""
    symbols = terminal_symbols(project, strip_id)
    blocks = blocks_of(item_records(project, strip_id))
    firsts = (block[0] for block in blocks)
    return [part_of_kind(project, strip_id, r.unit, kind_of(project, r, symbols.get(r.unit, []))) for r in firsts]


def bridge_part(project: Project, library: Library, strip_id: str, first: int, last: int) -> Part | None:
    """Return the smallest bridge part, in the project or else the library, that fits the blocks from first to last.

    None when none fits, when the blocks have no part, or when they are of different widths: such a bridge is made.
    Parts of the maker of the terminals go first.
    """
    parts = block_parts(project, strip_id)[first : last + 1]
    widths = {round(p.width_mm, 2) for p in parts if p is not None}
    if None in parts or len(widths) != 1:
        return None
    width, maker = widths.pop(), parts[0].maker if parts[0] else ""
    known = {p.id: p for p in library.parts_of(ACCESSORY_CLASS)} | {
        p.id: p for p in project.parts.values() if p.part_class == ACCESSORY_CLASS
    }
    fitting = [p for p in known.values() if pitch_mm(p) and fits(p, width, last - first + 1)]
    return min(fitting, key=lambda p: (p.maker != maker, poles_of(p), p.price, p.number), default=None)
