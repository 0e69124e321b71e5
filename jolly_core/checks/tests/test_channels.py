"""Snags of drawn channels: unfed commons, elements on the wrong side, wired without a point, behind the list."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.edits.base.history import take_back
from jolly_core.model import Change, ChangeSet, RuleError
from jolly_core.testing import Workbench

MINUS_CARD, PLUS_CARD = "brindlework-bw-p16n", "hollin-hr-di16"


class Channels(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.field = self.bench.new("add-location", code="F", side="field")
        self.panel = self.bench.new("add-location", code="P", side="panel")

    def card(self, part: str = PLUS_CARD) -> str:
        return self.bench.new("add-card", part_id=part, location_id=self.panel)

    def listed(self, *connected: str, io_type: str = "DI") -> list[str]:
        points = [
            {"tag": f"X{n}", "io_type": io_type, "connected": c, "location_id": self.field}
            for n, c in enumerate(connected, 1)
        ]
        self.bench.do("take-in-points", points=points)
        return [p.id for p in self.bench.project.io_points.values()]

    def points(self, *connected: str, io_type: str = "DI") -> list[str]:
        found = self.listed(*connected, io_type=io_type)
        self.bench.do("suggest-channels")
        return found

    def said(self, code: str) -> list[str]:
        return [s.message for s in all_snags(self.bench.project) if s.code == code]

    def test_a_common_that_comes_from_nowhere_is_not_fed(self) -> None:
        self.card()
        self.points("limit switch")
        self.assertEqual(self.said("channels-unfed"), [], "nothing is drawn yet")
        self.bench.do("draw-channels")
        (message,) = self.said("channels-unfed")
        self.assertIn("the common is not fed. L+ is on 24 V, which no sheet but those of channels has", message)

    def test_a_feed_that_leads_on_to_another_sheet_is_enough(self) -> None:
        self.card()
        self.points("limit switch")
        self.bench.do("draw-channels")
        self.tie("24 V", "0 V")
        self.assertEqual(self.said("channels-unfed"), [])

    def test_a_group_is_fed_through_its_fuse(self) -> None:
        for part, words, io_type in (("BW-P16Q", "lamp", "DO"), ("BW-P32I", "limit switch", "DI")):
            with self.subTest(part=part):
                self.setUp()
                self.bench.new("add-card", part_id=part)
                self.bench.do("take-in-points", points=[{"tag": "Y1", "io_type": io_type, "connected": words}])
                self.bench.do("suggest-channels")
                self.bench.do("draw-channels")
                (message,) = self.said("channels-unfed")
                self.assertIn("group 1: the common is not fed. 1L+ is on 24 V, which no sheet", message)
                self.tie("24 V", "0 V")
                self.assertEqual(self.said("channels-unfed"), [])

    def tie(self, *names: str) -> None:
        """Draw something on each of these potentials on a sheet that is drawn by hand."""
        for n, name in enumerate(names):
            lamp = self.bench.place("lamp", 40, 40 + 20 * n)
            at = self.bench.symbol(lamp)
            self.bench.wire((at.x - 10, at.y), (at.x, at.y))
            mark = {"sheet_id": self.bench.sheet, "x": at.x - 10, "y": at.y, "name": name}
            self.bench.do("place-continuation", **mark)

    def test_a_supply_that_is_not_drawn_is_named(self) -> None:
        card = self.card()
        self.points("limit switch")
        self.bench.place("plc-input", 94, 20, device_id=card)
        (message,) = self.said("channels-unfed")
        self.assertIn("Its supply, L+ and M, is drawn on no sheet", message)

    def test_sensors_are_put_where_the_side_they_switch_is_wanted(self) -> None:
        cards = [self.card(MINUS_CARD), self.card(PLUS_CARD)]
        self.points("pnp sensor", "limit switch", "npn sensor", "pnp sensor")
        put = {p.connected: p.device_id for p in self.bench.project.io_points.values()}
        self.assertEqual((put["npn sensor"], put["pnp sensor"]), (cards[0], cards[1]))
        self.assertEqual(self.said("channel-direction"), [])
        self.assertTrue(all(p.channel for p in self.bench.project.io_points.values()))

    def test_a_sensor_waits_where_no_card_is_for_its_side(self) -> None:
        self.card(MINUS_CARD)
        self.points("pnp sensor", "limit switch")
        self.assertEqual([p.connected for p in self.bench.project.io_points.values() if not p.channel], ["pnp sensor"])
        said = "X1 switches plus: that wants a card for sensors of this kind."
        self.assertEqual(self.bench.done[-1].remarks, ["1 point found no free channel and still waits.", said])
        with self.assertRaisesRegex(RuleError, said):
            self.bench.do("suggest-channels")

    def test_a_sensor_that_switches_the_other_side_is_named_before_it_is_drawn(self) -> None:
        for part, words, wanted in (
            (PLUS_CARD, "npn sensor", "its sensor switches minus, and the input wants its other side on plus"),
            (MINUS_CARD, "pnp sensor", "its sensor switches plus, and the input wants its other side on minus"),
            (PLUS_CARD, "pnp sensor", ""),
            (MINUS_CARD, "npn sensor", ""),
        ):
            with self.subTest(part=part, words=words):
                self.setUp()
                card = self.card(part)
                (point,) = self.listed(words)
                self.bench.do("allocate-points", ids=[point], device_id=card)
                found = self.said("channel-direction")
                self.assertEqual(len(found), bool(wanted))
                self.assertTrue(all(wanted in message for message in found))

    def test_an_input_for_minus_is_drawn_from_the_return(self) -> None:
        self.card(MINUS_CARD)
        self.points("limit switch")
        self.bench.do("draw-channels")
        self.assertEqual(self.said("channel-direction"), [])
        names = {c.name for c in self.bench.project.continuations.values() if c.toward == "up"}
        self.assertEqual(names, {"0 V"})

    def test_an_element_wired_to_the_other_side_is_an_error(self) -> None:
        for io_type, part, words in (("DI", PLUS_CARD, "limit switch"), ("DO", "hollin-hr-do16", "valve")):
            with self.subTest(io_type=io_type):
                self.setUp()
                self.card(part)
                self.points(words, io_type=io_type)
                self.bench.do("draw-channels")
                self.assertEqual(self.said("channel-direction"), [])
                project = self.bench.project
                common = next(c for c in project.continuations.values() if c.toward == "up")
                other = {"24 V": "0 V", "0 V": "24 V"}[common.name]
                self.bench.do("rename-continuation", mark_id=common.id, name=other, alone=True)
                (message,) = self.said("channel-direction")
                self.assertIn(f"its element is on {other}", message)

    def test_a_channel_that_is_wired_without_a_point_is_named(self) -> None:
        self.card()
        ids = self.points("limit switch", "limit switch")
        self.bench.do("draw-channels")
        self.assertEqual(self.said("channel-pointless"), [])
        self.bench.do("delete-points", ids=[ids[0]])
        (message,) = self.said("channel-pointless")
        self.assertIn("1 channel is wired and without a point: I0.0.", message)
        self.bench.project.apply(take_back(self.bench.project, self.bench.done[-1].changes))
        self.assertEqual(self.said("channel-pointless"), [])

    def test_two_points_on_one_channel_are_named_and_one_is_taken_off(self) -> None:
        self.card()
        ids = self.points("limit switch", "limit switch")
        project = self.bench.project
        second = project.io_points[ids[1]]
        self.assertEqual(self.said("channel-twice"), [])
        project.apply(ChangeSet([Change("io_point", second.id, second, replace(second, channel=1))]))
        (snag,) = [s for s in all_snags(project) if s.code == "channel-twice"]
        self.assertIn("X1 and X2 are both on DI channel 1 of +P-KF1", snag.message)
        self.bench.do("free-points", ids=[second.id])
        self.assertEqual(self.said("channel-twice"), [])

    def test_what_is_behind_the_list_is_drawn_again_by_its_act(self) -> None:
        card = self.card()
        ids = self.points("limit switch", "limit switch", "limit switch")
        self.bench.do("draw-channels")
        self.bench.do("delete-points", ids=[ids[0]])
        self.bench.do("write-points", cells=[{"id": ids[1], "key": "connected", "value": "push button"}])
        (message,) = self.said("channels-outdated")
        self.assertIn("the list has changed since its channels were drawn: 1 removed and 1 changed", message)
        self.bench.do("redraw-channels", device_ids=[card])
        self.assertEqual(self.said("channels-outdated"), [])
