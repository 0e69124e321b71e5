"""Which cable parts fit a need, which are larger of a family, and what protects a conductor."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.cables import CONTROL, POWER, SIGNAL, CableNeed, is_shielded, larger_of_family, parts_for, rated_of
from jolly_core.cables.choosing import lives_of, serves_need
from jolly_core.cables.load import one_core_area_mm2
from jolly_core.model import Part
from jolly_core.reports import run_report
from jolly_core.sizing import carried_a
from jolly_core.testing import DemoLibrary, Workbench

PARTS = DemoLibrary().parts_of("cable")
needs = st.builds(
    CableNeed,
    use=st.sampled_from((POWER, CONTROL, SIGNAL)),
    live=st.integers(1, 20),
    protective=st.booleans(),
    neutral=st.booleans(),
    area_mm2=st.sampled_from((0.5, 0.75, 1.0, 1.5, 2.5, 4.0)),
    load_a=st.sampled_from((0.0, 6.5, 16.0, 25.0)),
)


def numbered(number: str) -> Part:
    return next(p for p in PARTS if p.number == number)


class Fitting(TestCase):
    def test_worked_cases(self) -> None:
        for need, wanted in (
            (CableNeed(POWER, 3, True, False, 2.5, 0), "QL-YY4G2-5"),
            (CableNeed(POWER, 3, True, True, 2.5, 0), "QL-YY5G2-5"),
            (CableNeed(POWER, 3, True, False, 1.5, 16.0), "QL-YY4G2-5"),  # 1.5 mm² carry 13.1 A
            (CableNeed(CONTROL, 5, False, False, 0.75, 0), "QL-YY7G0-75"),  # five and a fifth spare are six
            (CableNeed(CONTROL, 8, False, False, 0.75, 0), "QL-S10-0.75"),
            (CableNeed(SIGNAL, 2, False, False, 0.5, 0), "QL-LI2P0-5"),
        ):
            with self.subTest(need.words):
                self.assertEqual(parts_for(need, PARTS)[0].number, wanted)

    def test_without_one_that_has_spares_the_others_do(self) -> None:
        need = CableNeed(CONTROL, 24, False, False, 0.5, 0)
        self.assertEqual({len(lives_of(p)) for p in parts_for(need, PARTS)}, {24})
        self.assertEqual(parts_for(CableNeed(CONTROL, 60, False, False, 0.5, 0), PARTS), [])

    def test_what_the_project_uses_already_comes_first_among_equals(self) -> None:
        need = CableNeed(POWER, 3, True, False, 2.5, 0)
        self.assertEqual(parts_for(need, PARTS, [numbered("QL-C4G2.5").id])[0].number, "QL-C4G2.5")

    @given(needs)
    def test_each_part_that_is_offered_has_all_that_is_needed(self, need: CableNeed) -> None:
        found = parts_for(need, PARTS)
        for part in found:
            lives = lives_of(part)
            self.assertTrue(serves_need(part, need))
            self.assertGreaterEqual(len(lives), need.live)
            self.assertEqual(is_shielded(part), need.use == SIGNAL)
            area = min(one_core_area_mm2(part, n) for n in lives)
            self.assertGreaterEqual(area, need.area_mm2)
            if need.load_a:
                self.assertGreaterEqual(carried_a(area), need.load_a)
            if need.protective:
                self.assertIn(("core", ("GNYE",)), [(k, tuple(p)) for k, p in part.units])
        self.assertEqual(found, sorted(found, key=lambda p: len(lives_of(p))), "fewest cores first")

    def test_larger_ones_of_the_family(self) -> None:
        part = numbered("QL-YY3G1")
        larger = larger_of_family(part, CableNeed(CONTROL, 5, True, False, 0.75, 0), PARTS)
        self.assertEqual(larger[0].number, "QL-YY7G1")
        self.assertTrue(all(len(lives_of(p)) >= 5 and not is_shielded(p) for p in larger))


class Protecting(TestCase):
    def test_the_highest_setting_counts_before_the_rated_current(self) -> None:
        part = Part(
            "p", "Quill", "Q1", "motor-breaker", ratings={"setting_min_a": "10", "setting_max_a": "16", "rated_a": "25"}
        )
        self.assertEqual(rated_of(part), 16.0)
        self.assertEqual(rated_of(Part("p", "Quill", "Q1", "breaker", ratings={"rated_a": "10"})), 10.0)
        self.assertEqual(rated_of(Part("p", "Quill", "Q1", "breaker")), 0.0)


class Cuts(TestCase):
    def test_each_cable_is_cut_once_with_what_goes_off_or_the_reason_why_not(self) -> None:
        bench = Workbench(frame="zones", end_allowance_mm=80)
        for y in (20, 30):
            for x in (20, 60):
                bench.place("lamp", x, y)
            bench.wire((24, y), (60, y))
            bench.new("draw-band", sheet_id=bench.sheet, x1=40, y1=y - 2, x2=40, y2=y + 2)
        first, second = sorted(c.device_id for c in bench.project.cables.values())
        bench.do("assign-part", device_id=first, part_id="QL-C4G2.5")
        bench.do("set-cable", device_id=first, length_m=12)
        rows = run_report(bench.project, "cable-cuts").rows
        self.assertEqual([row[0] for row in rows], ["-WD1", "-WD2"])
        tag, number, _, length, start, off, end, _, strip, cores, _, missing = rows[0]
        self.assertEqual((number, length, start, end, cores, missing), ("QL-C4G2.5", 12, "-PF1", "-PF2", 4, ""))
        self.assertEqual(off, 80 + float(str(strip)))
        self.assertEqual(rows[1][-1], "no length, no part")
        self.assertTrue(second and tag)
