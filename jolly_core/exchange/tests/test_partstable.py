"""Parts as tables: what goes out comes in the same; every bad cell is named by row and column."""

from __future__ import annotations

import io
from dataclasses import replace
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook

from jolly_core.exchange import (
    CheckedRow,
    check_rows,
    guessed_mapping,
    parts_table,
    read_cells,
    table_csv,
    table_xlsx,
    units_in,
    units_text,
)
from jolly_core.library import unit_kinds
from jolly_core.model import FileError, Part
from jolly_core.testing import DemoLibrary

PARTS = DemoLibrary().parts


def nothing(maker: str, number: str) -> Part | None:
    return None


def book(rows: list[list[object]]) -> bytes:
    made = Workbook()
    for row in rows:
        made.worksheets[0].append(row)
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


class OutAndIn(TestCase):
    def test_the_whole_demo_library_goes_out_and_is_the_same_again(self) -> None:
        known = {(p.maker.lower(), p.number.lower()): p for p in PARTS.values()}
        table = parts_table(PARTS.values())
        for content, name in ((table_csv(table), "parts.csv"), (table_xlsx(table), "parts.xlsx")):
            cells = read_cells(content, name, formulas=True)
            mapping = guessed_mapping(cells[0])
            self.assertNotIn("", mapping.values(), "every column that goes out is known again")
            rows = check_rows(cells, mapping, lambda m, n: known.get((m.lower(), n.lower())))
            self.assertEqual({r.state for r in rows}, {"same"}, [r for r in rows if r.state != "same"][:2])
            fresh = check_rows(cells, mapping, nothing)
            self.assertEqual({r.state for r in fresh}, {"new"})
            for row, part in zip(fresh, PARTS.values(), strict=True):
                plain = replace(part, id="", details=(), texts={}, mounting=part.mounting)
                self.assertEqual(row.part, replace(plain, version=1))

    @given(
        st.lists(
            st.tuples(
                st.sampled_from(sorted(set(unit_kinds()) - {"block"})),
                st.lists(st.text("A1234567890+", min_size=1, max_size=3), min_size=1, max_size=4).map(tuple),
            ),
            max_size=8,
        ).map(tuple)
    )
    def test_units_in_a_cell_are_read_again(self, units: tuple[tuple[str, tuple[str, ...]], ...]) -> None:
        self.assertEqual(units_in(units_text(Part("", "", "", "relay", units=units))), units)

    def test_units_as_people_write_them(self) -> None:
        wanted = (("coil", ("A1", "A2")), ("no", ("13", "14")), ("terminal", ("", "")), ("ai", ("1+", "1-")))
        self.assertEqual(units_in("coil A1-A2; NO 13-14; terminal _ _; ai 1+ 1-"), wanted)
        with self.assertRaisesRegex(FileError, "no kind of unit"):
            units_in("wheel 1-2")


class BadCells(TestCase):
    def test_each_is_named_by_row_and_column_and_good_rows_stand_alone(self) -> None:
        unknown = [f"Extra {n}" for n in range(30)]
        headings = ["Maker", "Number", "Class", "Description", "Width mm", "Voltage V", "Units", *unknown]
        head: list[object] = list(headings)
        rows: list[list[object]] = [
            head,
            ["Tamwick", "N-1", "Indicator light", "Good", "30", "24 V", "lamp X1-X2", *["x"] * 30],
            ["Tamwick", "N-2", "Indicator light", "Unit", "30 kg", "24", "lamp X1-X2"],
            [],
            ["Tamwick", "N-1", "Indicator light", "Twice", 30, 24, ""],
            ["Tamwick", "N-4", "Rocket", "Class", 30, 24, ""],
            ["Tamwick", "N-5", "Indicator light", "Formula", "=A1*2", 24, ""],
            ["Tamwick", "N-6", "Indicator light", "Unit kind", 3, "many", "motor U-V"],
            ["Tamwick", None, "Indicator light", "No number", 3, 24, ""],
            ["Tamwick", "N-8", "", "No class", "3 cm", 24, ""],
        ]
        cells = read_cells(book(rows), "parts.xlsx", formulas=True)
        mapping = guessed_mapping(cells[0])
        self.assertEqual([h for h in headings if not mapping[h]], unknown)
        found = check_rows(cells, mapping, nothing)
        self.assertEqual([(r.line, r.state) for r in found if r.state == "new"], [(2, "new")])
        self.assertNotIn(4, [r.line for r in found])  # the empty row
        problems = {(r.line, p.column): p.words for r in found for p in r.problems}
        for (line, column), words in {
            (3, "Width mm"): "kg cannot be used here",
            (5, "Number"): "the same maker and number as in row 2",
            (6, "Class"): "there is no class “Rocket”",
            (7, "Width mm"): "a formula",
            (8, "Voltage V"): "no number in V",
            (9, "Number"): "no number",
            (10, "Class"): "no class",
        }.items():
            self.assertIn(words, problems[line, column])
        good = next(r.part for r in found if r.state == "new")
        self.assertEqual((good.width_mm, good.ratings) if good else None, (30.0, {"voltage_v": "24"}))

    def test_what_is_there_already_shows_what_would_change(self) -> None:
        lamp = PARTS["tamwick-tw-l22-g"]
        cells = [["Manufacturer", "Part number", "Description", "Price"], ["TAMWICK", "tw-l22-g", "Emerald", "9,5"]]
        (row,) = check_rows(cells, guessed_mapping(cells[0]), lambda m, n: lamp)
        self.assertEqual(row.state, "changed")
        changed = {c.field: c.after for c in row.changes}
        self.assertEqual((changed["description"], changed["price"]), ("Emerald", "9.5"))
        self.assertEqual(row.part.units if row.part else None, lamp.units)

    def test_a_table_without_headings_or_numbers_is_refused(self) -> None:
        for cells, words in (([], "no headings"), ([["", " "]], "no headings"), ([["Maker"], ["A"]], "which column")):
            with self.subTest(words), self.assertRaisesRegex(FileError, words):
                check_rows(cells, guessed_mapping(cells[0] if cells else []), nothing)


class Cables(TestCase):
    HEAD = ("Maker", "Number", "Class", "Number of cores", "Cross-section mm²", "AWG", "Screened", "Units")

    def rows(self, *rows: tuple[str, ...], known: Part | None = None) -> list[CheckedRow]:
        cells = [list(self.HEAD), *([*r, *[""] * (len(self.HEAD) - len(r))] for r in rows)]
        return check_rows(cells, guessed_mapping(cells[0]), lambda maker, number: known)

    def test_cores_come_in_as_a_number_or_a_word(self) -> None:
        seven, power, signal = self.rows(
            ("Quill", "Q-7", "Cable", "7"),
            ("Quill", "Q-4", "Cable", "4G2.5", "2.5", "14"),
            ("Quill", "Q-2", "Cable", "2x2x0.5", "", "", "yes"),
        )
        self.assertEqual([r.state for r in (seven, power, signal)], ["new"] * 3, [seven.problems, power.problems])
        assert seven.part and power.part and signal.part
        self.assertEqual(units_text(seven.part), "core 1; core 2; core 3; core 4; core 5; core 6; core 7")
        self.assertEqual(units_text(power.part), "core BN; core BK; core GY; core GNYE")
        self.assertEqual(power.part.ratings, {"cross_section_mm2": "2.5", "awg": "14"})
        self.assertEqual(units_text(signal.part), "core 1; core 2; core 3; core 4; shield SH")

    def test_a_row_that_contradicts_itself_is_bad_in_that_cell(self) -> None:
        found = self.rows(
            ("Quill", "Q-1", "Cable", "4G2.5", "1.5"),
            ("Quill", "Q-2", "Cable", "4G2.5", "", "", "", "core 1; core 2"),
            ("Quill", "Q-3", "Motor", "4G2.5"),
            ("Quill", "Q-4", "Cable", "4G2.5", "", "22"),
        )
        self.assertEqual([r.state for r in found], ["bad"] * 4)
        told = [p for r in found[:3] for p in r.problems]
        self.assertEqual({p.column for p in told}, {"Number of cores"})
        for problem, words in zip(told, ("another size", "take one of them", "only a cable"), strict=True):
            self.assertIn(words, problem.words)

    def test_a_cable_that_is_there_is_the_same_when_its_number_of_cores_is(self) -> None:
        (first,) = self.rows(("Quill", "Q-4", "Cable", "4G2.5"))
        (again,) = self.rows(("Quill", "Q-4", "Cable", "4"), known=first.part)
        (more,) = self.rows(("Quill", "Q-4", "Cable", "5G2.5"), known=first.part)
        self.assertEqual((again.state, more.state), ("same", "changed"))
