"""The trace of a load: from its source by each live pole to it, and its protective conductor to the earth.

Sources: IEC 60204-1, 5 (supply and disconnecting), 7 (protection), 8 (equipotential bonding).
"""

from __future__ import annotations

import re
from collections import deque
from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from jolly_core.cables import cable_cores, cable_drop, cable_length_m, core_area_mm2
from jolly_core.checks import snags_on
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
from jolly_core.drawing import place_in, protective_types
from jolly_core.library import base_of, definition
from jolly_core.model import Project, RuleError, Symbol
from jolly_core.tagging import called_on, class_of, full_tag, natural, pins_of
from jolly_core.wiring import GroupKey, PinKey

LOADS = ("motor", "coil", "lamp", "load", "transformer", "supply", "sensor")
CONTACTS = ("no", "nc", "co", "tno", "tnc")
POWER = ("motor", "load", "transformer", "supply")
MOST = 400  # potentials looked at for one pole
SHORT = 12  # pins of a potential that is lit whole; of a rail the members alone are
_INLET = re.compile(r"^(\d?L\d?|R|S)$", re.IGNORECASE)
_ROLES = {
    "drive": "drive",
    "soft-starter": "soft starter",
    "disconnector": "disconnector",
    "breaker": "protection",
    "fuse": "protection",
    "motor-breaker": "protection and overload",
    "residual-current": "residual current",
    "overload": "overload",
    "contactor": "switching",
}
_RATINGS = (("rated_a", "{} A"), ("ac3_a", "{} A AC-3"), ("output_a", "{} A"), ("power_va", "{} VA"))


NOTHING = "end of what is drawn"


@dataclass(slots=True, frozen=True)
class TraceMember:
    """A thing on the way, from the source on.

    Attributes:
        role: what it is there for.
        name: its tag, or "missing".
        symbol_id, sheet_id, place: what of it is drawn, and where people find it; empty where nothing is.
        facts: what its part says of it.
        missing: it is not there and should be.
    """

    role: str
    name: str
    symbol_id: str = ""
    sheet_id: str = ""
    place: str = ""
    facts: str = ""
    missing: bool = False


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
                _follow(project, found, *way)
    trace.closed, trace.back = list(found.closed), list(found.back.values())
    ordered = list(reversed(found.members.values()))
    sources = list(_source(project, list(found.tops.values()))) or [
        _lacks("source", "nothing feeds it: no phase, no plus")
    ]
    trace.members = [*sources, *ordered, *_missing(project, load, ordered)]
    if _has_no_return(project, load, found):
        trace.back = [_lacks("return", "nothing its current comes back by")]
    cables = list(_cables(project, set(found.on)))
    drops = [percent for _, percent in cables if percent is not None]
    facts = ", ".join(x for x in (trace.facts, f"drop on the way {sum(drops):.1f} %" if len(drops) > 1 else "") if x)
    trace.members += [*(member for member, _ in cables), _member(project, load, "load", facts)]
    earth = _earth(project, load, trace)
    _light(project, trace, list(found.on.values()), [potential_at(project, key) for key in earth])
    return trace


@dataclass(slots=True)
class _Followed:
    """What the ways of a load's pins come past: members and what is behind it, potentials, their ends, what closes."""

    members: dict[str, TraceMember] = field(default_factory=dict)
    back: dict[str, TraceMember] = field(default_factory=dict)
    on: dict[GroupKey, Potential] = field(default_factory=dict)
    tops: dict[GroupKey, Potential] = field(default_factory=dict)
    closed: dict[str, None] = field(default_factory=dict)


def _follow(
    project: Project, found: _Followed, symbols: list[Symbol], links: list[Link], through: list[Potential]
) -> None:
    """Note what one way comes past; one that ends at a return is what the current comes back by."""
    top = through[-1]
    found.on |= {p.key: p for p in through[:-1] or _short(top)}
    is_back = _is_return(top)
    along = found.back if is_back else found.members
    for n, potential in enumerate(through):
        # At the very end of what is drawn a terminal is the source itself.
        between = n + 1 < len(through) or _outputs(project, potential)
        for key, symbol in _terminals(project, potential) if between else ():
            known = along.setdefault(key, replace(_member(project, symbol, "terminal"), facts=""))
            names = {*known.facts.split(", "), pins_of(project, symbol)[0]} - {""}
            along[key] = replace(known, facts=", ".join(sorted(names, key=natural)))
        if n < len(symbols):
            member = _member(project, symbols[n])
            along.setdefault(member.name, member)
    if is_back:
        (end,) = _source(project, [top])
        word = top.label.word if top.label else ""
        along.setdefault("return", replace(end, role="return", facts="" if word == end.name else word))
    else:
        found.tops[top.key] = top
    for link in links:
        device = project.devices.get(link.device_id)
        if device is not None:
            found.closed[f"{full_tag(project, device)} {'at rest' if link.sort == 'nc' else 'on'}"] = None


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


def _short(potential: Potential) -> list[Potential]:
    """Return a potential by itself where it is no rail."""
    return [potential] if len(list(potential.pins)) <= SHORT else []


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


def _member(project: Project, symbol: Symbol, role: str = "", facts: str = "") -> TraceMember:
    device = project.devices.get(symbol.device_id)
    part = project.part_of(device) if device else None
    key = base_of(class_of(project, device, symbol) if device else definition(symbol.definition).part_class)
    unit = definition(symbol.definition).unit
    # The contact of an overload or contactor switches; what its poles bear is not said of it.
    is_contact = not role and unit in CONTACTS
    ratings = part.ratings if part and not is_contact else {}
    said = [words.format(ratings[name]) for name, words in _RATINGS if ratings.get(name)]
    if ratings.get("setting_min_a") and ratings.get("setting_max_a"):
        said.append(f"{ratings['setting_min_a']} to {ratings['setting_max_a']} A")
    usual = "terminal" if unit == "terminal" else "switching"
    kind = role or (usual if is_contact else _ROLES.get(key, usual))
    sheet = project.sheets[symbol.sheet_id]
    name = full_tag(project, device) if device else definition(symbol.definition).name
    place = place_in(sheet, symbol.x, symbol.y)
    return TraceMember(kind, name, symbol.id, sheet.id, place, facts or ", ".join(said))


def _source(project: Project, tops: list[Potential]) -> Iterator[TraceMember]:
    """Yield what the ways begin at: an output of a supply or transformer, a name, or the end of what is drawn."""
    told: set[str] = set()
    for top in tops:
        outputs = _outputs(project, top)
        mark = next((project.continuations[id] for g in top.groups for id in g.continuations), None)
        if outputs:
            member = _member(project, outputs[0], "source")
        elif mark is not None:
            sheet = project.sheets[mark.sheet_id]
            place = place_in(sheet, mark.x, mark.y)
            member = TraceMember("source", mark.name, mark.id, sheet.id, place, project.settings.supply)
        else:
            group = top.groups[0]
            sheet = project.sheets[group.sheet_id]
            ends = [called_on(project, project.symbols[id], sheet) for id, _ in top.pins if _is_terminal(project, id)]
            name = ends[0] if ends else (top.label.word if top.label else NOTHING)
            y, x = group.first
            facts = "no source is named there" if name == NOTHING else project.settings.supply
            member = TraceMember("source", name, "", sheet.id, place_in(sheet, x, y), facts, name == NOTHING)
        if member.name not in told:
            told.add(member.name)
            yield member


def _outputs(project: Project, potential: Potential) -> list[Symbol]:
    """Return what gives a potential its current: outputs of cards, supplies and transformers."""
    return [
        project.symbols[id]
        for id, pin in potential.pins
        for symbol in (project.symbols[id],)
        if definition(symbol.definition).unit in ("do", "ao") or is_output(project, symbol, pin)
    ]


def _is_terminal(project: Project, id: str) -> bool:
    return definition(project.symbols[id].definition).unit == "terminal"


def _missing(project: Project, load: Symbol, members: list[TraceMember]) -> Iterator[TraceMember]:
    """Yield what a load should have in front of it and has not."""
    amps = _amps(project, load)
    is_motor = definition(load.definition).unit == "motor"
    open_to_source = is_motor or any(
        s.code == "unprotected" and load.id in s.ids for s in snags_on(project, load.sheet_id)
    )
    if open_to_source and "protection" not in " ".join(m.role for m in members):
        yield _lacks("protection", "a breaker or fuse in each live pole")
    if is_motor and lacks_overload(project, load, half_drawn=True):
        yield _lacks("overload", f"{amps:.3g} A needed" if amps else "for its rated current")


def _lacks(role: str, facts: str) -> TraceMember:
    return TraceMember(role, "missing", facts=facts, missing=True)


def _has_no_return(project: Project, load: Symbol, found: _Followed) -> bool:
    """Return whether one end of a load of two leads nowhere; what runs on phases alone needs no return."""
    live = [n for n, name in enumerate(pins_of(project, load)) if not is_earth_pin(name)]
    ends = [n for n in live if not is_output(project, load, n)]
    return not found.back and len(ends) == 2 and len(found.tops) == 1


def _terminals(project: Project, potential: Potential) -> Iterator[tuple[str, Symbol]]:
    """Yield the terminals on a stretch of the way with what those of a row have in common; none of a rail."""
    for one in _short(potential):
        for id, pin in one.pins:
            symbol = project.symbols[id]
            if pin == 0 and symbol.device_id and _is_terminal(project, id):
                yield f"{symbol.device_id} {symbol.sheet_id} {symbol.y}", symbol


def _cables(project: Project, on: set[GroupKey]) -> Iterator[tuple[TraceMember, float | None]]:
    """Yield the cables of which a core is on the way, with cross-section, length and drop, and the drop in percent."""
    for cable in project.cables.values():
        cores = [row.conductor for row in cable_cores(project, cable.device_id) if row.conductor]
        if not any(potential_of(project, c.start).key in on for c in cores):
            continue
        said = []
        percent: float | None = None
        area = core_area_mm2(project, cable.device_id)
        if area:
            said.append(f"{area:g} mm²")
        length, _ = cable_length_m(project, cable)
        if length:
            said.append(f"{length:g} m")
        try:
            percent = cable_drop(project, cable).percent
            said.append(f"drops {percent:.1f} %")
        except RuleError:
            pass
        device = project.devices[cable.device_id]
        band = next((b for b in project.bands.values() if b.device_id == device.id), None)
        sheet = project.sheets[band.sheet_id] if band else None
        place = place_in(sheet, band.x1, band.y1) if band and sheet else ""
        facts = ", ".join(said)
        name, ids = full_tag(project, device), (band.id if band else "", sheet.id if sheet else "")
        yield TraceMember("cable", name, *ids, place, facts), percent


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
