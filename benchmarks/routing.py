"""The budget of routing: many wires over a plate full of ducts."""

from __future__ import annotations

import random

import numpy
from scipy.sparse import csr_matrix
from scipy.sparse.csgraph import shortest_path

from benchmarks.measure import Result, compare
from jolly_core.cabinet import Network, piece
from jolly_core.cabinet.ways import TURN_MM

PITCH_MM = 100.0
WIDTH_MM = 40.0
BUDGET = 4.0


def lattice(side: int) -> Network:
    """Return a square lattice of ducts with `side` times `side` crossings."""
    reach = PITCH_MM * (side - 1)
    lanes = [piece(f"h{n}", 0, n * PITCH_MM, reach, n * PITCH_MM, WIDTH_MM) for n in range(side)]
    lanes += [piece(f"v{n}", n * PITCH_MM, 0, n * PITCH_MM, reach, WIDTH_MM) for n in range(side)]
    return Network(lanes)


def matrix(side: int) -> csr_matrix:
    """Return the same lattice as a sparse matrix of lengths: a crossing is a stop of either duct, joined by a turn."""
    each = side * side
    ends = [(node, each + node, TURN_MM) for node in range(each)]
    for row in range(side):
        for column in range(side):
            here = row * side + column
            if column + 1 < side:
                ends.append((here, here + 1, PITCH_MM))
            if row + 1 < side:
                ends.append((each + here, each + here + side, PITCH_MM))
    a, b, lengths = numpy.array(ends).T
    return csr_matrix((lengths, (a.astype(int), b.astype(int))), shape=(2 * each, 2 * each))


def routing(wires: int, rounds: int, side: int = 20) -> Result:
    """Measure the routes of many wires against all shortest ways of the same graph by a compiled library."""
    chance = random.Random(7)
    reach = PITCH_MM * (side - 1)
    pins = [tuple((chance.uniform(0, reach), chance.uniform(0, reach)) for _ in range(2)) for _ in range(wires)]
    lengths = matrix(side)
    nearest = [[round(y / PITCH_MM) * side + round(x / PITCH_MM) for x, y in pair] for pair in pins]

    def compiled() -> None:
        _, before = shortest_path(lengths, directed=False, return_predecessors=True)
        rows = [row.data for row in before]
        for source, node in nearest:
            way = [node]
            while node != source:
                node = rows[source][node]
                way.append(node)

    def route() -> None:
        graph = lattice(side)
        for a, b in pins:
            graph.way(graph.ways_in("", a), graph.ways_in("", b))

    return compare(
        f"{wires} wires over {side * side} lane nodes with turns / all pairs",
        compiled,
        route,
        BUDGET,
        rounds,
    )
