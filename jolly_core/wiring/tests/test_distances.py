"""How far the ends of wires are from each other along a net, whether it is drawn with rings or without."""

from __future__ import annotations

from collections import defaultdict
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.wiring.connections import Junction, _distances, _Roads, _searched


def net(wires: list[tuple[int, int, int]]) -> _Roads:
    """Return the roads of wires, each from one end to another with its steps."""
    roads: _Roads = defaultdict(list)
    for n, (one, other, steps) in enumerate(wires):
        a, b = ("s", one, 0), ("s", other, 0)
        roads[a].append((b, steps, f"w{n}"))
        roads[b].append((a, steps, f"w{n}"))
    return roads


def node(n: int) -> Junction:
    return "s", n, 0


class Distances(TestCase):
    def test_of_a_tree_and_of_a_ring(self) -> None:
        tree = [(0, 1, 4), (1, 2, 3), (1, 3, 5)]
        self.assertEqual(_distances(net(tree), node(0))[node(3)], (9, "w0"))
        ring = [*tree, (3, 0, 2)]
        self.assertEqual(_distances(net(ring), node(0))[node(3)], (2, "w3"), "the short way round")
        self.assertEqual(_distances(net(ring), node(2))[node(0)], (7, "w1"))

    def test_of_two_wires_between_the_same_ends_the_shorter_counts(self) -> None:
        self.assertEqual(_distances(net([(0, 1, 6), (1, 2, 8), (1, 2, 2)]), node(0))[node(2)], (8, "w0"))
        self.assertEqual(_distances(net([(1, 2, 8), (1, 2, 2)]), node(1))[node(2)], (2, "w1"))

    def test_what_nothing_leads_to_is_not_there(self) -> None:
        self.assertEqual(_distances(net([(0, 1, 4), (5, 6, 1)]), node(0)), {node(0): (0, ""), node(1): (4, "w0")})
        self.assertEqual(_distances(net([(0, 1, 4)]), node(9)), {node(9): (0, "")})

    @given(st.lists(st.tuples(st.integers(0, 9), st.integers(0, 9), st.integers(1, 30)), max_size=16))
    def test_as_by_searching(self, drawn: list[tuple[int, int, int]]) -> None:
        roads = net([(a, b, steps) for a, b, steps in drawn if a != b])
        for start in list(roads):
            found, searched = _distances(roads, start), _searched(roads, start)
            self.assertEqual({k: v[0] for k, v in found.items()}, {k: v[0] for k, v in searched.items()})
