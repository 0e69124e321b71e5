"""Checks of layouts, strips, cards and harnesses."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.cabinet import enclosures, layout_faults
from jolly_core.harness import cavity_rows, connectors_of, contact_fits, harnesses, is_tree, tree_of, wires_of
from jolly_core.model import Project
from jolly_core.plc import cards, channels
from jolly_core.sizing import area_mm2
from jolly_core.tagging import full_tag
from jolly_core.terminals import strip_rows, strips

from .registry import Snag, built, project_check


@project_check("layout", "Collisions, over-full rails, and what stands over an edge.")
def layouts(project: Project) -> Iterator[Snag]:
    """Yield a snag for each fault of each enclosure's layout."""
    for enclosure in enclosures(project):
        for fault in layout_faults(project, enclosure):
            yield built("layout", "error", fault.message, "cabinet", enclosure.id, fault.ids, fault.device_id)


@project_check("bridge", "A bridge between potentials of different fixed numbers, or whose terminals stand apart.")
def bridges(project: Project) -> Iterator[Snag]:
    """Yield a snag for each bridge that joins different fixed numbers, or has a gap among its terminals."""
    for strip in strips(project):
        rows = [r for r in strip_rows(project, strip.id) if r.kind == "terminal"]
        for bridge in [b for b in project.bridges.values() if b.strip_id == strip.id]:
            places = [n for n, r in enumerate(rows) if r.unit in bridge.units]
            numbers = {
                project.wires[t.conductor.wire_id].number
                for n in places
                for t in (*rows[n].panel, *rows[n].field, *rows[n].unknown)
                if t.conductor.wire_id and project.wires[t.conductor.wire_id].number
            }
            ids = tuple(i for n in places for i in rows[n].symbol_ids)
            tag = full_tag(project, strip)
            if len(numbers) > 1:
                message = f"A bridge of {tag} joins the fixed numbers {' and '.join(sorted(numbers))}."
                yield built("bridge", "error", message, "terminals", strip.id, ids, strip.id)
            if places and places[-1] - places[0] != len(places) - 1:
                message = f"A bridge of {tag} reaches over terminals that it does not join."
                yield built("bridge", "error", message, "terminals", strip.id, ids, strip.id)


@project_check("address-overlap", "Two channels of one address.")
def overlaps(project: Project) -> Iterator[Snag]:
    """Yield a snag for each card that has an address another card has too."""
    seen: dict[str, str] = {}
    for card in cards(project):
        tag = full_tag(project, project.devices[card.device_id])
        for row in channels(project, card.device_id):
            if seen.setdefault(row.address, card.device_id) != card.device_id:
                other = full_tag(project, project.devices[seen[row.address]])
                message = f"{tag} and {other} both have {row.address}. Give one another first address."
                yield built("address-overlap", "error", message, "io", card.device_id, (), card.device_id)
                break


@project_check("point-waits", "A point of the I/O list without a channel.")
def waiting_points(project: Project) -> Iterator[Snag]:
    """Yield one snag for all points that wait."""
    waiting = [p.tag for p in sorted(project.io_points.values(), key=lambda p: p.order) if not p.channel]
    if waiting:
        shown = ", ".join(waiting[:6]) + (" …" if len(waiting) > 6 else "")
        yield built("point-waits", "warning", f"{len(waiting)} point(s) wait for a channel: {shown}.", "io", "")


@project_check("harness", "A harness that is not a tree, a wire without a way, a contact that does not fit.")
def harness_faults(project: Project) -> Iterator[Snag]:
    """Yield a snag for each fault of each harness."""
    for harness in harnesses(project):
        if not is_tree(tree_of(project, harness.id)):
            yield built(
                "harness", "error", f"{harness.code} is no tree: its segments make a ring.", "harness", harness.id
            )
        for wire in wires_of(project, harness.id):
            if wire.missing:
                message = f"{harness.code}, wire {wire.conductor.number}: {wire.missing}"
                yield built("harness", "error", message, "harness", harness.id)
        for device in connectors_of(project, harness.id):
            for row in cavity_rows(project, device.id):
                for c in row.conductors:
                    area = area_mm2(c.wire_type(project))
                    if row.contact is not None and not contact_fits(row.contact, area):
                        name = f"{full_tag(project, device)}:{row.cavity}"
                        message = f"The contact {row.contact.number} in {name} does not take {area:g} mm²."
                        yield built("harness", "error", message, "harness", harness.id, (), device.id)
