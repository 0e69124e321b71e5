"""Connections: the single conductors from pin to pin that a net is wired with.

A net of n pins has n - 1 connections. Which, follows from what is drawn and where things are: place by place (see
places.py) the pins are joined among themselves, starting at the leftmost, then topmost pin, again and again the pair
of a joined pin with room left and an unjoined pin that are nearest along the strokes; then the places are joined by one
conductor each. Protective conductors are a star: each pin goes to the nearest hub of its place that has room.
"""

from __future__ import annotations

import heapq
from collections import defaultdict
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

from jolly_core.drawing import Point, is_protective, protective_types
from jolly_core.model import Project

from .nets import Group, PinKey, point_of, sheet_groups
from .places import Site, gates_missing, site_of, spread

SHEET_CHANGE_STEPS = 1000
DOT_ENDS = 3  # wire ends and pins that meet where a dot says that they are joined
# A place of no sheet: where the marks of a name on a sheet meet, and where the sheets of a name meet.
OFF = -1
Junction = tuple[str, int, int]  # sheet id, x, y
_Roads = dict[Junction, list[tuple[Junction, int, str]]]  # from each end of a wire to others: steps, and the wire
_Rank = tuple[int, int, int]
_Joint = tuple[int, _Rank, _Rank, PinKey, PinKey]  # steps, ranks of end and start, both
_NO_WAY = (SHEET_CHANGE_STEPS * 1000, "")
Pair = tuple[PinKey, PinKey]
Shortest = Callable[[list[PinKey], dict[PinKey, int]], list[Pair] | None]


@dataclass(slots=True)
class Connection:
    """One conductor.

    Attributes:
        start, end: the pins, in the order they were joined.
        wire_id: the drawn wire that the conductor leaves its start by; it gives type and colour. "" where pins touch.
        steps: length along the strokes in grid steps.
    """

    start: PinKey
    end: PinKey
    wire_id: str
    steps: int


def connections(
    project: Project,
    net: list[Group],
    room: dict[PinKey, int] | None = None,
    given: Iterable[Pair] = (),
    shortest: Shortest | None = None,
) -> list[Connection]:
    """Return the conductors of a net in the order they are joined.

    Args:
        net: all groups of the net.
        room: how many conductors a pin takes where that is not what its part says.
        given: pairs of pins that are joined in any case, without a ring; the others are joined to them.
        shortest: gives the pairs of the pins of one place by another measure, None where it has none.

    Notes:
        Pins with room for one conductor wait as long as others would go without, so that the room of each is kept
        where it can be. Where it cannot, the nearest pin is used all the same; a check says so. A change of
        sheet counts as SHEET_CHANGE_STEPS. Ties go to the pin further left, then higher. About p times (p + n log n)
        for p pins and n strokes.

    Example:
        Pins A(0,0) B(10,0) C(20,0) D(10,8) on wires A-B-C and B-D give A-B, B-D, D-C; with room for three on B they
        give A-B, B-D, B-C.
    """
    points: dict[PinKey, Junction] = {}
    for group in net:
        for pin in group.pins:
            points[pin] = (group.sheet_id, *point_of(project, pin))
    if len(points) < 2:
        return []
    if len(points) == 2 and not given:  # most nets
        return [_only(project, net, points)]
    return _Wiring(project, net, points, room or {}, shortest).wired(list(given))


def _only(project: Project, net: list[Group], points: dict[PinKey, Junction]) -> Connection:
    """Return the conductor of a net of two pins: from the first, or from the hub where one of them is one."""
    start, end = sorted(points, key=lambda p: (_rank(project, points[p]), p))
    if _leads_pe(project, net) and site_of(project, end).hub and not site_of(project, start).hub:
        start, end = end, start
    if len(net) == 1 and len(net[0].wires) == 1 and points[start] != points[end]:  # most of them: nothing to search
        wire = project.wires[net[0].wires[0]]
        return Connection(start, end, wire.id, wire.x2 - wire.x1 + wire.y2 - wire.y1)
    steps, wire_id = _distances(_roads(project, net), points[start]).get(points[end], (0, ""))
    return Connection(start, end, wire_id, steps)


def _leads_pe(project: Project, net: list[Group]) -> bool:
    types, wires = protective_types(project), project.wires
    return bool(types) and any(wires[id].type_id in types for g in net for id in g.wires)


def _leads_live(project: Project, net: list[Group]) -> bool:
    """Return whether a net has wires inside the panel that are no protective conductors: then it is bonded to one."""
    types = (project.wire_types.get(project.wires[id].type_id) for g in net for id in g.wires)
    return any(t is not None and t.category not in ("pe", "external") and not t.outside for t in types)


class _Wiring:
    """A net while its conductors are found."""

    def __init__(
        self,
        project: Project,
        net: list[Group],
        points: dict[PinKey, Junction],
        room: dict[PinKey, int],
        shortest: Shortest | None,
    ) -> None:
        self.points = points
        self.roads = _roads(project, net)
        self.order = {pin: _rank(project, node) for pin, node in points.items()}
        self.pins = sorted(points, key=lambda p: (self.order[p], p))
        self.sites = {pin: site_of(project, pin) for pin in self.pins}
        for pin, count in room.items():
            self.sites[pin] = replace(self.sites[pin], room=count)
        self.spare = {pin: site.room for pin, site in self.sites.items()}
        self.ways: dict[PinKey, dict[Junction, tuple[int, str]]] = {}
        self.result: list[Connection] = []
        self.shortest = shortest
        self.earthed = _leads_pe(project, net)
        self.protective = {id for g in net for id in g.wires if is_protective(project, project.wires[id])}
        self.bonded = self._at_earth(project) if self.earthed and _leads_live(project, net) else []

    def wired(self, given: list[Pair]) -> list[Connection]:
        """Return the conductors, the given ones first."""
        for a, b in given:
            self._add(a, b)
        trees = _trees(self.pins, given)
        hubs = [pin for pin in self.pins if self.sites[pin].hub]
        if self.bonded and not given:
            self._bond(hubs)
            return self.result
        if self.earthed and hubs and not given:
            self._star(hubs, self.pins)
            return self.result
        parts = spread(self.sites)
        if len(trees) == len(self.pins):
            grown = [self._grown(pins, reserve=len(parts) > 1) for pins in parts.values()]
        else:
            grown = trees
        self._join(grown)
        if not given and len(parts) > 1 and min(self.spare.values()) < 0:
            first = self.result, min(self.spare.values())
            self.spare = {pin: site.room for pin, site in self.sites.items()}
            self.result = []
            self._grown(self.pins, reserve=False)
            if min(self.spare.values()) <= first[1]:
                self.result = first[0]  # no better without the places
        return self.result

    def _way(self, pin: PinKey) -> dict[Junction, tuple[int, str]]:
        if pin not in self.ways:
            self.ways[pin] = _distances(self.roads, self.points[pin])
        return self.ways[pin]

    def _link(self, a: PinKey, b: PinKey) -> _Joint:
        return self._way(a).get(self.points[b], _NO_WAY)[0], self.order[b], self.order[a], a, b

    def _add(self, start: PinKey, end: PinKey) -> None:
        steps, wire_id = self._way(start).get(self.points[end], (0, ""))
        self.result.append(Connection(start, end, wire_id, steps))
        self.spare[start] -= 1
        self.spare[end] -= 1

    def _grown(self, pins: list[PinKey], *, reserve: bool) -> list[PinKey]:
        """Join pins among themselves, nearest first; with `reserve` one of them keeps room for a conductor more."""
        pairs = self.shortest(pins, self.spare) if self.shortest and len(pins) > 2 else None
        if pairs is not None:
            for a, b in pairs:
                self._add(a, b)
            return pins
        left = list(pins)
        first = left.pop(0)
        joined = [first]
        best: dict[PinKey, _Joint] = {}
        room = self.spare[first]  # of all joined pins together

        def offer(pin: PinKey) -> None:
            if self.spare[pin] > 0:
                way, rank = self._way(pin), self.order[pin]
                for b in left:
                    link = (way.get(self.points[b], _NO_WAY)[0], self.order[b], rank, pin, b)
                    if b not in best or link < best[b]:
                        best[b] = link

        offer(first)
        while left:
            if not best:  # all joined pins are full: the nearest is used all the same
                best.update({b: min(self._link(a, b) for a in joined) for b in left})
            keep = 1 if reserve or len(left) > 1 else 0
            kept = [link for b, link in best.items() if room - 2 + self.spare[b] >= keep]
            _, _, _, start, end = min(kept or best.values())
            room += self.spare[end] - 2
            self._add(start, end)
            left.remove(end)
            joined.append(end)
            best.pop(end)
            if self.spare[start] <= 0:
                free = [a for a in joined if self.spare[a] > 0 and a != end]
                for b in [b for b in best if best[b][3] == start]:
                    del best[b]
                    if free:
                        best[b] = min(self._link(a, b) for a in free)
            offer(end)
        return joined

    def _join(self, trees: list[list[PinKey]]) -> None:
        """Join trees of pins by one conductor each, by gates where a wall is passed, the nearest first."""
        joined, others = list(trees[0]), [list(t) for t in trees[1:]]
        while others:
            best: tuple[bool, int, _Joint] | None = None
            at = 0
            ready = [a for a in joined if self.spare[a] > 0] or joined
            for n, tree in enumerate(others):
                for b in [b for b in tree if self.spare[b] > 0] or tree:
                    for a in ready:
                        full = self.spare[a] <= 0 or self.spare[b] <= 0
                        offer = (full, gates_missing(self.sites[a], self.sites[b]), self._link(a, b))
                        if best is None or offer < best:
                            best, at = offer, n
            if best is None:
                return
            self._add(best[2][3], best[2][4])
            joined += others.pop(at)

    def _at_earth(self, project: Project) -> list[PinKey]:
        """Return the pins of a net of several kinds of wires at which the protective ones end, [] where all do."""
        found = []
        for pin in self.pins:
            wires = [project.wires[id] for _, _, id in self.roads.get(self.points[pin], ()) if id]
            if all(is_protective(project, w) for w in wires) if wires else self.sites[pin].hub:
                found.append(pin)
        return found if len(found) < len(self.pins) else []

    def _bond(self, hubs: list[PinKey]) -> None:
        """Join the protective pins and the others by one conductor, where it is drawn, and wire each by themselves."""
        others = [pin for pin in self.pins if pin not in self.bonded]
        own = [pin for pin in hubs if pin in self.bonded]
        drawn = self._drawn_bond(own or self.bonded, others)
        if drawn is not None:
            self._add(*drawn)
        self._grow_by_place(others)
        if own:
            self._star(own, self.bonded)
        else:
            self._grow_by_place(self.bonded)

        def between(pair: Pair) -> tuple[bool, bool, int, _Joint]:
            a, b = pair
            full = self.spare[a] <= 0 or self.spare[b] <= 0
            there, here = self.sites[a], self.sites[b]
            return full, there.place != here.place, gates_missing(there, here), self._link(a, b)

        if drawn is None:
            self._add(*min(((a, b) for a in own or self.bonded for b in others), key=between))

    def _drawn_bond(self, earthed: list[PinKey], others: list[PinKey]) -> Pair | None:
        """Return the two pins that are nearest to where strokes of both kinds meet, each along strokes of its own.

        Of several such places that with the shortest conductor; None where the two kinds meet nowhere.
        """
        sides: tuple[_Roads, _Roads] = {}, {}
        for node, roads in self.roads.items():
            for road in roads:
                kinds = (0, 1) if not road[2] else (0,) if road[2] in self.protective else (1,)
                for kind in kinds:
                    sides[kind].setdefault(node, []).append(road)
        best: tuple[int, Junction, Pair] | None = None
        for node in sorted(self.roads):
            kinds_here = {wire in self.protective for _, _, wire in self.roads[node] if wire}
            if len(kinds_here) < 2:
                continue
            ends = []
            for side, pins in zip(sides, (earthed, others), strict=True):
                ways = _distances(side, node)
                ways.setdefault(node, (0, ""))
                at = [(ways[self.points[p]][0], self.order[p], p) for p in pins if self.points[p] in ways]
                ends.append(min(at, default=None))
            if ends[0] is not None and ends[1] is not None:
                offer = (ends[0][0] + ends[1][0], node, (ends[0][2], ends[1][2]))
                best = offer if best is None or offer < best else best
        return None if best is None else best[2]

    def _grow_by_place(self, pins: list[PinKey]) -> None:
        self._join([self._grown(part, reserve=False) for part in spread({p: self.sites[p] for p in pins}).values()])

    def _star(self, hubs: list[PinKey], pins: list[PinKey]) -> None:
        """Lead each pin to the nearest hub of its place that has room, the hubs to each other."""
        self._grow_by_place(hubs)
        for pin in pins:
            if not self.sites[pin].hub:
                site = self.sites[pin]

                def away(hub: PinKey, site: Site = site, pin: PinKey = pin) -> tuple[bool, bool, int, _Joint]:
                    there = self.sites[hub]
                    return (
                        self.spare[hub] <= 0,
                        there.place != site.place,
                        gates_missing(there, site),
                        self._link(hub, pin),
                    )

                self._add(min(hubs, key=away), pin)


def _trees(pins: list[PinKey], pairs: list[Pair]) -> list[list[PinKey]]:
    """Return the pins in the trees that pairs join them to, each in the order of the pins."""
    root = {pin: pin for pin in pins}

    def find(pin: PinKey) -> PinKey:
        while root[pin] != pin:
            pin = root[pin]
        return pin

    for a, b in pairs:
        root[find(b)] = find(a)
    found: dict[PinKey, list[PinKey]] = {}
    for pin in pins:
        found.setdefault(find(pin), []).append(pin)
    return list(found.values())


def _rank(project: Project, node: Junction) -> tuple[int, int, int]:
    return project.sheets[node[0]].order, node[1], node[2]


def _roads(project: Project, net: list[Group]) -> _Roads:
    """Return where one gets from each end of a wire: along wires, and from mark to mark.

    Marks of one name are joined through a node of their sheet, and sheets through one of the name: a common of hundreds
    of sheets has as many roads as marks, and not one for each two of them. From one name to another the way leads along
    the strokes between them. No wire begins at these nodes, left of every sheet.
    """
    roads: _Roads = defaultdict(list)
    places: dict[str, int] = {}  # the nodes of the names are one above the other
    for group in net:
        for id in group.wires:
            w = project.wires[id]
            a, b = (w.sheet_id, w.x1, w.y1), (w.sheet_id, w.x2, w.y2)
            length = w.x2 - w.x1 + w.y2 - w.y1
            roads[a].append((b, length, id))
            roads[b].append((a, length, id))
        for id in group.continuations:
            c = project.continuations[id]
            row = places.setdefault(c.name, OFF - len(places))
            mark, sheet, away = (c.sheet_id, c.x, c.y), (c.sheet_id, OFF, row), ("", OFF, row)
            roads[mark].append((sheet, 0, ""))
            if sheet not in roads:
                roads[sheet].append((away, SHEET_CHANGE_STEPS, ""))
                roads[away].append((sheet, 0, ""))
            roads[sheet].append((mark, 0, ""))
    return roads


def _distances(roads: _Roads, start: Junction) -> dict[Junction, tuple[int, str]]:
    """Return for each node the steps from `start` and the wire by which the way leaves it."""
    found: dict[Junction, tuple[int, str]] = {start: (0, "")}
    waiting: list[tuple[Junction, Junction | None]] = [(start, None)]
    while waiting:  # nearly all nets are drawn without a ring: there is one way to each node, and nothing to search
        node, before = waiting.pop()
        steps, first = found[node]
        back = 0
        for other, length, wire_id in roads.get(node, ()):
            if other == before:
                back += 1
            elif other in found:
                return _searched(roads, start)
            else:
                found[other] = (steps + length, first or wire_id)
                waiting.append((other, node))
        if back > 1:
            return _searched(roads, start)
    return found


def _searched(roads: _Roads, start: Junction) -> dict[Junction, tuple[int, str]]:
    """Return what `_distances` does of a net with rings."""
    found: dict[Junction, tuple[int, str]] = {}
    queue: list[tuple[int, Junction, str]] = [(0, start, "")]
    while queue:
        steps, node, first = heapq.heappop(queue)
        if node in found:
            continue
        found[node] = (steps, first)
        for other, length, wire_id in roads.get(node, ()):
            if other not in found:
                heapq.heappush(queue, (steps + length, other, first or wire_id))
    return found


def way_of(project: Project, net: list[Group], connection: Connection) -> list[str]:
    """Return the ids of the drawn wires that a connection of the net runs along, from its start to its end."""
    roads = _roads(project, net)
    ends = []
    for pin in (connection.start, connection.end):
        sheet_id = project.symbols[pin[0]].sheet_id
        ends.append((sheet_id, *point_of(project, pin)))
    before: dict[Junction, tuple[Junction, str]] = {}
    seen: set[Junction] = set()
    queue: list[tuple[int, Junction, Junction | None, str]] = [(0, ends[0], None, "")]
    while queue:
        steps, node, previous, wire_id = heapq.heappop(queue)
        if node in seen:
            continue
        seen.add(node)
        if previous is not None:
            before[node] = (previous, wire_id)
        if node == ends[1]:
            break
        for other, length, id in roads.get(node, ()):
            if other not in seen:
                heapq.heappush(queue, (steps + length, other, node, id))
    way: list[str] = []
    node = ends[1]
    while node in before:
        node, wire_id = before[node]
        if wire_id:
            way.append(wire_id)
    return way[::-1]


def dots(project: Project, sheet_id: str) -> list[Point]:
    """Return the points of a sheet where three or more wire ends and pins meet."""
    return sorted(point for group in sheet_groups(project, sheet_id).groups for point in dots_of(project, group))


def dots_of(project: Project, group: Group) -> list[Point]:
    """Return the points of a group where three or more wire ends and pins meet."""
    if 2 * len(group.wires) + len(group.pins) < DOT_ENDS:
        return []
    meeting: dict[Point, int] = defaultdict(int)
    for id in group.wires:
        w = project.wires[id]
        meeting[w.x1, w.y1] += 1
        meeting[w.x2, w.y2] += 1
    for pin in group.pins:
        point = point_of(project, pin)
        if point in meeting:
            meeting[point] += 1
    return sorted(point for point, count in meeting.items() if count >= DOT_ENDS)
