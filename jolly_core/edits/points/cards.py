"""PLC cards: put in, one or many, set and deleted."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from jolly_core.model import Card, Device, Project, RuleError
from jolly_core.plc import (
    TYPES_OF_UNITS,
    card_of,
    channel_address,
    channels,
    next_start,
    parse_start,
    usual_scheme,
)
from jolly_core.points import free_slot, racks
from jolly_core.tagging import full_tag, short_tag

from ..base.edit import Id, Payload, Text, Work, edit
from ..base.upkeep import new_device, remove_device
from ..devices.parts import give_part, take_part

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
    before = addresses_before(project, [card.device_id])
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
    tell_new_addresses(work, before)
    return f"facts of {short_tag(project, project.devices[card.device_id])}"


def addresses_before(project: Project, device_ids: list[str]) -> dict[str, str]:
    """Return the address of the first channel of each card, "" for one that has none."""
    found = {}
    for id in dict.fromkeys(device_ids):
        rows = channels(project, id)
        found[id] = channel_address(project, id, rows[0].io_type, 1) if rows else ""
    return found


def tell_new_addresses(work: Work, before: dict[str, str]) -> None:
    """Say for a preview which cards' addresses change."""
    after = addresses_before(work.project, list(before))
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
