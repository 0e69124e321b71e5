"""Groups of a sheet against a plain reference that joins points one by one, on random sheets and after random edits."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from jolly_core.drawing import SheetDraft, carried_pins, pin_points
from jolly_core.model import IdSource, Project, RuleError
from jolly_core.testing import Workbench
from jolly_core.wiring import sheet_groups

point = st.tuples(st.integers(6, 40), st.integers(6, 40))
act = st.tuples(st.sampled_from(["across", "down", "lamp", "terminal", "mark", "move"]), point, st.integers(2, 14))


def reference(project: Project, sheet_id: str) -> dict[str, frozenset[str]]:
    """Return for each thing on a sheet what it is joined with, point by point: the slow and plain way."""
    at: dict[tuple[int, int], set[str]] = {}
    for w in project.wires_on(sheet_id):
        for end in ((w.x1, w.y1), (w.x2, w.y2)):
            at.setdefault(end, set()).add(w.id)
    for s in project.symbols_on(sheet_id):
        for n, place in enumerate(pin_points(s)):
            at.setdefault(place, set()).add(f"{s.id}:{n}")
    for c in project.continuations_on(sheet_id):
        at.setdefault((c.x, c.y), set()).add(c.id)
    joined = [set(names) for names in at.values()]
    merged = True
    while merged:
        merged = False
        for one in joined:
            other = next((o for o in joined if o is not one and o & one), None)
            if other is not None:
                one |= other
                joined.remove(other)
                merged = True
                break
    return {name: frozenset(names) for names in joined for name in names}


def groups(project: Project, sheet_id: str) -> dict[str, frozenset[str]]:
    """Return the same from the groups that are kept."""
    found: dict[str, frozenset[str]] = {}
    for group in sheet_groups(project, sheet_id).groups:
        names = frozenset([*group.wires, *group.continuations, *(f"{id}:{n}" for id, n in group.pins)])
        found.update(dict.fromkeys(names, names))
    return found


class Groups(TestCase):
    @settings(max_examples=150, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(act, min_size=1, max_size=14))
    def test_they_join_what_the_plain_way_joins(self, acts: list[tuple[str, tuple[int, int], int]]) -> None:
        bench = Workbench(frame="zones")
        for kind, (x, y), by in acts:
            try:
                if kind == "across":
                    bench.wire((x, y), (x + by, y))
                elif kind == "down":
                    bench.wire((x, y), (x, y + by))
                elif kind == "mark":
                    bench.do("place-continuation", sheet_id=bench.sheet, x=x, y=y, name=f"N{by}")
                elif kind == "move":
                    ids = sorted([*bench.project.symbols, *bench.project.wires])[by % 3 :: 3]
                    if ids:
                        bench.do("move-selection", ids=ids, dx=by - 8, dy=8 - by)
                else:
                    bench.place(kind, x, y)
            except RuleError:
                continue
            self.assertEqual(groups(bench.project, bench.sheet), reference(bench.project, bench.sheet))
        self.check_order_and_draft(bench)

    def check_order_and_draft(self, bench: Workbench) -> None:
        """Check reading order, the ways to groups, and that a draft parts the sheet's pins in the same way."""
        kept = sheet_groups(bench.project, bench.sheet)
        self.assertEqual(len(kept.by_point), len(kept.groups))
        for index, group in kept.by_point.items():
            self.assertEqual(group.key, (bench.sheet, group.point))
            self.assertEqual(group.point, index)
            places = [kept.points[pin] for pin in group.pins]
            self.assertEqual([(y, x) for x, y in places], sorted((y, x) for x, y in places))
            for pin, (x, y) in zip(group.pins, places, strict=True):
                self.assertEqual(kept.of_pin[pin], index)
                self.assertLessEqual(group.first, (y, x))
            for wire in group.wires:
                self.assertEqual(kept.of_wire[wire], index)
            for mark in group.continuations:
                self.assertEqual(kept.of_continuation[mark], index)
        carried = {
            (kept.of_pin[s.id, a], kept.of_pin[s.id, b])
            for s in bench.project.symbols_on(bench.sheet)
            for a, b in carried_pins(s)
        }
        for one, other in carried:
            if one != other:
                self.assertIn(other, kept.by_point[one].carried)
                self.assertIn(one, kept.by_point[other].carried)
        partition = SheetDraft(bench.project, bench.sheet, IdSource()).partition()
        by_root: dict[int, set[int]] = {}
        for name, root in partition.items():
            if name in kept.of_pin:
                by_root.setdefault(root, set()).add(kept.of_pin[name])
        self.assertTrue(all(len(indexes) == 1 for indexes in by_root.values()))
