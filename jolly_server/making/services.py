"""Cut jobs: given to the machine, followed, never given twice."""

from __future__ import annotations

import json
from typing import Any

from django.conf import settings
from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction

from jolly_core.exchange import wire_record
from jolly_core.making import cut_list, spool_plan, stock_cuts, uncut
from jolly_core.model import IdSource, Project, RuleError

from .machine import Machine, MachineAway
from .models import CutJob, CutPiece

_ids = IdSource()
State = CutPiece.State


def machine() -> Machine:
    """Return the machine of this installation."""
    return Machine(settings.JOLLY.machine)


def send_job(project_id: str, project: Project, user: AbstractBaseUser | None, *, again: bool = False) -> str:
    """Store a job of all pieces that were not given to the machine yet, and send it if the machine answers.

    Args:
        again: also give it the pieces it refused before.

    Raises:
        RuleError: there is nothing to cut.
    """
    with transaction.atomic():
        known = {p.piece: p for p in CutPiece.objects.select_for_update().filter(project_id=project_id)}
        wires = [w for w in cut_list(project) if w.id not in known or (again and known[w.id].state == State.REFUSED)]
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
    follow(project_id)
    return str(job.pk)


def follow(project_id: str) -> str:
    """Ask the machine how the open jobs stand, send those it never had, and return why it cannot be asked, or ""."""
    for job in CutJob.objects.filter(project_id=project_id, open=True).order_by("at", "id"):
        try:
            answer = machine().job(job.pk) or machine().send(job.pk, _left(job))
        except MachineAway as error:
            return str(error)
        _settle(job, answer)
    return ""


def _left(job: CutJob) -> list[dict[str, Any]]:
    """Return the wires of a job that are not known to be cut; a machine that forgot it is not told the others."""
    done = set(job.pieces.filter(state=State.DONE).values_list("piece", flat=True))
    return [w for w in json.loads(job.wires) if w["id"].rsplit(":", 1)[-1] not in done]


def _settle(job: CutJob, answer: dict[str, Any]) -> None:
    pieces = {p.piece: p for p in job.pieces.all()}
    changed = []
    for wire in answer.get("wires", ()):
        piece = pieces.get(str(wire["id"]).rsplit(":", 1)[-1])
        state = wire["state"] if wire["state"] in State.values else State.WAITING
        if piece is not None and piece.state not in (state, State.DONE):
            piece.state, piece.reasons = state, " ".join(wire.get("reasons", ()))
            changed.append(piece)
    CutPiece.objects.bulk_update(changed, ["state", "reasons"])
    if not job.pieces.filter(state=State.WAITING).exists():
        CutJob.objects.filter(pk=job.pk).update(open=False)


def make_bench(project_id: str, project: Project) -> dict[str, Any]:
    """Return the cut list with what became of each piece, the machine's state, spools and cuts."""
    try:
        status: dict[str, Any] = machine().status()
        problem = follow(project_id)
    except MachineAway as error:
        status, problem = {}, str(error)
    known = {p.piece: p for p in CutPiece.objects.filter(project_id=project_id).select_related("job")}
    cut_before = {p.conductor for p in known.values() if p.state == State.DONE}
    rows = []
    for wire in cut_list(project):
        piece = known.pop(wire.id, None)
        state = piece.state if piece else "new"
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
        "uncut": [
            {"number": d.number, "from": d.start.name, "to": d.end.name, "why": d.missing} for d in uncut(project)
        ],
        "spools": [_plain(r) for r in spool_plan(project)],
        "stock": [_plain(r) for r in stock_cuts(project)],
        "machine": {"address": settings.JOLLY.machine, "problem": problem, **status},
        "open_jobs": CutJob.objects.filter(project_id=project_id, open=True).count(),
        "orphans": sum(1 for p in known.values() if p.state == State.DONE),
    }


def _plain(row: Any) -> dict[str, Any]:
    return {name: getattr(row, name) for name in row.__slots__}
