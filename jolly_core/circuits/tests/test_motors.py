"""The current of the motor that a pole feeds: what its part says, else the usual one of its power, else unknown."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.circuits import loads_behind, loads_in_words, motor_beyond_a
from jolly_core.drawing import pin_points
from jolly_core.edits.devices.choosing import ranked
from jolly_core.model import Part
from jolly_core.testing import Workbench, reordered

Units = tuple[tuple[str, tuple[str, ...]], ...]


class Beyond(TestCase):
    """Three poles of a contactor before a motor."""

    def setUp(self) -> None:
        b = self.bench = Workbench(frame="zones")
        for n in range(3):
            b.wire((10, 20 + 4 * n), (40, 20 + 4 * n), type_id=b.red)
        self.poles = b.place("contactor-pole", 20, 20)
        b.do("belong-to", symbol_id=self.poles, device_id=b.device(b.place("coil", 20, 60)))
        self.motor = b.place("motor", 50, 40)
        for n in range(3):
            b.wire((40, 20 + 4 * n), (50 + 4 * n, 20 + 4 * n), (50 + 4 * n, 40), type_id=b.red)

    def take(self, **ratings: str) -> float:
        """Give the motor a part with these facts and return the current seen from the contactor."""
        b = self.bench
        name = "-".join((*ratings, *ratings.values())) or "bare"
        units = (("motor", ("U1", "V1", "W1", "PE")),)
        b.library.parts[name] = Part(name, "Maker", name, "motor", units=units, ratings=ratings)
        b.do("assign-part", device_id=b.device(self.motor), part_id=name)
        return motor_beyond_a(b.project, self.poles)

    def test_what_its_part_says_is_taken_first(self) -> None:
        self.assertEqual(0.0, motor_beyond_a(self.bench.project, self.poles), "without a part")
        self.assertEqual(22.0, self.take(rated_a="22", power_kw="5.5"))
        self.assertEqual(11.5, self.take(power_kw="5.5"))
        self.assertEqual(7.5, round(self.take(power_kw="3,5"), 2), "between two ratings in proportion")
        self.assertEqual(0.0, self.take())

    def test_a_power_that_no_table_knows_is_unknown_and_stops_neither_snags_nor_the_choice_of_a_part(self) -> None:
        b = self.bench
        device = b.project.devices[b.symbol(self.poles).device_id]
        candidates = [p for p in b.library.parts_of("contactor") if p.ratings.get("coil_voltage_v") == "24"]
        for power in ("315", "0.04", "-5", "many"):
            self.assertEqual(0.0, self.take(power_kw=power), power)
            self.assertEqual(len(candidates), len(ranked(b.project, device, candidates)))
            self.assertFalse({"motor-load", "check-stopped"} & {s.code for s in all_snags(b.project)})
        self.take(power_kw="315", rated_a="540")
        b.do("assign-part", device_id=device.id, part_id=candidates[0].id)
        self.assertIn("motor-load", {s.code for s in all_snags(b.project)}, "what the part says is known")


class Feeders(TestCase):
    """Feeders beside each other on three phases, each a row of level wires with what stands on them."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.rows = 0

    def feeder(self, *definitions: str, amps: str = "", at: int = 10) -> list[str]:
        """Draw devices on three wires from the phases, a motor at their end where it takes a current; return them."""
        b, y = self.bench, 20 + 30 * self.rows
        self.rows += 1
        ends = 40 + 20 * len(definitions)
        for n in range(3):
            b.wire((at + 2 * n, 18), (at + 2 * n, y + 4 * n), (ends, y + 4 * n), type_id=b.red)
        drawn = [b.place(key, 30 + 20 * i, y) for i, key in enumerate(definitions)]
        if amps:
            motor = b.place("motor", ends + 10, y + 16)
            for n in range(3):
                b.wire((ends, y + 4 * n), (ends + 10 + 4 * n, y + 4 * n), (ends + 10 + 4 * n, y + 16), type_id=b.red)
            self.rate(motor, "motor", rated_a=amps)
            drawn.append(motor)
        return drawn

    def rate(
        self, symbol: str, part_class: str, units: tuple[tuple[str, tuple[str, ...]], ...] = (), **ratings: str
    ) -> None:
        b = self.bench
        name = "-".join((part_class, *ratings, *ratings.values()))
        units = units or (("motor", ("U1", "V1", "W1", "PE")),)
        b.library.parts[name] = Part(name, "Maker", name, part_class, units=units, ratings=ratings)
        b.do("assign-part", device_id=b.device(symbol), part_id=name)

    def amps(self, *symbols: str) -> list[float]:
        return [motor_beyond_a(self.bench.project, symbol) for symbol in symbols]

    def test_a_neighbour_is_never_counted_and_what_feeds_both_carries_the_sum(self) -> None:
        big = self.feeder("motor-breaker", "contactor-pole", amps="22")
        small = self.feeder("motor-breaker", "contactor-pole", "overload", amps="1.9")
        spare = self.feeder("breaker")
        self.assertEqual(self.amps(*big[:2]), [22.0, 22.0])
        self.assertEqual(self.amps(*small[:3]), [1.9, 1.9, 1.9])
        self.assertEqual(self.amps(*spare), [0.0], "nothing lies behind it")
        b = self.bench
        for n in range(3):
            b.wire((10 + 2 * n, 18), (10 + 2 * n, 8 + n), (60, 8 + n), type_id=b.red)
        for n in range(3):
            b.wire((60, 8 + n), (80, 8 + n), (80, 2 + n), (100 + 4 * n, 2 + n), type_id=b.red)
        self.assertEqual(self.amps(*small[:3]), [1.9, 1.9, 1.9])

    def test_a_breaker_before_two_motors_carries_both_and_says_which(self) -> None:
        first = self.feeder("motor-breaker", "contactor-pole", amps="4.9")
        b = self.bench
        for n in range(3):  # a second motor after the breaker of the first
            b.wire((42, 20 + 4 * n), (42, 20 + 4 * n + 50 + 2 * n), (60, 70 + 6 * n), type_id=b.red)
        second = b.place("motor", 70, 100)
        for n in range(3):
            b.wire((60, 70 + 6 * n), (70 + 4 * n, 70 + 6 * n), (70 + 4 * n, 100), type_id=b.red)
        self.rate(second, "motor", rated_a="1.9")
        self.assertEqual(self.amps(*first[:2]), [6.8, 4.9])
        words = loads_in_words(b.project, loads_behind(b.project, first[0]))
        self.assertRegex(words, r"^-M\w*1 \(4.9 A\) and -M\w*2 \(1.9 A\) behind it take 6.8 A$")

    def test_an_order_of_drawing_makes_no_difference(self) -> None:
        small = self.feeder("motor-breaker", amps="1.9")
        big = self.feeder("motor-breaker", amps="22")
        self.assertEqual(self.amps(small[0], big[0]), [1.9, 22.0])
        self.assertEqual(
            self.amps(small[0], big[0]),
            [motor_beyond_a(reordered(self.bench.project, 3), symbol) for symbol in (small[0], big[0])],
        )

    def row(self, key: str, left: str, right: str) -> str:
        """Draw a device with three poles between nets that marks name, and return it."""
        b, y = self.bench, 20 + 14 * self.rows
        self.rows += 1
        for n, (one, other) in enumerate(zip(left.split(), right.split(), strict=True)):
            b.wire((20, y + 4 * n), (60, y + 4 * n), type_id=b.red)
            b.do("place-continuation", sheet_id=b.sheet, x=20, y=y + 4 * n, name=one)
            b.do("place-continuation", sheet_id=b.sheet, x=60, y=y + 4 * n, name=other)
        return b.place(key, 36, y)

    def winding(self, key: str, nets: str, **ratings: str) -> str:
        """Draw a motor whose ends are on nets that marks name."""
        b = self.bench
        motor = b.place(key, 90, 40)
        ends = nets.split()
        for n, name in enumerate(ends):
            b.wire((90 + 4 * n, 40), (90 + 4 * n, 30), type_id=b.red)
            b.do("place-continuation", sheet_id=b.sheet, x=90 + 4 * n, y=30, name=name)
        pins = ("U1", "V1", "W1", "W2", "U2", "V2", "PE") if len(ends) == 6 else ("U1", "V1", "W1", "PE")
        self.rate(motor, "motor", (("motor", pins),), **ratings)
        return motor

    def test_star_and_delta_have_three_sizes(self) -> None:
        main = self.row("motor-breaker", "L1 L2 L3", "Q1 Q2 Q3")
        line = self.row("contactor-pole", "Q1 Q2 Q3", "P1 P2 P3")
        overload = self.row("overload", "P1 P2 P3", "E1 E2 E3")
        delta = self.row("contactor-pole", "Q1 Q2 Q3", "F1 F2 F3")
        star = self.row("contactor-pole", "F1 F2 F3", "Y Y Y")
        self.winding("motor-six", "E1 E2 E3 F1 F2 F3", rated_a="30")
        seen = [round(a, 1) for a in self.amps(main, line, overload, delta, star)]
        self.assertEqual(seen, [30.0, 17.3, 17.3, 17.3, 10.0])
        words = loads_in_words(self.bench.project, loads_behind(self.bench.project, star))
        self.assertEqual(words, "of the 30 A of its motor 10 A pass it")

    def test_a_star_contactor_drawn_upside_down_carries_as_much(self) -> None:
        line = self.row("contactor-pole", "L1 L2 L3", "P1 P2 P3")
        star = self.row("contactor-pole", "Y Y Y", "F1 F2 F3")
        self.winding("motor-six", "P1 P2 P3 F1 F2 F3", rated_a="30")
        self.assertEqual([round(a, 1) for a in self.amps(line, star)], [17.3, 10.0])

    def test_two_contactors_that_reverse_carry_the_motor_once(self) -> None:
        main = self.row("motor-breaker", "L1 L2 L3", "Q1 Q2 Q3")
        forward = self.row("contactor-pole", "Q1 Q2 Q3", "U V W")
        backward = self.row("contactor-pole", "Q1 Q2 Q3", "W V U")
        self.winding("motor", "U V W", rated_a="6.5")
        self.assertEqual(self.amps(main, forward, backward), [6.5, 6.5, 6.5])

    def test_what_is_fed_from_below_carries_its_own_motor_only(self) -> None:
        first = self.row("motor-breaker", "Q1 Q2 Q3", "L1 L2 L3")
        contactor = self.row("contactor-pole", "U V W", "Q1 Q2 Q3")
        self.winding("motor", "U V W", rated_a="1.9")
        beside = self.row("motor-breaker", "L1 L2 L3", "R1 R2 R3")
        self.assertEqual(self.amps(first, contactor, beside), [1.9, 1.9, 0.0])

    def test_a_supply_and_a_heater_are_loads_by_what_their_part_says(self) -> None:
        b = self.bench
        breaker = self.row("breaker", "L1 L2 L3", "H1 H2 H3")
        heater = b.place("heater-load", 100, 60)
        for n, name in enumerate(("H1", "H2")):
            b.do(
                "place-continuation",
                sheet_id=b.sheet,
                x=pin_points(b.symbol(heater))[n][0],
                y=pin_points(b.symbol(heater))[n][1],
                name=name,
            )
        self.rate(heater, "heater", (("load", ("1", "2")),), power_w="2300", voltage_v="230")
        self.assertEqual(self.amps(breaker), [10.0])
