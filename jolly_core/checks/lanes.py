"""Checks of lanes: gaps between them, eyelets out of reach, ducts too full, wires together that are kept apart."""

from __future__ import annotations

from collections.abc import Iterator
from math import ceil

from jolly_core.cabinet import (
    Fill,
    duct_fills,
    enclosures,
    eyelet_gap,
    eyelets_of,
    gap_words,
    gaps_in,
    has_room,
    lane_name,
    network_of,
    placings_in,
    routes_from,
)
from jolly_core.model import Part, Project, RuleError, counted, derived, listed
from jolly_core.tagging import full_tag

from .registry import Snag, built, project_check

SHOWN = 4


@project_check("lanes-apart", "Ducts and lanes of a panel that do not hang together.")
def lanes_apart(project: Project) -> Iterator[Snag]:
    """Yield a snag for each group of lanes that no wire can reach from the others."""
    for enclosure in enclosures(project):
        try:
            gaps = gaps_in(project, enclosure.id)
        except RuleError:
            continue  # its part is missing, which is told
        for gap in gaps:
            if gap.enclosure_id == enclosure.id:
                yield built("lanes-apart", "warning", gap_words(project, gap), "cabinet", enclosure.id)


@project_check("eyelet-apart", "A device with an eyelet for wires that no lane reaches.")
def eyelets_apart(project: Project) -> Iterator[Snag]:
    """Yield a snag for each eyelet of a placed device that no wire can be led through, with the gap."""
    for enclosure in enclosures(project):
        for placing in placings_in(project, enclosure.id):
            for n in range(len(eyelets_of(project, placing))):
                try:
                    words = eyelet_gap(project, network_of(project, enclosure.id), f"{placing.device_id}/{n + 1}")
                except RuleError:
                    continue
                if words:
                    yield built(
                        "eyelet-apart", "warning", words, "cabinet", enclosure.id, (placing.id,), placing.device_id
                    )


def next_larger(project: Project, fill: Fill) -> Part | None:
    """Return the smallest duct among the project's parts in which a duct's wires leave enough room."""
    part = project.parts[project.ducts[fill.duct_id].part_id]
    area = part.width_mm * part.depth_mm * fill.percent / project.settings.fill_warn_percent
    found = [
        p
        for p in project.parts.values()
        if p.part_class == part.part_class and p.maker == part.maker and p.width_mm * p.depth_mm >= area
    ]
    return min(found, key=lambda p: (p.width_mm * p.depth_mm, p.number), default=None)


@project_check("duct-full", "A duct that is fuller at a place than the project allows, or without a size to say so.")
def ducts_full(project: Project) -> Iterator[Snag]:
    """Yield a snag for each duct that is too full, with the size its wires take, and for each of unknown size."""
    limit = project.settings.fill_warn_percent
    for enclosure in enclosures(project):
        for fill in duct_fills(project, enclosure.id).values():
            part = project.parts[project.ducts[fill.duct_id].part_id]
            name = lane_name(project, fill.duct_id)
            if not has_room(part):
                message = f"How full {name} is cannot be said: {fill.why}"
                yield built("duct-full", "warning", message, "cabinet", enclosure.id, (fill.duct_id,))
            elif fill.percent > limit + 0.005:
                message = (
                    f"{name[:1].upper()}{name[1:]} is {_percent(fill.percent)} % full with "
                    f"{counted(fill.wires, 'wire')}, {limit:g} % is the limit{_enough(project, fill, part)}."
                )
                severity = "error" if fill.percent > 100 else "warning"
                yield built("duct-full", severity, message, "cabinet", enclosure.id, (fill.duct_id,))


def _percent(share: float) -> str:
    """Return a share as it is read: whole percents, of less than one what tells it from none."""
    return f"{share:.0f}" if share >= 1 else f"{share:.2g}"


def _enough(project: Project, fill: Fill, part: Part) -> str:
    """Return in words which size is enough for a duct's wires, "" where the project allows none in any."""
    if not project.settings.fill_warn_percent:
        return ""
    larger = next_larger(project, fill)
    if larger is not None:
        return f": {larger.number}, {larger.width_mm:g} × {larger.depth_mm:g} mm, is enough"
    depth = ceil(round(part.depth_mm * fill.percent / project.settings.fill_warn_percent, 3))
    return f": one of {part.width_mm:g} × {depth} mm, or as large, is enough"


@derived
def _lanes_used(project: Project, sheet_id: str) -> list[tuple[str, str, str]]:
    """Return the lanes in which wires run that are kept apart from others: lane, category and number of each."""
    apart = project.settings.apart
    found = []
    for route in routes_from(project, sheet_id).values() if len(apart) > 1 else ():
        wire_type = route.conductor.wire_type(project)
        if wire_type is not None and wire_type.category in apart:
            number = route.conductor.number or "without a number"
            found += [(id, wire_type.category, number) for id in dict.fromkeys(s[0] for s in route.stretches)]
    return found


_all_lanes_used = listed(_lanes_used)


@project_check("kept-apart", "Wires in one lane whose categories are to be kept apart.")
def kept_apart(project: Project) -> Iterator[Snag]:
    """Yield a snag for each lane with wires of several categories that are kept apart."""
    there: dict[str, dict[str, list[str]]] = {}
    for id, category, number in _all_lanes_used(project):
        there.setdefault(id, {}).setdefault(category, []).append(number)
    for id, found in sorted(there.items()):
        if len(found) < 2:
            continue
        lane = project.ducts.get(id) or project.lanes.get(id)
        if lane is None:
            continue
        tag = full_tag(project, project.devices[project.enclosures[lane.enclosure_id].device_id])
        words = " and ".join(
            f"{len(numbers)} {category} ({', '.join(numbers[:SHOWN])}{' ...' if len(numbers) > SHOWN else ''})"
            for category, numbers in sorted(found.items())
        )
        message = (
            f"Wires that are kept apart lie together in {lane_name(project, id)} of {tag}: {words}. Say on the lanes "
            f"which are for whom."
        )
        yield built("kept-apart", "warning", message, "cabinet", lane.enclosure_id, (id,))
