"""The structure of a project: functions (=) and locations (+), IEC 81346-1."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field

from jolly_core.model import Device, Function, Location, Project, RuleError, users_of
from jolly_core.tagging import path_of, product_tag, renamed_at, short_tag, tag_taken

from ..base.edit import Id, Payload, Text, Work, edit

MARKS = {"function": "=", "location": "+"}
# IEC 81346-1: letters and digits, parted at most; or a place in parentheses, as of a grid or a storey: (B2), (2.OG)
_CODE = re.compile(r"[^\W_]+(?:[-._#]?[^\W_]+)*|\([^\W_]+(?:[-._,;]?[^\W_]+)*\)")


def _code(value: str) -> str:
    if not _CODE.fullmatch(value):
        raise ValueError(
            f"“{value}” is no code. Use letters and digits, parted by a dot, hyphen or # at most, or (B2)."
        )
    return value


Code = Annotated[str, Field(min_length=1, max_length=20), AfterValidator(_code)]


class AddFunction(Payload):
    """Add a function (=) to the structure."""

    kind: Literal["add-function"] = "add-function"
    code: Code
    text: Text = ""
    parent_id: Id = ""


@edit(AddFunction, {"code": "K2", "text": "Kiln 2"})
def add_function(work: Work, payload: AddFunction) -> str:
    """Work out AddFunction."""
    made = Function(work.ids.new(), payload.code, payload.text, payload.parent_id)
    if payload.parent_id:
        work.project.get("function", payload.parent_id)
    if any((f.code, f.parent_id) == (made.code, made.parent_id) for f in work.project.functions.values()):
        raise RuleError(f"There is already a function ={made.code} here.", field="code")
    work.put("function", made)
    work.outcome.placed = [made.id]
    return f"add function ={made.code}"


class AddLocation(Payload):
    """Add a location (+) to the structure."""

    kind: Literal["add-location"] = "add-location"
    code: Code
    text: Text = ""
    parent_id: Id = ""
    side: Literal["panel", "door", "field", "machine"] = "panel"


@edit(AddLocation, {"code": "KP2", "text": "Control panel", "side": "panel"})
def add_location(work: Work, payload: AddLocation) -> str:
    """Work out AddLocation."""
    made = Location(work.ids.new(), payload.code, payload.text, payload.parent_id, payload.side)
    if payload.parent_id:
        work.project.get("location", payload.parent_id)
    if any((loc.code, loc.parent_id) == (made.code, made.parent_id) for loc in work.project.locations.values()):
        raise RuleError(f"There is already a location +{made.code} here.", field="code")
    work.put("location", made)
    work.outcome.placed = [made.id]
    return f"add location +{made.code}"


class ChangeFunction(Payload):
    """Give a function another code, text or parent; what is left out stays, and every tag follows."""

    kind: Literal["change-function"] = "change-function"
    function_id: Id
    code: Code | None = None
    text: Text | None = None
    parent_id: Id | None = None


@edit(ChangeFunction, {"function_id": "f1", "code": "K3"})
def change_function(work: Work, payload: ChangeFunction) -> str:
    """Work out ChangeFunction."""
    return _change(
        work, "function", payload.function_id, payload.model_dump(exclude={"kind", "function_id"}, exclude_none=True)
    )


class ChangeLocation(Payload):
    """Give a location another code, text, side or parent; what is left out stays, and every tag follows."""

    kind: Literal["change-location"] = "change-location"
    location_id: Id
    code: Code | None = None
    text: Text | None = None
    parent_id: Id | None = None
    side: Literal["panel", "door", "field", "machine"] | None = None


@edit(ChangeLocation, {"location_id": "l1", "code": "KP3"})
def change_location(work: Work, payload: ChangeLocation) -> str:
    """Work out ChangeLocation."""
    return _change(
        work, "location", payload.location_id, payload.model_dump(exclude={"kind", "location_id"}, exclude_none=True)
    )


def _change(work: Work, kind: str, id: str, values: dict[str, str]) -> str:
    project, mark = work.project, MARKS[kind]
    old: Any = project.get(kind, id)
    made = replace(old, **values)
    table: dict[str, Function | Location] = project.tables[kind]
    above = made.parent_id
    while above:
        if above == id:
            raise RuleError(
                f"{mark}{old.code} cannot lie in itself. Choose another parent.", field="parent_id", ids=(id,)
            )
        above = project.get(kind, above).parent_id
    if any((o.code, o.parent_id) == (made.code, made.parent_id) and o.id != id for o in table.values()):
        raise RuleError(f"There is already a {kind} {mark}{made.code} here.", field="code", ids=(id,))
    work.put(kind, made)
    return f"{kind} {mark}{old.code}" + (f" becomes {mark}{made.code}" if made.code != old.code else "")


def users(project: Project, kind: str, id: str) -> dict[str, int]:
    """Return how many things of each kind a function or location has."""
    counts: dict[str, int] = {}
    for user, field in users_of(kind):
        found = sum(1 for e in project.tables[user].values() if getattr(e, field) == id)
        if found:
            counts[user] = counts.get(user, 0) + found
    return counts


class RemoveFunction(Payload):
    """Take a function away; what it has goes to another one, or the edit is refused with what that is."""

    kind: Literal["remove-function"] = "remove-function"
    function_id: Id
    move_to: Id = ""


@edit(RemoveFunction, {"function_id": "f1"})
def remove_function(work: Work, payload: RemoveFunction) -> str:
    """Work out RemoveFunction."""
    return _remove(work, "function", payload.function_id, payload.move_to)


class RemoveLocation(Payload):
    """Take a location away; what it has goes to another one, or the edit is refused with what that is."""

    kind: Literal["remove-location"] = "remove-location"
    location_id: Id
    move_to: Id = ""


@edit(RemoveLocation, {"location_id": "l1"})
def remove_location(work: Work, payload: RemoveLocation) -> str:
    """Work out RemoveLocation."""
    return _remove(work, "location", payload.location_id, payload.move_to)


def _twins(project: Project, kind: str, id: str, move_to: str) -> list[str]:
    """Return what would be there twice when what a function or location has goes to another one.

    Running tags get the next number there; fixed tags and codes below would stay as they are.
    """
    found = []
    for device in project.devices.values():
        if getattr(device, f"{kind}_id") != id:
            continue
        there = replace(device)
        setattr(there, f"{kind}_id", move_to)
        place = (there.function_id, there.location_id)
        moved = renamed_at(project, there, place)
        if tag_taken(project, product_tag(project, moved), *place, but=device.id):
            found.append(short_tag(project, moved))
    table: dict[str, Function | Location] = project.tables[kind]
    codes = {e.code for e in table.values() if e.parent_id == move_to and e.id != id}
    found += [f"{MARKS[kind]}{e.code}" for e in table.values() if e.parent_id == id and e.code in codes]
    return sorted(found)


def _remove(work: Work, kind: str, id: str, move_to: str) -> str:
    project, mark = work.project, MARKS[kind]
    entity: Function | Location = project.get(kind, id)
    used = users(project, kind, id)
    if used and not move_to:
        what = " and ".join(f"{n} {user}{'s' if n > 1 else ''}" for user, n in used.items())
        raise RuleError(f"{mark}{entity.code} has {what}. Say where they go.", field="move_to", ids=(id,))
    if move_to:
        project.get(kind, move_to)
        above = move_to
        while above:
            if above == id:
                raise RuleError("They cannot go where is taken away.", field="move_to", ids=(id,))
            above = project.tables[kind][above].parent_id
    twins = _twins(project, kind, id, move_to)
    if twins:
        listed = ", ".join(twins[:6]) + (" ..." if len(twins) > 6 else "")
        where = path_of(project.tables[kind], move_to, mark) if move_to else "the top"
        raise RuleError(
            f"At {where} there would be twins: {listed}. Rename or move them first.", field="move_to", ids=(id,)
        )
    for user, field in users_of(kind):
        for held in [e for e in project.tables[user].values() if getattr(e, field) == id]:
            moved = replace(held, **{field: move_to})
            if isinstance(moved, Device):
                moved = renamed_at(project, moved, (moved.function_id, moved.location_id))
            work.put(user, moved)
    label = f"remove {kind} {path_of(project.tables[kind], id, mark)}"
    work.remove(kind, id)
    return label
