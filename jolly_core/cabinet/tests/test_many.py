"""What is found by going from left to right is what comparing everything with everything finds."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.cabinet.faults import _overlapping
from jolly_core.cabinet.fills import fullest_place
from jolly_core.cabinet.layout import Outline

mm = st.integers(0, 12).map(float)
boxes = st.lists(st.builds(Outline, mm, mm, mm, mm, mm), max_size=9)
stretches = st.lists(
    st.tuples(mm, mm, st.sampled_from((1.5, 2.0, 3.5))).map(lambda s: (min(s[:2]), max(s[:2]), s[2])), max_size=9
)


class Sweeps(TestCase):
    @given(boxes)
    def test_overlaps_are_those_of_all_pairs(self, boxes: list[Outline]) -> None:
        pairs = [(n, m) for n in range(len(boxes)) for m in range(n + 1, len(boxes)) if boxes[n].overlaps(boxes[m])]
        self.assertEqual(_overlapping(boxes), pairs)

    @given(stretches)
    def test_no_place_of_a_duct_is_fuller(self, stretches: list[tuple[float, float, float]]) -> None:
        def there(place: float) -> list[float]:
            return [d for low, high, d in stretches if low <= place < high or low == high == place]

        def area(wires: list[float]) -> float:
            return sum(d * d for d in wires)

        fullest = max((area(there(low)) for low, _, _ in stretches), default=0.0)
        self.assertAlmostEqual(area(fullest_place(stretches)), fullest)
        self.assertTrue(not stretches or fullest_place(stretches) in [there(low) for low, _, _ in stretches])
