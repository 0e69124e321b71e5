"""Wire types of the project: adding, changing, removing, giving them to strokes and nets."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.library import is_colour, usual_wire_types
from jolly_core.model import Project, RuleError, Wire, WireType, counted, fields, users_of
from jolly_core.wiring import net_of, sheet_groups

from ..base.edit import Id, Payload, Text, Work, edit

Category = Literal["power", "control-ac", "control-dc", "signal", "pe", "external"]
NumberPlace = Literal["middle", "ends", "hidden"]


class AddWireType(Payload):
    """Add a wire type to the project."""

    kind: Literal["add-wire-type"] = "add-wire-type"
    name: Text = Field(min_length=1)
    colour: Text
    cross_section_mm2: fields.Area = 0.0
    awg: Text = Field(default="", max_length=8)
    category: Category = "control-dc"
    numbered: bool = True
    outside: bool = False
    number_at: NumberPlace = "middle"


@edit(AddWireType, {"name": "Control DC", "colour": "BU", "cross_section_mm2": 1.0})
def add_wire_type(work: Work, payload: AddWireType) -> str:
    """Work out AddWireType."""
    _check(work.project, payload.name, payload.colour)
    made = WireType(work.ids.new(), **payload.model_dump(exclude={"kind"}))
    work.put("wire_type", made)
    work.outcome.placed = [made.id]
    return f"add wire type {made.name}"


def _check(project: Project, name: str | None, colour: str | None, but: str = "") -> None:
    """Refuse a name that is taken and a colour that is none."""
    if name is not None and any(t.name == name and t.id != but for t in project.wire_types.values()):
        raise RuleError(f"There is already a wire type “{name}”. Choose another name.", field="name")
    if colour is not None and not is_colour(colour):
        raise RuleError(f"“{colour}” is no colour of IEC 60757, such as BU, or GNYE for two.", field="colour")


class TypeChange(Payload):
    """What may be changed of a wire type; what is left out stays."""

    wire_type_id: Id
    name: Text | None = Field(default=None, min_length=1)
    colour: Text | None = None
    cross_section_mm2: fields.Area | None = None
    awg: Text | None = Field(default=None, max_length=8)
    category: Category | None = None
    numbered: bool | None = None
    outside: bool | None = None
    number_at: NumberPlace | None = None


class ChangeWireTypes(Payload):
    """Change wire types; every wire of theirs follows. A cross-section takes the place of a gauge, and the reverse."""

    kind: Literal["change-wire-types"] = "change-wire-types"
    changes: list[TypeChange] = Field(min_length=1, max_length=200)


@edit(ChangeWireTypes, {"changes": [{"wire_type_id": "t1", "colour": "RD"}]})
def change_wire_types(work: Work, payload: ChangeWireTypes) -> str:
    """Work out ChangeWireTypes."""
    for change in payload.changes:
        old: WireType = work.project.get("wire_type", change.wire_type_id)
        values = change.model_dump(exclude={"wire_type_id"}, exclude_none=True)
        _check(work.project, values.get("name"), values.get("colour"), but=old.id)
        if values.get("awg"):
            values.setdefault("cross_section_mm2", 0.0)
        elif values.get("cross_section_mm2"):
            values.setdefault("awg", "")
        work.put("wire_type", replace(old, **values))
    count = len(payload.changes)
    return f"change wire type {old.name}" if count == 1 else f"change {count} wire types"


class RemoveWireType(Payload):
    """Take a wire type away; its wires become of another one, which must be named while there are any."""

    kind: Literal["remove-wire-type"] = "remove-wire-type"
    wire_type_id: Id
    goes_to: Id = ""


@edit(RemoveWireType, {"wire_type_id": "t1", "goes_to": "t2"})
def remove_wire_type(work: Work, payload: RemoveWireType) -> str:
    """Work out RemoveWireType."""
    project = work.project
    old: WireType = project.get("wire_type", payload.wire_type_id)
    wires = [w for w in project.wires.values() if w.type_id == old.id]
    if payload.goes_to == old.id:
        raise RuleError("Its wires cannot become what is taken away. Choose another type.", field="goes_to")
    if payload.goes_to:
        project.get("wire_type", payload.goes_to)
    elif wires:
        are = f"{counted(len(wires), 'wire')} {'is' if len(wires) == 1 else 'are'} of the type {old.name}"
        raise RuleError(f"{are}. Say which type they become.", field="goes_to")
    _retype(work, wires, payload.goes_to)
    for kind, name in users_of("wire_type"):
        if kind != "wire":
            for entity in [e for e in project.tables[kind].values() if getattr(e, name) == old.id]:
                work.put(kind, replace(entity, **{name: payload.goes_to}))
    work.remove("wire_type", old.id)
    return f"remove wire type {old.name}"


def _retype(work: Work, wires: list[Wire], type_id: str) -> None:
    """Give wires another type, sheet by sheet, since strokes of one type in line become one."""
    by_sheet: dict[str, list[Wire]] = {}
    for wire in wires:
        by_sheet.setdefault(wire.sheet_id, []).append(wire)
    for sheet_id, own in sorted(by_sheet.items()):
        draft = work.draft(sheet_id)
        for wire in own:
            draft.wires[wire.id] = replace(wire, type_id=type_id)
        work.close(draft)


class TakeWireTypes(Payload):
    """Add the usual wire types of a standard that the project does not have by name."""

    kind: Literal["take-wire-types"] = "take-wire-types"
    standard: Literal["iec", "na"]


@edit(TakeWireTypes, {"standard": "iec"})
def take_wire_types(work: Work, payload: TakeWireTypes) -> str:
    """Work out TakeWireTypes."""
    names = {t.name for t in work.project.wire_types.values()}
    for values in usual_wire_types(payload.standard):
        if values["name"] not in names:
            work.put("wire_type", WireType(work.ids.new(), **values))
    return "add usual wire types"


class SetWireType(Payload):
    """Give wires another type, or all wires of the nets they belong to; each stroke keeps its number."""

    kind: Literal["set-wire-type"] = "set-wire-type"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    wire_type_id: Id
    whole_net: bool = False


@edit(SetWireType, {"ids": ["w1"], "wire_type_id": "t2"})
def set_wire_type(work: Work, payload: SetWireType) -> str:
    """Work out SetWireType."""
    project = work.project
    wire_type: WireType = project.get("wire_type", payload.wire_type_id)
    ids = {id: project.get("wire", id) for id in payload.ids}
    if payload.whole_net:
        for wire in list(ids.values()):
            start = (wire.sheet_id, sheet_groups(project, wire.sheet_id).of_wire[wire.id])
            ids.update((id, project.wires[id]) for group in net_of(project, start) for id in group.wires)
    _retype(work, list(ids.values()), wire_type.id)
    return f"wire type {wire_type.name}"
