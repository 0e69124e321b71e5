"""Checks while drawing: each finds its fault with its place, and is quiet where all is right."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from jolly_core.checks import all_snags, muted_snags, snags_on
from jolly_core.circuits import control_volts, labels_of
from jolly_core.model import RuleError
from jolly_core.testing import Workbench
from jolly_core.wiring import Group, potential_in, sheet_groups


def codes(bench: Workbench) -> set[str]:
    """Return the codes of the snags of the first sheet."""
    return {s.code for s in snags_on(bench.project, bench.sheet)}


def mark(bench: Workbench, x: int, y: int, name: str, sheet_id: str = "") -> str:
    """Place a continuation."""
    return bench.new("place-continuation", sheet_id=sheet_id or bench.sheet, x=x, y=y, name=name)


class Potentials(TestCase):
    def test_what_a_name_says(self) -> None:
        for name, said in (
            ("400 V L1", ("L1", "400")),
            ("24 V door", ("", "24")),
            ("0 V", ("", "0")),
            ("+24 V", ("", "24")),
            ("PE", ("PE", "")),
            ("Start", ("", "")),
            ("L1 L2 L3", ("", "")),
            ("24VDC", ("", "24")),
            ("120 VAC", ("", "120")),
            ("24 Valves", ("", "")),
        ):
            self.assertEqual(potential_in(name), said, name)

    def test_two_phases_or_24_and_0_volts_on_one_net(self) -> None:
        for one, other in (("400 V L1", "400 V L2"), ("24 V", "0 V")):
            bench = Workbench(frame="zones")
            bench.wire((10, 20), (60, 20))
            mark(bench, 10, 20, one)
            mark(bench, 60, 20, other)
            found = [s for s in snags_on(bench.project, bench.sheet) if s.code == "joined-potentials"]
            self.assertEqual(len(found), 1)
            self.assertEqual((found[0].x, found[0].y), (10, 20))
            self.assertIn("are joined", found[0].message)

    def test_types_of_wire_say_their_potential_inside_the_panel(self) -> None:
        bench = Workbench(frame="zones")
        plus = bench.new("add-wire-type", name="24 V DC", colour="RD", cross_section_mm2=1.0)
        zero = bench.new("add-wire-type", name="0 V DC", colour="WHBU", cross_section_mm2=1.0)
        bench.wire((10, 20), (60, 20), type_id=plus)
        bench.wire((30, 20), (30, 40), type_id=bench.blue)
        self.assertNotIn("joined-potentials", codes(bench))
        bench.wire((60, 20), (60, 40), type_id=zero)
        found = [s for s in snags_on(bench.project, bench.sheet) if s.code == "joined-potentials"]
        self.assertEqual([s.message for s in found], ["0 V and 24 V are joined."])

    def test_types_of_wire_that_name_a_circuit_say_no_potential(self) -> None:
        """Wires of "230 V AC" are on both sides of a lamp, and those of "Power L1 L2 L3" on three phases."""
        for name, category in (
            ("Control 24 V DC", "control-dc"),
            ("230 V AC", "control-ac"),
            ("Main 400 V", "power"),
            ("400 V", "power"),
            ("Power L1 L2 L3", "power"),
            ("Power L1-L3", "power"),
        ):
            with self.subTest(name=name):
                bench = Workbench(frame="zones")
                kind = bench.new("add-wire-type", name=name, colour="BK", category=category)
                lamp = bench.place("lamp", 30, 20)
                for x, far, label in ((10, 30, "L1"), (34, 60, "L2")):
                    bench.wire((x, 20), (far, 20), type_id=kind)
                    mark(bench, x if label == "L1" else far, 20, label)
                found = codes(bench) & {"joined-potentials", "dead-load", "short-circuit"}
                self.assertEqual(found, set(), bench.symbol(lamp).definition)

    def test_volts_written_in_one_word(self) -> None:
        bench = Workbench(frame="zones", control_voltages="120VAC")
        self.assertEqual(control_volts(bench.project, "AC"), 120)
        self.assertIsNone(control_volts(bench.project, "DC"))
        for name, kind in (("24VDC", "DC"), ("120VAC", "AC"), ("24 V", "DC")):
            (group,) = self._named(name)
            self.assertEqual([label.kind for label in labels_of(self.bench.project, [group]).values()], [kind])

    def _named(self, name: str) -> list[Group]:
        self.bench = Workbench(frame="zones")
        self.bench.wire((10, 20), (60, 20))
        mark(self.bench, 10, 20, name)
        return sheet_groups(self.bench.project, self.bench.sheet).groups

    def test_one_potential_under_two_names_is_right(self) -> None:
        bench = Workbench(frame="zones")
        bench.wire((10, 20), (60, 20))
        mark(bench, 10, 20, "24 V")
        mark(bench, 60, 20, "24 V door")
        self.assertNotIn("joined-potentials", codes(bench))

    def test_a_rung_without_a_load_joins_the_rails(self) -> None:
        bench = Workbench(rails=True)
        self.assertNotIn("joined-potentials", codes(bench))
        bench.wire((14, 25), (82, 25))
        self.assertIn("joined-potentials", codes(bench))

    def test_both_ends_of_a_supply_joined(self) -> None:
        bench = Workbench(frame="zones")
        supply = bench.place("dc-supply", 30, 30)
        bench.do("assign-part", device_id=bench.device(supply), part_id="HR-P5")
        bench.wire((30, 38), (30, 45), (34, 45), (34, 38))
        found = [s.message for s in snags_on(bench.project, bench.sheet) if s.code == "joined-potentials"]
        self.assertEqual(found, ["0 V and 24 V are joined."])

    def test_a_protective_conductor_on_a_live_one(self) -> None:
        bench = Workbench(frame="zones")
        bench.wire((10, 20), (60, 20), type_id=bench.red)
        bench.wire((30, 20), (30, 50), type_id=bench.pe)
        self.assertIn("protective-joined", codes(bench))


class Numbers(TestCase):
    def test_a_number_fixed_here_and_made_by_a_rule_there(self) -> None:
        bench = Workbench(rails=False, frame="zones")
        bench.wire((10, 20), (60, 20))
        bench.wire((10, 40), (60, 40))
        self.assertNotIn("number-twice", codes(bench))
        bench.do("put-number-rule", name="All named", pieces=[{"piece": "potential"}])
        for y in (20, 40):
            mark(bench, 10, y, f"24 V {y}")
        self.assertNotIn("number-twice", codes(bench))
        first = next(w for w in bench.project.wires.values() if w.y1 == 20)
        bench.do("fix-wire-number", wire_id=first.id, number="24 V 40")
        self.assertIn("number-twice", codes(bench))


class Coils(TestCase):
    def circuit(self, part: str, name: str = "24 V") -> Workbench:
        bench = Workbench(frame="zones")
        bench.wire((10, 20), (80, 20))
        mark(bench, 10, 20, name)
        mark(bench, 80, 20, "0 V")
        bench.place("button-no", 24, 20)
        coil = bench.place("coil", 60, 20)
        bench.do("assign-part", device_id=bench.device(coil), part_id=part)
        self.coil = coil
        return bench

    def test_a_coil_for_another_voltage_is_found_through_the_button(self) -> None:
        wrong = self.circuit("brindlework-bw-c09-230a")
        found = [s for s in snags_on(wrong.project, wrong.sheet) if s.code == "coil-voltage"]
        self.assertEqual([s.ids for s in found], [(self.coil,)])
        self.assertIn("switched to 24 V", found[0].message)
        self.assertNotIn("coil-voltage", codes(self.circuit("brindlework-bw-c09-24d")))
        self.assertNotIn("coil-voltage", codes(self.circuit("brindlework-bw-c09-230a", "230 V")))

    def test_a_coil_without_contacts_until_one_is_drawn(self) -> None:
        bench = self.circuit("brindlework-bw-c09-24d")
        self.assertIn("coil-unused", codes(bench))
        bench.place("contact-no", 20, 40, device_id=bench.device(self.coil))
        self.assertNotIn("coil-unused", codes(bench))


class Ends(TestCase):
    def test_a_net_that_leads_to_another_sheet_and_nowhere(self) -> None:
        bench = Workbench(frame="zones")
        other = bench.new("add-sheet", number="40", frame="zones")
        bench.wire((10, 20), (60, 20))
        lamp = bench.place("lamp", 20, 20)
        mark(bench, 60, 20, "Fan runs")
        bench.wire((10, 20), (40, 20), sheet_id=other)
        mark(bench, 10, 20, "Fan runs", other)
        self.assertIn("dead-end", codes(bench))
        bench.place("contact-no", 40, 20, sheet_id=other, device_id=bench.device(lamp))
        self.assertNotIn("dead-end", codes(bench))

    def test_an_external_wire_that_would_be_numbered(self) -> None:
        bench = Workbench(frame="zones")
        bench.do("change-wire-types", changes=[{"wire_type_id": bench.blue, "outside": True}])
        bench.wire((10, 20), (60, 20))
        self.assertIn("external-numbered", codes(bench))
        bench.do("change-wire-types", changes=[{"wire_type_id": bench.blue, "numbered": False}])
        self.assertNotIn("external-numbered", codes(bench))

    def test_texts_that_leave_the_frame_or_lie_under_the_title_block(self) -> None:
        bench = Workbench(frame="zones")
        for x, y, text, found in (
            (20, 20, "Lock out before cleaning", False),
            (150, 20, "A text that is much too long for the rest of the line", True),
            (150, 108, "Under it", True),
        ):
            note = bench.new("place-note", sheet_id=bench.sheet, x=x, y=y, text=text)
            ids = {i for s in snags_on(bench.project, bench.sheet) if s.code == "outside-frame" for i in s.ids}
            self.assertEqual(note in ids, found, text)


class Mutes(TestCase):
    def muted(self, **values: Any) -> Workbench:
        bench = Workbench(frame="zones")
        coil = bench.place("coil", 40, 20)
        snag = next(s for s in snags_on(bench.project, bench.sheet) if s.code == "coil-unused")
        bench.do("mute-snag", key=snag.key, reason="Reserve for the second auger")
        self.coil = coil
        return bench

    def test_a_muted_snag_is_listed_apart_with_its_reason_wherever_it_moves(self) -> None:
        bench = self.muted()
        bench.do("move-selection", ids=[self.coil], dx=10, dy=0)
        self.assertNotIn("coil-unused", codes(bench))
        ((snag, mute),) = muted_snags(bench.project)
        self.assertEqual((snag.code, mute.reason), ("coil-unused", "Reserve for the second auger"))
        bench.do("unmute-snag", mute_id=mute.id)
        self.assertIn("coil-unused", codes(bench))
        self.assertEqual(muted_snags(bench.project), [])

    def test_others_of_its_kind_stay_and_a_reason_is_asked_for(self) -> None:
        bench = self.muted()
        other = bench.place("coil", 60, 20)
        found = [s for s in all_snags(bench.project) if s.code == "coil-unused"]
        self.assertEqual([s.ids for s in found], [(other,)])
        with self.assertRaisesRegex(RuleError, "Say why"):
            bench.do("mute-snag", key=found[0].key, reason="  ")
