"""What a space model says of a harness: places of its nodes, paths and lengths of its segments, clips on the way.

Nodes are matched by designation, branchings and clips by name. What matches nothing is named in a remark; a clip that
is new is put into the segment it lies on. Taken in again, only what differs changes; `outcome.table` lists it.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from pydantic import Field

from jolly_core.harness import coordinates, node_name, nodes_of, path_through, segments_of, span_of, spots
from jolly_core.model import Harness, Node, PathForm, Project, RuleError, Segment, length_words
from jolly_core.tagging import product_tag

from ..base.edit import Id, Mm, Payload, Text, Work, edit
from .segments import Coordinates, SegmentLength, SplitSegment, split_segment

SAME_MM = 0.005


class SpaceNode(Payload):
    """A node as a space model knows it: its designation or name, what it is, and where it is, mm."""

    name: Text
    sort: Literal["", "connector", "splice", "branching", "clip"] = ""
    at: Annotated[list[Mm], Field(min_length=3, max_length=3)]


class SpacePath(Payload):
    """A path between two nodes: its form with what lies between its ends, or a length in mm without a path."""

    start: Text
    end: Text
    form: PathForm = "line"
    points: Coordinates = Field(default_factory=list)
    length_mm: SegmentLength | None = Field(default=None, gt=0)


class TakeInSpace(Payload):
    """Take in what a space model says of a harness."""

    kind: Literal["take-in-space"] = "take-in-space"
    harness_id: Id
    nodes: list[SpaceNode] = Field(default_factory=list, max_length=2000)
    paths: list[SpacePath] = Field(default_factory=list, max_length=2000)


@edit(TakeInSpace, {"harness_id": "h1", "nodes": [{"name": "-XD1", "at": [0, 0, 0]}]})
def take_in_space(work: Work, payload: TakeInSpace) -> str:
    """Work out TakeInSpace."""
    harness: Harness = work.project.get("harness", payload.harness_id)
    before = {s.id: span_of(work.project, s.id).length_mm for s in segments_of(work.project, harness.id)}
    _new_clips(work, harness, payload)
    known = _by_name(work.project, harness)
    for said in payload.nodes:
        node = known.get(_plain(said.name))
        if node is None:
            work.outcome.remarks.append(f"{said.name} is in the space model and not in {harness.code}.")
        else:
            _place(work, node, said)
    told = {_plain(said.name) for said in payload.nodes}
    for node in nodes_of(work.project, harness.id):
        if not told & set(_names(work.project, node)):
            name = node_name(work.project, node)
            work.outcome.remarks.append(f"{name} is in {harness.code} and not in the space model: it stays as it is.")
    for path in payload.paths:
        _take_path(work, harness, path)
    for id, old in before.items():
        if id in work.project.segments and abs(old - (new := span_of(work.project, id).length_mm)) > SAME_MM:
            was, now = length_words(work.project, old), length_words(work.project, new)
            work.outcome.table.append([_ends(work.project, work.project.segments[id]), was, now])
    return f"{harness.code} as in the space model"


def _plain(name: str) -> str:
    return name.strip().lstrip("-").lower()


def _names(project: Project, node: Node) -> list[str]:
    device = project.devices.get(node.device_id)
    if device is None:
        return [_plain(node.name or node.id)]
    return [_plain(node_name(project, node)), _plain(product_tag(project, device))]


def _by_name(project: Project, harness: Harness) -> dict[str, Node]:
    found: dict[str, Node] = {}
    for node in nodes_of(project, harness.id):
        for name in _names(project, node):
            found.setdefault(name, node)
    return found


def _ends(project: Project, segment: Segment) -> str:
    return " to ".join(node_name(project, project.nodes[id]) for id in (segment.a_id, segment.b_id))


def _between(project: Project, harness: Harness, a: str, b: str) -> Segment | None:
    found = (s for s in segments_of(project, harness.id) if {s.a_id, s.b_id} == {a, b})
    segment = next(found, None)
    return project.segments[segment.id] if segment else None


def _new_clips(work: Work, harness: Harness, payload: TakeInSpace) -> None:
    """Put clips that the harness does not have yet into the segment between the two nodes their paths lead to."""
    for said in payload.nodes:
        known = _by_name(work.project, harness)
        mine = _plain(said.name)
        if said.sort != "clip" or mine in known:
            continue
        lead = [p for p in payload.paths if mine in (_plain(p.start), _plain(p.end))]
        others = [known.get(_plain(p.end if _plain(p.start) == mine else p.start)) for p in lead]
        if len(others) != 2 or others[0] is None or others[1] is None:
            continue
        segment = _between(work.project, harness, others[0].id, others[1].id)
        if segment is None:
            continue
        near = lead[0] if segment.a_id == others[0].id else lead[1]
        total = sum(_length(work.project, known, said, p) for p in lead)
        at_mm = span_of(work.project, segment.id).base_mm * _length(work.project, known, said, near) / (total or 1.0)
        split = SplitSegment(segment_id=segment.id, at_mm=max(0.1, round(at_mm, 1)), name=said.name, sort="clip")
        split_segment(work, split)
        work.outcome.table.append([f"clip {said.name}", "", f"new on {_ends(work.project, segment)}"])


def _length(project: Project, known: dict[str, Node], clip: SpaceNode, path: SpacePath) -> float:
    """Return how long a path to a new clip is: as said, or from where its other end is; 1 while that is unknown."""
    if path.length_mm is not None:
        return path.length_mm
    other = known.get(_plain(path.end if _plain(path.start) == _plain(clip.name) else path.start))
    if other is None or not other.at:
        return 1.0
    (a,), (b,) = spots(other.at), spots(clip.at)
    return path_through("line", a, [], b).length_mm or 1.0


def _place(work: Work, node: Node, said: SpaceNode) -> None:
    at = coordinates(spots(said.at))
    if node.at == at:
        return
    old = " ".join(f"{v:g}" for v in node.at) or "no place"
    work.outcome.table.append([node_name(work.project, node), old, " ".join(f"{v:g}" for v in at)])
    work.put("node", replace(work.project.nodes[node.id], at=at))


def _take_path(work: Work, harness: Harness, path: SpacePath) -> None:
    project = work.project
    known = _by_name(project, harness)
    a, b = known.get(_plain(path.start)), known.get(_plain(path.end))
    segment = _between(project, harness, a.id, b.id) if a and b else None
    if a is None or b is None or segment is None:
        work.outcome.remarks.append(f"No segment of {harness.code} runs from {path.start} to {path.end}.")
        return
    if path.length_mm is not None and not path.points and path.form in ("typed", "line"):
        changed = replace(segment, form="typed", length_mm=round(path.length_mm, 2), path=())
    else:
        points = spots(path.points)
        if segment.a_id != a.id:
            points.reverse()
        changed = replace(segment, form=path.form, path=coordinates(points))
        try:
            path_through(path.form, (0.0, 0.0, 0.0), points, (0.0, 0.0, 0.0))
        except RuleError as error:
            raise RuleError(f"From {path.start} to {path.end}: {error.message}", field="paths") from error
    if changed != segment:
        work.put("segment", changed)
