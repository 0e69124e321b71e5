"""How a cable band looks: a dashed stroke with the cable's tag, the cores' names at what it crosses, twisted pairs."""

from __future__ import annotations

from math import cos, pi, sin

from jolly_core.cables import cable_cores, cable_of, conductors_across, crossed_wires, is_shielded, pair_names
from jolly_core.drawing import ADVANCE, GRID_MM
from jolly_core.model import Band, Project
from jolly_core.tagging import tag_on

from ..base.primitives import Circle, Facts, Item, Line, Poly, Prim, text
from .layers import layered

TAG_MM = 3.0
CORE_MM = 2.2
OVER_MM = 2.0
BEYOND_MM = 1.6  # that the shield's oval reaches beyond the ends of its band
OVAL_MM = 1.5
OVAL_STEPS = 24
TWIST_OFF_MM = 3.2  # from the band to the marks of its twisted pairs


def band_item(project: Project, band: Band) -> Item:
    """Return the item of a band."""
    device = project.devices[band.device_id]
    part = project.part_of(device)
    x1, y1, x2, y2 = (v * GRID_MM for v in (band.x1, band.y1, band.x2, band.y2))
    level = y1 == y2
    left, right, top, bottom = min(x1, x2), max(x1, x2), min(y1, y2), max(y1, y2)
    tag = tag_on(project, device, project.sheets[band.sheet_id])
    words = part.number if part else "no cable part yet"
    prims: list[Prim] = [Line(x1, y1, x2, y2, "dash")]
    for x, y in ((x1, y1), (x2, y2)):
        prims.append(Circle(x, y, 0.8, "ink"))
    if part is not None and is_shielded(part):
        prims += _shield(project, band, level)
    if level:
        tx, ty = right + OVER_MM, y1 - 0.6
    else:
        tx, ty = x1 + OVER_MM, top - TAG_MM - 1.2
    prims.append(text(tx, ty, TAG_MM, tag, role="tag"))
    prims.append(text(tx, ty + TAG_MM, CORE_MM, words, role="label"))
    rows = {r.conductor.key: r for r in cable_cores(project, band.device_id) if r.conductor is not None}
    names = {key: r.name for key, r in rows.items()}
    crossed = crossed_wires(project, band.sheet_id, (band.x1, band.y1), (band.x2, band.y2))
    prims += _twists(project, band, crossed, {key: r.ordinal for key, r in rows.items()})
    for wire_id in crossed:
        wire = project.wires[wire_id]
        shown = [names[c.key] for c in conductors_across(project, band.sheet_id, wire_id) if names.get(c.key)]
        if shown:
            # On the side of the wire where its number never stands: left of an upright one, below a level one.
            core = "/".join(dict.fromkeys(shown))
            if level:
                prims.append(text(wire.x1 * GRID_MM - 0.8, y1 - 0.7, CORE_MM, core, anchor="end", role="label"))
            else:
                prims.append(text(x1 + 0.8, wire.y1 * GRID_MM + CORE_MM + 0.5, CORE_MM, core, role="label"))
    width = max(len(tag) * TAG_MM, len(words) * CORE_MM) * ADVANCE
    beyond = TWIST_OFF_MM + 1.5 if pair_names(part) else 1.5
    box = (left - 1, min(top, ty - TAG_MM) - 1, max(right, tx + width) + 1, bottom + beyond)
    facts: Facts = {"device": device.id, "tag": tag, "body": (left, top, right, bottom)}
    facts |= layered(band.layer_id, band.together)
    return Item(band.id, "band", prims, box, facts)


def _twists(project: Project, band: Band, crossed: list[str], ordinals: dict[str, int]) -> list[Prim]:
    """Return the marks of twisted pairs: a slanted stroke through both wires of one, with its ends turned back.

    Wires of a pair with others between them have a mark of their own each, with the pair's name.
    """
    pairs = pair_names(project.part_of(project.devices[band.device_id]))
    level = band.y1 == band.y2
    there: dict[str, list[tuple[int, float]]] = {}
    for n, wire_id in enumerate(crossed if pairs else ()):
        wire = project.wires[wire_id]
        at = (wire.x1 if level else wire.y1) * GRID_MM
        found = (pairs.get(ordinals.get(c.key, 0), "") for c in conductors_across(project, band.sheet_id, wire_id))
        for name in dict.fromkeys(found):
            if name:
                there.setdefault(name, []).append((n, at))
    beside = (band.y1 if level else band.x1) * GRID_MM + TWIST_OFF_MM
    prims: list[Prim] = []
    for name, places in there.items():
        if len(places) == 2 and abs(places[0][0] - places[1][0]) == 1:
            low, high = sorted(at for _, at in places)
            prims.append(_twist(low, high, beside, level))
        elif len(places) == 2:
            for _, at in places:
                prims.append(_twist(at, at, beside, level))
                x, y = (at + 1.6, beside + 0.8) if level else (beside - 1.6, at - 1.6)
                prims.append(text(x, y, CORE_MM, f"pair {name}", role="label"))
    return prims


def _twist(low: float, high: float, beside: float, level: bool) -> Poly:
    """Return a slanted stroke from beyond one wire to beyond the other, beside the band, its ends turned back."""
    along = (low - 1.3, low - 0.9, high + 0.9, high + 1.3)
    across = (beside + 0.2, beside + 0.9, beside - 0.9, beside - 0.2)
    points = zip(along, across, strict=True) if level else zip(across, along, strict=True)
    return Poly(tuple(round(v, 2) for point in points for v in point), "ink")


def _shield(project: Project, band: Band, level: bool) -> list[Prim]:
    """Return the shield of a cable around a band: a dashed oval, and an earth sign at each end where it is landed.

    The source is the end of the band where it began.
    """
    cable = project.cables[cable_of(project, band.device_id)]
    x1, y1, x2, y2 = (v * GRID_MM for v in (band.x1, band.y1, band.x2, band.y2))
    cx, cy = (x1 + x2) / 2, (y1 + y2) / 2
    along, across = abs(x2 - x1 + y2 - y1) / 2 + BEYOND_MM, OVAL_MM
    a, b = (along, across) if level else (across, along)
    turns = [2 * pi * n / OVAL_STEPS for n in range(OVAL_STEPS + 1)]
    oval = Poly(tuple(round(v, 2) for t in turns for v in (cx + a * cos(t), cy + b * sin(t))), "dash")
    prims: list[Prim] = [oval]
    for side, x, y, other in (("source", x1, y1, (x2, y2)), ("destination", x2, y2, (x1, y1))):
        if cable.shield_landed in (side, "both"):
            way = 1 if (x, y) > other else -1
            for n, half in enumerate((1.5, 1.0, 0.5)):
                off = way * (BEYOND_MM + 1.6 + 0.7 * n)
                ends = (x + off, y - half, x + off, y + half) if level else (x - half, y + off, x + half, y + off)
                prims.append(Line(*ends, "ink"))
            near, far = way * BEYOND_MM, way * (BEYOND_MM + 1.6)
            prims.append(Line(x + near, y, x + far, y, "ink") if level else Line(x, y + near, x, y + far, "ink"))
    return prims
