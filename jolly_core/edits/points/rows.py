"""The list of I/O points: taken in from a table, typed in, put in order."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from jolly_core.model import FileError, IoPoint, Project, RuleError, counted
from jolly_core.plc import channel_row
from jolly_core.points import BY_KEY, FIELDS, io_type_of, place_named, why_not

from ..base.edit import Id, Payload, Text, TextLine, Work, edit

IoType = Literal["DI", "DO", "AI", "AO"]
Sort = Literal["", "fast", "rtd", "thermocouple", "safe"]
MOST_POINTS = 5000


class PointIn(BaseModel):
    """A point as a list gives it; what is left out stays as it is, or is empty for a new one."""

    model_config = ConfigDict(extra="forbid")
    tag: Text = Field(min_length=1)
    io_type: IoType
    text: Text | None = None
    text2: Text | None = None
    sort: Sort | None = None
    signal: Text | None = None
    device: Text | None = None
    function_id: Id | None = None
    location_id: Id | None = None
    connected: Text | None = None
    span: Text | None = None
    unit: Text | None = None
    normal: Literal["", "open", "closed"] | None = None
    terminals: bool | None = None
    cable: bool | None = None
    remark: TextLine | None = None
    own: dict[Text, Text] | None = Field(default=None, max_length=30)


class TakeInPoints(Payload):
    """Take in points of a list; those whose tag is there already are brought up to date, those named as gone deleted.

    A point that is allocated keeps its channel while that is one for it; else it waits and is named.
    """

    kind: Literal["take-in-points"] = "take-in-points"
    points: list[PointIn] = Field(max_length=MOST_POINTS)
    gone: list[Text] = Field(default_factory=list, max_length=MOST_POINTS)


@edit(TakeInPoints, {"points": [{"tag": "B1", "text": "Hatch closed", "io_type": "DI", "connected": "limit switch"}]})
def take_in_points(work: Work, payload: TakeInPoints) -> str:
    """Work out TakeInPoints."""
    project = work.project
    known = {p.tag: p for p in project.io_points.values()}
    last = max((p.order for p in known.values()), default=0)
    added = changed = 0
    for line in payload.points:
        values = line.model_dump(exclude_none=True)
        for table, key in ((project.functions, "function_id"), (project.locations, "location_id")):
            if values.get(key) and values[key] not in table:
                raise RuleError(f"{line.tag} is at a place that is not there any more. Read the list again.", field=key)
        old = known.get(line.tag)
        if old is None:
            last += 1
            made = IoPoint(work.ids.new(), order=last, **values)
            known[made.tag] = made
            work.put("io_point", made)
            work.outcome.placed.append(made.id)
            added += 1
            continue
        if "own" in values:
            values["own"] = {**old.own, **values["own"]}
        fresh = replace(old, **values)
        if fresh != old:
            known[fresh.tag] = _put(work, fresh)
            changed += 1
    for tag in dict.fromkeys(payload.gone):
        if tag in known:
            work.remove("io_point", known[tag].id)
    gone = f", {len(payload.gone)} gone" if payload.gone else ""
    return f"take in points: {added} added, {changed} changed{gone}"


def _put(work: Work, point: IoPoint) -> IoPoint:
    """Put a point that was changed; one whose channel is no longer for it waits again and is named."""
    row = channel_row(work.project, point.device_id, point.io_type, point.channel) if point.channel else None
    before = work.project.io_points[point.id]
    if point.channel and (row is None or point.io_type != before.io_type or why_not(point, row)):
        point = replace(point, device_id="", channel=0, fixed=False)
        what = point.sort or point.signal or point.io_type
        what = point.io_type if point.io_type != before.io_type else what
        work.outcome.remarks.append(f"{point.tag} is {what} now and waits for another channel.")
    work.put("io_point", point)
    if point.channel != before.channel:
        follow_symbol(work, point)
    return point


def follow_symbol(work: Work, point: IoPoint) -> None:
    """Let the symbol that was drawn for a point show its channel, or none while it waits."""
    symbol = work.project.symbols.get(point.drawn)
    if symbol is None:
        return
    there = (point.device_id, (point.channel,)) if point.channel else ("", (0,))
    if (symbol.device_id, symbol.units) != there:
        work.put("symbol", replace(symbol, device_id=there[0], units=there[1]))


class PointCell(BaseModel):
    """A cell of the table of points: of which point, which field (or a column of the project's own), and what."""

    model_config = ConfigDict(extra="forbid")
    id: Id
    key: Text
    value: TextLine


class WritePoints(Payload):
    """Write cells of the table of points, as they are typed or pasted."""

    kind: Literal["write-points"] = "write-points"
    cells: list[PointCell] = Field(min_length=1, max_length=20_000)


@edit(WritePoints, {"cells": [{"id": "p1", "key": "text", "value": "Hatch closed"}]})
def write_points(work: Work, payload: WritePoints) -> str:
    """Work out WritePoints."""
    project = work.project
    changed: dict[str, dict[str, Any]] = {}
    for cell in payload.cells:
        point: IoPoint = project.get("io_point", cell.id)
        values = changed.setdefault(point.id, {})
        try:
            values |= _read(project, cell, values.get("own", point.own))
        except FileError as error:
            raise RuleError(f"{point.tag}: {error.message}", field=cell.key, ids=(point.id,)) from None
    taken = {p.tag: p.id for p in project.io_points.values() if p.id not in changed}
    for id, values in changed.items():
        fresh = replace(project.io_points[id], **values)
        other = taken.setdefault(fresh.tag, id)
        if not fresh.tag:
            raise RuleError("A point has a tag. Type one.", field="tag", ids=(id,))
        if other != id:
            raise RuleError(f"There is a point {fresh.tag} already. Give this one another tag.", field="tag", ids=(id,))
        if fresh != project.io_points[id]:
            _put(work, fresh)
    count = len(changed)
    return f"write {count} point{'s' if count != 1 else ''}"


def _read(project: Project, cell: PointCell, own: dict[str, str]) -> dict[str, Any]:
    """Return what a cell says, by field.

    Raises:
        FileError: it is not understood.
    """
    value = cell.value.strip()
    if cell.key == "io_type":
        io_type, sort = io_type_of(value)
        return {"io_type": io_type} | ({"sort": sort} if sort else {})
    if cell.key in ("function", "location"):
        return {f"{cell.key}_id": place_named(project, cell.key, value)}
    if cell.key in BY_KEY:
        return {cell.key: BY_KEY[cell.key].read(value)}
    if cell.key in own or cell.key not in {f.key for f in FIELDS}:
        return {"own": {**own, cell.key: value}}
    raise FileError(f"There is no column {cell.key}.")


class AddPoint(Payload):
    """Add a point at the end of the list, or behind another one."""

    kind: Literal["add-point"] = "add-point"
    tag: Text = Field(min_length=1)
    io_type: IoType = "DI"
    text: Text = ""
    after_id: Id = ""


@edit(AddPoint, {"tag": "B9", "io_type": "DI", "text": "Door closed"})
def add_point(work: Work, payload: AddPoint) -> str:
    """Work out AddPoint."""
    project = work.project
    tag = payload.tag.strip()
    if not tag:
        raise RuleError("A point has a tag. Type one.", field="tag")
    if any(p.tag == tag for p in project.io_points.values()):
        raise RuleError(f"There is a point {tag} already.", field="tag")
    points = in_order(project)
    made = IoPoint(work.ids.new(), tag, payload.text, payload.io_type)
    at = len(points)
    if payload.after_id:
        at = points.index(project.get("io_point", payload.after_id)) + 1
    work.put("io_point", made)
    _number(work, [*points[:at], made, *points[at:]])
    work.outcome.placed = [made.id]
    return f"add point {tag}"


class MovePoints(Payload):
    """Put points of the list together at another place, counted without them."""

    kind: Literal["move-points"] = "move-points"
    ids: list[Id] = Field(min_length=1, max_length=MOST_POINTS)
    to: int = Field(ge=0, le=100_000)


@edit(MovePoints, {"ids": ["p2"], "to": 0})
def move_points(work: Work, payload: MovePoints) -> str:
    """Work out MovePoints."""
    project = work.project
    moved: list[IoPoint] = [project.get("io_point", id) for id in dict.fromkeys(payload.ids)]
    moved.sort(key=lambda p: (p.order, p.id))
    ids = {p.id for p in moved}
    left = [p for p in in_order(project) if p.id not in ids]
    _number(work, [*left[: payload.to], *moved, *left[payload.to :]])
    return f"order of {len(moved)} point{'s' if len(moved) != 1 else ''}"


def in_order(project: Project) -> list[IoPoint]:
    """Return the points in the order of the list."""
    return sorted(project.io_points.values(), key=lambda p: (p.order, p.id))


def _number(work: Work, points: list[IoPoint]) -> None:
    for n, point in enumerate(points, start=1):
        if point.order != n:
            work.put("io_point", replace(point, order=n))


class DeletePoints(Payload):
    """Delete points from the list."""

    kind: Literal["delete-points"] = "delete-points"
    ids: list[Id] = Field(min_length=1, max_length=MOST_POINTS)


@edit(DeletePoints, {"ids": ["p1"]})
def delete_points(work: Work, payload: DeletePoints) -> str:
    """Work out DeletePoints."""
    for id in dict.fromkeys(payload.ids):
        work.remove("io_point", id)
    return f"delete {counted(len(set(payload.ids)), 'point')}"
