"""Drawn symbols and outlines: what they may be, kept whole in their keys, refused by name."""

from __future__ import annotations

import json
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.library import (
    check_part,
    checked_art,
    compared,
    definition,
    definitions,
    drawn_key,
    find_symbols,
    is_drawn,
    is_known,
    outline_art,
    outline_key,
    own_symbol,
    sketch_from,
    sketch_of,
    symbol_for,
)
from jolly_core.model import FileError, Part, RuleError, from_record, to_record

BEACON: dict[str, Any] = {
    "name": "Rotating beacon",
    "class": "lamp",
    "unit": "lamp",
    "leads": True,
    "nicknames": ["Beacon"],
    "poles": 1,
    "pins": [[3, 2, ""], [7, 2, ""]],
    "through": [[0, 1]],
    "iec": [["circle", 5, 2, 1.5], ["arc", 5, 0, 1.5, 180, 360], ["line", 3, 2, 3.5, 2]],
}


class Keys(TestCase):
    def test_the_first_pin_is_moved_to_the_origin_with_all_else(self) -> None:
        shape = definition(drawn_key(BEACON))
        self.assertEqual(shape.pins, ((0, 0), (4, 0)))
        self.assertEqual(shape.graphics["iec"][0], ("circle", 2, 0, 1.5))
        self.assertEqual((shape.part_class, shape.unit, shape.lead, shape.axis), ("lamp", "lamp", 0, "h"))
        self.assertEqual(shape.generic_pins(1), ("X1", "X2"))
        self.assertTrue(shape.load)

    def test_an_arc_takes_the_room_it_is_drawn_in(self) -> None:
        left, top, right, bottom = definition(drawn_key(BEACON)).extent(1)
        self.assertAlmostEqual(top, -3.5)  # the half circle above
        self.assertAlmostEqual(bottom, 1.5)
        self.assertAlmostEqual(right - left, 3.5)

    def test_a_key_says_all_and_says_it_in_one_way(self) -> None:
        key = drawn_key(BEACON)
        self.assertEqual(drawn_key(sketch_of(key)), key)
        self.assertTrue(is_drawn(key) and is_known(key) and not is_drawn("lamp"))
        loose = "drawn:" + json.dumps(json.loads(key[6:]), indent=1)
        with self.assertRaisesRegex(FileError, "not as it should be kept"):
            definition(loose)
        for wrong in ("drawn:", "drawn:[]", "drawn:{", 'drawn:{"name":"x"}'):
            with self.assertRaises(FileError):
                definition(wrong)

    def test_what_cannot_be_is_refused_and_named(self) -> None:
        cases: list[tuple[dict[str, Any], str]] = [
            ({"name": " "}, "Give the symbol a name"),
            ({"places": {"pin": [0, 0]}}, "places are of tag, text, reference"),
            ({"places": {"tag": [0]}}, "the place of its tag is two numbers"),
            ({"class": "rocket"}, "no part class"),
            ({"unit": "coil"}, "has no unit coil"),
            ({"pins": []}, "1 to 48 pins"),
            ({"pins": [[0, 0, ""]]}, "should have 2 pins, as lamps have"),
            ({"pins": [[0, 0, ""], [0.5, 0, ""]]}, "whole grid step"),
            ({"pins": [[0, 0, ""], [0, 0, ""]], "through": []}, "two pins stand on one point"),
            ({"poles": 2, "pins": [[0, 0, ""], [0, 4, ""]], "through": []}, "repeated 4 steps apart"),
            ({"poles": 9}, "1 to 4 poles"),
            ({"through": [[0, 5]]}, "parted between two of its pins"),
            ({"pins": [[0, 0, ""], [4, 3, ""]]}, "in line with each other"),
            ({"iec": []}, "draw something"),
            ({"iec": [["text", 0, 0, "only", 1]]}, "draw something"),
            ({"iec": [["blob", 1]]}, "nothing that can be drawn"),
            ({"iec": [["line", 0, 0, 1]]}, "has 4 numbers"),
            ({"iec": [["line", 0, 0, 1, float("nan")]]}, "no length"),
            ({"iec": [["line", 0, 0, 900, 0]]}, "no length"),
            ({"iec": [["poly", [0, 0, 1]]]}, "two points at least"),
            ({"iec": [["circle", 0, 0, 2]] * 401}, "at most 400"),
            ({"iec": [["poly", [n % 100 for n in range(6000)]]]}, "too much in it"),
            ({"unit": "block", "class": "drive", "through": []}, "the name it has on the part"),
        ]
        for change, words in cases:
            with self.subTest(words), self.assertRaises(FileError) as caught:
                drawn_key({**BEACON, **change})
            self.assertIn(words, caught.exception.message)

    def test_names_of_pins_may_hold_braces(self) -> None:
        key = drawn_key({**BEACON, "pins": [[0, 0, "{n}"], [4, 0, "X9"]]})
        self.assertEqual(definition(key).generic_pins(3), ("{n}", "X9"))

    def test_every_symbol_that_comes_along_can_begin_another(self) -> None:
        for shape in definitions().values():
            sketch = sketch_from(shape)
            known = len(sketch["pins"]) == len(shape.pins)
            self.assertTrue(known, shape.key)
            try:
                again = definition(drawn_key({**sketch, "name": f"My {shape.name}"}))
            except FileError as error:
                self.assertIn("should have", error.message, shape.key)  # a symbol of one pole of several
                continue
            self.assertEqual(again.pins, shape.pins, shape.key)
            self.assertEqual(again.extent(1), shape.extent(1), shape.key)

    @given(
        st.lists(
            st.tuples(
                st.sampled_from(["line", "dash", "rect", "solid"]),
                *[st.floats(-50, 50, allow_nan=False) for _ in range(4)],
            ),
            min_size=1,
            max_size=20,
        )
    )
    def test_what_is_kept_once_is_kept_the_same_again(self, strokes: list[tuple[Any, ...]]) -> None:
        once = checked_art([list(s) for s in strokes], 120, "x")
        self.assertEqual(checked_art(once, 120, "x"), once)


class Uses(TestCase):
    def test_it_is_found_by_its_nickname_among_those_that_come_along(self) -> None:
        shape = definition(drawn_key(BEACON))
        self.assertEqual(find_symbols("beacon", [shape])[0].key, shape.key)
        self.assertNotIn(shape.key, [s.key for s in find_symbols("lamp x", [shape])])

    def test_a_part_is_drawn_with_it_in_one_standard_or_both(self) -> None:
        key = drawn_key(BEACON)
        part = Part("p", "Tamwick", "B-1", "lamp", units=(("lamp", ("X1", "X2")),), symbols={"lamp@na": key})
        self.assertEqual(symbol_for("lamp", "lamp", part, "na"), key)
        self.assertEqual(symbol_for("lamp", "lamp", part, "iec"), "lamp")
        self.assertEqual(own_symbol(part, "lamp", "iec"), "")
        self.assertEqual(check_part(part).symbols, {"lamp@na": key})
        self.assertEqual(from_record("part", to_record(part)), part)

    def test_a_symbol_of_another_unit_or_a_bad_outline_is_refused(self) -> None:
        part = Part("p", "Tamwick", "B-1", "lamp", units=(("lamp", ("X1", "X2")),))
        for symbols, words in (
            ({"lamp": "coil"}, "no symbol of a lamp"),
            ({"lamp": "nothing"}, "no symbol “nothing”"),
            ({"plate": "lamp"}, "no outline drawing"),
        ):
            with self.assertRaises(FileError) as caught:
                check_part(Part(**{n: getattr(part, n) for n in part.__slots__} | {"symbols": symbols}))
            self.assertIn(words, caught.exception.message)
            self.assertIn("B-1", caught.exception.message)


class Outlines(TestCase):
    def test_an_outline_is_kept_in_millimetres(self) -> None:
        key = outline_key([["rect", 2, 2, 43, 80], ["text", 22, 40, "K", 6], ["line", 1, 1, 1, 1]])
        self.assertEqual([p[0] for p in outline_art(key)], ["rect", "text"])
        for wrong in ([], [["line", 1, 1, 1, 1]], [["rect", 0, 0, 5000, 1]]):
            with self.assertRaises(FileError):
                outline_key(wrong)
        with self.assertRaises(FileError):
            outline_art("outline:{}")


class Beside(TestCase):
    def test_fields_that_differ_are_marked_and_empty_ones_left_out(self) -> None:
        parts = [
            Part(n, "Fenwold", n, "contactor", ratings={"ac3_a": a, "coil_voltage_v": "24"}, width_mm=45)
            for n, a in (("K9", "9"), ("K12", "12"))
        ]
        rows = {r.field: r for r in compared(parts)}
        self.assertEqual(rows["Motor load, AC-3, A"].values, ("9", "12"))
        self.assertTrue(rows["Motor load, AC-3, A"].differs)
        self.assertFalse(rows["Coil voltage, V"].differs)
        self.assertNotIn("Weight, kg", rows)
        for few in (parts[:1], parts * 3):
            with self.assertRaises(RuleError):
                compared(few)
