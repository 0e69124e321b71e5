"""Faults of protective conductors, returns, neutrals and sources."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.circuits import base_at, earths_on, outputs_on, potential_of, residual_devices
from jolly_core.drawing import pin_points
from jolly_core.library import definition
from jolly_core.model import Project, Symbol
from jolly_core.tagging import pins_of
from jolly_core.wiring import PinKey

from .places import coils, drawn, earth_pin, is_wired, mark_on, marks, motors
from .trials import FaultPlace, Trial, fault, step, wires_at

SHOCK, STOP, REWORK = "fire or shock", "standstill", "rework"
LIVE_ON_PE = ("protective-joined", "joined-potentials", "protective-pin", "protective-switched", "short-circuit")


def _earthed(project: Project) -> Iterator[tuple[Symbol, PinKey]]:
    for symbol in drawn(project, "motor", "load", "block", "pins", "supply", "transformer"):
        pin = earth_pin(project, symbol)
        if pin is not None:
            yield symbol, pin


def _type_of(project: Project, category: str) -> str:
    return next((t.id for t in project.wire_types.values() if t.category == category), "")


def _pe_wires(project: Project, pin: PinKey) -> list[str]:
    """Return the longest wire of the protective conductor at a pin's potential on its own sheet."""
    sheet_id = project.symbols[pin[0]].sheet_id
    wires = [project.wires[id] for g in potential_of(project, pin).groups if g.sheet_id == sheet_id for id in g.wires]
    wires.sort(key=lambda w: (-(abs(w.x2 - w.x1) + w.y2 - w.y1), w.id))
    return [w.id for w in wires[:1]]


@fault("phase-on-earth", "A live conductor joined with a protective one", SHOCK, *LIVE_ON_PE)
def phase_on_earth(project: Project) -> Iterator[FaultPlace]:
    """Yield each load with both."""
    for symbol, pin in _earthed(project):
        if is_wired(project, (symbol.id, 0)) and pin[1] != 0:
            yield FaultPlace((symbol.id,), step(Trial.join, (pin[0], 0), pin))


@fault("pe-cut", "A protective conductor not wired to its load", SHOCK, "pe-missing", "pe-open")
def pe_cut(project: Project) -> Iterator[FaultPlace]:
    """Yield each load with a protective conductor."""
    for symbol, pin in _earthed(project):
        yield FaultPlace((symbol.id,), step(Trial.cut, pin))


@fault("pe-ends", "A protective conductor that ends before the earth bar", SHOCK, "pe-open", "pe-missing")
def pe_ends(project: Project) -> Iterator[FaultPlace]:
    """Yield each load whose protective conductor goes on to another sheet by a mark on its own."""
    for symbol, pin in _earthed(project):
        own = [m for m in marks(project) if m.sheet_id == symbol.sheet_id]
        ids = {id for g in potential_of(project, pin).groups if g.sheet_id == symbol.sheet_id for id in g.continuations}
        near = [
            m for m in own if m.id in ids and any(w.x1 == w.x2 == m.x for w in wires_at(project, m.sheet_id, m.x, m.y))
        ]
        near = [m for m in near if m.x == _point(project, pin)[0]]
        hubs = {p[0] for p in earths_on(project, potential_of(project, pin))}
        if near and not any(project.symbols[id].sheet_id == symbol.sheet_id for id in hubs):
            yield FaultPlace((symbol.id, near[0].id), step(Trial.drop, "continuation", near[0].id))


@fault(
    "pe-misnamed",
    "A protective conductor with a name that leads nowhere",
    SHOCK,
    "pe-open",
    "pe-missing",
    "unpaired-continuation",
)
def pe_misnamed(project: Project) -> Iterator[FaultPlace]:
    """Yield each mark of the protective conductor beside others of its name."""
    for mark in marks(project, "PE"):
        yield FaultPlace((mark.id,), step(Trial.change, "continuation", mark.id, name="M17"))


@fault("pe-on-neutral", "A protective conductor on the neutral", SHOCK, *LIVE_ON_PE, "neutral-type")
def pe_on_neutral(project: Project) -> Iterator[FaultPlace]:
    """Yield each mark of the protective conductor where there is a neutral."""
    if any(True for _ in marks(project, "N")):
        for mark in marks(project, "PE"):
            yield FaultPlace((mark.id,), step(Trial.change, "continuation", mark.id, name="N"))


@fault("pe-switched", "A contact in a protective conductor", SHOCK, "protective-switched")
def pe_switched(project: Project) -> Iterator[FaultPlace]:
    """Yield each load with a protective conductor."""
    for symbol, pin in _earthed(project):
        yield FaultPlace((symbol.id,), step(Trial.between, pin, "contact-no"))


@fault("pe-fused", "A fuse in a protective conductor", SHOCK, "protective-switched")
def pe_fused(project: Project) -> Iterator[FaultPlace]:
    """Yield each load with a protective conductor."""
    for symbol, pin in _earthed(project):
        yield FaultPlace((symbol.id,), step(Trial.between, pin, "fuse", poles=1))


@fault("pe-plain-terminal", "A plain terminal for the protective conductor", REWORK, "earth-terminal", "pe-open")
def pe_plain_terminal(project: Project) -> Iterator[FaultPlace]:
    """Yield each earth terminal."""
    for symbol in drawn(project, "terminal"):
        if symbol.definition == "terminal-earth" and is_wired(project, (symbol.id, 0)):
            yield FaultPlace((symbol.id,), step(Trial.change, "symbol", symbol.id, definition="terminal"))


@fault(
    "pe-through-block",
    "A protective conductor led through a pin that is not for it",
    SHOCK,
    "protective-pin",
    "pe-open",
    "protective-joined",
    "joined-potentials",
)
def pe_through_block(project: Project) -> Iterator[FaultPlace]:
    """Yield each load with a protective conductor; it is led to a pin of a block drawn beside."""
    for symbol, pin in _earthed(project):
        yield FaultPlace((symbol.id,), step(_to_block, pin))


def _to_block(trial: Trial, pin: PinKey) -> None:
    trial.move(pin, (trial.beside(pin, "four-wire-sensor"), 1))


@fault("pe-type", "A protective conductor drawn as a live one", REWORK, "protective-joined", "protective-pin")
def pe_type(project: Project) -> Iterator[FaultPlace]:
    """Yield each load with a protective conductor."""
    power = _type_of(project, "power")
    for symbol, pin in _earthed(project):
        ids = _pe_wires(project, pin)
        if power and ids:
            yield FaultPlace((symbol.id, *ids), step(Trial.do, "set-wire-type", ids=ids, wire_type_id=power))


@fault(
    "live-type",
    "A live conductor drawn as a protective one",
    SHOCK,
    "protective-joined",
    "protective-pin",
    "protective-switched",
    "earth-terminal",
)
def live_type(project: Project) -> Iterator[FaultPlace]:
    """Yield each motor."""
    pe = _type_of(project, "pe")
    for motor in motors(project):
        ids = _pe_wires(project, (motor.id, 0))
        if pe and ids:
            yield FaultPlace((motor.id, *ids), step(Trial.do, "set-wire-type", ids=ids, wire_type_id=pe))


def _sources(project: Project) -> Iterator[tuple[Symbol, dict[str, PinKey]]]:
    """Yield supplies and transformers with their wired outputs by name."""
    for symbol in drawn(project, "supply", "transformer"):
        outputs = {}
        for n, name in enumerate(pins_of(project, symbol)):
            on = set(outputs_on(project, potential_of(project, (symbol.id, n))))
            if (symbol.device_id, name) in on and is_wired(project, (symbol.id, n)):
                outputs[name] = (symbol.id, n)
        if len(outputs) == 2:
            yield symbol, outputs


@fault("source-shorted", "Both outputs of a source joined", SHOCK, "joined-potentials", "short-circuit", "bridged")
def source_shorted(project: Project) -> Iterator[FaultPlace]:
    """Yield each source."""
    for symbol, outputs in _sources(project):
        yield FaultPlace((symbol.id,), step(Trial.join, *outputs.values()))


@fault(
    "source-on-mains",
    "A control voltage joined with a phase",
    SHOCK,
    "joined-potentials",
    "short-circuit",
    "consumer-voltage",
)
def source_on_mains(project: Project) -> Iterator[FaultPlace]:
    """Yield each source that is fed."""
    for symbol, outputs in _sources(project):
        if is_wired(project, (symbol.id, 0)):
            yield FaultPlace((symbol.id,), step(Trial.join, (symbol.id, 0), next(iter(outputs.values()))))


@fault("source-on-earth", "A live control conductor joined with the protective one", SHOCK, *LIVE_ON_PE, "return-earth")
def source_on_earth(project: Project) -> Iterator[FaultPlace]:
    """Yield each source beside a protective conductor."""
    earth = next((pin for _, pin in _earthed(project)), None)
    for symbol, outputs in _sources(project):
        if earth and "+" in outputs:
            yield FaultPlace((symbol.id, earth[0]), step(Trial.join, outputs["+"], earth))


@fault(
    "source-turned",
    "Both outputs of a source changed over",
    STOP,
    "joined-potentials",
    "short-circuit",
    "channel-direction",
    "return-switched",
    "unprotected-source",
    "protective-joined",
)
def source_turned(project: Project) -> Iterator[FaultPlace]:
    """Yield each source whose outputs have names."""
    for symbol, outputs in _sources(project):
        if "+" in outputs and any(mark_on(project, potential_of(project, pin)) for pin in outputs.values()):
            yield FaultPlace((symbol.id,), step(Trial.exchange, *outputs.values()))


@fault("source-unearthed", "The return of a control circuit not earthed", SHOCK, "return-unearthed")
def source_unearthed(project: Project) -> Iterator[FaultPlace]:
    """Yield each source whose return is joined with the protective conductor by drawn wires."""
    for symbol, outputs in _sources(project):
        for pin in outputs.values():
            potential = potential_of(project, pin)
            wires = [id for g in potential.groups for id in g.wires]
            green = [id for id in wires if project.wire_types[project.wires[id].type_id].category == "pe"]
            if green and potential.returns:
                yield FaultPlace((symbol.id,), step(Trial.drop_all, "wire", green))


@fault(
    "return-on-earth", "A load whose return is wired to the protective conductor", SHOCK, *LIVE_ON_PE, "return-earth"
)
def return_on_earth(project: Project) -> Iterator[FaultPlace]:
    """Yield each load of a control circuit."""
    earth = next((pin for _, pin in _earthed(project)), None)
    for symbol, _, back in coils(project):
        if earth:
            yield FaultPlace((symbol.id, earth[0]), step(Trial.move, back, earth))


@fault("contact-in-return", "A contact in the return of a load", SHOCK, "return-switched")
def contact_in_return(project: Project) -> Iterator[FaultPlace]:
    """Yield each load of a control circuit."""
    for symbol, _, back in coils(project):
        yield FaultPlace((symbol.id,), step(Trial.between, back, "button-no"))


@fault("fuse-in-return", "A fuse in the return of a load", SHOCK, "return-switched")
def fuse_in_return(project: Project) -> Iterator[FaultPlace]:
    """Yield each load of a control circuit."""
    for symbol, _, back in coils(project):
        yield FaultPlace((symbol.id,), step(Trial.between, back, "fuse", poles=1))


@fault(
    "breaker-in-return", "A breaker in the return of a source alone", SHOCK, "return-switched", "protective-switched"
)
def breaker_in_return(project: Project) -> Iterator[FaultPlace]:
    """Yield each supply."""
    for symbol, outputs in _sources(project):
        if "-" in outputs:
            yield FaultPlace((symbol.id,), step(Trial.between, outputs["-"], "breaker", poles=1))


def _neutrals(project: Project) -> Iterator[tuple[Symbol, PinKey]]:
    for symbol in drawn(project, "load", "motor", "supply", "transformer"):
        for n, name in enumerate(pins_of(project, symbol)):
            if name == "N" and is_wired(project, (symbol.id, n)):
                yield symbol, (symbol.id, n)


@fault("neutral-past", "A neutral led past the residual-current device of its phase", SHOCK, "neutral-elsewhere")
def neutral_past(project: Project) -> Iterator[FaultPlace]:
    """Yield each load behind a residual-current device."""
    mark = next(iter(marks(project, "N")), None)
    for symbol, pin in _neutrals(project):
        if mark and residual_devices(project, potential_of(project, pin))[0]:
            yield FaultPlace((symbol.id,), step(_to_mark, pin, mark.name))


def _to_mark(trial: Trial, pin: PinKey, name: str) -> None:
    trial.cut(pin)
    mark = next(m for m in marks(trial.project, name))
    trial.join(pin, (mark.sheet_id, mark.x, mark.y))


@fault("neutral-fused", "A fuse in the neutral of a load", SHOCK, "return-switched")
def neutral_fused(project: Project) -> Iterator[FaultPlace]:
    """Yield each load with a neutral."""
    for symbol, pin in _neutrals(project):
        yield FaultPlace((symbol.id,), step(Trial.between, pin, "fuse", poles=1))


@fault("neutral-opened", "A breaker in the neutral of a load alone", SHOCK, "return-switched")
def neutral_opened(project: Project) -> Iterator[FaultPlace]:
    """Yield each load with a neutral."""
    for symbol, pin in _neutrals(project):
        yield FaultPlace((symbol.id,), step(Trial.between, pin, "breaker", poles=1))


@fault(
    "neutral-on-earth",
    "A neutral behind a residual-current device joined with the protective conductor",
    SHOCK,
    *LIVE_ON_PE,
)
def neutral_on_earth(project: Project) -> Iterator[FaultPlace]:
    """Yield each load with a neutral and a protective conductor."""
    for symbol, pin in _neutrals(project):
        earth = earth_pin(project, symbol)
        if earth:
            yield FaultPlace((symbol.id,), step(Trial.join, pin, earth))


@fault("residual-bridged", "A pole of a residual-current device bridged", SHOCK, "bridged")
def residual_bridged(project: Project) -> Iterator[FaultPlace]:
    """Yield each pole of a residual-current device."""
    for symbol in drawn(project, "pole"):
        if base_at(project, symbol) == "residual-current" and definition(symbol.definition).pins:
            yield FaultPlace((symbol.id,), step(Trial.join, (symbol.id, 0), (symbol.id, 1)))


@fault("neutral-type", "A neutral drawn as a phase", REWORK, "neutral-type")
def neutral_type(project: Project) -> Iterator[FaultPlace]:
    """Yield each load with a neutral."""
    types = {t.name: t.id for t in project.wire_types.values() if t.category == "power"}
    other = next((id for name, id in sorted(types.items()) if name != "N"), "")
    for symbol, pin in _neutrals(project):
        sheet_id, (x, y) = symbol.sheet_id, _point(project, pin)
        ids = [w.id for w in wires_at(project, sheet_id, x, y) if project.wire_types[w.type_id].name == "N"]
        if ids and other:
            yield FaultPlace((symbol.id, *ids), step(Trial.do, "set-wire-type", ids=ids, wire_type_id=other))


def _point(project: Project, pin: PinKey) -> tuple[int, int]:
    return pin_points(project.symbols[pin[0]])[pin[1]]
