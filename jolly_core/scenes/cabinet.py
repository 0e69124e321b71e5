"""An enclosure's plate or door as a scene, at true scale: rails, ducts, devices; lengths and fill in words."""

from __future__ import annotations

from math import cos, pi, sin

from jolly_core.cabinet import (
    RAIL_WIDTH_MM,
    Hole,
    duct_fills,
    duct_outline,
    hole_table,
    holes,
    outline_of,
    placings_in,
    rail_is_level,
    surface_size,
)
from jolly_core.drawing import ADVANCE
from jolly_core.model import Enclosure, Project, Rail, derived, derived_few
from jolly_core.tagging import full_tag, product_tag
from jolly_core.terminals import is_strip, strip_rows

from .lettering import fit
from .outlines import outline_prims
from .primitives import Circle, Facts, Item, Line, Poly, Prim, Rect, Scene, text

MARGIN_MM = 30.0
TAG_MM = 18.0
SMALL_MM = 11.0
CORNER_STEPS = 6
BESIDE = 0.42  # of the run of a duct: between the usual fixing holes


@derived_few(16)
def surface_scene(project: Project, enclosure_id: str, surface: str) -> Scene:
    """Return the scene of a surface; the surface's own corner lies MARGIN_MM from that of the scene.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    enclosure: Enclosure = project.get("enclosure", enclosure_id)
    width, height = surface_size(project, enclosure, surface)
    tag = full_tag(project, project.devices[enclosure.device_id])
    name = "mounting plate" if surface == "plate" else "door, seen from the front"
    head = text(MARGIN_MM, MARGIN_MM - 8, SMALL_MM, f"{tag}  {name}  {width:g} × {height:g}", role="title")
    prims: list[Prim] = [Rect(MARGIN_MM, MARGIN_MM, width, height, "edge", "plate"), head]
    items = {"plate": Item("plate", "plate", prims, (MARGIN_MM, MARGIN_MM, MARGIN_MM + width, MARGIN_MM + height))}
    if surface == "plate":
        fills = duct_fills(project, enclosure_id)
        for rail in sorted(project.rails.values(), key=lambda r: r.id):
            if rail.enclosure_id == enclosure_id:
                items[rail.id] = _rail_item(rail)
        for duct in sorted(project.ducts.values(), key=lambda d: d.id):
            if duct.enclosure_id == enclosure_id:
                items[duct.id] = _duct_item(project, duct.id, fills[duct.id].percent)
    for placing in placings_in(project, enclosure_id, surface):
        items[placing.id] = _placing_item(project, placing.id, surface)
    found = holes(project, enclosure_id, surface)
    drilled: list[Prim] = [_hole(h) for h in found]
    if found:
        sizes = ", ".join(f"{count} × {words}" for words, count in hole_table(found))
        shown, size = fit(f"{len(found)} holes: {sizes}", width, SMALL_MM, 5.0)
        drilled.append(text(MARGIN_MM, MARGIN_MM + height + 6 + size, size, shown, role="text"))
    items["holes"] = Item("holes", "frame", drilled, (MARGIN_MM, MARGIN_MM, MARGIN_MM + width, MARGIN_MM + height))
    return Scene(width + 2 * MARGIN_MM, height + 2 * MARGIN_MM, items)


def _hole(hole: Hole) -> Prim:
    """Return a hole as its outline, corners round in short strokes."""
    if hole.is_round:
        return Circle(hole.x + MARGIN_MM, hole.y + MARGIN_MM, hole.width / 2, "fine")
    x, y, r = hole.x + MARGIN_MM, hole.y + MARGIN_MM, hole.radius
    points: list[float] = []
    for turn, (sx, sy) in enumerate(((1, 1), (-1, 1), (-1, -1), (1, -1))):
        for step in range(CORNER_STEPS + 1):
            angle = pi / 2 * (turn + step / CORNER_STEPS)
            points += [
                round(x + sx * (hole.width / 2 - r) + r * cos(angle), 3),
                round(y + sy * (hole.height / 2 - r) + r * sin(angle), 3),
            ]
    return Poly((*points, *points[:2]), "fine")


def _rail_item(rail: Rail) -> Item:
    half = RAIL_WIDTH_MM / 2
    if rail_is_level(rail):
        x, y, width, height = rail.x1, rail.y1 - half, rail.x2 - rail.x1, RAIL_WIDTH_MM
    else:
        x, y, width, height = rail.x1 - half, rail.y1, RAIL_WIDTH_MM, rail.y2 - rail.y1
    x, y = x + MARGIN_MM, y + MARGIN_MM
    prims: list[Prim] = [Rect(x, y, width, height, "fine", "rail")]
    for share in (0.25, 0.75):
        if rail_is_level(rail):
            prims.append(Line(x, y + height * share, x + width, y + height * share, "fine"))
        else:
            prims.append(Line(x + width * share, y, x + width * share, y + height, "fine"))
    return Item(rail.id, "rail", prims, (x, y, x + width, y + height), {"run": (rail.x1, rail.y1, rail.x2, rail.y2)})


@derived
def _duct_item(project: Project, duct_id: str, percent: float) -> Item:
    duct = project.ducts[duct_id]
    box = duct_outline(project, duct_id)
    x, y = box.x + MARGIN_MM, box.y + MARGIN_MM
    prims: list[Prim] = [Rect(x, y, box.width, box.height, "fine", "duct")]
    words = f"{percent:.1f} %"
    # not at the middle, where a fixing hole is
    level = box.width > box.height
    share_x, share_y = (BESIDE, 0.5) if level else (0.5, BESIDE)
    spot = (x + box.width * share_x, y + box.height * share_y + SMALL_MM / 3)
    prims.append(text(*spot, SMALL_MM, words, anchor="middle", role="number"))
    run = (duct.x1, duct.y1, duct.x2, duct.y2)
    return Item(duct_id, "duct", prims, (x, y, x + box.width, y + box.height), {"run": run})


@derived
def _placing_item(project: Project, placing_id: str, surface: str) -> Item:
    placing = project.placings[placing_id]
    device = project.devices[placing.device_id]
    box = outline_of(project, placing_id)
    x, y = box.x + MARGIN_MM, box.y + MARGIN_MM
    own = project.parts.get(device.part_id)
    prims: list[Prim] = [Rect(x, y, box.width, box.height, "edge", "device")]
    if own is not None and own.diameter_mm and not own.width_mm:
        prims = [Circle(x + box.width / 2, y + box.height / 2, box.width / 2, "edge")]
    drawing = own.symbols.get(surface, "") if own else ""
    if own is not None and drawing:
        prims += outline_prims(drawing, x, y, own.size_mm, turned=box.upright)
    strip = is_strip(project, device)
    if strip:
        at = 0.0
        for row in strip_rows(project, device.id)[:-1]:
            at += row.width_mm
            if box.upright:
                prims.append(Line(x, y + at, x + box.width, y + at, "fine"))
            else:
                prims.append(Line(x + at, y, x + at, y + box.height, "fine"))
    shown, size = fit(f"-{product_tag(project, device)}", max(box.width - 3, 8), TAG_MM, 6.0)
    middle = (x + box.width / 2, y + box.height / 2)
    if strip:  # the lines between terminals would run through its tag
        wide, tall = len(shown) * size * ADVANCE + 4, size + 3
        prims.append(Rect(middle[0] - wide / 2, middle[1] - tall + 2, wide, tall, "fine", "device"))
    prims.append(text(*middle, size, shown, anchor="middle", role="tag"))
    part = project.part_of(device)
    if part is not None and box.width > 24 and not strip:
        words, small = fit(part.number, box.width - 3, SMALL_MM, 5.0)
        prims.append(text(middle[0], middle[1] + SMALL_MM + 2, small, words, anchor="middle"))
    body = (x, y, x + box.width, y + box.height)  # a circle is met by the pointer inside, too
    facts: Facts = {"device": device.id, "tag": full_tag(project, device), "text": device.text, "body": body}
    return Item(placing_id, "placing", prims, (x, y, x + box.width, y + box.height), facts)
