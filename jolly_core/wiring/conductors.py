"""Conductors: the connections of the whole project, each with its number and type under a key of its own.

The key of a conductor is made of its two pins, so that what people decided about it survives redrawing.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from jolly_core.drawing import protective_types
from jolly_core.model import Project, WireType, derived, merged

from .connections import Connection, way_of
from .nets import Group, GroupKey, PinKey, group_of, nets_of_sheet
from .numbers import wire_numbers
from .orders import ordered


@dataclass(slots=True)
class Conductor:
    """One conductor.

    Attributes:
        start, end: its pins.
        number: wire number, "" when it gets none.
        type_id: its wire type, "" where two pins touch; one that leaves by a mark alone has that of its net.
        wire_id: the drawn wire it leaves its start by, "".
        sheet_id: sheet of its start.
        net: the groups of its net.
        key: its name within the project: its pins, the smaller first.
    """

    start: PinKey
    end: PinKey
    number: str
    type_id: str
    wire_id: str
    sheet_id: str
    steps: int
    net: list[Group]
    key: str = field(init=False, compare=False, default="")

    def __post_init__(self) -> None:
        """Find its key, which is asked for again and again."""
        self.key = conductor_key(self.start, self.end)

    def wire_type(self, project: Project) -> WireType | None:
        """Return its wire type, None where two pins touch."""
        return project.wire_types.get(self.type_id)

    def other(self, pin: PinKey) -> PinKey:
        """Return the other end of one of its pins."""
        return self.end if pin == self.start else self.start


def conductor_key(a: PinKey, b: PinKey) -> str:
    """Return the key of the conductor between two pins, whichever is given first.

    Example:
        >>> conductor_key(("y2", 0), ("y1", 1))
        'y1.1-y2.0'
    """
    return "-".join(f"{id}.{index}" for id, index in sorted((a, b)))


def conductors_of_net(project: Project, net: list[Group]) -> list[Conductor]:
    """Return the conductors of a net in the order they are joined.

    Notes:
        A protective conductor in a net that has the number of the return it is bonded to has none.
    """
    links = ordered(project, net)
    if not links:
        return []
    found = []
    types = protective_types(project)
    protective = {id for g in net for id in g.wires if project.wires[id].type_id in types}
    bonded = bool(protective) and any(id not in protective for g in net for id in g.wires)
    for c in links:
        sheet_id, point = net[0].key if len(net) == 1 else group_of(project, c.start)
        number = wire_numbers(project, sheet_id).get(point, "")
        wire = project.wires.get(c.wire_id)
        if bonded and c.wire_id in protective:
            number = ""
        type_id = wire.type_id if wire else _type_of_net(project, net, c.start) if c.steps else ""
        found.append(Conductor(c.start, c.end, number, type_id, c.wire_id, sheet_id, c.steps, net))
    return found


def _type_of_net(project: Project, net: list[Group], pin: PinKey) -> str:
    """Return the wire type of a conductor that leaves its start by a mark alone: that drawn nearest in its net."""
    there = sorted(net, key=lambda g: pin not in g.pins)
    return next((project.wires[id].type_id for g in there for id in g.wires), "")


def conductors_of_sheet(project: Project, sheet_id: str) -> list[Conductor]:
    """Return the conductors of the nets that touch a sheet."""
    own: dict[GroupKey, list[Conductor]] = {}
    for c in conductors_from(project, sheet_id).values():
        own.setdefault(c.net[0].key, []).append(c)
    nets = nets_of_sheet(project, sheet_id)
    return [
        c
        for net in nets
        for c in (own.get(net[0].key, ()) if net[0].sheet_id == sheet_id else conductors_of_net(project, net))
    ]


@derived
def conductors_from(project: Project, sheet_id: str) -> dict[str, Conductor]:
    """Return the conductors of the nets that begin on a sheet, by their keys, in reading order of nets."""
    nets = [net for net in nets_of_sheet(project, sheet_id) if net[0].sheet_id == sheet_id]
    return {c.key: c for net in nets for c in conductors_of_net(project, net)}


all_conductors = merged(conductors_from)


def conductors_at(project: Project, pin: PinKey) -> list[Conductor]:
    """Return the conductors at a pin in the order they are joined."""
    return _at(project, project.symbols[pin[0]].sheet_id).get(pin, [])


@derived
def _at(project: Project, sheet_id: str) -> dict[PinKey, list[Conductor]]:
    """Return the conductors at each pin that has any, of the nets that touch a sheet."""
    at: dict[PinKey, list[Conductor]] = {}
    for c in conductors_of_sheet(project, sheet_id):
        at.setdefault(c.start, []).append(c)
        at.setdefault(c.end, []).append(c)
    return at


def wires_along(project: Project, conductor: Conductor) -> list[str]:
    """Return the ids of the drawn wires a conductor runs along, from its start."""
    link = Connection(conductor.start, conductor.end, conductor.wire_id, conductor.steps)
    return way_of(project, conductor.net, link)
