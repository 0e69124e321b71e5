"""Checks of potentials that meet: joined outright, or through poles and contacts without a load between.

What fixes a potential has a label (circuits/labels.py). Where nothing in a circuit has one, the poles of the device
that stands first in it are taken as so many phases.
"""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.circuits import (
    DRIVEN,
    PHASES,
    Circuit,
    Label,
    Link,
    Potential,
    Way,
    circuit_at,
    label_in_words,
    links_of,
    potential_at,
    potential_of,
    potentials_on,
    reached,
    way_in_words,
    ways_from,
)
from jolly_core.drawing import pin_points, rails_at
from jolly_core.library import base_of, definition
from jolly_core.model import Device, Project, Sheet, Symbol, derived
from jolly_core.tagging import called_on, class_of, full_tag, pins_of, tag_on
from jolly_core.wiring import PinKey, sheet_groups

from .causes import bridge_joining, joined_ids
from .registry import Snag, check

# Earthing one of these is a way of building a supply, and no fault.
_MAY_MEET = ({"0 V", "PE"}, {"N", "PE"}, {"0 V", "N"})
_LOADS = ("coil", "lamp", "load")
_SOURCES = ("supply", "transformer", "terminal", "cavity", "pins", "block", "card-supply")


@check("joined-potentials", "Two fixed potentials on one net, such as L1 and L2, or 24 V and 0 V.")
def joined_potentials(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each potential of a sheet that is two at once, and for a ladder whose rails are joined."""
    sheet = project.sheets[sheet_id]
    for potential in potentials_on(project, sheet_id):
        here = next(g for g in potential.groups if g.sheet_id == sheet_id)
        y, x = here.first
        if len(potential.labels) > 1:
            names = [
                word if label.sheet_id == sheet_id else label_in_words(project, label)
                for word, label in sorted(potential.labels.items())
            ]
            strip_id = bridge_joining(project, potential)
            by = f" by a bridge of {full_tag(project, project.devices[strip_id])}: take it away" if strip_id else ""
            message = f"{' and '.join(names)} are joined{by}."
            ids, of = joined_ids(potential, sheet_id), (potential.key,)
            yield Snag("joined-potentials", "error", message, ids, sheet_id, x, y, of=of)
        elif sheet.frame == "ladder":
            left, right = rails_at(sheet, x)
            upright = {w.x1 for i in here.wires for w in [project.wires[i]] if w.x1 == w.x2 and w.y2 - w.y1 > 1}
            if {left, right} <= upright:
                message = "The two rails are joined."
                yield Snag("joined-potentials", "error", message, tuple(here.wires[:1]), sheet_id, x, y)


@check("short-circuit", "Two potentials that meet through poles or contacts, with no load between them.")
def short_circuits(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pair of potentials of a circuit that meet, on the sheet in the middle of the way."""
    told: set[frozenset[PinKey]] = set()
    for label, other, way in _meetings_on(project, sheet_id):
        pins = frozenset(pin for link in way.links for pin in (link.start, link.end))
        if pins not in told:
            told.add(pins)
            snag = _short(project, label, other, way)
            if snag.sheet_id == sheet_id:
                yield snag


_Meeting = tuple[Label, Label, Way]


def _meetings_on(project: Project, sheet_id: str) -> Iterator[_Meeting]:
    """Yield what meets in the circuits that touch a sheet, and at each pole between two potentials with labels."""
    seen: set[tuple[str, int]] = set()
    for potential in potentials_on(project, sheet_id):
        if potential.label is None and potential.key not in seen:
            seen.update(circuit_at(project, potential).inner)
            yield from _meetings_at(project, *potential.key)
    for circuit in _single_poles(project, sheet_id):
        yield from _meetings(project, circuit)


@derived
def _meetings_at(project: Project, sheet_id: str, point: int) -> list[_Meeting]:
    return _meetings(project, circuit_at(project, potential_at(project, (sheet_id, point))))


def _meetings(project: Project, circuit: Circuit) -> list[_Meeting]:
    """Return the labels of a circuit that meet through its links and must not, each with the way."""
    names = _phases(project, circuit) if not circuit.ends else {}
    starts = list(circuit.ends.values()) + [circuit.inner[key] for key in names]
    found = []
    for start in sorted(starts, key=lambda p: p.key):
        label = start.label or names[start.key]
        for other, way in ways_from(project, start, circuit, names).values():
            if not _may_meet(label, other, way):
                found.append((label, other, way))
    return found


def _may_meet(one: Label, other: Label, way: Way) -> bool:
    """Return whether two labels may meet with no load between.

    They are alike; or one may be bonded to the other; or a rail, or a transformer's end without a name, is fed by or
    feeds what is on its side of the loads: from there on people call it so.
    """
    if one.word == other.word or {one.word, other.word} in _MAY_MEET:
        return True
    if "PE" in (one.word, other.word):
        return one.is_return or other.is_return
    if one.source and one.source == other.source:
        return False
    if any(a.word in PHASES and b.source and not b.named for a, b in ((one, other), (other, one))):
        return False  # a phase of the supply and what a transformer gives
    if not one.side or not other.side:
        return "return" not in (one.side, other.side) or all(link.sort == "always" for link in way.links)
    return not (one.said and other.said and one.named and other.named) and one.side == other.side


def _single_poles(project: Project, sheet_id: str) -> list[Circuit]:
    """Return each pole on a sheet between two potentials that have labels as a circuit."""
    found: list[Circuit] = []
    for symbol in project.symbols_on(sheet_id):
        for link in links_of(project, symbol):
            a, b = potential_of(project, link.start), potential_of(project, link.end)
            if a.label is not None and b.label is not None and a.key != b.key:
                links = {a.key: [(link, b)], b.key: [(link.turned(), a)]}
                found.append(Circuit({}, {a.key: a, b.key: b}, links))
    return found


def _short(project: Project, one: Label, other: Label, way: Way) -> Snag:
    middle = way.links[len(way.links) // 2]
    symbol = project.symbols[middle.start[0]]
    x, y = pin_points(symbol)[middle.start[1]]
    rails = not one.said and not other.said
    words = f"{label_in_words(project, one)} meets {label_in_words(project, other)} {way_in_words(project, way)}"
    message = f"A rung without a load: {words}." if rails else f"{words}, with no load between."
    ids = tuple(dict.fromkeys(link.start[0] for link in way.links))
    message = message[:1].upper() + message[1:]
    of = (way.through[0], way.through[-1])
    return Snag("short-circuit", "error", message, ids, symbol.sheet_id, x, y, device_id=symbol.device_id, of=of)


def _phases(project: Project, circuit: Circuit) -> dict[tuple[str, int], Label]:
    """Return labels for the line side of the device that stands first in a circuit without any, {} when none does."""
    poles: dict[str, list[Link]] = {}
    for links in circuit.links.values():
        for link, _ in links:
            forward = link if link.start[1] < link.end[1] else link.turned()
            if forward.device_id in project.devices and forward not in poles.setdefault(forward.device_id, []):
                poles[forward.device_id].append(forward)
    several = {id: links for id, links in poles.items() if len(links) > 1 and links[0].sort in ("always", DRIVEN)}
    if not several:
        return {}
    first = min(several, key=lambda id: _rank(project, several[id]))
    names: dict[tuple[str, int], Label] = {}
    for link in sorted(several[first], key=lambda k: (project.symbols[k.start[0]].y, k.start[1])):
        symbol = project.symbols[link.start[0]]
        device = project.devices[first]
        tag = tag_on(project, device, project.sheets[symbol.sheet_id])
        word = f"{tag}:{pins_of(project, symbol)[link.start[1]]}"
        key = potential_of(project, link.start).key
        names.setdefault(key, Label(word, None, "", symbol.id, symbol.sheet_id))
    return names


def _rank(project: Project, links: list[Link]) -> tuple[int, int, int, int]:
    """Return a key that is least for the device nearest to the supply: at a terminal, then first in reading order."""
    symbol = project.symbols[links[0].start[0]]
    units = {definition(project.symbols[id].definition).unit for id, _ in potential_of(project, links[0].start).pins}
    at_gate = 0 if units & {"terminal", "cavity"} else 1
    return at_gate, project.sheets[symbol.sheet_id].order, symbol.y, symbol.x


@check("poles-joined", "Two poles of a device on one wire at its line side: phases of one type are joined.")
def poles_joined(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each device two of whose poles come from one power net without a name, and lead to two."""
    sheet = project.sheets[sheet_id]
    for device_id in dict.fromkeys(s.device_id for s in project.symbols_on(sheet_id) if s.device_id):
        device = project.devices[device_id]
        links = [k for s in project.units_of(device_id) for k in links_of(project, s) if k.sort in ("always", DRIVEN)]
        if len(links) < 2 or base_of(class_of(project, device)) == "fuse":
            continue
        for side in (0, 1):
            snag = _pair_joined(project, sheet, device, links, side)
            if snag is not None:
                yield snag
                break


def _pair_joined(project: Project, sheet: Sheet, device: Device, links: list[Link], side: int) -> Snag | None:
    for n, one in enumerate(links):
        for two in links[n + 1 :]:
            a, b = ((one.start, two.start), (one.end, two.end))[side]
            near, far = potential_of(project, a), potential_of(project, b)
            if near.key != far.key or near.label is not None or not _is_power(project, near):
                continue
            away = ((one.end, two.end), (one.start, two.start))[side]
            own = {pin for k in links for pin in (k.start, k.end)}
            parallel = potential_of(project, away[0]).key == potential_of(project, away[1]).key
            if parallel or not set(near.pins) - own or project.symbols[a[0]].sheet_id != sheet.id:
                continue  # poles beside each other carry one current; a star point has nothing else on it
            symbol = project.symbols[a[0]]
            names = [pins_of(project, project.symbols[pin[0]])[pin[1]] for pin in (a, b)]
            x, y = pin_points(symbol)[a[1]]
            message = f"{tag_on(project, device, sheet)}:{names[0]} and :{names[1]} are on one wire: phases are joined."
            return Snag("poles-joined", "error", message, (symbol.id,), sheet.id, x, y, device_id=device.id)
    return None


def _is_power(project: Project, potential: Potential) -> bool:
    types = (project.wire_types.get(project.wires[i].type_id) for g in potential.groups for i in g.wires)
    return any(t is not None and t.category == "power" for t in types)


@check("bridged", "A pole, contact or load with a wire from one of its pins to the other.")
def bridged(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each symbol whose two pins are on one potential."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        for a, b in _pairs(project, symbol):
            if potential_of(project, a).key == potential_of(project, b).key:
                x, y = pin_points(symbol)[a[1]]
                names = pins_of(project, symbol)
                who = f"{called_on(project, symbol, sheet)}:{names[a[1]] or '?'}-{names[b[1]] or '?'}"
                message = f"{who} is bridged by a wire: it does nothing. Take the wire or it away."
                yield Snag("bridged", "error", message, (symbol.id,), sheet_id, x, y, device_id=symbol.device_id)
                break


def _pairs(project: Project, symbol: Symbol) -> list[tuple[PinKey, PinKey]]:
    if definition(symbol.definition).unit in (*_LOADS, "supply", "transformer"):
        return [((symbol.id, 0), (symbol.id, 1))]
    return [(k.start, k.end) for k in links_of(project, symbol)]


@check("dead-load", "A load with the same potential at both ends.")
def dead_loads(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each coil, lamp or other load that has one potential only at both of its ends."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit not in (*_LOADS, "supply", "transformer"):
            continue
        pins = [(symbol.id, 0), (symbol.id, 1)]
        if potential_of(project, pins[0]).key == potential_of(project, pins[1]).key:
            continue  # told as bridged
        one, other = (reached(project, pin) for pin in pins)
        if len(one) == 1 and one.keys() == other.keys():
            (label, way), (_, back) = next(iter(one.values())), next(iter(other.values()))
            longer = max((way, back), key=lambda w: len(w.links))
            words = f"{label_in_words(project, label)} at both ends, {way_in_words(project, longer)}"
            message = f"{called_on(project, symbol, sheet)} has {words}: it never works."
            ids, of = (symbol.id,), (way.through[-1], back.through[-1])
            at = (symbol.x, symbol.y)
            yield Snag("dead-load", "error", message, ids, sheet_id, *at, device_id=symbol.device_id, of=of)


@check("rail-unfed", "A ladder's rail that nothing feeds.")
def rails_unfed(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for a ladder with something on it whose rails lead to no supply, terminal or continuation."""
    sheet = project.sheets[sheet_id]
    if sheet.frame != "ladder":
        return
    of_wire = sheet_groups(project, sheet_id).of_wire
    unfed: dict[str, tuple[str, int, int]] = {}
    for w in project.wires_on(sheet_id):
        left, right = rails_at(sheet, w.x1)
        if w.x1 != w.x2 or w.x1 not in (left, right) or w.y2 - w.y1 < sheet.line_spacing:
            continue
        group = sheet_groups(project, sheet_id).by_point[of_wire[w.id]]
        word = "left" if w.x1 == left else "right"
        if word not in unfed and group.pins and not _is_fed(project, group.key):
            unfed[word] = (w.id, w.x1, w.y1)
    if unfed:
        rails = f"The {' and the '.join(sorted(unfed))} rail {'are' if len(unfed) > 1 else 'is'}"
        message = f"{rails} fed by nothing. Bring it in by a continuation, a terminal or a supply."
        id, x, y = next(iter(unfed.values()))
        yield Snag("rail-unfed", "warning", message, (id,), sheet_id, x, y)


def _is_fed(project: Project, key: tuple[str, int]) -> bool:
    """Return whether a potential has a source, or can be switched to one."""
    start = potential_at(project, key)
    waiting, seen = [start], {start.key}
    while waiting:
        here = waiting.pop()
        if any(g.continuations for g in here.groups):
            return True
        for symbol_id, _ in here.pins:
            symbol = project.symbols[symbol_id]
            shape = definition(symbol.definition)
            if shape.unit in _SOURCES:
                return True
            for link in links_of(project, symbol):
                if link.sort == "always":
                    for pin in (link.start, link.end):
                        there = potential_of(project, pin)
                        if there.key not in seen:
                            seen.add(there.key)
                            waiting.append(there)
    return False
