"""Two people's edits interleaved, each undoing their own."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.model import ChangeSet, ConflictError, CoreError
from jolly_core.testing import Workbench

from ..base.history import take_back
from ..draw.quickline import parse

acts = st.lists(
    st.tuples(
        st.sampled_from(["anna", "jory"]), st.integers(0, 4), st.sampled_from(["text", "move", "lamp", "delete"])
    ),
    min_size=2,
    max_size=10,
)


class Interleaved(TestCase):
    @settings(max_examples=120, deadline=None)
    @given(acts)
    def test_undo_takes_back_ones_own_or_says_why_not(self, sequence: list[tuple[str, int, str]]) -> None:
        bench = Workbench(rails=True)
        for line in range(5):
            bench.wire((14, 16 + 9 * line), (82, 16 + 9 * line))
            bench.place("lamp", 40, 16 + 9 * line, text="as drawn")
        lamps = sorted(bench.project.symbols)
        done: dict[str, list[ChangeSet]] = {"anna": [], "jory": []}
        for step, (who, index, act) in enumerate(sequence):
            symbol = lamps[index]
            try:
                if act == "text":
                    bench.do("set-text", device_id=bench.device(symbol), text=f"{who} {step}")
                elif act == "move":
                    bench.do("move-selection", ids=[symbol], dx=step % 3 + 1, dy=0)
                elif act == "lamp":
                    bench.place("lamp", 60, 16 + 9 * index)
                else:
                    bench.do("delete-selection", ids=[symbol])
            except (CoreError, KeyError):
                continue
            done[who].append(bench.done[-1].changes)
        for who in ("anna", "jory"):
            for changes in reversed(done[who]):
                before = list(bench.project.entities())
                try:
                    inverse = take_back(bench.project, changes)
                except ConflictError as error:
                    self.assertTrue(error.message)
                    self.assertEqual(list(bench.project.entities()), before)
                    continue
                bench.project.apply(inverse)
                self.assertTrue(bench.canonical())
                for change in changes:
                    self.assertEqual(bench.project.tables[change.kind].get(change.id), change.before)


class AnyLine(TestCase):
    @settings(deadline=None)
    @given(st.text(alphabet='nco lamp,"@#-1A', max_size=40))
    def test_any_quick_line_is_read_or_refused_and_leaves_nothing_when_refused(self, line: str) -> None:
        bench = Workbench(rails=True)
        before = list(bench.project.entities())
        try:
            items = parse(line)
            placed = bench.do("place-row", sheet_id=bench.sheet, x=20, y=16, line=line, wire_type_id=bench.blue).placed
        except CoreError:
            self.assertEqual(list(bench.project.entities()), before)
            return
        self.assertEqual(len(placed), len(items))
        self.assertTrue(bench.canonical())
