"""How wires lie where they are led through a clip: packed by themselves, each at an offset, or all at one point."""

from __future__ import annotations

from dataclasses import dataclass
from math import hypot

from jolly_core.model import Node, Project, derived
from jolly_core.sizing import bundle_places_mm, circle_about_mm
from jolly_core.tagging import full_tag, pin_name

from .bundling import bundles
from .lengths import span_of
from .paths import SpacePoint, spots
from .runs import Run
from .tree import tree_of

CLIP_MM = 30.0  # along which wires keep their offsets
TOUCH_MM = 0.01  # by which two may seem to overlap and only touch


@dataclass(slots=True, frozen=True)
class Led:
    """A wire or cable in a clip: where its middle lies across the way, mm from the middle of the clip."""

    run: Run
    x: float
    y: float


@dataclass(slots=True, frozen=True)
class Lead:
    """What is led through a clip.

    Attributes:
        diameter_mm: of a circle about all of it.
        overlaps: the first two that would lie in each other, None where none do.
    """

    inside: tuple[Led, ...]
    diameter_mm: float
    overlaps: tuple[Run, Run] | None


@derived
def lead_through(project: Project, node_id: str) -> Lead:
    """Return what is led through a clip and how.

    With offsets, what has none yet lies in a row to the right of the others. At one point, all are as thick as their
    bundle is.
    """
    node: Node = project.nodes[node_id]
    beside = tree_of(project, node.harness_id).beside[node.id]
    if not beside:
        return Lead((), 0.0, None)
    bundle = bundles(project, node.harness_id)[beside[0][0].id]
    runs, sizes = bundle.runs, [r.diameter_mm for r in bundle.runs]
    if node.led == "merged":
        return Lead(tuple(Led(r, 0.0, 0.0) for r in runs), bundle.diameter_mm, None)
    if node.led != "offsets":
        places = bundle_places_mm(sizes)
        return Lead(tuple(Led(r, *p) for r, p in zip(runs, places, strict=True)), bundle.diameter_mm, None)
    places = _at_offsets(node.offsets, sizes)
    inside = tuple(Led(r, *p) for r, p in zip(runs, places, strict=True))
    return Lead(inside, circle_about_mm(places, sizes), _overlapping(inside))


def row_of_offsets(project: Project, node_id: str) -> tuple[float, ...]:
    """Return offsets with which what is led through a clip lies in a row, each beside the one before it."""
    sizes = [led.run.diameter_mm for led in lead_through(project, node_id).inside]
    left, found = -sum(sizes) / 2, []
    for size in sizes:
        found += [round(left + size / 2, 3), 0.0]
        left += size
    return tuple(found)


def _at_offsets(offsets: tuple[float, ...], sizes: list[float]) -> list[tuple[float, float]]:
    places = [(offsets[n], offsets[n + 1]) for n in range(0, min(len(offsets), 2 * len(sizes)), 2)]
    edge = max((x + size / 2 for (x, _), size in zip(places, sizes, strict=False)), default=0.0)
    for size in sizes[len(places) :]:
        places.append((round(edge + size / 2, 3), 0.0))
        edge += size
    return places


def _overlapping(inside: tuple[Led, ...]) -> tuple[Run, Run] | None:
    for n, one in enumerate(inside):
        for other in inside[n + 1 :]:
            apart = hypot(one.x - other.x, one.y - other.y)
            if apart < (one.run.diameter_mm + other.run.diameter_mm) / 2 - TOUCH_MM:
                return one.run, other.run
    return None


def strands_through(project: Project, node_id: str) -> list[tuple[Run, SpacePoint, SpacePoint]]:
    """Return where each wire that has an offset runs through a clip in space: from where to where, mm.

    Offsets count across the way, x level and y as near to upwards as the way lets it. [] where the clip or its
    neighbours have no place, and where wires lie in their bundle or at one point anyway.
    """
    node: Node = project.nodes[node_id]
    along = _along(project, node)
    if node.led != "offsets" or along is None:
        return []
    (at,) = spots(node.at)
    level = _cross(along, (0.0, 0.0, 1.0)) if abs(along[2]) < 0.99 else (1.0, 0.0, 0.0)
    level = _unit(level)
    up = _unit(_cross(level, along))
    found = []
    for led in lead_through(project, node_id).inside:
        x, y, z = (p + led.x * u + led.y * v for p, u, v in zip(at, level, up, strict=True))
        ends = [(x + s * along[0], y + s * along[1], z + s * along[2]) for s in (-CLIP_MM / 2, CLIP_MM / 2)]
        found.append((led.run, ends[0], ends[1]))
    return found


def _along(project: Project, node: Node) -> SpacePoint | None:
    """Return the direction of the way through a node, None where that is unknown."""
    beside = tree_of(project, node.harness_id).beside[node.id]
    if len(beside) != 2 or not node.at:
        return None
    near: list[SpacePoint] = []
    for segment, _ in beside:
        path = span_of(project, segment.id).path
        if path is None:
            return None
        near.append(path.points[1] if segment.a_id == node.id else path.points[-2])
    (a, b) = near
    direction = (b[0] - a[0], b[1] - a[1], b[2] - a[2])
    return _unit(direction) if hypot(*direction) > 1e-6 else None


def _cross(a: SpacePoint, b: SpacePoint) -> SpacePoint:
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def _unit(a: SpacePoint) -> SpacePoint:
    length = hypot(*a) or 1.0
    return (a[0] / length, a[1] / length, a[2] / length)


def run_name(project: Project, run: Run) -> str:
    """Return what a wire or cable is called: its number, else its ends; the cable's tag."""
    device = project.devices.get(run.cable_id)
    if device is not None:
        return full_tag(project, device)
    c = run.wires[0].conductor
    return c.number or f"{pin_name(project, c.start)} to {pin_name(project, c.end)}"
