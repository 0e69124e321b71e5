"""What the Cabinet bench says of lanes: their names and use, eyelets, gaps; and where what waits is drawn."""

from __future__ import annotations

from typing import Literal

from typing_extensions import TypedDict

from jolly_core.cabinet import (
    LegKind,
    eyelet_gap,
    eyelets_of,
    gap_words,
    gaps_in,
    network_of,
    passage_words,
    placings_in,
    run_names,
)
from jolly_core.library import definition
from jolly_core.model import Crossing, Device, Duct, Enclosure, Lane, Project, RuleError
from jolly_core.tagging import natural

Size = tuple[float, float]
LaneKind = Literal["duct", "lane", "crossing"]


class LegValue(TypedDict):
    """A stretch of a way on a surface of an enclosure: its kind and corners."""

    kind: LegKind
    enclosure_id: str
    surface: str
    points: list[Size]


class LaneValue(TypedDict):
    """A duct or lane, or a crossing: its name, the categories it is for, the extra wire of a crossing."""

    id: str
    name: str
    kind: LaneKind
    surface: str
    categories: list[str]
    extra_mm: float
    part: str


class EyeletValue(TypedDict):
    """An eyelet of a placed device: what wires are led through it by, its openings on its surface."""

    name: str
    words: str
    placing_id: str
    surface: str
    points: tuple[Size, Size]
    gap: str


class GapValue(TypedDict):
    """Where lanes do not hang together."""

    surface: str
    words: str
    points: tuple[Size, Size]


def lane_values(project: Project, enclosure: Enclosure) -> list[LaneValue]:
    """Return the ducts, lanes and crossings of an enclosure, ducts first."""
    names = run_names(project, enclosure.id)

    def value(
        kind: LaneKind, one: Duct | Lane | Crossing, name: str, *, extra_mm: float = 0.0, part: str = ""
    ) -> LaneValue:
        return {
            "id": one.id,
            "name": name,
            "kind": kind,
            "surface": one.surface,
            "categories": list(one.categories),
            "extra_mm": extra_mm,
            "part": part,
        }

    ducts = [d for d in project.ducts.values() if d.enclosure_id == enclosure.id]
    lanes = [n for n in project.lanes.values() if n.enclosure_id == enclosure.id]
    crossings = [c for c in project.crossings.values() if c.enclosure_id == enclosure.id]
    found = [
        *(value("duct", d, names[d.id], part=project.parts[d.part_id].number) for d in ducts),
        *(value("lane", n, names[n.id]) for n in lanes),
        *(value("crossing", c, f"to the {c.other_surface}", extra_mm=c.extra_mm) for c in crossings),
    ]
    return sorted(found, key=lambda v: (v["kind"] != "duct", v["surface"], natural(v["name"]), v["id"]))


def eyelet_values(project: Project, enclosure: Enclosure) -> list[EyeletValue]:
    """Return the eyelets of what is placed in an enclosure, each with what keeps it from the lanes."""
    found: list[EyeletValue] = []
    for placing in placings_in(project, enclosure.id):
        for n, eyelet in enumerate(eyelets_of(project, placing), start=1):
            name = f"{placing.device_id}/{n}"
            try:
                gap = eyelet_gap(project, network_of(project, enclosure.id), name)
            except RuleError as error:
                gap = error.message
            found.append(
                {
                    "name": name,
                    "words": passage_words(project, name),
                    "placing_id": placing.id,
                    "surface": placing.surface,
                    "points": (eyelet.one, eyelet.other),
                    "gap": gap,
                }
            )
    return found


def gap_values(project: Project, enclosure: Enclosure) -> list[GapValue]:
    """Return where the lanes of an enclosure do not hang together."""
    try:
        gaps = gaps_in(project, enclosure.id)
    except RuleError:
        return []
    return [
        {"surface": g.surface, "words": gap_words(project, g), "points": g.points}
        for g in gaps
        if g.enclosure_id == enclosure.id
    ]


def drawn_at(project: Project, device_id: str) -> tuple[int, str]:
    """Return where a device is drawn first, as a number that goes on along the sheets, and the sheet's number.

    A device that is planned stands behind all that are drawn.
    """
    ids = project.symbols_of_device.get(device_id)
    symbol = project.symbols[ids[0]] if ids else None
    if symbol is None:
        return 10**9, ""
    sheet = project.sheets[symbol.sheet_id]
    return sheet.order * 1_000_000 + max(0, symbol.y) * 1000 + max(0, symbol.x), sheet.number


def class_of(project: Project, device_id: str) -> str:
    """Return the part class that a device's first symbol asks for, "" for none."""
    ids = project.symbols_of_device.get(device_id)
    return definition(project.symbols[ids[0]].definition).part_class if ids else ""


def function_words(project: Project, device: Device) -> str:
    """Return what a device belongs to in words, "" for nothing."""
    function = project.functions.get(device.function_id)
    return (function.text or function.code) if function else ""
