"""What is typed or pasted into the table of a strip: numbers, kinds, parts and remarks of many terminals at once."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from jolly_core.model import RuleError
from jolly_core.tagging import short_tag
from jolly_core.terminals import TERMINAL, strip_rows

from ..base.edit import Id, Payload, Text, TextLine, Work, edit
from .items import SetTerminals, TerminalKind, TerminalUnit, set_terminals, stored, strip_named, terminals_named
from .order import refuse_taken


class TerminalCells(BaseModel):
    """What a line of the table says of a terminal; what is left out stays."""

    model_config = ConfigDict(extra="forbid")
    unit: TerminalUnit
    number: Text | None = Field(default=None, max_length=12)
    terminal_kind: TerminalKind | None = None
    part_id: Id | None = None
    remark: TextLine | None = None


class WriteTerminals(Payload):
    """Write cells of a strip's table; a number that is as it is by itself is not fixed by that."""

    kind: Literal["write-terminals"] = "write-terminals"
    strip_id: Id
    cells: list[TerminalCells] = Field(min_length=1, max_length=5000)


@edit(WriteTerminals, {"strip_id": "d1", "cells": [{"unit": 3, "number": "3a", "remark": "test point"}]})
def write_terminals(work: Work, payload: WriteTerminals) -> str:
    """Work out WriteTerminals."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    tag = short_tag(project, device)
    terminals_named(project, device.id, [line.unit for line in payload.cells])
    for line in payload.cells:
        said = line.model_dump(exclude={"unit", "number"}, exclude_none=True)
        if said:
            set_terminals(work, SetTerminals(strip_id=device.id, units=[line.unit], **said))
    numbers = {line.unit: line.number.strip() for line in payload.cells if line.number is not None}
    now = {row.unit: row.number for row in strip_rows(project, device.id) if row.kind == TERMINAL}
    changed = {unit: number for unit, number in numbers.items() if number != now[unit]}
    given = [n for n in numbers.values() if n]
    twice = next((n for n in given if given.count(n) > 1), "")
    if twice:
        raise RuleError(f"Two terminals of {tag} would be {twice}. Give them different numbers.", field="number")
    refuse_taken(project, device.id, numbers, tag)
    for record in stored(work, device.id):
        if record.kind == TERMINAL and record.unit in changed:
            work.put("strip_item", replace(record, number=changed[record.unit]))
    count = len({line.unit for line in payload.cells})
    return f"{count} terminal{'s' if count > 1 else ''} of {tag}"
