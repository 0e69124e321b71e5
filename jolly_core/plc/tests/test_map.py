"""The map of an address space: bytes, words, rows of numbers, slots, and what nobody takes between them."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.model import Part
from jolly_core.plc import address_map, channel_row, parse_start, usual_scheme
from jolly_core.testing import Workbench


class Map(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        for id, kinds in (("di8", ["di"] * 8), ("ai2", ["ai"] * 2), ("do8", ["do"] * 8), ("bare", [])):
            units = tuple((kind, (str(n),)) for n, kind in enumerate(kinds, start=1))
            self.bench.library.parts[id] = Part(id, "Maker", id.upper(), "plc-card", units=units)

    def add(self, part: str, **values: object) -> str:
        return self.bench.new("add-card", part_id=part, **values)

    def rows(self, space: str) -> list[tuple[str, list[str], int]]:
        """Return for each row its name, how its first and last cells are written, and how many are taken."""
        found = []
        for row in address_map(self.bench.project, space):
            ends = [row.cells[0].text, row.cells[-1].text] if row.cells else []
            found.append((row.name, ends, sum(bool(c.rows) for c in row.cells)))
        return found

    def test_a_byte_by_itself_between_others_is_shown_and_several_are_one_row_without_cells(self) -> None:
        for start in ("0.0", "2.0", "6.0"):
            self.add("di8", start=start)
        self.assertEqual(
            self.rows("I"),
            [
                ("0", ["0.0", "0.7"], 8),
                ("1", ["1.0", "1.7"], 0),
                ("2", ["2.0", "2.7"], 8),
                ("3 to 5", [], 0),
                ("6", ["6.0", "6.7"], 8),
            ],
        )
        self.assertEqual(self.rows("Q"), [])

    def test_a_word_takes_two_bytes_and_one_row(self) -> None:
        card = self.add("ai2", start="4")
        rows = address_map(self.bench.project, "I")
        self.assertEqual(
            [(r.name, [(c.place, c.size, c.text) for c in r.cells]) for r in rows],
            [
                ("4", [(32, 16, "W4")]),
                ("6", [(48, 16, "W6")]),
            ],
        )
        self.assertEqual([c.rows[0].device_id for r in rows for c in r.cells], [card, card])

    def test_two_cards_on_one_byte_show_both_channels_in_a_cell(self) -> None:
        one, other = self.add("di8", start="0.0"), self.add("di8", start="1.0")
        self.bench.do("address-card", device_id=other, scheme="byte.bit", start="0.4")
        rows = address_map(self.bench.project, "I")
        doubled = [c for r in rows for c in r.cells if len(c.rows) == 2]
        self.assertEqual([c.text for c in doubled], ["0.4", "0.5", "0.6", "0.7"])
        self.assertEqual({r.device_id for c in doubled for r in c.rows}, {one, other})

    def test_numbers_stand_eight_to_a_row_and_octal_ones_are_written_so(self) -> None:
        card = self.add("di8")
        self.bench.do("address-card", device_id=card, scheme="octal", start="20")
        self.assertEqual(self.rows("octal I"), [("20", ["20", "27"], 8)])
        self.bench.do("address-card", device_id=card, scheme="whole", start="100")
        self.assertEqual(self.rows("whole I"), [("96", ["96", "103"], 4), ("104", ["104", "111"], 4)])


class Words(TestCase):
    def test_how_starts_are_read(self) -> None:
        for scheme, text, place in (
            ("octal", "20", 16),
            ("octal", "7", 7),
            ("word", "256", 2048),
            ("byte.bit", "3.7", 31),
        ):
            self.assertEqual(parse_start(scheme, text), place, (scheme, text))

    def test_the_usual_scheme(self) -> None:
        for kinds, scheme in (
            ({"AI"}, "word"),
            ({"AO"}, "word"),
            ({"AI", "AO"}, "word"),
            ({"AI", "DI"}, "byte.bit"),
            ({"DO"}, "byte.bit"),
            (set(), "byte.bit"),
        ):
            self.assertEqual(usual_scheme(kinds), scheme, kinds)

    def test_a_channel_by_its_type_and_number(self) -> None:
        bench = Workbench(frame="zones")
        card = bench.new("add-card", part_id="hollin-hr-di8")
        found = channel_row(bench.project, card, "DI", 3)
        assert found is not None
        self.assertEqual((found.io_type, found.channel), ("DI", 3))
        for io_type, channel in (("DI", 9), ("DO", 3), ("DI", 0)):
            self.assertIsNone(channel_row(bench.project, card, io_type, channel))
        self.assertIsNone(channel_row(bench.project, "gone", "DI", 1))
