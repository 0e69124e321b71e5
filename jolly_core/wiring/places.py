"""Where a pin is for the person who wires it, how many conductors it takes, and what it is for a protective conductor.

Terms: a *place* is the plate of one enclosure, its door, or one field location. A *gate* is a terminal or connector:
what a conductor passes a panel's wall by. A *hub* is an earth terminal or bar, from which protective conductors go out.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass

from jolly_core.library import definition
from jolly_core.model import Device, Enclosure, Location, Part, Project, derived

from .nets import PinKey
from .terminalparts import part_at

PIN_ROOM = 2
BAR_ROOM = 1000
GATES = ("terminal", "cavity")
EARTH_TERMINAL = "terminal-earth"
Place = tuple[str, str]  # id of an enclosure or location, and "plate", "door" or "field"; empty texts while unknown
INSIDE = ("plate", "door")


@dataclass(slots=True)
class Site:
    """What the order of conductors asks of a pin."""

    place: Place
    panel: str
    room: int
    gate: bool
    hub: bool


def site_of(project: Project, pin: PinKey) -> Site:
    """Return what the order of conductors asks of a pin."""
    return _site(project, pin[0])


@derived
def _site(project: Project, symbol_id: str) -> Site:
    symbol = project.symbols[symbol_id]
    shape = definition(symbol.definition)
    device = project.devices.get(symbol.device_id)
    panel = panel_of(project, device) if device else ""
    hub = symbol.definition == EARTH_TERMINAL or shape.unit == "earth"
    place = place_of(project, device) if device else ("", "")
    return Site(place, panel, room_of(part_at(project, symbol), shape.unit), shape.unit in GATES, hub)


def room_of(part: Part | None, unit: str) -> int:
    """Return how many conductors a pin takes: what its part says, else PIN_ROOM; earth bars and splices take many."""
    for name in ("conductors_per_point", *(("terminals",) if unit == "earth" else ())):
        said = part.ratings.get(name, "").strip() if part else ""
        if said.isdecimal() and int(said) > 0:
            return int(said)
    return BAR_ROOM if unit in ("earth", "splice") else PIN_ROOM


def place_of(project: Project, device: Device) -> Place:
    """Return the place of a device: where it is placed in a layout, else what its location says.

    A door location inside that of a panel is that panel's door.
    """
    for id in project.attached.get(device.id):
        placing = project.placings.get(id)
        if placing is not None:
            return placing.enclosure_id, placing.surface
    return _place_at(project, device.location_id)


@derived
def _place_at(project: Project, location_id: str) -> Place:
    location = project.locations.get(location_id)
    if location is None:
        return "", ""
    if location.side not in ("panel", "door"):
        return location.id, "field"
    surface = "plate" if location.side == "panel" else "door"
    panel = location if location.side == "panel" else _panel_above(project, location)
    return _enclosure_at(project, panel.id) or _enclosure_at(project, location.id) or panel.id, surface


def _panel_above(project: Project, location: Location) -> Location:
    """Return the panel a door location belongs to: the one above it, else the one whose enclosure has its devices.

    Where neither says, it is the only panel location there is, or the door stands for itself.
    """
    seen: set[str] = set()
    above = project.locations.get(location.parent_id)
    while above is not None and above.id not in seen:
        if above.side == "panel":
            return above
        seen.add(above.id)
        above = project.locations.get(above.parent_id)
    return project.locations[_panels_of_doors(project).get(location.id, location.id)]


@derived
def _panels_of_doors(project: Project) -> dict[str, str]:
    """Return the panel location of each door location that lies in none, as far as placings or their count say it."""
    found: dict[str, Counter[str]] = {}
    for placing in project.placings.values():
        at = project.locations.get(project.devices[placing.device_id].location_id)
        own = project.devices[project.enclosures[placing.enclosure_id].device_id].location_id
        if at is not None and at.side == "door" and own in project.locations:
            found.setdefault(at.id, Counter())[own] += 1
    panels = [x.id for x in project.locations.values() if x.side == "panel"]
    only = panels[0] if len(panels) == 1 else ""
    table = {id: only for id, x in project.locations.items() if x.side == "door" and only}
    table.update({id: min(c, key=lambda k: (-c[k], k)) for id, c in found.items()})
    return {id: panel for id, panel in table.items() if project.locations[panel].side == "panel"}


def _enclosure_at(project: Project, location_id: str) -> str:
    """Return the enclosure of a panel location, "" while it has none or several."""
    return _enclosures_by_location(project).get(location_id, "") if location_id else ""


@derived
def _enclosures_by_location(project: Project) -> dict[str, str]:
    found = {"": ""}
    for enclosure in project.enclosures.values():
        at = _location_of(project, enclosure)
        found[at] = "" if at in found else enclosure.id
    return found


def _location_of(project: Project, enclosure: Enclosure) -> str:
    """Return the location an enclosure stands for: its own, else that of most devices placed in it."""
    own = project.devices[enclosure.device_id].location_id
    if own:
        return own
    panels = Counter(
        panel
        for placing in project.placings.values()
        if placing.enclosure_id == enclosure.id
        for panel in (_panel_at(project, project.devices[placing.device_id].location_id),)
        if panel
    )
    return min(panels, key=lambda id: (-panels[id], id), default="")


def _panel_at(project: Project, location_id: str) -> str:
    location = project.locations.get(location_id)
    if location is None or location.side not in ("panel", "door"):
        return ""
    return (location if location.side == "panel" else _panel_above(project, location)).id


@derived
def _one_panel(project: Project) -> dict[str, str]:
    """Return for each panel whose enclosures are open to those of another the one that stands for all of them."""
    found: dict[str, str] = {}

    def root(id: str) -> str:
        while found.get(id, id) != id:
            id = found[id]
        return id

    for enclosure in sorted(project.enclosures.values(), key=lambda e: e.id):
        left = project.enclosures.get(enclosure.left_id)
        if left is not None:
            pair = (_panel_at(project, _location_of(project, e)) or e.id for e in (left, enclosure))
            one, other = sorted(root(id) for id in pair)
            found[other] = one
    return {id: root(id) for id in found}


def panel_of(project: Project, device: Device) -> str:
    """Return the panel a device is in: the panel location of its own, or of the enclosure it is placed in.

    Panels whose enclosures are open to each other are one. A box in the field whose devices are placed in its enclosure
    is a panel, too.

    Returns:
        The id of a location, of an enclosure that is at no panel, or "" in the field and while it is unknown.
    """
    named = _panel_named(project, device.location_id) if device.location_id in project.locations else ""
    if named:
        return named
    placings = (project.placings.get(id) for id in project.attached.get(device.id))
    return panel_inside(project, next((p.enclosure_id for p in placings if p is not None), ""))


@derived
def _panel_named(project: Project, location_id: str) -> str:
    found = _panel_at(project, location_id)
    return _one_panel(project).get(found, found)


@derived
def panel_inside(project: Project, enclosure_id: str) -> str:
    """Return the panel that what stands in an enclosure is in, see `panel_of`; "" for no enclosure."""
    if not enclosure_id:
        return ""
    found = _panel_at(project, _location_of(project, project.enclosures[enclosure_id])) or enclosure_id
    return _one_panel(project).get(found, found)


def own_panel(project: Project, one: Device, other: Device) -> bool:
    """Return whether another device is in the panel of the first; outside of panels, at its location."""
    panel = panel_of(project, one)
    if panel:
        return panel_of(project, other) == panel
    return bool(one.location_id) and one.location_id == other.location_id


def gates_missing(one: Site, other: Site) -> int:
    """Return how many gates a conductor from one pin to another lacks where it passes walls of panels.

    One gate is enough between a panel and the field, two panels want one at each end; within a panel none is needed.
    """
    a, b = one.panel, other.panel
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
