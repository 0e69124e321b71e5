"""Terminals that are planned before they are drawn: made in one act, numbered, drawn later, the same ones."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.edits.base.history import take_back
from jolly_core.model import RuleError
from jolly_core.reports import run_report
from jolly_core.tagging import full_tag, pin_name, product_tag
from jolly_core.terminals import strip_rows, strip_sum, strip_width_mm, strips, waiting_rows
from jolly_core.testing import Workbench


class Planned(TestCase):
    def setUp(self) -> None:
        """A panel, and a strip of 36 planned on it before anything is drawn."""
        self.bench = Workbench(frame="zones")
        self.project = self.bench.project
        self.panel = self.bench.new("add-location", code="P1", side="panel")
        bracket = {"accessories": ["end-bracket"], "accessory_part_id": "QL-EB"}
        self.strip = self.bench.new(
            "make-strip",
            location_id=self.panel,
            text="Field",
            count=36,
            start=1,
            part_id="QL-T2-5",
            first=bracket,
            last={**bracket, "terminal_kind": "earth", "part_id": "QL-T2-5E"},
        )

    def numbers(self) -> list[str]:
        return [r.number for r in strip_rows(self.project, self.strip) if r.kind == "terminal"]

    def codes(self) -> set[str]:
        return {s.code for s in project_snags(self.project)}

    def test_a_strip_of_36_is_made_in_one_act_and_counts_though_nothing_is_drawn(self) -> None:
        self.assertEqual([full_tag(self.project, s) for s in strips(self.project)], ["+P1-XD1"])
        rows = strip_rows(self.project, self.strip)
        self.assertEqual([rows[0].kind, rows[-1].kind], ["end-bracket", "end-bracket"])
        self.assertEqual(self.numbers(), [str(n) for n in range(1, 37)])
        self.assertEqual([r.terminal_kind for r in rows[34:37]], ["feed-through", "feed-through", "earth"])
        self.assertEqual(strip_width_mm(self.project, self.strip), 206.2, "36 of 5.2 mm and two brackets of 9.5 mm")
        found = strip_sum(self.project, self.strip)
        self.assertEqual((found.count, found.free, found.spare, found.waiting), (36, 36, 0, 36))
        needed = {row[4]: row[1] for row in run_report(self.project, "parts").rows}
        self.assertEqual((needed["QL-T2-5"], needed["QL-T2-5E"], needed["QL-EB"]), (35, 1, 2))
        self.assertIn("terminal-planned", self.codes())

    def test_numbers_from_the_other_end_and_the_last_three_by_hand(self) -> None:
        self.bench.do("number-terminals", strip_id=self.strip, way="order", start=1, backward=True)
        self.assertEqual((self.numbers()[0], self.numbers()[-1]), ("36", "1"))
        self.bench.do("number-terminals", strip_id=self.strip, way="order", start=1)
        outcome = self.bench.do("number-terminals", strip_id=self.strip, units=[34, 35, 36], start=44)
        self.assertEqual(outcome.table, [["34", "44"], ["35", "45"], ["36", "46"]])
        self.assertEqual(self.numbers()[-4:], ["33", "44", "45", "46"])
        self.bench.do("set-tag", device_id=self.strip, tag="X7")
        self.assertEqual(product_tag(self.project, self.project.devices[self.strip]), "X7")
        self.assertEqual([s.id for s in strips(self.project)], [self.strip])

    def test_what_is_drawn_later_are_the_same_terminals(self) -> None:
        self.bench.do("number-terminals", strip_id=self.strip, units=[34, 35, 36], start=44)
        for y in range(20, 32, 2):
            self.bench.wire((20, y), (80, y))
        row = {"sheet_id": self.bench.sheet, "device_id": self.strip, "y1": 19, "y2": 31}
        first = self.bench.do("place-terminals", x1=30, x2=30, **row).placed
        names = [pin_name(self.project, (id, 0)) for id in first]
        self.assertEqual(names, [f"+P1-XD1:{n}" for n in range(1, 7)])
        second = self.bench.do("place-terminals", x1=50, x2=50, units=[35, 34, 10, 11, 12, 36], **row).placed
        self.assertEqual(
            [pin_name(self.project, (id, 0)).rsplit(":")[1] for id in second], ["45", "44", "10", "11", "12", "46"]
        )
        self.assertEqual(self.project.symbols[second[-1]].definition, "terminal-earth")
        self.assertEqual(len(waiting_rows(self.project, self.strip)), 24)
        self.assertEqual(len(self.numbers()), 36, "none came to those planned")
        self.bench.do("delete-selection", ids=[first[0]])
        self.assertEqual((len(self.numbers()), len(waiting_rows(self.project, self.strip))), (36, 25))

    def test_one_is_put_on_a_wire_and_not_twice(self) -> None:
        self.bench.wire((20, 40), (80, 40))
        place = {"sheet_id": self.bench.sheet, "definition": "terminal", "device_id": self.strip, "poles": 1}
        one = self.bench.new("place-symbol", x=40, y=40, unit=5, **place)
        self.assertEqual(pin_name(self.project, (one, 0)), "+P1-XD1:5")
        with self.assertRaisesRegex(RuleError, "drawn already"):
            self.bench.do("place-symbol", x=60, y=40, unit=5, **place)
        with self.assertRaisesRegex(RuleError, "crosses 1 wires, and 0|drawn already"):
            self.bench.do(
                "place-terminals",
                sheet_id=self.bench.sheet,
                x1=70,
                y1=38,
                x2=70,
                y2=42,
                device_id=self.strip,
                units=[5],
            )

    def test_spare_ones_are_not_drawn_and_not_missed(self) -> None:
        self.bench.do("set-terminals", strip_id=self.strip, units=list(range(1, 37)), spare=True)
        self.assertNotIn("terminal-planned", self.codes())
        self.bench.wire((20, 40), (80, 40))
        stroke = {"sheet_id": self.bench.sheet, "x1": 40, "y1": 38, "x2": 40, "y2": 42, "device_id": self.strip}
        (id,) = self.bench.do("place-terminals", **stroke).placed
        self.assertEqual(self.project.symbols[id].units, (37,))
        with self.assertRaisesRegex(RuleError, "is drawn; a spare terminal is on no sheet"):
            self.bench.do("set-terminals", strip_id=self.strip, units=[37], spare=True)

    def test_many_are_put_in_before_and_after_and_taken_off(self) -> None:
        self.bench.do("plan-terminals", strip_id=self.strip, count=2, at="u1", side="before", terminal_kind="fuse")
        rows = strip_rows(self.project, self.strip)
        self.assertEqual([r.terminal_kind for r in rows[1:4]], ["fuse", "fuse", "feed-through"])
        self.assertEqual([r.number for r in rows[1:4]], ["1", "2", "3"])
        self.bench.do("plan-terminals", strip_id=self.strip, count=1, levels=2, at="u36", part_id="QL-K2-5D")
        block = strip_rows(self.project, self.strip)[-3:-1]
        self.assertEqual([(r.level, r.width_mm, r.number) for r in block], [(1, 5.2, "39"), (2, 0.0, "40")])
        needed = {row[4]: row[1] for row in run_report(self.project, "parts").rows}
        self.assertEqual(needed["QL-K2-5D"], 1, "two levels are one piece")
        keys = [f"u{r.unit}" for r in block]
        self.bench.do("remove-strip-items", strip_id=self.strip, keys=keys)
        self.assertEqual((len(self.numbers()), "quillon-ql-k2-5d" in self.project.parts), (38, False))
        with self.assertRaisesRegex(RuleError, "is gone"):
            self.bench.do("remove-strip-items", strip_id=self.strip, keys=keys)
        with self.assertRaisesRegex(RuleError, "has 2 level"):
            self.bench.do("plan-terminals", strip_id=self.strip, levels=3, part_id="QL-K2-5D")
        with self.assertRaisesRegex(RuleError, "of the kind earth, not fuse"):
            self.bench.do("plan-terminals", strip_id=self.strip, terminal_kind="fuse", part_id="QL-T4E")

    def test_a_distribution_is_one_potential_over_blocks_and_levels(self) -> None:
        made = self.bench.new("make-strip", location_id=self.panel, count=0)
        self.bench.do("plan-terminals", strip_id=made, count=2, levels=2, bridged=True)
        units = sorted(b.units for b in self.project.bridges.values())
        self.assertEqual(units, [(1, 2), (1, 3), (3, 4)])

    def test_an_empty_strip_stays_and_all_is_undone_to_the_start(self) -> None:
        before = len(strips(self.project))
        outcome = self.bench.do("make-strip", location_id=self.panel, text="Later")
        self.assertEqual(len(strips(self.project)), before + 1)
        self.project.apply(take_back(self.project, outcome.changes))
        self.assertEqual(len(strips(self.project)), before)
        with self.assertRaisesRegex(RuleError, "at least so many terminals"):
            self.bench.do("make-strip", count=1, first={"terminal_kind": "earth"}, last={"terminal_kind": "earth"})

    def test_a_strip_goes_with_all_that_is_planned_but_not_with_what_is_drawn(self) -> None:
        self.bench.do("remove-strip", strip_id=self.strip)
        self.assertEqual((strips(self.project), self.project.strip_items, self.project.parts), ([], {}, {}))
        again = self.bench.new("make-strip", location_id=self.panel, count=2)
        self.bench.wire((20, 40), (80, 40))
        self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=40, y1=38, x2=40, y2=42, device_id=again)
        with self.assertRaisesRegex(RuleError, "1 terminal of -XD1 on sheets. Delete them there first."):
            self.bench.do("remove-strip", strip_id=again)

    def test_a_made_strip_keeps_its_tag_when_it_is_drawn_also_with_tags_by_line(self) -> None:
        bench = Workbench(tag_habit="line")
        strip = bench.new("make-strip", count=4)
        tag = full_tag(bench.project, bench.project.devices[strip])
        bench.wire((20, 16), (60, 16))
        bench.do("place-terminals", sheet_id=bench.sheet, x1=40, y1=14, x2=40, y2=18, device_id=strip)
        self.assertEqual(full_tag(bench.project, bench.project.devices[strip]), tag)
