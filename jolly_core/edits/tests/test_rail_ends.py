"""The pieces of a rung that lead to a rail of one potential have its wire type: the neutral's, and one that says it."""

from __future__ import annotations

from itertools import permutations
from unittest import TestCase

from jolly_core.checks import Snag, all_snags
from jolly_core.drawing import pin_points, rails_at
from jolly_core.testing import Workbench


class NeutralEnds(TestCase):
    """A ladder between L (red) and a white neutral rail; rails at columns 14 and 82."""

    def setUp(self) -> None:
        self.bench = Workbench(standard="na")
        self.red = self.bench.new("add-wire-type", name="Control AC", colour="RD", category="control-ac")
        self.white = self.bench.new("add-wire-type", name="Control neutral", colour="WH", category="control-ac")
        rails = {"left_rail_type_id": self.red, "right_rail_type_id": self.white}
        self.sheet = self.bench.new("add-sheet", number="31", frame="ladder", **rails)

    def place(self, definition: str, x: int, y: int = 25, **values: object) -> str:
        return self.bench.place(definition, x, y, sheet_id=self.sheet, **values)

    def row(self, line: str, x: int = 20, y: int = 25) -> None:
        self.bench.do("place-row", sheet_id=self.sheet, x=x, y=y, line=line, wire_type_id=self.red)

    def types(self, y: int = 25) -> str:
        """Return the wires across a line from left to right: r for red, w for white."""
        across = sorted((w.x1, w.type_id) for w in self.bench.project.wires_on(self.sheet) if w.y1 == w.y2 == y)
        return "".join({self.red: "r", self.white: "w"}.get(type_id, "?") for _, type_id in across)

    def told(self) -> list[str]:
        return [s.message for s in all_snags(self.bench.project) if s.code == "neutral-type"]

    def test_symbol_by_symbol_from_the_left(self) -> None:
        self.place("button-nc", 20, wire_type_id=self.red)
        self.assertEqual(self.types(), "rw")
        self.place("button-no", 36)
        self.assertEqual(self.types(), "rrw")
        self.place("coil", 66)
        self.assertEqual(self.types(), "rrrw")
        self.assertEqual(self.told(), [])
        self.assertTrue(self.bench.canonical())

    def test_from_the_right(self) -> None:
        self.place("coil", 66)
        self.place("button-no", 36)
        self.place("button-nc", 20)
        self.assertEqual(self.types(), "rrrw")

    def test_a_quick_line_and_what_lies_beside_its_items(self) -> None:
        self.row('nc "Stop", no "Start" | no @, coil "Run" | lamp "Runs"')
        self.assertEqual(self.types(), "rrrrrrww")
        self.assertEqual(self.types(34)[-1], "w")
        self.assertEqual(self.told(), [])
        self.row("no, lamp", y=43)
        self.assertEqual(self.types(43), "rrw")

    def test_a_quick_line_on_the_white_end(self) -> None:
        self.place("button-nc", 20)
        self.row("no, terminal, coil", x=36)
        self.assertEqual(self.types(), "rrrrw")

    def test_a_terminal_in_the_neutral_changes_nothing(self) -> None:
        self.place("coil", 40)
        self.place("terminal", 60)
        self.place("terminal", 70)
        self.assertEqual(self.types(), "rwww")
        self.assertEqual(self.told(), [])

    def test_the_load_taken_away_and_put_back(self) -> None:
        self.place("button-no", 20)
        coil = self.place("coil", 66)
        self.bench.do("delete-selection", ids=[coil])
        self.assertEqual(self.types(), "rw")
        self.assertTrue(self.bench.canonical())
        self.place("lamp", 66)
        self.assertEqual(self.types(), "rrw")

    def test_the_last_symbol_takes_the_rung_with_it(self) -> None:
        one, two = self.place("button-no", 20), self.place("coil", 66)
        self.bench.do("delete-selection", ids=[two, one])
        self.assertEqual(self.types(), "")

    def test_a_rung_that_something_holds_becomes_one_wire_of_its_live_type(self) -> None:
        coil = self.place("coil", 40)
        wire = next(w.id for w in self.bench.project.wires_on(self.sheet) if w.x1 == 14 and w.y1 == w.y2)
        self.bench.do("fix-wire-number", wire_id=wire, number="77")
        self.bench.do("delete-selection", ids=[coil])
        self.assertEqual(self.types(), "r")

    def test_a_bare_rung_on_another_line_is_no_way_to_the_neutral(self) -> None:
        self.bench.wire((14, 52), (82, 52), type_id=self.red, sheet_id=self.sheet)
        self.place("button-no", 20)
        self.place("coil", 66)
        self.assertEqual((self.types(), self.types(52)), ("rrw", "r"))
        self.place("coil", 40, 52)
        self.assertEqual(self.types(52), "rw")

    def test_a_rung_of_no_type_chosen_is_no_neutral(self) -> None:
        for y in (25, 34, 43, 52):
            self.place("coil", 40, y)
            self.assertEqual(self.types(y), "rw")

    def test_a_wire_of_another_kind_and_other_lines_are_left_alone(self) -> None:
        self.place("coil", 40, 34)
        self.bench.do("set-wire-type", ids=[self._end(34)], wire_type_id=self.red)
        self.place("coil", 40, 43)
        self.assertEqual((self.types(34), self.types(43)), ("rr", "rw"))
        (message,) = self.told()
        self.assertIn("1 wire of type Control AC is on the neutral", message)
        self.place("coil", 40, wire_type_id=self.bench.blue)
        self.assertEqual(self.types(), "??")

    def _end(self, y: int) -> str:
        return next(w.id for w in self.bench.project.wires_on(self.sheet) if w.y1 == w.y2 == y and w.x2 == 82)

    def test_one_step_back_is_all_of_it(self) -> None:
        self.place("button-no", 20)
        before = self.bench.spans(self.sheet), self.types()
        done = self.bench.do("place-symbol", sheet_id=self.sheet, definition="coil", x=66, y=25)
        self.bench.project.apply(done.changes.inverse())
        self.assertEqual((self.bench.spans(self.sheet), self.types()), before)


class DirectEnds(TestCase):
    """A ladder between rails of 24 V DC (red) and 0 V DC (white-blue); what is switched is blue."""

    def setUp(self) -> None:
        self.bench = Workbench()
        red = {"colour": "RD", "cross_section_mm2": 1.0, "category": "control-dc"}
        self.blue = self.bench.blue
        self.other = self.bench.new("add-wire-type", **red | {"name": "Interlocks", "colour": "VT"})
        self.plus = self.bench.new("add-wire-type", **red | {"name": "24 V DC"})
        self.zero = self.bench.new("add-wire-type", **red | {"name": "0 V DC", "colour": "WHBU"})
        self.thin = self.bench.new("add-wire-type", **red | {"name": "Thin", "cross_section_mm2": 0.5})
        rails = {"left_rail_type_id": self.plus, "right_rail_type_id": self.zero}
        self.sheet = self.bench.new("add-sheet", number="31", frame="ladder", **rails)
        self.left, self.right = rails_at(self.bench.project.sheets[self.sheet], 20)

    def place(self, definition: str, x: int, y: int = 25, **values: object) -> str:
        return self.bench.place(definition, x, y, sheet_id=self.sheet, **values)

    def types(self, y: int = 25) -> str:
        """Return the wires across a line from left to right: p plus, z zero, b and o what is switched, t thin."""
        letters = {self.plus: "p", self.zero: "z", self.blue: "b", self.thin: "t", self.other: "o"}
        across = sorted((w.x1, w.type_id) for w in self.bench.project.wires_on(self.sheet) if w.y1 == w.y2 == y)
        return "".join(letters.get(type_id, "?") for _, type_id in across)

    def told(self) -> list[Snag]:
        return [s for s in all_snags(self.bench.project) if s.code == "potential-type"]

    def test_symbol_by_symbol_in_every_order(self) -> None:
        whole = [("button-nc", 20), ("button-no", 36), ("coil", 66)]
        for n, order in enumerate(permutations(whole)):
            y = 25 + 9 * n
            for definition, x in order:
                self.place(definition, x, y, wire_type_id=self.blue)
            self.assertEqual(self.types(y), "pbbz", order)
            self.assertTrue(self.bench.canonical())
        self.assertEqual(self.told(), [])
        self.assertTrue(self.bench.canonical())

    def test_what_is_switched_has_the_type_that_was_chosen(self) -> None:
        for definition, x in (("button-nc", 20), ("coil", 66), ("button-no", 36)):
            self.place(definition, x, wire_type_id=self.other)
        self.assertEqual(self.types(), "pooz")

    def test_one_taken_away_and_put_back(self) -> None:
        first, second, coil = self.place("button-no", 20), self.place("button-no", 36), self.place("coil", 66)
        for gone, left in ((first, "pbz"), (coil, "pz")):
            self.bench.do("delete-selection", ids=[gone])
            self.assertEqual(self.types(), left)
        self.place("lamp", 60)
        self.assertEqual(self.types(), "pbz")
        self.bench.do("delete-selection", ids=[second])
        self.assertEqual(self.types(), "pz")
        self.assertEqual(self.told(), [])

    def test_a_quick_line_with_what_lies_beside(self) -> None:
        line = 'nc "Stop", no "Start" | no @, terminal, coil "Run" | lamp "Runs"'
        self.bench.do("place-row", sheet_id=self.sheet, x=self.left + 4, y=25, line=line, wire_type_id=self.blue)
        self.assertEqual((self.types()[0], self.types()[-1], self.types(34)[-1]), ("p", "z", "z"))
        self.assertEqual(self.told(), [])

    def test_a_bare_rung_is_of_what_is_switched(self) -> None:
        coil = self.place("coil", 40)
        wire = next(w.id for w in self.bench.project.wires_on(self.sheet) if w.x1 == self.left and w.y1 == w.y2)
        self.bench.do("fix-wire-number", wire_id=wire, number="77")
        self.bench.do("delete-selection", ids=[coil])
        self.assertEqual(self.types(), "b")

    def test_a_wire_drawn_on_the_potential_takes_its_type_and_one_of_another_size_does_not(self) -> None:
        for y, type_id, taken in ((34, self.blue, "p"), (43, self.thin, "t"), (52, self.plus, "p")):
            self.bench.wire((self.left, y), (30, y), type_id=type_id, sheet_id=self.sheet)
            self.assertEqual(self.types(y), taken)
        self.bench.wire((self.left, 61), (self.right, 61), type_id=self.blue, sheet_id=self.sheet)
        self.assertEqual(self.types(61), "b", "it joins both: neither is right")

    def test_what_a_person_gave_stays_and_is_told_with_its_mend(self) -> None:
        self.place("coil", 40)
        self.place("coil", 40, 34)
        wire = next(w.id for w in self.bench.project.wires_on(self.sheet) if w.x1 == self.left and w.y1 == w.y2 == 25)
        self.bench.do("set-wire-type", ids=[wire], wire_type_id=self.blue)
        self.place("button-no", 20, 34)
        self.assertEqual((self.types(), self.types(34)), ("bz", "pbz"))
        (snag,) = self.told()
        self.assertIn("1 wire of type Control is on a potential of type 24 V DC (RD)", snag.message)
        assert snag.act is not None
        self.bench.do(**snag.act.payload())
        self.assertEqual((self.types(), self.told()), ("pz", []))

    def test_over_sheets_and_terminals(self) -> None:
        other = self.bench.new("add-sheet", number="32", frame="zones")
        for sheet_id, at in ((self.sheet, (self.left, 70)), (other, (10, 20))):
            self.bench.do("place-continuation", sheet_id=sheet_id, x=at[0], y=at[1], name="24V")
        self.bench.place("terminal", 30, 20, sheet_id=other)
        self.bench.wire((10, 20), (30, 20), type_id=self.blue, sheet_id=other)
        x = max(x for x, _ in pin_points(next(iter(self.bench.project.symbols_on(other)))))
        self.bench.wire((x, 20), (60, 20), type_id=self.blue, sheet_id=other)
        (snag,) = self.told()
        self.assertEqual((snag.sheet_id, len(snag.ids)), (other, 2))
