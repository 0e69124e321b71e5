"""Variants of harnesses: named, with how many are built of each, and what is in which."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.harness import node_name, variants_of, wires_of
from jolly_core.model import Harness, HarnessVariant, Project, RuleError, VariantPart

from ..base.edit import ConductorKey, Id, Payload, Text, Work, edit


class AddVariant(Payload):
    """Add a variant to a harness: a way in which it is built, and how many."""

    kind: Literal["add-variant"] = "add-variant"
    harness_id: Id
    name: Text = Field(min_length=1, max_length=40)
    quantity: int = Field(default=1, ge=0, le=100_000)


@edit(AddVariant, {"harness_id": "h1", "name": "Long", "quantity": 12})
def add_variant(work: Work, payload: AddVariant) -> str:
    """Work out AddVariant."""
    harness: Harness = work.project.get("harness", payload.harness_id)
    name = _free(work.project, harness.id, payload.name)
    order = max((v.order for v in variants_of(work.project, harness.id)), default=0) + 1
    made = HarnessVariant(work.ids.new(), harness.id, name, payload.quantity, order)
    work.put("harness_variant", made)
    work.outcome.placed = [made.id]
    return f"variant {name} of {harness.code}"


def _free(project: Project, harness_id: str, wanted: str, but: str = "") -> str:
    """Return the name of a variant without spaces about it.

    Raises:
        RuleError: it is empty, or the harness has a variant of that name.
    """
    name = wanted.strip()
    if not name:
        raise RuleError("Give the variant a name.", field="name")
    if any(v.name == name and v.id != but for v in variants_of(project, harness_id)):
        code = project.harnesses[harness_id].code
        raise RuleError(f"{code} has a variant {name} already. Choose another name.", field="name")
    return name


class ChangeVariant(Payload):
    """Give a variant another name, or build another number of it."""

    kind: Literal["change-variant"] = "change-variant"
    variant_id: Id
    name: Text | None = Field(default=None, max_length=40)
    quantity: int | None = Field(default=None, ge=0, le=100_000)


@edit(ChangeVariant, {"variant_id": "v1", "quantity": 40})
def change_variant(work: Work, payload: ChangeVariant) -> str:
    """Work out ChangeVariant."""
    variant: HarnessVariant = work.project.get("harness_variant", payload.variant_id)
    name = variant.name
    if payload.name is not None:
        name = _free(work.project, variant.harness_id, payload.name, variant.id)
    quantity = variant.quantity if payload.quantity is None else payload.quantity
    work.put("harness_variant", replace(variant, name=name, quantity=quantity))
    return f"facts of variant {name}"


class RemoveVariant(Payload):
    """Take a variant away; what was in it alone is in all that are left."""

    kind: Literal["remove-variant"] = "remove-variant"
    variant_id: Id


@edit(RemoveVariant, {"variant_id": "v1"})
def remove_variant(work: Work, payload: RemoveVariant) -> str:
    """Work out RemoveVariant."""
    variant: HarnessVariant = work.project.get("harness_variant", payload.variant_id)
    for part in [p for p in work.project.variant_parts.values() if p.variant_id == variant.id]:
        work.remove("variant_part", part.id)
    work.remove("harness_variant", variant.id)
    return f"remove variant {variant.name}"


class SetVariants(Payload):
    """Say in which variants of its harness wires, an end or a branch are; all of them or none stands for all.

    Attributes:
        variants: ids of the variants.
        wires: keys of wires.
        node_id: an end, splice or clip.
        segment_id: a branch: the segment and all beyond it.
    """

    kind: Literal["set-variants"] = "set-variants"
    harness_id: Id
    variants: list[Id] = Field(max_length=200)
    wires: list[ConductorKey] = Field(default=[], max_length=2000)
    node_id: Id = ""
    segment_id: Id = ""


@edit(SetVariants, {"harness_id": "h1", "variants": ["v1"], "wires": ["y1.0-y2.0"]})
def set_variants(work: Work, payload: SetVariants) -> str:
    """Work out SetVariants."""
    project = work.project
    harness: Harness = project.get("harness", payload.harness_id)
    there = {v.id: v.name for v in variants_of(project, harness.id)}
    if unknown := [id for id in payload.variants if id not in there]:
        raise RuleError(f"{harness.code} has no such variant.", field="variants", ids=tuple(unknown))
    targets = _targets(project, harness, payload)
    if not targets:
        raise RuleError("Choose wires, an end or a branch.", field="wires")
    chosen = [] if len(set(payload.variants)) == len(there) else list(dict.fromkeys(payload.variants))
    for target in targets:
        for old in [p for p in project.variant_parts.values() if p.variant_id in there and _names(p) == target]:
            work.remove("variant_part", old.id)
        for id in chosen:
            work.put("variant_part", VariantPart(work.ids.new(), id, *target))
    return f"variants of {_label(project, payload)}"


Target = tuple[str, str, str]  # key of a wire, node, segment; one of them


def _names(part: VariantPart) -> Target:
    return part.conductor, part.node_id, part.segment_id


def _targets(project: Project, harness: Harness, payload: SetVariants) -> list[Target]:
    known = {w.conductor.key for w in wires_of(project, harness.id)}
    for key in payload.wires:
        if key not in known:
            raise RuleError(f"This wire of {harness.code} is gone. Look at the table again.", field="wires")
    found: list[Target] = [(key, "", "") for key in payload.wires]
    for kind, id in (("node", payload.node_id), ("segment", payload.segment_id)):
        if id:
            if project.get(kind, id).harness_id != harness.id:
                raise RuleError(f"It is not in {harness.code}.", ids=(id,))
            found.append(("", id, "") if kind == "node" else ("", "", id))
    return found


def _label(project: Project, payload: SetVariants) -> str:
    if payload.node_id:
        return node_name(project, project.nodes[payload.node_id])
    if payload.segment_id:
        return "a branch"
    return "a wire" if len(payload.wires) == 1 else f"{len(payload.wires)} wires"
