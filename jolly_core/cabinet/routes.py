"""Routes: the way of each panel conductor from pin to pin, and its length.

length = way from pin to lane + shortest way along lanes + way from lane to pin + an allowance at both ends, rounded up
to the project's step. A wire to the door leaves the lanes at the middle of the hinge side; the allowance for the loop
is added, and on the door it runs square from the hinge.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from jolly_core.model import Enclosure, Placing, Project, RuleError, derived, listed, merged
from jolly_core.sizing import area_mm2, fill_percent, outer_diameter_mm, rounded_up_mm
from jolly_core.tagging import device_at, full_tag
from jolly_core.wiring import Conductor, PinKey, conductors_from, measure_layout, panel_of

from .lanes import LaneGraph, Point, lane
from .layout import pin_point, placing_of, surface_size


@dataclass(slots=True)
class Run:
    """How a conductor between two placed pins runs.

    Attributes:
        length_mm: what is cut, None while it cannot be routed.
        missing: why it cannot, "" when it can.
        plate, door: corner points on either surface.
        stretches: (duct id, from, to) along each duct it runs in.
        free_mm: the longer of its two runs over the plate outside ducts.
        why: the sum with its figures.
    """

    enclosure_id: str = ""
    length_mm: float | None = None
    missing: str = ""
    plate: list[Point] = field(default_factory=list)
    door: list[Point] = field(default_factory=list)
    stretches: list[tuple[str, float, float]] = field(default_factory=list)
    free_mm: float = 0.0
    why: str = ""


@dataclass(slots=True)
class Route(Run):
    """How a panel conductor runs."""

    conductor: Conductor = field(kw_only=True)


@derived
def lane_graph(project: Project, enclosure_id: str) -> LaneGraph:
    """Return the lanes of an enclosure, kept until its ducts change."""
    return LaneGraph([lane(*values) for values in _stated_lanes(project, enclosure_id)])


@derived
def _stated_lanes(project: Project, enclosure_id: str) -> list[tuple[str, float, float, float, float, float]]:
    ducts = [d for d in sorted(project.ducts.values(), key=lambda d: d.id) if d.enclosure_id == enclosure_id]
    return [(d.id, d.x1, d.y1, d.x2, d.y2, project.parts[d.part_id].width_mm) for d in ducts]


@derived
def panel_conductors_from(project: Project, sheet_id: str) -> list[Conductor]:
    """Return the conductors of nets that begin on a sheet and stay inside one panel: on its plate or door."""
    found = []
    for c in conductors_from(project, sheet_id).values():
        one, other = device_at(project, c.start), device_at(project, c.end)
        if one is not None and other is not None:
            panel = panel_of(project, one)
            if panel and panel == panel_of(project, other):
                found.append(c)
    return found


panel_conductors = listed(panel_conductors_from)


@derived
def routes_from(project: Project, sheet_id: str) -> dict[str, Route]:
    """Return the routes of the panel conductors of nets that begin on a sheet, by their keys."""
    found = {}
    for c in panel_conductors_from(project, sheet_id):
        run = run_of(project, c.start, c.end)
        found[c.key] = Route(*(getattr(run, name) for name in Run.__slots__), conductor=c)
    return found


routes = merged(routes_from)


@derived
def run_of(project: Project, start: PinKey, end: PinKey) -> Run:
    """Return how a conductor between two pins runs."""
    route = Run()
    ends: list[tuple[Placing, Point]] = []
    for pin in (start, end):
        device = device_at(project, pin)
        placing = placing_of(project, device.id) if device else None
        if device is None or placing is None:
            route.missing = f"{full_tag(project, device)} is not placed yet." if device else "An end has no device."
            return route
        ends.append((placing, pin_point(project, placing, pin)))
    route.enclosure_id = ends[0][0].enclosure_id
    row = enclosures_between(project, route.enclosure_id, ends[1][0].enclosure_id)
    if not row:
        route.enclosure_id = ""
        route.missing = "Its ends are in different enclosures; lead it through terminals, or through an opening."
        return route
    try:
        if len(row) == 1:
            _run(project, route, ends)
        else:
            _run_through(project, route, ends, row)
    except RuleError as error:
        route.missing = error.message
    return route


def _run(project: Project, route: Run, ends: list[tuple[Placing, Point]]) -> None:
    enclosure = project.enclosures[route.enclosure_id]
    settings = project.settings
    on_plate = [point for placing, point in ends if placing.surface == "plate"]
    on_door = [point for placing, point in ends if placing.surface == "door"]
    pieces: list[tuple[str, float]] = []
    if len(on_door) == 2:
        route.door = _square(*on_door)
        pieces.append(("on the door", _length(route.door)))
    else:
        hinge, door_hinge = hinge_points(project, enclosure)
        start, end = (on_plate[0], hinge) if on_door else (on_plate[0], on_plate[1])
        graph = lane_graph(project, enclosure.id)
        entry, leave = graph.entry(start), graph.entry(end)
        way = graph.way(entry, leave)
        route.plate = _clean([*_square(start, entry.point), *way.points, *reversed(_square(end, leave.point))])
        route.free_mm = max(entry.distance, 0.0 if on_door else leave.distance)
        route.stretches = way.stretches
        pieces += [("to the duct", entry.distance), ("in ducts", way.length), ("from the duct", leave.distance)]
        if on_door:
            route.door = _square(door_hinge, on_door[0])
            pieces += [("loop at the hinge", settings.door_allowance_mm), ("on the door", _length(route.door))]
    _total(project, route, pieces)


def _total(project: Project, route: Run, pieces: list[tuple[str, float]]) -> None:
    """Put down a route's length, and the sum it is."""
    settings = project.settings
    total = sum(length for _, length in pieces) + 2 * settings.end_allowance_mm
    route.length_mm = rounded_up_mm(total, settings.length_step_mm)
    shown = " + ".join(f"{length:.0f} {name}" for name, length in pieces)
    route.why = (
        f"{shown} + 2 × {settings.end_allowance_mm:g} at the ends = {total:.0f} mm, "
        f"rounded up to {settings.length_step_mm:g} mm: {route.length_mm:g} mm"
    )


def enclosures_between(project: Project, one_id: str, other_id: str) -> list[Enclosure]:
    """Return the enclosures that a wire passes from one to another, both with them; [] when no openings join them."""
    lefts = {e.id: e.left_id for e in project.enclosures.values() if e.left_id in project.enclosures}

    def to_the_left(id: str) -> list[str]:
        found = [id]
        while found[-1] in lefts and lefts[found[-1]] not in found:
            found.append(lefts[found[-1]])
        return found

    for start, end, turned in ((one_id, other_id, True), (other_id, one_id, False)):
        row = to_the_left(end)
        if start in row:
            ids = row[: row.index(start) + 1]
            return [project.enclosures[i] for i in (reversed(ids) if turned else ids)]
    return []


def _run_through(project: Project, route: Run, ends: list[tuple[Placing, Point]], row: list[Enclosure]) -> None:
    """Lead a wire through the openings of a row of enclosures, in each along its own lanes."""
    settings = project.settings
    pieces: list[tuple[str, float]] = []
    at: list[Point] = []
    for (placing, point), enclosure in zip(ends, (row[0], row[-1]), strict=True):
        if placing.surface == "plate":
            at.append(point)
            continue
        hinge, door_hinge = hinge_points(project, enclosure)
        at.append(hinge)
        pieces += [
            ("loop at the hinge", settings.door_allowance_mm),
            ("on the door", _length(_square(door_hinge, point))),
        ]
    for n, enclosure in enumerate(row):
        width, _ = surface_size(project, enclosure, "plate")
        start = at[0] if n == 0 else _at_opening(enclosure, row[n - 1], width)
        end = at[1] if n == len(row) - 1 else _at_opening(enclosure, row[n + 1], width)
        graph = lane_graph(project, enclosure.id)
        entry, leave = graph.entry(start), graph.entry(end)
        way = graph.way(entry, leave)
        if n == 0:
            route.plate = _clean([*_square(start, entry.point), *way.points, *reversed(_square(end, leave.point))])
        route.stretches += way.stretches
        free = entry.distance if n == 0 else 0.0, leave.distance if n == len(row) - 1 else 0.0
        route.free_mm = max(route.free_mm, *free)
        run = entry.distance + way.length + leave.distance
        pieces.append((f"in {full_tag(project, project.devices[enclosure.device_id])}", run))
        if n:
            pieces.append(("through the walls", _walls_mm(project, row[n - 1], enclosure)))
    _total(project, route, pieces)


def _at_opening(enclosure: Enclosure, other: Enclosure, width: float) -> Point:
    """Return where on the edge of an enclosure's plate the opening to its neighbour is."""
    return (0.0, enclosure.opening_mm) if enclosure.left_id == other.id else (width, other.opening_mm)


def _walls_mm(project: Project, one: Enclosure, other: Enclosure) -> float:
    """Return how far it is from the plate of an enclosure to that of its neighbour, through both walls."""
    return sum((surface_size(project, e, "door")[0] - surface_size(project, e, "plate")[0]) / 2 for e in (one, other))


def layout_distance_mm(project: Project, a: PinKey, b: PinKey) -> float | None:
    """Return how far a conductor would run between two pins placed on one surface, mm; None where one is not placed.

    Along the ducts where there are any, else square.
    """
    ends: list[tuple[Placing, Point]] = []
    for pin in (a, b):
        device = device_at(project, pin)
        placing = placing_of(project, device.id) if device else None
        if placing is None:
            return None
        ends.append((placing, pin_point(project, placing, pin)))
    (one, start), (other, end) = ends
    if (one.enclosure_id, one.surface) != (other.enclosure_id, other.surface):
        return None
    if one.surface == "plate":
        graph = lane_graph(project, one.enclosure_id)
        try:
            entry, leave = graph.entry(start), graph.entry(end)
            return entry.distance + graph.way(entry, leave).length + leave.distance
        except RuleError:
            pass
    return _length(_square(start, end))


measure_layout(layout_distance_mm)


def hinge_points(project: Project, enclosure: Enclosure) -> tuple[Point, Point]:
    """Return where wires leave the plate for the door, and where they come onto the door."""
    width, height = surface_size(project, enclosure, "plate")
    door_width, door_height = surface_size(project, enclosure, "door")
    if enclosure.hinge == "left":
        return (0.0, height / 2), (0.0, door_height / 2)
    return (width, height / 2), (door_width, door_height / 2)


def _square(a: Point, b: Point) -> list[Point]:
    """Return a way from a point to another that runs level first, then upright."""
    return [a, b] if a[0] == b[0] or a[1] == b[1] else [a, (b[0], a[1]), b]


def _clean(points: list[Point]) -> list[Point]:
    return [p for n, p in enumerate(points) if n == 0 or p != points[n - 1]]


def _length(points: list[Point]) -> float:
    return sum(abs(a[0] - b[0]) + abs(a[1] - b[1]) for a, b in zip(points, points[1:], strict=False))


@dataclass(slots=True, frozen=True)
class Fill:
    """How full a duct is where it is fullest: percent, wires there, and the rule with its figures."""

    duct_id: str
    percent: float
    wires: int
    why: str


def duct_fills(project: Project, enclosure_id: str) -> dict[str, Fill]:
    """Return the fill of each duct of an enclosure, measured at its fullest place."""
    ducts = [d.id for d in project.ducts.values() if d.enclosure_id == enclosure_id]
    return {id: _fill(project, id) for id in ducts}


_Stretch = tuple[float, float, float]  # from, to, and diameter of the wire


@derived
def _stretches_from(project: Project, sheet_id: str) -> list[tuple[str, _Stretch]]:
    """Return the stretches in ducts of the wires of nets that begin on a sheet, each with its duct."""
    found = []
    for route in routes_from(project, sheet_id).values():
        if route.stretches:
            diameter = outer_diameter_mm(area_mm2(route.conductor.wire_type(project)))
            found += [(duct_id, (min(a, b), max(a, b), diameter)) for duct_id, a, b in route.stretches]
    return found


_all_stretches = listed(_stretches_from)


@derived
def _by_duct(project: Project) -> dict[str, list[_Stretch]]:
    found: dict[str, list[_Stretch]] = {}
    for duct_id, stretch in _all_stretches(project):
        found.setdefault(duct_id, []).append(stretch)
    return found


@derived
def _in_duct(project: Project, duct_id: str) -> list[_Stretch]:
    return _by_duct(project).get(duct_id, [])


@derived
def _fill(project: Project, duct_id: str) -> Fill:
    part = project.parts[project.ducts[duct_id].part_id]
    fullest = fullest_place(_in_duct(project, duct_id))
    percent = fill_percent(fullest, part.width_mm, part.depth_mm)
    why = (
        f"{len(fullest)} wires at its fullest place, areas of their outer diameters together, of "
        f"{part.width_mm:g} × {part.depth_mm:g} mm: {percent:.1f} %"
    )
    return Fill(duct_id, percent, len(fullest), why)


def fullest_place(stretches: list[_Stretch]) -> list[float]:
    """Return the diameters of the wires where their areas together are largest; of several such places, at the first.

    Notes:
        A wire counts from where it comes in up to where it leaves; one that only crosses counts at its place. In order
        of places, so that n wires take about n log n.

    Example:
        >>> fullest_place([(0, 100, 2.0), (50, 150, 3.0), (100, 200, 2.5)])
        [3.0, 2.5]
    """
    comings = sorted(stretches)
    leavings = sorted((high, diameter) for low, high, diameter in stretches if low < high)
    area, left, best, at = 0.0, 0, 0.0, None
    n = 0
    while n < len(comings):
        place = comings[n][0]
        while left < len(leavings) and leavings[left][0] <= place:
            area -= leavings[left][1] ** 2
            left += 1
        crossing = 0.0
        while n < len(comings) and comings[n][0] == place:
            low, high, diameter = comings[n]
            if low < high:
                area += diameter**2
            else:
                crossing += diameter**2
            n += 1
        if area + crossing > best + 1e-9:
            best, at = area + crossing, place
    return [d for low, high, d in stretches if at is not None and (low <= at < high or low == at == high)]
