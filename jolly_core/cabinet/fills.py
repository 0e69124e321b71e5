"""How full ducts are, measured where they are fullest."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.cables import copper_of
from jolly_core.model import Part, Project, counted, derived, listed
from jolly_core.sizing import fill_percent, outer_diameter_mm

from .routes import routes_from


@dataclass(slots=True, frozen=True)
class Fill:
    """How full a duct is where it is fullest: percent, wires there, and the rule with its figures."""

    duct_id: str
    percent: float
    wires: int
    why: str


def has_room(part: Part) -> bool:
    """Return whether a part says how wide and deep a duct is, without which nobody knows how full it gets."""
    return part.width_mm > 0 and part.depth_mm > 0


def fill_words(project: Project, fill: Fill) -> str:
    """Return in words how full a duct is and with how many wires."""
    wires = counted(fill.wires, "wire")
    known = has_room(project.parts[project.ducts[fill.duct_id].part_id])
    return f"{fill.percent:.1f} % full, {wires}" if known else f"{wires}, how full it is cannot be said"


def duct_fills(project: Project, enclosure_id: str) -> dict[str, Fill]:
    """Return the fill of each duct of an enclosure, measured at its fullest place."""
    ducts = [d.id for d in project.ducts.values() if d.enclosure_id == enclosure_id]
    return {id: _fill(project, id) for id in ducts}


_Stretch = tuple[float, float, float]  # from, to, and diameter of the wire


@derived
def _stretches_from(project: Project, sheet_id: str) -> list[tuple[str, _Stretch]]:
    """Return the stretches in ducts of the wires of nets that begin on a sheet, each with its duct."""
    found = []
    for route in routes_from(project, sheet_id).values():
        if route.stretches:
            diameter = outer_diameter_mm(copper_of(project, route.conductor).area_mm2)
            found += [(duct_id, (min(a, b), max(a, b), diameter)) for duct_id, a, b in route.stretches]
    return found


_all_stretches = listed(_stretches_from)


@derived
def _by_duct(project: Project) -> dict[str, list[_Stretch]]:
    found: dict[str, list[_Stretch]] = {}
    for duct_id, stretch in _all_stretches(project):
        found.setdefault(duct_id, []).append(stretch)
    return found


@derived
def _in_duct(project: Project, duct_id: str) -> list[_Stretch]:
    return _by_duct(project).get(duct_id, [])


@derived
def _fill(project: Project, duct_id: str) -> Fill:
    part = project.parts[project.ducts[duct_id].part_id]
    fullest = fullest_place(_in_duct(project, duct_id))
    if not has_room(part):
        return Fill(duct_id, 0.0, len(fullest), f"{part.number} has no width or depth. Choose a part that has both.")
    percent = fill_percent(fullest, part.width_mm, part.depth_mm)
    why = (
        f"{counted(len(fullest), 'wire')} at its fullest place, areas of their outer diameters together, of "
        f"{part.width_mm:g} × {part.depth_mm:g} mm: {percent:.1f} %"
    )
    return Fill(duct_id, percent, len(fullest), why)


def fullest_place(stretches: list[_Stretch]) -> list[float]:
    """Return the diameters of the wires where their areas together are largest; of several such places, at the first.

    Notes:
        A wire counts from where it comes in up to where it leaves; one that only crosses counts at its place. In order
        of places, so that n wires take about n log n.

    Example:
        >>> fullest_place([(0, 100, 2.0), (50, 150, 3.0), (100, 200, 2.5)])
        [3.0, 2.5]
    """
    comings = sorted(stretches)
    leavings = sorted((high, diameter) for low, high, diameter in stretches if low < high)
    area, left, best, at = 0.0, 0, 0.0, None
    n = 0
    while n < len(comings):
        place = comings[n][0]
        while left < len(leavings) and leavings[left][0] <= place:
            area -= leavings[left][1] ** 2
            left += 1
        crossing = 0.0
        while n < len(comings) and comings[n][0] == place:
            low, high, diameter = comings[n]
            if low < high:
                area += diameter**2
            else:
                crossing += diameter**2
            n += 1
        if area + crossing > best + 1e-9:
            best, at = area + crossing, place
    return [d for low, high, d in stretches if at is not None and (low <= at < high or low == at == high)]
