"""PLC I/O: points, cards, allocation."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from jolly_core.model import Card, Device, IoPoint, Project, RuleError
from jolly_core.plc import (
    ANALOG,
    BITS,
    FIRST_ANALOG_WORD,
    PREFIX,
    TYPES_OF_UNITS,
    WORD_BITS,
    card_of,
    cards,
    channel_spans,
    channels,
    parse_start,
)
from jolly_core.tagging import product_tag

from .base import Id, Payload, Text, Work, edit
from .parts import give_part, take_part
from .upkeep import new_device, remove_device


class PointIn(BaseModel):
    """A point as a list gives it."""

    model_config = ConfigDict(extra="forbid")
    tag: Text = Field(min_length=1)
    text: Text = ""
    io_type: Literal["DI", "DO", "AI", "AO"]
    connected: Text = ""


class TakeInPoints(Payload):
    """Take in points of a list; those whose tag is there already are brought up to date."""

    kind: Literal["take-in-points"] = "take-in-points"
    points: list[PointIn] = Field(min_length=1, max_length=5000)


@edit(TakeInPoints, {"points": [{"tag": "B1", "text": "Hatch closed", "io_type": "DI", "connected": "limit switch"}]})
def take_in_points(work: Work, payload: TakeInPoints) -> str:
    """Work out TakeInPoints."""
    project = work.project
    known = {p.tag: p for p in project.io_points.values()}
    last = max((p.order for p in known.values()), default=0)
    added = changed = 0
    for line in payload.points:
        values = line.model_dump()
        old = known.get(line.tag)
        if old is None:
            last += 1
            made = IoPoint(work.ids.new(), order=last, **values)
            known[made.tag] = made
            work.put("io_point", made)
            work.outcome.placed.append(made.id)
            added += 1
            continue
        fresh = replace(old, **values)
        if fresh.io_type != old.io_type and old.channel:
            fresh = replace(fresh, device_id="", channel=0)
            work.outcome.remarks.append(f"{old.tag} is {fresh.io_type} now and waits for another channel.")
        if fresh != old:
            known[fresh.tag] = fresh
            work.put("io_point", fresh)
            changed += 1
    return f"take in points: {added} added, {changed} changed"


class DeletePoints(Payload):
    """Delete points from the list."""

    kind: Literal["delete-points"] = "delete-points"
    ids: list[Id] = Field(min_length=1, max_length=5000)


@edit(DeletePoints, {"ids": ["p1"]})
def delete_points(work: Work, payload: DeletePoints) -> str:
    """Work out DeletePoints."""
    for id in dict.fromkeys(payload.ids):
        work.remove("io_point", id)
    return f"delete {len(set(payload.ids))} points"


class AddCard(Payload):
    """Add a PLC card with a part of the library; without a start its channels go on after the last byte in use.

    Without a scheme analog cards have words, from the first analog word on, and others bits.
    """

    kind: Literal["add-card"] = "add-card"
    part_id: Id
    function_id: Id = ""
    location_id: Id = ""
    scheme: Literal["byte.bit", "whole", "word"] | None = None
    start: Text = ""
    text: Text = ""


@edit(AddCard, {"part_id": "hollin-hr-di8", "start": "0.0"})
def add_card(work: Work, payload: AddCard) -> str:
    """Work out AddCard."""
    project = work.project
    part = take_part(work, payload.part_id, "plc-card")
    kinds = {TYPES_OF_UNITS[kind] for kind, _ in part.units if kind in TYPES_OF_UNITS}
    scheme = payload.scheme or ("word" if kinds and kinds <= set(ANALOG) else "byte.bit")
    start = payload.start.strip() or next_start(project, scheme, kinds)
    parse_start(scheme, start)
    for kind, id in (("function", payload.function_id), ("location", payload.location_id)):
        if id:
            project.get(kind, id)
    device = new_device(work, "plc-card", (payload.function_id, payload.location_id), payload.text)
    order = max((c.order for c in project.cards.values()), default=0) + 1
    work.put("card", Card(work.ids.new(), device.id, scheme, start, order))
    give_part(work, device, payload.part_id)
    work.outcome.placed = [device.id]
    return f"add card -{product_tag(project, project.devices[device.id])}"


class AddressCard(Payload):
    """Say how a card's channels are addressed, and from where on; without a start after the cards of that kind."""

    kind: Literal["address-card"] = "address-card"
    device_id: Id
    scheme: Literal["byte.bit", "whole", "word"]
    start: Text = ""


@edit(AddressCard, {"device_id": "d1", "scheme": "byte.bit", "start": "4.0"})
def address_card(work: Work, payload: AddressCard) -> str:
    """Work out AddressCard."""
    card = _card(work.project, payload.device_id)
    kinds = {r.io_type for r in channels(work.project, card.device_id)}
    start = payload.start.strip() or next_start(work.project, payload.scheme, kinds, but=card.id)
    parse_start(payload.scheme, start)
    work.put("card", replace(card, scheme=payload.scheme, start=start))
    return f"addresses of -{product_tag(work.project, work.project.devices[card.device_id])}"


def _card(project: Project, device_id: str) -> Card:
    device: Device = project.get("device", device_id)
    card = card_of(project, device_id)
    if card is None:
        raise RuleError(f"-{product_tag(project, device)} is no PLC card.", field="device_id", ids=(device_id,))
    return card


class DeleteCard(Payload):
    """Delete a card of which no channel is drawn; its points wait again."""

    kind: Literal["delete-card"] = "delete-card"
    device_id: Id


@edit(DeleteCard, {"device_id": "d1"})
def delete_card(work: Work, payload: DeleteCard) -> str:
    """Work out DeleteCard."""
    project = work.project
    card = _card(project, payload.device_id)
    tag = product_tag(project, project.devices[card.device_id])
    if project.units_of(card.device_id):
        raise RuleError(f"Channels of -{tag} are drawn. Delete them on their sheets first.", ids=(card.device_id,))
    remove_device(work, card.device_id)
    return f"delete card -{tag}"


class AllocatePoints(Payload):
    """Give points to the channels of a card, one after another from a channel on, skipping those that are taken."""

    kind: Literal["allocate-points"] = "allocate-points"
    ids: list[Id] = Field(min_length=1, max_length=1000)
    device_id: Id
    channel: int = Field(default=1, ge=1, le=1000)


@edit(AllocatePoints, {"ids": ["p1", "p2"], "device_id": "d1", "channel": 1})
def allocate_points(work: Work, payload: AllocatePoints) -> str:
    """Work out AllocatePoints."""
    project = work.project
    card = _card(project, payload.device_id)
    tag = product_tag(project, project.devices[card.device_id])
    points: list[IoPoint] = [project.get("io_point", id) for id in dict.fromkeys(payload.ids)]
    rows = channels(project, card.device_id)
    moving = {p.id for p in points}
    for point in points:
        fitting = [r for r in rows if r.io_type == point.io_type]
        if not fitting:
            kinds = " and ".join(sorted({r.io_type for r in rows})) or "no"
            message = f"{point.tag} is {point.io_type}, and -{tag} has {kinds} channels. Choose another card."
            raise RuleError(message, field="device_id", ids=(point.id,))
    taken = {(r.io_type, r.channel) for r in rows if r.point_id and r.point_id not in moving}
    for point in points:
        free = [
            r.channel
            for r in rows
            if r.io_type == point.io_type and r.channel >= payload.channel and (r.io_type, r.channel) not in taken
        ]
        if not free:
            message = f"-{tag} has no free {point.io_type} channel for {point.tag} from {payload.channel} on."
            raise RuleError(message, field="channel", ids=(point.id,))
        taken.add((point.io_type, free[0]))
        work.put("io_point", replace(point, device_id=card.device_id, channel=free[0]))
    return f"allocate {len(points)} points to -{tag}"


class FreePoints(Payload):
    """Take points off their channels; they wait again."""

    kind: Literal["free-points"] = "free-points"
    ids: list[Id] = Field(min_length=1, max_length=1000)


@edit(FreePoints, {"ids": ["p1"]})
def free_points(work: Work, payload: FreePoints) -> str:
    """Work out FreePoints."""
    for id in dict.fromkeys(payload.ids):
        point: IoPoint = work.project.get("io_point", id)
        if point.channel:
            work.put("io_point", replace(point, device_id="", channel=0))
    return f"free {len(set(payload.ids))} points"


def next_start(project: Project, scheme: str, io_kinds: set[str], *, but: str = "") -> str:
    """Return the first address of a new card: after the last byte in use, an analog one's from the first analog word.

    Args:
        io_kinds: types of its channels.
        but: a card that is not counted.

    Example:
        With a card of eight inputs from 0.0 the next card of inputs starts at 1.0, one of analog inputs at word 256.
    """
    directions = {PREFIX[kind] for kind in io_kinds}
    analog = bool(io_kinds) and io_kinds <= set(ANALOG)
    spaces = {f"whole {d}" for d in directions} if scheme == "whole" else directions
    used = [
        (low, high, row.io_type in ANALOG)
        for card in cards(project)
        if card.id != but
        for space, low, high, row in channel_spans(project, card)
        if space in spaces
    ]
    if scheme == "whole":
        return str(max((high for _, high, _ in used), default=FIRST_ANALOG_WORD if analog else 0))
    least = FIRST_ANALOG_WORD * BITS if analog else 0
    # Other cards fill the bytes below the first analog word as long as there are some.
    below = FIRST_ANALOG_WORD * BITS
    mine = [high for low, high, is_analog in used if (is_analog if analog else not is_analog or low < below)]
    start = max([least, *mine])
    size = WORD_BITS if analog or scheme == "word" else BITS
    start = -(-start // size) * size
    if (not analog and start >= below) or any(low <= start < high for low, high, _ in used):
        start = -(-max(high for _, high, _ in used) // size) * size
    return str(start // BITS) if scheme == "word" else f"{start // BITS}.0"
