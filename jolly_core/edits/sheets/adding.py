"""Adding sheets, one or many at once: their numbers, lines and rails."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Any, Literal

from pydantic import Field

from jolly_core.drawing import counts_lines, habit_of, ladder_shape, lines_of, most_lines
from jolly_core.model import DRAWN, REFERENCES, SHEET_SIZES_MM, Project, RuleError, Sheet
from jolly_core.model.entities.structure import FirstLine
from jolly_core.reports import REPORTS
from jolly_core.tagging import check_own_name

from ..base.edit import Id, Payload, Text, Work, edit
from ..project.settings import SheetShape

ORDER_STEP = 1000
Number = Field(default=None, min_length=1, max_length=12)
# Fields whose change moves the ladder or the edge of the sheet.
SHAPE = {"size", "frame", "ladders", "line_count", "line_spacing"}


class SheetValues(SheetShape):
    """What may be said of a sheet; what is left out stays, or follows the habit of its kind."""

    title: Text | None = None
    subtitle: Text | None = None
    function_id: Id | None = None
    location_id: Id | None = None
    first_line: FirstLine | None = None
    device_id: Id | None = None
    enclosure_id: Id | None = None
    harness_id: Id | None = None
    report: Id | None = None
    fields: dict[Text, Text] | None = Field(default=None, max_length=40)


class NewSheet(SheetValues):
    """A sheet to be added; without a number it takes the one after its neighbour's, or the next that is free."""

    number: Text = Field(default="", max_length=12)
    left_rail_type_id: Id | None = None
    right_rail_type_id: Id | None = None


class AddSheet(NewSheet):
    """Add a sheet, after another or at the end; a ladder gets its rails as wires when their types are known."""

    kind: Literal["add-sheet"] = "add-sheet"
    after_id: Id = ""


@edit(AddSheet, {"number": "30", "title": "Loading auger, control"})
def add_sheet(work: Work, payload: AddSheet) -> str:
    """Work out AddSheet."""
    (sheet,) = make_sheets(work, [payload], payload.after_id)
    return f"add sheet {sheet.number}"


class AddSheets(Payload):
    """Add several sheets in one edit, as when titles are pasted from a spreadsheet."""

    kind: Literal["add-sheets"] = "add-sheets"
    sheets: list[NewSheet] = Field(min_length=1, max_length=500)
    after_id: Id = ""


@edit(AddSheets, {"sheets": [{"title": "Kiln fan, power"}, {"title": "Kiln fan, control"}]})
def add_sheets(work: Work, payload: AddSheets) -> str:
    """Work out AddSheets."""
    made = make_sheets(work, payload.sheets, payload.after_id)
    return f"add sheets {made[0].number} to {made[-1].number}" if len(made) > 1 else f"add sheet {made[0].number}"


def make_sheets(work: Work, wanted: list[Any], after_id: str) -> list[Sheet]:
    """Make sheets, after another one or at the end, and return them.

    Raises:
        RuleError: a number is taken, or a fact of a sheet is not possible.
    """
    project = work.project
    taken = {s.number for s in project.sheets.values()}
    orders = orders_after(work, after_id, len(wanted))
    made = []
    before = project.sheets[after_id].number if after_id in project.sheets else ""
    for new, order in zip(wanted, orders, strict=True):
        number = new.number.strip() or next_sheet_number(taken, before)
        if number in taken:
            raise RuleError(f"There is already a sheet {number}. Choose another number.", field="number")
        taken.add(number)
        before = number
        made.append(_make(work, new, number, order))
    work.outcome.placed = [s.id for s in made]
    return made


def next_sheet_number(taken: set[str], before: str) -> str:
    """Return the number of a new sheet: the one after its neighbour's where that is free, else one past the highest.

    Example:
        >>> next_sheet_number({"10", "30", "31"}, "10"), next_sheet_number({"10", "30", "31"}, "30")
        ('11', '32')
    """
    following = str(int(before) + 1) if before.isdecimal() else ""
    if following and following not in taken:
        return following
    return str(max((int(n) for n in taken if n.isdecimal()), default=0) + 1)


def first_line_of(project: Project, sheet: Sheet, taken: Iterable[range] | None = None) -> int:
    """Return the first ladder line a sheet should have: that of its number where its lines are free, else a new ten.

    Sheet 30 begins at 301. Where one of its lines is in use, or its number is no whole one, it begins after the
    highest line in use.

    Args:
        taken: lines in use; by default those of all other sheets.
    """
    used = [lines_of(s) for s in project.sheets.values() if s.id != sheet.id and counts_lines(project, s)]
    used = used if taken is None else list(taken)
    if sheet.number.isdecimal() and len(sheet.number) < 5:
        first = int(sheet.number) * 10 + 1
        mine = lines_of(replace(sheet, first_line=first))
        if not any(u.start < mine.stop and mine.start < u.stop for u in used):
            return first
    last = max((u.stop - 1 for u in used), default=0)
    return -(-last // 10) * 10 + 1


def _make(work: Work, new: NewSheet, number: str, order: int) -> Sheet:
    kind = new.sheet_kind or "schematic"
    habit = habit_of(work.project, kind)
    given = facts_given(work.project, new)
    first = given.pop("first_line", None)
    values = {
        "size": habit.size,
        "frame": habit.frame,
        "line_count": habit.line_count,
        "line_spacing": habit.line_spacing,
        "ladders": habit.ladders,
        "columns": habit.columns,
        "rows": habit.rows,
        **given,
    }
    if kind not in DRAWN:
        values["frame"] = "zones"
    sheet = shaped_sheet(Sheet(work.ids.new(), number, order=order, **values))
    sheet = replace(sheet, first_line=first_line_of(work.project, sheet) if first is None else first)
    work.put("sheet", sheet)
    if sheet.frame == "ladder":
        left = habit.left_rail_type_id if new.left_rail_type_id is None else new.left_rail_type_id
        right = habit.right_rail_type_id if new.right_rail_type_id is None else new.right_rail_type_id
        _rails(work, sheet, left, right)
    return sheet


def shaped_sheet(sheet: Sheet) -> Sheet:
    """Return a sheet with its rails where its size has them, and no more lines than there is room for."""
    ladders = sheet.ladders if sheet.frame == "ladder" else 1
    left, right, pitch = ladder_shape(sheet.size, ladders)
    sheet = replace(sheet, ladders=ladders, rail_left=left, rail_right=right, ladder_pitch=pitch)
    return replace(sheet, line_count=min(sheet.line_count, most_lines(sheet)))


def _rails(work: Work, sheet: Sheet, left: str, right: str) -> None:
    """Draw the rails as wires; those of a second ladder are joined to the first above it, each at its own height."""
    top = sheet.line_top - 4
    bottom = sheet.line_top + sheet.line_spacing * (sheet.line_count - 1) + 4
    draft = work.draft(sheet.id)
    for rail, type_id, over in ((sheet.rail_left, left, 2), (sheet.rail_right, right, 0)):
        if not type_id:
            continue
        work.project.get("wire_type", type_id)
        lift = over if sheet.ladders > 1 else 0
        for ladder in range(sheet.ladders):
            x = rail + ladder * sheet.ladder_pitch
            draft.stroke((x, top - lift), (x, bottom), type_id)
        if sheet.ladders > 1:
            draft.stroke((rail, top - lift), (rail + sheet.ladder_pitch, top - lift), type_id)
    work.close(draft)


def facts_given(project: Project, values: SheetValues) -> dict[str, Any]:
    """Return the sheet fields a payload gives, checked."""
    given = values.model_dump(include=set(SheetValues.model_fields), exclude_none=True)
    if "sheet_kind" in given:
        given["kind"] = given.pop("sheet_kind")
    if given.get("size", "A3") not in SHEET_SIZES_MM:
        raise RuleError(f"{given['size']} is not a sheet size known here.", field="size")
    for field, kind in REFERENCES["sheet"].items():
        if given.get(field):
            project.get(kind, given[field])
    if given.get("report") and given["report"] not in {*REPORTS, *project.recipes}:
        raise RuleError(f"There is no report “{given['report']}”.", field="report")
    for name in given.get("fields", {}):
        check_own_name(name)
    return given


def orders_after(work: Work, after_id: str, count: int, *, but: frozenset[str] = frozenset()) -> list[int]:
    """Return the order values for sheets put after another one, "" for at the end; "-" for before the first.

    Where there is no room between two values, all sheets are spaced anew.

    Args:
        but: sheets that move themselves and are not counted.
    """
    project = work.project
    others = [s for s in project.sheets_in_order() if s.id not in but]
    if after_id not in ("", "-"):
        project.get("sheet", after_id)
    at = len(others) if not after_id else 0
    if after_id not in ("", "-"):
        at = next((n for n, s in enumerate(others, start=1) if s.id == after_id), len(others))
    before = others[at - 1].order if at else 0
    if at == len(others):
        return [before + ORDER_STEP * n for n in range(1, count + 1)]
    step = (others[at].order - before) // (count + 1)
    if step < 1:
        for n, sheet in enumerate(others, start=1):
            work.put("sheet", replace(sheet, order=n * ORDER_STEP * (count + 1)))
        before, step = at * ORDER_STEP * (count + 1), ORDER_STEP
    return [before + step * n for n in range(1, count + 1)]
