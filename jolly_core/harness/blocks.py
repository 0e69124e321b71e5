"""Harnesses as blocks: boxes of devices with their connectors, and what runs between them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from jolly_core.cables import cable_conductors, cable_length_m, ends_of
from jolly_core.model import Block, Device, Project, counted, derived, length_in, long_words
from jolly_core.tagging import device_at, full_tag

from .contacts import is_end, is_splice
from .mating import mate_of, owner_of, seat_of, seated_on
from .tree import node_of, nodes_of
from .wires import free_connectors, harnesses, wires_of


@dataclass(slots=True, frozen=True)
class Port:
    """A connector of a box: the one that is fixed there, and the one plugged to it, "" where none is."""

    device_id: str
    plug_id: str = ""


@dataclass(slots=True, frozen=True)
class BlockBox:
    """A device, or a connector by itself, with its ports and where a person put it, mm."""

    device_id: str
    ports: tuple[Port, ...]
    at: tuple[float, float] | None


@dataclass(slots=True, frozen=True)
class LinkEnd:
    """Where a harness or cable ends: in a box, at a connector of it or "" at the box itself, with how much of it."""

    box_id: str
    device_id: str
    words: str


@dataclass(slots=True, frozen=True)
class BlockLink:
    """A harness or a cable between boxes."""

    kind: str
    id: str
    name: str
    words: str
    ends: tuple[LinkEnd, ...]


@dataclass(slots=True, frozen=True)
class Blocks:
    """All boxes and what joins them."""

    boxes: tuple[BlockBox, ...]
    links: tuple[BlockLink, ...]


def has_blocks(project: Project) -> bool:
    """Return whether there is anything to be shown as blocks."""
    return bool(project.blocks or project.seats or any(n.device_id for n in project.nodes.values()))


def block_of(project: Project, device_id: str) -> Block | None:
    """Return where a person put the box of a device, None where nobody did."""
    return next((project.blocks[id] for id in project.attached.get(device_id) if id in project.blocks), None)


@derived
def blocks(project: Project) -> Blocks:
    """Return the boxes of devices and connectors, with the harnesses and cables between them.

    Boxes are devices put there and devices that connectors sit on; connectors that sit on nothing and are plugged to
    nothing; and what the cables of these lead to.
    """
    ports = _ports(project)
    where = {id: box for box, found in ports.items() for port in found for id in (port.device_id, port.plug_id) if id}
    links = list(_harness_links(project, where))
    cables = list(_cable_links(project, where, set(ports)))
    for link in cables:
        for end in link.ends:
            ports.setdefault(end.box_id, [])
    boxes = tuple(BlockBox(id, tuple(found), _place(project, id)) for id, found in ports.items())
    return Blocks(boxes, (*links, *cables))


def _place(project: Project, device_id: str) -> tuple[float, float] | None:
    block = block_of(project, device_id)
    return (block.x, block.y) if block and (block.x or block.y) else None


def _ports(project: Project) -> dict[str, list[Port]]:
    """Return the ports of each box, by the device of the box."""
    owners = {b.device_id for b in project.blocks.values()} | {s.owner_id for s in project.seats.values() if s.owner_id}
    found: dict[str, list[Port]] = {}
    ends = [n.device_id for h in harnesses(project) for n in nodes_of(project, h.id) if n.device_id]
    ends += [d.id for d in free_connectors(project)] + [s.device_id for s in project.seats.values()]
    alone = [id for id in dict.fromkeys(ends) if not is_splice(project, id) and owner_of(project, id) is None]
    shown = [*sorted(owners, key=lambda id: _order(project, id)), *(id for id in alone if id not in owners)]
    for id in shown:
        if id in owners and not _is_connector(project, id):
            found[id] = [_port(project, d) for d in seated_on(project, id)]
        elif not _is_plug(project, id) and owner_of(project, id) is None:
            found[id] = [_port(project, project.devices[id]), *(_port(project, d) for d in seated_on(project, id))]
    return found


def _order(project: Project, device_id: str) -> str:
    block = block_of(project, device_id)
    return block.id if block else device_id


def _is_connector(project: Project, device_id: str) -> bool:
    return is_end(project, project.devices[device_id]) or node_of(project, device_id) is not None


def _is_plug(project: Project, device_id: str) -> bool:
    """Return whether a connector is shown at the one it is plugged to."""
    seat = seat_of(project, device_id)
    return seat is not None and bool(seat.mate_id) and not seat.owner_id


def _port(project: Project, device: Device) -> Port:
    mate = mate_of(project, device.id)
    return Port(device.id, mate.id if mate and owner_of(project, mate.id) is None else "")


def _harness_links(project: Project, where: dict[str, str]) -> Iterator[BlockLink]:
    unit = project.settings.length_unit
    for harness in harnesses(project):
        wires = wires_of(project, harness.id)
        ends = []
        for node in nodes_of(project, harness.id):
            if node.device_id not in where:
                continue
            mine = [
                w
                for w in wires
                if node.device_id in (project.symbols[pin[0]].device_id for pin in (w.conductor.start, w.conductor.end))
            ]
            longest = max((w.length_mm or 0.0 for w in mine), default=0.0)
            words = counted(len(mine), "wire") + (f", {length_in(unit, longest)}" if longest else "")
            ends.append(LinkEnd(where[node.device_id], node.device_id, words))
        if ends:
            yield BlockLink("harness", harness.id, harness.code, counted(len(wires), "wire"), tuple(ends))


def _cable_links(project: Project, where: dict[str, str], boxes: set[str]) -> Iterator[BlockLink]:
    """Yield the cables of which an end is a box or a connector in one."""
    for cable in sorted(project.cables.values(), key=lambda c: c.id):
        conductors = cable_conductors(project, cable.device_id)
        devices: dict[str, int] = {}
        for c in conductors:
            for pin in ends_of(project, cable.device_id, c):
                device = device_at(project, pin)
                if device is not None:
                    devices[device.id] = devices.get(device.id, 0) + 1
        if not any(id in where or id in boxes for id in devices):
            continue
        length, _ = cable_length_m(project, cable)
        words = counted(len(conductors), "core") + (f", {long_words(project, length)}" if length else "")
        ends = tuple(
            LinkEnd(where.get(id, id), id if id in where else "", counted(count, "core"))
            for id, count in devices.items()
        )
        name = full_tag(project, project.devices[cable.device_id])
        yield BlockLink("cable", cable.id, name, words, ends)
