"""Field wires in no cable: grouped by where they run, gathered by bands that cross them alone, parts that fit."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.cables import bands_of, cable_conductors, cable_cores, cable_length_m, need_of, parts_for
from jolly_core.checks import project_snags
from jolly_core.drawing import pin_points
from jolly_core.edits.base.history import take_back
from jolly_core.making import dossiers, field_groups, open_conductors
from jolly_core.model import RuleError
from jolly_core.tagging import full_tag, natural, pin_name
from jolly_core.testing import Workbench


class Gathering(TestCase):
    def setUp(self) -> None:
        """A motor with PE and three control wires from a panel's strip to the field."""
        self.bench = Workbench(frame="zones")
        self.project = self.bench.project
        self.panel = self.bench.new("add-location", code="P", side="panel")
        self.field = self.bench.new("add-location", code="F", side="field")
        self.power = self.bench.new("add-wire-type", name="Power", colour="BK", cross_section_mm2=2.5, category="power")
        self.outside = self.bench.new("add-wire-type", name="Field", colour="GY", category="external", outside=True)
        self.breaker = self.bench.place("breaker", 20, 10, poles=3, rotation=90, mirror=True)
        self._at(self.breaker, self.panel)
        motor = self.bench.place("motor", 20, 70)
        self._at(motor, self.field)
        self.motor = motor
        for n, (x, y) in enumerate(self._pins(motor)):
            wire_type = self.bench.pe if n == 3 else self.power
            self.bench.wire((x, 30), (x, y), type_id=wire_type)
        for y in (20, 24, 28):
            for x, place in ((90, self.panel), (140, self.field)):
                lamp = self.bench.place("lamp", x, y)
                self._at(lamp, place)
            self.bench.wire((94, y), (140, y))
        row = {"sheet_id": self.bench.sheet, "new_strip": True}
        first = self.bench.do("place-terminals", x1=18, y1=50, x2=self._pins(motor)[3][0] + 2, y2=50, **row).placed
        second = self.bench.do("place-terminals", x1=110, y1=18, x2=110, y2=30, **row).placed
        for strip in dict.fromkeys(self.bench.device(id) for id in (*first, *second)):
            self.bench.do("set-place", device_id=strip, function_id="", location_id=self.panel)

    def _at(self, symbol: str, place: str) -> None:
        self.bench.do("set-place", device_id=self.bench.device(symbol), function_id="", location_id=place)

    def _pins(self, motor: str) -> list[tuple[int, int]]:
        return pin_points(self.project.symbols[motor])

    def test_groups_by_place_and_use_with_the_earth_beside_its_power(self) -> None:
        groups = field_groups(self.project)
        found = [(g.use, g.source, g.destination.split(" ")[0], len(g.conductors)) for g in groups]
        self.assertEqual(found, [("control", "+P", "+F", 3), ("power", "+P", "+F", 4)])

    def test_a_wire_that_runs_in_nothing_says_why(self) -> None:
        def said() -> dict[str, str]:
            opened = [d for d in dossiers(self.project).values() if d.runs == "open"]
            return {e.name: d.missing for d in opened for e in (d.start, d.end)}

        self.assertEqual(said()["+F-MA1:U1"], "It leaves the panel, and no cable band crosses it.")
        self._at(self.motor, "")
        tag = full_tag(self.project, self.project.devices[self.bench.device(self.motor)])
        self.assertEqual(said()[f"{tag}:U1"], f"{tag} has no location, so that it is not known where the wire runs.")

    def test_a_wire_to_a_contact_of_no_device_says_so(self) -> None:
        self.bench.place("contact-nc", 120, 60)
        lamp = self.bench.place("lamp", 90, 60)
        self.bench.wire((94, 60), (120, 60))
        said = [d.missing for d in dossiers(self.project).values() if lamp in (d.start.pin[0], d.end.pin[0])]
        self.assertEqual(said, ["An end belongs to no device."])

    def test_a_group_is_gathered_by_one_band_and_undone(self) -> None:
        control, power = field_groups(self.project)
        need = need_of(self.project, power.conductors)
        self.assertEqual((need.live, need.protective, need.area_mm2), (3, True, 2.5))
        part = parts_for(need, self.bench.library.parts_of("cable"))[0]
        self.assertEqual(part.number, "QL-YY4G2-5")
        outcome = self.bench.do("gather-wires", group=power.key, part_id=part.id)
        (cable,) = outcome.placed
        self.assertEqual(full_tag(self.project, self.project.devices[cable]), "+P-WD1")
        (band,) = bands_of(self.project, cable)
        self.assertEqual(band.y1, band.y2)
        self.assertEqual([r.name for r in cable_cores(self.project, cable) if r.conductor], ["BN", "BK", "GY", "GNYE"])
        self.assertEqual([g.use for g in field_groups(self.project)], ["control"])
        with self.assertRaisesRegex(RuleError, "-WD1, QL-YY4G2-5, has 0 live cores left, and 3 are needed"):
            self.bench.do("gather-wires", group=control.key, device_id=cable)
        self.bench.do("assign-part", device_id=cable, part_id="QL-YY7G2-5")
        self.bench.do("gather-wires", group=control.key, device_id=cable)
        self.assertEqual(len(cable_conductors(self.project, cable)), 7)
        mixed = [s.message for s in project_snags(self.project) if s.code == "cable-mixed"]
        self.assertEqual(mixed, ["+P-WD1 leads control and power together. Use a cable for each."])
        with self.assertRaisesRegex(RuleError, "no longer run so"):
            self.bench.do("gather-wires", group=control.key)
        for _ in range(3):
            self.project.apply(take_back(self.project, self.bench.done.pop().changes))
            if not self.bench.done or self.bench.done[-1].label.startswith("place"):
                break
        self.assertEqual(len(open_conductors(self.project)), 7)

    def test_some_wires_are_gathered_without_those_between(self) -> None:
        control = field_groups(self.project)[0]
        keys = [c.key for c in control.conductors]
        (cable,) = self.bench.do("gather-wires", keys=[keys[0], keys[2]]).placed
        self.assertEqual(len(bands_of(self.project, cable)), 2, "nothing is crossed that was not chosen")
        self.assertEqual({c.key for c in cable_conductors(self.project, cable)}, {keys[0], keys[2]})

    def test_a_smaller_part_names_the_conductors_that_lose_their_core(self) -> None:
        control = field_groups(self.project)[0]
        (cable,) = self.bench.do("gather-wires", group=control.key, part_id="QL-S4-0.5S").placed
        outcome = self.bench.do("assign-part", device_id=cable, part_id="QL-YY2X1")
        self.assertEqual(len(outcome.table), 1)
        self.assertEqual(outcome.table[0][0], "core GN")
        self.assertRegex(outcome.table[0][1], r"XD2:3 to \+F-PF3:X1 loses its core")
        self.assertRegex(outcome.remarks[0], r"-WD1 has no core left for .*PF3:X1")

    def test_cores_are_filled_by_number_or_source_and_called_by_number(self) -> None:
        control = field_groups(self.project)[0]
        (cable,) = self.bench.do("gather-wires", group=control.key, part_id="QL-C7G1.5").placed
        ends = [pin_name(self.project, c.end) for c in cable_conductors(self.project, cable)]

        def served() -> list[str]:
            rows = cable_cores(self.project, cable)
            return [pin_name(self.project, r.conductor.end) for r in rows if r.conductor is not None]

        self.bench.do("swap-cores", device_id=cable, first=1, second=3)
        self.assertNotEqual(served(), ends)
        self.bench.do("fill-cores", by="number")
        numbers = [r.conductor.number for r in cable_cores(self.project, cable) if r.conductor is not None]
        self.assertEqual(numbers, sorted(numbers, key=natural))
        self.bench.do("fill-cores", device_ids=[cable])
        self.assertEqual((served(), self.project.core_choices), (ends, {}))
        self.bench.do("assign-part", device_id=cable, part_id="QL-C5G2.5")
        self.bench.do("set-cable", device_id=cable, numbered=True)
        self.assertEqual([r.name for r in cable_cores(self.project, cable)], ["1", "2", "3", "4", "GNYE"])

    def test_a_cable_part_is_made_on_the_spot(self) -> None:
        control = field_groups(self.project)[0]
        (cable,) = self.bench.do("gather-wires", group=control.key).placed
        own = {"device_id": cable, "maker": "Quillon", "number": "QL-OWN-5", "cores": "4x2x0.5"}
        self.bench.do("make-cable-part", **own, outer_diameter_mm=8.1, shielded=True)
        part = self.project.part_of(self.project.devices[cable])
        self.assertIsNotNone(part)
        kinds = [kind for kind, _ in part.units] if part else []
        self.assertEqual((kinds.count("core"), kinds.count("shield")), (8, 1))
        self.assertEqual(part.ratings["outer_diameter_mm"] if part else "", "8.1")
        self.assertEqual(sum(1 for r in cable_cores(self.project, cable) if r.conductor), 3)
        with self.assertRaisesRegex(RuleError, "a part QL-OWN-5 of Quillon already"):
            self.bench.do("make-cable-part", **own)
        with self.assertRaisesRegex(RuleError, "says no cores. Write for example"):
            self.bench.do("make-cable-part", **{**own, "number": "X1", "cores": "many"})

    def test_length_by_the_table_of_ways_with_an_allowance(self) -> None:
        power = field_groups(self.project)[1]
        (id,) = self.bench.do("gather-wires", group=power.key, part_id="QL-C4G2.5").placed
        cable = next(c for c in self.project.cables.values() if c.device_id == id)
        self.assertEqual(cable_length_m(self.project, cable), (0.0, ""))
        self.bench.do("set-cable-way", a_id=self.field, b_id=self.panel, length_m=35)
        self.bench.do("change-settings", cable_allowance_m=2.5)
        self.assertEqual(cable_length_m(self.project, cable), (37.5, "35 m from +F to +P and 2.5 m allowance"))
        self.bench.do("set-cable", device_id=id, length_m=20)
        self.assertEqual(cable_length_m(self.project, self.project.cables[cable.id]), (20.0, "typed"))
        self.bench.do("set-cable-way", a_id=self.panel, b_id=self.field, length_m=0)
        self.assertEqual(len(self.project.cable_ways), 0)
        with self.assertRaisesRegex(RuleError, "from one location to another"):
            self.bench.do("set-cable-way", a_id=self.panel, b_id=self.panel, length_m=3)

    def test_a_core_too_thin_for_the_breaker_in_front_and_a_drop_above_the_limit(self) -> None:
        self.bench.do("assign-part", device_id=self.bench.device(self.breaker), part_id=self._breaker_of(16))
        for n, (x, _) in enumerate(self._pins(self.motor)[:3]):
            pin = self._pins(self.breaker)[2 * n + 1]
            self.bench.wire(pin, (pin[0], 30), (x, 30), type_id=self.power)
        power = field_groups(self.project)[-1]
        (cable,) = self.bench.do("gather-wires", group=power.key, part_id="QL-C4G1.5").placed

        def found(code: str) -> list[str]:
            return [s.message for s in project_snags(self.project) if s.code == code]

        (message,) = found("cable-protection")
        self.assertIn("carries 13.1 A laid as B2 at 40 °C", message)
        self.assertIn("lets 16 A through", message)
        self.bench.do("assign-part", device_id=cable, part_id="QL-C4G2.5")
        self.assertEqual(found("cable-protection"), [], "2.5 mm² carry 17.4 A")
        self.bench.do("set-cable", device_id=cable, length_m=300, load_a=10, voltage_v=400)
        self.assertRegex(found("cable-drop")[0], r"drops \d+\.\d\d %, more than 5 %")
        self.bench.do("set-cable", device_id=cable, length_m=120)
        self.assertRegex(found("cable-drop")[0], "more than 3 %")

    def _breaker_of(self, amps: int) -> str:
        parts = self.bench.library.parts_of("breaker")
        return next(p.id for p in parts if p.ratings.get("rated_a") == str(amps) and p.count("pole") == 3)


class Shields(TestCase):
    def test_an_unlanded_shield_is_told_and_mended_by_its_act(self) -> None:
        bench = Workbench(frame="zones")
        lamps = [bench.place("lamp", x, 20) for x in (20, 60)]
        bench.wire((24, 20), (60, 20))
        self.assertEqual(len(lamps), 2)
        cable = bench.new("draw-band", sheet_id=bench.sheet, x1=40, y1=18, x2=40, y2=22, part_id="QL-S4-0.5S")
        device = bench.project.bands[cable].device_id
        (snag,) = [s for s in project_snags(bench.project) if s.code == "shield-unlanded"]
        self.assertIsNotNone(snag.act)
        bench.do(**(snag.act.payload() if snag.act else {"kind": ""}))
        self.assertEqual(next(c for c in bench.project.cables.values()).shield_landed, "source")
        self.assertNotIn("shield-unlanded", {s.code for s in project_snags(bench.project)})
        bench.do("set-cable", device_id=device, turned=True)
