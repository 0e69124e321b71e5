"""Layouts on paper: a surface with dimensions and balloons that tie to the parts list; its holes; the legend. In mm."""

from __future__ import annotations

from jolly_core.cabinet import Outline, duct_outline, holes, outline_of, placings_in, runs_of, surface_size
from jolly_core.drawing import ADVANCE
from jolly_core.model import Placing, Project, shown_in, sizes_in
from jolly_core.reports import holes_in_order, positions
from jolly_core.tagging import full_tag, natural

from .cabinet import MARGIN_MM, hole_prim, surface_scene
from .dimensions import below, beside
from .leaves import Columns, Row
from .primitives import Circle, Item, Line, Prim, Scene, Text, text

ROOM_MM = 64.0  # for dimensions, left and below
BALLOON_MM = 8.5
NUMBER_MM = 9.0
MOST_DIMENSIONS = 40
Box = tuple[float, float, float, float]
LEGEND_COLUMNS: Columns = (("Pos", 10), ("Part number", 36), ("Description", 80), ("Size", 30), ("Devices", 100))
HOLE_COLUMNS: Columns = (("No.", 12), ("From the left", 28), ("From below", 28), ("Size", 36), ("For", 60))


def layout_picture(project: Project, enclosure_id: str, surface: str) -> Scene:
    """Return a surface as it stands on a layout sheet: with dimensions and balloons.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    base = surface_scene(project, enclosure_id, surface)
    width, height = surface_size(project, project.enclosures[enclosure_id], surface)
    items = {
        id: Item(id, i.kind, [p.moved(ROOM_MM, 0) for p in i.prims], _moved(i.box), i.facts)
        for id, i in base.items.items()
        if id != "holes"
    }
    scene = Scene(base.width + ROOM_MM, base.height + ROOM_MM, items)
    across, upward = _places(project, enclosure_id, surface)
    items["dimensions"] = _dimensions(project, (width, height), across, upward)
    items["balloons"] = Item(
        "balloons", "frame", _balloons(project, enclosure_id, surface, scene), (0, 0, scene.width, scene.height)
    )
    return scene


def _moved(box: Box) -> Box:
    return box[0] + ROOM_MM, box[1], box[2] + ROOM_MM, box[3]


def _dimensions(project: Project, size: tuple[float, float], across: list[float], upward: list[float]) -> Item:
    width, height = size
    left, low = MARGIN_MM + ROOM_MM, MARGIN_MM + height
    running = project.settings.dimensions == "running"
    unit = project.settings.length_unit
    prims = below([0.0, *across[:MOST_DIMENSIONS], width], left, low + 22, running=running, unit=unit)
    prims += beside([0.0, *upward[:MOST_DIMENSIONS], height], left - 22, low, running=running, unit=unit)
    return Item("dimensions", "frame", prims, (0, MARGIN_MM, left + width, low + ROOM_MM))


def _places(project: Project, enclosure_id: str, surface: str) -> tuple[list[float], list[float]]:
    """Return what is dimensioned: from the left and from below.

    On the door the middles of holes; elsewhere edges of upright ducts and ends of rails, middles of level ones, and
    the corners of what is screwed on.
    """
    _, height = surface_size(project, project.enclosures[enclosure_id], surface)
    placings = placings_in(project, enclosure_id, surface)
    if surface == "door":
        boxes = [outline_of(project, p.id) for p in placings]
        return [round(b.x + b.width / 2, 1) for b in boxes], [round(height - b.y - b.height / 2, 1) for b in boxes]
    across, upward = [], []
    for run in runs_of(project, enclosure_id):
        if run.surface != surface:
            continue
        if run.y1 == run.y2:
            upward.append(round(height - run.y1, 1))
        elif run.id in project.ducts:
            box = duct_outline(project, run.id)
            across += [round(box.x, 1), round(box.x + box.width, 1)]
        else:
            across.append(round(run.x1, 1))
    for placing in placings:
        if not placing.rail_id:
            box = outline_of(project, placing.id)
            across.append(round(box.x, 1))
            upward.append(round(height - box.y - box.height, 1))
    return across, upward


def _numbered(project: Project, placings: list[Placing]) -> list[tuple[int, list[Outline]]]:
    """Return positions of the parts list with the outlines they are for; alike ones side by side are one."""
    order = positions(project)
    found: list[tuple[int, list[Outline]]] = []
    last: tuple[str, int] | None = None
    boxes = {p.id: outline_of(project, p.id) for p in placings}
    for placing in sorted(placings, key=lambda p: (p.rail_id, boxes[p.id].y if not p.rail_id else 0, boxes[p.id].x)):
        number = order.get(project.devices[placing.device_id].part_id, 0)
        if not number:
            continue
        box = boxes[placing.id]
        touching = found and abs(found[-1][1][-1].x + found[-1][1][-1].width - box.x) < 0.5
        if last == (placing.rail_id, number) and placing.rail_id and touching:
            found[-1][1].append(box)
        else:
            found.append((number, [box]))
        last = placing.rail_id, number
    return found


def _balloons(project: Project, enclosure_id: str, surface: str, scene: Scene) -> list[Prim]:
    """Return a balloon for each device or run of alike ones, where it lies on no text and no other balloon."""
    taken = [_text_box(p) for item in scene.items.values() for p in item.prims if isinstance(p, Text) and p.words]
    prims: list[Prim] = []
    for number, boxes in _numbered(project, placings_in(project, enclosure_id, surface)):
        x = (boxes[0].x + boxes[-1].x + boxes[-1].width) / 2 + MARGIN_MM + ROOM_MM
        top = min(b.y for b in boxes) + MARGIN_MM
        foot = max(b.y + b.height for b in boxes) + MARGIN_MM
        r = BALLOON_MM
        tries = [
            (x + dx, y)
            for far in (4.0, 14.0, 26.0)
            for y in (top - far - r, foot + far + r)
            for dx in (0.0, 16.0, -16.0)
        ]
        at = next((t for t in tries if not any(_hit(_about(t, r), b) for b in taken)), None)
        if at is None:
            continue  # the legend names it all the same
        edge = top if at[1] < top else foot
        near = at[1] + r if at[1] < top else at[1] - r
        prims += [Line(at[0], near, x, edge, "thin"), Circle(*at, r, "thin", "paper")]
        words = str(number)
        prims.append(text(at[0], at[1] + NUMBER_MM / 3, NUMBER_MM, words, anchor="middle", role="number"))
        taken.append(_about(at, r))
    return prims


def _about(at: tuple[float, float], r: float) -> Box:
    return at[0] - r, at[1] - r, at[0] + r, at[1] + r


def _text_box(prim: Text) -> Box:
    wide = len(prim.words) * prim.size * ADVANCE
    if prim.upward:
        return prim.x - prim.size, prim.y - wide, prim.x + 1, prim.y
    left = prim.x - {"start": 0.0, "middle": wide / 2, "end": wide}[prim.anchor]
    return left, prim.y - prim.size, left + wide, prim.y + 1


def _hit(a: Box, b: Box) -> bool:
    return a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]


def hole_picture(project: Project, enclosure_id: str, surface: str) -> Scene:
    """Return a surface with its holes only, numbered as the hole table is, and dimensions of the outermost.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    base = surface_scene(project, enclosure_id, surface)
    width, height = surface_size(project, project.enclosures[enclosure_id], surface)
    left, top = MARGIN_MM + ROOM_MM, MARGIN_MM
    plate = base.items["plate"]
    words = [p.moved(ROOM_MM, 0) for p in plate.prims]
    words = [replace_words(p, ", holes") for p in words]
    prims: list[Prim] = [hole_prim(h).moved(ROOM_MM, 0) for h in holes(project, enclosure_id, surface)]
    taken: list[Box] = []
    for n, (x, y, *_) in enumerate(holes_in_order(project, enclosure_id, surface), start=1):
        label = text(left + x + 5, top + height - y - 5, 7.0, str(n), role="number")
        box = _text_box(label)
        if not any(_hit(box, b) for b in taken):
            prims.append(label)
            taken.append(box)
    found = holes_in_order(project, enclosure_id, surface)
    items = {"plate": Item("plate", "plate", words, _moved(plate.box))}
    items["holes"] = Item("holes", "frame", prims, _moved(plate.box))
    across, upward = [h[0] for h in found], [h[1] for h in found]
    items["dimensions"] = _dimensions(project, (width, height), sorted(set(across)), sorted(set(upward)))
    return Scene(base.width + ROOM_MM, base.height + ROOM_MM, items)


def replace_words(prim: Prim, more: str) -> Prim:
    """Return a primitive, a text with more words at its end."""
    if isinstance(prim, Text):
        return text(prim.x, prim.y, prim.size, prim.words + more, anchor=prim.anchor, role=prim.role)
    return prim


def hole_table_rows(project: Project, enclosure_id: str, surface: str) -> list[Row]:
    """Return the rows of the hole table of a surface, then how many there are of each size."""
    unit = project.settings.length_unit
    found = [
        (shown_in(unit, x), shown_in(unit, y), sizes_in(unit, size), owner)
        for x, y, size, owner, _ in holes_in_order(project, enclosure_id, surface)
    ]
    rows: list[Row] = [[(words, "") for words in (str(n), *row)] for n, row in enumerate(found, start=1)]
    sizes: dict[str, int] = {}
    for _, _, size, _ in found:
        sizes[size] = sizes.get(size, 0) + 1
    for size, count in sizes.items():
        rows.append([("", ""), ("", ""), ("", ""), (f"{count} × {size}", ""), ("in all", "")])
    return rows


def legend_rows(project: Project, enclosure_id: str) -> list[Row]:
    """Return what balloons mean: position of the parts list, part, and the devices of the enclosure that have it."""
    order, unit = positions(project), project.settings.length_unit
    there: dict[str, list[str]] = {}
    for placing in placings_in(project, enclosure_id):
        device = project.devices[placing.device_id]
        if device.part_id in order:
            there.setdefault(device.part_id, []).append(full_tag(project, device))
    for run in runs_of(project, enclosure_id):
        if run.part_id in order:
            there.setdefault(run.part_id, [])
    rows: list[Row] = []
    for part_id in sorted(there, key=lambda id: order[id]):
        part = project.parts[part_id]
        sides = (shown_in(unit, side) for side in (*part.size_mm, part.depth_mm))
        size = f"{' × '.join(sides)} {unit}"
        tags = ", ".join(sorted(there[part_id], key=natural)) or "rails and ducts"
        rows.append([(str(order[part_id]), ""), (part.number, ""), (part.text, ""), (size, ""), (tags, "")])
    return rows
