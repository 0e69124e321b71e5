"""What the I/O bench shows, and what a point list from a file would change."""

from __future__ import annotations

from typing import Literal

from typing_extensions import TypedDict

from jolly_core.exchange import read_cells
from jolly_core.model import AddressScheme, Card, IoPoint, Project
from jolly_core.plc import (
    Fault,
    Spare,
    card_of,
    cards,
    change_of,
    channel_address,
    channels,
    gone_from,
    read_points,
    spare_shares,
)
from jolly_core.tagging import full_tag

from .shapes import DeviceName, Place, device_value, symbol_place

SCHEMES: tuple[AddressScheme, ...] = ("byte.bit", "whole", "word")


class PointValue(TypedDict):
    """A point of the list, with the card and address it is allocated to, "" while it waits."""

    id: str
    tag: str
    text: str
    io_type: str
    connected: str
    card: str
    device_id: str
    channel: int
    address: str


class ChannelValue(Place):
    """A channel of a card, with its point and symbol, "" for none."""

    io_type: str
    channel: int
    address: str
    pins: str
    point_id: str
    point: str
    symbol_id: str


class CardValue(DeviceName):
    """A card with its channels."""

    scheme: AddressScheme
    start: str
    channels: list[ChannelValue]


class IoView(TypedDict):
    """What the I/O bench shows."""

    points: list[PointValue]
    cards: list[CardValue]
    spare: list[Spare]
    spare_wanted: float


class ListLine(TypedDict):
    """A good row of a point list that was read: what is in it, and what taking it in would do."""

    row: int
    tag: str
    text: str
    io_type: Literal["DI", "DO", "AI", "AO"]
    connected: str
    change: Literal["added", "changed", "same"]


class ListRead(TypedDict):
    """A point list as it was read: good rows, faults, tags that are gone, and the heading found for each column."""

    lines: list[ListLine]
    faults: list[Fault]
    gone: list[str]
    headings: dict[str, str]


def io_bench(project: Project) -> IoView:
    """Return points, cards with channels, and spare shares."""
    points = sorted(project.io_points.values(), key=lambda p: (p.order, p.id))
    return {
        "points": [_point(project, p) for p in points],
        "cards": [_card(project, c.device_id) for c in cards(project)],
        "spare": spare_shares(project),
        "spare_wanted": project.settings.spare_share_percent,
    }


def _point(project: Project, point: IoPoint) -> PointValue:
    device = project.devices.get(point.device_id)
    return {
        "id": point.id,
        "tag": point.tag,
        "text": point.text,
        "io_type": point.io_type,
        "connected": point.connected,
        "card": full_tag(project, device) if device else "",
        "device_id": point.device_id,
        "channel": point.channel,
        "address": channel_address(project, point.device_id, point.io_type, point.channel) if device else "",
    }


def _scheme(card: Card | None) -> AddressScheme:
    return next((s for s in SCHEMES if card is not None and card.scheme == s), "byte.bit")


def _card(project: Project, device_id: str) -> CardValue:
    card = card_of(project, device_id)
    rows: list[ChannelValue] = []
    for row in channels(project, device_id):
        point = project.io_points.get(row.point_id)
        rows.append(
            {
                "io_type": row.io_type,
                "channel": row.channel,
                "address": row.address,
                "pins": " ".join(row.pins),
                "point_id": row.point_id,
                "point": f"{point.tag} {point.text}".strip() if point else "",
                "symbol_id": row.symbol_id,
                **symbol_place(project, row.symbol_id),
            }
        )
    return {
        **device_value(project, project.devices[device_id]),
        "scheme": _scheme(card),
        "start": card.start if card else "",
        "channels": rows,
    }


def read_list(project: Project, content: bytes, name: str) -> ListRead:
    """Return what a point list holds and what taking it in would change; nothing is taken in.

    Raises:
        FileError: it cannot be read, or lacks the headings.
    """
    found = read_points(read_cells(content, name))
    return {
        "lines": [
            {
                "row": line.row,
                "tag": line.tag,
                "text": line.text,
                "io_type": line.io_type,
                "connected": line.connected,
                "change": change_of(project, line),
            }
            for line in found.lines
        ],
        "faults": found.faults,
        "gone": gone_from(project, found),
        "headings": found.headings,
    }
