"""Channels drawn in every pattern: sides, level and upright, sensors of two to four wires, stamps, cables, groups."""

from __future__ import annotations

from dataclasses import replace

from jolly_core.cables import cable_conductors
from jolly_core.checks import all_snags
from jolly_core.circuits import potential_of
from jolly_core.model import Change, ChangeSet, IoPoint, RuleError, Symbol
from jolly_core.plc import card_supplies, channels
from jolly_core.points import Pattern, element_of, pattern_for
from jolly_core.scenes import sheet_scene
from jolly_core.scenes.base.primitives import Text
from jolly_core.scenes.room.crowding import meet, text_box
from jolly_core.tagging import full_tag, pin_name
from jolly_core.wiring import all_conductors, group_of, sheet_groups

from ..base.history import take_back
from .test_channeldrawing import Case

EVERY = [(way, side) for way in ("level", "upright") for side in ("right", "left")]
MANY = (
    *(("DI", w) for w in ("limit switch", "proximity pnp", "npn sensor", "e-stop", "push button", "thermostat")),
    *(("DO", w) for w in ("lamp", "valve", "relay", "horn")),
    *(("AI", w) for w in ("transmitter 2 wires", "transmitter 3 wires", "transmitter 4 wires", "moisture probe")),
)


class Patterned(Case):
    def pairs(self) -> set[frozenset[str]]:
        return {frozenset(pair) for pair in self.ends()}

    def at(self, definition: str) -> Symbol:
        return next(s for s in self.bench.project.symbols.values() if s.definition == definition)

    def overlaps(self, sheet_id: str) -> list[tuple[str, str]]:
        """Return the texts of a sheet that lie on each other."""
        prims = [p for item in sheet_scene(self.bench.project, sheet_id).items.values() for p in item.prims]
        texts = [p for p in prims if isinstance(p, Text) and p.words.strip()]
        boxes = [(text_box(p), p.words) for p in texts]
        found = []
        for n, (one, words) in enumerate(boxes):
            small = (one[0] + 0.1, one[1] + 0.1, one[2] - 0.1, one[3] - 0.1)
            found += [(words, other) for box, other in boxes[:n] if meet(small, box)]
        return found

    def many(self) -> None:
        self.bench.new("add-card", part_id="hollin-hr-ai4", location_id=self.panel)
        lines = [(f"{kind}{n}", kind, words) for n, (kind, words) in enumerate(MANY, 1)]
        self.list(*lines, text="A text that is a little longer than most of them are", cable=True)


class Geometry(Patterned):
    def test_a_place_is_given_along_and_across_a_row(self) -> None:
        for way, side, wanted in (
            ("level", "right", (94, 34)),
            ("level", "left", (34, 34)),
            ("upright", "right", (43, 84)),
            ("upright", "left", (43, 18)),
        ):
            with self.subTest(way=way, side=side):
                pattern = Pattern(8, way, side)
                at = pattern.at(1, 94, 4)
                self.assertEqual(at, wanted)
                self.assertEqual(pattern.row_of(at), 1)
                self.assertEqual(pattern.across(at), pattern.pitch + 4)

    def test_inputs_stand_right_and_outputs_left_until_a_side_is_chosen(self) -> None:
        settings = self.bench.project.settings
        self.assertEqual([pattern_for(settings, t).side for t in ("DI", "DO", "AI", "AO")], ["right", "left"] * 2)
        chosen = replace(settings, channel_side="left", channel_way="upright", channels_per_sheet=4)
        self.assertEqual(pattern_for(chosen, "DI"), Pattern(4, "upright", "left"))

    def test_every_pattern_is_tidy_and_wired_alike(self) -> None:
        for standard, size in (("iec", "A3"), ("na", "ANSI B"), ("iec", "A4"), ("na", "ANSI D")):
            with self.subTest(standard=standard, size=size):
                self.setUp()
                if standard == "na":
                    self.bench.do("change-settings", standard="na", tag_habit="line")
                self.bench.do("set-sheet-habit", sheet_kind="schematic", size=size, columns=12)
                self.every_pattern()

    def every_pattern(self) -> None:
        self.many()
        wired: set[frozenset[frozenset[str]]] = set()
        for way, side in EVERY:
            with self.subTest(way=way, side=side):
                self.bench.do("draw-channels", way=way, side=side)
                project = self.bench.project
                codes = {s.code for s in all_snags(project)}
                self.assertFalse(codes & {"outside-frame", "loose-end", "equal-tags", "number-twice"}, codes)
                self.assertTrue(self.bench.canonical())
                made = [id for card in project.cards.values() for id in card.sheet_ids]
                for sheet_id in made:
                    self.assertEqual(self.overlaps(sheet_id), [])
                self.assertGreater(len(made), 2)
                sizes = {project.sheets[id].size for id in made}
                self.assertTrue(sizes <= {"A3", "ANSI B", "ANSI D"}, sizes)
                wired.add(frozenset(p for p in self.pairs() if any("KF" in end for end in p)))
                project.apply(take_back(project, self.bench.done[-1].changes))
        self.assertEqual(len(wired), 1, "each channel is wired to the same pins, however it is drawn")

    def test_the_pattern_is_the_projects_from_then_on(self) -> None:
        self.inputs(5)
        self.bench.do("draw-channels", way="upright", side="left", per_sheet=4, feed="24 V aux")
        settings = self.bench.project.settings
        said = (settings.channel_way, settings.channel_side, settings.channels_per_sheet, settings.channel_feed)
        self.assertEqual(said, ("upright", "left", 4, "24 V aux"))
        self.inputs(1, start=6)
        self.bench.do("draw-channels")
        self.assertEqual({x for _, x, _ in self.drawn().values()}, {24, 39, 54, 69})
        with self.assertRaisesRegex(RuleError, "two potentials"):
            self.bench.do("draw-channels", feed="0 V", back="0 V")

    def test_another_pattern_or_feed_begins_sheets_of_its_own(self) -> None:
        self.inputs(3)
        self.bench.do("draw-channels")
        for changed in ({"way": "upright"}, {"feed": "24 V other", "way": "level"}):
            with self.subTest(changed=changed):
                before = {n for n, _, _ in self.drawn().values()}
                self.inputs(1, start=len(self.drawn()) + 1)
                self.bench.do("draw-channels", **changed)
                self.assertEqual(len({n for n, _, _ in self.drawn().values()}), len(before) + 1)

    def numbers(self) -> dict[str, str]:
        """Return the wire numbers at pins, by their names."""
        project = self.bench.project
        conductors = all_conductors(project).values()
        return {pin_name(project, pin): c.number for c in conductors for pin in (c.start, c.end)}

    def test_wires_are_numbered_by_address_where_a_rule_says_so(self) -> None:
        self.bench.do("put-number-rule", name="By address", at_channel=True, pieces=[{"piece": "address"}])
        self.inputs(3)
        self.bench.do("draw-channels")
        project = self.bench.project
        numbers = {
            pin_name(project, pin): c.number for c in all_conductors(project).values() for pin in (c.start, c.end)
        }
        self.assertEqual([numbers[f"+P-KF1:{n}"] for n in (1, 2, 3)], ["I0.0", "I0.1", "I0.2"])
        self.bench.do("address-card", device_id=self.di, scheme="octal", start="10")
        after = self.numbers()
        self.assertEqual([after[f"+P-KF1:{n}"] for n in (1, 2, 3)], ["I10", "I11", "I12"])


class Sensors(Patterned):
    def test_three_wires_are_fed_from_both_potentials(self) -> None:
        self.list(("B1", "DI", "Proximity switch, 3 wires"), terminals=False)
        self.bench.do("draw-channels")
        project = self.bench.project
        sensor = self.at("three-wire-sensor")
        self.assertIn(frozenset(("+P-KF1:1", "+F-BG1:4")), self.pairs())
        self.assertIn("24 V", potential_of(project, (sensor.id, 0)).labels)
        self.assertIn("0 V", potential_of(project, (sensor.id, 1)).labels)

    def test_four_wires_are_fed_and_bring_their_signal_to_both_pins(self) -> None:
        ai = self.bench.new("add-card", part_id="hollin-hr-ai4", location_id=self.panel)
        self.list(("T1", "AI", "transmitter 4 wires"))
        self.bench.do("draw-channels", device_ids=[ai])
        sensor = self.at("four-wire-sensor")
        self.assertIn("24 V", potential_of(self.bench.project, (sensor.id, 0)).labels)
        self.assertIn("0 V", potential_of(self.bench.project, (sensor.id, 1)).labels)
        self.assertEqual(sum(1 for s in self.bench.project.symbols.values() if s.definition == "terminal"), 4)

    def test_three_wires_at_an_analog_channel_share_the_return(self) -> None:
        ai = self.bench.new("add-card", part_id="hollin-hr-ai4", location_id=self.panel)
        self.list(("T1", "AI", "transmitter 3 wires"), terminals=False)
        self.bench.do("draw-channels", device_ids=[ai])
        channel = self.at("plc-analog-input")
        self.assertIn("0 V", potential_of(self.bench.project, (channel.id, 1)).labels)
        self.assertNotIn("0 V", potential_of(self.bench.project, (channel.id, 0)).labels)

    def test_words_of_sensors(self) -> None:
        for words, io_type, wanted in (
            ("NPN proximity", "DI", "three-wire-sensor-minus"),
            ("inductive sensor", "DI", "three-wire-sensor"),
            ("three-wire sensor", "AI", "three-wire-sensor"),
            ("4-wire transmitter", "AI", "four-wire-sensor"),
            ("4 wire transmitter", "DI", ""),
            ("limit switch", "AI", ""),
        ):
            with self.subTest(words=words):
                point = IoPoint("p", "X", io_type=io_type, connected=words)
                self.assertEqual(element_of(self.bench.project, point).definition, wanted)


class Wished(Patterned):
    def test_field_wires_of_those_that_want_one_go_into_a_cable_of_their_sheet(self) -> None:
        self.list(("B1", "DI", "limit switch"), ("B2", "DI", "limit switch"), cable=True)
        self.list(("B3", "DI", "limit switch"))
        self.bench.do("draw-channels")
        project = self.bench.project
        self.assertEqual(len(project.cables), 1)
        (cable,) = project.cables.values()
        inside = cable_conductors(project, cable.device_id)
        conductors = {pin_name(project, pin) for c in inside for pin in (c.start, c.end)}
        self.assertTrue(any(name.startswith("+F-BG1:") for name in conductors))
        self.assertFalse(any(name.startswith("+F-BG3:") for name in conductors))
        self.assertEqual(len(project.bands), 2, "one stroke across each column of wires")

    def keep(self, name: str, questions: list[dict[str, object]] | None = None) -> None:
        """Keep a stamp of two contacts in a row and a relay above, its caret point at the right end."""
        sheet, bench = self.bench.sheet, self.bench
        first = bench.place("limit-no", 40, 100)
        second = bench.place("limit-nc", 50, 100)
        coil = bench.place("coil", 40, 80)
        bench.wire((44, 100), (50, 100))
        bench.wire((54, 100), (60, 100))
        wires = [w.id for w in bench.project.wires_on(sheet)]
        asked = [{**q, "targets": [bench.device(first)]} for q in questions or []]
        bench.new(
            "keep-stamp", ids=[first, second, coil, *wires], name=name, anchor_x=60, anchor_y=100, questions=asked
        )

    def test_a_stamp_has_its_caret_point_at_the_channel_and_answers_from_columns(self) -> None:
        self.keep("Flap pair", [{"name": "Text", "kind": "text"}, {"name": "Plant tag", "kind": "tag"}])
        self.list(("B1", "DI", "limit switch"))
        self.list(("B2", "DI", "Stamp Flap pair"), text="Flap at its end", own={"plant TAG": "BG77"})
        self.list(("B3", "DI", "flap pair"), ("B4", "DI", "push button"))
        self.bench.do("draw-channels")
        project = self.bench.project
        self.assertEqual([y for _, _, y in self.drawn().values()], [20, 50, 80, 90])
        named = next(d for d in project.devices.values() if d.fixed_tag == "BG77")
        self.assertEqual(named.text, "Flap at its end")
        self.assertIn(frozenset(("+P-KF1:2", next(n for n in self.partners("+P-KF1:2")))), self.pairs())
        self.assertTrue(self.partners("+P-KF1:2") and self.partners("+P-KF1:3"))
        self.assertFalse({s.code for s in all_snags(project)} & {"outside-frame"})

    def partners(self, pin: str) -> set[str]:
        return {end for pair in self.pairs() if pin in pair for end in pair - {pin}}

    def test_a_stamp_that_is_not_there_or_an_answer_that_is_none_is_named(self) -> None:
        self.list(("B1", "DI", "stamp Nothing like it"))
        self.bench.do("draw-channels")
        self.assertIn("B1: there is no stamp “Nothing like it” in the project.", self.bench.done[-1].remarks)
        self.keep("Placed", [{"name": "Location", "kind": "location"}])
        self.list(("B2", "DI", "stamp Placed"), own={"location": "+NOWHERE"}, location_id="")
        with self.assertRaisesRegex(RuleError, r"B2: Location: there is no location \+NOWHERE"):
            self.bench.do("draw-channels")


class Groups(Patterned):
    """A card with two groups of four, each with a fused supply of its own."""

    def setUp(self) -> None:
        super().setUp()
        self.card = self.grouped("hollin-hr-do8", "do")

    def grouped(self, part_id: str, unit: str) -> str:
        """Return a card of two groups of four channels of a kind, each with a supply and a fuse."""
        project = self.bench.project
        card = self.bench.new("add-card", part_id=part_id, location_id=self.panel)
        part = project.parts[part_id]
        supplies = (("card-supply", ("1L+", "1M")), ("card-supply", ("2L+", "2M")))
        units = tuple((unit, (str(n),)) for n in range(1, 9))
        facts = [{"group": "1", "fuse_a": "2"}, {"group": "2", "fuse_a": "2"}]
        facts += [{"group": "1" if n < 5 else "2"} for n in range(1, 9)]
        grouped = replace(
            part, id=f"{part.id}g", number=f"{part.number}G", units=supplies + units, details=tuple(facts)
        )
        device = project.devices[card]
        fresh = replace(device, part_id=grouped.id)
        made = [Change("part", grouped.id, None, grouped), Change("device", device.id, device, fresh)]
        project.apply(ChangeSet(made))
        return card

    def test_supplies_say_their_group_and_fuse(self) -> None:
        found = [(s.unit, s.group, s.fuse_a, s.pins) for s in card_supplies(self.bench.project, self.card)]
        self.assertEqual(found, [(1, "1", 2.0, ("1L+", "1M")), (2, "2", 2.0, ("2L+", "2M"))])

    def test_groups_are_fed_over_fuses_of_their_own_on_sheets_of_their_own(self) -> None:
        self.list(*((f"Y{n}", "DO", "valve") for n in range(1, 17)))
        self.bench.do("draw-channels", device_ids=[self.card])
        project = self.bench.project
        card = next(c for c in project.cards.values() if c.device_id == self.card)
        self.assertEqual(len(card.sheet_ids), 2)
        fuses = [s for s in project.symbols.values() if s.definition == "fuse"]
        self.assertEqual(sorted(project.sheets[s.sheet_id].id for s in fuses), sorted(card.sheet_ids))
        self.assertEqual(self.behind(self.card), [[], []], "a load is between its output and the return")
        self.assertFalse([s for s in all_snags(project) if s.code == "unpaired-continuation" and ".1" in s.message])
        self.assertEqual(len({r.symbol_id for r in channels(project, self.card)} - {""}), 8)
        self.assertEqual({project.devices[s.device_id].text for s in fuses}, {"2 A"})

    def behind(self, card: str) -> list[list[str]]:
        """Return the names of the marks behind the fuse of each supply of a card."""
        project = self.bench.project
        supplies = {s.unit: s.symbol_id for s in card_supplies(project, card)}
        names = []
        for n in (1, 2):
            sheet_id, point = group_of(project, (supplies[n], 0))
            marks = sheet_groups(project, sheet_id).by_point[point].continuations
            names.append([project.continuations[id].name for id in marks])
        return names

    def test_what_is_switched_to_inputs_is_fed_behind_the_fuse_of_its_group(self) -> None:
        card = self.grouped("hollin-hr-di8", "di")
        self.list(*((f"B{n}", "DI", "limit switch") for n in range(1, 9)))
        points = sorted(self.bench.project.io_points.values(), key=lambda p: p.tag)
        self.bench.do("free-points", ids=[p.id for p in points])
        self.bench.do("allocate-points", ids=[p.id for p in points], device_id=card)
        self.bench.do("draw-channels", device_ids=[card])
        project = self.bench.project
        tag = full_tag(project, project.devices[card]).rsplit("-", 1)[-1]
        self.assertEqual(self.behind(card), [[f"24 V {tag}.1"], [f"24 V {tag}.2"]])
        snags = [s for s in all_snags(project) if s.code == "unpaired-continuation"]
        self.assertFalse([s for s in snags if tag in s.message])
