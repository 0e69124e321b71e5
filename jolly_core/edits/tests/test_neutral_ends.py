"""The last piece of a rung, from its load to a neutral rail, is the neutral and has its wire type."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import all_snags
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
