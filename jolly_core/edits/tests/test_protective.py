"""A protective conductor is never cut, whatever makes the pole that would do it."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.drawing import is_protective, pin_points, switching_pairs
from jolly_core.library import definition
from jolly_core.model import RuleError
from jolly_core.testing import Workbench

from ..pieces.pieces import piece_of, piece_to_json


class ProtectiveStaysWhole(TestCase):
    """A bus of three live conductors and one protective one below each other, at pole pitch."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        for n in range(3):
            self.bench.wire((10, 20 + 4 * n), (70, 20 + 4 * n), type_id=self.bench.red)
        self.bench.wire((10, 32), (70, 32), type_id=self.bench.pe)

    def pe(self) -> list[tuple[int, int, int, int]]:
        wires = self.bench.project.wires_on(self.bench.sheet)
        return [(w.x1, w.y1, w.x2, w.y2) for w in wires if is_protective(self.bench.project, w)]

    def refused(self, kind: str, **values: object) -> str:
        with self.assertRaises(RuleError) as caught:
            self.bench.do(kind, **values)
        self.assertEqual(self.pe(), [(10, 32, 70, 32)])
        return caught.exception.message

    def test_placing_with_poles(self) -> None:
        words = self.refused("place-symbol", sheet_id=self.bench.sheet, definition="breaker", x=20, y=20, poles=4)
        self.assertIn("pole 4", words)
        self.bench.place("breaker", 20, 20, poles=3)

    def test_placing_one_symbol_on_it(self) -> None:
        for key in ("fuse", "coil", "contact-no", "lamp", "disconnector", "terminal-fuse"):
            words = self.refused("place-symbol", sheet_id=self.bench.sheet, definition=key, x=20, y=32)
            self.assertIn("protective conductor", words, key)

    def test_more_poles(self) -> None:
        contactor = self.bench.place("contactor-pole", 20, 20)
        self.assertEqual(len(self.bench.symbol(contactor).units), 3)
        self.assertIn("pole 4", self.refused("set-poles", symbol_id=contactor, poles=4))

    def test_another_symbol_for_an_earth_terminal(self) -> None:
        terminal = self.bench.place("terminal-earth", 20, 32)
        with self.assertRaisesRegex(RuleError, "protective conductor"):
            self.bench.do("swap-symbol", symbol_id=terminal, definition="terminal-fuse")

    def test_moving_pasting_and_stamps(self) -> None:
        fuse = self.bench.place("fuse", 20, 20, poles=1)
        self.refused("move-selection", ids=[fuse], dx=0, dy=12, allow_join=True)
        self.refused("duplicate-selection", ids=[fuse], dx=10, dy=12)
        raw = piece_to_json(piece_of(self.bench.project, self.bench.sheet, [fuse]))
        self.refused("paste-piece", sheet_id=self.bench.sheet, x=40, y=32, piece=raw)
        stamp = self.bench.new("keep-stamp", ids=[fuse], name="One fuse")
        self.refused("put-stamp", sheet_id=self.bench.sheet, stamp_id=stamp, x=40, y=32)

    def test_a_protective_wire_drawn_through_a_pole(self) -> None:
        self.bench.place("fuse", 30, 50, poles=1, rotation=0)
        with self.assertRaisesRegex(RuleError, "protective conductor"):
            self.bench.wire((10, 50), (70, 50), type_id=self.bench.pe)

    def test_what_is_made_for_it_lands(self) -> None:
        self.bench.place("terminal-earth", 20, 32)
        self.bench.place("terminal", 30, 32)
        self.bench.place("earth", 40, 32)
        self.assertEqual(len(self.pe()), 4)

    @settings(max_examples=60, deadline=None)
    @given(
        st.lists(
            st.tuples(
                st.sampled_from(
                    ("breaker", "fuse", "contactor-pole", "motor", "coil", "terminal-earth", "heater-load")
                ),
                st.integers(12, 60),
                st.integers(16, 36),
                st.integers(1, 4),
                st.sampled_from(("place", "poles", "swap", "move", "duplicate", "turn")),
            ),
            min_size=1,
            max_size=8,
        )
    )
    def test_no_pair_of_pins_that_switches_ends_two_of_it(self, acts: list[tuple[str, int, int, int, str]]) -> None:
        bench = Workbench(frame="zones")
        for n, type_id in enumerate((bench.red, bench.red, bench.red, bench.pe, bench.pe)):
            bench.wire((10, 18 + 4 * n), (70, 18 + 4 * n), type_id=type_id)
        for key, x, y, poles, act in acts:
            symbols = sorted(bench.project.symbols)
            one = symbols[x % len(symbols)] if symbols else ""
            try:
                if act == "place" or not one:
                    poles = min(poles, definition(key).max_poles)
                    bench.do("place-symbol", sheet_id=bench.sheet, definition=key, x=x, y=y, poles=poles)
                elif act == "poles":
                    bench.do("set-poles", symbol_id=one, poles=poles)
                elif act == "swap":
                    bench.do("swap-symbol", symbol_id=one, definition=key)
                elif act == "move":
                    bench.do("move-selection", ids=[one], dx=x % 9 - 4, dy=y % 9 - 4, allow_join=True)
                elif act == "turn":
                    bench.do("turn-selection", ids=[one], how="turn")
                else:
                    bench.do("duplicate-selection", ids=[one], dx=8, dy=4)
            except RuleError:
                pass
        wires = [w for w in bench.project.wires_on(bench.sheet) if is_protective(bench.project, w)]
        ends = {p for w in wires for p in ((w.x1, w.y1), (w.x2, w.y2))}
        for symbol in bench.project.symbols.values():
            shape, points = definition(symbol.definition), pin_points(symbol)
            for pole in range(len(symbol.units)):
                for a, b in switching_pairs(shape):
                    both = {points[pole * len(shape.pins) + pin] for pin in (a, b)}
                    self.assertFalse(both <= ends, symbol)
