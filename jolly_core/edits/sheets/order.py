"""The order of sheets and their numbers."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import counts_lines, lines_of
from jolly_core.model import Project, RuleError, Sheet, counted
from jolly_core.tagging import product_tag
from jolly_core.wiring import wire_numbers

from ..base.edit import Id, Payload, Text, Work, edit
from .adding import first_line_of, orders_after
from .changing import devices_follow


class OrderSheets(Payload):
    """Put sheets after another one, "" for the end and "-" for the front; given a group, they join it.

    With `follow`, devices drawn on a sheet that have its function or location take the new one.
    """

    kind: Literal["order-sheets"] = "order-sheets"
    sheet_ids: list[Id] = Field(min_length=1, max_length=5000)
    after_id: Id = ""
    function_id: Id | None = None
    location_id: Id | None = None
    follow: bool = True


@edit(OrderSheets, {"sheet_ids": ["s3"], "after_id": "s1"})
def order_sheets(work: Work, payload: OrderSheets) -> str:
    """Work out OrderSheets."""
    project = work.project
    wanted = set(payload.sheet_ids)
    if payload.after_id in wanted:
        raise RuleError("Sheets cannot be put after themselves.", field="after_id")
    for id in wanted:
        project.get("sheet", id)
    moving = [s for s in project.sheets_in_order() if s.id in wanted]
    orders = orders_after(work, payload.after_id, len(moving), but=frozenset(wanted))
    group = payload.model_dump(include={"function_id", "location_id"}, exclude_none=True)
    for field, id in group.items():
        if id:
            project.get(field.removesuffix("_id"), id)
    for sheet, order in zip(moving, orders, strict=True):
        made = replace(project.sheets[sheet.id], order=order, **group)
        work.put("sheet", made)
        if payload.follow:
            devices_follow(work, sheet, made)
    return f"move sheet {moving[0].number}" if len(moving) == 1 else f"move {len(moving)} sheets"


class NumberSheets(Payload):
    """Number sheets again in their order; tags and numbers that are made of lines follow, fixed ones stay.

    `lines` says what becomes of ladder lines: "number" makes sheet 12 begin at line 121, or after the highest line in
    use where those are taken, "run" lets them go on from sheet to sheet, "keep" leaves them.
    """

    kind: Literal["number-sheets"] = "number-sheets"
    sheet_ids: list[Id] = Field(default_factory=list, max_length=5000)
    start: int = Field(default=1, ge=0, le=99999)
    step: int = Field(default=1, ge=1, le=1000)
    prefix: Text = Field(default="", max_length=6)
    width: int = Field(default=1, ge=1, le=5)
    lines: Literal["number", "run", "keep"] = "number"
    first_line: int = Field(default=1, ge=0, le=99999)


@edit(NumberSheets, {"start": 10, "step": 10})
def number_sheets(work: Work, payload: NumberSheets) -> str:
    """Work out NumberSheets."""
    project = work.project
    wanted = set(payload.sheet_ids) or set(project.sheets)
    for id in wanted:
        project.get("sheet", id)
    sheets = [s for s in project.sheets_in_order() if s.id in wanted]
    taken = {s.number for s in project.sheets.values() if s.id not in wanted}
    was = {s.id: _shown(project, s) for s in sheets}
    line = payload.first_line
    lines = [lines_of(s) for s in project.sheets.values() if s.id not in wanted and counts_lines(project, s)]
    for n, sheet in enumerate(sheets):
        number = f"{payload.prefix}{payload.start + n * payload.step:0{payload.width}d}"
        if number in taken:
            words = f"Sheet {sheet.number} would become {number}, which another sheet has that is not chosen."
            raise RuleError(f"{words} Choose it too, or another start.", field="start", ids=(sheet.id,))
        made = replace(sheet, number=number)
        if payload.lines == "number":
            made = replace(made, first_line=first_line_of(project, made, lines))
        elif payload.lines == "run" and counts_lines(project, sheet):
            made = replace(made, first_line=line)
            line = lines_of(made).stop
        if counts_lines(project, made):
            lines.append(lines_of(made))
        work.put("sheet", made)
    tell_changes(work, sheets, was)
    return f"number {counted(len(sheets), 'sheet')} again"


class RunLinesOn(Payload):
    """Give sheets that have line numbers of a sheet before them others: each goes on where those before it end.

    Sheets whose lines are theirs alone stay as they are, and so do fixed tags and numbers.
    """

    kind: Literal["run-lines-on"] = "run-lines-on"


@edit(RunLinesOn, {})
def run_lines_on(work: Work, payload: RunLinesOn) -> str:
    """Work out RunLinesOn."""
    project = work.project
    sheets = [s for s in project.sheets_in_order() if counts_lines(project, s)]
    was = {s.id: _shown(project, s) for s in sheets}
    settled: list[range] = []
    for sheet in sheets:
        made = sheet
        while over := [u.stop for u in settled if u.start < lines_of(made).stop and lines_of(made).start < u.stop]:
            made = replace(made, first_line=max(over))
        settled.append(lines_of(made))
        if made != sheet:
            work.put("sheet", made)
    tell_changes(work, sheets, was)
    return "let lines run on from sheet to sheet"


def _shown(project: Project, sheet: Sheet) -> tuple[dict[str, str], list[str]]:
    """Return the tags and wire numbers a sheet shows."""
    devices = dict.fromkeys(s.device_id for s in project.symbols_on(sheet.id) if s.device_id in project.devices)
    tags = {id: product_tag(project, project.devices[id]) for id in devices}
    return tags, [number for _, number in sorted(wire_numbers(project, sheet.id).items())]


def tell_changes(work: Work, sheets: list[Sheet], was: dict[str, tuple[dict[str, str], list[str]]]) -> None:
    """Put into the outcome's table what each sheet is now: old number, new number, title, what follows."""
    project = work.project
    for sheet in sheets:
        now = project.sheets[sheet.id]
        tags, numbers = _shown(project, now)
        old_tags, old_numbers = was[sheet.id]
        follow = []
        changed_tags = sum(tags[id] != old_tags.get(id) for id in tags)
        changed = sum(a != b for a, b in zip(old_numbers, numbers, strict=False))
        if changed_tags:
            follow.append(f"{changed_tags} {'tag' if changed_tags == 1 else 'tags'}")
        if changed:
            follow.append(f"{changed} wire {'number' if changed == 1 else 'numbers'}")
        if (now.number, now.first_line) != (sheet.number, sheet.first_line) or follow:
            lines = f"line {sheet.first_line} → {now.first_line}" if now.first_line != sheet.first_line else ""
            words = ", ".join([*([lines] if lines and now.frame == "ladder" else []), *follow])
            work.outcome.table.append([sheet.number, now.number, now.title, words])
