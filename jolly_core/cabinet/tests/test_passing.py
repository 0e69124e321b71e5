"""Led through eyelets and lanes, kept apart by category: worked cases, and random networks against another search."""

from __future__ import annotations

import random
from dataclasses import replace
from itertools import pairwise, product
from typing import Any
from unittest import TestCase

import networkx

from jolly_core.cabinet import (
    LanePiece,
    Network,
    Route,
    eyelet_gap,
    eyelet_named,
    gap_words,
    gaps_in,
    network_of,
    piece,
    pin_at,
    pin_point,
    placing_of,
    routes,
    surface_key,
)
from jolly_core.cabinet.eyelets import eyelets_in
from jolly_core.cabinet.pieces import PointMm
from jolly_core.cabinet.ways import FAR, apart
from jolly_core.checks import project_snags
from jolly_core.edits.base.history import take_back
from jolly_core.model import RuleError
from jolly_core.testing import Workbench

DUCT, RAIL = "brindlework-bw-d4060", "brindlework-bw-r35"
RELAY, TRANSFORMER = "hollin-hr-k22", "tamwick-tw-ct60-5"


class PanelCase(TestCase):
    """Two relays wired coil to coil on two rails, ducts round about, and current transformers on the plate."""

    def setUp(self) -> None:
        b = self.bench = Workbench(frame="zones")
        self.place = b.new("add-location", code="P", side="panel")
        symbols = [b.place("coil", x, 20, part_id=RELAY) for x in (20, 50)]
        b.wire((24, 20), (50, 20))
        self.devices = [b.device(s) for s in symbols]
        for device in self.devices:
            b.do("set-place", device_id=device, function_id="", location_id=self.place)
        self.enclosure = b.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=self.place)
        for device, x, y in zip(self.devices, (60, 420), (200, 450), strict=True):
            self.run_of("rail", 40, y, 510, y)
            b.do("place-devices", enclosure_id=self.enclosure, device_ids=[device], x=x, y=y)
        self.ducts = {
            name: self.run_of("duct", *ends)
            for name, ends in {
                "top": (20, 100, 530, 100),
                "middle": (20, 325, 530, 325),
                "foot": (20, 700, 530, 700),
                "left": (20, 100, 20, 700),
                "right": (530, 100, 530, 700),
            }.items()
        }

    def run_of(self, what: str, x1: float, y1: float, x2: float, y2: float) -> str:
        part = RAIL if what == "rail" else DUCT
        ends = {"x1": x1, "y1": y1, "x2": x2, "y2": y2}
        return self.bench.new("draw-run", what=what, enclosure_id=self.enclosure, part_id=part, **ends)

    def transformer(self, x: float, y: float) -> str:
        """Place a current transformer by its upper left corner, and return its device."""
        values = {"enclosure_id": self.enclosure, "part_id": TRANSFORMER}
        placing = self.bench.new("plan-device", x=x, y=y + 40, **values)
        return self.bench.project.placings[placing].device_id

    @property
    def route(self) -> Route:
        (found,) = routes(self.bench.project).values()
        return found

    def lead(self, *through: str, how: str = "add") -> None:
        self.bench.do("lead-through", conductors=[self.route.conductor.key], through=list(through), how=how)

    def snags(self, code: str) -> list[str]:
        return [s.message for s in project_snags(self.bench.project) if s.code == code]


class Passing(PanelCase):
    """What wires are led through, and what keeps them apart."""

    def test_a_wire_led_through_an_eyelet_is_the_sum_of_the_ways_between(self) -> None:
        free = self.route
        device = self.transformer(200, 545)
        self.assertEqual(self.route.length_mm, free.length_mm, "a wire runs through none by itself")
        self.lead(f"{device}/1")
        # The eyelet is 72 mm long, its openings 76 mm from the duct below and 549 - 325 from the one above.
        found = eyelet_named(self.bench.project, f"{device}/1")
        assert found is not None
        self.assertEqual((found[2].one, found[2].other, found[2].length), ((229, 549), (229, 621), 72))
        self.assertIn("151 mm from duct D5", self.snags("eyelet-apart")[0])
        self.assertIn("one opening is 151 mm from duct D5, the nearest", self.route.missing)
        self.bench.do("draw-lane", enclosure_id=self.enclosure, points=[[230, 325], [230, 540]])
        self.assertEqual(self.snags("eyelet-apart"), [])
        led = self.route
        self.assertEqual(led.missing, "")
        self.assertIn("72 through +P-BC1", led.why)
        a, b = (
            pin_point(self.bench.project, placing_of(self.bench.project, d) or self.fail(), pin)
            for d, pin in zip(self.devices, (led.conductor.start, led.conductor.end), strict=True)
        )
        # down to the middle duct, along it and the lane, 10 mm to the opening, through, and back beside it
        into = (325 - a[1]) + (230 - a[0]) + (540 - 325) + (1 + 9)
        out = (621 - 540) + 1 + (540 - 325) + (b[0] - 230) + (b[1] - 325)
        self.assertEqual(led.length_mm, -(-(into + 72 + out + 120) // 5) * 5)
        self.assertEqual([leg.kind for leg in led.legs].count("eyelet"), 1)

    def test_it_is_taken_back_and_follows_the_transformer(self) -> None:
        device = self.transformer(200, 355)
        free = self.route.length_mm
        outcome = self.bench.do(
            "lead-through", conductors=[self.route.conductor.key], through=[f"{device}/1", self.ducts["foot"]]
        )
        led = self.route.length_mm
        self.assertNotEqual(led, free)
        self.assertIn(self.ducts["foot"], [s[0] for s in self.route.stretches])
        placing = placing_of(self.bench.project, device)
        assert placing is not None
        self.bench.do("move-in-layout", ids=[placing.id], dx=0, dy=20)
        self.assertEqual(self.route.length_mm, (led or 0) + 40, "both openings join the duct above it")
        self.bench.do("move-in-layout", ids=[placing.id], dx=200, dy=0)
        self.assertNotEqual(self.route.length_mm, led)
        self.lead(self.ducts["foot"], how="take")
        self.assertEqual(self.route.through, (f"{device}/1",))
        self.lead(f"{device}/1", how="take")
        self.assertEqual((self.route.through, self.route.length_mm), ((), free))
        self.assertEqual(self.bench.project.passages, {})
        self.assertTrue(outcome.label.startswith("lead a wire through +"))

    def test_an_eyelet_passed_twice_is_passed_the_same_way_round(self) -> None:
        device = self.transformer(200, 355)
        self.lead(f"{device}/1", f"{device}/1")
        legs = [leg.points for leg in self.route.legs if leg.kind == "eyelet"]
        self.assertEqual(len(legs), 2)
        self.assertEqual(legs[0], legs[1])
        once = self.route
        self.lead(f"{device}/1", how="take")
        self.assertLess(self.route.length_mm or 0, once.length_mm or 0)

    def test_what_a_wire_is_led_through_is_passed_in_the_order_named(self) -> None:
        device = self.transformer(200, 545)
        for points in ([[230, 325], [230, 540]], [[230, 630], [230, 700]]):
            self.bench.do("draw-lane", enclosure_id=self.enclosure, points=points)
        eyelet, left = f"{device}/1", self.ducts["left"]

        def passed(*through: str) -> list[str]:
            self.lead(*through, how="set")
            self.assertEqual(self.route.missing, "")
            found = [leg.id if leg.kind == "lane" else leg.kind for leg in self.route.legs]
            return [name for name in found if name in (left, "eyelet")]

        one, other = passed(left, eyelet), passed(eyelet, left)
        self.assertEqual((one.index("eyelet") > one.index(left), one.count("eyelet")), (True, 1))
        self.assertEqual((other[0], other[-1], other.count("eyelet")), ("eyelet", left, 1))

    def test_what_is_gone_or_has_no_eyelet_is_named(self) -> None:
        b = self.bench
        with self.assertRaisesRegex(RuleError, r"\+P-KF1 has no eyelet, or is not placed"):
            self.lead(f"{self.devices[0]}/1")
        with self.assertRaisesRegex(RuleError, "no such duct or lane"):
            self.lead("nothing")
        device = self.transformer(200, 355)
        self.lead(f"{device}/1")
        placing = placing_of(b.project, device)
        assert placing is not None
        outcome = b.do("remove-from-layout", ids=[placing.id])
        self.assertIn("-BC1 that it is led through is not placed", self.route.missing)
        b.project.apply(take_back(b.project, outcome.changes))
        self.lead(self.ducts["foot"])
        b.do("remove-from-layout", ids=[self.ducts["foot"]])
        self.assertEqual(self.route.through, (f"{device}/1",), "a lane that goes is forgotten")

    def test_wires_kept_apart_take_the_lanes_of_their_own_category(self) -> None:
        b = self.bench
        free = self.route
        category = free.conductor.wire_type(b.project)
        assert category is not None
        mine, other = category.category, "signal" if category.category != "signal" else "power"
        b.do("set-lane-use", ids=[self.ducts["middle"]], categories=[other])
        self.assertNotIn(self.ducts["middle"], [s[0] for s in self.route.stretches])
        self.assertGreater(self.route.length_mm or 0, free.length_mm or 0)
        b.do("set-lane-use", ids=[self.ducts["middle"]], categories=[other, mine])
        self.assertEqual(self.route.length_mm, free.length_mm)
        # Kept apart, only lanes that name it will do.
        b.do("set-lane-use", ids=[self.ducts["foot"]], categories=[mine])
        b.do("set-lane-use", ids=[self.ducts["middle"]], categories=[])
        self.assertEqual(self.route.length_mm, free.length_mm)
        b.do("change-settings", apart=[mine, other])
        self.assertEqual({s[0] for s in self.route.stretches}, {self.ducts["foot"]})

    def test_a_lane_is_passed_when_the_way_runs_in_it_between_two_meetings(self) -> None:
        free = self.route
        self.assertEqual({s[0] for s in free.stretches}, {self.ducts["middle"]})
        self.lead(self.ducts["middle"])
        self.assertEqual(self.route.length_mm, free.length_mm)
        self.lead(self.ducts["foot"], how="set")
        self.assertIn((self.ducts["foot"], 0.0, 510.0), [(i, min(a, b), max(a, b)) for i, a, b in self.route.stretches])

    def test_gaps_are_named_with_what_would_close_them(self) -> None:
        self.assertEqual(gaps_in(self.bench.project, self.enclosure), [])
        lane = self.bench.new("draw-lane", enclosure_id=self.enclosure, points=[[300, 500], [300, 600]])
        (gap,) = gaps_in(self.bench.project, self.enclosure)
        self.assertEqual((gap.one, gap.other, gap.distance), ("L1", "D5", 100))
        self.assertIn("Lane L1 does not reach Duct D5: 100 mm are missing", gap_words(self.bench.project, gap))
        self.bench.do("set-lane", lane_id=lane, points=[[300, 500], [300, 700]])
        self.assertEqual(gaps_in(self.bench.project, self.enclosure), [])

    def test_a_ring_as_worked(self) -> None:
        """The ring of the rules: 810 freely, 910 through an eyelet on its left side."""
        ring = [
            piece("bottom", 0, 0, 400, 0),
            piece("right", 400, 0, 400, 300),
            piece("top", 0, 300, 400, 300),
            piece("left", 0, 0, 0, 300),
        ]
        net = Network(ring)
        starts, ends = (net.ways_in("", p, axis="upright") for p in ((150, 20), (300, 280)))
        self.assertEqual(net.way(starts, ends).length + 120, 810)
        one, other = (net.ways_in("", (0, y), reach_mm=0) for y in (100, 200))
        ways = [net.way(starts, a).length + 100 + net.way(b, ends).length for a, b in ((one, other), (other, one))]
        self.assertEqual(min(ways) + 120, 910)


class Crossings(PanelCase):
    """What is drawn on doors and walls, and where wires pass to it."""

    def test_a_crossing_drawn_by_hand_is_taken_in_place_of_the_hinge(self) -> None:
        b = self.bench
        lamp = b.device(b.place("lamp", 80, 20, part_id="tamwick-tw-l22-g"))
        b.wire((54, 20), (80, 20))
        b.do("place-devices", enclosure_id=self.enclosure, surface="door", device_ids=[lamp], x=100, y=300)
        route = next(r for r in routes(b.project).values() if any(leg.kind == "crossing" for leg in r.legs))
        self.assertIn("450 loop at the hinge", route.why)
        ends = {"x": 0, "y": 100, "other_id": self.enclosure, "other_x": 0, "other_y": 110, "extra_mm": 300}
        made = b.new("draw-crossing", enclosure_id=self.enclosure, **ends)
        crossed = routes(b.project)[route.conductor.key]
        self.assertIn("300 through the crossing", crossed.why)
        self.assertEqual(crossed.points_on("door")[0], (0, 110))
        b.do("set-lane-use", ids=[made], categories=["power"])
        self.assertIn(
            "Nothing leads to the door for wires of its category", routes(b.project)[route.conductor.key].missing
        )
        b.do("move-in-layout", ids=[made], dx=0, dy=200)
        self.assertEqual(b.project.crossings[made].y, 300)
        b.do("remove-from-layout", ids=[made])
        self.assertEqual(routes(b.project)[route.conductor.key].length_mm, route.length_mm)

    def test_ducts_on_the_door_lead_wires_there(self) -> None:
        b = self.bench
        lamp = b.device(b.place("lamp", 80, 20, part_id="tamwick-tw-l22-g"))
        b.wire((54, 20), (80, 20))
        b.do("place-devices", enclosure_id=self.enclosure, surface="door", device_ids=[lamp], x=100, y=300)
        route = next(r for r in routes(b.project).values() if any(leg.kind == "crossing" for leg in r.legs))
        ends = {"x1": 50, "y1": 400, "x2": 600, "y2": 400}
        duct = b.new("draw-run", what="duct", surface="door", enclosure_id=self.enclosure, part_id=DUCT, **ends)
        led = routes(b.project)[route.conductor.key]
        self.assertIn(duct, [s[0] for s in led.stretches])
        with self.assertRaisesRegex(RuleError, "A crossing leads to another surface"):
            both = {"x": 0, "y": 0, "other_id": self.enclosure, "other_surface": "plate", "other_x": 5, "other_y": 5}
            b.do("draw-crossing", enclosure_id=self.enclosure, **both)
        with self.assertRaisesRegex(RuleError, "BW-E6825 has no roof to build on"):
            b.do("draw-lane", enclosure_id=self.enclosure, surface="roof", points=[[0, 0], [10, 0]])


class AgainstAnotherSearch(TestCase):
    """200 random networks with eyelets and categories kept apart, against shortest paths of networkx."""

    CATEGORIES = ("power", "signal")

    def test_every_way_is_as_long_as_theirs(self) -> None:
        routed = 0
        for seed in range(200):
            chance = random.Random(seed)
            lanes = [self.lane(chance, n) for n in range(chance.randint(3, 9))]
            category = chance.choice(self.CATEGORIES)
            usable = [p for p, named in lanes if not named or category in named]
            eyelets = [
                ((x, y), (x, y + 60.0), 60.0)
                for x, y in ((chance.randrange(0, 600, 20) * 1.0, chance.randrange(0, 500, 20) * 1.0) for _ in range(2))
            ]
            pins = [(chance.randrange(0, 640, 10) * 1.0, chance.randrange(0, 640, 10) * 1.0) for _ in range(2)]
            with self.subTest(seed=seed):
                if not usable:
                    continue
                routed += self.compare(Network(usable), usable, pins, eyelets)
        self.assertGreater(routed, 60, "enough of them have a way")

    @staticmethod
    def lane(chance: random.Random, n: int) -> tuple[LanePiece, tuple[str, ...]]:
        at, low = chance.randint(0, 12) * 50.0, chance.randint(0, 8) * 50.0
        high = low + chance.randint(2, 10) * 50.0
        ends = (low, at, high, at) if chance.random() < 0.5 else (at, low, at, high)
        named = chance.choice(((), (), ("power",), ("signal",), ("power", "signal")))
        return piece(f"d{n}", *ends, 40.0), named

    def compare(self, net: Network, usable: list[LanePiece], pins: list[PointMm], eyelets: list[Any]) -> int:
        """Return 1 when there was a way, and look that every way is as long as the other search finds it."""
        points = [*pins, *(o for e in eyelets for o in e[:2])]
        theirs = Reference(usable, points)

        def ours(a: int, b: int) -> float:
            try:
                return net.way(net.ways_in("", points[a]), net.ways_in("", points[b])).length
            except RuleError:
                return FAR

        found = 0
        for a, b in ((0, 1), (0, 2), (3, 4), (5, 1)):
            wanted = theirs.length(a, b)
            self.assertEqual(round(min(ours(a, b), 1e9), 6), round(min(wanted, 1e9), 6))
            found = found or int(wanted < FAR)
        return found


class Reference:
    """Shortest ways between points over lanes, by networkx over every point at which anything meets."""

    REACH_MM = 150.0

    def __init__(self, pieces: list[LanePiece], points: list[PointMm]) -> None:
        self.graph = networkx.Graph()
        self.stops: list[set[PointMm]] = [{(p.x1, p.y1), (p.x2, p.y2)} for p in pieces]
        for (n, a), (m, b) in product(enumerate(pieces), repeat=2):
            self.meet(n, a, m, b)
        self.feet = [self.foot(point) for point in points]
        for stops in self.stops:
            for one, two in pairwise(sorted(stops)):
                self.graph.add_edge(one, two, weight=apart(one, two))

    def meet(self, n: int, a: LanePiece, m: int, b: LanePiece) -> None:
        if a.level and b.upright:
            slack_a, slack_b = b.width / 2 + 1, a.width / 2 + 1
            if a.x1 - slack_a <= b.x1 <= a.x2 + slack_a and b.y1 - slack_b <= a.y1 <= b.y2 + slack_b:
                self.stops[n].add((b.x1, a.y1))
                self.stops[m].add((b.x1, a.y1))
        elif n != m and a.level == b.level:
            for end in ((b.x1, b.y1), (b.x2, b.y2)):
                foot = (min(max(end[0], a.x1), a.x2), min(max(end[1], a.y1), a.y2))
                if apart(foot, end) <= a.width / 2 + 1:
                    self.stops[n].add(foot)
                    self.stops[m].add(end)
                    self.graph.add_edge(end, foot, weight=apart(foot, end))

    def foot(self, point: PointMm) -> list[tuple[PointMm, float]]:
        x, y = point
        found = []
        for n, stops in enumerate(self.stops):
            low, high = min(stops), max(stops)
            foot = (min(max(x, low[0]), high[0]), min(max(y, low[1]), high[1]))
            found.append((apart(foot, point), n, foot))
        near = [f for f in found if f[0] <= self.REACH_MM] or [min(found)]
        for _, n, foot in near:
            self.stops[n].add(foot)
        return [(foot, far) for far, _, foot in near]

    def length(self, a: int, b: int) -> float:
        far = FAR
        for (one, first), (other, last) in product(self.feet[a], self.feet[b]):
            if one == other:
                far = min(far, first + last)
            elif one in self.graph and other in self.graph and networkx.has_path(self.graph, one, other):
                way = networkx.shortest_path_length(self.graph, one, other, weight="weight")
                far = min(far, first + way + last)
        return far


class Words(TestCase):
    def test_eyelets_and_pins_in_words(self) -> None:
        self.assertEqual(eyelets_in("", 80), ())
        (one, other) = eyelets_in("10,80 10,0; 30,80 30,0 95", 80)
        self.assertEqual((one.length, other.length, other.one), (80, 95, (30, 0)))


class Pins(PanelCase):
    def test_pins_are_where_the_part_says_and_left_as_it_says(self) -> None:
        b = self.bench
        placing = placing_of(b.project, self.devices[0])
        assert placing is not None
        (route,) = routes(b.project).values()
        part = b.project.parts[b.project.devices[self.devices[0]].part_id]
        details: list[dict[str, str]] = [{} for _ in part.units]
        coil = next(n for n, (kind, _) in enumerate(part.units) if kind == "coil")
        details[coil] = {"pins_at": "5,70,60 up; 40,70,60 up"}
        b.project.parts[part.id] = replace(part, details=tuple(details))
        at = pin_at(b.project, placing, route.conductor.start)
        self.assertEqual((at.point, at.z, at.axis, at.side), ((60 + 40, 200 + 37.5 - 70), 60, "upright", -1))
        self.assertTrue(network_of(b.project, self.enclosure).ways_in(surface_key(self.enclosure, "plate"), at.point))
        self.assertEqual(eyelet_gap(b.project, network_of(b.project, self.enclosure), "none/1"), "")
