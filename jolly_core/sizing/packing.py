"""How thick a bundle of round wires is: the smallest circle that a packing of their sections is found for."""

from __future__ import annotations

from collections.abc import Iterable
from functools import lru_cache
from math import hypot, inf, sqrt

import numpy as np
from numpy.typing import NDArray

# The radius about n equal circles of radius 1, n from 0: the best packings known (R. L. Graham, B. D. Lubachevsky,
# K. J. Nurmela, P. R. J. Östergård, Dense packings of congruent circles in a circle, 1998).
_EQUAL = (
    *(0.0, 1.0, 2.0, 2.1547, 2.4142, 2.7013, 3.0, 3.0, 3.3048, 3.6131),
    *(3.8130, 3.9238, 4.0296, 4.2361, 4.3284, 4.5214, 4.6154, 4.7920, 4.8637, 4.8637),
    *(5.1223, 5.2523, 5.4397, 5.5452, 5.6517, 5.7528, 5.8282, 5.9063, 6.0149, 6.1386),
    *(6.1977, 6.2915, 6.4295, 6.4867, 6.6109, 6.6972, 6.7468, 6.7588, 6.9619, 7.0579),
    *(7.1238, 7.2600, 7.3468, 7.4200, 7.4980, 7.5729, 7.6502, 7.7242, 7.7913, 7.8869),
    *(7.9475, 8.0275, 8.0847, 8.1796, 8.2040, 8.2111, 8.3835, 8.4472, 8.5246, 8.5925),
    8.6463,
)
MOST_PACKED = len(_EQUAL) - 1
BUNDLE_FACTOR = 1.2
# How dear an overlap is, step by step: first the circles find room, then they leave each other alone.
_DEARER = (1.0, 10.0, 1e3, 1e5)
_TRIES = 40  # of each step
_COARSEST = 1000.0  # what is thinner than this part of the thickest finds room between the others
_Places = NDArray[np.float64]


def bundle_diameter_mm(diameters_mm: Iterable[float], *, pack: bool = True) -> float:
    """Return the diameter in mm of a round bundle of wires, never less than the two largest side by side.

    Up to `MOST_PACKED` wires by packing their sections; more, or where packing is not wanted as it would take too
    long, by the rule of thumb: 1.2 times the root of the sum of squares.

    Example:
        >>> [round(bundle_diameter_mm([2.0] * n), 2) for n in (2, 3, 7, 19)]
        [4.0, 4.31, 6.0, 9.73]
    """
    sizes = _sizes(tuple(diameters_mm))
    if pack or _cost(sizes) == 0:
        return _diameter(sizes)
    return _by_thumb(sizes)


def packing_cost(diameters_mm: Iterable[float]) -> float:
    """Return about how many ms packing wires takes: nothing for few or equal ones, infinite for too many."""
    return _cost(_sizes(tuple(diameters_mm)))


def _cost(sizes: tuple[float, ...]) -> float:
    if len(sizes) > MOST_PACKED:
        return inf
    return 0.0 if len(sizes) < 4 or sizes[0] == sizes[-1] else 30.0 + len(sizes)


def bundle_places_mm(diameters_mm: Iterable[float]) -> list[tuple[float, float]]:
    """Return where the middle of each wire of a bundle lies, in their order, so that none overlaps another; mm.

    The middle of the circle about them is at (0, 0). What has hardly a diameter lies as if it had a little. More than
    `MOST_PACKED` lie on a lattice as wide as the thickest.

    Example:
        >>> bundle_places_mm([2.0, 2.0])
        [(-1.0, 0.0), (1.0, 0.0)]
    """
    given = list(diameters_mm)
    least = max(given, default=0.0) / _COARSEST
    if least <= 0:
        return [(0.0, 0.0)] * len(given)
    sizes = tuple(round(max(d, least), 6) for d in given)
    order = sorted(range(len(sizes)), key=lambda n: (-sizes[n], n))
    places = _places(tuple(sizes[n] / 2 for n in order))
    found = dict(zip(order, places, strict=True))
    return [found[n] for n in range(len(sizes))]


@lru_cache(maxsize=1024)
def _places(sizes: tuple[float, ...]) -> tuple[tuple[float, float], ...]:
    if len(sizes) < 2:
        return ((0.0, 0.0),) * len(sizes)
    radii = np.array(sizes)
    spots = _packed_places(radii) if len(sizes) <= MOST_PACKED else _lattice(len(sizes), 2 * sizes[0])
    _, x, y = _circle_about(spots, radii)
    return tuple((round(float(u) - x, 3) + 0.0, round(float(v) - y, 3) + 0.0) for u, v in spots)


def _lattice(count: int, pitch: float) -> _Places:
    """Return the points of a lattice of triangles that are nearest to one of them."""
    reach = int(sqrt(count)) + 2
    steps = range(-reach, reach + 1)
    points = [(pitch * (i + j / 2), pitch * j * sqrt(3) / 2) for i in steps for j in steps]
    return np.array(sorted(points, key=lambda p: (round(hypot(*p), 6), p))[:count])


@lru_cache(maxsize=8192)
def _sizes(diameters_mm: tuple[float, ...]) -> tuple[float, ...]:
    least = max(0.0005, max(diameters_mm, default=0.0) / _COARSEST)
    return tuple(sorted((round(d, 3) for d in diameters_mm if d > least), reverse=True))


@lru_cache(maxsize=8192)
def _by_thumb(sizes: tuple[float, ...]) -> float:
    return max(sizes[0] + sizes[1], BUNDLE_FACTOR * sqrt(sum(d * d for d in sizes)))


@lru_cache(maxsize=8192)
def _diameter(sizes: tuple[float, ...]) -> float:
    if len(sizes) < 3:
        return sum(sizes)
    if len(sizes) > MOST_PACKED:
        return _by_thumb(sizes)
    if len(sizes) == 3:
        return _about_three(*sizes)
    # No thicker than if every wire were as thick as the thickest: a bound that keeps an unlucky packing out.
    equal = sizes[0] * _EQUAL[len(sizes)]
    if sizes[-1] == sizes[0]:
        return equal
    return max(sizes[0] + sizes[1], min(equal, 2 * _packed([d / 2 for d in sizes])))


def _about_three(one: float, other: float, third: float) -> float:
    """Return the diameter of the circle about three that touch each other (Descartes); the first is the largest."""
    pair = one + other
    a, b, c = 2 / one, 2 / other, 2 / third  # curvatures
    if third <= 2 / (a + b - 2 / pair):
        return pair  # it lies in the gap beside the two
    around = a + b + c - 2 * sqrt(a * b + b * c + c * a)
    return max(pair, -2 / around if around < 0 else 0.0)


def _packed(sizes: list[float]) -> float:
    """Return the radius about circles of given radii, the largest first: laid greedily, then drawn together."""
    radii = np.array(sizes)
    return _around(_packed_places(radii), radii)


def _packed_places(radii: _Places) -> _Places:
    """Return where circles lie that none overlaps, in as small a circle as is found."""
    places = _greedy(radii)
    drawn = _drawn_together(places, radii)
    # What overlaps still is spread until nothing does, so that it is a packing.
    one, other = np.triu_indices(len(radii), 1)
    gaps = np.hypot(*(drawn[one] - drawn[other]).T)
    spread = max(1.0, float(((radii[one] + radii[other]) / np.maximum(gaps, 1e-9)).max()))
    return min((places, drawn * spread), key=lambda found: _around(found, radii))


def _greedy(radii: _Places) -> _Places:
    """Lay circles one after the other, each touching two that lie, as near to the middle of the first two as it can."""
    places = np.zeros((len(radii), 2))
    places[0], places[1] = (-radii[1], 0.0), (radii[0], 0.0)
    for n in range(2, len(radii)):
        r = radii[n]
        i, j = np.triu_indices(n, 1)
        away = places[j] - places[i]
        apart = np.hypot(away[:, 0], away[:, 1])
        touch = apart <= radii[i] + radii[j] + 2 * r
        i, j, away, apart = i[touch], j[touch], away[touch], apart[touch]
        a, b = radii[i] + r, radii[j] + r
        along = (a * a - b * b + apart * apart) / (2 * apart)
        aside = np.sqrt(np.maximum(0.0, a * a - along * along))
        unit = away / apart[:, None]
        base, normal = places[i] + unit * along[:, None], np.stack([-unit[:, 1], unit[:, 0]], 1) * aside[:, None]
        spots = np.concatenate([base + normal, base - normal])
        gaps = np.hypot(spots[:, None, 0] - places[None, :n, 0], spots[:, None, 1] - places[None, :n, 1])
        free = spots[(gaps >= radii[:n] + r - 1e-9).all(1)]
        places[n] = free[np.hypot(free[:, 0], free[:, 1]).argmin()]
    return places


def _drawn_together(places: _Places, radii: _Places) -> _Places:
    """Return the circles after the one about them was made smaller, while overlaps became dearer and dearer."""
    count = len(radii)
    i, j = np.triu_indices(count, 1)
    both = radii[i] + radii[j]

    def cost(values: _Places, dear: float) -> tuple[float, _Places]:
        spots, around = values[:-1].reshape(count, 2), values[-1]
        away = spots[i] - spots[j]
        apart = np.hypot(away[:, 0], away[:, 1]) + 1e-12
        over = np.maximum(0.0, both - apart)
        out = np.hypot(spots[:, 0], spots[:, 1]) + 1e-12
        beyond = np.maximum(0.0, out + radii - around)
        push = (-2 * dear * over / apart)[:, None] * away
        slope = (2 * dear * beyond / out)[:, None] * spots
        for axis in (0, 1):
            slope[:, axis] += np.bincount(i, push[:, axis], count) - np.bincount(j, push[:, axis], count)
        total = around + dear * ((over**2).sum() + (beyond**2).sum())
        return float(total), np.append(slope.ravel(), 1 - 2 * dear * beyond.sum())

    from scipy.optimize import minimize  # it takes long to come, and few bundles are packed

    values = np.append(places.ravel(), _around(places, radii))
    for dear in _DEARER:
        found = minimize(cost, values, args=(dear,), jac=True, method="L-BFGS-B", options={"maxiter": _TRIES})
        values = found.x
    spots: _Places = values[:-1].reshape(count, 2)
    return spots


def _around(places: _Places, radii: _Places) -> float:
    """Return the radius of a circle about circles."""
    return _circle_about(places, radii)[0]


def circle_about_mm(places: Iterable[tuple[float, float]], diameters_mm: Iterable[float]) -> float:
    """Return the diameter in mm of a circle about circles at places; 0 about none."""
    spots, radii = np.array(list(places)).reshape(-1, 2), np.array(list(diameters_mm)) / 2
    return round(2 * _around(spots, radii), 3) if len(radii) else 0.0


def _circle_about(places: _Places, radii: _Places) -> tuple[float, float, float]:
    """Return radius and middle of a circle about circles: it is drawn to the farthest one as long as that helps."""
    x = y = 0.0
    step = float(radii.max())
    best = _reach(places, radii, x, y)[0]
    while step > max(1e-4, 1e-6 * best):
        _, far = _reach(places, radii, x, y)
        dx, dy = float(places[far, 0]) - x, float(places[far, 1]) - y
        run = hypot(dx, dy) or 1.0
        u, v = x + dx / run * step, y + dy / run * step
        now = _reach(places, radii, u, v)[0]
        if now < best - 1e-9 * max(1.0, best):
            best, x, y = now, u, v
        else:
            step /= 2
    return best, x, y


def _reach(places: _Places, radii: _Places, x: float, y: float) -> tuple[float, int]:
    reach = np.hypot(places[:, 0] - x, places[:, 1] - y) + radii
    far = int(reach.argmax())
    return float(reach[far]), far
