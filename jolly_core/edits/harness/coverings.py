"""Coverings of segments."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.harness import node_name, span_of
from jolly_core.model import Covering, Project, RuleError, bare_length, length_words

from ..base.edit import Id, Payload, Work, edit
from ..devices.parts import take_part
from .segments import SegmentLength


class CoverSegment(Payload):
    """Put tape, tube or sleeve over a stretch of segments, or change one; `to_mm` 0 is the segment's end.

    With `covering_id` that one is changed, with `ids` each segment gets one.
    """

    kind: Literal["cover-segment"] = "cover-segment"
    ids: list[Id] = Field(default_factory=list, max_length=500)
    covering_id: Id = ""
    part_id: Id | None = None
    from_mm: SegmentLength | None = None
    to_mm: SegmentLength | None = None


@edit(CoverSegment, {"ids": ["g1"], "part_id": "p1", "from_mm": 20, "to_mm": 150})
def cover_segment(work: Work, payload: CoverSegment) -> str:
    """Work out CoverSegment."""
    project = work.project
    if payload.part_id:
        part = take_part(work, payload.part_id)
        if part.part_class != "covering":
            raise RuleError(f"{part.number} is no harness covering.", field="part_id", ids=(part.id,))
    values = payload.model_dump(include={"part_id", "from_mm", "to_mm"}, exclude_none=True)
    if payload.part_id:
        values["part_id"] = part.id
    if payload.covering_id:
        made = [replace(project.get("covering", payload.covering_id), **values)]
    else:
        made = [Covering(work.ids.new(), project.get("segment", id).id, **values) for id in payload.ids]
    if not made:
        raise RuleError("Choose the segments that are to be covered.", field="ids")
    for covering in made:
        _check_stretch(project, covering)
        work.put("covering", covering)
    work.outcome.placed = [c.id for c in made]
    segment = project.segments[made[0].segment_id]
    return f"covering of {project.harnesses[segment.harness_id].code}"


def _check_stretch(project: Project, covering: Covering) -> None:
    segment = project.segments[covering.segment_id]
    length = span_of(project, segment.id).length_mm
    if covering.from_mm >= (covering.to_mm or length) or covering.to_mm > length + 0.01:
        ends = " to ".join(node_name(project, project.nodes[id]) for id in (segment.a_id, segment.b_id))
        raise RuleError(
            f"The segment {ends} is {length_words(project, length)} long: nothing of it lies from "
            f"{bare_length(project, covering.from_mm)} to {length_words(project, covering.to_mm)}.",
            field="to_mm",
            ids=(segment.id,),
        )


class Uncover(Payload):
    """Take a covering off."""

    kind: Literal["uncover"] = "uncover"
    covering_id: Id


@edit(Uncover, {"covering_id": "v1"})
def uncover(work: Work, payload: Uncover) -> str:
    """Work out Uncover."""
    covering: Covering = work.project.get("covering", payload.covering_id)
    segment = work.project.segments[covering.segment_id]
    work.remove("covering", covering.id)
    return f"take a covering off {work.project.harnesses[segment.harness_id].code}"
