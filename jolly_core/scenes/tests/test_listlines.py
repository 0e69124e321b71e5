"""Lists on leaves: the lines of a row stay together, and headings with what they are above."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.drawing import ADVANCE
from jolly_core.exchange import read_project
from jolly_core.model import Sheet
from jolly_core.reports import Column, Cooked, Group, Row, cook, plain_recipe
from jolly_core.scenes import Line, list_leaves, texts_in
from jolly_core.testing import DEMO, Workbench

from ..lists.leaves import grid_on
from ..lists.reports import _columns, _ListLine, _spans

ROOM = 20
# A row of so many lines, below a heading or not.
blocks = st.lists(st.tuples(st.booleans(), st.integers(1, 6)), min_size=1, max_size=40)


class Together(TestCase):
    @given(blocks)
    def test_no_leaf_begins_within_a_row_or_ends_with_a_heading(self, given_blocks: list[tuple[bool, int]]) -> None:
        lines: list[_ListLine] = []
        for heading, count in given_blocks:
            lines += [_ListLine([("group", "")], wide=True)] if heading else []
            lines += [_ListLine([(str(n), "")], goes_on=n > 0) for n in range(count)]
        spans = _spans(lines, ROOM)
        self.assertEqual([a for a, _ in spans], [0, *(b for _, b in spans[:-1])], "every line once, in order")
        self.assertEqual(spans[-1][1], len(lines))
        for first, last in spans:
            self.assertLessEqual(last - first, ROOM)
            self.assertFalse(lines[first].goes_on)
            self.assertFalse(lines[last - 1].wide)

    def test_a_row_that_is_longer_than_a_leaf_goes_on_on_the_next(self) -> None:
        lines = [_ListLine([(str(n), "")], goes_on=n > 0) for n in range(50)]
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


A4 = Sheet("list", "List", kind="report", size="A4", frame="zones")
# Columns: how wide the report has them, letters of their longest cell.
tables = st.lists(st.tuples(st.integers(3, 40), st.integers(0, 90)), min_size=1, max_size=12)


class Widths(TestCase):
    @staticmethod
    def listed(given_columns: list[tuple[int, int]]) -> Cooked:
        columns = tuple(Column(f"c{n}", "C", width) for n, (width, _) in enumerate(given_columns))
        rows = [Row.of(["x" * letters for _, letters in given_columns])]
        return Cooked("T", tuple(c.key for c in columns), columns, [Group("", rows)], (), "", "none", breaks=False)

    @given(tables)
    def test_together_as_wide_as_told_and_only_what_is_to_spare_is_given_away(
        self, given_columns: list[tuple[int, int]]
    ) -> None:
        told = grid_on(A4, [("C", 2.0 * width) for width, _ in given_columns]).widths
        found = [width for _, width in _columns(A4, self.listed(given_columns))]
        self.assertAlmostEqual(sum(found), sum(told), places=3)
        for was, now, (_, letters) in zip(told, found, given_columns, strict=True):
            needed = max(1, letters) * ADVANCE * 2.6 + 2.01
            self.assertGreaterEqual(now + 1e-6, min(was, needed))
            self.assertLessEqual(now, max(was, needed) + 1e-6)

    def test_who_lacks_little_is_served_before_one_long_text(self) -> None:
        found = [width for _, width in _columns(A4, self.listed([(40, 5), (8, 20), (30, 400), (100, 50)]))]
        self.assertGreaterEqual(found[1], 20 * ADVANCE * 2.6 + 2)

    def test_a_tag_is_not_broken_at_its_hyphens(self) -> None:
        tags = [f"=K2+KP2-BG{n}" for n in range(1, 40)]
        column = Column("for", "For", 12)
        cooked = Cooked(
            "T", ("for",), (column,), [Group("", [Row.of([", ".join(tags)])])], (), "", "none", breaks=False
        )
        leaves = list_leaves(Workbench(frame="zones").project, A4, None, cooked)
        items = [i for leaf in leaves for i in leaf.items.values() if i.id.startswith("row:")]
        said = [word.rstrip(",") for item in items for text in texts_in(item) for word in text.words.split()]
        self.assertEqual(said, tags)
