"""Faults in power circuits: protection, overload, phases, ratings."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from jolly_core.circuits import PHASES, base_at, fed_by, is_guard, limits, phase_at, potential_of
from jolly_core.drawing import pin_points
from jolly_core.library import definition
from jolly_core.model import Device, Project
from jolly_core.tagging import pins_of

from .places import drawn, driven, guard_of, guards, is_wired, last_guards, marks, motors, poles
from .trials import FaultPlace, Trial, fault, step

FIRE, MOTION, STOP = "fire or shock", "unmeant motion", "standstill"


@fault(
    "guard-gone",
    "A protective device left out, its wires joined",
    FIRE,
    "unprotected",
    "unprotected-source",
    "overload-missing",
    "loose-end",
)
def guard_gone(project: Project) -> Iterator[FaultPlace]:
    """Yield each protective device with no other in front and a load at once behind it."""
    last = last_guards(project)
    for symbol in guards(project):
        if (
            symbol.id in last
            and not fed_by(project, potential_of(project, (symbol.id, 0)), lambda s: is_guard(project, s)).met
        ):
            yield FaultPlace((symbol.id,), step(Trial.delete, symbol.id))


@fault("guard-bridged", "A pole of a protective device bridged", FIRE, "bridged")
def guard_bridged(project: Project) -> Iterator[FaultPlace]:
    """Yield each pole of a protective device."""
    for symbol, a, b in poles(project, "breaker", "fuse", "motor-breaker"):
        yield FaultPlace((symbol.id,), step(Trial.join, a, b))


@fault(
    "guard-past",
    "A wire from the line side of a protective device to a pole of the load behind it",
    FIRE,
    "unprotected",
    "bridged",
    "protection-past",
)
def guard_past(project: Project) -> Iterator[FaultPlace]:
    """Yield each pole of each motor with one protective device."""
    for motor in motors(project):
        for n in range(3):
            line = guard_of(project, (motor.id, n))
            if line is not None:
                yield FaultPlace((motor.id, line[0]), step(Trial.join, (motor.id, n), line))


@fault("overload-gone", "An overload left out, its wires joined", FIRE, "overload-missing", "no-device")
def overload_gone(project: Project) -> Iterator[FaultPlace]:
    """Yield each overload."""
    for symbol in drawn(project, "heater"):
        yield FaultPlace((symbol.id,), step(Trial.delete, symbol.id))


@fault("overload-bridged", "A pole of an overload bridged", FIRE, "bridged")
def overload_bridged(project: Project) -> Iterator[FaultPlace]:
    """Yield each pole of an overload."""
    for symbol, a, b in poles(project, "overload"):
        if definition(symbol.definition).unit == "heater":
            yield FaultPlace((symbol.id,), step(Trial.join, a, b))


@fault("motor-breaker-replaced", "A plain breaker where a motor breaker was", FIRE, "overload-missing")
def motor_breaker_replaced(project: Project) -> Iterator[FaultPlace]:
    """Yield each motor breaker in front of a motor."""
    for motor in motors(project):
        line = guard_of(project, (motor.id, 0))
        symbol = project.symbols[line[0]] if line else None
        if symbol is not None and symbol.definition == "motor-breaker":
            yield FaultPlace((motor.id, symbol.id), step(_plain, symbol.id))


def _plain(trial: Trial, id: str) -> None:
    symbol = trial.project.symbols[id]
    trial.change("symbol", id, definition="breaker")
    trial.change("device", symbol.device_id, part_id="")


@fault("contactor-bridged", "A pole of a contactor bridged", MOTION, "bridged")
def contactor_bridged(project: Project) -> Iterator[FaultPlace]:
    """Yield each pole of a contactor."""
    for symbol, a, b in poles(project, "contactor"):
        if symbol.id in {s.id for s in driven(project)}:
            yield FaultPlace((symbol.id,), step(Trial.join, a, b))


@fault("phases-joined", "Two phases joined", FIRE, "joined-potentials", "short-circuit", "poles-joined")
def phases_joined(project: Project) -> Iterator[FaultPlace]:
    """Yield a place at each pair of phases beside each other."""
    for one in marks(project, "L1"):
        for other in marks(project, "L2"):
            if one.sheet_id == other.sheet_id:
                points = [(m.sheet_id, m.x, m.y) for m in (one, other)]
                yield FaultPlace((one.id,), step(Trial.join, *points))
                break


@fault(
    "phases-joined-behind",
    "Two poles of a motor joined",
    FIRE,
    "short-circuit",
    "poles-joined",
    "joined-potentials",
    "motor-phases",
)
def phases_joined_behind(project: Project) -> Iterator[FaultPlace]:
    """Yield each motor."""
    for motor in motors(project):
        yield FaultPlace((motor.id,), step(Trial.join, (motor.id, 0), (motor.id, 1)))


@fault("phase-missing", "A wire to a motor left out", STOP, "unconnected-pin", "loose-end", "dead-end")
def phase_missing(project: Project) -> Iterator[FaultPlace]:
    """Yield each pole of each motor."""
    for motor in motors(project):
        for n in range(3):
            yield FaultPlace((motor.id,), step(Trial.cut, (motor.id, n)))


@fault("phases-crossed", "Two wires of a motor changed over", MOTION, "motor-phases")
def phases_crossed(project: Project) -> Iterator[FaultPlace]:
    """Yield each motor that is fed on one way, its phases known."""
    for motor in motors(project):
        if all(phase_at(project, potential_of(project, (motor.id, n))) for n in range(3)):
            yield FaultPlace((motor.id,), step(Trial.exchange, (motor.id, 0), (motor.id, 1)))


@fault(
    "phase-twice",
    "A phase named like another",
    STOP,
    "motor-phases",
    "poles-joined",
    "consumer-voltage",
    "joined-potentials",
    "dead-load",
    "bridged",
    "short-circuit",
)
def phase_twice(project: Project) -> Iterator[FaultPlace]:
    """Yield each mark of the second phase at a protective device or switch of a motor."""
    for mark in marks(project, "L2"):
        here = potential_of_mark(project, mark.sheet_id, mark.x, mark.y)
        if here:
            yield FaultPlace((here, mark.id), step(Trial.change, "continuation", mark.id, name="L1"))


def potential_of_mark(project: Project, sheet_id: str, x: int, y: int) -> str:
    """Return the first symbol whose line pin is below a mark, "" where there is none."""
    below = [
        (py, s.id)
        for s in project.symbols_on(sheet_id)
        if s.device_id and definition(s.definition).unit == "pole"
        for px, py in pin_points(s)
        if px == x and py > y
    ]
    return min(below)[1] if below else ""


@fault("circuits-joined", "Two motors of different protective devices joined", FIRE, "fuses-joined")
def circuits_joined(project: Project) -> Iterator[FaultPlace]:
    """Yield each pair of motors after one another that two devices protect."""
    found = [(m, guard_of(project, (m.id, 0))) for m in motors(project)]
    for (one, a), (other, b) in zip(found, found[1:], strict=False):
        if a and b and a[0] != b[0]:
            yield FaultPlace((one.id, other.id, a[0], b[0]), step(Trial.join, (one.id, 0), (other.id, 0)))


@fault("groups-joined", "What is behind two protective devices of one phase, joined", FIRE, "fuses-joined")
def groups_joined(project: Project) -> Iterator[FaultPlace]:
    """Yield each pair of protective devices with the first phase in front."""
    found = [s for s in guards(project) if phase_at(project, potential_of(project, (s.id, 0))) == PHASES[0]]
    for one, other in zip(found, found[1:], strict=False):
        lines = [potential_of(project, (s.id, 0)).key for s in (one, other)]
        if one.device_id != other.device_id and lines[0] == lines[1]:
            yield FaultPlace((one.id, other.id), step(Trial.join, (one.id, 1), (other.id, 1)))


def _rated(project: Project, device: Device, **ratings: str) -> Iterator[Any]:
    part = project.part_of(device)
    if part is not None and all(part.ratings.get(key) for key in ratings):
        yield step(Trial.put, "part", replace(part, ratings={**part.ratings, **ratings}))


@fault("motor-larger", "A motor larger than its overload or motor breaker is for", FIRE, "motor-load")
def motor_larger(project: Project) -> Iterator[FaultPlace]:
    """Yield each motor behind something that is set."""
    for motor in motors(project):
        for make in _rated(project, project.devices[motor.device_id], rated_a="300", power_kw="160"):
            yield FaultPlace((motor.id,), make)


@fault("overload-range", "An overload for another current", FIRE, "motor-load")
def overload_range(project: Project) -> Iterator[FaultPlace]:
    """Yield each overload with a setting range."""
    for symbol in drawn(project, "heater"):
        for make in _rated(project, project.devices[symbol.device_id], setting_min_a="90", setting_max_a="120"):
            yield FaultPlace((symbol.id,), make)


@fault("contactor-small", "A contactor too small for its motor", STOP, "motor-load")
def contactor_small(project: Project) -> Iterator[FaultPlace]:
    """Yield each contactor with a rated current in front of a motor."""
    for symbol in driven(project):
        for make in _rated(project, project.devices[symbol.device_id], ac3_a="0.1"):
            yield FaultPlace((symbol.id,), make)


@fault("motor-volts", "A motor for another voltage", STOP, "consumer-voltage")
def motor_volts(project: Project) -> Iterator[FaultPlace]:
    """Yield each motor whose part has a voltage."""
    for motor in motors(project):
        for make in _rated(project, project.devices[motor.device_id], voltage_v="110"):
            yield FaultPlace((motor.id,), make)


@fault("coil-volts", "A coil for another voltage", STOP, "coil-voltage")
def coil_volts(project: Project) -> Iterator[FaultPlace]:
    """Yield each coil whose part has a voltage."""
    for symbol in drawn(project, "coil"):
        if is_wired(project, (symbol.id, 0)) and is_wired(project, (symbol.id, 1)):
            for make in _rated(project, project.devices[symbol.device_id], coil_voltage_v="42"):
                yield FaultPlace((symbol.id,), make)


@fault("supply-volts", "A supply or transformer at another voltage than it is for", STOP, "consumer-voltage")
def supply_volts(project: Project) -> Iterator[FaultPlace]:
    """Yield each supply whose part has a voltage, wired at its input."""
    for symbol in drawn(project, "supply", "transformer"):
        key = "supply_v" if definition(symbol.definition).unit == "supply" else "primary_v"
        if is_wired(project, (symbol.id, 0)):
            for make in _rated(project, project.devices[symbol.device_id], **{key: "60"}):
                yield FaultPlace((symbol.id,), make)


@fault(
    "supply-gives",
    "A supply for another control voltage",
    STOP,
    "coil-voltage",
    "consumer-voltage",
    "joined-potentials",
    "short-circuit",
)
def supply_gives(project: Project) -> Iterator[FaultPlace]:
    """Yield each supply whose part has a voltage, wired at its output."""
    for symbol in drawn(project, "supply"):
        if is_wired(project, (symbol.id, 2)):
            for make in _rated(project, project.devices[symbol.device_id], output_v="48"):
                yield FaultPlace((symbol.id,), make)


@fault("supply-small", "A supply too small for what it feeds", STOP, "supply-load")
def supply_small(project: Project) -> Iterator[FaultPlace]:
    """Yield each supply whose part has a current."""
    for symbol in drawn(project, "supply"):
        if is_wired(project, (symbol.id, 2)):
            for make in _rated(project, project.devices[symbol.device_id], output_a="0.001"):
                yield FaultPlace((symbol.id,), make)


@fault(
    "phase-elsewhere",
    "One pole of a load on another phase's protective device",
    FIRE,
    "fuses-joined",
    "poles-joined",
    "short-circuit",
    "joined-potentials",
    "motor-phases",
)
def pole_elsewhere(project: Project) -> Iterator[FaultPlace]:
    """Yield each pair of motors: the first pole of one joined with the second pole of the other."""
    found = list(motors(project))
    for one, other in zip(found, found[1:], strict=False):
        yield FaultPlace((one.id, other.id), step(Trial.join, (one.id, 0), (other.id, 1)))


@fault("motor-breaker-range", "A motor breaker for another current", FIRE, "motor-load")
def motor_breaker_range(project: Project) -> Iterator[FaultPlace]:
    """Yield each device with a setting range that is a pole."""
    for symbol in drawn(project, "pole"):
        if limits(project, symbol) and base_at(project, symbol) == "motor-breaker" and pins_of(project, symbol):
            for make in _rated(project, project.devices[symbol.device_id], setting_min_a="0.1", setting_max_a="0.12"):
                yield FaultPlace((symbol.id,), make)
