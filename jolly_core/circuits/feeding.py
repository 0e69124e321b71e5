"""What a pin is fed through: everything on the line side of it, one walk for all checks of protection and return.

Current comes to a pin by poles, contacts and fuses from their line side (see motors.py); what is met first on each way
can be asked for by any property: what protects, what limits, which residual-current device, which phase it begins at.
Names end no way here: behind a fuse a phase is often called as before it.
"""

from __future__ import annotations

import re
from collections import deque
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from jolly_core.library import base_of, definition, number_in
from jolly_core.model import Project, Symbol, derived
from jolly_core.tagging import class_of, pins_of
from jolly_core.wiring import GroupKey, PinKey

from .labels import PHASES, is_output
from .motors import is_source, paths_through
from .ways import DRIVEN, Potential, links_of, potential_at, potential_of, reached

GUARDS = ("breaker", "motor-breaker", "fuse")  # against overcurrent; a residual-current device by itself is none
LIMITS = ("overload", "motor-breaker", "drive", "soft-starter")  # what keeps a motor from being overloaded
FROM_KW = 0.5  # rated power from which a motor has a protection against overload (IEC 60204-1, 7.3.1)
_OUTLET = re.compile(r"^(U|V|W|[UVW][12]|\d?T\d)$", re.IGNORECASE)
_MOST = 400  # potentials looked at for one pin


@dataclass(slots=True)
class Fed:
    """What the ways to a pin come through.

    Attributes:
        met: what was met first on each way and ended it, by symbol.
        ends: where the other ways end: nothing is on the line side of these potentials.
        passed: symbols passed on the ways, the nearest first.
        through: all potentials on the ways, the first with them.
    """

    met: dict[str, PinKey] = field(default_factory=dict)
    ends: list[Potential] = field(default_factory=list)
    passed: dict[str, None] = field(default_factory=dict)
    through: set[GroupKey] = field(default_factory=set)


@derived
def _above(project: Project, sheet_id: str, point: int) -> list[tuple[PinKey, GroupKey]]:
    """Return the line pins of the poles and contacts whose load side is on a potential, and what those are on."""
    found: list[tuple[PinKey, GroupKey]] = []
    for pin in potential_at(project, (sheet_id, point)).pins:
        for line, load in paths_through(project, project.symbols[pin[0]]):
            if load == pin:
                found.append((line, potential_of(project, line).key))
    return found


def above(project: Project, potential: Potential) -> list[tuple[Symbol, PinKey, Potential]]:
    """Return each symbol that feeds a potential from its line side, with its line pin and the potential there."""
    return [(project.symbols[p[0]], p, potential_at(project, k)) for p, k in _above(project, *potential.key)]


def fed_by(project: Project, start: Potential, ends_at: Callable[[Symbol], bool]) -> Fed:
    """Return what a potential is fed through.

    Args:
        ends_at: what ends a way, such as what protects it.
    """
    fed, waiting, seen = Fed(), deque([start]), {start.key}
    while waiting and len(seen) < _MOST:
        here = waiting.popleft()
        upward = above(project, here)
        if not upward:
            fed.ends.append(here)
        for symbol, line, there in upward:
            if ends_at(symbol):
                fed.met.setdefault(symbol.id, line)
                continue
            fed.passed.setdefault(symbol.id)
            if there.key not in seen:
                seen.add(there.key)
                waiting.append(there)
    fed.through = seen
    return fed


def base_at(project: Project, symbol: Symbol) -> str:
    """Return the base class of the device of a symbol, of the symbol itself while it has none."""
    device = project.devices.get(symbol.device_id)
    return base_of(class_of(project, device, symbol) if device else definition(symbol.definition).part_class)


def is_guard(project: Project, symbol: Symbol) -> bool:
    """Return whether a symbol protects what is behind it against overcurrent (IEC 60204-1, 7.2)."""
    if symbol.definition == "terminal-fuse":
        return True
    base = base_at(project, symbol)
    if base == "residual-current":  # one with a tripping characteristic is a breaker, too
        device = project.devices.get(symbol.device_id)
        part = project.part_of(device) if device else None
        return part is None or bool(part.ratings.get("characteristic"))
    return base in GUARDS and definition(symbol.definition).unit == "pole"


def limits(project: Project, symbol: Symbol) -> bool:
    """Return whether a symbol is a pole of what keeps a motor from being overloaded: what can be set, or a drive."""
    if definition(symbol.definition).unit not in ("pole", "heater", "block", "pins"):
        return False
    device = project.devices.get(symbol.device_id)
    part = project.part_of(device) if device else None
    return base_at(project, symbol) in LIMITS or bool(part and part.ratings.get("setting_max_a"))


def lacks_overload(project: Project, motor: Symbol, *, half_drawn: bool = False) -> bool:
    """Return whether a motor that needs it has a way to its source with nothing that keeps it from being overloaded.

    From 0.5 kW, or where the power is not known (IEC 60204-1, 7.3.1).

    Args:
        half_drawn: judge also a way with no name and no terminal at its end.
    """
    device = project.devices.get(motor.device_id)
    part = project.part_of(device) if device else None
    power = number_in(part.ratings.get("power_kw", "")) if part else None
    if power is not None and power < FROM_KW:
        return False
    names = pins_of(project, motor)
    first = next((n for n, name in enumerate(names) if name.upper() not in ("PE", "N")), 0)
    fed = fed_by(project, potential_of(project, (motor.id, first)), lambda s: limits(project, s))
    return any(
        not is_behind_drive(project, end)
        and (half_drawn or is_source(project, end) or end.label is not None or begins_at_terminal(project, end))
        for end in fed.ends
    )


def is_outlet(name: str) -> bool:
    """Return whether a pin of a drive or soft starter is for its motor, by its marking (IEC 60445)."""
    return bool(_OUTLET.match(name))


def is_behind_drive(project: Project, potential: Potential) -> bool:
    """Return whether a drive's or soft starter's output is on a potential."""
    for id, _ in potential.pins:
        symbol = project.symbols[id]
        if symbol.device_id and base_at(project, symbol) in ("drive", "soft-starter"):
            return True
    return False


def residual_devices(project: Project, start: Potential) -> tuple[set[str], bool]:
    """Return the residual-current devices met first on the ways to a potential, and whether a way has none."""
    fed = fed_by(project, start, lambda s: base_at(project, s) == "residual-current")
    named = [end for end in fed.ends if is_source(project, end) or end.label is not None]
    return {project.symbols[id].device_id for id in fed.met}, bool(named)


def phase_at(project: Project, start: Potential) -> str:
    """Return the phase that a potential comes from, "" where it is none or several."""
    words = set().union(*phases_by_switch(project, start).values())
    return min(words) if len(words) == 1 and words <= set(PHASES) else ""


def begins_at_terminal(project: Project, potential: Potential) -> bool:
    """Return whether a terminal is on a potential, so that something comes in there though no name says what."""
    return any(definition(project.symbols[id].definition).unit == "terminal" for id, _ in potential.pins)


def phases_by_switch(project: Project, start: Potential) -> dict[str, set[str]]:
    """Return the phases that come to a potential, by the contactor that is met first on their way, "" without one.

    A way that ends at a terminal without a name gives "?" and what tells it from others; one that ends elsewhere, none.
    """
    found: dict[str, set[str]] = {}
    waiting, seen = deque([(start, "")]), {(start.key, "")}
    while waiting and len(seen) < _MOST:
        here, switch = waiting.popleft()
        upward = above(project, here)
        words = {word for word in here.labels if word in PHASES}
        if words or not upward:
            unnamed = {f"?{here.key}"} if begins_at_terminal(project, here) else set()
            found.setdefault(switch, set()).update(words or unnamed)
        for symbol, _, there in upward if not words else ():
            drives = any(link.sort == DRIVEN for link in links_of(project, symbol))
            state = (there.key, switch or (symbol.device_id or symbol.id if drives else ""))
            if state not in seen:
                seen.add(state)
                waiting.append((there, state[1]))
    return found


def sources_of(project: Project, pin: PinKey) -> set[str]:
    """Return the supplies and transformers that a pin is switched to, by device.

    Through contacts as far as a label or the shortest way to one, from there by poles to their line side.
    """
    start = potential_of(project, pin)
    ends = [potential_at(project, way.through[-1]) for _, way in reached(project, pin).values()]
    return {id for end in ends or [start] for id in sources_behind(project, end)}


def sources_behind(project: Project, potential: Potential) -> set[str]:
    """Return the supplies and transformers on the line side of a potential, by device."""
    keys = fed_by(project, potential, lambda _: False).through
    return {id for key in keys for id in _outputs_at(project, *key)}


@derived
def _outputs_at(project: Project, sheet_id: str, point: int) -> list[str]:
    return sorted({id for id, _ in outputs_on(project, potential_at(project, (sheet_id, point)))})


def outputs_on(project: Project, potential: Potential) -> Iterator[tuple[str, str]]:
    """Yield the device and pin name of each output of a supply or transformer on a potential."""
    for id, pin in potential.pins:
        symbol = project.symbols[id]
        if symbol.device_id and is_output(project, symbol, pin):
            yield symbol.device_id, pins_of(project, symbol)[pin]
