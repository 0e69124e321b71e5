"""Paths of segments in space: their length, and how tightly they bend. All in mm."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from math import dist, inf

from jolly_core.model import Project, RuleError, Segment

SpacePoint = tuple[float, float, float]
Cubic = tuple[SpacePoint, SpacePoint, SpacePoint, SpacePoint]

# Half of the ten places and weights of Gauss and Legendre on -1..1; the others mirror them.
_GAUSS = (
    (0.1488743389816312, 0.2955242247147529),
    (0.4333953941292472, 0.2692667193099963),
    (0.6794095682990244, 0.2190863625159820),
    (0.8650633666889845, 0.1494513491505806),
    (0.9739065285171717, 0.0666713443086881),
)
_EXACT_MM = 0.001
_DEEPEST = 12
_FIRST = 2
_LOOKS = 64  # at which a curve's bend is looked at, before the tightest is found between them
_GOLDEN = 0.6180339887498949


@dataclass(slots=True, frozen=True)
class Path:
    """Where a segment runs.

    Attributes:
        length_mm: along it, to 0.01 mm.
        bend_mm: its least radius, infinite where it is straight; corners of a polyline are not counted: they are
            formed by hand.
        points: on it, close enough to draw it.
    """

    length_mm: float
    bend_mm: float
    points: tuple[SpacePoint, ...]


def spots(values: Sequence[float]) -> list[SpacePoint]:
    """Return places in space from coordinates that follow each other by threes.

    Raises:
        RuleError: their number is not a multiple of three.
    """
    if len(values) % 3:
        raise RuleError("A place in space has three coordinates: x, y and z.", field="path")
    return [(values[i], values[i + 1], values[i + 2]) for i in range(0, len(values), 3)]


def path_of(project: Project, segment: Segment) -> Path | None:
    """Return the path of a segment, None while its length is typed or one of its ends has no place in space.

    Raises:
        RuleError: its points make no path of its form.
    """
    if segment.form == "typed":
        return None
    ends = [project.nodes[id].at for id in (segment.a_id, segment.b_id)]
    if not all(ends):
        return None
    (a,), (b,) = (spots(end) for end in ends)
    return path_through(segment.form, a, spots(segment.path), b)


def path_through(form: str, a: SpacePoint, between: Sequence[SpacePoint], b: SpacePoint) -> Path:
    """Return the path of a form from one place to another.

    Raises:
        RuleError: a line has something between its ends, or a curve not two control points for each of its pieces.

    Example:
        >>> path_through("polyline", (0, 0, 0), [(300, 0, 0), (300, 200, 0)], (300, 200, 150)).length_mm
        650.0
        >>> path_through("curve", (0, 0, 0), [(0, 55.2285, 0), (44.7715, 100, 0)], (100, 100, 0)).length_mm
        157.1
    """
    check_path(form, len(between))
    chain = [a, *between, b]
    if form != "curve":
        return Path(round(sum(map(dist, chain, chain[1:])), 2), inf, tuple(chain))
    pieces: list[Cubic] = [(chain[i], chain[i + 1], chain[i + 2], chain[i + 3]) for i in range(0, len(chain) - 3, 3)]
    length = sum(_length(p, 0.0, 1.0) for p in pieces)
    points = [a, *(_at(p, n / 16) for p in pieces for n in range(1, 17))]
    return Path(round(length, 2), min(map(_tightest, pieces)), tuple(points))


def check_path(form: str, between: int) -> None:
    """Refuse a path whose points between its ends are not of its form.

    Raises:
        RuleError: a line has something between its ends, or a curve not two control points for each of its pieces.
    """
    if form == "line" and between:
        raise RuleError("A line has nothing between its ends. Choose polyline or curve.", field="form")
    if form == "curve" and between % 3 != 2:
        raise RuleError(
            "A curve has two control points for each of its pieces, and a point between two pieces: 2, 5, 8 … points.",
            field="path",
        )


def _mixed(*terms: tuple[float, SpacePoint]) -> SpacePoint:
    x, y, z = (sum(k * p[i] for k, p in terms) for i in range(3))
    return (x, y, z)


def _at(piece: Cubic, t: float) -> SpacePoint:
    a, b, c, d = piece
    u = 1.0 - t
    return _mixed((u * u * u, a), (3 * u * u * t, b), (3 * u * t * t, c), (t * t * t, d))


def _speed(piece: Cubic, t: float) -> SpacePoint:
    a, b, c, d = piece
    u = 1.0 - t
    return _mixed((-3 * u * u, a), (3 * u * u - 6 * u * t, b), (6 * u * t - 3 * t * t, c), (3 * t * t, d))


def _turning(piece: Cubic, t: float) -> SpacePoint:
    a, b, c, d = piece
    u = 1.0 - t
    return _mixed((6 * u, a), (6 * t - 12 * u, b), (6 * u - 12 * t, c), (6 * t, d))


_NOWHERE: SpacePoint = (0.0, 0.0, 0.0)


def _gauss(piece: Cubic, low: float, high: float) -> float:
    middle, half = (low + high) / 2, (high - low) / 2
    both = (middle + sign * place * half for place, _ in _GAUSS for sign in (-1, 1))
    weights = (weight for _, weight in _GAUSS for _ in (0, 1))
    return half * sum(w * dist(_speed(piece, t), _NOWHERE) for w, t in zip(weights, both, strict=True))


def _length(piece: Cubic, low: float, high: float, depth: int = 0) -> float:
    """Return the arc length of a stretch, halved until halving changes it by less than _EXACT_MM.

    A few halvings come before that is asked: about a sharp turn the whole and its halves may agree by chance.
    """
    middle = (low + high) / 2
    if depth < _FIRST:
        return _length(piece, low, middle, depth + 1) + _length(piece, middle, high, depth + 1)
    whole = _gauss(piece, low, high)
    halves = _gauss(piece, low, middle) + _gauss(piece, middle, high)
    if abs(whole - halves) < _EXACT_MM or depth >= _DEEPEST:
        return halves
    return _length(piece, low, middle, depth + 1) + _length(piece, middle, high, depth + 1)


def _radius(piece: Cubic, t: float) -> float:
    (x, y, z), (p, q, r) = _speed(piece, t), _turning(piece, t)
    cross = dist((y * r - z * q, z * p - x * r, x * q - y * p), _NOWHERE)
    speed = dist((x, y, z), _NOWHERE)
    if speed < 1e-9:
        return 0.0 if cross > 1e-9 else inf
    return speed**3 / cross if cross > 1e-9 * speed**3 else inf


def _tightest(piece: Cubic) -> float:
    """Return the least radius of a piece: the least of many, then by golden section about it."""
    looks = [(_radius(piece, n / _LOOKS), n) for n in range(_LOOKS + 1)]
    best, n = min(looks)
    if best == inf:
        return inf
    low, high = max(0.0, (n - 1) / _LOOKS), min(1.0, (n + 1) / _LOOKS)
    for _ in range(40):
        one, other = high - _GOLDEN * (high - low), low + _GOLDEN * (high - low)
        if _radius(piece, one) < _radius(piece, other):
            high = other
        else:
            low = one
    return round(min(best, _radius(piece, (low + high) / 2)), 2)


def cut_path(
    form: str, a: SpacePoint, between: Sequence[SpacePoint], b: SpacePoint, at_mm: float
) -> tuple[SpacePoint, list[SpacePoint], list[SpacePoint]]:
    """Return where a path is after a length, and what lies between the ends of its two parts.

    Raises:
        RuleError: as `path_through`, or the length is not within it.
    """
    if not 0 < at_mm < path_through(form, a, between, b).length_mm:
        raise RuleError("Choose a place within the segment.", field="at_mm")
    chain = [a, *between, b]
    if form == "curve":
        return _cut_curve(chain, at_mm)
    done = 0.0
    for n, (one, other) in enumerate(zip(chain, chain[1:], strict=False)):
        run = dist(one, other)
        if done + run >= at_mm:
            share = (at_mm - done) / run if run else 0.0
            spot = _mixed((1 - share, one), (share, other))
            return spot, chain[1 : n + 1], chain[n + 1 : -1]
        done += run
    raise RuleError("Choose a place within the segment.", field="at_mm")


def _cut_curve(chain: list[SpacePoint], at_mm: float) -> tuple[SpacePoint, list[SpacePoint], list[SpacePoint]]:
    done = 0.0
    for n in range(0, len(chain) - 3, 3):
        piece = (chain[n], chain[n + 1], chain[n + 2], chain[n + 3])
        whole = _length(piece, 0.0, 1.0)
        if done + whole >= at_mm:
            low, high = 0.0, 1.0
            for _ in range(50):
                middle = (low + high) / 2
                low, high = (middle, high) if _length(piece, 0.0, middle) < at_mm - done else (low, middle)
            first, second = _halves(piece, (low + high) / 2)
            return first[3], [*chain[1 : n + 1], *first[1:3]], [*second[1:3], *chain[n + 3 : -1]]
        done += whole
    raise RuleError("Choose a place within the segment.", field="at_mm")


def _halves(piece: Cubic, t: float) -> tuple[Cubic, Cubic]:
    """Return the two pieces that a piece falls into (de Casteljau)."""
    a, b, c, d = piece

    def mean(one: SpacePoint, other: SpacePoint) -> SpacePoint:
        return _mixed((1 - t, one), (t, other))

    ab, bc, cd = mean(a, b), mean(b, c), mean(c, d)
    abc, bcd = mean(ab, bc), mean(bc, cd)
    spot = mean(abc, bcd)
    return (a, ab, abc, spot), (spot, bcd, cd, d)


def coordinates(points: Iterable[SpacePoint]) -> tuple[float, ...]:
    """Return places as fields hold them: coordinates that follow each other by threes, to 0.001 mm."""
    return tuple(round(v, 3) for spot in points for v in spot)
