"""Nets: what is joined by wires, touching pins and paired continuations, over all sheets.

Terms: a *group* is what the strokes of one sheet join. A *net* is the set of groups that continuation marks of one name
join. A *potential* is the set of nets that carrying terminals join; conductors end at the terminal, the potential does
not. Groups are kept for each sheet until something on it changes; nets are put together from them when asked for, so
that an edit costs its own sheet and no more.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, cast

from jolly_core.drawing import MASK, SHIFT, Point, parents, pin_numbers, pin_points
from jolly_core.library import definition
from jolly_core.model import Project, derived, derived_part, uncollected

from .terminalparts import joints

GroupKey = tuple[str, int]  # sheet id and number of the group's first point, so that it outlives changes elsewhere
PinKey = tuple[str, int]  # symbol id and index of the pin


@dataclass(slots=True)
class Group:
    """What the strokes of one sheet join.

    Attributes:
        pins: pins in reading order of their points.
        point: number of the topmost, then leftmost point (see drawing/groups.py).
        carried: keys of groups on the same sheet that a carrying terminal makes one potential with this one.
    """

    sheet_id: str
    point: int
    pins: list[PinKey]
    wires: list[str]
    continuations: tuple[str, ...] = ()
    carried: tuple[int, ...] = ()

    @property
    def key(self) -> GroupKey:
        """The group's name within the project."""
        return self.sheet_id, self.point

    @property
    def first(self) -> tuple[int, int]:
        """The topmost, then leftmost point, as (y, x)."""
        return self.point >> SHIFT, self.point & MASK


@dataclass(slots=True)
class SheetGroups:
    """All groups of a sheet by their first points; ways to them from wires and pins are made when asked for."""

    sheet_id: str
    groups: list[Group]
    of_continuation: dict[str, int]
    located: list[tuple[int, PinKey]]  # each pin with the number of its point, in reading order
    _of_wire: dict[str, int] | None = field(default=None, compare=False)
    _of_pin: dict[PinKey, int] | None = field(default=None, compare=False)
    _points: dict[PinKey, Point] | None = field(default=None, compare=False)
    _by_point: dict[int, Group] | None = field(default=None, compare=False)

    @property
    def by_point(self) -> dict[int, Group]:
        """The groups by the numbers of their first points."""
        if self._by_point is None:
            self._by_point = {g.point: g for g in self.groups}
        return self._by_point

    @property
    def of_wire(self) -> dict[str, int]:
        """The first point of each wire's group."""
        if self._of_wire is None:
            self._of_wire = {id: g.point for g in self.groups for id in g.wires}
        return self._of_wire

    @property
    def of_pin(self) -> dict[PinKey, int]:
        """The first point of each pin's group."""
        if self._of_pin is None:
            self._of_pin = {pin: g.point for g in self.groups for pin in g.pins}
        return self._of_pin

    @property
    def points(self) -> dict[PinKey, Point]:
        """The grid point of each pin."""
        if self._points is None:
            self._points = {pin: (point & MASK, point >> SHIFT) for point, pin in self.located}
        return self._points


@derived
def sheet_groups(project: Project, sheet_id: str) -> SheetGroups:
    """Return the groups of a sheet, kept until the sheet changes.

    Notes:
        Canonical wires end wherever they connect, so only end points need to be joined: linear in wires and pins.
    """
    wires = project.wires_on(sheet_id)
    groups: list[Group] = []
    parent, starts = parents(wires)
    # The table of points is filled over with their groups: what a point hangs on comes before it and is filled by then.
    group_of: dict[int, Group] = cast(Any, parent)
    for point in sorted(parent):
        above = parent[point]
        if above == point:
            group_of[point] = group = Group(sheet_id, point, [], [])
            groups.append(group)
        else:
            group_of[point] = group_of[above]
    for w, point in zip(wires, starts, strict=True):
        group_of[point].wires.append(w.id)

    def group_at(point: int) -> Group:
        group = group_of.get(point)
        if group is None:  # nothing is drawn here: a bare pin or mark is a group of its own
            group = group_of[point] = Group(sheet_id, point, [], [])
            groups.append(group)
        return group

    located: list[tuple[int, PinKey]] = []
    carrying: list[tuple[int, int]] = []
    locate = located.append
    by_hand = joints(project)
    for s in project.symbols_on(sheet_id):
        id, place = s.id, (s.y << SHIFT) + s.x
        numbers, carried = pin_numbers(s.definition, s.rotation, s.mirror, len(s.units))
        if len(numbers) == 2:  # most have two pins, and this runs for each of tens of thousands
            locate((place + numbers[0], (id, 0)))
            locate((place + numbers[1], (id, 1)))
        else:
            located += [(place + number, (id, pin)) for pin, number in enumerate(numbers)]
        if by_hand and (s.device_id, s.units[0]) in by_hand and len(numbers) == 2:
            carried = ((0, 1),) if by_hand[s.device_id, s.units[0]] == "carry" else ()
        if carried:
            carrying += [(place + numbers[a], place + numbers[b]) for a, b in carried]
    located.sort()
    for point, key in located:
        (group_of.get(point) or group_at(point)).pins.append(key)
    marked: dict[str, int] = {}
    for c in project.continuations_on(sheet_id):
        group = group_at((c.y << SHIFT) + c.x)
        marked[c.id] = group.point
        group.continuations = (*group.continuations, c.id)
    for a, b in carrying:
        one, other = group_of[a], group_of[b]
        if one is not other:
            one.carried = (*one.carried, other.point)
            other.carried = (*other.carried, one.point)
    return SheetGroups(sheet_id, groups, marked, located)


def _sheet_of_group(project: Project, sheet_id: str, point: int) -> str:
    return sheet_id


def _sheet_of_symbol(project: Project, symbol_id: str) -> str:
    return project.symbols[symbol_id].sheet_id


def _sheet_of_mark(project: Project, id: str) -> str:
    return project.continuations[id].sheet_id


@derived_part(sheet_groups, _sheet_of_group)
def group_at(groups: SheetGroups, sheet_id: str, point: int) -> Group:
    """Return a group by its key; what stands on it outlives changes of other groups of its sheet."""
    return groups.by_point[point]


def group_of(project: Project, pin: PinKey) -> GroupKey:
    """Return the key of the group that a pin is in."""
    return groups_of(project, pin[0])[pin[1]]


@derived_part(sheet_groups, _sheet_of_symbol)
def groups_of(groups: SheetGroups, symbol_id: str) -> tuple[GroupKey, ...]:
    """Return the keys of the groups that a symbol's pins are in, pin by pin."""
    of_pin = groups.of_pin
    keys: list[GroupKey] = []
    while (point := of_pin.get((symbol_id, len(keys)))) is not None:
        keys.append((groups.sheet_id, point))
    return tuple(keys)


@derived_part(sheet_groups, _sheet_of_mark)
def _group_of_mark(groups: SheetGroups, id: str) -> GroupKey:
    return groups.sheet_id, groups.of_continuation[id]


def point_of(project: Project, pin: PinKey) -> Point:
    """Return the grid point of a pin on its sheet."""
    return pin_points(project.symbols[pin[0]])[pin[1]]


def net_of(project: Project, start: GroupKey, *, potential: bool = False) -> list[Group]:
    """Return the groups of a group's net in the project's reading order.

    Args:
        start: any group of the net.
        potential: also pass through carrying terminals and bridges.
    """
    bridged = bridged_groups(project) if potential and project.bridges else {}
    first = group_at(project, *start)
    if not first.continuations and not (potential and (first.carried or start in bridged)):
        return [first]  # most nets
    name = _name_at(project, first, bridged, potential=potential)
    return _net_named(project, name, potential) if name else _followed(project, start, potential=potential)


def _name_at(project: Project, first: Group, bridged: dict[GroupKey, list[GroupKey]], *, potential: bool) -> str:
    """Return the name of a mark on a group, of a potential also on those that terminals and bridges join to it."""
    seen = {first.key}
    waiting = [first]
    for group in waiting:
        if group.continuations:
            return project.continuations[group.continuations[0]].name
        if potential:
            keys = [key for key in _across(group, bridged) if key not in seen]
            seen.update(keys)
            waiting += [group_at(project, *key) for key in dict.fromkeys(keys)]
    return ""


def _across(group: Group, bridged: dict[GroupKey, list[GroupKey]]) -> list[GroupKey]:
    """Return the groups that terminals and bridges join to one."""
    return [*((group.sheet_id, point) for point in group.carried), *bridged.get(group.key, ())]


@derived
def _net_named(project: Project, name: str, potential: bool) -> list[Group]:
    """Return the net or potential that marks of a name are on: a common of many sheets is followed once for all."""
    return _followed(project, _group_of_mark(project, project.continuations_named.get(name)[0]), potential=potential)


def _followed(project: Project, start: GroupKey, *, potential: bool) -> list[Group]:
    bridged = bridged_groups(project) if potential and project.bridges else {}
    seen: dict[GroupKey, Group] = {}
    followed: set[str] = set()  # names whose marks wait already: a common of many sheets is followed once
    waiting = [start]
    while waiting:
        key = waiting.pop()
        if key in seen:
            continue
        group = group_at(project, *key)
        seen[key] = group
        if potential:
            waiting += _across(group, bridged)
        for id in group.continuations:
            name = project.continuations[id].name
            if name not in followed:
                followed.add(name)
                waiting += [_group_of_mark(project, other) for other in project.continuations_named.get(name)]
    return sorted(seen.values(), key=lambda g: reading_order(project, g))


@derived
def bridged_groups(project: Project) -> dict[GroupKey, list[GroupKey]]:
    """Return for each group that a bridged terminal touches the groups that the bridge makes one potential with it.

    Where a terminal parts its two sides (a fuse terminal), the bridge lies on the side of its first pin.
    """
    joined: dict[GroupKey, list[GroupKey]] = {}
    for bridge in project.bridges.values():
        keys = []
        for symbol in project.units_of(bridge.strip_id):
            if symbol.units[0] in bridge.units and definition(symbol.definition).unit == "terminal":
                keys.append((symbol.sheet_id, sheet_groups(project, symbol.sheet_id).of_pin[symbol.id, 0]))
        for key in keys:
            joined.setdefault(key, []).extend(k for k in keys if k != key)
    return joined


def reading_order(project: Project, group: Group) -> tuple[int, str, int, int]:
    """Return a sort key: sheets in order, then top to bottom, then left to right."""
    return project.sheets[group.sheet_id].order, group.sheet_id, *group.first


def nets_of_sheet(project: Project, sheet_id: str, *, potential: bool = False) -> list[list[Group]]:
    """Return the nets that touch a sheet, each once."""
    return _potentials_of_sheet(project, sheet_id) if potential else _nets_of_sheet(project, sheet_id)


@derived
def _nets_of_sheet(project: Project, sheet_id: str) -> list[list[Group]]:
    return _joined(project, sheet_id, potential=False)


@derived
def _potentials_of_sheet(project: Project, sheet_id: str) -> list[list[Group]]:
    return _joined(project, sheet_id, potential=True)


def _joined(project: Project, sheet_id: str, *, potential: bool) -> list[list[Group]]:
    nets: list[list[Group]] = []
    seen: set[GroupKey] = set()
    bridged = bridged_groups(project) if potential and project.bridges else {}
    for group in sheet_groups(project, sheet_id).groups:
        if not group.continuations and not (potential and (group.carried or group.key in bridged)):
            nets.append([group])
        elif group.key not in seen:
            net = net_of(project, group.key, potential=potential)
            seen.update(g.key for g in net)
            nets.append(net)
    return nets


@uncollected
def all_nets(project: Project) -> list[list[Group]]:
    """Return every net of the project once, in reading order of sheets.

    Notes:
        All at once, so that marks are put together by name instead of being followed from sheet to sheet.
    """
    nets: list[list[Group]] = []
    parts: list[list[Group]] = []  # those of one net, which the first names found for it
    place: dict[int, int] = {}  # of each of these parts among the others
    of_name: dict[str, list[Group]] = {}
    for sheet in project.sheets_in_order():
        for group in sheet_groups(project, sheet.id).groups:
            if not group.continuations:
                nets.append([group])
                continue
            names = {project.continuations[id].name for id in group.continuations}
            met = {id(net): net for name in names if (net := of_name.get(name)) is not None}
            if met:
                first, *others = sorted(met.values(), key=lambda net: place[id(net)])
                first.append(group)
                for other in others:
                    first += other
                    other.clear()
                    of_name.update((name, first) for name, net in list(of_name.items()) if net is other)
            else:
                first = [group]
                place[id(first)] = len(parts)
                parts.append(first)
                nets.append(first)
            of_name.update((name, first) for name in names)
    for net in parts:
        net.sort(key=lambda g: reading_order(project, g))
    return [net for net in nets if net]
