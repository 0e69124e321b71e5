"""What is drilled and cut: fixing holes of rails and ducts, and what the parts of placed devices say they need."""

from __future__ import annotations

import re

from jolly_core.cables import number_of
from jolly_core.model import Duct, Placing, Project, Rail

from .layout import outline, placings_in

FIXING_HOLE_MM = 5.5
FIXING_EDGE_MM = 20.0
FIXING_PITCH_MM = 250.0


def holes(project: Project, enclosure_id: str, surface: str) -> list[tuple[float, float, float]]:
    """Return (x, y, diameter) of the holes of a surface in mm, y downwards from its upper left corner.

    A rail or duct has one near each end and others between, at most FIXING_PITCH_MM apart; a device has what its part
    says, and none where it says nothing.
    """
    found: list[tuple[float, float, float]] = []
    if surface == "plate":
        runs: list[Rail | Duct] = [*project.rails.values(), *project.ducts.values()]
        for run in sorted((r for r in runs if r.enclosure_id == enclosure_id), key=lambda r: r.id):
            found += [(x, y, FIXING_HOLE_MM) for x, y in _along(run)]
    for placing in placings_in(project, enclosure_id, surface):
        found += pattern_of(project, placing)
    return [(round(x, 2), round(y, 2), d) for x, y, d in found]


def pattern_of(project: Project, placing: Placing) -> list[tuple[float, float, float]]:
    """Return (x, y, diameter) of the holes a placed device needs by its part, [] where the part names none.

    A part names the round hole at its middle (`hole_mm`), and on the plate its screws as "x,y,d; x,y,d" in mm from the
    upper left corner of its outline (`screws_mm`).
    """
    part = project.part_of(project.devices[placing.device_id])
    if part is None or placing.rail_id:
        return []
    box = outline(project, placing)
    found = [(box.x + x, box.y + y, d) for x, y, d in screws_in(part.ratings.get("screws_mm", ""))]
    round_mm = number_of(part, "hole_mm") if placing.surface == "door" else 0.0
    return [*found, (box.x + box.width / 2, box.y + box.height / 2, round_mm)] if round_mm else found


def screws_in(text: str) -> list[tuple[float, float, float]]:
    """Return the holes a text names, (x, y, diameter) in mm; what is no three numbers is left out.

    Example:
        >>> screws_in("6,6,5.5; 94,144,5.5")
        [(6.0, 6.0, 5.5), (94.0, 144.0, 5.5)]
    """
    found = []
    for piece in text.split(";"):
        numbers = re.findall(r"\d+(?:\.\d+)?", piece)
        if len(numbers) == 3:
            found.append((float(numbers[0]), float(numbers[1]), float(numbers[2])))
    return found


def _along(run: Rail | Duct) -> list[tuple[float, float]]:
    length = abs(run.x2 - run.x1) + abs(run.y2 - run.y1)
    edge = min(FIXING_EDGE_MM, length / 4)
    gaps = max(1, -int(-(length - 2 * edge) // FIXING_PITCH_MM))
    steps = [edge + (length - 2 * edge) * n / gaps for n in range(gaps + 1)]
    if run.y1 == run.y2:
        return [(run.x1 + s, run.y1) for s in steps]
    return [(run.x1, run.y1 + s) for s in steps]
