"""Racks: the cards put into each, and what they take of its slots, width and supply."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.library import number_in
from jolly_core.model import Card, Device, Project, Rack, counted, length_words
from jolly_core.plc import cards


@dataclass(slots=True, frozen=True)
class RackSum:
    """A rack with its cards by slot.

    Attributes:
        slots: how many it has, 0 while its part does not say it.
        load_a, supply_a: what its cards draw and what it gives, A; 0 for what no part says.
        width_mm, room_mm: what its cards take side by side and what it holds, mm.
        faults: what is too much, and which slots are taken twice, in words.
    """

    rack: Rack
    device: Device
    cards: tuple[Card, ...]
    slots: int
    load_a: float
    supply_a: float
    width_mm: float
    room_mm: float
    faults: tuple[str, ...]


def racks(project: Project) -> list[RackSum]:
    """Return the racks in the order they were made, with what their cards take."""
    return [_rack(project, rack) for rack in sorted(project.racks.values(), key=lambda r: r.id)]


def _rack(project: Project, rack: Rack) -> RackSum:
    device = project.devices[rack.device_id]
    part = project.part_of(device)
    mine = sorted((c for c in cards(project) if c.rack_id == rack.id), key=lambda c: (c.slot, c.order))

    def rating(name: str) -> float:
        return (number_in(part.ratings.get(name, "")) if part else 0.0) or 0.0

    slots = int(rating("slots"))
    load = width = 0.0
    for card in mine:
        own = project.part_of(project.devices[card.device_id])
        if own is not None:
            load += number_in(own.ratings.get("rack_load_a", "")) or 0.0
            width += own.width_mm
    supply, room = rating("rack_supply_a"), rating("rack_width_mm")
    faults = []
    if slots and len(mine) > slots:
        faults.append(f"{len(mine)} cards stand in {counted(slots, 'slot')}")
    twice = sorted({c.slot for c in mine if c.slot and sum(1 for o in mine if o.slot == c.slot) > 1})
    faults += [f"slot {n} is taken twice" for n in twice]
    beyond = sorted({c.slot for c in mine if slots and c.slot > slots})
    faults += [f"there is no slot {n}" for n in beyond]
    if supply and load > supply + 1e-9:
        faults.append(f"its cards draw {load:g} A and it gives {supply:g} A")
    if room and width > room + 1e-9:
        faults.append(f"its cards are {length_words(project, width)} wide and it holds {length_words(project, room)}")
    return RackSum(rack, device, tuple(mine), slots, round(load, 3), supply, round(width, 1), room, tuple(faults))


def free_slot(rack: RackSum) -> int:
    """Return the first slot of a rack that no card stands in, 0 when all are taken."""
    taken = {c.slot for c in rack.cards}
    top = rack.slots or len(rack.cards) + 1
    return next((n for n in range(1, top + 1) if n not in taken), 0)
