"""Addresses, channels, point lists."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.checks import project_snags
from jolly_core.model import RuleError
from jolly_core.plc import address, channels, parse_start
from jolly_core.points import needed_channels, needs
from jolly_core.testing import Workbench

LIST = [("B1", "DI"), ("B2", "DI"), ("B3", "DI"), ("Y1", "DO")]


class Addresses(TestCase):
    def test_worked_cases(self) -> None:
        for scheme, start, channel, io_type, shown in (
            ("byte.bit", "0.0", 11, "DI", "I1.2"),
            ("byte.bit", "0.0", 1, "DI", "I0.0"),
            ("byte.bit", "4.6", 3, "DO", "Q5.0"),
            ("byte.bit", "12.7", 1, "AI", "I12.7"),
            ("whole", "100", 3, "DO", "Q102"),
            ("whole", "0", 8, "DI", "I7"),
            ("whole", "256", 1, "AO", "Q256"),
        ):
            self.assertEqual(address(scheme, start, channel, io_type), shown)

    def test_what_is_no_address_is_refused(self) -> None:
        for scheme, start in (
            ("byte.bit", "0"),
            ("byte.bit", "0.8"),
            ("byte.bit", "a.1"),
            ("whole", "1.0"),
            ("whole", "-1"),
        ):
            with self.assertRaises(RuleError) as caught:
                parse_start(scheme, start)
            self.assertEqual(caught.exception.field, "start")

    @given(st.integers(0, 500), st.integers(0, 7), st.integers(1, 64))
    def test_no_two_channels_of_a_card_have_one_address(self, byte: int, bit: int, count: int) -> None:
        found = {address("byte.bit", f"{byte}.{bit}", n, "DI") for n in range(1, count + 1)}
        self.assertEqual(len(found), count)

    def test_demand_with_spare(self) -> None:
        for points, spare, needed in ((13, 20, 16), (10, 20, 12), (0, 20, 0), (5, 0, 5), (8, 25, 10), (100, 33, 133)):
            self.assertEqual(needed_channels(points, spare), needed)


class Cards(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.inputs = self.bench.new("add-card", part_id="hollin-hr-di8")
        self.outputs = self.bench.new("add-card", part_id="hollin-hr-do8")
        listed = [{"tag": tag, "io_type": io_type} for tag, io_type in LIST]
        self.bench.do("take-in-points", points=listed)
        self.points = {p.tag: p.id for p in self.bench.project.io_points.values()}

    def allocated(self) -> dict[str, str]:
        rows = [c for card in (self.inputs, self.outputs) for c in channels(self.bench.project, card)]
        return {self.bench.project.io_points[r.point_id].tag: r.address for r in rows if r.point_id}

    def test_a_block_goes_from_a_channel_on_and_skips_what_is_taken(self) -> None:
        self.bench.do("allocate-points", ids=[self.points["B2"]], device_id=self.inputs, channel=3)
        self.bench.do("allocate-points", ids=[self.points["B1"], self.points["B3"]], device_id=self.inputs, channel=2)
        self.assertEqual(self.allocated(), {"B1": "I0.1", "B2": "I0.2", "B3": "I0.3"})

    def test_a_wrong_direction_and_a_full_card_are_refused_with_the_reason(self) -> None:
        with self.assertRaisesRegex(RuleError, "Y1 is DO, and -KF1 has DI channels"):
            self.bench.do("allocate-points", ids=[self.points["Y1"]], device_id=self.inputs)
        with self.assertRaisesRegex(RuleError, "no free DI channel for B2 from I0.7 on; 1 of 2 would fit"):
            self.bench.do(
                "allocate-points", ids=[self.points["B1"], self.points["B2"]], device_id=self.inputs, channel=8
            )
        self.assertEqual(self.allocated(), {})

    def test_addresses_follow_scheme_and_start_and_the_next_card_goes_on(self) -> None:
        self.bench.do("allocate-points", ids=[self.points["B1"]], device_id=self.inputs)
        self.bench.do("address-card", device_id=self.inputs, scheme="whole", start="100")
        self.assertEqual(self.allocated(), {"B1": "I100"})
        self.bench.do("address-card", device_id=self.inputs, scheme="byte.bit", start="")
        self.assertEqual(self.allocated(), {"B1": "I0.0"})
        other = self.bench.new("add-card", part_id="hollin-hr-di16")
        self.assertEqual(channels(self.bench.project, other)[0].address, "I1.0")
        self.assertEqual(channels(self.bench.project, self.outputs)[0].address, "Q0.0")

    def test_overlapping_addresses_are_a_snag(self) -> None:
        self.bench.new("add-card", part_id="hollin-hr-di8", start="0.4")
        codes = [s.message for s in project_snags(self.bench.project) if s.code == "address-overlap"]
        self.assertEqual(codes, ["-KF3 and -KF1 both have I0.4. Give one another first address."])

    def test_spare_share_and_need(self) -> None:
        self.bench.do("allocate-points", ids=[self.points[t] for t in ("B1", "B2")], device_id=self.inputs)
        shares = {n.io_type: n for n in needs(self.bench.project)}
        self.assertEqual((shares["DI"].spare_percent, shares["DI"].needed, shares["DI"].channels), (75.0, 4, 8))
        self.assertEqual((shares["DO"].spare_percent, shares["DO"].needed), (100.0, 2))

    def test_taken_in_again_it_updates_by_tag_and_a_changed_type_frees_the_channel(self) -> None:
        self.bench.do("allocate-points", ids=[self.points["B1"]], device_id=self.inputs)
        again = [{"tag": "B1", "io_type": "DO", "text": "Hatch"}, {"tag": "B9", "io_type": "DI"}]
        outcome = self.bench.do("take-in-points", points=again)
        self.assertEqual(outcome.label, "take in points: 1 added, 1 changed")
        self.assertIn("waits for another channel", outcome.remarks[0])
        self.assertEqual(self.allocated(), {})
        with self.assertRaisesRegex(RuleError, "Nothing would change"):
            self.bench.do("take-in-points", points=again)

    def test_a_drawn_channel_takes_the_next_free_one_and_holds_the_card(self) -> None:
        first = self.bench.place("plc-input", 60, 20, device_id=self.inputs)
        second = self.bench.place("plc-input", 60, 30, device_id=self.inputs)
        self.assertEqual([self.bench.symbol(s).units for s in (first, second)], [(1,), (2,)])
        with self.assertRaisesRegex(RuleError, "are drawn"):
            self.bench.do("delete-card", device_id=self.inputs)
        self.bench.do("delete-selection", ids=[first, second])
        self.bench.do("delete-card", device_id=self.inputs)
        self.assertNotIn(self.inputs, self.bench.project.devices)
        self.assertNotIn("hollin-hr-di8", self.bench.project.parts)
