"""A cable with both of its ends: what lands at each, the cores between in their colours, spare ones and the shield."""

from __future__ import annotations

from jolly_core.cables import CoreRow, cable_cores, cable_of, ends_of, pair_names
from jolly_core.drawing import ADVANCE
from jolly_core.library import is_colour
from jolly_core.model import Project
from jolly_core.tagging import full_tag, pin_name

from ..base.primitives import Anchor, Circle, Dot, Item, Line, Prim, Rect, Scene, Strand, text

ROW_MM = 5.0
NAME_MM = 2.8
CORE_MM = 2.4
MARGIN_MM = 4.0
TAIL_MM = 20.0  # of the cores beside the sheath, at either end
SHEATH_MM = 46.0
STUB_MM = 3.0
HEAD_MM = 9.0
TURN_MM = 3.0


def core_key(row: CoreRow, n: int) -> str:
    """Return the id of a core's item: by its ordinal, else by its place among those that have no core."""
    return f"core:{row.ordinal}" if row.ordinal else f"none:{n}"


def cable_scene(project: Project, device_id: str) -> Scene:
    """Return the picture of a cable: source on the left, destination on the right, one line a core."""
    rows = cable_cores(project, device_id)
    ends = {n: ends_of(project, device_id, r.conductor) for n, r in enumerate(rows) if r.conductor is not None}
    names = {n: (pin_name(project, a), pin_name(project, b)) for n, (a, b) in ends.items()}
    left, right = (max((len(pair[side]) for pair in names.values()), default=6) * NAME_MM * ADVANCE for side in (0, 1))
    start = MARGIN_MM + left + STUB_MM + 2
    end = start + 2 * TAIL_MM + SHEATH_MM
    width, height = end + STUB_MM + 2 + right + MARGIN_MM, HEAD_MM + ROW_MM * max(1, len(rows)) + MARGIN_MM
    items: dict[str, Item] = {}
    items["sheath"] = _sheath(project, device_id, (start + TAIL_MM, HEAD_MM), len(rows))
    twisted = _twisted(project, device_id, rows)
    for n, row in enumerate(rows):
        y = HEAD_MM + ROW_MM * (n + 0.5)
        key = core_key(row, n)
        prims = _core(row, start, end, y, y + ROW_MM * twisted.get(n, 0))
        if n in names:
            base = y + NAME_MM * 0.35
            prims.append(text(start - 2, base, NAME_MM, names[n][0], anchor="end", role="label"))
            prims.append(text(end + 2, base, NAME_MM, names[n][1], role="label"))
        elif row.kind == "core":
            prims.append(text(start - 2, y + NAME_MM * 0.35, NAME_MM, "spare", anchor="end", role="line"))
        else:
            prims += _shield_ends(project, device_id, start, end, y)
        items[key] = Item(key, "core", prims, (MARGIN_MM, y - ROW_MM / 2, width - MARGIN_MM, y + ROW_MM / 2))
    return Scene(round(width, 2), round(height, 2), items)


def _twisted(project: Project, device_id: str, rows: list[CoreRow]) -> dict[int, int]:
    """Return for each row of a twisted pair the way to the row of its other core, 1 down or -1 up."""
    names = pair_names(project.part_of(project.devices[device_id]))
    pairs = [names.get(r.ordinal, "") for r in rows]
    downs = [n for n, name in enumerate(pairs[:-1]) if name and name == pairs[n + 1]]
    return dict.fromkeys(downs, 1) | {n + 1: -1 for n in downs}


def _sheath(project: Project, device_id: str, corner: tuple[float, float], rows: int) -> Item:
    device = project.devices[device_id]
    part = project.part_of(device)
    x, y = corner
    tall = ROW_MM * max(1, rows)
    prims: list[Prim] = [Rect(x, y, SHEATH_MM, tall, "thin", "duct")]
    words = f"{full_tag(project, device)}  {part.number if part else 'no cable part yet'}"
    prims.append(text(x + SHEATH_MM / 2, y - 2.4, NAME_MM, words, anchor="middle", role="tag"))
    return Item("sheath", "sheath", prims, (x, y - 6, x + SHEATH_MM, y + tall))


def _core(row: CoreRow, start: float, end: float, y: float, other: float) -> list[Prim]:
    """Return a core from end to end: a stroke in its colour, thin while it is spare, dashed where no core was left.

    `other` is the height of the core it is twisted with, its own when it is with none.
    """
    colour = row.name if is_colour(row.name) else "BK"
    prims: list[Prim] = []
    if not row.ordinal:
        prims.append(Line(start, y, end, y, "dash"))
    elif row.kind != "core":
        prims += [Line(start + 3, y + d, end - 3, y + d, "dash") for d in (-0.7, 0.7)]
    elif other != y:
        prims += _turned(start, end, y, other, colour)
    else:
        prims.append(Strand(start, y, end, y, colour))
    if row.conductor is not None:
        prims += [Dot(x, y, 0.8) for x in (start, end)]
    elif row.kind == "core":
        prims += [Circle(x, y, 0.8, "thin") for x in (start, end)]
    middle = start + TAIL_MM + SHEATH_MM / 2
    name = row.called
    room = len(name) * CORE_MM * ADVANCE + 2
    prims.append(Rect(middle - room / 2, y - 1.7, room, 3.4, "thin", "device"))
    prims.append(text(middle, y + CORE_MM * 0.36, CORE_MM, name, anchor="middle", role="tag"))
    return prims


def _turned(start: float, end: float, y: float, other: float, colour: str) -> list[Prim]:
    """Return a core that changes places with the other one of its pair and back, at either end of the sheath."""
    left, right = start + TAIL_MM + 2, end - TAIL_MM - 2
    path = [(start, y)]
    for x in (left, right - 4 * TURN_MM):
        path += [(x, y), (x + TURN_MM, other), (x + 3 * TURN_MM, other), (x + 4 * TURN_MM, y)]
    path.append((end, y))
    return [Strand(*a, *b, colour) for a, b in zip(path, path[1:], strict=False)]


def _shield_ends(project: Project, device_id: str, start: float, end: float, y: float) -> list[Prim]:
    """Return where a shield is landed: an earth sign at each end that is."""
    cable = project.cables[cable_of(project, device_id)]
    prims: list[Prim] = []
    for side, x, way in (("source", start, -1), ("destination", end, 1)):
        if cable.shield_landed in (side, "both"):
            for n, half in enumerate((1.6, 1.0, 0.5)):
                prims.append(Line(x + way * n * 0.7, y - half, x + way * n * 0.7, y + half, "ink"))
            prims.append(Line(x, y, x - way * 3, y, "ink"))
            anchor: Anchor = "end" if way < 0 else "start"
            prims.append(text(x + way * 3.2, y + NAME_MM * 0.35, NAME_MM, "shield landed", anchor=anchor, role="line"))
        else:
            prims.append(Circle(x, y, 0.8, "thin"))
    return prims
