"""What speaks for a part and against it: the sizes of its wires, poles left over, time that nobody asks for."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.drawing import pin_points
from jolly_core.edits import Candidate, ranked
from jolly_core.testing import Workbench
from jolly_core.testing.machines import Machine


def reasons(candidate: Candidate) -> str:
    return "; ".join(r.words for r in candidate.reasons)


class Sizes(TestCase):
    """Terminals of a strip, one with wires of 2.5 mm² and one with what is given."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        look = {"colour": "BK", "category": "power"}
        self.types = {
            mm2: self.bench.new("add-wire-type", name=f"P{mm2}", cross_section_mm2=mm2, **look) for mm2 in (2.5, 6)
        }

    def strip(self, *sizes: float) -> str:
        strip = ""
        for n, mm2 in enumerate(sizes):
            y = 20 + 10 * n
            terminal = self.bench.place("terminal", 40, y, **({"device_id": strip} if strip else {}))
            strip = self.bench.device(terminal)
            start = min(pin_points(self.bench.symbol(terminal)))
            end = self.bench.place("lamp", 10, y)
            self.bench.wire(max(pin_points(self.bench.symbol(end))), start, type_id=self.types[mm2])
        return strip

    def ranking(self, *sizes: float) -> list[Candidate]:
        device = self.bench.project.devices[self.strip(*sizes)]
        numbers = ("QL-K1-5", "QL-K2-5", "QL-K4", "QL-K10")
        return ranked(self.bench.project, device, [p for p in self.bench.library.parts.values() if p.number in numbers])

    def test_the_smallest_terminal_that_clamps_its_wires_comes_first(self) -> None:
        found = self.ranking(2.5)
        self.assertEqual([c.part.number for c in found], ["QL-K2-5", "QL-K4", "QL-K10", "QL-K1-5"])
        self.assertIn("clamps 0.14 to 2.5 mm², its wires have 2.5 mm²", reasons(found[0]))
        self.assertIn("clamps 0.14 to 1.5 mm², but its wires have 2.5 mm²", reasons(found[-1]))

    def test_the_largest_wire_counts(self) -> None:
        found = self.ranking(2.5, 6)
        self.assertEqual(found[0].part.number, "QL-K10")
        self.assertIn("but its wires have 2.5 to 6 mm²", reasons(found[1]))


class Use(TestCase):
    """What is used already is no reason for more than is needed."""

    def test_the_smallest_contactor_that_is_enough_comes_before_one_that_is_used(self) -> None:
        machine = next(m for m in map(Machine, range(60)) if any(len(f.contactors) == 3 for f in m.feeders))
        feeder = next(f for f in machine.feeders if len(f.contactors) == 3)
        bench = machine.bench
        bench.do("assign-part", device_id=bench.device(feeder.motor), part_id="orrery-drives-od-n11-d")
        contactors = bench.library.parts_of("contactor")
        found = []
        for contactor in feeder.contactors:
            best = ranked(bench.project, bench.project.devices[bench.device(contactor)], contactors)[0]
            found.append(best.part.ratings["ac3_a"])
            bench.do("assign-part", device_id=bench.device(contactor), part_id=best.part.id)
        self.assertEqual(found, ["16", "16", "9"], "22 A: 0.58 of it, and 0.33 in the star")


class Counts(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")

    def test_a_breaker_of_more_poles_comes_after_one_of_as_many_however_often_it_is_used(self) -> None:
        breakers = [p for p in self.bench.library.parts.values() if p.part_class == "breaker" and p.count("pole")]
        two = next(p for p in breakers if p.count("pole") == 2)
        for n in range(6):
            used = self.bench.place("breaker", 20 + 12 * n, 60, poles=2)
            self.bench.do("assign-part", device_id=self.bench.device(used), part_id=two.id)
        one = self.bench.project.devices[self.bench.device(self.bench.place("breaker", 20, 20, poles=1))]
        found = ranked(self.bench.project, one, breakers)
        self.assertEqual(found[0].part.count("pole"), 1)
        self.assertIn("has 2 poles, 1 is drawn", reasons(next(c for c in found if c.part.number == two.number)))

    def test_a_timing_relay_comes_after_plain_ones_for_a_plain_coil(self) -> None:
        parts = [p for p in self.bench.library.parts.values() if p.part_class in ("relay", "timer") and p.count("coil")]
        coil = self.bench.place("coil", 20, 20)
        found = ranked(self.bench.project, self.bench.project.devices[self.bench.device(coil)], parts)
        classes = [c.part.part_class for c in found]
        self.assertEqual(classes, sorted(classes), "relays, then timers")
        self.assertIn("switches after a time", reasons(found[-1]))
        self.bench.place("contact-on-delay-no", 20, 40, device_id=self.bench.device(coil))
        found = ranked(self.bench.project, self.bench.project.devices[self.bench.device(coil)], parts)
        self.assertEqual(found[0].part.part_class, "timer")
        self.assertNotIn("switches after a time", reasons(found[0]))
