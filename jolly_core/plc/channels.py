"""Cards and their channels: address, point, where each is drawn, how much is spare."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from jolly_core.library import definition
from jolly_core.model import IO_TYPES, Card, IoPoint, Project

from .addresses import ANALOG, PREFIX, WORD_BITS, address, parse_start, span

UNIT_KINDS = {"DI": "di", "DO": "do", "AI": "ai", "AO": "ao"}
TYPES_OF_UNITS = {kind: io_type for io_type, kind in UNIT_KINDS.items()}


@dataclass(slots=True, frozen=True)
class ChannelRow:
    """A channel of a card; point_id and symbol_id are "" while it is spare or not drawn."""

    device_id: str
    io_type: str
    channel: int
    address: str
    pins: tuple[str, ...]
    point_id: str
    symbol_id: str


@dataclass(slots=True, frozen=True)
class Spare:
    """How many points and channels of a type there are, and what share of the channels is free, percent."""

    io_type: str
    points: int
    allocated: int
    channels: int
    spare_percent: float
    needed: int


def cards(project: Project) -> list[Card]:
    """Return the cards in order."""
    return sorted(project.cards.values(), key=lambda c: (c.order, c.id))


def card_of(project: Project, device_id: str) -> Card | None:
    """Return the card record of a device, None when it is no card."""
    id = next((i for i in project.attached.get(device_id) if i in project.cards), "")
    return project.cards.get(id)


def channel_address(project: Project, device_id: str, io_type: str, channel: int) -> str:
    """Return the address of a channel, "" when the device is no card."""
    card = card_of(project, device_id)
    if card is None or not channel:
        return ""
    return address(card.scheme, card.start, channel, io_type, after_bits=_after_bits(project, card, io_type))


def _after_bits(project: Project, card: Card, io_type: str) -> int:
    """Return what the digital channels of a card's direction take before its analog ones: whole words of them.

    With whole numbers each channel takes one.
    """
    part = project.part_of(project.devices[card.device_id])
    if io_type not in ANALOG or part is None:
        return 0
    digital = part.count(UNIT_KINDS["DI" if io_type == "AI" else "DO"])
    return digital if card.scheme == "whole" else -(-digital // WORD_BITS) * WORD_BITS


def channel_spans(project: Project, card: Card) -> list[tuple[str, int, int, ChannelRow]]:
    """Return what each channel of a card takes: the address space, its first place and the one after its last.

    A space is a direction, I or Q, counted in bits; whole numbers are counted for themselves.
    """
    found = []
    for row in channels(project, card.device_id):
        after = _after_bits(project, card, row.io_type)
        if card.scheme == "whole":
            first = parse_start(card.scheme, card.start) + after + row.channel - 1
            found.append((f"whole {PREFIX[row.io_type]}", first, first + 1, row))
        else:
            low, high = span(card.scheme, card.start, row.channel, row.io_type, after_bits=after)
            found.append((PREFIX[row.io_type], low, high, row))
    return found


def point_at(project: Project, device_id: str, io_type: str, channel: int) -> IoPoint | None:
    """Return the point a channel serves, None while it is spare."""
    for id in project.points_of_card.get(device_id):
        point = project.io_points[id]
        if (point.io_type, point.channel) == (io_type, channel):
            return point
    return None


def channels(project: Project, device_id: str) -> list[ChannelRow]:
    """Return the channels of a card in its part's order; [] while it has no part."""
    device = project.devices[device_id]
    part = project.part_of(device)
    drawn = {
        (definition(s.definition).unit, number): s.id
        for s in project.units_of(device_id)
        for number in s.units
        if number
    }
    rows = []
    counts = dict.fromkeys(TYPES_OF_UNITS, 0)
    for kind, pins in part.units if part else ():
        io_type = TYPES_OF_UNITS.get(kind)
        if io_type is None:
            continue
        counts[kind] += 1
        number = counts[kind]
        point = point_at(project, device_id, io_type, number)
        shown = channel_address(project, device_id, io_type, number)
        symbol_id = drawn.get((kind, number), "")
        rows.append(ChannelRow(device_id, io_type, number, shown, pins, point.id if point else "", symbol_id))
    return rows


def needed_channels(points: int, spare_percent: float) -> int:
    """Return how many channels cover a number of points with a share to spare on top.

    Example:
        >>> needed_channels(13, 20)
        16
    """
    return ceil(round(points * (1 + spare_percent / 100), 6))


def spare_shares(project: Project) -> list[Spare]:
    """Return points, channels and spare share of each type that has any."""
    rows = [c for card in cards(project) for c in channels(project, card.device_id)]
    found = []
    for io_type in IO_TYPES:
        mine = [p for p in project.io_points.values() if p.io_type == io_type]
        there = [c for c in rows if c.io_type == io_type]
        allocated = sum(1 for c in there if c.point_id)
        if mine or there:
            share = 100 * (len(there) - allocated) / len(there) if there else 0.0
            needed = needed_channels(len(mine), project.settings.spare_share_percent)
            found.append(Spare(io_type, len(mine), allocated, len(there), round(share, 1), needed))
    return found
