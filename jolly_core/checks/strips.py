"""Checks of terminal strips: bridges, parts, numbers, sizes of wires, room on the rail, what is not drawn."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from jolly_core.cabinet import placing_of, run_length
from jolly_core.cables import copper_of
from jolly_core.library import definition, terminal_kind
from jolly_core.library.quantities import number_of_text
from jolly_core.model import Device, Part, Project, derived, length_words
from jolly_core.tagging import called_on, full_tag, natural, pins_of
from jolly_core.terminals import (
    TERMINAL,
    LaidBridge,
    StripRow,
    block_parts,
    fits,
    groups_of,
    is_strip,
    laid_bridges,
    poles_of,
    slots_of,
    strip_record,
    strip_rows,
    strip_sum,
    strip_width_mm,
    strips,
    terminal_symbols,
)
from jolly_core.wiring import group_of

from .causes import labels_met
from .registry import Snag, built, check, project_check

StripCheck = Callable[[Project, Device], Iterator[Snag]]
STRIP_CHECKS: list[StripCheck] = []
SHOWN = 6  # terminals named in a snag that stands for many
LIVE = ("power", "control-ac", "control-dc", "pe")


def strip_check(code: str, help: str) -> Callable[[StripCheck], StripCheck]:
    """Register a check of one strip under a code: strips that nothing changed on are not looked at again."""

    def register(function: StripCheck) -> StripCheck:
        def run(project: Project) -> Iterator[Snag]:
            yield from _by_code(project).get(code, ())

        run.__name__ = function.__name__
        project_check(code, help)(run)
        STRIP_CHECKS.append(function)
        return function

    return register


@derived
def strip_snags(project: Project, strip_id: str) -> list[Snag]:
    """Return what the checks of strips find on one, muted or not."""
    strip = project.devices[strip_id]
    return [snag for function in STRIP_CHECKS for snag in function(project, strip)]


@derived
def _by_code(project: Project) -> dict[str, list[Snag]]:
    """Return what the checks of strips find on all of them, gathered once for all checks."""
    found: dict[str, list[Snag]] = {}
    for strip in strips(project):
        for snag in strip_snags(project, strip.id):
            found.setdefault(snag.code, []).append(snag)
    return found


def _listed(names: list[str]) -> str:
    return ", ".join(names[:SHOWN]) + (" ..." if len(names) > SHOWN else "")


@strip_check("bridge", "A bridge between different potentials, beyond its part's reach, or with no slot left.")
def bridges(project: Project, strip: Device) -> Iterator[Snag]:
    """Yield a snag for each fault of each bridge."""
    laid = laid_bridges(project, strip.id)
    rows = {r.unit: r for r in strip_rows(project, strip.id) if r.kind == TERMINAL} if laid else {}
    for bridge in laid:
        joined = [rows[u] for u in bridge.bridge.units if u in rows]
        ids = tuple(i for r in joined for i in r.symbol_ids)
        of = tuple(group_of(project, (id, 0)) for id in ids[:1])
        for message in _potentials_joined(project, strip, joined):
            yield built("bridge", "error", message, "terminals", strip.id, ids, strip.id, of=of)
        for message in _laid_wrong(project, strip, bridge):
            yield built("bridge", "error", message, "terminals", strip.id, ids, strip.id)


def _potentials_joined(project: Project, strip: Device, rows: list[StripRow]) -> Iterator[str]:
    """Yield what a bridge joins that is different: fixed numbers, names of potentials, kinds of wire."""
    tag = full_tag(project, strip)
    wires = [project.wires[t.conductor.wire_id] for r in rows for t in r.targets if t.conductor.wire_id]
    numbers = {w.number for w in wires if w.number}
    if len(numbers) > 1:
        yield f"A bridge of {tag} joins the fixed numbers {' and '.join(sorted(numbers, key=natural))}."
    words = labels_met(project, [id for row in rows for id in row.symbol_ids])
    if len(words) > 1:
        yield f"A bridge of {tag} joins the potentials {' and '.join(words)}."
    bonded = bool(words) and all(label.is_return for label in words.values())
    types = [project.wire_types[w.type_id] for w in wires if w.type_id in project.wire_types]
    kinds = dict.fromkeys(t.category for t in types if t.category in LIVE and not (bonded and t.category == "pe"))
    if len(words) < 2 and len(kinds) > 1:
        names = dict.fromkeys(t.name for t in types if t.category in LIVE)
        yield f"A bridge of {tag} joins wires of the types {' and '.join(names)}."


def _laid_wrong(project: Project, strip: Device, bridge: LaidBridge) -> Iterator[str]:
    """Yield what is wrong with where a bridge lies: its part is too short or of another pitch, or no slot is left."""
    tag = full_tag(project, strip)
    part = project.parts.get(bridge.bridge.part_id)
    under = block_parts(project, strip.id)[bridge.first : bridge.last + 1] if bridge.level else []
    if part is not None and bridge.level:
        if poles_of(part) < bridge.reach:
            yield f"A bridge of {tag} reaches over {bridge.reach} terminals, {part.number} over {poles_of(part)}."
        elif not all(fits(part, p.width_mm, bridge.reach) for p in under if p is not None):
            yield f"A bridge of {tag} is {part.number}, which is for terminals of another width."
    slots = min((slots_of(p) for p in under), default=0)
    if bridge.level and bridge.lane >= slots:
        yield f"{tag} has {bridge.lane + 1} bridges side by side, and its terminals {slots} slot(s)."


@strip_check("bridge-part", "Bridges along terminals that have parts, without a part: they would not be ordered.")
def bridges_without_part(project: Project, strip: Device) -> Iterator[Snag]:
    """Yield one snag for each strip with such bridges."""
    parts = block_parts(project, strip.id) if project.bridges_of_strip.has(strip.id) else []
    bare = [
        b
        for b in laid_bridges(project, strip.id)
        if b.level and b.bridge.part_id not in project.parts and all(parts[b.first : b.last + 1])
    ]
    if bare:
        words = "A bridge" if len(bare) == 1 else f"{len(bare)} bridges"
        message = f"{words} of {full_tag(project, strip)} ha{'s' if len(bare) == 1 else 've'} no part."
        yield built("bridge-part", "warning", message, "terminals", strip.id, (), strip.id)


@strip_check("terminal-part", "Terminals without a part of their kind: they would not be ordered.")
def terminal_parts(project: Project, strip: Device) -> Iterator[Snag]:
    """Yield a snag for each kind of terminal without a part; a strip that is drawn and has none is told as a device."""
    part = project.part_of(strip)
    if part is None and terminal_symbols(project, strip.id):
        return
    for group in groups_of(project, strip.id):
        if group.part is None:
            where = _listed([r.number for r in group.rows])
            ids = tuple(i for r in group.rows for i in r.symbol_ids[:1])
            message = f"{full_tag(project, strip)} has {len(group.rows)} {group.words} ({where}), and "
            message += f"{part.number} is of the kind {terminal_kind(part)}." if part else "no part for them."
            message += " Choose a part for them." if part else " Choose one."
            yield built("terminal-part", "warning", message, "terminals", strip.id, ids, strip.id)


@strip_check("terminal-number-twice", "Two terminals of one number on a strip that lead different wires.")
def terminal_numbers_twice(project: Project, strip: Device) -> Iterator[Snag]:
    """Yield one snag for each number that several terminals of a strip have."""
    by_wire = strip_record(project, strip.id).numbering == "wire"
    found: dict[str, list[StripRow]] = {}
    for row in strip_rows(project, strip.id):
        if row.kind == TERMINAL:
            found.setdefault(row.number, []).append(row)
    for number, rows in found.items():
        if len(rows) > 1 and (not by_wire or any(r.record.number == number for r in rows)):
            ids = tuple(i for r in rows for i in r.symbol_ids[:1])
            message = f"{full_tag(project, strip)} has {len(rows)} terminals {number}. Give others another number."
            yield built("terminal-number-twice", "error", message, "terminals", strip.id, ids, strip.id)


@strip_check("terminal-size", "A conductor too thick or too thin for the terminal it lands on.")
def terminal_sizes(project: Project, strip: Device) -> Iterator[Snag]:
    """Yield a snag for each terminal with a conductor outside the range of its part."""
    for row in strip_rows(project, strip.id):
        if row.kind != TERMINAL or row.part is None:
            continue
        low, high = (_limit(row.part, f"cross_section_{end}_mm2") for end in ("min", "max"))
        for target in row.targets:
            area = copper_of(project, target.conductor).area_mm2
            if area and ((high and area > high + 1e-9) or (low and area < low - 1e-9)):
                limit = f"at most {high:g}" if high and area > high else f"at least {low:g}"
                name = f"{full_tag(project, strip)}:{row.number}"
                message = f"{name} takes {limit} mm², and {target.name} comes with {area:g} mm²."
                ids = tuple(row.symbol_ids)
                yield built("terminal-size", "error", message, "terminals", strip.id, ids, strip.id)


def _limit(part: Part, rating: str) -> float:
    return number_of_text(part.ratings.get(rating, "")) or 0.0


@strip_check("terminal-side", "What lands on a strip from a device without a location: its side is not known.")
def sides_unknown(project: Project, strip: Device) -> Iterator[Snag]:
    """Yield one snag for each strip with such targets."""
    rows = [r for r in strip_rows(project, strip.id) if r.unknown]
    names = list(dict.fromkeys(t.name.rsplit(":", 1)[0] for r in rows for t in r.unknown))
    if names:
        have = "has" if len(names) == 1 else "have"
        message = f"{_listed(names)} on {full_tag(project, strip)} {have} no location."
        message += " Say where, so that the side is known."
        ids = tuple(i for r in rows for i in r.symbol_ids)
        yield built("terminal-side", "warning", message, "terminals", strip.id, ids, strip.id)


@strip_check("strip-long", "A strip longer than the rail it stands on.")
def strips_too_long(project: Project, strip: Device) -> Iterator[Snag]:
    """Yield a snag for each strip that its rail is too short for."""
    placing = placing_of(project, strip.id)
    rail = project.rails.get(placing.rail_id) if placing else None
    width = strip_width_mm(project, strip.id)
    if rail is not None and width > run_length(rail) + 0.01:
        long, room = length_words(project, width), length_words(project, run_length(rail))
        message = f"{full_tag(project, strip)} is {long} long, and its rail {room}."
        yield built("strip-long", "error", message, "terminals", strip.id, (), strip.id)


@strip_check("terminal-planned", "Terminals that are planned and drawn on no sheet.")
def planned_terminals(project: Project, strip: Device) -> Iterator[Snag]:
    """Yield one snag for each strip with planned terminals; spare ones are meant to stay so."""
    waiting = strip_sum(project, strip.id).waiting
    if waiting:
        rows = strip_rows(project, strip.id)
        numbers = _listed([r.number for r in rows if r.kind == TERMINAL and not r.drawn and not r.record.spare])
        words = "terminals" if waiting > 1 else "terminal"
        message = f"{full_tag(project, strip)}: {waiting} planned {words} on no sheet ({numbers})."
        message += " Draw them, or mark them as spare."
        yield built("terminal-planned", "warning", message, "terminals", strip.id, (), strip.id)


@check("terminal-no-strip", "A terminal that belongs to no strip.")
def terminals_without_strip(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each terminal on a sheet whose strip is gone or was never told."""
    for symbol in project.symbols_on(sheet_id):
        device = project.devices.get(symbol.device_id)
        if (device is None or not is_strip(project, device)) and definition(symbol.definition).unit == TERMINAL:
            name = f"{called_on(project, symbol, project.sheets[sheet_id])}:{pins_of(project, symbol)[0]}"
            message = f"The terminal {name.strip(':')} is on no strip. Say to which strip it belongs."
            yield Snag(
                "terminal-no-strip", "error", message, (symbol.id,), sheet_id, symbol.x, symbol.y, "choose-device"
            )
