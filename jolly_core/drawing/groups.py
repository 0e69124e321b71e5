"""What wires join, point by point, in plain loops: this runs at every edit and for every sheet that is opened.

A point is one number, y in the high bits and x in the low ones, so that numbers rise in reading order.
"""

from __future__ import annotations

from collections.abc import Iterable

from jolly_core.model import Wire

SHIFT = 16
MASK = (1 << SHIFT) - 1


def parents(wires: Iterable[Wire]) -> tuple[dict[int, int], list[int]]:
    """Return for each wire end a point of lower number that the wires join it to, or itself where there is none.

    Args:
        wires: canonical wires of one sheet; they end wherever they connect.

    Returns:
        The numbers of points with those they hang on, and the number of each wire's first end.
    """
    parent: dict[int, int] = {}
    starts: list[int] = []
    start, known = starts.append, parent.get
    for w in wires:
        a, b = (w.y1 << SHIFT) + w.x1, (w.y2 << SHIFT) + w.x2
        start(a)
        # Most ends are met for the first time: they are their own root, and nothing is to be climbed.
        root_a, root_b = known(a), known(b)
        if root_a is None:
            parent[a] = root_a = a
        else:
            while (above := parent[root_a]) != root_a:
                root_a = above
        if root_b is None:
            parent[b] = root_b = b
        else:
            while (above := parent[root_b]) != root_b:
                root_b = above
        # A parent never has a higher number, so that one pass in rising order finds every root.
        if root_a < root_b:
            parent[root_b] = parent[b] = root_a
        elif root_b < root_a:
            parent[root_a] = parent[a] = root_b
    return parent, starts


def roots(wires: Iterable[Wire]) -> dict[int, int]:
    """Return for each wire end the first point, in reading order, of what the wires join it to.

    Args:
        wires: canonical wires of one sheet; they end wherever they connect.

    Returns:
        Numbers of points in rising order, each with the number of its group's first point.

    Example:
        >>> line = Wire("w", "s", 2, 1, 5, 1, "t")
        >>> [(p & MASK, p >> SHIFT) for p in roots([line]).values()]
        [(2, 1), (2, 1)]
    """
    parent, _ = parents(wires)
    found: dict[int, int] = {}
    for point in sorted(parent):
        above = parent[point]
        found[point] = above if above == point else found[above]
    return found
