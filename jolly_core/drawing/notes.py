"""The room of free texts on a sheet."""

from __future__ import annotations

from jolly_core.model import Note

from .frame import BoxMm
from .geometry import GRID_MM
from .lines import ADVANCE

LEADING = 1.5  # from one line of a note to the next, of the height of its letters


def note_lines(note: Note) -> list[str]:
    """Return the lines of a note."""
    return note.text.split("\n")


def note_box(note: Note) -> BoxMm:
    """Return left, top, right and bottom of a note as it lies on its sheet, mm.

    Example:
        >>> note_box(Note("n1", "s1", 0, 0, "Hopper", size_mm=5.0))
        (0.0, -5.0, 18.0, 1.6666666666666667)
    """
    lines, size = note_lines(note), note.size_mm
    width = max(map(len, lines)) * size * ADVANCE
    left = {"start": 0.0, "middle": -width / 2, "end": -width}[note.align]
    top, bottom = -size, (len(lines) - 1) * size * LEADING + size / 3
    x, y = note.x * GRID_MM, note.y * GRID_MM
    if note.rotation:  # a quarter against the clock: what was right is up, what was below is right
        return x + top, y - left - width, x + bottom, y - left
    return x + left, y + top, x + left + width, y + bottom
