"""Making room on a ladder: a rung put in pushes what lies below it down, a rung taken out pulls it up."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal

from jolly_core.drawing import ladder_at, ladder_lines, most_lines, pin_points, rails_at
from jolly_core.model import RuleError, Sheet
from jolly_core.model.kinds import moved_where

from ..base.edit import Id, Payload, Work, edit
from .selecting import inside, refuse_locked


class InsertRung(Payload):
    """Put an empty line in front of a ladder line; all from there on moves down, and references follow."""

    kind: Literal["insert-rung"] = "insert-rung"
    sheet_id: Id
    line: int


@edit(InsertRung, {"sheet_id": "s1", "line": 3})
def insert_rung(work: Work, payload: InsertRung) -> str:
    """Work out InsertRung."""
    sheet, ladder, cut = _line(work, payload.sheet_id, payload.line)
    if sheet.line_count < most_lines(sheet):
        _shift(work, sheet, ladder, cut, sheet.line_spacing)
        work.put("sheet", replace(sheet, line_count=sheet.line_count + 1))
    else:  # the last line makes room, when nothing is on it
        last = sheet.line_top + (sheet.line_count - 1) * sheet.line_spacing - sheet.line_spacing // 2
        if last <= cut or _taken(work, sheet, ladder, last, last + 10 * sheet.line_spacing, rails=True):
            words = f"Sheet {sheet.number} has no room for another line, and its last line is not empty."
            raise RuleError(f"{words} Move something to another sheet, or use a larger size.", field="line")
        _shift(work, sheet, ladder, cut, sheet.line_spacing, stop=last)
    return f"insert a rung at line {payload.line}"


class RemoveRung(Payload):
    """Take an empty line out of a ladder; all below it moves up, and references follow."""

    kind: Literal["remove-rung"] = "remove-rung"
    sheet_id: Id
    line: int


@edit(RemoveRung, {"sheet_id": "s1", "line": 3})
def remove_rung(work: Work, payload: RemoveRung) -> str:
    """Work out RemoveRung."""
    sheet, ladder, cut = _line(work, payload.sheet_id, payload.line)
    if sheet.line_count < 2:
        raise RuleError("A ladder has at least one line.", field="line")
    high = cut + sheet.line_spacing
    there = _taken(work, sheet, ladder, cut, high)
    if there:
        words = f"Line {payload.line} is not empty. Move or delete what is on it first."
        raise RuleError(words, field="line", ids=(there,))
    _shift(work, sheet, ladder, high, -sheet.line_spacing)
    work.put("sheet", replace(sheet, line_count=sheet.line_count - 1))
    return f"take out the rung at line {payload.line}"


def _taken(work: Work, sheet: Sheet, ladder: int, low: int, high: int, *, rails: bool = False) -> str:
    """Return the id of something with a point between two heights of a ladder, "" when there is nothing.

    Args:
        rails: ends of the rails do not count.
    """
    project = work.project

    def inside(x: int, y: int) -> bool:
        return low <= y < high and ladder_at(sheet, x) == ladder

    for kind in ("symbol", "continuation", "note"):
        for id in project.on_sheet[kind].get(sheet.id):
            thing: Any = project.tables[kind][id]
            points = pin_points(thing) if kind == "symbol" else [(thing.x, thing.y)]
            if any(inside(x, y) for x, y in points):
                return id
    for w in project.wires_on(sheet.id):
        if rails and w.x1 == w.x2 and w.x1 in rails_at(sheet, w.x1):
            continue
        if inside(w.x1, w.y1) or inside(w.x2, w.y2):
            return w.id
    return ""


def _line(work: Work, sheet_id: str, line: int) -> tuple[Sheet, int, int]:
    """Return the sheet, which ladder a line is on, and the height from which on all belongs to it or lines below."""
    sheet = work.drawable(sheet_id)
    for number, y, _, _ in ladder_lines(sheet):
        if number == line:
            ladder = (number - sheet.first_line) // sheet.line_count
            return sheet, ladder, y - sheet.line_spacing // 2
    raise RuleError(f"Sheet {sheet.number} has no ladder line {line}.", field="line")


def _shift(work: Work, sheet: Sheet, ladder: int, cut: int, by: int, stop: int = 10**6) -> None:
    """Move all points of a ladder between two heights; wires across a height become longer or shorter.

    Raises:
        RuleError: a symbol or wire lies partly above and partly below, or in both ladders.
    """
    draft = work.draft(sheet.id)

    def moves(x: int, y: int) -> bool:
        return cut <= y < stop and ladder_at(sheet, x) == ladder

    for id, s in list(draft.symbols.items()):
        below = [moves(x, y) for x, y in pin_points(s)]
        if any(below) and not all(below):
            raise RuleError("{it} lies partly above this line. Move it clear first.", field="line", ids=(id,))
        if all(below):
            refuse_locked(work.project, [id])
            draft.symbols[id] = replace(s, y=s.y + by)
    for id, w in list(draft.wires.items()):
        if w.y1 == w.y2 and moves(w.x1, w.y1) != moves(w.x2, w.y2):
            raise RuleError("A wire runs from one ladder to the other here. Use a continuation.", ids=(id,))
        draft.wires[id] = moved_where(w, moves, 0, by)
    for table in draft.others:
        table.update((id, moved_where(thing, moves, 0, by)) for id, thing in list(table.items()))
    inside(work, draft)
    work.close(draft)
