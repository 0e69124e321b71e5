"""Cables: bands, cores in crossing order, swapped cores, voltage drop from what is drawn."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.cables import cable_conductors, cable_cores, cable_drop, cored, crossed_wires, load_a
from jolly_core.checks import project_snags
from jolly_core.model import RuleError
from jolly_core.testing import Workbench
from jolly_core.wiring import all_conductors


class Band(TestCase):
    def setUp(self) -> None:
        """A motor in the field on four upright wires from terminals in the panel, crossed by a band."""
        self.bench = Workbench(frame="zones")
        panel = self.bench.new("add-location", code="P", side="panel")
        field = self.bench.new("add-location", code="F", side="field")
        self.power = self.bench.new("add-wire-type", name="Power", colour="BK", cross_section_mm2=2.5, category="power")
        self.motor = self.bench.place("motor", 30, 82, part_id="orrery-od-m3")
        self.bench.do("set-place", device_id=self.bench.device(self.motor), function_id="", location_id=field)
        for n in range(4):
            x = 30 + 4 * n
            self.bench.wire((x, 60), (x, 82), type_id=self.pe_last(n))
        row = self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=28, y1=64, x2=44, y2=64).placed
        strip = self.bench.device(row[0])
        self.bench.do("set-place", device_id=strip, function_id="", location_id=panel)
        self.band = self.bench.new("draw-band", sheet_id=self.bench.sheet, x1=28, y1=76, x2=44, y2=76)
        self.cable = self.bench.project.bands[self.band].device_id

    def pe_last(self, n: int) -> str:
        return self.bench.pe if n == 3 else self.power

    def served(self) -> list[tuple[str, str]]:
        """Return core and motor pin of each core, "" for a spare one."""
        found = []
        for row in cable_cores(self.bench.project, self.cable):
            far = (
                next((p for p in (row.conductor.start, row.conductor.end) if p[0] == self.motor), None)
                if row.conductor
                else None
            )
            found.append((row.name, "UVWP"[far[1]] if far else ""))
        return found

    def give(self, part: str) -> None:
        self.bench.do("assign-part", device_id=self.cable, part_id=part)

    def test_cores_are_filled_in_crossing_order_and_the_protective_one_is_green_yellow(self) -> None:
        self.assertEqual(len(cable_conductors(self.bench.project, self.cable)), 4)
        self.give("quillon-ql-c4g2-5")
        self.assertEqual(self.served(), [("BN", "U"), ("BK", "V"), ("GY", "W"), ("GNYE", "P")])

    def test_a_band_drawn_the_other_way_fills_the_other_way(self) -> None:
        self.bench.do("delete-selection", ids=[self.band])
        self.assertNotIn(self.cable, self.bench.project.devices)
        self.band = self.bench.new("draw-band", sheet_id=self.bench.sheet, x1=44, y1=76, x2=28, y2=76)
        self.cable = self.bench.project.bands[self.band].device_id
        self.give("quillon-ql-c4g2-5")
        self.assertEqual(self.served(), [("BN", "W"), ("BK", "V"), ("GY", "U"), ("GNYE", "P")])

    def test_spare_cores_stay_visible(self) -> None:
        self.give("quillon-ql-c7g1-5")
        self.assertEqual(
            self.served(), [("1", "U"), ("2", "V"), ("3", "W"), ("4", ""), ("5", ""), ("6", ""), ("GNYE", "P")]
        )

    def test_a_swap_stays_when_the_cable_is_filled_again(self) -> None:
        self.give("quillon-ql-c7g1-5")
        self.bench.do("swap-cores", device_id=self.cable, first=1, second=3)
        self.assertEqual(self.served()[:3], [("1", "W"), ("2", "V"), ("3", "U")])
        self.bench.do("move-selection", ids=[self.band], dx=0, dy=-2)
        self.bench.do("swap-cores", device_id=self.cable, first=2, second=5)
        self.assertEqual(self.served()[:6], [("1", "W"), ("2", ""), ("3", "U"), ("4", ""), ("5", "V"), ("6", "")])
        self.bench.do("default-cores", device_id=self.cable)
        self.assertEqual(self.served()[:3], [("1", "U"), ("2", "V"), ("3", "W")])

    def test_the_green_yellow_core_is_kept_for_the_protective_conductor(self) -> None:
        self.give("quillon-ql-c4g2-5")
        for first, second in ((1, 4), (4, 1)):
            with self.assertRaisesRegex(RuleError, "green-yellow core"):
                self.bench.do("swap-cores", device_id=self.cable, first=first, second=second)
        self.give("quillon-ql-s8-0-75")
        self.assertEqual(self.served()[:4], [("WH", "U"), ("BN", "V"), ("GN", "W"), ("YE", "P")])

    def test_fewer_cores_than_conductors_is_a_snag_and_nothing_is_lost(self) -> None:
        self.give("quillon-ql-c4g2-5")
        lamp = self.bench.place("lamp", 60, 82, rotation=90, mirror=True)
        self.bench.wire((60, 60), (60, 82))
        self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=58, y1=64, x2=62, y2=64)
        self.bench.do("draw-band", sheet_id=self.bench.sheet, x1=58, y1=76, x2=62, y2=76, device_id=self.cable)
        rows = cable_cores(self.bench.project, self.cable)
        self.assertEqual((rows[-1].ordinal, rows[-1].conductor is None), (0, False))
        found = [s.message for s in project_snags(self.bench.project) if s.code == "cable-cores"]
        self.assertEqual(found, ["-WD1 has 1 conductor more than cores. Choose a larger cable."])
        self.assertTrue(lamp)

    def test_each_conductor_is_in_one_cable_only(self) -> None:
        self.give("quillon-ql-c4g2-5")
        self.bench.new("draw-band", sheet_id=self.bench.sheet, x1=28, y1=72, x2=44, y2=72)
        owners = {device for device, _ in cored(self.bench.project).values()}
        self.assertEqual(owners, {self.cable})
        self.assertLessEqual(set(cored(self.bench.project)), set(all_conductors(self.bench.project)))

    def test_the_drop_takes_load_and_voltage_from_the_motor(self) -> None:
        cable = next(iter(self.bench.project.cables.values()))
        with self.assertRaisesRegex(RuleError, "length"):
            cable_drop(self.bench.project, cable)
        self.bench.do("set-cable", device_id=self.cable, length_m=35)
        with self.assertRaisesRegex(RuleError, "cable part"):
            cable_drop(self.bench.project, next(iter(self.bench.project.cables.values())))
        self.give("quillon-ql-c4g2-5")
        found = cable_drop(self.bench.project, next(iter(self.bench.project.cables.values())))
        self.assertEqual((round(found.volts, 2), round(found.percent, 2)), (3.18, 0.79))
        self.bench.do("set-cable", device_id=self.cable, load_a=15.5)
        found = cable_drop(self.bench.project, next(iter(self.bench.project.cables.values())))
        self.assertEqual(round(found.volts, 2), 7.58)

    def test_the_rating_of_a_switch_is_no_load(self) -> None:
        """A 63 A isolator at the motor's end of a 2.5 mm² cable passes on what the motor takes, which is typed."""
        self.bench.do("set-cable", device_id=self.cable, length_m=35)
        self.give("quillon-ql-c4g2-5")
        motor = self.bench.project.parts["orrery-od-m3"]
        poles = (("pole", ("1", "2")), ("pole", ("3", "4")), ("pole", ("5", "6")))
        switch = replace(motor, part_class="disconnector", units=poles, ratings={"rated_a": "63", "voltage_v": "400"})
        self.bench.project.parts["orrery-od-m3"] = switch
        with self.assertRaisesRegex(RuleError, "Type the cable's load"):
            cable_drop(self.bench.project, next(iter(self.bench.project.cables.values())))
        self.assertNotIn("cable-capacity", [s.code for s in project_snags(self.bench.project)])

    def test_a_cable_to_one_end_of_the_windings_carries_its_share(self) -> None:
        b = Workbench(frame="zones")
        power = b.new("add-wire-type", name="Power", colour="BK", cross_section_mm2=2.5, category="power")
        motor = b.place("motor-six", 60, 60, part_id="orrery-drives-od-n11-d")
        for n in range(7):
            b.wire((60 + 4 * n, 20), (60 + 4 * n, 60), type_id=b.pe if n == 6 else power)
        b.do("place-terminals", sheet_id=b.sheet, x1=58, y1=24, x2=86, y2=24)
        b.do("draw-band", sheet_id=b.sheet, x1=58, y1=40, x2=70, y2=40)
        b.do("draw-band", sheet_id=b.sheet, x1=71, y1=44, x2=82, y2=44)
        near, far = b.project.cables.values()
        rated = float(b.project.parts["orrery-drives-od-n11-d"].ratings["rated_a"])
        self.assertEqual(b.project.devices[b.symbol(motor).device_id].part_id, "orrery-drives-od-n11-d")
        for cable in (near, far):
            self.assertAlmostEqual(load_a(b.project, cable), rated / 3**0.5, places=2)

    def test_a_wire_outside_the_panel_without_a_cable_is_a_snag(self) -> None:
        self.assertNotIn("field-wire", [s.code for s in project_snags(self.bench.project)])
        self.bench.do("delete-selection", ids=[self.band])
        found = [s.message for s in project_snags(self.bench.project) if s.code == "field-wire"]
        self.assertEqual(len(found), 4)
        self.assertIn("Draw a band across it.", found[0])


class Crossing(TestCase):
    def test_only_wires_at_a_right_angle_count_and_in_order(self) -> None:
        bench = Workbench(frame="zones")
        for x in (30, 20, 40):
            bench.wire((x, 20), (x, 40))
        bench.wire((10, 60), (50, 60))
        found = crossed_wires(bench.project, bench.sheet, (45, 30), (15, 30))
        self.assertEqual([bench.project.wires[i].x1 for i in found], [40, 30, 20])
        self.assertEqual(crossed_wires(bench.project, bench.sheet, (10, 60), (50, 60)), [])
        self.assertEqual(crossed_wires(bench.project, bench.sheet, (45, 50), (15, 50)), [])
