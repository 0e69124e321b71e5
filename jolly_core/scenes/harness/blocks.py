"""Harnesses as blocks: boxes of devices with their connectors, harnesses and cables as lines with count and length."""

from __future__ import annotations

from dataclasses import dataclass, field

from jolly_core.drawing import BoxMm
from jolly_core.harness import BOX_MM, HEAD_MM, PORT_MM, BlockBox, BlockLink, LinkEnd, Port, block_layout, blocks
from jolly_core.model import Project, derived
from jolly_core.tagging import full_tag, lead_of, short_tag

from ..base.lettering import fit
from ..base.primitives import Anchor, Circle, Item, Line, PenName, Poly, Prim, Rect, Scene, board_link, text
from ..room.roomfinding import crosses
from .marks import Spot

MARGIN_MM = 20.0
PORT_HALF_MM = 3.8
PORT_WIDTH_MM = 18.0
STUB_MM = 5.0
SAID_MM = 34.0  # what is said of an end beside it
LANE_MM = 7.0
PILL_MM = (40.0, 13.0)
WORDS_MM = 3.0


@dataclass(slots=True)
class _Picture:
    """The picture while it is laid out: where boxes are, and the lanes that are taken."""

    project: Project
    boxes: dict[str, BoxMm] = field(default_factory=dict)
    ports: dict[str, tuple[float, int]] = field(default_factory=dict)  # of a connector: its middle, and which side
    items: dict[str, Item] = field(default_factory=dict)
    lanes: list[tuple[float, float, float]] = field(default_factory=list)  # x, top, bottom


def blocks_scene(project: Project, number: str) -> Scene:
    """Return the picture of blocks of a project; `number` is that of its page."""
    _, _, drawn = _drawn(project)
    width, height = 240.0, 120.0
    for item in drawn.values():
        width, height = max(width, item.box[2] + MARGIN_MM), max(height, item.box[3] + 1.6 * MARGIN_MM)
    words = f"{project.settings.number}  {number}   Harnesses as blocks".strip()
    frame: list[Prim] = [
        Rect(5.0, 5.0, width - 10, height - 10, "frame"),
        text(10, height - 9, 5.0, words, role="title"),
    ]
    links_first = sorted(drawn.values(), key=lambda i: not i.kind.endswith("-link"))
    items = {"frame": Item("frame", "frame", frame, (0, 0, width, height))} | {i.id: i for i in links_first}
    return Scene(round(width, 2), round(height, 2), items)


def block_places(project: Project) -> dict[str, Spot]:
    """Return where the box or port of each device is in the picture, mm."""
    boxes, ports, items = _drawn(project)
    found = {id: (box[0], box[1]) for id, box in boxes.items()}
    for id, (y, side) in ports.items():
        box = items[id].box
        found[id] = (box[0] if side < 0 else box[2] - PORT_WIDTH_MM, y)
    return found


@derived
def _drawn(project: Project) -> tuple[dict[str, BoxMm], dict[str, tuple[float, int]], dict[str, Item]]:
    """Return boxes, ports and all items of the picture."""
    found = blocks(project)
    picture = _Picture(project)
    picture.boxes = block_layout(project)
    sides = _sides(picture, found.links)
    for box in found.boxes:
        _box(picture, box, sides)
    for link in found.links:
        _link(picture, link)
    return picture.boxes, picture.ports, picture.items


def _middle(box: BoxMm) -> float:
    return (box[0] + box[2]) / 2


def _sides(picture: _Picture, links: tuple[BlockLink, ...]) -> dict[str, int]:
    """Return for each connector on which side of its box it is: towards what it is joined to; 1 is the right."""
    sides: dict[str, int] = {}
    for link in links:
        for end in link.ends:
            others = [_middle(picture.boxes[e.box_id]) for e in link.ends if e.box_id != end.box_id]
            here = _middle(picture.boxes[end.box_id])
            if others and end.device_id:
                sides[end.device_id] = 1 if sum(others) / len(others) >= here else -1
    return sides


def _box(picture: _Picture, box: BlockBox, sides: dict[str, int]) -> None:
    project = picture.project
    device = project.devices[box.device_id]
    left, top, right, bottom = picture.boxes[box.device_id]
    part = project.part_of(device)
    lead = lead_of(project, device.id)
    tag, size = fit(full_tag(project, device), BOX_MM - 4, 5.0)
    prims: list[Prim] = [
        Rect(left, top, BOX_MM, bottom - top, "edge", "paper"),
        Rect(left, top, BOX_MM, 1.6, "edge", "device"),
        text(left + 2, top + 7.6, size, tag, role="tag", link=lead.id if lead else ""),
    ]
    words, size = fit(device.text or (part.text if part else ""), BOX_MM - 4, 3.6)
    prims.append(text(left + 2, top + 12.8, size, words, role="text"))
    number, size = fit(part.number if part else "no part yet", BOX_MM - 4, WORDS_MM)
    prims.append(text(left + 2, top + 17.2, size, number, role="label"))
    picture.items[f"box:{device.id}"] = Item(
        f"box:{device.id}", "block", prims, (left, top, right, bottom), {"device": device.id}
    )
    for n, port in enumerate(box.ports):
        side = next((sides[id] for id in (port.plug_id, port.device_id) if id in sides), 1)
        _port(picture, port, (left if side < 0 else right, top + HEAD_MM + (n + 0.5) * PORT_MM), side)


def _port(picture: _Picture, port: Port, at: Spot, side: int) -> None:
    """Draw a connector inside the edge of its box, and outside it what is plugged to it."""
    x, y = at
    shown = [(port.device_id, -side), (port.plug_id, side)] if port.plug_id else [(port.device_id, -side)]
    for id, way in shown:
        device = picture.project.devices[id]
        near, far = sorted((x, x + way * PORT_WIDTH_MM))
        words, size = fit(short_tag(picture.project, device), PORT_WIDTH_MM - 1.6, 3.6)
        fixed = id == port.device_id
        face = Rect(near, y - PORT_HALF_MM, PORT_WIDTH_MM, 2 * PORT_HALF_MM, "ink", "case" if fixed else "paper")
        middle = (near + far) / 2
        named = text(middle, y + size / 3, size, words, anchor="middle", role="tag", link=board_link(id))
        prims: list[Prim] = [face, named]
        part = picture.project.part_of(device)
        beyond = near - 1.6 if side > 0 else far + 1.6
        if fixed and part is not None:
            number, size = fit(part.number, BOX_MM - PORT_WIDTH_MM - 6, WORDS_MM)
            anchor: Anchor = "end" if side > 0 else "start"
            prims.append(text(beyond, y + size / 3, size, number, anchor=anchor, role="label"))
        box = (near, y - PORT_HALF_MM, far, y + PORT_HALF_MM)
        picture.items[id] = Item(id, "port", prims, box, {"device": id})
        picture.ports[id] = (y, side)


def _tip(picture: _Picture, end: LinkEnd) -> tuple[Spot, int]:
    """Return where a link meets an end, and on which side of its box."""
    if end.device_id in picture.ports:
        y, side = picture.ports[end.device_id]
        box = picture.items[end.device_id].box
        outer = max(box[2], picture.boxes[end.box_id][2]) if side > 0 else min(box[0], picture.boxes[end.box_id][0])
        return (outer, y), side
    left, top, right, _ = picture.boxes[end.box_id]
    used = sum(1 for x, y in _tips_of(picture) if abs(x - right) < 1 and top <= y <= top + HEAD_MM)
    return (right, top + 4 + 4.5 * used), 1


def _tips_of(picture: _Picture) -> list[Spot]:
    tips = (i.facts["from"] for i in picture.items.values() if "from" in i.facts)
    return list(tips)


def _link(picture: _Picture, link: BlockLink) -> None:
    """Draw a harness or cable: a spoke from each end to an upright line, with its name where that is."""
    tips = [_tip(picture, end) for end in link.ends]
    x = _lane(picture, [at for at, _ in tips], [side for _, side in tips])
    pen: PenName = "ink" if link.kind == "harness" else "dash"
    ys = sorted(at[1] for at, _ in tips)
    prims: list[Prim] = [Line(x, ys[0], x, ys[-1], pen)] if ys[-1] > ys[0] else []
    for (at, side), end in zip(tips, link.ends, strict=True):
        turn = at[0] + side * STUB_MM
        goes = (turn - x) * side <= 0
        around = at[1] if goes else at[1] + PORT_MM / 2
        points = (*at, x, at[1]) if goes else (*at, turn, at[1], turn, around, x, around, x, at[1])
        prims.append(Poly(tuple(round(v, 2) for v in points), pen))
        anchor: Anchor = "start" if side > 0 else "end"
        prims.append(text(at[0] + side * 1.5, at[1] - 1.2, WORDS_MM, end.words, anchor=anchor, role="label"))
        if len(link.ends) > 2:
            prims.append(Circle(x, at[1], 0.9, "ink", "ink"))
    picture.lanes.append((x, ys[0], ys[-1]))
    at_x, y = _pill(x, ys, [at for at, _ in tips])
    width, height = PILL_MM
    box = (at_x - width / 2, y - height / 2, at_x + width / 2, y + height / 2)
    page = f"board:{link.id}" if link.kind == "harness" else ""
    name, size = fit(link.name, width - 3, 4.4)
    words, small = fit(link.words, width - 3, WORDS_MM)
    prims += [
        Rect(box[0], box[1], width, height, "edge", "paper"),
        text(at_x, y - 0.4, size, name, anchor="middle", role="tag", link=page),
        text(at_x, y + 4.4, small, words, anchor="middle", role="label"),
    ]
    ends = [at for at, _ in tips]
    reach = (
        min([x, box[0], *(p[0] for p in ends)]),
        min([box[1], *(p[1] for p in ends)]),
        max([x, box[2], *(p[0] for p in ends)]),
        max([box[3], *(p[1] for p in ends)]),
    )
    picture.items[f"link:{link.id}"] = Item(
        f"link:{link.id}", f"{link.kind}-link", prims, reach, {"body": box, "from": ends[0]}
    )


def _lane(picture: _Picture, tips: list[Spot], sides: list[int]) -> float:
    """Return where the upright line of a link is: so that it crosses few boxes and is short."""
    wanted = [at[0] + side * (STUB_MM + PILL_MM[0] / 2) for at, side in zip(tips, sides, strict=True)]
    middle = sum(wanted) / len(wanted)
    ys = [at[1] for at in tips]
    top, bottom = min(ys) - PILL_MM[1] / 2, max(ys) + PILL_MM[1] / 2
    edges = [e for b in picture.boxes.values() for e in (b[0] - 30.0, b[2] + 30.0)]
    tried: list[float] = [base + LANE_MM * n for base in (middle, *wanted, *edges) for n in range(-3, 4)]

    def cost(x: float) -> float:
        upright = (x, top, x, bottom)
        hits = sum(1 for b in picture.boxes.values() if crosses(b, upright, PILL_MM[0] / 2 + 2))
        hits += sum(crosses(b, (*at, x, at[1])) for b in picture.boxes.values() for at in tips)
        near = sum(
            1
            for lane, low, high in picture.lanes
            if abs(lane - x) < PILL_MM[0] and low - PILL_MM[1] < bottom and top < high + PILL_MM[1]
        )
        same = sum(1 for lane, low, high in picture.lanes if abs(lane - x) < 3 and low - 9 < bottom and top < high + 9)
        room = [(x - at[0]) * side for at, side in zip(tips, sides, strict=True)]
        back = sum(1 for r in room if r < STUB_MM) + 0.2 * sum(1 for r in room if r < SAID_MM)
        outside = 500.0 if x < PILL_MM[0] / 2 + 6 else 0.0
        long = sum(abs(x - at[0]) for at in tips)
        return hits * 400 + same * 300 + near * 60 + back * 200 + outside + long

    best: float = min(tried, key=lambda x: (cost(x), x))
    return round(best, 2)


def _pill(x: float, ys: list[float], tips: list[Spot]) -> Spot:
    """Return where the name of a link is: in the widest gap between spokes, else on the longest spoke."""
    gap, y = max(((b - a, (a + b) / 2) for a, b in zip(ys, ys[1:], strict=False)), default=(0.0, ys[0]))
    if gap > PILL_MM[1] + 4:
        return x, y
    far = max(tips, key=lambda at: abs(at[0] - x))
    return (far[0] + x) / 2, far[1]
