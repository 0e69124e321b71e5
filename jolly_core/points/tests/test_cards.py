"""Worked cases: cards for a demand, addresses one after another, points to channels, racks."""

from __future__ import annotations

from random import Random
from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.model import Part, RuleError
from jolly_core.plc import address_map, addressed, cards, channels, spans_of
from jolly_core.points import ChannelNeed, cards_for, needed_channels, needs, racks, signal_key, suggested
from jolly_core.testing import DemoLibrary, Workbench


def card(id: str, kind: str, count: int, **facts: str) -> Part:
    """Return a card part with channels of one kind, each with the same facts."""
    units = tuple((kind, (str(n),)) for n in range(1, count + 1))
    return Part(
        id, "Maker", id.upper(), "plc-card", units=units, details=(facts,) * count if facts else (), price=count
    )


PARTS = [
    card("di4", "di", 4),
    card("di8", "di", 8),
    card("di16", "di", 16),
    card("di32", "di", 32),
    card("do8", "do", 8),
    card("ai4", "ai", 4, signals="4-20 mA, 0-20 mA"),
    card("ao2", "ao", 2),
    card("rtd4", "ai", 4, sort="rtd"),
    card("tc4", "ai", 4, sort="thermocouple"),
    card("fast2", "di", 2, sort="fast"),
    card("sdi8", "di", 8, sort="safe"),
]


class Case(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.bench.library.parts |= {p.id: p for p in PARTS}

    def add(self, part: str, **values: object) -> str:
        return self.bench.new("add-card", part_id=part, **values)

    def firsts(self) -> list[str]:
        project = self.bench.project
        return [channels(project, c.device_id)[0].address for c in cards(project)]

    def points(self, *lines: tuple[str, str], **values: object) -> dict[str, str]:
        """Take in points (tag, type) and return their ids by tag."""
        self.bench.do("take-in-points", points=[{"tag": t, "io_type": k, **values} for t, k in lines])
        return {p.tag: p.id for p in self.bench.project.io_points.values()}

    def allocated(self) -> dict[str, str]:
        project = self.bench.project
        rows = [r for c in cards(project) for r in channels(project, c.device_id) if r.point_id]
        return {project.io_points[r.point_id].tag: r.address for r in rows}


class Demand(Case):
    def chosen(self, need: int, *parts: str) -> tuple[list[tuple[str, int]], int]:
        wanted = [p for p in PARTS if p.id in parts]
        found = cards_for(ChannelNeed("DI", "", "", need, 0, 0, need, 0.0), wanted)
        assert found is not None
        return [(p.id, n) for p, n in found.parts], found.surplus

    def test_smallest_surplus_then_fewest_cards(self) -> None:
        for need, parts, wanted in (
            (16, ("di8", "di32"), ([("di8", 2)], 0)),
            (16, ("di8", "di16"), ([("di16", 1)], 0)),
            (9, ("di4", "di8", "di16"), ([("di8", 1), ("di4", 1)], 3)),
            (17, ("di8", "di32"), ([("di8", 3)], 7)),
            (33, ("di32",), ([("di32", 2)], 31)),
            (105, ("di8", "di16"), ([("di16", 7)], 7)),
            (1, ("di4", "di8"), ([("di4", 1)], 3)),
        ):
            with self.subTest(need=need, parts=parts):
                self.assertEqual(self.chosen(need, *parts), wanted)

    def test_no_choice_is_better(self) -> None:
        random = Random(17)
        sizes = {"di4": 4, "di8": 8, "di16": 16, "di32": 32}
        for _ in range(60):
            need, names = random.randint(1, 70), random.sample(sorted(sizes), random.randint(1, 4))
            found, surplus = self.chosen(need, *names)
            total, count = sum(sizes[p] * n for p, n in found), sum(n for _, n in found)
            self.assertEqual(total, need + surplus)
            reached = {0: 0}
            for _ in range(need // 4 + 2):
                for have, used in list(reached.items()):
                    for name in names:
                        more = have + sizes[name]
                        if more <= need + 32:
                            reached[more] = min(reached.get(more, 999), used + 1)
            best = min(n for n in reached if n >= need)
            self.assertEqual((total, count), (best, reached[best]))

    def test_a_card_that_does_not_take_the_signal_is_not_proposed(self) -> None:
        library = DemoLibrary()
        part = library.part("brindlework-bw-p4v")
        assert part is not None
        for signals, wanted in (((), True), (("0-10 V",), True), (("0 to 10 V",), True), (("4-20 mA",), False)):
            with self.subTest(signals=signals):
                need = ChannelNeed("AO", "", "", 3, 0, 0, 4, 0.0, signals)
                self.assertEqual(cards_for(need, [part]) is not None, wanted)

    def test_channels_that_take_another_signal_are_none_for_the_need(self) -> None:
        bench = Workbench(frame="zones")
        bench.do("add-card", part_id="brindlework-bw-p4v")
        bench.do("take-in-points", points=[{"tag": "S1", "io_type": "AO", "signal": "4-20 mA"}])
        (need,) = needs(bench.project)
        self.assertEqual((need.channels, need.lacking, need.signals), (0, 2, ("4-20 mA",)))
        bench.do("take-in-points", points=[{"tag": "S1", "io_type": "AO", "signal": "0...10 V"}])
        (need,) = needs(bench.project)
        self.assertEqual((need.channels, need.lacking), (4, 0))

    def test_nothing_lacks_or_nothing_fits(self) -> None:
        self.assertIsNone(cards_for(ChannelNeed("DI", "", "", 4, 4, 8, 5, 50.0), PARTS))
        self.assertIsNone(cards_for(ChannelNeed("AO", "safe", "", 4, 0, 0, 5, 0.0), PARTS))

    def test_a_sort_takes_its_own_cards(self) -> None:
        for sort, wanted in (("rtd", "rtd4"), ("thermocouple", "tc4"), ("", "ai4")):
            found = cards_for(ChannelNeed("AI", sort, "", 3, 0, 0, 4, 0.0), PARTS)
            assert found is not None
            self.assertEqual([p.id for p, _ in found.parts], [wanted])

    def test_counted_by_type_sort_and_place_with_a_share(self) -> None:
        self.assertEqual([needed_channels(n, 20) for n in (0, 1, 5, 13, 20)], [0, 2, 6, 16, 24])
        panel = self.bench.new("add-location", code="P", side="panel")
        field = self.bench.new("add-location", code="F", side="field")
        self.points(("B1", "DI"), ("B2", "DI"), location_id=field)
        self.points(("B3", "DI"), ("T1", "AI"))
        self.points(("T2", "AI"), sort="rtd")
        self.add("di8", location_id=panel)
        self.assertEqual(
            [(n.io_type, n.sort, n.points, n.channels, n.needed, n.lacking) for n in needs(self.bench.project)],
            [("DI", "", 3, 8, 4, 0), ("AI", "", 1, 0, 2, 2), ("AI", "rtd", 1, 0, 2, 2)],
        )
        by_place = [n for n in needs(self.bench.project, "location") if not n.sort]
        found = {(n.io_type, n.place_id): (n.points, n.channels) for n in by_place}
        wanted = {("DI", ""): (1, 0), ("DI", field): (2, 0), ("DI", panel): (0, 8), ("AI", ""): (1, 0)}
        self.assertEqual(found, wanted)

    def test_a_list_of_analog_points_alone(self) -> None:
        self.points(*((f"T{n}", "AI") for n in range(5)))
        (need,) = needs(self.bench.project)
        found = cards_for(need, PARTS)
        assert found is not None
        self.assertEqual(([(p.id, n) for p, n in found.parts], found.surplus), ([("ai4", 2)], 2))
        self.bench.do("add-cards", cards=[{"part_id": "ai4", "count": 2}])
        self.assertEqual(self.firsts(), ["IW256", "IW264"])


class Addresses(Case):
    def test_octal_rolls_over_after_seven(self) -> None:
        one = self.add("di8", scheme="octal")
        self.add("di16", scheme="octal")
        self.add("do8", scheme="octal")
        self.assertEqual([r.address for r in channels(self.bench.project, one)][-1], "I7")
        self.assertEqual(self.firsts(), ["I0", "I10", "Q0"])
        with self.assertRaisesRegex(RuleError, "octal number such as 20; digits run to 7"):
            self.bench.do("address-card", device_id=one, scheme="octal", start="18")

    def test_slot_and_point(self) -> None:
        for part in ("di8", "di32", "do8"):
            self.add(part, scheme="slot")
        self.assertEqual(self.firsts(), ["I1/0", "I2/0", "Q1/0"])
        last = channels(self.bench.project, cards(self.bench.project)[1].device_id)[-1]
        self.assertEqual(last.address, "I2/31")

    def test_a_prefix_of_their_own_for_each_direction(self) -> None:
        self.add("di8")
        self.add("do8")
        self.add("ai4")
        self.bench.do("change-settings", input_prefix="E", output_prefix="A")
        self.assertEqual(self.firsts(), ["E0.0", "A0.0", "EW256"])

    def test_all_from_a_start_and_fixed_ones_stay(self) -> None:
        one, two, three = (self.add("di8") for _ in range(3))
        self.add("do8")
        self.bench.do("set-card", device_id=two, fixed=True)
        self.bench.do("address-card", device_id=two, scheme="byte.bit", start="5.0")
        self.bench.do("address-cards", start="4.0")
        self.assertEqual(self.firsts(), ["I4.0", "I5.0", "I6.0", "Q4.0"])
        self.bench.do("address-cards", device_ids=[three], start="9.0")
        self.bench.do("address-cards", device_ids=[three], start="5.0")
        self.assertEqual(self.firsts()[2], "I6.0", "behind the fixed one that is in the way")
        self.bench.do("address-cards", device_ids=[one], start="9.0")
        self.assertEqual(self.firsts(), ["I9.0", "I5.0", "I6.0", "Q4.0"])

    def test_another_scheme_for_all_is_shown_before(self) -> None:
        self.add("di16")
        self.add("di8")
        self.add("ai4")
        self.bench.do("address-cards", scheme="octal", start="0")
        self.assertEqual(self.firsts(), ["I0", "I20", "I30"])
        self.assertEqual([row[1:] for row in self.bench.done[-1].table][:2], [["I0.0", "I0"], ["I2.0", "I20"]])

    def test_a_moved_card_is_addressed_anew_only_when_asked_for(self) -> None:
        one, two = self.add("di8"), self.add("di16")
        self.bench.do("move-cards", device_ids=[two], to=0)
        self.assertEqual(self.firsts(), ["I1.0", "I0.0"])
        self.bench.do("move-cards", device_ids=[one], to=0, address=True)
        self.assertEqual(self.firsts(), ["I0.0", "I1.0"])
        self.bench.do("move-cards", device_ids=[one], to=1, address=True)
        self.assertEqual(self.firsts(), ["I0.0", "I2.0"])
        self.assertEqual(len(self.bench.done[-1].table), 2)

    def test_cards_addressed_together_never_overlap(self) -> None:
        random = Random(4)
        names = [p.id for p in PARTS]
        for _ in range(30):
            self.setUp()
            for _ in range(random.randint(2, 9)):
                made = self.add(random.choice(names))
                if random.random() < 0.3:
                    self.bench.do("set-card", device_id=made, fixed=True)
            scheme = random.choice(("byte.bit", "whole", "octal", "slot"))
            start = {"byte.bit": f"{random.randint(0, 40)}.0", "octal": str(random.choice((0, 10, 40)))}
            project = self.bench.project
            found = addressed(project, [c.device_id for c in cards(project)], scheme, start.get(scheme, "3"))
            fixed = [c for c in cards(project) if c.fixed]
            taken: set[tuple[str, int]] = set()
            for one in [*found, *fixed]:
                for space, low, high, _ in spans_of(project, one):
                    places = {(space, n) for n in range(low, high)}
                    self.assertFalse(taken & places)
                    taken |= places

    def test_the_map_shows_bits_words_gaps_and_overlaps(self) -> None:
        self.add("di4")
        self.add("di8", start="2.0")
        self.add("ai4")
        rows = address_map(self.bench.project, "I")
        self.assertEqual([r.name for r in rows], ["0", "1", "2", "3 to 255", "256", "258", "260", "262"])
        self.assertEqual([c.text for c in rows[0].cells][:2], ["0.0", "0.1"])
        self.assertEqual([len(c.rows) for c in rows[0].cells], [1] * 4 + [0] * 4)
        self.assertEqual((rows[3].cells, rows[4].cells[0].text), ((), "W256"))
        self.add("di8", start="0.2")
        rows = address_map(self.bench.project, "I")
        self.assertEqual([len(c.rows) for c in rows[0].cells], [1, 1, 2, 2, 1, 1, 1, 1])
        self.add("di8", scheme="octal", start="10")
        (row,) = address_map(self.bench.project, "octal I")
        self.assertEqual((row.name, [c.text for c in row.cells]), ("10", [f"1{n}" for n in range(8)]))


class Allocation(Case):
    def setUp(self) -> None:
        super().setUp()
        self.di = self.add("di8")
        self.ids = self.points(*((f"B{n}", "DI") for n in range(1, 11)), ("Y1", "DO"), ("T1", "AI"))

    def put(self, tags: str, card: str, channel: int = 1) -> None:
        self.bench.do("allocate-points", ids=[self.ids[t] for t in tags.split()], device_id=card, channel=channel)

    def test_a_block_in_the_order_given_passes_what_is_taken(self) -> None:
        self.put("B2", self.di, 3)
        self.put("B5 B1 B3", self.di, 2)
        self.assertEqual(self.allocated(), {"B2": "I0.2", "B5": "I0.1", "B1": "I0.3", "B3": "I0.4"})

    def test_points_are_exchanged_and_moved_to_a_spare_channel(self) -> None:
        self.put("B1 B2", self.di)
        swap = {"io_type": "DI", "device_id": self.di, "channel": 1, "other_id": self.di}
        self.bench.do("swap-channels", **swap, other=2)
        self.assertEqual(self.allocated(), {"B1": "I0.1", "B2": "I0.0"})
        self.bench.do("swap-channels", **swap, other=8)
        self.assertEqual(self.allocated(), {"B1": "I0.1", "B2": "I0.7"})
        with self.assertRaisesRegex(RuleError, "Both channels are spare"):
            self.bench.do("swap-channels", **swap, other=3)
        with self.assertRaisesRegex(RuleError, "has no DI channel 9; it has 8 channels"):
            self.bench.do("swap-channels", **swap, other=9)

    def test_what_is_fixed_stays(self) -> None:
        self.put("B1 B2", self.di)
        self.bench.do("fix-points", ids=[self.ids["B1"]], fixed=True)
        with self.assertRaisesRegex(RuleError, "B1 is fixed on its channel. Release it first."):
            self.put("B1", self.di, 5)
        with self.assertRaisesRegex(RuleError, "B1 is fixed"):
            self.bench.do("swap-channels", io_type="DI", device_id=self.di, channel=2, other_id=self.di, other=1)
        with self.assertRaisesRegex(RuleError, "B3 is on no channel yet"):
            self.bench.do("fix-points", ids=[self.ids["B3"]], fixed=True)
        self.bench.do("take-in-points", points=[{"tag": "B1", "io_type": "DI", "text": "new text"}])
        self.assertEqual(self.allocated()["B1"], "I0.0")

    def test_sorts_and_signals_are_refused_with_the_reason(self) -> None:
        rtd, ai, fast = self.add("rtd4"), self.add("ai4"), self.add("fast2")
        self.points(("T2", "AI"), sort="rtd")
        self.ids = self.points(("T3", "AI"), signal="0-10 V")
        for tag, where, words in (
            ("T1", rtd, "T1 asks for a plain AI and IW256 is for a resistance thermometer"),
            ("T2", ai, "T2 asks for a resistance thermometer and IW264 is for a plain AI"),
            ("T3", ai, "T3 is 0-10 V and IW264 takes 4-20 mA or 0-20 mA"),
            ("Y1", self.di, "Y1 is DO, and -KF1 has DI channels"),
        ):
            with self.subTest(tag=tag), self.assertRaisesRegex(RuleError, words):
                self.put(tag, where)
        self.put("T2", rtd)
        self.put("T1", ai)
        self.put("B1", fast)
        self.assertEqual(self.allocated()["B1"], "I1.0")

    def test_signals_written_in_other_ways_are_one(self) -> None:
        ai = self.add("ai4")
        self.ids = self.points(("T4", "AI"), signal="4 to 20 mA")
        self.put("T4", ai)
        self.assertEqual({signal_key(s) for s in ("4-20mA", "4 ... 20 mA", "4 – 20 MA", "4 to 20 mA")}, {"4-20ma"})

    def test_a_change_of_sort_takes_a_point_off_a_channel_that_is_not_for_it(self) -> None:
        self.put("B1", self.di)
        self.bench.do("write-points", cells=[{"id": self.ids["B1"], "key": "sort", "value": "safe"}])
        self.assertEqual(self.allocated(), {})
        self.assertIn("waits for another channel", self.bench.done[-1].remarks[0])

    def test_suggested_a_machine_stays_together_and_spares_are_left_at_the_end(self) -> None:
        other = self.add("di8")
        for code in ("M1", "M2"):
            self.bench.do("add-function", code=code)
        ids = {t: self.ids[t] for t in self.ids if t.startswith("B")}
        cells = [{"id": id, "key": "function", "value": "M1" if n < 5 else "M2"} for n, id in enumerate(ids.values())]
        self.bench.do("write-points", cells=cells)
        self.bench.do("suggest-channels", ids=list(ids.values()))
        found = {p.tag: (p.device_id, p.channel) for p in self.bench.project.io_points.values() if p.channel}
        self.assertEqual([found[f"B{n}"] for n in range(1, 6)], [(self.di, n) for n in range(1, 6)])
        self.assertEqual([found[f"B{n}"] for n in range(6, 11)], [(other, n) for n in range(1, 6)])

    def test_a_channel_that_is_drawn_is_not_suggested(self) -> None:
        self.bench.place("plc-input", 60, 20, device_id=self.di)
        self.bench.do("suggest-channels", ids=[self.ids["B1"]])
        self.assertEqual(self.allocated(), {"B1": "I0.1"})
        self.put("B2", self.di)
        self.assertEqual(self.allocated()["B2"], "I0.0", "by hand it is put there")

    def test_suggested_spares_are_used_when_nothing_else_is_left(self) -> None:
        points = [p for p in self.bench.project.io_points.values() if p.io_type == "DI"]
        found = suggested(self.bench.project, points)
        self.assertEqual(sorted(a.row.channel for a in found), list(range(1, 9)))
        self.bench.do("suggest-channels", ids=[p.id for p in points])
        self.assertIn("2 points found no free channel", self.bench.done[-1].remarks[0])
        with self.assertRaisesRegex(RuleError, "No card has a free channel for these points: AI and DI and DO"):
            self.bench.do("suggest-channels")

    def test_suggestions_never_take_a_channel_twice_nor_a_wrong_one(self) -> None:
        random = Random(9)
        for _ in range(25):
            self.setUp()
            for _ in range(random.randint(0, 4)):
                self.add(random.choice(PARTS).id)
            for n in range(random.randint(1, 25)):
                kind, sort = random.choice((("DI", ""), ("DI", "fast"), ("AI", "rtd"), ("AI", ""), ("DO", "")))
                self.points((f"P{n}", kind), sort=sort)
            project = self.bench.project
            found = suggested(project, project.io_points.values())
            keys = [(a.row.device_id, a.row.io_type, a.row.channel) for a in found]
            self.assertEqual(len(keys), len(set(keys)))
            self.assertTrue(all(a.point.io_type == a.row.io_type for a in found))
            self.assertTrue(all(a.point.sort in ("", a.row.sort) for a in found))


class Racks(Case):
    def setUp(self) -> None:
        super().setUp()
        limits = {"slots": "2", "rack_supply_a": "0.5", "rack_width_mm": "60"}
        self.bench.library.parts["rack"] = Part("rack", "Maker", "RACK", "plc-rack", ratings=limits)
        wide = {"rack_load_a": "0.3"}
        units = tuple(("di", (str(n),)) for n in range(1, 33))
        self.bench.library.parts["big"] = Part("big", "M", "BIG", "plc-card", units=units, ratings=wide, width_mm=35)
        self.rack = self.bench.new("add-rack", part_id="rack")
        self.other = self.bench.new("add-rack", part_id="rack", text="Remote station")

    def test_cards_take_the_first_free_slot_and_full_racks_refuse(self) -> None:
        for _ in range(2):
            self.add("di8", rack_id=self.rack)
        self.assertEqual([(c.rack_id, c.slot) for c in cards(self.bench.project)], [(self.rack, 1), (self.rack, 2)])
        with self.assertRaisesRegex(RuleError, "All 2 slots of -KF1 are taken"):
            self.add("di8", rack_id=self.rack)

    def test_a_32_channel_card_over_two_racks(self) -> None:
        one, two = self.add("big", rack_id=self.rack), self.add("big", rack_id=self.other)
        self.assertEqual([(r.load_a, r.width_mm, r.faults) for r in racks(self.bench.project)], [(0.3, 35.0, ())] * 2)
        self.bench.do("set-card", device_id=two, rack_id=self.rack)
        faults = racks(self.bench.project)[0].faults
        self.assertEqual(len(faults), 2)
        self.assertIn("its cards draw 0.6 A and it gives 0.5 A", faults[0])
        self.assertIn("its cards are 70 mm wide and it holds 60 mm", faults[1])
        self.bench.do("set-card", device_id=one, slot=2)
        self.assertIn("slot 2 is taken twice", racks(self.bench.project)[0].faults)
        self.bench.do("set-card", device_id=one, slot=7)
        self.assertIn("there is no slot 7", racks(self.bench.project)[0].faults)

    def test_what_is_wrong_with_racks_and_channels_is_a_snag(self) -> None:
        made = [self.add("big", rack_id=self.rack), self.add("big", rack_id=self.rack)]
        ids = self.points(("B1", "DI"), ("B2", "DI"))
        self.bench.do("allocate-points", ids=list(ids.values()), device_id=made[0])
        found = {s.code: s for s in project_snags(self.bench.project)}
        racks_said = " ".join(s.message for s in project_snags(self.bench.project) if s.code == "rack")
        self.assertIn("its cards draw 0.6 A", racks_said)
        undrawn = found["channel-undrawn"]
        self.assertEqual(undrawn.message, "-KF3: 2 channels with a point are drawn on no sheet: B1, B2.")
        assert undrawn.act is not None
        self.bench.do(**undrawn.act.payload())
        self.assertNotIn("channel-undrawn", [s.code for s in project_snags(self.bench.project)])
        self.bench.do("assign-part", device_id=made[0], part_id="sdi8")
        self.bench.do("assign-part", device_id=made[0], part_id="rtd4")
        self.assertEqual(self.allocated(), {}, "channels of another type serve nothing")
        lost = [s for s in project_snags(self.bench.project) if s.code == "channel-unfit"]
        self.assertEqual(len(lost), 2)
        self.assertIn("B1 is on DI channel 1 of -KF3, which has none of that number", lost[0].message)
        for snag in lost:
            assert snag.act is not None
            self.bench.do(**snag.act.payload())
        self.assertNotIn("channel-unfit", [s.code for s in project_snags(self.bench.project)])

    def test_the_slot_is_the_address_where_the_scheme_says_so(self) -> None:
        made = self.add("di8", rack_id=self.rack, scheme="slot")
        self.bench.do("set-card", device_id=made, slot=2)
        self.assertEqual(self.firsts(), ["I2/0"])
        self.bench.do("set-card", device_id=made, fixed=True, slot=1)
        self.assertEqual(self.firsts(), ["I2/0"])

    def test_the_cards_of_one_rack_are_addressed(self) -> None:
        self.add("di8")
        self.add("di8", rack_id=self.rack)
        self.add("di8", rack_id=self.rack)
        self.bench.do("address-cards", rack_id=self.rack, start="20.0")
        self.assertEqual(self.firsts(), ["I0.0", "I20.0", "I21.0"])

    def test_a_deleted_rack_leaves_its_cards(self) -> None:
        self.add("di8", rack_id=self.rack)
        self.bench.do("delete-rack", rack_id=self.rack)
        self.assertEqual([(c.rack_id, c.slot) for c in cards(self.bench.project)], [("", 0)])
        self.assertEqual(len(self.bench.project.racks), 1)
