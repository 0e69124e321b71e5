"""The cutting plan: which pieces of rail and duct are sawn from which bar, so that little is left over."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, field

from jolly_core.cabinet import run_names
from jolly_core.cables import number_of
from jolly_core.model import Project
from jolly_core.tagging import full_tag

STOCK_MM = 2000.0
KERF_MM = 3.0  # that the saw takes between two pieces
MOST_TRIED = 20_000


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


def packed(lengths: Sequence[float], stock_mm: float, kerf_mm: float = KERF_MM) -> list[list[int]]:
    """Return which pieces are sawn from which bar: the fewest bars, then the longest rest on one of them.

    Pieces are put into bars the longest first, each where the least is left; then fewer bars are looked for as long as
    the pieces could fit into them. A piece longer than a bar has one for itself.

    Args:
        lengths: of the pieces, mm.

    Returns:
        For each bar the numbers of its pieces.

    Example:
        >>> packed([1200, 800, 700, 600, 500], 2000, 0)
        [[0, 1], [2, 3, 4]]
    """
    order = sorted(range(len(lengths)), key=lambda n: (-lengths[n], n))
    best = _best_fit(lengths, order, stock_mm, kerf_mm)
    short = [n for n in order if lengths[n] <= stock_mm]
    long = [[n] for n in order if lengths[n] > stock_mm]
    least = -int(-sum(lengths[n] + kerf_mm for n in short) // (stock_mm + kerf_mm))
    bars = len(best) - len(long)
    while bars > least:
        found = _into(lengths, short, bars - 1, stock_mm, kerf_mm)
        if found is None:
            break
        best, bars = [*long, *found], len(found)
    return best


def _best_fit(lengths: Sequence[float], order: Sequence[int], stock_mm: float, kerf_mm: float) -> list[list[int]]:
    bars: list[list[int]] = []
    rests: list[float] = []
    for n in order:
        fits = [k for k, rest in enumerate(rests) if lengths[n] <= rest + 1e-9]
        if fits:
            k = min(fits, key=lambda k: (rests[k], k))
            bars[k].append(n)
            rests[k] -= lengths[n] + kerf_mm
        else:
            bars.append([n])
            rests.append(stock_mm - lengths[n] - kerf_mm)
    return bars


def _into(
    lengths: Sequence[float], order: Sequence[int], count: int, stock_mm: float, kerf_mm: float
) -> list[list[int]] | None:
    """Return pieces in so many bars, None when no way was found within MOST_TRIED steps."""
    bars: list[list[int]] = [[] for _ in range(count)]
    rests = [stock_mm] * count
    tried = 0

    def place(at: int) -> bool:
        nonlocal tried
        if at == len(order):
            return True
        tried += 1
        if tried > MOST_TRIED:
            return False
        n = order[at]
        seen: set[float] = set()
        for k in sorted(range(count), key=lambda k: rests[k]):
            if lengths[n] > rests[k] + 1e-9 or rests[k] in seen:
                continue
            seen.add(rests[k])  # bars with the same rest are as good as each other
            before = rests[k]
            bars[k].append(n)
            rests[k] -= lengths[n] + kerf_mm
            if place(at + 1):
                return True
            bars[k].pop()
            rests[k] = before
        return False

    return [bar for bar in bars if bar] if place(0) else None


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
