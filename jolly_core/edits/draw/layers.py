"""Layers of drawings, and what moves together."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Any, Literal

from pydantic import Field

from jolly_core.model import KINDS, ON_SHEET, Project, RuleError
from jolly_core.model.entities.circuit import Layer

from ..base.edit import Id, Payload, Text, Work, edit
from .selecting import sheet_of, what_of

IN_LAYERS = tuple(kind for kind in ON_SHEET if "layer_id" in KINDS[kind].fields)


def with_companions(project: Project, ids: Iterable[str]) -> list[str]:
    """Return ids of things on a sheet, and of all that moves together with one of them, each once."""
    found = dict.fromkeys(ids)
    things = [t for id in found for kind in IN_LAYERS if (t := project.tables[kind].get(id)) is not None]
    groups = {(t.sheet_id, t.together) for t in things if t.together}
    for sheet_id in sorted({sheet for sheet, _ in groups}):
        for kind in IN_LAYERS:
            for id in project.on_sheet[kind].get(sheet_id):
                if (sheet_id, project.tables[kind][id].together) in groups:
                    found.setdefault(id)
    return list(found)


def _things(work: Work, ids: list[str]) -> list[tuple[str, Any]]:
    """Return what of a selection can be in a layer, with its kind.

    Raises:
        RuleError: nothing of it can.
    """
    tables = work.project.tables
    found = [(kind, tables[kind][id]) for id in ids for kind in IN_LAYERS if id in tables[kind]]
    if not found:
        raise RuleError("A wire follows what it ends at. Select that, or a note or figure.", field="ids")
    return found


class GroupSelection(Payload):
    """Let what is selected move together from now on; wires follow what they end at anyway."""

    kind: Literal["group-selection"] = "group-selection"
    ids: list[Id] = Field(min_length=2, max_length=2000)


@edit(GroupSelection, {"ids": ["y1", "n1"]})
def group_selection(work: Work, payload: GroupSelection) -> str:
    """Work out GroupSelection."""
    sheet_of(work.project, payload.ids)
    things = _things(work, payload.ids)
    if len(things) < 2:
        raise RuleError("One thing alone is no group. Select another with it.", field="ids")
    name = work.ids.new()
    for kind, thing in things:
        work.put(kind, replace(thing, together=name))
    work.outcome.placed = list(payload.ids)
    return f"group {what_of(work.project, payload.ids)}"


class UngroupSelection(Payload):
    """Let each thing of the groups that are selected move alone again."""

    kind: Literal["ungroup-selection"] = "ungroup-selection"
    ids: list[Id] = Field(min_length=1, max_length=2000)


@edit(UngroupSelection, {"ids": ["y1"]})
def ungroup_selection(work: Work, payload: UngroupSelection) -> str:
    """Work out UngroupSelection."""
    sheet_of(work.project, payload.ids)
    ids = with_companions(work.project, payload.ids)
    for kind, thing in _things(work, ids):
        if thing.together:
            work.put(kind, replace(thing, together=""))
    work.outcome.placed = ids
    return f"ungroup {what_of(work.project, ids)}"


class AddLayer(Payload):
    """Add a layer that things on sheets can be put in."""

    kind: Literal["add-layer"] = "add-layer"
    name: Text = Field(min_length=1)


@edit(AddLayer, {"name": "Existing"})
def add_layer(work: Work, payload: AddLayer) -> str:
    """Work out AddLayer."""
    layers = work.project.layers
    order = max((layer.order for layer in layers.values()), default=0) + 1
    made = Layer(work.ids.new(), _free(work.project, payload.name), order=order)
    work.put("layer", made)
    work.outcome.placed = [made.id]
    return f"add the layer {made.name}"


class ChangeLayer(Payload):
    """Rename a layer, or say whether what is in it is on papers; what is left out stays."""

    kind: Literal["change-layer"] = "change-layer"
    layer_id: Id
    name: Text | None = Field(default=None, min_length=1)
    printed: bool | None = None


@edit(ChangeLayer, {"layer_id": "la1", "printed": False})
def change_layer(work: Work, payload: ChangeLayer) -> str:
    """Work out ChangeLayer."""
    layer: Layer = work.project.get("layer", payload.layer_id)
    name = layer.name if payload.name is None else _free(work.project, payload.name, layer.id)
    printed = layer.printed if payload.printed is None else payload.printed
    work.put("layer", replace(layer, name=name, printed=printed))
    return f"change the layer {name}"


class RemoveLayer(Payload):
    """Take a layer away; what is in it stays and is in none."""

    kind: Literal["remove-layer"] = "remove-layer"
    layer_id: Id


@edit(RemoveLayer, {"layer_id": "la1"})
def remove_layer(work: Work, payload: RemoveLayer) -> str:
    """Work out RemoveLayer."""
    layer: Layer = work.project.get("layer", payload.layer_id)
    work.remove("layer", layer.id)
    return f"remove the layer {layer.name}"


class PutInLayer(Payload):
    """Put what is selected in a layer, or in none."""

    kind: Literal["put-in-layer"] = "put-in-layer"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    layer_id: Id = ""


@edit(PutInLayer, {"ids": ["y1"], "layer_id": "la1"})
def put_in_layer(work: Work, payload: PutInLayer) -> str:
    """Work out PutInLayer."""
    sheet_of(work.project, payload.ids)
    layer: Layer | None = work.project.get("layer", payload.layer_id) if payload.layer_id else None
    for kind, thing in _things(work, payload.ids):
        if thing.layer_id != payload.layer_id:
            work.put(kind, replace(thing, layer_id=payload.layer_id))
    work.outcome.placed = list(payload.ids)
    where = f"in the layer {layer.name}" if layer else "in no layer"
    return f"put {what_of(work.project, payload.ids)} {where}"


def _free(project: Project, name: str, own: str = "") -> str:
    """Return a name for a layer, without blanks around it.

    Raises:
        RuleError: it is empty, or another layer has it.
    """
    name = name.strip()
    if not name:
        raise RuleError("A layer needs a name, for example Existing.", field="name")
    if any(other.name.lower() == name.lower() for other in project.layers.values() if other.id != own):
        raise RuleError(f"There is a layer {name} already.", field="name")
    return name
