"""A surface of an enclosure as a scene, at true scale: rails, ducts, lanes, devices; lengths and fill in words."""

from __future__ import annotations

from math import cos, pi, sin

from jolly_core.cabinet import (
    Fill,
    Hole,
    duct_fills,
    duct_outline,
    eyelets_of,
    has_room,
    hole_table,
    holes,
    outline_of,
    placings_in,
    rail_is_level,
    rail_outline,
    run_names,
    surface_size,
)
from jolly_core.drawing import ADVANCE
from jolly_core.model import Crossing, Enclosure, Lane, Project, Rail, derived, derived_few, shown_in, sizes_in
from jolly_core.tagging import full_tag
from jolly_core.terminals import is_strip

from ..base.lettering import fit
from ..base.primitives import Circle, Facts, Item, Line, Poly, Prim, Rect, Scene, Text, ToneName, text
from ..faces.devices import ROUND, face_prims
from ..faces.outlines import outline_prims
from ..faces.strips import blocks_on_rail, tone_of
from ..faces.tags import layout_tag, tag_below, tag_on_face

MARGIN_MM = 30.0
SMALL_MM = 11.0
CORNER_STEPS = 6
BESIDE, CLEAR = 0.42, 0.47  # of the run of a duct: between the usual fixing holes, where its words end at the latest
_SEEN = {
    "plate": "mounting plate",
    "door": "door, seen from the front",
    "left": "left side wall, seen from inside",
    "right": "right side wall, seen from inside",
    "roof": "roof, seen from above",
    "gland": "gland plate, seen from above",
}


@derived_few(24)
def surface_scene(project: Project, enclosure_id: str, surface: str) -> Scene:
    """Return the scene of a surface; the surface's own corner lies MARGIN_MM from that of the scene.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    enclosure: Enclosure = project.get("enclosure", enclosure_id)
    width, height = surface_size(project, enclosure, surface)
    tag = full_tag(project, project.devices[enclosure.device_id])
    unit = project.settings.length_unit
    words = f"{tag}  {_SEEN[surface]}  {shown_in(unit, width)} × {shown_in(unit, height)} {unit}"
    shown, size = fit(words, width + MARGIN_MM, SMALL_MM, 5.0)
    head = text(MARGIN_MM, MARGIN_MM - 8, size, shown, role="title")
    prims: list[Prim] = [Rect(MARGIN_MM, MARGIN_MM, width, height, "edge", "plate"), head]
    items = {"plate": Item("plate", "plate", prims, (MARGIN_MM, MARGIN_MM, MARGIN_MM + width, MARGIN_MM + height))}
    here = (enclosure_id, surface)
    fills, names = duct_fills(project, enclosure_id), run_names(project, enclosure_id)
    for rail in sorted(project.rails.values(), key=lambda r: r.id):
        if (rail.enclosure_id, rail.surface) == here:
            items[rail.id] = _rail_item(rail)
    for duct in sorted(project.ducts.values(), key=lambda d: d.id):
        if (duct.enclosure_id, duct.surface) == here:
            items[duct.id] = _duct_item(project, duct.id, _duct_words(project, fills[duct.id], names[duct.id]))
    for placing in placings_in(project, enclosure_id, surface):
        items[placing.id] = _placing_item(project, placing.id, surface)
    for lane in sorted(project.lanes.values(), key=lambda n: n.id):
        if (lane.enclosure_id, lane.surface) == here:
            items[lane.id] = _lane_item(lane, names[lane.id])
    for crossing in sorted(project.crossings.values(), key=lambda c: c.id):
        ends = (crossing.enclosure_id, crossing.surface), (crossing.other_id, crossing.other_surface)
        if here in ends:
            items[crossing.id] = _crossing_item(crossing, far=here != ends[0])
    found = holes(project, enclosure_id, surface)
    drilled: list[Prim] = [hole_prim(h) for h in found]
    if found:
        sizes = ", ".join(f"{count} × {sizes_in(unit, words)}" for words, count in hole_table(found))
        shown, size = fit(f"{len(found)} {'hole' if len(found) == 1 else 'holes'}: {sizes}", width, SMALL_MM, 5.0)
        drilled.append(text(MARGIN_MM, MARGIN_MM + height + 6 + size, size, shown, role="text"))
    items["holes"] = Item("holes", "frame", drilled, (MARGIN_MM, MARGIN_MM, MARGIN_MM + width, MARGIN_MM + height))
    return Scene(width + 2 * MARGIN_MM, height + 2 * MARGIN_MM, items)


def door_back_scene(project: Project, enclosure_id: str) -> Scene:
    """Return the door as its back is seen when it stands open: left is right, bodies behind it in outline.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    front = surface_scene(project, enclosure_id, "door")
    enclosure = project.enclosures[enclosure_id]
    width, height = surface_size(project, enclosure, "door")
    tag = full_tag(project, project.devices[enclosure.device_id])
    unit = project.settings.length_unit
    words = f"{tag}  door, seen from behind  {shown_in(unit, width)} × {shown_in(unit, height)} {unit}"
    words, size = fit(words, width + MARGIN_MM, SMALL_MM, 5.0)
    plate: list[Prim] = [
        Rect(MARGIN_MM, MARGIN_MM, width, height, "edge", "plate"),
        text(MARGIN_MM, MARGIN_MM - 8, size, words, role="title"),
    ]
    items = {"plate": Item("plate", "plate", plate, (MARGIN_MM, MARGIN_MM, MARGIN_MM + width, MARGIN_MM + height))}

    def turned(box: tuple[float, float, float, float]) -> tuple[float, float, float, float]:
        return front.width - box[2], box[1], front.width - box[0], box[3]

    for item in front.items.values():
        if item.kind not in ("placing", "duct", "rail"):
            continue
        box = turned(item.box)
        x, y, wide, tall = box[0], box[1], box[2] - box[0], box[3] - box[1]
        tones: dict[str, ToneName] = {"placing": "device", "duct": "duct", "rail": "rail"}
        prims: list[Prim] = [Rect(x, y, wide, tall, "dash" if item.kind == "placing" else "fine", tones[item.kind])]
        if item.kind == "placing":
            prims += tag_on_face(layout_tag(project, item.id), x, y, wide, tall)
        items[item.id] = Item(item.id, item.kind, prims, box, item.facts)
    holes_seen: list[Prim] = []
    for hole in holes(project, enclosure_id, "door"):
        holes_seen.append(hole_prim(Hole(width - hole.x, hole.y, hole.width, hole.height, hole.radius)))
    items["holes"] = Item("holes", "frame", holes_seen, items["plate"].box)
    return Scene(front.width, front.height, items)


def hole_prim(hole: Hole) -> Prim:
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
    box = rail_outline(rail).moved(MARGIN_MM, MARGIN_MM)
    x, y, width, height = box.x, box.y, box.width, box.height
    prims: list[Prim] = [Rect(x, y, width, height, "fine", "rail")]
    for share in (0.25, 0.75):
        if rail_is_level(rail):
            prims.append(Line(x, y + height * share, x + width, y + height * share, "fine"))
        else:
            prims.append(Line(x + width * share, y, x + width * share, y + height, "fine"))
    return Item(rail.id, "rail", prims, (x, y, x + width, y + height), {"run": (rail.x1, rail.y1, rail.x2, rail.y2)})


def _duct_words(project: Project, fill: Fill, name: str) -> str:
    """Return what is written on a duct: its name, and how full it is where its part says its size."""
    known = has_room(project.parts[project.ducts[fill.duct_id].part_id])
    return f"{name}  {fill.percent:.1f} %" if known else name


@derived
def _duct_item(project: Project, duct_id: str, words: str) -> Item:
    duct = project.ducts[duct_id]
    box = duct_outline(project, duct_id)
    x, y = box.x + MARGIN_MM, box.y + MARGIN_MM
    prims: list[Prim] = [Rect(x, y, box.width, box.height, "fine", "duct")]
    level = box.width > box.height
    # the slots along both sides, in one line each
    edge = min(box.width, box.height) * 0.16
    if level:
        prims += [Line(x, y + s, x + box.width, y + s, "dash") for s in (edge, box.height - edge)]
    else:
        prims += [Line(x + s, y, x + s, y + box.height, "dash") for s in (edge, box.width - edge)]
    long, across = max(box.width, box.height), min(box.width, box.height)
    shown, size = fit(words, long * 0.3, min(SMALL_MM, across * 0.6), 4.0)
    # not at the middle, where a fixing hole is
    wide = len(shown) * ADVANCE * size
    share = min(BESIDE, CLEAR - wide / 2 / long)
    share_x, share_y = (share, 0.5) if level else (0.5, share)
    if level:
        spot = (x + box.width * share_x, y + box.height * share_y + size / 3)
        prims.append(text(*spot, size, shown, anchor="middle", role="number"))
    else:
        spot = (x + box.width * share_x + size / 3, y + box.height * share_y + wide / 2)
        prims.append(text(*spot, size, shown, role="number", upward=True))
    run = (duct.x1, duct.y1, duct.x2, duct.y2)
    return Item(duct_id, "duct", prims, (x, y, x + box.width, y + box.height), {"run": run})


def _lane_item(lane: Lane, name: str) -> Item:
    points = tuple(v + MARGIN_MM for v in lane.points)
    xs, ys = points[::2], points[1::2]
    size = 9.0
    prims: list[Prim] = [Poly(points, "dash")]
    prims += [Rect(px - 2, py - 2, 4, 4, "thin", "bridge") for px, py in zip(xs, ys, strict=True)]
    prims.append(text((xs[0] + xs[1]) / 2 + 3, (ys[0] + ys[1]) / 2 - 3, size, name, role="number"))
    return Item(lane.id, "lane", prims, (min(xs) - 4, min(ys) - 4, max(xs) + 4, max(ys) + 4))


def _crossing_item(crossing: Crossing, *, far: bool) -> Item:
    x, y = (crossing.other_x, crossing.other_y) if far else (crossing.x, crossing.y)
    x, y = x + MARGIN_MM, y + MARGIN_MM
    diamond = (x - 7, y, x, y - 7, x + 7, y, x, y + 7, x - 7, y)
    prims: list[Prim] = [Circle(x, y, 7.0, "fine", "divider"), Poly(diamond, "thin")]
    return Item(crossing.id, "crossing", prims, (x - 8, y - 8, x + 8, y + 8))


def _strip_prims(project: Project, device_id: str, x: float, y: float, upright: bool, height: float) -> list[Prim]:
    """Return a strip from the front: its blocks with a screw on either side, in the tone of their kind."""
    prims: list[Prim] = []
    for block in blocks_on_rail(project, device_id):
        along, tone = block.start, tone_of(project, block.rows[0])
        radius = min(1.9, block.length * 0.32)
        if upright:
            prims.append(Rect(x, y + along, height, block.length, "thin", tone))
            spots = [(x + height * share, y + along + block.length / 2) for share in (0.12, 0.88)]
        else:
            prims.append(Rect(x + along, y, block.length, height, "thin", tone))
            spots = [(x + along + block.length / 2, y + height * share) for share in (0.12, 0.88)]
        if block.rows[0].kind == "terminal":
            prims += [Circle(sx, sy, radius, "thin", "screw") for sx, sy in spots]
    return prims


# Where tags stand on faces that have room for them elsewhere than at the usual share of their height.
TAG_AT = {"drive": 0.72, "soft-starter": 0.72, "power-supply": 0.5, "plc-card": 0.06, "plc-rack": 0.5, "earth": 0.5}
USUAL_TAG_AT = 0.27


@derived
def _placing_item(project: Project, placing_id: str, surface: str) -> Item:
    placing = project.placings[placing_id]
    device = project.devices[placing.device_id]
    box = outline_of(project, placing_id)
    x, y = box.x + MARGIN_MM, box.y + MARGIN_MM
    part = project.part_of(device)
    own = project.parts.get(device.part_id)
    drawing = own.symbols.get("door" if surface == "door" else "plate", "") if own else ""
    round_one = own is not None and (own.diameter_mm > 0 and not own.width_mm)
    prims: list[Prim] = []
    if is_strip(project, device):
        prims.append(Rect(x, y, box.width, box.height, "fine", "device"))
        prims += _strip_prims(project, device.id, x, y, box.upright, box.width if box.upright else box.height)
    elif own is not None and drawing:
        whole = Circle(x + box.width / 2, y + box.height / 2, box.width / 2, "edge")
        prims.append(whole if round_one else Rect(x, y, box.width, box.height, "edge", "device"))
        prims += outline_prims(drawing, x, y, own.size_mm, turned=box.upright)
    elif part is not None and box.width and box.height:
        size = (box.height, box.width) if box.upright else (box.width, box.height)
        prims += face_prims(part, x, y, size, turned=box.upright)
    else:
        prims.append(Rect(x, y, box.width, box.height, "edge", "device"))
    tag = layout_tag(project, placing_id)
    if part is not None and part.part_class in ROUND:  # below the cap, which is the colour it is known by
        label = tag_below(tag, x, y + box.height, box.width)
    else:
        share = 0.5 if part is None or box.upright or box.height < 40 else TAG_AT.get(part.part_class, USUAL_TAG_AT)
        label = tag_on_face(tag, x, y, box.width, box.height, share)
    prims += label
    for eyelet in eyelets_of(project, placing):
        prims += [
            Circle(px + MARGIN_MM, py + MARGIN_MM, 4.0, "fine", "bridge") for px, py in (eyelet.one, eyelet.other)
        ]
    body = (x, y, x + box.width, y + box.height)  # a circle is met by the pointer inside, too
    product = next(p for p in label if isinstance(p, Text))
    middle = product.y - product.size * 0.35 if not product.upward else y + box.height / 2
    facts: Facts = {"device": device.id, "tag": full_tag(project, device), "text": device.text, "body": body}
    if is_strip(project, device):
        facts["strip"] = True
    facts |= {"shown": (tag.aspects, tag.product), "written": (x + box.width / 2, middle, product.size)}
    return Item(placing_id, "placing", prims, (x, y, x + box.width, y + box.height), facts)
