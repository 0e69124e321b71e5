"""What lies between the members of a trace: conductors and terminals in order, their sizes, lengths and drops."""

from __future__ import annotations

from collections import deque
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from jolly_core.cables import cable_drop, cable_length_m, copper_of, cored, number_of
from jolly_core.checks import input_volts
from jolly_core.circuits import Potential
from jolly_core.library import definition
from jolly_core.making import dossiers_from
from jolly_core.model import Cable, Project, RuleError, Symbol, long_words
from jolly_core.sizing import voltage_drop
from jolly_core.wiring import Conductor, PinKey, conductors_at

from .tracemembers import is_terminal_at

THREE = 3
USUAL_POWER_FACTOR = 0.85  # of a loaded three-phase motor
Passed = Conductor | Symbol  # a conductor that is passed, or a terminal


@dataclass(slots=True, frozen=True)
class FeedFigures:
    """How a load is fed: current in A and voltage in V, 0 while it is not known, power factor, 1 or 3 phases."""

    amps: float
    volts: float
    power_factor: float
    phases: int


def drawn_by(project: Project, load: Symbol, amps: float) -> FeedFigures:
    """Return how a load is fed: by what it is switched to, else by what its part says."""
    device = project.devices.get(load.device_id)
    part = project.part_of(device) if device else None
    found = input_volts(project, load)
    volts = found[0][0] if found else number_of(part, "voltage_v")
    shape = definition(load.definition)
    if shape.unit == "motor" and len(shape.pins) >= THREE:
        return FeedFigures(amps, volts, number_of(part, "power_factor") or USUAL_POWER_FACTOR, THREE)
    return FeedFigures(amps, volts, 1.0, 1)


def way_between(project: Project, on: Potential, starts: Iterable[PinKey], goals: set[PinKey]) -> list[Passed] | None:
    """Return what is passed on a potential from some pins to others, by the fewest conductors; None for no way.

    Terminals are passed where they carry, and over the bridges of their strip.
    """
    there = set(on.pins)
    strips: dict[str, list[PinKey]] = {}
    for pin in sorted(there):
        if is_terminal_at(project, pin[0]):
            strips.setdefault(project.symbols[pin[0]].device_id, []).append(pin)
    before: dict[PinKey, tuple[PinKey, Conductor | None]] = {}
    waiting = deque(starts)
    seen = set(waiting)
    while waiting:
        here = waiting.popleft()
        if here in goals:
            return _passed(project, before, here)
        for pin, conductor in _beside(project, here, strips):
            if pin in there and pin not in seen:
                seen.add(pin)
                before[pin] = (here, conductor)
                waiting.append(pin)
    return None


def _beside(
    project: Project, here: PinKey, strips: dict[str, list[PinKey]]
) -> Iterator[tuple[PinKey, Conductor | None]]:
    for c in conductors_at(project, here):
        yield c.other(here), c
    symbol = project.symbols[here[0]]
    if not is_terminal_at(project, here[0]):
        return
    for n in range(len(definition(symbol.definition).pins) * len(symbol.units)):
        yield (symbol.id, n), None
    for bridge in project.naming("bridge", "strip_id", symbol.device_id):
        if symbol.units[0] in bridge.units:
            for pin in strips.get(symbol.device_id, ()):
                if project.symbols[pin[0]].units[0] in bridge.units:
                    yield pin, None


def _passed(project: Project, before: dict[PinKey, tuple[PinKey, Conductor | None]], last: PinKey) -> list[Passed]:
    """Return conductors, and terminals at whose pins the way comes past, in order."""
    steps: list[Passed] = []
    here = last
    while here in before:
        terminal = project.symbols[here[0]] if is_terminal_at(project, here[0]) else None
        if here != last and terminal is not None and (not steps or steps[-1] is not terminal):
            steps.append(terminal)
        here, conductor = before[here]
        if conductor is not None:
            steps.append(conductor)
    return steps[::-1]


def cable_with(project: Project, c: Conductor) -> Cable | None:
    """Return the cable that a conductor is a core of, None where it is in none."""
    device_id, _ = cored(project).get(c.key, ("", None)) if project.cables else ("", None)
    return next((project.cables[id] for id in project.attached.get(device_id) if id in project.cables), None)


def length_m(project: Project, c: Conductor) -> float | None:
    """Return how long a conductor is, m: as long as its cable, or as it is cut; None while that is not known."""
    cable = cable_with(project, c)
    if cable is not None:
        return cable_length_m(project, cable)[0] or None
    dossier = dossiers_from(project, c.net[0].sheet_id).get(c.key)
    if dossier is None or dossier.runs == "direct":
        return 0.0 if dossier else None
    return dossier.length_mm / 1000 if dossier.length_mm is not None else None


class Drops:
    """Voltage drops on the way to a load in percent of its voltage; each is worked out once."""

    def __init__(self, project: Project, drawn: FeedFigures) -> None:
        self.project, self._drawn = project, drawn
        self._known: dict[str, float | None] = {}

    def over(self, c: Conductor) -> float | None:
        """Return the voltage drop over a conductor, %; None while something of it is not known.

        A cable drops what is said of it with its own load. The return of direct current and of one phase is in it.
        """
        cable = cable_with(self.project, c)
        key = cable.id if cable is not None else c.key
        if key not in self._known:
            self._known[key] = self._of_cable(cable, c) if cable is not None else self._of_wire(c)
        return self._known[key]

    def _of_cable(self, cable: Cable, c: Conductor) -> float | None:
        try:
            return cable_drop(self.project, cable).percent
        except RuleError:
            return self._of_wire(c)

    def _of_wire(self, c: Conductor) -> float | None:
        length, drawn = length_m(self.project, c), self._drawn
        if length == 0:
            return 0.0
        try:
            return voltage_drop(
                current_a=drawn.amps,
                length_m=length or 0.0,
                area_mm2=copper_of(self.project, c).area_mm2,
                voltage_v=drawn.volts,
                power_factor=drawn.power_factor,
                phases=drawn.phases,
            ).percent
        except RuleError:
            return None


def wires_in_words(project: Project, conductors: Iterable[Conductor]) -> str:
    """Return size and length of wires one behind the other, "2.5 mm², 0.8 m"; "" for none."""
    conductors = list(conductors)
    sizes = list(dict.fromkeys(size for c in conductors if (size := copper_of(project, c).size)))
    lengths = [length_m(project, c) for c in conductors]
    if not conductors or not sizes:
        return ""
    known = sum(length for length in lengths if length is not None)
    words = long_words(project, round(known, 3)) if None not in lengths else "length not known yet"
    return f"{' and '.join(sizes)}, {words}"


def so_far_in_words(drops: Iterable[float | None]) -> str:
    """Return a voltage drop up to somewhere, "1.2 %", "at least 1.2 %" where some is not known, "" where nothing is.

    Example:
        >>> so_far_in_words([7.0, 3.9]), so_far_in_words([1.2, None]), so_far_in_words([None])
        ('10.9 %', 'at least 1.2 %', '')
    """
    drops = list(drops)
    known = [d for d in drops if d is not None]
    if not known:
        return ""
    return f"{'at least ' if len(known) < len(drops) else ''}{sum(known):.1f} %"
