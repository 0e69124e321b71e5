"""The tree of a harness: its nodes and segments, ways between nodes, and its trunk, the longest of them. All in mm."""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass, replace

from jolly_core.model import Node, Project, RuleError, Segment, derived

from .lengths import span_of

BoardPoint = tuple[float, float]


def nodes_of(project: Project, harness_id: str) -> list[Node]:
    """Return the nodes of a harness as they were made."""
    return sorted((n for n in project.nodes.values() if n.harness_id == harness_id), key=lambda n: n.id)


def nodes_at(project: Project, device_id: str) -> list[Node]:
    """Return the nodes that a connector or splice is: one in each harness that begins there, in their order."""
    found = (project.nodes[id] for id in project.attached.get(device_id) if id in project.nodes)
    return sorted(found, key=lambda n: (project.harnesses[n.harness_id].order, n.harness_id, n.id))


def node_of(project: Project, device_id: str, harness_id: str = "") -> Node | None:
    """Return the node that a connector or splice is in a harness, or in the first one that begins there."""
    return next((n for n in nodes_at(project, device_id) if harness_id in ("", n.harness_id)), None)


def segments_of(project: Project, harness_id: str) -> list[Segment]:
    """Return the segments of a harness as they were made."""
    return sorted((s for s in project.segments.values() if s.harness_id == harness_id), key=lambda s: s.id)


@dataclass(slots=True)
class Tree:
    """A harness as neighbours: for each node (segment, node at its other end).

    Its segments are as long as they are cut: with what is added to them.
    """

    nodes: list[Node]
    segments: list[Segment]
    beside: dict[str, list[tuple[Segment, str]]]


def tree_of(project: Project, harness_id: str) -> Tree:
    """Return the tree of a harness.

    Raises:
        GoneError: it is not in the project.
    """
    project.get("harness", harness_id)
    return _tree(project, harness_id)


@derived
def _tree(project: Project, harness_id: str) -> Tree:
    nodes = nodes_of(project, harness_id)
    segments = [replace(s, length_mm=span_of(project, s.id).length_mm) for s in segments_of(project, harness_id)]
    beside: dict[str, list[tuple[Segment, str]]] = {n.id: [] for n in nodes}
    for s in segments:
        beside[s.a_id].append((s, s.b_id))
        beside[s.b_id].append((s, s.a_id))
    return Tree(nodes, segments, beside)


Steps = dict[str, tuple[str, Segment] | None]


def steps_from(tree: Tree, start: str) -> Steps:
    """Return for each node that is joined to one the node and segment before it on the way from there."""
    before: Steps = {start: None}
    waiting = deque([start])
    while waiting:
        node = waiting.popleft()
        for segment, other in tree.beside[node]:
            if other not in before:
                before[other] = (node, segment)
                waiting.append(other)
    return before


def way_between(tree: Tree, start: str, end: str) -> list[Segment]:
    """Return the segments from a node to another, [] when they are one.

    Raises:
        RuleError: the tree does not join them.
    """
    return way_along(steps_from(tree, start), start, end)


def way_along(before: Steps, start: str, end: str) -> list[Segment]:
    """Return the segments from the node that steps begin at to another.

    Raises:
        RuleError: the tree does not join them.
    """
    if end not in before:
        raise RuleError("No segment joins these connectors. Add one to the harness.", ids=(start, end))
    way: list[Segment] = []
    step = before[end]
    while step is not None:
        way.append(step[1])
        step = before[step[0]]
    return way[::-1]


def nodes_between(tree: Tree, start: str, end: str) -> list[str]:
    """Return the node ids from one node to another, both with it; [] where nothing joins them."""
    try:
        way = way_between(tree, start, end)
    except RuleError:
        return []
    found = [start]
    for segment in way:
        found.append(segment.b_id if segment.a_id == found[-1] else segment.a_id)
    return found


def pieces_of(tree: Tree) -> list[list[str]]:
    """Return the node ids of each piece that hangs together; nodes that no segment touches are left out."""
    seen: set[str] = set()
    found: list[list[str]] = []
    for node in tree.nodes:
        if node.id in seen or not tree.beside[node.id]:
            continue
        piece, waiting = [], [node.id]
        while waiting:
            id = waiting.pop()
            if id not in seen:
                seen.add(id)
                piece.append(id)
                waiting += [other for _, other in tree.beside[id]]
        found.append(piece)
    return found


def is_tree(tree: Tree) -> bool:
    """Return whether the segments join the nodes they touch without a ring."""
    pieces = pieces_of(tree)
    touched = sum(map(len, pieces))
    return len(pieces) <= 1 and len(tree.segments) == max(0, touched - 1)


def length_mm(way: list[Segment]) -> float:
    """Return the length of a way, mm."""
    return sum(s.length_mm for s in way)


def trunk(tree: Tree) -> list[str]:
    """Return the node ids of the way between the two nodes chosen for it, else of the longest way through the tree.

    Of equally long ones it is the one made first.
    """
    chosen = [n.id for n in tree.nodes if n.trunk_end and tree.beside[n.id]]
    if len(chosen) == 2 and (way := nodes_between(tree, *chosen)):
        return way
    ends = [n.id for n in tree.nodes if tree.beside[n.id]]
    if not ends:
        return []
    first = farthest(tree, ends[0])[-1]
    way = farthest(tree, first)
    return way if way[0] <= way[-1] else way[::-1]


def farthest(tree: Tree, start: str, banned: frozenset[str] = frozenset()) -> list[str]:
    """Return the node ids of the longest way from a node that keeps clear of others."""
    best: tuple[float, list[str]] = (0.0, [start])
    waiting: list[tuple[float, list[str]]] = [(0.0, [start])]
    while waiting:
        length, way = waiting.pop()
        if length > best[0] + 1e-9:
            best = (length, way)
        for segment, other in reversed(tree.beside[way[-1]]):
            if other not in way and other not in banned:
                waiting.append((length + segment.length_mm, [*way, other]))
    return best[1]
