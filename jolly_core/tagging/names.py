"""Names of pins, and on which side of a panel's wall a device is."""

from __future__ import annotations

from jolly_core.drawing import place_in
from jolly_core.library import definition
from jolly_core.model import Device, Project, Symbol

from .tags import full_tag, tag_on
from .units import pins_of

INSIDE = ("panel", "door")


def pin_name(project: Project, pin: tuple[str, int], sheet_id: str = "") -> str:
    """Return designation:pin; short when a sheet is given to see it from."""
    return pin_names(project, project.symbols[pin[0]], sheet_id)[pin[1]]


def pin_names(project: Project, symbol: Symbol, sheet_id: str = "") -> list[str]:
    """Return what `pin_name` says of each pin of a symbol, pole by pole."""
    device = project.devices.get(symbol.device_id)
    names = pins_of(project, symbol)
    if device is None:
        where = place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y)
        return [f"{definition(symbol.definition).name} without a device at {where}"] * len(names)
    tag = tag_on(project, device, project.sheets[sheet_id]) if sheet_id else full_tag(project, device)
    return [f"{tag}:{name or '?'}" for name in names]


def device_at(project: Project, pin: tuple[str, int]) -> Device | None:
    """Return the device a pin belongs to, None while its symbol has none."""
    return project.devices.get(project.symbols[pin[0]].device_id)


def place_side(project: Project, device: Device | None) -> str:
    """Return where a device is: a side of its location (panel, door, field, machine), "" when it has none."""
    location = project.locations.get(device.location_id) if device else None
    return location.side if location else ""


def is_inside(project: Project, device: Device | None) -> bool:
    """Return whether a device is in a panel or on its door."""
    return place_side(project, device) in INSIDE
