"""Room on a drawing: where a box goes so that it lies on nothing that is there already. All in mm, y downwards."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from math import cos, radians, sin

from jolly_core.drawing import BoxMm

LineEnds = tuple[float, float, float, float]
SQUARE_MM = 120.0
_Square = tuple[int, int]
AWAY_MM = (6.0, 16.0, 34.0, 60.0, 100.0, 160.0, 240.0, 340.0)
DIRECTIONS = (270, 90, 0, 180, 315, 225, 45, 135, 292, 248, 68, 112, 22, 338, 158, 202)
_UNITS = tuple((cos(radians(angle)), sin(radians(angle))) for angle in DIRECTIONS)


@dataclass(slots=True)
class Room:
    """What is on a drawing: boxes, and lines with the room they want on either side and the boxes about them.

    Both are kept by the squares of a lattice that they touch, so that looking about is quick on a full drawing.
    """

    _boxes: dict[_Square, list[BoxMm]] = field(default_factory=dict)
    _level: dict[_Square, list[BoxMm]] = field(default_factory=dict)
    _lines: dict[_Square, list[tuple[BoxMm, LineEnds, float]]] = field(default_factory=dict)
    _right: float = 0.0
    _top: float = 0.0

    def add_line(self, line: LineEnds, room: float) -> None:
        """Keep a line with so much room on either side."""
        x1, y1, x2, y2 = line
        about = (min(x1, x2) - room, min(y1, y2) - room, max(x1, x2) + room, max(y1, y2) + room)
        if abs(x2 - x1) < 1e-9 or abs(y2 - y1) < 1e-9:
            self._right = max(self._right, about[2])
            for square in _squares(about):  # a level or upright line takes the box about it
                self._level.setdefault(square, []).append(about)
            return
        for square in _squares(about):
            self._lines.setdefault(square, []).append((about, line, room))
        self._right = max(self._right, about[2])

    def keep(self, box: BoxMm) -> None:
        """Keep a box: nothing else goes there."""
        for square in _squares(box):
            self._boxes.setdefault(square, []).append(box)
        self._right, self._top = max(self._right, box[2]), min(self._top, box[1])

    def on_box(self, box: BoxMm) -> bool:
        """Return whether a box lies on one that is there."""
        return any(_meets(box, self._boxes.get(square, ())) for square in _squares(box))

    def free(self, box: BoxMm) -> bool:
        """Return whether a box lies on nothing."""
        left, top, right, bottom = box
        for square in _squares(box):
            if _meets(box, self._boxes.get(square, ())) or _meets(box, self._level.get(square, ())):
                return False
            for (x1, y1, x2, y2), line, room in self._lines.get(square, ()):
                if left < x2 and x1 < right and top < y2 and y1 < bottom and crosses(box, line, room):
                    return False
        return True

    def take(self, x: float, y: float, width: float, height: float, away: Iterable[float] = AWAY_MM) -> BoxMm | None:
        """Find a free box near a point and keep it: the nearest, in the first direction; None where there is none."""
        ways = [(dx, dy, _out(width, height, dx, dy)) for dx, dy in _UNITS]
        for distance in away:
            for dx, dy, out in ways:
                left, top = x + dx * (distance + out) - width / 2, y + dy * (distance + out) - height / 2
                box = (left, top, left + width, top + height)
                if self.free(box):
                    self.keep(box)
                    return box
        return None

    def take_aside(self, width: float, height: float) -> BoxMm:
        """Keep a box right of all that is there: the last resort, at which there is always room."""
        box = (self._right + AWAY_MM[1], self._top, self._right + AWAY_MM[1] + width, self._top + height)
        self.keep(box)
        return box


def _meets(box: BoxMm, others: Iterable[BoxMm]) -> bool:
    left, top, right, bottom = box
    for x1, y1, x2, y2 in others:  # noqa: SIM110  # asked ten thousand times a board, where a generator costs a tenth
        if left < x2 and x1 < right and top < y2 and y1 < bottom:
            return True
    return False


def _squares(box: BoxMm) -> list[_Square]:
    across = range(int(box[0] // SQUARE_MM), int(box[2] // SQUARE_MM) + 1)
    down = range(int(box[1] // SQUARE_MM), int(box[3] // SQUARE_MM) + 1)
    return [(i, j) for i in across for j in down]


def beside(x: float, y: float, width: float, height: float, distance: float, angle_deg: float) -> BoxMm:
    """Return a box in a direction from a point, as far from it as is said; 0 is to the right, 90 down."""
    dx, dy = cos(radians(angle_deg)), sin(radians(angle_deg))
    out = _out(width, height, dx, dy)
    cx, cy = x + dx * (distance + out), y + dy * (distance + out)
    return (cx - width / 2, cy - height / 2, cx + width / 2, cy + height / 2)


def _out(width: float, height: float, dx: float, dy: float) -> float:
    """Return how far out the middle of a box lies so that the box begins at a point, along the way out of it."""
    return min(width / 2 / abs(dx) if abs(dx) > 1e-9 else 1e9, height / 2 / abs(dy) if abs(dy) > 1e-9 else 1e9)


def crosses(box: BoxMm, line: LineEnds, room: float = 0.0) -> bool:
    """Return whether a line, with room on either side, passes through a box (Liang and Barsky)."""
    left, top, right, bottom = box[0] - room, box[1] - room, box[2] + room, box[3] + room
    x1, y1, x2, y2 = line
    if max(x1, x2) <= left or min(x1, x2) >= right or max(y1, y2) <= top or min(y1, y2) >= bottom:
        return False
    low, high = 0.0, 1.0
    for start, step, least, most in ((x1, x2 - x1, left, right), (y1, y2 - y1, top, bottom)):
        if abs(step) < 1e-9:
            if not least < start < most:
                return False
            continue
        one, other = sorted(((least - start) / step, (most - start) / step))
        low, high = max(low, one), min(high, other)
    return low < high
