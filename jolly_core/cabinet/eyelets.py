"""Eyelets: passages for wires through a device, such as a current transformer, and where pins of a part are. All in mm.

A part says them in words, x to the right and y up from the lower left corner of its outline as seen from the front:
`eyelets_mm` "22,75 22,5 40; ..." is an opening, the other opening, and the way between; the fact `pins_at` of a unit
"5,85,60 up; 5,2,60 down" is where each of its pins is, how far in front of the plate, and how a wire leaves it.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache
from math import hypot
from typing import Any

from jolly_core.model import Placing, Project, derived
from jolly_core.tagging import full_tag

from .layout import Outline, outline, placing_of
from .pieces import PointMm

_NUMBER = re.compile(r"[-+]?\d+(?:\.\d+)?")
WAYS_OUT = ("up", "down", "front")


@dataclass(slots=True, frozen=True)
class Eyelet:
    """A passage through a device: its two openings and the way between, mm; y down from the outline's upper edge."""

    one: PointMm
    other: PointMm
    length: float


@dataclass(slots=True, frozen=True)
class PinPlace:
    """Where a pin is, mm from the lower left corner of the outline, y up; `out` is one of WAYS_OUT, "" for unsaid."""

    x: float
    y: float
    z: float
    out: str


@lru_cache(maxsize=512)
def eyelets_in(text: str, height_mm: float) -> tuple[Eyelet, ...]:
    """Return the eyelets that a text names; what is no four or five numbers is left out.

    Args:
        height_mm: of the outline, to turn heights from below into those from above.

    Example:
        >>> eyelets_in("22,75 22,5 90; 3", 80)
        (Eyelet(one=(22.0, 5.0), other=(22.0, 75.0), length=90.0),)
    """
    found = []
    for piece in text.split(";"):
        numbers = [float(n) for n in _NUMBER.findall(piece)]
        if len(numbers) in (4, 5):
            x1, y1, x2, y2 = numbers[:4]
            length = numbers[4] if len(numbers) == 5 else hypot(x2 - x1, y2 - y1)
            found.append(Eyelet((x1, height_mm - y1), (x2, height_mm - y2), length))
    return tuple(found)


@lru_cache(maxsize=2048)
def pins_in(text: str) -> tuple[PinPlace | None, ...]:
    """Return where each pin of a unit is, None for one of which nothing can be read.

    Example:
        >>> pins_in("5,85,60 up; ; 5,2")
        (PinPlace(x=5.0, y=85.0, z=60.0, out='up'), None, PinPlace(x=5.0, y=2.0, z=0.0, out=''))
    """
    found: list[PinPlace | None] = []
    for piece in text.split(";"):
        numbers = [float(n) for n in _NUMBER.findall(piece)]
        out = next((w for w in WAYS_OUT if w in piece.lower()), "")
        known = len(numbers) in (2, 3)
        found.append(PinPlace(numbers[0], numbers[1], numbers[2] if len(numbers) == 3 else 0.0, out) if known else None)
    return tuple(found)


def laid(box: Outline, height_mm: float, point: PointMm) -> PointMm:
    """Return a point of an upright outline (y down from its upper edge) where it is on its surface."""
    if box.upright:  # it is turned clockwise: what was its upper edge is right
        return round(box.x + height_mm - point[1], 3), round(box.y + point[0], 3)
    return round(box.x + point[0], 3), round(box.y + point[1], 3)


def eyelets_of(project: Project, placing: Placing) -> list[Eyelet]:
    """Return the eyelets of a placed device where they are on its surface."""
    part = project.part_of(project.devices[placing.device_id])
    if part is None or not part.ratings.get("eyelets_mm"):
        return []
    box, height = outline(project, placing), part.size_mm[1]
    return [
        Eyelet(laid(box, height, e.one), laid(box, height, e.other), e.length)
        for e in eyelets_in(part.ratings["eyelets_mm"], height)
    ]


@derived
def eyelet_named(project: Project, name: str) -> tuple[str, str, Eyelet] | None:
    """Return the enclosure, the surface and the eyelet of a name "device id/n", None when there is none placed."""
    device_id, _, number = name.partition("/")
    placing = placing_of(project, device_id)
    if placing is None or not number.isdecimal():
        return None
    found = eyelets_of(project, placing)
    at = int(number) - 1
    return (placing.enclosure_id, placing.surface, found[at]) if 0 <= at < len(found) else None


def passage_words(project: Project, name: str) -> str:
    """Return what wires are led through in words: "-TA3", "-TA3, second opening", "duct D4"."""
    device_id, _, number = name.partition("/")
    if device_id in project.devices:
        tag = full_tag(project, project.devices[device_id])
        return tag if number in ("", "1") else f"{tag}, eyelet {number}"
    return lane_name(project, name)


def lane_name(project: Project, id: str) -> str:
    """Return what a duct or lane is called: "duct D4", "lane L1"; "" when it is gone."""
    duct, lane = project.ducts.get(id), project.lanes.get(id)
    enclosure_id = duct.enclosure_id if duct else lane.enclosure_id if lane else ""
    name = run_names(project, enclosure_id).get(id, "") if enclosure_id else ""
    return f"{'duct' if duct else 'lane'} {name}" if name else ""


@derived
def run_names(project: Project, enclosure_id: str) -> dict[str, str]:
    """Return what rails (R1), ducts (D1) and lanes (L1) of an enclosure are called: from top to bottom, then left."""

    def mine(things: Iterable[Any]) -> list[Any]:
        return [t for t in things if t.enclosure_id == enclosure_id]

    found: dict[str, str] = {}
    for letter, places in (
        ("R", [(r.surface, r.y1, r.x1, r.id) for r in mine(project.rails.values())]),
        ("D", [(d.surface, d.y1, d.x1, d.id) for d in mine(project.ducts.values())]),
        ("L", [(n.surface, n.points[1], n.points[0], n.id) for n in mine(project.lanes.values())]),
    ):
        ordered = sorted(places, key=lambda p: (p[0] != "plate", p))
        found |= {p[3]: f"{letter}{n}" for n, p in enumerate(ordered, start=1)}
    return found
