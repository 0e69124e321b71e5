"""Where the numbers of wires stand on a drawing: once a net, at its ends, or nowhere, as their type says."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.drawing import GRID_MM
from jolly_core.scenes import sheet_scene
from jolly_core.testing import Workbench

from ..base.primitives import Text


class Numbers(TestCase):
    """Two lamps joined by a level wire and an upright one, with a corner between them."""

    def setUp(self) -> None:
        b = self.bench = Workbench(frame="zones")
        self.sheet = next(iter(b.project.sheets))
        self.type = next(iter(b.project.wire_types.values()))
        b.place("lamp", 20, 20)
        b.place("lamp", 60, 40, rotation=90)
        b.wire((24, 20), (60, 20), (60, 40), type_id=self.type.id)

    def numbers(self, where: str) -> list[Text]:
        self.bench.project.load("wire_type", [replace(self.type, number_at=where)])
        items = sheet_scene(self.bench.project, self.sheet).items.values()
        found = [prim for item in items if item.kind == "number" for prim in item.placed()]
        return [prim for prim in found if isinstance(prim, Text)]

    def test_in_the_middle_it_is_there_once_at_the_longest_stroke(self) -> None:
        (number,) = self.numbers("middle")
        self.assertTrue(24 * GRID_MM < number.x < 60 * GRID_MM, number)
        self.assertAlmostEqual(20 * GRID_MM, number.y, delta=2.0)

    def test_at_the_ends_it_is_there_at_each_pin_and_at_no_corner(self) -> None:
        found = self.numbers("ends")
        self.assertEqual(2, len(found))
        self.assertEqual(1, len({number.words for number in found}))
        level, upright = sorted(found, key=lambda t: t.x)
        self.assertEqual(
            (24 * GRID_MM + 0.8, "start"), (level.x, level.anchor), "beside the pin it leaves to the right"
        )
        self.assertAlmostEqual(20 * GRID_MM - 0.8, level.y)
        self.assertAlmostEqual(60 * GRID_MM + 0.8, upright.x)
        self.assertLess(upright.y, 40 * GRID_MM, "above the pin it comes to from above")

    def test_hidden_it_is_nowhere(self) -> None:
        self.assertEqual([], self.numbers("hidden"))

    def test_a_stroke_too_short_for_two_numbers_has_none_at_its_ends(self) -> None:
        b = self.bench
        b.place("lamp", 20, 80)
        b.place("lamp", 26, 80)
        b.wire((24, 80), (26, 80), type_id=self.type.id)
        self.assertEqual(2, len(self.numbers("ends")), "only those of the long wire")
