"""Checks of what can be read on paper: texts and symbols outside the frame, or under the title block."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.drawing import GRID_MM, BoxMm, extent_of, note_box, where_amiss
from jolly_core.model import Project

from .registry import Snag, check


@check("outside-frame", "A text or symbol outside the frame, or under the title block.")
def outside_frame(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each note and symbol that is not wholly inside the frame, or lies under the title block."""
    sheet = project.sheets[sheet_id]
    for kind, id, x, y, box in _boxes(project, sheet_id):
        where = where_amiss(project, sheet, box)
        if where:
            yield Snag("outside-frame", "warning", f"A {kind} lies {where}. Move it in.", (id,), sheet_id, x, y)


def _boxes(project: Project, sheet_id: str) -> Iterator[tuple[str, str, int, int, BoxMm]]:
    for n in project.notes_on(sheet_id):
        yield "note", n.id, n.x, n.y, note_box(n)
    for s in project.symbols_on(sheet_id):
        x1, y1, x2, y2 = (v * GRID_MM for v in extent_of(s, project.settings.standard))
        yield "symbol", s.id, s.x, s.y, (x1, y1, x2, y2)
