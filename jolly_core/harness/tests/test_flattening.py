"""Harnesses on their boards: true scale, straight trunk, nothing crosses, what is turned says so."""

from __future__ import annotations

import random
from itertools import combinations
from math import hypot
from unittest import TestCase

from jolly_core.harness import flat, laid, trunk
from jolly_core.harness.flattening import CLEAR_MM, LEAST_DEG, _fanned
from jolly_core.harness.tests.test_harness import made
from jolly_core.harness.tree import BoardPoint, Tree

NODES = 30


def random_tree(chance: random.Random, kind: str) -> Tree:
    """Return a tree of thirty nodes: bushy, long with many short branches, or crowded about few nodes."""
    edges = []
    for n in range(1, NODES):
        to = {
            "bushy": chance.randrange(n),
            "long": max(0, n - chance.randint(1, 3)),
            "crowded": chance.randrange(n) // 6,
        }
        edges.append((to[kind], n, float(chance.randint(20, 900))))
    return made(edges)


def crosses(a: BoardPoint, b: BoardPoint, c: BoardPoint, d: BoardPoint) -> bool:
    """Return whether two segments have a point in common, by the sides their ends lie on."""

    def side(p: BoardPoint, q: BoardPoint, r: BoardPoint) -> int:
        value = (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])
        return 0 if abs(value) < 1e-6 else (1 if value > 0 else -1)

    def within(p: BoardPoint, q: BoardPoint, r: BoardPoint) -> bool:
        return min(p[0], q[0]) - 1e-9 <= r[0] <= max(p[0], q[0]) + 1e-9 and (
            min(p[1], q[1]) - 1e-9 <= r[1] <= max(p[1], q[1]) + 1e-9
        )

    s1, s2, s3, s4 = side(a, b, c), side(a, b, d), side(c, d, a), side(c, d, b)
    if s1 != s2 and s3 != s4:
        return True
    return any(
        s == 0 and within(*ends) for s, ends in ((s1, (a, b, c)), (s2, (a, b, d)), (s3, (c, d, a)), (s4, (c, d, b)))
    )


class Flat(TestCase):
    def check(self, tree: Tree, places: dict[str, BoardPoint]) -> None:
        self.assertEqual(set(places), {n.id for n in tree.nodes})
        for s in tree.segments:
            (ax, ay), (bx, by) = places[s.a_id], places[s.b_id]
            self.assertAlmostEqual(hypot(ax - bx, ay - by), s.length_mm, places=1)
        self.assertEqual(len({places[id][1] for id in trunk(tree)}), 1, "the trunk is straight")
        for one, other in combinations(tree.segments, 2):
            shared = {one.a_id, one.b_id} & {other.a_id, other.b_id}
            a, b, c, d = (places[id] for id in (one.a_id, one.b_id, other.a_id, other.b_id))
            if not shared:
                self.assertFalse(crosses(a, b, c, d), f"{one.id} crosses {other.id}")
                continue
            (node,) = shared
            far = [places[id] for s in (one, other) for id in (s.a_id, s.b_id) if id != node]
            x, y = places[node]
            (ux, uy), (vx, vy) = ((p[0] - x, p[1] - y) for p in far)
            same_way = ux * vx + uy * vy > 0 and abs(ux * vy - uy * vx) < 1e-3 * hypot(ux, uy) * hypot(vx, vy)
            self.assertFalse(same_way, f"{one.id} lies upon {other.id}")

    def test_nothing_crosses_or_overlaps_on_random_trees_of_thirty_nodes(self) -> None:
        chance = random.Random(19)
        for kind in ("bushy", "long", "crowded"):
            for _ in range(100):
                tree = random_tree(chance, kind)
                with self.subTest(kind):
                    self.check(tree, flat(tree))

    def test_nor_where_all_are_fanned_out(self) -> None:
        chance = random.Random(20)
        for kind in ("bushy", "long", "crowded"):
            for _ in range(50):
                tree = random_tree(chance, kind)
                self.check(tree, _fanned(tree, trunk(tree)).places)

    def test_a_branch_in_the_way_is_turned_and_says_so(self) -> None:
        # Upward branches leave nodes 1 and 3, 100 mm apart; a twig of the first leans over to where the second goes up.
        edges = [(0, 1, 2000), (1, 2, 20), (2, 3, 80), (3, 4, 2000), (1, 5, 600), (2, 6, 50), (3, 7, 800)]
        edges += [(5, 8, 300), (5, 9, 350)]
        tree = made([(a, b, float(length)) for a, b, length in edges])
        found = laid(tree)
        self.check(tree, found.places)
        self.assertEqual(found.turned, {"s6"}, "the second branch; the others stand as usual")
        x, y = found.places["n3"]
        self.assertNotAlmostEqual(found.places["n7"][0], x)

    def test_what_has_room_stands_as_usual(self) -> None:
        tree = made([(0, 1, 300), (1, 2, 300), (2, 3, 300), (1, 4, 80), (2, 5, 90), (4, 6, 30)])
        found = laid(tree)
        self.assertEqual(found.turned, set())
        x, y = found.places["n1"]
        self.assertEqual(found.places["n4"], (x, y - 80))
        self.assertGreater(CLEAR_MM, 0)
        self.assertGreater(LEAST_DEG, 0)

    def test_loose_nodes_are_left_out_and_an_empty_harness_lies_nowhere(self) -> None:
        self.assertEqual(flat(made([])), {})
