"""Layouts: placing on rails, collisions, routes with their lengths, fill and warmth."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise
from unittest import TestCase

from jolly_core.cabinet import (
    Outline,
    Route,
    duct_fills,
    enclosure_warmth,
    helps,
    layout_faults,
    outline,
    pin_point,
    placing_of,
    routes,
    tray,
)
from jolly_core.checks import project_snags
from jolly_core.edits.base.history import take_back
from jolly_core.model import RuleError
from jolly_core.testing import Workbench

DUCT, RAIL = "brindlework-bw-d4060", "brindlework-bw-r35"
RELAY, LAMP = "hollin-hr-k22", "tamwick-tw-l22-g"


class Cabinet(TestCase):
    def setUp(self) -> None:
        """Two relays wired coil to coil, and a lamp for the door, in an enclosure with a rail between two ducts."""
        self.bench = Workbench(frame="zones")
        self.place = self.bench.new("add-location", code="P", side="panel")
        self.door = self.bench.new("add-location", code="D", side="door")
        self.symbols = [
            self.bench.place("coil", 20, 20, part_id=RELAY),
            self.bench.place("coil", 50, 20, part_id=RELAY),
            self.bench.place("lamp", 80, 20, part_id=LAMP),
        ]
        self.bench.wire((24, 20), (50, 20))
        self.bench.wire((54, 20), (80, 20))
        self.devices = [self.bench.device(s) for s in self.symbols]
        for device, place in zip(self.devices, (self.place, self.place, self.door), strict=True):
            self.bench.do("set-place", device_id=device, function_id="", location_id=place)
        self.enclosure = self.bench.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=self.place)
        self.rail = self.draw("rail", RAIL, 50, 200, 500, 200)
        self.upper = self.draw("duct", DUCT, 40, 70, 510, 70)
        self.side = self.draw("duct", DUCT, 530, 50, 530, 350)
        self.lower = self.draw("duct", DUCT, 40, 330, 510, 330)

    def draw(self, what: str, part: str, *ends: float) -> str:
        x1, y1, x2, y2 = ends
        return self.bench.new(
            "draw-run", what=what, enclosure_id=self.enclosure, part_id=part, x1=x1, y1=y1, x2=x2, y2=y2
        )

    def put(self, *devices: str, x: float = 60, y: float = 200, surface: str = "plate", gap: float = 0) -> list[str]:
        return self.bench.do(
            "place-devices",
            enclosure_id=self.enclosure,
            surface=surface,
            device_ids=list(devices),
            x=x,
            y=y,
            gap_mm=gap,
        ).placed

    def point(self, device: str, pin: tuple[str, int]) -> tuple[float, float]:
        placing = placing_of(self.bench.project, device)
        assert placing is not None
        return pin_point(self.bench.project, placing, pin)

    def faults(self) -> list[str]:
        enclosure = self.bench.project.enclosures[self.enclosure]
        return [f.message for f in layout_faults(self.bench.project, enclosure)]

    def test_ducts_on_each_other_and_what_is_too_deep_or_has_no_outline(self) -> None:
        self.put(*self.devices[:2])
        self.assertEqual(self.faults(), [])
        self.draw("duct", DUCT, 100, 75, 300, 75)
        self.assertEqual(self.faults(), ["Ducts D2 and D3 lie on each other. Move one."])
        parts = self.bench.project.parts
        relay = next(id for id, part in parts.items() if part.part_class == "relay")
        parts[relay] = replace(parts[relay], depth_mm=400.0)
        self.assertEqual(sum("is 400 mm deep, but the enclosure has" in f for f in self.faults()), 2)
        parts[relay] = replace(parts[relay], depth_mm=80.0, width_mm=0.0)
        self.assertEqual(sum("has no outline" in f for f in self.faults()), 2)

    def snags(self, code: str) -> list[str]:
        return [s.message for s in project_snags(self.bench.project) if s.code == code]

    def test_several_on_an_upright_rail_stand_below_each_other(self) -> None:
        self.draw("rail", RAIL, 470, 95, 470, 305)
        self.put(*self.devices[:2], x=460, y=100)
        one, two = (self.box(d) for d in self.devices[:2])
        self.assertTrue(one.upright and two.upright)
        self.assertEqual((one.x, one.y + one.height), (two.x, two.y))
        self.assertEqual(self.faults(), [])

    def test_a_device_in_the_door_keeps_clear_of_what_is_behind_it(self) -> None:
        self.put(*self.devices[:2])
        (lamp,) = self.put(self.devices[2], x=90, y=220, surface="door")
        enclosure = self.bench.project.enclosures[self.enclosure]
        part = self.bench.project.part_of(self.bench.project.devices[enclosure.device_id])
        relay, shown = self.box(self.devices[0]), self.box(self.devices[2])
        assert part is not None
        # room in front of the plate: just that of both, then one mm less
        thick = float(part.ratings.get("plate_depth_mm", "0") or 0)
        self.bench.project.parts[part.id] = replace(part, depth_mm=relay.depth + shown.depth + thick)
        self.assertEqual(self.faults(), [])
        self.bench.project.parts[part.id] = replace(part, depth_mm=relay.depth + shown.depth + thick - 1)
        (fault,) = self.faults()
        self.assertIn(f"need {shown.depth:g} + {relay.depth:g} mm, but there are", fault)
        self.bench.do("move-in-layout", ids=[lamp], dx=0, dy=250)
        self.assertEqual(self.faults(), [], "nothing stands behind it there")

    def test_a_wire_far_from_every_duct_is_a_snag_and_its_legs_are_square(self) -> None:
        self.put(*self.devices[:2])
        self.assertEqual(self.snags("free-run"), [])
        for route in routes(self.bench.project).values():
            legs = list(pairwise(route.points_on("plate")))
            self.assertTrue(all(a[0] == b[0] or a[1] == b[1] for a, b in legs), route.points_on("plate"))
        self.bench.do("change-settings", free_run_mm=20)
        (words,) = self.snags("free-run")
        self.assertRegex(words, r"runs? over the plate of .* outside ducts for more than 20 mm; wire \S+ for \d+ mm")

    def box(self, device_id: str) -> Outline:
        placing = placing_of(self.bench.project, device_id)
        assert placing is not None
        return outline(self.bench.project, placing)

    def test_a_pin_its_part_does_not_have_is_in_the_middle_a_terminal_of_no_strip_too(self) -> None:
        terminal = self.bench.place("coil", 100, 40, part_id=RELAY)
        device = self.bench.device(terminal)
        self.bench.do("swap-symbol", symbol_id=terminal, definition="terminal")
        self.bench.do("set-place", device_id=device, function_id="", location_id=self.place)
        self.put(device, x=200)
        box = outline(self.bench.project, placing_of(self.bench.project, device) or self.fail())
        middle = (box.x + box.width / 2, box.y + box.height / 2)
        self.assertEqual(self.point(device, (terminal, 0)), middle)

    def test_what_is_not_placed_waits_in_the_tray(self) -> None:
        self.assertEqual({d.id for d in tray(self.bench.project)}, set(self.devices))
        self.put(*self.devices[:2])
        self.assertEqual([d.id for d in tray(self.bench.project)], [self.devices[2]])

    def test_devices_clip_on_the_rail_at_true_size_side_by_side_or_spaced(self) -> None:
        first, second = self.put(*self.devices[:2], gap=10)
        boxes = [outline(self.bench.project, self.bench.project.placings[i]) for i in (first, second)]
        self.assertEqual([(b.x, b.y, b.width, b.height) for b in boxes], [(60, 162.5, 45, 75), (115, 162.5, 45, 75)])
        self.bench.do("remove-from-layout", ids=[second])
        (second,) = self.put(self.devices[1], x=70)
        self.assertEqual(self.bench.project.placings[second].x, 105)
        self.assertEqual(self.faults(), [])

    def test_what_cannot_be_put_there_is_refused_with_the_reason(self) -> None:
        with self.assertRaisesRegex(RuleError, r"\+P-KF1 clips on a rail. Drop it on one."):
            self.put(self.devices[0], y=500)
        with self.assertRaisesRegex(RuleError, "goes into a door hole"):
            self.put(self.devices[2])
        self.put(self.devices[0])
        with self.assertRaisesRegex(RuleError, "is placed already"):
            self.put(self.devices[0], x=300)
        bare = self.bench.device(self.bench.place("coil", 20, 60))
        with self.assertRaisesRegex(RuleError, "has no outline"):
            self.put(bare)

    def test_moving_a_rail_takes_its_devices_along(self) -> None:
        (placed,) = self.put(self.devices[0])
        self.bench.do("move-in-layout", ids=[self.rail], dx=10, dy=20)
        box = outline(self.bench.project, self.bench.project.placings[placed])
        self.assertEqual((box.x, box.y), (70, 182.5))
        self.bench.do("remove-from-layout", ids=[self.rail])
        self.assertIsNone(placing_of(self.bench.project, self.devices[0]))

    def test_a_device_dragged_to_another_rail_clips_there(self) -> None:
        other = self.draw("rail", RAIL, 50, 450, 500, 450)
        (placed,) = self.put(self.devices[0])
        self.bench.do("move-in-layout", ids=[placed], dx=40, dy=240)
        placing = self.bench.project.placings[placed]
        self.assertEqual((placing.rail_id, placing.x), (other, 100))
        with self.assertRaisesRegex(RuleError, "clips on a rail"):
            self.bench.do("move-in-layout", ids=[placed], dx=0, dy=150)

    def test_ends_snap_to_five_mm_and_to_the_edges(self) -> None:
        duct = self.bench.project.ducts[self.draw("duct", DUCT, 3, 621, 548, 619)]
        self.assertEqual((duct.x1, duct.y1, duct.x2, duct.y2), (0, 620, 550, 620))
        with self.assertRaisesRegex(RuleError, "outside the mounting plate of 550 × 750 mm"):
            self.draw("duct", DUCT, 20, 700, 700, 700)
        with self.assertRaisesRegex(RuleError, "no length"):
            self.draw("rail", RAIL, 50, 400, 51, 401)
        with self.assertRaisesRegex(RuleError, "is no mounting rail"):
            self.draw("rail", DUCT, 50, 400, 300, 400)

    def test_collisions_and_over_full_rails_are_named(self) -> None:
        self.put(*self.devices[:2])
        self.draw("duct", DUCT, 40, 160, 300, 160)
        self.assertEqual(
            self.faults(),
            [
                "+P-KF1 and duct D3 are in each other's place on the plate.",
                "+P-KF2 and duct D3 are in each other's place on the plate.",
            ],
        )
        self.bench.do("set-run", id=self.rail, x1=50, y1=200, x2=130, y2=200)
        self.assertIn("Rail R1 is over-full: 90 mm of devices on 80 mm.", self.faults())
        self.bench.do("change-settings", length_unit="in")
        self.assertIn("Rail R1 is over-full: 3.54 in of devices on 3.15 in.", self.faults())
        self.bench.do("set-run", id=self.rail, x1=50, y1=200, x2=145, y2=200)
        self.assertIn("+P-KF2 stands over the end of rail R1.", self.faults())

    def test_a_wire_takes_the_shortest_way_and_its_length_is_way_plus_allowances(self) -> None:
        self.put(*self.devices[:2], gap=100)
        route = next(r for r in routes(self.bench.project).values() if r.conductor.end[0] == self.symbols[1])
        a, b = self.point(self.devices[0], route.conductor.start), self.point(self.devices[1], route.conductor.end)
        # A2 comes out below, A1 above: down to the lower duct, round the side, back in the upper one.
        way = (330 - a[1]) + (530 - a[0]) + (330 - 70) + (530 - b[0]) + (b[1] - 70)
        self.assertEqual(route.length_mm, 5 * -(-(way + 120) // 5))
        self.assertEqual([s[0] for s in route.stretches], [self.lower, self.side, self.upper])
        self.assertIn("in ducts", route.why)
        self.bench.do("change-settings", end_allowance_mm=100, length_step_mm=0)
        route = routes(self.bench.project)[route.conductor.key]
        self.assertAlmostEqual(route.length_mm or 0, way + 200, places=1)

    def test_a_wire_to_the_door_passes_the_hinge(self) -> None:
        self.put(*self.devices[:2])
        key = next(k for k, r in routes(self.bench.project).items() if r.conductor.end[0] == self.symbols[2])
        self.assertEqual(routes(self.bench.project)[key].missing, "+D-PF1 is not placed yet.")
        self.put(self.devices[2], x=100, y=300, surface="door")
        route = routes(self.bench.project)[key]
        self.assertEqual((route.points_on("plate")[-1], route.points_on("door")[0]), ((550, 375), (600, 400)))
        self.assertIn("450 loop at the hinge", route.why)
        self.bench.do("change-enclosure", enclosure_id=self.enclosure, hinge="left")
        other = routes(self.bench.project)[key]
        self.assertEqual(other.points_on("plate")[-1], (0, 375))
        self.assertNotEqual(other.length_mm, route.length_mm)

    def test_ducts_that_do_not_hang_together_leave_the_wire_without_a_length(self) -> None:
        self.put(*self.devices[:2])
        self.bench.do("remove-from-layout", ids=[self.side])
        (route,) = [r for r in routes(self.bench.project).values() if r.conductor.end[0] == self.symbols[1]]
        self.assertIsNone(route.length_mm)
        self.assertIn("no way through the ducts", route.missing)

    def test_fill_counts_the_wires_where_they_are_most(self) -> None:
        self.put(*self.devices[:2])
        fill = duct_fills(self.bench.project, self.enclosure)
        self.assertEqual({f.wires for f in fill.values()}, {1})
        self.assertEqual(round(fill[self.lower].percent, 3), 0.221)  # 2.6 mm in 40 × 60 mm

    def test_warmth_sums_what_is_placed_and_says_what_holds_it(self) -> None:
        self.put(*self.devices[:2])
        enclosure = self.bench.project.enclosures[self.enclosure]
        warm = enclosure_warmth(self.bench.project, enclosure)
        self.assertAlmostEqual(warm.loss_w, 2.4)
        self.assertEqual([loss.watts for loss in warm.losses], [1.2, 1.2])
        self.assertAlmostEqual(warm.warming.rise_k, 2.4 / (5.5 * warm.warming.surface_m2))
        self.assertEqual((warm.standing, warm.words, warm.fan_m3h), ("wall", "no fan needed", 0.0))
        parts = self.bench.library.parts_of("fan") + self.bench.library.parts_of("vent-filter")
        self.assertEqual(helps(warm, enclosure, parts), [])
        relay = next(p for p in self.bench.project.parts.values() if p.part_class == "relay")
        self.bench.project.parts[relay.id] = replace(relay, ratings={**relay.ratings, "loss_w": "90"})
        hot = enclosure_warmth(self.bench.project, enclosure)
        self.assertGreater(hot.inside_c, 45)
        wanted = 3.1 * (180 - 5.5 * hot.warming.surface_m2 * 10) / 10
        self.assertAlmostEqual(hot.fan_m3h, wanted)
        found = helps(hot, enclosure, parts)
        self.assertEqual([h.what for h in found], ["fan", "filter"])
        self.assertTrue(all(float(h.part.ratings["air_m3h"]) >= wanted for h in found))
        fan = found[0].part
        self.bench.do("plan-device", enclosure_id=self.enclosure, surface="door", part_id=fan.id, x=50, y=600)
        held = enclosure_warmth(self.bench.project, enclosure)
        self.assertLess(held.inside_c, 45)
        self.assertIn(f"fans of {held.air_m3h:g} m³/h hold", held.words)
        self.assertEqual(helps(held, enclosure, parts), [])
        self.bench.do("change-enclosure", enclosure_id=self.enclosure, standing="free", inside_min_c=30, coldest_c=-40)
        cold = enclosure_warmth(self.bench.project, self.bench.project.enclosures[self.enclosure])
        self.assertLess(cold.warming.rise_k, hot.warming.rise_k)
        self.assertAlmostEqual(cold.heater_w, 5.5 * cold.warming.surface_m2 * 70 - 180)
        self.bench.do("change-enclosure", enclosure_id=self.enclosure, ambient_c=50)
        words = enclosure_warmth(self.bench.project, self.bench.project.enclosures[self.enclosure]).words
        self.assertIn("a cooling unit is needed", words)

    def test_each_layout_edit_is_taken_back_whole(self) -> None:
        before = dict(self.bench.project.entities())
        outcome = self.bench.do("place-devices", enclosure_id=self.enclosure, device_ids=self.devices[:2], x=60, y=200)
        self.bench.project.apply(take_back(self.bench.project, outcome.changes))
        self.assertEqual(dict(self.bench.project.entities()), before)
        outcome = self.bench.do("remove-from-layout", ids=[self.enclosure])
        self.assertEqual((self.bench.project.rails, self.bench.project.ducts), ({}, {}))
        self.assertNotIn("brindlework-bw-e6825", self.bench.project.parts)
        self.bench.project.apply(take_back(self.bench.project, outcome.changes))
        self.assertEqual(set(self.bench.project.ducts), {self.upper, self.side, self.lower})


class Row(TestCase):
    """Two enclosures beside each other: through an opening they are one panel."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        b = self.bench
        self.places = [b.new("add-location", code=code, side="panel") for code in ("P1", "P2")]
        self.symbols = [b.place("coil", x, 20, part_id=RELAY) for x in (20, 50)]
        b.wire((24, 20), (50, 20))
        self.devices = [b.device(s) for s in self.symbols]
        self.enclosures = []
        for device, place in zip(self.devices, self.places, strict=True):
            b.do("set-place", device_id=device, function_id="", location_id=place)
            box = b.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=place)
            self.enclosures.append(box)
            for what, part, ends in (("rail", RAIL, (50, 200, 500, 200)), ("duct", DUCT, (0, 100, 550, 100))):
                x1, y1, x2, y2 = ends
                b.do("draw-run", what=what, enclosure_id=box, part_id=part, x1=x1, y1=y1, x2=x2, y2=y2)
            b.do("place-devices", enclosure_id=box, device_ids=[device], x=60, y=200)

    def route(self) -> Route | None:
        return next(iter(routes(self.bench.project).values()), None)

    def walls(self) -> list[str]:
        return [s.message for s in project_snags(self.bench.project) if s.code == "jumps-wall"]

    def test_closed_they_are_two_panels_and_the_wire_needs_terminals(self) -> None:
        self.assertIsNone(self.route())
        self.assertEqual(len(self.walls()), 1)

    def test_through_an_opening_the_wire_runs_along_the_lanes_of_both(self) -> None:
        b = self.bench
        left, right = self.enclosures
        b.do("change-enclosure", enclosure_id=right, left_id=left, opening_mm=100)
        self.assertEqual(self.walls(), [])
        route = self.route()
        assert route is not None
        self.assertEqual(route.missing, "")
        placings = {p.device_id: p for p in b.project.placings.values()}
        (a, d) = (
            pin_point(b.project, placings[device], pin)
            for device, pin in zip(self.devices, (route.conductor.start, route.conductor.end), strict=True)
        )
        # up to the duct, along it to the edge, 25 mm of plate edge and wall on either side, along and down again
        way = abs(a[1] - 100) + (550 - a[0]) + 50 + d[0] + abs(d[1] - 100)
        total = way + 2 * b.project.settings.end_allowance_mm
        self.assertEqual(route.length_mm, -(-total // 5) * 5)
        self.assertIn("50 through the walls", route.why)
        self.assertEqual(len({id for id, _, _ in route.stretches}), 2)
        for box in self.enclosures:
            (fill,) = duct_fills(b.project, box).values()
            self.assertEqual(fill.wires, 1)

    def test_no_enclosure_stands_beside_itself_in_a_ring_or_where_one_stands(self) -> None:
        b = self.bench
        left, right = self.enclosures
        third = b.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=self.places[0])
        b.do("change-enclosure", enclosure_id=right, left_id=left)
        for enclosure, beside, words in (
            (left, left, "stands right of it already"),
            (left, right, "stands right of it already"),
            (third, left, "is right of -UC1 already"),
        ):
            with self.subTest(words), self.assertRaisesRegex(RuleError, words):
                b.do("change-enclosure", enclosure_id=enclosure, left_id=beside)
        b.do("remove-from-layout", ids=[left])
        self.assertEqual(b.project.enclosures[right].left_id, "")
