"""Where a device that clips on nothing comes to stand: at a neighbour, a duct or in line with one, else on the grid.

All in mm from the upper left corner of a surface.
"""

from __future__ import annotations

from collections.abc import Iterable

from jolly_core.cabinet import Outline, clearance_between, duct_outline, outline, placings_in
from jolly_core.cables import number_of
from jolly_core.model import Device, Project

from .runs import snapped

REACH_MM = 4.0  # so near it is drawn to an edge; less than a step of the grid, so that one step leads away again
NEAR_MM = 150.0  # as far as a neighbour lies across


def snug(project: Project, device: Device, where: tuple[str, str], box: Outline, but: str = "") -> tuple[float, float]:
    """Return the place of a device's upper left corner near a wanted one.

    Args:
        where: enclosure and surface.
        box: its outline where it is wanted.
        but: the id of its own placing.
    """
    xs, ys = _edges(project, device, where, box, but)
    return _nearest(box.x, xs), _nearest(box.y, ys)


def _nearest(wanted: float, edges: Iterable[float]) -> float:
    """Return the edge nearest to a place within reach, else the place on the grid."""
    best = min(edges, key=lambda edge: (abs(edge - wanted), edge), default=None)
    return round(best, 2) if best is not None and abs(best - wanted) <= REACH_MM else snapped(wanted)


def _edges(
    project: Project, device: Device, where: tuple[str, str], box: Outline, but: str
) -> tuple[list[float], list[float]]:
    """Return the places across and down at which it would stand at something, or in line with it."""
    part = project.part_of(device)
    above, below = (number_of(part, f"clear_{side}_mm") for side in ("above", "below"))
    xs: list[float] = []
    ys: list[float] = []
    for placing in placings_in(project, *where):
        if placing.id == but:
            continue
        other = outline(project, placing)
        gap = clearance_between(project, device, project.devices[placing.device_id])
        if _beside(box.y, box.height, other.y, other.height):
            xs += [other.x + other.width + gap, other.x - gap - box.width]
            ys += [other.y, other.y + other.height - box.height, other.y + (other.height - box.height) / 2]
        if _beside(box.x, box.width, other.x, other.width):
            ys += [other.y + other.height + above, other.y - below - box.height]
            xs += [other.x, other.x + other.width - box.width, other.x + (other.width - box.width) / 2]
    for duct in project.ducts.values():
        if (duct.enclosure_id, duct.surface) != where:
            continue
        run = duct_outline(project, duct.id)
        if _beside(box.y, box.height, run.y, run.height):
            xs += [run.x + run.width, run.x - box.width]
        if _beside(box.x, box.width, run.x, run.width):
            ys += [run.y + run.height + above, run.y - below - box.height]
    return xs, ys


def _beside(a: float, long_a: float, b: float, long_b: float) -> bool:
    """Return whether two stretches of one axis lie side by side, or near."""
    return a < b + long_b + NEAR_MM and b < a + long_a + NEAR_MM
