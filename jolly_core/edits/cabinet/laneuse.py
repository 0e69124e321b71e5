"""What may lie in lanes, ducts and crossings, and what wires are led through."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cabinet import eyelet_named, lane_name, panel_conductors, passage_words
from jolly_core.model import WIRE_CATEGORIES, Project, RuleError
from jolly_core.model.entities.layout import MOST_PASSED, Passage

from ..base.edit import ConductorKey, Id, Length, Payload, Work, edit
from ..project.wiretypes import Category


def in_category_order(categories: list[Category]) -> tuple[str, ...]:
    """Return categories once each, in the order of all."""
    return tuple(c for c in WIRE_CATEGORIES if c in categories)


class SetLaneUse(Payload):
    """Say which wires may lie in ducts and lanes and pass crossings; no category is all of them.

    Attributes:
        extra_mm: of a crossing, the wire it takes beside what lies on both surfaces.
    """

    kind: Literal["set-lane-use"] = "set-lane-use"
    ids: list[Id] = Field(min_length=1, max_length=500)
    categories: list[Category] | None = None
    extra_mm: Length | None = None


@edit(SetLaneUse, {"ids": ["d1"], "categories": ["signal"]})
def set_lane_use(work: Work, payload: SetLaneUse) -> str:
    """Work out SetLaneUse."""
    project = work.project
    for id in dict.fromkeys(payload.ids):
        kind = "lane" if id in project.lanes else "crossing" if id in project.crossings else "duct"
        record = project.get(kind, id)
        if payload.categories is not None:
            record = replace(record, categories=in_category_order(payload.categories))
        if payload.extra_mm is not None:
            if kind != "crossing":
                raise RuleError("Only a crossing takes extra wire.", field="extra_mm", ids=(id,))
            record = replace(record, extra_mm=payload.extra_mm)
        work.put(kind, record)
    if payload.categories is None:
        return "wire of a crossing"
    return f"lanes for {', '.join(payload.categories)} wires" if payload.categories else "lanes for all wires"


class LeadThrough(Payload):
    """Lead wires through eyelets and lanes, in order, or no longer.

    Attributes:
        conductors: the keys of the conductors.
        through: ids of ducts and lanes, and "device id/n" for the n-th eyelet of a device.
        how: "add" after what each is led through, "take" the last time of each out, or "set" in place of all.
    """

    kind: Literal["lead-through"] = "lead-through"
    conductors: list[ConductorKey] = Field(min_length=1, max_length=2000)
    through: list[Id] = Field(max_length=MOST_PASSED)
    how: Literal["add", "take", "set"] = "add"


@edit(LeadThrough, {"conductors": ["y1.1-y2.0"], "through": ["d3/1"]})
def lead_through(work: Work, payload: LeadThrough) -> str:
    """Work out LeadThrough."""
    project = work.project
    known = {c.key for c in panel_conductors(project)}
    for name in payload.through if payload.how != "take" else ():
        _check_passed(project, name)
    for key in dict.fromkeys(payload.conductors):
        ids = project.passages_of.get(key)
        passage = project.passages[ids[0]] if ids else None
        if key not in known and payload.how != "take":
            raise RuleError(
                "One of the wires is no longer there, or leaves the panel. Choose again.", field="conductors"
            )
        through = list(passage.through) if passage and payload.how != "set" else []
        for name in payload.through:
            if payload.how != "take":
                through.append(name)
            elif name in through:
                through.reverse()
                through.remove(name)
                through.reverse()
        if len(through) > MOST_PASSED:
            raise RuleError(f"A wire is led through at most {MOST_PASSED} eyelets and lanes.", field="through")
        if through:
            work.put("passage", Passage(passage.id if passage else work.ids.new(), key, tuple(through)))
        elif passage is not None:
            work.remove("passage", passage.id)
    words = ", ".join(passage_words(project, n) for n in payload.through[:3]) or "nothing"
    count = f"{len(payload.conductors)} wires" if len(payload.conductors) > 1 else "a wire"
    return f"{count} no longer through {words}" if payload.how == "take" else f"lead {count} through {words}"


def _check_passed(project: Project, name: str) -> None:
    """Refuse what no wire can be led through.

    Raises:
        RuleError: it is neither an eyelet of a placed device, nor a duct or lane.
    """
    device_id, _, number = name.partition("/")
    if number:
        project.get("device", device_id)
        if eyelet_named(project, name) is None:
            words = passage_words(project, name)
            raise RuleError(
                f"{words} has no eyelet, or is not placed. Say the eyelet in its part, and place it.", field="through"
            )
    elif not lane_name(project, name):
        raise RuleError("There is no such duct or lane any more. Choose again.", field="through")
