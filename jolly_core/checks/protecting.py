"""Checks of what stands between source and load: protection, overload, and the phases that come to a motor.

Sources: IEC 60204-1 (7.2 overcurrent, 7.3 overload, 7.2.7 control transformers, 7.8 phase sequence).
"""

from __future__ import annotations

import re
from collections import deque
from collections.abc import Iterator, Sequence

from jolly_core.circuits import (
    PHASES,
    THREE_PHASES,
    Fed,
    Potential,
    fed_by,
    is_guard,
    is_output,
    is_source,
    lacks_overload,
    links_at,
    outputs_on,
    phases_by_switch,
    potential_at,
    potential_of,
    reached,
)
from jolly_core.drawing import pin_points
from jolly_core.library import definition, number_in
from jolly_core.model import Project, Symbol
from jolly_core.tagging import called_on, full_tag, pins_of, tag_on
from jolly_core.wiring import PinKey

from .registry import Snag, check

FED = ("motor", "transformer", "supply")  # units whose live poles have a protection in front, one way or the other
TAKING = ("coil", "lamp", "load", "sensor")
_MOST = 400
_NO_LIVE_PIN = re.compile(r"^(PE|N|\+|-)", re.IGNORECASE)


def _live_pins(project: Project, symbol: Symbol) -> Iterator[tuple[int, str]]:
    """Yield the pins of a load that are neither its earth, its neutral nor an output."""
    for pin, name in enumerate(pins_of(project, symbol)):
        if not _NO_LIVE_PIN.match(name) and not is_output(project, symbol, pin):
            yield pin, name


@check("unprotected", "A load with a live pole that nothing protects on its way from the source.")
def unprotected(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each load with a way to a named source on which there is no protective device.

    Source: IEC 60204-1 (7.2). Where the project's data name the fuse of the supply, that counts.
    """
    if re.search(r"\d\s*A\b", project.settings.supply):
        return
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        unit = definition(symbol.definition).unit
        if unit not in (*FED, *TAKING) or not symbol.device_id:
            continue
        for pin, name in _live_pins(project, symbol):
            start = potential_of(project, (symbol.id, pin))
            if _is_open(project, start) if unit in FED else _is_on_mains(project, (symbol.id, pin)):
                who = called_on(project, symbol, sheet)
                message = f"Nothing protects {who}:{name} on its way from the source. Put a breaker or fuse in front."
                at = pin_points(symbol)[pin]
                yield Snag("unprotected", "error", message, (symbol.id,), sheet_id, *at, device_id=symbol.device_id)
                break


def _is_open(project: Project, start: Potential) -> bool:
    """Return whether the line side of a potential can be reached to its very end without a protective device."""
    fed = fed_by(project, start, lambda s: is_guard(project, s))
    between = [start, *(potential_of(project, (id, n)) for id in fed.passed for n in _pins(project, id))]
    return bool(fed.ends) and any(is_source(project, p) for p in between)


def _pins(project: Project, id: str) -> range:
    return range(len(pins_of(project, project.symbols[id])))


def _is_on_mains(project: Project, pin: PinKey) -> bool:
    """Return whether a phase of the supply comes to a pin through contacts and switches alone."""
    for label, way in reached(project, pin).values():
        guarded = any(is_guard(project, project.symbols[link.start[0]]) for link in way.links)
        if label.word in PHASES and not guarded:
            end = potential_at(project, way.through[-1])
            if fed_by(project, end, lambda s: is_guard(project, s)).ends:
                return True
    return False


def _through(project: Project, start: Potential) -> Iterator[Potential]:
    """Yield a potential and all that links lead to from it, but for those of protective devices."""
    waiting, seen = deque([start]), {start.key}
    while waiting and len(seen) < _MOST:
        here = waiting.popleft()
        yield here
        for link, there in links_at(project, here):
            if there.key not in seen and not is_guard(project, project.symbols[link.start[0]]):
                seen.add(there.key)
                waiting.append(there)


@check("unprotected-source", "An output of a supply or transformer from which loads are fed without a protection.")
def unprotected_sources(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each source on a sheet from whose live output a load can be reached past no protective device.

    Source: IEC 60204-1 (7.2.4, 7.2.7). The output that is earthed, or called a return, needs none.
    """
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit not in ("supply", "transformer") or not symbol.device_id:
            continue
        for pin, name in enumerate(pins_of(project, symbol)):
            start = potential_of(project, (symbol.id, pin))
            is_output = (symbol.device_id, name) in set(outputs_on(project, start))
            if not is_output or name[:1] == "-" or start.returns or (start.label and start.label.side == "return"):
                continue
            load = _load_on(project, start)
            if load is not None:
                who = called_on(project, symbol, sheet)
                part = project.part_of(project.devices[symbol.device_id])
                amps = part.ratings.get("output_a", "") if part else ""
                gives = f" (it gives {amps} A)" if amps else ""
                what = called_on(project, load, sheet)
                message = f"Nothing protects what leads from {who}:{name} to {what}{gives}."
                message = f"{message} Put a fuse or breaker behind it."
                ids = (symbol.id,)
                at = pin_points(symbol)[pin]
                yield Snag("unprotected-source", "warning", message, ids, sheet_id, *at, device_id=symbol.device_id)
                break


def _load_on(project: Project, start: Potential) -> Symbol | None:
    """Return the nearest load that can be reached from a potential past no protective device, the first of several."""
    for here in _through(project, start):
        loads = [s for id, _ in here.pins for s in (project.symbols[id],) if definition(s.definition).unit in TAKING]
        if loads:
            return min(loads, key=lambda s: (project.sheets[s.sheet_id].order, s.y, s.x, s.id))
    return None


@check("fuses-joined", "What is behind two protective devices of one potential, joined.")
def joined_behind_fuses(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pair of protective devices with one potential in front whose load sides are joined.

    They may be joined at once or behind contactors and terminals: a load of the sheet is then fed by both.
    """
    sheet = project.sheets[sheet_id]
    told: set[frozenset[str]] = set()
    for symbol in project.symbols_on(sheet_id):
        for start in _behind(project, symbol):
            fed = fed_by(project, start, lambda s: is_guard(project, s))
            for one, other in _same_feed(project, fed):
                pair = frozenset((one.device_id, other.device_id))
                if pair in told or sheet_id not in (one.sheet_id, symbol.sheet_id):
                    continue
                told.add(pair)
                devices = [project.devices[d] for d in sorted(pair) if d in project.devices]
                names = " and ".join(sorted(tag_on(project, d, sheet) for d in devices))
                message = f"{names} are joined behind: neither protects what is there alone. Part them."
                ids = (one.id, other.id)
                yield Snag("fuses-joined", "error", message, ids, sheet_id, symbol.x, symbol.y)


def _behind(project: Project, symbol: Symbol) -> Iterator[Potential]:
    """Yield the potentials behind a protective device, and those at the live pins of a load."""
    if not symbol.device_id:
        return
    if definition(symbol.definition).unit in (*FED, *TAKING):
        yield from (potential_of(project, (symbol.id, pin)) for pin, _ in _live_pins(project, symbol))
    elif is_guard(project, symbol):
        yield from (potential_of(project, (symbol.id, pin)) for pin in range(1, len(pins_of(project, symbol)), 2))


def _same_feed(project: Project, fed: Fed) -> Iterator[tuple[Symbol, Symbol]]:
    met = [(project.symbols[id], _feed(project, line)) for id, line in sorted(fed.met.items())]
    for n, (one, feed) in enumerate(met):
        for other, beside in met[n + 1 :]:
            if one.device_id != other.device_id and feed == beside:
                yield one, other


def _feed(project: Project, line: PinKey) -> object:
    potential = potential_of(project, line)
    return potential.label.word if potential.label else potential.key


@check("protection-past", "A wire that leads past a protective device to a load behind it.")
def protection_past(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each load with a way to the line side of its protective device on which that is not."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit not in (*FED, *TAKING) or not symbol.device_id:
            continue
        for pin, name in _live_pins(project, symbol):
            start = potential_of(project, (symbol.id, pin))
            fed = fed_by(project, start, lambda s: is_guard(project, s))
            past = [id for id, line in sorted(fed.met.items()) if potential_of(project, line).key in fed.through]
            direct = [id for id in past if start.key == potential_of(project, (id, 1)).key]
            if past and not direct:
                guard = called_on(project, project.symbols[past[0]], sheet)
                who = called_on(project, symbol, sheet)
                message = f"A wire leads past {guard} to {who}:{name}, so that it is not protected. Take it away."
                at = pin_points(symbol)[pin]
                yield Snag("protection-past", "error", message, (symbol.id, past[0]), sheet_id, *at)
                break


@check("overload-missing", "A motor that nothing keeps from being overloaded.")
def overloads_missing(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each motor from 0.5 kW with a way to its source without overload, motor breaker or drive.

    Source: IEC 60204-1 (7.3.1). Of a motor whose power is not known it is a warning.
    """
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit != "motor" or not symbol.device_id:
            continue
        if lacks_overload(project, symbol):
            part = project.part_of(project.devices[symbol.device_id])
            power = number_in(part.ratings.get("power_kw", "")) if part else None
            who = called_on(project, symbol, sheet)
            rated = f" ({part.ratings['rated_a']} A)" if part and part.ratings.get("rated_a") else ""
            message = f"Nothing keeps {who}{rated} from being overloaded. Put an overload or motor breaker in its way."
            severity = "error" if power else "warning"
            ids = (symbol.id,)
            at = (symbol.x, symbol.y)
            yield Snag("overload-missing", severity, message, ids, sheet_id, *at, device_id=symbol.device_id)


@check("motor-phases", "A motor that gets one phase twice, or turns against the order of the phases.")
def motor_phases(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each motor on three phases whose ends come from fewer, or in the order of the other way round.

    Source: IEC 60034-8: U, V, W on L1, L2, L3 turn clockwise. One that can be reversed is not judged by its order.
    """
    for symbol in project.symbols_on(sheet_id):
        names = pins_of(project, symbol)
        if definition(symbol.definition).unit != "motor" or len(names) < THREE_PHASES or not symbol.device_id:
            continue
        message, severity = _phases_fault(project, symbol, names)
        if message:
            ids = (symbol.id,)
            yield Snag("motor-phases", severity, message, ids, sheet_id, symbol.x, symbol.y, device_id=symbol.device_id)


def _phases_fault(project: Project, motor: Symbol, names: Sequence[str]) -> tuple[str, str]:
    """Return what is wrong with the phases of a motor by each contactor that feeds it, and how bad it is."""
    pins = [phases_by_switch(project, potential_of(project, (motor.id, pin))) for pin in range(3)]
    who = called_on(project, motor, project.sheets[motor.sheet_id])
    keys = [potential_of(project, (motor.id, pin)).key for pin in range(3)]
    for one, other in ((0, 1), (0, 2), (1, 2)):
        if keys[one] == keys[other]:
            return f"{who}:{names[one]} and :{names[other]} are joined.", "error"
    switches = sorted({switch for found in pins for switch in found})
    for switch in switches:
        came = [found.get(switch, set()) for found in pins]
        if not any(came):
            continue
        pairs = ", ".join(f"{n} {_on(words)}" for n, words in zip(names, came, strict=False))
        if any(len(words) != 1 for words in came) or len(set.union(*came)) < len(came):
            device = project.devices.get(switch)
            by = f" by {full_tag(project, device)}" if device and len(switches) > 1 else ""
            return f"{who} does not get three phases{by}: {pairs}.", "error"
        order = [PHASES.index(word) if (word := min(words)) in PHASES else 0 for words in came]
        if order in ([0, 2, 1], [2, 1, 0], [1, 0, 2]) and len(switches) == 1:
            message = f"{who} turns the other way round: {pairs}. Change two over if that is not meant."
            return message, "warning"
    return "", ""


def _on(words: set[str]) -> str:
    named = sorted(word for word in words if word in PHASES)
    if words and not named:
        return "on a phase without a name"
    return f"on {' and '.join(named)}" if words else "on none"
