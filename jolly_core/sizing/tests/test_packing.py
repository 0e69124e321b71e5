"""Bundles of round wires: against exact cases, bounds, and a packing found another way."""

from __future__ import annotations

import random
from math import cos, hypot, inf, pi, sin, sqrt
from unittest import TestCase

from jolly_core.sizing import MOST_PACKED, bundle_diameter_mm, bundle_places_mm, packing_cost

SIZES = (1.4, 1.8, 2.2, 2.7, 3.5)


def shaken(sizes: list[float], chance: random.Random, rounds: int = 400) -> float:
    """Return the diameter about wires that are pulled to the middle and pushed apart, again and again."""
    radii = sorted((d / 2 for d in sizes), reverse=True)
    spread = sqrt(sum(r * r for r in radii))
    turns = [(chance.uniform(0, 2 * pi), spread * sqrt(chance.random())) for _ in radii]
    places = [[q * cos(a), q * sin(a)] for a, q in turns]
    for n in range(rounds):
        for place in places:
            for axis in (0, 1):
                place[axis] *= 1 - 0.02 * (1 - n / rounds)
        for i, one in enumerate(places):
            for j in range(i):
                other = places[j]
                dx, dy = one[0] - other[0], one[1] - other[1]
                apart = hypot(dx, dy) or 1e-9
                push = max(0.0, radii[i] + radii[j] - apart) / apart / 2
                for axis, d in ((0, dx), (1, dy)):
                    one[axis] += d * push
                    other[axis] -= d * push
    pairs = [(i, j) for i in range(len(radii)) for j in range(i)]
    gaps = [(hypot(places[i][0] - places[j][0], places[i][1] - places[j][1]), radii[i] + radii[j]) for i, j in pairs]
    worst = max([1.0, *(both / max(gap, 1e-9) for gap, both in gaps)])
    return 2 * max(hypot(*place) * worst + r for place, r in zip(places, radii, strict=True))


class Packed(TestCase):
    def test_few_wires_exactly(self) -> None:
        for count, ratio in ((2, 2.0), (3, 1 + 2 / sqrt(3)), (4, 1 + sqrt(2)), (7, 3.0), (19, 1 + sqrt(2) + sqrt(6))):
            self.assertAlmostEqual(bundle_diameter_mm([3.0] * count), 3.0 * ratio, 3)
        # Four around a thin one that lies in their middle.
        self.assertAlmostEqual(bundle_diameter_mm([2.0] * 4 + [2 * (sqrt(2) - 1)]), 2 * (1 + sqrt(2)), 2)

    def test_equal_wires_take_more_room_the_more_there_are_and_never_less_than_their_sections(self) -> None:
        found = [bundle_diameter_mm([1.0] * n) for n in range(1, MOST_PACKED + 1)]
        self.assertEqual(found, sorted(found))
        for n, diameter in enumerate(found, 1):
            self.assertGreaterEqual(diameter, sqrt(n))
            self.assertLessEqual(n / diameter**2, 1.0 if n == 1 else 0.83, "no denser than circles can lie")

    def test_bundles_of_2_to_60_wires_against_a_packing_shaken_together(self) -> None:
        """None is more than 2 % thicker than what another way finds, and none is thinner than wires can lie."""
        chance = random.Random(19)
        for count in (2, 4, 6, 9, 13, 18, 24, 33, 46, 60):
            sizes = [chance.choice(SIZES) for _ in range(count)]
            found = bundle_diameter_mm(sizes)
            other = min(shaken(sizes, chance) for _ in range(3 if count < 20 else 1))
            self.assertLessEqual(found, other * 1.02, count)
            self.assertGreaterEqual(found, sqrt(sum(d * d for d in sizes) / 0.91) if count > 6 else 0.0, count)
            first, second, *_ = sorted(sizes, reverse=True)
            self.assertGreaterEqual(found, first + second)

    def test_the_order_of_wires_does_not_matter_and_a_thicker_wire_never_makes_a_thinner_bundle(self) -> None:
        chance = random.Random(4)
        for _ in range(12):
            sizes = [chance.choice(SIZES) for _ in range(chance.randint(3, 12))]
            found = bundle_diameter_mm(sizes)
            self.assertEqual(bundle_diameter_mm(sizes[::-1]), found)
            self.assertGreater(bundle_diameter_mm([*sizes, 6.0]), found)

    def test_more_than_can_be_packed_in_time_go_by_the_rule_of_thumb(self) -> None:
        sizes = [1.0] * 50 + [2.0] * 11
        self.assertEqual(packing_cost(sizes), inf)
        self.assertAlmostEqual(bundle_diameter_mm(sizes), 1.2 * sqrt(50 + 44), 6)

    def test_packing_that_is_not_wanted_is_left_out_where_it_would_take_time(self) -> None:
        mixed = [1.0] * 5 + [2.0] * 4
        self.assertEqual(bundle_diameter_mm(mixed, pack=False), 1.2 * sqrt(5 + 16))
        self.assertLess(bundle_diameter_mm(mixed), bundle_diameter_mm(mixed, pack=False))
        for free in ([2.0] * 19, [1.0, 2.0, 3.0], [2.0]):
            self.assertEqual(packing_cost(free), 0)
            self.assertEqual(bundle_diameter_mm(free, pack=False), bundle_diameter_mm(free))

    def test_wires_without_a_size_or_next_to_none_beside_thick_ones_have_a_place_too(self) -> None:
        self.assertEqual(bundle_places_mm([0.0] * 5), [(0.0, 0.0)] * 5)
        self.assertEqual(bundle_places_mm([]), [])
        for sizes in ([0.0, 0.0, 3.0, 0.0], [0.0001] * 2 + [30.0] * 3, [1e-9, 0.001, 0.0, 0.0004], [600.0, 0.002, 1.0]):
            places = bundle_places_mm(sizes)
            self.assertEqual(len(places), len(sizes))
            self.assertLessEqual(max(hypot(*place) for place in places), sum(sizes))
            self.assertGreaterEqual(bundle_diameter_mm(sizes), max(round(d, 3) for d in sizes))
