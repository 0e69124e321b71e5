"""The order of cards in their rack."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.plc import (
    addressed,
    cards,
)

from ..base.edit import Id, Payload, Work, edit
from .cards import addresses_before, card_named, tell_new_addresses


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
    before = addresses_before(project, [c.device_id for c in cards(project)])
    for n, card in enumerate([*left[: payload.to], *moved, *left[payload.to :]], start=1):
        if card.order != n:
            work.put("card", replace(card, order=n))
    if payload.address:
        for card in addressed(project, [c.device_id for c in cards(project)]):
            if card != project.cards[card.id]:
                work.put("card", card)
    tell_new_addresses(work, before)
    return f"order of {len(moved)} card{'s' if len(moved) != 1 else ''}"
