"""Channels drawn from the list: what is connected, terminals, commons; drawn again, what people did stays."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.circuits import potential_of
from jolly_core.model import IoPoint, RuleError
from jolly_core.plc import channels
from jolly_core.points import element_of
from jolly_core.scenes import sheet_scene
from jolly_core.scenes.base.primitives import Text
from jolly_core.scenes.room.crowding import meet, text_box
from jolly_core.tagging import full_tag, pin_name
from jolly_core.testing import Workbench, rebuilt
from jolly_core.wiring import all_conductors

from ..base.history import take_back


class Case(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.panel = self.bench.new("add-location", code="P", side="panel")
        self.field = self.bench.new("add-location", code="F", side="field")
        self.di = self.bench.new("add-card", part_id="hollin-hr-di16", location_id=self.panel)
        self.do = self.bench.new("add-card", part_id="hollin-hr-do8", location_id=self.panel)

    def list(self, *lines: tuple[str, str, str], **values: object) -> dict[str, str]:
        """Take in points (tag, type, connected) in the field and put them where it is suggested."""
        usual = {"location_id": self.field, "terminals": True}
        points = [{"tag": t, "io_type": k, "connected": c, **usual, **values} for t, k, c in lines]
        self.bench.do("take-in-points", points=points)
        self.bench.do("suggest-channels")
        return {p.tag: p.id for p in self.bench.project.io_points.values()}

    def inputs(self, count: int, start: int = 1) -> dict[str, str]:
        return self.list(*((f"B{n}", "DI", "limit switch") for n in range(start, start + count)))

    def drawn(self) -> dict[str, tuple[str, int, int]]:
        """Return sheet number and place of each point's channel."""
        project = self.bench.project
        found = {}
        for card in project.cards.values():
            for row in channels(project, card.device_id):
                if row.point_id and row.symbol_id:
                    s = project.symbols[row.symbol_id]
                    found[project.io_points[row.point_id].tag] = (project.sheets[s.sheet_id].number, s.x, s.y)
        return found

    def ends(self) -> set[tuple[str, str]]:
        project = self.bench.project
        return {(pin_name(project, c.start), pin_name(project, c.end)) for c in all_conductors(project).values()}


class Drawing(Case):
    def test_an_input_runs_from_the_feed_over_terminals_and_its_switch_to_its_channel(self) -> None:
        self.inputs(2)
        self.bench.do("draw-channels", device_ids=[self.di], feed="24 V", back="0 V")
        project = self.bench.project
        self.assertTrue(self.bench.canonical())
        self.assertEqual([(y, x) for _, x, y in self.drawn().values()], [(20, 94), (30, 94)])
        ends = self.ends()
        for pair in (
            ("+P-XD1:1", "+F-BG1:13"),
            ("+F-BG1:14", "+P-XD1:2"),
            ("+P-XD1:2", "+P-KF1:1"),
        ):
            self.assertIn(frozenset(pair), {frozenset(p) for p in ends})
        feeds = [c for c in project.continuations.values() if c.name == "24 V"]
        self.assertEqual(len(feeds), 2, "one for the common, one for the card's supply")
        strip = next(d for d in project.devices.values() if full_tag(project, d) == "+P-XD1")
        first = next(s for s in project.units_of(strip.id) if s.units == (1,))
        self.assertIn("24 V", potential_of(project, (first.id, 0)).labels)

    def test_an_output_runs_from_its_channel_over_the_load_to_the_return(self) -> None:
        self.list(("Y1", "DO", "lamp"), ("Y2", "DO", "valve"), ("Y3", "DO", "relay"))
        self.bench.do("draw-channels", device_ids=[self.do])
        project = self.bench.project
        kinds = sorted(s.definition for s in project.symbols.values() if "terminal" not in s.definition)
        self.assertEqual(kinds, ["coil", "lamp", "plc-output", "plc-output", "plc-output", "plc-supply", "valve"])
        back = [c for c in project.continuations.values() if c.name == "0 V" and c.toward == "up"]
        self.assertEqual(len(back), 1)

    def test_analog_points_have_both_wires_at_the_card(self) -> None:
        ai = self.bench.new("add-card", part_id="hollin-hr-ai4", location_id=self.panel)
        ao = self.bench.new("add-card", part_id="HR-AO4", location_id=self.panel)
        self.list(("T1", "AI", "transmitter"), ("S1", "AO", "valve"), terminals=False)
        self.bench.do("draw-channels", device_ids=[ai, ao])
        pairs = {frozenset(p) for p in self.ends()}
        self.assertIn(frozenset(("+P-KF3:1+", "+F-BT1:+")), pairs)
        self.assertIn(frozenset(("+P-KF3:1-", "+F-BT1:-")), pairs)
        self.assertEqual(len([p for p in pairs if any("KF4:1" in e for e in p)]), 2)

    def test_cards_go_over_sheets_of_their_own_with_so_many_channels_each(self) -> None:
        self.inputs(13)
        before = set(self.bench.project.sheets)
        self.bench.do("draw-channels", per_sheet=5)
        made = [s for s in self.bench.project.sheets.values() if s.id not in before]
        self.assertEqual(len(made), 3)
        self.assertEqual([s.title for s in made], ["+P-KF1 I0.0 to I0.4", "+P-KF1 I0.5 to I1.1", "+P-KF1 I1.2 to I1.4"])
        self.assertEqual(len(set(self.drawn().values())), 13)
        supplies = [s for s in self.bench.project.symbols.values() if s.definition == "plc-supply"]
        self.assertEqual(len(supplies), 1)
        with self.assertRaisesRegex(RuleError, "Every channel that has a point is drawn already"):
            self.bench.do("draw-channels")

    def test_what_is_not_known_is_left_out_and_named(self) -> None:
        self.list(("B1", "DI", "dancing bear"), ("B2", "DI", ""), ("B3", "DI", "lamp"), ("B4", "DI", "contact of -QA9"))
        self.bench.do("draw-channels")
        remarks = self.bench.done[-1].remarks
        self.assertIn("B1: “dancing bear” is no element that is drawn by itself.", remarks)
        self.assertIn("B2: nothing is said to be connected.", remarks)
        self.assertIn("B3: “lamp” cannot be wired to DI.", remarks)
        self.assertIn("B4: there is no -QA9.", remarks)
        self.assertEqual(len(self.drawn()), 4)

    def test_the_contact_of_a_device_that_is_there(self) -> None:
        coil = self.bench.place("coil", 40, 100, part_id="hollin-hr-k22")
        tag = self.bench.tag(coil)
        self.list(("B1", "DI", f"contact of -{tag}"))
        self.bench.do("draw-channels")
        contact = next(s for s in self.bench.project.symbols.values() if s.definition == "contact-no")
        self.assertEqual(contact.device_id, self.bench.device(coil))

    def test_a_device_is_called_as_the_list_calls_it(self) -> None:
        self.list(("B1", "DI", "limit switch"), device="=T1-BG77")
        self.bench.do("draw-channels")
        switch = next(s for s in self.bench.project.symbols.values() if s.definition == "limit-no")
        self.assertEqual(full_tag(self.bench.project, self.bench.project.devices[switch.device_id]), "+F-BG77")

    def test_it_is_undone_in_one(self) -> None:
        self.inputs(3)
        before = rebuilt(self.bench.project)
        self.bench.do("draw-channels")

        self.bench.project.apply(take_back(self.bench.project, self.bench.done[-1].changes))
        self.assertEqual(set(self.bench.project.symbols), set(before.symbols))
        self.assertEqual(set(self.bench.project.sheets), set(before.sheets))


class DrawnAgain(Case):
    def test_new_points_fill_free_rows_and_what_was_moved_or_written_stays(self) -> None:
        self.inputs(5)
        self.bench.do("draw-channels", per_sheet=8)
        project = self.bench.project
        sheet = next(s for s in project.sheets.values() if s.title.startswith("+P-KF1"))
        switch = next(s for s in project.symbols_on(sheet.id) if s.definition == "limit-no" and s.y == 30)
        self.bench.do("move-selection", ids=[switch.id], dx=4, dy=0)
        note = self.bench.new("place-note", sheet_id=sheet.id, x=60, y=95, text="See the maker's sheet")
        places = self.drawn()
        gone = {p.tag: p.id for p in project.io_points.values()}["B3"]
        self.bench.do("delete-points", ids=[gone])
        self.bench.do("take-in-points", points=[{"tag": "B1", "io_type": "DI", "text": "another text"}])
        self.inputs(5, start=6)
        self.bench.do("draw-channels", per_sheet=8)
        after = self.drawn()
        for tag in ("B1", "B2", "B4", "B5"):
            self.assertEqual(after[tag], places[tag])
        self.assertEqual(project.symbols[switch.id].x, 54)
        self.assertIn(note, project.notes)
        self.assertEqual(len(after), 9)
        numbers = [n for n, _, _ in after.values()]
        self.assertEqual(numbers.count(sheet.number), 7, "three rows were free; the channel that is spare stays drawn")
        self.assertTrue(self.bench.canonical())
        scene = sheet_scene(project, sheet.id)
        words = [p.words for item in scene.items.values() for p in item.prims if p.kind == "text"]
        self.assertTrue(any("another text" in w for w in words))

    def test_hand_drawn_sheets_are_never_added_to(self) -> None:
        hand = self.bench.sheet
        self.bench.place("plc-input", 94, 20, device_id=self.di)
        before = len(list(self.bench.project.symbols_on(hand)))
        self.inputs(4)
        self.bench.do("draw-channels")
        self.assertEqual(len(list(self.bench.project.symbols_on(hand))), before)
        self.assertEqual(len(self.drawn()), 4)

    def test_one_channel_or_some(self) -> None:
        ids = self.inputs(6)
        self.bench.do("draw-channels", ids=[ids["B4"]])
        self.assertEqual(list(self.drawn()), ["B4"])
        self.bench.do("draw-channels", ids=[ids["B2"], ids["B6"]])
        self.assertEqual(len(self.drawn()), 3)
        self.assertEqual(len({n for n, _, _ in self.drawn().values()}), 1)


class Tidy(Case):
    def test_nothing_leaves_the_frame_and_nothing_is_loose(self) -> None:
        kinds = ("limit switch", "push button", "e-stop", "thermostat") * 3
        lines = [(f"B{n}", "DI", w) for n, w in enumerate(kinds, 1)]
        lines += [(f"Y{n}", "DO", w) for n, w in enumerate(("lamp", "horn", "valve", "relay"), 1)]
        self.list(*lines, text="A text that is a little longer than most of them are")
        self.list(("B90", "DI", "contact"), device="-KF77")
        self.bench.do("draw-channels")
        project = self.bench.project
        codes = {s.code for s in all_snags(project)}
        self.assertFalse(codes & {"outside-frame", "loose-end", "equal-tags", "number-twice"}, codes)
        for card in project.cards.values():
            for sheet_id in card.sheet_ids:
                prims = [p for item in sheet_scene(project, sheet_id).items.values() for p in item.prims]
                boxes = [text_box(p) for p in prims if isinstance(p, Text) and p.words.strip()]
                for n, one in enumerate(boxes):
                    small = (one[0] + 0.1, one[1] + 0.1, one[2] - 0.1, one[3] - 0.1)
                    self.assertFalse([other for other in boxes[:n] if meet(small, other)], "no text on text")

    def test_words_lead_to_symbols(self) -> None:
        for words, io_type, normal, wanted in (
            ("limit switch", "DI", "", "limit-no"),
            ("limit switch", "DI", "closed", "limit-nc"),
            ("Limit switch NC", "DI", "", "limit-nc"),
            ("float switch", "DI", "", "level-no"),
            ("level switch", "DI", "closed", "level-nc"),
            ("Pressure switch", "DI", "", "pressure-no"),
            ("flow switch", "DI", "closed", "flow-nc"),
            ("temperature switch", "DI", "", "temperature-no"),
            ("Push button", "DI", "", "button-no"),
            ("emergency stop", "DI", "", "estop"),
            ("aux contact", "DI", "closed", "contact-nc"),
            ("relay", "DI", "", "contact-no"),
            ("relay", "DO", "", "coil"),
            ("Contactor pump 1", "DO", "", "coil"),
            ("contactor", "DI", "closed", "contact-nc"),
            ("aux. contact of the contactor", "DI", "", "contact-no"),
            ("overload relay", "DI", "closed", "overload-nc"),
            ("push button lamp", "DO", "", "lamp"),
            ("push button lamp", "DI", "", "button-no"),
            ("float sensor", "AI", "", "two-wire-sensor"),
            ("switch of the relay", "DO", "", "coil"),
            ("lamp", "DI", "", ""),
            ("Solenoid valve", "DO", "", "valve"),
            ("signal lamp", "DO", "", "lamp"),
            ("transmitter 2 wires", "AI", "", "two-wire-sensor"),
            ("bed moisture probe", "AI", "", "moisture-probe"),
            ("motor", "DO", "", ""),
            ("", "DI", "", ""),
        ):
            with self.subTest(words=words, io_type=io_type):
                point = IoPoint("p", "X", io_type=io_type, connected=words, normal=normal)
                self.assertEqual(element_of(self.bench.project, point).definition, wanted)
