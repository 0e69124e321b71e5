"""Where a pin is for the person who wires it, how many conductors it takes, and what it is for a protective conductor.

Terms: a *place* is the plate of one enclosure, its door, or one field location. A *gate* is a terminal or connector:
what a conductor passes a panel's wall by. A *hub* is an earth terminal or bar, from which protective conductors go out.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from jolly_core.library import definition
from jolly_core.model import Device, Location, Project

from .nets import PinKey

PIN_ROOM = 2
BAR_ROOM = 1000
GATES = ("terminal", "cavity")
EARTH_TERMINAL = "terminal-earth"
Place = tuple[str, str]  # id of an enclosure or location, and "plate", "door" or "field"; empty texts while unknown
INSIDE = ("plate", "door")


@dataclass(slots=True, frozen=True)
class Site:
    """What the order of conductors asks of a pin."""

    place: Place
    room: int
    gate: bool
    hub: bool


def site_of(project: Project, pin: PinKey) -> Site:
    """Return what the order of conductors asks of a pin, kept by its symbol until the next change."""
    kept: dict[str, Site] = project.derived("sites")
    found = kept.get(pin[0])
    if found is None:
        symbol = project.symbols[pin[0]]
        shape = definition(symbol.definition)
        device = project.devices.get(symbol.device_id)
        hub = symbol.definition == EARTH_TERMINAL or shape.unit == "earth"
        place = place_of(project, device) if device else ("", "")
        found = Site(place, room_of(project, device, shape.unit), shape.unit in GATES, hub)
        kept[pin[0]] = found
    return found


def room_of(project: Project, device: Device | None, unit: str) -> int:
    """Return how many conductors a pin takes: what its part says, else PIN_ROOM; an earth bar takes many."""
    part = project.part_of(device) if device else None
    for name in ("conductors_per_point", *(("terminals",) if unit == "earth" else ())):
        said = part.ratings.get(name, "").strip() if part else ""
        if said.isdigit() and int(said) > 0:
            return int(said)
    return BAR_ROOM if unit == "earth" else PIN_ROOM


def place_of(project: Project, device: Device) -> Place:
    """Return the place of a device: where it is placed in a layout, else what its location says.

    A door location inside that of a panel is that panel's door.
    """
    kept: dict[str, Place] = project.derived("places of devices")
    if device.id not in kept:
        kept[device.id] = _place(project, device)
    return kept[device.id]


def _place(project: Project, device: Device) -> Place:
    for id in project.attached.get(device.id):
        placing = project.placings.get(id)
        if placing is not None:
            return placing.enclosure_id, placing.surface
    location = project.locations.get(device.location_id)
    if location is None:
        return "", ""
    if location.side not in ("panel", "door"):
        return location.id, "field"
    surface = "plate" if location.side == "panel" else "door"
    panel = location if location.side == "panel" else _panel_above(project, location)
    return _enclosure_at(project, panel.id) or _enclosure_at(project, location.id) or panel.id, surface


def _panel_above(project: Project, location: Location) -> Location:
    seen: set[str] = set()
    above = project.locations.get(location.parent_id)
    while above is not None and above.id not in seen:
        if above.side == "panel":
            return above
        seen.add(above.id)
        above = project.locations.get(above.parent_id)
    return location


def _enclosure_at(project: Project, location_id: str) -> str:
    """Return the enclosure of a panel location, "" while it has none or several."""
    kept: dict[str, str] = project.derived("enclosures by location")
    if not kept:
        kept[""] = ""
        for enclosure in project.enclosures.values():
            at = project.devices[enclosure.device_id].location_id
            kept[at] = "" if at in kept else enclosure.id
    return kept.get(location_id, "") if location_id else ""


def panel_of(place: Place) -> str:
    """Return the panel a place is in, "" for the field and while it is unknown."""
    return place[0] if place[1] in INSIDE else ""


def gates_missing(one: Site, other: Site) -> int:
    """Return how many gates a conductor from one pin to another lacks where it passes walls of panels.

    One gate is enough between a panel and the field, two panels want one at each end; within a panel none is needed.
    """
    a, b = panel_of(one.place), panel_of(other.place)
    if a == b or not (one.place[1] and other.place[1]):
        return 0
    if a and b:
        return (not one.gate) + (not other.gate)
    return 0 if one.gate or other.gate else 1


def spread(sites: Mapping[PinKey, Site]) -> dict[Place, list[PinKey]]:
    """Return the pins of each place, in the order given; pins without a place count to the first place there is."""
    known = [s.place for s in sites.values() if s.place != ("", "")]
    usual = known[0] if known else ("", "")
    found: dict[Place, list[PinKey]] = {}
    for pin, site in sites.items():
        found.setdefault(site.place if site.place != ("", "") else usual, []).append(pin)
    return found
