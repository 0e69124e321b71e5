"""Routes: the way of each panel conductor from pin to pin, and its length.

length = way from pin to lane + shortest way along lanes + way from lane to pin + an allowance at both ends, rounded up
to the project's step. A wire to the door passes the hinge with the allowance for its loop; on a surface without lanes
it runs square from there.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from operator import attrgetter

from jolly_core.model import Placing, Project, RuleError, derived, length_in, listed, merged, shown_in
from jolly_core.sizing import rounded_up_mm
from jolly_core.tagging import device_at, full_tag
from jolly_core.wiring import Conductor, PinKey, conductor_key, conductors_from, measure_layout, panel_of

from .eyelets import lane_name, passage_words
from .lanes import group_of, network_of, surface_key
from .layout import SURFACE_WORDS
from .network import Network
from .passing import led
from .pieces import PointMm
from .pins import PinAt, placed_pins
from .ways import Leg, Way, apart, square


@dataclass(slots=True)
class Run:
    """How a conductor between two placed pins runs.

    Attributes:
        length_mm: what is cut, None while it cannot be routed.
        missing: why it cannot, "" when it can.
        legs: the stretches it is made of, in order.
        free_mm: the longer of its two runs outside lanes on a surface that has some.
        why: the sum with its figures.
        pieces: what the sum is made of, the allowances at the ends last.
        through: what it was led through by hand, by name.
    """

    enclosure_id: str = ""
    length_mm: float | None = None
    missing: str = ""
    legs: list[Leg] = field(default_factory=list)
    free_mm: float = 0.0
    why: str = ""
    pieces: list[tuple[str, float]] = field(default_factory=list)
    through: tuple[str, ...] = ()

    def points_on(self, surface: str) -> list[PointMm]:
        """Return the corners of its way on a surface of the enclosure it begins in."""
        key = surface_key(self.enclosure_id, surface)
        points = [p for leg in self.legs if leg.surface == key for p in leg.points]
        return [p for n, p in enumerate(points) if n == 0 or p != points[n - 1]]

    @property
    def stretches(self) -> list[tuple[str, float, float]]:
        """The lanes it runs in, with from and to along each."""
        return [(leg.id, *leg.span) for leg in self.legs if leg.kind == "lane"]


@dataclass(slots=True)
class Route(Run):
    """How a panel conductor runs."""

    conductor: Conductor = field(kw_only=True)


_facts = attrgetter(*Run.__slots__)


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
        wire_type = c.wire_type(project)
        run = run_of(project, c.start, c.end, wire_type.category if wire_type else "")
        found[c.key] = Route(*_facts(run), conductor=c)
    return found


routes = merged(routes_from)


def passages_for(project: Project, key: str) -> tuple[str, ...]:
    """Return what the conductor of a key is led through by hand, () for nothing."""
    ids = project.passages_of.get(key)
    return project.passages[ids[0]].through if ids else ()


@derived
def run_of(project: Project, start: PinKey, end: PinKey, category: str) -> Run:
    """Return how a conductor of a category between two pins runs."""
    run = Run()
    ends: list[tuple[Placing, PinAt]] = []
    for pin in (start, end):
        placed = placed_pins(project, pin[0])
        if placed is None:
            device = device_at(project, pin)
            run.missing = f"{full_tag(project, device)} is not placed yet." if device else "An end has no device."
            return run
        ends.append((placed[0], placed[1][pin[1]]))
    run.enclosure_id = ends[0][0].enclosure_id
    if ends[1][0].enclosure_id not in group_of(project, run.enclosure_id):
        run.enclosure_id = ""
        run.missing = "Its ends are in different enclosures; lead it through terminals, or through an opening."
        return run
    run.through = passages_for(project, conductor_key(start, end))
    try:
        network = network_of(project, run.enclosure_id, category)
        _total(project, run, network, _way(project, network, ends, run.through), ends)
    except RuleError as error:
        run.missing = error.message
    return run


def _way(project: Project, network: Network, ends: list[tuple[Placing, PinAt]], through: tuple[str, ...] = ()) -> Way:
    """Return the way between two placed pins, led through what a person named.

    Raises:
        RuleError: there is none, or what was named is gone or out of reach.
    """
    (one, start), (other, end) = ends
    keys = [surface_key(p.enclosure_id, p.surface) for p in (one, other)]
    if keys[0] == keys[1] and keys[0] not in network.surfaces and one.surface != "plate" and not through:
        length = apart(start.point, end.point)
        return Way(length, [Leg("free", "", length, keys[0], square(start.point, end.point))])
    for key, placing in zip(keys, (one, other), strict=True):
        if placing.surface == "plate" and key not in network.surfaces:
            raise RuleError("There is no duct on the plate yet. Draw one, so that wires have a way.", field="ducts")
    starts, stops = (
        network.ways_in(key, pin.point, axis=pin.axis, side=pin.side)
        for key, pin in zip(keys, (start, end), strict=True)
    )
    for entries, key in ((starts, keys[0]), (stops, keys[1])):
        if not entries:
            words = SURFACE_WORDS[key.split("/")[1]]
            raise RuleError(f"Nothing leads to the {words} for wires of its category. Draw a crossing.", field="ducts")
    return led(project, network, starts, stops, through) if through else network.way(starts, stops)


def _total(project: Project, run: Run, network: Network, way: Way, ends: list[tuple[Placing, PinAt]]) -> None:
    """Put down a route's legs and length, and the sum it is."""
    run.legs = way.legs
    first, last = (way.legs[0], way.legs[-1]) if way.legs else (None, None)
    free = [leg for leg in (first, last) if leg and leg.kind == "free" and leg.surface in network.surfaces]
    run.free_mm = max((leg.length for leg in free), default=0.0)
    settings = project.settings
    unit = settings.length_unit
    pieces = _pieces(project, network, way.legs)
    total = sum(length for _, length in pieces) + 2 * settings.end_allowance_mm
    run.length_mm = rounded_up_mm(round(total, 6), settings.length_step_mm)
    run.pieces = [*pieces, ("at the ends", 2 * settings.end_allowance_mm)]
    shown = " + ".join([f"{shown_in(unit, round(length))} {name}" for name, length in pieces])
    at_ends, summed = shown_in(unit, settings.end_allowance_mm), length_in(unit, round(total))
    step, rounded = length_in(unit, settings.length_step_mm), length_in(unit, run.length_mm)
    run.why = f"{shown} + 2 × {at_ends} at the ends = {summed}, rounded up to {step}: {rounded}"


def _pieces(project: Project, network: Network, legs: list[Leg]) -> list[tuple[str, float]]:
    """Return a way in words: stretches of one sort together, with their lengths."""
    found: list[tuple[str, float]] = []
    names: list[str] = []

    def in_ducts() -> None:
        if names:
            of = [n.split()[-1] for n in dict.fromkeys(names)]
            found[-1] = (f"in ducts {', '.join(of)}" if len(of) > 1 else f"in {names[0]}", found[-1][1])
            names.clear()

    for n, leg in enumerate(legs):
        if leg.kind == "lane" or leg.id == "joint":
            if not names:
                found.append(("", 0.0))
            if leg.kind == "lane":
                names.append(lane_name(project, leg.id))
            found[-1] = ("", found[-1][1] + leg.length)
            continue
        in_ducts()
        if leg.kind == "free":
            words = "on the door" if leg.surface.endswith("/door") else "outside lanes"
            if leg.surface in network.surfaces:
                words = "to the duct" if n == 0 else "from the duct" if n == len(legs) - 1 else "beside ducts"
            found.append((words, leg.length))
        elif leg.kind == "eyelet":
            found.append((f"through {passage_words(project, leg.id)}", leg.length))
        else:
            found.append((leg.id, leg.length))
    in_ducts()
    return found


def layout_distance_mm(project: Project, a: PinKey, b: PinKey) -> float | None:
    """Return how far a conductor would run between two pins placed on one surface, mm; None where one is not placed.

    Along the lanes where there are any, else square.
    """
    ends: list[tuple[Placing, PinAt]] = []
    for pin in (a, b):
        placed = placed_pins(project, pin[0])
        if placed is None:
            return None
        ends.append((placed[0], placed[1][pin[1]]))
    (one, start), (other, end) = ends
    if (one.enclosure_id, one.surface) != (other.enclosure_id, other.surface):
        return None
    try:
        return _way(project, network_of(project, one.enclosure_id), ends).length
    except RuleError:
        return apart(start.point, end.point)


measure_layout(layout_distance_mm)
