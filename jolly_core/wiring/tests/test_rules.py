"""Numbering rules: which names a net, what the pieces say, what runs where, what is listed before it is done."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from jolly_core.model import RuleError
from jolly_core.tagging import full_tag, pins_of
from jolly_core.testing import Workbench
from jolly_core.wiring import sheet_groups, wire_numbers


def running(**values: Any) -> dict[str, Any]:
    """Return a running piece."""
    return {"piece": "running", **values}


def by_place(bench: Workbench, sheet_id: str = "") -> dict[tuple[int, int], str]:
    """Return the number of each wire of a sheet by its upper left end."""
    sheet_id = sheet_id or bench.sheet
    groups, numbers = sheet_groups(bench.project, sheet_id), wire_numbers(bench.project, sheet_id)
    return {(w.x1, w.y1): numbers.get(groups.of_wire[w.id], "") for w in bench.project.wires_on(sheet_id)}


class Rules(TestCase):
    def drawn(self) -> Workbench:
        bench = Workbench(frame="zones")
        for y in (20, 30, 40):
            bench.wire((20, y), (60, y), type_id=bench.red if y == 40 else bench.blue)
        return bench

    def test_the_first_that_holds_names_the_net(self) -> None:
        bench = self.drawn()
        self.assertEqual(list(by_place(bench).values()), ["30-1", "30-2", "30-3"])
        bench.do("change-wire-types", changes=[{"wire_type_id": bench.red, "category": "power"}])
        text = {"piece": "text", "text": "P"}
        bench.do("put-number-rule", name="Power", category="power", pieces=[text, running(digits=2, start=10)])
        self.assertEqual(by_place(bench)[20, 40], "P10")
        self.assertEqual(by_place(bench)[20, 20], "30-1")
        rest = bench.new("put-number-rule", name="All", pieces=[running(digits=3, start=1)])
        self.assertEqual(by_place(bench), {(20, 20): "001", (20, 30): "002", (20, 40): "P10"})
        bench.do("order-number-rules", ids=[rest])
        self.assertEqual(by_place(bench)[20, 40], "003")

    def test_a_stroke_parts_numbers_where_every_longer_one_reads_like_that_of_another_sheet(self) -> None:
        """With sheets 301 to 309, from the tenth net of sheet 30 on each number reads like one of theirs."""
        bench = Workbench(frame="zones")
        for number in range(301, 310):
            bench.new("add-sheet", number=str(number), frame="zones")
        bench.do("put-number-rule", name="Short", pieces=[{"piece": "sheet"}, running(digits=1, start=1)])
        for n in range(14):
            bench.wire((20, 16 + 4 * n), (60, 16 + 4 * n), type_id=bench.blue)
        numbers = list(by_place(bench).values())
        self.assertEqual(numbers, [f"30{n}" for n in range(1, 10)] + [f"30-{n}" for n in range(10, 15)])

    def test_numbers_without_sheet_or_line_run_over_the_project_and_skip_fixed_ones(self) -> None:
        bench = self.drawn()
        other = bench.new("add-sheet", number="40", frame="zones")
        bench.wire((20, 20), (60, 20), sheet_id=other)
        bench.do("put-number-rule", name="All", pieces=[running()])
        self.assertEqual(by_place(bench, other), {(20, 20): "4"})
        first = next(w for w in bench.project.wires.values() if w.y1 == 40)
        bench.do("fix-wire-number", wire_id=first.id, number="1")
        self.assertEqual(by_place(bench), {(20, 20): "2", (20, 30): "3", (20, 40): "1"})
        self.assertEqual(by_place(bench, other), {(20, 20): "4"})

    def test_a_terminal_passes_a_potential_s_number_on_but_not_a_net_s(self) -> None:
        bench = Workbench(frame="zones")
        bench.wire((20, 20), (60, 20))
        bench.place("terminal", 40, 20)
        self.assertEqual(set(by_place(bench).values()), {"30-1"})
        bench.do("put-number-rule", name="Each", pieces=[running()], scope="net")
        self.assertEqual(by_place(bench), {(20, 20): "1", (42, 20): "2"})

    def test_field_wires_get_no_number_though_the_panel_side_has_one(self) -> None:
        bench = Workbench(frame="zones")
        field = bench.new("add-wire-type", name="Field", colour="GY", numbered=False, outside=True)
        bench.wire((20, 20), (40, 20))
        bench.wire((42, 20), (60, 20), type_id=field)
        bench.place("terminal", 40, 20)
        self.assertEqual(by_place(bench), {(20, 20): "30-1", (42, 20): ""})

    def test_a_fuse_terminal_parts_potentials(self) -> None:
        bench = Workbench(frame="zones")
        bench.wire((20, 20), (60, 20))
        bench.place("terminal-fuse", 40, 20)
        self.assertEqual(sorted(by_place(bench).values()), ["30-1", "30-2"])

    def test_names_of_potentials(self) -> None:
        bench = self.drawn()
        bench.new("place-continuation", sheet_id=bench.sheet, x=20, y=20, name="24 V")
        bench.do("put-number-rule", name="Named", pieces=[{"piece": "potential"}], potential="24 V")
        self.assertEqual(by_place(bench), {(20, 20): "24 V", (20, 30): "30-1", (20, 40): "30-2"})

    def test_addresses_of_channels(self) -> None:
        bench = self.drawn()
        card = bench.do("add-card", part_id="harrick-hr-di8" if False else "HR-DI8", start="3.0").placed
        device = next(c.device_id for c in bench.project.cards.values())
        self.assertTrue(card)
        bench.place("plc-input", 60, 30, device_id=device)
        bench.do("put-number-rule", name="Address", pieces=[{"piece": "address"}], at_channel=True)
        self.assertRegex(by_place(bench)[20, 30], r"3\.0$")

    def test_line_and_column(self) -> None:
        bench = Workbench()
        bench.wire((20, 25), (60, 25))
        bench.do("put-number-rule", name="L", pieces=[{"piece": "line"}, {"piece": "text", "text": "/"}, running()])
        self.assertEqual(by_place(bench), {(20, 25): "302/1"})
        zones = Workbench(frame="zones")
        zones.wire((20, 25), (60, 25))
        zones.do("put-number-rule", name="C", pieces=[{"piece": "sheet"}, {"piece": "column"}, running(digits=2)])
        self.assertEqual(by_place(zones), {(20, 25): "30101"})

    def test_rules_that_cannot_be_are_refused(self) -> None:
        bench = self.drawn()
        for pieces, words in (
            ([running(), running()], "at most one running"),
            ([{"piece": "sheet"}], "All nets would get one number"),
            ([{"piece": "text", "text": " "}, running()], "no words"),
        ):
            with self.assertRaisesRegex(RuleError, words):
                bench.do("put-number-rule", name="X", pieces=pieces)
        bench.do("put-number-rule", name="X", pieces=[running()])
        with self.assertRaisesRegex(RuleError, "already a rule"):
            bench.do("put-number-rule", name="X", pieces=[running()])

    def test_the_table_says_what_becomes_what(self) -> None:
        bench = self.drawn()
        outcome = bench.do("put-number-rule", name="All", pieces=[running(start=7)])
        self.assertEqual(
            outcome.table,
            [["Sheet", "Number now", "Number then"], ["30", "30-1", "7"], ["30", "30-2", "8"], ["30", "30-3", "9"]],
        )


class Fixing(TestCase):
    def test_a_sheet_s_numbers_are_fixed_as_they_are_and_let_run_again(self) -> None:
        bench = Workbench(frame="zones")
        for y in (30, 40):
            bench.wire((20, y), (60, y))
        bench.do("fix-numbers", sheet_ids=[bench.sheet], fixed=True)
        bench.wire((20, 20), (60, 20))
        self.assertEqual(by_place(bench), {(20, 20): "30-3", (20, 30): "30-1", (20, 40): "30-2"})
        last = next(w for w in bench.project.wires.values() if w.y1 == 40)
        outcome = bench.do("fix-numbers", ids=[last.id], fixed=False)
        self.assertEqual(by_place(bench), {(20, 20): "30-2", (20, 30): "30-1", (20, 40): "30-3"})
        self.assertIn(["30", "30-2", "30-3"], outcome.table)


class Tags(TestCase):
    def test_numbered_again_in_reading_order_fixed_ones_kept(self) -> None:
        bench = Workbench(frame="zones")
        placed = [bench.place("lamp", 20, y) for y in (60, 40, 20)]
        bench.do("set-tag", device_id=bench.device(placed[1]), tag="PF1")
        outcome = bench.do("number-tags", sheet_ids=[bench.sheet])
        self.assertEqual([bench.tag(i) for i in placed], ["PF3", "PF1", "PF2"])
        self.assertEqual(outcome.table[0], ["Tag now", "Tag then"])
        bench.do("number-tags", start=10, free_fixed=True)
        self.assertEqual([bench.tag(i) for i in placed], ["PF12", "PF11", "PF10"])

    def test_letters_of_a_class(self) -> None:
        bench = Workbench(frame="zones")
        lamp = bench.place("lamp", 20, 20)
        bench.do("put-tag-rule", part_class="lamp", letters="H")
        self.assertEqual(bench.tag(lamp), "H1")
        self.assertEqual(bench.tag(bench.place("lamp", 20, 30)), "H2")
        bench.do("put-tag-rule", part_class="lamp")
        self.assertEqual(bench.tag(lamp), "PF1")
        self.assertEqual(full_tag(bench.project, bench.project.devices[bench.device(lamp)]), "-PF1")
        with self.assertRaisesRegex(RuleError, "which letters"):
            bench.do("put-tag-rule", part_class="lamp")

    def test_a_place_names_its_devices_otherwise_and_what_goes_there_follows(self) -> None:
        bench = Workbench(frame="zones")
        field = bench.new("add-location", code="F9", text="Field", side="field")
        inner = bench.new("add-location", code="A", text="Carriage", side="machine", parent_id=field)
        lamp, other = bench.place("lamp", 20, 20), bench.place("lamp", 20, 30)
        bench.do("set-place", device_id=bench.device(lamp), function_id="", location_id=inner)
        self.assertEqual(bench.tag(lamp), "PF1")
        outcome = bench.do("put-tag-rule", part_class="lamp", location_id=field, letters="H", start=101)
        self.assertEqual(outcome.table, [["Tag now", "Tag then"], ["PF1", "H101"]])
        bench.do("put-tag-rule", part_class="lamp", letters="P")
        self.assertEqual([bench.tag(lamp), bench.tag(other)], ["H101", "P1"])
        bench.do("set-place", device_id=bench.device(other), function_id="", location_id=field)
        self.assertEqual(bench.tag(other), "H101")  # another place, so the number is free there
        bench.do("set-place", device_id=bench.device(other), function_id="", location_id="")
        self.assertEqual(bench.tag(other), "P1")


class Terminals(TestCase):
    def test_numbers_of_a_strip_by_its_wires(self) -> None:
        bench = Workbench(frame="zones")
        for y in (20, 30):
            bench.wire((20, y), (60, y))
        bench.wire((20, 40), (60, 40), type_id=bench.pe)
        made = bench.do("place-terminals", sheet_id=bench.sheet, x1=40, y1=18, x2=40, y2=44).placed
        self.assertEqual(bench.symbol(made[2]).definition, "terminal-earth")
        strip = bench.device(made[0])
        bench.do("set-strip", strip_id=strip, numbering="wire")
        self.assertEqual([pins_of(bench.project, bench.symbol(i))[0] for i in made], ["30-1", "30-2", "30-3"])
        bench.do("set-strip", strip_id=strip, numbering="order")
        self.assertEqual([pins_of(bench.project, bench.symbol(i))[0] for i in made], ["1", "2", "3"])
