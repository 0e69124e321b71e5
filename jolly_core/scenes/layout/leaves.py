"""Layouts on the leaves of a sheet, in the project's frame: surfaces with balloons, their holes, what balloons mean."""

from __future__ import annotations

from dataclasses import replace

from jolly_core.cabinet import SURFACE_WORDS, enclosures, holes, surfaces_of
from jolly_core.drawing import FRAME_MM
from jolly_core.library import block_of
from jolly_core.model import Enclosure, Project, Sheet, counted
from jolly_core.tagging import full_tag

from ..base.primitives import Art, Dot, Image, Item, PenName, Prim, Scene, Strand, Text, legible, replace_words, text
from ..lists.leaves import ROW_MM, TOP_MM, Given, blank_leaf, table_leaves
from ..room.papertags import tags_apart
from .paper import (
    HOLE_COLUMNS,
    LEGEND_COLUMNS,
    ROOM_MM,
    factor_at,
    hole_picture,
    hole_table_rows,
    layout_picture,
    legend_rows,
)
from .surfaces import surface_scene

PAPER_PENS: dict[PenName, PenName] = {"edge": "ink", "fine": "thin"}
SCALES = (1.0, 1 / 2, 1 / 2.5, 1 / 5, 1 / 10, 1 / 20, 1 / 50)


def layout_leaves(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    """Return a leaf for each surface in use, one for its holes where it has any, and what its balloons mean."""
    enclosure = project.enclosures[sheet.enclosure_id]
    used = {p.surface for p in project.placings.values() if p.enclosure_id == sheet.enclosure_id} | {"plate"}
    leaves: list[Scene] = []
    for surface in surfaces_of(project, enclosure):
        if surface in used:
            leaves.append(_surface_leaf(project, sheet, given, enclosure.id, surface))
    legend = f"{sheet.title}: what the balloons mean"
    leaves += table_leaves(project, sheet, given, legend, LEGEND_COLUMNS, legend_rows(project, enclosure.id))
    for surface in surfaces_of(project, enclosure):
        leaves += _hole_leaves(project, sheet, given, enclosure, surface)
    return numbered(project, sheet, given, leaves)


def surface_leaves(project: Project, enclosure_id: str, surface: str) -> list[Scene]:
    """Return a surface by itself as leaves on A3: with dimensions and balloons, its holes, and their table.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    enclosure: Enclosure = project.get("enclosure", enclosure_id)
    host = project.devices[enclosure.device_id]
    number = f"L{[e.id for e in enclosures(project)].index(enclosure_id) + 1}"
    title = f"{full_tag(project, host)} {SURFACE_WORDS[surface]}"
    sheet = Sheet("", number, title, kind="panel-layout", size="A3", frame="plan", enclosure_id=enclosure_id)
    sheet = replace(sheet, function_id=host.function_id, location_id=host.location_id)
    given = {"n": "1", "count": "1", "next": "-", "previous": "-"}
    leaves = [_surface_leaf(project, sheet, given, enclosure_id, surface)]
    leaves += _hole_leaves(project, sheet, given, enclosure, surface)
    return numbered(project, sheet, given, leaves)


def _hole_leaves(project: Project, sheet: Sheet, given: Given, enclosure: Enclosure, surface: str) -> list[Scene]:
    if not holes(project, enclosure.id, surface):
        return []
    where = f"{project.settings.length_unit} from the lower left corner"
    title = f"{sheet.title}: holes of the {SURFACE_WORDS[surface]}, {where}"
    rows = hole_table_rows(project, enclosure.id, surface)
    factor = factor_at(_scale_of(project, sheet, given, enclosure.id, surface))
    picture = fitted_leaf(project, sheet, given, hole_picture(project, enclosure.id, surface, factor), (1, 1))
    return [picture, *table_leaves(project, sheet, given, title, HOLE_COLUMNS, rows)]


def _surface_leaf(project: Project, sheet: Sheet, given: Given, enclosure_id: str, surface: str) -> Scene:
    """Return a surface with dimensions and balloons that can be read at its scale, the tags of devices apart."""
    factor = factor_at(_scale_of(project, sheet, given, enclosure_id, surface))
    inner = layout_picture(project, enclosure_id, surface, factor)
    leaf = fitted_leaf(project, sheet, given, inner, (1, 1))
    shown = {id: i.facts["shown"] for id, i in inner.items.items() if "shown" in i.facts}
    items, lost = tags_apart(leaf.items, shown)
    if lost:
        said = items["scale"].prims[0]
        words = f", {counted(lost, 'tag')} without room: see what the balloons mean"
        items["scale"] = replace(items["scale"], prims=[replace_words(said, words)])
    return replace(leaf, items=items, lost=lost)


def _scale_of(project: Project, sheet: Sheet, given: Given, enclosure_id: str, surface: str) -> float:
    """Return the scale at which a surface fits with what is written about it, so large that it can be read."""
    base = surface_scene(project, enclosure_id, surface)
    wide, high = _room_in(project, sheet, blank_leaf(project, sheet, given, (1, 1)))

    def fits(scale: float) -> bool:
        beside = ROOM_MM * factor_at(scale)
        return (base.width + beside) * scale <= wide and (base.height + beside) * scale <= high

    return next((scale for scale in SCALES if fits(scale)), SCALES[-1])


def _room_in(project: Project, sheet: Sheet, leaf: Scene) -> tuple[float, float]:
    """Return the width and height of the room for a picture in a leaf, mm."""
    across = leaf.width - 2 * FRAME_MM - 8
    return across, leaf.height - 2 * FRAME_MM - block_of(project, sheet).block.height_mm - ROW_MM * 2


def numbered(project: Project, sheet: Sheet, given: Given, leaves: list[Scene]) -> list[Scene]:
    """Return leaves with the frames of a set of as many."""
    found = []
    for n, leaf in enumerate(leaves, start=1):
        blank = blank_leaf(project, sheet, given, (n, len(leaves)))
        found.append(replace(blank, items={**leaf.items, **blank.items}, lost=leaf.lost))
    return found


def fitted_leaf(project: Project, sheet: Sheet, given: Given, inner: Scene, count: tuple[int, int]) -> Scene:
    """Return a leaf with a scene at the largest usual scale at which it fits; in words which."""
    scene = blank_leaf(project, sheet, given, count)
    room = _room_in(project, sheet, scene)
    scale = next((s for s in SCALES if inner.width * s <= room[0] and inner.height * s <= room[1]), SCALES[-1])
    dx = FRAME_MM + 4 + (room[0] - inner.width * scale) / 2
    dy = FRAME_MM + ROW_MM + (room[1] - inner.height * scale) / 2
    for item in inner.items.values():
        left, top, right, bottom = item.box
        box = (left * scale + dx, top * scale + dy, right * scale + dx, bottom * scale + dy)
        prims = [_paper_pens(p.scaled(scale).moved(dx, dy)) for p in legible(item.placed(), scale)]
        scene.items[item.id] = Item(item.id, "table" if item.kind == "frame" else item.kind, prims, box, {})
    words = f"{sheet.title}   scale 1:{1 / scale:g}".strip()
    title: list[Prim] = [text(FRAME_MM + 4, TOP_MM - 7, 4.0, words, role="title")]
    scene.items["scale"] = Item("scale", "frame", title, (0, 0, scene.width, TOP_MM))
    return scene


def _paper_pens(prim: Prim) -> Prim:
    """Return a primitive of a layout at true scale with the pens of a sheet: those of layouts are too broad for it."""
    if isinstance(prim, Text | Image | Art | Dot | Strand):
        return prim
    return replace(prim, pen=PAPER_PENS.get(prim.pen, prim.pen))
