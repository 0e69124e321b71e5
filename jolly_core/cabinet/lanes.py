"""Lanes: the ducts of a plate as a graph, and the shortest way through it.

Terms: a *lane* is the centre line of a duct. Two lanes meet in a *node* where they cross, or where one ends within half
the width of the other. An *entry* is the point of the nearest lane at which a wire from a pin goes in. All in mm.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass, field
from heapq import heappop, heappush

from jolly_core.model import RuleError

TOLERANCE_MM = 1.0
FAR = float("inf")
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


@dataclass(slots=True, frozen=True)
class _Found:
    """A shortest way between two nodes: its length, and (node, lane index, next node) of each step."""

    length: float
    steps: list[tuple[int, int, int]]


class LaneGraph:
    """The lanes of a plate. A way between two nodes is searched once and kept.

    Lanes run level or upright, so that no way is shorter than the square distance. What goes straight at its target is
    done without a search; a search led by that distance (A*) looks at few nodes beside the way itself.
    """

    def __init__(self, lanes: Sequence[Lane]) -> None:
        self.lanes = list(lanes)
        self.nodes: list[Point] = []
        self._on: list[list[tuple[float, int]]] = [[] for _ in self.lanes]
        self._roads: list[list[tuple[int, float, int]]] = []
        self._ways: dict[tuple[int, int], _Found] = {}
        self._join()
        # From where to where wires may enter each lane, and where it lies across: level ones, then upright ones.
        self._levels = [one.level for one in self.lanes]
        spans = [(marks[0][0], marks[-1][0], n) for n, marks in enumerate(self._on)]
        self._level = sorted((self.lanes[span[2]].y1, *span) for span in spans if self._levels[span[2]])
        self._upright = sorted((self.lanes[span[2]].x1, *span) for span in spans if not self._levels[span[2]])

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
                if b is a:
                    continue
                if a.level == b.level:
                    # Lanes that lie on one line and overlap: each is joined to the other at its ends.
                    for point in (b.at(along) for along in b.span()):
                        if a.at(a.along(point)) == point and a.span()[0] <= a.along(point) <= a.span()[1]:
                            marks[a.along(point)] = node(point)
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
        ends = sorted({node for marks_on in self._on for _, node in (marks_on[0], marks_on[-1])})
        for n, one in enumerate(ends):  # lanes of one line that touch end to end
            for other in ends[n + 1 :]:
                gap = self._apart(one, other)
                if gap <= TOLERANCE_MM:
                    self._roads[one].append((other, gap, -1))
                    self._roads[other].append((one, gap, -1))

    def entry(self, pin: Point) -> Entry:
        """Return where a wire from a point goes into the lanes: the nearest point of any; the first lane wins a tie.

        Raises:
            RuleError: there are no lanes.
        """
        x, y = pin
        best, found = FAR, -1
        for lanes, along, across in ((self._level, x, y), (self._upright, y, x)):
            # From where the pin lies outwards on either side, until the lanes lie farther off than the nearest found.
            place = bisect_left(lanes, (across,))
            for order in (range(place, len(lanes)), range(place - 1, -1, -1)):
                for at in order:
                    lies, low, high, n = lanes[at]
                    distance = lies - across if lies > across else across - lies
                    if distance > best + 1e-9:
                        break
                    if along < low:
                        distance += low - along
                    elif along > high:
                        distance += along - high
                    if distance < best - 1e-9 or (n < found and distance <= best + 1e-9):
                        best, found = distance, n
        if found < 0:
            raise RuleError("There is no duct on the plate yet. Draw one, so that wires have a way.", field="ducts")
        marks = self._on[found]
        position = min(max(self.lanes[found].along(pin), marks[0][0]), marks[-1][0])
        return Entry(found, position, self.lanes[found].at(position), best)

    def way(self, start: Entry, end: Entry) -> Way:
        """Return the shortest way along lanes between two entries.

        Raises:
            RuleError: the ducts do not hang together, so that there is no way.
        """
        best = FAR
        chosen: tuple[int, int] | None = None
        if start.lane == end.lane:
            best = abs(start.along - end.along)
        # No way along lanes is shorter than the square distance: whoever cannot win by that is not looked at.
        pairs = [
            (first + self._apart(here, there) + last, first + last, here, there)
            for here, first in self._beside(start)
            for there, last in self._beside(end)
        ]
        for bound, ends, here, there in sorted(pairs):
            if bound >= best - 1e-9:
                break
            total = ends + self._search(here, there).length
            if total < best - 1e-9:
                best, chosen = total, (here, there)
        if best == FAR:
            names = f"{start.point[0]:g}, {start.point[1]:g} and {end.point[0]:g}, {end.point[1]:g}"
            raise RuleError(f"There is no way through the ducts between {names}. Join the ducts.", field="ducts")
        if chosen is None:
            stretch = (self.lanes[start.lane].id, start.along, end.along)
            return Way(best, [start.point, end.point], [stretch])
        return self._traced(start, end, *chosen, best)

    def _apart(self, a: int, b: int) -> float:
        (ax, ay), (bx, by) = self.nodes[a], self.nodes[b]
        return abs(ax - bx) + abs(ay - by)

    def _beside(self, entry: Entry) -> list[tuple[int, float]]:
        """Return the nodes before and after an entry on its lane, with the distance to each."""
        marks = self._on[entry.lane]
        place = bisect_left(marks, (entry.along, -1))
        found = []
        if place < len(marks):
            found.append((marks[place][1], marks[place][0] - entry.along))
        if place and (not found or found[0][1] > 0):
            found.append((marks[place - 1][1], entry.along - marks[place - 1][0]))
        return found

    def _search(self, source: int, target: int) -> _Found:
        """Return the shortest way between two nodes, its length infinite when there is none."""
        known = self._ways.get((source, target)) or self._ways.get((target, source))
        if known is None:
            known = self._straight(source, target) or self._led(source, target)
            self._ways[source, target] = known
        return known

    def _straight(self, source: int, target: int) -> _Found | None:
        """Return a way whose every step brings the target nearer by its whole length, None when a first try has none.

        Such a way is as long as the square distance, so that none is shorter.
        """
        nodes, roads = self.nodes, self._roads
        tx, ty = nodes[target]
        whole = left = self._apart(source, target)
        steps: list[tuple[int, int, int]] = []
        node = source
        while node != target:
            for other, step, lane_index in roads[node]:
                x, y = nodes[other]
                rest = (x - tx if x > tx else tx - x) + (y - ty if y > ty else ty - y)
                if -1e-9 < left - step - rest < 1e-9:
                    steps.append((node, lane_index, other))
                    node, left = other, rest
                    break
            else:
                return None
        return _Found(whole, steps)

    def _led(self, source: int, target: int) -> _Found:
        nodes, roads = self.nodes, self._roads
        tx, ty = nodes[target]
        lengths = {source: 0.0}
        before: dict[int, tuple[int, int]] = {}
        shortest = lengths.get
        left = self._apart(source, target)
        # By the length a way would have at least, then by what is left of it: straight on before round about.
        queue: list[tuple[float, float, int, float]] = [(left, left, source, 0.0)]
        while queue:
            _, _, node, length = heappop(queue)
            if node == target:
                break
            if length > lengths[node]:
                continue
            for other, step, lane_index in roads[node]:
                total = length + step
                if total < shortest(other, FAR):
                    lengths[other] = total
                    before[other] = (node, lane_index)
                    x, y = nodes[other]
                    left = (x - tx if x > tx else tx - x) + (y - ty if y > ty else ty - y)
                    heappush(queue, (total + left, left, other, total))
        if target not in lengths:
            return _Found(FAR, [])
        steps = []
        node = target
        while node != source:
            previous, lane_index = before[node]
            steps.append((previous, lane_index, node))
            node = previous
        return _Found(lengths[target], steps[::-1])

    def _traced(self, start: Entry, end: Entry, here: int, there: int, total: float) -> Way:
        nodes = self.nodes
        points = [start.point]
        stretches: list[tuple[str, float, float]] = []
        inner = self._search(here, there).steps
        if inner and inner[0][0] != here:  # it was searched from the other end
            inner = [(b, n, a) for a, n, b in reversed(inner)]
        last = start.point
        current, begun = start.lane, start.along
        for n, point in ((start.lane, nodes[here]), *((n, nodes[b]) for _, n, b in inner), (end.lane, end.point)):
            if point == last:
                continue
            if n != current:
                if current >= 0:
                    self._stretch(stretches, current, begun, last)
                current = n
                begun = 0.0 if n < 0 else last[0] if self._levels[n] else last[1]
            points.append(point)
            last = point
        if current >= 0:
            self._stretch(stretches, current, begun, last)
        return Way(total, points, stretches)

    def _stretch(self, found: list[tuple[str, float, float]], n: int, begun: float, until: Point) -> None:
        along = until[0] if self._levels[n] else until[1]
        if along != begun:
            found.append((self.lanes[n].id, begun, along))


def _reaches(a: Lane, b: Lane) -> bool:
    """Return whether a lane comes to the line of another that runs across it, within half that duct's width."""
    low, high = a.span()
    across = b.x1 if a.level else b.y1
    slack = b.width / 2 + TOLERANCE_MM
    return low - slack <= across <= high + slack
