"""Wires of one sheet in canonical form.

Terms: a *stroke* is a wire as it was drawn, maybe overlapping others; a *piece* is the part of a stroke between two
neighbouring points at which anything ends. Canonical wires are the longest runs of pieces of one type that nothing
else meets inside. Strokes that merely cross do not connect: only an end or a pin makes a point.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections import defaultdict
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, replace

from jolly_core.model import IdSource, RuleError, Wire

from .geometry import Point


@dataclass(slots=True)
class _WireSpan:
    start: int
    end: int
    wire: Wire
    joined: tuple[Wire, ...] = ()


def normal(wire: Wire) -> Wire:
    """Return the wire with its left or upper end first.

    Raises:
        RuleError: the wire is neither horizontal nor vertical.
    """
    if wire.x1 != wire.x2 and wire.y1 != wire.y2:
        raise RuleError("A wire runs horizontally or vertically: add a corner.", field="points")
    if (wire.x1, wire.y1) <= (wire.x2, wire.y2):
        return wire
    return replace(wire, x1=wire.x2, y1=wire.y2, x2=wire.x1, y2=wire.y1)


def canonical(
    strokes: Iterable[Wire],
    pins: Iterable[Point],
    bodies: Sequence[tuple[Point, Point]],
    ids: IdSource,
    settled: Sequence[Wire] = (),
) -> list[Wire]:
    """Return the strokes of one sheet in canonical form.

    Args:
        strokes: wires in any state; where two overlap, the earlier one's type stands. An empty id marks a new one.
        pins: grid points of all pins and continuation marks of the sheet.
        bodies: spans between the pins of a symbol; whatever lies inside them is cut out.
        ids: gives ids to the additional pieces of a wire that is broken.
        settled: canonical wires on lines that no stroke, pin or body to be looked at has touched; their ends count,
            they are not looked at and not returned.

    Returns:
        Wires of which none has zero length, none overlaps or continues another of its type where nothing else
        meets, and each ends at every pin and every wire end on it. Unchanged wires are the same objects.

    Raises:
        RuleError: a stroke is slanted.

    Notes:
        About n log n in the number of strokes. Applying it twice gives the same as once.
    """
    kept = [normal(w) for w in strokes if (w.x1, w.y1) != (w.x2, w.y2)]
    pin_set = set(pins)
    lines: dict[tuple[bool, int], list[Wire]] = defaultdict(list)
    for wire in kept:
        horizontal = wire.y1 == wire.y2
        lines[horizontal, wire.y1 if horizontal else wire.x1].append(wire)
    if not lines:
        return []
    across, down = _points_by_line([*kept, *settled], pin_set, lines.keys())
    spans: dict[tuple[bool, int], list[tuple[int, int]]] = defaultdict(list)
    for (ax, ay), (bx, by) in bodies:
        if ay == by:
            spans[True, ay].append((ax, bx))
        elif ax == bx:
            spans[False, ax].append((ay, by))

    pieces: dict[tuple[bool, int], list[_WireSpan]] = {}
    meeting: dict[Point, int] = defaultdict(int)
    for w in settled:
        meeting[w.x1, w.y1] += 1
        meeting[w.x2, w.y2] += 1
    for key, wires in lines.items():
        found = _break(wires, (across if key[0] else down)[key[1]], key[0], spans.get(key, ()))
        pieces[key] = found
        for piece in found:
            meeting[_point(key, piece.start)] += 1
            meeting[_point(key, piece.end)] += 1

    result: list[Wire] = []
    used: set[str] = set()
    for key, found in pieces.items():
        result += _join(key, found, meeting, pin_set, used, ids)
    return result


def _points_by_line(
    wires: list[Wire], pins: set[Point], wanted: Collection[tuple[bool, int]]
) -> tuple[dict[int, list[int]], dict[int, list[int]]]:
    points = set(pins)
    for w in wires:
        points.add((w.x1, w.y1))
        points.add((w.x2, w.y2))
    across: dict[int, list[int]] = {line: [] for horizontal, line in wanted if horizontal}
    down: dict[int, list[int]] = {line: [] for horizontal, line in wanted if not horizontal}
    for x, y in points:
        if y in across:
            across[y].append(x)
        if x in down:
            down[x].append(y)
    for values in (*across.values(), *down.values()):
        values.sort()
    return across, down


def _break(wires: list[Wire], stops: list[int], horizontal: bool, bodies: Sequence[tuple[int, int]]) -> list[_WireSpan]:
    pieces: dict[int, _WireSpan] = {}
    for wire in wires:
        start, end = (wire.x1, wire.x2) if horizontal else (wire.y1, wire.y2)
        inside = stops[bisect_left(stops, start) : bisect_right(stops, end)]
        for a, b in zip(inside, inside[1:], strict=False):
            if any(low <= a and b <= high for low, high in bodies):
                continue
            known = pieces.get(a)
            if known is None:
                pieces[a] = _WireSpan(a, b, wire)
            elif known.wire is not wire and known.wire.type_id == wire.type_id:
                known.joined += (wire,)
    return [pieces[a] for a in sorted(pieces)]


def _point(key: tuple[bool, int], along: int) -> Point:
    return (along, key[1]) if key[0] else (key[1], along)


def _join(
    key: tuple[bool, int],
    pieces: list[_WireSpan],
    meeting: dict[Point, int],
    pins: set[Point],
    used: set[str],
    ids: IdSource,
) -> list[Wire]:
    runs: list[list[_WireSpan]] = []
    for piece in pieces:
        if runs:
            last = runs[-1][-1]
            at = _point(key, piece.start)
            same = last.end == piece.start and last.wire.type_id == piece.wire.type_id
            if same and meeting[at] == 2 and at not in pins:
                runs[-1].append(piece)
                continue
        runs.append([piece])
    return [_wire(key, run, used, ids) for run in runs]


def _wire(key: tuple[bool, int], run: list[_WireSpan], used: set[str], ids: IdSource) -> Wire:
    first = run[0]
    if len(run) == 1 and not first.joined and first.wire.id and first.wire.id not in used:
        w = first.wire
        if (w.x1 if key[0] else w.y1) == first.start and (w.x2 if key[0] else w.y2) == first.end:
            used.add(w.id)
            return w
    sources = [w for piece in run for w in (piece.wire, *piece.joined)]
    free = sorted({w.id for w in sources if w.id and w.id not in used})
    id = free[0] if free else ids.new()
    used.add(id)
    number = min((w.number for w in sources if w.number), default="")
    (x1, y1), (x2, y2) = _point(key, run[0].start), _point(key, run[-1].end)
    model = next((w for w in sources if w.id == id), sources[0])
    made = Wire(id, model.sheet_id, x1, y1, x2, y2, sources[0].type_id, number)
    return model if model == made else made


def is_canonical(wires: Sequence[Wire], pins: Iterable[Point], bodies: Sequence[tuple[Point, Point]]) -> bool:
    """Return whether the wires of a sheet are in canonical form already."""
    again = canonical(wires, pins, bodies, IdSource(start_ms=0))
    return sorted(_shape(w) for w in again) == sorted(_shape(w) for w in wires)


def _shape(wire: Wire) -> tuple[int, int, int, int, str, str]:
    return wire.x1, wire.y1, wire.x2, wire.y2, wire.type_id, wire.number
