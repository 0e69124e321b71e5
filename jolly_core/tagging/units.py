"""Units of a device: which are there, which are drawn, which is next, and what pins they have.

A symbol keeps the *number* of the unit of its kind that each of its poles stands for. Pins follow from it: the part's
pins when a part is chosen, else the generic ones of the symbol.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from jolly_core.library import definition, part_class
from jolly_core.model import Device, Part, Project, Symbol
from jolly_core.wiring import sheet_groups, wire_numbers

UNLIMITED = 10_000


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
    shape = definition(symbol.definition)
    device = project.devices.get(symbol.device_id)
    part = project.part_of(device) if device else None
    names: list[str] = []
    if shape.unit == "block":
        return list(shape.generic)
    if device is not None and shape.unit == "terminal":
        return [terminal_number(project, device.id, symbol.units[0])] * len(shape.pins)
    for number in symbol.units:
        pins: tuple[str, ...] = ()
        if number and part is not None and not _endless(part):
            pins = part.pins_of(shape.unit, number)
        elif number:
            pins = shape.generic_pins(number)
        names += [pins[i] if i < len(pins) else "" for i in range(len(shape.pins))]
    return names


def terminal_number(project: Project, strip_id: str, unit: int) -> str:
    """Return the number of a strip's terminal: that of its wire where the strip counts so, a fixed one, or its unit."""
    if any(project.strips[id].numbering == "wire" for id in project.attached.get(strip_id) if id in project.strips):
        number = _wire_number_at(project, strip_id, unit)
        if number:
            return number
    for id in project.items_of_strip.get(strip_id):
        item = project.strip_items[id]
        if item.unit == unit and item.number:
            return item.number
    return str(unit)


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


def room_for(project: Project, device: Device, kind: str) -> int:
    """Return how many units of a kind the device can have: its part's, or any number without a part."""
    part = project.part_of(device)
    if part is None or _endless(part) or kind == "block":
        return UNLIMITED
    return part.count(kind)


def used_units(project: Project, device_id: str, kind: str, *, but: str = "") -> set[int]:
    """Return the unit numbers of a kind that symbols of the device stand for, leaving one symbol out."""
    return {
        number
        for s in project.units_of(device_id)
        if s.id != but and definition(s.definition).unit == kind
        for number in s.units
        if number
    }


def next_units(
    project: Project, device: Device, kind: str, poles: int, used: set[int] | None = None
) -> tuple[int, ...]:
    """Return the next free unit numbers for `poles` poles, in the part's order; 0 for each that has none.

    Example:
        A part with NO 13-14, NO 33-34, NC 21-22 gives to NO, NO, NC, NO: 1, 2, 1, 0.
    """
    taken = set(used_units(project, device.id, kind) if used is None else used)
    room = room_for(project, device, kind)
    numbers: list[int] = []
    candidate = 1
    for _ in range(poles):
        while candidate in taken and candidate <= room:
            candidate += 1
        numbers.append(candidate if candidate <= room else 0)
        taken.add(candidate)
    return tuple(numbers)


def remap(project: Project, device: Device, old: Part | None, new: Part | None) -> tuple[list[Symbol], list[Symbol]]:
    """Return the device's symbols with units as the new part has them, and those that could not be mapped.

    Pins that the new part has too are kept; the rest take the free units of their kind in the order they were placed.
    """
    unlimited = new is None or _endless(new)
    changed: list[Symbol] = []
    lost: list[Symbol] = []
    taken: dict[str, set[int]] = {}
    symbols = project.units_of(device.id)
    wanted: dict[str, list[int]] = {}
    for symbol in symbols:
        kind = definition(symbol.definition).unit
        kept = []
        for pole, number in enumerate(symbol.units):
            same = number if unlimited or kind == "block" else _same_pins(project, symbol, pole, kind, old, new, taken)
            kept.append(same)
            if same:
                taken.setdefault(kind, set()).add(same)
        wanted[symbol.id] = kept
    for symbol in symbols:
        kind = definition(symbol.definition).unit
        room = UNLIMITED if unlimited or new is None or kind == "block" else new.count(kind)
        used = taken.setdefault(kind, set())
        units = []
        for number in wanted[symbol.id]:
            if not number:
                number = next((n for n in range(1, len(used) + 2) if n not in used and n <= room), 0)
            used.add(number)
            units.append(number)
        if tuple(units) != symbol.units:
            changed.append(replace(symbol, units=tuple(units)))
        if 0 in units:
            lost.append(symbol)
    return changed, lost


def _same_pins(
    project: Project,
    symbol: Symbol,
    pole: int,
    kind: str,
    old: Part | None,
    new: Part | None,
    taken: dict[str, set[int]],
) -> int:
    number = symbol.units[pole]
    if not number or new is None:
        return 0
    shape = definition(symbol.definition)
    pins = shape.generic_pins(number) if old is None else old.pins_of(kind, number)
    for candidate in range(1, new.count(kind) + 1):
        if new.pins_of(kind, candidate) == pins and candidate not in taken.get(kind, set()):
            return candidate
    return 0


def unit_rows(project: Project, device: Device) -> list[UnitRow]:
    """Return all units of a device, the part's in its order, drawn or free; then what is drawn beyond the part."""
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
            known = part is None or _endless(part) or (number and number <= part.count(shape.unit))
            if part is not None and not _endless(part) and known and (shape.unit, number) not in placed:
                placed[shape.unit, number] = symbol
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


def lead_of(project: Project, device_id: str) -> Symbol | None:
    """Return the symbol that carries the device's tag, None when only followers are drawn."""
    kept = project.derived("leads")
    if device_id not in kept:
        kept[device_id] = _lead(project, device_id)
    lead: Symbol | None = kept[device_id]
    return lead


def _lead(project: Project, device_id: str) -> Symbol | None:
    leads = [s for s in project.units_of(device_id) if definition(s.definition).lead < 9]
    return min(leads, key=lambda s: (definition(s.definition).lead, s.id), default=None)
