"""The network of lanes of a panel: ways into it, and the shortest way through it. All in mm.

Every mark on a piece is a *stop* of the network; changing from a piece to another costs next to nothing, so that of
ways of one length the one with fewer turns is found. An end of a crossing is two stops, one to go through it and one
behind it to come out at: a wire that comes near an end does not change lanes there without passing the crossing.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable, Sequence
from math import hypot
from typing import cast

from numpy import float64, int32
from numpy.typing import NDArray

from jolly_core.model import RuleError

from .pieces import LanePiece, PointMm, meetings
from .ways import FAR, TURN_MM, Axis, Entry, Leg, SurfaceLink, Way, apart, leaves, square

_OnWay = tuple[int, float, int, PointMm]  # piece and where along it, or -1 and a stop; and the point
_Lying = tuple[float, int, float, float, float]  # where a piece lies, its number, where it begins, first and last mark
_Distances = tuple[
    Sequence[float], Sequence[int]
]  # how far all stops are from one, and the stop before each on its way
FEW_STOPS = 1500  # so many are searched all at once
OUT = 1  # the stop behind that by which one goes into an end of a crossing
ALIKE_MM = 0.05  # ways in whose lengths differ by less are as good as each other


def _row_of(far: NDArray[float64], before: NDArray[int32]) -> _Distances:
    """Return a row of the search as something read by index: a list of so many stops costs more than the search."""
    return cast("_Distances", (far.data, before.data))


class Network:
    """The lanes of a panel with what joins its surfaces. A search from a stop is done once and kept."""

    def __init__(self, pieces: Sequence[LanePiece], links: Sequence[SurfaceLink] = (), reach_mm: float = 150.0) -> None:
        self.pieces, self.links, self.reach_mm = list(pieces), list(links), reach_mm
        self._marks: list[list[float]] = [[0.0, p.length] for p in self.pieces]
        gaps = meetings(self.pieces)
        for (a, at_a), (b, at_b), _ in gaps:
            self._marks[a].append(at_a)
            self._marks[b].append(at_b)
        self.surfaces = {p.surface for p in self.pieces}
        self._sort()
        ends = [(n, end) for n in range(len(self.links)) for end in (0, 1)]
        joined = {key: self._doors(*key) for key in ends}
        for found in joined.values():
            for entry in found:
                self._marks[entry.piece].append(entry.along)
        self._marks = [sorted({round(m, 6) for m in marks}) for marks in self._marks]
        self._number()
        self._connect(gaps, joined)
        self._rows: dict[int, _Distances] = {}
        self._sort()
        # No way is shorter than the square distance, where all is level and upright and no crossing is a short cut.
        self._plain = not self.links and not self._slanted

    def _sort(self) -> None:
        """Put the pieces of each surface in order of where they lie, so that near ones are found fast."""
        self._level: dict[str, list[_Lying]] = {}
        self._upright: dict[str, list[_Lying]] = {}
        self._slanted: dict[str, list[int]] = {}
        for n, p in enumerate(self.pieces):
            low, high = min(self._marks[n]), max(self._marks[n])
            if p.level:
                self._level.setdefault(p.surface, []).append((p.y1, n, p.x1, low, high))
            elif p.upright:
                self._upright.setdefault(p.surface, []).append((p.x1, n, p.y1, low, high))
            else:
                self._slanted.setdefault(p.surface, []).append(n)
        for order in (*self._level.values(), *self._upright.values()):
            order.sort()

    def _end(self, n: int, end: int) -> tuple[str, PointMm]:
        link = self.links[n]
        return (link.other, link.other_point) if end else (link.surface, link.point)

    def _doors(self, n: int, end: int) -> list[Entry]:
        """Return how the end of a crossing joins the lanes of its surface."""
        surface, point = self._end(n, end)
        if surface not in self.surfaces:
            return []
        return self.ways_in(surface, point, reach_mm=self.reach_mm)

    def _number(self) -> None:
        """Give each mark and each end of a crossing its number."""
        self._first: list[int] = []
        self.stops: list[tuple[int, float]] = []  # piece and along, or -1 and the number of the end
        self._points: list[PointMm] = []
        for n, marks in enumerate(self._marks):
            self._first.append(len(self.stops))
            self.stops += [(n, m) for m in marks]
            self._points += [self.pieces[n].at(m) for m in marks]
        self._ends: dict[str, list[int]] = {}
        self._door_of: dict[tuple[int, int], int] = {}
        for n in range(len(self.links)):
            for end in (0, 1):
                surface, point = self._end(n, end)
                self._door_of[n, end] = len(self.stops)
                self._ends.setdefault(surface, []).append(len(self.stops))
                self.stops += [(-1, 2.0 * n + end)] * 2  # to go in, and to come out
                self._points += [point] * 2

    def _connect(
        self,
        gaps: Iterable[tuple[tuple[int, float], tuple[int, float], float]],
        joined: dict[tuple[int, int], list[Entry]],
    ) -> None:
        rows: dict[tuple[int, int], float] = {}

        def lead(a: int, b: int, length: float) -> None:
            rows[a, b] = min(rows.get((a, b), FAR), length)

        def join(a: int, b: int, length: float) -> None:
            if a != b:
                lead(a, b, length)
                lead(b, a, length)

        for n, marks in enumerate(self._marks):
            first = self._first[n]
            for k in range(len(marks) - 1):
                join(first + k, first + k + 1, marks[k + 1] - marks[k])
        for (a, at_a), (b, at_b), gap in gaps:
            join(self._stop(a, at_a), self._stop(b, at_b), gap + TURN_MM)
        for (n, end), entries in joined.items():
            for entry in entries:
                door, stop = self._door_of[n, end], self._stop(entry.piece, entry.along)
                lead(stop, door, entry.distance + TURN_MM)
                lead(door + OUT, stop, entry.distance + TURN_MM)
        for surface, doors in self._ends.items():
            if surface not in self.surfaces:  # without lanes one passes from crossing to crossing
                for place, a in enumerate(doors):
                    for b in doors[place + 1 :]:
                        lead(a + OUT, b, apart(self._points[a], self._points[b]) + TURN_MM)
                        lead(b + OUT, a, apart(self._points[a], self._points[b]) + TURN_MM)
        for n, link in enumerate(self.links):
            one, other = self._door_of[n, 0], self._door_of[n, 1]
            lead(one, other + OUT, link.extra_mm + TURN_MM)
            lead(other, one + OUT, link.extra_mm + TURN_MM)
        ones = [a for a, _ in rows]
        others = [b for _, b in rows]
        size = len(self.stops)
        from scipy.sparse import csr_matrix  # it takes long to come, and not all who ask for a project ask for ways

        # a way of no length would be no way for the search: a joint always costs its turn
        self._matrix = csr_matrix((list(rows.values()), (ones, others)), shape=(size, size)) if rows else None

    def _stop(self, n: int, along: float) -> int:
        marks = self._marks[n]
        place = bisect_left(marks, round(along, 6) - 1e-6)
        return self._first[n] + min(place, len(marks) - 1)

    # -- ways in

    def ways_in(
        self, surface: str, pin: PointMm, *, axis: Axis = "", side: int = 0, reach_mm: float | None = None
    ) -> list[Entry]:
        """Return where a wire from a point may go into the lanes of its surface.

        Args:
            axis: "upright" for a pin that is left upwards or downwards, "level" for one left sideways, "" for any.
            side: -1 for one that is left upwards (to the left), 1 downwards (to the right), 0 for both.
            reach_mm: how far at most; the network's own when it is None.

        Returns:
            All within reach along the pin's own way out; where there is none, all within reach; where there is none
            either, the nearest. On a surface without lanes the ends of its crossings. () where there are neither.
        """
        if surface not in self.surfaces:
            ends = self._ends.get(surface, ())
            return [Entry(-1, self.stops[s][1], s, self._points[s], apart(self._points[s], pin), pin) for s in ends]
        reach = self.reach_mm if reach_mm is None else reach_mm
        near = self._near(surface, pin, reach)
        if near:
            if axis:
                x, y = pin
                for wanted in (side, 0) if side else (0,):
                    own = [e for e in near if leaves(e.point[0] - x, e.point[1] - y, axis, wanted)]
                    if own:
                        return own
            return near
        every = self._near(surface, pin, FAR)
        return [min(every, key=lambda e: (e.distance, e.piece))] if every else []

    def _near(self, surface: str, pin: PointMm, reach: float) -> list[Entry]:
        x, y = pin
        found = []
        limit = reach + 1e-9
        for level, order, along, across in (
            (True, self._level.get(surface, ()), x, y),
            (False, self._upright.get(surface, ()), y, x),
        ):
            for lies, n, begin, low, high in order[bisect_left(order, (across - limit, -1)) :]:
                if lies > across + limit:
                    break
                foot = along - begin
                at = low if foot < low else high if foot > high else foot
                distance = abs(lies - across) + abs(foot - at)
                if distance <= limit:
                    point = (begin + at, lies) if level else (lies, begin + at)
                    found.append(Entry(n, at, -1, point, distance, pin))
        for n in self._slanted.get(surface, ()):
            p = self.pieces[n]
            at = min(max(p.along(pin), 0.0), p.length)
            point = p.at(at)
            distance = apart(point, pin)
            if distance <= reach + 1e-9:
                found.append(Entry(n, at, -1, point, distance, pin))
        return found

    # -- ways

    def way(self, starts: Sequence[Entry], ends: Sequence[Entry]) -> Way:
        """Return the shortest way from a point to another over all their ways in, free legs included.

        Raises:
            RuleError: the lanes do not hang together, so that there is no way.
        """
        best, chosen = FAR, None
        for bound, free, n, m in self._bounds(starts, ends):
            if bound >= best - ALIKE_MM:
                break
            start, end = starts[n], ends[m]
            if start.piece == end.piece >= 0:
                total = free + abs(start.along - end.along)
                if total < best - TURN_MM / 2:
                    best, chosen = total, (start, end, -1, -1)
            far_side = [(self._mirrored(stop), length) for stop, length in self._beside(end)]
            for here, first in self._beside(start):
                for there, last in far_side:
                    beyond = free + first + last
                    if self._plain and beyond + self._square(here, there) >= best - ALIKE_MM:
                        continue
                    total = beyond + self._length(here, there)
                    if total < best - TURN_MM / 2:
                        best, chosen = total, (start, end, here, there)
        if chosen is None:
            if not starts or not ends:
                raise RuleError("There is no duct on the plate yet. Draw one, so that wires have a way.", field="ducts")
            one, two = (min(entries, key=lambda e: e.distance).point for entries in (starts, ends))
            names = f"{one[0]:.4g}, {one[1]:.4g} and {two[0]:.4g}, {two[1]:.4g}"
            raise RuleError(f"There is no way through the ducts between {names}. Join the ducts.", field="ducts")
        return self._traced(*chosen)

    def _bounds(self, starts: Sequence[Entry], ends: Sequence[Entry]) -> list[tuple[float, float, int, int]]:
        """Return each pair of ways in with the least its way can be and its length outside lanes, the least first."""
        at = [(m, end.distance, *end.point) for m, end in enumerate(ends)]
        found = []
        for n, start in enumerate(starts):
            x, y = start.point
            out = start.distance
            if self._plain:
                found += [(out + d + abs(ex - x) + abs(ey - y), out + d, n, m) for m, d, ex, ey in at]
            else:
                found += [(out + d, out + d, n, m) for m, d, _, _ in at]
        found.sort()
        return found

    def _square(self, here: int, there: int) -> float:
        return apart(self._points[here], self._points[there])

    def _mirrored(self, stop: int) -> int:
        """Return the stop that is for the way back what this one is for the way there."""
        if self.stops[stop][0] >= 0:
            return stop
        n, end = divmod(int(self.stops[stop][1]), 2)
        first = self._door_of[n, end]
        return first + OUT if stop == first else first

    def _length(self, here: int, there: int) -> float:
        """Return how far it is from a stop to another, infinite when nothing joins them."""
        back = self._mirrored(there)
        if here not in self._rows and back in self._rows:
            here, there = back, self._mirrored(here)
        row = self._rows.get(here) or self._row(here)
        return row[0][there]

    def _beside(self, entry: Entry) -> list[tuple[int, float]]:
        """Return the stops before and after an entry on its piece, with the distance to each."""
        if entry.piece < 0:
            return [(entry.stop, 0.0)]
        marks, first = self._marks[entry.piece], self._first[entry.piece]
        place = bisect_left(marks, entry.along - 1e-6)
        if place < len(marks) and abs(marks[place] - entry.along) <= 1e-6:
            return [(first + place, 0.0)]
        found = []
        if place < len(marks):
            found.append((first + place, marks[place] - entry.along))
        if place:
            found.append((first + place - 1, entry.along - marks[place - 1]))
        return found

    def _row(self, stop: int) -> _Distances:
        """Return how far all stops are from one, and for each the stop before it on its way."""
        known = self._rows.get(stop)
        if known is None:
            from scipy.sparse.csgraph import dijkstra

            if self._matrix is None:
                lengths = [FAR] * len(self.stops)
                lengths[stop] = 0.0
                known = lengths, [-1] * len(self.stops)
            elif len(self.stops) <= FEW_STOPS:
                far, before = dijkstra(self._matrix, return_predecessors=True)
                self._rows = {n: _row_of(far[n], before[n]) for n in range(len(self.stops))}
                return self._rows[stop]
            else:
                far, before = dijkstra(self._matrix, indices=stop, return_predecessors=True)
                known = _row_of(far, before)
            self._rows[stop] = known
        return known

    def _traced(self, start: Entry, end: Entry, here: int, there: int) -> Way:
        stops: list[int] = []
        if here >= 0:
            back = self._mirrored(there)
            turned = here not in self._rows and back in self._rows
            first, stop = (back, self._mirrored(here)) if turned else (here, there)
            before = self._row(first)[1]
            stops = [stop]
            while stop != first:
                stop = before[stop]
                stops.append(stop)
            if not turned:
                stops.reverse()
        legs: list[Leg] = []
        if start.distance:
            legs.append(self._free(self._surface(start), start.pin, start.point, start.distance))
        at: _OnWay = (start.piece, start.along, start.stop, start.point)
        via: _OnWay | None = None  # passed when the way goes straight on
        for stop in stops:
            n, along = self.stops[stop]
            if via and not n == via[0] == at[0] >= 0:
                self._leg(legs, at, via)
                at = via
            via = (n, along, stop if n < 0 else -1, self._points[stop])
        if via and not end.piece == via[0] == at[0] >= 0:
            self._leg(legs, at, via)
            at = via
        self._leg(legs, at, (end.piece, end.along, end.stop, end.point))
        if end.distance:
            legs.append(self._free(self._surface(end), end.point, end.pin, end.distance))
        return Way(sum(leg.length for leg in legs), legs)

    def _surface(self, entry: Entry) -> str:
        return self.pieces[entry.piece].surface if entry.piece >= 0 else self._of_stop(entry.stop)

    def _of_stop(self, stop: int) -> str:
        n, along = self.stops[stop]
        return self.pieces[n].surface if n >= 0 else self._end(*divmod(int(along), 2))[0]

    @staticmethod
    def _free(surface: str, a: PointMm, b: PointMm, length: float) -> Leg:
        return Leg("free", "", length, surface, square(a, b))

    def _leg(self, legs: list[Leg], a: _OnWay, b: _OnWay) -> None:
        """Put down how a way goes from a place to the next: along a piece, over a joint, through a crossing."""
        from_point, to_point = a[3], b[3]
        if a[0] == b[0] >= 0:
            if a[1] != b[1]:
                p = self.pieces[a[0]]
                span = (p.before + a[1], p.before + b[1])
                legs.append(Leg("lane", p.id, abs(b[1] - a[1]), p.surface, (from_point, to_point), span))
            return
        if a[:2] == b[:2] or (a[0] >= 0 and b[0] >= 0 and from_point == to_point):
            return
        if a[0] < 0 and b[0] < 0:
            one, two = (self.stops[s][1] for s in (a[2], b[2]))
            if int(one) // 2 == int(two) // 2:
                link = self.links[int(one) // 2]
                legs.append(Leg("crossing", link.words, link.extra_mm, "", ()))
                return
        surface = self.pieces[a[0]].surface if a[0] >= 0 else self._of_stop(a[2])
        both = a[0] >= 0 and b[0] >= 0
        length = (
            hypot(to_point[0] - from_point[0], to_point[1] - from_point[1]) if both else apart(from_point, to_point)
        )
        if length > 1e-9:
            points: tuple[PointMm, ...] = (from_point, to_point) if both else square(from_point, to_point)
            legs.append(Leg("free", "joint" if both else "", length, surface, points))

    def stops_of(self, id: str) -> list[tuple[Entry, Entry, float, int]]:
        """Return the stretches of a lane between its stops: an entry at either end, their length, the piece."""
        found = []
        for n, p in enumerate(self.pieces):
            if p.id == id:
                marks = self._marks[n]
                for a, b in zip(marks, marks[1:], strict=False):
                    one, two = p.at(a), p.at(b)
                    found.append((Entry(n, a, -1, one, 0.0, one), Entry(n, b, -1, two, 0.0, two), b - a, n))
        return found

    def parts(self) -> list[list[int]]:
        """Return the pieces that hang together, as numbers; one list when all lanes do."""
        left = set(range(len(self.pieces)))
        found = []
        while left:
            first = min(left)
            lengths = self._row(self._first[first])[0]
            group = sorted(n for n in left if lengths[self._first[n]] < FAR)
            found.append(group)
            left -= set(group)
        return found
