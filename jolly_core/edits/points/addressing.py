"""Addresses of cards: of one, and of all anew."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import counted
from jolly_core.plc import (
    addressed,
    cards,
    channels,
    next_start,
    parse_start,
)
from jolly_core.tagging import short_tag

from ..base.edit import Id, Payload, Text, Work, edit
from .cards import Scheme, addresses_before, card_named, tell_new_addresses


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
    before = addresses_before(work.project, [card.device_id])
    work.put("card", replace(card, scheme=payload.scheme, start=start))
    tell_new_addresses(work, before)
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
    before = addresses_before(project, chosen)
    for card in addressed(project, chosen, payload.scheme or "", payload.start.strip()):
        if card != project.cards[card.id]:
            work.put("card", card)
    tell_new_addresses(work, before)
    return f"address {counted(len(set(chosen)), 'card')}"
