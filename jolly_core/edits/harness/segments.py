"""Segments of a harness: typed lengths and paths in space, angles on the board, what is put into them."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import Field

from jolly_core.harness import check_path, coordinates, cut_path, is_end, is_splice, nodes_at, span_of, spots
from jolly_core.model import Covering, Device, Node, PathForm, Project, RuleError, Segment, length_words
from jolly_core.model.entities import harness as bounds
from jolly_core.tagging import full_tag

from ..base.edit import Id, Mm, Payload, Text, Work, edit
from ..devices.parts import take_part

ExtraShare = Annotated[bounds.ExtraShare, Field(allow_inf_nan=False)]
ExtraLength = Annotated[bounds.ExtraLength, Field(allow_inf_nan=False)]
Angle = Annotated[bounds.Angle, Field(allow_inf_nan=False)]
SegmentLength = Annotated[bounds.SegmentLength, Field(allow_inf_nan=False)]
Coordinates = Annotated[list[Mm], Field(max_length=3 * bounds.MOST_PATH_POINTS)]


def check_end(project: Project, device_id: str, harness_id: str) -> Device:
    """Return the device of a connector or splice that is to be in a harness; several harnesses may begin at it.

    Raises:
        RuleError: it is neither, or in that harness already, or a splice of another.
    """
    device: Device = project.get("device", device_id)
    tag = full_tag(project, device)
    if not is_end(project, device):
        raise RuleError(f"{tag} is no connector or splice: it has no cavities.", field="device_id", ids=(device.id,))
    for node in nodes_at(project, device.id):
        if node.harness_id == harness_id or is_splice(project, device.id):
            code = project.harnesses[node.harness_id].code
            raise RuleError(f"{tag} is in harness {code} already.", field="device_id", ids=(device.id,))
    return device


def take_clip(work: Work, part_id: str) -> str:
    """Return the id of the project's copy of a clip; "" for none.

    Raises:
        RuleError: the part is unknown, or no clip.
    """
    return take_part(work, part_id, "harness-clip").id if part_id else ""


def without(work: Work, segment_id: str) -> None:
    """Take a segment away with what lies over it."""
    for covering in coverings_of(work.project, segment_id):
        work.remove("covering", covering.id)
    for part in [p for p in work.project.variant_parts.values() if p.segment_id == segment_id]:
        work.remove("variant_part", part.id)
    work.remove("segment", segment_id)


class SetSegment(Payload):
    """Give a segment a typed length, or a path in space; extra length; another angle on the board.

    `angle_deg` counts from the right, downwards; with `angled` false the angle is found by rule again.
    """

    kind: Literal["set-segment"] = "set-segment"
    segment_id: Id
    length_mm: SegmentLength | None = Field(default=None, gt=0)
    form: PathForm | None = None
    path: Coordinates | None = None
    extra_mm: ExtraLength | None = None
    extra_percent: ExtraShare | None = None
    angled: bool | None = None
    angle_deg: Angle | None = None


@edit(SetSegment, {"segment_id": "g1", "length_mm": 600})
def set_segment(work: Work, payload: SetSegment) -> str:
    """Work out SetSegment."""
    segment: Segment = work.project.get("segment", payload.segment_id)
    values: dict[str, Any] = payload.model_dump(exclude={"kind", "segment_id"}, exclude_none=True)
    if payload.length_mm is not None:
        values["length_mm"] = round(payload.length_mm, 2)
        values.setdefault("form", "typed")
    if payload.angle_deg is not None:
        values.setdefault("angled", True)
    if "path" in values:
        values["path"] = coordinates(spots(values["path"]))
    changed = replace(segment, **values)
    if changed.form in ("typed", "line"):
        changed.path = ()
    elif changed.form == "curve" and not changed.path:
        changed.path = _first_curve(work.project, changed)
    check_path(changed.form, len(spots(changed.path)))
    work.put("segment", changed)
    span = span_of(work.project, segment.id)
    if span.length_mm <= 0:
        raise RuleError("What is taken off is more than the segment's length.", field="extra_mm", ids=(segment.id,))
    return f"{_what(payload)} of a segment of {work.project.harnesses[segment.harness_id].code}"


def _first_curve(project: Project, segment: Segment) -> tuple[float, ...]:
    """Return the control points of a curve at first: on the third parts of the straight line between its nodes."""
    a, b = (project.nodes[id].at or (0.0, 0.0, 0.0) for id in (segment.a_id, segment.b_id))
    shares = (1 / 3, 2 / 3)
    return tuple(round(u + (v - u) * share, 1) for share in shares for u, v in zip(a, b, strict=True))


def _what(payload: SetSegment) -> str:
    if payload.angled is not None or payload.angle_deg is not None:
        return "angle"
    return "path" if payload.form not in (None, "typed") or payload.path is not None else "length"


class SplitSegment(Payload):
    """Put a branching, a clip, a connector or a splice into a segment, at a distance from its first node."""

    kind: Literal["split-segment"] = "split-segment"
    segment_id: Id
    at_mm: Mm = Field(gt=0)
    name: Text = ""
    device_id: Id = ""
    sort: Literal["", "clip"] = ""
    part_id: Id = ""


@edit(SplitSegment, {"segment_id": "g1", "at_mm": 150, "name": "B2"})
def split_segment(work: Work, payload: SplitSegment) -> str:
    """Work out SplitSegment."""
    project = work.project
    segment: Segment = project.get("segment", payload.segment_id)
    span = span_of(project, segment.id)
    if payload.at_mm >= span.base_mm:
        long = length_words(project, span.base_mm)
        raise RuleError(f"The segment is {long} long. Choose a place within it.", field="at_mm")
    if payload.device_id:
        check_end(project, payload.device_id, segment.harness_id)
    part_id = take_clip(work, payload.part_id) if payload.sort == "clip" else ""
    node = Node(work.ids.new(), segment.harness_id, payload.device_id, payload.name.strip(), payload.sort)
    node.part_id = part_id
    at_mm = round(payload.at_mm, 2)
    first = replace(segment, b_id=node.id, length_mm=at_mm)
    second = replace(segment, id=work.ids.new(), a_id=node.id, length_mm=round(span.base_mm - at_mm, 2), extra_mm=0.0)
    if span.path is not None:
        a, b = (spots(project.nodes[id].at)[0] for id in (segment.a_id, segment.b_id))
        spot, before, after = cut_path(segment.form, a, spots(segment.path), b, at_mm)
        node.at = coordinates([spot])
        first.path, second.path = coordinates(before), coordinates(after)
    work.put("node", node)
    work.put("segment", second)
    work.put("segment", first)
    _cover_parts(work, first, second, span_of(project, first.id).length_mm)
    work.outcome.placed = [node.id]
    return f"{'clip on' if node.sort else 'branch'} {project.harnesses[segment.harness_id].code}"


def _cover_parts(work: Work, first: Segment, second: Segment, at_mm: float) -> None:
    """What lay over a segment lies over both its parts, as far as it reached; `at_mm` is the first one's length."""
    for c in coverings_of(work.project, first.id):
        if c.from_mm >= at_mm:
            end = max(0.0, c.to_mm - at_mm)
            work.put("covering", replace(c, segment_id=second.id, from_mm=round(c.from_mm - at_mm, 2), to_mm=end))
        elif not c.to_mm or c.to_mm > at_mm:
            work.put("covering", replace(c, to_mm=0.0))
            end = round(c.to_mm - at_mm, 2) if c.to_mm else 0.0
            work.put("covering", replace(c, id=work.ids.new(), segment_id=second.id, from_mm=0.0, to_mm=end))


def joined(work: Work, node: Node, pair: Iterable[Segment]) -> None:
    """Make one segment of the two that meet at a node that goes away; what lay over them stays where it was."""
    project = work.project
    first, second = pair = list(pair)
    one = first.a_id if first.b_id == node.id else first.b_id
    other = second.b_id if second.a_id == node.id else second.a_id
    spans = [span_of(project, s.id) for s in (first, second)]
    length = round(spans[0].base_mm + spans[1].base_mm, 2)
    # Shares of the two become millimetres of the one where they differ.
    percent = first.extra_percent if first.extra_percent == second.extra_percent else 0.0
    added = sum(
        s.extra_mm + (s.extra_percent - percent) / 100 * span.base_mm for s, span in zip(pair, spans, strict=True)
    )
    made = Segment(work.ids.new(), first.harness_id, one, other, length)
    made.extra_mm, made.extra_percent = round(added, 2), percent
    turned = next((s for s in pair if s.angled), None)
    if turned is not None:
        made.angled, made.angle_deg = True, turned.angle_deg
    if all(span.path is not None and s.form != "curve" for span, s in zip(spans, (first, second), strict=True)):
        before, after = spots(first.path), spots(second.path)
        before = before if first.b_id == node.id else before[::-1]
        after = after if second.a_id == node.id else after[::-1]
        made.form, made.path = "polyline", coordinates([*before, *spots(node.at), *after])
    coverings = [
        *_laid(project, first, spans[0].length_mm, 0.0, first.b_id == node.id),
        *_laid(project, second, spans[1].length_mm, spans[0].length_mm, second.a_id == node.id),
    ]
    variants = [p for p in project.variant_parts.values() if p.segment_id in (first.id, second.id)]
    for segment in (first, second):
        without(work, segment.id)
    work.put("segment", made)
    for part in {p.variant_id: p for p in variants}.values():
        work.put("variant_part", replace(part, segment_id=made.id))
    for covering in coverings:
        work.put("covering", replace(covering, segment_id=made.id))


def _laid(project: Project, segment: Segment, length: float, begin: float, forward: bool) -> list[Covering]:
    found = []
    for c in coverings_of(project, segment.id):
        low, high = c.from_mm, c.to_mm or length
        low, high = (low, high) if forward else (length - high, length - low)
        found.append(replace(c, from_mm=round(begin + low, 2), to_mm=round(begin + high, 2)))
    return found


def coverings_of(project: Project, segment_id: str) -> list[Covering]:
    """Return the coverings of a segment from its first node on."""
    found = [c for c in project.coverings.values() if c.segment_id == segment_id]
    return sorted(found, key=lambda c: (c.from_mm, c.id))
