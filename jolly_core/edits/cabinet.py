"""The enclosure: rails, ducts, and what is placed on plate and door. All in mm."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cabinet import SURFACE_WORDS, placings_in, rail_is_level, surface_size
from jolly_core.model import Duct, Enclosure, Project, Rail, RuleError, Standing, SurfaceName, sides_words
from jolly_core.model.entities.layout import Celsius, Swing
from jolly_core.tagging import short_tag

from .base import Id, Length, Mm, Payload, Text, Work, edit
from .parts import give_part, take_part
from .upkeep import drop_part, new_device, remove_device

SNAP_MM = 5.0


def snapped(value: float, step: float = SNAP_MM) -> float:
    """Return a measure at the nearest multiple of a step, mm."""
    return round(round(value / step) * step, 3)


class AddEnclosure(Payload):
    """Add an enclosure with a part of the library, to lay it out."""

    kind: Literal["add-enclosure"] = "add-enclosure"
    part_id: Id
    function_id: Id = ""
    location_id: Id = ""
    text: Text = ""


@edit(AddEnclosure, {"part_id": "hollin-hr-e6825", "text": "Kiln 2"})
def add_enclosure(work: Work, payload: AddEnclosure) -> str:
    """Work out AddEnclosure."""
    project = work.project
    take_part(work, payload.part_id, "enclosure")
    for kind, id in (("function", payload.function_id), ("location", payload.location_id)):
        if id:
            project.get(kind, id)
    device = new_device(work, "enclosure", (payload.function_id, payload.location_id), payload.text)
    give_part(work, device, payload.part_id)
    made = Enclosure(work.ids.new(), device.id)
    work.put("enclosure", made)
    surface_size(project, made, "plate")
    work.outcome.placed = [made.id]
    return f"add enclosure {short_tag(project, project.devices[device.id])}"


class ChangeEnclosure(Payload):
    """Say how warm it is around an enclosure, how it stands, how its door hangs, to which on its left it is open."""

    kind: Literal["change-enclosure"] = "change-enclosure"
    enclosure_id: Id
    ambient_c: Celsius | None = None
    hinge: Literal["left", "right"] | None = None
    left_id: Id | None = None
    opening_mm: Length | None = None
    standing: Standing | None = None
    swing_deg: Swing | None = None
    inside_max_c: Celsius | None = None
    coldest_c: Celsius | None = None
    inside_min_c: Celsius | None = None


@edit(ChangeEnclosure, {"enclosure_id": "e1", "ambient_c": 40})
def change_enclosure(work: Work, payload: ChangeEnclosure) -> str:
    """Work out ChangeEnclosure."""
    enclosure: Enclosure = work.project.get("enclosure", payload.enclosure_id)
    values = payload.model_dump(exclude={"kind", "enclosure_id"}, exclude_none=True)
    if payload.left_id:
        _check_row(work.project, enclosure, payload.left_id)
    work.put("enclosure", replace(enclosure, **values))
    return f"facts of {short_tag(work.project, work.project.devices[enclosure.device_id])}"


def _check_row(project: Project, enclosure: Enclosure, left_id: str) -> None:
    """Refuse a neighbour on the left that cannot be.

    Raises:
        RuleError: it would stand beside itself, in a ring, or where another stands.
    """
    left: Enclosure = project.get("enclosure", left_id)
    tag = short_tag(project, project.devices[left.device_id])
    if left.id in (enclosure.id, *(e.id for e in _right_of(project, enclosure))):
        raise RuleError(f"{tag} stands right of it already. Choose another.", field="left_id", ids=(left.id,))
    taken = next((e for e in project.enclosures.values() if e.left_id == left.id and e.id != enclosure.id), None)
    if taken is not None:
        other = short_tag(project, project.devices[taken.device_id])
        raise RuleError(f"{other} is right of {tag} already. Choose another.", field="left_id", ids=(taken.id,))


def _right_of(project: Project, enclosure: Enclosure) -> list[Enclosure]:
    found = [enclosure]
    while following := [e for e in project.enclosures.values() if e.left_id == found[-1].id and e not in found]:
        found.append(following[0])
    return found[1:]


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


_Ends = tuple[float, float, float, float]


def _ends(project: Project, enclosure: Enclosure, surface: str, wanted: _Ends) -> _Ends:
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


class RemoveFromLayout(Payload):
    """Put devices back into the tray, and take rails, ducts, lanes, crossings or a whole enclosure away."""

    kind: Literal["remove-from-layout"] = "remove-from-layout"
    ids: list[Id] = Field(min_length=1, max_length=1000)


@edit(RemoveFromLayout, {"ids": ["p1"]})
def remove_from_layout(work: Work, payload: RemoveFromLayout) -> str:
    """Work out RemoveFromLayout."""
    project = work.project
    for id in dict.fromkeys(payload.ids):
        if id in project.placings:
            work.remove("placing", id)
        elif id in project.enclosures:
            _remove_enclosure(work, project.enclosures[id])
        elif id in project.rails or id in project.ducts:
            _remove_run(work, id)
        elif id in project.lanes or id in project.crossings:
            work.remove("lane" if id in project.lanes else "crossing", id)
            forget_passed(work, id)
        else:
            project.get("placing", id)
    return f"take {len(set(payload.ids))} out of the layout"


def _remove_run(work: Work, id: str) -> None:
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


def _remove_enclosure(work: Work, enclosure: Enclosure) -> None:
    project = work.project
    for placing in placings_in(project, enclosure.id):
        work.remove("placing", placing.id)
    for table in (project.rails, project.ducts):
        for id in [r.id for r in table.values() if r.enclosure_id == enclosure.id]:
            _remove_run(work, id)
    for id in [n.id for n in project.lanes.values() if n.enclosure_id == enclosure.id]:
        work.remove("lane", id)
        forget_passed(work, id)
    remove_device(work, enclosure.device_id)
