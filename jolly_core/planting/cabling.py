"""Faults of cables, terminals and what leaves a panel."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from jolly_core.cables import cable_cores
from jolly_core.library import definition
from jolly_core.model import Band, Project

from .places import is_wired, motors
from .trials import FaultPlace, Trial, fault, step

FIRE, STOP, REWORK = "fire or shock", "standstill", "rework"


def _bands(project: Project) -> Iterator[Band]:
    for id in sorted(project.bands):
        if cable_cores(project, project.bands[id].device_id):
            yield project.bands[id]


@fault("cable-gone", "A conductor to the field in no cable", REWORK, "field-wire")
def cable_gone(project: Project) -> Iterator[FaultPlace]:
    """Yield each band that is the only one of its cable."""
    for band in _bands(project):
        cores = [row.conductor for row in cable_cores(project, band.device_id) if row.conductor]
        ends = (pin[0] for core in cores for pin in (core.start, core.end))
        yield FaultPlace((band.id, *dict.fromkeys(ends)), step(Trial.drop, "band", band.id))


@fault("cable-cores", "A cable with too few cores", REWORK, "cable-cores")
def cable_cores_few(project: Project) -> Iterator[FaultPlace]:
    """Yield each cable with a part and several cores."""
    for band in _bands(project):
        part = project.part_of(project.devices[band.device_id])
        if part is not None and len(part.units) > 2:
            yield FaultPlace((band.id,), step(Trial.put, "part", replace(part, units=part.units[:1])))


@fault("cable-thin", "A cable too thin for its load", FIRE, "cable-capacity", "cable-protection", "terminal-size")
def cable_thin(project: Project) -> Iterator[FaultPlace]:
    """Yield each cable of a motor with a part that says its cross-section."""
    for band in _bands(project):
        part = project.part_of(project.devices[band.device_id])
        if part is not None and part.ratings.get("cross_section_mm2") and _leads_power(project, band):
            thin = {**part.ratings, "cross_section_mm2": "0.14"}
            yield FaultPlace((band.id,), step(Trial.put, "part", replace(part, ratings=thin)))


def _leads_power(project: Project, band: Band) -> bool:
    ids = {row.conductor.end[0] for row in cable_cores(project, band.device_id) if row.conductor}
    ids |= {row.conductor.start[0] for row in cable_cores(project, band.device_id) if row.conductor}
    return any(definition(project.symbols[id].definition).unit == "motor" for id in ids)


@fault("cable-long", "A cable too long for its load", STOP, "cable-drop")
def cable_long(project: Project) -> Iterator[FaultPlace]:
    """Yield each cable of a motor."""
    for band in _bands(project):
        if _leads_power(project, band):
            yield FaultPlace((band.id,), step(Trial.do, "set-cable", device_id=band.device_id, length_m=9000))


@fault("cable-no-earth", "A cable drawn past the protective conductor", FIRE, "cable-protective", "field-wire")
def cable_no_earth(project: Project) -> Iterator[FaultPlace]:
    """Yield each band over a protective conductor at its end."""
    for band in _bands(project):
        if band.y1 == band.y2 and _leads_power(project, band):
            shorter = max(band.x1, band.x2) - 6
            values = {"x1": min(band.x1, band.x2), "x2": shorter}
            yield FaultPlace((band.id,), step(Trial.change, "band", band.id, **values))


@fault("terminal-gone", "A conductor through the wall of a panel without a terminal", REWORK, "jumps-wall", "loose-end")
def terminal_gone(project: Project) -> Iterator[FaultPlace]:
    """Yield the terminals in front of each motor in the field."""
    for motor in motors(project):
        where = project.devices[motor.device_id].location_id
        near = [
            s
            for s in project.symbols_on(motor.sheet_id)
            if s.definition == "terminal" and motor.x <= s.x <= motor.x + 8 and is_wired(project, (s.id, 0))
        ]
        if near and where and where != project.sheets[motor.sheet_id].location_id:
            yield FaultPlace((motor.id, near[0].id), step(Trial.delete, near[0].id))


@fault("cable-one-place", "A cable with both ends in one place", REWORK, "cable-one-place")
def cable_one_place(project: Project) -> Iterator[FaultPlace]:
    """Yield each motor in the field."""
    for motor in motors(project):
        sheet = project.sheets[motor.sheet_id]
        device = project.devices[motor.device_id]
        if device.location_id and device.location_id != sheet.location_id and project.bands:
            where = sheet.location_id
            near = [b.id for b in _bands(project) if _leads_to(project, b, motor.id)]
            if near:
                yield FaultPlace((motor.id, *near), step(Trial.change, "device", device.id, location_id=where))


def _leads_to(project: Project, band: Band, id: str) -> bool:
    cores = [row.conductor for row in cable_cores(project, band.device_id) if row.conductor]
    return any(id in (core.start[0], core.end[0]) for core in cores)


@fault("terminal-small", "A terminal too small for its conductor", FIRE, "terminal-size")
def terminal_small(project: Project) -> Iterator[FaultPlace]:
    """Yield each terminal part with a size."""
    for id in sorted(project.parts):
        part = project.parts[id]
        if (
            part.part_class == "terminal"
            and part.ratings.get("cross_section_max_mm2")
            and project.devices_of_part.has(id)
        ):
            small = {**part.ratings, "cross_section_max_mm2": "0.1", "cross_section_min_mm2": "0.05"}
            device = next(iter(project.devices_of_part.get(id)))
            yield FaultPlace((device,), step(Trial.put, "part", replace(part, ratings=small)))
