"""Cards and their channels: address, point, where each is drawn, how much is spare."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.library import definition, number_in
from jolly_core.model import Card, IoPoint, Project, RuleError, derived

from .addresses import ANALOG, BIT_SCHEMES, WORD_BITS, Prefixes, address, parse_start, space_of, span

UNIT_KINDS = {"DI": "di", "DO": "do", "AI": "ai", "AO": "ao"}
CARD_SUPPLY = "card-supply"
TYPES_OF_UNITS = {kind: io_type for io_type, kind in UNIT_KINDS.items()}


@dataclass(slots=True, frozen=True)
class ChannelRow:
    """A channel of a card; point_id and symbol_id are "" while it is spare or not drawn.

    Attributes:
        sort: what it can do beside its type, one of IO_SORTS.
        signals: the signals it takes, as its part says them; () when it says none.
        group: the group of channels that have a supply together, "" when all of the card have.
        wired_to: where the other side of what is wired to it goes, "plus" or "minus"; "" for analog channels. An input
            says plus unless its part says otherwise, an output minus.
    """

    device_id: str
    io_type: str
    channel: int
    address: str
    pins: tuple[str, ...]
    point_id: str
    symbol_id: str
    sort: str = ""
    signals: tuple[str, ...] = ()
    group: str = ""
    wired_to: str = ""


@dataclass(slots=True, frozen=True)
class CardSupply:
    """A supply that a card is fed from, its own or that of a group of its channels.

    Attributes:
        unit: 1-based number among the card's supplies.
        group: the group it feeds, "" for the whole card.
        fuse_a: rated current of the fuse that its part wants in front of it, A; 0 for none.
        symbol_id: where it is drawn, "" while it is not.
    """

    device_id: str
    unit: int
    pins: tuple[str, ...]
    group: str = ""
    fuse_a: float = 0.0
    symbol_id: str = ""


def card_supplies(project: Project, device_id: str) -> list[CardSupply]:
    """Return the supplies of a card in its part's order; [] while it has no part."""
    part = project.part_of(project.devices[device_id])
    drawn = {
        number: s.id
        for s in project.units_of(device_id)
        if definition(s.definition).unit == CARD_SUPPLY
        for number in s.units
    }
    found: list[CardSupply] = []
    for n, (kind, pins) in enumerate(part.units if part else ()):
        if part and kind == CARD_SUPPLY:
            facts = part.detail(n)
            fuse = number_in(facts.get("fuse_a", "")) or 0.0
            unit = len(found) + 1
            found.append(CardSupply(device_id, unit, pins, facts.get("group", ""), fuse, drawn.get(unit, "")))
    return found


def cards(project: Project) -> list[Card]:
    """Return the cards in order."""
    return sorted(project.cards.values(), key=lambda c: (c.order, c.id))


def card_of(project: Project, device_id: str) -> Card | None:
    """Return the card record of a device, None when it is no card."""
    id = next((i for i in project.attached.get(device_id) if i in project.cards), "")
    return project.cards.get(id)


def channel_address(project: Project, device_id: str, io_type: str, channel: int) -> str:
    """Return the address of a channel, "" when the device is no card, or its first address is none of its scheme."""
    card = card_of(project, device_id)
    if card is None or not channel or start_fault(card):
        return ""
    after = _after(project, card, io_type)
    return address(card.scheme, card.start, channel, io_type, after=after, prefixes=prefixes_of(project))


def start_fault(card: Card) -> str:
    """Return what is wrong with the first address of a card, "" when it is written as its scheme asks."""
    try:
        parse_start(card.scheme, card.start)
    except RuleError as error:
        return str(error)
    return ""


def prefixes_of(project: Project) -> Prefixes:
    """Return what addresses begin with in a project."""
    return Prefixes(project.settings.input_prefix, project.settings.output_prefix)


def _after(project: Project, card: Card, io_type: str) -> int:
    """Return what the digital channels of a card's direction take before its analog ones: whole words of them.

    In a space of numbers each channel takes one.
    """
    part = project.part_of(project.devices[card.device_id])
    if io_type not in ANALOG or part is None:
        return 0
    digital = part.count(UNIT_KINDS["DI" if io_type == "AI" else "DO"])
    return -(-digital // WORD_BITS) * WORD_BITS if card.scheme in BIT_SCHEMES else digital


def spans_of(project: Project, card: Card) -> list[tuple[str, int, int, ChannelRow]]:
    """Return what each channel of a card takes: the address space, its first place and the one after its last.

    A space is a direction, I or Q, counted in bits; other schemes are counted for themselves.
    """
    found: list[tuple[str, int, int, ChannelRow]] = []
    for row in channels(project, card.device_id) if not start_fault(card) else ():
        after = _after(project, card, row.io_type)
        low, high = span(card.scheme, card.start, row.channel, row.io_type, after=after)
        found.append((space_of(card.scheme, row.io_type), low, high, row))
    return found


def point_at(project: Project, device_id: str, io_type: str, channel: int) -> IoPoint | None:
    """Return the point a channel serves, None while it is spare."""
    for id in project.points_of_card.get(device_id):
        point = project.io_points[id]
        if (point.io_type, point.channel) == (io_type, channel):
            return point
    return None


def channel_row(project: Project, device_id: str, io_type: str, channel: int) -> ChannelRow | None:
    """Return a channel of a card by its type and number, None when there is no such channel."""
    if device_id not in project.devices:
        return None
    return next((r for r in channels(project, device_id) if (r.io_type, r.channel) == (io_type, channel)), None)


@derived
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
    for n, (kind, pins) in enumerate(part.units if part else ()):
        io_type = TYPES_OF_UNITS.get(kind)
        if io_type is None:
            continue
        counts[kind] += 1
        number = counts[kind]
        point = point_at(project, device_id, io_type, number)
        shown = channel_address(project, device_id, io_type, number)
        symbol_id = drawn.get((kind, number), "")
        facts = part.detail(n) if part else {}
        signals = tuple(s.strip() for s in facts.get("signals", "").split(",") if s.strip())
        served = point.id if point else ""
        wired = facts.get("wired_to") or {"DI": "plus", "DO": "minus"}.get(io_type, "")
        said = (facts.get("sort", ""), signals, facts.get("group", ""), wired)
        rows.append(ChannelRow(device_id, io_type, number, shown, pins, served, symbol_id, *said))
    return rows
