"""The trace of a load: from its source by each live pole to it, and its protective conductor to the earth.

Sources: IEC 60204-1, 5 (supply and disconnecting), 7 (protection), 8 (equipotential bonding).
"""

from __future__ import annotations

import re
from collections import defaultdict, deque
from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from jolly_core.checks import told_on
from jolly_core.circuits import (
    Link,
    Potential,
    comes_to_earth,
    earth_marks,
    earths_on,
    is_earth_pin,
    is_outlet,
    is_output,
    lacks_overload,
    links_of,
    loads_behind,
    loads_fed,
    paths_through,
    potential_at,
    potential_of,
    potentials_on,
    reached,
    takes_a,
)
from jolly_core.drawing import protective_types
from jolly_core.library import base_of, definition
from jolly_core.model import Cable, Project, RuleError, Symbol
from jolly_core.tagging import called_on, class_of, full_tag, pins_of
from jolly_core.wiring import Conductor, GroupKey, PinKey

from .tracemembers import (
    TraceMember,
    cable_member,
    cables_on,
    giving,
    lacking,
    member_of,
    past_terminal,
    short,
    sources_at,
    terminals_on,
)
from .tracepaths import Drops, cable_with, drawn_by, so_far_in_words, way_between, wires_in_words

LOADS = ("motor", "coil", "lamp", "load", "transformer", "supply", "sensor")
POWER = ("motor", "load", "transformer", "supply")
MOST = 400  # potentials looked at for one pole
_INLET = re.compile(r"^(\d?L\d?|R|S)$", re.IGNORECASE)


@dataclass(slots=True)
class Trace:
    """The way of a load.

    Attributes:
        name, facts: the load, and what it takes.
        members: in order, the source first, the load last.
        back: what its current comes back by, from the load on, the return last; empty where phases alone lead to it.
        earth: what its protective conductor is joined with, in words; empty where it needs none.
        earthed: whether that comes to an earth.
        closed: what has to be on for it to be fed, by tag.
        lit: ids of symbols and wires on the way, by sheet.
    """

    name: str
    facts: str
    members: list[TraceMember] = field(default_factory=list)
    back: list[TraceMember] = field(default_factory=list)
    earth: str = ""
    earthed: bool = True
    closed: list[str] = field(default_factory=list)
    lit: dict[str, list[str]] = field(default_factory=dict)


def traced(project: Project, id: str) -> Trace:
    """Return the trace of a load, of the load behind a pole, or of the one load that hangs on a wire or terminal.

    Raises:
        GoneError: there is no symbol and no wire of the id.
        RuleError: nothing there takes a current.
    """
    load = _load_at(project, id)
    sheet = project.sheets[load.sheet_id]
    amps = _amps(project, load)
    trace = Trace(called_on(project, load, sheet), f"{amps:.3g} A" if amps else "")
    found = _Followed()
    for pin, name in enumerate(pins_of(project, load)):
        if not is_earth_pin(name) and not is_output(project, load, pin):
            for way in _ways(project, load, pin):
                _follow(project, found, (load.id, pin), *way)
    trace.closed, trace.back = list(found.closed), list(found.back.values())
    drops = Drops(project, drawn_by(project, load, amps))
    ordered = [_measured(drops, found, key, m) for key, m in reversed(found.members.items())]
    sources = list(sources_at(project, list(found.tops.values())))
    sources = sources or [lacking("source", "nothing feeds it: no phase, no plus")]
    first, last = ([cable_member(project, c) for c in cables] for cables in _cables_beside(project, found))
    end = _measured(drops, found, "", member_of(project, load, "load", trace.facts))
    trace.members = [*sources, *first, *ordered, *_missing(project, load, ordered), *last, end]
    if _has_no_return(project, load, found):
        trace.back = [lacking("return", "nothing its current comes back by")]
    earth = _earth(project, load, trace)
    _light(project, trace, list(found.on.values()), [potential_at(project, key) for key in earth])
    return trace


@dataclass(slots=True)
class _Followed:
    """What the ways of a load's pins come past: members and what is behind it, potentials, their ends, what closes.

    `ways` has for each pin what leads to each member from the next one, from the load, "", on.
    """

    members: dict[str, TraceMember] = field(default_factory=dict)
    back: dict[str, TraceMember] = field(default_factory=dict)
    on: dict[GroupKey, Potential] = field(default_factory=dict)
    tops: dict[GroupKey, Potential] = field(default_factory=dict)
    closed: dict[str, None] = field(default_factory=dict)
    ways: list[dict[str, list[Conductor]]] = field(default_factory=list)


def _follow(
    project: Project,
    found: _Followed,
    start: PinKey,
    symbols: list[Symbol],
    links: list[Link],
    through: list[Potential],
) -> None:
    """Note what one way comes past; one that ends at a return is what the current comes back by."""
    top = through[-1]
    found.on |= {p.key: p for p in through[:-1] or short(top)}
    is_back = _is_return(top)
    along = found.back if is_back else found.members
    key, led = "", defaultdict[str, list[Conductor]](list)
    led[key], passed = [], dict[str, str]()
    starts = [start]
    for n, potential in enumerate(through):
        following = symbols[n] if n < len(symbols) else None
        ends = [pin for pin in potential.pins if following is not None and pin[0] == following.id]
        outputs = giving(project, potential) if following is None else []
        goals = {*ends, *(pin for pin in potential.pins if project.symbols[pin[0]] in outputs)}
        steps = way_between(project, potential, starts, goals) if goals else None
        if steps is None:  # at the very end of what is drawn a terminal is the source itself
            known = terminals_on(project, potential) if following is not None or outputs else ()
            steps = [symbol for _, symbol in known]
        for step in steps:
            if isinstance(step, Conductor):
                cable = cable_with(project, step)
                if cable is not None:
                    key = cable.id
                    along.setdefault(key, cable_member(project, cable))
                led[key].append(step)
            else:
                key = past_terminal(project, along, step, passed)
                led[key] += ()
        if following is not None:
            member = member_of(project, following)
            key = member.name
            along.setdefault(key, member)
            led[key] += ()
            starts = [pin for pin in (through[n + 1].pins if n + 1 < len(through) else ()) if pin[0] == following.id]
    if is_back:
        (end,) = sources_at(project, [top])
        word = top.label.word if top.label else ""
        along.setdefault("return", replace(end, role="return", facts="" if word == end.name else word))
    else:
        found.tops[top.key] = top
        found.ways.append(led)
    for link in links:
        device = project.devices.get(link.device_id)
        if device is not None:
            found.closed[f"{full_tag(project, device)} {'at rest' if link.sort == 'nc' else 'on'}"] = None


def _cables_beside(project: Project, found: _Followed) -> tuple[list[Cable], list[Cable]]:
    """Return the cables that no way is known to pass: those at its very end, and others."""
    beside = [c for c in cables_on(project, set(found.on)) if c.id not in found.members and c.id not in found.back]
    at_end = {c.id for c in cables_on(project, set(found.tops))} if beside else set()
    return [c for c in beside if c.id in at_end], [c for c in beside if c.id not in at_end]


def _measured(drops: Drops, found: _Followed, key: str, member: TraceMember) -> TraceMember:
    """Return a member with what leads to it, and the drop from the source to it on the way that drops the most."""
    led: list[Conductor] = []
    worst: list[float | None] = []
    for way in found.ways:
        if key in way:
            led = led or [c for c in way[key] if cable_with(drops.project, c) is None]
            keys = list(way)
            passed = [drops.over(c) for k in keys[keys.index(key) :] for c in way[k]]
            if sum(d or 0.0 for d in passed) >= sum(d or 0.0 for d in worst):
                worst = passed
    return replace(member, by=wires_in_words(drops.project, led), so_far=so_far_in_words(worst))


def _is_return(top: Potential) -> bool:
    """Return whether a way ends where the current comes back: 0 V, N, the right rail, the earthed end of a source.

    Of a secondary that nobody has named or earthed either end may be it, so neither is.
    """
    return top.returns if top.label is None else top.label.side == "return" or top.bonded


def _load_at(project: Project, id: str) -> Symbol:
    if id in project.wires:
        sheet_id = project.wires[id].sheet_id
        here = [p for p in potentials_on(project, sheet_id) if any(id in g.wires for g in p.groups)]
    else:
        symbol: Symbol = project.get("symbol", id)
        if definition(symbol.definition).unit in LOADS:
            return symbol
        behind = [u for x in loads_behind(project, id) for u in project.units_of(x.device.id)]
        found = [unit for unit in behind if definition(unit.definition).unit in LOADS]
        if found:
            return found[0]
        here = [potential_of(project, (id, n)) for n in range(len(pins_of(project, symbol)))]
    pins = [pin for potential in here for pin in potential.pins]
    loads = [s for pin in pins for s in (project.symbols[pin[0]],) if definition(s.definition).unit in LOADS]
    if not loads:
        raise RuleError("Nothing here takes a current. Choose a load, or what leads to one.", field="id", ids=(id,))
    return min(loads, key=lambda s: (definition(s.definition).unit == "transformer", s.sheet_id, s.y, s.x))


def _amps(project: Project, load: Symbol) -> float:
    """Return what a load takes, A; 0 while it is not known."""
    fed = loads_fed(project, [(load.id, 0)])
    own = next((x.amps for x in fed if x.device.id == load.device_id), 0.0)
    device = project.devices.get(load.device_id)
    part = project.part_of(device) if device else None
    return own or (takes_a(part) if part else 0.0)


def _ways(project: Project, load: Symbol, pin: int) -> Iterator[tuple[list[Symbol], list[Link], list[Potential]]]:
    """Yield what one pin of a load is fed through, from the load on: symbols, contacts among them, potentials."""
    start = potential_of(project, (load.id, pin))
    symbols: list[Symbol] = []
    links: list[Link] = []
    through = [start]
    if definition(load.definition).unit not in POWER:
        ways = sorted(
            (w for _, w in reached(project, (load.id, pin)).values()), key=lambda w: (len(w.links), w.through)
        )
        if ways:
            links = list(ways[0].links)
            symbols = [project.symbols[link.start[0]] for link in links]
            through = [potential_at(project, key) for key in ways[0].through]
    while True:
        above, on = _upward(project, through[-1])
        symbols, through = symbols + above, through + on
        links += [link for symbol in above for link in links_of(project, symbol)[:1]]
        drive, inlet = _before_drive(project, through[-1])
        if drive is None or inlet is None or drive in symbols:
            break
        symbols, through = [*symbols, drive], [*through, potential_of(project, inlet)]
    yield symbols, links, through


def _before_drive(project: Project, top: Potential) -> tuple[Symbol | None, PinKey | None]:
    """Return the drive whose output a potential is, with a pin of its supply."""
    for id, pin in top.pins:
        symbol = project.symbols[id]
        device = project.devices.get(symbol.device_id)
        if device is None or base_of(class_of(project, device)) != "drive":
            continue
        if not is_outlet(pins_of(project, symbol)[pin]):
            continue
        for unit in project.units_of(device.id):
            for n, name in enumerate(pins_of(project, unit)):
                if _INLET.match(name):
                    return unit, (unit.id, n)
    return None, None


def _upward(project: Project, start: Potential) -> tuple[list[Symbol], list[Potential]]:
    """Return the poles on the shortest way to the end of the line side of a potential, and the potentials after it."""
    before: dict[GroupKey, tuple[GroupKey, Symbol]] = {}
    known = {start.key: start}
    waiting, last = deque([start]), start
    while waiting and len(known) < MOST:
        here = last = waiting.popleft()
        upward = [
            (potential_of(project, line), symbol)
            for id, pin in here.pins
            for symbol in (project.symbols[id],)
            for line, load in paths_through(project, symbol)
            if load == (id, pin)
        ]
        if not upward:
            break
        for there, symbol in upward:
            if there.key not in known:
                known[there.key] = there
                before[there.key] = (here.key, symbol)
                waiting.append(there)
    symbols: list[Symbol] = []
    through: list[Potential] = []
    while last.key != start.key:
        through.append(last)
        key, symbol = before[last.key]
        symbols.append(symbol)
        last = known[key]
    return symbols[::-1], through[::-1]


def _missing(project: Project, load: Symbol, members: list[TraceMember]) -> Iterator[TraceMember]:
    """Yield what a load should have in front of it and has not."""
    amps = _amps(project, load)
    is_motor = definition(load.definition).unit == "motor"
    open_to_source = is_motor or any(load.id in s.ids for s in told_on(project, "unprotected", load.sheet_id))
    if open_to_source and "protection" not in " ".join(m.role for m in members):
        yield lacking("protection", "a breaker or fuse in each live pole")
    if is_motor and lacks_overload(project, load, half_drawn=True):
        yield lacking("overload", f"{amps:.3g} A needed" if amps else "for its rated current")


def _has_no_return(project: Project, load: Symbol, found: _Followed) -> bool:
    """Return whether one end of a load of two leads nowhere; what runs on phases alone needs no return."""
    live = [n for n, name in enumerate(pins_of(project, load)) if not is_earth_pin(name)]
    ends = [n for n in live if not is_output(project, load, n)]
    return not found.back and len(ends) == 2 and len(found.tops) == 1


def _earth(project: Project, load: Symbol, trace: Trace) -> set[GroupKey]:
    """Note what the protective conductor of a load is joined with; return its potentials."""
    sheet = project.sheets[load.sheet_id]
    for pin, name in enumerate(pins_of(project, load)):
        if not is_earth_pin(name):
            continue
        potential = potential_of(project, (load.id, pin))
        ends = [p for p in potential.pins if p[0] != load.id]
        hubs = earths_on(project, potential)
        names = list(dict.fromkeys(called_on(project, project.symbols[p[0]], sheet) for p in (hubs or ends)))
        trace.earth = ", ".join([*names[:4], *earth_marks(project, potential)]) or "nothing"
        trace.earthed = comes_to_earth(project, potential)
        return {potential.key}
    return set()


def _light(project: Project, trace: Trace, on: list[Potential], earth: list[Potential]) -> None:
    """Note what is drawn of the way, sheet by sheet in their order."""
    by_sheet: dict[str, dict[str, None]] = {}
    for potential in on:
        for group in potential.groups:
            by_sheet.setdefault(group.sheet_id, {}).update(dict.fromkeys(group.wires))
    types = protective_types(project)
    for potential in earth:
        for group in potential.groups:
            # Of a bonded one the conductors of the return are no part of the way to the earth.
            own = [id for id in group.wires if not potential.bonded or project.wires[id].type_id in types]
            by_sheet.setdefault(group.sheet_id, {}).update(dict.fromkeys(own))
    for member in trace.members:
        if member.symbol_id and member.sheet_id:
            by_sheet.setdefault(member.sheet_id, {})[member.symbol_id] = None
    trace.lit = {s.id: list(by_sheet[s.id]) for s in project.sheets_in_order() if by_sheet.get(s.id)}
