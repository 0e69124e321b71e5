"""The cutting plan: which pieces of rail and duct are sawn from which bar, so that little is left over."""

from __future__ import annotations

from collections import Counter, defaultdict
from dataclasses import dataclass, field

from jolly_core.cabinet import run_names
from jolly_core.cables import number_of
from jolly_core.model import Project
from jolly_core.tagging import full_tag

from .packing import KERF_MM, STOCK_MM, packed


@dataclass(slots=True, frozen=True)
class SawPiece:
    """A piece to saw: its length in mm and what it is for."""

    length: float
    name: str


@dataclass(slots=True)
class Bar:
    """A bar with the pieces sawn from it, the longest first, and what is left of it, mm."""

    kind: str
    number: str
    stock_mm: float
    pieces: list[SawPiece] = field(default_factory=list)
    part_id: str = ""

    @property
    def left_mm(self) -> float:
        """What is left; a piece longer than the bar leaves nothing."""
        used = sum(p.length for p in self.pieces) + KERF_MM * max(0, len(self.pieces) - 1)
        return max(0.0, self.stock_mm - used)


def cutting_plan(project: Project) -> list[Bar]:
    """Return the bars of rail and duct with what is sawn from each, by kind and part."""
    pieces: dict[tuple[str, str], list[SawPiece]] = defaultdict(list)
    for kind, table in (("rail", project.rails), ("duct", project.ducts)):
        for run in table.values():
            enclosure = project.enclosures[run.enclosure_id]
            tag = full_tag(project, project.devices[enclosure.device_id])
            name = run_names(project, run.enclosure_id)[run.id]
            length = abs(run.x2 - run.x1) + abs(run.y2 - run.y1)
            pieces[kind, run.part_id].append(SawPiece(round(length, 1), f"{tag} {name}"))
    found = []
    for (kind, part_id), wanted in sorted(pieces.items()):
        part = project.parts[part_id]
        stock = number_of(part, "stock_mm") or STOCK_MM
        wanted.sort(key=lambda p: (-p.length, p.name))
        for numbers in packed([p.length for p in wanted], stock):
            found.append(Bar(kind, part.number, stock, [wanted[n] for n in sorted(numbers)], part.id))
    return found


@dataclass(slots=True, frozen=True)
class StockCut:
    """A piece of rail or duct to saw: part, length in mm, how many, and pieces of stock it takes all together."""

    kind: str
    number: str
    text: str
    length_mm: float
    quantity: int
    stock: int
    part_id: str


def stock_cuts(project: Project) -> list[StockCut]:
    """Return the rail and duct pieces to saw, by kind, part and length; the bars are those of the cutting plan."""
    bars: dict[tuple[str, str], list[Bar]] = defaultdict(list)
    for bar in cutting_plan(project):
        bars[bar.kind, bar.part_id].append(bar)
    rows = []
    for (kind, part_id), sawn in sorted(bars.items()):
        part = project.parts[part_id]
        counts = Counter(p.length for bar in sawn for p in bar.pieces)
        for length, count in sorted(counts.items(), reverse=True):
            rows.append(StockCut(kind, part.number, part.text, length, count, len(sawn), part_id))
    return rows
