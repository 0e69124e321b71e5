"""What a pole, heater or fuse carries: the currents of the loads that lie behind it, never those of a neighbour.

Current runs through a pole from its first pin (odd, the line side) to its second one, as poles are numbered (IEC 60445,
EN 50005); one whose second pin is on a source, and its first is not, is fed from below. Behind a pole is what can be
reached from its load side by poles in that direction. Star-delta: what reaches one end of the windings alone is in the
triangle and carries 1 / sqrt(3) of the motor's current, the star contactor a third (I and V both by sqrt(3) less).
"""

from __future__ import annotations

import math
import re
from collections import deque
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field

from jolly_core.library import base_of, definition, number_in
from jolly_core.model import Device, Project, RuleError, Symbol
from jolly_core.sizing import motor_current_a
from jolly_core.tagging import class_of, full_tag, pins_of, tag_order
from jolly_core.wiring import PinKey, potential_in

from .labels import is_output, mains_of
from .loads import primary_a, takes_a
from .ways import THREE_PHASES, Potential, links_of, potential_of

THROUGH = ("pole", "heater")  # units that current passes on its way to a load
TAKING_UNITS = ("load", "supply", "transformer")  # units that take a current of their own, by what their part says
NEAR = 40  # potentials looked at for a load that is fed from below
FARTHEST = 2000  # potentials looked at
IN_TRIANGLE, IN_STAR = 1 / math.sqrt(3), 1 / 3
_FAR_END = re.compile(r"^[UVW]2$", re.IGNORECASE)
_NEAR_END = re.compile(r"^[UVW](1)?$", re.IGNORECASE)
_PASSED_IN, _PASSED_OUT = re.compile(r"L(\d)$", re.IGNORECASE), re.compile(r"T(\d)$", re.IGNORECASE)


@dataclass(slots=True, frozen=True)
class LoadBehind:
    """A load behind a pole, and how much of its current the pole carries.

    Attributes:
        device: it.
        amps: what it takes in all, A; 0 while its part does not say.
        share: the share of it that passes here, 1 but in a star-delta starter.
    """

    device: Device
    amps: float
    share: float = 1.0

    @property
    def here_a(self) -> float:
        """The current of it that passes here, A."""
        return self.amps * self.share


@dataclass(slots=True)
class _Walked:
    """What a walk away from the source came to: pins of motors by device, other loads, devices that pass current on."""

    motors: dict[str, tuple[Symbol, set[str]]] = field(default_factory=dict)
    others: dict[str, Device] = field(default_factory=dict)
    passing: dict[str, Device] = field(default_factory=dict)


def motor_beyond_a(project: Project, symbol_id: str) -> float:
    """Return the current in A of all loads behind a pole that are known, 0 while none is."""
    return round(sum(load.here_a for load in loads_behind(project, symbol_id)), 3)


def loads_behind(project: Project, symbol_id: str) -> list[LoadBehind]:
    """Return the loads behind a pole, heater or fuse, by tag, each once.

    Example:
        a breaker before a contactor before a motor of 1.9 A, beside another breaker with one of 22 A: 1.9 A.
    """
    symbol = project.symbols[symbol_id]
    loads = _starred(project, symbol)
    if not loads:
        found = _Walked()
        for line, load in paths_through(project, symbol):
            from_below = any((line, load) == (link.end, link.start) for link in links_of(project, symbol))
            _walk(project, potential_of(project, load), found, upward=from_below)
        loads = _loads(project, found) or _on_its_line_side(project, symbol)
    return sorted((x for x in loads if x.amps), key=lambda x: tag_order(project, x.device))


def loads_fed(project: Project, pins: Iterable[PinKey]) -> list[LoadBehind]:
    """Return the loads that the potentials of some pins lead to, each with its share; none where one is a source.

    A lead to one end of the windings of a motor that is started in star and delta carries its share alone.
    """
    starts = [potential_of(project, pin) for pin in pins]
    if any(is_source(project, start) for start in starts):
        return []
    found = _Walked()
    for start in starts:
        _walk(project, start, found)
    return [load for load in _loads(project, found) if load.amps]


def loads_in_words(project: Project, loads: list[LoadBehind]) -> str:
    """Return loads as people read them.

    Example:
        "its motor takes 6.5 A" of one; "-MA1 (4.9 A) and -MA2 (1.9 A) behind it take 6.8 A" of several.
    """
    total = sum(load.here_a for load in loads)
    if len(loads) == 1:
        (load,) = loads
        what = "its motor" if base_of(class_of(project, load.device)) == "motor" else full_tag(project, load.device)
        if load.share < 1:
            return f"of the {load.amps:g} A of {what} {total:.3g} A pass it"
        return f"{what} takes {total:g} A"
    told = [f"{full_tag(project, x.device)} ({x.here_a:.4g} A)" for x in loads[:4]]
    more = f", {len(loads) - 4} more" if len(loads) > 4 else ""
    return f"{', '.join(told[:-1])}{more} and {told[-1]} behind it take {total:.4g} A"


def paths_through(project: Project, symbol: Symbol) -> Iterator[tuple[PinKey, PinKey]]:
    """Yield the line and the load pin of each path through a symbol; none of what passes no current on."""
    for link in links_of(project, symbol):
        first, second = (potential_of(project, pin) for pin in (link.start, link.end))
        from_below = (
            is_source(project, second) and not is_source(project, first) and _leads_on(project, symbol, link.start)
        )
        yield (link.end, link.start) if from_below else (link.start, link.end)
    if _passes(project, symbol):
        yield from _pairs_by_name(project, symbol.device_id)


def _leads_on(project: Project, symbol: Symbol, pin: PinKey) -> bool:
    """Return whether a load lies beyond a pin of a symbol, at once or through other poles, and no source before it."""
    start = potential_of(project, pin)
    waiting, seen = deque([start]), {start.key}
    while waiting and len(seen) < NEAR:
        here = waiting.popleft()
        for id, other in here.pins:
            beside = project.symbols[id]
            if beside.id == symbol.id:
                continue
            unit = definition(beside.definition).unit
            if unit in ("motor", *TAKING_UNITS):
                return True
            for link in links_of(project, beside) if unit in THROUGH else []:
                ends = {link.start: link.end, link.end: link.start}
                there = potential_of(project, ends[(id, other)]) if (id, other) in ends else None
                if there is not None and there.key not in seen and not is_source(project, there):
                    seen.add(there.key)
                    waiting.append(there)
    return False


def _passes(project: Project, symbol: Symbol) -> bool:
    device = project.devices.get(symbol.device_id)
    return device is not None and base_of(class_of(project, device)) == "soft-starter"


def _pairs_by_name(project: Project, device_id: str) -> Iterator[tuple[PinKey, PinKey]]:
    """Yield the pins L1 and T1, L2 and T2 ... of a device that hands its current on, whichever symbols have them."""
    ins: dict[str, PinKey] = {}
    outs: dict[str, PinKey] = {}
    for symbol in project.units_of(device_id):
        for pin, name in enumerate(pins_of(project, symbol)):
            for end, found in ((_PASSED_IN, ins), (_PASSED_OUT, outs)):
                if phase := end.search(name):
                    found.setdefault(phase[1], (symbol.id, pin))
    yield from ((ins[phase], outs[phase]) for phase in sorted(ins.keys() & outs))


def is_source(project: Project, potential: Potential) -> bool:
    """Return whether a potential comes from a source: by its name at a continuation, or as the output of one."""
    for group in potential.groups:
        if any(any(potential_in(project.continuations[id].name)) for id in group.continuations):
            return True
    return any(is_output(project, project.symbols[id], pin) for id, pin in potential.pins)


def _walk(project: Project, start: Potential, found: _Walked, *, upward: bool = False) -> bool:
    """Note what lies on a potential and on all that poles lead to from there, away from the source.

    Args:
        upward: by poles that are fed from below.

    Returns:
        whether no source was met.
    """
    waiting, seen, clear = deque([start]), {start.key}, True
    while waiting and len(seen) < FARTHEST:
        here = waiting.popleft()
        clear = clear and not is_source(project, here)
        for pin in here.pins:
            symbol = project.symbols[pin[0]]
            _note(project, symbol, pin[1], found)
            for line, load in paths_through(project, symbol):
                there = potential_of(project, line if upward else load)
                if (load if upward else line) == pin and there.key not in seen:
                    seen.add(there.key)
                    waiting.append(there)
    return clear


def _note(project: Project, symbol: Symbol, pin: int, found: _Walked) -> None:
    device = project.devices.get(symbol.device_id)
    unit = definition(symbol.definition).unit
    name = pins_of(project, symbol)[pin]
    if device is None or name.upper() == "PE":
        return
    if unit == "motor":
        found.motors.setdefault(device.id, (symbol, set()))[1].add(name)
    elif _passes(project, symbol):
        if _PASSED_IN.search(name):
            found.passing[device.id] = device
    elif unit in TAKING_UNITS or base_of(class_of(project, device)) == "drive":
        if is_output(project, symbol, pin):
            return  # its output: it is the source there
        found.others[device.id] = device


def _motors(project: Project, found: _Walked) -> Iterator[tuple[Device, Symbol, set[str]]]:
    for id, (symbol, pins) in found.motors.items():
        found.passing.clear()  # what hands its current on to a motor takes what that does
        yield project.devices[id], symbol, pins


def _loads(project: Project, found: _Walked) -> list[LoadBehind]:
    loads = [LoadBehind(d, _current_of(project, s), _share(project, s, p)) for d, s, p in _motors(project, found)]
    return loads + [_other(project, device) for device in (*found.others.values(), *found.passing.values())]


def _on_its_line_side(project: Project, symbol: Symbol) -> list[LoadBehind]:
    """Return the loads on the line side of a pole that another pole feeds from below; none where a source is there."""
    found = _Walked()
    for line, _ in paths_through(project, symbol):
        if not _walk(project, potential_of(project, line), found, upward=True):
            return []
    return _loads(project, found)


def _share(project: Project, motor: Symbol, pins: set[str]) -> float:
    """Return the share of a motor's current that comes to some of its pins: all of it but in the triangle."""
    far, near = (any(end.match(name) for name in pins) for end in (_FAR_END, _NEAR_END))
    six = any(_FAR_END.match(name) for name in pins_of(project, motor))
    return IN_TRIANGLE if six and far != near else 1.0


def _starred(project: Project, symbol: Symbol) -> list[LoadBehind]:
    """Return the motors whose far ends the poles of a symbol join to a star, whichever way up it is drawn."""
    paths = [tuple(potential_of(project, pin) for pin in path) for path in paths_through(project, symbol)]
    sides = list(zip(*paths, strict=True)) if len(paths) > 1 else []
    for side, other in zip(sides, reversed(sides), strict=True):
        if len({p.key for p in other}) > 1 or not any(p.at_motor for p in side):
            continue
        found = _Walked()
        for pin in (pin for p in side for pin in p.pins):
            motor = project.symbols[pin[0]]
            if definition(motor.definition).unit == "motor" and _FAR_END.match(pins_of(project, motor)[pin[1]]):
                _note(project, motor, pin[1], found)
        return [LoadBehind(d, _current_of(project, s), IN_STAR) for d, s, _ in _motors(project, found)]
    return []


def _other(project: Project, device: Device) -> LoadBehind:
    part = project.part_of(device)
    return LoadBehind(device, (primary_a(part) or takes_a(part)) if part else 0.0)


def _current_of(project: Project, symbol: Symbol) -> float:
    device = project.devices.get(symbol.device_id)
    part = project.part_of(device) if device else None
    if part is None or any(kind == "pole" for kind, _ in part.units):
        return 0.0  # what a switch bears is not what it takes
    rated = number_in(part.ratings.get("rated_a", ""))
    power = number_in(part.ratings.get("power_kw", ""))
    if rated is not None or power is None or len(definition(symbol.definition).pins) < THREE_PHASES:
        return rated or 0.0  # of a motor on one phase the table says nothing
    try:
        return motor_current_a(power, mains_of(project))
    except RuleError:
        return 0.0  # the table knows no motor of that power: its part has to say the current
