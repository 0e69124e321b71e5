"""Points on channels: put there one or many, taken back, fixed, and as it is suggested."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import IoPoint, Project, RuleError, counted
from jolly_core.points import Allotted, block_from, place_drawn, suggested, switched_to
from jolly_core.tagging import full_tag

from ..base.edit import Id, Payload, Work, edit
from .cards import card_named
from .rows import MOST_POINTS, follow_symbol, in_order


class AllocatePoints(Payload):
    """Give points to the channels of a card, one after another from a channel on, skipping those that are taken.

    `io_type` says of which type the first channel is, where the card has several; `order` whether they come as they
    are named here, as in the list, or as they are drawn (sheet by sheet, left to right; the others behind them).
    """

    kind: Literal["allocate-points"] = "allocate-points"
    ids: list[Id] = Field(min_length=1, max_length=1000)
    device_id: Id
    channel: int = Field(default=1, ge=1, le=1000)
    io_type: Literal["", "DI", "DO", "AI", "AO"] = ""
    order: Literal["named", "list", "drawn"] = "named"


@edit(AllocatePoints, {"ids": ["p1", "p2"], "device_id": "d1", "channel": 1})
def allocate_points(work: Work, payload: AllocatePoints) -> str:
    """Work out AllocatePoints."""
    project = work.project
    card = card_named(project, payload.device_id)
    points: list[IoPoint] = [project.get("io_point", id) for id in dict.fromkeys(payload.ids)]
    if payload.order != "named":
        points.sort(key=lambda p: (p.order, p.id))
    if payload.order == "drawn":
        points.sort(key=lambda p: place_drawn(project, p))
    found = block_from(project, points, card.device_id, payload.io_type, payload.channel)
    _allot(work, found)
    count = len(points)
    return f"allocate {count} point{'s' if count != 1 else ''} to {tag_of_card(project, card.device_id)}"


def _allot(work: Work, found: Iterable[Allotted]) -> None:
    for one in found:
        fresh = replace(one.point, device_id=one.row.device_id, channel=one.row.channel)
        if fresh != work.project.io_points[one.point.id]:
            work.put("io_point", fresh)
            follow_symbol(work, fresh)
        work.outcome.table.append([one.point.tag, "→", one.row.address])


def tag_of_card(project: Project, device_id: str) -> str:
    """Return the full tag of a card."""
    return full_tag(project, project.devices[device_id])


class SuggestChannels(Payload):
    """Put points that wait where it is suggested: a machine's together, with spares left at the end of each card."""

    kind: Literal["suggest-channels"] = "suggest-channels"
    ids: list[Id] = Field(default_factory=list, max_length=MOST_POINTS)
    device_ids: list[Id] = Field(default_factory=list, max_length=1000)


@edit(SuggestChannels, {"ids": ["p1"]})
def suggest_channels(work: Work, payload: SuggestChannels) -> str:
    """Work out SuggestChannels."""
    project = work.project
    points = [project.get("io_point", id) for id in dict.fromkeys(payload.ids)] or in_order(project)
    waiting = [p for p in points if not p.channel]
    if not waiting:
        raise RuleError("No point waits for a channel.", field="ids")
    for id in payload.device_ids:
        card_named(project, id)
    found = suggested(project, waiting, payload.device_ids)
    if not found:
        kinds = " and ".join(sorted({p.io_type for p in waiting}))
        words = f"No card has a free channel for these points: {kinds} are needed. Add a card."
        raise RuleError(" ".join([words, *_switching(project, waiting)]), field="ids")
    _allot(work, found)
    put = {one.point.id for one in found}
    left = [p for p in waiting if p.id not in put]
    if left:
        still = f"still wait{'s' if len(left) == 1 else ''}"
        work.outcome.remarks.append(f"{counted(len(left), 'point')} found no free channel and {still}.")
    work.outcome.remarks += _switching(project, left)
    return f"allocate {counted(len(found), 'point')}"


def _switching(project: Project, left: list[IoPoint]) -> list[str]:
    """Return in words which of the points that are left want inputs of one kind."""
    found = []
    for side in ("plus", "minus"):
        alike = [p.tag for p in left if p.io_type == "DI" and switched_to(project, p) == side]
        if alike:
            switch = f"{alike[0]} switches" if len(alike) == 1 else f"{alike[0]} and {len(alike) - 1} more switch"
            found.append(f"{switch} {side}: that wants a card for sensors of this kind.")
    return found


class FreePoints(Payload):
    """Take points off their channels; they wait again."""

    kind: Literal["free-points"] = "free-points"
    ids: list[Id] = Field(min_length=1, max_length=MOST_POINTS)


@edit(FreePoints, {"ids": ["p1"]})
def free_points(work: Work, payload: FreePoints) -> str:
    """Work out FreePoints."""
    for id in dict.fromkeys(payload.ids):
        point: IoPoint = work.project.get("io_point", id)
        if point.channel:
            freed = replace(point, device_id="", channel=0, fixed=False)
            work.put("io_point", freed)
            follow_symbol(work, freed)
    return f"free {counted(len(set(payload.ids)), 'point')}"


class FixPoints(Payload):
    """Fix points on their channels, or release them: what is fixed is neither moved nor suggested anew."""

    kind: Literal["fix-points"] = "fix-points"
    ids: list[Id] = Field(min_length=1, max_length=MOST_POINTS)
    fixed: bool = True


@edit(FixPoints, {"ids": ["p1"], "fixed": True})
def fix_points(work: Work, payload: FixPoints) -> str:
    """Work out FixPoints."""
    for id in dict.fromkeys(payload.ids):
        point: IoPoint = work.project.get("io_point", id)
        if payload.fixed and not point.channel:
            raise RuleError(f"{point.tag} is on no channel yet. Put it on one first.", field="ids", ids=(id,))
        if point.fixed != payload.fixed:
            work.put("io_point", replace(point, fixed=payload.fixed))
    return f"{'fix' if payload.fixed else 'release'} {counted(len(set(payload.ids)), 'point')}"
