"""Pasted rows of wires: the marks between cells, headings, decimal commas, quotes."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.exchange import wire_rows
from jolly_core.exchange.wirerows import FIELDS
from jolly_core.model import FileError

PLAIN = st.text(st.characters(whitelist_categories=["L", "N"], whitelist_characters="+-:=/"), min_size=1, max_size=8)


def values(text: str) -> list[tuple[str, ...]]:
    return [tuple(str(row[field]) for field in FIELDS) for row in wire_rows(text)]  # type: ignore[literal-required]


class Marks(TestCase):
    def test_a_decimal_comma_parts_nothing_beside_semicolons(self) -> None:
        self.assertEqual(values("W1;RD;0,75;-X1:1;-X2:1"), [("W1", "RD", "0,75", "-X1:1", "-X2:1", "", "")])

    def test_tabs_go_before_all_other_marks(self) -> None:
        wanted = ("F1; pump", "RD", "0,75", "-X1:1", "-X2:1", "T1", "S1")
        self.assertEqual(values("\t".join(wanted)), [wanted])

    def test_commas_part_where_nothing_else_does(self) -> None:
        self.assertEqual(values("W1,RD,0.75,-X1:1,-X2:1"), [("W1", "RD", "0.75", "-X1:1", "-X2:1", "", "")])

    def test_a_quoted_cell_keeps_its_mark_and_its_quotation_mark(self) -> None:
        self.assertEqual(values('"W1, spare",RD,"0,75",-X1:1,-X2:1')[0][:3], ("W1, spare", "RD", "0,75"))
        self.assertEqual(values('"a ""b"""\tRD\t1\t-X1:1\t-X2:1')[0][0], 'a "b"')

    def test_a_mark_within_quotes_parts_nothing_anywhere(self) -> None:
        wanted = ("a; b", "RD", "0.75", "-X1:1", "-X2:1", "", "")
        self.assertEqual(values('"a; b",RD,0.75,-X1:1,-X2:1'), [wanted])

    def test_an_inch_that_begins_a_cell_swallows_no_row(self) -> None:
        text = '" bore\tRD\t1\t-X1:1\t-X2:1\nW2\tBK\t1\t-X1:2\t-X2:2'
        self.assertEqual([row[0] for row in values(text)], ['" bore', "W2"])
        self.assertEqual(values('W 3/4";RD;1;-X1:1;-X2:1')[0][0], 'W 3/4"')

    def test_a_line_break_in_a_cell_is_a_space_and_no_row(self) -> None:
        self.assertEqual(values('"W1\nspare"\tRD\t1\t-X1:1\t-X2:1\r\n')[0][0], "W1 spare")

    def test_empty_rows_are_none(self) -> None:
        self.assertEqual(values("\n\t\t\n \n"), [])
        self.assertEqual(values(""), [])

    def test_too_many_rows_are_refused(self) -> None:
        with self.assertRaisesRegex(FileError, "in parts"):
            wire_rows("a\tb\n" * 20_001)


class Headings(TestCase):
    def test_columns_in_any_order_by_their_headings(self) -> None:
        text = "From;To;Cross-section;Colour;Wire;Screen\n-X1:1;-X2:1;0,75;RD;W1;S1"
        self.assertEqual(values(text), [("W1", "RD", "0,75", "-X1:1", "-X2:1", "", "S1")])

    def test_a_row_that_heads_one_end_only_is_a_wire(self) -> None:
        self.assertEqual(values("from here;RD;1;-X1:1;-X2:1")[0][0], "from here")

    def test_torque_heads_no_end(self) -> None:
        self.assertEqual(len(values("From;Torque\n-X1:1;2")), 2)

    @given(st.permutations(FIELDS), st.lists(PLAIN, min_size=7, max_size=7), st.sampled_from("\t;,"))
    def test_any_order_and_any_mark_give_the_same_wire(self, order: list[str], cells: list[str], mark: str) -> None:
        heads = {f: f for f in FIELDS} | {"start": "From", "end": "To", "size": "mm²"}
        said = dict(zip(FIELDS, cells, strict=True))
        text = mark.join(heads[f] for f in order) + "\n" + mark.join(said[f] for f in order)
        self.assertEqual(values(text), [tuple(cells)])
