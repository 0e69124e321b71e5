"""Checks of devices: equal tags, contacts without a lead, no free contact, no part."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from jolly_core.library import article, definition
from jolly_core.model import ATTACHED, Device, Project, Symbol
from jolly_core.plc import card_of
from jolly_core.tagging import CONTACT_KINDS, KIND_WORDS, full_tag, lead_of, pins_of, tag_on, unit_rows

from .registry import Snag, built, check, project_check

# Kinds whose pins are told apart by their designation; cards and blocks repeat those of their supplies.
_MARKED = (*CONTACT_KINDS, "coil", "heater", "cavity")


def _leads(project: Project, sheet_id: str) -> Iterator[Symbol]:
    for symbol in project.symbols_on(sheet_id):
        if symbol.device_id and lead_of(project, symbol.device_id) == symbol:
            yield symbol


@check("equal-tags", "Two devices of one full tag.")
def equal_tags(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each lead symbol whose device shares its full tag with another device."""
    sheet = project.sheets[sheet_id]
    for symbol in _leads(project, sheet_id):
        device = project.devices[symbol.device_id]
        if _twin(project, device):
            yield Snag(
                "equal-tags",
                "error",
                f"{tag_on(project, device, sheet)} is used by another device too.",
                (symbol.id,),
                sheet_id,
                symbol.x,
                symbol.y,
                device_id=device.id,
            )


def _twin(project: Project, device: Device) -> Device | None:
    """Return another device that shows the same full tag, None when there is none."""
    tag = full_tag(project, device)
    bare = tag.rsplit("-", 1)[-1]
    keys = {tag, bare, device.fixed_tag or f"{device.letters}{device.number}"}
    others = sorted({i for key in keys for i in project.devices_tagged.get(key)} - {device.id})
    return next((d for i in others for d in (project.devices[i],) if full_tag(project, d) == tag), None)


@project_check("equal-tags-beside", "Two devices of one full tag that are not drawn with a lead: cables, enclosures.")
def equal_tags_beside(project: Project) -> Iterator[Snag]:
    """Yield a snag for each device on no sheet that shares its full tag with another."""
    beside = {r.device_id for kind in ATTACHED for r in project.tables[kind].values() if r.device_id}
    for id in sorted(beside):
        device = project.devices[id]
        if not project.symbols_of_device.has(id) and _twin(project, device):
            message = f"{full_tag(project, device)} is used by another device too. Give one another tag."
            yield built("equal-tags-beside", "error", message, "draw", "", (), id)


@check("no-device", "A contact that belongs to no device, or whose lead is gone.")
def without_lead(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each follower without a device or whose device has no lead symbol any more."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        shape = definition(symbol.definition)
        if shape.lead < 9 or (symbol.device_id and lead_of(project, symbol.device_id)):
            continue
        if symbol.device_id and card_of(project, symbol.device_id):
            continue
        device = project.devices.get(symbol.device_id)
        if device is None:
            message = f"{article(shape.name).capitalize()} {shape.name} belongs to no device yet."
        else:
            message = f"{tag_on(project, device, sheet)} has only contacts: its coil or lead is not drawn."
        yield Snag(
            "no-device",
            "error",
            message,
            (symbol.id,),
            sheet_id,
            symbol.x,
            symbol.y,
            "choose-device",
            symbol.device_id,
        )


@check("pole-left-out", "A pole that is not drawn though a later one of its device is.")
def pole_left_out(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each device whose poles have a gap, at the first pole after it on its sheet."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        device = project.devices.get(symbol.device_id)
        if device is None or definition(symbol.definition).unit != "pole":
            continue
        others = [s for s in project.units_of(device.id) if definition(s.definition).unit == "pole"]
        drawn = {n for s in others for n in s.units}
        for missing in sorted(set(range(1, max(symbol.units))) - drawn):
            following = min(n for n in drawn if n > missing)
            if following in symbol.units:
                yield Snag(
                    "pole-left-out",
                    "warning",
                    f"Pole {missing} of {tag_on(project, device, sheet)} is not drawn, though pole {following} is.",
                    (symbol.id,),
                    sheet_id,
                    symbol.x,
                    symbol.y,
                    device_id=device.id,
                )


@check("no-free-unit", "A unit drawn that the chosen part does not have.")
def no_free_unit(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each symbol of a device with a part that has no unit left for it."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        device = project.devices.get(symbol.device_id)
        if device is not None and 0 in symbol.units:
            kind = KIND_WORDS[definition(symbol.definition).unit]
            part = project.part_of(device)
            number = part.number if part else "its part"
            yield Snag(
                "no-free-unit",
                "error",
                f"{tag_on(project, device, sheet)} has no free {kind} left on {number}.",
                (symbol.id,),
                sheet_id,
                symbol.x,
                symbol.y,
                "choose-part",
                device.id,
            )


@check("pins-twice", "Two pins of one designation on one device.")
def pins_twice(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag at the lead symbol of each device two of whose units have a pin of one designation.

    Notes:
        Several poles may end at one pin for the protective conductor, as those of a surge protective device do.
    """
    sheet = project.sheets[sheet_id]
    for symbol in _leads(project, sheet_id):
        device = project.devices[symbol.device_id]
        counts = Counter(
            pin for row in unit_rows(project, device) if row.kind in _MARKED for pin in set(row.pins) - {"", "PE"}
        )
        twice = sorted(pin for pin, count in counts.items() if count > 1)
        if twice:
            tag = tag_on(project, device, sheet)
            words = f"{tag} has two pins named {', '.join(twice)}. Choose another contact or part."
            yield Snag(
                "pins-twice", "error", words, (symbol.id,), sheet_id, symbol.x, symbol.y, "choose-part", device.id
            )


@check("cavity-twice", "A cavity of a connector that is drawn twice.")
def cavity_twice(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag at each symbol of a cavity that another symbol of the connector is drawn of, too."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        device = project.devices.get(symbol.device_id)
        if device is None or definition(symbol.definition).unit != "cavity":
            continue
        mine = {unit for unit in symbol.units if unit}
        others = (s for s in project.units_of(device.id) if s.id != symbol.id and mine & set(s.units))
        other = next((s for s in others if definition(s.definition).unit == "cavity"), None)
        if other is not None:
            name = f"{tag_on(project, device, sheet)}:{pins_of(project, symbol)[0]}"
            where = "" if other.sheet_id == sheet_id else f", also on sheet {project.sheets[other.sheet_id].number}"
            words = f"{name} is drawn twice{where}. Delete one of them, or choose another cavity."
            yield Snag("cavity-twice", "error", words, (symbol.id,), sheet_id, symbol.x, symbol.y, device_id=device.id)


@check("no-part", "A device without a part.")
def no_part(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag at the lead symbol of each device that has no part."""
    sheet = project.sheets[sheet_id]
    for symbol in _leads(project, sheet_id):
        device = project.devices[symbol.device_id]
        if not device.part_id:
            yield Snag(
                "no-part",
                "warning",
                f"{tag_on(project, device, sheet)} has no part.",
                (symbol.id,),
                sheet_id,
                symbol.x,
                symbol.y,
                "choose-part",
                device.id,
            )
