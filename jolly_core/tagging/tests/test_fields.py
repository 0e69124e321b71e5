"""Fields of title blocks: each says what it promises, on the demo and on nothing at all."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.exchange import read_project
from jolly_core.model import Project, RuleError, Sheet
from jolly_core.tagging import FIELDS, check_fields, check_own_name, fields_in, filled, own_names, renamed
from jolly_core.testing import DEMO, Workbench

EXPECTED = {
    "project number": "PM-0417",
    "project": "Kiln 2",
    "customer": "Pellwick Maltings",
    "site": "Pellwick, kiln house",
    "title": "Loading auger, control",
    "subtitle": "",
    "sheet": "30",
    "n": "10",
    "count": "31",
    "next": "31",
    "previous": "20",
    "revision": "B",
    "project revision": "B",
    "issued on": "2026-11-09",
    "drawn by": "A. Marsh",
    "drawn on": "2026-10-02",
    "checked by": "J. Brand",
    "checked on": "2026-11-05",
    "structure": "=K2+KP2",
    "function": "=K2",
    "function text": "Kiln 2",
    "location": "+KP2",
    "location text": "Control panel kiln 2",
    "document": "Schematic",
    "size": "A4",
    "supply": "400 V 3~ 50 Hz",
    "supply system": "TN-S, 40 A",
    "control voltages": "24 V DC",
    "protection": "IP54 panel, IP65 door devices",
    "standards": "IEC 60204-1, IEC 61439-1, IEC 81346",
}


class Fields(TestCase):
    def test_each_field_on_the_control_sheet_of_the_demo(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        sheet = next(s for s in project.sheets.values() if s.number == "30")
        self.assertEqual({name: f.of(project, sheet) for name, f in FIELDS.items()}, EXPECTED)
        self.assertTrue(all(f.help for f in FIELDS.values()))

    def test_first_and_last_have_no_neighbour_and_a_page_beside_them_no_place(self) -> None:
        bench = Workbench()
        last = bench.new("add-sheet", number="31")
        sheets = bench.project.sheets
        ends = [filled(bench.project, sheets[id], "{previous} {n}/{count} {next}") for id in (bench.sheet, last)]
        self.assertEqual(ends, ["- 1/2 31", "30 2/2 -"])
        self.assertEqual(filled(bench.project, Sheet("plan:x", "T1"), "{n} {next} {previous}"), "- - -")
        bench.do("order-sheets", sheet_ids=[last], after_id="-")
        self.assertEqual(filled(bench.project, sheets[last], "{n} {next}"), "1 30", "it follows the order at once")

    def test_a_field_that_is_not_known_shows_nothing_and_is_refused_where_it_is_written(self) -> None:
        project, sheet = Project(), Sheet("s", "1", "Fan")
        self.assertEqual(filled(project, sheet, "{nowhere}{title}"), "Fan")
        with self.assertRaisesRegex(RuleError, "no field {nowhere}"):
            check_fields(project, "{title} {nowhere}")
        check_fields(project, "{title} and words", ["more"])
        check_fields(project, "{more}", ["more"])

    def test_what_is_given_stands_before_everything(self) -> None:
        sheet = Sheet("s", "1", "Fan", fields={"n": "own", "Order": "7"})
        self.assertEqual(filled(Project(), sheet, "{n} {Order}", {"n": "3", "Order": "8"}), "3 8")
        self.assertEqual(filled(Project(), sheet, "{n} {Order}"), "- 7", "a name of ours is never the person's")

    def test_own_fields_of_project_and_sheets_are_one_list_without_doubles(self) -> None:
        bench = Workbench()
        bench.do("set-own-field", name="Order", text="1")
        bench.do("change-sheet", sheet_id=bench.sheet, fields={"Order": "2", "Checked against": "rev 3"})
        self.assertEqual(own_names(bench.project), ["Order", "Checked against"])

    def test_names_that_could_not_be_written_in_braces(self) -> None:
        for name in ("", " a", "a ", "a  b", "{a}", "-a", "a" * 41, "title", "n", "revision"):
            with self.subTest(name), self.assertRaises(RuleError):
                check_own_name(name)
        for name in ("Order", "7", "Kiln load, t", "Prüfer & Co.", "a/b-c_d"):
            check_own_name(name)

    @given(st.text(alphabet="ab {}", max_size=20))
    def test_any_text_is_filled_and_renaming_touches_no_other_name(self, content: str) -> None:
        sheet = Sheet("s", "1", fields={"a": "A", "b": "B"})
        self.assertNotIn("  ", filled(Project(), sheet, content))
        changed = renamed(content, "a", "c")
        self.assertEqual([n for n in fields_in(changed) if n != "c"], [n for n in fields_in(content) if n != "a"])
        self.assertEqual(fields_in(changed).count("c"), fields_in(content).count("a"))
