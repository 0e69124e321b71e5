"""Variants of a harness: which of its nodes, segments and wires each has.

A wire, end or branch that is named for variants is in those only; what is named for none is in all. A branch is a
segment with all beyond it, seen from the node made first; a wire is in a variant whose ends both are.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from jolly_core.model import Device, HarnessVariant, Project, derived

from .contacts import CavityRow, cavity_rows
from .tree import Tree, nodes_at, tree_of
from .wires import HarnessWire, harness_wires, wires_of


@dataclass(slots=True, frozen=True)
class Scope:
    """What a variant has: ids of nodes and segments, keys of wires."""

    nodes: frozenset[str]
    segments: frozenset[str]
    wires: frozenset[str]


def variants_of(project: Project, harness_id: str) -> list[HarnessVariant]:
    """Return the variants of a harness in order."""
    mine = (v for v in project.harness_variants.values() if v.harness_id == harness_id)
    return sorted(mine, key=lambda v: (v.order, v.id))


def builds_of(project: Project, harness_id: str) -> list[tuple[str, str, int]]:
    """Return (id, name, how many) of each way in which a harness is built; ("", "", n) where it has no variants."""
    found = [(v.id, v.name, v.quantity) for v in variants_of(project, harness_id)]
    return found or [("", "", project.harnesses[harness_id].quantity)]


@derived
def named_for(project: Project, harness_id: str) -> dict[str, frozenset[str]]:
    """Return the ids of the variants that each wire (by key), node and segment is named for; what is named for none is
    left out."""
    mine = {v.id for v in variants_of(project, harness_id)}
    found: dict[str, set[str]] = {}
    for part in project.variant_parts.values():
        if part.variant_id in mine:
            for name in filter(None, (part.conductor, part.node_id, part.segment_id)):
                found.setdefault(name, set()).add(part.variant_id)
    return {name: frozenset(ids) for name, ids in found.items()}


@derived
def scope_of(project: Project, harness_id: str, variant_id: str) -> Scope:
    """Return what a variant of a harness has; "" stands for the harness with all that is in it."""
    tree = tree_of(project, harness_id)
    wires = wires_of(project, harness_id)
    if not variant_id:
        keys = frozenset(w.conductor.key for w in wires)
        return Scope(frozenset(n.id for n in tree.nodes), frozenset(s.id for s in tree.segments), keys)
    said = named_for(project, harness_id)

    def out(name: str) -> bool:
        return name in said and variant_id not in said[name]

    nodes = {n.id for n in tree.nodes}
    for segment in tree.segments:
        if out(segment.id):
            nodes -= _beyond(tree, segment.id)
    nodes = _pruned(tree, nodes, {n.id for n in tree.nodes if out(n.id)})
    segments = frozenset(s.id for s in tree.segments if s.a_id in nodes and s.b_id in nodes and not out(s.id))
    of_device = {n.device_id: n.id for n in tree.nodes if n.device_id}
    kept = frozenset(
        w.conductor.key
        for w in wires
        if not out(w.conductor.key)
        and all(
            of_device.get(project.symbols[pin[0]].device_id) in nodes for pin in (w.conductor.start, w.conductor.end)
        )
        and all(s.id in segments for s in w.segments)
    )
    return Scope(frozenset(nodes), segments, kept)


def _beyond(tree: Tree, segment_id: str) -> set[str]:
    """Return the ids of the nodes behind a segment, seen from the node that was made first."""
    near: set[str] = set()
    waiting = [n.id for n in tree.nodes if tree.beside[n.id]][:1]
    while waiting:
        id = waiting.pop()
        if id not in near:
            near.add(id)
            waiting += [other for segment, other in tree.beside[id] if segment.id != segment_id]
    return {n.id for n in tree.nodes if n.id not in near and tree.beside[n.id]}


def _pruned(tree: Tree, nodes: set[str], gone: set[str]) -> set[str]:
    """Return nodes without ends of the tree that are gone, and without branchings that lead nowhere then."""
    kept = set(nodes)
    bare = {n.id for n in tree.nodes if not n.device_id}
    while True:
        loose = {
            id
            for id in kept
            if (id in gone or (id in bare and nodes != kept)) and sum(other in kept for _, other in tree.beside[id]) < 2
        }
        if not loose:
            return kept
        kept -= loose


def wires_in(project: Project, harness_id: str, variant_id: str = "") -> list[HarnessWire]:
    """Return the wires of a harness, or those of one of its variants."""
    wires = wires_of(project, harness_id)
    if not variant_id:
        return wires
    kept = scope_of(project, harness_id, variant_id).wires
    return [w for w in wires if w.conductor.key in kept]


def keys_in(project: Project, harness_id: str, variant_id: str = "") -> frozenset[str] | None:
    """Return the keys of the wires of a variant, None for the harness with all of them."""
    return scope_of(project, harness_id, variant_id).wires if variant_id else None


@derived
def tree_in(project: Project, harness_id: str, variant_id: str) -> Tree:
    """Return the tree of a harness, or of one of its variants.

    Raises:
        GoneError: the harness is not in the project.
    """
    tree = tree_of(project, harness_id)
    if not variant_id:
        return tree
    scope = scope_of(project, harness_id, variant_id)
    beside = {
        id: [(s, other) for s, other in pairs if s.id in scope.segments]
        for id, pairs in tree.beside.items()
        if id in scope.nodes
    }
    nodes = [n for n in tree.nodes if n.id in scope.nodes]
    return Tree(nodes, [s for s in tree.segments if s.id in scope.segments], beside)


def connectors_in(project: Project, harness_id: str, variant_id: str = "") -> list[Device]:
    """Return the connectors and splices of a harness or of one of its variants, as they were added."""
    return [project.devices[n.device_id] for n in tree_in(project, harness_id, variant_id).nodes if n.device_id]


@derived
def rows_in(project: Project, harness_id: str, device_id: str, variant_id: str = "") -> list[CavityRow]:
    """Return the cavities of a connector as a harness or one of its variants has them.

    At a connector where several harnesses begin, only the wires of this one are named; what a contact and seal have to
    hold is all that is in the cavity.
    """
    keys = keys_in(project, harness_id, variant_id)
    if len(nodes_at(project, device_id)) < 2:
        return cavity_rows(project, device_id, keys)
    wires = harness_wires(project)
    others = {key: project.harnesses[w.harness_id].code for key, w in wires.items() if w.harness_id != harness_id}
    shown = None if keys is None else keys | set(others)
    found = []
    for row in cavity_rows(project, device_id, shown):
        mine = [(c, far) for c, far in zip(row.conductors, row.far, strict=True) if c.key not in others]
        code = others[row.conductors[0].key] if row.conductors and not mine else ""
        row = replace(row, conductors=tuple(c for c, _ in mine), far=tuple(far for _, far in mine), elsewhere=code)
        found.append(replace(row, seal=None, contact=None) if code else row)
    return found


def brings(project: Project, harness_id: str, device_id: str) -> bool:
    """Return whether a harness brings a connector's housing: the first of those that begin there does."""
    there = nodes_at(project, device_id)
    return not there or there[0].harness_id == harness_id
