"""Wires of a harness from a table: drawn on the harness's own sheet, one and the same wire in table and drawing."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.harness import cavity_rows, wires_of
from jolly_core.model import RuleError
from jolly_core.tagging import full_tag, pin_name
from jolly_core.testing import Workbench


class Table(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.harness = self.bench.new("add-harness", code="WH-F")
        for tag, part in (("XD1", "tamwick-tw-h6s"), ("XD2", "tamwick-tw-h2p"), ("XD3", "tamwick-tw-h2p")):
            self.bench.do("add-connector", harness_id=self.harness, part_id=part, tag=tag, text=f"Plug {tag}")

    def draw(self, *rows: tuple[str, str, str, str, str]) -> None:
        keys = ("signal", "colour", "size", "start", "end")
        given = [dict(zip(keys, row, strict=True)) for row in rows]
        self.bench.do("draw-harness-wires", harness_id=self.harness, rows=given)

    def shown(self) -> list[tuple[str, str, str, str]]:
        found = []
        for w in wires_of(self.bench.project, self.harness):
            c = w.conductor
            wire_type = c.wire_type(self.bench.project)
            colour = wire_type.colour if wire_type else ""
            one, other = sorted((pin_name(self.bench.project, c.start), pin_name(self.bench.project, c.end)))
            found.append((c.number, colour, one, other))
        return sorted(found)

    def test_rows_become_wires_that_are_drawn_and_have_lengths(self) -> None:
        self.draw(
            ("F1+", "RD", "0.75", "-XD1:1", "-XD2:1"),
            ("F1-", "BU", "0.75", "XD1.2", "XD2 2"),
            ("F2+", "RD", "0,75", "xd1:3", "XD3:1"),
        )
        self.assertEqual(
            self.shown(),
            [("F1+", "RD", "-XD1:1", "-XD2:1"), ("F1-", "BU", "-XD1:2", "-XD2:2"), ("F2+", "RD", "-XD1:3", "-XD3:1")],
        )
        sheet = next(s for s in self.bench.project.sheets.values() if s.harness_id)
        self.assertEqual((sheet.title, sheet.kind), ("Harness WH-F", "schematic"))
        self.assertEqual(len(self.bench.project.symbols_on(sheet.id)), 6)
        self.assertEqual({w.length_mm for w in wires_of(self.bench.project, self.harness)}, {240.0})
        self.assertEqual([s.message for s in project_snags(self.bench.project) if s.severity == "error"], [])

    def test_a_row_given_again_changes_its_wire_and_adds_none(self) -> None:
        self.draw(("A", "RD", "0.75", "-XD1:1", "-XD2:1"))
        self.draw(("B", "BU", "0.5", "-XD2:1", "-XD1:1"))
        self.assertEqual(self.shown(), [("B", "BU", "-XD1:1", "-XD2:1")])

    def test_a_second_wire_at_a_pin_is_drawn_to_it(self) -> None:
        self.draw(("A", "RD", "0.75", "-XD1:1", "-XD2:1"), ("", "RD", "0.75", "-XD1:1", "-XD3:1"))
        self.assertEqual([s[2:] for s in self.shown()], [("-XD1:1", "-XD2:1"), ("-XD1:1", "-XD3:1")])
        (row, *_) = cavity_rows(self.bench.project, self.device("-XD1"))
        self.assertEqual(len(row.conductors), 2)

    def test_two_that_are_drawn_already_are_joined_without_touching_others(self) -> None:
        self.draw(
            ("A", "RD", "0.75", "-XD1:1", "-XD2:1"),
            ("B", "BU", "0.75", "-XD1:2", "-XD2:2"),
            ("C", "BN", "0.75", "-XD1:3", "-XD3:1"),
            ("", "RD", "0.75", "-XD1:1", "-XD3:1"),
        )
        nets = {frozenset(s[2:]) for s in self.shown()}
        self.assertIn(frozenset(("-XD1:2", "-XD2:2")), nets)
        self.assertEqual(len(nets), 4)

    def test_many_rows_go_on_over_sheets(self) -> None:
        for tag in ("XD4", "XD5"):
            self.bench.do("add-connector", harness_id=self.harness, part_id="tamwick-tw-h24s", tag=tag)
        self.draw(*((f"S{n}", "GY", "0.5", f"-XD4:{n}", f"-XD5:{n}") for n in range(1, 25)))
        titles = [s.title for s in self.bench.project.sheets_in_order() if s.harness_id]
        self.assertEqual(titles, ["Harness WH-F", "Harness WH-F (2)"])
        self.assertEqual(len(self.shown()), 24)

    def test_what_cannot_be_drawn_is_refused_by_row_and_name_and_nothing_is_drawn(self) -> None:
        good = ("A", "RD", "0.75", "-XD1:1", "-XD2:1")
        for row, said in (
            (("", "RD", "0.75", "-XD9:1", "-XD2:1"), "Row 2: There is no connector or splice -XD9"),
            (("", "RD", "0.75", "-XD1:9", "-XD2:1"), "Row 2: -XD1 has no cavity 9: it has 1 to 6"),
            (("", "RD", "0.75", "-XD1", "-XD2:1"), "Row 2: Say which cavity of -XD1"),
            (("", "puce", "0.75", "-XD1:2", "-XD2:2"), "Row 2: “puce” is no colour"),
            (("", "RD", "0", "-XD1:2", "-XD2:2"), "Row 2: “0” is no size"),
            (("", "RD", "thick", "-XD1:2", "-XD2:2"), "Row 2: “thick” is no size"),
            (("", "RD", "0.75", "-XD1:2", "-XD1:2"), "Row 2: -XD1:2 is at both ends"),
        ):
            with self.assertRaisesRegex(RuleError, said):
                self.draw(good, row)
            self.assertEqual(self.shown(), [])

    def marks(self) -> list[tuple[str, str]]:
        """Return name and sheet of each mark."""
        sheets = self.bench.project.sheets
        return sorted((c.name, sheets[c.sheet_id].title) for c in self.bench.project.continuations.values())

    def test_a_pin_drawn_on_another_sheet_is_reached_by_a_mark_on_either(self) -> None:
        device = self.device("-XD1")
        symbol = self.bench.place("connector", 40, 20, device_id=device)
        self.draw(("F+", "RD", "0.75", "-XD1:1", "-XD2:1"))
        self.assertEqual([s[2:] for s in self.shown()], [("-XD1:1", "-XD2:1")])
        here = self.bench.project.sheets[self.bench.symbol(symbol).sheet_id].title
        self.assertEqual(self.marks(), sorted([("F+", here), ("F+", "Harness WH-F")]))
        self.assertTrue(self.bench.canonical())
        self.draw(("G+", "RD", "0.75", "-XD1:2", "-XD2:2"))
        self.assertEqual(len(self.marks()), 2, "these two have room on the harness's own sheet")

    def test_pins_drawn_on_two_sheets_by_hand_are_joined_as_the_table_says(self) -> None:
        other = self.bench.new("add-sheet", title="Other", frame="zones")
        one = self.bench.place("connector", 40, 20, device_id=self.device("-XD1"))
        two = self.bench.place("connector", 60, 30, device_id=self.device("-XD2"), sheet_id=other)
        self.draw(("", "BU", "1", "-XD1:1", "-XD2:1"))
        (wire,) = self.shown()
        self.assertEqual(wire[2:], ("-XD1:1", "-XD2:1"))
        self.assertEqual({self.bench.symbol(s).sheet_id for s in (one, two)} & {other}, {other})
        self.assertEqual({name for name, _ in self.marks()}, {"WH-F"})

    def test_wires_that_share_a_cavity_keep_their_own_colours_and_sizes(self) -> None:
        self.draw(("A", "RD", "0.75", "-XD1:1", "-XD2:1"), ("", "BU", "0.5", "-XD1:1", "-XD3:1"))
        self.assertEqual(self.shown(), [("A", "BU", "-XD1:1", "-XD3:1"), ("A", "RD", "-XD1:1", "-XD2:1")])

    def test_a_cavity_takes_more_wires_when_its_sheet_is_full(self) -> None:
        for tag in ("XD4", "XD5", "XD6"):
            self.bench.do("add-connector", harness_id=self.harness, part_id="tamwick-tw-h24s", tag=tag)
        self.draw(*((f"S{n}", "GY", "0.5", f"-XD4:{n}", f"-XD5:{n}") for n in range(1, 25)))
        self.draw(*(("", "GY", "0.5", f"-XD4:{n}", f"-XD6:{n}") for n in range(1, 25)))
        self.assertEqual(len(self.shown()), 48)
        self.assertTrue(self.bench.canonical())

    def test_wires_may_end_in_a_splice(self) -> None:
        self.bench.do("add-connector", harness_id=self.harness, part_id=self.splice(), tag="XS1")
        self.draw(
            ("0V", "BU", "0.5", "-XD1:1", "-XS1"),
            ("", "BU", "0.5", "-XS1", "-XD2:1"),
            ("", "BU", "0.5", "-XS1", "-XD3:1"),
        )
        self.assertEqual(
            [s[2:] for s in self.shown()], [("-XD1:1", "-XS1:S"), ("-XD2:1", "-XS1:S"), ("-XD3:1", "-XS1:S")]
        )

    def splice(self) -> str:
        from jolly_core.model import Part

        made = Part("fw-sp", "Fenwright", "FW-SP", "splice", ratings={"strip_mm": "8"}, units=(("splice", ("S",)),))
        self.bench.project.parts[made.id] = made
        return made.id

    def device(self, tag: str) -> str:
        return next(d.id for d in self.bench.project.devices.values() if full_tag(self.bench.project, d) == tag)
