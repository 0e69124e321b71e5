"""The dossier of a conductor: all that is known about it, in one place for every list, plan and file.

Each conductor *runs* in exactly one of these: a cable (it is a core), a harness, a panel (it is routed and cut),
nothing because its pins touch ("direct"), or nothing yet ("open": in the field without a cable, or an end without a
location), which is a snag.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from jolly_core.cabinet import Route, routes_from
from jolly_core.cables import CoreRow, copper_of, cored, number_of
from jolly_core.drawing import place_in
from jolly_core.harness import ENDS, HarnessWire, cavity_strip_mm, contact_of, harness_wires_from
from jolly_core.library import definition
from jolly_core.model import Device, Part, Project, Symbol, derived, merged
from jolly_core.sizing import strip_length_mm
from jolly_core.tagging import device_at, full_tag, path_of, pin_names
from jolly_core.wiring import Conductor, conductors_from, panel_of, part_at, sheet_groups

RUNS = ("panel", "cable", "harness", "direct", "open")


@dataclass(slots=True)
class End:
    """An end of a conductor: name, pin, device, strip length in mm, and how it is terminated."""

    name: str
    pin: tuple[str, int]
    device_id: str
    strip_mm: float
    termination: str


@dataclass(slots=True)
class Dossier:
    """A conductor with all that is known about it.

    Attributes:
        key: the conductor's key.
        runs: one of RUNS.
        run: where it runs in words: tag of the enclosure or path of the panel's location, cable with core, or harness.
        length_mm: cut length, None for a core and while it is unknown.
        missing: why the length is unknown, "".
        why: the length's rule with its figures.
    """

    key: str
    conductor: Conductor
    number: str
    start: End
    end: End
    type_name: str
    colour: str
    size: str
    area_mm2: float
    runs: str
    run: str
    cable_id: str
    core: str
    harness_id: str
    length_mm: float | None
    missing: str
    why: str
    place: str


@derived
def dossiers_from(project: Project, sheet_id: str) -> dict[str, Dossier]:
    """Return the dossiers of the conductors of nets that begin on a sheet, by their keys, in reading order of nets."""
    cores = _cored_from(project, sheet_id)
    wires, ways = harness_wires_from(project, sheet_id), routes_from(project, sheet_id)
    ends = _EndWords(project)
    return {
        key: _dossier(ends, c, cores.get(key, ("", None)), wires.get(key), ways.get(key))
        for key, c in conductors_from(project, sheet_id).items()
    }


dossiers = merged(dossiers_from)


@derived
def _cored_from(project: Project, sheet_id: str) -> dict[str, tuple[str, CoreRow]]:
    """Return what `cored` says of the conductors of nets that begin on a sheet."""
    all_cored = cored(project)
    return {key: all_cored[key] for key in conductors_from(project, sheet_id) if key in all_cored} if all_cored else {}


class _EndWords:
    """Ends of the conductors of a sheet; what is said of a symbol is found once for all that ends at it."""

    def __init__(self, project: Project) -> None:
        self.project = project
        self._known: dict[str, tuple[Device | None, list[str], str, Part | None]] = {}

    def of(self, c: Conductor, pin: tuple[str, int], area: float) -> End:
        """Return an end of a conductor of an area in mm²."""
        project = self.project
        known = self._known.get(pin[0])
        if known is None:
            known = self._known[pin[0]] = self._about(project.symbols[pin[0]])
        device, names, unit, part = known
        name, device_id = names[pin[1]], device.id if device else ""
        if unit in ENDS:
            contact = contact_of(project, device, area)
            termination = contact.number if contact else "contact not chosen"
            return End(name, pin, device_id, cavity_strip_mm(project, device, c), termination)
        strip = number_of(part, "strip_mm") or strip_length_mm(area)
        termination = (part.ratings.get("termination", "") if part else "") or ("ferrule" if area else "")
        return End(name, pin, device_id, strip, termination)

    def _about(self, symbol: Symbol) -> tuple[Device | None, list[str], str, Part | None]:
        project = self.project
        device, unit = project.devices.get(symbol.device_id), definition(symbol.definition).unit
        part = None if unit in ENDS else part_at(project, symbol)
        return device, pin_names(project, symbol), unit, part


def _dossier(
    ends: _EndWords,
    c: Conductor,
    core_of: tuple[str, CoreRow | None],
    wire: HarnessWire | None,
    route: Route | None,
) -> Dossier:
    project = ends.project
    wire_type = c.wire_type(project)
    copper = copper_of(project, c)
    area = copper.area_mm2
    x, y = sheet_groups(project, c.sheet_id).points[c.start]
    cable_id, core = core_of
    length, missing, why, harness_id, core_name = None, "", "", "", ""
    if not c.wire_id and not c.steps:
        runs, run = "direct", "plugged on"
    elif core is not None:
        core_name = core.called
        runs, run = "cable", f"{full_tag(project, project.devices[cable_id])} {core_name}"
    elif wire is not None:
        runs, run = "harness", project.harnesses[wire.harness_id].code
        length, missing, why, harness_id = wire.length_mm, wire.missing, wire.why, wire.harness_id
    elif route is not None:
        runs, run = "panel", _panel(project, route)
        length, missing, why = route.length_mm, route.missing, route.why
    else:
        runs, run, missing = "open", "", _why_open(project, c)
    return Dossier(
        c.key,
        c,
        c.number,
        ends.of(c, c.start, area),
        ends.of(c, c.end, area),
        wire_type.name if wire_type else "",
        copper.colour,
        copper.size,
        area,
        runs,
        run,
        cable_id,
        core_name,
        harness_id,
        length,
        missing,
        why,
        place_in(project.sheets[c.sheet_id], x, y),
    )


def _panel(project: Project, route: Route) -> str:
    """Return the tag of the enclosure a route is in; while its ends have no place in one, the panel's location."""
    enclosure = project.enclosures.get(route.enclosure_id)
    if enclosure is not None:
        return full_tag(project, project.devices[enclosure.device_id])
    device = device_at(project, route.conductor.start)
    panel = panel_of(project, device) if device is not None else ""
    return path_of(project.locations, panel, "+") if panel in project.locations else "panel"


def _why_open(project: Project, c: Conductor) -> str:
    """Return why a conductor runs in nothing."""
    one, other = (device_at(project, pin) for pin in (c.start, c.end))
    if one is None or other is None:
        return "An end belongs to no device."
    for device in (one, other):
        if device.location_id not in project.locations and not panel_of(project, device):
            return f"{full_tag(project, device)} has no location, so that it is not known where the wire runs."
    leaves = panel_of(project, one) or panel_of(project, other)
    return f"It {'leaves the panel' if leaves else 'is in no panel'}, and no cable band crosses it."


def counted(name: str) -> list[tuple[int, str]]:
    """Return a sort key by which 10-9 stands before 10-10, and what has no number last."""
    pieces = re.findall(r"\d+|\D+", name)
    return [(int(p), "") if p.isdecimal() else (-1, p) for p in pieces] or [(10**9, "")]
