"""A drawing in two states beside each other as SVG, with the places that differ marked: what a report cannot show."""

from __future__ import annotations

from collections.abc import Iterable

from jolly_core.comparing import Same, SheetChange
from jolly_core.drawing import BoxMm
from jolly_core.model import Project
from jolly_core.scenes import scene_of
from jolly_core.scenes.base.paints import INKS, TONES

from .sheetsvg import document, painted

AROUND_MM = 1.5  # between a mark and what it is about
BETWEEN_MM = 10.0  # two states
_MARK = 'rx="1.5" stroke-width="0.6" stroke-dasharray="1.6 1.2"'


def states_svg(before: Project, after: Project, change: SheetChange, same: Same) -> str:
    """Return a drawing that differs as an SVG document in mm: as it was on the left, as it is on the right.

    What is gone is marked on the left, what is new on the right, and what looks otherwise on both.

    Args:
        before, after: the states.
        change: the drawing.
        same: what is the same thing in both, as `same_things` gives it for all drawings at once.
    """
    was_id = same.sheet(change.sheet_id)
    sides = (
        (before, was_id, (*change.gone, *change.was), INKS["quiet"]),
        (after, change.sheet_id, (*change.added, *change.other), TONES["bridge"]),
    )
    left, tall, body = 0.0, 0.0, ""
    for n, (project, id, boxes, ink) in enumerate(sides):
        if id in project.sheets:
            scene = scene_of(project, id)
            here = painted(project, scene, prefix=f"{'ab'[n]}-") + _marks(boxes, ink)
            body += f'<g class="{("before", "after")[n]}" transform="translate({left:g} 0)">{here}</g>'
            left += scene.width + BETWEEN_MM
            tall = max(tall, scene.height)
    return document(max(0.0, left - BETWEEN_MM), tall, body)


def _marks(boxes: Iterable[BoxMm], ink: str) -> str:
    marks = "".join(
        f'<rect x="{x1 - AROUND_MM:g}" y="{y1 - AROUND_MM:g}" width="{x2 - x1 + 2 * AROUND_MM:g}" '
        f'height="{y2 - y1 + 2 * AROUND_MM:g}" {_MARK}/>'
        for x1, y1, x2, y2 in boxes
    )
    return f'<g class="marks" fill="{ink}" fill-opacity="0.1" stroke="{ink}">{marks}</g>' if marks else ""
