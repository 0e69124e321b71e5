"""What was edited in a list in a spreadsheet, taken in as one edit: tags, texts, titles, parts, lengths, order data."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal

from pydantic import Field

from jolly_core.model import Device, Part, RuleError, Sheet
from jolly_core.reports import BACK, Back, listed_factor, state_mark

from ..base.edit import Id, Payload, Text, Work, edit
from ..cables.cores import SetCable, set_cable
from ..devices.facts import SetTag, SetText, set_tag, set_text
from ..devices.parts import give_part
from ..points.rows import PointCell, WritePoints, write_points
from ..sheets.changing import ChangeSheets, SheetChange, change_sheets

MOST_M = 100_000  # of the length of a cable
_PART_FIELDS = {"text": "text", "supplier": "supplier", "order_number": "order_number", "currency": "currency"}


class ListCell(Payload):
    """A cell of a list that was edited: the object, the column, and what it says now, lengths in the project's unit."""

    id: Id
    column: Text
    value: str = Field(max_length=4000)
    mark: Text = ""


class TakeList(Payload):
    """Take in what was edited in a list; a mark says what the object said when the list was written."""

    kind: Literal["take-list"] = "take-list"
    report: Text
    cells: list[ListCell] = Field(min_length=1, max_length=50_000)


@edit(TakeList, {"report": "devices", "cells": [{"id": "d1", "column": "text", "value": "Auger run"}]})
def take_list(work: Work, payload: TakeList) -> str:
    """Work out TakeList."""
    back = BACK.get(payload.report)
    if back is None:
        raise RuleError("This list is not one that is taken in again.", field="report")
    before = {id: back.state(work.project, id) for id in {cell.id for cell in payload.cells}}
    for cell in payload.cells:
        state = before[cell.id]
        if state is None:
            raise RuleError("Something in this list is gone from the project. Write the list anew.", ids=(cell.id,))
        if cell.mark and cell.mark != state_mark(state):
            words = f"{back.name(work.project, cell.id)} has changed since the list was written. Write it anew."
            raise RuleError(words, ids=(cell.id,))
        if cell.column not in state:
            raise RuleError(f"The column “{cell.column}” of this list is not taken in.", field="column")
    if back.kind == "sheet":
        _sheets(work, payload.cells)
    elif back.kind == "io_point":
        cells = [PointCell(id=c.id, key=c.column, value=c.value.strip()) for c in payload.cells]
        write_points(work, WritePoints(cells=cells))
    else:
        _one_by_one(work, payload, back)
    count = len({cell.id for cell in payload.cells})
    return f"take in a list: {count} row{'s' if count > 1 else ''}"


def _one_by_one(work: Work, payload: TakeList, back: Back) -> None:
    take = _part if back.kind == "part" else _device
    for cell in payload.cells:
        try:
            take(work, cell)
        except RuleError as error:
            name = back.name(work.project, cell.id)
            raise RuleError(f"{name}: {error.message}", field=cell.column, ids=(cell.id,)) from error


def _sheets(work: Work, cells: list[ListCell]) -> None:
    """Give sheets their numbers and titles together, so that two may change places; a subtitle that is kept stays."""
    said: dict[str, dict[str, str]] = {}
    for cell in cells:
        sheet: Sheet = work.project.get("sheet", cell.id)
        value = cell.value.strip()
        values = said.setdefault(sheet.id, {})
        if cell.column == "number":
            values["number"] = value
            continue
        kept = sheet.subtitle and value.endswith(f" {sheet.subtitle}")
        values["title"] = value.removesuffix(f" {sheet.subtitle}") if kept else value
        values["subtitle"] = sheet.subtitle if kept else ""
    changes = [SheetChange.model_validate({"sheet_id": id, **values}) for id, values in said.items()]
    change_sheets(work, ChangeSheets(sheets=changes))


def _device(work: Work, cell: ListCell) -> None:
    device: Device = work.project.get("device", cell.id)
    if cell.column in ("tag", "card"):
        set_tag(work, SetTag.model_construct(device_id=device.id, tag=cell.value))
    elif cell.column in ("text", "line1"):
        set_text(work, SetText.model_construct(device_id=device.id, text=cell.value))
    elif cell.column == "length_m":
        length = _number(cell.value, "length", MOST_M) * listed_factor(work.project, cell.column, device.id)
        set_cable(work, SetCable.model_construct(device_id=device.id, length_m=length))
    else:
        give_part(work, device, cell.value.strip())


def _number(value: str, what: str, most: float = 1e12) -> float:
    """Return a number as a spreadsheet or a person writes it, 0 for nothing.

    Raises:
        RuleError: it is none, or below 0, or above the most it may be.
    """
    try:
        number = float(value.replace(",", ".")) if value.strip() else 0.0
    except ValueError:
        number = -1.0
    if not 0 <= number <= most:
        raise RuleError(f"“{value}” is no {what}.")
    return number


def _part(work: Work, cell: ListCell) -> None:
    part: Part = work.project.get("part", cell.id)
    values: dict[str, Any]
    if cell.column == "price":
        price = _number(cell.value, "price") * listed_factor(work.project, cell.column, part.id)
        values = {"price": round(price, 4)}
    elif cell.column == "text" and work.project.settings.part_language in part.texts:
        values = {"texts": {**part.texts, work.project.settings.part_language: cell.value}}
    else:
        values = {_PART_FIELDS[cell.column]: cell.value}
    work.put("part", replace(part, **values))
