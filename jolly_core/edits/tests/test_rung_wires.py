"""What a person types at the caret and in the quick line: rungs bring their wire, words mean what people mean."""

from __future__ import annotations

from unittest import TestCase

from pydantic import ValidationError

from jolly_core.checks import all_snags
from jolly_core.edits import compute, parse_edit
from jolly_core.model import GoneError, RuleError
from jolly_core.tagging import pin_name
from jolly_core.testing import Workbench

from ..draw.offers import offers


class Rungs(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(rails=True)

    def across(self) -> list[tuple[int, int, int]]:
        wires = self.bench.project.wires_on(self.bench.sheet)
        return sorted((w.y1, w.x1, w.x2) for w in wires if w.y1 == w.y2)

    def test_the_first_symbol_brings_the_wire_and_the_last_takes_it_away(self) -> None:
        one = self.bench.place("button-no", 20, 25)
        self.assertEqual(self.across(), [(25, 14, 20), (25, 24, 82)])
        two = self.bench.place("coil", 60, 25)
        self.assertEqual(self.across(), [(25, 14, 20), (25, 24, 60), (25, 64, 82)])
        self.bench.do("delete-selection", ids=[two])
        self.assertEqual(self.across(), [(25, 14, 20), (25, 24, 82)])
        self.bench.do("delete-selection", ids=[one])
        self.assertEqual(self.across(), [])
        self.assertTrue(self.bench.canonical())

    def test_both_at_once(self) -> None:
        ids = [self.bench.place(key, x, 25) for key, x in (("button-no", 20), ("coil", 60))]
        self.bench.do("delete-selection", ids=ids)
        self.assertEqual(self.across(), [])

    def test_a_wire_with_something_on_it_or_a_fixed_number_stays(self) -> None:
        one = self.bench.place("button-no", 20, 25)
        self.bench.wire((40, 25), (40, 40))
        self.bench.do("delete-selection", ids=[one])
        self.assertEqual(self.across(), [(25, 14, 40), (25, 40, 82)])
        two = self.bench.place("lamp", 20, 52)
        wire = next(w.id for w in self.bench.project.wires_on(self.bench.sheet) if w.y1 == w.y2 == 52)
        self.bench.do("fix-wire-number", wire_id=wire, number="77")
        self.bench.do("delete-selection", ids=[two])
        self.assertIn((52, 14, 82), self.across())

    def test_its_type(self) -> None:
        self.bench.place("button-no", 20, 25, wire_type_id=self.bench.red)
        types = {w.type_id for w in self.bench.project.wires_on(self.bench.sheet) if w.y1 == w.y2}
        self.assertEqual(types, {self.bench.red})
        with self.assertRaises(GoneError):
            self.bench.place("button-no", 20, 52, wire_type_id="none")

    def test_no_wire_without_rails_beside_them_or_on_other_frames(self) -> None:
        bare = Workbench()
        bare.place("button-no", 20, 25)
        zones = Workbench(frame="zones")
        zones.place("button-no", 20, 25)
        self.assertEqual((bare.spans(), zones.spans()), ([], []))
        before = self.across()
        self.bench.place("lamp", 90, 25)
        self.bench.place("motor", 30, 60)
        self.assertEqual(self.across(), before)

    def test_a_latch_typed_on_empty_lines_has_no_snag_of_wiring(self) -> None:
        for key, x in (("button-nc", 20), ("button-no", 36), ("coil", 66)):
            self.bench.place(key, x, 25)
        found = {s.code for s in all_snags(self.bench.project)}
        self.assertFalse(found & {"unconnected-pin", "loose-end", "joined-potentials", "short-circuit"})


class QuickLine(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(rails=True)

    def row(self, line: str, x: int = 20, y: int = 25) -> list[str]:
        outcome = self.bench.do(
            "place-row", sheet_id=self.bench.sheet, x=x, y=y, line=line, wire_type_id=self.bench.blue
        )
        return [self.bench.symbol(id).definition for id in outcome.placed]

    def test_motor_transformer_and_supply_are_what_they_are_called(self) -> None:
        for n, (word, key) in enumerate((('motor "M"', "motor"), ("transformer", "transformer"), ("psu", "dc-supply"))):
            self.assertEqual(self.row(word, 20 + 20 * n, 40), [key])

    def test_a_motor_at_the_end_of_a_row_is_turned_onto_it(self) -> None:
        bench = Workbench(frame="zones")
        for n in range(3):
            bench.wire((10, 20 + 4 * n), (80, 20 + 4 * n), type_id=bench.red)
        line = 'motor breaker, poles, motor "Auger"'
        outcome = bench.do("place-row", sheet_id=bench.sheet, x=14, y=20, line=line, wire_type_id=bench.red)
        motor = outcome.placed[-1]
        self.assertEqual(
            [bench.symbol(i).definition for i in outcome.placed], ["motor-breaker", "contactor-pole", "motor"]
        )
        ends = {w.x2 for w in bench.project.wires_on(bench.sheet)}
        self.assertEqual(bench.symbol(motor).x, max(ends))
        self.assertEqual(pin_name(bench.project, (motor, 0)).rsplit(":", 1)[1], "U1")
        self.assertEqual({s.x for s in all_snags(bench.project) if s.code == "loose-end"}, {10})
        with self.assertRaisesRegex(RuleError, "Item 1: a motor 3~ stands at the end of a row"):
            self.row("motor, lamp")

    def test_no_room_names_what_has_none(self) -> None:
        with self.assertRaisesRegex(RuleError, "“NO push button” has no room right"):
            self.row("no", x=80)
        with self.assertRaisesRegex(RuleError, "no room for 12 symbols"):
            self.row(", ".join(["no"] * 12))

    def test_four_hundred_characters(self) -> None:
        line = f'no "{"Start the loading auger " * 5}", coil "{"Auger run from the hatch " * 6}"'
        self.assertGreater(len(line), 250)
        self.assertEqual(self.row(line), ["button-no", "coil"])
        with self.assertRaises(ValidationError):
            parse_edit({"kind": "place-row", "sheet_id": "s", "x": 1, "y": 1, "line": "x" * 401, "wire_type_id": "t"})

    def test_a_part_of_another_class_is_refused(self) -> None:
        for line in ('no "Start" #BW-C09-24D', "lamp #TW-H24", "no #TW-P11"):
            with self.assertRaisesRegex(RuleError, "is a .*, but this is drawn as"):
                self.row(line)
        self.row('no "Start" #TW-B22-G-10, coil #BW-C09-24D')


class Offered(TestCase):
    def test_after_a_button_a_new_device_comes_first(self) -> None:
        bench = Workbench(rails=True)
        button = bench.place("button-no", 20, 25)
        found = offers(bench.project, "no", bench.sheet, [])
        self.assertEqual((found[0].definition, found[0].device_id), ("button-no", ""))
        self.assertIn(bench.device(button), {o.device_id for o in found})
        coil = bench.place("coil", 60, 25)
        self.assertEqual(offers(bench.project, "no", bench.sheet, [])[0].device_id, bench.device(coil))
        tag = bench.tag(button).lower()
        self.assertEqual(offers(bench.project, f"no {tag}", bench.sheet, [])[0].device_id, bench.device(button))

    def test_a_device_without_a_free_unit_comes_last_and_says_why(self) -> None:
        bench = Workbench(rails=True)
        coil = bench.place("coil", 60, 25, part_id="hollin-reeve-hr-r1-24d")
        bench.place("contact-no", 20, 34, device_id=bench.device(coil))
        found = offers(bench.project, "no", bench.sheet, [])
        self.assertEqual([o.note for o in found].index("none free"), len(found) - 1)
        self.assertGreater(len({o.definition for o in found}), 6)


class Switches(TestCase):
    def test_a_changeover_serves_a_switch_drawn_as_one_contact(self) -> None:
        for key, part, names in (
            ("level-no", "hollin-reeve-hr-lv1", ("11", "14")),
            ("level-nc", "hollin-reeve-hr-lv1", ("11", "12")),
            ("pressure-nc", "hollin-reeve-hr-pw1", ("11", "12")),
        ):
            bench = Workbench(rails=True)
            symbol = bench.place(key, 20, 25)
            bench.do("assign-part", device_id=bench.device(symbol), part_id=part)
            self.assertEqual(tuple(pin_name(bench.project, (symbol, n)).rsplit(":", 1)[1] for n in (0, 1)), names)
            with self.assertRaisesRegex(RuleError, "has no"):
                bench.do("assign-part", device_id=bench.device(symbol), part_id="tamwick-tw-l22-g")


class FixedNumbersMeet(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.wires = []
        for n, number in enumerate(("80", "77")):
            self.bench.wire((10, 20 + 10 * n), (40, 20 + 10 * n))
            self.wires.append(self.bench.done[-1].placed[0])
            self.bench.do("fix-wire-number", wire_id=self.wires[-1], number=number)

    def test_the_edit_says_which_won_and_lists_the_loser(self) -> None:
        self.bench.wire((20, 20), (20, 30))
        outcome = self.bench.done[-1]
        self.assertEqual(outcome.remarks, ["Fixed numbers met: 77 won, 80 is not shown any more."])
        self.assertEqual(outcome.table, [["Number shown", "Number given up", "Sheets"], ["77", "80", "30"]])
        (snag,) = {s.message: s for s in all_snags(self.bench.project) if s.code == "number-given-up"}.values()
        self.assertIn("80 is not shown: 77", snag.message)
        self.bench.wire((50, 50), (60, 50))
        self.assertEqual(self.bench.done[-1].remarks, [])
        assert snag.act is not None
        self.bench.do(**snag.act.payload())
        self.assertNotIn("number-given-up", {s.code for s in all_snags(self.bench.project)})

    def test_over_sheets(self) -> None:
        other = self.bench.new("add-sheet", number="31", frame="zones")
        self.bench.wire((10, 20), (40, 20), sheet_id=other)
        wire = self.bench.done[-1].placed[0]
        self.bench.do("fix-wire-number", wire_id=wire, number="9")
        self.bench.do("place-continuation", sheet_id=self.bench.sheet, x=10, y=20, name="Feed")
        self.bench.do("place-continuation", sheet_id=other, x=10, y=20, name="Feed")
        self.assertEqual(self.bench.done[-1].table[1:], [["80", "9", "30, 31"]])


class Words(TestCase):
    def test_what_is_not_chosen_and_codes(self) -> None:
        bench = Workbench(frame="zones")
        draw = {"kind": "draw-wire", "sheet_id": bench.sheet, "points": [[10, 10], [20, 10]], "wire_type_id": ""}
        with self.assertRaisesRegex(GoneError, "No wire type is chosen"):
            compute(bench.project, parse_edit(draw))
        with self.assertRaisesRegex(ValidationError, "“P 1!” is no code. Use letters"):
            parse_edit({"kind": "add-location", "code": "P 1!"})
        for code in ("KP2", "A1.2", "N-3", "É1"):
            parse_edit({"kind": "add-location", "code": code})
        with self.assertRaisesRegex(RuleError, "are no letters of a tag"):
            bench.do("put-tag-rule", part_class="lamp", letters="P1")

    def test_a_symbol_without_a_device_is_named_by_what_and_where_it_is(self) -> None:
        bench = Workbench(frame="zones")
        contact = bench.place("contact-no", 20, 20)
        self.assertRegex(pin_name(bench.project, (contact, 0)), "contact without a device at 30/")
