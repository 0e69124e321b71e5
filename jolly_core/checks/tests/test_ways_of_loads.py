"""Protection, return and control of loads: what is wrong is told with its words, and what is right beside it is not."""

from __future__ import annotations

from jolly_core.checks import all_snags
from jolly_core.drawing import pin_points
from jolly_core.model import Part

from .test_paths import Drawn

CODES = {
    *("unprotected-source", "protection-past", "overload-missing", "motor-phases", "return-switched", "return-earth"),
    *("neutral-elsewhere", "loads-series", "two-sources", "return-unearthed", "overload-contact", "latch-held"),
    *("two-channel", "pe-missing", "dead-load", "protective-pin"),
}


class Ways(Drawn):
    def said(self, code: str) -> list[str]:
        """Return the messages of one check; no other of these may say anything."""
        found = [(s.code, s.message) for s in all_snags(self.bench.project) if s.code in CODES]
        self.assertEqual({c for c, _ in found} - {code}, set(), found)
        return [message for _, message in found]

    def lead(self, line: str, left: str, right: str, load: str = "lamp") -> list[str]:
        """Draw contacts and a load behind them between two names; return what was drawn, the load last."""
        b, y = self.bench, 16 + 14 * self.rows
        self.rows += 1
        keys = [*line.split(), load]
        b.wire((20, y), (30 + 20 * len(keys), y))
        self.mark(20, y, left)
        self.mark(30 + 20 * len(keys), y, right)
        return [b.place(key, 26 + 20 * n, y, **({"poles": 1} if key == "fuse" else {})) for n, key in enumerate(keys)]

    def supply(self, hot: str, back: str, x: int = 130, amps: str = "5") -> str:
        """Draw a supply of 24 V with names at its outputs."""
        b = self.bench
        units = (("supply", ("L1", "L2", "+", "-")),)
        b.library.parts["s"] = Part(
            "s", "M", "S", "power-supply", units=units, ratings={"output_v": "24", "output_a": amps}
        )
        supply = b.place("dc-supply", x, 60, part_id="s")
        for (px, py), name in zip(pin_points(b.symbol(supply))[2:], (hot, back), strict=True):
            b.wire((px, py), (px, py + 8))
            self.mark(px, py + 8, name)
        return supply


class Group(Ways):
    """A 24 V group: supply, fuse, switch, load, and back."""

    def test_without_its_fuse_it_is_told_with_what_it_leads_to(self) -> None:
        self.supply("24 V", "0 V")
        self.lead("fuse limit-no", "24 V", "0 V")
        found = [s.message for s in all_snags(self.bench.project) if s.code == "unprotected-source"]
        self.assertEqual(found, [])
        self.lead("limit-no", "24 V", "0 V")
        (message,) = [s.message for s in all_snags(self.bench.project) if s.code == "unprotected-source"]
        self.assertRegex(message, r"^Nothing protects what leads from -T.*:\+ to -P.* \(it gives 5 A\)\.")

    def test_a_return_that_is_not_earthed_is_told_once(self) -> None:
        self.supply("24 V", "0 V")
        self.lead("fuse limit-no", "24 V", "0 V")
        (message,) = self.said("return-unearthed")
        self.assertIn("0 V", message)
        b = self.bench
        b.wire((150, 60), (150, 70), type_id=b.pe)
        self.mark(150, 60, "0 V")
        b.place("earth", 150, 70)
        self.assertEqual(self.said("return-unearthed"), [])

    def test_a_contact_or_a_fuse_in_the_return(self) -> None:
        for key in ("button-no", "fuse"):
            with self.subTest(key=key):
                self.setUp()
                drawn = self.lead("", "24 V", "R1")
                b = self.bench
                b.wire((20, 60), (60, 60))
                self.mark(20, 60, "R1")
                self.mark(60, 60, "0 V")
                b.place(key, 30, 60, **({"poles": 1} if key == "fuse" else {}))
                (message,) = self.said("return-switched")
                self.assertIn("is a fuse in the return" if key == "fuse" else "opens the return", message)
                self.assertTrue(b.tag(drawn[-1]) in message)

    def test_a_switch_of_two_poles_and_the_contact_of_an_overload_may_stand_there(self) -> None:
        self.row("breaker", "24V 0V", "H R", poles=2)
        self.lead("limit-no", "H", "R")
        self.assertEqual(self.said("return-switched"), [])
        self.setUp()
        self.lead("", "24 V", "R1")
        b = self.bench
        b.wire((20, 60), (60, 60))
        self.mark(20, 60, "R1")
        self.mark(60, 60, "0 V")
        b.place("overload-nc", 30, 60)
        self.assertEqual(self.said("return-switched"), [])

    def test_loads_one_after_another(self) -> None:
        self.lead("lamp", "24 V", "0 V", "coil")
        (message,) = self.said("loads-series")
        self.assertRegex(message, "^-.* and -.* are one after another")
        self.setUp()
        self.lead("limit-no", "24 V", "0 V", "coil")
        self.lead("limit-no", "24 V", "0 V")
        self.assertEqual(self.said("loads-series"), [])

    def test_a_load_between_two_supplies(self) -> None:
        self.supply("24 V", "0 V")
        self.supply("24 V B", "M2", 150)
        self.lead("fuse", "24 V", "M2")
        found = [s.message for s in all_snags(self.bench.project) if s.code == "two-sources"]
        self.assertEqual(len(found), 1, found)
        self.assertIn("have nothing in common", found[0])

    def test_two_supplies_joined_at_their_outputs(self) -> None:
        self.supply("24 V", "0 V")
        self.supply("24 V", "0 V", 150)
        (message,) = [s.message for s in all_snags(self.bench.project) if s.code == "two-sources"]
        self.assertIn("are joined at their outputs", message)

    def test_a_supply_with_one_phase_at_both_ends(self) -> None:
        supply = self.supply("24 V", "0 V")
        b = self.bench
        for px, py in pin_points(b.symbol(supply))[:2]:
            b.wire((px, py - 8), (px, py), type_id=b.red)
            self.mark(px, py - 8, "L1")
        self.assertIn("bridged", {s.code for s in all_snags(b.project)})


class Motors(Ways):
    def feed(self, phases: str = "L1 L2 L3", key: str = "motor-breaker", nets: str = "U V W") -> None:
        self.row(key, phases, nets)
        self.row("contactor-pole", nets, "A B C")

    def test_a_breaker_alone_does_not_keep_a_motor_from_being_overloaded(self) -> None:
        self.feed(key="breaker")
        self.motor("A B C")
        (message,) = self.said("overload-missing")
        self.assertRegex(message, "^Nothing keeps -M.* from being overloaded")

    def test_a_motor_breaker_an_overload_and_a_drive_do(self) -> None:
        self.feed()
        self.motor("A B C")
        self.assertEqual(self.said("overload-missing"), [])

    def test_phases_changed_over_and_one_twice(self) -> None:
        self.feed()
        self.motor("B A C")
        (message,) = self.said("motor-phases")
        self.assertIn("turns the other way round: U1 on L2, V1 on L1, W1 on L3", message)
        self.setUp()
        self.feed("L1 L1 L3")
        self.motor("A B C")
        (message,) = self.said("motor-phases")
        self.assertIn("does not get three phases", message)

    def test_a_motor_that_is_reversed_is_not_judged_by_its_order(self) -> None:
        self.feed()
        self.row("contactor-pole", "U V W", "C B A")
        self.motor("A B C")
        self.assertEqual(self.said("motor-phases"), [])

    def test_a_wire_past_the_protection(self) -> None:
        self.feed()
        self.motor("A B C")
        self.bench.wire((20, 90), (30, 90), type_id=self.bench.red)
        self.mark(20, 90, "L1")
        self.mark(30, 90, "A")
        self.assertIn("protection-past", {s.code for s in all_snags(self.bench.project)})

    def test_a_motor_without_its_protective_conductor(self) -> None:
        self.feed()
        self.motor("A B C", earth="")
        (message,) = self.said("pe-missing")
        self.assertRegex(message, "^The protective conductor of -M.*:PE is missing")


class Residual(Ways):
    def socket(self, hot: str, back: str) -> None:
        b = self.bench
        socket = b.place("socket-outlet", 100, 60)
        for (px, py), name in zip(pin_points(b.symbol(socket)), (hot, back, "PE"), strict=True):
            b.wire((px, py - 8), (px, py), type_id=b.pe if name == "PE" else b.red)
            self.mark(px, py - 8, name)

    def test_the_neutral_goes_through_the_device_of_its_phase(self) -> None:
        for hot, back, told in (("A", "B", ""), ("A", "N", "goes past"), ("L1", "B", "its phase goes past it")):
            with self.subTest(hot=hot, back=back):
                self.setUp()
                self.row("residual-current", "L1 N", "A B", poles=2)
                self.socket(hot, back)
                found = self.said("neutral-elsewhere")
                self.assertEqual(len(found), bool(told))
                self.assertTrue(all(told in message for message in found))

    def test_another_device_is_not_that_of_the_phase(self) -> None:
        self.row("residual-current", "L1 N", "A B", poles=2)
        self.row("residual-current", "L1 N", "C D", poles=2)
        self.socket("A", "D")
        (message,) = self.said("neutral-elsewhere")
        self.assertRegex(message, "comes through -F.*, its neutral through -F")


class Logic(Ways):
    def starter(self, keys: str, latch: str = "button-no") -> None:
        """Draw an overload behind a contactor, and its coil behind contacts, with a latch past one of them."""
        b = self.bench
        contactor = self.row("contactor-pole", "L1 L2 L3", "A B C")
        heater = self.row("overload", "A B C", "U V W")
        self.coil(contactor, keys, "24 V", "0 V")
        y = 16 + 14 * (self.rows - 1)
        for n, key in enumerate(keys.split()):
            x = 30 + 20 * n
            symbol = next(s for s in b.project.symbols_on(b.sheet) if (s.x, s.y) == (x, y))
            if key == "overload-nc":
                b.do("belong-to", symbol_id=symbol.id, device_id=b.device(heater))
            if key == latch:
                b.wire((x - 2, y), (x - 2, y + 6), (x + 12, y + 6), (x + 12, y))
                own = b.place("contact-no", x, y + 6)
                b.do("belong-to", symbol_id=own, device_id=b.device(contactor))

    def test_with_stop_and_overload_nothing_is_told(self) -> None:
        self.starter("overload-nc button-nc button-no")
        self.assertEqual(self.said("latch-held"), [])

    def test_a_latch_without_a_stop(self) -> None:
        self.starter("overload-nc button-no")
        (message,) = self.said("latch-held")
        self.assertIn("nothing in that way releases it", message)

    def test_an_overload_whose_contact_is_elsewhere(self) -> None:
        self.starter("button-nc button-no")
        (message,) = self.said("overload-contact")
        self.assertRegex(message, "^-.* stays on when -.* trips")

    def test_its_normally_open_contact_opens_nothing(self) -> None:
        self.starter("overload-no button-nc button-no")
        self.assertEqual(len(self.said("overload-contact")), 1)


class Channels(Ways):
    def relay(self, *joined: tuple[str, str, str]) -> list[str]:
        """Draw a safety relay, its pins joined through contacts; return what is told."""
        b = self.bench
        relay = b.new("place-block", sheet_id=b.sheet, x=100, y=40, part_id="hollin-hr-sr2")
        from jolly_core.tagging import pins_of

        points = dict(zip(pins_of(b.project, b.symbol(relay)), pin_points(b.symbol(relay)), strict=True))
        for name in ("S11", "S12", "S21", "S22"):
            x, y = points[name]
            b.wire((x - 6, y), (x, y))
            self.mark(x - 6, y, name)
        stops: dict[str, str] = {}
        for n, (key, one, other) in enumerate(joined):
            y = 16 + 8 * n
            b.wire((20, y), (50, y))
            self.mark(20, y, one)
            self.mark(50, y, other)
            if key:
                values = {"device_id": stops[key]} if key in stops else {}
                stops[key] = b.device(b.place(key, 30, y, **values))
        return self.said("two-channel")

    def test_two_ways_of_their_own_are_right(self) -> None:
        self.assertEqual(self.relay(("estop", "S11", "S12"), ("estop", "S21", "S22")), [])

    def test_each_fault_has_its_words(self) -> None:
        for joined, words in (
            ([("estop", "S11", "S22"), ("estop", "S21", "S12")], "changed over: S11 leads to S22"),
            ([("estop", "S11", "S12"), ("estop", "S21", "S22"), ("", "S12", "S22")], "joined"),
            ([("", "S11", "S12"), ("estop", "S21", "S22")], "S11 and S12 are bridged"),
            ([("estop", "S11", "S12"), ("limit-nc", "S21", "S22")], "in channel 1 alone"),
            ([("estop", "S11", "S12")], "channel 2 is open"),
        ):
            with self.subTest(words=words):
                self.setUp()
                (message,) = self.relay(*joined)
                self.assertIn(words, message)
