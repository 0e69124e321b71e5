"""Sheets: adding, changing many, order, numbers, duplicates, moving things between them."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.model import SHEET_SIZES_MM, CoreError, GoneError, RuleError, Sheet
from jolly_core.tagging import full_tag, product_tag
from jolly_core.testing import Workbench
from jolly_core.wiring import nets_of_sheet, wire_numbers


def numbers(bench: Workbench) -> list[str]:
    return [s.number for s in bench.project.sheets_in_order()]


def titled(bench: Workbench, *titles: str, **more: Any) -> list[str]:
    return bench.do("add-sheets", sheets=[{"title": t, **more} for t in titles]).placed


class Adding(TestCase):
    def test_pasted_titles_become_sheets_that_go_on_from_the_last_number(self) -> None:
        bench = Workbench()
        titled(bench, "Fan, power", "Fan, control", "Burner")
        self.assertEqual(numbers(bench), ["30", "31", "32", "33"])
        self.assertEqual(bench.done[-1].label, "add sheets 31 to 33")
        self.assertEqual([s.first_line for s in bench.project.sheets_in_order()], [301, 311, 321, 331])

    def test_without_a_number_a_sheet_takes_the_one_after_its_neighbours(self) -> None:
        bench = Workbench()
        bench.do("add-sheets", sheets=[{"number": "50"}, {"number": "E1"}])
        bench.do("add-sheets", sheets=[{"title": "a"}, {"title": "b"}], after_id=bench.sheet)
        self.assertEqual(numbers(bench), ["30", "31", "32", "50", "E1"])
        bench.do("add-sheet", after_id=bench.sheet)
        self.assertEqual(numbers(bench)[1], "51", "31 is taken: one past the highest")
        bench.do("add-sheet", after_id=next(s.id for s in bench.project.sheets.values() if s.number == "E1"))
        self.assertEqual(numbers(bench)[-1], "52")

    def test_between_two_and_at_the_front_without_an_end_of_room(self) -> None:
        bench = Workbench()
        last = titled(bench, "Last")[0]
        for n in range(25):
            bench.do("add-sheet", number=f"b{n}", after_id=bench.sheet)
        bench.do("add-sheet", number="first", after_id="-")
        self.assertEqual(numbers(bench), ["first", "30", *(f"b{n}" for n in reversed(range(25))), "31"])
        self.assertEqual(len({s.order for s in bench.project.sheets.values()}), 28)
        with self.assertRaises(GoneError):
            bench.do("add-sheet", number="x", after_id="gone")
        self.assertIn(last, bench.project.sheets)

    def test_a_sheet_begins_as_the_habit_of_its_kind_says(self) -> None:
        bench = Workbench()
        bench.do("set-sheet-habit", sheet_kind="schematic", size="A2", frame="zones", columns=12)
        bench.do("set-sheet-habit", sheet_kind="contents", size="A4")
        drawn = bench.project.sheets[bench.new("add-sheet", number="1")]
        self.assertEqual((drawn.size, drawn.frame, drawn.columns), ("A2", "zones", 12))
        made = bench.project.sheets[bench.new("add-sheet", number="2", sheet_kind="contents", frame="ladder")]
        self.assertEqual((made.size, made.frame), ("A4", "zones"), "what is made has no ladder")
        own = bench.project.sheets[bench.new("add-sheet", number="3", size="A0", frame="ladder")]
        self.assertEqual((own.size, own.frame), ("A0", "ladder"), "what is said stands before the habit")
        with self.assertRaisesRegex(RuleError, "nothing|Nothing"):
            bench.do("set-sheet-habit", sheet_kind="contents", size="A4")

    def test_two_ladders_have_joined_rails_and_lines_that_go_on(self) -> None:
        bench = Workbench(standard="na", tag_habit="line")
        bench.do(
            "set-sheet-habit",
            sheet_kind="schematic",
            size="ANSI B",
            ladders=2,
            left_rail_type_id=bench.red,
            right_rail_type_id=bench.blue,
        )
        sheet = bench.project.sheets[bench.new("add-sheet", number="3")]
        self.assertEqual(len(nets_of_sheet(bench.project, sheet.id)), 2, "both left rails are one net, both right too")
        second = sheet.rail_left + sheet.ladder_pitch
        for x, tag in ((sheet.rail_left + 6, "CR31"), (second + 6, f"CR{31 + sheet.line_count}")):
            placed = bench.do(
                "place-row", sheet_id=sheet.id, x=x, y=sheet.line_top, line="coil", wire_type_id=bench.red
            ).placed
            self.assertEqual(bench.tag(placed[0]), tag)
        self.assertTrue(bench.canonical())
        self.assertEqual(len(nets_of_sheet(bench.project, sheet.id)), 2, "each rung ends on its own ladder's rails")

    def test_sizes_and_numbers_are_checked(self) -> None:
        bench = Workbench()
        for wrong, words in (
            ({"number": "30"}, "already a sheet 30"),
            ({"number": "1", "size": "A9"}, "A9"),
            ({"number": "1", "report": "rocket"}, "rocket"),
            ({"number": "1", "fields": {"title": "x"}}, "field there is already"),
        ):
            with self.subTest(words), self.assertRaisesRegex(RuleError, words):
                bench.do("add-sheet", **wrong)
        for size in SHEET_SIZES_MM:
            for ladders in (1, 2):
                with self.subTest(f"{size} {ladders}"):
                    bench.do("add-sheet", number=f"{size[-3:]}-{ladders}", size=size, ladders=ladders)


class Many(TestCase):
    def test_one_edit_sets_titles_size_and_own_texts_of_many(self) -> None:
        bench = Workbench()
        a, b = titled(bench, "a", "b")
        outcome = bench.do(
            "change-sheets",
            sheets=[
                {"sheet_id": a, "title": "Fan", "size": "A2", "fields": {"Checked against": "rev 3"}},
                {"sheet_id": b, "title": "Burner", "number": "40"},
            ],
        )
        self.assertEqual(len(outcome.changes), 2)
        sheets = bench.project.sheets
        self.assertEqual((sheets[a].title, sheets[a].size, sheets[b].number), ("Fan", "A2", "40"))
        bench.do("change-sheets", sheets=[{"sheet_id": a, "fields": {"Checked against": ""}}])
        self.assertEqual(bench.project.sheets[a].fields, {}, "an own text that is emptied is gone")

    def test_numbers_may_change_places_but_not_meet(self) -> None:
        bench = Workbench()
        (a,) = titled(bench, "a")
        swap = [{"sheet_id": a, "number": "30"}, {"sheet_id": bench.sheet, "number": "31"}]
        bench.do("change-sheets", sheets=swap)
        self.assertEqual(sorted(numbers(bench)), ["30", "31"])
        with self.assertRaisesRegex(RuleError, "already a sheet 30"):
            bench.do(
                "change-sheets", sheets=[{"sheet_id": a, "number": "30"}, {"sheet_id": bench.sheet, "number": "30"}]
            )

    def test_what_is_drawn_stays_on_the_paper_and_keeps_its_kind(self) -> None:
        bench = Workbench()
        bench.place("lamp", 150, 16)
        with self.assertRaisesRegex(RuleError, "sheet 30 reaches beyond A4"):
            bench.do("change-sheet", sheet_id=bench.sheet, size="A4")
        with self.assertRaisesRegex(RuleError, "is drawn on sheet 30"):
            bench.do("change-sheet", sheet_id=bench.sheet, sheet_kind="contents")

    def test_devices_follow_their_sheet_into_another_function_and_location(self) -> None:
        bench = Workbench()
        one, two = bench.new("add-function", code="K1"), bench.new("add-function", code="K2")
        field = bench.new("add-location", code="F1", side="field")
        bench.do("change-sheet", sheet_id=bench.sheet, function_id=one)
        coil, lamp = bench.place("coil", 40, 16), bench.place("lamp", 40, 25)
        bench.do("set-place", device_id=bench.device(lamp), function_id=one, location_id=field)
        other = titled(bench, "other", function_id=two)[0]
        bench.place("coil", 40, 16, sheet_id=other)
        bench.do("change-sheets", sheets=[{"sheet_id": bench.sheet, "function_id": two}], follow=True)
        tags = [full_tag(bench.project, bench.project.devices[bench.device(s)]) for s in (coil, lamp)]
        self.assertEqual(tags, ["=K2-KF2", "=K2+F1-PF1"], "a number that is taken there is given anew")


class OrderAndNumbers(TestCase):
    def test_dragged_behind_another_and_into_its_group(self) -> None:
        bench = Workbench()
        function = bench.new("add-function", code="K1")
        a, b, c = titled(bench, "a", "b", "c")
        bench.do("order-sheets", sheet_ids=[c, a], after_id="-", function_id=function)
        order = [s.id for s in bench.project.sheets_in_order()]
        self.assertEqual(order, [a, c, bench.sheet, b], "sheets dragged together keep their order")
        self.assertEqual(bench.project.sheets[c].function_id, function)
        with self.assertRaisesRegex(RuleError, "after themselves"):
            bench.do("order-sheets", sheet_ids=[a], after_id=a)

    def test_numbering_again_says_what_follows_and_fixed_ones_stay(self) -> None:
        bench = Workbench(standard="na", tag_habit="line", rails=True)
        for y, text in ((16, "Run"), (25, "Ready")):
            row = f'no "{text}", lamp'
            bench.do("place-row", sheet_id=bench.sheet, x=18, y=y, line=row, wire_type_id=bench.blue)
        lamps = [s.id for s in bench.project.symbols.values() if s.definition == "lamp"]
        bench.do("set-tag", device_id=bench.device(lamps[0]), tag="PL7")
        wire = next(w for w in bench.project.wires_on(bench.sheet) if w.y1 == w.y2 == 25)
        bench.do("fix-wire-number", wire_id=wire.id, number="77")
        self.assertEqual(bench.tag(lamps[1]), "LT302")
        outcome = bench.do("number-sheets", start=4)
        self.assertEqual(bench.tag(lamps[0]), "PL7")
        self.assertEqual(bench.tag(lamps[1]), "LT42")
        shown = wire_numbers(bench.project, bench.sheet).values()
        self.assertIn("77", shown)
        self.assertTrue(all(n == "77" or n.startswith("4") for n in shown))
        self.assertEqual(outcome.table, [["30", "4", "", "line 301 → 41, 3 tags, 3 wire numbers"]])

    def test_lines_run_on_from_sheet_to_sheet_when_asked(self) -> None:
        bench = Workbench()
        titled(bench, "a", "b")
        bench.do("number-sheets", start=1, lines="run", first_line=100, width=2, prefix="E")
        sheets = bench.project.sheets_in_order()
        self.assertEqual([s.number for s in sheets], ["E01", "E02", "E03"])
        self.assertEqual([s.first_line for s in sheets], [100, 108, 116])

    def test_a_number_of_a_sheet_that_is_not_chosen_is_not_taken(self) -> None:
        bench = Workbench()
        a, _ = titled(bench, "a", "b")
        with self.assertRaisesRegex(RuleError, "would become 32"):
            bench.do("number-sheets", sheet_ids=[a], start=32)

    @settings(max_examples=60, deadline=None)
    @given(st.lists(st.tuples(st.sampled_from(["add", "move", "delete"]), st.integers(0, 9), st.integers(0, 9))))
    def test_the_order_is_what_a_list_would_be(self, acts: list[tuple[str, int, int]]) -> None:
        bench = Workbench()
        model = [bench.sheet]
        for act, a, b in acts:
            if act == "add":
                after = model[a % len(model)]
                new = bench.new("add-sheets", sheets=[{"title": "x"}], after_id=after)
                model.insert(model.index(after) + 1, new)
            elif act == "move" and len(model) > 1:
                moved, after = model[a % len(model)], model[b % len(model)]
                if moved == after:
                    continue
                before = list(model)
                model.remove(moved)
                model.insert(model.index(after) + 1, moved)
                if model != before:
                    bench.do("order-sheets", sheet_ids=[moved], after_id=after)
            elif act == "delete" and len(model) > 1:
                bench.do("delete-sheets", sheet_ids=[model.pop(a % len(model))])
            self.assertEqual([s.id for s in bench.project.sheets_in_order()], model)


class BetweenSheets(TestCase):
    def test_a_duplicate_has_tags_and_numbers_of_its_own(self) -> None:
        bench = Workbench(rails=True)
        bench.do("place-row", sheet_id=bench.sheet, x=18, y=16, line='no "Start", coil "Run"', wire_type_id=bench.blue)
        wire = next(w for w in bench.project.wires_on(bench.sheet) if w.y1 == w.y2 == 16)
        bench.do("fix-wire-number", wire_id=wire.id, number="5")
        copy = bench.new("duplicate-sheet", sheet_id=bench.sheet, number="31", title="Second")
        sheet = bench.project.sheets[copy]
        self.assertEqual((sheet.title, sheet.first_line, sheet.size), ("Second", 311, "A3"))
        self.assertEqual(len(bench.spans(copy)), len(bench.spans()))
        there = {bench.tag(s.id) for s in bench.project.symbols_on(bench.sheet)}
        here = {bench.tag(s.id) for s in bench.project.symbols_on(copy)}
        self.assertEqual((there, here), ({"SF1", "KF1"}, {"SF2", "KF2"}))
        self.assertFalse(any(w.number for w in bench.project.wires_on(copy)))
        self.assertTrue(bench.canonical())

    def test_moved_things_keep_tag_part_and_number_and_leave_a_healed_wire(self) -> None:
        bench = Workbench()
        bench.wire((8, 16), (60, 16))
        lamp = bench.place("lamp", 20, 16, part_id="tamwick-tw-l22-g")
        bench.wire((8, 30), (40, 30))
        lone = next(w for w in bench.project.wires.values() if w.y1 == 30)
        bench.do("fix-wire-number", wire_id=lone.id, number="12")
        other = titled(bench, "other")[0]
        tag = bench.tag(lamp)
        bench.do("move-to-sheet", ids=[lamp, lone.id], sheet_id=other)
        self.assertEqual(bench.spans(), [(8, 16, 60, 16)], "the wire it sat on is whole again")
        self.assertEqual((bench.symbol(lamp).sheet_id, bench.tag(lamp)), (other, tag))
        (moved,) = bench.project.wires_on(other)
        self.assertEqual((moved.number, moved.x1, moved.x2), ("12", 8, 40))
        self.assertTrue(bench.canonical())

    def test_a_fixed_number_stays_with_the_wires_that_stay(self) -> None:
        bench = Workbench()
        bench.wire((8, 16), (40, 16), (40, 30))
        level, upright = sorted(bench.project.wires_on(bench.sheet), key=lambda w: w.x1)
        bench.do("fix-wire-number", wire_id=level.id, number="12")
        other = titled(bench, "other")[0]
        bench.do("move-to-sheet", ids=[upright.id], sheet_id=other)
        self.assertEqual([w.number for w in bench.project.wires_on(other)], [""])

    def test_refusals_name_the_sheet(self) -> None:
        bench = Workbench()
        lamp = bench.place("lamp", 20, 16)
        made = bench.new("add-sheet", number="2", sheet_kind="contents")
        with self.assertRaisesRegex(RuleError, "Sheet 2 is made from the project"):
            bench.do("move-to-sheet", ids=[lamp], sheet_id=made)
        with self.assertRaisesRegex(RuleError, "on this sheet already"):
            bench.do("move-to-sheet", ids=[lamp], sheet_id=bench.sheet)
        for act in (
            lambda: bench.place("lamp", 20, 16, sheet_id=made),
            lambda: bench.wire((8, 16), (20, 16), sheet_id=made),
            lambda: bench.do("place-note", sheet_id=made, x=10, y=10, text="x"),
        ):
            with self.assertRaisesRegex(RuleError, "Sheet 2 is made from the project"):
                act()
        self.assertEqual(bench.project.symbols_on(made), [])


class Subjects(TestCase):
    def test_a_sheet_whose_subject_goes_shows_nothing_and_undo_brings_it_back(self) -> None:
        bench = Workbench(frame="zones")
        strip = bench.device(bench.place("terminal", 20, 20))
        plan = bench.new("add-sheet", number="5", sheet_kind="terminal-plan", device_id=strip)
        (symbol,) = bench.project.symbols_on(bench.sheet)
        outcome = bench.do("delete-selection", ids=[symbol.id])
        self.assertEqual(bench.project.sheets[plan].device_id, "")
        bench.project.apply(outcome.changes.inverse())
        self.assertEqual(bench.project.sheets[plan].device_id, strip)

    def test_a_harness_too(self) -> None:
        bench = Workbench()
        harness = bench.new("add-harness", code="WH1")
        plan = bench.new("add-sheet", number="5", sheet_kind="form-board", harness_id=harness)
        bench.do("remove-harness", harness_id=harness)
        self.assertEqual(bench.project.sheets[plan].harness_id, "")


class RandomSheets(TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.lists(st.tuples(st.integers(0, 6), st.integers(0, 30), st.integers(0, 30)), min_size=1, max_size=10))
    def test_refused_means_unchanged_and_all_can_be_undone(self, acts: list[tuple[int, int, int]]) -> None:
        bench = Workbench(rails=True)
        bench.place("coil", 40, 16)
        project = bench.project
        first = list(project.entities())
        bench.done.clear()
        kinds = ("schematic", "contents", "free")
        for act, a, b in acts:
            ids = sorted(project.sheets)
            here, there = ids[a % len(ids)], ids[b % len(ids)]
            things = [*project.symbols, *project.wires]
            edits: list[tuple[str, dict[str, Any]]] = [
                ("add-sheets", {"sheets": [{"title": f"t{a}", "sheet_kind": kinds[b % 3]}], "after_id": here}),
                ("change-sheets", {"sheets": [{"sheet_id": here, "number": f"{b}", "size": "A4"}], "follow": True}),
                ("order-sheets", {"sheet_ids": [here], "after_id": there}),
                ("number-sheets", {"sheet_ids": [here], "start": b}),
                ("duplicate-sheet", {"sheet_id": here, "number": f"{a}-{b}"}),
                ("move-to-sheet", {"ids": sorted(things)[a % 3 :: 4], "sheet_id": there}),
                ("change-sheet", {"sheet_id": here, "ladders": 1 + b % 2, "size": "ANSI B"}),
            ]
            before = list(project.entities())
            try:
                kind, values = edits[act]
                bench.do(kind, **values)
            except (CoreError, ValidationError):
                self.assertEqual(list(project.entities()), before)
            self.assertTrue(bench.canonical())
        for outcome in reversed(bench.done):
            project.apply(outcome.changes.inverse())
        self.assertEqual(list(project.entities()), first)


class Tags(TestCase):
    def test_what_is_on_no_line_keeps_its_running_number_in_the_line_habit(self) -> None:
        bench = Workbench(standard="na", tag_habit="line", frame="zones")
        bench.wire((20, 10), (20, 40))
        band = bench.new("draw-band", sheet_id=bench.sheet, x1=18, y1=20, x2=24, y2=20)
        device = bench.project.devices[bench.project.bands[band].device_id]
        self.assertEqual(product_tag(bench.project, device), f"{device.letters}1")
        self.assertIsInstance(bench.project.sheets[bench.sheet], Sheet)
