"""Classes of the house's own: like one of the data, said whole by their keys, with letters and tags of their own."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.exchange import check_rows, guessed_mapping, parts_table, read_project, table_csv, write_project
from jolly_core.library import (
    base_of,
    check_part,
    is_class,
    new_part,
    own_class_key,
    part_class,
    part_classes,
    symbol_for,
)
from jolly_core.model import FileError, Part
from jolly_core.testing import Workbench

CURTAIN = own_class_key("Air curtain", "fan", "GQ", "AC")


class OwnClasses(TestCase):
    def test_it_has_units_and_fields_of_the_one_it_is_like_and_letters_of_its_own(self) -> None:
        made, fan = part_class(CURTAIN), part_classes()["fan"]
        self.assertEqual((made.name, made.units, made.ratings), ("Air curtain", fan.units, fan.ratings))
        self.assertEqual((made.letters("iec"), made.letters("na")), ("GQ", "AC"))
        plain = part_class(own_class_key("Blower", "fan"))
        self.assertEqual(plain.letters("na"), fan.na)
        self.assertEqual((base_of(CURTAIN), base_of("fan")), ("fan", "fan"))
        self.assertEqual(symbol_for("load", CURTAIN), symbol_for("load", "fan"))
        self.assertEqual(new_part(CURTAIN).units, fan.usual)

    def test_what_cannot_be_a_class_is_refused(self) -> None:
        for name, like, iec, words in (
            ("", "fan", "", "Give the class a name"),
            ("a|b", "fan", "", "without"),
            ("x" * 41, "fan", "", "at most 40"),
            ("Curtain", "rocket", "", "like"),
            ("enclosure FAN", "fan", "", "already"),
            ("Curtain", "fan", "g1", "capital letters"),
        ):
            with self.assertRaises(FileError) as caught:
                own_class_key(name, like, iec)
            self.assertIn(words, caught.exception.message)
        for key in ("own:", "own:Curtain", "own:Curtain|rocket", "own:Curtain|fan|g1", CURTAIN + "|x", "own: A|fan"):
            self.assertFalse(is_class(key), key)
            with self.assertRaises(FileError):
                part_class(key)

    def test_a_device_of_it_takes_its_letters_and_a_file_carries_it(self) -> None:
        bench = Workbench(frame="zones", standard="na")
        part = check_part(Part("ac-1", "Brindlework", "AC-1", CURTAIN, "Air curtain", (("load", ("1", "2")),)))
        bench.library.parts[part.id] = part
        id = bench.place(symbol_for("load", CURTAIN), 12, 10, part_id=part.id)
        self.assertTrue(bench.tag(id).startswith("AC"), bench.tag(id))
        again = read_project(write_project(bench.project))
        self.assertEqual(again.parts[part.id].part_class, CURTAIN)

    def test_a_table_out_and_in_again_keeps_it(self) -> None:
        part = Part("ac-1", "Brindlework", "AC-1", CURTAIN, "Air curtain", (("load", ("1", "2")),), mounting="plate")
        table = parts_table([part])
        self.assertIn(CURTAIN.encode(), table_csv(table))
        cells = [[c.heading for c in table.columns], *([str(v) for v in row] for row in table.rows)]
        row = check_rows(cells, guessed_mapping(cells[0]), lambda maker, number: part)[0]
        self.assertEqual((row.state, row.problems), ("same", []))
