"""What the I/O bench shows: points, channels, what is needed, the address map, and a point list that was read."""

from __future__ import annotations

from typing import Literal

from typing_extensions import TypedDict

from jolly_core.library import Library
from jolly_core.model import Card, IoPoint, Part, Project, Symbol
from jolly_core.model.entities.building import AddressScheme
from jolly_core.plc import cards, channel_address, channels
from jolly_core.points import (
    By,
    ChannelNeed,
    RackSum,
    cards_for,
    drawn_as,
    machine_of,
    needs,
    racks,
    without_point,
)
from jolly_core.points.circuitchanges import ADDED, circuit_changes
from jolly_core.scenes import plan_of
from jolly_core.tagging import full_tag, path_of

from .shapes import DeviceName, PartName, Place, device_value, part_name, symbol_place

SCHEMES: tuple[AddressScheme, ...] = ("byte.bit", "whole", "word", "octal", "slot")
IoType = Literal["DI", "DO", "AI", "AO"]


class PointValue(TypedDict):
    """A point of the list, with the card and address it is allocated to, "" while it waits.

    Attributes:
        machine: what groups it with the points of one machine.
        place: where its channel is drawn.
    """

    id: str
    tag: str
    text: str
    text2: str
    io_type: str
    sort: str
    signal: str
    device: str
    function: str
    location: str
    connected: str
    span: str
    unit: str
    normal: str
    terminals: bool
    cable: bool
    remark: str
    own: dict[str, str]
    fixed: bool
    machine: str
    card: str
    device_id: str
    channel: int
    address: str
    sheet_id: str
    symbol_id: str
    place: str


class ChannelValue(Place):
    """A channel of a card, with its point and symbol, "" for none."""

    io_type: str
    channel: int
    address: str
    pins: str
    sort: str
    signals: list[str]
    point_id: str
    point: str
    text: str
    fixed: bool
    symbol_id: str


class CardValue(DeviceName):
    """A card with its channels; `rack` and `slot` say where it is put in, `location` where it is.

    Attributes:
        plan_id: the sheet or page that shows all of its channels.
        changes: how many circuits would be drawn anew or taken away if they were drawn again.
    """

    scheme: AddressScheme
    start: str
    fixed: bool
    rack_id: str
    slot: int
    location: str
    function: str
    plan_id: str
    changes: int
    channels: list[ChannelValue]


class DrawnValue(Place):
    """An input or output that is drawn and has neither card nor point: what it is wired to, by its tag and in words."""

    symbol_id: str
    io_type: str
    device: str
    text: str


class RackValue(DeviceName):
    """A rack with what its cards take of it, and what is too much."""

    rack_id: str
    location: str
    cards: int
    slots: int
    load_a: float
    supply_a: float
    width_mm: float
    room_mm: float
    faults: list[str]


class CardCountValue(TypedDict):
    """So many cards of a part."""

    part: PartName
    count: int


class NeedValue(TypedDict):
    """Points and channels of one type and sort at a place, and the cards that would cover what lacks."""

    io_type: str
    sort: str
    place_id: str
    place: str
    points: int
    allocated: int
    channels: int
    needed: int
    lacking: int
    spare_percent: float
    cards: list[CardCountValue]
    spare_then: float
    signals: list[str]


class IoView(TypedDict):
    """What the I/O bench shows.

    Attributes:
        own: headings of the columns that only the project has.
        makers: whose cards can be proposed; `maker` is the one whose cards are.
        drawn: inputs and outputs that are drawn and have neither card nor point.
    """

    points: list[PointValue]
    cards: list[CardValue]
    racks: list[RackValue]
    needs: list[NeedValue]
    own: list[str]
    makers: list[str]
    maker: str
    spare_wanted: float
    drawn: list[DrawnValue]


def io_bench(project: Project, library: Library, by: By = "", maker: str = "") -> IoView:
    """Return points, cards with channels, racks, and what is needed counted by place."""
    points = sorted(project.io_points.values(), key=lambda p: (p.order, p.id))
    drawn = {r.point_id: r.symbol_id for c in cards(project) for r in channels(project, c.device_id) if r.point_id}
    parts = library.parts_of("plc-card")
    makers = sorted({p.maker for p in parts})
    chosen = maker if maker in makers else _usual_maker(project, makers)
    mine = [p for p in parts if p.maker == chosen]
    return {
        "points": [point_value(project, p, drawn.get(p.id, "")) for p in points],
        "cards": [_card(project, c) for c in cards(project)],
        "racks": [_rack(project, r) for r in racks(project)],
        "needs": [_need(project, n, by, mine) for n in needs(project, by)],
        "own": list(dict.fromkeys(heading for p in points for heading in p.own)),
        "makers": makers,
        "maker": chosen,
        "drawn": [_drawn(project, s) for s in without_point(project)],
        "spare_wanted": project.settings.spare_share_percent,
    }


def _usual_maker(project: Project, makers: list[str]) -> str:
    """Return whose cards the project has, else the first maker."""
    used = (project.part_of(project.devices[c.device_id]) for c in cards(project))
    return next((p.maker for p in used if p is not None and p.maker in makers), makers[0] if makers else "")


def point_value(project: Project, p: IoPoint, symbol_id: str) -> PointValue:
    """Return a point with its channel, and where the symbol of that is drawn."""
    device = project.devices.get(p.device_id)
    return {
        "id": p.id,
        "tag": p.tag,
        "text": p.text,
        "text2": p.text2,
        "io_type": p.io_type,
        "sort": p.sort,
        "signal": p.signal,
        "device": p.device,
        "function": path_of(project.functions, p.function_id, "="),
        "location": path_of(project.locations, p.location_id, "+"),
        "connected": p.connected,
        "span": p.span,
        "unit": p.unit,
        "normal": p.normal,
        "terminals": p.terminals,
        "cable": p.cable,
        "remark": p.remark,
        "own": p.own,
        "fixed": p.fixed,
        "machine": machine_of(project, p),
        "card": full_tag(project, device) if device else "",
        "device_id": p.device_id,
        "channel": p.channel,
        "address": channel_address(project, p.device_id, p.io_type, p.channel) if device else "",
        "symbol_id": symbol_id,
        **symbol_place(project, symbol_id),
    }


def _card(project: Project, card: Card) -> CardValue:
    device = project.devices[card.device_id]
    rows: list[ChannelValue] = []
    for row in channels(project, card.device_id):
        point = project.io_points.get(row.point_id)
        rows.append(
            {
                "io_type": row.io_type,
                "channel": row.channel,
                "address": row.address,
                "pins": " ".join(row.pins),
                "sort": row.sort,
                "signals": list(row.signals),
                "point_id": row.point_id,
                "point": point.tag if point else "",
                "text": point.text if point else "",
                "fixed": point.fixed if point else False,
                "symbol_id": row.symbol_id,
                **symbol_place(project, row.symbol_id),
            }
        )
    return {
        **device_value(project, device),
        "scheme": next((s for s in SCHEMES if card.scheme == s), "byte.bit"),
        "start": card.start,
        "fixed": card.fixed,
        "rack_id": card.rack_id,
        "slot": card.slot,
        "location": path_of(project.locations, device.location_id, "+"),
        "function": path_of(project.functions, device.function_id, "="),
        "plan_id": plan_of(project, "cards", device.id),
        "changes": sum(1 for c in circuit_changes(project, device.id) if c.what != ADDED),
        "channels": rows,
    }


def _drawn(project: Project, symbol: Symbol) -> DrawnValue:
    found = drawn_as(project, symbol)
    return {
        "symbol_id": symbol.id,
        "io_type": found.io_type,
        "device": found.device,
        "text": found.text or found.connected,
        **symbol_place(project, symbol.id),
    }


def _rack(project: Project, r: RackSum) -> RackValue:
    return {
        **device_value(project, r.device),
        "rack_id": r.rack.id,
        "location": path_of(project.locations, r.device.location_id, "+"),
        "cards": len(r.cards),
        "slots": r.slots,
        "load_a": r.load_a,
        "supply_a": r.supply_a,
        "width_mm": r.width_mm,
        "room_mm": r.room_mm,
        "faults": list(r.faults),
    }


def _need(project: Project, need: ChannelNeed, by: By, parts: list[Part]) -> NeedValue:
    found = cards_for(need, parts)
    nodes, sign = (project.functions, "=") if by == "function" else (project.locations, "+")
    counts: list[CardCountValue] = []
    for part, count in found.parts if found else ():
        name = part_name(part)
        if name is not None:
            counts.append({"part": name, "count": count})
    return {
        "io_type": need.io_type,
        "sort": need.sort,
        "place_id": need.place_id,
        "place": path_of(nodes, need.place_id, sign) if need.place_id else "",
        "points": need.points,
        "allocated": need.allocated,
        "channels": need.channels,
        "needed": need.needed,
        "lacking": need.lacking,
        "spare_percent": need.spare_percent,
        "cards": counts,
        "spare_then": found.spare_percent if found else need.spare_percent,
        "signals": list(need.signals),
    }
