"""Faults of harnesses: a tree in parts, wires without a way, contacts, splices, bends, clips and coverings."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.cables import number_of
from jolly_core.harness import (
    bundles,
    cavity_area_mm2,
    cavity_insulation_mm,
    cavity_rows,
    connectors_of,
    contact_fits,
    contacts_of,
    covered,
    do_mate,
    harnesses,
    holds,
    is_splice,
    lead_through,
    node_name,
    nodes_of,
    pieces_of,
    run_name,
    segments_of,
    shields,
    span_of,
    too_tight,
    tree_of,
    wires_of,
)
from jolly_core.library import names_in
from jolly_core.model import Device, Harness, Project, Segment, counted, length_words
from jolly_core.tagging import full_tag

from .registry import Snag, built, project_check


def _snag(code: str, severity: str, harness: Harness, message: str, id: str = "", device: str = "") -> Snag:
    return built(code, severity, f"{harness.code}: {message}", "harness", harness.id, (id,) if id else (), device)


def _ends(project: Project, segment: Segment) -> str:
    return " to ".join(node_name(project, project.nodes[id]) for id in (segment.a_id, segment.b_id))


@project_check("harness", "A harness in parts or with a ring, a wire of it without a way.")
def harness_faults(project: Project) -> Iterator[Snag]:
    """Yield a snag for each harness that is no tree, and each of its wires that has no length."""
    for harness in harnesses(project):
        tree = tree_of(project, harness.id)
        pieces = pieces_of(tree)
        if len(pieces) > 1:
            names = "; ".join(node_name(project, project.nodes[piece[0]]) for piece in pieces)
            yield _snag("harness", "error", harness, f"it is in {len(pieces)} parts, about {names}. Join them.")
        elif len(tree.segments) >= len(pieces[0]) if pieces else False:
            yield _snag("harness", "error", harness, "its segments make a ring. Take one of them away.")
        for wire in wires_of(project, harness.id):
            if wire.missing and "has no length" not in wire.missing:
                yield _snag("harness", "error", harness, f"wire {wire.conductor.number}: {wire.missing}")


@project_check("harness-length", "A segment of a harness without a length or path.")
def length_faults(project: Project) -> Iterator[Snag]:
    """Yield a snag for each segment that has no length, or no path though it should have one."""
    for harness in harnesses(project):
        for segment in segments_of(project, harness.id):
            missing = span_of(project, segment.id).missing
            if missing:
                message = f"the segment {_ends(project, segment)} has no length: {missing}."
                yield _snag("harness-length", "error", harness, message, segment.id)


def _bundle(project: Project, diameter_mm: float) -> str:
    return f"bundle of ⌀ {length_words(project, round(diameter_mm, 1))}"


@project_check("harness-bend", "A path that bends more tightly than its bundle may.")
def bend_faults(project: Project) -> Iterator[Snag]:
    """Yield a snag for each segment whose path bends about less than its bundle needs."""
    for harness in harnesses(project):
        bundle = bundles(project, harness.id)
        for segment in segments_of(project, harness.id):
            span, here = span_of(project, segment.id), bundle[segment.id]
            if span.path is not None and too_tight(span, here):
                stiff = project.devices.get(here.stiff_id)
                what = _bundle(project, here.diameter_mm) if stiff is None else f"cable {full_tag(project, stiff)}"
                message = (
                    f"{_ends(project, segment)} bends about {length_words(project, span.path.bend_mm)}; "
                    f"its {what} needs {length_words(project, here.bend_mm)}. Draw its path wider."
                )
                yield _snag("harness-bend", "error", harness, message, segment.id)


@project_check("harness-fit", "A covering that does not take its bundle.")
def fit_faults(project: Project) -> Iterator[Snag]:
    """Yield a snag for each covering whose part does not take the bundle."""
    for harness in harnesses(project):
        bundle = bundles(project, harness.id)
        over = (
            (c.part, c.covering.segment_id, f"over {_ends(project, project.segments[c.covering.segment_id])}")
            for c in covered(project, harness.id)
        )
        for part, segment_id, where in over:
            diameter = bundle[segment_id].diameter_mm
            if part is not None and diameter and not holds(part, diameter):
                message = f"{part.number} {where} does not take the {_bundle(project, diameter)}."
                yield _snag("harness-fit", "error", harness, message, segment_id)


@project_check("harness-backshell", "A backshell that does not go with its housing, or does not take the bundle.")
def backshell_faults(project: Project) -> Iterator[Snag]:
    """Yield a snag for each backshell that its connector's housing does not name, or that is too narrow."""
    for harness in harnesses(project):
        bundle, beside = bundles(project, harness.id), tree_of(project, harness.id).beside
        for node in nodes_of(project, harness.id):
            device = project.devices.get(node.device_id)
            part = project.part_of(device) if device else None
            for shell in project.add_ons_to(node.device_id) if device and part else ():
                if shell.part_class != "backshell" or device is None or part is None:
                    continue
                named = names_in(part.ratings.get("backshells", ""))
                name, widest = full_tag(project, device), number_of(shell, "outer_diameter_mm")
                thick = max((bundle[s.id].diameter_mm for s, _ in beside[node.id]), default=0.0)
                if named and shell.number not in named:
                    message = f"the backshell {shell.number} on {name} does not go with {part.number}: {named[0]} does."
                    yield _snag("harness-backshell", "error", harness, message, "", device.id)
                elif widest and thick > widest:
                    message = f"the backshell {shell.number} on {name} does not take the {_bundle(project, thick)}."
                    yield _snag("harness-backshell", "error", harness, message, "", device.id)


@project_check("harness-clip", "A clip that does not take what is led through it, or in which wires lie in each other.")
def clip_faults(project: Project) -> Iterator[Snag]:
    """Yield a snag for each clip whose part does not take its wires, and for offsets at which two wires overlap."""
    for harness in harnesses(project):
        for node in nodes_of(project, harness.id):
            if node.sort != "clip":
                continue
            lead, part = lead_through(project, node.id), project.parts.get(node.part_id)
            name = node_name(project, node)
            if part is not None and lead.diameter_mm and not holds(part, lead.diameter_mm):
                message = f"{part.number} at {name} does not take the {_bundle(project, lead.diameter_mm)}."
                yield _snag("harness-clip", "error", harness, message, node.id)
            if lead.overlaps is not None:
                one, other = (run_name(project, run) for run in lead.overlaps)
                message = f"{one} and {other} lie in each other in {name}. Set their offsets farther apart."
                yield _snag("harness-clip", "error", harness, message, node.id)


@project_check("harness-mate", "Two connectors plugged together that do not mate, or whose cavities differ.")
def mate_faults(project: Project) -> Iterator[Snag]:
    """Yield a snag for each two connectors that are plugged together though their housings do not mate."""
    of_device = {n.device_id: project.harnesses[n.harness_id] for n in project.nodes.values() if n.device_id}
    for seat in sorted(project.seats.values(), key=lambda s: s.id):
        device, mate = project.devices[seat.device_id], project.devices.get(seat.mate_id)
        harness = of_device.get(seat.device_id) or of_device.get(seat.mate_id)
        if mate is None or harness is None:
            continue
        one, other = project.part_of(device), project.part_of(mate)
        if one is not None and other is not None and not do_mate(one, other):
            message = (
                f"{one.number} of {full_tag(project, device)} does not mate with {other.number} of "
                f"{full_tag(project, mate)}. Swap one of them."
            )
            yield _snag("harness-mate", "error", harness, message, "", device.id)


@project_check("harness-shield", "A shield of a harness that lands nowhere.")
def shield_faults(project: Project) -> Iterator[Snag]:
    """Yield a snag for each shield about wires that is landed on no cavity, or on one that is not there."""
    for harness in harnesses(project):
        for shield in shields(project, harness.id):
            if shield.wires and not shield.landed:
                message = f"shield {shield.name} about {counted(len(shield.wires), 'wire')} lands nowhere. Land it."
                yield _snag("harness-shield", "warning", harness, message)


@project_check("harness-contact", "A contact, lug or splice that does not take its wires.")
def contact_faults(project: Project) -> Iterator[Snag]:
    """Yield a snag for each cavity and splice whose contact does not take what meets there."""
    for harness in harnesses(project):
        for device in connectors_of(project, harness.id):
            yield from _unfit(project, harness, device)


def _unfit(project: Project, harness: Harness, device: Device) -> Iterator[Snag]:
    splice = is_splice(project, device.id)
    for row in cavity_rows(project, device.id):
        area = cavity_area_mm2(project, row.conductors)
        around = cavity_insulation_mm(project, row.conductors)
        if row.contact is None or not area or contact_fits(row.contact, area, around):
            continue
        name = full_tag(project, device) if splice else f"{full_tag(project, device)}:{row.cavity}"
        several = f" of {len(row.conductors)} wires together" if len(row.conductors) > 1 else ""
        what = f"{area:g} mm²{several}"
        if contact_fits(row.contact, area):
            what = f"insulation of ⌀ {length_words(project, around)}{several}"
        others = [c.number for c in contacts_of(project, device) if contact_fits(c, area, around)]
        advice = f" {others[0]} would." if others else ""
        if not others and len(row.conductors) > 1 and not splice:
            advice = " Join the wires in a splice."
        kind = "splice" if splice else "contact"
        message = f"the {kind} {row.contact.number} in {name} does not take {what}.{advice}"
        yield _snag("harness-contact", "error", harness, message, "", device.id)
