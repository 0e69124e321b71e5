"""Fields of a project of one's own."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import RuleError, Settings
from jolly_core.tagging import check_own_name, fields_in, renamed

from ..base.edit import Payload, Text, Work, edit


class SetOwnField(Payload):
    """Give one of the project's own fields a text, making it when it is not there; or rename it."""

    kind: Literal["set-own-field"] = "set-own-field"
    name: Text = Field(min_length=1, max_length=40)
    text: Text | None = None
    new_name: Text | None = Field(default=None, min_length=1, max_length=40)


@edit(SetOwnField, {"name": "Order number", "text": "4711"})
def set_own_field(work: Work, payload: SetOwnField) -> str:
    """Work out SetOwnField."""
    settings: Settings = work.project.settings
    name, fields = payload.name, dict(settings.own_fields)
    if name not in fields:
        check_own_name(name)
    if payload.text is not None or name not in fields:
        fields[name] = payload.text or ""
    if payload.new_name is not None and payload.new_name != name:
        check_own_name(payload.new_name)
        if payload.new_name in fields:
            raise RuleError(f"There is already a field “{payload.new_name}”.", field="new_name")
        fields = {payload.new_name if n == name else n: text for n, text in fields.items()}
        for cell in list(work.project.title_cells.values()):
            if name in fields_in(cell.content):
                work.put("title_cell", replace(cell, content=renamed(cell.content, name, payload.new_name)))
        work.put("settings", replace(settings, own_fields=fields))
        return f"rename field {name} to {payload.new_name}"
    work.put("settings", replace(settings, own_fields=fields))
    return f"field {name}"


class RemoveOwnField(Payload):
    """Take one of the project's own fields away; refused while a title block shows it."""

    kind: Literal["remove-own-field"] = "remove-own-field"
    name: Text


@edit(RemoveOwnField, {"name": "Order number"})
def remove_own_field(work: Work, payload: RemoveOwnField) -> str:
    """Work out RemoveOwnField."""
    project = work.project
    fields = dict(project.settings.own_fields)
    if fields.pop(payload.name, None) is None:
        raise RuleError(f"There is no field “{payload.name}”.", field="name")
    blocks = {c.block_id for c in project.title_cells.values() if payload.name in fields_in(c.content)}
    if blocks:
        names = ", ".join(sorted(project.title_blocks[id].name for id in blocks))
        raise RuleError(f"“{payload.name}” is shown by the title block {names}. Take it out there first.", field="name")
    work.put("settings", replace(project.settings, own_fields=fields))
    return f"remove field {payload.name}"
