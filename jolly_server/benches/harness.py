"""What the Harness bench shows."""

from __future__ import annotations

from collections import Counter
from itertools import pairwise
from math import isfinite
from typing import cast

from jolly_core.cables import cable_of
from jolly_core.checks import snags_coded
from jolly_core.harness import (
    Covered,
    HarnessWire,
    bundles,
    cables_of,
    connectors_elsewhere,
    covered,
    free_connectors,
    harnesses,
    is_crowded,
    is_splice,
    lead_through,
    named_for,
    node_name,
    rows_in,
    run_name,
    sharing,
    shields,
    size_words,
    span_of,
    strand_of,
    strands_through,
    too_tight,
    tree_in,
    trunk,
    variants_of,
    wires_in,
    wires_of,
)
from jolly_core.model import ClipLead, Harness, Heading, Node, PathForm, Project, derived
from jolly_core.scenes import clip_scene, generated_pages, page_scene
from jolly_core.tagging import full_tag, pin_name
from jolly_server.shapes.sceneshapes import scene_value

from .harnessblocks import connector_facts
from .harnessshapes import (
    CavityValue,
    ConnectorValue,
    CoveringValue,
    HarnessName,
    HarnessValue,
    HarnessView,
    HarnessWireValue,
    InCable,
    NodeValue,
    SegmentValue,
    SheetName,
)
from .shapes import conductor_place, device_value


def harness_bench(project: Project, harness_id: str = "", variant_id: str = "") -> HarnessView:
    """Return the harnesses and all about the one asked for, or the first, as it is in a variant."""
    found = harnesses(project)
    chosen = next((h.id for h in found if h.id == harness_id), found[0].id if found else "")
    return {
        "harnesses": [_name(h) for h in found],
        "free": [device_value(project, d) for d in free_connectors(project)],
        "others": [device_value(project, d) for d in connectors_elsewhere(project, chosen)],
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
        "apart": harness.apart,
        "heading": cast(Heading, harness.heading),
        "label_mm": harness.label_mm,
        "cables": _cables(project, harness_id),
        "shares": [_name(h) for h in sharing(project, harness_id)],
        "snags": [snag.message for snag in snags_coded(project, "harness") if snag.subject == harness_id],
        "shields": [{"name": s.name, "wires": len(s.wires), "landed": s.landed} for s in shields(project, harness_id)],
        "coverings": [_covering(c) for c in covered(project, harness_id, variant)],
        "sheets": _sheets(project, harness_id),
        "nodes": [_node(project, n) for n in tree.nodes],
        "segments": _segments(project, harness_id, variant),
        "wires": [_wire(project, w) for w in wires_in(project, harness_id, variant)],
        "connectors": [_connector(project, n.device_id, harness_id, variant) for n in tree.nodes if n.device_id],
    }


def _name(harness: Harness) -> HarnessName:
    return {"id": harness.id, "code": harness.code, "text": harness.text}


def _cables(project: Project, harness_id: str) -> list[InCable]:
    cores = Counter(device_id for device_id, _ in cables_of(project, harness_id).values())
    found: list[InCable] = []
    for id, count in cores.items():
        device = project.devices[id]
        part = project.part_of(device)
        found.append(
            {
                "device_id": id,
                "tag": full_tag(project, device),
                "part": part.number if part else "",
                "apart": project.cables[cable_of(project, id)].apart,
                "cores": count,
            }
        )
    return found


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
    lead = lead_through(project, node.id) if node.sort == "clip" else None
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
        "led": cast(ClipLead, node.led),
        "offsets": [v for led in lead.inside for v in (led.x, led.y)] if lead and node.led == "offsets" else [],
        "from_mating": node.from_mating,
        "section": scene_value(clip_scene(project, node.id)) if lead else None,
        "strands": [
            {"name": run_name(project, run), "diameter_mm": run.diameter_mm, "ends": [a, b]}
            for run, a, b in strands_through(project, node.id)
        ],
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
                "words": span.words_in(project.settings.length_unit),
                "missing": span.missing,
                "form": cast(PathForm, s.form),
                "path": list(s.path),
                "points": list(span.path.points) if span.path else [],
                "bend_mm": span.path.bend_mm if span.path and isfinite(span.path.bend_mm) else None,
                "needs_bend_mm": here.bend_mm,
                "too_tight": too_tight(span, here),
                "stiff": full_tag(project, project.devices[here.stiff_id]) if here.stiff_id else "",
                "beside": list(here.beside),
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


@derived
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
