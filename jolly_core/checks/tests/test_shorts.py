"""Shorts and dead circuits on drawings nobody named: each is found with its way, and usual circuits are quiet."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import Snag, all_snags, snags_on
from jolly_core.edits.devices.choosing import ranked
from jolly_core.model import Part
from jolly_core.testing import Workbench

CODES = {"joined-potentials", "short-circuit", "poles-joined", "bridged", "dead-load", "rail-unfed"}


def found(bench: Workbench, code: str = "") -> list[Snag]:
    """Return the snags of circuits in a project, or those of one code."""
    return [s for s in all_snags(bench.project) if s.code == code or (not code and s.code in CODES)]


class Power(TestCase):
    """Three phases of one type from terminals through a main switch, a breaker and a contactor to a motor."""

    def setUp(self) -> None:
        self.bench = bench = Workbench(frame="zones")
        self.power = bench.new("add-wire-type", name="Power", colour="BK", cross_section_mm2=2.5, category="power")
        for n in range(3):
            bench.wire((10, 20 + 4 * n), (100, 20 + 4 * n), type_id=self.power)
        bench.do("place-terminals", sheet_id=bench.sheet, x1=12, y1=18, x2=12, y2=30)
        for key, x in (("disconnector", 20), ("motor-breaker", 40), ("contactor-pole", 60)):
            bench.place(key, x, 20)

    def test_a_plain_feeder_is_quiet(self) -> None:
        self.assertEqual(found(self.bench), [])

    def test_phases_joined_anywhere_are_told_with_the_way(self) -> None:
        for x, code in ((14, "poles-joined"), (30, "short-circuit"), (50, "short-circuit"), (70, "short-circuit")):
            bench = Workbench(frame="zones")
            self.bench = bench
            self.setUp()
            self.bench.wire((x, 20), (x, 24), type_id=self.power)
            snags = found(self.bench)
            self.assertIn(code, {s.code for s in snags}, (x, snags))
        (way,) = {s.message for s in snags if s.code == "short-circuit"}
        self.assertIn("1-2", way)
        self.assertIn("with no load between", way)

    def test_named_phases_below_a_breaker(self) -> None:
        for n in range(3):
            self.bench.do("place-continuation", sheet_id=self.bench.sheet, x=10, y=20 + 4 * n, name=f"400 V L{n + 1}")
        self.assertEqual([s for s in found(self.bench) if s.code == "short-circuit"], [])
        self.bench.wire((50, 20), (50, 24), type_id=self.power)
        (snag,) = found(self.bench, "short-circuit")
        self.assertIn("L1 of sheet 30 meets L2 of sheet 30 through", snag.message)

    def test_the_way_goes_over_sheets(self) -> None:
        bench = self.bench
        other = bench.new("add-sheet", number="31", frame="zones")
        for n, name in enumerate(("A", "B")):
            bench.do("place-continuation", sheet_id=bench.sheet, x=100, y=20 + 4 * n, name=name)
            bench.do("place-continuation", sheet_id=other, x=10, y=20 + 4 * n, name=name)
            bench.wire((10, 20 + 4 * n), (40, 20 + 4 * n), type_id=self.power, sheet_id=other)
        self.assertEqual(found(bench, "short-circuit"), [])
        bench.wire((30, 20), (30, 24), type_id=self.power, sheet_id=other)
        self.assertEqual(len(found(bench, "short-circuit")), 1)

    def test_two_contactors_that_reverse_and_a_star_point_are_quiet(self) -> None:
        bench = self.bench
        for n in range(3):
            bench.wire((52 + n, 20 + 4 * n), (52 + n, 60 + 4 * n), (80 - n, 60 + 4 * n), type_id=self.power)
        bench.place("contactor-pole", 60, 60)
        for n in range(3):
            bench.wire((80 - n, 60 + 4 * n), (80 - n, 28 - 4 * n), type_id=self.power)
        self.assertEqual(found(bench, "short-circuit"), [])
        star = Workbench(frame="zones")
        power = star.new("add-wire-type", name="Power", colour="BK", cross_section_mm2=2.5, category="power")
        for n in range(3):
            star.wire((20, 20 + 4 * n), (50, 20 + 4 * n), type_id=power)
        star.place("contactor-pole", 30, 20)
        star.wire((50, 20), (50, 28), type_id=power)
        self.assertEqual(found(star), [])

    def test_a_breaker_pole_bridged(self) -> None:
        bench = self.bench
        bench.wire((36, 20), (36, 14), (50, 14), (50, 20), type_id=self.power)
        (snag,) = found(bench, "bridged")
        self.assertIn(":1-2 is bridged", snag.message)


class Control(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(rails=True)
        for x, name in ((14, "24 V"), (82, "0 V")):
            self.bench.do("place-continuation", sheet_id=self.bench.sheet, x=x, y=12, name=name)
        other = self.bench.new("add-sheet", number="40", frame="zones")
        for y, name in ((20, "24 V"), (30, "0 V")):
            self.bench.wire((10, y), (30, y), sheet_id=other)
            self.bench.do("place-continuation", sheet_id=other, x=10, y=y, name=name)

    def rung(self, *keys: str, y: int = 25) -> list[str]:
        self.bench.wire((14, y), (82, y))
        return [self.bench.place(key, 20 + 10 * n, y) for n, key in enumerate(keys)]

    def test_a_latch_is_quiet(self) -> None:
        self.rung("button-nc", "button-no", "coil")
        self.assertEqual(found(self.bench), [])

    def test_a_rung_without_a_load(self) -> None:
        self.rung("button-nc", "button-no")
        (snag,) = found(self.bench, "short-circuit")
        self.assertIn("0 V of sheet", snag.message)
        self.assertIn("through", snag.message)
        self.assertEqual(len(snag.ids), 2)

    def test_a_coil_bridged_and_a_lamp_between_equal_potentials(self) -> None:
        _, coil = self.rung("button-no", "coil")
        x = self.bench.symbol(coil).x
        self.bench.wire((x - 1, 25), (x - 1, 21), (x + 6, 21), (x + 6, 25))
        self.assertEqual(len(found(self.bench, "bridged")), 1)
        self.bench.wire((14, 43), (60, 43), (60, 34), (14, 34))
        self.bench.place("contact-no", 20, 43)
        self.bench.place("lamp", 40, 43)
        (dead,) = found(self.bench, "dead-load")
        self.assertIn("24 V of sheet", dead.message)
        self.assertIn("at both ends", dead.message)

    def test_make_and_break_of_one_button_are_never_both_closed(self) -> None:
        make, break_ = self.rung("button-no", "button-nc")
        self.assertEqual(len(found(self.bench, "short-circuit")), 1)
        self.bench.do("belong-to", symbol_id=break_, device_id=self.bench.device(make))
        self.assertEqual(found(self.bench, "short-circuit"), [])


class Rails(TestCase):
    def test_rails_fed_by_nothing(self) -> None:
        bench = Workbench(rails=True)
        self.assertEqual(found(bench), [])
        bench.wire((14, 25), (82, 25))
        bench.place("coil", 40, 25)
        (snag,) = found(bench, "rail-unfed")
        self.assertIn("left and the right rail are fed by nothing", snag.message)
        bench.place("terminal", 14, 14)
        bench.place("terminal", 82, 14)
        self.assertEqual(found(bench, "rail-unfed"), [])

    def test_a_rung_without_load_between_rails_without_names(self) -> None:
        bench = Workbench(rails=True)
        bench.wire((14, 25), (82, 25))
        bench.place("contact-no", 40, 25)
        (snag,) = found(bench, "short-circuit")
        self.assertTrue(snag.message.startswith("A rung without a load: the left rail"), snag.message)


class Volts(TestCase):
    """A circuit between two named potentials, behind a fuse terminal."""

    def circuit(self, key: str, part: str, one: str = "24 V DC", other: str = "0 V", poles: int = 1) -> list[str]:
        bench = Workbench(frame="zones")
        bench.wire((10, 20), (90, 20))
        bench.do("place-continuation", sheet_id=bench.sheet, x=10, y=20, name=one)
        bench.do("place-continuation", sheet_id=bench.sheet, x=90, y=20, name=other)
        bench.place("terminal-fuse", 20, 20)
        bench.place("button-no", 40, 20)
        symbol = bench.place(key, 60, 20)
        bench.do("assign-part", device_id=bench.device(symbol), part_id=part)
        return [
            s.message for s in snags_on(bench.project, bench.sheet) if s.code in ("coil-voltage", "consumer-voltage")
        ]

    def test_lamp_and_coil_behind_a_fuse_terminal(self) -> None:
        (lamp,) = self.circuit("lamp", "tamwick-tw-l22-r-230")
        self.assertIn("switched to 24 V DC, but TW-L22-R-230 is for 230 V", lamp)
        self.assertEqual(self.circuit("lamp", "tamwick-tw-l22-r-24"), [])
        self.assertEqual(self.circuit("lamp", "tamwick-tw-l22-r-230", "400 V L1", "400 V N"), [])
        self.assertEqual(len(self.circuit("lamp", "tamwick-tw-l22-r-230", "400 V L1", "400 V L2")), 1)
        self.assertEqual(self.circuit("heater-load", "brindlework-bw-h100", "L1", "N"), [])

    def test_kinds_of_voltage(self) -> None:
        (coil,) = self.circuit("valve", "hollin-hr-v120", "120 V DC", "0 V")
        self.assertIn("120 V DC, but the coil of HR-V120 is for 120 V AC", coil)
        self.assertEqual(self.circuit("valve", "hollin-hr-v120", "120 V AC", "0 V"), [])
        self.assertEqual(self.circuit("valve", "hollin-hr-v120", "115 V AC", "N"), [])

    def test_motor_and_transformer(self) -> None:
        bench = Workbench(frame="zones")
        for n in range(3):
            bench.wire((10, 20 + 4 * n), (40, 20 + 4 * n), type_id=bench.red)
            bench.do("place-continuation", sheet_id=bench.sheet, x=10, y=20 + 4 * n, name=f"690 V L{n + 1}")
        bench.place("motor-breaker", 20, 20)
        motor = bench.place("motor", 50, 40)
        for n in range(3):
            bench.wire((40, 20 + 4 * n), (50 + 4 * n, 20 + 4 * n), (50 + 4 * n, 40), type_id=bench.red)
        bench.do("assign-part", device_id=bench.device(motor), part_id="orrery-drives-od-n0-25")
        (snag,) = [s for s in all_snags(bench.project) if s.code == "consumer-voltage"]
        self.assertIn("690 V AC, but OD-N0-25 is for 400 V", snag.message)


class MotorLoads(TestCase):
    def test_a_contactor_too_small_for_its_motor_and_the_smallest_that_is_enough_first(self) -> None:
        bench = Workbench(frame="zones")
        for n in range(3):
            bench.wire((10, 20 + 4 * n), (40, 20 + 4 * n), type_id=bench.red)
        contactor = bench.place("contactor-pole", 20, 20)
        coil = bench.place("coil", 20, 60)
        bench.do("belong-to", symbol_id=contactor, device_id=bench.device(coil))
        motor = bench.place("motor", 50, 40)
        for n in range(3):
            bench.wire((40, 20 + 4 * n), (50 + 4 * n, 20 + 4 * n), (50 + 4 * n, 40), type_id=bench.red)
        bench.library.parts["m22"] = Part(
            "m22", "Maker", "M22", "motor", units=(("motor", ("U1", "V1", "W1", "PE")),), ratings={"rated_a": "22"}
        )
        bench.do("assign-part", device_id=bench.device(motor), part_id="m22")
        device = bench.project.devices[bench.device(coil)]
        parts = [p for p in bench.library.parts_of("contactor") if p.ratings.get("coil_voltage_v") == "24"]
        best = ranked(bench.project, device, parts)[0].part
        self.assertEqual(best.ratings["ac3_a"], "25")
        bench.do("assign-part", device_id=device.id, part_id="brindlework-bw-c09-24d")
        (snag,) = [s for s in all_snags(bench.project) if s.code == "motor-load"]
        self.assertIn("carries 9 A AC-3, but its motor takes 22 A", snag.message)
        bench.do("assign-part", device_id=device.id, part_id=best.id)
        self.assertNotIn("motor-load", {s.code for s in all_snags(bench.project)})
