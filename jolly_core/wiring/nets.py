"""Nets: what is joined by wires, touching pins and paired continuations, over all sheets.

Terms: a *group* is what the strokes of one sheet join. A *net* is the set of groups that continuation marks of one name
join. A *potential* is the set of nets that carrying terminals join; conductors end at the terminal, the potential does
not. Groups are kept for each sheet until something on it changes; nets are put together from them when asked for, so
that an edit costs its own sheet and no more.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

from jolly_core.drawing import Groups, Point, carried_pins, pin_points
from jolly_core.model import Project, Symbol

GroupKey = tuple[str, int]  # sheet id and index of the group on it
PinKey = tuple[str, int]  # symbol id and index of the pin


@dataclass(slots=True)
class Group:
    """What the strokes of one sheet join.

    Attributes:
        pins: pins in reading order of their points.
        first: topmost, then leftmost point, as (y, x).
        carried: keys of groups on the same sheet that a carrying terminal makes one potential with this one.
    """

    sheet_id: str
    index: int
    first: tuple[int, int]
    pins: list[PinKey] = field(default_factory=list)
    wires: list[str] = field(default_factory=list)
    continuations: list[str] = field(default_factory=list)
    carried: list[int] = field(default_factory=list)

    @property
    def key(self) -> GroupKey:
        """The group's name within the project."""
        return self.sheet_id, self.index


@dataclass(slots=True)
class SheetGroups:
    """All groups of a sheet, with the way from wires, pins and points to them."""

    groups: list[Group]
    of_wire: dict[str, int]
    of_pin: dict[PinKey, int]
    of_continuation: dict[str, int]
    points: dict[PinKey, Point]


def sheet_groups(project: Project, sheet_id: str) -> SheetGroups:
    """Return the groups of a sheet, kept until the sheet changes.

    Notes:
        Canonical wires end wherever they connect, so only end points need to be joined: linear in wires and pins.
    """
    kept: dict[str, tuple[int, SheetGroups]] = project.kept.setdefault("groups", {})
    stamp = project.sheet_stamp(sheet_id)
    known = kept.get(sheet_id)
    if known is not None and known[0] == stamp:
        return known[1]
    made = _group(project, sheet_id)
    kept[sheet_id] = (stamp, made)
    return made


def _group(project: Project, sheet_id: str) -> SheetGroups:
    joined = Groups()
    wires = project.wires_on(sheet_id)
    for w in wires:
        joined.union((w.x1, w.y1), (w.x2, w.y2))
    symbols = project.symbols_on(sheet_id)
    marks = project.continuations_on(sheet_id)
    pins: list[tuple[int, int, PinKey]] = []
    for s in symbols:
        for index, (x, y) in enumerate(pin_points(s)):
            pins.append((y, x, (s.id, index)))
    pins.sort()
    found = SheetGroups([], {}, {}, {}, {})
    index_of: dict[Point, int] = {}

    def group_at(x: int, y: int) -> Group:
        root = joined.find((x, y))
        index = index_of.get(root)
        if index is None:
            index = index_of[root] = len(found.groups)
            found.groups.append(Group(sheet_id, index, (y, x)))
        group = found.groups[index]
        group.first = min(group.first, (y, x))
        return group

    for w in wires:
        group = group_at(w.x1, w.y1)
        group.wires.append(w.id)
        found.of_wire[w.id] = group.index
    for y, x, pin in pins:
        group = group_at(x, y)
        group.pins.append(pin)
        found.of_pin[pin] = group.index
        found.points[pin] = (x, y)
    for c in marks:
        group = group_at(c.x, c.y)
        group.continuations.append(c.id)
        found.of_continuation[c.id] = group.index
    _carry(symbols, found)
    return found


def _carry(symbols: Iterable[Symbol], found: SheetGroups) -> None:
    for s in symbols:
        for a, b in carried_pins(s):
            first, second = found.of_pin[s.id, a], found.of_pin[s.id, b]
            if first != second:
                found.groups[first].carried.append(second)
                found.groups[second].carried.append(first)


def net_of(project: Project, start: GroupKey, *, potential: bool = False) -> list[Group]:
    """Return the groups of a group's net in the project's reading order.

    Args:
        start: any group of the net.
        potential: also pass through carrying terminals.
    """
    seen: dict[GroupKey, Group] = {}
    waiting = [start]
    while waiting:
        key = waiting.pop()
        if key in seen:
            continue
        group = sheet_groups(project, key[0]).groups[key[1]]
        seen[key] = group
        if potential:
            waiting += [(key[0], index) for index in group.carried]
        for id in group.continuations:
            for other in project.continuations_named.get(project.continuations[id].name):
                sheet_id = project.continuations[other].sheet_id
                waiting.append((sheet_id, sheet_groups(project, sheet_id).of_continuation[other]))
    if len(seen) == 1:
        return list(seen.values())
    return sorted(seen.values(), key=lambda g: reading_order(project, g))


def reading_order(project: Project, group: Group) -> tuple[int, str, int, int]:
    """Return a sort key: sheets in order, then top to bottom, then left to right."""
    return project.sheets[group.sheet_id].order, group.sheet_id, *group.first


def nets_of_sheet(project: Project, sheet_id: str, *, potential: bool = False) -> list[list[Group]]:
    """Return the nets that touch a sheet, each once."""
    seen: set[GroupKey] = set()
    nets = []
    for group in sheet_groups(project, sheet_id).groups:
        if group.key not in seen:
            net = net_of(project, group.key, potential=potential)
            seen.update(g.key for g in net)
            nets.append(net)
    return nets


def all_nets(project: Project) -> list[list[Group]]:
    """Return every net of the project once, in reading order of sheets."""
    seen: set[GroupKey] = set()
    nets = []
    for sheet in project.sheets_in_order():
        for group in sheet_groups(project, sheet.id).groups:
            if not group.continuations:
                nets.append([group])
            elif group.key not in seen:
                net = net_of(project, group.key)
                seen.update(g.key for g in net)
                nets.append(net)
    return nets
