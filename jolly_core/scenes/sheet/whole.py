"""A schematic sheet as a scene: frame, wires with their numbers, dots, symbols, marks, notes, contact tables."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from jolly_core.drawing import ADVANCE, GRID_MM, protective_types, size_mm
from jolly_core.model import Project, Sheet, Wire, derived, derived_few
from jolly_core.wiring import Group, dots_of, group_at, point_of, sheet_groups, wire_numbers

from ..base.frames import frame_facts, frame_item
from ..base.primitives import Dot, Facts, Item, Scene, Strand, text, text_at
from .bands import band_item
from .continuations import continuation_item
from .figures import figure_item
from .layers import layered, net_layer, printed
from .movables import Stroke, room_of, settle_texts
from .notes import note_item
from .rows import row_lines
from .symbols import symbol_item
from .tables import table_items

NUMBER_MM = 2.5
KEPT = 128  # scenes of sheets that are kept
MOST_DOTS = 20_000  # grid points of which the dot is kept
DOT_MM = 0.7
END_MM = 2.1
ROOM_STEPS = 6  # shortest wire that has room for a number at its end


@derived_few(KEPT)
def sheet_scene(project: Project, sheet_id: str) -> Scene:
    """Return the scene of a sheet, kept until the next change; it is not to be changed.

    Raises:
        GoneError: the sheet is not in the project.
    """
    sheet = project.get("sheet", sheet_id)
    return _scene(project, sheet)


@derived
def sheet_look(project: Project, sheet_id: str) -> int:
    """Return a number that is the same for sheets that look the same but for their frame.

    It is taken of what stands on the sheet before texts find their places, which depend on nothing else: so it costs a
    third of a scene, and a scene need not be kept to tell whether it is still the same. Only numbers of one process are
    to be compared.

    Raises:
        GoneError: the sheet is not in the project.
    """
    sheet = project.get("sheet", sheet_id)
    items, strokes = _sketch(project, sheet)
    # Texts stand clear of the numbers of the frame.
    about = (size_mm(sheet), room_of(project, sheet)[1], project.settings.standard, frame_facts(sheet))
    shown = [
        (i.id, i.kind, i.at, i.box, tuple(i.prims), tuple(i.facts.get("texts", {}).items()))
        for i in printed(project, items).values()
        if i.kind != "frame"
    ]
    return hash((about, tuple(shown), tuple((id, tuple(found)) for id, found in strokes.items())))


def _scene(project: Project, sheet: Sheet) -> Scene:
    items, strokes = _sketch(project, sheet)
    settle_texts(project, sheet, items, strokes)
    return Scene(*size_mm(sheet), items, sheet)


def _sketch(project: Project, sheet: Sheet) -> tuple[dict[str, Item], dict[str, list[Stroke]]]:
    """Return the items of a sheet, texts at their usual places, and for each wire number its strokes."""
    sheet_id = sheet.id
    items: dict[str, Item] = {}

    def add(item: Item) -> None:
        items[item.id] = item

    add(_frame(project, sheet_id))
    groups = sheet_groups(project, sheet_id)
    numbers = wire_numbers(project, sheet_id)
    nets = [net_items(project, sheet_id, g.point, numbers.get(g.point, "")) for g in groups.groups if g.wires]
    for net in nets:
        items.update(net.wires)
    for net in nets:
        items.update(net.dots)
    strokes: dict[str, list[Stroke]] = {}
    for net in nets:
        items.update(net.numbers)
        strokes.update(net.strokes)
    for id in project.on_sheet["symbol"].get(sheet_id):
        add(symbol_item(project, id))
    for mark in project.continuations_on(sheet_id):
        index = groups.of_continuation[mark.id]
        shown = any(_number_place(project, project.wires[i]) != "hidden" for i in groups.by_point[index].wires)
        add(continuation_item(project, mark.id, numbers.get(index, ""), shown))
    for id in project.on_sheet["band"].get(sheet_id):
        add(band_item(project, project.bands[id]))
    for note in project.notes_on(sheet_id):
        add(note_item(note))
    for figure in project.figures_on(sheet_id):
        add(figure_item(project, figure))
    for made in (*table_items(project, sheet), *row_lines(project, sheet_id)):
        add(made)
    return items, strokes


@lru_cache(MOST_DOTS)
def _dot(x: int, y: int, layer: str) -> Item:
    """Return the dot at a grid point, which is the same on every sheet."""
    cx, cy = x * GRID_MM, y * GRID_MM
    return Item(f"dot:{x},{y}", "dot", [Dot(cx, cy, DOT_MM)], (cx - 1, cy - 1, cx + 1, cy + 1), layered(layer))


@derived_few(KEPT)
def _frame(project: Project, sheet_id: str) -> Item:
    return frame_item(project, project.get("sheet", sheet_id))


@dataclass(slots=True, frozen=True)
class NetItems:
    """What is painted of a net on a sheet: its wires, dots, its number in one or several places, where it may stand."""

    wires: dict[str, Item]
    dots: dict[str, Item]
    numbers: dict[str, Item]
    strokes: dict[str, list[Stroke]]


@derived
def net_items(project: Project, sheet_id: str, point: int, number: str) -> NetItems:
    """Return the items of the wires of a group, of its dots and of its number."""
    group = group_at(project, sheet_id, point)
    wires = [project.wires[i] for i in group.wires]
    numbered = _numbered(project, wires)
    shown = _number_items(project, number, numbered, group) if number else []
    layer = net_layer(project, sheet_id, point) if project.layers else ""
    own = {w.id for w in numbered}
    return NetItems(
        {w.id: wire_item(project, w, point, number if w.id in own else "", layer) for w in wires},
        {dot.id: dot for x, y in dots_of(project, group) for dot in (_dot(x, y, layer),)},
        {item.id: replace(item, facts={**item.facts, **layered(layer)}) if layer else item for item in shown},
        {item.id: _strokes(numbered, text_at(item, 0).link) for item in shown},
    )


def _numbered(project: Project, wires: list[Wire]) -> list[Wire]:
    """Return the wires of a group that show its number: where it is bonded, protective ones do not."""
    types = protective_types(project)
    others = [w for w in wires if w.type_id not in types]
    return others or wires


def wire_item(project: Project, wire: Wire, group: int, number: str, layer: str = "") -> Item:
    """Return the item of a wire; its facts carry the group it is in and the number it shows."""
    wire_type = project.wire_types.get(wire.type_id)
    colour = wire_type.colour if wire_type else "BK"
    x1, y1, x2, y2 = (v * GRID_MM for v in (wire.x1, wire.y1, wire.x2, wire.y2))
    facts: Facts = {
        "group": group,
        "number": number,
        "fixed": bool(wire.number),
        "type": wire.type_id,
        "ends": ((wire.x1, wire.y1), (wire.x2, wire.y2)),
        **layered(layer),
    }
    return Item(wire.id, "wire", [Strand(x1, y1, x2, y2, colour)], (x1 - 0.5, y1 - 0.5, x2 + 0.5, y2 + 0.5), facts)


def _number_place(project: Project, wire: Wire) -> str:
    """Return where the type of a wire shows numbers: "middle", "ends" or "hidden"."""
    wire_type = project.wire_types.get(wire.type_id)
    return wire_type.number_at if wire_type else "middle"


def _number_items(project: Project, number: str, wires: list[Wire], group: Group) -> list[Item]:
    """Return the number of a net where the types of its wires say: once at its longest stroke, at its ends, or not."""
    places = {w.id: _number_place(project, w) for w in wires}
    found: list[Item] = []
    shown = [w for w in wires if places[w.id] == "middle"]
    if shown:
        found.append(_number_item(number, shown, group.point))
    ends = {point_of(project, pin) for pin in group.pins} if "ends" in places.values() else set()
    for w in wires:
        if places[w.id] == "ends":
            found += [
                _end_item(number, w, point, group.point)
                for point in ((w.x1, w.y1), (w.x2, w.y2))
                if point in ends and w.x2 - w.x1 + w.y2 - w.y1 >= ROOM_STEPS
            ]
    return found


def _strokes(wires: list[Wire], own: str) -> list[Stroke]:
    """Return the strokes along which a number may stand, mm: its own first, then the others, the longest first."""
    found = sorted(wires, key=lambda w: (w.id != own, -(w.x2 - w.x1 + w.y2 - w.y1), w.y1, w.x1))
    return [(w.x1 * GRID_MM, w.y1 * GRID_MM, w.x2 * GRID_MM, w.y2 * GRID_MM) for w in found]


def _end_item(number: str, wire: Wire, end: tuple[int, int], group: int) -> Item:
    """Return a net's number beside one end of a wire, where a ferrule would carry it."""
    x, y = end[0] * GRID_MM, end[1] * GRID_MM
    width = len(number) * END_MM * ADVANCE
    if wire.y1 == wire.y2:
        first = end == (wire.x1, wire.y1)
        prim = text(
            x + (0.8 if first else -0.8), y - 0.8, END_MM, number, anchor="start" if first else "end", role="number"
        )
        left = x + 0.8 if first else x - 0.8 - width
        box = (left, y - 0.8 - END_MM, left + width, y - 0.4)
    else:
        first = end == (wire.x1, wire.y1)
        base = y + END_MM + 0.6 if first else y - 0.8
        prim = text(x + 0.8, base, END_MM, number, role="number", link=wire.id)
        box = (x + 0.8, base - END_MM, x + 0.8 + width, base)
    return Item(f"number:{group}:{wire.id}:{end[0]},{end[1]}", "number", [prim], box, {"group": group})


def _number_item(number: str, wires: list[Wire], group: int) -> Item:
    """Return the number of a net on a sheet, at its longest stroke; across before down."""
    wire = max(wires, key=lambda w: (w.y1 == w.y2, w.x2 - w.x1 + w.y2 - w.y1, -w.y1, -w.x1))
    x, y = (wire.x1 + wire.x2) / 2 * GRID_MM, (wire.y1 + wire.y2) / 2 * GRID_MM
    width = len(number) * NUMBER_MM * ADVANCE
    if wire.y1 == wire.y2:
        prim = text(x, y - 1.0, NUMBER_MM, number, anchor="middle", role="number", link=wire.id)
        box = (x - width / 2, y - 1.0 - NUMBER_MM, x + width / 2, y - 0.6)
    else:
        prim = text(x + 1.0, y + 0.8, NUMBER_MM, number, role="number", link=wire.id)
        box = (x + 1.0, y - NUMBER_MM, x + 1.0 + width, y + 1.2)
    return Item(f"number:{group}", "number", [prim], box, {"group": group})
