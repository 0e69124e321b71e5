"""What stands on a strip in which order: terminals that are drawn or planned, end brackets, plates, markers.

A strip is a device of the terminal class. A terminal is there while a symbol of it is drawn, or while its `StripItem`
says that it is planned; the record also keeps order, number, level and remark that a person gave. A *block* is a
terminal of the first level with those of higher levels that follow it: one piece on the rail.
"""

from __future__ import annotations

from jolly_core.library import PLAIN, definition, is_like, kind_drawn, part_class
from jolly_core.model import STANDARDS, Device, Project, Strip, StripItem, Symbol, derived
from jolly_core.tagging import class_letters, tag_order

TERMINAL = "terminal"
CLASS = "terminal"


def strip_record(project: Project, strip_id: str) -> Strip:
    """Return what only a strip has; the usual values, not stored, where nobody said anything."""
    found = next((project.strips[i] for i in project.attached.get(strip_id) if i in project.strips), None)
    return found or Strip("", strip_id)


def is_strip(project: Project, device: Device) -> bool:
    """Return whether a device is a terminal strip: made, with something on it, or with a terminal that is drawn.

    What has a part of another class is none, whatever is drawn as one of its units: its part is bought once.
    """
    if project.items_of_strip.has(device.id) or strip_record(project, device.id).made:
        return True
    part = project.part_of(device)
    if part is not None and not is_like(part.part_class, CLASS):
        return False
    return any(definition(s.definition).unit == TERMINAL for s in project.units_of(device.id))


@derived
def strips(project: Project) -> list[Device]:
    """Return the terminal strips of the project, by tag in natural order."""
    letters = (
        {part_class(CLASS).letters(standard) for standard in STANDARDS}
        | {class_letters(project, CLASS)}
        | {r.letters for r in project.tag_rules.values() if r.letters and is_like(r.part_class or CLASS, CLASS)}
    )
    for key in {p.part_class for p in project.parts.values() if is_like(p.part_class, CLASS)}:
        letters |= {class_letters(project, key)} | {part_class(key).letters(standard) for standard in STANDARDS}
    # By the letters first: there are many devices in a large project, and few of them are strips.
    ids = {id for name in letters for id in project.devices_lettered.get(name)}
    ids |= {r.strip_id for r in project.strip_items.values()} | {r.device_id for r in project.strips.values()}
    found = [d for d in map(project.devices.get, ids) if d is not None and is_strip(project, d)]
    return sorted(found, key=lambda d: tag_order(project, d))


def terminal_symbols(project: Project, strip_id: str) -> dict[int, list[Symbol]]:
    """Return by unit the symbols that show each terminal of a strip."""
    found: dict[int, list[Symbol]] = {}
    for symbol in project.units_of(strip_id):
        if definition(symbol.definition).unit == TERMINAL:
            found.setdefault(symbol.units[0], []).append(symbol)
    return found


def item_records(project: Project, strip_id: str) -> list[StripItem]:
    """Return what stands on a strip in its order; terminals without a record get one that is not stored."""
    records = [project.strip_items[i] for i in project.items_of_strip.get(strip_id)]
    drawn = terminal_symbols(project, strip_id).keys()
    known = {r.unit for r in records if r.kind == TERMINAL}
    shown = [r for r in records if r.kind != TERMINAL or r.planned or r.unit in drawn]
    last = max((r.order for r in shown), default=0)
    shown.sort(key=lambda r: (r.order, r.unit, r.id))
    return shown + [StripItem("", strip_id, TERMINAL, last + 1, unit) for unit in sorted(drawn - known)]


def kind_of(project: Project, record: StripItem, symbols: list[Symbol]) -> str:
    """Return the kind of a terminal: as it is drawn, else as it is planned."""
    return kind_drawn(symbols[0].definition) if symbols else record.planned or kind_drawn(PLAIN)


def next_unit(project: Project, strip_id: str) -> int:
    """Return a unit number that no terminal of a strip has."""
    records = (project.strip_items[i] for i in project.items_of_strip.get(strip_id))
    return max([0, *(r.unit for r in records), *terminal_symbols(project, strip_id)]) + 1
