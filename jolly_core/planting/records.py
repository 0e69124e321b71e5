"""Faults of names, numbers, marks and parts."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.circuits import potential_at
from jolly_core.model import Project, Wire
from jolly_core.tagging import short_tag
from jolly_core.wiring import sheet_groups

from .places import contacts, drawn, marks
from .trials import FaultPlace, Trial, fault, step

MOTION, STOP, REWORK = "unmeant motion", "standstill", "rework"


@fault("tag-twice", "Two devices of one tag", REWORK, "equal-tags", "equal-tags-beside")
def tag_twice(project: Project) -> Iterator[FaultPlace]:
    """Yield each pair of devices beside each other that are of one place."""
    found = [s for s in drawn(project, "pole", "motor", "coil", "supply") if s.device_id]
    devices = list({s.device_id: s for s in found}.items())
    for (a, one), (b, other) in zip(devices, devices[1:], strict=False):
        places = [(project.devices[d].function_id, project.devices[d].location_id) for d in (a, b)]
        if places[0] == places[1]:
            tag = short_tag(project, project.devices[a]).lstrip("-")
            yield FaultPlace((one.id, other.id), step(_tag, (a, b), tag))


def _tag(trial: Trial, devices: tuple[str, str], tag: str) -> None:
    for id in devices:
        trial.change("device", id, fixed_tag=tag)


@fault("number-twice", "One wire number on two potentials", REWORK, "number-twice", "number-given-up")
def number_twice(project: Project) -> Iterator[FaultPlace]:
    """Yield two wires of two potentials of each sheet."""
    for sheet_id in sorted(project.sheets):
        groups = [g for g in sheet_groups(project, sheet_id).groups if g.wires and len(g.pins) > 1]
        for one, other in zip(groups, groups[1:], strict=False):
            wires: list[Wire] = [project.wires[g.wires[0]] for g in (one, other)]
            types = [project.wire_types.get(w.type_id) for w in wires]
            apart = potential_at(project, one.key).key != potential_at(project, other.key).key
            if apart and all(t is not None and t.category not in ("pe", "external") and not t.outside for t in types):
                ids = [w.id for w in wires]
                yield FaultPlace((*ids,), step(_number, ids))


def _number(trial: Trial, wires: list[str]) -> None:
    for id in wires:
        trial.change("wire", id, number="777")


@fault("mark-unpaired", "A mark whose other end has another name", STOP, "unpaired-continuation")
def mark_unpaired(project: Project) -> Iterator[FaultPlace]:
    """Yield each mark."""
    for mark in marks(project):
        yield FaultPlace((mark.id,), step(Trial.change, "continuation", mark.id, name="Q-17-9"))


@fault("rail-unfed", "A ladder that nothing feeds", STOP, "rail-unfed")
def rail_unfed(project: Project) -> Iterator[FaultPlace]:
    """Yield the marks of each ladder."""
    for mark in marks(project):
        sheet = project.sheets[mark.sheet_id]
        if sheet.frame == "ladder" and mark.x in (sheet.rail_left, sheet.rail_right) and mark.y < sheet.line_top:
            others = [m for m in marks(project) if m.sheet_id == sheet.id and m.x == mark.x]
            if len(others) == 1:
                yield FaultPlace((mark.id,), step(Trial.drop, "continuation", mark.id))


@fault(
    "rail-other",
    "A ladder fed by another potential",
    STOP,
    "coil-voltage",
    "joined-potentials",
    "consumer-voltage",
    "short-circuit",
    "two-sources",
    "unprotected",
)
def rail_other(project: Project) -> Iterator[FaultPlace]:
    """Yield the live mark of each ladder with coils whose voltage is known, where there are phases."""
    if not any(True for _ in marks(project, "L1")):
        return
    for mark in marks(project):
        sheet = project.sheets[mark.sheet_id]
        rated = [
            s
            for s in drawn(project, "coil")
            if s.sheet_id == sheet.id
            and (part := project.part_of(project.devices[s.device_id]))
            and part.ratings.get("coil_voltage_v")
        ]
        if sheet.frame == "ladder" and mark.x == sheet.rail_left and rated:
            yield FaultPlace((mark.id,), step(Trial.change, "continuation", mark.id, name="L1"))


@fault("wire-loose", "A wire that leads nowhere", REWORK, "loose-end", "dead-end", "unconnected-pin")
def wire_loose(project: Project) -> Iterator[FaultPlace]:
    """Yield a pin of each contact."""
    for symbol, pin, _ in contacts(project):
        yield FaultPlace((symbol.id,), step(Trial.cut, pin))


@fault("unit-twice", "One contact of a device drawn twice", STOP, "pins-twice")
def unit_twice(project: Project) -> Iterator[FaultPlace]:
    """Yield each two contacts of one kind of a device."""
    for symbol, _, _ in contacts(project):
        for other in project.units_of(symbol.device_id):
            if other.id > symbol.id and other.definition == symbol.definition and other.units != symbol.units:
                yield FaultPlace((symbol.id, other.id), step(Trial.change, "symbol", other.id, units=symbol.units))


@fault(
    "contact-turned",
    "A normally open contact where a closed one belongs",
    MOTION,
    "no-free-unit",
    "two-channel",
    "overload-contact",
    "interlock",
)
def contact_turned(project: Project) -> Iterator[FaultPlace]:
    """Yield the contacts of overloads, and of contactors that interlock."""
    for symbol, _, _ in contacts(project):
        if symbol.definition == "overload-nc":
            yield FaultPlace((symbol.id,), step(Trial.change, "symbol", symbol.id, definition="overload-no"))


@fault("part-none", "A device without a part", REWORK, "no-part")
def part_none(project: Project) -> Iterator[FaultPlace]:
    """Yield each lead symbol of a device with a part."""
    for symbol in drawn(project, "motor", "coil", "supply", "heater"):
        if project.part_of(project.devices[symbol.device_id]):
            yield FaultPlace((symbol.id,), step(Trial.change, "device", symbol.device_id, part_id=""))
