"""Points from drawings: drawn before any card was chosen, collected, met with a list, allocated, freed."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.model import IoPoint, RuleError, Symbol
from jolly_core.plc import channels
from jolly_core.points import without_point
from jolly_core.scenes import sheet_scene
from jolly_core.scenes.base.primitives import Text
from jolly_core.testing import Workbench


class Case(TestCase):
    def setUp(self) -> None:
        """A switch over a terminal to an input, and an output to a lamp; no card is there."""
        self.bench = Workbench(frame="zones")
        panel = self.bench.new("add-location", code="P", side="panel")
        self.switch = self.bench.place("limit-no", 30, 20, text="Hatch closed")
        self.bench.place("terminal", 44, 20)
        self.input = self.bench.place("plc-input", 60, 20)
        self.bench.wire((34, 20), (44, 20))
        self.bench.wire((46, 20), (60, 20))
        self.output = self.bench.place("plc-output", 30, 40)
        self.lamp = self.bench.place("lamp", 44, 40, text="Auger runs")
        self.bench.wire((30, 40), (44, 40))
        self.panel = panel

    @property
    def points(self) -> dict[str, IoPoint]:
        return {p.tag: p for p in self.bench.project.io_points.values()}

    def symbol(self, id: str) -> Symbol:
        return self.bench.project.symbols[id]

    def words(self) -> list[str]:
        scene = sheet_scene(self.bench.project, self.bench.sheet)
        return [p.words for item in scene.items.values() for p in item.prims if isinstance(p, Text)]


class Collected(Case):
    def test_what_is_drawn_becomes_points_said_by_what_it_is_wired_to(self) -> None:
        self.assertEqual([s.id for s in without_point(self.bench.project)], [self.input, self.output])
        self.bench.do("collect-points")
        tags = {self.bench.tag(self.switch), self.bench.tag(self.lamp)}
        self.assertEqual(set(self.points), tags)
        point = self.points[self.bench.tag(self.switch)]
        self.assertEqual((point.io_type, point.text, point.drawn), ("DI", "Hatch closed", self.input))
        self.assertIn("limit switch", point.connected)
        self.assertTrue(any(w.endswith("Hatch closed") and w.startswith(point.tag) for w in self.words()))
        with self.assertRaisesRegex(RuleError, "No input or output is drawn that has neither"):
            self.bench.do("collect-points")

    def test_unwired_ones_get_a_number(self) -> None:
        self.bench.place("plc-input", 60, 60)
        self.bench.place("plc-analog-input", 60, 70)
        self.bench.place("plc-analog-output", 30, 80)
        self.bench.do("collect-points")
        self.assertLessEqual({"DI1", "AI1", "AO1"}, set(self.points))

    def test_one_device_with_two_inputs(self) -> None:
        more = self.bench.place("plc-input", 60, 26)
        self.bench.wire((46, 20), (46, 26), (60, 26))
        self.bench.do("collect-points")
        tag = self.bench.tag(self.switch)
        self.assertLessEqual({tag, f"{tag}.2"}, set(self.points))
        self.assertEqual(self.points[f"{tag}.2"].drawn, more)

    def test_both_sources_meet_by_the_device(self) -> None:
        tag = self.bench.tag(self.switch)
        self.bench.do("take-in-points", points=[{"tag": "B7", "io_type": "DI", "text": "Hatch", "device": f"-{tag}"}])
        self.bench.do("collect-points")
        self.assertEqual(self.bench.done[-1].label, "points from the drawings: 1 new, 1 met the list")
        self.assertEqual((self.points["B7"].drawn, self.points["B7"].text), (self.input, "Hatch"))

    def test_they_are_tied_by_hand(self) -> None:
        self.bench.do("take-in-points", points=[{"tag": "B7", "io_type": "DI"}, {"tag": "Y7", "io_type": "DO"}])
        with self.assertRaisesRegex(RuleError, "Y7 is DO, and what is drawn there is DI"):
            self.bench.do("tie-point", id=self.points["Y7"].id, symbol_id=self.input)
        self.bench.do("tie-point", id=self.points["B7"].id, symbol_id=self.input)
        self.bench.do("take-in-points", points=[{"tag": "B8", "io_type": "DI"}])
        with self.assertRaisesRegex(RuleError, "It is drawn for B7"):
            self.bench.do("tie-point", id=self.points["B8"].id, symbol_id=self.input)
        self.bench.do("tie-point", id=self.points["B7"].id)
        self.bench.do("tie-point", id=self.points["B8"].id, symbol_id=self.input)
        self.assertEqual(self.points["B8"].drawn, self.input)


class Allocated(Case):
    def setUp(self) -> None:
        super().setUp()
        self.bench.do("collect-points")
        self.card = self.bench.new("add-card", part_id="hollin-hr-di8", location_id=self.panel)
        self.point = self.points[self.bench.tag(self.switch)]

    def put(self, channel: int) -> None:
        self.bench.do("allocate-points", ids=[self.point.id], device_id=self.card, channel=channel)

    def test_the_sheet_shows_the_address_and_shows_none_when_it_is_taken_back(self) -> None:
        self.assertNotIn("I0.2", self.words())
        self.put(3)
        self.assertEqual((self.symbol(self.input).device_id, self.symbol(self.input).units), (self.card, (3,)))
        self.assertIn("I0.2", self.words())
        self.assertEqual(channels(self.bench.project, self.card)[2].symbol_id, self.input)
        self.put(5)
        self.assertIn("I0.4", self.words())
        self.bench.do("swap-channels", io_type="DI", device_id=self.card, channel=5, other_id=self.card, other=1)
        self.assertIn("I0.0", self.words())
        self.bench.do("free-points", ids=[self.point.id])
        self.assertEqual((self.symbol(self.input).device_id, self.symbol(self.input).units), ("", (0,)))
        self.assertNotIn("I0.0", self.words())

    def test_a_channel_that_is_drawn_elsewhere_is_refused_and_passed_over(self) -> None:
        other = self.bench.place("plc-input", 60, 60, device_id=self.card)
        self.assertEqual(self.symbol(other).units, (1,))
        self.put(1)
        self.assertEqual(self.symbol(self.input).units, (2,), "the first that it can be on")
        swap = {"io_type": "DI", "device_id": self.card, "channel": 2, "other_id": self.card, "other": 1}
        with self.assertRaisesRegex(RuleError, "is drawn, and I0.0 is drawn elsewhere"):
            self.bench.do("swap-channels", **swap)
        self.bench.do("free-points", ids=[self.point.id])
        self.bench.do("suggest-channels", ids=[self.point.id])
        self.assertEqual(self.symbol(self.input).units, (2,))

    def test_a_type_that_changes_lets_the_symbol_go(self) -> None:
        self.put(1)
        self.bench.do("write-points", cells=[{"id": self.point.id, "key": "io_type", "value": "DO"}])
        self.assertEqual(self.symbol(self.input).device_id, "")

    def test_untied_it_stands_without_a_card_again(self) -> None:
        self.put(1)
        self.bench.do("tie-point", id=self.point.id)
        self.assertEqual(self.symbol(self.input).device_id, "")
        self.assertEqual(self.points[self.point.tag].channel, 1)

    def test_a_deleted_symbol_leaves_its_point(self) -> None:
        self.put(1)
        self.bench.do("delete-selection", ids=[self.input])
        self.assertEqual(self.points[self.point.tag].channel, 1)
        self.assertIn("channel-undrawn", [s.code for s in project_snags(self.bench.project)])
        self.bench.do("free-points", ids=[self.point.id])
        self.assertEqual(self.points[self.point.tag].channel, 0)
        drawn = self.bench.place("plc-input", 60, 60, device_id=self.card)
        self.put(1)
        self.assertEqual((self.symbol(drawn).units, self.points[self.point.tag].channel), ((1,), 1))


class InOrder(TestCase):
    def test_points_are_put_on_channels_as_named_as_listed_or_as_drawn(self) -> None:
        bench = Workbench(frame="zones")
        card = bench.new("add-card", part_id="hollin-hr-di8")
        for x, y in ((60, 60), (60, 40), (20, 50)):
            bench.place("plc-input", x, y, rotation=0)
        bench.do("take-in-points", points=[{"tag": t, "io_type": "DI"} for t in ("C", "A", "D", "B")])
        ids = {p.tag: p.id for p in bench.project.io_points.values()}
        drawn = {(s.x, s.y): s.id for s in bench.project.symbols.values() if s.definition == "plc-input"}
        for tag, at in (("A", (60, 60)), ("B", (60, 40)), ("C", (20, 50))):
            bench.do("tie-point", id=ids[tag], symbol_id=drawn[at])
        named = [ids[t] for t in ("B", "A", "D", "C")]
        for order, wanted in (("named", "BADC"), ("list", "CADB"), ("drawn", "CBAD")):
            with self.subTest(order=order):
                bench.do("allocate-points", ids=named, device_id=card, order=order)
                by_channel = sorted(bench.project.io_points.values(), key=lambda p: p.channel)
                self.assertEqual("".join(p.tag for p in by_channel), wanted)
                bench.do("free-points", ids=named)
