"""How long a panel's wires are: from pin to lane, along lanes, from lane to pin, and an allowance at both ends."""

from __future__ import annotations

import heapq
from collections import defaultdict
from dataclasses import dataclass, field
from math import ceil, inf

from .book import Book, Pin, Record, is_block, shape_of

Conductor = tuple[Pin, Pin]
_FORGIVEN = 1.0  # mm by which two lanes may miss each other


@dataclass
class Lane:
    """A level or upright piece of a lane: where it lies, and the places along it that something joins."""

    level: bool
    lies: float
    first: float
    last: float
    width: float
    marks: set[float] = field(default_factory=set)

    def nearest(self, x: float, y: float) -> tuple[float, float, float]:
        """Return where along it a point is nearest to, and how far that is to the right and down."""
        along, across = (x, y) if self.level else (y, x)
        at = min(max(along, min(self.marks)), max(self.marks))
        beside, off = at - along, self.lies - across
        return (at, beside, off) if self.level else (at, off, beside)


def lengths(book: Book, conductors: list[Conductor]) -> dict[Conductor, float | None]:
    """Return the cut lengths of those conductors that can be measured here, None where there is no way; mm.

    These are wires between pins of two devices on one plate, whose parts say nothing of where their pins are, over
    ducts and lanes that any wire may take, in an enclosure by itself.
    """
    alone = _enclosures_by_themselves(book)
    led = {passage["conductor"] for passage in book.all("passage")}
    placed = {p["device_id"]: p for p in book.all("placing") if p["surface"] == "plate" and p["enclosure_id"] in alone}
    networks: dict[str, list[Lane] | None] = {}
    found: dict[Conductor, float | None] = {}
    for c in conductors:
        ends = [_place(book, placed, pin) for pin in c]
        key = "-".join(f"{id}.{n}" for id, n in sorted(c))
        one, other = ends
        if one is None or other is None or one[0] != other[0] or key in led:
            continue
        if one[0] not in networks:
            networks[one[0]] = _lanes(book, one[0])
        lanes = networks[one[0]]
        if lanes is None:
            continue
        way = _shortest(lanes, one[1:], other[1:], book.settings["free_run_mm"])
        found[c] = None if way is None else cut(book, way)
    return found


def cut(book: Book, way_mm: float) -> float:
    """Return the length to cut for a way: with both allowances, rounded up to the step."""
    total = round(way_mm + 2 * book.settings["end_allowance_mm"], 6)
    step = book.settings["length_step_mm"]
    return float(ceil(round(total / step, 6)) * step) if step else total


def _enclosures_by_themselves(book: Book) -> set[str]:
    """Return the enclosures that no other is open to, all of whose lanes any wire may take."""
    found = {e["id"] for e in book.all("enclosure") if not e["left_id"]}
    found -= {e["left_id"] for e in book.all("enclosure")}
    for crossing in book.all("crossing"):
        found -= {crossing["enclosure_id"], crossing["other_id"]}
    for lane in (*book.all("duct"), *book.all("lane")):
        if lane["categories"]:
            found.discard(lane["enclosure_id"])
    return found


def _place(book: Book, placed: dict[str, Record], pin: Pin) -> tuple[str, float, float, bool] | None:
    """Return enclosure, x and y of a pin, and whether it is left sideways; None where it is not known here."""
    symbol = book.kinds["symbol"][pin[0]]
    placing = placed.get(symbol["device_id"])
    if placing is None or is_block(symbol["definition"]):
        return None
    device = book.kinds["device"][symbol["device_id"]]
    housing = book.kinds["device"][book.kinds["enclosure"][placing["enclosure_id"]]["device_id"]]
    if device["location_id"] and _panel(book, device["location_id"]) != _panel(book, housing["location_id"]):
        return None  # it stands elsewhere than its location says
    part = book.find("part", device["part_id"])
    shape = shape_of(symbol["definition"])
    if (
        part is None
        or part["part_class"] == "terminal"
        or any(d.get("pins_at") for d in part["details"])
        or part["diameter_mm"]
    ):
        return None  # of what is as wide as what stands on it, or says itself where its pins are
    pole, index = divmod(pin[1], len(shape["pins"]))
    right, down = _share(part, shape["unit"], symbol["units"][pole], index)
    width, height = part["width_mm"], part["height_mm"]
    rail = book.find("rail", placing["rail_id"]) if placing["rail_id"] else None
    if rail is None:
        return placing["enclosure_id"], placing["x"] + right * width, placing["y"] + down * height, False
    if rail["y1"] == rail["y2"]:
        return placing["enclosure_id"], placing["x"] + right * width, rail["y1"] + (down - 0.5) * height, False
    # turned clockwise: what was at the top is at the right, what was at the left is at the top
    return placing["enclosure_id"], rail["x1"] + (0.5 - down) * height, placing["y"] + right * width, True


def _panel(book: Book, location: str) -> str:
    """Return the panel that a location is in, "" where it is in none."""
    while location and book.kinds["location"][location]["side"] != "panel":
        location = book.kinds["location"][location]["parent_id"]
    return location


def _share(part: Record, kind: str, number: int, index: int) -> tuple[float, float]:
    """Return where a pin is in shares of width and height: the first half of each unit's pins at the top."""
    rows: tuple[list[tuple[str, int, int]], ...] = ([], [])
    counts: dict[str, int] = defaultdict(int)
    for unit, pins in part["units"]:
        counts[unit] += 1
        for n in range(len(pins)):
            rows[n >= ceil(len(pins) / 2)].append((unit, counts[unit], n))
    for down, row in enumerate(rows):
        if (kind, number, index) in row:
            return (row.index((kind, number, index)) + 0.5) / len(row), float(down)
    return 0.5, 0.5


def _lanes(book: Book, enclosure: str) -> list[Lane] | None:
    """Return the pieces of lanes on a plate with the places where they meet; None where one is slanted."""
    strokes = []
    for duct in book.all("duct"):
        if (duct["enclosure_id"], duct["surface"]) == (enclosure, "plate"):
            ends = duct["x1"], duct["y1"], duct["x2"], duct["y2"]
            strokes.append((*ends, book.kinds["part"][duct["part_id"]]["width_mm"]))
    for lane in book.all("lane"):
        if (lane["enclosure_id"], lane["surface"]) == (enclosure, "plate"):
            points = lane["points"]
            corners = list(zip(points[::2], points[1::2], strict=True))
            strokes += [(*a, *b, 0.0) for a, b in zip(corners, corners[1:], strict=False) if a != b]
    found = []
    for x1, y1, x2, y2, width in strokes:
        if x1 != x2 and y1 != y2:
            return None
        level = y1 == y2
        first, last = sorted((x1, x2) if level else (y1, y2))
        found.append(Lane(level, y1 if level else x1, first, last, width, {first, last}))
    return found


def _joints(lanes: list[Lane]) -> list[tuple[int, float, int, float, float]]:
    """Return where lanes meet: which two, where along each, and the gap between; each gets marks there."""
    found = []
    for n, a in enumerate(lanes):
        for m, b in list(enumerate(lanes))[n + 1 :]:
            if a.level != b.level:
                if _comes_to(a, b) and _comes_to(b, a):
                    found.append((n, b.lies, m, a.lies, 0.0))
                continue
            for one, other in ((a, b), (b, a)):
                for end in (one.first, one.last):
                    at = min(max(end, other.first), other.last)
                    gap = ((end - at) ** 2 + (one.lies - other.lies) ** 2) ** 0.5
                    if gap <= other.width / 2 + _FORGIVEN:
                        found.append((n, end, m, at, gap) if one is a else (n, at, m, end, gap))
    for n, along, m, there, _ in found:
        lanes[n].marks.add(along)
        lanes[m].marks.add(there)
    return found


def _comes_to(a: Lane, b: Lane) -> bool:
    slack = b.width / 2 + _FORGIVEN
    return a.first - slack <= b.lies <= a.last + slack


def _ways_in(lanes: list[Lane], at: tuple[float, float, bool], reach: float) -> list[tuple[int, float, float]]:
    """Return where a wire from a pin may go into lanes: which, where along it, and how far that is."""
    x, y, sideways = at
    every = []
    for n, lane in enumerate(lanes):
        along, right, down = lane.nearest(x, y)
        every.append((abs(right) + abs(down), n, along, right, down))
    near = [e for e in every if e[0] <= reach + 1e-9]
    own = [e for e in near if (abs(e[3]) >= abs(e[4]) if sideways else abs(e[4]) >= abs(e[3]))]
    taken = own or near or sorted(every)[:1]
    return [(n, along, far) for far, n, along, _, _ in taken]


def _shortest(
    lanes: list[Lane], start: tuple[float, float, bool], end: tuple[float, float, bool], reach: float
) -> float | None:
    """Return the length of the shortest way between two pins, None where there is none."""
    joints = _joints(lanes)
    ins, outs = (_ways_in(lanes, at, reach) for at in (start, end))
    stops: dict[int, set[float]] = {n: set(lane.marks) for n, lane in enumerate(lanes)}
    for n, along, _ in (*ins, *outs):
        stops[n].add(along)
    roads: dict[tuple[int, float], list[tuple[tuple[int, float], float]]] = defaultdict(list)
    for n, alongs in stops.items():
        order = sorted(alongs)
        for a, b in zip(order, order[1:], strict=False):
            roads[n, a].append(((n, b), b - a))
            roads[n, b].append(((n, a), b - a))
    for n, along, m, there, gap in joints:
        roads[n, along].append(((m, there), gap))
        roads[m, there].append(((n, along), gap))
    far: dict[tuple[int, float], float] = {}
    waiting = [(free, n, along) for n, along, free in ins]
    heapq.heapify(waiting)
    while waiting:
        length, n, along = heapq.heappop(waiting)
        if (n, along) in far:
            continue
        far[n, along] = length
        for (m, there), more in roads[n, along]:
            if (m, there) not in far:
                heapq.heappush(waiting, (length + more, m, there))
    best = min((far.get((n, along), inf) + free for n, along, free in outs), default=inf)
    return None if best == inf else best
