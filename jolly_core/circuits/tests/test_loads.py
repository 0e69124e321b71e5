"""What a potential feeds, as far as the parts say."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.circuits import consumers_on, potential_of, takes_a
from jolly_core.testing import Workbench


class Loads(TestCase):
    def test_consumers_of_a_bridged_potential_are_summed_once_each(self) -> None:
        bench = Workbench(frame="zones")
        part = next(p for p in bench.library.parts_of("lamp") if p.ratings.get("loss_w"))
        for y in (20, 30):
            lamp = bench.place("lamp", 60, y)
            bench.do("assign-part", device_id=bench.device(lamp), part_id=part.id)
            bench.wire((20, y), (60, y))
        row = {"sheet_id": bench.sheet, "x1": 40, "y1": 18, "x2": 40, "y2": 32}
        one, other = bench.do("place-terminals", **row).placed
        alone = consumers_on(bench.project, potential_of(bench.project, (one, 0)))
        self.assertEqual([c.amps for c in alone], [round(takes_a(part), 3)])
        bench.do("bridge-terminals", strip_id=bench.device(one), units=[1, 2])
        both = consumers_on(bench.project, potential_of(bench.project, (other, 0)))
        self.assertEqual(len(both), 2)
        self.assertGreater(takes_a(part), 0)

    def test_a_breaker_bears_its_current_and_takes_none_a_motor_takes_it(self) -> None:
        library = Workbench().library
        breaker = next(p for p in library.parts_of("breaker") if p.ratings.get("rated_a"))
        motor = next(p for p in library.parts_of("motor") if p.ratings.get("rated_a"))
        self.assertEqual(takes_a(breaker), 0.0)
        self.assertEqual(takes_a(motor), float(motor.ratings["rated_a"]))
