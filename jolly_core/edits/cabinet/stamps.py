"""Pieces of a layout kept as stamps: a rail with all on it, a group of the door, put down in another enclosure.

The body of such a stamp is told in docs/formats/stamp.md. All in mm from the upper left corner of the piece, x to the
right and y down.
"""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from typing import Any, Literal, TypeVar

from pydantic import Field

from jolly_core.cabinet import (
    Outline,
    outline,
    size_of,
    surface_for,
    surface_size,
    tray,
)
from jolly_core.model import (
    Device,
    Duct,
    Enclosure,
    FileError,
    Lane,
    Part,
    Placing,
    Project,
    Rail,
    RuleError,
    Stamp,
    SurfaceName,
    from_record,
    sides_words,
    to_record,
)
from jolly_core.tagging import product_tag
from jolly_core.terminals import is_strip

from ..base.edit import Id, Mm, Payload, Text, Work, edit
from ..base.upkeep import new_device
from ..devices.parts import give_part, take_part
from ..pieces.stampbody import is_layout
from ..pieces.stamps import free_name, stamp_named
from .layingout import belongs_in, drawn_order
from .runs import at_edge

_RailOrDuct = TypeVar("_RailOrDuct", Rail, Duct)


@dataclass(slots=True, frozen=True)
class Kept:
    """A place of a kept layout: where a device of a part stood, on which of the rails, -1 for none."""

    part_id: str
    tag: str
    text: str
    x: float
    y: float
    rail: int = -1


@dataclass(slots=True, frozen=True)
class KeptLayout:
    """A piece of a layout; rails, ducts and lanes have ids of their own there, and no enclosure."""

    surface: str
    width: float
    height: float
    places: tuple[Kept, ...]
    rails: tuple[Rail, ...]
    ducts: tuple[Duct, ...]
    lanes: tuple[Lane, ...]
    parts: tuple[Part, ...]


def layout_to_text(kept: KeptLayout) -> str:
    """Return the JSON of a kept layout."""
    raw: dict[str, Any] = {"surface": kept.surface, "width": kept.width, "height": kept.height}
    raw["places"] = [[p.part_id, p.tag, p.text, p.x, p.y, p.rail] for p in kept.places]
    for name in ("rails", "ducts", "lanes", "parts"):
        raw[name] = [to_record(entity) for entity in getattr(kept, name)]
    return json.dumps({"layout": raw}, ensure_ascii=False, separators=(",", ":"))


def layout_from_text(text: str) -> KeptLayout:
    """Return the layout a JSON says, checked throughout.

    Raises:
        FileError: something in it is wrong.
    """
    try:
        raw = json.loads(text)["layout"]
        places = tuple(Kept(str(a), str(b), str(c), float(x), float(y), int(n)) for a, b, c, x, y, n in raw["places"])
        rails, ducts, lanes, parts = (
            tuple(from_record(kind, r) for r in raw[kind + "s"]) for kind in ("rail", "duct", "lane", "part")
        )
        found = KeptLayout(
            raw["surface"], float(raw["width"]), float(raw["height"]), places, rails, ducts, lanes, parts
        )
    except (ValueError, KeyError, TypeError):
        raise FileError("This stamp holds no layout that can be read.", field="stamp_id") from None
    if any(not -1 <= p.rail < len(found.rails) for p in found.places):
        raise FileError("This stamp names a rail that is not in it.", field="stamp_id")
    return found


class KeepLayout(Payload):
    """Keep what is chosen of a layout as a stamp: devices, rails with all on them, ducts, lanes, of one surface."""

    kind: Literal["keep-layout"] = "keep-layout"
    ids: list[Id] = Field(min_length=1, max_length=1000)
    name: Text = Field(min_length=1)
    text: Text = ""


@edit(KeepLayout, {"ids": ["r1"], "name": "Relay row"})
def keep_layout(work: Work, payload: KeepLayout) -> str:
    """Work out KeepLayout."""
    project = work.project
    free_name(project, payload.name)
    kept = _piece(project, list(dict.fromkeys(payload.ids)))
    stamp = Stamp(work.ids.new(), payload.name, layout_to_text(kept), payload.text)
    work.put("stamp", stamp)
    work.outcome.placed = [stamp.id]
    return f"keep stamp {stamp.name}"


def _piece(project: Project, ids: list[str]) -> KeptLayout:
    """Return what is chosen of a layout, moved to the upper left corner.

    Raises:
        RuleError: nothing of a layout is chosen, or it lies on two surfaces.
        GoneError: it is no longer there.
    """
    tables: dict[str, dict[str, Any]] = {k: project.tables[k] for k in ("placing", "rail", "duct", "lane")}
    chosen: dict[str, list[Any]] = {k: [t[id] for id in ids if id in t] for k, t in tables.items()}
    for id in ids:
        if not any(id in t for t in tables.values()):
            raise RuleError("Only devices, rails, ducts and lanes are kept. Choose those.", field="ids", ids=(id,))
    rails = {rail.id for rail in chosen["rail"]}
    on_them = [p for p in project.placings.values() if p.rail_id in rails and p.id not in ids]
    placings: list[Placing] = sorted([*chosen["placing"], *on_them], key=lambda p: p.id)
    sides = {(t.enclosure_id, t.surface) for t in [*placings, *chosen["rail"], *chosen["duct"], *chosen["lane"]]}
    if len(sides) != 1:
        raise RuleError("What is kept must stand on one surface of one enclosure.", field="ids")
    boxes: list[Outline] = [outline(project, p) for p in placings]
    corners = [(b.x, b.y) for b in boxes] + [(b.x + b.width, b.y + b.height) for b in boxes]
    for run in [*chosen["rail"], *chosen["duct"]]:
        corners += [(run.x1, run.y1), (run.x2, run.y2)]
    for lane in chosen["lane"]:
        corners += list(zip(lane.points[::2], lane.points[1::2], strict=True))
    left, top = min(x for x, _ in corners), min(y for _, y in corners)
    order = [rail.id for rail in chosen["rail"]]
    places = []
    for p in placings:
        device = project.devices[p.device_id]
        rail = order.index(p.rail_id) if p.rail_id in rails else -1
        tag = product_tag(project, device)
        places.append(Kept(device.part_id, tag, device.text, round(p.x - left, 2), round(p.y - top, 2), rail))
    used = {p.part_id for p in places} | {r.part_id for r in [*chosen["rail"], *chosen["duct"]]}
    surface = next(iter(sides))[1]
    return KeptLayout(
        surface,
        max(x for x, _ in corners) - left,
        max(y for _, y in corners) - top,
        tuple(places),
        tuple(_moved_run(r, -left, -top) for r in chosen["rail"]),
        tuple(_moved_run(d, -left, -top) for d in chosen["duct"]),
        tuple(_moved_lane(n, -left, -top) for n in chosen["lane"]),
        tuple(project.parts[id] for id in sorted(used) if id),
    )


def _moved_run(run: _RailOrDuct, dx: float, dy: float) -> _RailOrDuct:
    return replace(run, x1=run.x1 + dx, y1=run.y1 + dy, x2=run.x2 + dx, y2=run.y2 + dy)


def _moved_lane(lane: Lane, dx: float, dy: float) -> Lane:
    return replace(lane, points=tuple(v + (dy if n % 2 else dx) for n, v in enumerate(lane.points)))


class PutLayout(Payload):
    """Put a kept layout down: its rails, ducts and lanes, and on its places what waits in the tray.

    A place takes a device of the same part and tag, else the next of the same part in the order they are drawn.

    Attributes:
        x, y: where its upper left corner goes; it is moved in where it would stick out.
        plan: places for which nothing waits get a new device that is drawn later; else they stay empty.
    """

    kind: Literal["put-layout"] = "put-layout"
    enclosure_id: Id
    surface: SurfaceName = "plate"
    stamp_id: Id
    x: Mm
    y: Mm
    plan: bool = True


@edit(PutLayout, {"enclosure_id": "e1", "stamp_id": "p1", "x": 40, "y": 100})
def put_layout(work: Work, payload: PutLayout) -> str:
    """Work out PutLayout."""
    project = work.project
    enclosure: Enclosure = project.get("enclosure", payload.enclosure_id)
    name, text = stamp_named(work, payload.stamp_id)
    if not is_layout(text):
        raise RuleError(f"{name} is a piece of circuit. Put it down on a sheet.", field="stamp_id")
    kept = layout_from_text(text)
    if (kept.surface == "door") != (payload.surface == "door"):
        other = "the door" if kept.surface == "door" else "a mounting surface"
        raise RuleError(f"{name} was kept from {other}. Put it down there.", field="surface")
    at = _corner(project, enclosure, payload, kept, name)
    for part in kept.parts:
        if project.part_named(part.id) is None:
            work.put("part", part)
    rails = _put_runs(work, enclosure, payload.surface, kept, at)
    devices = _taken(work, enclosure, payload, kept)
    for place, device in zip(kept.places, devices, strict=True):
        if device is None:
            continue
        rail = rails[place.rail] if place.rail >= 0 else ""
        made = Placing(work.ids.new(), enclosure.id, device.id, payload.surface, place.x + at[0], place.y + at[1], rail)
        work.put("placing", made)
        work.outcome.placed.append(made.id)
    empty = sum(d is None for d in devices)
    if empty:
        work.outcome.remarks.append(f"{empty} of {len(devices)} places stay empty: nothing waits for them.")
    return f"put down {name}"


def _corner(
    project: Project, enclosure: Enclosure, payload: PutLayout, kept: KeptLayout, name: str
) -> tuple[float, float]:
    """Return where the upper left corner goes, moved in.

    Raises:
        RuleError: the surface is too small for it.
    """
    width, height = surface_size(project, enclosure, payload.surface)
    if kept.width > width + 1e-6 or kept.height > height + 1e-6:
        its, there = sides_words(project, kept.width, kept.height), sides_words(project, width, height)
        raise RuleError(f"{name} is {its}, the surface {there}. It does not fit.", field="stamp_id")
    room = width - kept.width, height - kept.height
    x, y = (min(max(at_edge(v, most), 0.0), most) for v, most in zip((payload.x, payload.y), room, strict=True))
    return x, y


def _put_runs(work: Work, enclosure: Enclosure, surface: str, kept: KeptLayout, at: tuple[float, float]) -> list[str]:
    """Put rails, ducts and lanes down, and return the ids of the rails."""
    rails = []
    for rail in kept.rails:
        made = replace(_moved_run(rail, *at), id=work.ids.new(), enclosure_id=enclosure.id, surface=surface)
        work.put("rail", made)
        rails.append(made.id)
    for duct in kept.ducts:
        drawn = replace(_moved_run(duct, *at), id=work.ids.new(), enclosure_id=enclosure.id, surface=surface)
        work.put("duct", drawn)
        work.outcome.placed.append(drawn.id)
    for lane in kept.lanes:
        laid = replace(_moved_lane(lane, *at), id=work.ids.new(), enclosure_id=enclosure.id, surface=surface)
        work.put("lane", laid)
        work.outcome.placed.append(laid.id)
    work.outcome.placed += rails
    return rails


def _taken(work: Work, enclosure: Enclosure, payload: PutLayout, kept: KeptLayout) -> list[Device | None]:
    """Return the device for each place: one that waits with its part and tag, with its part, or a planned one."""
    project = work.project
    waiting = sorted(
        (d for d in tray(project) if belongs_in(project, enclosure, d) and size_of(project, d)[0]),
        key=lambda d: (drawn_order(project, d), d.id),
    )
    host = project.devices[enclosure.device_id]
    waiting.sort(key=lambda d: d.location_id != host.location_id)
    found: list[Device | None] = [None] * len(kept.places)
    for same_tag in (True, False):
        for n, place in enumerate(kept.places):
            fits = (d for d in waiting if _fits(project, d, place, payload.surface, same_tag=same_tag))
            device = next(fits, None) if found[n] is None else None
            if device is not None:
                waiting.remove(device)
                found[n] = device
    for n, place in enumerate(kept.places):
        if found[n] is None and payload.plan and place.part_id:
            part = take_part(work, place.part_id)
            made = new_device(work, part.part_class, (host.function_id, host.location_id), place.text)
            give_part(work, made, place.part_id)
            found[n] = project.devices[made.id]
    return found


def _fits(project: Project, device: Device, place: Kept, surface: str, *, same_tag: bool) -> bool:
    """Return whether a device that waits may go to a kept place; a strip, of no part, goes by its tag or letters."""
    if (surface_for(project, device) == "door") != (surface == "door"):
        return False
    tag = product_tag(project, device)
    if same_tag:
        return tag == place.tag and (device.part_id == place.part_id or is_strip(project, device))
    if not place.part_id:
        return is_strip(project, device) and tag.rstrip("0123456789") == place.tag.rstrip("0123456789")
    return device.part_id == place.part_id
