"""What wires of a harness end in: cavities of connectors with their contacts, lugs, splices."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from jolly_core.cables import copper_of, number_of
from jolly_core.library import definition, names_in
from jolly_core.model import Device, Part, Project, derived
from jolly_core.sizing import bundle_diameter_mm, outer_diameter_mm, strip_length_mm
from jolly_core.tagging import pins_of
from jolly_core.wiring import Conductor, PinKey, conductors_at

# Units that wires of a harness end at, and parts of one such unit that are crimped on the wire themselves.
ENDS = ("cavity", "splice")
OWN_CONTACTS = ("ring-lug", "blade-terminal", "splice")


@dataclass(slots=True, frozen=True)
class CavityRow:
    """A cavity of a connector, or a splice.

    Attributes:
        cavity: its name.
        far: the far pin of each conductor.
        contact: the contact it takes.
        seal: what seals the wire in it, or the plug of an empty one; None where the housing is not sealed.
        elsewhere: the code of the other harness whose wires alone are in it, "" for none.
    """

    device_id: str
    cavity: str
    conductors: tuple[Conductor, ...]
    far: tuple[PinKey, ...]
    contact: Part | None
    strip_mm: float
    seal: Part | None = None
    elsewhere: str = ""


def is_splice(project: Project, device_id: str) -> bool:
    """Return whether a device is a splice: by its part, else by what is drawn of it."""
    device = project.devices.get(device_id)
    if device is None:
        return False
    part = project.part_of(device)
    drawn = any(definition(s.definition).unit == "splice" for s in project.units_of(device.id))
    return part.part_class == "splice" if part else drawn


def is_end(project: Project, device: Device) -> bool:
    """Return whether wires of a harness can end at a device: it has cavities, or is a splice."""
    part = project.part_of(device)
    if part is not None:
        return any(part.count(unit) for unit in ENDS)
    return any(definition(s.definition).unit in ENDS for s in project.units_of(device.id))


def contacts_of(project: Project, device: Device | None) -> list[Part]:
    """Return the contacts that a connector's cavities may take: those its housing's part names, in its order.

    A lug, a blade terminal and a splice are their own contacts.
    """
    return _contacts_of(project, device.part_id) if device else []


@derived
def _contacts_of(project: Project, part_id: str) -> list[Part]:
    part = project.parts.get(part_id)
    if part is not None and part.part_class in OWN_CONTACTS:
        return [part]
    named = names_in(part.ratings.get("contact", "")) if part else ()
    return [found for found in map(project.part_named, named) if found is not None]


def contact_of(project: Project, device: Device | None, area: float = 0.0, insulation: float = 0.0) -> Part | None:
    """Return the contact for conductors of an area in mm² and over their insulation in mm.

    It is the first allowed one that takes them, else the first.
    """
    allowed = contacts_of(project, device)
    return next((c for c in allowed if contact_fits(c, area, insulation)), allowed[0] if allowed else None)


def cavity_rows(project: Project, device_id: str, only: frozenset[str] | None = None) -> list[CavityRow]:
    """Return the cavities of a connector in its part's order, or those drawn while it has no part.

    Args:
        only: the keys of the wires that count, as those of a variant; None for all.
    """
    return _cavity_rows(project, device_id, only)


@derived
def _cavity_rows(project: Project, device_id: str, only: frozenset[str] | None) -> list[CavityRow]:
    device = project.devices[device_id]
    part = project.part_of(device)
    # By name; what is drawn beside all cavities of the part has none, and is one by itself.
    there: dict[tuple[str, str], list[tuple[Conductor, PinKey]]] = {}
    for symbol in project.units_of(device_id):
        if definition(symbol.definition).unit in ENDS:
            name = pins_of(project, symbol)[0]
            here = (symbol.id, 0)
            mine_here = (c for c in conductors_at(project, here) if only is None or c.key in only)
            there.setdefault((name, "" if name else symbol.id), []).extend((c, c.other(here)) for c in mine_here)
    keys = (
        [(pins[0], "") for kind, pins in part.units if kind in ENDS]
        if part
        else sorted(there, key=lambda k: _counted(k[0]))
    )
    rows = []
    for key in [*keys, *(k for k in there if k not in keys)]:
        found, name = there.get(key, []), key[0]
        mine, far = tuple(c for c, _ in found), tuple(pin for _, pin in found)
        contact = contact_of(project, device, cavity_area_mm2(project, mine), cavity_insulation_mm(project, mine))
        strip = cavity_strip_mm(project, device, mine[0]) if mine else number_of(contact, "strip_mm")
        seal = _seal_of(project, part, cavity_insulation_mm(project, mine)) if part else None
        rows.append(CavityRow(device_id, name, mine, far, contact, strip, seal))
    return rows


def _seal_of(project: Project, housing: Part, insulation: float) -> Part | None:
    """Return the seal of a cavity for a diameter over the insulation in mm, the plug where nothing is in it."""
    field = "seals" if insulation else "plugs"
    named = [p for p in map(project.part_named, names_in(housing.ratings.get(field, ""))) if p is not None]
    fitting = (p for p in named if not insulation or _within(insulation, *_around(p)))
    return next(fitting, named[0] if named else None)


def _around(part: Part) -> tuple[float, float]:
    return number_of(part, "insulation_min_mm"), number_of(part, "insulation_max_mm")


def cavity_area_mm2(project: Project, conductors: Iterable[Conductor]) -> float:
    """Return the area that a contact has to hold: that of all its conductors together, mm²."""
    return round(sum(copper_of(project, c).area_mm2 for c in conductors), 6)


def cavity_insulation_mm(project: Project, conductors: Iterable[Conductor]) -> float:
    """Return the diameter over the insulation that a contact has to hold, that of all its conductors together, mm."""
    sizes = [outer_diameter_mm(copper_of(project, c).area_mm2) for c in conductors]
    return round(bundle_diameter_mm(sizes), 2) if sizes else 0.0


def _counted(name: str) -> tuple[int, str]:
    return (int(name), "") if name.isdecimal() else (10**6, name)


def cavity_strip_mm(project: Project, device: Device | None, c: Conductor) -> float:
    """Return the strip length of a conductor's end in a connector: its contact's, else the usual one for its size."""
    area = copper_of(project, c).area_mm2
    return number_of(contact_of(project, device, area), "strip_mm") or strip_length_mm(area)


def contact_fits(contact: Part, area: float, insulation: float = 0.0) -> bool:
    """Return whether a contact takes conductors of an area in mm² and, where given, over their insulation in mm.

    One without limits takes any.
    """
    sections = number_of(contact, "cross_section_min_mm2"), number_of(contact, "cross_section_max_mm2")
    return _within(area, *sections) and (not insulation or _within(insulation, *_around(contact)))


def is_crowded(project: Project, row: CavityRow) -> bool:
    """Return whether several wires end in a cavity that its contact does not take together: they belong in a splice."""
    if len(row.conductors) < 2 or row.contact is None or row.contact.part_class == "splice":
        return False
    sizes = cavity_area_mm2(project, row.conductors), cavity_insulation_mm(project, row.conductors)
    return not contact_fits(row.contact, *sizes)


def _within(value: float, low: float, high: float) -> bool:
    return (not low or value >= low - 1e-9) and (not high or value <= high + 1e-9)
