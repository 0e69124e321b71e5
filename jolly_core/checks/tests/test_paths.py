"""What is missing or wrong on the way from source to load and to earth is told, and what is right is not."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.drawing import pin_points
from jolly_core.model import Part
from jolly_core.testing import Workbench, reordered

CODES = {"pe-open", "bridged-together", "fuses-joined", "unprotected", "interlock"}


class Drawn(TestCase):
    """A sheet on which nets are named by marks: what has one name is joined."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.rows = 0

    def told(self) -> dict[str, list[str]]:
        """Return the messages of these checks by code, the same whichever things were made first."""
        found: dict[str, list[str]] = {}
        for snag in all_snags(self.bench.project):
            if snag.code in CODES:
                found.setdefault(snag.code, []).append(snag.message)
        again = {s.code for s in all_snags(reordered(self.bench.project, 2)) if s.code in CODES}
        self.assertEqual(again, set(found))
        return found

    def mark(self, x: int, y: int, name: str) -> None:
        self.bench.do("place-continuation", sheet_id=self.bench.sheet, x=x, y=y, name=name)

    def row(self, key: str, left: str, right: str, **values: object) -> str:
        """Draw a device with poles between nets, on level wires; return it."""
        b, y = self.bench, 16 + 14 * self.rows
        self.rows += 1
        for n, (one, other) in enumerate(zip(left.split(), right.split(), strict=True)):
            b.wire((20, y + 4 * n), (60, y + 4 * n), type_id=b.red)
            self.mark(20, y + 4 * n, one)
            self.mark(60, y + 4 * n, other)
        return b.place(key, 36, y, **values)

    def motor(self, nets: str, x: int = 90, *, earth: str = "PE", key: str = "motor") -> str:
        """Draw a motor on named nets, its PE wired to a mark of this name, or not at all."""
        b = self.bench
        motor = b.place(key, x, 40)
        points = pin_points(b.symbol(motor))
        for (px, py), name in zip(points, [*nets.split(), *([earth] if earth else [])], strict=False):
            b.wire((px, py - 10), (px, py), type_id=b.pe if name == earth else b.red)
            self.mark(px, py - 10, name)
        return motor

    def coil(self, contactor: str, line: str, left: str, right: str) -> list[str]:
        """Draw a coil behind contacts between two nets, as the coil of a contactor; return the contacts."""
        b, y = self.bench, 16 + 14 * self.rows
        self.rows += 1
        keys = line.split()
        b.wire((20, y), (40 + 20 * len(keys), y))
        self.mark(20, y, left)
        contacts = [b.place(key, 30 + 20 * n, y) for n, key in enumerate(keys)]
        coil = b.place("coil", 30 + 20 * len(keys), y)
        b.wire(pin_points(b.symbol(coil))[1], (60 + 20 * len(keys), y))
        self.mark(60 + 20 * len(keys), y, right)
        b.do("belong-to", symbol_id=contactor, device_id=b.device(coil))
        return contacts


class Protection(Drawn):
    def test_a_motor_that_nothing_protects(self) -> None:
        self.row("contactor-pole", "L1 L2 L3", "U V W")
        self.motor("U V W")
        (message,) = self.told()["unprotected"]
        self.assertRegex(message, "^Nothing protects -M.*:U1 on its way from the source")

    def test_one_pole_that_goes_past_the_breaker(self) -> None:
        self.row("motor-breaker", "L1 L2 L3", "Q1 Q2 Q3")
        self.row("contactor-pole", "Q1 Q2 L3", "U V W")
        self.motor("U V W")
        (message,) = self.told()["unprotected"]
        self.assertIn(":W1", message)

    def test_protected_far_in_front_of_a_switch_or_by_the_supply_it_is_quiet(self) -> None:
        self.row("fuse", "E1 E2 E3", "L1 L2 L3")
        self.row("disconnector", "L1 L2 L3", "Q1 Q2 Q3")
        self.row("contactor-pole", "Q1 Q2 Q3", "U V W")
        self.motor("U V W")
        self.assertEqual(self.told(), {})

    def test_the_fuse_of_the_supply_counts(self) -> None:
        self.bench.do("change-settings", supply="480 V 3~ 60 Hz, 15 A")
        self.row("contactor-pole", "L1 L2 L3", "U V W")
        self.motor("U V W")
        self.assertEqual(self.told(), {})

    def test_one_of_two_ways_that_goes_past_the_breaker(self) -> None:
        self.row("motor-breaker", "L1 L2 L3", "Q1 Q2 Q3")
        self.row("contactor-pole", "Q1 Q2 Q3", "U V W")
        self.row("contactor-pole", "L1 L2 L3", "U V W")
        self.motor("U V W")
        self.assertEqual(len(self.told()["unprotected"]), 1)

    def test_a_residual_current_device_by_itself_protects_against_no_overcurrent(self) -> None:
        self.bench.library.parts["r"] = Part(
            "r", "Maker", "R", "residual-current", units=(("pole", ("1", "2")),) * 3, ratings={"rated_a": "40"}
        )
        device = self.row("residual-current", "L1 L2 L3", "U V W")
        self.motor("U V W")
        self.bench.do("assign-part", device_id=self.bench.device(device), part_id="r")
        self.assertEqual(len(self.told()["unprotected"]), 1)

    def test_two_fuses_of_one_phase_joined_behind(self) -> None:
        self.row("fuse", "L1", "F1")
        self.row("breaker", "L1", "F1")
        (message,) = self.told()["fuses-joined"]
        self.assertRegex(message, "^-F.* and -F.* are joined behind")

    def test_fuses_of_two_phases_and_a_breaker_after_a_fuse_are_no_such_pair(self) -> None:
        self.row("fuse", "L1 L2 L3", "F1 F2 F3")
        self.row("breaker", "F1 F2 F3", "G1 G2 G3")
        self.row("breaker", "F1 F2 F3", "H1 H2 H3")
        self.assertEqual(self.told(), {})


class Earthing(Drawn):
    def test_a_protective_conductor_that_ends_at_a_terminal(self) -> None:
        b = self.bench
        self.motor("U V W", earth="")
        b.wire((102, 20), (102, 40), type_id=b.pe)
        b.place("terminal", 102, 26, rotation=90)
        (message,) = self.told()["pe-open"]
        self.assertRegex(message, "^The protective conductor of -M.*:PE ends at -X")

    def test_two_machines_joined_with_each_other_and_with_no_earth(self) -> None:
        self.motor("U V W", earth="M1")
        self.motor("U V W", 120, earth="M1")
        self.assertEqual(len(self.told()["pe-open"]), 1, "one cause, one snag")

    def test_at_an_earth_terminal_an_earth_or_a_mark_of_it_it_is_quiet(self) -> None:
        for way in ("terminal-earth", "earth", "mark"):
            with self.subTest(way=way):
                self.setUp()
                b = self.bench
                self.motor("U V W", earth="")
                b.wire((102, 20), (102, 40), type_id=b.pe)
                if way == "terminal-earth":
                    b.place(way, 102, 26, rotation=90)
                elif way == "earth":
                    b.wire((102, 20), (110, 20), (110, 26), type_id=b.pe)
                    b.place(way, 110, 26)
                else:
                    b.place("terminal", 102, 26, rotation=90)
                    self.mark(102, 20, "PE")
                self.assertEqual(self.told(), {})


class Logic(Drawn):
    def reversing(self, first: str = "contact-nc", second: str = "contact-nc") -> None:
        """Draw a reversing pair with a contact before each coil, that of the other contactor."""
        b = self.bench
        self.row("motor-breaker", "L1 L2 L3", "Q1 Q2 Q3")
        one = self.row("contactor-pole", "Q1 Q2 Q3", "U V W")
        other = self.row("contactor-pole", "Q1 Q2 Q3", "W V U")
        self.motor("U V W")
        mine = self.coil(one, f"button-no {first}", "24 V", "0 V")
        theirs = self.coil(other, f"button-no {second}", "24 V", "0 V")
        for contact, pole in ((mine[1], other), (theirs[1], one)):
            b.do("belong-to", symbol_id=contact, device_id=b.device(pole))

    def test_a_reversing_pair_that_keeps_each_other_off(self) -> None:
        self.reversing()
        self.assertEqual(self.told(), {})

    def test_one_that_does_so_on_one_side_only(self) -> None:
        self.reversing(second="contact-no")
        (message,) = self.told()["interlock"]
        self.assertRegex(message, r"^-KF1 and -KF2 may not be on together, but -KF2 has no NC contact of -KF1 in front")

    def test_one_whose_contact_is_bridged(self) -> None:
        self.reversing()
        self.assertNotIn("interlock", self.told())
        b = self.bench
        nc = next(s for s in b.project.symbols.values() if s.definition == "contact-nc")
        (ax, ay), (bx, by) = pin_points(nc)
        b.do(
            "draw-wire", sheet_id=b.sheet, points=[[ax, ay], [ax, ay - 5], [bx, by - 5], [bx, by]], wire_type_id=b.blue
        )
        self.assertIn("interlock", self.told())

    def test_star_and_delta(self) -> None:
        self.row("motor-breaker", "L1 L2 L3", "Q1 Q2 Q3")
        self.row("contactor-pole", "Q1 Q2 Q3", "U V W")
        delta = self.row("contactor-pole", "Q1 Q2 Q3", "F1 F2 F3")
        star = self.row("contactor-pole", "F1 F2 F3", "Y Y Y")
        self.motor("U V W F1 F2 F3", key="motor-six")
        mine = self.coil(delta, "button-no contact-nc", "24 V", "0 V")
        theirs = self.coil(star, "button-no contact-nc", "24 V", "0 V")
        self.assertEqual(len(self.told().get("interlock", [])), 1, "their contacts are nobody's yet")
        b = self.bench
        b.do("belong-to", symbol_id=mine[1], device_id=b.device(star))
        b.do("belong-to", symbol_id=theirs[1], device_id=b.device(delta))
        self.assertEqual(self.told(), {})

    def test_two_guards_bridged_by_one_wire(self) -> None:
        b = self.bench
        b.wire((20, 20), (100, 20))
        self.mark(20, 20, "24 V")
        for x in (30, 50):
            b.place("button-nc", x, 20)
        b.place("coil", 80, 20)
        self.assertEqual(self.told(), {})
        b.wire((26, 20), (26, 10), (70, 10), (70, 20))
        (message,) = self.told()["bridged-together"]
        self.assertRegex(message, "^-S.* and -S.* are bridged together")

    def test_three_of_them_are_told_once_and_a_holding_contact_is_none(self) -> None:
        b = self.bench
        b.wire((20, 20), (120, 20))
        self.mark(20, 20, "24 V")
        for x in (30, 50, 70):
            b.place("button-nc", x, 20)
        b.place("coil", 100, 20)
        b.wire((26, 20), (26, 10), (86, 10), (86, 20))
        self.assertEqual(len(self.told()["bridged-together"]), 1)
        self.setUp()
        b = self.bench
        b.wire((20, 20), (100, 20))
        self.mark(20, 20, "24 V")
        b.place("button-nc", 30, 20)
        b.place("button-no", 50, 20)
        coil = b.place("coil", 80, 20)
        b.wire((46, 20), (46, 30), (70, 30), (70, 20))
        b.do("belong-to", symbol_id=b.place("contact-no", 56, 30), device_id=b.device(coil))
        self.assertEqual(self.told(), {})
