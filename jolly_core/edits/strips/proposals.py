"""Taking what is proposed for a strip."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.model import RuleError, StripItem
from jolly_core.tagging import short_tag
from jolly_core.terminals import TERMINAL, Proposal, place_key, proposals
from jolly_core.terminals.proposals import USUAL_SPARE_PERCENT

from ..base.edit import Id, Payload, Work, edit
from ..devices.parts import take_part
from .items import place_of_key, put_in_order, stored, strip_named
from .planning import planned


class TakeProposals(Payload):
    """Do what is proposed for a strip, all of it or what is named; the table lists each and why."""

    kind: Literal["take-proposals"] = "take-proposals"
    strip_id: Id
    keys: list[str] | None = Field(default=None, max_length=5000)
    spare_percent: int = Field(default=USUAL_SPARE_PERCENT, ge=0, le=100)


@edit(TakeProposals, {"strip_id": "d1", "keys": ["bracket:left"]})
def take_proposals(work: Work, payload: TakeProposals) -> str:
    """Work out TakeProposals."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    tag = short_tag(project, device)
    found = proposals(project, work.library, device.id, payload.spare_percent)
    wanted = found if payload.keys is None else [p for p in found if p.key in payload.keys]
    missing = set(payload.keys or ()) - {p.key for p in wanted}
    if missing or not wanted:
        raise RuleError(f"That is not proposed for {tag} any more. Look again.", field="keys", ids=(device.id,))
    for proposal in wanted:
        _take(work, device.id, proposal)
        work.outcome.table.append([proposal.title, proposal.reason])
    return f"{len(wanted)} proposal{'s' if len(wanted) > 1 else ''} for {tag}"


def _take(work: Work, strip_id: str, proposal: Proposal) -> None:
    project = work.project
    records = stored(work, strip_id)
    if proposal.order:
        by_key = {place_key(r): r for r in records}
        put_in_order(work, [by_key[key] for key in proposal.order])
        return
    if proposal.what == "spare":
        at = max(n for n, r in enumerate(records, start=1) if r.kind == TERMINAL)
    elif not proposal.at:
        at = len(records) if proposal.after else 0
    else:
        at = place_of_key(project, strip_id, records, proposal.at, after=proposal.after)
    if proposal.what in ("earth", "spare"):
        kind = "earth" if proposal.what == "earth" else "feed-through"
        spare = proposal.what == "spare"
        device = project.devices[strip_id]
        made = planned(work, device, kind, count=proposal.count, part_id=proposal.part_id, spare=spare)
    else:
        part_id = take_part(work, proposal.part_id, "strip-accessory").id if proposal.part_id else ""
        made = [StripItem(work.ids.new(), strip_id, proposal.what, 0, part_id=part_id)]
    put_in_order(work, [*records[:at], *made, *records[at:]])
