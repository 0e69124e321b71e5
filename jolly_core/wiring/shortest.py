"""The shortest way to join pins whose distances are known, with the room of each kept.

Exact for few pins: links are taken or left in the order of their length, as for a minimum spanning tree, and a branch
is given up when even the tree without regard to rooms would be no shorter. For more, a chain from nearest to nearest
is made better by exchanging two.
"""

from __future__ import annotations

from .nets import PinKey

EXACT = 9
Pair = tuple[PinKey, PinKey]


def shortest_pairs(pins: list[PinKey], room: dict[PinKey, int], lengths: dict[Pair, float]) -> list[Pair] | None:
    """Return the pairs that join all pins with the least total length, None where the rooms do not allow any.

    Args:
        pins: two or more.
        room: conductors each may take.
        lengths: mm between each two pins, in both directions.

    Example:
        Pins A, B, C, D of room 2 at 0, 300, 100, 200 mm on a rail: A-C, C-D, D-B, 300 mm.
    """
    if min(room[p] for p in pins) < 1 or sum(room[p] for p in pins) < 2 * (len(pins) - 1):
        return None
    return _exact(pins, room, lengths) if len(pins) <= EXACT else _chain(pins, room, lengths)


def _exact(pins: list[PinKey], room: dict[PinKey, int], lengths: dict[Pair, float]) -> list[Pair] | None:
    links = sorted((lengths[a, b], n, m) for n, a in enumerate(pins) for m, b in enumerate(pins) if n < m)
    rooms = [room[p] for p in pins]
    best: list[tuple[int, int]] | None = None
    least = float("inf")

    def bound(at: int, group: list[int], left: int) -> float:
        group, total = list(group), 0.0
        for length, a, b in links[at:]:
            if not left:
                break
            if group[a] != group[b]:
                old, new = group[a], group[b]
                group = [new if g == old else g for g in group]
                total += length
                left -= 1
        return total if not left else float("inf")

    def take(at: int, group: list[int], spare: list[int], chosen: list[tuple[int, int]], total: float) -> None:
        nonlocal best, least
        left = len(pins) - 1 - len(chosen)
        if not left:
            if total < least - 1e-9:
                best, least = list(chosen), total
            return
        if at == len(links) or total + bound(at, group, left) >= least - 1e-9:
            return
        length, a, b = links[at]
        if group[a] != group[b] and spare[a] and spare[b]:
            joined = [group[b] if g == group[a] else g for g in group]
            fewer = [s - (n in (a, b)) for n, s in enumerate(spare)]
            open_ends = sum(fewer[n] for n in range(len(pins)) if joined[n] == joined[a])
            if open_ends or left == 1:
                take(at + 1, joined, fewer, [*chosen, (a, b)], total + length)
        take(at + 1, group, spare, chosen, total)

    take(0, list(range(len(pins))), rooms, [], 0.0)
    return [(pins[a], pins[b]) for a, b in best] if best is not None else None


def _chain(pins: list[PinKey], room: dict[PinKey, int], lengths: dict[Pair, float]) -> list[Pair] | None:
    """Return a chain through all pins, those of room 1 at its ends or beside it on pins that have room."""
    inner = [p for p in pins if room[p] > 1]
    single = [p for p in pins if room[p] == 1]
    if not inner:
        return None
    chain, waiting = [inner[0]], inner[1:]
    while waiting:
        nearest = min(waiting, key=lambda p: lengths[chain[-1], p])
        waiting.remove(nearest)
        chain.append(nearest)
    better = True
    while better:
        better = False
        for i in range(len(chain) - 1):
            for j in range(i + 1, len(chain)):
                before = (lengths[chain[i - 1], chain[i]] if i else 0.0) + (
                    lengths[chain[j], chain[j + 1]] if j + 1 < len(chain) else 0.0
                )
                after = (lengths[chain[i - 1], chain[j]] if i else 0.0) + (
                    lengths[chain[i], chain[j + 1]] if j + 1 < len(chain) else 0.0
                )
                if after < before - 1e-9:
                    chain[i : j + 1] = chain[i : j + 1][::-1]
                    better = True
    pairs = list(zip(chain, chain[1:], strict=False))
    spare = {p: room[p] for p in pins}
    for a, b in pairs:
        spare[a] -= 1
        spare[b] -= 1
    for pin in single:
        free = [p for p in chain if spare[p] > 0]
        if not free:
            return None
        nearest = min(free, key=lambda p: lengths[p, pin])
        spare[nearest] -= 1
        pairs.append((nearest, pin))
    return pairs
