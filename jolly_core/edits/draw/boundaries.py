"""Figures: boundaries, strokes, pictures, tables; and the location a boundary gives to what lies inside it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Literal

from jolly_core.drawing import grid_size, pin_points
from jolly_core.model import STROKES, Figure, Project, RuleError, Symbol
from jolly_core.reports import check_laid
from jolly_core.tagging import lead_of, renamed_at

from ..base.edit import Grid, Id, Payload, Text, Work, edit


def boundary_at(figures: Iterable[Figure], x: float, y: float) -> Figure | None:
    """Return the smallest boundary with a location around a grid point, None when there is none."""
    around = [f for f in figures if f.kind == "boundary" and f.location_id and f.x1 <= x <= f.x2 and f.y1 <= y <= f.y2]
    return min(around, key=lambda f: ((f.x2 - f.x1) * (f.y2 - f.y1), f.id), default=None)


def location_for(project: Project, sheet_id: str, x: float, y: float) -> str:
    """Return the location of what is put at a point: that of the boundary around it, else the sheet's."""
    found = boundary_at(project.figures_on(sheet_id), x, y)
    return found.location_id if found is not None else project.sheets[sheet_id].location_id


def homes(project: Project, sheet_id: str) -> dict[str, str]:
    """Return for each lead symbol of a sheet the boundary it lies in, "" for none; see `follow_boundaries`."""
    figures = [f for f in project.figures_on(sheet_id) if f.kind == "boundary" and f.location_id]
    if not figures:
        return {}
    found: dict[str, str] = {}
    for symbol in project.symbols_on(sheet_id):
        lead = lead_of(project, symbol.device_id) if symbol.device_id else None
        if lead is not None and lead.id == symbol.id:
            around = boundary_at(figures, *_middle(symbol))
            found[symbol.id] = around.location_id if around else ""
    return found


def follow_boundaries(work: Work, sheet_id: str, before: dict[str, str]) -> None:
    """Give devices whose lead came into or left a boundary its location, or the sheet's again.

    Args:
        before: what `homes` said before the edit.
    """
    project = work.project
    after = homes(project, sheet_id)
    for symbol_id in sorted({*before, *after}):
        symbol = project.symbols.get(symbol_id)
        if symbol is None or before.get(symbol_id, "") == after.get(symbol_id, ""):
            continue
        location = after.get(symbol_id) or project.sheets[sheet_id].location_id
        device = project.devices[symbol.device_id]
        if device.location_id != location:
            work.put("device", renamed_at(project, device, (device.function_id, location)))


def _middle(symbol: Symbol) -> tuple[float, float]:
    points = pin_points(symbol)
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2


class DrawFigure(Payload):
    """Draw a boundary around a group, a line, arrow or dimension, a picture, or a table.

    A boundary may stand for a location.
    A table shows what its text names: "sheet-parts", "sheet-wire-types", a recipe by its id or a report by its key.
    """

    kind: Literal["draw-figure"] = "draw-figure"
    sheet_id: Id
    figure: Literal["boundary", "line", "arrow", "dimension", "picture", "table"] = "boundary"
    x1: Grid
    y1: Grid
    x2: Grid
    y2: Grid
    text: Text = ""
    location_id: Id = ""
    picture_id: Id = ""
    dashed: bool | None = None


@edit(DrawFigure, {"sheet_id": "s1", "x1": 20, "y1": 20, "x2": 60, "y2": 50, "text": "On the door"})
def draw_figure(work: Work, payload: DrawFigure) -> str:
    """Work out DrawFigure."""
    sheet = work.drawable(payload.sheet_id)
    x1, y1, x2, y2 = payload.x1, payload.y1, payload.x2, payload.y2
    if payload.figure not in STROKES:
        x1, x2, y1, y2 = min(x1, x2), max(x1, x2), min(y1, y2), max(y1, y2)
        if x1 == x2 or y1 == y2:
            raise RuleError("It has no size. Drag from one corner to the other.", field="x2")
    elif (x1, y1) == (x2, y2):
        raise RuleError(f"The {payload.figure} has no length. Choose another end.", field="x2")
    width, height = grid_size(sheet)
    if min(x1, x2, y1, y2) < 0 or max(x1, x2) > width or max(y1, y2) > height:
        raise RuleError("This would lie outside the sheet.", field="x2")
    if payload.figure == "picture":
        work.project.get("picture", payload.picture_id)
    elif payload.picture_id:
        raise RuleError("Only a picture shows a picture.", field="picture_id")
    if payload.figure == "table":
        check_laid(work.project, payload.text)
    if payload.location_id:
        work.project.get("location", payload.location_id)
    dashed = payload.figure == "boundary" if payload.dashed is None else payload.dashed
    before = homes(work.project, sheet.id)
    location = payload.location_id if payload.figure == "boundary" else ""
    made = Figure(
        work.ids.new(), sheet.id, x1, y1, x2, y2, payload.figure, payload.text, location, payload.picture_id, dashed
    )
    work.put("figure", made)
    follow_boundaries(work, sheet.id, before)
    work.outcome.placed = [made.id]
    return f"draw a {payload.figure}"


class ChangeFigure(Payload):
    """Change a figure's title, location, line or corners; what is left out stays."""

    kind: Literal["change-figure"] = "change-figure"
    figure_id: Id
    text: Text | None = None
    location_id: Id | None = None
    dashed: bool | None = None
    x1: Grid | None = None
    y1: Grid | None = None
    x2: Grid | None = None
    y2: Grid | None = None


@edit(ChangeFigure, {"figure_id": "g1", "text": "Operator station"})
def change_figure(work: Work, payload: ChangeFigure) -> str:
    """Work out ChangeFigure."""
    project = work.project
    figure: Figure = project.get("figure", payload.figure_id)
    values = payload.model_dump(exclude={"kind", "figure_id"}, exclude_none=True)
    if figure.locked and values.keys() & {"x1", "y1", "x2", "y2"}:
        raise RuleError(f"The {figure.kind} is locked. Unlock it first, with L.", ids=(figure.id,))
    if figure.kind == "table" and "text" in values:
        check_laid(project, values["text"])
    if values.get("location_id"):
        project.get("location", values["location_id"])
        if figure.kind != "boundary":
            raise RuleError("Only a boundary stands for a location.", field="location_id", ids=(figure.id,))
    changed: Figure = replace(figure, **values)
    if changed.kind in STROKES and (changed.x1, changed.y1) == (changed.x2, changed.y2):
        raise RuleError(f"The {changed.kind} would have no length.", field="x2", ids=(figure.id,))
    if changed.kind not in STROKES and not (changed.x1 < changed.x2 and changed.y1 < changed.y2):
        raise RuleError("It would have no size. Drag the corner the other way.", field="x2", ids=(figure.id,))
    before = homes(project, figure.sheet_id)
    work.put("figure", changed)
    follow_boundaries(work, figure.sheet_id, before)
    work.outcome.placed = [figure.id]
    return f"change a {figure.kind}"
