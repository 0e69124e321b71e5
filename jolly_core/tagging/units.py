"""Units of a device: which are there, which are drawn, which is next, and what pins they have.

A symbol keeps the *number* of the unit of its kind that each of its poles stands for. Pins follow from it: the part's
pins when a part is chosen, else the generic ones of the symbol. A changeover serves as NO (its common and make pin) or
as NC (common and break): numbers of those kinds go on over the part's changeovers. A *slot* is the unit of the part
that a number stands for, by its own kind.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from jolly_core.library import definition, part_class, unit_kinds
from jolly_core.model import Device, Part, Project, Strip, Symbol, derived
from jolly_core.wiring import sheet_groups, wire_numbers

UNLIMITED = 10_000
ON_NO_LINE = "plc-card"  # the class of what is drawn and has no lead
_MAKES = ("4", "8")  # last digit of the make pin of a changeover (EN 50005)
Slot = tuple[str, int]  # kind of the part's unit and its number of that kind


@dataclass(slots=True, frozen=True)
class UnitRow:
    """A unit of a device as inspector and contact table show it; symbol_id is "" while it is free."""

    kind: str
    number: int
    pins: tuple[str, ...]
    symbol_id: str
    definition: str = ""


def pins_of(project: Project, symbol: Symbol) -> list[str]:
    """Return the pin names of a symbol pole by pole, "" for a pole that has no unit."""
    known = project.symbols.get(symbol.id) is symbol
    return _pins(project, symbol.id) if known else _pins_by(project, symbol)


@derived
def _pins(project: Project, symbol_id: str) -> list[str]:
    return _pins_by(project, project.symbols[symbol_id])


def _pins_by(project: Project, symbol: Symbol) -> list[str]:
    shape = definition(symbol.definition)
    device = project.devices.get(symbol.device_id)
    part = project.part_of(device) if device else None
    names: list[str] = []
    if shape.unit == "block":
        return list(shape.generic) * len(symbol.units)
    if device is not None and shape.unit == "terminal":
        return [terminal_number(project, device.id, unit) for unit in symbol.units for _ in shape.pins]
    for number in symbol.units:
        pins: tuple[str, ...] = ()
        if number and part is not None and not _endless(part):
            pins = served_pins(part, shape.unit, number)
        elif number:
            pins = shape.generic_pins(number)
        names += [pins[i] if i < len(pins) else "" for i in range(len(shape.pins))]
    return names


def terminal_number(project: Project, strip_id: str, unit: int) -> str:
    """Return the number of a strip's terminal: a fixed one, that of its wire where the strip counts so, or by order."""
    return _terminal_numbers(project, strip_id).get(unit, str(unit))


@derived
def _terminal_numbers(project: Project, strip_id: str) -> dict[int, str]:
    """Return the numbers of a strip's terminals by unit: fixed, else by wire, else by place, none twice."""
    records = [project.strip_items[id] for id in project.items_of_strip.get(strip_id)]
    said = (project.strips[i] for i in project.attached.get(strip_id) if i in project.strips)
    strip = next(said, Strip("", strip_id))
    drawn = {s.units[0] for s in project.units_of(strip_id) if definition(s.definition).unit == "terminal"}
    placed = [r for r in records if r.kind == "terminal" and (r.planned or r.unit in drawn)]
    placed.sort(key=lambda r: (r.order, r.unit, r.id))
    levels = {r.unit: r.level for r in placed}
    order = list(dict.fromkeys([*levels, *sorted(drawn)]))
    if strip.backward:
        order.reverse()
    if strip.numbering == "level":
        order.sort(key=lambda unit: levels.get(unit, 1))
    fixed = {r.unit: r.number for r in placed if r.number}
    found: dict[int, str] = {}
    given = set(fixed.values())
    for place, unit in enumerate(order):
        by_wire = _wire_number_at(project, strip_id, unit) if strip.numbering == "wire" and unit not in fixed else ""
        number = fixed.get(unit) or by_wire
        count = strip.start + place * strip.step
        while not number:
            number = "" if str(count) in given else str(count)
            # A place whose number is fixed elsewhere counts on behind all.
            count = max(count, strip.start + (len(order) - 1) * strip.step) + strip.step
        found[unit] = number
        given.add(number)
    return found


def _wire_number_at(project: Project, strip_id: str, unit: int) -> str:
    """Return the number of the wire at a terminal, "" when it has none."""
    for symbol in project.units_of(strip_id):
        if definition(symbol.definition).unit == "terminal" and symbol.units[0] == unit:
            groups = sheet_groups(project, symbol.sheet_id).of_pin
            numbers = wire_numbers(project, symbol.sheet_id)
            for pin in range(len(definition(symbol.definition).pins)):
                number = numbers.get(groups[symbol.id, pin], "")
                if number:
                    return number
    return ""


def _endless(part: Part) -> bool:
    return part_class(part.part_class).per_unit


def slot_of(part: Part, kind: str, number: int) -> Slot:
    """Return the unit of a part that the `number`-th unit drawn as a kind stands for: its own, then its changeovers."""
    own = part.count(kind)
    return ("co", number - own) if kind in ("no", "nc") and number > own else (kind, number)


def served_pins(part: Part, kind: str, number: int) -> tuple[str, ...]:
    """Return the pins of the `number`-th unit of a kind of a part, () when there is none.

    Example:
        A part with one changeover 11-14-12 gives 11-14 to the first NO and 11-12 to the first NC.
    """
    slot_kind, index = slot_of(part, kind, number)
    pins = part.pins_of(slot_kind, index)
    if slot_kind == kind or len(pins) < 3:
        return pins if slot_kind == kind else ()
    common, one, other = pins[:3]
    make, break_ = (one, other) if one[-1:] in _MAKES or other[-1:] not in _MAKES else (other, one)
    return common, make if kind == "no" else break_


def room_for(project: Project, device: Device, kind: str) -> int:
    """Return how many units of a kind the device can have: its part's, or any number without a part."""
    part = project.part_of(device)
    if part is None or _endless(part) or kind == "block":
        return UNLIMITED
    return _room(part, kind)


def _room(part: Part, kind: str) -> int:
    return part.count(kind) + (part.count("co") if kind in ("no", "nc") else 0)


def next_units(
    project: Project, device: Device, kind: str, poles: int, among: Iterable[Symbol] | None = None
) -> tuple[int, ...]:
    """Return the next free unit numbers for `poles` poles, in the part's order; 0 for each that has none.

    Args:
        among: the symbols whose units are taken; by default all of the device.

    Notes:
        Without a part a number is free when none of its usual markings is drawn already: after a changeover 11-14-12
        the first NC is 21-22.

    Example:
        A part with NO 13-14, NO 33-34, NC 21-22 gives to NO, NO, NC, NO: 1, 2, 1, 0.
    """
    symbols = list(project.units_of(device.id) if among is None else among)
    part = project.part_of(device)
    room = room_for(project, device, kind)
    bound = part if part is not None and room < UNLIMITED else None
    taken: set[Slot] = set()
    markings: set[str] = set()
    for symbol in symbols:
        shape = definition(symbol.definition)
        for number in symbol.units:
            if number:
                taken.add(slot_of(bound, shape.unit, number) if bound else (shape.unit, number))
                markings.update(shape.generic_pins(number) if shape.unit in _SHARED else ())
    if kind == "terminal":  # a planned one is there though nobody drew it
        items = (project.strip_items[id] for id in project.items_of_strip.get(device.id))
        taken.update((kind, item.unit) for item in items if item.unit)
    numbers: list[int] = []
    candidate = 1
    for _ in range(poles):
        while candidate <= room and (
            (slot_of(bound, kind, candidate) in taken)
            if bound
            else ((kind, candidate) in taken or bool(markings & _usual_pins(kind, candidate)))
        ):
            candidate += 1
        numbers.append(candidate if candidate <= room else 0)
        taken.add(slot_of(bound, kind, candidate) if bound else (kind, candidate))
    return tuple(numbers)


_SHARED = ("no", "nc", "co")  # kinds whose usual markings share pins


def _usual_pins(kind: str, number: int) -> set[str]:
    pins = unit_kinds()[kind].pins if kind in _SHARED else ()
    return {p.format(n=number, i=number, odd=2 * number - 1, even=2 * number) for p in pins}


def remap(project: Project, device: Device, old: Part | None, new: Part | None) -> tuple[list[Symbol], list[Symbol]]:
    """Return the device's symbols with units as the new part has them, and those that could not be mapped.

    Pins that the new part has too are kept; the rest take the free units of their kind in the order they were placed.
    """
    bound = None if new is None or _endless(new) else new
    changed: list[Symbol] = []
    lost: list[Symbol] = []
    taken: set[Slot] = set()
    symbols = project.units_of(device.id)
    wanted: dict[str, list[int]] = {}
    for symbol in symbols:
        kind = definition(symbol.definition).unit
        kept = []
        for number in symbol.units:
            free = bound is None or kind == "block"
            same = number if free else _same_pins(symbol, number, kind, old, bound, taken)
            kept.append(same)
            if same:
                taken.add(slot_of(bound, kind, same) if bound else (kind, same))
        wanted[symbol.id] = kept
    for symbol in symbols:
        kind = definition(symbol.definition).unit
        room = UNLIMITED if bound is None or kind == "block" else _room(bound, kind)
        units = []
        for number in wanted[symbol.id]:
            if not number:
                number = _first_free(bound, kind, room, taken)
            if number:
                taken.add(slot_of(bound, kind, number) if bound else (kind, number))
            units.append(number)
        if tuple(units) != symbol.units:
            changed.append(replace(symbol, units=tuple(units)))
        if 0 in units:
            lost.append(symbol)
    return changed, lost


def _first_free(part: Part | None, kind: str, room: int, taken: set[Slot]) -> int:
    for number in range(1, min(room, len(taken) + 1) + 1):
        if (slot_of(part, kind, number) if part else (kind, number)) not in taken:
            return number
    return 0


def _same_pins(symbol: Symbol, number: int, kind: str, old: Part | None, new: Part | None, taken: set[Slot]) -> int:
    if not number or new is None:
        return 0
    shape = definition(symbol.definition)
    pins = shape.generic_pins(number) if old is None else served_pins(old, kind, number)
    for candidate in range(1, _room(new, kind) + 1):
        if served_pins(new, kind, candidate) == pins and slot_of(new, kind, candidate) not in taken:
            return candidate
    return 0


def unit_rows(project: Project, device: Device) -> list[UnitRow]:
    """Return all units of a device, the part's in its order, drawn or free; then what is drawn beyond the part."""
    known = project.devices.get(device.id) is device
    return _rows(project, device.id) if known else _rows_by(project, device)


@derived
def _rows(project: Project, device_id: str) -> list[UnitRow]:
    return _rows_by(project, project.devices[device_id])


def _rows_by(project: Project, device: Device) -> list[UnitRow]:
    part = project.part_of(device)
    placed: dict[tuple[str, int], Symbol] = {}
    beyond: list[UnitRow] = []
    on_block: dict[str, Symbol] = {}
    for symbol in project.units_of(device.id):
        shape = definition(symbol.definition)
        if shape.unit == "block":
            on_block.update((name, symbol) for name in shape.generic)
            continue
        for pole, number in enumerate(symbol.units):
            bound = part if part is not None and not _endless(part) else None
            slot = slot_of(bound, shape.unit, number) if bound else (shape.unit, number)
            known = bound is None or (number and number <= _room(bound, shape.unit))
            if bound is not None and known and slot not in placed:
                placed[slot] = symbol
            else:
                size = len(shape.pins)
                pins = tuple(pins_of(project, symbol)[pole * size : (pole + 1) * size])
                beyond.append(UnitRow(shape.unit, number, pins, symbol.id, symbol.definition))
    rows: list[UnitRow] = []
    if part is not None and not _endless(part):
        counts: dict[str, int] = {}
        for kind, pins in part.units:
            counts[kind] = number = counts.get(kind, 0) + 1
            symbol_there = placed.get((kind, number))
            if kind == "pins":
                symbol_there = next((on_block[p] for p in pins if p in on_block), None)
            rows.append(
                UnitRow(
                    kind,
                    number,
                    pins,
                    symbol_there.id if symbol_there else "",
                    symbol_there.definition if symbol_there else "",
                )
            )
    return rows + sorted(beyond, key=lambda r: (definition(r.definition).lead, r.kind, r.number))


def coils_of(project: Project, device_id: str) -> list[Symbol]:
    """Return the coils of a device that are drawn as symbols of their own, in the order they were placed."""
    return [s for s in project.units_of(device_id) if definition(s.definition).unit == "coil"]


@derived
def lead_of(project: Project, device_id: str) -> Symbol | None:
    """Return the symbol that carries the device's tag, None when only followers are drawn."""
    leads = [s for s in project.units_of(device_id) if definition(s.definition).lead < 9]
    return min(leads, key=lambda s: (definition(s.definition).lead, s.id), default=None)


def is_on_no_line(project: Project, device_id: str) -> bool:
    """Return whether a device is on no ladder line, and waits for none: cables, enclosures and the like, PLC cards.

    The channels of a card are drawn wherever they are needed, and none of them leads it.
    """
    return all(definition(s.definition).part_class == ON_NO_LINE for s in project.units_of(device_id))


def home_of(project: Project, device_id: str) -> Symbol | None:
    """Return the symbol a device is shown at: its lead, else the one drawn first; None when nothing is drawn."""
    return lead_of(project, device_id) or next(iter(project.units_of(device_id)), None)


def units_drawn(project: Project, device: Device) -> dict[str, int]:
    """Return how many units of each kind are drawn of a device: what a part must have at least.

    A block counts its pins as units; a strip of terminals asks for nothing, because its part is had once a terminal.
    """
    found: dict[str, int] = {}
    for symbol in project.units_of(device.id):
        kind = definition(symbol.definition).unit
        kind = "pins" if kind == "block" else kind
        found[kind] = found.get(kind, 0) + len(symbol.units)
    return {} if "terminal" in found else found
