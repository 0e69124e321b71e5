"""What stands on the way of a load: its members in words, with where they are and what their parts say of them."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass, replace

from jolly_core.cables import cable_cores, cable_drop, cable_length_m, copper_of
from jolly_core.circuits import Potential, is_output, potential_of
from jolly_core.drawing import place_in
from jolly_core.library import base_of, definition
from jolly_core.model import Cable, Project, RuleError, Symbol, long_words
from jolly_core.tagging import called_on, class_of, full_tag, natural, pins_of
from jolly_core.wiring import GroupKey

CONTACTS = ("no", "nc", "co", "tno", "tnc")
SHORT = 12  # pins of a potential that is lit whole; of a rail the members alone are
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
        by: size and length of the wires that lead to it from what stands before it in the list.
        so_far: the voltage drop from the source to it, in percent.
    """

    role: str
    name: str
    symbol_id: str = ""
    sheet_id: str = ""
    place: str = ""
    facts: str = ""
    missing: bool = False
    by: str = ""
    so_far: str = ""


def member_of(project: Project, symbol: Symbol, role: str = "", facts: str = "") -> TraceMember:
    """Return a symbol as a member, with what its part is rated for; role and facts are found where none are given."""
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


def sources_at(project: Project, tops: list[Potential]) -> Iterator[TraceMember]:
    """Yield what the ways begin at: an output of a supply or transformer, a name, or the end of what is drawn."""
    told: set[str] = set()
    for top in tops:
        outputs = giving(project, top)
        mark = next((project.continuations[id] for g in top.groups for id in g.continuations), None)
        if outputs:
            member = member_of(project, outputs[0], "source")
        elif mark is not None:
            sheet = project.sheets[mark.sheet_id]
            place = place_in(sheet, mark.x, mark.y)
            member = TraceMember("source", mark.name, mark.id, sheet.id, place, project.settings.supply)
        else:
            group = top.groups[0]
            sheet = project.sheets[group.sheet_id]
            ends = [called_on(project, project.symbols[id], sheet) for id, _ in top.pins if is_terminal_at(project, id)]
            name = ends[0] if ends else (top.label.word if top.label else NOTHING)
            y, x = group.first
            facts = "no source is named there" if name == NOTHING else project.settings.supply
            member = TraceMember("source", name, "", sheet.id, place_in(sheet, x, y), facts, name == NOTHING)
        if member.name not in told:
            told.add(member.name)
            yield member


def giving(project: Project, potential: Potential) -> list[Symbol]:
    """Return what gives a potential its current: outputs of cards, supplies and transformers."""
    return [
        project.symbols[id]
        for id, pin in potential.pins
        for symbol in (project.symbols[id],)
        if definition(symbol.definition).unit in ("do", "ao") or is_output(project, symbol, pin)
    ]


def is_terminal_at(project: Project, id: str) -> bool:
    """Return whether a symbol, by its id, is a terminal."""
    return definition(project.symbols[id].definition).unit == "terminal"


def terminals_on(project: Project, potential: Potential) -> Iterator[tuple[str, Symbol]]:
    """Yield the terminals on a stretch of the way with what those of a row have in common; none of a rail."""
    for one in short(potential):
        for id, pin in one.pins:
            symbol = project.symbols[id]
            if pin == 0 and symbol.device_id and is_terminal_at(project, id):
                yield f"{symbol.device_id} {symbol.sheet_id} {symbol.y}", symbol


def past_terminal(project: Project, along: dict[str, TraceMember], symbol: Symbol, passed: dict[str, str]) -> str:
    """Note a terminal, those of several poles side by side as one; return the key of the row.

    Args:
        passed: keys of rows that this way has come past, with the terminal of it there; of one row it passes one.
    """
    base = f"{symbol.device_id} {symbol.sheet_id} {symbol.y}"
    places = (base, *(f"{base} {n}" for n in range(2, len(passed) + 3)))
    key = next(k for k in places if passed.get(k, symbol.id) == symbol.id)
    passed[key] = symbol.id
    known = along.setdefault(key, replace(member_of(project, symbol, "terminal"), facts=""))
    names = {*known.facts.split(", "), pins_of(project, symbol)[0]} - {""}
    along[key] = replace(known, facts=", ".join(sorted(names, key=natural)))
    return key


def cables_on(project: Project, on: set[GroupKey]) -> Iterator[Cable]:
    """Yield the cables of which a core is on some potentials."""
    for cable in project.cables.values():
        cores = [row.conductor for row in cable_cores(project, cable.device_id) if row.conductor]
        if any(potential_of(project, c.start).key in on for c in cores):
            yield cable


def cable_member(project: Project, cable: Cable) -> TraceMember:
    """Return a cable as a member, with cross-section, length and the drop over it."""
    cores = (row.conductor for row in cable_cores(project, cable.device_id) if row.conductor and row.ordinal)
    sizes = dict.fromkeys(copper_of(project, c).size for c in cores)
    length, _ = cable_length_m(project, cable)
    said = [size for size in sizes if size]
    said += [long_words(project, length)] if length else []
    with suppress(RuleError):
        said.append(f"drops {cable_drop(project, cable).percent:.1f} %")
    device = project.devices[cable.device_id]
    band = next((b for b in project.bands.values() if b.device_id == device.id), None)
    sheet = project.sheets[band.sheet_id] if band else None
    place = place_in(sheet, band.x1, band.y1) if band and sheet else ""
    ids = band.id if band else "", sheet.id if sheet else ""
    return TraceMember("cable", full_tag(project, device), *ids, place, ", ".join(said))


def lacking(role: str, facts: str) -> TraceMember:
    """Return what is not there and should be."""
    return TraceMember(role, "missing", facts=facts, missing=True)


def short(potential: Potential) -> list[Potential]:
    """Return a potential by itself where it is no rail."""
    return [potential] if len(list(potential.pins)) <= SHORT else []
