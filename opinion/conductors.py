"""Conductors: a net of n pins is wired with n - 1 of them, each from pin to pin, and all hang together."""

from __future__ import annotations

from collections.abc import Iterable

from .book import Pin
from .nets import Joined


def wrongs(nets: Iterable[set[Pin]], conductors: Iterable[tuple[Pin, Pin]]) -> list[str]:
    """Return what is wrong with conductors, in words, nothing where they wire all nets and nothing else."""
    nets = list(nets)
    net_of = {pin: n for n, net in enumerate(nets) for pin in net}
    joined = [Joined() for _ in nets]
    counts = [0] * len(nets)
    found = []
    for a, b in conductors:
        if net_of.get(a) is None or net_of.get(a) != net_of.get(b):
            found.append(f"{a} to {b} joins two nets")
            continue
        counts[net_of[a]] += 1
        joined[net_of[a]].add(a, b)
    for n, net in enumerate(nets):
        pins = sorted(net)[:6]
        if counts[n] != len(net) - 1:
            found.append(f"{counts[n]} conductors for {len(net)} pins: {pins}")
        elif len(net) > 1:
            groups = joined[n].groups()
            if len(groups) != 1 or len(groups[0]) != len(net):
                found.append(f"not all of {pins} hang together")
    return found
