"""Papers of enclosures: cutting plan, hole table, nameplates, weights."""

from __future__ import annotations

from jolly_core.cabinet import SURFACE_WORDS, enclosure_weight, enclosures, owned_holes, surface_size, surfaces_of
from jolly_core.making import cutting_plan, nameplates
from jolly_core.model import Project, RuleError
from jolly_core.tagging import full_tag

from .registry import Cell, Column, Row, report


@report(
    "cutting",
    "Cutting plan",
    "Each bar of rail and duct with the pieces sawn from it, and what is left over.",
    (
        Column("kind", "Kind", 8),
        Column("number", "Part number", 16),
        Column("bar", "Bar", 5, number=True),
        Column("pieces", "Pieces mm", 60, measure="mm"),
        Column("for", "For", 40),
        Column("stock_mm", "Bar mm", 8, number=True),
        Column("left_mm", "Left over mm", 9, number=True),
    ),
)
def cutting_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return a row for each bar."""
    rows: list[tuple[Cell, ...]] = []
    counts: dict[str, int] = {}
    for bar in cutting_plan(project):
        counts[bar.number] = n = counts.get(bar.number, 0) + 1
        pieces = " + ".join(f"{p.length:g}" for p in bar.pieces)
        names = ", ".join(p.name for p in bar.pieces)
        cells = (bar.kind, bar.number, n, pieces, names, bar.stock_mm, round(bar.left_mm, 1))
        rows.append(Row.of(cells, bar.part_id))
    return rows


@report(
    "holes",
    "Hole table",
    "Every hole of plates, doors and walls: where it is from the lower left corner, its size, what it is for.",
    (
        Column("enclosure", "Enclosure", 18),
        Column("surface", "Surface", 14),
        Column("number", "No.", 5, number=True),
        Column("x_mm", "From the left mm", 9, number=True),
        Column("y_mm", "From below mm", 9, number=True),
        Column("size", "Size mm", 18, measure="mm"),
        Column("for", "For", 26),
    ),
)
def hole_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return a row for each hole, numbered on each surface from the lower left corner on."""
    rows: list[tuple[Cell, ...]] = []
    for enclosure in enclosures(project):
        tag = full_tag(project, project.devices[enclosure.device_id])
        for surface in surfaces_of(project, enclosure):
            for n, (x, y, size, owner, id) in enumerate(holes_in_order(project, enclosure.id, surface), start=1):
                rows.append(Row.of((tag, SURFACE_WORDS[surface], n, x, y, size, owner), id))
    return rows


def holes_in_order(project: Project, enclosure_id: str, surface: str) -> list[tuple[float, float, str, str, str]]:
    """Return the holes of a surface by where they are: mm from the left and from below, size, owner and its id."""
    try:
        _, height = surface_size(project, project.enclosures[enclosure_id], surface)
    except RuleError:
        return []
    found = [
        (o.hole.x, round(height - o.hole.y, 2), o.hole.words, o.owner, o.owner_id)
        for o in owned_holes(project, enclosure_id, surface)
    ]
    return sorted(found, key=lambda h: (h[1], h[0], h[2]))


@report(
    "nameplates",
    "Nameplates",
    "What is engraved: a plate for each enclosure, and one for each device in a door.",
    (
        Column("where", "Where", 20),
        Column("tag", "Tag", 18),
        Column("line1", "First line", 26),
        Column("line2", "Second line", 26),
        Column("plate", "Plate mm", 14, measure="mm"),
        Column("letters_mm", "Letters mm", 9, number=True),
        Column("quantity", "Qty", 5, number=True),
    ),
)
def nameplate_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return a row for each nameplate; letters of "" are too long for the plate, or its part says no size."""
    rows: list[tuple[Cell, ...]] = []
    for plate in nameplates(project):
        first, second = (*plate.lines, "", "")[:2]
        size = f"{plate.width:g} × {plate.height:g}" if plate.width and plate.height else ""
        letters = "" if plate.letters is None else plate.letters
        whys = {"plate": "" if size else "Its part does not say how big the plate is."}
        rows.append(Row.of((plate.where, plate.tag, first, second, size, letters, 1), plate.device_id, whys))
    return rows


@report(
    "weights",
    "Weights",
    "What each enclosure weighs with all in it, and where its centre of weight is, seen from the front.",
    (
        Column("enclosure", "Enclosure", 18),
        Column("kg", "Weight kg", 9, number=True),
        Column("x_mm", "Centre from the left mm", 11, number=True),
        Column("y_mm", "Centre from below mm", 11, number=True),
        Column("unknown", "Says no weight", 50),
    ),
)
def weight_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return a row for each enclosure whose size is known."""
    rows: list[tuple[Cell, ...]] = []
    for enclosure in enclosures(project):
        tag = full_tag(project, project.devices[enclosure.device_id])
        try:
            weight = enclosure_weight(project, enclosure)
        except RuleError:
            continue
        x, y = weight.centre or ("", "")
        rows.append(Row.of((tag, round(weight.kg, 1), x, y, ", ".join(weight.unknown)), enclosure.id))
    return rows
