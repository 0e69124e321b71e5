"""Connections: the single conductors from pin to pin that a net is wired with.

A net of n pins has n - 1 connections. Which, follows from what is drawn: starting at the leftmost, then topmost pin,
again and again the pair is joined of a joined pin with room left and an unjoined pin that are nearest along the
strokes.
"""

from __future__ import annotations

import heapq
from collections import defaultdict
from dataclasses import dataclass

from jolly_core.drawing import Point
from jolly_core.model import Project

from .nets import Group, PinKey, sheet_groups

SHEET_CHANGE_STEPS = 1000
PIN_ROOM = 2
Node = tuple[str, int, int]  # sheet id, x, y
_Link = tuple[int, tuple[int, int, int], tuple[int, int, int], PinKey, PinKey]  # steps, ranks of end and start, both
_NO_WAY = (SHEET_CHANGE_STEPS * 1000, "")


@dataclass(slots=True, frozen=True)
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


def connections(project: Project, net: list[Group], room: dict[PinKey, int] | None = None) -> list[Connection]:
    """Return the conductors of a net in the order they are joined.

    Args:
        net: all groups of the net.
        room: how many conductors a pin takes where it is not PIN_ROOM.

    Notes:
        With all joined pins full, the nearest one is used all the same; the checks say so. A change of sheet counts
        as SHEET_CHANGE_STEPS. Ties go to the pin further left, then higher. About p times (p + n log n) for p pins and
        n strokes.

    Example:
        Pins A(0,0) B(10,0) C(20,0) D(10,8) on wires A-B-C and B-D give A-B, B-D, D-C; with room for three on B they
        give A-B, B-D, B-C.
    """
    points: dict[PinKey, Node] = {}
    for group in net:
        located = sheet_groups(project, group.sheet_id).points
        for pin in group.pins:
            points[pin] = (group.sheet_id, *located[pin])
    if len(points) < 2:
        return []
    roads = _roads(project, net)
    order = {pin: _rank(project, node) for pin, node in points.items()}
    left = sorted(points, key=lambda p: (order[p], p))
    first = left.pop(0)
    spare = {pin: (room or {}).get(pin, PIN_ROOM) for pin in points}
    ways: dict[PinKey, dict[Node, tuple[int, str]]] = {}
    best: dict[PinKey, _Link] = {}
    result: list[Connection] = []

    def link(a: PinKey, b: PinKey) -> _Link:
        return ways[a].get(points[b], _NO_WAY)[0], order[b], order[a], a, b

    def join(pin: PinKey) -> None:
        """Take a pin into the joined ones, and offer it to those that are left."""
        ways[pin] = _distances(roads, points[pin])
        if spare[pin] > 0:
            for b in left:
                offered = link(pin, b)
                if b not in best or offered < best[b]:
                    best[b] = offered

    join(first)
    while left:
        if not best:  # all joined pins are full: the nearest is used all the same
            best = {b: min(link(a, b) for a in ways) for b in left}
        _, _, _, start, end = min(best.values())
        steps, wire_id = ways[start].get(points[end], (0, ""))
        result.append(Connection(start, end, wire_id, steps))
        spare[start] -= 1
        spare[end] -= 1
        left.remove(end)
        del best[end]
        if spare[start] <= 0:
            free = [a for a in ways if spare[a] > 0]
            for b in [b for b in best if best[b][3] == start]:
                del best[b]
                if free:
                    best[b] = min(link(a, b) for a in free)
        join(end)
    return result


def _rank(project: Project, node: Node) -> tuple[int, int, int]:
    return project.sheets[node[0]].order, node[1], node[2]


def _roads(project: Project, net: list[Group]) -> dict[Node, list[tuple[Node, int, str]]]:
    roads: dict[Node, list[tuple[Node, int, str]]] = defaultdict(list)
    marks: list[Node] = []
    for group in net:
        for id in group.wires:
            w = project.wires[id]
            a, b = (w.sheet_id, w.x1, w.y1), (w.sheet_id, w.x2, w.y2)
            length = w.x2 - w.x1 + w.y2 - w.y1
            roads[a].append((b, length, id))
            roads[b].append((a, length, id))
        for id in group.continuations:
            c = project.continuations[id]
            marks.append((c.sheet_id, c.x, c.y))
    for i, a in enumerate(marks):
        for b in marks[i + 1 :]:
            steps = 0 if a[0] == b[0] else SHEET_CHANGE_STEPS
            roads[a].append((b, steps, ""))
            roads[b].append((a, steps, ""))
    return roads


def _distances(roads: dict[Node, list[tuple[Node, int, str]]], start: Node) -> dict[Node, tuple[int, str]]:
    """Return for each node the steps from `start` and the wire by which the way leaves it."""
    found: dict[Node, tuple[int, str]] = {}
    queue: list[tuple[int, Node, str]] = [(0, start, "")]
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
        ends.append((sheet_id, *sheet_groups(project, sheet_id).points[pin]))
    before: dict[Node, tuple[Node, str]] = {}
    seen: set[Node] = set()
    queue: list[tuple[int, Node, Node | None, str]] = [(0, ends[0], None, "")]
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
    meeting: dict[Point, int] = defaultdict(int)
    for w in project.wires_on(sheet_id):
        meeting[w.x1, w.y1] += 1
        meeting[w.x2, w.y2] += 1
    for point in sheet_groups(project, sheet_id).points.values():
        if point in meeting:
            meeting[point] += 1
    return sorted(point for point, count in meeting.items() if count >= 3)
