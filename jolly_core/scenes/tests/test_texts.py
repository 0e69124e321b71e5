"""Texts on papers: what can be read at a scale, cells of two lines, rows of terminals, references in blocks."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.drawing import ADVANCE
from jolly_core.scenes import Prim, Text, fit, lay, legible
from jolly_core.testing import Workbench

from ..base.primitives import SMALLEST_MM, RoleName, text
from ..lists.leaves import ROW_MM, cell
from ..room.crowding import Crowd, meet, text_box
from ..sheet.rows import named_on

measures = st.floats(-50, 400, allow_nan=False).map(lambda v: round(v, 2))
boxes = st.tuples(measures, measures, st.floats(0.5, 60), st.floats(0.5, 20)).map(
    lambda b: (b[0], b[1], b[0] + b[2], b[1] + b[3])
)


ROLE_NAMES: list[RoleName] = ["tag", "text", "number", "title"]


class Legible(TestCase):
    @given(st.floats(0.05, 1), st.lists(st.tuples(st.sampled_from(ROLE_NAMES), st.floats(1, 20))))
    def test_nothing_smaller_than_can_be_read_and_no_tag_lost(
        self, scale: float, told: list[tuple[RoleName, float]]
    ) -> None:
        prims: list[Prim] = [text(0, 0, size, "-FC1", role=role) for role, size in told]
        kept = [p for p in legible(prims, scale) if isinstance(p, Text)]
        self.assertTrue(all(p.size * scale >= SMALLEST_MM - 1e-3 for p in kept))
        for role in ("tag", "title"):
            self.assertEqual(sum(p.role == role for p in kept), sum(r == role for r, _ in told))

    @given(st.text("abcdefg-+= ", min_size=1, max_size=60).map(lambda t: t.strip() or "x"), st.floats(14, 60))
    def test_a_cell_keeps_its_words_in_at_most_two_lines_inside_its_row(self, words: str, width: float) -> None:
        lines = cell(10, width, 100, words)
        self.assertLessEqual(len(lines), 2)
        for p in lines:
            assert isinstance(p, Text)
            left, top, right, bottom = text_box(p)
            self.assertGreaterEqual(p.size, SMALLEST_MM - 1e-9)
            self.assertTrue(left >= 10 and right <= 10 + width + 1e-6)
            self.assertTrue(top >= 101.8 - ROW_MM - 0.35 and bottom <= 101.8 + 0.35, (top, bottom))

    @given(st.text("abc ", max_size=80), st.floats(4, 80), st.floats(2, 5))
    def test_fitted_texts_stay_inside_and_are_cut_only_at_the_smallest(
        self, words: str, width: float, size: float
    ) -> None:
        shown, at = fit(words, width, size)
        if shown != words:
            self.assertEqual((shown[-1], at), ("…", SMALLEST_MM if size > SMALLEST_MM else at))
        if len(shown) > 1:
            self.assertLessEqual(len(shown) * ADVANCE * at, max(width, 2 * ADVANCE * SMALLEST_MM) + 0.02 * len(shown))
        lines, shrunk = lay(words, width, 20, size)
        self.assertTrue(not lines or shrunk >= min(size, SMALLEST_MM))


class Crowded(TestCase):
    @given(st.lists(boxes, max_size=25), boxes)
    def test_what_is_free_is_what_meets_nothing(
        self, taken: list[tuple[float, float, float, float]], box: object
    ) -> None:
        assert isinstance(box, tuple)
        crowd = Crowd()
        for n, one in enumerate(taken):
            crowd.add(one, "mine" if n % 3 == 0 else "")
        others = [one for n, one in enumerate(taken) if n % 3]
        self.assertEqual(crowd.is_free(box, "mine"), not any(meet(box, one) for one in others))
        self.assertEqual(crowd.is_free(box), not any(meet(box, one) for one in taken))
        self.assertEqual(crowd.overlap(box, "mine") > 0, any(meet(box, one) for one in others))

    def test_its_own_lines_are_in_a_symbols_way_and_not_its_body(self) -> None:
        crowd = Crowd()
        crowd.add((0, 0, 20, 20), "a")
        crowd.add_line((5, 5, 6, 15), "a")
        self.assertTrue(crowd.is_free((10, 10, 14, 12), "a"))
        self.assertFalse(crowd.is_free((10, 10, 14, 12), "b"))
        self.assertFalse(crowd.is_free((4, 8, 8, 9), "a"), "its stroke")


class RowsOfTerminals(TestCase):
    @given(st.lists(st.integers(2, 20), min_size=1, max_size=7))
    def test_a_row_is_named_once_for_each_stretch_without_a_gap(self, steps: list[int]) -> None:
        bench = Workbench(frame="zones")
        places = [10]
        for step in steps:
            places.append(places[-1] + step)
        for x in places:
            bench.wire((x, 20), (x, 40))
        placed = bench.do("place-terminals", sheet_id=bench.sheet, x1=8, y1=30, x2=places[-1] + 2, y2=30).placed
        self.assertEqual(len(placed), len(places))
        gaps = sum(step > max(6, 1.5 * min(steps)) for step in steps)
        self.assertEqual(len(named_on(bench.project, bench.sheet)), 1 + gaps)
        self.assertIn(placed[0], named_on(bench.project, bench.sheet))
