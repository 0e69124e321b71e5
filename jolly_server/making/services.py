"""Cut jobs: given to the machine, followed, withdrawn when the project changes, never given twice.

The machine is talked to without any project locked: it may hang. What the project says is taken from it before.
"""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction

from jolly_core.exchange import wire_record
from jolly_core.making import CutWire, Dossier, SpoolRow, StockCut, cut_list, not_cut, spool_plan, stock_cuts
from jolly_core.model import IdSource, Project, RuleError
from jolly_core.tagging import natural

from .machine import Machine, MachineAway
from .models import CutJob, CutPiece
from .shapes import InVain, MachineValue, MakeView, WireLine

_ids = IdSource()
State = CutPiece.State


@dataclass(slots=True, frozen=True)
class Wanted:
    """What a project asks to be made at a moment: pieces to cut, what cannot be cut, spools, stock cuts."""

    wires: list[CutWire]
    uncut: list[Dossier]
    spools: list[SpoolRow]
    stock: list[StockCut]


def wanted(project: Project) -> Wanted:
    """Return what a project asks to be made; the caller holds its lock."""
    return Wanted(cut_list(project), not_cut(project), spool_plan(project), stock_cuts(project))


def machine() -> Machine:
    """Return the machine of this installation."""
    return Machine(settings.JOLLY.machine)


def send_job(project_id: str, work: Wanted, user: AbstractBaseUser | None, *, again: bool = False) -> str:
    """Store a job of all pieces that were not given to the machine yet, and send it if the machine answers.

    Args:
        again: also give it the pieces it refused before.

    Raises:
        RuleError: there is nothing to cut.
    """
    with transaction.atomic():
        known = {p.piece: p for p in CutPiece.objects.select_for_update().filter(project_id=project_id)}
        anew = {State.WITHDRAWN, *([State.REFUSED] if again else [])}
        wires = [w for w in work.wires if w.id not in known or known[w.id].state in anew]
        if not wires:
            raise RuleError("There is nothing left to cut: every wire with a length was given to the machine.")
        # The machine serves several projects: the name of a piece there begins with the project's.
        sent = [{**wire_record(w), "id": f"{project_id}:{w.id}"} for w in wires]
        job = CutJob.objects.create(
            id=_ids.new(), project_id=project_id, user_id=user.pk if user else None, wires=json.dumps(sent)
        )
        for w in wires:
            CutPiece.objects.update_or_create(
                project_id=project_id,
                piece=w.id,
                defaults={"conductor": w.key, "job": job, "state": State.WAITING, "reasons": ""},
            )
    follow(project_id, work)
    return str(job.pk)


def withdraw(project_id: str, work: Wanted) -> None:
    """Take back from the machine what it has not cut and the project does not ask for any more.

    Raises:
        MachineAway: it does not answer; what was given stays given.
    """
    asked = {w.id for w in work.wires}
    waiting = CutPiece.objects.filter(project_id=project_id, state=State.WAITING).select_related("job")
    gone = {f"{project_id}:{p.piece}": p for p in waiting if p.piece not in asked}
    if not gone:
        return
    answer = machine().withdraw(list(gone))
    for name, piece in gone.items():
        stands = answer.get(name, "unknown")
        piece.state = State.DONE if stands == "done" else State.WITHDRAWN
    CutPiece.objects.bulk_update(gone.values(), ["state"])
    for job in {p.job for p in gone.values()}:
        _close(job)


def follow(project_id: str, work: Wanted) -> str:
    """Withdraw what is not asked for any more, ask how the open jobs stand, send those the machine never had.

    Returns:
        Why the machine cannot be asked, or "".
    """
    try:
        withdraw(project_id, work)
    except MachineAway as error:
        return str(error)
    for job in CutJob.objects.filter(project_id=project_id, open=True).order_by("at", "id"):
        try:
            answer = machine().job(job.pk) or machine().send(job.pk, _left(job))
        except MachineAway as error:
            return str(error)
        _settle(job, answer)
    return ""


def _left(job: CutJob) -> list[dict[str, Any]]:
    """Return the wires of a job that still wait; a machine that forgot it is not told the others."""
    left = set(job.pieces.exclude(state__in=[State.DONE, State.WITHDRAWN]).values_list("piece", flat=True))
    return [w for w in json.loads(job.wires) if w["id"].rsplit(":", 1)[-1] in left]


def _settle(job: CutJob, answer: dict[str, Any]) -> None:
    pieces = {p.piece: p for p in job.pieces.all()}
    changed = []
    for wire in answer.get("wires", ()):
        piece = pieces.get(str(wire["id"]).rsplit(":", 1)[-1])
        state = wire["state"] if wire["state"] in State.values else State.WAITING
        if piece is not None and piece.state not in (state, State.DONE, State.WITHDRAWN):
            piece.state, piece.reasons = state, " ".join(wire.get("reasons", ()))
            changed.append(piece)
    CutPiece.objects.bulk_update(changed, ["state", "reasons"])
    _close(job)


def _close(job: CutJob) -> None:
    """Close a job of which nothing waits any more."""
    if not job.pieces.filter(state=State.WAITING).exists():
        CutJob.objects.filter(pk=job.pk).update(open=False)


def make_bench(project_id: str, work: Wanted) -> MakeView:
    """Return the cut list with what became of each piece, the machine's state, spools and cuts."""
    try:
        status: dict[str, Any] = machine().status()
        problem = follow(project_id, work)
    except MachineAway as error:
        status, problem = {}, str(error)
    known = {p.piece: p for p in CutPiece.objects.filter(project_id=project_id).select_related("job")}
    cut_before = {p.conductor for p in known.values() if p.state == State.DONE}
    rows: list[WireLine] = []
    for wire in work.wires:
        piece = known.pop(wire.id, None)
        state = piece.state if piece and piece.state != State.WITHDRAWN else "new"
        rows.append(
            {
                **wire_record(wire),
                "state": state,
                "reasons": piece.reasons if piece else "",
                # The conductor was cut as another piece: what lies in the box is out of date.
                "stale": state != State.DONE and wire.key in cut_before,
            }
        )
    return {
        "wires": rows,
        "uncut": [{"number": d.number, "from": d.start.name, "to": d.end.name, "why": d.missing} for d in work.uncut],
        "spools": work.spools,
        "stock": work.stock,
        "machine": _machine_value(status, problem),
        "open_jobs": CutJob.objects.filter(project_id=project_id, open=True).count(),
        "vain": _in_vain([p for p in known.values() if p.state == State.DONE]),
    }


def _machine_value(status: dict[str, Any], problem: str) -> MachineValue:
    value: MachineValue = {"address": settings.JOLLY.machine, "problem": problem}
    if isinstance(status.get("name"), str):
        value["name"] = status["name"]
    if isinstance(status.get("state"), str):
        value["state"] = status["state"]
    if isinstance(status.get("limits"), dict):
        value["limits"] = {str(k): float(v) for k, v in status["limits"].items() if isinstance(v, (int, float))}
    return value


def _in_vain(pieces: list[CutPiece]) -> list[InVain]:
    """Return what was cut and is not asked for any more: number, ends, length, by number."""
    jobs: dict[str, dict[str, Any]] = {}
    found: list[InVain] = []
    for piece in pieces:
        if piece.job_id not in jobs:
            jobs[piece.job_id] = {w["id"].rsplit(":", 1)[-1]: w for w in json.loads(piece.job.wires)}
        wire = jobs[piece.job_id].get(piece.piece)
        if wire is not None:
            found.append(
                {
                    "number": wire["number"],
                    "start": wire["start"],
                    "end": wire["end"],
                    "length_mm": wire["length_mm"],
                    "type_name": wire["type_name"],
                }
            )
    return sorted(found, key=lambda w: [natural(w[end]) for end in ("number", "start", "end")])
