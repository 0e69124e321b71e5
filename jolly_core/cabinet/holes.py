"""What is drilled and cut: fixing holes of rails and ducts, screws of devices on the plate, cut-outs of the door."""

from __future__ import annotations

from jolly_core.model import Duct, Project, Rail

from .layout import outline, placings_in

FIXING_HOLE_MM = 5.5
FIXING_EDGE_MM = 20.0
FIXING_PITCH_MM = 250.0
DOOR_HOLE_MM = 22.5  # for devices of 22 mm (IEC 60947-5-1)
SCREW_EDGE_MM = 6.0


def holes(project: Project, enclosure_id: str, surface: str) -> list[tuple[float, float, float]]:
    """Return (x, y, diameter) of the holes of a surface in mm, y downwards from its upper left corner.

    A rail or duct has one near each end and others between, at most FIXING_PITCH_MM apart; a device screwed on the
    plate has two across its corners; one in the door has its round cut-out.
    """
    found: list[tuple[float, float, float]] = []
    if surface == "plate":
        runs: list[Rail | Duct] = [*project.rails.values(), *project.ducts.values()]
        for run in sorted((r for r in runs if r.enclosure_id == enclosure_id), key=lambda r: r.id):
            found += [(x, y, FIXING_HOLE_MM) for x, y in _along(run)]
    for placing in placings_in(project, enclosure_id, surface):
        box = outline(project, placing)
        if surface == "door":
            found.append((box.x + box.width / 2, box.y + box.height / 2, DOOR_HOLE_MM))
        elif not placing.rail_id:
            edge = min(SCREW_EDGE_MM, box.width / 4, box.height / 4)
            found.append((box.x + edge, box.y + edge, FIXING_HOLE_MM))
            found.append((box.x + box.width - edge, box.y + box.height - edge, FIXING_HOLE_MM))
    return [(round(x, 2), round(y, 2), d) for x, y, d in found]


def _along(run: Rail | Duct) -> list[tuple[float, float]]:
    length = abs(run.x2 - run.x1) + abs(run.y2 - run.y1)
    edge = min(FIXING_EDGE_MM, length / 4)
    gaps = max(1, -int(-(length - 2 * edge) // FIXING_PITCH_MM))
    steps = [edge + (length - 2 * edge) * n / gaps for n in range(gaps + 1)]
    if run.y1 == run.y2:
        return [(run.x1 + s, run.y1) for s in steps]
    return [(run.x1, run.y1 + s) for s in steps]
