"""Canonical wires: worked cases and properties of any strokes."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.drawing import SHIFT, canonical, is_canonical, normal, roots
from jolly_core.model import IdSource, RuleError, Wire

Stroke = tuple[int, int, int, int]


def wires(*strokes: Stroke, types: str = "") -> list[Wire]:
    return [Wire(f"w{i}", "s", *s, types[i] if types else "t") for i, s in enumerate(strokes)]


def spans(found: list[Wire]) -> list[Stroke]:
    return sorted((w.x1, w.y1, w.x2, w.y2) for w in found)


def tidy(strokes: list[Wire], pins: list[tuple[int, int]] | None = None, bodies: object = ()) -> list[Wire]:
    return canonical(strokes, pins or [], list(bodies), IdSource(start_ms=0))  # type: ignore[call-overload]  # empty or spans


class CanonicalTests(TestCase):
    def test_symbol_cuts_the_wire_between_its_pins(self) -> None:
        found = tidy(wires((0, 10, 40, 10)), [(12, 10), (16, 10)], [((12, 10), (16, 10))])
        self.assertEqual(spans(found), [(0, 10, 12, 10), (16, 10, 40, 10)])

    def test_wires_in_line_become_one(self) -> None:
        self.assertEqual(spans(tidy(wires((0, 0, 5, 0), (5, 0, 9, 0), (7, 0, 12, 0)))), [(0, 0, 12, 0)])

    def test_wires_in_line_stay_apart_at_a_pin(self) -> None:
        self.assertEqual(spans(tidy(wires((0, 0, 9, 0)), [(5, 0)])), [(0, 0, 5, 0), (5, 0, 9, 0)])

    def test_wires_of_two_types_in_line_stay_apart(self) -> None:
        found = tidy(wires((0, 0, 5, 0), (5, 0, 9, 0), types="ab"))
        self.assertEqual(spans(found), [(0, 0, 5, 0), (5, 0, 9, 0)])

    def test_of_two_types_upon_each_other_the_earlier_stands(self) -> None:
        found = tidy(wires((0, 0, 10, 0), (5, 0, 15, 0), types="ab"))
        self.assertEqual([(w.x1, w.x2, w.type_id) for w in found], [(0, 10, "a"), (10, 15, "b")])

    def test_an_end_on_a_wire_breaks_it(self) -> None:
        found = tidy(wires((0, 0, 10, 0), (4, 0, 4, 8)))
        self.assertEqual(spans(found), [(0, 0, 4, 0), (4, 0, 4, 8), (4, 0, 10, 0)])

    def test_crossing_wires_do_not_break(self) -> None:
        found = tidy(wires((0, 5, 10, 5), (4, 0, 4, 9)))
        self.assertEqual(spans(found), [(0, 5, 10, 5), (4, 0, 4, 9)])

    def test_two_ends_from_both_sides_stay_a_junction(self) -> None:
        found = tidy(wires((0, 5, 10, 5), (4, 0, 4, 5), (4, 5, 4, 9)))
        self.assertEqual(len(found), 4)
        self.assertEqual(spans(tidy(found)), spans(found))

    def test_zero_length_goes_and_slanted_is_refused(self) -> None:
        self.assertEqual(tidy(wires((3, 3, 3, 3))), [])
        with self.assertRaises(RuleError):
            normal(Wire("w", "s", 0, 0, 3, 4, "t"))

    def test_pieces_keep_number_and_first_id(self) -> None:
        whole = Wire("w", "s", 0, 0, 10, 0, "t", "77")
        found = tidy([whole], [(4, 0), (6, 0)], [((4, 0), (6, 0))])
        self.assertEqual([w.number for w in found], ["77", "77"])
        self.assertEqual(found[0].id, "w")
        self.assertNotEqual(found[1].id, "w")


point = st.tuples(st.integers(0, 12), st.integers(0, 12))


@st.composite
def stroke(draw: st.DrawFn) -> Stroke:
    x, y = draw(point)
    along = draw(st.integers(0, 12))
    return (x, y, along, y) if draw(st.booleans()) else (x, y, x, along)


def lies_on(wire: Wire, stroke: Stroke) -> bool:
    """Return whether a canonical wire shares more than a point with a stroke given left or upper end first."""
    a, b, c, d = stroke
    if b == d == wire.y1 == wire.y2:
        return wire.x1 < c and a < wire.x2
    return a == c == wire.x1 == wire.x2 and wire.y1 < d and b < wire.y2


class CanonicalProperties(TestCase):
    @settings(max_examples=500, deadline=None)
    @given(st.lists(stroke(), max_size=12), st.lists(point, max_size=6))
    def test_any_strokes(self, strokes: list[Stroke], pins: list[tuple[int, int]]) -> None:
        found = tidy(wires(*strokes), pins)
        self.assertTrue(is_canonical(found, pins, []), "applying it twice changes it")
        ends = {p for w in found for p in ((w.x1, w.y1), (w.x2, w.y2))}
        for w in found:
            self.assertNotEqual((w.x1, w.y1), (w.x2, w.y2))
            inside = [
                p
                for p in ends | set(pins)
                if (w.y1 == w.y2 == p[1] and w.x1 < p[0] < w.x2) or (w.x1 == w.x2 == p[0] and w.y1 < p[1] < w.y2)
            ]
            self.assertEqual(inside, [], "a wire runs through an end or a pin")
        covered = {(x, y) for w in found for x in range(w.x1, w.x2 + 1) for y in range(w.y1, w.y2 + 1)}
        drawn = {
            (x, y)
            for a, b, c, d in strokes
            if (a, b) != (c, d)
            for x in range(min(a, c), max(a, c) + 1)
            for y in range(min(b, d), max(b, d) + 1)
        }
        self.assertEqual(covered, drawn, "something appeared or got lost")
        root_of = roots(found)
        for a, b, c, d in strokes:
            if (a, b) == (c, d):
                continue
            on = [w for w in found if lies_on(w, (min(a, c), min(b, d), max(a, c), max(b, d)))]
            self.assertLessEqual(len({root_of[(w.y1 << SHIFT) + w.x1] for w in on}), 1, "a stroke came apart")

    @settings(max_examples=100, deadline=None)
    @given(st.lists(stroke(), max_size=10), st.randoms())
    def test_the_order_of_drawing_does_not_matter(self, strokes: list[Stroke], random: object) -> None:
        other = list(strokes)
        random.shuffle(other)  # type: ignore[attr-defined]  # hypothesis gives a random.Random
        self.assertEqual(spans(tidy(wires(*strokes))), spans(tidy(wires(*other))))
