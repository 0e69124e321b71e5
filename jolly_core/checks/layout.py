"""Checks of layouts, cards and harnesses."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from jolly_core.cabinet import (
    Route,
    enclosures,
    fixing_of,
    layout_faults,
    pattern_of,
    placings_in,
    routes_from,
    runs_of,
    tray,
)
from jolly_core.making import Dossier, uncut_from
from jolly_core.model import Device, Project, counted, derived, length_words, listed
from jolly_core.plc import cards, spans_of, start_fault
from jolly_core.tagging import device_at, full_tag, natural, path_of
from jolly_core.terminals import is_strip
from jolly_core.wiring import panel_inside, panel_of

from .registry import Act, Snag, built, project_check

SHOWN = 4  # wires named in a snag that stands for many


@project_check("layout", "Collisions, over-full rails, and what stands over an edge.")
def layouts(project: Project) -> Iterator[Snag]:
    """Yield a snag for each fault of each enclosure's layout."""
    for enclosure in enclosures(project):
        for fault in layout_faults(project, enclosure):
            yield built("layout", "error", fault.message, "cabinet", enclosure.id, fault.ids, fault.device_id)


@derived
def _reasons_on(project: Project, sheet_id: str) -> list[tuple[tuple[str, str], int, list[Dossier]]]:
    """Return for each reason for which conductors from a sheet have no length how many they are, and the first ones."""
    found: dict[tuple[str, str], list[Dossier]] = {}
    for d in uncut_from(project, sheet_id):
        reason = d.runs, "" if d.runs == "panel" and not project.enclosures else d.missing
        found.setdefault(reason, []).append(d)
    return [(reason, len(all), all[:SHOWN]) for reason, all in found.items()]


_reasons_on_sheets = listed(_reasons_on)


@project_check("not-routed", "A conductor in a panel or harness that has no way and length: it is not on the cut list.")
def not_routed(project: Project) -> Iterator[Snag]:
    """Yield one snag for each reason for which conductors have no length, with how many there are."""
    reasons: dict[tuple[str, str], list[Dossier]] = {}
    counts: Counter[tuple[str, str]] = Counter()
    for reason, count, first in _reasons_on_sheets(project):
        counts[reason] += count
        reasons.setdefault(reason, []).extend(first)
    for (runs, missing), found in reasons.items():
        bench = "harness" if runs == "harness" else "cabinet"
        total = counts[runs, missing]
        count_words = f"{total} conductors have" if total > 1 else "One conductor has"
        names = sorted({d.number or d.start.name for d in found}, key=natural)[:SHOWN]
        numbers = ", ".join(names) + (" ..." if total > len(names) else "")
        if runs == "panel" and not project.enclosures:
            missing = "no enclosure is laid out yet. Add one on the Cabinet bench."
        message = f"{count_words} no length and {'are' if total > 1 else 'is'} not cut ({numbers}): {missing}"
        device = device_at(project, found[0].conductor.start)
        yield built("not-routed", "warning", message, bench, "", (), device.id if device else "")


@derived
def _long_on(project: Project, sheet_id: str) -> list[Route]:
    """Return the routes of conductors from a sheet that run free for longer than the project allows."""
    most = project.settings.free_run_mm + 0.01
    return [r for r in routes_from(project, sheet_id).values() if not r.missing and r.free_mm > most]


_long_on_sheets = listed(_long_on)


@project_check("free-run", "A wire that runs further over the plate outside ducts than the project allows.")
def free_runs(project: Project) -> Iterator[Snag]:
    """Yield a snag for each enclosure with wires that run free for longer than allowed, with the longest of them."""
    found: dict[str, list[Route]] = {}
    for route in _long_on_sheets(project):
        found.setdefault(route.enclosure_id, []).append(route)
    for enclosure_id, long in sorted(found.items()):
        worst = max(long, key=lambda r: (r.free_mm, r.conductor.key))
        tag = full_tag(project, project.devices[project.enclosures[enclosure_id].device_id])
        number = worst.conductor.number or "without a number"
        subject = f"{len(long)} wires run" if len(long) > 1 else "A wire runs"
        most, free = length_words(project, project.settings.free_run_mm), length_words(project, round(worst.free_mm))
        message = (
            f"{subject} over the plate of {tag} outside ducts for more than {most}; wire {number} for {free}. "
            f"Draw a duct nearer."
        )
        yield built("free-run", "warning", message, "cabinet", enclosure_id)


def _is_elsewhere(project: Project, device: Device, panel: str) -> bool:
    """Return whether the location of a device is another than the panel it stands in; without one it is no other.

    What stands in a box of the field has a location in the field, too.
    """
    location = project.locations.get(device.location_id)
    outside = location is not None and location.side not in ("panel", "door")
    return panel_of(project, device) != panel or (outside and panel in project.locations)


@project_check("placed-elsewhere", "A device that stands in an enclosure of another panel than its location's.")
def placed_elsewhere(project: Project) -> Iterator[Snag]:
    """Yield an error for each such device: what is wired to it is not measured."""
    for placing in sorted(project.placings.values(), key=lambda p: p.id):
        device = project.devices[placing.device_id]
        if not _is_elsewhere(project, device, panel_inside(project, placing.enclosure_id)):
            continue
        housing = project.devices[project.enclosures[placing.enclosure_id].device_id]
        said = path_of(project.locations, device.location_id, "+")
        message = (
            f"{full_tag(project, device)} stands in {full_tag(project, housing)}, but its location is {said}: its wires"
            " are not measured. Give it the location of the enclosure, or take it out."
        )
        values = {"device_id": device.id, "function_id": device.function_id, "location_id": housing.location_id}
        mend = Act("Give it this location", "set-place", tuple(values.items()))
        yield built(
            "placed-elsewhere", "error", message, "cabinet", placing.enclosure_id, (placing.id,), device.id, mend
        )


@project_check("not-placed", "A device of a panel that is not placed in its enclosure.")
def not_placed(project: Project) -> Iterator[Snag]:
    """Yield one snag for all devices that wait to be placed, when an enclosure is laid out."""
    waiting = [full_tag(project, d) for d in tray(project)] if project.enclosures else []
    if waiting:
        shown = ", ".join(waiting[:6]) + (" ..." if len(waiting) > 6 else "")
        verb = "is" if len(waiting) == 1 else "are"
        yield built(
            "not-placed", "warning", f"{counted(len(waiting), 'device')} {verb} not placed yet: {shown}.", "cabinet", ""
        )


@project_check("door-hole", "A device in a door whose part does not say which hole it needs.")
def door_holes(project: Project) -> Iterator[Snag]:
    """Yield a snag for each device placed in a door that no hole is made for."""
    for placing in sorted(project.placings.values(), key=lambda p: p.id):
        device = project.devices[placing.device_id]
        if placing.surface == "door" and not pattern_of(project, placing):
            message = (
                f"{full_tag(project, device)} stands in the door, but its part says no hole. Say its diameter there."
            )
            yield built("door-hole", "warning", message, "parts", "", (placing.id,), device.id)


@project_check(
    "plate-hole", "What is fixed to a plate and whose part does not say its holes: nothing is drilled for it."
)
def plate_holes(project: Project) -> Iterator[Snag]:
    """Yield a snag for each enclosure with devices, rails or ducts on its plate that no hole is made for."""
    for enclosure in enclosures(project):
        bare = [
            p
            for p in placings_in(project, enclosure.id, "plate")
            if not p.rail_id and not pattern_of(project, p) and not is_strip(project, project.devices[p.device_id])
        ]
        runs = [r for r in runs_of(project, enclosure.id) if not fixing_of(project.parts.get(r.part_id), r)]
        tags = sorted((full_tag(project, project.devices[p.device_id]) for p in bare), key=natural)
        names = tags[:6] + (["..."] if len(tags) > 6 else [])
        names += [f"{len(runs)} rails and ducts"] if runs else []
        if names:
            message = (
                f"No holes are made in the plate of {full_tag(project, project.devices[enclosure.device_id])} for "
                f"{', '.join(names)}. Say them in their parts."
            )
            ids = (*(p.id for p in bare), *(r.id for r in runs))
            yield built("plate-hole", "warning", message, "cabinet", enclosure.id, ids)


@project_check("address-overlap", "Two channels that share a bit of their direction; an analog one takes a word.")
def overlaps(project: Project) -> Iterator[Snag]:
    """Yield a snag for each card that has an address in the bits another card before it has."""
    seen: dict[tuple[str, int], tuple[str, str]] = {}
    for card in cards(project):
        tag = full_tag(project, project.devices[card.device_id])
        met: tuple[str, str, str] | None = None
        for space, low, high, row in spans_of(project, card):
            for place in range(low, high):
                owner, other = seen.setdefault((space, place), (card.device_id, row.address))
                if met is None and owner != card.device_id:
                    met = owner, other, row.address
        if met is not None:
            name = full_tag(project, project.devices[met[0]])
            both = f"both have {met[1]}" if met[1] == met[2] else f"share bits: {met[2]} and {met[1]}"
            message = f"{tag} and {name} {both}. Give one another first address."
            act = Act("Address it anew", "address-card", (("device_id", card.device_id), ("scheme", card.scheme)))
            yield built("address-overlap", "error", message, "io", card.device_id, (), card.device_id, act)


@project_check("address-start", "A card whose first address is none of its scheme, so that its channels have none.")
def starts_unread(project: Project) -> Iterator[Snag]:
    """Yield a snag for each card whose first address nobody can count from; files of others may bring such."""
    for card in cards(project):
        fault = start_fault(card)
        if fault:
            message = f"{full_tag(project, project.devices[card.device_id])} has no addresses. {fault}"
            act = Act("Address it anew", "address-card", (("device_id", card.device_id), ("scheme", card.scheme)))
            yield built("address-start", "error", message, "io", card.device_id, (), card.device_id, act)


@project_check("point-waits", "A point of the I/O list without a channel.")
def waiting_points(project: Project) -> Iterator[Snag]:
    """Yield one snag for all points that wait."""
    waiting = [p.tag for p in sorted(project.io_points.values(), key=lambda p: p.order) if not p.channel]
    if waiting:
        shown = ", ".join(waiting[:6]) + (" …" if len(waiting) > 6 else "")
        verb = "waits" if len(waiting) == 1 else "wait"
        message = f"{counted(len(waiting), 'point')} {verb} for a channel: {shown}."
        yield built("point-waits", "warning", message, "io", "")
