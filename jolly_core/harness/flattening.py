"""A harness laid flat on its form board at true scale, so that nothing crosses or lies on another.

The trunk is laid straight from left to right. A branch leaves it at a right angle, by turns upwards and downwards, and
what leaves a branch leans by 45 degrees to either side; a segment whose angle was chosen leaves at that. Where
something would cross or come too near to something, the branch is *turned* to the first angle that is free; a tree
too crowded for that is fanned out: every branch gets a sector of its side as wide as it has ends, so that no two can
meet. All in mm, x to the right and y down.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from math import atan2, cos, degrees, hypot, radians, sin

from jolly_core.model import Segment

from .tree import BoardPoint, Tree, farthest, length_mm, trunk, way_between

CLEAR_MM = 12.0  # between segments that do not meet
LEAST_DEG = 20.0  # between segments that do
LEAN_DEG = 45.0
# How far a branch is turned from its usual angle, the least first.
TURNS_DEG = (0.0, -15.0, 15.0, -30.0, 30.0, -45.0, 45.0, -60.0, 60.0)
EDGE_DEG = 8.0  # kept free beside the trunk where a tree is fanned out

BoardStroke = tuple[BoardPoint, BoardPoint]


@dataclass(slots=True)
class Laid:
    """Where a harness lies.

    Attributes:
        places: of each node, the leftmost and topmost at 0; loose nodes are left out.
        turned: the ids of segments that leave at another angle than the usual one.
    """

    places: dict[str, BoardPoint] = field(default_factory=dict)
    turned: set[str] = field(default_factory=set)


class _Crowded(Exception):
    """A branch finds no free angle."""


def flat(tree: Tree) -> dict[str, BoardPoint]:
    """Return where each node lies on the form board, as in Laid.places."""
    return laid(tree).places


def laid(tree: Tree) -> Laid:
    """Return how a harness lies on its board."""
    main = trunk(tree)
    if not main:
        return Laid()
    try:
        found = _by_turns(tree, main)
    except _Crowded:
        found = _fanned(tree, main)
    left, top = (min(p[n] for p in found.places.values()) for n in (0, 1))
    found.places = {id: (round(x - left, 3), round(y - top, 3)) for id, (x, y) in found.places.items()}
    return found


def lies_towards(lies: Laid, heading: str) -> Laid:
    """Return how a harness lies with its trunk to the right turned to another heading: "down", "left" or "up"."""
    turns = {"down": (0, -1, 1, 0), "left": (-1, 0, 0, -1), "up": (0, 1, -1, 0)}
    if heading not in turns or not lies.places:
        return lies
    a, b, c, d = turns[heading]
    places = {id: (a * x + b * y, c * x + d * y) for id, (x, y) in lies.places.items()}
    left, top = (min(p[n] for p in places.values()) for n in (0, 1))
    return Laid({id: (round(x - left, 3), round(y - top, 3)) for id, (x, y) in places.items()}, lies.turned)


def _along_trunk(tree: Tree, main: list[str]) -> dict[str, BoardPoint]:
    placed = {main[0]: (0.0, 0.0)}
    for a, b in zip(main, main[1:], strict=False):
        placed[b] = (placed[a][0] + length_mm(way_between(tree, a, b)), 0.0)
    return placed


# -- by turns


def _by_turns(tree: Tree, main: list[str]) -> Laid:
    """Lay branches at right angles by turns, turned where they must be.

    Raises:
        _Crowded: one finds no free angle.
    """
    found = Laid(_along_trunk(tree, main))
    lines: list[BoardStroke] = [(found.places[a], found.places[b]) for a, b in zip(main, main[1:], strict=False)]
    turn = 0
    for node in main[1:-1]:
        for _, other in tree.beside[node]:
            if other not in found.places:
                turn += 1
                usual = -90.0 if turn % 2 else 90.0
                _branch(tree, found, lines, (node, other), (usual, -usual))
    return found


def _branch(
    tree: Tree, found: Laid, lines: list[BoardStroke], start: tuple[str, str], sides: tuple[float, float]
) -> None:
    """Lay a branch straight: its longest way at the first free angle, on its own side before the other."""
    root, first = start
    way = [root, *farthest(tree, first, frozenset(found.places))]
    spans = [next(s for s, o in tree.beside[a] if o == b) for a, b in zip(way, way[1:], strict=False)]
    wanted = spans[0].angle_deg if spans[0].angled else sides[0]
    for side in (wanted, *sides) if spans[0].angled else sides:
        for turn in TURNS_DEG:
            angle = side + turn
            angles = _angles(spans, angle)
            points = _chain(found.places[root], spans, angles)
            made = list(zip(points, points[1:], strict=False))
            if all(_clear(one, other) for one in made for other in lines) and _open(made):
                found.places.update(zip(way, points, strict=True))
                lines += made
                if angle != wanted:
                    found.turned.add(spans[0].id)
                _twigs(tree, found, lines, way, angles)
                return
    raise _Crowded


def _angles(spans: list[Segment], angle: float) -> list[float]:
    """Return the angle of each segment of a branch: that of the one before it, unless its own was chosen."""
    found = [angle]
    for span in spans[1:]:
        found.append(span.angle_deg if span.angled else found[-1])
    return found


def _open(made: list[BoardStroke]) -> bool:
    """Return whether the segments of a branch with bends keep clear of each other."""
    return all(_clear(one, other) for n, one in enumerate(made) for other in made[n + 1 :])


def _twigs(tree: Tree, found: Laid, lines: list[BoardStroke], way: list[str], angles: list[float]) -> None:
    lean = LEAN_DEG
    for node, angle in zip(way[1:], angles, strict=True):
        for _, other in tree.beside[node]:
            if other not in found.places:
                _branch(tree, found, lines, (node, other), (angle + lean, angle - lean))
                lean = -lean


def _chain(start: BoardPoint, spans: list[Segment], angles: list[float]) -> list[BoardPoint]:
    points = [start]
    for span, angle in zip(spans, angles, strict=True):
        x, y = points[-1]
        points.append((x + cos(radians(angle)) * span.length_mm, y + sin(radians(angle)) * span.length_mm))
    return points


def _clear(one: BoardStroke, other: BoardStroke) -> bool:
    """Return whether two segments keep clear: apart, or leaving a shared end at an angle."""
    for a, b in (one, one[::-1]):
        for c, d in (other, other[::-1]):
            if hypot(a[0] - c[0], a[1] - c[1]) < 1e-6:
                between = abs(degrees(atan2(b[1] - a[1], b[0] - a[0]) - atan2(d[1] - c[1], d[0] - c[0]))) % 360.0
                return min(between, 360.0 - between) >= LEAST_DEG
    return _apart(one, other) >= CLEAR_MM


def _apart(one: BoardStroke, other: BoardStroke) -> float:
    """Return how far two segments are apart, 0 when they cross."""
    (a, b), (c, d) = one, other
    if _side(a, b, c) * _side(a, b, d) < 0 and _side(c, d, a) * _side(c, d, b) < 0:
        return 0.0
    return min(_away(a, other), _away(b, other), _away(c, one), _away(d, one))


def _side(a: BoardPoint, b: BoardPoint, c: BoardPoint) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def _away(p: BoardPoint, line: BoardStroke) -> float:
    """Return how far a point is from a segment."""
    (ax, ay), (bx, by) = line
    dx, dy = bx - ax, by - ay
    square = dx * dx + dy * dy
    t = min(max(((p[0] - ax) * dx + (p[1] - ay) * dy) / square, 0.0), 1.0) if square else 0.0
    return hypot(p[0] - ax - t * dx, p[1] - ay - t * dy)


# -- fanned out


def _fanned(tree: Tree, main: list[str]) -> Laid:
    """Lay every branch in a sector of its own: those on the left lean to the left, those on the right to the right.

    The sectors of a side follow each other from the left end of the trunk to the right, none overlaps another and what
    lies in one never leaves it, so that no two branches meet.
    """
    found = Laid(_along_trunk(tree, main))
    heads = [(node, other) for node in main[1:-1] for _, other in tree.beside[node] if other not in found.places]
    sides: tuple[list[tuple[str, str]], list[tuple[str, str]]] = ([], [])
    loads = [0, 0]
    for node, other in heads:  # the side with fewer ends takes the next branch
        side = 0 if loads[0] <= loads[1] else 1
        sides[side].append((node, other))
        loads[side] += _ends(tree, node, other)
    for up, branches in zip((-1.0, 1.0), sides, strict=True):
        total = sum(_ends(tree, *b) for b in branches)
        begin = 180.0 - EDGE_DEG
        for node, other in branches:
            end = begin - (180.0 - 2 * EDGE_DEG) * _ends(tree, node, other) / total
            _sector(tree, found, (node, other), (end, begin), up)
            begin = end
    return found


def _ends(tree: Tree, root: str, first: str) -> int:
    """Return how many ends a branch has."""
    return sum(len(tree.beside[node]) == 1 for node in _within(tree, root, first)) or 1


def _within(tree: Tree, root: str, first: str) -> Iterator[str]:
    seen = {root}
    waiting = [first]
    while waiting:
        node = waiting.pop()
        if node not in seen:
            seen.add(node)
            yield node
            waiting += [other for _, other in tree.beside[node]]


def _sector(tree: Tree, found: Laid, start: tuple[str, str], sector: tuple[float, float], up: float) -> None:
    """Lay a branch along the middle of its sector, and what leaves it in shares of that."""
    root, node = start
    low, high = sector
    segment = next(s for s, other in tree.beside[root] if other == node)
    middle = radians((low + high) / 2)
    x, y = found.places[root]
    found.places[node] = (x + segment.length_mm * cos(middle), y + up * segment.length_mm * sin(middle))
    found.turned.add(segment.id)
    further = [other for _, other in tree.beside[node] if other not in found.places]
    total = sum(_ends(tree, node, other) for other in further)
    begin = high
    for other in further:
        end = begin - (high - low) * _ends(tree, node, other) / total
        _sector(tree, found, (node, other), (end, begin), up)
        begin = end
