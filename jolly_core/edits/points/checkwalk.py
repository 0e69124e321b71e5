"""The wiring check: what was seen of points, taken back where it was a mistake, and the signature under it."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.model import CheckSignature, PointCheck, RuleError
from jolly_core.points.checkwalk import FAULT, check_digest, check_rows

from ..base.edit import Id, Payload, Text, TextLine, Work, edit
from .rows import MOST_POINTS


class CheckPoints(Payload):
    """Keep what was seen of points when they were set in the field and read at their cards; "" takes it back."""

    kind: Literal["check-points"] = "check-points"
    ids: list[Id] = Field(min_length=1, max_length=MOST_POINTS)
    result: Literal["", "good", "fault"]
    remark: TextLine = ""
    by: Text = ""
    on: Text = ""


@edit(CheckPoints, {"ids": ["p1"], "result": "good", "by": "J. Bell", "on": "2026-03-02"})
def check_points(work: Work, payload: CheckPoints) -> str:
    """Work out CheckPoints."""
    project = work.project
    rows = {r.point_id: r for r in check_rows(project)}
    remark = payload.remark.strip()
    if payload.result == FAULT and not remark:
        raise RuleError("Say what is wrong, so that it can be put right.", field="remark")
    for id in dict.fromkeys(payload.ids):
        point = project.get("io_point", id)
        row = rows.get(id)
        if row is None and payload.result:
            raise RuleError(f"{point.tag} has no channel to look at. Allocate it first.", field="ids", ids=(id,))
        for known in sorted(project.checks_of_point.get(id)):
            work.remove("point_check", known)
        if row is not None and payload.result:
            seen = PointCheck(work.ids.new(), id, payload.result, row.address, remark, payload.by, payload.on)
            work.put("point_check", seen)
    count = len(set(payload.ids))
    what = {"good": "tick", "fault": "fault at", "": "take back the check of"}[payload.result]
    return f"{what} {count} point{'s' if count != 1 else ''}"


class SignCheck(Payload):
    """Sign the wiring check as it stands; what is not good or not looked at is told."""

    kind: Literal["sign-check"] = "sign-check"
    by: Text = Field(min_length=1)
    on: Text = ""
    remark: TextLine = ""


@edit(SignCheck, {"by": "J. Bell", "on": "2026-03-02"})
def sign_check(work: Work, payload: SignCheck) -> str:
    """Work out SignCheck."""
    project = work.project
    by = payload.by.strip()
    if not by:
        raise RuleError("Say who signs.", field="by")
    rows = check_rows(project)
    if not any(r.check and not r.anew for r in rows):
        raise RuleError("Nothing was looked at yet. Walk the points first.", field="by")
    faults = sum(1 for r in rows if r.check and not r.anew and r.check.result == FAULT)
    waiting = sum(1 for r in rows if r.check is None or r.anew)
    for count, words in ((faults, "with a fault"), (waiting, "not looked at")):
        if count:
            work.outcome.remarks.append(f"Signed with {count} point{'s' if count != 1 else ''} {words}.")
    signed = CheckSignature(work.ids.new(), by, payload.on, check_digest(project), payload.remark.strip())
    work.put("check_signature", signed)
    work.outcome.placed = [signed.id]
    return f"{by} signs the wiring check"


class RemoveSignature(Payload):
    """Take a signature of the wiring check back."""

    kind: Literal["remove-signature"] = "remove-signature"
    id: Id


@edit(RemoveSignature, {"id": "g1"})
def remove_signature(work: Work, payload: RemoveSignature) -> str:
    """Work out RemoveSignature."""
    signed: CheckSignature = work.project.get("check_signature", payload.id)
    work.remove("check_signature", signed.id)
    return f"take back the signature of {signed.by}"
