"""Values of parts that cannot be: out of bounds, running backwards, contradicting each other."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.library import check_part, missing, new_part, part_class, units_line
from jolly_core.model import FileError
from jolly_core.testing import DemoLibrary


class Bounds(TestCase):
    def refused(self, number: str, words: str, **change: object) -> None:
        part = DemoLibrary().parts[number]
        ratings = {**part.ratings, **change.pop("ratings", {})}  # type: ignore[dict-item]  # given as a dict
        with self.subTest(words), self.assertRaisesRegex(FileError, words):
            check_part(replace(part, ratings=ratings, **change))  # type: ignore[arg-type]  # fields by name

    def test_each_out_of_its_bounds_is_refused_by_name(self) -> None:
        cable = "quillon-ql-s4-0-5-s"
        cores = DemoLibrary().parts[cable].units
        self.refused(cable, "Cross-section: -3 is less than nothing", ratings={"cross_section_mm2": "-3"})
        self.refused(cable, "diameter: -8 is less than nothing", ratings={"outer_diameter_mm": "-8"})
        self.refused(cable, "“zz” should be like 16 or 2/0", ratings={"awg": "zz"})
        self.refused(cable, r"AWG 10 is 5.26 mm², not 0.75 mm²", ratings={"awg": "10", "cross_section_mm2": "0.75"})
        self.refused(cable, "Pair: 1.5 is no whole number", details=({"pair": "1.5"},))
        self.refused(cable, "core .*AWG 10 is 5.26", details=({"section": "0.75", "awg": "10"},))
        self.refused(cable, "two cores “BN”", units=(*cores, ("core", ("BN",))))
        terminal = "quillon-ql-k2-5"
        words = "Conductor from 2.5 and conductor to 1 mm²: the start is above the end"
        self.refused(terminal, words, ratings={"cross_section_min_mm2": "2.5", "cross_section_max_mm2": "1.0"})
        self.refused(terminal, "Levels: 1.5 is no whole number", ratings={"levels": "1.5"})

    def test_a_cable_is_told_by_its_conductors_and_ring_lugs_are_a_class(self) -> None:
        cable = DemoLibrary().parts["quillon-ql-s4-0-5-s"]
        self.assertTrue(units_line(cable).startswith("4-conductor shielded: core WH"))
        drained = replace(cable, details=({}, {}, {}, {"role": "drain"}))
        self.assertTrue(units_line(drained).startswith("3-conductor shielded: "))
        lug = replace(new_part("ring-lug"), maker="Quillon", number="QL-RL6", ratings={"stud_mm": "6"})
        self.assertEqual(missing(lug)["making"], ["conductor from", "conductor to"])
        self.assertIn("strip_mm", part_class("terminal").ratings)

    def test_a_gauge_beside_its_usual_section_is_no_contradiction(self) -> None:
        part = DemoLibrary().parts["quillon-ql-s4-0-5-s"]
        for gauge, section in (("20", "0.5"), ("18", "0.75"), ("16", "1.5"), ("AWG 14", "2.5"), ("2/0", "70")):
            with self.subTest(gauge):
                kept = check_part(replace(part, ratings={"awg": gauge, "cross_section_mm2": section}))
                self.assertEqual(kept.ratings["awg"], gauge.removeprefix("AWG "))
