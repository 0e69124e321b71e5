"""Which core serves what, by what a conductor carries; and the system of a cable's load."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.cables import PE, cable_cores, cable_drop, capacity_a, role_of
from jolly_core.checks import project_snags
from jolly_core.model import CoreChoice, Part, RuleError
from jolly_core.testing import Workbench


class Cable(TestCase):
    """Terminals in a panel, field wires of one type beyond them, and a band across those."""

    def lay(self, types: list[str], cores: tuple[str, ...], names: tuple[str, ...] = (), **ratings: str) -> None:
        self.bench = bench = Workbench(frame="zones")
        panel = bench.new("add-location", code="P", side="panel")
        field = bench.new("add-location", code="F", side="field")
        made = {
            "pe": bench.pe,
            "power": bench.new("add-wire-type", name="Power", colour="BK", cross_section_mm2=2.5, category="power"),
            "n": bench.new("add-wire-type", name="Neutral", colour="BU", cross_section_mm2=2.5, category="power"),
            "dc": bench.blue,
        }
        outside = bench.new(
            "add-wire-type", name="Field", colour="GY", category="external", outside=True, numbered=False
        )
        for n, kind in enumerate(types):
            y = 20 + 4 * n
            bench.wire((10, y), (20, y), type_id=made[kind])
            if n < len(names):
                bench.do("place-continuation", sheet_id=bench.sheet, x=10, y=y, name=names[n])
            terminal = bench.place("terminal-earth" if kind == "pe" else "terminal", 20, y, rotation=0)
            bench.wire((22, y), (60, y), type_id=outside)
            plug = bench.place("connector", 60, y)
            for symbol, place in ((terminal, panel), (plug, field)):
                device = bench.project.devices[bench.device(symbol)]
                if device.location_id != place:
                    bench.do("set-place", device_id=device.id, function_id="", location_id=place)
        self.band = bench.new("draw-band", sheet_id=bench.sheet, x1=40, y1=18, x2=40, y2=22 + 4 * len(types))
        self.cable = bench.project.bands[self.band].device_id
        self.give(cores, **ratings)

    def give(self, cores: tuple[str, ...], id: str = "c", **ratings: str) -> list[str]:
        units = tuple(("core", (name,)) for name in cores)
        ratings = {"cross_section_mm2": "1.5", **ratings}
        self.bench.library.parts[id] = Part(id, "Maker", id.upper(), "cable", units=units, ratings=ratings)
        return self.bench.do("assign-part", device_id=self.cable, part_id=id).remarks

    def served(self) -> dict[str, int]:
        """Return for each core the row (from 0) of the conductor it serves."""
        found = {}
        for row in cable_cores(self.bench.project, self.cable):
            if row.conductor is not None:
                ys = [self.bench.symbol(p[0]).y for p in (row.conductor.start, row.conductor.end)]
                found[row.name] = (ys[0] - 20) // 4
        return found

    def codes(self) -> set[str]:
        return {s.code for s in project_snags(self.bench.project)}


class Filling(Cable):
    def test_neutral_takes_blue_and_phases_brown_black_grey(self) -> None:
        self.lay(["n", "power", "power", "power", "pe"], ("BK", "GY", "BU", "BN", "GNYE"))
        self.assertEqual(self.served(), {"BU": 0, "BN": 1, "BK": 2, "GY": 3, "GNYE": 4})

    def test_phases_by_their_names_whatever_the_order(self) -> None:
        self.lay(["power"] * 3, ("BU", "BN", "BK", "GY", "GNYE"), ("L3", "L1", "L2"))
        self.assertEqual(self.served(), {"BN": 1, "BK": 2, "GY": 0})

    def test_control_dc_never_takes_green_yellow(self) -> None:
        self.lay(["dc"] * 7, ("1", "2", "3", "4", "5", "6", "GNYE"))
        self.assertNotIn("GNYE", self.served())
        self.assertEqual([r.ordinal for r in cable_cores(self.bench.project, self.cable)][-1], 0)
        self.assertIn("cable-cores", self.codes())

    def test_field_wires_count_by_what_they_carry(self) -> None:
        self.lay(["dc", "pe"], ("1", "GNYE"))
        roles = [
            role_of(self.bench.project, r.conductor) for r in cable_cores(self.bench.project, self.cable) if r.conductor
        ]
        self.assertEqual(roles, ["", PE])
        with self.assertRaisesRegex(RuleError, "green-yellow"):
            self.bench.do("swap-cores", device_id=self.cable, first=1, second=2)


class ChoicesThatNoLongerFit(Cable):
    def test_changing_the_part_drops_and_names_them(self) -> None:
        self.lay(["dc"] * 6, ("1", "2", "3", "4", "5", "6", "7"))
        self.bench.do("swap-cores", device_id=self.cable, first=1, second=7)
        self.assertIn("7", self.served())
        remarks = self.give(("1", "2", "3", "4", "5", "6", "GNYE"), "seven")
        self.assertEqual(len(remarks), 1)
        self.assertIn("was dropped: the green-yellow core takes a protective conductor only", remarks[0])
        self.assertNotIn("GNYE", self.served())
        self.assertNotIn("core-choice", self.codes())

    def test_one_that_came_with_a_file_is_passed_over_and_told(self) -> None:
        self.lay(["dc"] * 2, ("1", "2", "GNYE"))
        key = next(r.conductor.key for r in cable_cores(self.bench.project, self.cable) if r.conductor)
        self.bench.project.load("core_choice", [CoreChoice("x", self.cable, 3, key)])
        self.assertNotIn("GNYE", self.served())
        (snag,) = [s for s in project_snags(self.bench.project) if s.code == "core-choice"]
        self.assertIn("green-yellow", snag.message)
        assert snag.act is not None
        self.bench.do(**snag.act.payload())
        self.assertNotIn("core-choice", self.codes())

    def test_protective_without_green_yellow_and_two_cables(self) -> None:
        self.lay(["dc", "pe"], ("1", "2"))
        self.assertIn("protective-core", self.codes())
        self.bench.do("draw-band", sheet_id=self.bench.sheet, x1=50, y1=18, x2=50, y2=22)
        self.assertIn("two-cables", self.codes())


class Drops(Cable):
    def drop(self, **values: float) -> float:
        self.bench.do("set-cable", device_id=self.cable, length_m=20, **values)
        return round(cable_drop(self.bench.project, next(iter(self.bench.project.cables.values()))).volts, 2)

    def test_five_direct_current_conductors_are_two_wire(self) -> None:
        self.lay(["dc"] * 5, ("1", "2", "3", "4", "5"))
        self.assertEqual(self.drop(load_a=5, voltage_v=24), 3.18)

    def test_three_named_phases_and_one(self) -> None:
        self.lay(["power"] * 3, ("1", "2", "3"), ("400 V L1", "400 V L2", "400 V L3"))
        three = self.drop(load_a=5, voltage_v=400, power_factor=1)
        self.lay(["power"] * 3, ("1", "2", "3"), ("400 V L1", "400 V N", "400 V L1"))
        self.assertAlmostEqual(self.drop(load_a=5, voltage_v=230, power_factor=1) / three, 2 / 3**0.5, 2)

    def test_sizes_by_gauge_and_by_core(self) -> None:
        self.lay(["dc"] * 2, ("1", "2"), cross_section_mm2="", awg="12")
        self.assertEqual(self.drop(load_a=5, voltage_v=24), 1.91)
        part = self.bench.project.parts["c"]
        self.bench.project.parts["c"] = replace(part, details=({"section": "1.5"}, {"section": "0.75"}))
        self.assertGreater(self.drop(load_a=5, voltage_v=24.0001), 5)

    def capacity(self, load: float) -> tuple[float, bool]:
        """Return what the cable carries, A, and whether a load is a snag."""
        self.bench.do("set-cable", device_id=self.cable, load_a=load)
        cable = next(iter(self.bench.project.cables.values()))
        return capacity_a(self.bench.project, cable), "cable-capacity" in self.codes()

    def test_capacity_by_section_and_by_gauge(self) -> None:
        self.lay(["power"] * 3, ("1", "2", "3"))
        self.assertEqual(self.capacity(13.1), (13.1, False))
        self.assertEqual(self.capacity(13.2), (13.1, True))
        self.assertEqual(self.capacity(0), (13.1, False))
        self.give(("1", "2", "3"), "awg", cross_section_mm2="", awg="14")
        self.assertEqual(self.capacity(15.5), (15.6, False))
        self.assertEqual(self.capacity(16), (15.6, True))
        self.give(("1", "2", "3"), "thin", cross_section_mm2="0.34")
        self.assertEqual(self.capacity(0), (0.0, False))
        self.assertEqual(self.capacity(17), (0.0, True))
        (said,) = [s.message for s in project_snags(self.bench.project) if s.code == "cable-capacity"]
        self.assertIn("What 0.34 mm² carry is not known", said)

    def test_a_thin_pair_beside_the_phases_does_not_lead_the_load(self) -> None:
        self.lay(["power", "power", "power", "dc", "dc", "pe"], ("1", "2", "3", "4", "5", "GNYE"))
        self.assertEqual([core for core, row in self.served().items() if row in (3, 4)], ["4", "5"])
        part = self.bench.project.parts["c"]
        sizes = ("4", "4", "2.5", "1", "1", "4")
        self.bench.project.parts["c"] = replace(part, details=tuple({"section": s} for s in sizes))
        self.assertEqual(self.capacity(17.4), (17.4, False))
        self.assertEqual(self.capacity(18), (17.4, True))
        message = next(s.message for s in project_snags(self.bench.project) if s.code == "cable-capacity")
        self.assertIn("loaded with 18 A and its cores carry 17.4 A", message)
