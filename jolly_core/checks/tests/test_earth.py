"""Protective conductors: every way they can be wrong is found, over sheets and terminals too."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.testing import Workbench

PROTECTIVE = {"protective-joined", "protective-pin", "protective-switched", "earth-terminal", "cable-protective"}


class Earth(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.power = self.bench.new("add-wire-type", name="Power", colour="BK", cross_section_mm2=2.5, category="power")
        self.field = self.bench.new(
            "add-wire-type", name="Field", colour="GY", category="external", numbered=False, outside=True
        )

    def codes(self) -> list[str]:
        return sorted({s.code for s in all_snags(self.bench.project)} & PROTECTIVE)

    def messages(self, code: str) -> list[str]:
        return [s.message for s in all_snags(self.bench.project) if s.code == code]

    def motor(self, types: tuple[str, str, str, str]) -> None:
        self.bench.place("motor", 30, 40)
        for n, type_id in enumerate(types):
            self.bench.wire((30 + 4 * n, 20), (30 + 4 * n, 40), type_id=type_id)

    def test_a_motor_wired_right_is_quiet(self) -> None:
        self.motor((self.power, self.power, self.power, self.bench.pe))
        self.assertEqual(self.codes(), [])

    def test_motor_pe_on_a_phase_and_a_phase_on_pe(self) -> None:
        self.motor((self.power, self.power, self.bench.pe, self.power))
        live, phase = sorted(self.messages("protective-pin"))
        self.assertIn("PE is for the protective conductor, but on power", live)
        self.assertIn("W1 is on a protective conductor", phase)

    def test_a_live_wire_on_an_earth_terminal_and_pe_on_a_plain_one(self) -> None:
        self.bench.wire((10, 20), (40, 20), type_id=self.power)
        self.bench.place("terminal-earth", 20, 20)
        self.assertIn("live wire (power) is on the earth terminal", self.messages("earth-terminal")[0])
        self.bench.wire((10, 60), (40, 60), type_id=self.bench.pe)
        plain = self.bench.place("terminal", 20, 60)
        (snag,) = [s for s in all_snags(self.bench.project) if s.code == "earth-terminal" and s.act]
        assert snag.act is not None
        self.assertEqual(snag.ids, (plain,))
        self.bench.do(**snag.act.payload())
        self.assertEqual(len(self.messages("earth-terminal")), 1)

    def test_joined_over_a_continuation_and_over_a_terminal(self) -> None:
        bench = self.bench
        other = bench.new("add-sheet", number="31", frame="zones")
        bench.wire((10, 20), (40, 20), type_id=bench.pe)
        bench.wire((10, 20), (40, 20), type_id=self.power, sheet_id=other)
        self.assertEqual(self.codes(), [])
        for sheet_id in (bench.sheet, other):
            bench.do("place-continuation", sheet_id=sheet_id, x=10, y=20, name="Feed")
        self.assertEqual(len(self.messages("protective-joined")), 2)
        self.assertIn("on sheet 31, of power", self.messages("protective-joined")[0])
        bench.do(
            "delete-selection",
            ids=sorted(bench.project.continuations_on(other), key=lambda c: c.id)[0:1]
            and [c.id for c in bench.project.continuations_on(other)],
        )
        self.assertEqual(self.messages("protective-joined"), [])
        bench.place("terminal", 44, 20, rotation=0)
        bench.wire((40, 20), (44, 20), type_id=bench.pe)
        bench.wire((46, 20), (60, 20), type_id=self.power)
        self.assertEqual(len(self.messages("protective-joined")), 1)

    def test_field_wires_of_any_kind_are_no_fault(self) -> None:
        bench = self.bench
        bench.wire((10, 20), (20, 20), type_id=bench.pe)
        bench.place("terminal-earth", 20, 20, rotation=0)
        bench.wire((22, 20), (40, 20), type_id=self.field)
        self.assertEqual(self.codes(), [])

    def test_a_fuse_in_a_protective_conductor(self) -> None:
        self.bench.place("fuse", 30, 20, poles=1, rotation=0)
        self.bench.wire((10, 20), (30, 20), type_id=self.bench.pe)
        self.assertEqual(len(self.messages("protective-switched")), 1)
        self.assertEqual(self.messages("protective-pin"), [])

    def cable(self, protective: bool) -> None:
        bench = self.bench
        types = [self.power] * 3 + ([bench.pe] if protective else [])
        for n, type_id in enumerate(types):
            bench.wire((10, 20 + 4 * n), (20, 20 + 4 * n), type_id=type_id)
            bench.place("terminal-earth" if type_id == bench.pe else "terminal", 20, 20 + 4 * n, rotation=0)
            bench.wire((22, 20 + 4 * n), (50, 20 + 4 * n), type_id=self.field)
            bench.place("cavity", 50, 20 + 4 * n)
        bench.do("draw-band", sheet_id=bench.sheet, x1=35, y1=18, x2=35, y2=22 + 4 * len(types))

    def test_a_power_cable_without_a_protective_conductor(self) -> None:
        self.cable(protective=False)
        self.assertIn("leads power, but has no protective conductor", self.messages("cable-protective")[0])

    def test_a_power_cable_with_one(self) -> None:
        self.cable(protective=True)
        self.assertEqual(self.codes(), [])
