"""PLC cards and racks: put in, addressed one or many, moved, deleted."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from jolly_core.model import Card, Device, Project, Rack, RuleError, counted
from jolly_core.plc import (
    TYPES_OF_UNITS,
    addressed,
    card_of,
    cards,
    channel_address,
    channels,
    next_start,
    parse_start,
    usual_scheme,
)
from jolly_core.points import free_slot, racks
from jolly_core.tagging import full_tag, short_tag

from .base import Id, Payload, Text, Work, edit
from .parts import give_part, take_part
from .upkeep import new_device, remove_device

Scheme = Literal["byte.bit", "whole", "word", "octal", "slot"]


class AddCard(Payload):
    """Add a PLC card with a part of the library; without a start its channels go on after the last byte in use.

    Without a scheme analog cards have words, from the first analog word on, and others bits. In a rack it takes the
    first free slot.
    """

    kind: Literal["add-card"] = "add-card"
    part_id: Id
    function_id: Id = ""
    location_id: Id = ""
    scheme: Scheme | None = None
    start: Text = ""
    text: Text = ""
    rack_id: Id = ""


@edit(AddCard, {"part_id": "hollin-hr-di8", "start": "0.0"})
def add_card(work: Work, payload: AddCard) -> str:
    """Work out AddCard."""
    place = (payload.function_id, payload.location_id)
    device = _new_card(work, payload.part_id, place, payload.scheme, payload.start, payload.text, payload.rack_id)
    work.outcome.placed = [device.id]
    return f"add card {short_tag(work.project, work.project.devices[device.id])}"


def _new_card(
    work: Work, part_id: str, place: tuple[str, str], scheme: Scheme | None, start: str, text: str, rack_id: str
) -> Device:
    project = work.project
    part = take_part(work, part_id, "plc-card")
    kinds = {TYPES_OF_UNITS[kind] for kind, _ in part.units if kind in TYPES_OF_UNITS}
    chosen = scheme or usual_scheme(kinds)
    first = start.strip() or next_start(project, chosen, kinds)
    parse_start(chosen, first)
    for kind, id in zip(("function", "location"), place, strict=True):
        if id:
            project.get(kind, id)
    slot = _slot_in(project, rack_id) if rack_id else 0
    device = new_device(work, "plc-card", place, text)
    order = max((c.order for c in project.cards.values()), default=0) + 1
    work.put("card", Card(work.ids.new(), device.id, chosen, first, order, False, rack_id, slot))
    give_part(work, device, part_id)
    return device


def _slot_in(project: Project, rack_id: str) -> int:
    project.get("rack", rack_id)
    rack = next(r for r in racks(project) if r.rack.id == rack_id)
    slot = free_slot(rack)
    if not slot:
        raise RuleError(f"All {rack.slots} slots of {full_tag(project, rack.device)} are taken.", field="rack_id")
    return slot


class CardCount(BaseModel):
    """So many cards of a part."""

    model_config = ConfigDict(extra="forbid")
    part_id: Id
    count: int = Field(ge=1, le=200)


class AddCards(Payload):
    """Add several cards together, as a proposal counts them."""

    kind: Literal["add-cards"] = "add-cards"
    cards: list[CardCount] = Field(min_length=1, max_length=50)
    function_id: Id = ""
    location_id: Id = ""
    scheme: Scheme | None = None
    rack_id: Id = ""


@edit(AddCards, {"cards": [{"part_id": "hollin-hr-di8", "count": 2}]})
def add_cards(work: Work, payload: AddCards) -> str:
    """Work out AddCards."""
    place = (payload.function_id, payload.location_id)
    for line in payload.cards:
        for _ in range(line.count):
            device = _new_card(work, line.part_id, place, payload.scheme, "", "", payload.rack_id)
            work.outcome.placed.append(device.id)
    count = len(work.outcome.placed)
    return f"add {count} card{'s' if count != 1 else ''}"


class AddressCard(Payload):
    """Say how a card's channels are addressed, and from where on; without a start after the cards of that kind."""

    kind: Literal["address-card"] = "address-card"
    device_id: Id
    scheme: Scheme
    start: Text = ""


@edit(AddressCard, {"device_id": "d1", "scheme": "byte.bit", "start": "4.0"})
def address_card(work: Work, payload: AddressCard) -> str:
    """Work out AddressCard."""
    card = card_named(work.project, payload.device_id)
    kinds = {r.io_type for r in channels(work.project, card.device_id)}
    start = payload.start.strip() or next_start(work.project, payload.scheme, kinds, but=card.id)
    parse_start(payload.scheme, start)
    before = _firsts(work.project, [card.device_id])
    work.put("card", replace(card, scheme=payload.scheme, start=start))
    _tell(work, before)
    return f"addresses of {short_tag(work.project, work.project.devices[card.device_id])}"


class AddressCards(Payload):
    """Address cards one after another in their order: some, those of a rack, or all; fixed ones keep theirs.

    Without a scheme each keeps its own; `start` is where digital channels of each direction begin.
    """

    kind: Literal["address-cards"] = "address-cards"
    device_ids: list[Id] = Field(default_factory=list, max_length=1000)
    rack_id: Id = ""
    scheme: Scheme | None = None
    start: Text = ""


@edit(AddressCards, {"scheme": "byte.bit", "start": "0.0"})
def address_cards(work: Work, payload: AddressCards) -> str:
    """Work out AddressCards."""
    project = work.project
    if payload.scheme and payload.start.strip():
        parse_start(payload.scheme, payload.start)
    ids = [card_named(project, id).device_id for id in payload.device_ids]
    if payload.rack_id:
        ids += [c.device_id for c in cards(project) if c.rack_id == payload.rack_id]
    chosen = ids or [c.device_id for c in cards(project)]
    before = _firsts(project, chosen)
    for card in addressed(project, chosen, payload.scheme or "", payload.start.strip()):
        if card != project.cards[card.id]:
            work.put("card", card)
    _tell(work, before)
    return f"address {counted(len(set(chosen)), 'card')}"


class SetCard(Payload):
    """Fix a card's address or release it, and put it into a rack and slot; what is left out stays."""

    kind: Literal["set-card"] = "set-card"
    device_id: Id
    fixed: bool | None = None
    rack_id: Id | None = None
    slot: int | None = Field(default=None, ge=0, le=256)


@edit(SetCard, {"device_id": "d1", "fixed": True})
def set_card(work: Work, payload: SetCard) -> str:
    """Work out SetCard."""
    project = work.project
    card = card_named(project, payload.device_id)
    before = _firsts(project, [card.device_id])
    fresh = card if payload.fixed is None else replace(card, fixed=payload.fixed)
    if payload.rack_id is not None and payload.rack_id != card.rack_id:
        fresh = replace(
            fresh, rack_id=payload.rack_id, slot=_slot_in(project, payload.rack_id) if payload.rack_id else 0
        )
    if payload.slot is not None:
        if not fresh.rack_id and payload.slot:
            raise RuleError("Put the card into a rack first.", field="slot", ids=(card.device_id,))
        fresh = replace(fresh, slot=payload.slot)
    if fresh.scheme == "slot" and fresh.slot and fresh.slot != card.slot and not fresh.fixed:
        fresh = replace(fresh, start=str(fresh.slot))
    work.put("card", fresh)
    _tell(work, before)
    return f"facts of {short_tag(project, project.devices[card.device_id])}"


class MoveCards(Payload):
    """Put cards together at another place among the cards, counted without them; addressed anew when asked for."""

    kind: Literal["move-cards"] = "move-cards"
    device_ids: list[Id] = Field(min_length=1, max_length=1000)
    to: int = Field(ge=0, le=1000)
    address: bool = False


@edit(MoveCards, {"device_ids": ["d1"], "to": 0})
def move_cards(work: Work, payload: MoveCards) -> str:
    """Work out MoveCards."""
    project = work.project
    ids = {card_named(project, id).device_id for id in payload.device_ids}
    moved = [c for c in cards(project) if c.device_id in ids]
    left = [c for c in cards(project) if c.device_id not in ids]
    before = _firsts(project, [c.device_id for c in cards(project)])
    for n, card in enumerate([*left[: payload.to], *moved, *left[payload.to :]], start=1):
        if card.order != n:
            work.put("card", replace(card, order=n))
    if payload.address:
        for card in addressed(project, [c.device_id for c in cards(project)]):
            if card != project.cards[card.id]:
                work.put("card", card)
    _tell(work, before)
    return f"order of {len(moved)} card{'s' if len(moved) != 1 else ''}"


def _firsts(project: Project, device_ids: list[str]) -> dict[str, str]:
    """Return the address of the first channel of each card, "" for one that has none."""
    found = {}
    for id in dict.fromkeys(device_ids):
        rows = channels(project, id)
        found[id] = channel_address(project, id, rows[0].io_type, 1) if rows else ""
    return found


def _tell(work: Work, before: dict[str, str]) -> None:
    """Say for a preview which cards' addresses change."""
    after = _firsts(work.project, list(before))
    for id, was in before.items():
        if was != after[id]:
            work.outcome.table.append([full_tag(work.project, work.project.devices[id]), was, after[id]])


def card_named(project: Project, device_id: str) -> Card:
    """Return the card record of a device.

    Raises:
        GoneError: there is no such device.
        RuleError: it is no card.
    """
    device: Device = project.get("device", device_id)
    card = card_of(project, device_id)
    if card is None:
        raise RuleError(f"{short_tag(project, device)} is no PLC card.", field="device_id", ids=(device_id,))
    return card


class DeleteCard(Payload):
    """Delete a card of which no channel is drawn; its points wait again."""

    kind: Literal["delete-card"] = "delete-card"
    device_id: Id


@edit(DeleteCard, {"device_id": "d1"})
def delete_card(work: Work, payload: DeleteCard) -> str:
    """Work out DeleteCard."""
    project = work.project
    card = card_named(project, payload.device_id)
    tag = short_tag(project, project.devices[card.device_id])
    if project.units_of(card.device_id):
        raise RuleError(f"Channels of {tag} are drawn. Delete them on their sheets first.", ids=(card.device_id,))
    remove_device(work, card.device_id)
    return f"delete card {tag}"


class AddRack(Payload):
    """Add a rack for cards, with a part of the library; at a location in the field it is a remote station."""

    kind: Literal["add-rack"] = "add-rack"
    part_id: Id = ""
    function_id: Id = ""
    location_id: Id = ""
    text: Text = ""


@edit(AddRack, {"text": "Remote station"})
def add_rack(work: Work, payload: AddRack) -> str:
    """Work out AddRack."""
    project = work.project
    for kind, id in (("function", payload.function_id), ("location", payload.location_id)):
        if id:
            project.get(kind, id)
    device = new_device(work, "plc-rack", (payload.function_id, payload.location_id), payload.text)
    rack = Rack(work.ids.new(), device.id)
    work.put("rack", rack)
    if payload.part_id:
        take_part(work, payload.part_id, "plc-rack")
        give_part(work, device, payload.part_id)
    work.outcome.placed = [rack.id]
    return f"add rack {short_tag(project, project.devices[device.id])}"


class DeleteRack(Payload):
    """Delete a rack; its cards stay, in none."""

    kind: Literal["delete-rack"] = "delete-rack"
    rack_id: Id


@edit(DeleteRack, {"rack_id": "r1"})
def delete_rack(work: Work, payload: DeleteRack) -> str:
    """Work out DeleteRack."""
    project = work.project
    rack: Rack = project.get("rack", payload.rack_id)
    tag = short_tag(project, project.devices[rack.device_id])
    if project.units_of(rack.device_id):
        raise RuleError(f"{tag} is drawn. Delete it on its sheet first.", ids=(rack.device_id,))
    remove_device(work, rack.device_id)
    return f"delete rack {tag}"
