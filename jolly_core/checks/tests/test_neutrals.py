"""The neutral is known by its colour: what has another, and what has it wrongly, is told and put right in one step."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.testing import Workbench


class Neutrals(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.black = self.bench.new("add-wire-type", name="Power", colour="BK", category="power")
        self.neutral = self.bench.new("add-wire-type", name="Neutral", colour="BU", category="power")

    def told(self) -> list[str]:
        return [s.message for s in all_snags(self.bench.project) if s.code == "neutral-type"]

    def test_a_short_black_wire_on_a_long_blue_one(self) -> None:
        self.bench.wire((10, 20), (80, 20), type_id=self.neutral)
        self.bench.wire((30, 20), (30, 26), type_id=self.black)
        (message,) = self.told()
        self.assertEqual(message, "1 wire of type Power is on the neutral, whose other wires are Neutral (BU).")

    def test_a_short_blue_wire_on_a_long_black_one(self) -> None:
        self.bench.wire((10, 20), (80, 20), type_id=self.black)
        self.bench.wire((30, 20), (30, 26), type_id=self.neutral)
        (message,) = self.told()
        self.assertEqual(message, "1 wire of type Neutral is on a live conductor, whose other wires are Power (BK).")

    def test_a_name_says_more_than_length(self) -> None:
        for name, wrong in (("L1", "Neutral"), ("N", "Power")):
            bench = self.bench
            y = 20 if name == "L1" else 60
            bench.do("place-continuation", sheet_id=bench.sheet, x=10, y=y, name=name)
            bench.wire((10, y), (14, y), type_id=self.black if name == "L1" else self.neutral)
            bench.wire((14, y), (80, y), type_id=self.neutral if name == "L1" else self.black)
            self.assertTrue(any(m.startswith(f"1 wire of type {wrong} ") for m in self.told()), self.told())

    def test_put_right_in_one_step(self) -> None:
        self.bench.wire((10, 20), (80, 20), type_id=self.neutral)
        self.bench.wire((30, 20), (30, 26), type_id=self.black)
        (snag,) = [s for s in all_snags(self.bench.project) if s.code == "neutral-type"]
        assert snag.act is not None
        payload = snag.act.payload()
        self.bench.do(payload.pop("kind"), **payload)
        self.assertEqual(self.told(), [])
        self.assertEqual({w.type_id for w in self.bench.project.wires.values()}, {self.neutral})

    def test_each_sheet_tells_its_own_wires(self) -> None:
        bench = self.bench
        other = bench.new("add-sheet", number="31", frame="zones")
        for sheet_id, type_id, far in ((bench.sheet, self.neutral, 80), (other, self.black, 20)):
            bench.do("place-continuation", sheet_id=sheet_id, x=10, y=20, name="Fed")
            bench.wire((10, 20), (far, 20), type_id=type_id, sheet_id=sheet_id)
        (snag,) = [s for s in all_snags(bench.project) if s.code == "neutral-type"]
        self.assertEqual(snag.sheet_id, other)

    def test_what_is_no_neutral(self) -> None:
        """Blue of direct current, what is laid outside, phases by name, protective wires."""
        bench = self.bench
        outside = bench.new("add-wire-type", name="Field", colour="GY", category="external", outside=True)
        third = bench.new("add-wire-type", name="Power L3", colour="BU", category="power")
        for y, types in ((20, (bench.blue, self.black)), (40, (self.neutral, outside)), (60, (third, self.black))):
            bench.wire((10, y), (40, y), type_id=types[0])
            bench.wire((40, y), (80, y), type_id=types[1])
        self.assertEqual(self.told(), [])

    def test_white_is_the_grounded_conductor_of_north_american_control_circuits(self) -> None:
        for standard, count in (("iec", 0), ("na", 1)):
            bench = Workbench(frame="zones")
            if standard == "na":
                bench.do("change-settings", standard="na")
            red = bench.new("add-wire-type", name="Control AC", colour="RD", category="control-ac")
            white = bench.new("add-wire-type", name="Grounded", colour="WH", category="control-ac")
            bench.wire((10, 20), (80, 20), type_id=white)
            bench.wire((30, 20), (30, 26), type_id=red)
            self.assertEqual(len([s for s in all_snags(bench.project) if s.code == "neutral-type"]), count)
