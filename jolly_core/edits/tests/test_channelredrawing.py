"""Channels drawn again after the list changed: what follows, what goes, what comes, and what people did stays."""

from __future__ import annotations

from dataclasses import replace

from jolly_core.checks import all_snags
from jolly_core.exchange import read_project, write_project
from jolly_core.model import Change, ChangeSet, RuleError, Symbol
from jolly_core.points.circuitchanges import all_circuit_changes, circuit_changes, said
from jolly_core.tagging import full_tag

from ..base.history import take_back
from .test_channeldrawing import Case


class Redrawing(Case):
    def setUp(self) -> None:
        super().setUp()
        self.ids = self.inputs(5)
        self.bench.do("draw-channels")
        self.project = self.bench.project

    def again(self) -> list[list[str]]:
        return self.bench.do("redraw-channels").table

    def element(self, tag: str) -> Symbol:
        """Return the symbol that is drawn as what is connected to a point."""
        circuit = next(c for c in self.project.channel_circuits.values() if c.point_id == self.ids[tag])
        symbols = [self.project.symbols[i] for i in circuit.made if i in self.project.symbols]
        return next(s for s in symbols if s.definition != "terminal")

    def write(self, tag: str, **cells: str) -> None:
        cell = [{"id": self.ids[tag], "key": key, "value": value} for key, value in cells.items()]
        self.bench.do("write-points", cells=cell)

    def loose(self) -> set[str]:
        return {s.code for s in all_snags(self.project)} & {"loose-end", "outside-frame", "number-twice", "equal-tags"}

    def test_nothing_changed_is_said(self) -> None:
        self.assertEqual(all_circuit_changes(self.project), [])
        with self.assertRaisesRegex(RuleError, "as the list says"):
            self.again()

    def test_a_channel_taken_off_its_sheet_leaves_a_project_that_can_be_read_again(self) -> None:
        circuit = next(c for c in self.project.channel_circuits.values() if c.point_id == self.ids["B2"])
        before = write_project(self.project)
        done = self.bench.do("delete-selection", ids=[circuit.symbol_id])
        self.assertNotIn(circuit.id, self.project.channel_circuits)
        again = read_project(write_project(self.project).encode())
        self.assertEqual(set(again.channel_circuits), set(self.project.channel_circuits))
        self.project.apply(take_back(self.project, done.changes))
        self.assertEqual(write_project(self.project), before)

    def test_a_channel_moved_to_another_sheet_is_still_known_as_drawn(self) -> None:
        circuit = next(c for c in self.project.channel_circuits.values() if c.point_id == self.ids["B2"])
        other = self.bench.new("add-sheet", number="90", frame="ladder")
        self.bench.do("move-to-sheet", ids=[circuit.symbol_id], sheet_id=other)
        self.assertEqual(self.project.channel_circuits[circuit.id], circuit)
        self.assertEqual(self.project.symbols[circuit.symbol_id].sheet_id, other)

    def test_a_point_freed_before_it_goes_takes_its_circuit_with_it(self) -> None:
        circuit = next(c for c in self.project.channel_circuits.values() if c.point_id == self.ids["B2"])
        self.bench.do("free-points", ids=[self.ids["B2"]])
        self.bench.do("delete-points", ids=[self.ids["B2"]])
        self.assertEqual([row[:2] for row in self.again()], [["removed", "a channel"]])
        self.assertNotIn(circuit.id, self.project.channel_circuits)
        self.assertNotIn(circuit.symbol_id, self.project.symbols)
        self.assertFalse(self.loose())

    def test_gone_points_take_their_circuits_with_them_and_new_ones_take_their_rows(self) -> None:
        before = self.drawn()
        devices = {full_tag(self.project, d) for d in self.project.devices.values()}
        self.bench.do("delete-points", ids=[self.ids["B2"], self.ids["B5"]])
        self.assertEqual([c.what for c in circuit_changes(self.project, self.di)], ["removed", "removed"])
        table = self.again()
        self.assertEqual([row[:2] for row in table], [["removed", "I0.1"], ["removed", "I0.4"]])
        self.assertEqual(self.drawn(), {t: at for t, at in before.items() if t not in ("B2", "B5")})
        gone = devices - {full_tag(self.project, d) for d in self.project.devices.values()}
        self.assertEqual(gone, {"+F-BG2", "+F-BG5"})
        self.assertFalse(self.loose())
        self.assertTrue(self.bench.canonical())
        lowest = max(w.y2 for w in self.project.wires.values())
        self.assertEqual(lowest, 50, "the common ends at the last row that is left")
        self.ids |= self.inputs(2, start=6)
        self.again()
        now = self.drawn()
        self.assertEqual({now["B6"], now["B7"]}, {before["B2"], before["B5"]})

    def test_the_last_circuit_takes_the_common_and_its_mark_along(self) -> None:
        self.bench.do("delete-points", ids=list(self.ids.values()))
        self.again()
        sheet = next(s for s in self.project.sheets.values() if s.title.startswith("+P-KF1"))
        left = {s.definition for s in self.project.symbols_on(sheet.id)}
        self.assertEqual(left, {"plc-supply"})
        self.assertEqual(len(self.project.continuations_on(sheet.id)), 2, "those of the card's supply")
        self.assertFalse(self.loose())

    def test_another_kind_of_contact_is_changed_where_it_stands_wherever_it_was_moved(self) -> None:
        symbol = self.element("B3")
        self.bench.do("move-selection", ids=[symbol.id], dx=6, dy=0)
        self.write("B3", normal="closed")
        (change,) = circuit_changes(self.project, self.di)
        self.assertEqual((change.what, change.aspects), ("changed", ("element",)))
        self.assertEqual(self.again()[0][:2], ["changed", "B3"])
        now = self.project.symbols[symbol.id]
        self.assertEqual((now.definition, now.x, now.device_id), ("limit-nc", 56, symbol.device_id))
        self.assertFalse(self.loose())

    def test_another_element_is_drawn_anew_at_its_channel(self) -> None:
        channel = self.drawn()["B3"]
        self.write("B3", connected="proximity, 3 wires")
        self.again()
        self.assertEqual(self.drawn()["B3"], channel)
        self.assertEqual(self.element("B3").definition, "three-wire-sensor")
        self.assertEqual(sum(1 for s in self.project.symbols.values() if s.definition == "limit-no"), 4)
        self.assertFalse(self.loose())
        self.assertEqual(circuit_changes(self.project, self.di), [])

    def test_a_sheet_goes_on_with_its_own_common_whatever_the_project_says_now(self) -> None:
        self.bench.do("change-settings", channel_feed="230 V", channel_return="N")
        self.write("B3", connected="proximity, 3 wires", device="-BG3")
        self.ids |= self.inputs(5, start=6)
        self.again()
        names = {c.name for c in self.project.continuations.values()}
        self.assertEqual(names, {"24 V", "0 V"}, "the card is fed as it is drawn, on its next sheet, too")
        self.assertEqual(self.bench.tag(self.element("B3").id), "BG3")
        self.assertFalse({s.code for s in all_snags(self.project)} & {"short", "potentials-joined"})

    def test_terminals_that_are_wanted_no_more_go(self) -> None:
        count = sum(1 for s in self.project.symbols.values() if s.definition == "terminal")
        self.write("B1", terminals="no")
        self.again()
        self.assertEqual(sum(1 for s in self.project.symbols.values() if s.definition == "terminal"), count - 2)

    def test_texts_follow_unless_somebody_wrote_another(self) -> None:
        mine = self.project.devices[self.element("B2").device_id]
        self.bench.do("set-text", device_id=mine.id, text="Written by hand")
        self.write("B1", text="Hatch closed")
        self.write("B2", text="Hatch open")
        self.again()
        texts = [self.project.devices[self.element(t).device_id].text for t in ("B1", "B2")]
        self.assertEqual(texts, ["Hatch closed", "Written by hand"])

    def test_a_device_gets_the_tag_that_the_list_gives_it_while_no_other_has_it(self) -> None:
        self.write("B1", device="-BG77")
        self.again()
        device = self.project.devices[self.element("B1").device_id]
        self.assertEqual(full_tag(self.project, device), "+F-BG77")
        self.write("B2", device="-BG77")
        self.again()
        self.assertIn("as another is called -BG77", self.bench.done[-1].remarks[0])

    def test_what_people_moved_added_or_wrote_stays(self) -> None:
        sheet_id = self.element("B1").sheet_id
        self.bench.do("move-selection", ids=[self.element("B4").id], dx=4, dy=0)
        note = self.bench.new("place-note", sheet_id=sheet_id, x=60, y=96, text="See the maker's sheet")
        lamp = self.bench.place("lamp", 60, 104, sheet_id=sheet_id)
        hand = self.bench.place("plc-input", 94, 20)
        kept = {id: self.project.symbols[id] for id in (self.element("B4").id, lamp, hand)}
        self.bench.do("delete-points", ids=[self.ids["B3"]])
        self.write("B1", connected="push button")
        self.ids |= self.inputs(3, start=6)
        before = dict(self.project.symbols)
        self.again()
        for id, symbol in kept.items():
            self.assertEqual(self.project.symbols[id], symbol)
        self.assertIn(note, self.project.notes)
        self.bench.project.apply(take_back(self.project, self.bench.done[-1].changes))
        self.assertEqual(dict(self.project.symbols), before)

    def test_a_channel_that_was_moved_off_its_row_is_left_and_named(self) -> None:
        channel = next(s for s in self.project.units_of(self.di) if s.units == (2,) and s.definition == "plc-input")
        self.bench.do("move-selection", ids=[channel.id], dx=8, dy=0)
        self.write("B2", connected="proximity, 3 wires")
        with self.assertRaisesRegex(RuleError, "its channel was moved by hand"):
            self.again()
        self.assertEqual(self.element("B2").definition, "limit-no")

    def test_a_locked_circuit_stays(self) -> None:
        symbol = self.element("B2")
        self.bench.do("set-lock", ids=[symbol.id], locked=True)
        self.bench.do("delete-points", ids=[self.ids["B2"]])
        with self.assertRaisesRegex(RuleError, "a circuit is locked"):
            self.again()
        self.assertIn(symbol.id, self.project.symbols)

    def test_a_point_on_another_channel_takes_its_circuit_along(self) -> None:
        places = self.drawn()
        self.bench.do("swap-channels", io_type="DI", device_id=self.di, channel=1, other_id=self.di, other=4)
        self.assertEqual(self.drawn(), places)
        first = self.element("B1")
        self.assertEqual(circuit_changes(self.project, self.di), [])
        self.assertEqual(self.project.symbols[first.id].y, 20)

    def test_titles_follow_unless_somebody_wrote_them(self) -> None:
        sheet = self.project.sheets[self.element("B1").sheet_id]
        self.ids |= self.inputs(3, start=6)
        self.again()
        self.assertEqual(self.project.sheets[sheet.id].title, "+P-KF1 I0.0 to I0.7")
        self.bench.do("change-sheet", sheet_id=sheet.id, title="Inputs of the hatch")
        self.bench.do("delete-points", ids=[self.ids["B8"]])
        self.again()
        self.assertEqual(self.project.sheets[sheet.id].title, "Inputs of the hatch")

    def test_what_a_file_says_of_a_circuit_may_be_anything(self) -> None:
        circuit = next(iter(self.project.channel_circuits.values()))
        for text in ("", "[1]", "not JSON", '{"element": 3}'):
            with self.subTest(text=text):
                now = self.project.channel_circuits[circuit.id]
                self.project.apply(ChangeSet([Change("channel_circuit", circuit.id, now, replace(now, said=text))]))
                self.assertEqual(said(self.project.channel_circuits[circuit.id]), {})
                self.assertEqual(circuit_changes(self.project, self.di), [])
