"""Laying a plate out for somebody: a proposal that is previewed with its figures, and taken or left as one edit."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from typing import Literal

from jolly_core.cabinet import (
    Thing,
    duct_fills,
    enclosure_warmth,
    joined_by,
    layout_faults,
    placings_in,
    propose,
    routes,
    size_of,
    surface_for,
    surface_size,
    tray,
)
from jolly_core.cables import number_of
from jolly_core.library import base_of
from jolly_core.model import Device, Duct, Enclosure, Placing, Project, Rail, RuleError, long_words
from jolly_core.tagging import device_at, full_tag, short_tag
from jolly_core.terminals import is_strip
from jolly_core.wiring import panel_of

from ..base.edit import Id, Payload, Work, edit
from ..devices.parts import take_part
from .runs import forget_passed, snapped

DOOR_PITCH_MM = 60.0
DOOR_EDGE_MM = 60.0


class LayOut(Payload):
    """Lay out an enclosure: rails, ducts and devices in rows, so that the wires are short; what is there is laid anew.

    Attributes:
        rail_part_id, duct_part_id: what they are cut from; "" for what the enclosure or the project has most of.
    """

    kind: Literal["lay-out"] = "lay-out"
    enclosure_id: Id
    rail_part_id: Id = ""
    duct_part_id: Id = ""


@edit(LayOut, {"enclosure_id": "e1"})
def lay_out(work: Work, payload: LayOut) -> str:
    """Work out LayOut."""
    project = work.project
    enclosure: Enclosure = project.get("enclosure", payload.enclosure_id)
    size = surface_size(project, enclosure, "plate")
    before = figures(project, enclosure)
    rail = _run_part(work, enclosure, "rail", payload.rail_part_id)
    duct = _run_part(work, enclosure, "duct", payload.duct_part_id)
    devices = _devices(project, enclosure)
    if not devices:
        raise RuleError("There is nothing to lay out yet. Draw devices of this panel first.", field="enclosure_id")
    things = [_thing(project, device, n) for n, device in enumerate(devices)]
    ids = {t.id for t in things}
    pairs = [(a, b) for a, b in _ends(project) if a in ids and b in ids]
    found = propose(things, joined_by(pairs), size, project.parts[duct].width_mm)
    _clear(work, enclosure)
    rails = []
    for ends in found.rails:
        x1, y1, x2, y2 = (snapped(v, 0.5) for v in ends)
        made = Rail(work.ids.new(), enclosure.id, x1, y1, x2, y2, rail)
        work.put("rail", made)
        rails.append(made)
    for ends in found.ducts:
        x1, y1, x2, y2 = (snapped(v, 0.5) for v in ends)
        work.put("duct", Duct(work.ids.new(), enclosure.id, x1, y1, x2, y2, duct))
    for id, (x, y, n) in found.places.items():
        at = (round(x, 2), rails[n].y1 if n >= 0 else snapped(y, 1))
        placing = Placing(work.ids.new(), enclosure.id, id, "plate", *at, rails[n].id if n >= 0 else "")
        work.put("placing", placing)
        work.outcome.placed.append(placing.id)
    _door(work, enclosure)
    work.outcome.table = [[*row] for row in _compared(project, before, figures(project, enclosure))]
    bare = [
        full_tag(project, d) for d in tray(project) if not size_of(project, d)[0] and belongs_in(project, enclosure, d)
    ]
    if bare:
        shown = ", ".join(bare[:6]) + (" ..." if len(bare) > 6 else "")
        work.outcome.remarks.append(f"{len(bare)} have no outline and stay in the tray: {shown}. Choose their parts.")
    left = [full_tag(project, project.devices[id]) for id in found.left]
    if left:
        shown = ", ".join(left[:6]) + (" ..." if len(left) > 6 else "")
        work.outcome.remarks.append(f"{len(left)} found no room and stay in the tray: {shown}. A larger one is needed.")
    return f"lay out {short_tag(project, project.devices[enclosure.device_id])}"


@dataclass(slots=True, frozen=True)
class Figures:
    """What tells layouts apart: metres of wire, wires routed, the fullest duct, warmth, faults, devices placed."""

    wires_m: float
    routed: int
    fullest: float
    rise_k: float
    faults: int
    placed: int


def figures(project: Project, enclosure: Enclosure) -> Figures:
    """Return what tells the layout of an enclosure apart from others."""
    mine = [r for r in routes(project).values() if r.enclosure_id == enclosure.id and r.length_mm is not None]
    fills = duct_fills(project, enclosure.id).values()
    return Figures(
        sum(r.length_mm or 0.0 for r in mine) / 1000,
        len(mine),
        max((f.percent for f in fills), default=0.0),
        enclosure_warmth(project, enclosure).warming.rise_k,
        len(layout_faults(project, enclosure)),
        len(placings_in(project, enclosure.id)),
    )


def _compared(project: Project, before: Figures, after: Figures) -> list[tuple[str, str, str]]:
    return [
        ("Wires", long_words(project, round(before.wires_m, 1)), long_words(project, round(after.wires_m, 1))),
        ("Routed", str(before.routed), str(after.routed)),
        ("Devices", str(before.placed), str(after.placed)),
        ("Fullest duct", f"{before.fullest:.0f} %", f"{after.fullest:.0f} %"),
        ("Warmth", f"+{before.rise_k:.1f} K", f"+{after.rise_k:.1f} K"),
        ("Faults", str(before.faults), str(after.faults)),
    ]


def _run_part(work: Work, enclosure: Enclosure, what: str, wanted: str) -> str:
    """Return the part that rails or ducts are cut from.

    Raises:
        RuleError: none is given, and there is none in the project.
    """
    project = work.project
    if wanted:
        take_part(work, wanted, what)
        return wanted
    runs = [*project.rails.values()] if what == "rail" else [*project.ducts.values()]
    here = Counter(r.part_id for r in runs if r.enclosure_id == enclosure.id) or Counter(r.part_id for r in runs)
    if not here:
        raise RuleError(f"Choose a part for the {what}s first.", field=f"{what}_part_id")
    return min(here, key=lambda id: (-here[id], id))


def _devices(project: Project, enclosure: Enclosure) -> list[Device]:
    """Return what is to stand on the plate: what does already, and what waits for it, in the order it is drawn."""
    there = [project.devices[p.device_id] for p in placings_in(project, enclosure.id, "plate")]
    waiting = [
        d
        for d in tray(project)
        if surface_for(project, d) == "plate" and belongs_in(project, enclosure, d) and size_of(project, d)[0]
    ]
    return sorted([*there, *waiting], key=lambda d: (drawn_order(project, d), d.id))


def belongs_in(project: Project, enclosure: Enclosure, device: Device) -> bool:
    """Return whether a device belongs to the panel of an enclosure, or to none."""
    panel = panel_of(project, project.devices[enclosure.device_id])
    return not panel or panel_of(project, device) in (panel, "")


def drawn_order(project: Project, device: Device) -> tuple[int, int, int]:
    """Return where a device is drawn first, to sort by: its sheet, then down and right; what is not drawn is last."""
    ids = project.symbols_of_device.get(device.id)
    if not ids:
        return 10**9, 0, 0
    symbol = project.symbols[ids[0]]
    return project.sheets[symbol.sheet_id].order, symbol.y, symbol.x


def _thing(project: Project, device: Device, order: int) -> Thing:
    width, height, _ = size_of(project, device)
    part = project.part_of(device)
    strip = is_strip(project, device)
    kind = "terminal" if strip else base_of(part.part_class) if part else ""
    clips = strip if part is None else part.mounting == "rail"
    above, below, beside = (number_of(part, f"clear_{side}_mm") for side in ("above", "below", "beside"))
    return Thing(device.id, kind, width, height, clips, above, below, beside, order)


def _ends(project: Project) -> list[tuple[str, str]]:
    """Return the devices that each wire of a panel joins."""
    found = []
    for route in routes(project).values():
        one, other = (device_at(project, pin) for pin in (route.conductor.start, route.conductor.end))
        if one is not None and other is not None:
            found.append((one.id, other.id))
    return found


def _clear(work: Work, enclosure: Enclosure) -> None:
    """Take what is laid out on the plate away."""
    project = work.project
    for placing in placings_in(project, enclosure.id, "plate"):
        work.remove("placing", placing.id)
    for kind, table in (("rail", project.rails), ("duct", project.ducts), ("lane", project.lanes)):
        here = [r.id for r in table.values() if (r.enclosure_id, r.surface) == (enclosure.id, "plate")]
        for id in here:
            work.remove(kind, id)
            forget_passed(work, id)


_DOOR_ROWS = (("lamp", "horn"), ("push-button", "selector"), ("emergency-stop",), ())


def _door(work: Work, enclosure: Enclosure) -> None:
    """Put what waits for the door into rows: lamps above, buttons below them, then the rest; what is there stays."""
    project = work.project
    waiting = [
        d
        for d in tray(project)
        if surface_for(project, d) == "door" and belongs_in(project, enclosure, d) and size_of(project, d)[0]
    ]
    width, _ = surface_size(project, enclosure, "door")
    taken = [project.placings[p.id] for p in placings_in(project, enclosure.id, "door")]
    y = max((p.y + size_of(project, project.devices[p.device_id])[1] for p in taken), default=DOOR_EDGE_MM) + 30.0
    y = DOOR_EDGE_MM if not taken else y
    for kinds in _DOOR_ROWS:
        row = [d for d in waiting if _is_of(project, d, kinds)]
        waiting = [d for d in waiting if d not in row]
        x, tall = DOOR_EDGE_MM, 0.0
        for device in sorted(row, key=lambda d: (drawn_order(project, d), d.id)):
            wide, high, _ = size_of(project, device)
            if x + wide > width - DOOR_EDGE_MM and x > DOOR_EDGE_MM:
                x, y, tall = DOOR_EDGE_MM, y + tall + 30.0, 0.0
            placing = Placing(work.ids.new(), enclosure.id, device.id, "door", snapped(x), snapped(y))
            work.put("placing", placing)
            work.outcome.placed.append(placing.id)
            x += max(wide + 20.0, DOOR_PITCH_MM)
            tall = max(tall, high)
        y += tall + 30.0 if row else 0.0


def _is_of(project: Project, device: Device, kinds: tuple[str, ...]) -> bool:
    part = project.part_of(device)
    return not kinds or (part is not None and base_of(part.part_class) in kinds)
