"""Twisted pairs: loops take whole pairs, pairs are exchanged whole, what is parted is told; ways of laying."""

from __future__ import annotations

from random import Random
from unittest import TestCase

from jolly_core.cables import cable_cores, capacity_a, ends_of, laying_of, pair_names, pairs_of, spare_cores
from jolly_core.checks import project_snags
from jolly_core.drawing import GRID_MM, pin_points
from jolly_core.model import CoreChoice, Part, RuleError
from jolly_core.scenes import cable_scene, sheet_scene
from jolly_core.scenes.base.primitives import Poly, Text
from jolly_core.sizing import Laying, carried_a, conductor_for_mm2, laying_factor
from jolly_core.testing import Workbench


class Pairs(TestCase):
    """Transmitters in the field, each on two upright wires from a strip in the panel, in one cable of pairs."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.panel = self.bench.new("add-location", code="P", side="panel")
        self.field = self.bench.new("add-location", code="F", side="field")
        self.signal = self.bench.new(
            "add-wire-type", name="Signal", colour="WH", cross_section_mm2=0.5, category="signal"
        )

    def lay(self, count: int, part: str = "quillon-ql-li4p0-5") -> None:
        """Draw so many loops; all first wires before all second ones, so that crossing order splits the loops."""
        self.sensors = [self.bench.place("two-wire-sensor", 20 + 8 * n, 82) for n in range(count)]
        for symbol in self.sensors:
            self.bench.do("set-place", device_id=self.bench.device(symbol), function_id="", location_id=self.field)
            points = pin_points(self.bench.symbol(symbol))
            for k, (x, y) in enumerate(points):
                self.bench.wire((x, y), (x, 60 if k == 0 else 110), type_id=self.signal)
        top = self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=18, y1=64, x2=24 + 8 * count, y2=64).placed
        low = self.bench.do(
            "place-terminals", sheet_id=self.bench.sheet, x1=18, y1=106, x2=24 + 8 * count, y2=106
        ).placed
        for strip in dict.fromkeys(self.bench.device(row[0]) for row in (top, low)):
            self.bench.do("set-place", device_id=strip, function_id="", location_id=self.panel)
        right = 24 + 8 * count
        band = self.bench.new("draw-band", sheet_id=self.bench.sheet, x1=18, y1=70, x2=right, y2=70)
        self.cable = self.bench.project.bands[band].device_id
        self.bench.do("draw-band", sheet_id=self.bench.sheet, x1=18, y1=100, x2=right, y2=100, device_id=self.cable)
        if part:
            self.bench.do("assign-part", device_id=self.cable, part_id=part)

    def served(self) -> dict[str, list[int]]:
        """Return the ordinals of the cores that lead to each sensor, by its id."""
        found: dict[str, list[int]] = {}
        for row in cable_cores(self.bench.project, self.cable):
            if row.conductor is not None:
                found.setdefault(ends_of(self.bench.project, self.cable, row.conductor)[1][0], []).append(row.ordinal)
        return found

    def codes(self) -> list[str]:
        return [s.code for s in project_snags(self.bench.project)]

    def test_the_pairs_of_a_part(self) -> None:
        part = self.bench.library.parts["quillon-ql-li2p0-5"]
        self.assertEqual(pairs_of(part), {"1": [1, 2], "2": [3, 4]})
        self.assertEqual(pair_names(part), {1: "1", 2: "1", 3: "2", 4: "2"})
        three = Part("x", "Q", "X", "cable", units=(("core", ("1",)),) * 3, details=({"pair": "1"}, {"pair": "1"}, {}))
        self.assertEqual(pairs_of(three), {"1": [1, 2]})
        odd = Part("x", "Q", "X", "cable", units=(("core", ("1",)),), details=({"pair": "1"},))
        self.assertEqual((pairs_of(odd), pairs_of(None)), ({}, {}))

    def test_the_two_conductors_of_a_loop_take_a_pair(self) -> None:
        self.lay(3)
        self.assertEqual([self.served()[s] for s in self.sensors], [[1, 2], [3, 4], [5, 6]])
        self.assertNotIn("pair-parted", self.codes())

    def test_without_pairs_they_take_crossing_order(self) -> None:
        self.lay(3, "quillon-ql-s10-0-75")
        self.assertEqual([self.served()[s] for s in self.sensors], [[1, 4], [2, 5], [3, 6]])

    def test_cores_of_two_pairs_are_exchanged_with_their_pairs(self) -> None:
        self.lay(3)
        self.bench.do("swap-cores", device_id=self.cable, first=1, second=4)
        self.assertEqual([self.served()[s] for s in self.sensors], [[3, 4], [1, 2], [5, 6]])
        self.bench.do("swap-cores", device_id=self.cable, first=1, second=2)
        self.assertEqual([sorted(self.served()[s]) for s in self.sensors], [[3, 4], [1, 2], [5, 6]])
        self.bench.do("swap-cores", device_id=self.cable, first=5, second=8)  # to a spare pair
        self.assertEqual(sorted(self.served()[self.sensors[2]]), [7, 8])
        self.assertNotIn("pair-parted", self.codes())

    def test_a_single_core_parts_the_pairs_and_that_is_told(self) -> None:
        self.lay(2)
        self.bench.do("swap-cores", device_id=self.cable, first=2, second=3, single=True)
        self.assertEqual([self.served()[s] for s in self.sensors], [[1, 3], [2, 4]])
        snags = [s for s in project_snags(self.bench.project) if s.code == "pair-parted"]
        self.assertEqual(len(snags), 2)
        self.assertIn("in the pairs 1 and 2 where 1 would do", snags[0].message)
        act = snags[0].act
        assert act is not None
        self.bench.do(act.kind, **dict(act.values))
        self.assertEqual([self.served()[s] for s in self.sensors], [[1, 2], [3, 4]])

    def test_more_loops_than_pairs_leave_conductors_without_a_core(self) -> None:
        self.lay(3, "quillon-ql-li2p0-5")
        self.assertEqual([sorted(self.served()[s]) for s in self.sensors], [[1, 2], [3, 4], [0, 0]])
        self.assertIn("cable-cores", self.codes())

    def test_filling_by_number_or_source_keeps_loops_in_pairs(self) -> None:
        self.lay(3)
        for by in ("number", "source", "list"):
            with self.subTest(by=by):
                self.bench.do("fill-cores", device_ids=[self.cable], by=by)
                pairs = pair_names(self.bench.library.parts["quillon-ql-li4p0-5"])
                for cores in self.served().values():
                    self.assertEqual(len({pairs[n] for n in cores}), 1)

    def test_a_pair_stays_together_however_it_is_exchanged(self) -> None:
        self.lay(4)
        random = Random(16)
        pairs = pair_names(self.bench.library.parts["quillon-ql-li4p0-5"])
        for _ in range(40):
            first, second = random.sample(range(1, 9), 2)
            self.bench.do("swap-cores", device_id=self.cable, first=first, second=second)
            for cores in self.served().values():
                self.assertEqual(len({pairs[n] for n in cores}), 1)
            self.assertEqual(sorted(n for cores in self.served().values() for n in cores), list(range(1, 9)))

    def test_pairs_are_drawn_at_the_band_and_between_the_ends(self) -> None:
        self.lay(2, "")
        plain = len(sheet_scene(self.bench.project, self.bench.sheet).items)
        strokes = {i: len(item.prims) for i, item in cable_scene(self.bench.project, self.cable).items.items()}
        self.bench.do("assign-part", device_id=self.cable, part_id="quillon-ql-li2p0-5")
        scene = sheet_scene(self.bench.project, self.bench.sheet)
        self.assertEqual(len(scene.items), plain)
        bands = [i for i in scene.items.values() if i.kind == "band"]
        words = [p.words for i in bands for p in i.prims if isinstance(p, Text)]
        self.assertIn("WH", words)
        # The two wires of a loop are crossed by different bands here: no stroke can go through both.
        self.assertEqual(self.marks(), [])
        face = cable_scene(self.bench.project, self.cable).items
        self.assertGreater(len(face["core:1"].prims), strokes["none:0"] + 5)

    def marks(self) -> list[tuple[float, ...]]:
        """Return the strokes at the bands that mark twisted pairs; the oval of a shield is dashed."""
        scene = sheet_scene(self.bench.project, self.bench.sheet)
        prims = [p for i in scene.items.values() if i.kind == "band" for p in i.prims]
        return [p.points for p in prims if isinstance(p, Poly) and p.pen == "ink"]

    def test_wires_beside_each_other_have_one_mark_through_both_others_one_each(self) -> None:
        sensors = [self.bench.place("two-wire-sensor", 20 + 12 * n, 82, rotation=0) for n in range(2)]
        for symbol in sensors:
            for x, y in pin_points(self.bench.symbol(symbol)):
                self.bench.wire((x, y), (x, 60), type_id=self.signal)
            self.bench.do("set-place", device_id=self.bench.device(symbol), function_id="", location_id=self.field)
        row = self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=18, y1=64, x2=40, y2=64).placed
        self.bench.do("set-place", device_id=self.bench.device(row[0]), function_id="", location_id=self.panel)
        band = self.bench.new("draw-band", sheet_id=self.bench.sheet, x1=18, y1=70, x2=40, y2=70)
        self.cable = self.bench.project.bands[band].device_id
        self.bench.do("assign-part", device_id=self.cable, part_id="quillon-ql-s10-0-75")
        self.assertEqual(self.marks(), [], "a cable without pairs has none")
        self.bench.do("assign-part", device_id=self.cable, part_id="quillon-ql-li2p0-5")
        spans = [(min(points[::2]), max(points[::2])) for points in self.marks()]
        wires = [[x * GRID_MM for x, _ in pin_points(self.bench.symbol(s))] for s in sensors]
        self.assertEqual(len(spans), 2)
        for (low, high), ends in zip(spans, wires, strict=True):
            self.assertTrue(low < min(ends) and max(ends) < high, "through both wires of the loop")
        self.bench.do("swap-cores", device_id=self.cable, first=2, second=3, single=True)
        self.assertEqual(len(self.marks()), 4, "with another wire between them each has a mark of its own")

    def test_a_core_chosen_for_two_conductors_is_told(self) -> None:
        self.lay(2)
        rows = [r for r in cable_cores(self.bench.project, self.cable) if r.conductor is not None]
        keys = [r.conductor.key for r in rows if r.conductor is not None]
        self.bench.project.load("core_choice", [CoreChoice(f"c{n}", self.cable, 5, keys[n]) for n in (0, 1)])
        (snag,) = [s for s in project_snags(self.bench.project) if s.code == "core-choice"]
        self.assertIn("core 5 is in another connection already", snag.message)
        served = {r.ordinal: r.conductor.key for r in cable_cores(self.bench.project, self.cable) if r.conductor}
        self.assertEqual((served[5], len(served)), (keys[0], 4))

    def test_spare_cores(self) -> None:
        self.lay(2)
        self.assertEqual(spare_cores(self.bench.project, self.cable), (4, 0))
        self.bench.do("assign-part", device_id=self.cable, part_id="quillon-ql-c7g1-5")
        self.assertEqual(spare_cores(self.bench.project, self.cable), (2, 1))


class WaysOfLaying(TestCase):
    def test_factors_on_the_safe_side(self) -> None:
        for laying, factor in (
            (Laying(), 1.0),
            (Laying("B2", 30), 1.15),
            (Laying("B2", 20), 1.15),
            (Laying("B2", 41), 0.91),
            (Laying("B2", 40, 2), 0.80),
            (Laying("C", 40, 3), 0.75),
            (Laying("E", 40, 9), 0.72),
            (Laying("B1", 60, 4), 0.58 * 0.65),
        ):
            with self.subTest(laying=laying):
                self.assertAlmostEqual(laying_factor(laying), factor)

    def test_beyond_the_tables(self) -> None:
        with self.assertRaisesRegex(RuleError, "up to 60 °C, not at 61 °C"):
            laying_factor(Laying("B2", 61))
        with self.assertRaisesRegex(RuleError, "up to 9 circuits"):
            laying_factor(Laying("B2", 40, 10))

    def test_warmer_and_fuller_never_carries_more(self) -> None:
        random = Random(7)
        for _ in range(200):
            method, area = random.choice(("B1", "B2", "C", "E")), random.choice((0.75, 1.5, 3.3, 16.0, 120.0))
            warm, beside = random.uniform(0, 50), random.randint(1, 8)
            usual = carried_a(area, Laying(method, warm, beside))
            self.assertGreater(usual, 0)
            self.assertLessEqual(carried_a(area, Laying(method, warm + 10, beside)), usual)
            self.assertLessEqual(carried_a(area, Laying(method, warm, beside + 1)), usual)
            size = conductor_for_mm2(usual * 0.99, Laying(method, warm, beside))
            self.assertGreaterEqual(carried_a(size, Laying(method, warm, beside)), usual * 0.98)

    def test_a_cable_is_laid_as_it_says_else_as_the_project_says(self) -> None:
        bench = Workbench(frame="zones")
        motor = bench.place("motor", 30, 82, part_id="orrery-od-m3")
        for n in range(3):
            bench.wire((30 + 4 * n, 60), (30 + 4 * n, 82))
        band = bench.new("draw-band", sheet_id=bench.sheet, x1=28, y1=76, x2=44, y2=76)
        cable_id = bench.project.bands[band].device_id
        bench.do("assign-part", device_id=cable_id, part_id="quillon-ql-c4g2-5")
        self.assertTrue(motor)

        def carried() -> float:
            return capacity_a(bench.project, next(iter(bench.project.cables.values())))

        self.assertEqual(carried(), 17.4)
        bench.do("change-settings", ambient_c=50)
        self.assertEqual(carried(), 14.27)
        bench.do("change-settings", laying_method="E")
        self.assertEqual(carried(), 18.04)
        bench.do("set-cable", device_id=cable_id, laid="C", grouped=2)
        self.assertEqual(carried(), 14.64)
        laying = laying_of(bench.project, next(iter(bench.project.cables.values())))
        self.assertEqual(laying.words, "laid as C at 50 °C, 2 circuits together")
        bench.do("set-cable", device_id=cable_id, load_a=15)
        message = next(s.message for s in project_snags(bench.project) if s.code == "cable-capacity")
        self.assertIn("carry 14.64 A laid as C at 50 °C, 2 circuits together", message)
