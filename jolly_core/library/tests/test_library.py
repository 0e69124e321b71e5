"""Symbols and part classes as data, and looking symbols up."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.library import NoLibrary, definition, definitions, find_symbols, part_class, part_classes
from jolly_core.library.symbols import PRIMITIVES
from jolly_core.model import FileError
from jolly_core.testing import DemoLibrary


class Symbols(TestCase):
    def test_every_slice_symbol_is_there(self) -> None:
        wanted = {
            "button-no", "button-nc", "estop", "selector-no", "limit-no", "limit-nc", "contact-no", "contact-nc",
            "contact-co", "coil", "coil-on-delay", "coil-off-delay", "contact-on-delay-no", "contact-off-delay-nc",
            "lamp", "breaker", "motor-breaker", "disconnector", "contactor-pole", "overload", "overload-nc", "fuse",
            "transformer", "dc-supply", "motor", "terminal", "earth",
        }  # fmt: skip
        self.assertLessEqual(wanted, set(definitions()))

    def test_breakers_have_one_to_four_poles_and_no_second_symbol_for_it(self) -> None:
        for key in ("breaker", "motor-breaker", "disconnector", "contactor-pole"):
            self.assertEqual(definition(key).max_poles, 4)
            self.assertEqual(len(definition(key).pin_offsets(4)), 8)
        self.assertEqual(len({d.name for d in definitions().values()}), len(definitions()))

    def test_what_is_exchanged_for_its_opposite_comes_back(self) -> None:
        for shape in definitions().values():
            if shape.swap:
                other = definition(shape.swap)
                self.assertEqual((other.swap, other.part_class, other.pins), (shape.key, shape.part_class, shape.pins))
                self.assertNotEqual(other.unit, shape.unit)

    def test_pins_are_on_the_grid_and_apart(self) -> None:
        for shape in definitions().values():
            offsets = shape.pin_offsets(shape.max_poles)
            self.assertEqual(len(set(offsets)), len(offsets), shape.key)
            self.assertEqual(shape.pins[0], (0, 0), shape.key)
            for a, b in shape.through:
                (ax, ay), (bx, by) = shape.pins[a], shape.pins[b]
                self.assertTrue(ax == bx or ay == by, f"{shape.key}: a through pair is slanted")

    def test_graphics_are_of_known_kinds_and_within_reach(self) -> None:
        for shape in definitions().values():
            for art in shape.graphics.values():
                self.assertTrue({p[0] for p in art} <= PRIMITIVES)
            left, top, right, bottom = shape.extent(1)
            self.assertTrue(-8 <= left < right <= 25 and -3 <= top <= bottom <= 10, shape.key)
            self.assertGreater(right - left + bottom - top, 1, shape.key)

    def test_generic_pins_are_numbered_after_the_unit(self) -> None:
        cases = {
            ("contact-no", 2): ("23", "24"),
            ("contact-nc", 1): ("11", "12"),
            ("contact-co", 3): ("31", "34", "32"),
            ("contact-on-delay-no", 1): ("17", "18"),
            ("breaker", 3): ("5", "6"),
            ("coil", 1): ("A1", "A2"),
            ("terminal", 7): ("7", "7"),
            ("overload-nc", 1): ("95", "96"),
        }
        for (key, unit), pins in cases.items():
            self.assertEqual(definition(key).generic_pins(unit), pins)

    def test_an_unknown_symbol_or_class_is_named(self) -> None:
        with self.assertRaisesRegex(FileError, "“warp”"):
            definition("warp")
        with self.assertRaisesRegex(FileError, "“warp”"):
            part_class("warp")


class LookUp(TestCase):
    def first(self, words: str) -> str:
        return find_symbols(words)[0].key

    def test_nicknames_typed_whole_come_first(self) -> None:
        for words, key in (
            ("coil", "coil"),
            ("lamp", "lamp"),
            ("ton", "coil-on-delay"),
            ("olr", "overload"),
            ("t", "terminal"),
            ("float switch", "level-no"),
            ("pressure", "pressure-no"),
            ("flow switch nc", "flow-nc"),
            ("pb", "button-no"),
            ("motor", "motor"),
            ("single phase motor", "motor-single"),
            ("receptacle", "socket-outlet"),
        ):
            self.assertEqual(self.first(words), key)

    def test_beginnings_and_several_words(self) -> None:
        self.assertEqual(self.first("disco"), "disconnector")
        self.assertEqual(
            {d.key for d in find_symbols("delayed closing")}, {"contact-on-delay-no", "contact-off-delay-nc"}
        )
        self.assertEqual(self.first("  EMERGENCY   stop "), "estop")

    def test_letters_in_the_middle_of_a_word_do_not_match(self) -> None:
        self.assertNotIn("valve", [d.key for d in find_symbols("no")])
        self.assertEqual(find_symbols("xyzzy"), [])

    def test_nothing_typed_gives_all(self) -> None:
        self.assertEqual(len(find_symbols("")), len(definitions()))


class Classes(TestCase):
    def test_letters_of_both_habits(self) -> None:
        letters = {k: (c.letters("iec"), c.letters("na")) for k, c in part_classes().items()}
        self.assertEqual(letters["contactor"], ("QA", "M"))
        self.assertEqual(letters["push-button"], ("SF", "PB"))
        self.assertEqual(letters["limit-switch"], ("BG", "LS"))
        self.assertEqual([letters[f"{what}-switch"] for what in ("level", "pressure", "flow")], [
            ("BL", "FS"), ("BP", "PS"), ("BF", "FLS"),
        ])  # fmt: skip
        self.assertEqual(letters["motor"], ("MA", "MTR"))

    def test_demo_parts_fit_their_classes(self) -> None:
        parts = DemoLibrary().parts
        self.assertGreaterEqual(len(parts), 60)
        for part in parts.values():
            kind = part_class(part.part_class)
            self.assertTrue({u for u, _ in part.units} <= set(kind.units), part.number)
            self.assertTrue(set(part.ratings) <= set(kind.ratings), part.number)
            pins = [p for u, names in part.units for p in names if p]
            self.assertEqual(len(pins), len(set(pins)), f"{part.number} names a pin twice")

    def test_a_library_without_parts_has_none(self) -> None:
        self.assertIsNone(NoLibrary().part("anything"))
