"""Faults in control circuits: stops, latches, interlocks, safety channels."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.circuits import base_at, potential_of, reached
from jolly_core.library import definition
from jolly_core.model import Project, Symbol
from jolly_core.tagging import pins_of
from jolly_core.wiring import PinKey

from .places import chains, coils, contacts, drawn, driven, is_wired, latches
from .trials import FaultPlace, Trial, fault, step

FIRE, MOTION, STOP, REWORK = "fire or shock", "unmeant motion", "standstill", "rework"


@fault("loads-series", "Two loads one after another", STOP, "loads-series")
def loads_series(project: Project) -> Iterator[FaultPlace]:
    """Yield each load of a control circuit."""
    for symbol, _, back in coils(project):
        yield FaultPlace((symbol.id,), step(Trial.between, back, "lamp"))


@fault("return-cut", "A load without its return", STOP, "unconnected-pin", "loose-end", "dead-end")
def return_cut(project: Project) -> Iterator[FaultPlace]:
    """Yield each load of a control circuit."""
    for symbol, _, back in coils(project):
        yield FaultPlace((symbol.id,), step(Trial.cut, back))


@fault("feed-cut", "A load without its live conductor", STOP, "unconnected-pin", "loose-end", "dead-end")
def feed_cut(project: Project) -> Iterator[FaultPlace]:
    """Yield each load of a control circuit."""
    for symbol, hot, _ in coils(project):
        yield FaultPlace((symbol.id,), step(Trial.cut, hot))


@fault("both-live", "A load with one potential at both ends", STOP, "dead-load", "bridged")
def both_live(project: Project) -> Iterator[FaultPlace]:
    """Yield each load that is switched to its live potential."""
    for symbol, hot, back in coils(project):
        ways = [way for label, way in reached(project, hot).values() if label.side == "live"]
        ends = [link.end for way in ways for link in way.links[-1:]]
        if ends:
            yield FaultPlace((symbol.id,), step(Trial.move, back, ends[0]))


@fault("load-bridged", "A load bridged", FIRE, "bridged", "short-circuit", "joined-potentials")
def load_bridged(project: Project) -> Iterator[FaultPlace]:
    """Yield each load of a control circuit."""
    for symbol, hot, back in coils(project):
        yield FaultPlace((symbol.id,), step(Trial.join, hot, back))


@fault("contact-bridged", "A contact bridged", MOTION, "bridged")
def contact_bridged(project: Project) -> Iterator[FaultPlace]:
    """Yield each contact."""
    for symbol, a, b in contacts(project):
        if potential_of(project, a).key != potential_of(project, b).key:
            yield FaultPlace((symbol.id,), step(Trial.join, a, b))


@fault("chain-bridged", "Two contacts bridged together", MOTION, "bridged-together", "two-channel", "bridged")
def chain_bridged(project: Project) -> Iterator[FaultPlace]:
    """Yield each pair of contacts one after another."""
    for one, other, a, b in chains(project):
        if one.id < other.id:
            yield FaultPlace((one.id, other.id), step(Trial.join, a, b))


def _stops(project: Project, coil: Symbol) -> list[Symbol]:
    """Return what opens the way of a coil and is no contact of an overload or contactor."""
    found = []
    for pin in (0, 1):
        for _, way in reached(project, (coil.id, pin)).values():
            for link in way.links:
                symbol = project.symbols[link.start[0]]
                if link.sort in ("no", "nc") and base_at(project, symbol) not in ("overload", "contactor"):
                    found.append(symbol)
    return found


@fault("stop-gone", "A stop left out of a latch", MOTION, "latch-held")
def stop_gone(project: Project) -> Iterator[FaultPlace]:
    """Yield each coil that holds itself and has one stop in its way."""
    for coil, latch in latches(project):
        stops = [s for s in _stops(project, coil) if s.id != latch.id]
        ends = {potential_of(project, (latch.id, n)).key for n in (0, 1)}
        alone = [s for s in stops if {potential_of(project, (s.id, n)).key for n in (0, 1)} != ends]
        if len(alone) == 1 and alone[0].device_id != coil.device_id:
            yield FaultPlace((coil.id, alone[0].id), step(Trial.delete, alone[0].id))


@fault("latch-past-stop", "A latch that leads past the stop", MOTION, "latch-held")
def latch_past_stop(project: Project) -> Iterator[FaultPlace]:
    """Yield each coil that holds itself, with no stop between its latch and itself."""
    for coil, latch in latches(project):
        live = [w for label, w in reached(project, (coil.id, 0)).values() if label.side == "live"]
        if not live or not live[0].links:
            continue
        away, near = _sides(project, latch, coil)
        order = {key: n for n, key in enumerate(live[0].through)}
        before = live[0].links[: order.get(potential_of(project, near).key, 0)]
        stops = [k for k in before if base_at(project, project.symbols[k.start[0]]) not in ("overload", "contactor")]
        end = live[0].links[-1].end
        if not stops and potential_of(project, away).key not in (potential_of(project, end).key, live[0].through[0]):
            yield FaultPlace((coil.id, latch.id), step(Trial.move, away, end))


def _sides(project: Project, latch: Symbol, coil: Symbol) -> tuple[PinKey, PinKey]:
    """Return the pins of a latch, the one away from its coil first."""
    live = [w for label, w in reached(project, (coil.id, 0)).values() if label.side == "live"]
    order = {key: n for n, key in enumerate(live[0].through)} if live else {}
    pins = [(latch.id, 0), (latch.id, 1)]
    pins.sort(key=lambda pin: -order.get(potential_of(project, pin).key, 99))
    return pins[0], pins[1]


@fault("overload-contact-gone", "The contact of an overload left out of its coil's way", FIRE, "overload-contact")
def overload_contact_gone(project: Project) -> Iterator[FaultPlace]:
    """Yield each contact of an overload that opens a coil."""
    for symbol, _, _ in contacts(project):
        if base_at(project, symbol) == "overload" and definition(symbol.definition).unit == "nc":
            yield FaultPlace((symbol.id, *_heaters(project, symbol)), step(Trial.delete, symbol.id))


def _heaters(project: Project, symbol: Symbol) -> list[str]:
    return [s.id for s in project.units_of(symbol.device_id) if definition(s.definition).unit == "heater"]


@fault("overload-contact-other", "The contact of another overload in a coil's way", FIRE, "overload-contact")
def overload_contact_other(project: Project) -> Iterator[FaultPlace]:
    """Yield each contact of an overload where there is another overload."""
    found = [s for s, _, _ in contacts(project) if base_at(project, s) == "overload"]
    for one in found:
        other = next((s for s in found if s.device_id != one.device_id), None)
        if other:
            spot = (one.id, *_heaters(project, one))
            yield FaultPlace(spot, step(Trial.change, "symbol", one.id, device_id=other.device_id))


def _interlocks(project: Project) -> Iterator[tuple[Symbol, Symbol]]:
    """Yield the contacts by which a contactor keeps another one off that feeds the same motor, and that one's coil."""
    behind = {s.device_id: {potential_of(project, (s.id, n)).key for n in (1, 3, 5)} for s in driven(project)}
    for coil in drawn(project, "coil"):
        for pin in (0, 1):
            for _, way in reached(project, (coil.id, pin)).values():
                for link in way.links:
                    shared = behind.get(link.device_id, set()) & behind.get(coil.device_id, set())
                    if link.sort == "nc" and link.device_id != coil.device_id and shared:
                        yield project.symbols[link.start[0]], coil


@fault("interlock-gone", "The interlock of two contactors left out", FIRE, "interlock")
def interlock_gone(project: Project) -> Iterator[FaultPlace]:
    """Yield each contact that interlocks."""
    for symbol, _ in _interlocks(project):
        yield FaultPlace((symbol.id,), step(Trial.delete, symbol.id))


@fault("interlock-own", "A contactor interlocked by its own contact", STOP, "interlock")
def interlock_own(project: Project) -> Iterator[FaultPlace]:
    """Yield each contact that interlocks, and the coil in whose way it is."""
    for symbol, coil in _interlocks(project):
        yield FaultPlace((symbol.id, coil.id), step(Trial.change, "symbol", symbol.id, device_id=coil.device_id))


@fault("contact-nobodys", "A contact that belongs to no device", REWORK, "no-device")
def contact_nobodys(project: Project) -> Iterator[FaultPlace]:
    """Yield each contact of a relay or contactor."""
    for symbol in drawn(project, "no", "nc"):
        if symbol.definition in ("contact-no", "contact-nc"):
            yield FaultPlace((symbol.id,), step(Trial.change, "symbol", symbol.id, device_id=""))


def _channels(project: Project) -> Iterator[tuple[Symbol, dict[str, PinKey]]]:
    for symbol in drawn(project, "block", "pins"):
        pins = {name: (symbol.id, n) for n, name in enumerate(pins_of(project, symbol))}
        ends = ("S11", "S12", "S21", "S22")
        if all(name in pins and is_wired(project, pins[name]) for name in ends):
            yield symbol, pins


@fault("channels-joined", "Two channels of a safety device joined", MOTION, "two-channel")
def channels_joined(project: Project) -> Iterator[FaultPlace]:
    """Yield each safety device."""
    for symbol, pins in _channels(project):
        yield FaultPlace((symbol.id,), step(Trial.join, pins["S12"], pins["S22"]))


@fault("channels-crossed", "Two channels of a safety device changed over", STOP, "two-channel")
def channels_crossed(project: Project) -> Iterator[FaultPlace]:
    """Yield each safety device."""
    for symbol, pins in _channels(project):
        yield FaultPlace((symbol.id,), step(Trial.exchange, pins["S12"], pins["S22"]))


@fault("channel-bridged", "A channel of a safety device bridged", MOTION, "two-channel", "bridged-together")
def channel_bridged(project: Project) -> Iterator[FaultPlace]:
    """Yield each channel."""
    for symbol, pins in _channels(project):
        for a, b in (("S11", "S12"), ("S21", "S22")):
            yield FaultPlace((symbol.id,), step(Trial.join, pins[a], pins[b]))


@fault("channel-open", "A channel of a safety device not wired back", STOP, "two-channel")
def channel_open(project: Project) -> Iterator[FaultPlace]:
    """Yield each channel."""
    for symbol, pins in _channels(project):
        for name in ("S12", "S22"):
            yield FaultPlace((symbol.id,), step(Trial.cut, pins[name]))


@fault("channel-single", "An emergency stop or guard in one channel alone", MOTION, "two-channel")
def channel_single(project: Project) -> Iterator[FaultPlace]:
    """Yield each contact between the pins of a channel."""
    for symbol, pins in _channels(project):
        keys = {potential_of(project, pins[name]).key for name in ("S11", "S12", "S21", "S22")}
        for contact, a, b in contacts(project):
            if keys & {potential_of(project, a).key, potential_of(project, b).key}:
                yield FaultPlace((contact.id, symbol.id), step(Trial.delete, contact.id))


@fault("channels-one-contact", "Both channels of a safety device through one contact", MOTION, "two-channel")
def channels_one_contact(project: Project) -> Iterator[FaultPlace]:
    """Yield each safety device."""
    for symbol, pins in _channels(project):
        yield FaultPlace((symbol.id,), step(_through_one, pins))


def _through_one(trial: Trial, pins: dict[str, PinKey]) -> None:
    trial.move(pins["S21"], pins["S11"])
    trial.move(pins["S22"], pins["S12"])
