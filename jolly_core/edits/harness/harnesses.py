"""Harnesses: added, changed, removed."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import Harness, Heading, RuleError

from ..base.edit import Id, Payload, Text, Work, edit
from .nodes import drop_node
from .segments import ExtraShare, without


class AddHarness(Payload):
    """Add a harness."""

    kind: Literal["add-harness"] = "add-harness"
    code: Text = Field(min_length=1, max_length=30)
    text: Text = ""


@edit(AddHarness, {"code": "WH-T1", "text": "Turner carriage sensors"})
def add_harness(work: Work, payload: AddHarness) -> str:
    """Work out AddHarness."""
    project = work.project
    code = payload.code.strip()
    if any(h.code == code for h in project.harnesses.values()):
        raise RuleError(f"There is a harness {code} already. Choose another code.", field="code")
    order = max((h.order for h in project.harnesses.values()), default=0) + 1
    made = Harness(work.ids.new(), code, payload.text, order)
    work.put("harness", made)
    work.outcome.placed = [made.id]
    return f"add harness {code}"


class ChangeHarness(Payload):
    """Give a harness another code, text or number to build, or its segments another share of extra length.

    Attributes:
        apart: whether its bundles stay apart from those of other harnesses on the same way.
        heading: where its trunk leads on the board.
        label_mm: how far from each end its label is put, 0 for none.
    """

    kind: Literal["change-harness"] = "change-harness"
    harness_id: Id
    code: Text | None = Field(default=None, min_length=1, max_length=30)
    text: Text | None = None
    extra_percent: ExtraShare | None = None
    quantity: int | None = Field(default=None, ge=0, le=100_000)
    apart: bool | None = None
    heading: Heading | None = None
    label_mm: float | None = Field(default=None, ge=0, le=20_000)


@edit(ChangeHarness, {"harness_id": "h1", "extra_percent": 2})
def change_harness(work: Work, payload: ChangeHarness) -> str:
    """Work out ChangeHarness."""
    harness: Harness = work.project.get("harness", payload.harness_id)
    values = payload.model_dump(exclude={"kind", "harness_id"}, exclude_none=True)
    if "code" in values:
        values["code"] = values["code"].strip()
        if any(h.code == values["code"] and h.id != harness.id for h in work.project.harnesses.values()):
            raise RuleError(f"There is a harness {values['code']} already. Choose another code.", field="code")
    work.put("harness", replace(harness, **values))
    return f"facts of {harness.code}"


class RemoveHarness(Payload):
    """Take a harness away; its connectors stay on their sheets."""

    kind: Literal["remove-harness"] = "remove-harness"
    harness_id: Id


@edit(RemoveHarness, {"harness_id": "h1"})
def remove_harness(work: Work, payload: RemoveHarness) -> str:
    """Work out RemoveHarness."""
    project = work.project
    harness: Harness = project.get("harness", payload.harness_id)
    variants = {v.id for v in project.harness_variants.values() if v.harness_id == harness.id}
    for part in [p for p in project.variant_parts.values() if p.variant_id in variants]:
        work.remove("variant_part", part.id)
    for segment in [s for s in project.segments.values() if s.harness_id == harness.id]:
        without(work, segment.id)
    for node in [n for n in project.nodes.values() if n.harness_id == harness.id]:
        drop_node(work, node)
    for kind in ("strand", "harness_shield", "harness_variant"):
        for id in [e.id for e in project.tables[kind].values() if e.harness_id == harness.id]:
            work.remove(kind, id)
    work.remove("harness", harness.id)
    return f"remove harness {harness.code}"
