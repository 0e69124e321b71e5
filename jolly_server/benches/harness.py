"""What the Harness bench shows."""

from __future__ import annotations

from collections import Counter
from itertools import pairwise
from math import isfinite
from typing import cast

from typing_extensions import TypedDict

from jolly_core.checks import project_snags
from jolly_core.harness import (
    Covered,
    HarnessWire,
    bundles,
    covered,
    free_connectors,
    harnesses,
    is_crowded,
    is_splice,
    named_for,
    node_name,
    rows_in,
    shields,
    size_words,
    span_of,
    strand_of,
    too_tight,
    tree_in,
    trunk,
    variants_of,
    wires_in,
    wires_of,
)
from jolly_core.model import Node, NodeSort, PathForm, Project
from jolly_core.scenes import generated_pages, page_scene
from jolly_core.tagging import pin_name
from jolly_server.projects.sceneshapes import SceneValue, scene_value

from .harnessblocks import ConnectorFacts, connector_facts
from .shapes import DeviceName, FromTo, conductor_place, device_value

Spot = tuple[float, float, float]


class HarnessName(TypedDict):
    """A harness by its code."""

    id: str
    code: str
    text: str


class SheetName(TypedDict):
    """A sheet on which wires of the harness are drawn, and how many."""

    id: str
    number: str
    title: str
    wires: int


class HarnessWireValue(FromTo):
    """A wire of a harness; `missing` says why it has no length."""

    key: str
    number: str
    type: str
    colour: str
    size: str
    twisted: str
    shield: str
    length_mm: float | None
    spare_mm: float
    missing: str
    why: str
    segments: list[str]
    wire_id: str
    sheet_id: str
    place: str


class SegmentValue(TypedDict):
    """A segment between two nodes: its length and what it is made of, its path in space, its bundle; mm.

    Attributes:
        length_mm: with what is added; `words` say how.
        bend_mm: the least radius its path bends about, None where it has no path or is straight.
        needs_bend_mm: the least radius its bundle may bend about.
        packed: whether the diameter was found by packing.
        points: of its path, to be drawn.
    """

    id: str
    a: str
    b: str
    length_mm: float
    base_mm: float
    extra_mm: float
    extra_percent: float
    words: str
    missing: str
    form: PathForm
    path: list[float]
    points: list[Spot]
    bend_mm: float | None
    needs_bend_mm: float
    too_tight: bool
    angled: bool
    angle_deg: float
    on_trunk: bool
    wires: int
    diameter_mm: float
    packed: bool


class NodeValue(TypedDict):
    """An end, a branching, a splice or a clip; `at` is its place in space, [] while that is unknown."""

    id: str
    device_id: str
    name: str
    own_name: str
    sort: NodeSort
    splice: bool
    part_id: str
    part: str
    at: list[float]
    trunk_end: bool
    equal_legs: bool


class CoveringValue(TypedDict):
    """A stretch of a segment that is covered, with how much of the part it takes; mm."""

    id: str
    segment_id: str
    part_id: str
    part: str
    text: str
    from_mm: float
    to_mm: float
    length_mm: float
    used_mm: float


class CavityValue(TypedDict):
    """A cavity of a connector: its wires, where they lead, its contact.

    Attributes:
        crowded: that does not take them together.
        elsewhere: the harness whose wires are in it, where those are of another one alone.
    """

    cavity: str
    wires: list[str]
    to: list[str]
    contact: str
    strip_mm: float
    seal: str
    crowded: bool
    elsewhere: str


class ConnectorValue(DeviceName):
    """A connector with its cavities, and what it is plugged to."""

    facts: ConnectorFacts
    cavities: list[CavityValue]


class ShieldValue(TypedDict):
    """A shield about wires, and the pin it lands on, "" while that is none."""

    name: str
    wires: int
    landed: str


class VariantValue(TypedDict):
    """A way in which the harness is built, and how many."""

    id: str
    name: str
    quantity: int


class HarnessValue(HarnessName):
    """A harness with all about it; `variant` is the one its board and tables are of, "" for all that is in it.

    `named` gives the variants that a wire (by its key), node or segment is named for; others are in all.
    """

    quantity: int
    variant: str
    variants: list[VariantValue]
    named: dict[str, list[str]]
    shields: list[ShieldValue]

    page_id: str
    extra_percent: float
    snags: list[str]
    scene: SceneValue | None
    coverings: list[CoveringValue]
    sheets: list[SheetName]
    nodes: list[NodeValue]
    segments: list[SegmentValue]
    wires: list[HarnessWireValue]
    connectors: list[ConnectorValue]


class HarnessView(TypedDict):
    """What the Harness bench shows: the harnesses, connectors in none, and the harness asked for."""

    harnesses: list[HarnessName]
    free: list[DeviceName]
    harness: HarnessValue | None


def harness_bench(project: Project, harness_id: str = "", variant_id: str = "") -> HarnessView:
    """Return the harnesses and all about the one asked for, or the first, as it is in a variant."""
    found = harnesses(project)
    chosen = next((h.id for h in found if h.id == harness_id), found[0].id if found else "")
    return {
        "harnesses": [{"id": h.id, "code": h.code, "text": h.text} for h in found],
        "free": [device_value(project, d) for d in free_connectors(project)],
        "harness": _harness(project, chosen, variant_id) if chosen else None,
    }


def _harness(project: Project, harness_id: str, wanted: str) -> HarnessValue:
    harness = project.harnesses[harness_id]
    variants = variants_of(project, harness_id)
    variant = wanted if wanted in {v.id for v in variants} else ""
    mark = ("board", harness_id, variant)
    page = next((p for p in generated_pages(project) if (p.kind, p.subject, p.variant) == mark), None)
    tree = tree_in(project, harness_id, variant)
    return {
        "id": harness.id,
        "code": harness.code,
        "text": harness.text,
        "quantity": harness.quantity,
        "variant": variant,
        "variants": [{"id": v.id, "name": v.name, "quantity": v.quantity} for v in variants],
        "named": {name: sorted(ids) for name, ids in named_for(project, harness_id).items()},
        "page_id": page.id if page else "",
        "scene": scene_value(page_scene(project, page.id)) if page else None,
        "extra_percent": harness.extra_percent,
        "snags": [snag.message for snag in project_snags(project) if snag.subject == harness_id],
        "shields": [{"name": s.name, "wires": len(s.wires), "landed": s.landed} for s in shields(project, harness_id)],
        "coverings": [_covering(c) for c in covered(project, harness_id, variant)],
        "sheets": _sheets(project, harness_id),
        "nodes": [_node(project, n) for n in tree.nodes],
        "segments": _segments(project, harness_id, variant),
        "wires": [_wire(project, w) for w in wires_in(project, harness_id, variant)],
        "connectors": [_connector(project, n.device_id, harness_id, variant) for n in tree.nodes if n.device_id],
    }


def _sheets(project: Project, harness_id: str) -> list[SheetName]:
    count = Counter(w.conductor.sheet_id for w in wires_of(project, harness_id))
    sheets = sorted((project.sheets[id] for id in count), key=lambda s: s.order)
    return [{"id": s.id, "number": s.number, "title": s.title, "wires": count[s.id]} for s in sheets]


def _covering(c: Covered) -> CoveringValue:
    return {
        "id": c.covering.id,
        "segment_id": c.covering.segment_id,
        "part_id": c.covering.part_id,
        "part": c.part.number if c.part else "",
        "text": c.part.text if c.part else "",
        "from_mm": c.from_mm,
        "to_mm": c.to_mm,
        "length_mm": c.length_mm,
        "used_mm": c.used_mm,
    }


def _node(project: Project, node: Node) -> NodeValue:
    part = project.parts.get(node.part_id)
    return {
        "id": node.id,
        "device_id": node.device_id,
        "name": node_name(project, node),
        "own_name": node.name,
        "sort": "clip" if node.sort == "clip" else "",
        "splice": is_splice(project, node.device_id),
        "part_id": node.part_id,
        "part": part.number if part else "",
        "at": list(node.at),
        "trunk_end": node.trunk_end,
        "equal_legs": node.equal_legs,
    }


def _segments(project: Project, harness_id: str, variant: str) -> list[SegmentValue]:
    bundle = bundles(project, harness_id, variant)
    tree = tree_in(project, harness_id, variant)
    main = trunk(tree)
    steps = {frozenset(pair) for pair in pairwise(main)}
    found: list[SegmentValue] = []
    for s in (project.segments[s.id] for s in tree.segments):
        span, here = span_of(project, s.id), bundle[s.id]
        found.append(
            {
                "id": s.id,
                "a": s.a_id,
                "b": s.b_id,
                "length_mm": span.length_mm,
                "base_mm": span.base_mm,
                "extra_mm": s.extra_mm,
                "extra_percent": s.extra_percent,
                "words": span.words,
                "missing": span.missing,
                "form": cast(PathForm, s.form),
                "path": list(s.path),
                "points": list(span.path.points) if span.path else [],
                "bend_mm": span.path.bend_mm if span.path and isfinite(span.path.bend_mm) else None,
                "needs_bend_mm": here.bend_mm,
                "too_tight": too_tight(span, here),
                "angled": s.angled,
                "angle_deg": s.angle_deg,
                "on_trunk": frozenset((s.a_id, s.b_id)) in steps,
                "wires": len(here.wires),
                "diameter_mm": round(here.diameter_mm, 2),
                "packed": here.packed,
            }
        )
    return found


def _wire(project: Project, wire: HarnessWire) -> HarnessWireValue:
    c = wire.conductor
    wire_type = c.wire_type(project)
    strand = strand_of(project, wire.harness_id, c.key)
    return {
        "key": c.key,
        "number": c.number,
        "from": pin_name(project, c.start),
        "to": pin_name(project, c.end),
        "type": wire_type.name if wire_type else "",
        "colour": wire_type.colour if wire_type else "",
        "size": size_words(wire_type),
        "twisted": strand.twisted if strand else "",
        "shield": strand.shield if strand else "",
        "length_mm": wire.length_mm,
        "spare_mm": wire.spare_mm,
        "missing": wire.missing,
        "why": wire.why,
        "segments": [s.id for s in wire.segments],
        "wire_id": c.wire_id,
        **conductor_place(project, c),
    }


def _connector(project: Project, device_id: str, harness_id: str, variant: str) -> ConnectorValue:
    rows: list[CavityValue] = []
    for row in rows_in(project, harness_id, device_id, variant):
        to = [pin_name(project, pin) for pin in row.far]
        rows.append(
            {
                "cavity": row.cavity,
                "wires": [c.number for c in row.conductors],
                "to": to,
                "contact": row.contact.number if row.contact else "",
                "strip_mm": row.strip_mm,
                "seal": row.seal.number if row.seal else "",
                "crowded": is_crowded(project, row),
                "elsewhere": row.elsewhere,
            }
        )
    device = project.devices[device_id]
    return {**device_value(project, device), "facts": connector_facts(project, device), "cavities": rows}
