"""What devices look like from the front: within their outline, whatever their class, size and facts, turned or not."""

from __future__ import annotations

from collections.abc import Sequence
from unittest import TestCase

from hypothesis import example, given, settings
from hypothesis import strategies as st

from jolly_core.library import base_of, part_classes
from jolly_core.model import Part

from ..base.primitives import Circle, Line, Prim, Rect, Text
from ..faces.devices import FACES, face_prims
from ..room.crowding import text_box

OUT_MM = 0.05  # what rounding may add
UNITS = {
    "plc-card": tuple(("di", (str(n), f"{n}+")) for n in range(1, 17)),
    "breaker": tuple(("pole", (f"{n}", f"{n + 1}")) for n in (1, 3, 5)),
    "contactor": (("coil", ("A1", "A2")), *(("pole", (f"{n}", f"{n + 1}")) for n in (1, 3, 5))),
}
RATINGS: dict[str, str] = {
    "setting_min_a": "1.6",
    "setting_max_a": "2.5",
    "output_v": "24",
    "output_a": "10",
    "power_kw": "7.5",
    "slots": "8",
    "colour": "Green, clear",
}
SIZES = st.floats(4.0, 900.0).map(lambda v: round(v, 1))


def a_part(part_class: str, **ratings: str) -> Part:
    """Return a part of a class with the units that are usual for it."""
    units = UNITS.get(base_of(part_class), (("no", ("13", "14")), ("coil", ("A1", "A2"))))
    return Part("p", "Sample", "S-1", part_class, part_class, units=units, ratings=dict(ratings))


def reach(prim: Prim) -> tuple[float, float, float, float]:
    """Return left, top, right and bottom of a primitive of a face."""
    match prim:
        case Rect():
            return prim.x, prim.y, prim.x + prim.width, prim.y + prim.height
        case Circle():
            return prim.cx - prim.radius, prim.cy - prim.radius, prim.cx + prim.radius, prim.cy + prim.radius
        case Line():
            xs, ys = sorted((prim.x1, prim.x2)), sorted((prim.y1, prim.y2))
            return xs[0], ys[0], xs[1], ys[1]
        case Text():
            return text_box(prim)
    raise AssertionError(f"A face has {prim}.")


class Faces(TestCase):
    def within(self, prims: Sequence[Prim], x: float, y: float, width: float, height: float) -> None:
        for prim in prims:
            left, top, right, bottom = reach(prim)
            inside = (
                left >= x - OUT_MM and top >= y - OUT_MM and right <= x + width + OUT_MM
            ) and bottom <= y + height + OUT_MM
            self.assertTrue(inside, f"{prim} reaches out of {x, y, width, height}")

    @settings(max_examples=300, deadline=None)
    @given(st.sampled_from(sorted(part_classes())), SIZES, SIZES, st.booleans())
    @example("plc-rack", 4.0, 4.0, False)
    @example("current-transformer", 60.0, 80.0, True)
    def test_every_face_keeps_within_the_outline_of_its_device(
        self, part_class: str, width: float, height: float, bare: bool
    ) -> None:
        part = a_part(part_class, **({} if bare else RATINGS))
        drawn = face_prims(part, 10.0, 20.0, (width, height))
        self.assertTrue(drawn)
        self.within(drawn, 10.0, 20.0, width, height)

    @settings(max_examples=150, deadline=None)
    @given(st.sampled_from(sorted(FACES)), SIZES, SIZES)
    def test_turned_it_keeps_within_the_outline_turned_and_has_all_of_it_but_for_words(
        self, part_class: str, width: float, height: float
    ) -> None:
        part = a_part(part_class, **RATINGS)
        upright, turned = (face_prims(part, 0, 0, (width, height), turned=way) for way in (False, True))
        shapes = [prim for prim in turned if not isinstance(prim, Text)]
        self.within(shapes, 0.0, 0.0, height, width)
        self.assertEqual([type(p) for p in upright], [type(p) for p in turned])
        self.assertEqual(
            [p.words for p in upright if isinstance(p, Text)], [p.words for p in turned if isinstance(p, Text)]
        )
        first = next(p for p in turned if isinstance(p, (Rect, Circle)))
        straight = next(p for p in upright if isinstance(p, (Rect, Circle)))
        if isinstance(first, Rect) and isinstance(straight, Rect):
            self.assertEqual((straight.height, straight.width), (first.width, first.height))

    @given(st.sampled_from(sorted(FACES)), st.dictionaries(st.sampled_from(sorted(RATINGS)), st.text(max_size=12)))
    @example("plc-rack", {"slots": "eight"})
    @example("plc-rack", {"slots": "²"})
    @example("plc-rack", {"slots": "1e9"})
    @example("plc-rack", {"slots": "-3"})
    @example("plc-rack", {"slots": "nan"})
    def test_facts_that_are_none_stop_no_drawing(self, part_class: str, ratings: dict[str, str]) -> None:
        drawn = face_prims(a_part(part_class, **ratings), 0, 0, (90.0, 120.0))
        self.assertTrue(drawn)
        self.assertLess(len(drawn), 400)

    def test_what_a_part_says_is_seen(self) -> None:
        def words(part_class: str, **ratings: str) -> list[str]:
            prims = face_prims(a_part(part_class, **ratings), 0, 0, (90.0, 120.0))
            return [p.words for p in prims if isinstance(p, Text)]

        self.assertEqual(["1.6-2.5 A"], words("motor-breaker", setting_min_a="1.6", setting_max_a="2.5"))
        self.assertEqual([], words("motor-breaker", setting_min_a="1.6"))
        self.assertEqual(["24 V 10 A"], words("power-supply", output_v="24", output_a="10"))
        self.assertEqual(["24 V"], words("power-supply", output_v="24"))
        self.assertEqual(["7.5 kW"], words("drive", power_kw="7.5"))

    def test_a_cap_has_the_first_colour_that_is_one(self) -> None:
        def tones(colour: str) -> set[str | None]:
            prims = face_prims(a_part("push-button", colour=colour), 0, 0, (30.0, 30.0))
            return {p.tone for p in prims if isinstance(p, Circle)}

        self.assertIn("green", tones("Green"))
        self.assertIn("yellow", tones("bright amber"))
        self.assertIn("case-shade", tones("pink"))

    def test_a_card_has_a_terminal_for_each_channel_and_a_rack_a_plug_for_each_slot(self) -> None:
        card = face_prims(a_part("plc-card"), 0, 0, (40.0, 120.0))
        self.assertEqual(16, sum(isinstance(p, Circle) for p in card))
        rack = face_prims(a_part("plc-rack", slots="6"), 0, 0, (300.0, 120.0))
        self.assertEqual(1 + 6, sum(isinstance(p, Rect) for p in rack))
