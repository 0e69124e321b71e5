"""Rails and ducts of a surface, and the raster they stand on. All in mm."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from jolly_core.cabinet import SURFACE_WORDS, rail_is_level, surface_size
from jolly_core.model import Duct, Enclosure, Project, Rail, RuleError, SurfaceName, sides_words

from ..base.edit import Id, Mm, Payload, Work, edit
from ..base.upkeep import drop_part
from ..devices.parts import take_part

SNAP_MM = 5.0


def snapped(value: float, step: float = SNAP_MM) -> float:
    """Return a measure at the nearest multiple of a step, mm."""
    return round(round(value / step) * step, 3)


class DrawRun(Payload):
    """Draw a rail or a duct on a surface by its ends; they snap to 5 mm and to the surface's edges."""

    kind: Literal["draw-run"] = "draw-run"
    what: Literal["rail", "duct"]
    enclosure_id: Id
    surface: SurfaceName = "plate"
    part_id: Id
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm


@edit(DrawRun, {"what": "rail", "enclosure_id": "e1", "part_id": "r1", "x1": 40, "y1": 200, "x2": 500, "y2": 200})
def draw_run(work: Work, payload: DrawRun) -> str:
    """Work out DrawRun."""
    enclosure: Enclosure = work.project.get("enclosure", payload.enclosure_id)
    take_part(work, payload.part_id, payload.what)
    ends = _ends(work.project, enclosure, payload.surface, (payload.x1, payload.y1, payload.x2, payload.y2))
    make = Rail if payload.what == "rail" else Duct
    run = make(work.ids.new(), enclosure.id, *ends, payload.part_id, payload.surface)
    work.put(payload.what, run)
    work.outcome.placed = [run.id]
    return f"draw a {payload.what}"


def at_edge(value: float, limit: float) -> float:
    """Return a measure snapped to 5 mm and to both edges of a surface, mm."""
    if abs(value) < SNAP_MM:
        return 0.0
    return limit if abs(value - limit) < SNAP_MM else snapped(value)


_RunEnds = tuple[float, float, float, float]


def _ends(project: Project, enclosure: Enclosure, surface: str, wanted: _RunEnds) -> _RunEnds:
    """Return the ends of a run, snapped, level or upright, the left or upper one first.

    Raises:
        RuleError: it has no length, or lies outside the surface.
    """
    width, height = surface_size(project, enclosure, surface)
    x1, y1, x2, y2 = (at_edge(value, limit) for value, limit in zip(wanted, (width, height) * 2, strict=True))
    if abs(x2 - x1) >= abs(y2 - y1):
        y2 = y1
    else:
        x2 = x1
    if (x1, y1) == (x2, y2):
        raise RuleError("It has no length. Draw from one end to the other.", field="x2")
    if not (min(x1, x2) >= 0 and max(x1, x2) <= width and min(y1, y2) >= 0 and max(y1, y2) <= height):
        words = "mounting plate" if surface == "plate" else SURFACE_WORDS[surface]
        raise RuleError(
            f"It lies outside the {words} of {sides_words(project, width, height)}.",
            field="x2",
        )
    (ax, ay), (bx, by) = sorted(((x1, y1), (x2, y2)))
    return ax, ay, bx, by


class SetRun(Payload):
    """Give a rail or duct other ends; what is clipped on a rail goes with it."""

    kind: Literal["set-run"] = "set-run"
    id: Id
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm


@edit(SetRun, {"id": "r1", "x1": 40, "y1": 220, "x2": 500, "y2": 220})
def set_run(work: Work, payload: SetRun) -> str:
    """Work out SetRun."""
    project = work.project
    what = "rail" if payload.id in project.rails else "duct"
    run: Rail | Duct = project.get(what, payload.id)
    enclosure = project.enclosures[run.enclosure_id]
    x1, y1, x2, y2 = _ends(project, enclosure, run.surface, (payload.x1, payload.y1, payload.x2, payload.y2))
    work.put(what, replace(run, x1=x1, y1=y1, x2=x2, y2=y2))
    if isinstance(run, Rail) and rail_is_level(run) == (y1 == y2):
        for placing in [p for p in project.placings.values() if p.rail_id == run.id]:
            work.put("placing", replace(placing, x=placing.x + x1 - run.x1, y=placing.y + y1 - run.y1))
    work.outcome.placed = [run.id]
    return f"move a {what}"


def forget_run(work: Work, id: str) -> None:
    """Take a rail or duct away, and with a rail what clips to it."""
    project = work.project
    what = "rail" if id in project.rails else "duct"
    for placing in [p for p in project.placings.values() if p.rail_id == id]:
        work.remove("placing", placing.id)
    part_id = project.tables[what][id].part_id
    work.remove(what, id)
    forget_passed(work, id)
    drop_part(work, part_id)


def forget_passed(work: Work, id: str) -> None:
    """Take a duct or lane that goes out of what wires are led through."""
    for passage in [p for p in work.project.passages.values() if id in p.through]:
        left = tuple(name for name in passage.through if name != id)
        if left:
            work.put("passage", replace(passage, through=left))
        else:
            work.remove("passage", passage.id)
