"""Pieces cut from bars and spools: as few as can be found, exactly the fewest for up to twelve pieces."""

from __future__ import annotations

from collections.abc import Sequence

STOCK_MM = 2000.0
KERF_MM = 3.0  # that the saw takes between two pieces
EXACT = 12  # so many pieces are put together in every way there is
MOST_PIECES = 300  # of more the best fit is as good as never beaten
MOST_TRIED = 20_000
ALIKE_MM = 1e-9


def packed(lengths: Sequence[float], stock_mm: float, kerf_mm: float = KERF_MM) -> list[list[int]]:
    """Return which pieces are cut from which bar or spool: the fewest, then the longest rest on one of them.

    Pieces are put into bars the longest first, each where the least is left; then fewer bars are looked for as long as
    the pieces could fit into them: up to 12 pieces in every way, of more within a number of steps. A piece longer than
    a bar has one for itself.

    Args:
        lengths: of the pieces, mm.

    Returns:
        For each bar the numbers of its pieces.

    Example:
        >>> packed([1200, 800, 700, 600, 500], 2000, 0)
        [[0, 1], [2, 3, 4]]
        >>> len(packed([520, 500, 410, 390, 360, 350, 160, 150], 1000, 0))
        3
    """
    order = sorted(range(len(lengths)), key=lambda n: (-lengths[n], n))
    best = _best_fit(lengths, order, stock_mm, kerf_mm)
    short = [n for n in order if lengths[n] <= stock_mm]
    long = [[n] for n in order if lengths[n] > stock_mm]
    least = -int(-(sum(lengths[n] + kerf_mm for n in short) - ALIKE_MM) // (stock_mm + kerf_mm))
    bars = len(best) - len(long)
    if bars > least and len(short) <= EXACT:
        return [*long, *_every_way(lengths, short, stock_mm, kerf_mm)]
    while bars > least and len(short) <= MOST_PIECES:
        found = _into(lengths, short, bars - 1, stock_mm, kerf_mm)
        if found is None:
            break
        best, bars = [*long, *found], len(found)
    return best


def _best_fit(lengths: Sequence[float], order: Sequence[int], stock_mm: float, kerf_mm: float) -> list[list[int]]:
    bars: list[list[int]] = []
    rests: list[float] = []
    for n in order:
        fits = [k for k, rest in enumerate(rests) if lengths[n] <= rest + ALIKE_MM]
        if fits:
            k = min(fits, key=lambda k: (rests[k], k))
            bars[k].append(n)
            rests[k] -= lengths[n] + kerf_mm
        else:
            bars.append([n])
            rests.append(stock_mm - lengths[n] - kerf_mm)
    return bars


def _every_way(lengths: Sequence[float], order: Sequence[int], stock_mm: float, kerf_mm: float) -> list[list[int]]:
    """Return the fewest bars: for each set of pieces the fewest, then the emptiest last one, is worked out once."""
    whole = (1 << len(order)) - 1
    best: list[tuple[int, float]] = [(0, 0.0)] + [(len(order) + 1, 0.0)] * whole  # bars, and taken of the last
    last: list[int] = [0] * (whole + 1)  # the piece put in last
    for had in range(whole):
        bars, taken = best[had]
        for place, n in enumerate(order):
            bit = 1 << place
            if had & bit:
                continue
            more = taken + lengths[n] + (kerf_mm if bars and taken else 0.0)
            new = (bars, more) if bars and more <= stock_mm + ALIKE_MM else (bars + 1, lengths[n])
            if new < best[had | bit]:
                best[had | bit], last[had | bit] = new, place
    found: list[list[int]] = []
    had = whole
    while had:
        place = last[had]
        before = had ^ (1 << place)
        if not found or best[had][0] < bars:
            found.append([])
        bars = best[had][0]
        found[-1].append(order[place])
        had = before
    return [sorted(bar, key=order.index) for bar in reversed(found)]


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
            if lengths[n] > rests[k] + ALIKE_MM or rests[k] in seen:
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
