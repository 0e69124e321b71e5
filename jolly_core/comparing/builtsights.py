"""What people see of what is built: terminals and what is between them, rails, ducts, harnesses and their fittings."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

from jolly_core.cabinet import run_length
from jolly_core.harness import (
    builds_of,
    covered,
    harnesses,
    node_name,
    scope_of,
    shields,
    span_of,
    tree_of,
    variants_of,
)
from jolly_core.model import Duct, Harness, Project, Rail, derived
from jolly_core.tagging import full_tag, terminal_number
from jolly_core.terminals import strip_rows, strips

from .thing import NOTHING_ELSE, Same, Sight, corners, leads, lies, segment_name, wire_length

_UNSAID = {"panel side": "", "remark": ""}  # of a terminal of which nothing is said
BEGIN = "the strip's begin"  # what the first terminal of a strip stands after


def terminal_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield the terminals of strips: numbers, kinds and parts, and what each stands after."""
    for strip in strips(project):
        known = same.device(strip.id)
        for sight in _terminals_of(project, strip.id):
            yield sight if known == strip.id else replace(sight, key=sight.key.replace(strip.id, known))


@derived
def _terminals_of(project: Project, strip_id: str) -> list[Sight]:
    tag, found = full_tag(project, project.devices[strip_id]), []
    before = BEGIN
    for row in strip_rows(project, strip_id):
        if row.unit:
            sheet = project.symbols[row.symbol_ids[0]].sheet_id if row.symbol_ids else ""
            part = row.part.number if row.part else ""
            facts = {"number": row.number, "kind": row.terminal_kind, "part": part, "stands after": before}
            facts |= {"panel side": row.record.facing, "remark": row.record.remark} if row.record else _UNSAID
            before = row.number
            ids = tuple(row.symbol_ids) or (strip_id,)
            found.append(Sight("terminal", f"{strip_id}:{row.unit}", f"{tag}:{row.number}", facts, sheet, ids, tag))
    return found


def accessory_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield what stands between terminals, and after which."""
    for strip in strips(project):
        tag, before, unit = full_tag(project, strip), BEGIN, 0
        for n, row in enumerate(strip_rows(project, strip.id)):
            if row.unit:
                before, unit = row.number, row.unit
                continue
            facts = {"part": row.part.number if row.part else "", "stands after": before}
            key = row.item_id if same is NOTHING_ELSE else f"{same.device(strip.id)} {n}"
            same_by = {"stands after": (f"{same.device(strip.id)}:{unit}",)}
            yield Sight("accessory", key, f"{tag} {row.number}", facts, "", (strip.id,), tag, same_by)


def bridge_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield the bridges of strips with their parts."""
    for bridge in project.bridges.values():
        tag = full_tag(project, project.devices[bridge.strip_id])
        numbers = (terminal_number(project, bridge.strip_id, unit) for unit in bridge.units)
        key = f"{same.device(bridge.strip_id)}:{bridge.units}"
        facts = {"part": project.parts[bridge.part_id].number if bridge.part_id else ""}
        yield Sight("bridge", key, f"{tag}:{' '.join(numbers)}", facts, "", (bridge.strip_id,), tag)


def rail_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield the rails of enclosures."""
    yield from (_run(project, same, "rail", rail) for rail in project.rails.values())


def duct_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield the ducts of enclosures."""
    yield from (_run(project, same, "duct", duct) for duct in project.ducts.values())


def _run(project: Project, same: Same, kind: str, run: Rail | Duct) -> Sight:
    number, length = project.parts[run.part_id].number, round(run_length(run), 1)
    enclosure = project.enclosures[run.enclosure_id].device_id
    inside = full_tag(project, project.devices[enclosure])
    where = f"{lies(run, project.settings.length_unit)} in {inside}"
    facts = {"part": number, "length": wire_length(project, length), "position": where}
    stands = (same.device(enclosure), run.surface, run.x1, run.y1, run.x2, run.y2)
    same_by = {"length": (length,), "position": stands}
    if isinstance(run, Duct):
        facts["wires"] = _lies_in(run.categories)
    return Sight(kind, same.built.get(run.id, run.id), number, facts, "", (run.id,), inside, same_by)


def _lies_in(categories: Sequence[str]) -> str:
    """Return which wires may lie in a duct or lane, or pass a crossing."""
    return ", ".join(sorted(categories)) or "all"


def lane_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield the lanes that were drawn by hand: where wires lie."""
    for lane in project.lanes.values():
        enclosure = project.enclosures[lane.enclosure_id].device_id
        inside = full_tag(project, project.devices[enclosure])
        where = f"{corners(lane, project.settings.length_unit)} in {inside}"
        facts = {"position": where, "wires": _lies_in(lane.categories)}
        same_by = {"position": (same.device(enclosure), lane.surface, *lane.points)}
        key = same.built.get(lane.id, lane.id)
        yield Sight("lane", key, f"on the {lane.surface} of {inside}", facts, "", (lane.id,), inside, same_by)


def crossing_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield the crossings: hinges, openings and glands by which wires pass from one surface to another."""
    for c in project.crossings.values():
        ends = [project.enclosures[id].device_id for id in (c.enclosure_id, c.other_id)]
        inside = full_tag(project, project.devices[ends[0]])
        facts = {
            "position": leads(project, c, project.settings.length_unit),
            "wires": _lies_in(c.categories),
            "loop": wire_length(project, c.extra_mm),
        }
        at = (same.device(ends[0]), c.surface, c.x, c.y, same.device(ends[1]), c.other_surface, c.other_x, c.other_y)
        same_by: dict[str, tuple[object, ...]] = {"position": at, "loop": (c.extra_mm,)}
        key, name = same.built.get(c.id, c.id), f"{c.surface} to {c.other_surface}"
        yield Sight("crossing", key, name, facts, "", (c.id,), inside, same_by)


def harness_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield harnesses: what they are called, and how many are built of each variant."""
    for harness in harnesses(project):
        builds = builds_of(project, harness.id)
        built = ", ".join(f"{count} {name}".strip() for _, name, count in builds)
        facts = {"code": harness.code, "text": harness.text, "built": built}
        facts["labels"] = wire_length(project, harness.label_mm)
        key, same_by = same.built.get(harness.id, harness.id), {"labels": (harness.label_mm,)}
        yield Sight("harness", key, harness.code, facts, ids=(harness.id,), same_by=same_by)


def segment_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield the segments of harnesses with their lengths."""
    for harness in harnesses(project):
        for segment in tree_of(project, harness.id).segments:
            length = span_of(project, segment.id).length_mm
            named, scope = variant_facts(project, harness.id, segment.id)
            key, name = same.built.get(segment.id, segment.id), segment_name(project, segment.id)
            facts = {"length": wire_length(project, length), "between": name, "variants": named}
            ends = tuple(project.nodes[end].name for end in (segment.a_id, segment.b_id))
            same_by = {"length": (length,), "between": ends, "variants": scope}
            yield Sight("segment", key, name, facts, "", (segment.id,), harness.code, same_by)


def fitting_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield what is fitted on harnesses beside their ends: clips, coverings, and shields where they land."""
    for harness in harnesses(project):
        for node in tree_of(project, harness.id).nodes:
            if node.sort == "clip":
                yield _fitting(project, same, harness, node.id, node_name(project, node), node.part_id, node.id)
        for c in covered(project, harness.id):
            id, segment = c.covering.id, c.covering.segment_id
            start, called = wire_length(project, c.from_mm) or "the begin", segment_name(project, segment)
            part = c.part.id if c.part else ""
            sight = _fitting(project, same, harness, id, "covering", part, segment)
            facts = {"length": wire_length(project, c.length_mm), "position": f"from {start} of {called}"}
            same_by = {"length": (c.length_mm,), "position": (same.built.get(segment, segment), c.from_mm)}
            yield replace(sight, facts={**sight.facts, **facts}, same_by={**sight.same_by, **same_by})
        yield from _shields(project, same, harness)


def _shields(project: Project, same: Same, harness: Harness) -> Iterator[Sight]:
    mine = (s for s in project.harness_shields.values() if s.harness_id == harness.id)
    landed = {s.name: (same.device(s.device_id), s.unit) for s in mine}
    for shield in shields(project, harness.id):
        facts = {"part": "", "length": "", "position": shield.landed, "variants": ""}
        name = f"shield {shield.name}"
        key, same_by = f"{same.built.get(harness.id, harness.id)} {name}", {"position": landed.get(shield.name, ())}
        yield Sight("fitting", key, name, facts, "", (harness.id,), harness.code, same_by)


def _fitting(project: Project, same: Same, harness: Harness, id: str, name: str, part_id: str, lies_on: str) -> Sight:
    """Return a clip or covering; it is in the variants that what it lies on is in."""
    part = project.parts.get(part_id)
    named, scope = variant_facts(project, harness.id, lies_on)
    facts = {"part": part.number if part else "", "length": "", "position": "", "variants": named}
    key = same.built.get(id, id)
    called = f"{name} {part.number}" if part and name == "covering" else name
    return Sight("fitting", key, called, facts, "", (id,), harness.code, {"variants": scope})


def variant_facts(project: Project, harness_id: str, id: str) -> tuple[str, tuple[str, ...]]:
    """Return the variants that a node, segment or wire (by key) is in: in words, "" for all; each with its harness."""
    variants, code = variants_of(project, harness_id), project.harnesses[harness_id].code
    scopes = ((v.name, scope_of(project, harness_id, v.id)) for v in variants)
    names = [name for name, s in scopes if id in s.nodes or id in s.segments or id in s.wires]
    words = "" if len(names) == len(variants) else ", ".join(names) or "none"
    return words, tuple(f"{code}, variant {name}" for name in names)
