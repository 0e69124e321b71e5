"""The current of the motor that a pole feeds: what its part says, else the usual one of its power, else unknown."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.circuits import motor_beyond_a
from jolly_core.edits.devices.choosing import ranked
from jolly_core.model import Part
from jolly_core.testing import Workbench


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
