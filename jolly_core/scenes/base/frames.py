"""The sheet's own lines: border, zones or ladder lines, and the title block."""

from __future__ import annotations

from collections.abc import Container
from dataclasses import replace

from jolly_core.drawing import FRAME_MM, GRID_MM, ladder_lines, size_mm
from jolly_core.library import block_of
from jolly_core.model import Project, Revision, Sheet
from jolly_core.tagging import index_of, revisions

from .lettering import fit
from .primitives import Image, Item, Line, Prim, Rect, Scene, text
from .titleblocks import block_prims

# What of a sheet is seen in its frame, by how that is divided.
_DIVIDED = {
    "ladder": ("first_line", "line_count", "line_top", "line_spacing", "rail_left", "ladders", "ladder_pitch"),
    "zones": ("columns", "rows"),
}
# Fields that say how far the project is issued and how many sheets there are, and nothing of a sheet itself.
ISSUING = (
    *("revision", "project revision", "issued on", "drawn by", "drawn on", "checked by", "checked on"),
    *("n", "count", "next", "previous"),
)
MOST_REVISIONS = 2  # for which there is room below a frame
REVISION_MM = 2.0
BESIDE = 0.3  # of the width below a frame, beside the older revision: there it is said that the sheet has changed


def frame_item(project: Project, sheet: Sheet, given: dict[str, str] | None = None) -> Item:
    """Return the item of everything that is on a sheet before something is drawn.

    Args:
        given: texts of title block fields that stand before those of the project.
    """
    width, height = size_mm(sheet)
    prims: list[Prim] = [Rect(FRAME_MM, FRAME_MM, width - 2 * FRAME_MM, height - 2 * FRAME_MM, "frame")]
    if sheet.frame != "plan":
        prims += _ladder(sheet) if sheet.frame == "ladder" else _zones(sheet, width, height)
    pattern = block_of(project, sheet)
    left, top = width - FRAME_MM - pattern.block.width_mm, height - FRAME_MM - pattern.block.height_mm
    prims += block_prims(project, sheet, pattern, left, top, given)
    prims += _revision_lines(project, sheet, width, height)
    return Item("frame", "frame", prims, (0.0, 0.0, width, height))


def _revision_lines(project: Project, sheet: Sheet, width: float, height: float) -> list[Prim]:
    """Return the last revisions in which a sheet changed, the youngest first, in the margin below the frame."""
    mine = [r for r in revisions(project) if sheet.id in r.sheet_ids][::-1]
    prims: list[Prim] = []
    for n, revision in enumerate(mine[:MOST_REVISIONS]):
        room = (width - 2 * FRAME_MM) * (1 - BESIDE * n)
        words, size = fit(revision_words(revision), room, REVISION_MM)
        prims.append(text(FRAME_MM, _below(height, n), size, words, role="line"))
    return prims


def _below(height: float, n: int) -> float:
    """Return the base line of a revision in the margin below the frame, mm; the youngest is 0."""
    return height - FRAME_MM + 3.2 + 3.0 * n


def with_changed(project: Project, scene: Scene, changed: Container[str]) -> Scene:
    """Return the scene of a sheet, in the margin of which it is said when it is not as it was issued.

    Args:
        changed: ids of the sheets that are other than in the last frozen revision.
    """
    sheet = scene.sheet
    if sheet is None or sheet.id not in changed:
        return scene
    index = index_of(project, sheet.id)
    words = f"Changed since revision {index}, not issued" if index else "Not issued in a revision"
    right, y = scene.width - FRAME_MM, _below(scene.height, MOST_REVISIONS - 1)
    prims: list[Prim] = [text(right, y, REVISION_MM, words, anchor="end", role="line")]
    box = (right - BESIDE * (scene.width - 2 * FRAME_MM), y - REVISION_MM, right, y)
    return replace(scene, items={**scene.items, "changed": Item("changed", "frame", prims, box)})


def revision_words(revision: Revision) -> str:
    """Return a revision in one line: index, date, text, and who drew, checked and released it."""
    people = (("drawn", revision.drawn_by), ("checked", revision.checked_by), ("released", revision.released_by))
    said = [f"{act} {name}" for act, name in people if name]
    return "   ".join(t for t in (f"Rev {revision.index}", revision.issued_on, revision.text, *said) if t)


def frame_facts(sheet: Sheet) -> tuple[object, ...]:
    """Return what of a sheet is seen in the numbers of its lines or zones."""
    return sheet.frame, *(getattr(sheet, name) for name in _DIVIDED.get(sheet.frame, ()))


def frame_look(project: Project, sheet: Sheet) -> tuple[object, ...]:
    """Return what is seen of a sheet's frame and title block, but for what says how far the project is issued."""
    pattern = block_of(project, sheet)
    prims = block_prims(project, sheet, pattern, 0.0, 0.0, dict.fromkeys(ISSUING, ""))
    pictures = {p.id: p.data for p in pattern.pictures}
    seen = (replace(p, picture=pictures[p.picture]) if isinstance(p, Image) else p for p in prims)
    return size_mm(sheet), frame_facts(sheet), tuple(seen)


def _ladder(sheet: Sheet) -> list[Prim]:
    prims: list[Prim] = []
    for n, (number, y, _, _) in enumerate(ladder_lines(sheet)):
        x = (sheet.rail_left + n // sheet.line_count * sheet.ladder_pitch - 3) * GRID_MM
        prims.append(text(x, y * GRID_MM + 1, 2.8, str(number), anchor="end", role="line"))
    return prims


def _zones(sheet: Sheet, width: float, height: float) -> list[Prim]:
    prims: list[Prim] = []
    across = (width - 2 * FRAME_MM) / sheet.columns
    down = (height - 2 * FRAME_MM) / sheet.rows
    for i in range(sheet.columns):
        x = FRAME_MM + across * i
        if i:
            prims.append(Line(round(x, 2), FRAME_MM - 5, round(x, 2), FRAME_MM, "thin"))
        prims.append(text(x + across / 2, FRAME_MM - 1.5, 2.6, str(i + 1), anchor="middle", role="line"))
    for i in range(sheet.rows):
        y = FRAME_MM + down * i
        if i:
            prims.append(Line(FRAME_MM - 5, round(y, 2), FRAME_MM, round(y, 2), "thin"))
        prims.append(text(FRAME_MM - 2.5, y + down / 2 + 1, 2.6, chr(65 + i), anchor="middle", role="line"))
    return prims
