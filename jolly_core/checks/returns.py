"""Checks of the way back: what opens it, whose neutral it is, and loads one after another.

Sources: IEC 60204-1 (5.3.3 and 7.2.3 neutral, 9.4.3.1 earth faults in control circuits), IEC 60364-5-53 (531.3).
"""

from __future__ import annotations

from collections import defaultdict, deque
from collections.abc import Iterator

from jolly_core.circuits import (
    PROTECTIVE,
    Link,
    base_at,
    earths_on,
    links_at,
    links_of,
    outputs_on,
    potential_at,
    potential_of,
    reached,
    residual_devices,
)
from jolly_core.drawing import pin_points
from jolly_core.library import definition
from jolly_core.model import Project, Symbol, derived
from jolly_core.tagging import called_on, pins_of, tag_on
from jolly_core.wiring import EARTH_TERMINAL, PinKey

from .registry import Snag, check

LOADS = ("coil", "lamp", "load")
FED = (*LOADS, "motor", "supply", "transformer")
_UNKNOWN = ("do", "ao", "di", "ai", "cavity", "connector", "block", "pins", "splice", "card-supply", "sensor")
_MOST = 400


def inputs_of(project: Project, symbol: Symbol) -> list[int]:
    """Return the pins by which a load takes its current: not its earth, and not what it gives."""
    names = pins_of(project, symbol)
    shape = definition(symbol.definition)
    kept = [n for n, name in enumerate(names) if name.upper() != "PE"]
    return kept[: shape.inputs] if shape.unit in ("supply", "transformer") else kept


def _returns_at(project: Project, symbol: Symbol) -> Iterator[tuple[int, list[Link], set[str]]]:
    """Yield each pin of a load that comes to returns alone: the links on its way, and devices on the live ways."""
    ends = {pin: reached(project, (symbol.id, pin)) for pin in inputs_of(project, symbol)}
    for pin, back in ends.items():
        others = [way for n, found in ends.items() if n != pin for way in found.values()]
        if not back or not all(label.side == "return" for label, _ in back.values()):
            continue
        live = [way for label, way in others if label.side != "return"]
        if live:
            shortest = min((way for _, way in back.values()), key=lambda way: len(way.links))
            yield pin, list(shortest.links), {link.device_id for way in live for link in way.links}


@check("return-switched", "A contact or fuse in the return of a load that leaves its live conductor closed.")
def returns_opened(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each contact, switch or fuse that opens the neutral or minus of a load by itself.

    The contact of an overload may stand there (IEC 60204-1, 9.4.3.1.1), and a terminal that can be parted.
    """
    told: set[str] = set()
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit in FED and symbol.device_id:
            for _, links, live in _returns_at(project, symbol):
                for link in links:
                    yield from _opened(project, sheet_id, link, live, told, symbol)
        for link in links_of(project, symbol):
            one, other = (potential_of(project, pin).label for pin in (link.start, link.end))
            if one and other and one.side == other.side == "return":
                yield from _opened(project, sheet_id, link, _live_poles(project, symbol), told, None)


def _live_poles(project: Project, symbol: Symbol) -> set[str]:
    """Return the device of a symbol where another pole of it is in no return."""
    for beside in project.units_of(symbol.device_id) if symbol.device_id else [symbol]:
        for link in links_of(project, beside):
            labels = [potential_of(project, pin).label for pin in (link.start, link.end)]
            if link.sort == "always" and not all(label and label.side == "return" for label in labels):
                return {symbol.device_id}
    return set()


def _opened(
    project: Project, sheet_id: str, link: Link, live: set[str], told: set[str], load: Symbol | None
) -> Iterator[Snag]:
    symbol = project.symbols[link.start[0]]
    is_fuse = base_at(project, symbol) == "fuse" or symbol.definition == "terminal-fuse"
    if definition(symbol.definition).unit == "terminal" and not is_fuse:
        return
    if (
        base_at(project, symbol) in ("overload", "residual-current")
        or (link.device_id in live and not is_fuse)
        or symbol.id in told
    ):
        return
    told.add(symbol.id)
    sheet = project.sheets[sheet_id]
    who = called_on(project, symbol, sheet)
    of = f" of {called_on(project, load, sheet)}" if load else ""
    does = "is a fuse in the return" if is_fuse else "opens the return"
    alone = "" if is_fuse else " alone"
    message = f"{who} {does}{of}{alone}: it stays live. Put {who} into the live conductor."
    place = symbol if load is None else load
    ids = tuple(dict.fromkeys((symbol.id, *([load.id] if load else []))))
    yield Snag("return-switched", "error", message, ids, sheet_id, place.x, place.y, device_id=symbol.device_id)


@check("return-earth", "A load whose current comes back over the protective conductor.")
def returns_over_earth(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each load one of whose ends can come to the protective conductor alone (IEC 60204-1, 8.2.8)."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit not in FED or not symbol.device_id:
            continue
        for pin in inputs_of(project, symbol):
            own = potential_of(project, (symbol.id, pin))
            found = reached(project, (symbol.id, pin))
            by_name = bool(found) and set(found) == {PROTECTIVE}
            by_earth = not found and bool(earths_on(project, own)) and "pe" not in own.categories
            past_bond = own.bonded and (symbol.id, pin) not in _come_back(project, *own.key)
            if (by_name and set(own.categories) != {"pe"}) or by_earth or past_bond:
                who = f"{called_on(project, symbol, sheet)}:{pins_of(project, symbol)[pin]}"
                message = f"The current of {who} comes back over the protective conductor."
                message = f"{message} Lead it to the return of its source."
                at = (symbol.x, symbol.y)
                yield Snag("return-earth", "error", message, (symbol.id,), sheet_id, *at, device_id=symbol.device_id)
                break


@derived
def _come_back(project: Project, sheet_id: str, point: int) -> set[PinKey]:
    """Return the pins of a bonded potential that are joined with its source without any protective conductor."""
    potential = potential_at(project, (sheet_id, point))
    nodes: dict[object, list[object]] = defaultdict(list)

    def join(one: object, other: object) -> None:
        nodes[one].append(other)
        nodes[other].append(one)

    starts: list[object] = []
    for group in potential.groups:
        for id in group.wires:
            w = project.wires[id]
            wire_type = project.wire_types.get(w.type_id)
            if wire_type is None or wire_type.category != "pe":
                join((w.sheet_id, w.x1, w.y1), (w.sheet_id, w.x2, w.y2))
        for id in group.continuations:
            mark = project.continuations[id]
            join((mark.sheet_id, mark.x, mark.y), mark.name)
        for id, pin in group.pins:
            symbol = project.symbols[id]
            join((symbol.sheet_id, *pin_points(symbol)[pin]), (id, pin))
            if definition(symbol.definition).carries and symbol.definition != EARTH_TERMINAL:
                join((id, pin), id)
            if any(device == symbol.device_id for device, _ in outputs_on(project, potential)):
                starts.append((id, pin))
    seen = set(starts)
    while starts:
        for there in nodes[starts.pop()]:
            if there not in seen:
                seen.add(there)
                starts.append(there)
    pins = {(id, pin) for group in potential.groups for id, pin in group.pins}
    return {pin for pin in pins if pin in seen} if seen else pins


@check("neutral-elsewhere", "A neutral that is not led through the residual-current device of its phases.")
def neutrals_elsewhere(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each load whose phases and neutral come from different residual-current devices.

    Source: IEC 60364-5-53 (531.3.2): all live conductors, the neutral among them, go through the device.
    """
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit not in FED or not symbol.device_id:
            continue
        neutrals, lives = set[str](), set[str]()
        plain = {"N": False, "L": False}
        for pin in inputs_of(project, symbol):
            own = potential_of(project, (symbol.id, pin))
            is_neutral = pins_of(project, symbol)[pin] == "N" or "N" in reached(project, (symbol.id, pin))
            found, without = residual_devices(project, own)
            (neutrals if is_neutral else lives).update(found)
            plain["N" if is_neutral else "L"] |= without
        if (
            not neutrals | lives
            or neutrals == lives
            or not any(pins_of(project, symbol))
            or not _has_neutral(project, symbol)
        ):
            continue
        who = called_on(project, symbol, sheet)
        names = [
            " and ".join(sorted(tag_on(project, project.devices[d], sheet) for d in ids)) for ids in (lives, neutrals)
        ]
        if lives and not neutrals:
            message = f"The neutral of {who} goes past {names[0]}, which its phase comes through."
        elif neutrals and not lives:
            message = f"The neutral of {who} comes through {names[1]}, but its phase goes past it."
        else:
            message = f"The phase of {who} comes through {names[0]}, its neutral through {names[1]}."
        message += " Lead both through one residual-current device."
        at = (symbol.x, symbol.y)
        yield Snag("neutral-elsewhere", "error", message, (symbol.id,), sheet_id, *at, device_id=symbol.device_id)


def _has_neutral(project: Project, symbol: Symbol) -> bool:
    """Return whether one input of a load is a neutral, and joined with something."""
    for pin in inputs_of(project, symbol):
        if pins_of(project, symbol)[pin] == "N" or "N" in reached(project, (symbol.id, pin)):
            return len(list(potential_of(project, (symbol.id, pin)).pins)) > 1
    return False


@check("loads-series", "Two loads one after another, so that neither has its voltage.")
def loads_in_series(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pair of loads with nothing but contacts between them and a source beyond each."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit not in LOADS:
            continue
        for pin in inputs_of(project, symbol):
            beyond = _other_end(project, symbol, pin)
            if reached(project, (symbol.id, pin)) or not beyond:
                continue
            other = _next_load(project, symbol, pin, beyond)
            if other is not None and (other.id > symbol.id or other.sheet_id != sheet_id):
                who, next_ = called_on(project, symbol, sheet), called_on(project, other, sheet)
                message = (
                    f"{who} and {next_} are one after another: neither gets its voltage. Give each its own return."
                )
                ids = (symbol.id, other.id)
                yield Snag(
                    "loads-series", "error", message, ids, sheet_id, symbol.x, symbol.y, device_id=symbol.device_id
                )
                break


def _other_end(project: Project, symbol: Symbol, pin: int) -> set[str]:
    return {w for n in inputs_of(project, symbol) if n != pin for w in reached(project, (symbol.id, n))}


def _next_load(project: Project, symbol: Symbol, pin: int, beyond: set[str]) -> Symbol | None:
    """Return the load on the far side of a pin; None where something else there may feed it."""
    start = potential_of(project, (symbol.id, pin))
    waiting, seen = deque([start]), {start.key}
    found: Symbol | None = None
    while waiting and len(seen) < _MOST:
        here = waiting.popleft()
        for id, n in here.pins:
            other = project.symbols[id]
            unit = definition(other.definition).unit
            if unit in _UNKNOWN:
                return None
            if unit in LOADS and id != symbol.id and _other_end(project, other, n) - beyond:
                found = other
        for _, there in links_at(project, here):
            if there.key not in seen:
                seen.add(there.key)
                waiting.append(there)
    return found
