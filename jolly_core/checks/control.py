"""Checks of control logic: what releases, interlocks and stops, by the ways that coils are fed on.

Sources: IEC 60204-1 (9.3.4 protection against contrary movements, 7.3 overload, 9.2), ISO 13849-1 (6.2.6).
"""

from __future__ import annotations

import re
from collections import defaultdict, deque
from collections.abc import Callable, Iterator

from jolly_core.circuits import (
    DRIVEN,
    Link,
    Potential,
    base_at,
    fed_by,
    links_at,
    links_of,
    potential_of,
)
from jolly_core.library import definition
from jolly_core.model import Device, Project, Symbol
from jolly_core.tagging import called_on, pins_of, tag_on
from jolly_core.wiring import GroupKey, PinKey

from .registry import Snag, check

_MOST = 400  # potentials looked at for one way
_DEEP = 4  # relays after one another by which a stop is handed on
_CHANNEL = re.compile(r"^S(\d)([12])$", re.IGNORECASE)


def _feeds(project: Project, start: Potential, closed: Callable[[Link], bool]) -> set[str]:
    """Return what can be reached from a potential through links that count as closed: labels, outputs of cards."""
    waiting, seen = deque([start]), {start.key}
    found: set[str] = set()
    while waiting and len(seen) < _MOST:
        here = waiting.popleft()
        outputs = [id for id, _ in here.pins if definition(project.symbols[id].definition).unit == "do"]
        if here.label is not None or outputs:
            found.add(here.label.word if here.label else outputs[0])
            continue
        for link, there in links_at(project, here):
            if closed(link) and there.key not in seen:
                seen.add(there.key)
                waiting.append(there)
    return found


def _is_on(project: Project, coil: Symbol, closed: Callable[[Link], bool]) -> bool:
    """Return whether a coil is fed from both of its ends through links that count as closed."""
    ends = [_feeds(project, potential_of(project, (coil.id, pin)), closed) for pin in (0, 1)]
    return bool(ends[0]) and bool(ends[1]) and len(ends[0] | ends[1]) > 1


def _coil_of(project: Project, device_id: str) -> Symbol | None:
    return next((s for s in project.units_of(device_id) if definition(s.definition).unit == "coil"), None)


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
    coil = _coil_of(project, device.id)
    return coil is not None and _is_on(
        project, coil, lambda link: not (link.sort == "nc" and link.device_id == beside.id)
    )


@check("overload-contact", "An overload whose contact is not in the way of the coil that feeds its motor.")
def overload_contacts(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each overload that trips, while a contactor in its way stays on (IEC 60204-1, 7.3.1).

    A relay between them counts, and an input of a controller that drives the contactor.
    """
    sheet = project.sheets[sheet_id]
    told: set[str] = set()
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit != "heater" or not symbol.device_id or symbol.device_id in told:
            continue
        told.add(symbol.device_id)
        overload = project.devices[symbol.device_id]
        staying = [c for c in _contactors_at(project, symbol) if _stays(project, c, overload.id, _DEEP)]
        if staying:
            names = " and ".join(sorted(tag_on(project, project.devices[c], sheet) for c in staying))
            who = tag_on(project, overload, sheet)
            message = f"{names} stays on when {who} trips: no contact of {who} is in the way of its coil."
            at = (symbol.x, symbol.y)
            yield Snag("overload-contact", "error", message, (symbol.id,), sheet_id, *at, device_id=overload.id)


def _contactors_at(project: Project, heater: Symbol) -> list[str]:
    """Return the contactors, by device, through which an overload is fed; else those that it feeds at once."""
    pins = [(link.start, link.end) for link in links_of(project, heater)]
    if not pins:
        return []
    line, load = pins[0]
    fed = fed_by(project, potential_of(project, line), lambda s: _drives(project, s))
    found = {project.symbols[id].device_id for id in fed.met}
    if not found:
        symbols = (project.symbols[id] for id, _ in potential_of(project, load).pins)
        found = {s.device_id for s in symbols if _drives(project, s)}
    return sorted(id for id in found if id)


def _drives(project: Project, symbol: Symbol) -> bool:
    return any(link.sort == DRIVEN for link in links_of(project, symbol))


def _stays(project: Project, device_id: str, opener: str, deep: int) -> bool:
    """Return whether the coil of a contactor or relay can be on while all contacts of another device are open."""
    coil = _coil_of(project, device_id)
    if coil is None:
        return False  # nothing is known of what drives it
    ends = [_feeds(project, potential_of(project, (coil.id, pin)), lambda _: True) for pin in (0, 1)]
    by_card = any(word in project.symbols for end in ends for word in end)
    if by_card and _is_read(project, opener):
        return False
    falls: dict[str, bool] = {}

    def closed(link: Link) -> bool:
        if link.device_id == opener:
            return link.sort == "no"  # it closes when the other opens
        if link.sort == "no" and link.device_id != device_id and deep and _coil_of(project, link.device_id):
            if link.device_id not in falls:
                falls[link.device_id] = False
                falls[link.device_id] = not _stays(project, link.device_id, opener, deep - 1)
            return not falls[link.device_id]
        return True

    return _is_on(project, coil, closed)


def _is_read(project: Project, device_id: str) -> bool:
    """Return whether a contact of a device is at an input of a controller."""
    for symbol in project.units_of(device_id):
        for link in links_of(project, symbol) if definition(symbol.definition).unit in ("no", "nc") else []:
            for pin in (link.start, link.end):
                units = {definition(project.symbols[id].definition).unit for id, _ in potential_of(project, pin).pins}
                if "di" in units:
                    return True
    return False


@check("latch-held", "A coil that its own contact holds, with nothing that releases it.")
def latches_held(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each coil that stays on by its own contact, whatever button or contact is opened."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit != "coil" or not symbol.device_id:
            continue
        own = symbol.device_id
        if _holds(project, symbol):
            who = called_on(project, symbol, sheet)
            message = f"{who} holds itself by its own contact, and nothing in that way releases it. Put a stop into it."
            yield Snag("latch-held", "error", message, (symbol.id,), sheet_id, symbol.x, symbol.y, device_id=own)


def _holds(project: Project, coil: Symbol) -> bool:
    """Return whether a coil stays on by its own contact alone, and does not come on by itself.

    Contacts of overloads and of contactors count as closed: they open, too, but nobody stops anything by them.
    """
    own = coil.device_id

    def fixed(link: Link) -> bool:
        base = base_at(project, project.symbols[link.start[0]])
        no_stop = link.sort == "nc" and base in ("overload", "contactor") and link.device_id != own
        return link.sort == "always" or no_stop

    def latched(link: Link) -> bool:
        return fixed(link) or (link.sort == "no" and link.device_id == own)

    return _is_on(project, coil, latched) and not _is_on(project, coil, fixed)


@check("two-channel", "Two channels of a safety device that are joined, changed over, bridged, or not alike.")
def two_channels(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each device with pins S11, S12 and S21, S22 whose channels are not two ways of their own.

    Source: ISO 13849-1 (6.2.6): one fault in a channel does not lead to the loss of the safety function.
    """
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        channels: dict[str, dict[str, PinKey]] = defaultdict(dict)
        for pin, name in enumerate(pins_of(project, symbol)):
            if match := _CHANNEL.match(name):
                channels[match[1]][match[2]] = (symbol.id, pin)
        ways = {n: (ends["1"], ends["2"]) for n, ends in sorted(channels.items()) if len(ends) == 2}
        if len(ways) < 2 or not symbol.device_id:
            continue
        message = _channel_fault(project, symbol, ways)
        if message:
            who = called_on(project, symbol, sheet)
            at = (symbol.x, symbol.y)
            yield Snag(
                "two-channel", "error", f"{who}: {message}", (symbol.id,), sheet_id, *at, device_id=symbol.device_id
            )


def _channel_fault(project: Project, symbol: Symbol, ways: dict[str, tuple[PinKey, PinKey]]) -> str:
    """Return what is wrong with the channels of a safety device, "" where nothing is, or nothing is wired yet."""
    names = pins_of(project, symbol)
    sheet = project.sheets[symbol.sheet_id]
    found: dict[str, set[str]] = {}
    wired = [n for n, ends in ways.items() if any(len(list(potential_of(project, e).pins)) > 1 for e in ends)]
    if not wired:
        return ""
    for n, (out, back) in ways.items():
        start, end = potential_of(project, out), potential_of(project, back)
        if start.key == end.key:
            return f"{names[out[1]]} and {names[back[1]]} are bridged: channel {n} never opens."
        seen, contacts = _reach(project, start)
        for other, pins in ways.items():
            for pin in pins:
                if other != n and potential_of(project, pin).key in seen:
                    mine, theirs = names[out[1]], names[pin[1]]
                    joined = "joined" if end.key in seen else "changed over"
                    return f"the channels are {joined}: {mine} leads to {theirs}."
        if end.key not in seen:
            return f"channel {n} is open: {names[out[1]]} does not come back to {names[back[1]]}."
        found[n] = contacts
    (one, first), (two, second) = list(found.items())[:2]
    for channel, ids in ((one, first - second), (two, second - first)):
        for id in sorted(ids):
            if id in project.devices:
                return f"{tag_on(project, project.devices[id], sheet)} has a contact in channel {channel} alone."
    return ""


def _reach(project: Project, start: Potential) -> tuple[set[GroupKey], set[str]]:
    """Return the potentials that contacts lead to from one, and the devices of those contacts."""
    waiting, seen, contacts = deque([start]), {start.key}, set[str]()
    while waiting and len(seen) < _MOST:
        here = waiting.popleft()
        if here.label is not None and here.key != start.key:
            continue
        for link, there in links_at(project, here):
            if link.sort in ("no", "nc"):
                contacts.add(link.device_id)
            if there.key not in seen:
                seen.add(there.key)
                waiting.append(there)
    return seen, contacts
