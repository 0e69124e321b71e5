"""Findings that somebody accepts: muted with a reason, and heard again."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.model import Mute, RuleError

from ..base.edit import Id, Payload, Text, Work, edit


class MuteSnag(Payload):
    """Accept a finding, with the reason; it is listed apart from then on, and not counted."""

    kind: Literal["mute-snag"] = "mute-snag"
    key: str = Field(min_length=3, max_length=2000)
    reason: Text = Field(min_length=1)


@edit(MuteSnag, {"key": "coil-unused:y1", "reason": "Reserve for the second auger"})
def mute_snag(work: Work, payload: MuteSnag) -> str:
    """Work out MuteSnag."""
    reason = payload.reason.strip()
    if not reason:
        raise RuleError("Say why this is all right: the next one who reads the drawing will ask.", field="reason")
    if any(m.key == payload.key for m in work.project.mutes.values()):
        raise RuleError("This snag is muted already.", field="key")
    made = Mute(work.ids.new(), payload.key, reason)
    work.put("mute", made)
    return f"mute a snag: {reason}"


class UnmuteSnag(Payload):
    """Hear a muted finding again."""

    kind: Literal["unmute-snag"] = "unmute-snag"
    mute_id: Id


@edit(UnmuteSnag, {"mute_id": "m1"})
def unmute_snag(work: Work, payload: UnmuteSnag) -> str:
    """Work out UnmuteSnag."""
    mute: Mute = work.project.get("mute", payload.mute_id)
    work.remove("mute", mute.id)
    return "hear a snag again"
