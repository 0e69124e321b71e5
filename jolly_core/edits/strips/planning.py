"""Terminals planned on a strip."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.library import TERMINAL_WORDS, terminal_kind
from jolly_core.model import MOST_LEVELS, Bridge, Device, RuleError, StripItem
from jolly_core.tagging import short_tag
from jolly_core.terminals import (
    TERMINAL,
    next_unit,
)

from ..base.edit import Id, Payload, TextLine, Work, edit
from ..devices.parts import take_part
from .items import MOST_AT_ONCE, ItemKey, TerminalKind, place_of_key, put_in_order, stored, strip_named


class PlanTerminals(Payload):
    """Put in terminals that are on no sheet yet, before or after a place or at the end; spare ones stay undrawn.

    With `levels` each is a block of so many terminals; `bridged` makes all of them one potential (a distribution).
    """

    kind: Literal["plan-terminals"] = "plan-terminals"
    strip_id: Id
    count: int = Field(default=1, ge=1, le=MOST_AT_ONCE)
    at: ItemKey = ""
    side: Literal["before", "after"] = "after"
    terminal_kind: TerminalKind = "feed-through"
    levels: int = Field(default=1, ge=1, le=MOST_LEVELS)
    spare: bool = False
    bridged: bool = False
    part_id: Id = ""
    remark: TextLine = ""


@edit(PlanTerminals, {"strip_id": "d1", "count": 4, "at": "u3", "side": "before"})
def plan_terminals(work: Work, payload: PlanTerminals) -> str:
    """Work out PlanTerminals."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    tag = short_tag(project, device)
    records = stored(work, device.id)
    at = place_of_key(project, device.id, records, payload.at, after=payload.side == "after")
    made = planned(
        work,
        device,
        payload.terminal_kind,
        count=payload.count,
        levels=payload.levels,
        part_id=payload.part_id,
        spare=payload.spare,
        remark=payload.remark.strip(),
    )
    put_in_order(work, [*records[:at], *made, *records[at:]])
    if payload.bridged:
        bridge_all(work, device.id, made)
    work.outcome.placed = [r.id for r in made]
    one, many = TERMINAL_WORDS[payload.terminal_kind]
    words = "spare terminal" if payload.spare else one if len(made) == 1 else many
    words += "s" if payload.spare and len(made) > 1 else ""
    return f"{len(made)} {words} on {tag}"


def planned(
    work: Work,
    device: Device,
    kind: str,
    *,
    count: int,
    levels: int = 1,
    part_id: str = "",
    spare: bool = False,
    remark: str = "",
) -> list[StripItem]:
    """Return new planned terminals of a strip, block by block; they are not stored yet, their part is taken.

    Raises:
        RuleError: the part is of another kind, or has fewer levels.
    """
    part = take_part(work, part_id, "terminal") if part_id else None
    if part is not None and terminal_kind(part) != kind:
        raise RuleError(f"{part.number} is of the kind {terminal_kind(part)}, not {kind}.", field="part_id")
    if part is not None and levels > 1:
        said = part.ratings.get("levels", "").strip() or "1"
        if said.isdecimal() and int(said) < levels:
            raise RuleError(f"{part.number} has {said} level(s), not {levels}.", field="levels")
    unit = next_unit(work.project, device.id)
    made = []
    for n in range(count * levels):
        level = n % levels + 1
        own = part.id if part else ""
        made.append(
            StripItem(
                work.ids.new(), device.id, TERMINAL, 0, unit + n, "", own, kind, spare and levels == 1, level, remark
            )
        )
    return made


def bridge_all(work: Work, strip_id: str, records: list[StripItem]) -> None:
    """Make terminals one potential: each block's levels among themselves, then the first levels along the strip."""
    blocks: list[list[int]] = []
    for record in records:
        if record.level == 1 or not blocks:
            blocks.append([])
        blocks[-1].append(record.unit)
    for units in [*blocks, [block[0] for block in blocks]]:
        if len(units) > 1:
            work.put("bridge", Bridge(work.ids.new(), strip_id, tuple(units)))
