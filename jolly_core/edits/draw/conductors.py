"""The order in which a net's pins are joined by conductors, when a person decides it."""

from __future__ import annotations

import re
from typing import Literal

from pydantic import Field

from jolly_core.model import NetOrder, RuleError, Wire
from jolly_core.wiring import PinKey, check_order, conductor_key, net_of, own_order, sheet_groups

from ..base.edit import Id, Payload, Text, Work, edit

_PIN = re.compile(r"([A-Za-z0-9]+)\.(\d{1,4})")


class OrderNet(Payload):
    """Say by which conductors the pins of a wire's net are joined; without pairs it follows drawing or layout again.

    A pair is the key of a conductor, two pins as "y1.0-y2.1".
    """

    kind: Literal["order-net"] = "order-net"
    wire_id: Id
    pairs: list[Text] = Field(default_factory=list, max_length=2000)


@edit(OrderNet, {"wire_id": "w1", "pairs": ["y1.0-y2.1", "y2.1-y3.0"]})
def order_net(work: Work, payload: OrderNet) -> str:
    """Work out OrderNet."""
    project = work.project
    wire: Wire = project.get("wire", payload.wire_id)
    net = net_of(project, (wire.sheet_id, sheet_groups(project, wire.sheet_id).of_wire[wire.id]))
    pins = [pin for group in net for pin in group.pins]
    if payload.pairs:
        pairs = [_pair(text) for text in payload.pairs]
        check_order(project, pins, pairs)
    known = own_order(project, pins)
    if known is not None:
        work.remove("net_order", known.id)
    if not payload.pairs:
        if known is None:
            raise RuleError("This net follows the usual order already.", field="pairs")
        return "usual order of a net"
    work.put("net_order", NetOrder(work.ids.new(), tuple(conductor_key(a, b) for a, b in pairs)))
    return f"order of the {len(pins)} pins of a net"


def _pair(text: str) -> tuple[PinKey, PinKey]:
    ends = [_PIN.fullmatch(end) for end in text.split("-")]
    if len(ends) != 2 or ends[0] is None or ends[1] is None:
        raise RuleError(f"“{text}” names no two pins.", field="pairs")
    return (ends[0][1], int(ends[0][2])), (ends[1][1], int(ends[1][2]))
