"""Cross-references: where the contacts of a lead unit are, and where a contact's lead is."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.drawing import place_in, place_on
from jolly_core.library import base_of, definition, part_class, unit_kinds
from jolly_core.model import Device, Part, Project, Sheet, Symbol, derived

from .units import UnitRow, coils_of, lead_of, next_units, pins_of, unit_rows

CONTACT_KINDS = ("no", "nc", "co", "tno", "tnc", "pole")
_TIMED = ("tno", "tnc")
KIND_WORDS = {key: kind.name for key, kind in unit_kinds().items()}


@dataclass(slots=True, frozen=True)
class ContactRow:
    """A line of a contact table: kind, pins, where it is ("" when free), the symbol there, and in which positions.

    `marks` says for each position of a switch whether the contact is closed in it; () where it has none.
    """

    kind: str
    pins: str
    place: str
    symbol_id: str
    marks: tuple[bool, ...] = ()


def reference_to(project: Project, symbol: Symbol, seen_from: Sheet) -> str:
    """Return where a symbol is: its line or zone, with the sheet in front when it is another one."""
    sheet = project.sheets[symbol.sheet_id]
    if sheet.id == seen_from.id:
        return place_on(sheet, symbol.x, symbol.y)
    return place_in(sheet, symbol.x, symbol.y)


def contact_table(project: Project, lead: Symbol) -> list[ContactRow]:
    """Return the contact table under a lead symbol; empty unless the device has units drawn apart from it or free.

    Poles drawn in one symbol share a row. A switch of several positions lists all its contacts, its lead's too. A
    second coil of the device is a row like a contact, so that each place is named.
    """
    return _table(project, lead.id)


@derived
def _table(project: Project, lead_id: str) -> list[ContactRow]:
    lead = project.symbols[lead_id]
    device = project.devices.get(lead.device_id)
    if device is None or lead_of(project, device.id) != lead:
        return []
    sheet = project.sheets[lead.sheet_id]
    rows: list[ContactRow] = []
    poles: dict[str, list[UnitRow]] = {}
    for row in unit_rows(project, device):
        second = row.kind == "coil" and bool(row.symbol_id)
        if row.symbol_id == lead.id and not positions_of(project, device):
            continue
        if row.symbol_id == lead.id and second or not (second or row.kind in CONTACT_KINDS):
            continue
        if row.kind == "pole":
            poles.setdefault(row.symbol_id, []).append(row)
        else:
            rows.append(_row(project, device, row, [row], sheet))
    grouped = [_row(project, device, members[0], members, sheet) for members in poles.values()]
    return grouped + rows


def _row(project: Project, device: Device, first: UnitRow, members: list[UnitRow], sheet: Sheet) -> ContactRow:
    place = reference_to(project, project.symbols[first.symbol_id], sheet) if first.symbol_id else ""
    pins = " ".join("-".join(p for p in m.pins if p) for m in members).strip()
    symbol = project.symbols.get(first.symbol_id)
    part = project.part_of(device)
    closed = closed_in(project, symbol) if symbol else _closed(part, first.kind, first.number) if part else ""
    marks = tuple(position in _names_in(closed) for position in positions_of(project, device))
    kind = f"{KIND_WORDS[first.kind]} in {closed}" if closed and not marks else KIND_WORDS[first.kind]
    return ContactRow(kind, pins or "none free", place, first.symbol_id, marks)


def positions_of(project: Project, device: Device) -> list[str]:
    """Return the positions of a switch by name, as its part says; [] for what has none, or no contact that says when.

    Example:
        A part with the positions "Hand, Off, Auto", and contacts closed in "Hand" and in "Auto": those three.
    """
    part = project.part_of(device)
    if part is None or not any(detail.get("closed") for detail in part.details):
        return []
    names = _names_in(part.ratings.get("positions", ""))
    return names if len(names) > 1 else []


def _names_in(text: str) -> list[str]:
    return [name.strip() for name in text.split(",") if name.strip()]


def closed_in(project: Project, symbol: Symbol) -> str:
    """Return the positions of a switch in which a contact is closed, as its part says, "" where it says nothing."""
    device = project.devices.get(symbol.device_id)
    part = project.part_of(device) if device else None
    if part is None or not part.details:
        return ""
    kind = definition(symbol.definition).unit
    return ", ".join(filter(None, (_closed(part, kind, number) for number in symbol.units)))


def _closed(part: Part, kind: str, number: int) -> str:
    places = [i for i, (k, _) in enumerate(part.units) if k == kind]
    return part.detail(places[number - 1]).get("closed", "") if 0 < number <= len(places) else ""


def lead_reference(project: Project, symbol: Symbol) -> str:
    """Return where the lead of a follower is, and other coils of its device; "" for the lead and without one."""
    if not symbol.device_id:
        return ""
    lead = lead_of(project, symbol.device_id)
    if lead is None or lead.id == symbol.id:
        return ""
    sheet = project.sheets[symbol.sheet_id]
    others = [c for c in coils_of(project, symbol.device_id) if c.id not in (lead.id, symbol.id)]
    return ", ".join(dict.fromkeys(reference_to(project, s, sheet) for s in (lead, *others)))


def likely_devices(project: Project, definition_key: str, sheet_id: str) -> list[tuple[Device, str, str]]:
    """Return devices a unit may belong to, best first: (device, name of the next pins or "", place of its lead).

    Those on the same sheet come first, then those with a free unit of the kind, then coils before buttons; those of
    which `unlikely` says something come last. Devices whose class has no such unit are left out.
    """
    shape = definition(definition_key)
    found: list[tuple[tuple[bool, bool, bool, int, str], Device, str, str]] = []
    for device in project.devices.values():
        lead = lead_of(project, device.id)
        if lead is None:
            if _is_card_for(project, device, shape.unit):
                found.append(_card_offer(project, device, shape.unit, sheet_id))
            continue
        if not _may_have(project, device, lead, shape.unit, shape.part_class):
            continue
        units = next_units(project, device, shape.unit, 1)
        trial = Symbol("", lead.sheet_id, 0, 0, definition_key, device_id=device.id, units=units)
        pins = "-".join(pins_of(project, trial)) if units[0] else ""
        place = place_in(project.sheets[lead.sheet_id], lead.x, lead.y)
        rank = definition(lead.definition).lead
        odd = bool(unlikely(project, device, shape.unit))
        found.append(((odd, lead.sheet_id != sheet_id, not pins, rank, lead.id), device, pins, place))
    found.sort(key=lambda row: row[0])
    return [(device, pins, place) for _, device, pins, place in found]


def _is_card_for(project: Project, device: Device, unit: str) -> bool:
    """Return whether a device that needs no lead, a PLC card, has units of a kind."""
    part = project.part_of(device)
    return part is not None and base_of(part.part_class) == "plc-card" and part.count(unit) > 0


def _card_offer(
    project: Project, device: Device, unit: str, sheet_id: str
) -> tuple[tuple[bool, bool, bool, int, str], Device, str, str]:
    numbers = next_units(project, device, unit, 1)
    part = project.part_of(device)
    pins = "-".join(part.pins_of(unit, numbers[0])) if part and numbers[0] else ""
    drawn = project.units_of(device.id)
    here = any(s.sheet_id == sheet_id for s in drawn)
    place = place_in(project.sheets[drawn[0].sheet_id], drawn[0].x, drawn[0].y) if drawn else ""
    return (False, not here, not pins, 0, device.id), device, pins, place


def unlikely(project: Project, device: Device, unit: str) -> str:
    """Return why a unit is hardly one of a device although its class may have it, "" where nothing speaks against it.

    A coil without a part may yet become a timing relay's; while it is drawn as a plain one, and has no contact that
    waits, one that waits is meant to belong to another.
    """
    lead = lead_of(project, device.id)
    if unit not in _TIMED or device.part_id or lead is None or definition(lead.definition).part_class != "relay":
        return ""
    timed = any(definition(s.definition).unit in _TIMED for s in project.units_of(device.id))
    return "" if timed else "drawn as a plain coil"


def _may_have(project: Project, device: Device, lead: Symbol, unit: str, wanted_class: str) -> bool:
    part = project.part_of(device)
    own = part_class(part.part_class if part else definition(lead.definition).part_class)
    if own.per_unit:
        return False
    if part is None and own.key == "relay":
        # A coil without a part may yet become a contactor or a timing relay.
        return unit in (*own.units, "pole", "tno", "tnc") and wanted_class in ("relay", "contactor", "timer")
    if wanted_class == "overload":
        return own.key == "overload" and unit in own.units
    return unit in own.units
