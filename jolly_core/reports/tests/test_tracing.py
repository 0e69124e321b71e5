"""From its source to a load: what stands on the way in order, what is missing, what has to be on, what is lit."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.library import definition
from jolly_core.model import GoneError, RuleError
from jolly_core.reports import Trace, traced
from jolly_core.tagging import tag_on
from jolly_core.testing import DRYER, Workbench, demo, demo_anew


def roles(trace: Trace) -> list[tuple[str, str]]:
    return [(m.role, m.name.rsplit("-", 1)[-1]) for m in trace.members]


class OfTheDemo(TestCase):
    def symbol(self, unit: str, sheet: str, tag: str = "") -> str:
        project = demo()
        for s in project.symbols.values():
            device = project.devices.get(s.device_id)
            there = project.sheets[s.sheet_id]
            fits = definition(s.definition).unit == unit and there.number == sheet and device is not None
            if fits and device is not None and (not tag or tag_on(project, device, there) == tag):
                return s.id
        raise AssertionError(f"no {unit} on sheet {sheet}")

    def test_a_motor_over_its_starter(self) -> None:
        trace = traced(demo(), self.symbol("motor", "10"))
        self.assertEqual(
            roles(trace),
            [
                ("source", "XD1"),
                ("protection and overload", "FC1"),
                ("switching", "QA1"),
                ("overload", "FQ1"),
                ("terminal", "XD1"),
                ("cable", "WD1"),
                ("load", "MA1"),
            ],
        )
        self.assertEqual((trace.facts, trace.earthed), ("6.5 A", True))
        facts = [m.facts for m in trace.members[-3:]]
        self.assertEqual(facts, ["5, 6, 7", "2.5 mm², 35 m, drops 0.8 %", "6.5 A"])
        self.assertEqual({w.rsplit("-", 1)[1] for w in trace.closed}, {"FC1 on", "QA1 on", "FQ1 on"})
        self.assertEqual(trace.earth, "-XD1", "the return that is bonded to it is no earth")
        types = {demo().wires[id].type_id for ids in trace.lit.values() for id in ids if id in demo().wires}
        self.assertEqual({demo().wire_types[id].category for id in types}, {"power", "pe"})
        places = [m.place for m in trace.members]
        self.assertEqual(places, sorted(places), "from above to below")

    def test_a_motor_behind_a_drive_is_followed_past_it(self) -> None:
        trace = traced(demo(), self.symbol("motor", "12"))
        self.assertEqual(
            [r for r, _ in roles(trace)], ["source", "disconnector", "protection", "drive", "terminal", "cable", "load"]
        )
        self.assertFalse([m for m in trace.members if m.missing])
        self.assertEqual(len(trace.lit), len({m.sheet_id for m in trace.members if m.sheet_id} | set(trace.lit)))

    def test_a_coil_over_its_contacts_to_the_supply_on_another_sheet(self) -> None:
        trace = traced(demo(), self.symbol("coil", "30", "-QA1"))
        self.assertEqual(roles(trace)[0], ("source", "TB1"))
        contact = next(m for m in trace.members if m.name.endswith("FQ1"))
        self.assertEqual((contact.role, contact.facts), ("switching", ""), "its contact, not its heaters")
        self.assertIn("KD2-SF1 at rest", " ".join(trace.closed))
        self.assertIn("KD2-SF2 on", " ".join(trace.closed))
        sheets = [demo().sheets[id].number for id in trace.lit]
        self.assertEqual(sheets, sorted(sheets, key=int))
        self.assertIn("10", sheets)

    def test_from_a_pole_a_terminal_or_a_wire_the_load_behind_is_found(self) -> None:
        project = demo()
        motor = traced(project, self.symbol("motor", "10"))
        pole = next(
            s.id
            for s in project.symbols_on(next(s.id for s in project.sheets.values() if s.number == "10"))
            if s.definition == "contactor-pole"
        )
        self.assertEqual(traced(project, pole).name, motor.name)
        wire = next(id for ids in motor.lit.values() for id in ids if id in project.wires)
        self.assertEqual(traced(project, wire).name, motor.name)

    def test_every_load_of_both_demos_has_a_source_in_front_and_itself_at_the_end(self) -> None:
        for project in (demo(), demo_anew(DRYER)):
            loads = [s for s in project.symbols.values() if definition(s.definition).unit in ("motor", "coil", "lamp")]
            self.assertGreater(len(loads), 5)
            for load in loads:
                trace = traced(project, load.id)
                self.assertEqual(trace.members[-1].symbol_id, load.id)
                self.assertEqual(trace.members[0].role, "source", trace.name)
                self.assertFalse([m for m in trace.members if m.missing], trace.name)


class Back(TestCase):
    """What the current comes back by is a way of its own, and no second source."""

    def test_a_coil_of_the_demo_comes_back_to_0_v_and_has_one_source(self) -> None:
        for project in (demo(), demo_anew(DRYER)):
            coils = [s for s in project.symbols.values() if definition(s.definition).unit in ("coil", "lamp")]
            for coil in coils:
                trace = traced(project, coil.id)
                self.assertEqual([m.role for m in trace.members].count("source"), 1, trace.name)
                self.assertEqual(trace.back[-1].role, "return", trace.name)
                self.assertIn(trace.back[-1].facts or trace.back[-1].name, ("0 V", "N", "the right rail"))

    def test_a_heater_over_two_poles_and_a_terminal_comes_back_by_n(self) -> None:
        b = Workbench(frame="zones")
        for n, name in enumerate(("L1", "N")):
            y = 20 + 4 * n
            b.do("place-continuation", sheet_id=b.sheet, name=name, x=10, y=y)
            b.wire((10, y), (60, y), type_id=b.red)
        b.place("breaker", 20, 20, poles=2)
        strip = b.device(b.place("terminal", 40, 20))
        b.place("terminal", 40, 24, device_id=strip)
        heater = b.place("heater-load", 60, 20)
        b.wire((60, 24), (70, 24), (70, 20), (64, 20), type_id=b.red)
        trace = traced(b.project, heater)
        self.assertEqual([m.role for m in trace.members], ["source", "protection", "terminal", "load"])
        self.assertEqual([m.role for m in trace.back], ["terminal", "protection", "return"])
        self.assertEqual([m.facts for m in trace.back if m.role == "terminal"], ["2"])
        self.assertEqual([m.facts for m in trace.members if m.role == "terminal"], ["1"])
        self.assertEqual((trace.members[0].name, trace.back[-1].name), ("L1", "N"))

    def across_a_transformer(self, *, bonded: bool) -> Trace:
        """Return the trace of a coil across a secondary that nobody has named, one end of it earthed or not."""
        b = Workbench(frame="zones")
        b.place("transformer", 20, 20)
        coil = b.place("coil", 20, 40)
        b.wire((20, 28), (20, 40))
        b.wire((24, 28), (24, 40))
        if bonded:
            b.place("earth", 40, 34)
            b.wire((24, 34), (40, 34), type_id=b.pe)
        return traced(b.project, coil)

    def test_of_two_ends_of_a_secondary_that_nobody_named_the_earthed_one_alone_is_the_return(self) -> None:
        trace = self.across_a_transformer(bonded=True)
        self.assertEqual([m.role for m in trace.members], ["source", "load"])
        self.assertEqual([m.role for m in trace.back], ["return"])
        trace = self.across_a_transformer(bonded=False)
        self.assertEqual([m.role for m in trace.members], ["source", "load"])
        self.assertEqual(trace.back, [], "either end may be it")

    def test_a_motor_on_three_phases_has_none(self) -> None:
        project = demo()
        motors = [s.id for s in project.symbols.values() if s.definition == "motor"]
        self.assertEqual([m for id in motors for m in traced(project, id).back], [])


class Missing(TestCase):
    def test_protection_and_overload_of_a_motor_that_has_neither(self) -> None:
        b = Workbench(frame="zones")
        for n in range(3):
            b.wire((10, 20 + 4 * n), (60, 20 + 4 * n), type_id=b.red)
            b.wire((60, 20 + 4 * n), (70 + 4 * n, 20 + 4 * n), (70 + 4 * n, 40), type_id=b.red)
        b.place("contactor-pole", 30, 20)
        motor = b.place("motor", 70, 40)
        trace = traced(b.project, motor)
        self.assertEqual([m.role for m in trace.members if m.missing], ["source", "protection", "overload"])
        self.assertEqual((trace.earth, trace.earthed), ("nothing", False))
        b.place("motor-breaker", 45, 20)
        again = traced(b.project, motor)
        self.assertEqual([m.role for m in again.members if m.missing], ["source"])
        for n in range(3):
            b.do("place-continuation", sheet_id=b.sheet, x=10, y=20 + 4 * n, name=f"L{n + 1}")
        again = traced(b.project, motor)
        self.assertEqual([m.role for m in again.members if m.missing], [])
        after = ["switching", "protection and overload", "load"]
        self.assertEqual([m.role for m in again.members], ["source"] * 3 + after)

    def lamp_between(self, *names: str) -> Trace:
        b = Workbench(frame="zones")
        lamp = b.place("lamp", 40, 20)
        b.wire((20, 20), (40, 20))
        b.wire((44, 20), (70, 20))
        for x, name in zip((20, 70), names, strict=True):
            if name:
                b.do("place-continuation", sheet_id=b.sheet, x=x, y=20, name=name)
        return traced(b.project, lamp)

    def test_a_load_says_which_of_its_ends_leads_nowhere_and_that_nothing_protects_it(self) -> None:
        for names, missing, back in (
            (("24 V", "0 V"), [], [("return", False)]),
            (("0 V", "0 V"), ["source"], [("return", False)]),
            (("", "0 V"), ["source"], [("return", False)]),
            (("", ""), ["source"], []),
            (("24 V", "24 V"), [], [("return", True)]),
            (("L1", "N"), ["protection"], [("return", False)]),
        ):
            with self.subTest(names=names):
                trace = self.lamp_between(*names)
                self.assertEqual([m.role for m in trace.members if m.missing], missing)
                self.assertEqual([(m.role, m.missing) for m in trace.back], back)

    def test_what_takes_no_current_says_so(self) -> None:
        b = Workbench(frame="zones")
        b.wire((10, 20), (60, 20))
        (wire,) = b.project.wires
        with self.assertRaisesRegex(RuleError, "Nothing here takes a current"):
            traced(b.project, wire)
        with self.assertRaises(GoneError):
            traced(b.project, "gone")


class Measured(TestCase):
    """A lamp over two cables one behind the other, with a terminal between them."""

    def setUp(self) -> None:
        b = self.bench = Workbench(frame="zones")
        self.lamp = b.place("lamp", 80, 20)
        b.wire((10, 20), (80, 20))
        b.wire((84, 20), (100, 20))
        for x, name in ((10, "24 V"), (100, "0 V")):
            b.do("place-continuation", sheet_id=b.sheet, x=x, y=20, name=name)
        b.place("breaker", 20, 20)
        for x in (30, 50):
            b.place("terminal", x, 20)
        self.cables = []
        for x, metres, part in ((40, 20, "quillon-ql-yy2x1-5"), (60, 11, "quillon-ql-yy2x1")):
            band = b.new("draw-band", sheet_id=b.sheet, x1=x, y1=18, x2=x, y2=22, part_id=part)
            self.cables.append(b.project.bands[band].device_id)
            b.do("set-cable", device_id=self.cables[-1], length_m=metres, load_a=5, voltage_v=24, power_factor=1)

    def test_each_member_says_the_drop_from_the_source_to_it(self) -> None:
        """DC 24 V, 5 A: 20 m of 1.5 mm² drop 13.3 % (rules: Cables), 11 m of 1 mm² 10.7 %, together 24.0 %."""
        trace = traced(self.bench.project, self.lamp)
        self.assertEqual(
            [(m.role, m.facts, m.so_far.removeprefix("at least ")) for m in trace.members],
            [
                ("source", "", ""),
                ("protection", "", ""),
                ("terminal", "1", ""),
                ("cable", "1.5 mm², 20 m, drops 13.3 %", "13.3 %"),
                ("terminal", "2", "13.3 %"),
                ("cable", "1 mm², 11 m, drops 10.7 %", "24.0 %"),
                ("load", "", "24.0 %"),
            ],
        )
        self.assertEqual([m.by for m in trace.members][2], "1 mm², length not known yet")
        self.assertTrue(trace.members[-1].so_far.startswith("at least"), "a wire before the terminal has no length yet")

    def test_a_terminal_is_passed_over_a_bridge(self) -> None:
        b = Workbench(frame="zones")
        lamp = b.place("lamp", 80, 40)
        b.wire((10, 20), (40, 20))
        b.wire((40, 40), (80, 40))
        b.wire((84, 40), (100, 40))
        for x, y, name in ((10, 20, "24 V"), (100, 40, "0 V")):
            b.do("place-continuation", sheet_id=b.sheet, x=x, y=y, name=name)
        b.place("breaker", 20, 20)
        first = b.place("terminal", 40, 20)
        b.place("terminal", 50, 40, device_id=b.device(first))
        self.assertEqual([m.role for m in traced(b.project, lamp).members], ["source", "load"])
        b.do("bridge-terminals", strip_id=b.device(first), units=[1, 2])
        trace = traced(b.project, lamp)
        self.assertEqual([m.role for m in trace.members], ["source", "protection", "terminal", "terminal", "load"])
