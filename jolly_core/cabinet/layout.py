"""What stands where in an enclosure: surfaces, outlines of placed devices, positions of their pins. All in mm."""

from __future__ import annotations

from dataclasses import dataclass, replace

from jolly_core.cables import number_of
from jolly_core.model import (
    ATTACHED,
    Device,
    Enclosure,
    Placing,
    Project,
    Rail,
    RuleError,
    SurfaceName,
    derived,
    listed,
)
from jolly_core.tagging import full_tag, natural, place_side, tag_order
from jolly_core.terminals import is_strip, strip_width_mm

Surface = SurfaceName
SURFACE_WORDS = {
    "plate": "plate",
    "door": "door",
    "left": "left side wall",
    "right": "right side wall",
    "roof": "roof",
    "gland": "gland plate",
}
STRIP_DEPTH_MM = 47.0
STRIP_HEIGHT_MM = 48.0
RAIL_WIDTH_MM = 35.0


@dataclass(slots=True, frozen=True)
class Outline:
    """The rectangle a device takes on its surface, and how far it stands out; `upright` when it is turned."""

    x: float
    y: float
    width: float
    height: float
    depth: float
    upright: bool = False

    def moved(self, dx: float, dy: float) -> Outline:
        """Return the outline elsewhere."""
        return replace(self, x=self.x + dx, y=self.y + dy)

    def overlaps(self, other: Outline, slack: float = 0.01) -> bool:
        """Return whether two outlines lie upon each other; touching is allowed."""
        return (
            self.x + slack < other.x + other.width
            and other.x + slack < self.x + self.width
            and self.y + slack < other.y + other.height
            and other.y + slack < self.y + self.height
        )


def enclosures(project: Project) -> list[Enclosure]:
    """Return the enclosures by tag."""
    found = list(project.enclosures.values())
    return sorted(found, key=lambda e: tag_order(project, project.devices[e.device_id]))


def surface_size(project: Project, enclosure: Enclosure, surface: str) -> tuple[float, float]:
    """Return width and height of a surface: plate and door from the front, walls from inside, others from above.

    Raises:
        RuleError: the enclosure has no part, or its part says nothing of such a surface.
    """
    part = project.part_of(project.devices[enclosure.device_id])
    tag = full_tag(project, project.devices[enclosure.device_id])
    if part is None:
        raise RuleError(f"{tag} has no part. Choose an enclosure part, so that its size is known.", field="part_id")
    if surface == "door":
        return part.width_mm, part.height_mm
    if surface != "plate":
        if surface not in surfaces_of(project, enclosure):
            raise RuleError(f"{part.number} has no {SURFACE_WORDS[surface]} to build on.", field="surface")
        if surface == "gland":
            return number_of(part, "gland_width_mm"), number_of(part, "gland_depth_mm")
        return (part.width_mm if surface == "roof" else part.depth_mm), (
            part.depth_mm if surface == "roof" else part.height_mm
        )
    width, height = number_of(part, "plate_width_mm"), number_of(part, "plate_height_mm")
    if not width or not height:
        raise RuleError(f"{part.number} has no mounting plate. Choose one that has.", field="part_id")
    return width, height


def surfaces_of(project: Project, enclosure: Enclosure) -> list[Surface]:
    """Return the surfaces of an enclosure that can be built on: plate and door, and what else its part says."""
    part = project.part_of(project.devices[enclosure.device_id])
    found: list[Surface] = ["plate", "door"]
    if part is None:
        return found
    if part.ratings.get("side_walls") == "yes":
        found += ["left", "right"]
    if part.ratings.get("roof_used") == "yes":
        found.append("roof")
    if number_of(part, "gland_width_mm") and number_of(part, "gland_depth_mm"):
        found.append("gland")
    return found


def clearance_between(project: Project, one: Device, other: Device) -> float:
    """Return how far two devices beside each other must be apart at least by their parts, mm."""
    return max(number_of(project.part_of(d), "clear_beside_mm") for d in (one, other))


def rail_is_level(rail: Rail) -> bool:
    """Return whether a rail runs from left to right."""
    return rail.y1 == rail.y2


def size_of(project: Project, device: Device) -> tuple[float, float, float]:
    """Return width, height and depth of a device's outline; a strip's width is that of its items; 0 when unknown."""
    part = project.part_of(device)
    if is_strip(project, device):
        height = part.height_mm if part else STRIP_HEIGHT_MM
        return strip_width_mm(project, device.id), height, part.depth_mm if part else STRIP_DEPTH_MM
    return (*part.size_mm, part.depth_mm) if part else (0.0, 0.0, 0.0)


def outline(project: Project, placing: Placing) -> Outline:
    """Return the outline of a placed device; one on a rail sits across it, on an upright rail turned clockwise."""
    known = project.placings.get(placing.id) is placing
    return outline_of(project, placing.id) if known else _outline(project, placing)


def _outline(project: Project, placing: Placing) -> Outline:
    width, height, depth = size_of(project, project.devices[placing.device_id])
    rail = project.rails.get(placing.rail_id)
    if rail is None:
        return Outline(placing.x, placing.y, width, height, depth)
    if rail_is_level(rail):
        return Outline(placing.x, rail.y1 - height / 2, width, height, depth)
    return Outline(rail.x1 - height / 2, placing.y, height, width, depth, True)


@derived
def outline_of(project: Project, placing_id: str) -> Outline:
    """Return the outline of a placed device by its placing's id."""
    return _outline(project, project.placings[placing_id])


def placings_in(project: Project, enclosure_id: str, surface: str = "") -> list[Placing]:
    """Return what is placed in an enclosure, or on one surface of it."""
    placed = _placings(project, enclosure_id)
    return [p for p in placed if p.surface == surface] if surface else list(placed)


@derived
def _placings(project: Project, enclosure_id: str) -> list[Placing]:
    return sorted((p for p in project.placings.values() if p.enclosure_id == enclosure_id), key=lambda p: p.id)


@derived
def on_rail(project: Project, rail_id: str) -> list[Placing]:
    """Return what is placed on a rail."""
    return sorted((p for p in project.placings.values() if p.rail_id == rail_id), key=lambda p: p.id)


def placing_of(project: Project, device_id: str) -> Placing | None:
    """Return where a device is placed, None while it waits in the tray."""
    id = next((i for i in project.attached.get(device_id) if i in project.placings), "")
    return project.placings.get(id)


@derived
def tray(project: Project) -> list[Device]:
    """Return the devices of panels and doors that are not placed yet, by tag."""
    return [device for _, _, device in sorted([*_waiting_on_sheets(project), *_waiting_beside(project)], key=_by_tag)]


_Waiting = tuple[str, str, Device]  # tag, id, device


def _by_tag(waiting: _Waiting) -> tuple[object, ...]:
    return natural(waiting[0]), waiting[1]


@derived
def _waiting_on(project: Project, sheet_id: str) -> list[_Waiting]:
    """Return the devices that wait to be placed and are drawn on a sheet first."""
    found = []
    for symbol in project.symbols_on(sheet_id):
        device = project.devices.get(symbol.device_id)
        if device is not None and project.symbols_of_device.get(device.id)[0] == symbol.id and _waits(project, device):
            found.append((full_tag(project, device), device.id, device))
    return found


_waiting_on_sheets = listed(_waiting_on)


@derived
def _waiting_beside(project: Project) -> list[_Waiting]:
    """Return the devices that wait to be placed and are drawn nowhere."""
    ids = {r.device_id for kind in ATTACHED for r in project.tables[kind].values() if r.device_id}
    undrawn = [project.devices[id] for id in ids if not project.symbols_of_device.has(id)]
    return [(full_tag(project, d), d.id, d) for d in undrawn if _waits(project, d)]


def _waits(project: Project, device: Device) -> bool:
    attached = project.attached.get(device.id)
    if any(i in project.enclosures or i in project.cables or i in project.placings for i in attached):
        return False
    part = project.part_of(device)
    return place_side(project, device) in ("panel", "door") and (part is None or part.mounting != "cable")


def surface_for(project: Project, device: Device) -> Surface:
    """Return the surface a device that waits is put on unless a person says otherwise: "plate" or "door"."""
    part = project.part_of(device)
    door = place_side(project, device) == "door" or (part is not None and part.mounting == "door hole")
    return "door" if door else "plate"
