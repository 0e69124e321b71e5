"""Checks of the way from source to load and to earth: what protects it, what it ends at, what is bridged on it."""

from __future__ import annotations

import re
from collections import defaultdict, deque
from collections.abc import Iterator

from jolly_core.circuits import (
    DRIVEN,
    GOES_ON,
    Link,
    Potential,
    comes_to_earth,
    is_earth_pin,
    is_source,
    links_at,
    links_of,
    paths_through,
    potential_of,
    potentials_on,
)
from jolly_core.drawing import pin_points
from jolly_core.library import base_of, definition
from jolly_core.model import Device, Project, Symbol
from jolly_core.tagging import called_on, class_of, pins_of, tag_on
from jolly_core.wiring import GroupKey, PinKey

from .registry import Snag, check

PROTECTIVE = ("breaker", "motor-breaker", "fuse")  # against overcurrent; a residual-current device by itself is none
FED = ("motor", "transformer", "supply")  # units whose live poles have a protection in front
MOST = 400  # potentials looked at for one way
_NO_LIVE_PIN = re.compile(r"^(PE|N|\+|-)", re.IGNORECASE)


def _device(project: Project, symbol: Symbol) -> Device | None:
    return project.devices.get(symbol.device_id)


def _is_protective(project: Project, symbol: Symbol) -> bool:
    device = _device(project, symbol)
    key = class_of(project, device, symbol) if device else definition(symbol.definition).part_class
    part = project.part_of(device) if device else None
    # One with a tripping characteristic is a breaker, too.
    combined = base_of(key) == "residual-current" and (part is None or bool(part.ratings.get("characteristic")))
    return base_of(key) in PROTECTIVE or combined or symbol.definition == "terminal-fuse"


@check("pe-open", "A protective conductor that ends at a terminal, and goes on to no earth bar.")
def open_protective(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pin for the protective conductor that is joined to something, but not to an earth.

    Source: IEC 60204-1 (8.2.1): the protective bonding circuit is continuous up to the PE terminal.
    """
    sheet = project.sheets[sheet_id]
    told: set[GroupKey] = set()
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit in ("earth", "terminal", *GOES_ON):
            continue
        for pin, name in enumerate(pins_of(project, symbol)):
            if not is_earth_pin(name):
                continue
            potential = potential_of(project, (symbol.id, pin))
            if potential.key in told or not _ends_open(project, potential):
                continue
            told.add(potential.key)
            who = f"{called_on(project, symbol, sheet)}:{name}"
            end = next(
                (p for p in potential.pins if definition(project.symbols[p[0]].definition).unit == "terminal"), None
            )
            ends = f"ends at {called_on(project, project.symbols[end[0]], sheet)}" if end else "is joined with others"
            message = f"The protective conductor of {who} {ends} and goes on to no earth. Lead it to an earth terminal."
            x, y = pin_points(symbol)[pin]
            yield Snag("pe-open", "error", message, (symbol.id,), sheet_id, x, y, device_id=symbol.device_id)


def _ends_open(project: Project, potential: Potential) -> bool:
    joined = len(list(potential.pins)) > 1 and "pe" in potential.categories and not potential.bonded
    return joined and not comes_to_earth(project, potential)


@check("bridged-together", "Contacts in series with a wire past all of them: none of them changes anything.")
def bridged_together(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each chain of contacts whose two ends are one potential, with the contacts in it."""
    sheet = project.sheets[sheet_id]
    told: set[frozenset[str]] = set()
    for potential in potentials_on(project, sheet_id):
        if not _is_between_two(project, potential):
            continue
        (one, a), (other, b) = links_at(project, potential)
        chain = [one, other]
        seen = {potential.key}
        ends = []
        for link, end in ((one, a), (other, b)):
            here, before = end, link
            while here.key not in seen and _is_between_two(project, here) and len(chain) < MOST:
                seen.add(here.key)
                onward = [(x, p) for x, p in links_at(project, here) if {x.start, x.end} != {before.start, before.end}]
                if len(onward) != 1:
                    break
                before, here = onward[0]
                chain.append(before)
            ends.append(here)
        ids = frozenset(link.start[0] for link in chain)
        if ends[0].key != ends[1].key or ends[0].key in seen or len(ids) < 2 or ids in told:
            continue
        told.add(ids)
        symbols = [project.symbols[id] for id in sorted(ids)]
        names = sorted({called_on(project, s, sheet) for s in symbols})
        message = f"{', '.join(names[:-1])} and {names[-1]} are bridged together: a wire leads past them all."
        here_first = next((s for s in symbols if s.sheet_id == sheet_id), symbols[0])
        if here_first.sheet_id == sheet_id:
            yield Snag("bridged-together", "error", message, tuple(sorted(ids)), sheet_id, here_first.x, here_first.y)


def _is_between_two(project: Project, potential: Potential) -> bool:
    """Return whether nothing hangs on a potential but one pin of each of two contacts, and terminals."""
    if potential.label is not None or len(links_at(project, potential)) != 2:
        return False
    units = [definition(project.symbols[id].definition) for id, _ in potential.pins]
    return len([shape for shape in units if not (shape.unit == "terminal" and shape.carries)]) == 2


@check("fuses-joined", "What is behind two protective devices of one potential, joined.")
def joined_behind_fuses(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pair of protective devices with one potential in front whose load sides are joined."""
    sheet = project.sheets[sheet_id]
    told: set[frozenset[str]] = set()
    for symbol in project.symbols_on(sheet_id):
        if not symbol.device_id or not _is_protective(project, symbol):
            continue
        for line, load in paths_through(project, symbol):
            feeding = potential_of(project, line)
            for id, pin in potential_of(project, load).pins:
                other = project.symbols[id]
                pair = frozenset((symbol.device_id, other.device_id))
                if len(pair) < 2 or pair in told or not _is_protective(project, other):
                    continue
                beside = [at for at, behind in paths_through(project, other) if behind == (id, pin)]
                if any(_same_feed(feeding, potential_of(project, at)) for at in beside):
                    told.add(pair)
                    devices = [project.devices[d] for d in sorted(pair) if d in project.devices]
                    names = " and ".join(sorted(tag_on(project, d, sheet) for d in devices))
                    message = f"{names} are joined behind: neither protects what is there alone. Part them."
                    ids = (symbol.id, other.id)
                    yield Snag("fuses-joined", "error", message, ids, sheet_id, symbol.x, symbol.y)


def _same_feed(one: Potential, other: Potential) -> bool:
    word = one.label.word if one.label else ""
    return one.key == other.key or bool(word and other.label and other.label.word == word)


@check(
    "unprotected", "A motor, supply or transformer with a live pole that nothing protects on its way from the source."
)
def unprotected(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each load with a way to a named source on which there is no protective device.

    Source: IEC 60204-1 (7.2). Where the project's data name the fuse of the supply, that counts.
    """
    if re.search(r"\d\s*A\b", project.settings.supply):
        return
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        unit = definition(symbol.definition).unit
        if unit not in FED or not symbol.device_id:
            continue
        for pin, name in enumerate(pins_of(project, symbol)):
            if _NO_LIVE_PIN.match(name) or (unit == "transformer" and pin >= 2):
                continue
            if _reaches_source(project, potential_of(project, (symbol.id, pin))):
                who = called_on(project, symbol, sheet)
                message = f"Nothing protects {who}:{name} on its way from the source. Put a breaker or fuse in front."
                at = pin_points(symbol)[pin]
                yield Snag("unprotected", "error", message, (symbol.id,), sheet_id, *at, device_id=symbol.device_id)
                break


def _reaches_source(project: Project, start: Potential) -> bool:
    """Return whether the line side of a potential can be reached to its very end without a protective device."""
    waiting, seen, named = deque([start]), {start.key}, False
    open_end = False
    while waiting and len(seen) < MOST:
        here = waiting.popleft()
        named = named or is_source(project, here)
        upward, stopped = [], False
        for id, pin in here.pins:
            symbol = project.symbols[id]
            for line, load in paths_through(project, symbol):
                if load != (id, pin):
                    continue
                if _is_protective(project, symbol):
                    stopped = True
                else:
                    upward.append(potential_of(project, line))
        open_end = open_end or not (upward or stopped)
        for there in upward:
            if there.key not in seen:
                seen.add(there.key)
                waiting.append(there)
    return open_end and named


@check("interlock", "Two contactors that reverse a motor, or join star and delta, and do not keep each other off.")
def interlocks(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each such pair of which a coil can be on while the other contactor is."""
    sheet = project.sheets[sheet_id]
    told: set[frozenset[str]] = set()
    for one, other in _excluding(project, sheet_id):
        pair = frozenset((one.device_id, other.device_id))
        if pair in told:
            continue
        told.add(pair)
        pairs = [
            (project.devices[s.device_id], tag_on(project, project.devices[s.device_id], sheet)) for s in (one, other)
        ]
        names = [name for _, name in pairs]
        free = [
            f"{mine} has no NC contact of {theirs} in front of its coil"
            for (device, mine), (beside, theirs) in (pairs, pairs[::-1])
            if _can_be_on(project, device, beside)
        ]
        if free:
            message = f"{names[0]} and {names[1]} may not be on together, but {' and '.join(free)}."
            yield Snag("interlock", "error", message, (one.id, other.id), sheet_id, one.x, one.y)


def _excluding(project: Project, sheet_id: str) -> Iterator[tuple[Symbol, Symbol]]:
    """Yield the contactors of a sheet that short something when both are on."""
    by_load: dict[frozenset[GroupKey], list[tuple[Symbol, tuple[GroupKey, ...], tuple[GroupKey, ...]]]] = defaultdict(
        list
    )
    for symbol in project.symbols_on(sheet_id):
        poles = [link for link in links_of(project, symbol) if link.sort == DRIVEN]
        if len(poles) > 1 and symbol.device_id:
            lines, loads = (tuple(potential_of(project, p).key for p in ends) for ends in _ends(poles))
            by_load[frozenset(loads)].append((symbol, lines, loads))
            if len(set(loads)) == 1:
                by_load[frozenset(lines)].append((symbol, loads, lines))
    for found in by_load.values():
        for n, (one, lines, loads) in enumerate(found):
            for other, others, there in found[n + 1 :]:
                if other.device_id == one.device_id:
                    continue
                mine, theirs = dict(zip(loads, lines, strict=True)), dict(zip(there, others, strict=True))
                reversing = set(lines) == set(others) and mine != theirs
                star = (len(set(lines)) == 1) != (len(set(others)) == 1)
                if len(mine) > 1 and (reversing or star):
                    yield one, other


def _ends(poles: list[Link]) -> tuple[list[PinKey], list[PinKey]]:
    return [link.start for link in poles], [link.end for link in poles]


def _can_be_on(project: Project, device: Device, beside: Device) -> bool:
    """Return whether the coil of a contactor is fed on a way without an NC contact of another one."""
    for symbol in project.units_of(device.id):
        if definition(symbol.definition).unit == "coil":
            ends = [_feeds(project, potential_of(project, (symbol.id, pin)), beside.id) for pin in (0, 1)]
            return bool(ends[0]) and bool(ends[1]) and len(ends[0] | ends[1]) > 1
    return False


def _feeds(project: Project, start: Potential, but: str) -> set[str]:
    """Return what can be reached from a potential through contacts, those that a contactor opens left out."""
    waiting, seen = deque([start]), {start.key}
    found: set[str] = set()
    while waiting and len(seen) < MOST:
        here = waiting.popleft()
        outputs = [id for id, _ in here.pins if definition(project.symbols[id].definition).unit == "do"]
        if here.label is not None or outputs:
            found.add(here.label.word if here.label else outputs[0])
            continue
        for link, there in links_at(project, here):
            if not (link.sort == "nc" and link.device_id == but) and there.key not in seen:
                seen.add(there.key)
                waiting.append(there)
    return found
