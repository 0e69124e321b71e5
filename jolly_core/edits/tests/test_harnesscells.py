"""The table of wires of a harness edited in its cells: the same wires as on the sheet."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.harness import HarnessWire, shields, strand_of, wires_of
from jolly_core.model import RuleError
from jolly_core.tagging import full_tag, pin_name
from jolly_core.testing import Workbench


class Cells(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.harness = self.bench.new("add-harness", code="WH-F")
        for tag, part in (("XD1", "tamwick-tw-h6s"), ("XD2", "tamwick-tw-h2p"), ("XD3", "tamwick-tw-h2p")):
            self.bench.do("add-connector", harness_id=self.harness, part_id=part, tag=tag)
        rows = [
            {"signal": "F1+", "colour": "RD", "size": "0.75", "start": "-XD1:1", "end": "-XD2:1", "twisted": "P1"},
            {"signal": "F1-", "colour": "BU", "size": "0.75", "start": "-XD1:2", "end": "-XD2:2", "twisted": "P1"},
            {"signal": "S", "colour": "WH", "size": "0.5", "start": "-XD1:3", "end": "-XD3:1", "shield": "SH1"},
        ]
        self.bench.do("draw-harness-wires", harness_id=self.harness, rows=rows)

    def wire(self, number: str) -> HarnessWire:
        return next(w for w in wires_of(self.bench.project, self.harness) if w.conductor.number == number)

    def write(self, number: str, **values: str) -> None:
        key = self.wire(number).conductor.key
        cells = [{"id": key, "key": name, "value": value} for name, value in values.items()]
        self.bench.do("write-harness-wires", harness_id=self.harness, cells=cells)

    def said(self, number: str) -> tuple[str, str]:
        strand = strand_of(self.bench.project, self.harness, self.wire(number).conductor.key)
        return (strand.twisted, strand.shield) if strand else ("", "")

    def test_what_rows_say_of_twisting_and_shields_is_kept(self) -> None:
        self.assertEqual([self.said(n) for n in ("F1+", "F1-", "S")], [("P1", ""), ("P1", ""), ("", "SH1")])

    def test_signal_colour_size_and_twisting_are_those_of_the_drawn_wire(self) -> None:
        self.write("F1+", signal="FAN", colour="BN", size="1", twisted="")
        c = self.wire("FAN").conductor
        wire_type = c.wire_type(self.bench.project)
        self.assertIsNotNone(wire_type)
        if wire_type is not None:
            self.assertEqual((wire_type.colour, wire_type.cross_section_mm2), ("BN", 1.0))
        self.assertEqual(self.said("FAN"), ("", ""))
        self.assertEqual(len(self.bench.project.strands), 2)

    def test_ends_are_those_called_so_now_though_their_tags_come_from_the_line_they_get(self) -> None:
        bench = Workbench(tag_habit="line", standard="na")
        project, harness = bench.project, bench.new("add-harness", code="WH-L")
        for part in ("tamwick-tw-h6s", "tamwick-tw-h2p", "tamwick-tw-h2p"):
            bench.do("add-connector", harness_id=harness, part_id=part)
        rows = [{"colour": "RD", "size": "0.5", "start": f"CONN1:{n}", "end": f"CONN2:{n}"} for n in (1, 2)]
        bench.do("draw-harness-wires", harness_id=harness, rows=rows)
        new = next(d for d in project.devices.values() if full_tag(project, d) == "CONN3")
        bench.do("set-tag", device_id=new.id, tag="")
        tag = full_tag(project, project.devices[new.id])
        keys = [w.conductor.key for w in wires_of(project, harness)]
        cells = [{"id": key, "key": "end", "value": f"{tag}:{n}"} for n, key in enumerate(keys, start=1)]
        bench.do("write-harness-wires", harness_id=harness, cells=cells)
        self.assertNotEqual(full_tag(project, project.devices[new.id]), tag)
        ends = [(w.conductor.start, w.conductor.end) for w in wires_of(project, harness)]
        joined = [pair for pair in ends if new.id in {project.symbols[id].device_id for id, _ in pair}]
        self.assertEqual(len(joined), 2)

    def test_another_end_draws_the_wire_there_and_nothing_of_it_is_left_behind(self) -> None:
        symbols = len(self.bench.project.symbols)
        self.write("S", end="-XD3:2")
        c = self.wire("S").conductor
        ends = {pin_name(self.bench.project, pin) for pin in (c.start, c.end)}
        self.assertEqual(ends, {"-XD1:3", "-XD3:2"})
        self.assertEqual(len(self.bench.project.symbols), symbols)
        self.assertEqual(self.said("S"), ("", "SH1"))
        self.assertEqual([s.message for s in project_snags(self.bench.project) if s.severity == "error"], [])

    def test_a_cell_that_cannot_be_is_refused_by_the_wire_and_nothing_changes(self) -> None:
        before = self.bench.project.stamp
        with self.assertRaises(RuleError) as caught:
            self.write("S", end="-XD3:9")
        self.assertIn("Wire S: -XD3 has no cavity 9", caught.exception.message)
        with self.assertRaises(RuleError) as caught:
            self.write("S", colour="PURPLISH")
        self.assertIn("is no colour of IEC 60757", caught.exception.message)
        self.assertEqual(self.bench.project.stamp, before)

    def test_wires_taken_away_are_off_the_sheet(self) -> None:
        keys = [self.wire(n).conductor.key for n in ("F1+", "F1-")]
        self.bench.do("remove-harness-wires", harness_id=self.harness, wires=keys)
        self.assertEqual([w.conductor.number for w in wires_of(self.bench.project, self.harness)], ["S"])
        self.assertEqual(len(self.bench.project.symbols), 2)
        self.assertEqual([s.shield for s in self.bench.project.strands.values()], ["SH1"])

    def test_a_shield_that_lands_nowhere_is_a_snag_until_it_is_landed(self) -> None:
        def snags() -> list[str]:
            return [s.message for s in project_snags(self.bench.project) if s.code == "harness-shield"]

        self.assertEqual(snags(), ["WH-F: shield SH1 about 1 wire lands nowhere. Land it."])
        self.bench.do("land-shield", harness_id=self.harness, name="SH1", pin="-XD1:6")
        self.assertEqual(([s.landed for s in shields(self.bench.project, self.harness)], snags()), (["-XD1:6"], []))
        self.bench.do("land-shield", harness_id=self.harness, name="SH1")
        self.assertEqual(len(snags()), 1)


class Splicing(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.harness = self.bench.new("add-harness", code="WH-S")
        parts = (("XD1", "tamwick-tw-h6s", 0), ("XD2", "tamwick-tw-h2p", 310), ("XD3", "tamwick-tw-h2p", 380))
        for tag, part, length in parts:
            self.bench.do("add-connector", harness_id=self.harness, part_id=part, tag=tag, length_mm=length or 200)
        rows = [
            {"signal": "0V", "colour": "BU", "size": "1.5", "start": "-XD1:1", "end": "-XD2:1"},
            {"signal": "", "colour": "BU", "size": "1.5", "start": "-XD1:1", "end": "-XD3:1"},
        ]
        self.bench.do("draw-harness-wires", harness_id=self.harness, rows=rows)
        self.plug = next(d.id for d in self.bench.project.devices.values() if self.tag(d.id) == "-XD1")

    def tag(self, device_id: str) -> str:
        return full_tag(self.bench.project, self.bench.project.devices[device_id])

    def snags(self) -> list[str]:
        return [s.message for s in project_snags(self.bench.project) if s.code.startswith("harness")]

    def test_wires_that_no_contact_takes_together_are_joined_in_a_splice(self) -> None:
        self.assertIn("does not take 3 mm² of 2 wires together", self.snags()[0])
        splice = self.bench.new("splice-cavity", device_id=self.plug, cavity="1", equal_legs=True)
        self.assertEqual(self.snags(), [])
        project = self.bench.project
        ends = [
            {pin_name(project, w.conductor.start), pin_name(project, w.conductor.end)}
            for w in wires_of(project, self.harness)
        ]
        tag = f"{self.tag(splice)}:S"
        for pair in ({"-XD1:1", tag}, {tag, "-XD2:1"}, {tag, "-XD3:1"}):
            self.assertIn(pair, ends)
        lengths = [w.length_mm for w in wires_of(project, self.harness)]
        self.assertEqual(len(set(lengths)), 1, "equal legs")

    def test_one_wire_needs_no_splice(self) -> None:
        with self.assertRaises(RuleError) as caught:
            self.bench.do("splice-cavity", device_id=self.plug, cavity="2")
        self.assertIn("-XD1:2 has no two wires", caught.exception.message)

    def test_a_splice_whose_tag_comes_from_its_line_is_named_before_it_is_drawn(self) -> None:
        self.bench.do("change-settings", tag_habit="line", standard="na")
        splice = self.bench.new("splice-cavity", device_id=self.plug, cavity="1")
        project = self.bench.project
        ends = [(w.conductor.start, w.conductor.end) for w in wires_of(project, self.harness)]
        joined = [pair for pair in ends if splice in {project.symbols[id].device_id for id, _ in pair}]
        self.assertEqual((len(ends), len(joined)), (3, 3))
