"""Where faults can be made: loads, poles, contacts and marks of a project, by what they are there for."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.circuits import (
    DRIVEN,
    Potential,
    base_at,
    fed_by,
    is_guard,
    links_at,
    links_of,
    potential_of,
    reached,
)
from jolly_core.library import definition
from jolly_core.model import Continuation, Project, Symbol
from jolly_core.tagging import pins_of
from jolly_core.wiring import PinKey

CONTACTS = ("no", "nc")
_NEAR = 40  # potentials looked at around a coil


def drawn(project: Project, *units: str) -> Iterator[Symbol]:
    """Yield the symbols of some kinds of unit that belong to a device, in order."""
    for id in sorted(project.symbols):
        symbol = project.symbols[id]
        if symbol.device_id and definition(symbol.definition).unit in units:
            yield symbol


def motors(project: Project) -> Iterator[Symbol]:
    """Yield the motors on three phases whose first pin is wired."""
    for symbol in drawn(project, "motor"):
        if len(pins_of(project, symbol)) >= 4 and is_wired(project, (symbol.id, 0)):
            yield symbol


def coils(project: Project) -> Iterator[tuple[Symbol, PinKey, PinKey]]:
    """Yield coils, lamps and other two-ended loads that are wired, with their live and their return pin."""
    for symbol in drawn(project, "coil", "lamp", "load"):
        ends = [(symbol.id, 0), (symbol.id, 1)]
        sides = [{label.side for label, _ in reached(project, pin).values()} for pin in ends]
        if sides == [{"live"}, {"return"}]:
            yield symbol, ends[0], ends[1]
        elif sides == [{"return"}, {"live"}]:
            yield symbol, ends[1], ends[0]


def is_wired(project: Project, pin: PinKey) -> bool:
    """Return whether something else is on the potential of a pin."""
    return len(list(potential_of(project, pin).pins)) > 1


def earth_pin(project: Project, symbol: Symbol) -> PinKey | None:
    """Return the wired pin of a symbol for the protective conductor."""
    pins = ((symbol.id, n) for n, name in enumerate(pins_of(project, symbol)) if name.upper() == "PE")
    return next((pin for pin in pins if is_wired(project, pin)), None)


def guards(project: Project) -> Iterator[Symbol]:
    """Yield what protects something: on its load side there is more."""
    for symbol in drawn(project, "pole"):
        plain = base_at(project, symbol) != "residual-current"
        if plain and is_guard(project, symbol) and all(is_wired(project, (symbol.id, n)) for n in (0, 1)):
            yield symbol


def last_guards(project: Project) -> set[str]:
    """Return the protective devices that are the last one in front of a load, by symbol."""
    found: set[str] = set()
    for symbol in drawn(project, "motor", "supply", "transformer", "load", "coil", "lamp"):
        for n, name in enumerate(pins_of(project, symbol)):
            if name.upper() not in ("PE", "N"):
                fed = fed_by(project, potential_of(project, (symbol.id, n)), lambda s: is_guard(project, s))
                found |= fed.met.keys()
    return found


def guard_of(project: Project, load: PinKey) -> PinKey | None:
    """Return the line pin of the one device that protects a pin."""
    met = fed_by(project, potential_of(project, load), lambda s: is_guard(project, s)).met
    return next(iter(met.values())) if len(met) == 1 else None


def poles(project: Project, *bases: str) -> Iterator[tuple[Symbol, PinKey, PinKey]]:
    """Yield the poles of devices of some base classes, with their pins, both wired."""
    for symbol in drawn(project, "pole", "heater", *CONTACTS):
        if base_at(project, symbol) in bases:
            for link in links_of(project, symbol):
                if potential_of(project, link.start).key != potential_of(project, link.end).key:
                    yield symbol, link.start, link.end


def contacts(project: Project) -> Iterator[tuple[Symbol, PinKey, PinKey]]:
    """Yield contacts between two potentials, with their pins."""
    for symbol in drawn(project, *CONTACTS):
        if all(is_wired(project, (symbol.id, n)) for n in (0, 1)):
            yield symbol, (symbol.id, 0), (symbol.id, 1)


def chains(project: Project) -> Iterator[tuple[Symbol, Symbol, PinKey, PinKey]]:
    """Yield two contacts one after another with nothing between them, and the pins at the ends of both."""
    for symbol in drawn(project, *CONTACTS):
        for pin in ((symbol.id, 0), (symbol.id, 1)):
            middle = potential_of(project, pin)
            links = links_at(project, middle)
            if middle.label is not None or len(links) != 2 or len(list(middle.pins)) != 2:
                continue
            one, other = (link for link, _ in links)
            if one.start[0] == symbol.id and {one.sort, other.sort} <= set(CONTACTS):
                yield symbol, project.symbols[other.start[0]], one.end, other.end


def latches(project: Project) -> Iterator[tuple[Symbol, Symbol]]:
    """Yield coils with a contact of their own in the way that feeds them, and that contact."""
    for coil in drawn(project, "coil"):
        for symbol in project.units_of(coil.device_id):
            if definition(symbol.definition).unit == "no" and _leads_to(project, symbol, coil):
                yield coil, symbol


def _leads_to(project: Project, contact: Symbol, coil: Symbol) -> bool:
    """Return whether both ends of a contact are in the circuit of a coil."""
    keys = {potential_of(project, (contact.id, n)).key for n in (0, 1)}
    start = potential_of(project, (coil.id, 0))
    seen, waiting = {start.key}, [start]
    while waiting and len(seen) < _NEAR:
        here = waiting.pop()
        if here.label is None:
            for _, there in links_at(project, here):
                if there.key not in seen:
                    seen.add(there.key)
                    waiting.append(there)
    return keys <= seen and len(keys) == 2


def driven(project: Project) -> Iterator[Symbol]:
    """Yield the symbols with the poles of a contactor."""
    for symbol in drawn(project, "pole"):
        if any(link.sort == DRIVEN for link in links_of(project, symbol)):
            yield symbol


def marks(project: Project, *names: str) -> Iterator[Continuation]:
    """Yield the continuations of some names, of all where none is given."""
    for id in sorted(project.continuations):
        mark = project.continuations[id]
        if not names or mark.name in names:
            yield mark


def mark_on(project: Project, potential: Potential) -> Continuation | None:
    """Return a continuation on a potential."""
    ids = sorted(id for group in potential.groups for id in group.continuations)
    return project.continuations[ids[0]] if ids else None
