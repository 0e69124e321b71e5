"""Lists on leaves: the lines of a row stay together, and headings with what they are above."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.exchange import read_project
from jolly_core.reports import cook, plain_recipe
from jolly_core.scenes import Line, list_leaves, texts_in
from jolly_core.scenes.lists import _Line, _spans
from jolly_core.testing import DEMO

ROOM = 20
# A row of so many lines, below a heading or not.
blocks = st.lists(st.tuples(st.booleans(), st.integers(1, 6)), min_size=1, max_size=40)


class Together(TestCase):
    @given(blocks)
    def test_no_leaf_begins_within_a_row_or_ends_with_a_heading(self, given_blocks: list[tuple[bool, int]]) -> None:
        lines: list[_Line] = []
        for heading, count in given_blocks:
            lines += [_Line([("group", "")], wide=True)] if heading else []
            lines += [_Line([(str(n), "")], goes_on=n > 0) for n in range(count)]
        spans = _spans(lines, ROOM)
        self.assertEqual([a for a, _ in spans], [0, *(b for _, b in spans[:-1])], "every line once, in order")
        self.assertEqual(spans[-1][1], len(lines))
        for first, last in spans:
            self.assertLessEqual(last - first, ROOM)
            self.assertFalse(lines[first].goes_on)
            self.assertFalse(lines[last - 1].wide)

    def test_a_row_that_is_longer_than_a_leaf_goes_on_on_the_next(self) -> None:
        lines = [_Line([(str(n), "")], goes_on=n > 0) for n in range(50)]
        self.assertEqual(_spans(lines, ROOM), [(0, 20), (20, 40), (40, 50)])

    def test_there_is_no_rule_between_the_lines_of_a_row(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        sheet = next(s for s in project.sheets.values() if s.kind == "report" and s.report == "parts")
        cooked = cook(project, plain_recipe("parts"))
        leaves = list_leaves(project, sheet, None, cooked)
        rows = [i for leaf in leaves for i in leaf.items.values() if i.id.startswith("row:")]
        ruled = sum(any(isinstance(p, Line) for p in item.prims) for item in rows)
        self.assertEqual(ruled, len(cooked.rows))
        self.assertGreater(len(rows), ruled, "some rows take several lines")
        for leaf in leaves:
            first = next(i for i in leaf.items.values() if i.id.startswith("row:"))
            self.assertTrue(next(iter(texts_in(first))).words.isdigit(), "a leaf begins with a position")
