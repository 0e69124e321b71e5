"""Layouts on paper: a surface with dimensions and balloons that tie to the parts list; its holes; the legend. In mm."""

from __future__ import annotations

import textwrap

from jolly_core.cabinet import Outline, duct_outline, holes, outline_of, placings_in, runs_of, surface_size
from jolly_core.drawing import BoxMm
from jolly_core.model import Placing, Project, shown_in, sizes_in
from jolly_core.reports import holes_in_order, positions
from jolly_core.tagging import full_tag, natural

from ..base.dimensions import below, beside
from ..base.primitives import SMALLEST_MM, Anchor, Circle, Item, Line, Prim, Scene, Text, replace_words, text
from ..lists.leaves import Columns, LeafRow
from ..room.crowding import meet, text_box
from .surfaces import MARGIN_MM, hole_prim, surface_scene

ROOM_MM = 64.0  # for dimensions, left and below
BALLOON_MM = 8.5
NUMBER_MM = 9.0
MOST_DIMENSIONS = 40
TAGS_IN_A_ROW = 90  # letters of the devices in a row of the legend; more go into the next
LEGEND_COLUMNS: Columns = (("Pos", 10), ("Part number", 36), ("Description", 80), ("Size", 30), ("Devices", 100))
HOLE_COLUMNS: Columns = (("No.", 12), ("From the left", 28), ("From below", 28), ("Size", 36), ("For", 60))


def factor_at(scale: float) -> float:
    """Return how many times larger than usual what is written about a surface must be at a scale to be read."""
    return max(1.0, SMALLEST_MM / (scale * NUMBER_MM))


def layout_picture(project: Project, enclosure_id: str, surface: str, factor: float = 1.0) -> Scene:
    """Return a surface as it stands on a layout sheet: with dimensions and balloons, larger by a factor.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    base = surface_scene(project, enclosure_id, surface)
    width, height = surface_size(project, project.enclosures[enclosure_id], surface)
    room = ROOM_MM * factor
    items = {
        id: Item(id, i.kind, [p.moved(room, 0) for p in i.prims], _moved(i.box, room), i.facts)
        for id, i in base.items.items()
        if id != "holes"
    }
    scene = Scene(base.width + room, base.height + room, items)
    items["dimensions"] = _dimensions(project, (width, height), _places(project, enclosure_id, surface), factor)
    balloons = _balloons(project, enclosure_id, surface, scene, factor)
    items["balloons"] = Item("balloons", "frame", balloons, (0, 0, scene.width, scene.height))
    return scene


def _moved(box: BoxMm, room: float) -> BoxMm:
    return box[0] + room, box[1], box[2] + room, box[3]


def _dimensions(
    project: Project, size: tuple[float, float], places: tuple[list[float], list[float]], factor: float
) -> Item:
    (width, height), (across, upward) = size, places
    room = ROOM_MM * factor
    left, low = MARGIN_MM + room, MARGIN_MM + height
    running = project.settings.dimensions == "running"
    unit = project.settings.length_unit
    off = 22 * factor
    prims = below([0.0, *across[:MOST_DIMENSIONS], width], left, low + off, running=running, unit=unit, factor=factor)
    prims += beside(
        [0.0, *upward[:MOST_DIMENSIONS], height], left - off, low, running=running, unit=unit, factor=factor
    )
    return Item("dimensions", "frame", prims, (0, MARGIN_MM, left + width, low + room))


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


def _balloons(project: Project, enclosure_id: str, surface: str, scene: Scene, factor: float) -> list[Prim]:
    """Return a balloon for each device or run of alike ones, where it lies on no text and no other balloon."""
    taken = [text_box(p) for item in scene.items.values() for p in item.prims if isinstance(p, Text) and p.words]
    prims: list[Prim] = []
    for number, boxes in _numbered(project, placings_in(project, enclosure_id, surface)):
        x = (boxes[0].x + boxes[-1].x + boxes[-1].width) / 2 + MARGIN_MM + ROOM_MM * factor
        top = min(b.y for b in boxes) + MARGIN_MM
        foot = max(b.y + b.height for b in boxes) + MARGIN_MM
        r, size = BALLOON_MM * factor, NUMBER_MM * factor
        tries = [
            (x + dx, y)
            for far in (4.0, 14.0 * factor, 26.0 * factor)
            for y in (top - far - r, foot + far + r)
            for dx in (0.0, 16.0 * factor, -16.0 * factor)
        ]
        at = next((t for t in tries if not any(meet(_about(t, r), b) for b in taken)), None)
        if at is None:
            continue  # the legend names it all the same
        edge = top if at[1] < top else foot
        near = at[1] + r if at[1] < top else at[1] - r
        prims += [Line(at[0], near, x, edge, "thin"), Circle(*at, r, "thin", "paper")]
        prims.append(text(at[0], at[1] + size / 3, size, str(number), anchor="middle", role="number"))
        taken.append(_about(at, r))
    return prims


def _about(at: tuple[float, float], r: float) -> BoxMm:
    return at[0] - r, at[1] - r, at[0] + r, at[1] + r


def hole_picture(project: Project, enclosure_id: str, surface: str, factor: float = 1.0) -> Scene:
    """Return a surface with its holes only, numbered as the hole table is, and their dimensions, larger by a factor.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    base = surface_scene(project, enclosure_id, surface)
    width, height = surface_size(project, project.enclosures[enclosure_id], surface)
    room = ROOM_MM * factor
    plate = base.items["plate"]
    words = [replace_words(p.moved(room, 0), ", holes") for p in plate.prims]
    found = holes_in_order(project, enclosure_id, surface)
    prims: list[Prim] = [hole_prim(h).moved(room, 0) for h in holes(project, enclosure_id, surface)]
    prims += _hole_numbers([(MARGIN_MM + room + x, MARGIN_MM + height - y) for x, y, *_ in found], NUMBER_MM * factor)
    items = {"plate": Item("plate", "plate", words, _moved(plate.box, room))}
    items["holes"] = Item("holes", "frame", prims, _moved(plate.box, room))
    places = sorted({h[0] for h in found}), sorted({h[1] for h in found})
    items["dimensions"] = _dimensions(project, (width, height), places, factor)
    return Scene(base.width + room, base.height + room, items)


def _hole_numbers(places: list[tuple[float, float]], size: float) -> list[Prim]:
    """Return the numbers of holes, each beside its hole where it lies on no other; where all is full, there none."""
    prims: list[Prim] = []
    taken: list[BoxMm] = []
    right: Anchor = "start"
    left: Anchor = "end"
    beside_it = ((5.0, -5.0, right), (5.0, size, right), (-5.0, -5.0, left), (-5.0, size, left))
    for n, (x, y) in enumerate(places, start=1):
        for dx, dy, anchor in beside_it:
            label = text(x + dx, y + dy, size, str(n), anchor=anchor, role="number")
            box = text_box(label)
            if not any(meet(box, b) for b in taken):
                prims.append(label)
                taken.append(box)
                break
    return prims


def hole_table_rows(project: Project, enclosure_id: str, surface: str) -> list[LeafRow]:
    """Return the rows of the hole table of a surface, then how many there are of each size."""
    unit = project.settings.length_unit
    found = [
        (shown_in(unit, x), shown_in(unit, y), sizes_in(unit, size), owner)
        for x, y, size, owner, _ in holes_in_order(project, enclosure_id, surface)
    ]
    rows: list[LeafRow] = [[(words, "") for words in (str(n), *row)] for n, row in enumerate(found, start=1)]
    sizes: dict[str, int] = {}
    for _, _, size, _ in found:
        sizes[size] = sizes.get(size, 0) + 1
    for size, count in sizes.items():
        rows.append([("", ""), ("", ""), ("", ""), (f"{count} × {size}", ""), ("in all", "")])
    return rows


def legend_rows(project: Project, enclosure_id: str) -> list[LeafRow]:
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
    rows: list[LeafRow] = []
    for part_id in sorted(there, key=lambda id: order[id]):
        part = project.parts[part_id]
        sides = (shown_in(unit, side) for side in (*part.size_mm, part.depth_mm))
        size = f"{' × '.join(sides)} {unit}"
        tags = ", ".join(sorted(there[part_id], key=natural)) or "rails and ducts"
        first, *more = textwrap.wrap(tags, TAGS_IN_A_ROW, break_long_words=False, break_on_hyphens=False)
        rows.append([(str(order[part_id]), ""), (part.number, ""), (part.text, ""), (size, ""), (first, "")])
        rows += [[("", ""), ("", ""), ("", ""), ("", ""), (line, "")] for line in more]
    return rows
