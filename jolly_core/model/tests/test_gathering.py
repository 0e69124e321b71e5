"""What stands on all sheets, put together: lists read as one."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.checks import all_snags, project_snags, snags_on
from jolly_core.testing import Workbench

from ..gathering import Joined


class JoinedLists(TestCase):
    @given(st.lists(st.lists(st.integers(0, 3), max_size=3), max_size=4), st.lists(st.lists(st.integers(0, 3))))
    def test_they_read_as_one_list(self, parts: list[list[int]], others: list[list[int]]) -> None:
        whole, other = Joined(parts), Joined(others)
        plain, else_ = [x for part in parts for x in part], [x for part in others for x in part]
        self.assertEqual((len(whole), list(whole), whole[1:]), (len(plain), plain, plain[1:]))
        self.assertEqual([whole[n] for n in range(-len(plain), len(plain))], plain + plain)
        for beyond in (len(plain), -len(plain) - 1):
            with self.assertRaises(IndexError):
                whole[beyond]
        self.assertEqual((whole == plain, whole == other, whole == else_), (True, plain == else_, plain == else_))

    def test_all_snags_are_those_of_the_sheets_then_the_others_and_follow_each_edit(self) -> None:
        bench = Workbench()
        other = bench.new("add-sheet", number="31", frame="ladder")
        for sheet in (bench.sheet, other):
            bench.do("place-symbol", sheet_id=sheet, definition="contact-no", x=40, y=16)
        project = bench.project

        def told() -> list[str]:
            sheets = [s for sheet in project.sheets_in_order() for s in snags_on(project, sheet.id)]
            return [s.message for s in (*sheets, *project_snags(project))]

        before = [s.message for s in all_snags(project)]
        self.assertEqual(before, told())
        bench.do("place-symbol", sheet_id=bench.sheet, definition="coil", x=60, y=20)
        self.assertEqual([s.message for s in all_snags(project)], told())
        self.assertNotEqual(told(), before)
