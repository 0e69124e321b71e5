"""The wires of a panel: a line for each, and the ways of those that somebody looks at."""

from __future__ import annotations

from collections.abc import Sequence

from typing_extensions import TypedDict

from jolly_core.cabinet import Route, passage_words, routes_from
from jolly_core.model import Project, derived, length_in, listed, shown_in
from jolly_core.model.measures import metres_in
from jolly_core.tagging import pin_name

from .cabinetlanes import LegValue
from .shapes import FromTo


class RouteValue(FromTo):
    """A wire of the panel: its length in mm, None and what is missing while it has none, and what it is led through.

    Its length is there in words, too, in the project's unit.
    """

    key: str
    number: str
    type: str
    colour: str
    length_mm: float | None
    length: str
    missing: str
    category: str
    through: list[tuple[str, str]]
    wire_id: str
    sheet_id: str


class WireWay(TypedDict):
    """The way of a wire: corners on each surface in mm, lanes it runs in, its length piece by piece in mm and words."""

    key: str
    colour: str
    pieces: list[tuple[str, float, str]]
    legs: list[LegValue]
    lanes: list[str]


@derived
def _routes_from(project: Project, sheet_id: str) -> list[tuple[str, RouteValue]]:
    """Return the routes of nets that begin on a sheet as values, each with its enclosure."""
    return [(r.enclosure_id, _route(project, key, r)) for key, r in routes_from(project, sheet_id).items()]


all_routes = listed(_routes_from)


def routed_words(project: Project, routes: Sequence[RouteValue]) -> str:
    """Return how many wires of a panel are routed, and what they take together in the project's unit."""
    lengths = [r["length_mm"] for r in routes if r["length_mm"] is not None]
    total = metres_in(project.settings.length_unit, sum(lengths) / 1000)
    return f"{len(lengths)} of {len(routes)} panel wires routed, {total}"


def _route(project: Project, key: str, route: Route) -> RouteValue:
    c = route.conductor
    wire_type = c.wire_type(project)
    return {
        "key": key,
        "number": c.number,
        "from": pin_name(project, c.start),
        "to": pin_name(project, c.end),
        "type": wire_type.name if wire_type else "",
        "colour": wire_type.colour if wire_type else "BK",
        "length_mm": route.length_mm,
        "length": "" if route.length_mm is None else length_in(project.settings.length_unit, route.length_mm),
        "missing": route.missing,
        "category": wire_type.category if wire_type else "",
        "through": [(name, passage_words(project, name)) for name in route.through],
        "wire_id": c.wire_id,
        "sheet_id": c.sheet_id,
    }


@derived
def _ways_from(project: Project, sheet_id: str) -> list[tuple[str, frozenset[str], WireWay]]:
    """Return the ways of nets that begin on a sheet: each with its enclosure, and with what it is shown for."""
    return [
        (r.enclosure_id, _things(project, key, r), _way(project, key, r))
        for key, r in routes_from(project, sheet_id).items()
    ]


_all_ways = listed(_ways_from)


def _things(project: Project, key: str, route: Route) -> frozenset[str]:
    """Return what a way is shown for once it is chosen: the wire, its devices, lanes, and what it is led through."""
    c = route.conductor
    ends = (project.symbols[pin[0]].device_id for pin in (c.start, c.end))
    eyelets = (name.split("/")[0] for name in route.through)
    return frozenset([key, *ends, *_lanes(route), *eyelets])


def _lanes(route: Route) -> list[str]:
    return list(dict.fromkeys(lane for lane, *_ in route.stretches))


def _way(project: Project, key: str, route: Route) -> WireWay:
    wire_type, unit = route.conductor.wire_type(project), project.settings.length_unit
    digits = 1 if unit == "in" else 0  # whole millimetres are read
    legs: list[LegValue] = []
    for leg in route.legs:
        if leg.points:
            enclosure_id, surface = leg.surface.split("/")
            legs.append(
                {"kind": leg.kind, "enclosure_id": enclosure_id, "surface": surface, "points": list(leg.points)}
            )
    return {
        "key": key,
        "colour": wire_type.colour if wire_type else "BK",
        "pieces": [(words, round(length, 1), shown_in(unit, round(length, digits))) for words, length in route.pieces],
        "legs": legs,
        "lanes": _lanes(route),
    }


def ways(project: Project, enclosure_id: str, things: str) -> list[WireWay]:
    """Return the ways in an enclosure that are shown for chosen things; all of them for "all".

    `things` are ids of placings, devices, ducts and lanes, and keys of wires, with commas between them.
    """
    chosen = set(things.split(",")) - {""}
    chosen |= {project.placings[id].device_id for id in chosen if id in project.placings}
    return [
        way
        for id, shown_for, way in _all_ways(project)
        if id in (enclosure_id, "") and (things == "all" or shown_for & chosen)
    ]
