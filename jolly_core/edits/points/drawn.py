"""Inputs and outputs drawn before any card was chosen become points of the list, or meet those that are there."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.library import definition
from jolly_core.model import IoPoint, Project, RuleError, Symbol
from jolly_core.plc import TYPES_OF_UNITS
from jolly_core.points import DrawnPoint, drawn_as, meeting, points_of_symbols, without_point

from ..base.edit import Id, Payload, Work, edit
from .rows import MOST_POINTS, follow_symbol


class CollectPoints(Payload):
    """Make points of inputs and outputs that are drawn without a card: of all, or of some.

    One that is wired to a device which a waiting point of the list names is that point; the others are new.
    """

    kind: Literal["collect-points"] = "collect-points"
    symbol_ids: list[Id] = Field(default_factory=list, max_length=MOST_POINTS)


@edit(CollectPoints, {"symbol_ids": []})
def collect_points(work: Work, payload: CollectPoints) -> str:
    """Work out CollectPoints."""
    project = work.project
    wanted = set(payload.symbol_ids)
    symbols = [s for s in without_point(project) if not wanted or s.id in wanted]
    if not symbols:
        raise RuleError("No input or output is drawn that has neither a card nor a point.", field="symbol_ids")
    tags = {p.tag for p in project.io_points.values()}
    last = max((p.order for p in project.io_points.values()), default=0)
    met = 0
    for symbol in symbols:
        drawn = drawn_as(project, symbol)
        known = meeting(project, drawn)
        if known is not None:
            work.put("io_point", replace(known, drawn=symbol.id))
            met += 1
            continue
        last += 1
        tag = _free_tag(drawn, tags)
        tags.add(tag)
        point = IoPoint(
            work.ids.new(),
            tag,
            drawn.text,
            drawn.io_type,
            drawn.connected,
            last,
            device=drawn.device,
            function_id=drawn.function_id,
            location_id=drawn.location_id,
            drawn=symbol.id,
        )
        work.put("io_point", point)
        work.outcome.placed.append(point.id)
    return f"points from the drawings: {len(symbols) - met} new, {met} met the list"


def _free_tag(drawn: DrawnPoint, tags: set[str]) -> str:
    """Return a tag for a new point: its device's, numbered where that is taken, else its type and a number."""
    if drawn.tag and drawn.tag not in tags:
        return drawn.tag
    n = 1 if not drawn.tag else 2
    while (tag := f"{drawn.tag}.{n}" if drawn.tag else f"{drawn.io_type}{n}") in tags:
        n += 1
    return tag


class TiePoint(Payload):
    """Say by hand that a drawn input or output is a point of the list; an empty symbol unties it."""

    kind: Literal["tie-point"] = "tie-point"
    id: Id
    symbol_id: Id = ""


@edit(TiePoint, {"id": "p1", "symbol_id": "y1"})
def tie_point(work: Work, payload: TiePoint) -> str:
    """Work out TiePoint."""
    project = work.project
    point: IoPoint = project.get("io_point", payload.id)
    if payload.symbol_id:
        symbol: Symbol = project.get("symbol", payload.symbol_id)
        _check_tie(project, point, symbol)
    elif point.drawn in project.symbols and point.channel:
        freed = project.symbols[point.drawn]
        work.put("symbol", replace(freed, device_id="", units=(0,)))
    tied = replace(point, drawn=payload.symbol_id)
    work.put("io_point", tied)
    follow_symbol(work, tied)
    return f"{'tie' if payload.symbol_id else 'untie'} {point.tag}"


def _check_tie(project: Project, point: IoPoint, symbol: Symbol) -> None:
    io_type = TYPES_OF_UNITS.get(definition(symbol.definition).unit, "")
    if io_type != point.io_type:
        what = io_type or "no input or output"
        raise RuleError(f"{point.tag} is {point.io_type}, and what is drawn there is {what}.", field="symbol_id")
    other = project.io_points.get(points_of_symbols(project).get(symbol.id, ""))
    if other is not None and other.id != point.id:
        raise RuleError(f"It is drawn for {other.tag}. Untie that first.", field="symbol_id", ids=(other.id,))
    if symbol.device_id:
        raise RuleError("It is on a card already. Choose one that is drawn without a card.", field="symbol_id")
