"""The cover of a set: whose it is, what it is, the facts of the project, and the table of its revisions."""

from __future__ import annotations

from math import ceil

from jolly_core.drawing import FRAME_MM
from jolly_core.library import block_of
from jolly_core.model import Project, Sheet
from jolly_core.tagging import revisions

from ..base.lettering import fit, lay
from ..base.primitives import Item, Line, Prim, Scene, text
from ..lists.leaves import Given, blank_leaf

FACT_MM = 6.5
MOST_FACT_COLUMNS = 3
LEAST_REVISIONS = 3  # that a cover keeps room for
LEAST_TITLE_MM, TITLE_PITCH = 4.0, 1.3
HEAD_SHARES = (1.0, 0.85, 0.7, 0.55, 0.4)  # of the full size of its head, the first that leaves room for the facts
FactRows = list[tuple[str, str]]


def cover_leaves(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    """Return the one leaf of a cover; its head gets smaller where long names would leave no room for the facts."""
    scene = blank_leaf(project, sheet, given, (1, 1))
    left, width = FRAME_MM + 24, scene.width - 2 * FRAME_MM - 48
    bottom = scene.height - FRAME_MM - block_of(project, sheet).block.height_mm - 6
    rows = _facts(project)
    reserved = (min(len(project.revisions), LEAST_REVISIONS) + 1) * FACT_MM + 8 if project.revisions else 0
    least = ceil(len(rows) / MOST_FACT_COLUMNS) * FACT_MM + reserved
    for share in HEAD_SHARES:
        prims, y = _head(project, sheet, left, width, scene.height, share)
        if y + 12 + least <= bottom:
            break
    prims.append(Line(left, y, left + width, y, "frame"))
    top = y + 12
    down = max(1, int((bottom - top - reserved) / FACT_MM), ceil(len(rows) / MOST_FACT_COLUMNS))
    column = width / max(2, ceil(len(rows) / down))
    for n, (name, value) in enumerate(rows):
        x, base = left + n // down * column, top + n % down * FACT_MM
        shown_name, small = fit(name, column * 0.36, 2.8)
        prims.append(text(x, base, small, shown_name, role="line"))
        shown_value, shown = fit(value, column * 0.58, 3.6)
        prims.append(text(x + column * 0.38, base, shown, shown_value, role="title"))
    foot = top + ceil(len(rows) / max(1, ceil(width / column))) * FACT_MM
    prims += _revision_table(project, left, width, foot, bottom)
    scene.items["cover"] = Item("cover", "table", prims, (left, 0, left + width, bottom))
    return [scene]


def _facts(project: Project) -> FactRows:
    s = project.settings
    facts = [
        ("Project number", s.number),
        ("Site", s.site),
        ("Revision", s.revision),
        ("Date of issue", s.issued_on),
        ("Drawn by", f"{s.drawn_by} {s.drawn_on}".strip()),
        ("Approved by", f"{s.checked_by} {s.checked_on}".strip()),
        ("Sheets", str(len(project.sheets))),
        *s.own_fields.items(),
    ]
    return [(name, value) for name, value in facts if value]


def _head(
    project: Project, sheet: Sheet, left: float, width: float, height: float, share: float
) -> tuple[list[Prim], float]:
    """Return customer, project and title at a share of their full size, and where they end, mm."""
    s = project.settings
    y = height * 0.14 * share
    prims: list[Prim] = []
    for words, full, gap in ((s.customer, 7.0, 14.0), (s.name, 15.0, 12.0), (sheet.title, 7.0, 10.0)):
        size = max(LEAST_TITLE_MM, full * share)
        lines, shown = lay(words, width, 2 * size * TITLE_PITCH, size, LEAST_TITLE_MM)
        for line in lines:
            y += shown * TITLE_PITCH
            prims.append(text(left, y, shown, line, role="title"))
        y += gap * share
    return prims, y


REVISION_SHARES = (0.06, 0.13, 0.42, 0.13, 0.13, 0.13)  # of the columns of the table of revisions


def _revision_table(project: Project, left: float, width: float, top: float, bottom: float) -> list[Prim]:
    """Return the table of revisions on a cover, the last ones that there is room for, the youngest last."""
    room = int((bottom - top - 6) / FACT_MM) - 1
    shown = revisions(project)[-room:] if room > 0 else []
    if not shown:
        return []
    y = bottom - len(shown) * FACT_MM - 2
    rows = [("Rev", "Date", "What changed", "Drawn", "Checked", "Released")]
    rows += [(r.index, r.issued_on, r.text, r.drawn_by, r.checked_by, r.released_by) for r in shown]
    prims: list[Prim] = []
    for n, row in enumerate(rows):
        at = left
        base = y + n * FACT_MM
        for words, share in zip(row, REVISION_SHARES, strict=True):
            fitted, size = fit(words, share * width - 2, 2.8)
            prims.append(text(at + 1, base - 1.8, size, fitted, role="title" if n else "line"))
            at += share * width
        prims.append(Line(left, base, left + width, base, "ink" if not n else "thin"))
    return prims
