"""Two channels whose points change places."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import Project, RuleError
from jolly_core.plc import ChannelRow, channel_row, channels
from jolly_core.points import why_not_here

from ..base.edit import Id, Payload, Text, Work, edit
from .allocating import tag_of_card
from .cards import card_named
from .rows import follow_symbol


class SwapChannels(Payload):
    """Exchange what two channels serve; one may be spare."""

    kind: Literal["swap-channels"] = "swap-channels"
    io_type: Literal["DI", "DO", "AI", "AO"]
    device_id: Id
    channel: int = Field(ge=1, le=1000)
    other_id: Id
    other: int = Field(ge=1, le=1000)
    other_type: Text = ""


@edit(SwapChannels, {"io_type": "DI", "device_id": "d1", "channel": 1, "other_id": "d1", "other": 2})
def swap_channels(work: Work, payload: SwapChannels) -> str:
    """Work out SwapChannels."""
    project = work.project
    other_type = payload.other_type or payload.io_type
    rows = [
        _row(project, payload.device_id, payload.io_type, payload.channel),
        _row(project, payload.other_id, other_type, payload.other),
    ]
    points = [project.io_points.get(r.point_id) for r in rows]
    if points == [None, None] or rows[0] == rows[1]:
        raise RuleError("Both channels are spare. Choose one that has a point.", field="channel")
    for point, row in zip(points, reversed(rows), strict=True):
        if point is None:
            continue
        if point.fixed:
            raise RuleError(f"{point.tag} is fixed on its channel. Release it first.", field="channel", ids=(point.id,))
        why = why_not_here(project, point, row)
        if why:
            raise RuleError(f"{why}.", field="other", ids=(point.id,))
        moved = replace(point, device_id=row.device_id, channel=row.channel)
        work.put("io_point", moved)
        follow_symbol(work, moved)
    return f"exchange {rows[0].address} and {rows[1].address}"


def _row(project: Project, device_id: str, io_type: str, channel: int) -> ChannelRow:
    card = card_named(project, device_id)
    row = channel_row(project, card.device_id, io_type, channel)
    if row is None:
        there = len(channels(project, card.device_id))
        tag = tag_of_card(project, card.device_id)
        raise RuleError(f"{tag} has no {io_type} channel {channel}; it has {there} channels.", field="channel")
    return row
