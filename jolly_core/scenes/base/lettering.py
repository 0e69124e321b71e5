"""Texts made to fit: smaller, in several lines, or cut with an ellipsis. All lengths in mm."""

from __future__ import annotations

from math import floor

from jolly_core.drawing import ADVANCE

from .primitives import SMALLEST_MM

LINE_PITCH = 1.3  # of lines of one text, as a share of its size


def fit(content: str, width_mm: float, size: float, smallest: float = SMALLEST_MM) -> tuple[str, float]:
    """Return the text and the size at which it stays within a width; shrunk first, then cut with an ellipsis.

    Example:
        >>> fit("Loading auger", 100, 3)
        ('Loading auger', 3)
    """
    if not content:
        return content, size
    wanted = len(content) * ADVANCE * size
    if wanted <= width_mm:
        return content, size
    size = max(smallest, floor(100 * width_mm / (len(content) * ADVANCE)) / 100)
    room = int(width_mm / (ADVANCE * size) + 1e-6)
    return (content if len(content) <= room else content[: max(1, room - 1)] + "…"), size


def lay(
    content: str, width: float, height: float, size: float, smallest: float = SMALLEST_MM
) -> tuple[list[str], float]:
    """Return the lines of a text and the size at which they stay within a cell, mm.

    The text is broken between words, then made smaller, then cut with an ellipsis; a word that is longer than the
    cell is broken. Lines lie LINE_PITCH times the size apart.

    Example:
        >>> lay("Loading auger, power", 30.0, 10.0, 3.0)
        (['Loading auger,', 'power'], 3.0)
    """
    words = content.split()
    if not words:
        return [], size
    while True:
        room, rows = int(width / (ADVANCE * size) + 1e-6), int(height / (LINE_PITCH * size) + 1e-6)
        lines = _broken(words, room) if room > 0 else []
        if lines and len(lines) <= rows:
            return lines, size
        if size <= smallest:
            break
        size = max(smallest, round(size - 0.1, 2))
    rows, room = max(1, rows), max(1, room)
    kept = _broken(words, room)[:rows]
    kept[-1] = kept[-1][: room - 1] + "…" if room > 1 else "…"
    return kept, size


def _broken(words: list[str], room: int) -> list[str]:
    lines = [""]
    for word in words:
        if lines[-1] and len(lines[-1]) + 1 + len(word) <= room:
            lines[-1] += f" {word}"
            continue
        pieces = [word[i : i + room] for i in range(0, len(word), room)]
        if not lines[-1]:
            lines.pop()
        lines += pieces
    return lines
