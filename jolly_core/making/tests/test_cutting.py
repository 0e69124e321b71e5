"""The cutting plan: few bars, nothing lost, against the best there is for few pieces."""

from __future__ import annotations

from itertools import combinations
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.exchange import read_project
from jolly_core.making import cutting_plan, letter_height, packed
from jolly_core.reports import holes_in_order, positions, run_report
from jolly_core.testing import DEMO

STOCK = 2000.0


def fewest(lengths: list[float], kerf: float) -> int:
    """Return the fewest bars: of what is left the first piece and all that may lie beside it are taken in turn."""
    if not lengths:
        return 0
    first, *others = lengths
    return 1 + min(
        fewest(without(others, beside), kerf)
        for count in range(len(others) + 1)
        for beside in combinations(others, count)
        if first + sum(beside) + kerf * count <= STOCK + 1e-9
    )


def without(lengths: list[float], taken: tuple[float, ...]) -> list[float]:
    left = list(lengths)
    for length in taken:
        left.remove(length)
    return left


class Packing(TestCase):
    @settings(max_examples=40, deadline=None)
    @given(st.lists(st.integers(300, 1900).map(float), max_size=9), st.sampled_from((0.0, 3.0)))
    def test_no_way_takes_fewer_bars(self, lengths: list[float], kerf: float) -> None:
        bars = packed(lengths, STOCK, kerf)
        self.assertEqual(len(bars), fewest(lengths, kerf) if lengths else 0)
        self.assertEqual(sorted(n for bar in bars for n in bar), list(range(len(lengths))))
        for bar in bars:
            self.assertLessEqual(sum(lengths[n] for n in bar) + kerf * (len(bar) - 1), STOCK + 1e-9)

    def test_what_fits_by_no_greedy_way_is_found_and_what_is_too_long_has_its_own(self) -> None:
        # the longest first gives three bars; 1000 + 600 + 400 twice gives two
        self.assertEqual(len(packed([520, 500, 410, 390, 360, 350, 160, 150], 1000, 0)), 3)
        self.assertEqual(len(packed([1000, 600, 600, 1000, 400, 400], STOCK, 0)), 2)
        self.assertEqual(packed([2500, 900, 900], STOCK, 3), [[0], [1, 2]])
        self.assertEqual(packed([], STOCK), [])


class DemoPapers(TestCase):
    def setUp(self) -> None:
        self.project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())

    def test_every_rail_and_duct_is_sawn_once(self) -> None:
        bars = cutting_plan(self.project)
        self.assertEqual(sum(len(b.pieces) for b in bars), len(self.project.rails) + len(self.project.ducts))
        self.assertTrue(all(b.left_mm >= 0 and sum(p.length for p in b.pieces) <= b.stock_mm for b in bars))
        rows = run_report(self.project, "cutting").rows
        self.assertEqual(len(rows), len(bars))
        self.assertIn("=K2+KP2-UC2 D1", str(rows[0]))

    def test_holes_nameplates_and_weights_are_reports(self) -> None:
        enclosure = min(self.project.enclosures.values(), key=lambda e: e.id)
        found = holes_in_order(self.project, enclosure.id, "door")
        self.assertEqual({size for _, _, size, *_ in found}, {"⌀ 22.5"})
        rows = [r for r in run_report(self.project, "holes").rows if r[1] == "door" and r[2] == 1]
        self.assertEqual(rows[0][3:5], (found[0][0], found[0][1]))
        plates = run_report(self.project, "nameplates").rows
        lamps = [r for r in plates if str(r[1]).endswith("-PF1")]
        self.assertTrue(lamps)
        self.assertEqual(lamps[0][3], "-PF1")
        self.assertEqual(lamps[0][4:6], ("30 × 18", 2.5), "“Auger running”: 13 × 0.8 × 2.5 = 26 of 27 mm")
        weights = run_report(self.project, "weights").rows
        self.assertEqual(len(weights), len(self.project.enclosures))

    def test_letters_are_as_tall_as_the_plate_lets_them(self) -> None:
        for lines, size, wanted in (
            (("Stop", "-SF1"), (30.0, 18.0), 5.0),  # two lines: 2.6 × 5 = 13 of 15 mm; of 7 mm they need 18.2
            (("Turner carriage forward",), (30.0, 18.0), None),  # 23 × 0.8 × 1.8 = 33 mm
            (("Turner carriage forward",), (60.0, 18.0), 2.5),
            (("Kiln 2",), (120.0, 40.0), 14.0),
            (("Kiln 2",), (0.0, 0.0), None),
        ):
            self.assertEqual(letter_height(lines, *size), wanted, lines)

    def test_balloons_have_the_positions_of_the_parts_list(self) -> None:
        order = positions(self.project)
        for row in run_report(self.project, "parts").rows:
            part = next((p for p in self.project.parts.values() if p.number == row[4] and p.maker == row[3]), None)
            if part is not None and row[2] == "pcs":
                self.assertEqual(order[part.id], row[0])
