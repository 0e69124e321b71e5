"""Lanes: the ducts of a plate as a graph, and the shortest way through it.

Terms: a *lane* is the centre line of a duct. Two lanes meet in a *node* where they cross, or where one ends within half
the width of the other. An *entry* is the point of the nearest lane at which a wire from a pin goes in. All in mm.
"""

from __future__ import annotations

import heapq
from collections.abc import Sequence
from dataclasses import dataclass, field

from jolly_core.model import RuleError

TOLERANCE_MM = 1.0
Point = tuple[float, float]


@dataclass(slots=True, frozen=True)
class Lane:
    """A level or upright centre line, its first point left of or above its second, and the duct's width."""

    id: str
    x1: float
    y1: float
    x2: float
    y2: float
    width: float

    @property
    def level(self) -> bool:
        """Whether it runs from left to right."""
        return self.y1 == self.y2

    def span(self) -> tuple[float, float]:
        """Return from where to where it runs along its own direction."""
        return (self.x1, self.x2) if self.level else (self.y1, self.y2)

    def at(self, along: float) -> Point:
        """Return the point at a position along it."""
        return (along, self.y1) if self.level else (self.x1, along)

    def along(self, point: Point) -> float:
        """Return the position along it that is nearest to a point, extended lanes included."""
        return point[0] if self.level else point[1]


def lane(id: str, x1: float, y1: float, x2: float, y2: float, width: float) -> Lane:
    """Return a lane with its points in order.

    Raises:
        RuleError: it is slanted or has no length.
    """
    if (x1 != x2) == (y1 != y2):
        raise RuleError("A duct runs level or upright and has a length.", field="points", ids=(id,))
    (ax, ay), (bx, by) = sorted(((x1, y1), (x2, y2)))
    return Lane(id, ax, ay, bx, by, width)


@dataclass(slots=True, frozen=True)
class Entry:
    """Where a wire goes into the lanes: index of the lane, position along it, the point, distance from the pin."""

    lane: int
    along: float
    point: Point
    distance: float


@dataclass(slots=True)
class Way:
    """A way along lanes: length in mm, corner points, and for each lane used its id and from where to where."""

    length: float
    points: list[Point]
    stretches: list[tuple[str, float, float]] = field(default_factory=list)


class LaneGraph:
    """The lanes of a plate. One tree of shortest ways is made for each node asked from, and kept."""

    def __init__(self, lanes: Sequence[Lane]) -> None:
        self.lanes = list(lanes)
        self.nodes: list[Point] = []
        self._on: list[list[tuple[float, int]]] = [[] for _ in self.lanes]
        self._roads: list[list[tuple[int, float, int]]] = []
        self._trees: dict[int, tuple[list[float], list[tuple[int, int]]]] = {}
        self._join()

    def _join(self) -> None:
        known: dict[Point, int] = {}

        def node(point: Point) -> int:
            if point not in known:
                known[point] = len(self.nodes)
                self.nodes.append(point)
            return known[point]

        for n, a in enumerate(self.lanes):
            marks = {along: node(a.at(along)) for along in a.span()}
            for b in self.lanes:
                if b is a or a.level == b.level:
                    continue
                if _reaches(a, b) and _reaches(b, a):
                    crossing = (b.x1, a.y1) if a.level else (a.x1, b.y1)
                    marks[a.along(crossing)] = node(crossing)
            self._on[n] = sorted(marks.items())
        self._roads = [[] for _ in self.nodes]
        for n, marks_on in enumerate(self._on):
            for (p, one), (q, other) in zip(marks_on, marks_on[1:], strict=False):
                self._roads[one].append((other, q - p, n))
                self._roads[other].append((one, q - p, n))
        for one, point in enumerate(self.nodes):  # lanes of one line that touch end to end
            for other in range(one + 1, len(self.nodes)):
                gap = abs(point[0] - self.nodes[other][0]) + abs(point[1] - self.nodes[other][1])
                if gap <= TOLERANCE_MM:
                    self._roads[one].append((other, gap, -1))
                    self._roads[other].append((one, gap, -1))

    def entry(self, pin: Point) -> Entry:
        """Return where a wire from a point goes into the lanes: the nearest point of any; the first lane wins a tie.

        Raises:
            RuleError: there are no lanes.
        """
        best: Entry | None = None
        for n, one in enumerate(self.lanes):
            low, high = self._on[n][0][0], self._on[n][-1][0]
            along = min(max(one.along(pin), low), high)
            point = one.at(along)
            distance = abs(point[0] - pin[0]) + abs(point[1] - pin[1])
            if best is None or distance < best.distance - 1e-9:
                best = Entry(n, along, point, distance)
        if best is None:
            raise RuleError("There is no duct on the plate yet. Draw one, so that wires have a way.", field="ducts")
        return best

    def way(self, start: Entry, end: Entry) -> Way:
        """Return the shortest way along lanes between two entries.

        Raises:
            RuleError: the ducts do not hang together, so that there is no way.
        """
        best: Way | None = None
        if start.lane == end.lane:
            stretch = (self.lanes[start.lane].id, start.along, end.along)
            best = Way(abs(start.along - end.along), [start.point, end.point], [stretch])
        for here, first in self._beside(start):
            lengths, before = self._tree(here)
            for there, last in self._beside(end):
                total = first + lengths[there] + last
                if total < float("inf") and (best is None or total < best.length - 1e-9):
                    best = self._traced(start, end, here, there, before, total)
        if best is None:
            names = f"{start.point[0]:g}, {start.point[1]:g} and {end.point[0]:g}, {end.point[1]:g}"
            raise RuleError(f"There is no way through the ducts between {names}. Join the ducts.", field="ducts")
        return best

    def _beside(self, entry: Entry) -> list[tuple[int, float]]:
        """Return the nodes before and after an entry on its lane, with the distance to each."""
        found: list[tuple[int, float]] = []
        marks = self._on[entry.lane]
        below = [m for m in marks if m[0] <= entry.along + 1e-9]
        above = [m for m in marks if m[0] >= entry.along - 1e-9]
        for along, node in (*below[-1:], *above[:1]):
            if all(node != n for n, _ in found):
                found.append((node, abs(along - entry.along)))
        return found

    def _tree(self, source: int) -> tuple[list[float], list[tuple[int, int]]]:
        """Return the distance of every node from one, and for each the node before it and the lane between."""
        if source not in self._trees:
            lengths = [float("inf")] * len(self.nodes)
            before = [(-1, -1)] * len(self.nodes)
            lengths[source] = 0.0
            queue = [(0.0, source)]
            while queue:
                length, node = heapq.heappop(queue)
                if length > lengths[node]:
                    continue
                for other, step, n in self._roads[node]:
                    total = length + step
                    if total < lengths[other]:
                        lengths[other] = total
                        before[other] = (node, n)
                        heapq.heappush(queue, (total, other))
            self._trees[source] = (lengths, before)
        return self._trees[source]

    def _traced(
        self, start: Entry, end: Entry, here: int, there: int, before: list[tuple[int, int]], total: float
    ) -> Way:
        steps: list[tuple[int, Point, Point]] = [(end.lane, self.nodes[there], end.point)]
        node = there
        while node != here:
            previous, n = before[node]
            steps.append((n, self.nodes[previous], self.nodes[node]))
            node = previous
        steps.append((start.lane, start.point, self.nodes[here]))
        way = Way(total, [start.point])
        for n, a, b in reversed(steps):
            if a == b:
                continue
            way.points.append(b)
            if n >= 0:
                one = self.lanes[n]
                start_at = one.along(a)
                if way.stretches and way.stretches[-1][0] == one.id:
                    start_at = way.stretches.pop()[1]
                way.stretches.append((one.id, start_at, one.along(b)))
        return way


def _reaches(a: Lane, b: Lane) -> bool:
    """Return whether a lane comes to the line of another that runs across it, within half that duct's width."""
    low, high = a.span()
    across = b.x1 if a.level else b.y1
    slack = b.width / 2 + TOLERANCE_MM
    return low - slack <= across <= high + slack
